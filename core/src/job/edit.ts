import * as kernel from '../records/kernel.ts'
import type * as edits from '../records/edit.ts'
import type * as journals from '../records/journal.ts'
import type * as ops from '../records/ops.ts'
import type * as replicas from '../records/replica.ts'
import { jobRecords, type JobRecord, type RecordType } from './records.ts'
import { upgrades } from './upgrades.ts'

/* The kernel bound to the records of a job. */

/** One elementary change of a job. */
export type Op = ops.Op<JobRecord>
/** A fact: what one person's one act did to a job. */
export type Edit = edits.Edit<JobRecord>
/** An edit as it was taken. */
export type JournalEntry = journals.JournalEntry<JobRecord>
/** What one person can take back and bring back. */
export type UndoStacks = journals.UndoStacks<JobRecord>
/** What a client holds of a job. */
export type Replica = replicas.Replica<JobRecord>
/** An edit that waits for its maker’s decision. */
export type TrayItem = replicas.TrayItem<JobRecord>
export type { Conflict } from '../records/ops.ts'

const jobKernel = kernel.kernelOf<JobRecord>(jobRecords, upgrades)

export const {
  applyOps,
  invertOps,

  readEdit,
  recordProblems,
  fieldProblems,

  isEvidence,
  authorityProblems,
  handedIn,
  stamped,
  undoStacks,
  planUndo,
  replay,
  upgraded,
  makeEdit,
  takeNews,
  takeRefusal,
} = jobKernel

/** The type named by a record id, or null when the id names no known type. */
export function typeOfId(recordId: string): RecordType | null {
  return jobKernel.typeNamed(recordId) as RecordType | null
}

/** A set op from the value that stands now. */
export function setOp(record: { readonly id: string }, field: string, to: unknown): Op {
  return { op: 'set', id: record.id, field, from: (record as unknown as Record<string, unknown>)[field], to }
}

/** The op that sets a field where it has another value; none where it has this one. */
export function changeOps(record: { readonly id: string }, field: string, to: unknown): Op[] {
  return (record as unknown as Record<string, unknown>)[field] === to ? [] : [setOp(record, field, to)]
}
