import { describe, expect, it } from 'vitest'
import type { SmallJob } from '../../testing/small-job.ts'
import type { Finding } from '../finding.ts'

/** A way to make one rule speak: on which clean job, by what, what it says, and whether a fix cures it. */
export interface RuleCase {
  readonly rule: string
  readonly clean: () => SmallJob
  readonly spoil: (job: SmallJob) => SmallJob
  readonly says: string
  readonly fix: string | null
}

/** Holds a topic's rules to their cases: absent, present, cured, and missed when switched off. */
export function describeRules(declared: Readonly<Record<string, unknown>>, cases: readonly RuleCase[]): void {
  it('has one case for every rule of its topic', () => {
    expect(cases.map((item) => item.rule).sort()).toEqual(Object.keys(declared).sort())
  })

  describe.each(cases)('$rule', ({ rule, clean, spoil, says, fix }) => {
    const found = (job: SmallJob): Finding | undefined =>
      job.findings().find((finding) => finding.rule === rule && finding.text === says)

    it('is absent on a clean job', () => {
      expect(clean().rules()).not.toContain(rule)
    })

    it('is present with its reason and figures', () => {
      const all = spoil(clean()).findings()
      expect(all.filter((finding) => finding.rule === rule).map(({ text }) => text)).toContain(says)
      expect(found(spoil(clean()))?.fix?.title ?? null).toBe(fix)
    })

    it('is missed when it is switched off, and no other rule with it', () => {
      const job = spoil(clean())
      const others = job.findings().filter((finding) => finding.rule !== rule)
      expect(job.findings(new Set([rule]))).toEqual(others)
    })

    // Without a fix there is nothing to cure.
    if (fix === null) return
    it('is cured by its fix, which adds no new stop', () => {
      const job = spoil(clean())
      const before = job.findings()
      job.apply(found(job)?.fix?.ops ?? [])
      const after = job.findings()
      const mine = (list: readonly Finding[]) => list.filter((finding) => finding.rule === rule).length
      const stops = (list: readonly Finding[]) => list.filter(({ severity }) => severity === 'stops').length
      expect(mine(after)).toBe(mine(before) - 1)
      expect(stops(after)).toBeLessThanOrEqual(stops(before))
    })
  })
}
