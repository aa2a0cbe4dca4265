import type { JobAndCatalogue } from '../system/system.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { blankSignoff, blankTest } from '../job/blank.ts'
import { freshEvidence } from '../job/evidence.ts'
import type { Signoff, TestResult } from '../job/records.ts'
import type { Person } from '../records/fields.ts'
import { proofCopy } from './copy.ts'
import { keyedNow } from './keyed.ts'
import type { ProofKey } from './table.ts'

/** Who proved it and when (ISO 8601), and what came of it. */
export interface Proved {
  readonly made: { readonly id: string; readonly who: Person; readonly at: string }
  readonly result: Pick<TestResult, 'outcome'> & Partial<Pick<TestResult, 'reading' | 'note' | 'method'>>
}

/** The record of a result, with a copy of what it is of as the plan now has it. */
export function proofRecord(
  { doc, catalogue }: JobAndCatalogue,
  { kind, subject, loop, unsetAt }: ProofKey,
  { made, result }: Proved,
): TestResult {
  return {
    ...blankTest,
    ...freshEvidence(made.who, made.at),
    id: made.id,
    ...{ subject, kind, loop, unsetAt, of: proofCopy(doc, catalogue, subject) },
    ...result,
  }
}

/** What is signed off under which house rules. */
export interface Signed {
  readonly rules: HouseRules
  readonly what: string
}

/** The record of a sign-off, bound to what the plan keys now where it vouches for keying. */
export function signoffRecord(
  { doc, catalogue }: JobAndCatalogue,
  { rules, what }: Signed,
  made: { readonly id: string; readonly who: Person; readonly at: string },
): Signoff {
  return {
    ...blankSignoff,
    ...freshEvidence(made.who, made.at),
    ...{ id: made.id, what, keyed: keyedNow({ doc, catalogue }, rules, what) },
  }
}
