import { z } from 'zod'
import { check, type Problem } from '../units/problem.ts'
import { sameJson } from '../units/canonical.ts'
import type { JobDocument } from './document.ts'
import type { JobRecord, RecordType } from './records.ts'
import { evidenceTypes, pinId, recordSchemas, referencedId, referenceFields, typeOfId } from './records.ts'
import { upgradeEdit } from './upgrades.ts'

/** One elementary change; its JSON form is itself. */
export type Op =
  | { readonly op: 'add'; readonly record: JobRecord }
  | { readonly op: 'remove'; readonly record: JobRecord }
  | {
      readonly op: 'set'
      readonly id: string
      readonly field: string
      readonly from: unknown
      readonly to: unknown
    }

/** A fact: what one person's one act did to the document. */
export interface Edit {
  /** Made by the client; the same id is the same act, however often it is sent. */
  readonly id: string
  /** What kind of act it was, such as `zone.number` or `undo`. */
  readonly kind: string
  /** Number of the record shapes its ops are written in. */
  readonly schema: number
  /** Name of the person who made it. */
  readonly by: string
  /** The maker's clock, UTC. */
  readonly madeAt: string
  /** The changes, in order. */
  readonly ops: readonly Op[]
  /** The edit that this one takes back; only on kind `undo`. */
  readonly undoes?: string | undefined
  /** The undo that this one takes back; only on kind `redo`. */
  readonly redoes?: string | undefined
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

export type ApplyResult =
  | { readonly ok: true; readonly doc: JobDocument; readonly took: readonly Op[] }
  | { readonly ok: false; readonly conflict: Conflict }

const opShape = z.discriminatedUnion('op', [
  z.strictObject({ op: z.literal('add'), record: z.looseObject({ id: z.string(), type: z.string() }) }),
  z.strictObject({ op: z.literal('remove'), record: z.looseObject({ id: z.string(), type: z.string() }) }),
  z.strictObject({ op: z.literal('set'), id: z.string(), field: z.string(), from: z.json(), to: z.json() }),
])

/** The outer shape of an edit; `readEdit` also checks each record and field. */
export const editShape = z.strictObject({
  id: z.string().regex(/^[0-9A-Za-z-]{8,40}$/, 'must be an id of 8 to 40 letters, digits and hyphens'),
  kind: z.string().regex(/^[a-z][a-z0-9.-]{1,59}$/, 'must be a word such as zone.label'),
  schema: z.number().int().min(1),
  by: z.string().min(1).max(80),
  madeAt: z.string().regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, 'must be a UTC time'),
  ops: z.array(opShape).min(1).max(5000),
  undoes: z.string().max(40).optional(),
  redoes: z.string().max(40).optional(),
})

/** Reads an edit from outside, an older shape brought to the one in force: either a whole valid edit, or what is wrong with it, field by field. */
export function readEdit(
  input: unknown,
):
  { readonly ok: true; readonly edit: Edit } | { readonly ok: false; readonly problems: readonly Problem[] } {
  const shape = check(editShape, input)
  if (!shape.ok) return shape
  const sent = shape.value as unknown as Edit
  const upgraded = upgradeEdit(sent)
  // One from a newer version stays as it is: whoever reads it says so.
  const edit = upgraded.ok ? upgraded.value : sent
  const problems = edit.ops.flatMap((op, index) => opProblems(op, `ops.${index}`))
  return problems.length > 0 ? { ok: false, problems } : { ok: true, edit }
}

/** What is wrong with one record, in plain words; empty when it is right. */
export function recordProblems(record: unknown, root = ''): Problem[] {
  const type = typeof record === 'object' && record !== null && 'type' in record ? String(record.type) : ''
  if (!Object.hasOwn(recordSchemas, type))
    return [
      { path: root, message: `has type "${type}"; known types are ${Object.keys(recordSchemas).join(', ')}` },
    ]
  const result = check<unknown>(recordSchemas[type as RecordType], record, root)
  if (!result.ok) return result.problems
  const { id } = record as JobRecord
  return typeOfId(id) === type && (type !== 'pin' || id === pinId((record as { entry: string }).entry))
    ? []
    : [{ path: `${root}.id`, message: `must begin with "${type}:" and fit its record` }]
}

/** What is wrong with `value` as a record type's field, in plain words; empty when it is allowed. */
export function fieldProblems(type: RecordType, field: string, value: unknown, root = ''): Problem[] {
  const shape = recordSchemas[type].shape as Record<string, z.ZodType>
  const schema = Object.hasOwn(shape, field) ? shape[field] : undefined
  if (!schema || field === 'id' || field === 'type')
    return [{ path: root || field, message: `is no field of a ${type} that can be set` }]
  const result = check(schema, value, root || field)
  return result.ok ? [] : result.problems
}

/**
 * Takes an edit's ops onto `doc`, all or none. A value that is still `from` is set; one that is already `to` is left;
 * anything else is a conflict. `took` holds the ops that changed something, as they took effect.
 */
