import {
  applyOps,
  emptyDocument,
  numberAll,
  pinOps,
  recordsOf,
  startOps,
  type Catalogue,
  type Device,
  type JobDocument,
  type JobInfo,
  type JobRecord,
  type Op,
  type Zone,
} from '#core'

/** The moment the demo's evidence is told from; loading the demo shifts it to the present. */
export const REFERENCE = '2026-01-15T12:00:00Z'

/** A demo job being written: by the same edits a person would make. */
export class Draft {
  doc: JobDocument = emptyDocument
  #count = 0

  constructor(
    readonly catalogue: Catalogue,
    info: Omit<JobInfo, 'id' | 'type'>,
  ) {
    this.apply(startOps(emptyDocument, catalogue, { id: 'job:main', type: 'job', ...info }))
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
      id: `device:${key}`,
      type: 'device',
      model: `device/${model}`,
      room: '',
      position: '',
      deferred: null,
      use: 'none',
      existing: false,
      sticker: null,
      serial: null,
      slot: null,
      user: null,
      order: this.#count,
      ...over,
    }
    return this.apply([...pinOps(this.doc, this.catalogue, [record.model]), { op: 'add', record }])
  }

  number(): this {
    return this.apply(numberAll(this.doc, this.catalogue, this.#zoneId()).ops)
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

  #zoneId(): () => string {
    let count = recordsOf(this.doc, 'zone').length
    return () => `zone:z${String((count += 1)).padStart(3, '0')}`
  }
}
