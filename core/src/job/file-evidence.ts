import { isEvidence } from './edit.ts'
import { recordsOf, type JobDocument } from './document.ts'
import type { Heard, TestResult } from './records.ts'

/** What a job file brought of enrolments and proofs that were made elsewhere. */
export interface FileEvidence {
  /** Enrolments, taken out ones and refusals left aside; the earliest first. */
  readonly heard: readonly Heard[]
  /** Results of proofs, the earliest first. */
  readonly tests: readonly TestResult[]
  /** Further pieces: sign-offs, temporary states, panel readings and the like. */
  readonly others: number
}

/**
 * What a job file says was seen elsewhere: it stays on record and counts for nothing until it is repeated here. Null for a job that no
 * file brought anything to.
 */
export function fileEvidence(doc: JobDocument): FileEvidence | null {
  const told = Object.values(doc.records).filter(
    (record) => isEvidence(record.type) && 'made' in record && record.made.told === 'file',
  )
  if (told.length === 0) return null
  const ids = new Set(told.map(({ id }) => id))
  const early = <T extends { readonly at: string }>(list: readonly T[]): readonly T[] =>
    [...list].sort((a, b) => (a.at < b.at ? -1 : 1))
  const heard = recordsOf(doc, 'heard').filter(({ id, decision }) => ids.has(id) && decision === 'accepted')
  const tests = recordsOf(doc, 'test').filter(({ id }) => ids.has(id))
  return { heard: early(heard), tests: early(tests), others: told.length - heard.length - tests.length }
}
