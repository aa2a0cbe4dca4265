import { expect, it } from 'vitest'
import type { Schools } from '../../house-rules/house-rules.ts'
import type { SmallJob } from '../../testing/small-job.ts'
import type { Finding } from '../finding.ts'

/** A plan, and what one rule says of it: nothing where the plan is right. */
export interface BothWays {
  readonly what: string
  readonly job: () => SmallJob
  /** The rule's sentences, in the order of its findings. */
  readonly says: readonly string[]
  /** Titles of the ways out of the first of them; not looked at where it is left out. */
  readonly ways?: readonly string[]
  /** What else must be so of the first of them, or of the job once its first way out was taken. */
  readonly then?: (job: SmallJob, found: Finding) => void
}

/** Holds one rule to right plans that it must leave alone and to wrong ones, and its ways out to curing them. */
export function describeBothWays(rule: string, rows: readonly BothWays[]): void {
  it.each(rows)(`${rule}: $what`, ({ job, says, ways, then }) => {
    const plan = job()
    const found = () => plan.findings().filter((finding) => finding.rule === rule)
    const [first, ...rest] = found()
    expect([first, ...rest].flatMap((finding) => finding?.text ?? [])).toEqual(says)
    if (!first) return
    const fixes = [first.fix, ...first.others].flatMap((fix) => fix ?? [])
    if (ways) expect(fixes.map(({ title }) => title)).toEqual(ways)
    const seen = plan.doc
    for (const { title, ops } of fixes.toReversed()) {
      plan.doc = seen
      plan.apply(ops)
      expect([title, found().map(({ text }) => text)]).toEqual([title, says.slice(1)])
    }
    then?.(plan, first)
  })
}

/** The same job with the zone of one device otherwise; `event` where it has several. */
export function but(job: SmallJob, device: string, over: Record<string, unknown>, event?: string): SmallJob {
  return job.set(job.zone(device, event).id, over)
}

/** The same job by another house rule. */
export function by(job: SmallJob, schools: Partial<Schools>): SmallJob {
  job.houseRules = { ...job.houseRules, schools: { ...job.houseRules.schools, ...schools } }
  return job
}
