import type { AnyRecord, RecordSet } from './declare.ts'
import type { Edit } from './edit.ts'
import type { Person } from './fields.ts'
import { applyOps, invertOps, partOps, putOps, type Conflict, type Doc, type Op } from './ops.ts'
import { NewerShape, upgradeDocument, type Step } from './upgrade.ts'

/** Kind of the entry by which a document came to newer shapes; undo stops at it. */
export const UPGRADE = 'upgrade'

/** A taken edit as the journal keeps it: its ops are those that took effect. */
export interface JournalEntry<R extends AnyRecord> {
  /** The document's revision after this edit; the first edit makes revision 1. */
  readonly revision: number
  /** The edit, its ops as they took effect. */
  readonly edit: Edit<R>
  /** The server's clock when it was taken, UTC. */
  readonly takenAt: string
}

/** An undo that can be brought back, with the kind of edit that it took back, where that is still known. */
type RedoEntry<R extends AnyRecord> = JournalEntry<R> & { readonly undid?: string }

/** What a person can take back, and what they can bring back, the next one last. */
export interface UndoStacks<R extends AnyRecord> {
  readonly undo: readonly JournalEntry<R>[]
  readonly redo: readonly RedoEntry<R>[]
}

/** An undo or redo worked out against the document of now. */
export interface UndoPlan<R extends AnyRecord> {
  /** Ops that still hold. */
  readonly ops: readonly Op<R>[]
  /** Fields that someone changed since, which stay as they are. */
  readonly conflicts: readonly Conflict[]
}

/** Nothing to take back. */
export const noUndo: UndoStacks<never> = Object.freeze({ undo: [], redo: [] })

/**
 * What `who` can take back and bring back after these further entries. Undo takes back that person's latest edit not yet
 * undone; redo undoes that undo until they make another edit. Edits of nothing but evidence are passed over: evidence is
 * corrected, not undone. Older shapes are not undone either.
 */
export function undoStacks<R extends AnyRecord>(
  set: RecordSet,
  entries: readonly JournalEntry<R>[],
  who: Person,
  before: UndoStacks<R> = noUndo,
): UndoStacks<R> {
  const undo: JournalEntry<R>[] = [...before.undo]
  const redo: RedoEntry<R>[] = [...before.redo]
  for (const entry of entries) {
    const { edit } = entry
    if (edit.kind === UPGRADE || edit.schema < set.schema) {
      undo.length = 0
      redo.length = 0
    }
    if (edit.kind === UPGRADE || edit.schema < set.schema || edit.by.id !== who.id) continue
    if (edit.undoes !== undefined) {
      const undone = take(undo, edit.undoes)
      redo.push(undone ? { ...entry, undid: undone.edit.kind } : entry)
    } else if (edit.redoes !== undefined) {
      take(redo, edit.redoes)
      undo.push(entry)
    } else if (invertOps(set, edit.ops).length > 0) {
      undo.push(entry)
      redo.length = 0
    }
  }
  return { undo, redo }
}

/** Works out taking `entry` back on `doc`; others' later work stays and shows as conflicts. */
export function planUndo<R extends AnyRecord>(
  set: RecordSet,
  doc: Doc<R>,
  entry: JournalEntry<R>,
): UndoPlan<R> {
  const inverse = invertOps(set, entry.edit.ops)
  const whole = applyOps(set, doc, inverse)
  if (whole.ok) return { ops: whole.took, conflicts: [] }
  const part = partOps(set, doc, inverse)
  return { ops: part.holds, conflicts: part.conflicts }
}

/** The last entry that touched a field, or for field null the record as a whole; null when none did. */
export function lastTouch<R extends AnyRecord>(
  journal: readonly JournalEntry<R>[],
  id: string,
  field: string | null,
): JournalEntry<R> | null {
  for (let index = journal.length - 1; index >= 0; index--) {
    const entry = journal[index]
    if (entry && entry.edit.kind !== UPGRADE && entry.edit.ops.some((op) => touches(op, id, field)))
      return entry
  }
  return null
}

/**
 * Replays a journal. Entries of older shapes are put in raw, as they took effect; where the number of the shapes grows
 * without an upgrade of its own, as early builds let it, the document is brought to it first. Entries in the shapes in
 * force must apply: one that does not throws.
 */
export function replay<R extends AnyRecord>(
  set: RecordSet,
  steps: readonly Step[],
  journal: readonly JournalEntry<R>[],
  from: Doc<R>,
): Doc<R> {
  return journal.reduce((doc, entry) => {
    const { edit } = entry
    if (edit.schema > set.schema) throw new NewerShape(set, edit.schema)
    const start = Object.keys(doc.records).length === 0 ? { ...doc, schema: edit.schema } : doc
    if (edit.kind === UPGRADE) return { ...putOps(start, edit.ops), schema: edit.schema }
    const shaped = edit.schema > start.schema ? (upgradeDocument(start, steps, edit.schema) as Doc<R>) : start
    if (edit.schema < set.schema) return putOps(shaped, edit.ops)
    const result = applyOps(set, shaped, edit.ops)
    if (!result.ok)
      throw new RangeError(
        `replay: revision ${entry.revision} does not apply (${result.conflict.code} ${result.conflict.id})`,
      )
    return result.doc
  }, from)
}

function touches<R extends AnyRecord>(op: Op<R>, id: string, field: string | null): boolean {
  if (op.op !== 'set') return op.record.id === id
  return op.id === id && (field === null || op.field === field)
}

function take<R extends AnyRecord>(stack: JournalEntry<R>[], editId: string): JournalEntry<R> | null {
  const index = stack.findIndex((entry) => entry.edit.id === editId)
  return index < 0 ? null : (stack.splice(index, 1)[0] ?? null)
}
