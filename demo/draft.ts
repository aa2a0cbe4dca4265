import {
  applyOps,
  blankDevice,
  blankJob,
  defaultHouseRules,
  emptyDocument,
  heardRecord,
  homeDelay,
  homeVerdict,
  isEvidence,
  loopOps,
  mountNote,
  mountPoints,
  numberAll,
  pinOps,
  proofMethods,
  proofRecord,
  proofRoute,
  readHouse,
  recordsOf,
  SCHEMA,
  startOps,
  targetsOf,
  placesToUnset,
  type Catalogue,
  type Device,
  type Edit,
  type JobDocument,
  type JobInfo,
  type JobRecord,
  type Op,
  type Person,
  type ProofKey,
  type ProofStop,
  type TestResult,
  type Zone,
} from '#core'

/** The moment the demo's evidence is told from; loading the demo shifts it to the present. */
export const REFERENCE = '2026-01-15T12:00:00Z'

/** The demo's people, by name: their ids are those of the firm that the demo is loaded into. */
export const idris: Person = { id: null, name: 'Idris Quayle' }
const morwen: Person = { id: null, name: 'Morwen Tallis' }

/** A demo job being written: by the same edits a person would make, one after the other, each in its maker's name. */
export class Draft {
  doc: JobDocument = emptyDocument
  readonly edits: Edit[] = []
  #count = 0
  #tests = 0
  #clock: string

  constructor(
    readonly catalogue: Catalogue,
    info: Omit<JobInfo, 'id' | keyof typeof blankJob> & Partial<JobInfo>,
    /** When planning began. */
    begun = later(REFERENCE, -9 * 24 * 60),
  ) {
    this.#clock = begun
    const ops = startOps(emptyDocument, catalogue, {
      ...blankJob,
      practice: true,
      ...info,
      id: 'job:main',
      type: 'job',
    })
    this.apply(ops, 'job.start', morwen)
  }

  /** One edit of the plan. */
  apply(ops: readonly Op[], kind = 'job.set', by = idris): this {
    return this.#edit(ops, kind, by, (this.#clock = later(this.#clock, 3)))
  }

  /** Records, evidence in edits of its own at its own time. */
  put(...records: JobRecord[]): this {
    for (const record of records) {
      const op: Op = { op: 'add', record }
      if ('made' in record && isEvidence(record.type))
        this.#edit([op], actOf(record), { id: null, name: record.made.name }, record.at)
      else this.apply([op], `${record.type}.add`)
    }
    return this
  }

  #edit(ops: readonly Op[], kind: string, by: Person, madeAt: string): this {
    if (ops.length === 0) return this
    const result = applyOps(this.doc, ops)
    if (!result.ok) throw new Error(JSON.stringify(result.conflict))
    this.doc = result.doc
    const id = `demo-edit-${String(this.edits.length + 1).padStart(4, '0')}`
    this.edits.push({ id, kind, schema: SCHEMA, by, madeAt, ops: result.took })
    return this
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
    const pins = pinOps(this.doc, this.catalogue, [record.model])
    return this.apply([...pins, { op: 'add', record }], 'device.add')
  }

  /** Describes the premises in words; a line that cannot be read is a fault of the demo. */
  house(text: string): this {
    let count = 0
    const { lines, ops } = readHouse(text, this.doc, () => `h${String((count += 1)).padStart(2, '0')}`)
    const bad = lines.find((line) => !line.ok)
    if (bad) throw new Error(`${bad.text}: ${bad.says}`)
    return this.apply(ops, 'house.words')
  }

  number(): this {
    const opts = { newId: this.#zoneId(), houseRules: defaultHouseRules }
    return this.apply(numberAll(this.doc, this.catalogue, opts).ops, 'zone.number')
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
  enrol(who: Person, from: string): this {
    let minute = 0
    for (const target of targetsOf(this.doc, this.catalogue)) {
      const serial = target.device.sticker
      if (!serial) throw new Error(`${target.device.id} has no sticker`)
      const { sister } = target
      this.put(
        heardRecord(this.doc, {
          id: `heard:${target.id.replace(':', '-')}`,
          target,
          facts: {
            serial,
            family: this.catalogue.get('device', target.device.model)?.family ?? '',
            cause: sister ? 'sister' : 'event',
            loop: sister ? null : (target.loop?.loop ?? null),
            level: sister ? null : 7,
            source: 'practice',
            times: sister ? null : 2,
          },
          decision: 'accepted',
          code: 'accept',
          reason: sister ? 'The ID of its sister zone.' : 'The sticker’s ID.',
          who,
          at: later(from, (minute += 2)),
        }),
      )
      this.apply(loopOps(target), 'zone.set', who)
    }
    return this
  }

  /** Passes every proof that can be made, in the order of the route; what waits for a day to pass goes on waiting. */
  prove(who: Person, from: string): this {
    let minute = 0
    for (let round = 0; round < 3; round++)
      for (const stop of proofRoute(this.doc, this.catalogue, from))
        for (const item of stop.items)
          if (item.state !== 'pass' && item.waits === '')
            this.result(item, who, later(from, (minute += 1)), {
              method: proofMethods(item.kind, item.event)[0] ?? '',
              ...this.#seen(stop, item),
            })
    return this
  }

  /** What somebody saw who looked at a place, or timed a customer coming home well before the delay ended. */
  #seen(
    stop: ProofStop,
    { kind, subject, unsetAt }: ProofKey,
  ): Partial<Pick<TestResult, 'reading' | 'note'>> {
    const job = { doc: this.doc, catalogue: this.catalogue, figures: defaultHouseRules.figures }
    if (kind === 'mount') {
      const points = mountPoints(job, stop, job.figures)
      return { note: mountNote(points, new Set(points.map((point) => point.key)), '') ?? '' }
    }
    const at = placesToUnset(job, subject).find(({ id }) => id === unsetAt)
    if (kind !== 'home' || !at) return {}
    const seconds = Math.round((homeDelay(job, subject) ?? 0) / 2)
    const verdict = homeVerdict(job, subject, { seconds, alarmed: false, slowest: true, at })
    return { reading: seconds, note: verdict?.note ?? '' }
  }

  result(
    key: ProofKey,
    who: Person,
    at: string,
    over: Partial<Pick<TestResult, 'outcome' | 'reading' | 'note' | 'method'>> = {},
  ): this {
    this.#tests += 1
    const made = { id: `test:t${String(this.#tests).padStart(3, '0')}`, who, at }
    const reading = key.kind === 'placement' ? 7 : null
    return this.put(
      proofRecord({ doc: this.doc, catalogue: this.catalogue }, key, {
        made,
        result: { outcome: 'pass', reading, ...over },
      }),
    )
  }

  #zoneId(): () => string {
    let count = recordsOf(this.doc, 'zone').length
    return () => `zone:z${String((count += 1)).padStart(3, '0')}`
  }
}

/** The kind of act by which somebody adds a piece of evidence. */
function actOf(record: JobRecord): string {
  if (record.type === 'heard') return record.decision === 'accepted' ? 'enrol.accept' : 'enrol.refuse'
  const acts: Partial<Record<JobRecord['type'], string>> = {
    test: 'prove.record',
    state: 'state.begin',
    'state-end': 'state.end',
    signoff: 'handover.sign',
  }
  return acts[record.type] ?? `${record.type}.add`
}

/** A moment some minutes after another, in the form that records keep. */
export function later(time: string, minutes: number): string {
  return new Date(Date.parse(time) + minutes * 60_000).toISOString().replace('.000Z', 'Z')
}
