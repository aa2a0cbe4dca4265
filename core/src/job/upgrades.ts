import type { JobDocument } from './document.ts'
import type { Edit, Op } from './edit.ts'
import type { JobRecord } from './records.ts'
import { SCHEMA } from './records.ts'

/** A pure step from one record shape to the next: `upgrades[0]` reads shape 1 and gives shape 2. Kept for good. */
export type Upgrade = (record: Readonly<Record<string, unknown>>) => Record<string, unknown>

/** Shape 2: a device of a takeover says what becomes of it, its year and its last battery. */
const takeovers: Upgrade = (record) =>
  record.type === 'device' ? { plan: null, madeYear: null, batteryAt: null, ...record } : { ...record }

/** Shape 3: premises in words, placement facts, contact switches, common zones and what a panel couples. */
const premises: Upgrade = (record) => ({ ...shape3[String(record.type)], ...record })
const shape3: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  job: {
    exitUnitSwitched: false,
    sirenSeconds: null,
    swinger: null,
    superviseMinutes: null,
    exitBy: null,
    openAtExit: null,
    stayToEntry2: false,
    exitStay: null,
    keySwitch: 'none',
    entryBeeps: null,
    exitBeeps: null,
    outputs: null,
    keysOff: [],
    unheatedFrom: null,
    unheatedTo: null,
  },
  area: { entry1: null, entry2: null, exit: null, exitStay: null },
  device: {
    opening: null,
    via: null,
    mappedOver: null,
    heightM: null,
    gapMm: null,
    onSteel: false,
    storedIn: null,
    setting: null,
  },
  zone: {
    area2: null,
    leaves: null,
    chimeStyle: null,
    dayZone: false,
    reedOn: null,
    terminalsOn: null,
    endOfLineOn: null,
    sirens: null,
    doubleKnock: false,
    fireGroup: null,
    reason: '',
    wiring: null,
    resistorOhm: null,
  },
}

/** The steps so far, from shape 1 on. */
export const upgrades: readonly Upgrade[] = [takeovers, premises]

/** The outcome of reading something that carries a schema number. */
export type Upgraded<T> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly reason: string }

/** Brings a document to the shapes in force; one from a newer version is refused, not guessed at. */
export function upgradeDocument(
  doc: { readonly schema: number; readonly records: Readonly<Record<string, unknown>> },
  steps: readonly Upgrade[] = upgrades,
  target: number = SCHEMA,
): Upgraded<JobDocument> {
  const refusal = refuse(doc.schema, target)
  if (refusal) return { ok: false, reason: refusal }
  if (doc.schema === target) return { ok: true, value: doc as JobDocument }
  const records: Record<string, JobRecord> = {}
  for (const [id, record] of Object.entries(doc.records))
    records[id] = upgradeRecord(record, doc.schema, steps)
  return { ok: true, value: { schema: target, records } }
}

/** Brings an edit's whole records to the shapes in force. A `set` carries one value and is kept: steps must not rename fields. */
export function upgradeEdit(
  edit: Edit,
  steps: readonly Upgrade[] = upgrades,
  target: number = SCHEMA,
): Upgraded<Edit> {
  const refusal = refuse(edit.schema, target)
  if (refusal) return { ok: false, reason: refusal }
  if (edit.schema === target) return { ok: true, value: edit }
  const ops = edit.ops.map((op): Op =>
    op.op === 'set' ? op : { op: op.op, record: upgradeRecord(op.record, edit.schema, steps) },
  )
  return { ok: true, value: { ...edit, schema: target, ops } }
}

function upgradeRecord(record: unknown, from: number, steps: readonly Upgrade[]): JobRecord {
  const upgraded = steps
    .slice(from - 1)
    .reduce((value, step) => step(value), record as Record<string, unknown>)
  return upgraded as unknown as JobRecord
}

function refuse(schema: number, target: number): string | null {
  return schema > target
    ? `it was written by a newer version of Kapelle (shape ${schema}; this one reads up to ${target}): update this one first`
    : null
}
