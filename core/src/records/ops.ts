import { sameJson } from '../units/canonical.ts'
import { isEvidence, typeNamed, type AnyRecord, type RecordSet } from './declare.ts'

/** Flat records by id. Values are never changed in place. */
export interface Doc<R extends AnyRecord> {
  /** Number of the record shapes it is written in. */
  readonly schema: number
  /** Every record by its id. */
  readonly records: Readonly<Record<string, R>>
}

/** One elementary change; its JSON form is itself. */
export type Op<R extends AnyRecord> =
  | { readonly op: 'add'; readonly record: R }
  | { readonly op: 'remove'; readonly record: R }
  | {
      readonly op: 'set'
      readonly id: string
      readonly field: string
      readonly from: unknown
      readonly to: unknown
    }

/** Why an edit could not be taken: what its maker saw is no longer so. */
export interface Conflict {
  /** changed: another value stands there; gone: no such record; exists: the id is taken; reference: a link would break. */
  readonly code: 'changed' | 'gone' | 'exists' | 'reference'
  /** Record and field concerned; field is null for a whole record. */
  readonly id: string
  readonly field: string | null
  /** What the edit wanted to be there. */
  readonly yours: unknown
  /** What is there now; null when the record is gone. */
  readonly theirs: unknown
}

/** What applying ops gave: the new document, or what stood against it. */
export type ApplyResult<R extends AnyRecord> =
  | { readonly ok: true; readonly doc: Doc<R>; readonly took: readonly Op<R>[] }
  | { readonly ok: false; readonly conflict: Conflict }

/**
 * Takes an edit's ops onto `doc`, all or none. A value that is still `from` is set; one that is already `to` is left;
 * anything else is a conflict. `took` holds the ops that changed something, as they took effect.
 */
export function applyOps<R extends AnyRecord>(
  set: RecordSet,
  doc: Doc<R>,
  ops: readonly Op<R>[],
): ApplyResult<R> {
  const records: Record<string, R> = { ...doc.records }
  const took: Op<R>[] = []
  for (const op of ops) {
    const step = applyOne(set, records, op)
    if (step === 'took') took.push(op)
    else if (step !== 'left') return { ok: false, conflict: step }
  }
  const broken = brokenReference(set, records, took)
  if (broken) return { ok: false, conflict: broken }
  if (took.length === 0) return { ok: true, doc, took }
  return { ok: true, doc: { schema: doc.schema, records }, took }
}

/** Puts ops of the journal in as they took effect, asking nothing: what an older build took is not judged again. */
export function putOps<R extends AnyRecord>(doc: Doc<R>, ops: readonly Op<R>[]): Doc<R> {
  const records: Record<string, R> = { ...doc.records }
  for (const op of ops) {
    if (op.op === 'add') records[op.record.id] = op.record
    else if (op.op === 'remove') Reflect.deleteProperty(records, op.record.id)
    else {
      const there = records[op.id]
      if (there) records[op.id] = { ...there, [op.field]: op.to }
    }
  }
  return { schema: doc.schema, records }
}

/** The ops that take `took` back, last first. Evidence is left out: it is corrected, never taken back. */
export function invertOps<R extends AnyRecord>(set: RecordSet, took: readonly Op<R>[]): Op<R>[] {
  const inverse: Op<R>[] = []
  for (let index = took.length - 1; index >= 0; index--) {
    const op = took[index]
    if (!op || isEvidence(set, op.op === 'set' ? typeNamed(set, op.id) : op.record.type)) continue
    if (op.op === 'add') inverse.push({ op: 'remove', record: op.record })
    else if (op.op === 'remove') inverse.push({ op: 'add', record: op.record })
    else inverse.push({ op: 'set', id: op.id, field: op.field, from: op.to, to: op.from })
  }
  return inverse
}

/** Splits ops into those that still hold on `doc` and the conflicts of the rest: undo offers to take back what is left. */
export function partOps<R extends AnyRecord>(
  set: RecordSet,
  doc: Doc<R>,
  ops: readonly Op<R>[],
): { readonly holds: Op<R>[]; readonly conflicts: Conflict[] } {
  const holds: Op<R>[] = []
  const conflicts: Conflict[] = []
  for (const op of ops) {
    const result = applyOps(set, doc, [...holds, op])
    if (result.ok) holds.push(op)
    else conflicts.push(result.conflict)
  }
  return { holds, conflicts }
}

