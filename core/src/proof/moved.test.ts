import { describe, expect, it } from 'vitest'
import { recordsOf } from '../job/document.ts'
import type { SmallJob } from '../testing/small-job.ts'
import { movedSince } from './moved.ts'
import { proofRules, type ProofKind } from './table.ts'
import { systemOf } from '../system/system.ts'
import { catalogue } from '../testing/small-job.ts'
import { behindRepeater, itemOf, itemsOf, noon, one, record, tarn, two } from './testing/proved-jobs.ts'

/** By hand: where a device hangs bears on what it is seen to do there, not on what the panel holds of it or who carries it. */
const anew: Readonly<Record<ProofKind, boolean>> = {
  mount: true,
  placement: true,
  average: true,
  toggle: true,
  walk: true,
  tester: true,
  agent: true,
  setting: true,
  button: false,
  bound: false,
  reach: true,
  sets: true,
  calls: true,
  labels: false,
  sounds: true,
  cutoff: false,
  mains: true,
  downstream: true,
  settled: true,
  clock: true,
  battery: false,
  tamper: true,
  armed: true,
  clears: true,
  home: true,
  trip: true,
  report: false,
  path: true,
}

const moved = (job: SmallJob, key: string, at: string): SmallJob => job.set(`device:${key}`, { movedAt: at })

describe('what was proved of a device that was moved', () => {
  it.each(Object.keys(proofRules) as ProofKind[])('%s', (kind) => {
    const job = moved(tarn(), 'hall', one)
    const look = { doc: job.doc, system: systemOf(job.doc, catalogue) }
    const [zone] = recordsOf(job.doc, 'zone').filter(({ device }) => device === 'device:hall')
    for (const subject of ['device:hall', zone?.id ?? ''])
      expect(movedSince(look, { kind, subject })?.at ?? null).toBe(anew[kind] ? one : null)
    expect(movedSince(look, { kind, subject: 'device:porch' })).toBeNull()
    expect(movedSince(look, { kind, subject: 'panel:main' })).toBeNull()
  })

  it('is owed anew at its new place, and stands once it is made there', () => {
    const job = tarn()
    record(job, itemOf(job, 'hall', 'walk'), { at: noon })
    record(job, itemOf(job, 'hall', 'report'), { at: noon })
    moved(job, 'hall', one)
    expect(itemOf(job, 'hall', 'walk')).toMatchObject({ state: 'stale', changed: ['it was moved since'] })
    expect(itemOf(job, 'hall', 'report').state).toBe('pass')
    record(job, itemOf(job, 'hall', 'walk'), { at: two })
    expect(itemOf(job, 'hall', 'walk')).toMatchObject({ state: 'pass', changed: [] })
    expect(itemsOf(job, 'porch').every(({ state }) => state !== 'stale')).toBe(true)
  })

  it('of a repeater: what it reaches is read again, and only that', () => {
    const job = behindRepeater()
    record(job, itemOf(job, 'relay', 'placement'), { reading: 80, at: noon })
    record(job, itemOf(job, 'shed', 'placement'), { reading: 80, at: noon })
    record(job, itemOf(job, 'shed', 'mount'), { at: noon })
    record(job, itemOf(job, 'hall', 'placement'), { reading: 80, at: noon })
    moved(job, 'relay', one)
    expect(itemOf(job, 'shed', 'placement')).toMatchObject({
      changed: ['its repeater was moved since'],
      // Its repeater is read first.
      state: 'waits',
    })
    record(job, itemOf(job, 'relay', 'placement'), { reading: 80, at: two })
    expect(itemOf(job, 'shed', 'placement').state).toBe('stale')
    expect(itemOf(job, 'shed', 'mount').state).toBe('pass')
    expect(itemOf(job, 'hall', 'placement').state).toBe('pass')
  })
})
