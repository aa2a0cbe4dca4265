import { jobInfo, type JobDocument } from './document.ts'
import { evidenceOf } from './evidence.ts'

/**
 * When this job's panel was last brought back to how it came, ISO 8601; empty for never. Nothing that it was given before is in it:
 * no ID, no code, no time of day.
 */
export function wipedAt(doc: JobDocument): string {
  const { panel } = jobInfo(doc)
  return evidenceOf(doc, 'held').reduce(
    (last, held) => (held.how === 'wiped' && held.panel === panel && held.at > last ? held.at : last),
    '',
  )
}
