import { jobInfo, type JobDocument } from './document.ts'
import { evidenceOf } from './evidence.ts'

/**
 * When this job's panel was last brought back to how it came, ISO 8601; empty for never. Nothing that it was given before is in it:
 * no ID, no code, no time of day.
 */
export function wipedAt(doc: JobDocument): string {
  const wiped = evidenceOf(doc, 'held').filter(({ how }) => how === 'wiped')
  // A job of which nothing is said yet has no panel to ask for.
  if (wiped.length === 0) return ''
  const { panel } = jobInfo(doc)
  return wiped.reduce((last, held) => (held.panel === panel && held.at > last ? held.at : last), '')
}