function applyOne<R extends AnyRecord>(
  set: RecordSet,
  records: Record<string, R>,
  op: Op<R>,
): 'took' | 'left' | Conflict {
  switch (op.op) {
    case 'add': {
      const there = records[op.record.id]
      if (there)
        return sameFact(set, there, op.record)
          ? 'left'
          : { code: 'exists', id: op.record.id, field: null, yours: op.record, theirs: there }
      records[op.record.id] = op.record
      return 'took'
    }
    case 'remove': {
      const there = records[op.record.id]
      if (!there) return { code: 'gone', id: op.record.id, field: null, yours: null, theirs: null }
      const field = firstDifference(there, op.record)
      if (field) return { code: 'changed', id: there.id, field, yours: null, theirs: valueOf(there, field) }
      Reflect.deleteProperty(records, op.record.id)
      return 'took'
    }
    case 'set': {
      const there = records[op.id]
      if (!there) return { code: 'gone', id: op.id, field: op.field, yours: op.to, theirs: null }
      const now = valueOf(there, op.field)
      if (sameJson(now, op.to)) return 'left'
      if (!sameJson(now, op.from))
        return { code: 'changed', id: op.id, field: op.field, yours: op.to, theirs: now }
      records[op.id] = { ...there, [op.field]: op.to }
      return 'took'
    }
    default:
      return unreachable(op)
  }
}

function brokenReference<R extends AnyRecord>(
  set: RecordSet,
  records: Readonly<Record<string, R>>,
  took: readonly Op<R>[],
): Conflict | null {
  for (const op of took) {
    const record = op.op === 'remove' ? undefined : records[op.op === 'add' ? op.record.id : op.id]
    const found = record && pointsAtNothing(set, records, record)
    if (found) return found
  }
  const removed = new Set(
    took.flatMap((op) => (op.op === 'remove' && !records[op.record.id] ? op.record.id : [])),
  )
  return removed.size === 0 ? null : stillPointedAt(set, records, removed)
}

function pointsAtNothing<R extends AnyRecord>(
  set: RecordSet,
  records: Readonly<Record<string, R>>,
  record: R,
): Conflict | null {
  for (const [field, refers] of set.references[record.type] ?? []) {
    const value = valueOf(record, field)
    const target = refers(value)
    if (target && !records[target])
      return { code: 'reference', id: record.id, field, yours: value, theirs: null }
  }
  return null
}

function stillPointedAt<R extends AnyRecord>(
  set: RecordSet,
  records: Readonly<Record<string, R>>,
  removed: ReadonlySet<string>,
): Conflict | null {
  for (const record of Object.values(records))
    for (const [field, refers] of set.references[record.type] ?? []) {
      const target = refers(valueOf(record, field))
      if (target && removed.has(target))
        return { code: 'reference', id: target, field: null, yours: null, theirs: record.id }
    }
  return null
}

/** Whether two records say the same; who made one and when is the server's to write, so that part may differ. */
function sameFact(set: RecordSet, a: AnyRecord, b: AnyRecord): boolean {
  const declared = set.types[b.type]
  if (!declared?.named || a.type !== b.type) return sameJson(a, b)
  const bare = (record: AnyRecord): Record<string, unknown> =>
    Object.fromEntries(
      Object.entries(record).filter(
        ([key]) => key !== 'made' && key !== 'at' && !declared.times.includes(key),
      ),
    )
  return sameJson(bare(a), bare(b))
}

function firstDifference(a: AnyRecord, b: AnyRecord): string | null {
  const fields = new Set([...Object.keys(a), ...Object.keys(b)])
  for (const field of fields) if (!sameJson(valueOf(a, field), valueOf(b, field))) return field
  return null
}

function valueOf(record: AnyRecord, field: string): unknown {
  return (record as unknown as Record<string, unknown>)[field]
}

function unreachable(value: never): never {
  throw new RangeError(`applyOps: unknown op ${JSON.stringify(value)}`)
}