export function applyOps(doc: JobDocument, ops: readonly Op[]): ApplyResult {
  const records: Record<string, JobRecord> = { ...doc.records }
  const took: Op[] = []
  for (const op of ops) {
    const step = applyOne(records, op)
    if (step === 'took') took.push(op)
    else if (step !== 'left') return { ok: false, conflict: step }
  }
  const broken = brokenReference(records, took)
  if (broken) return { ok: false, conflict: broken }
  if (took.length === 0) return { ok: true, doc, took }
  return { ok: true, doc: { schema: doc.schema, records }, took }
}

/** The ops that take `took` back, last first. Evidence is left out: it is corrected, never taken back. */
export function invertOps(took: readonly Op[]): Op[] {
  const inverse: Op[] = []
  for (let index = took.length - 1; index >= 0; index--) {
    const op = took[index]
    if (!op || isEvidence(op)) continue
    if (op.op === 'add') inverse.push({ op: 'remove', record: op.record })
    else if (op.op === 'remove') inverse.push({ op: 'add', record: op.record })
    else inverse.push({ op: 'set', id: op.id, field: op.field, from: op.to, to: op.from })
  }
  return inverse
}

/** Splits ops into those that still hold on `doc` and the conflicts of the rest: undo offers to take back what is left. */
export function partOps(
  doc: JobDocument,
  ops: readonly Op[],
): { readonly holds: Op[]; readonly conflicts: Conflict[] } {
  const holds: Op[] = []
  const conflicts: Conflict[] = []
  for (const op of ops) {
    const result = applyOps(doc, [...holds, op])
    if (result.ok) holds.push(op)
    else conflicts.push(result.conflict)
  }
  return { holds, conflicts }
}

function opProblems(op: Op, root: string): Problem[] {
  switch (op.op) {
    case 'add':
      return recordProblems(op.record, `${root}.record`)
    case 'remove': {
      if (evidenceTypes.has(op.record.type))
        return [
          {
            path: root,
            message: `a ${op.record.type} record is evidence: it is corrected by a later one, never removed`,
          },
        ]
      if (op.record.type === 'job') return [{ path: root, message: 'the job record cannot be removed' }]
      return typeOfId(op.record.id) ? [] : [{ path: root, message: 'names no known kind of record' }]
    }
    case 'set': {
      const type = typeOfId(op.id)
      if (!type) return [{ path: `${root}.id`, message: 'names no known kind of record' }]
      if (evidenceTypes.has(type))
        return [
          {
            path: root,
            message: `a ${type} record is evidence: it is corrected by a later one, never changed`,
          },
        ]
      return fieldProblems(type, op.field, op.to, op.field)
    }
    default:
      return unreachable(op)
  }
}

function applyOne(records: Record<string, JobRecord>, op: Op): 'took' | 'left' | Conflict {
  switch (op.op) {
    case 'add': {
      const there = records[op.record.id]
      if (there)
        return sameJson(there, op.record)
          ? 'left'
          : { code: 'exists', id: op.record.id, field: null, yours: op.record, theirs: there }
      records[op.record.id] = op.record
      return 'took'
    }
    case 'remove': {
      const there = records[op.record.id]
      if (!there) return 'left'
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
      records[op.id] = { ...there, [op.field]: op.to } as JobRecord
      return 'took'
    }
    default:
      return unreachable(op)
  }
}

function brokenReference(records: Readonly<Record<string, JobRecord>>, took: readonly Op[]): Conflict | null {
  const removed = new Set<string>()
  for (const op of took) {
    if (op.op === 'remove') {
      if (!records[op.record.id]) removed.add(op.record.id)
      continue
    }
    const record = records[op.op === 'add' ? op.record.id : op.id]
    if (!record) continue
    for (const field of referenceFields(record.type)) {
      const value = valueOf(record, field)
      const target = referencedId(value)
      if (target && !records[target])
        return { code: 'reference', id: record.id, field, yours: value, theirs: null }
    }
  }
  if (removed.size === 0) return null
  for (const id in records) {
    const record = records[id]
    if (!record) continue
    for (const field of referenceFields(record.type)) {
      const target = referencedId(valueOf(record, field))
      if (target && removed.has(target))
        return { code: 'reference', id: target, field: null, yours: null, theirs: record.id }
    }
  }
  return null
}

function firstDifference(a: JobRecord, b: JobRecord): string | null {
  const fields = new Set([...Object.keys(a), ...Object.keys(b)])
  for (const field of fields) if (!sameJson(valueOf(a, field), valueOf(b, field))) return field
  return null
}

function valueOf(record: JobRecord, field: string): unknown {
  return (record as unknown as Record<string, unknown>)[field]
}

function isEvidence(op: Op): boolean {
  const type = op.op === 'set' ? typeOfId(op.id) : op.record.type
  return type !== null && evidenceTypes.has(type)
}

function unreachable(value: never): never {
  throw new RangeError(`edit: unknown op ${JSON.stringify(value)}`)
}
