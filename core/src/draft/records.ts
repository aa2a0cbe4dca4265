import { z } from 'zod'
import { entryKinds } from '../catalogue/entry-fields.ts'
import { field, fixed, plan, recordSet, starts, type RecordOf } from '../records/declare.ts'
import { kernelOf } from '../records/kernel.ts'
import { text } from '../records/fields.ts'
import type * as edits from '../records/edit.ts'
import type * as journals from '../records/journal.ts'
import type { Doc, Op } from '../records/ops.ts'
import type * as replicas from '../records/replica.ts'

/*
 * A catalogue entry while somebody describes it: one record per answered question, so that two people who answer different ones
 * do not meet, and each answer says where it was read.
 */

/** Number of the shapes of a draft. */
export const DRAFT_SCHEMA = 1

const draft = plan({
  type: 'draft',
  words: 'draft',
  stage: 'draft',
  may: 'installer',
  removable: false,
  idBy: () => 'draft:main',
  fields: {
    kind: fixed('kind of entry', z.enum(entryKinds)),
    /** The entry that it began like; null for one from nothing. */
    like: fixed('begun like', text(80).nullable()),
    /** The entry that it corrects, which keeps its id; null for a new one. */
    corrects: fixed('what it corrects', text(80).nullable()),
    /** SHA-256 of that entry as it then was: who corrects it later begins from what then stands. */
    fromHash: fixed('as it then was', text(64).nullable()),
  },
})

const answer = plan({
  type: 'answer',
  words: 'answer',
  stage: 'draft',
  may: 'installer',
  removable: true,
  idBy: ({ path }) => `answer:${String(path)}`,
  fields: {
    path: fixed('question', text(60)),
    /** The value as the entry holds it; null where the person says that it is not known, or that there is none. */
    value: field('answer', z.json()),
    /** Where it was read, in free words; empty where nobody said. */
    source: starts('', field('source', text(80))),
  },
})

const declarations = [draft, answer] as const
const draftRecords = recordSet('draft', DRAFT_SCHEMA, declarations)

/** Any record of a draft. */
export type DraftRecord = RecordOf<(typeof declarations)[number]>
/** The facts of a draft. */
export type DraftInfo = RecordOf<typeof draft>
/** An answered question. */
export type Answer = RecordOf<typeof answer>
/** A draft as it stands. */
export type DraftDocument = Doc<DraftRecord>
/** One elementary change of a draft. */
export type DraftOp = Op<DraftRecord>

/** A fact: what one person’s one act did to a draft. */
export type DraftEdit = edits.Edit<DraftRecord>
/** An edit of a draft as it was taken. */
export type DraftJournalEntry = journals.JournalEntry<DraftRecord>
/** What a client holds of a draft. */
export type DraftReplica = replicas.Replica<DraftRecord>

/** What can be done with drafts. */
export const draftKernel = kernelOf<DraftRecord>(draftRecords, [])

/** The facts of a draft; null for an empty document. */
export function draftInfo(doc: DraftDocument): DraftInfo | null {
  const record = doc.records['draft:main']
  return record?.type === 'draft' ? record : null
}

/** The answer to a question; null where it is not answered. */
export function answerTo(doc: DraftDocument, path: string): Answer | null {
  const record = doc.records[`answer:${path}`]
  return record?.type === 'answer' ? record : null
}

/** Answers by their questions. */
export function answersOf(doc: DraftDocument): ReadonlyMap<string, Answer['value']> {
  return new Map(
    Object.values(doc.records).flatMap((record) =>
      record.type === 'answer' ? [[record.path, record.value] as const] : [],
    ),
  )
}

/** Ops that answer a question, or take its answer back; none where it says the same already. */
export function answerOps(doc: DraftDocument, path: string, value: Answer['value'] | undefined): DraftOp[] {
  const there = answerTo(doc, path)
  if (value === undefined) return there ? [{ op: 'remove', record: there }] : []
  if (!there)
    return [{ op: 'add', record: { id: `answer:${path}`, type: 'answer', path, value, source: '' } }]
  if (JSON.stringify(there.value) === JSON.stringify(value)) return []
  return [{ op: 'set', id: there.id, field: 'value', from: there.value, to: value }]
}

/** Ops that say where an answer was read; none where the question is not answered. */
export function sourceOps(doc: DraftDocument, path: string, source: string): DraftOp[] {
  const there = answerTo(doc, path)
  if (!there || there.source === source) return []
  return [{ op: 'set', id: there.id, field: 'source', from: there.source, to: source }]
}
