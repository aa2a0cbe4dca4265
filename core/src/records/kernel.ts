import type { Problem } from '../units/problem.ts'
import {
  authorityProblems,
  handedIn,
  stamped,
  type Arrival,
  type HandedIn,
  type Sender,
} from './authority.ts'
import { isEvidence, typeNamed, type AnyRecord, type RecordSet } from './declare.ts'
import {
  editProblems,
  fieldProblems,
  isEvidenceEdit,
  readShape,
  recordProblems,
  type Edit,
  type FieldAt,
} from './edit.ts'
import type { Person } from './fields.ts'
import { planUndo, replay, undoStacks, type JournalEntry, type UndoPlan, type UndoStacks } from './journal.ts'
import { applyOps, invertOps, partOps, type ApplyResult, type Conflict, type Doc, type Op } from './ops.ts'
import { makeEdit, takeNews, takeRefusal, type Replica, type TrayReason } from './replica.ts'
import { NewerShape, upgradeDocument, upgradeEdit, type Step } from './upgrade.ts'

/** What reading an edit from outside gave. */
type ReadEdit<R extends AnyRecord> =
  /** Whole and valid, in the shapes in force; an older one that held evidence beside a plan is two, evidence first. */
  | { readonly ok: true; readonly edits: readonly Edit<R>[] }
  | { readonly ok: false; readonly code: 'invalid'; readonly problems: readonly Problem[] }
  /** Written in newer shapes: its sender keeps it until this side is newer too. */
  | { readonly ok: false; readonly code: 'newer'; readonly schema: number }

/** Everything that can be done with documents of one set of records; the functions know the set, and nothing of its trade. */
export interface Kernel<R extends AnyRecord> {
  readonly set: RecordSet
  readonly empty: Doc<R>
  applyOps(doc: Doc<R>, ops: readonly Op<R>[]): ApplyResult<R>
  invertOps(took: readonly Op<R>[]): Op<R>[]
  partOps(doc: Doc<R>, ops: readonly Op<R>[]): { readonly holds: Op<R>[]; readonly conflicts: Conflict[] }
  /** Reads an edit from outside, an older shape brought to the one in force on `doc`, where given. */
  readEdit(input: unknown, doc?: Doc<R> | null): ReadEdit<R>
  recordProblems(record: unknown, root?: string): Problem[]
  fieldProblems(at: FieldAt, value: unknown): Problem[]
  isEvidenceEdit(edit: Pick<Edit<R>, 'ops'>): boolean
  isEvidence(type: string | null): boolean
  typeNamed(recordId: string): string | null
  authorityProblems(edit: Edit<R>, who: Sender, undone: Edit<R> | null): Problem[]
  stamped(edit: Edit<R>, arrival: Arrival<R>): Edit<R>
  /** The edit of somebody who left, as an owner hands it in. */
  handedIn(edit: Edit<R>, handed: HandedIn): Edit<R>
  undoStacks(entries: readonly JournalEntry<R>[], who: Person, before?: UndoStacks<R>): UndoStacks<R>
  planUndo(doc: Doc<R>, entry: JournalEntry<R>): UndoPlan<R>
  replay(journal: readonly JournalEntry<R>[], from?: Doc<R>): Doc<R>
  /** The document in the shapes in force; the very same one when it is. One of newer shapes throws. */
  upgraded(doc: Doc<AnyRecord>): Doc<R>
  makeEdit(
    replica: Replica<R>,
    edit: Edit<R>,
  ): { readonly ok: true; readonly replica: Replica<R> } | { readonly ok: false; readonly conflict: Conflict }
  takeNews(replica: Replica<R>, entries: readonly JournalEntry<R>[]): Replica<R>
  takeRefusal(replica: Replica<R>, editId: string, reason: TrayReason): Replica<R>
}

/** Binds a set of records and the steps of its shapes. */
export function kernelOf<R extends AnyRecord>(set: RecordSet, steps: readonly Step[]): Kernel<R> {
  const upgrades = new WeakMap<Doc<AnyRecord>, Doc<R>>()
  return {
    set,
    empty: emptyOf(set),
    applyOps: (doc, ops) => applyOps(set, doc, ops),
    invertOps: (took) => invertOps(set, took),
    partOps: (doc, ops) => partOps(set, doc, ops),
    readEdit(input, doc = null) {
      const shape = readShape<R>(input)
      if (!shape.ok) return { ok: false, code: 'invalid', problems: shape.problems }
      if (shape.edit.schema > set.schema) return { ok: false, code: 'newer', schema: shape.edit.schema }
      const upgraded = upgradeEdit(shape.edit, { steps, target: set.schema }, doc)
      if (!upgraded.ok) return { ok: false, code: 'invalid', problems: lostProblems(upgraded.lost) }
      const edits = apart(set, upgraded.edit, shape.edit.schema)
      const problems = edits.flatMap((edit) => editProblems(set, edit))
      return problems.length > 0 ? { ok: false, code: 'invalid', problems } : { ok: true, edits }
    },
    recordProblems: (record, root) => recordProblems(set, record, root),
    fieldProblems: (at, value) => fieldProblems(set, at, value),
    isEvidenceEdit: (edit) => isEvidenceEdit(set, edit),
    isEvidence: (type) => isEvidence(set, type),
    typeNamed: (recordId) => typeNamed(set, recordId),
    authorityProblems: (edit, who, undone) => authorityProblems(set, edit, who, undone),
    handedIn: (edit, handed) => handedIn(set, edit, handed),
    stamped: (edit, arrival) => stamped(set, edit, arrival),
    undoStacks: (entries, who, before) => undoStacks(set, entries, who, before),
    planUndo: (doc, entry) => planUndo(set, doc, entry),
    replay: (journal, from) => replay(set, steps, journal, from ?? emptyOf(set)),
    upgraded(doc) {
      if (doc.schema === set.schema) return doc as Doc<R>
      if (doc.schema > set.schema) throw new NewerShape(set, doc.schema)
      const known = upgrades.get(doc)
      if (known) return known
      const made = upgradeDocument(doc, steps, set.schema) as Doc<R>
      upgrades.set(doc, made)
      return made
    },
    makeEdit: (replica, edit) => makeEdit(set, replica, edit),
    takeNews: (replica, entries) => takeNews(set, replica, entries),
    takeRefusal: (replica, editId, reason) => takeRefusal(set, replica, editId, reason),
  }
}

/** An edit of an older shape may hold evidence beside a plan: evidence goes first, under its own id. */
function apart<R extends AnyRecord>(set: RecordSet, edit: Edit<R>, was: number): Edit<R>[] {
  const proofs = edit.ops.filter((op) => op.op === 'add' && isEvidence(set, op.record.type))
  if (was === set.schema || proofs.length === 0 || proofs.length === edit.ops.length) return [edit]
  const rest = edit.ops.filter((op) => !proofs.includes(op))
  return [
    { ...edit, ops: proofs },
    { ...edit, id: `${edit.id.slice(0, 38)}-p`, ops: rest },
  ]
}

function lostProblems<R extends AnyRecord>(lost: readonly Op<R>[]): Problem[] {
  return lost.map((op) => ({
    path: op.op === 'set' ? op.field : op.record.id,
    message: 'was made on a page of an older version and has no place any more: make it again here',
  }))
}

function emptyOf<R extends AnyRecord>(set: RecordSet): Doc<R> {
  return Object.freeze({ schema: set.schema, records: Object.freeze({}) })
}
