import { describe, expect, it } from 'vitest'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import type { Region } from '../units/region.ts'
import { choosePanelOps } from './choose-panel.ts'
import { firstDelays } from './first-delays.ts'

const panel = (id: string) => catalogue.get('panel', `panel/${id}`)
const fresh = (id: string | null, region: Region): SmallJob =>
  new SmallJob({
    ...{ panel: id && `panel/${id}`, region, kind: 'new', grade: 1 },
    radioFirmware: id === null ? null : (panel(id)?.radioFirmware.at(-1) ?? null),
    ...firstDelays(id === null ? null : panel(id), region),
  })
const delays = (job: SmallJob): (number | null)[] => {
  const { entry1, entry2, exit, abortWindow } = job.input().doc.records['job:main'] as never
  return [entry1, entry2, exit, abortWindow]
}

describe('a fresh job', () => {
  it.each(
    catalogue
      .all('panel')
      .flatMap(({ id, name, regions }) =>
        [...regions, 'own' as const].map((region) => [name, region, id.slice(6)] as const),
      ),
  )('on %s in %s has no finding', (_name, region, id) => {
    expect(fresh(id, region).findings()).toEqual([])
  })

  it.each([
    // EN 50131: entry at most 45 s, which is 40 s in steps of ten; the Pinfold counts entry 2 in steps of 15 s.
    ['tarn-40', 'europe', [30, 45, 60, null]],
    ['quillet-32', 'europe', [30, 40, 60, null]],
    ['pinfold-16', 'europe', [30, 45, 60, null]],
    // CP-01: 30 s of entry beside an abort window of 30 s; the Pinfold has no such window.
    ['morrow-60', 'north-america', [30, 60, 60, 30]],
    ['ostler-s-9', 'north-america', [30, 60, 60, 30]],
    ['pinfold-16', 'north-america', [30, 60, 60, null]],
  ] as const)('on %s in %s begins with %s', (id, region, expected) => {
    expect(delays(fresh(id, region))).toEqual(expected)
  })
})

describe('choosing another panel', () => {
  it('takes along what nobody touched, as that panel can keep it, and leaves what somebody set', () => {
    const job = fresh('tarn-40', 'europe').set('job:main', { exit: 75 })
    job.apply(choosePanelOps(job.doc, catalogue, 'panel/quillet-32'))
    expect(delays(job)).toEqual([30, 40, 75, null])
    job.apply(choosePanelOps(job.doc, catalogue, 'panel/tarn-40'))
    expect(delays(job)).toEqual([30, 45, 75, null])
  })

  it('for the first time encodes the usual delays', () => {
    const job = fresh(null, 'europe')
    expect(delays(job)).toEqual([30, 45, 60, null])
    job.apply(choosePanelOps(job.doc, catalogue, 'panel/quillet-32'))
    expect(delays(job)).toEqual([30, 40, 60, null])
    expect(job.rules()).not.toContain('delay-unstorable')
  })
})
