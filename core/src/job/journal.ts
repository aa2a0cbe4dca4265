import type { JobDocument } from './document.ts'
import { emptyDocument } from './document.ts'
import type { Conflict, Edit, Op } from './edit.ts'
import { applyOps, invertOps, partOps } from './edit.ts'

/** A taken edit as the journal keeps it: its ops are those that took effect. */
export interface JournalEntry {
  /** The job's revision after this edit; the first edit makes revision 1. */
  readonly revision: number
  /** The edit, its ops as they took effect. */
  readonly edit: Edit
  /** The server's clock when it was taken, UTC. */
  readonly takenAt: string
}

/** What a person can take back or bring back next; null when there is nothing. */
export interface UndoState {
  readonly undo: JournalEntry | null
  readonly redo: JournalEntry | null
}

/** An undo or redo worked out against the document of now. */
export interface UndoPlan {
  /** Ops that still hold. */
  readonly ops: readonly Op[]
  /** Fields that someone changed since, which stay as they are. */
  readonly conflicts: readonly Conflict[]
}

/**
 * What `by` would take back and bring back next. Undo takes back that person's latest edit not yet undone; redo undoes
 * that undo until they make another edit. Edits of nothing but evidence are passed over: evidence is corrected, not undone.
 */
export function undoState(journal: readonly JournalEntry[], by: string): UndoState {
  const undo: JournalEntry[] = []
  const redo: JournalEntry[] = []
  for (const entry of journal) {
    if (entry.edit.by !== by) continue
    if (entry.edit.undoes !== undefined) {
      take(undo, entry.edit.undoes)
      redo.push(entry)
    } else if (entry.edit.redoes !== undefined) {
      take(redo, entry.edit.redoes)
      undo.push(entry)
    } else if (invertOps(entry.edit.ops).length > 0) {
      undo.push(entry)
      redo.length = 0
    }
  }
  return { undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null }
}

/** Works out taking `entry` back on `doc`; others' later work stays and shows as conflicts. */
export function planUndo(doc: JobDocument, entry: JournalEntry): UndoPlan {
  const inverse = invertOps(entry.edit.ops)
  const whole = applyOps(doc, inverse)
  if (whole.ok) return { ops: whole.took, conflicts: [] }
  const part = partOps(doc, inverse)
  return { ops: part.holds, conflicts: part.conflicts }
}

/** The last entry that touched a field, or for field null the record as a whole; null when none did. */
export function lastTouch(
  journal: readonly JournalEntry[],
  id: string,
  field: string | null,
): JournalEntry | null {
  for (let index = journal.length - 1; index >= 0; index--) {
    const entry = journal[index]
    if (entry?.edit.ops.some((op) => touches(op, id, field))) return entry
  }
  return null
}

/** Replays a journal onto a document (by default the empty one); throws when an entry does not apply. */
export function replay(journal: readonly JournalEntry[], from: JobDocument = emptyDocument): JobDocument {
  return journal.reduce((doc, entry) => {
    const result = applyOps(doc, entry.edit.ops)
    if (!result.ok)
      throw new RangeError(
        `replay: revision ${entry.revision} does not apply (${result.conflict.code} ${result.conflict.id})`,
      )
    return result.doc
  }, from)
}

function touches(op: Op, id: string, field: string | null): boolean {
  if (op.op !== 'set') return op.record.id === id
  return op.id === id && (field === null || op.field === field)
}

function take(stack: JournalEntry[], editId: string): void {
  const index = stack.findIndex((entry) => entry.edit.id === editId)
  if (index >= 0) stack.splice(index, 1)
}
