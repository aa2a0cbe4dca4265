import type { Family } from '../catalogue/schema.ts'
import { levelWords } from '../fit/spots.ts'
import type { Schools } from '../house-rules/house-rules.ts'
import type { TestResult } from '../job/records.ts'
import type { ProofKind } from './table.ts'

/* When a reading of a link may be recorded as passed. */

/** What is proved, and the radio family of the device; null for a wired one. */
interface Tested {
  readonly kind: ProofKind
  readonly family: Family | null
}

interface Result {
  readonly outcome: TestResult['outcome']
  readonly reading: number | null
  readonly note: string
}

/**
 * Why a result cannot be recorded as it stands; null when it can. A reading passes when it holds, and below the best band only
 * with a reason (house rule: best band). What its family does not state nobody can hold it to: then it is noted how it was judged.
 */
export function resultProblem(
  { kind, family }: Tested,
  result: Result,
  school: Schools['reading'] = 'best',
): string | null {
  if ((kind !== 'placement' && kind !== 'average') || result.outcome !== 'pass' || !family) return null
  if (result.reading !== null) return levelProblem(family, { ...result, reading: result.reading }, school)
  const { unit } = family.placement
  return unit === undefined ? 'Reading: state it.' : `Reading: state it in ${unit}.`
}

function levelProblem(
  family: Family,
  { reading, note }: Result & { readonly reading: number },
  school: Schools['reading'],
): string | null {
  const { best, least } = family.placement
  const words = (level: number): string => levelWords(family, level)
  if (least !== undefined && reading < least)
    return `Reading: ${words(reading)} does not hold, at least ${words(least)} is needed. Record it as failed and move the device.`
  if (note.trim() !== '' || (best !== undefined && reading >= best)) return null
  if (school === 'best' && best !== undefined)
    return `Reading: ${words(reading)} is below the best band (${words(best)}). Improve it, or note why it stays.`
  if (school === 'works' && least !== undefined) return null
  const open = least === undefined ? 'holds' : 'is good'
  return `Reading: ${words(reading)} cannot be judged, since ${family.name} does not state from where on a link ${open}. Note how you judged it.`
}
