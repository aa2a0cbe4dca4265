import { z } from 'zod'
import { check, type Problem } from '../units/problem.ts'
import { isEvidence, typeNamed, type AnyRecord, type RecordSet } from './declare.ts'
import { person, time, type Person } from './fields.ts'
import type { Op } from './ops.ts'

/** A fact: what one person's one act did to the document. */
export interface Edit<R extends AnyRecord> {
  /** Made by the client; the same id is the same act, however often it is sent. */
  readonly id: string
  /** What kind of act it was, such as `zone.number` or `undo`. */
  readonly kind: string
  /** Number of the record shapes its ops are written in. */
  readonly schema: number
  /** Who made it: the person's id, and the name as it then was. */
  readonly by: Person
  /** Who had made it, where an owner handed it in for somebody who left the firm. */
  readonly madeFor?: Person | undefined
  /** The maker's clock, UTC. */
  readonly madeAt: string
  /** The changes, in order. */
  readonly ops: readonly Op<R>[]
  /** The edit that this one takes back; only on kind `undo`. */
  readonly undoes?: string | undefined
  /** The undo that this one takes back; only on kind `redo`. */
  readonly redoes?: string | undefined
}

const opShape = z.discriminatedUnion('op', [
  z.strictObject({ op: z.literal('add'), record: z.looseObject({ id: z.string(), type: z.string() }) }),
  z.strictObject({ op: z.literal('remove'), record: z.looseObject({ id: z.string(), type: z.string() }) }),
  z.strictObject({ op: z.literal('set'), id: z.string(), field: z.string(), from: z.json(), to: z.json() }),
])

/** The outer shape of an edit; `readEdit` also checks each record and field. A maker by name alone is of an older build. */
export const editShape = z.strictObject({
  id: z.string().regex(/^[0-9A-Za-z-]{8,40}$/, 'must be an id of 8 to 40 letters, digits and hyphens'),
  kind: z.string().regex(/^[a-z][a-z0-9.-]{1,59}$/, 'must be a word such as zone.label'),
  schema: z.number().int().min(1),
  by: z.union([person, z.string().min(1).max(80)], 'must be a person with id and name'),
  madeFor: person.optional(),
  madeAt: time,
  ops: z.array(opShape).min(1).max(5000),
  undoes: z.string().max(40).optional(),
  redoes: z.string().max(40).optional(),
})

/** An edit as it was kept, with its maker as a person: older builds kept only the name. */
export function withMaker<R extends AnyRecord>(kept: Omit<Edit<R>, 'by'> & { by: Person | string }): Edit<R> {
  return { ...kept, by: typeof kept.by === 'string' ? { id: null, name: kept.by } : kept.by }
}

/** Reads the outer shape of an edit from outside, of whatever number of record shapes. */
export function readShape<R extends AnyRecord>(
  input: unknown,
):
  | { readonly ok: true; readonly edit: Edit<R> }
  | { readonly ok: false; readonly problems: readonly Problem[] } {
  const shape = check(editShape, input)
  return shape.ok ? { ok: true, edit: withMaker(shape.value as unknown as Edit<R>) } : shape
}

/** What is wrong with an edit in the shapes in force, record by record and field by field. */
export function editProblems<R extends AnyRecord>(set: RecordSet, edit: Edit<R>): Problem[] {
  const problems = edit.ops.flatMap((op, index) => opProblems(set, op, `ops.${index}`))
  return problems.length > 0 ? problems : mixedProblems(set, edit)
}

/** What is wrong with one record, in plain words; empty when it is right. */
export function recordProblems(set: RecordSet, record: unknown, root = ''): Problem[] {
  const type = typeof record === 'object' && record !== null && 'type' in record ? String(record.type) : ''
  const declared = Object.hasOwn(set.types, type) ? set.types[type] : undefined
  const schema = set.schemas[type]
  if (!declared || !schema)
    return [
      { path: root, message: `has type "${type}"; known types are ${Object.keys(set.types).join(', ')}` },
    ]
  const result = check<unknown>(schema, record, root)
  if (!result.ok) return result.problems
  const held = record as AnyRecord & Readonly<Record<string, unknown>>
  const fits = typeNamed(set, held.id) === type && (!declared.idBy || declared.idBy(held) === held.id)
  return fits ? [] : [{ path: `${root}.id`, message: `must begin with "${type}:" and fit its record` }]
}

/** A field of a record type, and where the value stands in what was sent. */
export interface FieldAt {
  readonly type: string
  readonly field: string
  readonly root?: string
}

/** What is wrong with `value` as a record type's field, in plain words; empty when it is allowed. */
export function fieldProblems(
  set: RecordSet,
  { type, field, root = '' }: FieldAt,
  value: unknown,
): Problem[] {
  const fields = set.types[type]?.fields ?? {}
  const declared = Object.hasOwn(fields, field) ? fields[field] : undefined
  if (!declared) return [{ path: root || field, message: `is no field of a ${type} that can be set` }]
  if (declared.fixed)
    return [{ path: root || field, message: `is said when the ${type} is made, and is never changed` }]
  const result = check(declared.schema, value, root || field)
  return result.ok ? [] : result.problems
}

/** Whether an edit is evidence: it adds nothing else. */
export function isEvidenceEdit<R extends AnyRecord>(set: RecordSet, edit: Pick<Edit<R>, 'ops'>): boolean {
  return edit.ops.every((op) => op.op === 'add' && isEvidence(set, op.record.type))
}

function opProblems<R extends AnyRecord>(set: RecordSet, op: Op<R>, root: string): Problem[] {
  switch (op.op) {
    case 'add':
      return recordProblems(set, op.record, `${root}.record`)
    case 'remove': {
      const type = typeNamed(set, op.record.id)
      if (!type || type !== op.record.type) return [{ path: root, message: 'names no known kind of record' }]
      if (isEvidence(set, type)) return [evidenceStays(type, 'removed', root)]
      return set.types[type]?.removable
        ? []
        : [{ path: root, message: `the ${type} record cannot be removed` }]
    }
    case 'set': {
      const type = typeNamed(set, op.id)
      if (!type) return [{ path: `${root}.id`, message: 'names no known kind of record' }]
      if (isEvidence(set, type)) return [evidenceStays(type, 'changed', root)]
      if (set.types[type]?.named && (op.field === 'made' || op.field === 'at'))
        return [{ path: op.field, message: `of a ${type} record is who made it and when: it is never set` }]
      return fieldProblems(set, { type, field: op.field, root: op.field }, op.to)
    }
    default:
      return unreachable(op)
  }
}

/** Evidence never conflicts, so it never stands beside what can. */
function mixedProblems<R extends AnyRecord>(set: RecordSet, edit: Edit<R>): Problem[] {
  const some = edit.ops.some((op) => op.op === 'add' && isEvidence(set, op.record.type))
  return some && !isEvidenceEdit(set, edit)
    ? [{ path: 'ops', message: 'must be evidence alone or plan alone: evidence is an edit of its own' }]
    : []
}

function evidenceStays(type: string, what: string, path: string): Problem {
  return { path, message: `a ${type} record is evidence: it is corrected by a later one, never ${what}` }
}

function unreachable(value: never): never {
  throw new RangeError(`editProblems: unknown op ${JSON.stringify(value)}`)
}
