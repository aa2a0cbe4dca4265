import pack from '../../../demo/packs/world.json' with { type: 'json' }
import { Catalogue } from '../catalogue/catalogue.ts'
import { readPack } from '../catalogue/pack.ts'
import { judge } from '../findings/judge.ts'
import type { Finding } from '../findings/context.ts'
import { emptyDocument, recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps, type Op } from '../job/edit.ts'
import { pinOps, startOps } from '../job/start.ts'
import type { Device, JobInfo, Zone } from '../job/records.ts'
import { aDevice, aJob } from '../job/testing/records.ts'
import { numberAll } from '../zones/number-all.ts'

/** The demo catalogue, for tests that need a real one. */
export const catalogue = ((): Catalogue => {
  const read = readPack(pack)
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return new Catalogue(read.entries)
})()

/** A job under test: built by edits, numbered and judged like a real one. */
export class SmallJob {
  doc: JobDocument
  elsewhere: { serial: string; job: string }[] = []
  #count = 0

  constructor(over: Partial<JobInfo> = {}) {
    const info = aJob({
      panel: 'panel/tarn-40',
      radioFirmware: '1.31',
      entry1: 30,
      entry2: 45,
      exit: 60,
      ...over,
    })
    this.doc = emptyDocument
    this.apply(startOps(this.doc, catalogue, info))
  }

  /** A monitored job on the Morrow 60 with its module receiver, by the usual figures of CP-01. */
  static morrow(over: Partial<JobInfo> = {}): SmallJob {
    const job = new SmallJob({
      region: 'north-america',
      panel: 'panel/morrow-60',
      radioFirmware: null,
      entry1: 30,
      entry2: 30,
      abortWindow: 30,
      ...over,
    })
    return job.receiver('morrow-radio-module')
  }

  apply(ops: readonly Op[]): this {
    const result = applyOps(this.doc, ops)
    if (!result.ok) throw new Error(JSON.stringify(result.conflict))
    this.doc = result.doc
    return this
  }

  receiver(model: string, over: { encryptedOnly?: boolean } = {}): this {
    const record = {
      id: `receiver:${model}`,
      type: 'receiver',
      model: `receiver/${model}`,
      room: 'hall',
      encryptedOnly: false,
      order: 1,
      ...over,
    } as const
    return this.apply([...pinOps(this.doc, catalogue, [record.model]), { op: 'add', record }])
  }

  /** Adds a device of a model; its id is `device:<key>`. */
  add(key: string, model: string, over: Partial<Device> = {}): this {
    this.#count += 1
    const record = aDevice(key, { model: `device/${model}`, room: key, order: this.#count, ...over })
    return this.apply([...pinOps(this.doc, catalogue, [record.model]), { op: 'add', record }])
  }

  number(): this {
    let count = recordsOf(this.doc, 'zone').length
    return this.apply(numberAll(this.doc, catalogue, () => `zone:${(count += 1)}`).ops)
  }

  set(id: string, over: Record<string, unknown>): this {
    const record = this.doc.records[id] as unknown as Record<string, unknown>
    return this.apply(
      Object.entries(over).map(([field, to]) => ({ op: 'set', id, field, from: record[field], to })),
    )
  }

  user(key: string): this {
    return this.apply([{ op: 'add', record: { id: `user:${key}`, type: 'user', name: key, order: 1 } }])
  }

  /** The zone of a device's event. */
  zone(device: string, event?: string): Zone {
    const zone = recordsOf(this.doc, 'zone').find(
      (item) => item.device === `device:${device}` && (!event || item.event === event),
    )
    if (!zone) throw new Error(`no zone for ${device} ${event ?? ''}`)
    return zone
  }

  device(key: string): Device {
    return recordOf(this.doc, 'device', `device:${key}`) as Device
  }

  findings(without?: ReadonlySet<string>): Finding[] {
    return judge(
      { doc: this.doc, catalogue, now: '2026-05-04T09:30:00Z', elsewhere: this.elsewhere },
      without,
    )
  }

  rules(): string[] {
    return this.findings().map((finding) => finding.rule)
  }
}

/** A clean job on the Tarn 40: an everyday door, a window, motions, smoke, gas, pendant, fob and user. */
export function cleanTarn(): SmallJob {
  return new SmallJob()
    .add('porch', 'reedling', { use: 'entry', position: 'front door' })
    .add('study', 'reedling-slim', { use: 'opening', position: 'window' })
    .add('hall', 'stilt-hound', { use: 'on-way' })
    .add('lounge', 'pane-ear', { use: 'opening' })
    .add('landing', 'ember-three')
    .add('kitchen', 'wick')
    .add('bedroom', 'beckon')
    .user('Nell')
    .add('fob', 'quartet-c', { user: 'user:Nell', room: '' })
    .number()
}

/** A clean job on the Morrow 60. */
export function cleanMorrow(): SmallJob {
  return SmallJob.morrow()
    .add('front', 'latchet', { use: 'entry', position: 'door' })
    .add('study', 'latchet-thin', { use: 'opening', position: 'window' })
    .add('hall', 'prowl-pet', { use: 'on-way' })
    .add('attic', 'cinder-trio')
    .add('bedroom', 'callbell')
    .number()
}
