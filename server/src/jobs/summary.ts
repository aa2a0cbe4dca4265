import {
  judge,
  nextStage,
  owedList,
  stops as isStopping,
  type Catalogue,
  type HouseRules,
  type JobDocument,
} from '#core'

/** What the job list shows of a job. */
export interface JobSummary {
  /** The stage whose work is next. */
  readonly stage: string
  /** How many things it still owes before hand-over. */
  readonly owed: number
  /** How many findings stop it. */
  readonly stops: number
}

/** Sums a job up for the list. */
export function summarise(
  document: JobDocument,
  catalogue: Catalogue,
  houseRules: HouseRules,
  now: Date,
): JobSummary {
  const findings = judge({ doc: document, catalogue, now: now.toISOString(), elsewhere: null, houseRules })
  const stops = findings.filter(isStopping).length
  const owed = owedList(document, catalogue, findings)
  return { stage: nextStage(owed), owed: owed.length, stops }
}
