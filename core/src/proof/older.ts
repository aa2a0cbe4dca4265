import type { JobDocument } from '../job/document.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { TestResult } from '../job/records.ts'
import type { ProofKind } from './table.ts'

/** Proofs that came later than others: what was handed over before them is not open again by them. */
const later: readonly ProofKind[] = ['mount', 'home']

/** When a job was handed over without any of the later proofs: they block a hand-over, so there were none yet; null else. */
export function handedOverOlder(doc: JobDocument): string | null {
  const at = evidenceOf(doc, 'fixed-rules')[0]?.at ?? null
  if (at === null) return null
  const had = evidenceOf(doc, 'test').some((result) => later.includes(result.kind) && result.at <= at)
  return had ? null : at
}

/** Whether a proof of these subjects is owed at all: of what was proved and handed over before there was such a proof it is not. */
export function isOwedOf(
  {
    older,
    results,
  }: { readonly older: string | null; readonly results: ReadonlyMap<string, readonly TestResult[]> },
  subjects: readonly string[],
): (wanted: { readonly kind: ProofKind }) => boolean {
  const proved =
    older !== null &&
    [...results.values()].some((list) =>
      list.some(({ subject, at }) => subjects.includes(subject) && at <= older),
    )
  return ({ kind }) => !(proved && later.includes(kind))
}
