import { evidenceOf } from '../job/evidence.ts'
import type { JobDocument } from '../job/document.ts'
import type { TestResult } from '../job/records.ts'
import { PANEL } from './copy.ts'

/* A battery that was just put in reads well: what is read in its first day is provisional, and read once more. */

/** How long a battery settles, or charges, before its reading counts, ms: one day of the one or two that are usual. */
const SETTLES_MS = 24 * 3_600_000

const kept = new WeakMap<JobDocument, ReadonlyMap<string, string>>()

/** When each device, and the panel, was first known to run, ISO 8601: by the first evidence of it. */
function firstKnown(doc: JobDocument): ReadonlyMap<string, string> {
  const known = kept.get(doc)
  if (known) return known
  const map = new Map<string, string>()
  const note = (subject: string, at: string): void => {
    if (at < (map.get(subject) ?? '~')) map.set(subject, at)
  }
  for (const { of, at } of [...evidenceOf(doc, 'heard'), ...evidenceOf(doc, 'test')]) {
    if (of) note(of.device, at)
    note(PANEL, at)
  }
  for (const { at } of evidenceOf(doc, 'held')) note(PANEL, at)
  kept.set(doc, map)
  return map
}

/**
 * From when a passed battery reading can be repeated so that it counts, ISO 8601; null where it counts as it is: it was made a
 * day or more after the device, or the panel, was first known to run. Nobody knows of a time before the first evidence.
 */
export function provisionalUntil(
  doc: JobDocument,
  { kind, subject, outcome, at }: Pick<TestResult, 'kind' | 'subject' | 'outcome' | 'at'>,
): string | null {
  if (kind !== 'battery' || outcome !== 'pass') return null
  const since = firstKnown(doc).get(subject) ?? at
  const from = new Date(Date.parse(since) + SETTLES_MS).toISOString()
  return at < from ? from : null
}
