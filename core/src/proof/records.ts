import type { Catalogue } from '../catalogue/catalogue.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { blankSignoff, blankTest } from '../job/blank.ts'
import type { JobDocument } from '../job/document.ts'
import { freshEvidence } from '../job/evidence.ts'
import type { Signoff, TestResult } from '../job/records.ts'
import type { Person } from '../records/fields.ts'
import { proofCopy } from './copy.ts'
import { keyedNow } from './keyed.ts'
import type { ProofKey } from './owed.ts'

/** The record of a result, with a copy of what it is of as the plan now has it. */
export function proofRecord(
  doc: JobDocument,
  catalogue: Catalogue,
  { kind, subject, loop }: ProofKey,
  made: { readonly id: string; readonly who: Person; readonly at: string },
  result: Pick<TestResult, 'outcome'> & Partial<Pick<TestResult, 'reading' | 'note' | 'method'>>,
): TestResult {
  return {
    ...blankTest,
    ...freshEvidence(made.who, made.at),
    id: made.id,
    ...{ subject, kind, loop, of: proofCopy(doc, catalogue, subject) },
    ...result,
  }
}

/** The record of a sign-off, bound to what the plan keys now where it vouches for keying. */
export function signoffRecord(
  doc: JobDocument,
  catalogue: Catalogue,
  rules: HouseRules,
  what: string,
  made: { readonly id: string; readonly who: Person; readonly at: string },
): Signoff {
  return {
    ...blankSignoff,
    ...freshEvidence(made.who, made.at),
    ...{ id: made.id, what, keyed: keyedNow(doc, catalogue, rules, what) },
  }
}
