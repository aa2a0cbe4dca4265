import { describe, expect, it } from 'vitest'
import type { SmallJob } from '../../testing/small-job.ts'
import { Catalogue } from '../../catalogue/catalogue.ts'
import { jobRecords, type JobRecord } from '../../job/records.ts'
import { contextOf, type JudgeInput } from '../context.ts'
import type { Finding } from '../finding.ts'
import { ruleOf } from '../registry.ts'

/** A way to make one rule speak: on which clean job, by what, what it says, and whether a fix cures it. */
export interface RuleCase {
  readonly rule: string
  readonly clean: () => SmallJob
  readonly spoil: (job: SmallJob) => SmallJob
  readonly says: string
  readonly fix: string | null
  /** What the further ways out are called; none where it is left out. */
  readonly others?: readonly string[]
  /** Whether a waiver of it holds whatever its figures are: it has none. */
  readonly unbound?: boolean
}

/** Holds a topic's rules to their cases: absent, present, cured, and missed when switched off. */
export function describeRules(declared: Readonly<Record<string, unknown>>, cases: readonly RuleCase[]): void {
  it('has one case for every rule of its topic', () => {
    expect(cases.map((item) => item.rule).sort()).toEqual(Object.keys(declared).sort())
  })

  describe.each(cases)('$rule', ({ rule, clean, spoil, says, fix, others = [], unbound = false }) => {
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

    it('binds a waiver to what was found', () => {
      expect(ruleOf(rule).key.length > 0).toBe(!unbound)
    })

    it('can be asked of a job of which one thing after the other is not known', () => {
      for (const input of lessKnown(spoil(clean())))
        expect(Array.isArray(ruleOf(rule).find(contextOf(input)))).toBe(true)
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

/** The same job with one thing after the other not known: each value that may be null, and each entry of the catalogue. */
function* lessKnown(job: SmallJob): Generator<JudgeInput> {
  const input = job.input()
  for (const [id, record] of Object.entries(job.doc.records)) {
    const fields = jobRecords.types[record.type]?.fields ?? {}
    for (const [field, { schema }] of Object.entries(fields))
      if (record[field as never] !== null && schema.safeParse(null).success) {
        const records = { ...job.doc.records, [id]: { ...record, [field]: null } as JobRecord }
        yield { ...input, doc: { ...job.doc, records } }
      }
  }
  const used = new Set(
    Object.values(job.doc.records).flatMap((record) => (record.type === 'pin' ? [record.entry] : [])),
  )
  for (const gone of used)
    yield {
      ...input,
      catalogue: new Catalogue(input.catalogue.kept.filter(({ entry }) => entry.id !== gone)),
    }
  yield { ...input, catalogue: new Catalogue([]) }
}
