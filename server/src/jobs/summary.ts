import { jobInfo, judge, recordsOf, type Catalogue, type JobDocument } from '#core'
/** What the job list shows of a job. */
export interface JobSummary {
  /** The stage whose work is next. */
  readonly stage: string
  /** Count of things not done yet. */
  readonly owed: number
  /** Count of findings that stop. */
  readonly stops: number
}

/** Sums a job up for the list. */
export function summarise(document: JobDocument, catalogue: Catalogue, now: Date): JobSummary {
  const info = jobInfo(document)
  const findings = judge({ doc: document, catalogue, now: now.toISOString(), elsewhere: null })
  const stops = findings.filter((finding) => finding.severity === 'stops').length
  const stage = !info.panel ? 'survey' : recordsOf(document, 'device').length === 0 ? 'kit' : 'zones'
  return { stage, owed: findings.length - stops, stops }
}
