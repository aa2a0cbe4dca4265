import {
  acceptOps,
  applyOps,
  blankDevice,
  blankJob,
  defaultHouseRules,
  emptyDocument,
  numberAll,
  pinOps,
  proofRoute,
  readHouse,
  recordsOf,
  startOps,
  targetsOf,
  type Catalogue,
  type Device,
  type JobDocument,
  type JobInfo,
  type JobRecord,
  type Op,
  type TestResult,
  type Zone,
} from '#core'

/** The moment the demo's evidence is told from; loading the demo shifts it to the present. */
export const REFERENCE = '2026-01-15T12:00:00Z'

/** A demo job being written: by the same edits a person would make. */
export class Draft {
  doc: JobDocument = emptyDocument
  #count = 0
  #tests = 0

  constructor(
    readonly catalogue: Catalogue,
    info: Omit<JobInfo, 'id' | keyof typeof blankJob> & Partial<JobInfo>,
  ) {
    this.apply(startOps(emptyDocument, catalogue, { ...blankJob, ...info, id: 'job:main', type: 'job' }))
  }

  apply(ops: readonly Op[]): this {
    const result = applyOps(this.doc, ops)
    if (!result.ok) throw new Error(JSON.stringify(result.conflict))
    this.doc = result.doc
    return this
  }

  put(...records: JobRecord[]): this {
    return this.apply(records.map((record): Op => ({ op: 'add', record })))
  }

  device(key: string, model: string, over: Partial<Device> = {}): this {
    this.#count += 1
    const record: Device = {
      ...blankDevice,
      id: `device:${key}`,
      model: `device/${model}`,
      order: this.#count,
      ...over,
    }
    return this.apply([...pinOps(this.doc, this.catalogue, [record.model]), { op: 'add', record }])
  }

  /** Describes the premises in words; a line that cannot be read is a fault of the demo. */
  house(text: string): this {
    let count = 0
    const { lines, ops } = readHouse(text, this.doc, () => `h${String((count += 1)).padStart(2, '0')}`)
    const bad = lines.find((line) => !line.ok)
    if (bad) throw new Error(`${bad.text}: ${bad.says}`)
    return this.apply(ops)
  }

  number(): this {
    return this.apply(
      numberAll(this.doc, this.catalogue, { newId: this.#zoneId(), houseRules: defaultHouseRules }).ops,
    )
  }

  set(id: string, over: Readonly<Record<string, unknown>>): this {
    const record = this.doc.records[id] as unknown as Record<string, unknown>
    return this.apply(
      Object.entries(over).map(([field, to]): Op => ({ op: 'set', id, field, from: record[field], to })),
    )
  }

  zone(device: string, event: string): Zone {
    const zone = recordsOf(this.doc, 'zone').find(
      (item) => item.device === `device:${device}` && item.event === event,
    )
    if (!zone) throw new Error(`no zone for ${device} ${event}`)
    return zone
  }

  /** Learns every zone and slot from its device's sticker, as heard over the air; sister events take that ID too. */
  enrol(by: string, from: string): this {
    let minute = 0
    for (const target of targetsOf(this.doc, this.catalogue)) {
      const serial = target.device.sticker
      if (!serial) throw new Error(`${target.device.id} has no sticker`)
      const source = target.sister ? 'sister' : 'air'
      this.apply(
        acceptOps(target, serial, source, {
          id: `heard:${target.id.replace(':', '-')}`,
          type: 'heard',
          at: later(from, (minute += 2)),
          by,
          serial,
          family: this.catalogue.get('device', target.device.model)?.family ?? '',
          cause: target.sister ? 'sister' : 'event',
          level: target.sister ? null : 7,
          source,
          decision: 'accepted',
          code: 'accept',
          reason: target.sister ? 'The ID of its sister zone.' : 'The sticker’s ID.',
          subject: target.id,
        }),
      )
    }
    return this
  }

  /** Passes every proof that is owed, in the order of the route. */
  prove(by: string, from: string): this {
    let minute = 0
    for (const entry of proofRoute(this.doc, this.catalogue))
      for (const { kind } of entry.items)
        this.result(entry.device.id, kind, { by, at: later(from, (minute += 1)) })
    return this
  }

  result(
    device: string,
    kind: TestResult['kind'],
    over: Partial<TestResult> & { readonly by: string; readonly at: string },
  ): this {
    this.#tests += 1
    return this.put({
      id: `test:t${String(this.#tests).padStart(3, '0')}`,
      type: 'test',
      subject: device,
      kind,
      outcome: 'pass',
      reading: kind === 'placement' ? 7 : null,
      note: '',
      ...over,
    })
  }

  #zoneId(): () => string {
    let count = recordsOf(this.doc, 'zone').length
    return () => `zone:z${String((count += 1)).padStart(3, '0')}`
  }
}

/** A moment some minutes after another, in the form that records keep. */
export function later(time: string, minutes: number): string {
  return new Date(Date.parse(time) + minutes * 60_000).toISOString().replace('.000Z', 'Z')
}
