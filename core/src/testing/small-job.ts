import pack from '../../../demo/packs/world.json' with { type: 'json' }
import { Catalogue } from '../catalogue/catalogue.ts'
import { readPack } from '../catalogue/pack.ts'
import { judge } from '../findings/judge.ts'
import type { JudgeInput } from '../findings/context.ts'
import type { Finding } from '../findings/finding.ts'
import { defaultHouseRules, type HouseRules } from '../house-rules/house-rules.ts'
import { emptyDocument, recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps, type Op } from '../job/edit.ts'
import { learnedSerial } from '../job/enrolment.ts'
import { asItIs } from '../job/evidence.ts'
import { blankArea } from '../job/blank.ts'
import { serveOps } from '../premises/served-areas.ts'
import { pinOps, startOps } from '../job/start.ts'
import type { Area, Device, Heard, JobInfo, Opening, Room, Sight, Way, Zone } from '../job/records.ts'
import { aDevice, aJob, evidenceBy } from '../job/testing/records.ts'
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
  houseRules: HouseRules = defaultHouseRules
  /** What it is judged by. */
  catalogue: Catalogue = catalogue
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

  number(fresh = false): this {
    let count = recordsOf(this.doc, 'zone').length
    return this.apply(
      numberAll(this.doc, catalogue, {
        newId: () => `zone:${(count += 1)}`,
        houseRules: this.houseRules,
        fresh,
      }).ops,
    )
  }

  set(id: string, over: Record<string, unknown>): this {
    const record = this.doc.records[id] as unknown as Record<string, unknown>
    return this.apply(
      Object.entries(over).map(([field, to]) => ({ op: 'set', id, field, from: record[field], to })),
    )
  }

  /** Learns a zone, or a device in its slot, by this ID; null takes it out of the panel again. */
  learn(subject: string, serial: string | null, over: Partial<Heard> = {}): this {
    return this.apply([{ op: 'add', record: this.heard(subject, serial, over) }])
  }

  /** The record of hearing a zone or device, each later than the one before. */
  heard(subject: string, serial: string | null, over: Partial<Heard> = {}): Heard {
    this.#count += 1
    return {
      ...evidenceBy('Idris', new Date(Date.UTC(2026, 4, 4, 8) + this.#count * 60_000).toISOString()),
      id: `heard:${this.#count}`,
      type: 'heard',
      serial: serial ?? learnedSerial(this.doc, subject) ?? '',
      family: 'family/wren',
      cause: 'event',
      loop: null,
      level: 4,
      source: 'display',
      shown: null,
      times: null,
      decision: serial === null ? 'released' : 'accepted',
      code: 'accept',
      reason: '',
      subject,
      of: asItIs(this.doc, subject),
      ...over,
    }
  }

  /** A room of the house; devices are in it by its name. */
  room(name: string, over: Partial<Room> = {}): this {
    const record: Room = {
      id: `room:${name}`,
      type: 'room',
      name,
      floor: '',
      kind: 'living',
      heated: true,
      sleeps: false,
      petKg: null,
      hottestC: null,
      metal: false,
      compartment: '',
      area: null,
      order: recordsOf(this.doc, 'room').length + 1,
      ...over,
    }
    return this.apply([{ op: 'add', record }])
  }

  way(from: string, to: string, metres: number, stairs = false): this {
    const record: Way = {
      id: `way:${from}-${to}`,
      type: 'way',
      from: `room:${from}`,
      to: `room:${to}`,
      metres,
      stairs,
      order: recordsOf(this.doc, 'way').length + 1,
    }
    return this.apply([{ op: 'add', record }])
  }

  opening(name: string, room: string, over: Partial<Opening> = {}): this {
    const record: Opening = {
      id: `opening:${name}`,
      type: 'opening',
      name,
      room: `room:${room}`,
      to: null,
      use: 'everyday',
      inStay: true,
      order: recordsOf(this.doc, 'opening').length + 1,
      ...over,
    }
    return this.apply([{ op: 'add', record }])
  }

  /** What a motion sees besides its own room. */
  sees(device: string, what: { opening?: string; room?: string }): this {
    const record: Sight = {
      id: `sight:${device}-${what.opening ?? what.room ?? ''}`,
      type: 'sight',
      device: `device:${device}`,
      opening: what.opening ? `opening:${what.opening}` : null,
      room: what.room ? `room:${what.room}` : null,
    }
    return this.apply([{ op: 'add', record }])
  }

  /** A second or further area of the panel; `area:1` is there from the start. */
  area(number: number, name: string, over: Partial<Area> = {}): this {
    const record = { ...blankArea, id: `area:${number}`, number, name, order: number, ...over }
    return this.apply([{ op: 'add', record }])
  }

  /** Lets a keypad or fob set and unset just these areas, by number. */
  serves(device: string, ...areas: readonly number[]): this {
    return this.apply(
      serveOps(this.doc, this.device(device), new Set(areas.map((number) => `area:${number}`))),
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

  /** What judging depends on; half past nine of the day on which evidence begins at eight. */
  input(now = '2026-05-04T09:30:00Z'): JudgeInput {
    return {
      doc: this.doc,
      catalogue: this.catalogue,
      now,
      elsewhere: this.elsewhere,
      houseRules: this.houseRules,
    }
  }

  findings(without?: ReadonlySet<string>): Finding[] {
    return judge(this.input(), without)
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

/**
 * A clean job on the Tarn 40 with its house described: porch 4 m hall 6 m kitchen, stairs of 5 m from hall to landing, a
 * store behind the kitchen; a keypad in the hall.
 */
export function cleanHouse(): SmallJob {
  return new SmallJob()
    .room('porch', { kind: 'hall' })
    .room('hall', { kind: 'hall' })
    .room('kitchen', { kind: 'kitchen' })
    .room('landing', { kind: 'hall', floor: 'up' })
    .way('porch', 'hall', 4)
    .way('hall', 'kitchen', 6)
    .way('hall', 'landing', 5, true)
    .opening('front door', 'porch')
    .opening('kitchen window', 'kitchen', { use: 'never' })
    .add('porch', 'reedling', { position: 'front door' })
    .add('kitchen', 'reedling-slim', { position: 'window' })
    .add('hall', 'stilt-hound')
    .add('keypad', 'tapwell-c', { room: 'hall' })
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
    .add('keypad', 'keyplate-w', { room: 'hall' })
    .number()
}
