import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import type { Signoff } from '../job/records.ts'
import { programmingSheet } from '../programming/sheet.ts'
import { hashOf } from '../units/canonical.ts'

/** What a sign-off vouches for: each part of what the plan keyed, with a digest of it. */
export type Keyed = NonNullable<Signoff['keyed']>

/** Sign-offs of a changed code begin so; behind it stands the panel's name for the code. */
export const CODE_SIGNOFF = 'code '

/**
 * What a sign-off of this name vouches for in the plan as it is: the read-back everything keyed, a code the panel that has it;
 * null for one that vouches for no keying.
 */
export function keyedNow({ doc, catalogue }: JobAndCatalogue, rules: HouseRules, what: string): Keyed | null {
  const { panel } = systemOf(doc, catalogue)
  if (!panel) return null
  if (what.startsWith(CODE_SIGNOFF)) return [{ step: 'Panel', digest: digestOf(panel.id) }]
  if (what !== 'read-back') return null
  const sheet = programmingSheet(doc, catalogue, rules)
  const seen = new Map<string, number>()
  return (sheet?.sections ?? []).map(({ title, steps }) => ({
    step: oneOf(seen, title.slice(0, 80)),
    digest: digestOf(steps.map(({ keys, meaning }) => [keys, meaning])),
  }))
}

/** Parts that are keyed otherwise since a sign-off, by name; all of them where it kept nothing. */
export function changedKeying(signoff: Signoff, now: Keyed | null): readonly string[] {
  if (now === null) return []
  if (signoff.keyed === null) return ['it keeps nothing of what was keyed then']
  const was = new Map(signoff.keyed.map(({ step, digest }) => [step, digest]))
  const is = new Map(now.map(({ step, digest }) => [step, digest]))
  return [
    ...now.filter(({ step, digest }) => was.get(step) !== digest).map(({ step }) => step),
    ...signoff.keyed.filter(({ step }) => !is.has(step)).map(({ step }) => `${step}, now gone`),
  ]
}

/** Two zones may share number and label while the plan is wrong: each part keeps a name of its own. */
function oneOf(seen: Map<string, number>, title: string): string {
  const count = (seen.get(title) ?? 0) + 1
  seen.set(title, count)
  return count === 1 ? title : `${title} (${count})`
}

function digestOf(value: unknown): string {
  return hashOf(value).slice(0, 16)
}
