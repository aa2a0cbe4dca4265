import { sameJson } from '../units/canonical.ts'
import type { AnyRecord, RecordSet } from './declare.ts'
import type { Edit } from './edit.ts'
import type { Doc, Op } from './ops.ts'

/** A record of any shape. */
export type RawRecord = AnyRecord & Readonly<Record<string, unknown>>
type RawSet = Extract<Op<RawRecord>, { op: 'set' }>

/** What a field of an older shape became; null where nothing in the new shape can hold it. */
export type MovedSet = readonly RawSet[] | null

/** A pure step from one number of shapes to the next. Steps are kept for good. */
export interface Step {
  /** The number it leads to. */
  readonly to: number
  /** A whole document: records in the older shape, records in the newer one. */
  records(records: Readonly<Record<string, RawRecord>>): Readonly<Record<string, RawRecord>>
  /** One record that an edit adds or removes, on the document it is for, in the newest shape. */
  record(record: RawRecord, doc: Doc<RawRecord> | null): RawRecord
  /** One `set` of a waiting edit, its `from` too; `edit` is what it stands in. */
  set(op: RawSet, edit: Edit<RawRecord>): MovedSet
}

/** Brings a document to a number of shapes; the very same one when it is there already. */
export function upgradeDocument(doc: Doc<AnyRecord>, steps: readonly Step[], target: number): Doc<AnyRecord> {
  if (doc.schema >= target) return doc
  let records = doc.records as Readonly<Record<string, RawRecord>>
  for (const step of steps) if (step.to > doc.schema && step.to <= target) records = step.records(records)
  return { schema: target, records }
}

/** A document or file of newer shapes: this build says so and leaves it as it is. */
export class NewerShape extends Error {
  constructor(
    set: Pick<RecordSet, 'name' | 'schema'>,
    readonly schema: number,
  ) {
    super(
      `This ${set.name} was written by a newer version of Kapelle (shape ${schema}; this one reads up to ${set.schema}): update this one first. Nothing was changed.`,
    )
  }
}

/** The ordinary ops that bring a document of older shapes to the newer one. */
export function upgradeOps<R extends AnyRecord>(from: Doc<R>, to: Doc<R>): Op<R>[] {
  const ops: Op<R>[] = []
  for (const id in from.records) {
    const old = from.records[id]
    const now = to.records[id]
    if (!old || (now && sameJson(old, now))) continue
    ops.push({ op: 'remove', record: old })
    if (now) ops.push({ op: 'add', record: now })
  }
  for (const id in to.records) {
    const now = to.records[id]
    if (now && !from.records[id]) ops.push({ op: 'add', record: now })
  }
  return ops
}

/** The outcome of bringing a waiting edit to newer shapes. */
export type UpgradedEdit<R extends AnyRecord> =
  | { readonly ok: true; readonly edit: Edit<R> }
  /** What the newer shapes cannot hold; its maker decides. */
  | { readonly ok: false; readonly lost: readonly Op<R>[] }

/** The steps between shapes, and the shape that is wanted. */
export interface Upgrade {
  readonly steps: readonly Step[]
  readonly target: number
}

/** Brings an edit to a number of shapes: records by their step, `set` by the fields' map. */
export function upgradeEdit<R extends AnyRecord>(
  edit: Edit<R>,
  { steps, target }: Upgrade,
  doc: Doc<R> | null,
): UpgradedEdit<R> {
  if (edit.schema >= target) return { ok: true, edit }
  let raw = edit as unknown as Edit<RawRecord>
  const lost: Op<R>[] = []
  for (const step of steps) {
    if (step.to <= edit.schema || step.to > target) continue
    const ops = raw.ops.flatMap((op): Op<RawRecord>[] => {
      if (op.op !== 'set')
        return [{ op: op.op, record: step.record(op.record, doc as Doc<RawRecord> | null) }]
      const moved = step.set(op, raw)
      if (moved === null) lost.push(op)
      return [...(moved ?? [])]
    })
    raw = { ...raw, ops }
  }
  return lost.length > 0
    ? { ok: false, lost }
    : { ok: true, edit: { ...raw, schema: target } as unknown as Edit<R> }
}
