import type { JobDocument } from '../job/document.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { TestResult } from '../job/records.ts'
import type { ProofKind } from './table.ts'

/** Proofs that came later than others, those that came together in one list: what was handed over before them is not open again by them. */
const later: readonly (readonly ProofKind[])[] = [['mount', 'home'], ['clears']]

/** A job that was handed over before there were some of the proofs. */
export interface Older {
  /** When it was handed over, ISO 8601. */
  readonly at: string
  /** Proofs that did not exist then. */
  readonly without: ReadonlySet<ProofKind>
}

/** When a job was first handed over, ISO 8601; null for one that was not. */
export function handedOverAt(doc: JobDocument): string | null {
  return evidenceOf(doc, 'fixed-rules')[0]?.at ?? null
}

/**
 * The proofs that a job was handed over without, by lists: a proof that is owed blocks a hand-over, so where none of a list was made
 * there was none yet. Null for a job that was not handed over, or had them all.
 */
export function handedOverOlder(doc: JobDocument): Older | null {
  const at = handedOverAt(doc)
  if (at === null) return null
  const made = new Set(evidenceOf(doc, 'test').flatMap((result) => (result.at <= at ? [result.kind] : [])))
  const without = new Set(later.filter((kinds) => !kinds.some((kind) => made.has(kind))).flat())
  return without.size === 0 ? null : { at, without }
}

/** Whether a proof of these subjects is owed at all: of what was proved and handed over before there was such a proof it is not. */
export function isOwedOf(
  {
    older,
    results,
  }: { readonly older: Older | null; readonly results: ReadonlyMap<string, readonly TestResult[]> },
  subjects: readonly string[],
): (wanted: { readonly kind: ProofKind }) => boolean {
  const proved =
    older !== null &&
    [...results.values()].some((list) =>
      list.some(({ subject, at }) => subjects.includes(subject) && at <= older.at),
    )
  return ({ kind }) => !(proved && older.without.has(kind))
}
