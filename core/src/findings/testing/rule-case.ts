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
  /** What the further ways out are called; none where it is left out. */
  readonly others?: readonly string[]
}

/** Holds a topic's rules to their cases: absent, present, cured, and missed when switched off. */
export function describeRules(declared: Readonly<Record<string, unknown>>, cases: readonly RuleCase[]): void {
  it('has one case for every rule of its topic', () => {
    expect(cases.map((item) => item.rule).sort()).toEqual(Object.keys(declared).sort())
  })

  describe.each(cases)('$rule', ({ rule, clean, spoil, says, fix, others = [] }) => {
    const found = (job: SmallJob): Finding | undefined =>
      job.findings().find((finding) => finding.rule === rule && finding.text === says)

    it('is absent on a clean job', () => {
      expect(clean().rules()).not.toContain(rule)
    })

    it('is present with its reason and figures', () => {
      const all = spoil(clean()).findings()
      expect(all.filter((finding) => finding.rule === rule).map(({ text }) => text)).toContain(says)
      expect(found(spoil(clean()))?.fix?.title ?? null).toBe(fix)
      expect(found(spoil(clean()))?.others.map(({ title }) => title)).toEqual(others)
    })

    it('is missed when it is switched off, and no other rule with it', () => {
      const job = spoil(clean())
      const others = job.findings().filter((finding) => finding.rule !== rule)
      expect(job.findings(new Set([rule]))).toEqual(others)
    })

    // Without a fix there is nothing to cure.
    if (fix === null) return
    it.each([fix, ...others])('is cured by “%s”, which adds no new stop', (title) => {
      const job = spoil(clean())
      const before = job.findings()
      const here = found(job)
      job.apply([here?.fix, ...(here?.others ?? [])].find((way) => way?.title === title)?.ops ?? [])
      const after = job.findings()
      const mine = (list: readonly Finding[]) => list.filter((finding) => finding.rule === rule).length
      const stops = (list: readonly Finding[]) => list.filter(({ severity }) => severity === 'stops').length
      expect(mine(after)).toBe(mine(before) - 1)
      expect(stops(after)).toBeLessThanOrEqual(stops(before))
    })
  })
}
