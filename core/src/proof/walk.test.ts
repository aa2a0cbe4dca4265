import { describe, expect, it } from 'vitest'
import { blankState } from '../job/blank.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { catalogue, cleanMorrow, SmallJob } from '../testing/small-job.ts'
import { proofRoute } from './owed.ts'
import { itemOf, learned, noon, record, tarn } from './testing/proved-jobs.ts'
import { notHeard, walkRun, whyNotHeard } from './walk.ts'

const runOf = (job: SmallJob) => walkRun({ doc: job.doc, catalogue }, proofRoute(job.doc, catalogue, null))
const keys = (job: SmallJob) =>
  runOf(job).trips.map(({ stop, item }) => `${stop.id.replace('device:', '')} ${item.kind}`)

describe('the walk test of a house', () => {
  it('trips what opens and what sees people move, and nothing that only an alarm shows', () => {
    // Kitchen: smoke; bedroom: panic; lounge: glass, by its tester. None of them is walked.
    const job = tarn()
    expect(keys(job).sort()).toEqual(['hall walk', 'porch toggle', 'study toggle'])
    record(job, itemOf(job, 'hall', 'walk'))
    record(job, itemOf(job, 'porch', 'toggle'), { outcome: 'fail' })
    expect(keys(job)).not.toContain('hall walk')
    expect(keys(job)).toContain('porch toggle')
  })

  it('leaves out what is not learned yet, and says so', () => {
    const job = learned(cleanMorrow(), 'front', 'hall')
    expect(keys(job).sort()).toEqual(['front toggle', 'hall walk'])
    expect(runOf(job).left.map(({ stop, why }) => [stop.id, why.startsWith('Enrol it first')])).toEqual([
      ['device:study', true],
    ])
  })

  it('tells nothing while a sounder is noted as off', () => {
    const job = tarn()
    expect(runOf(job).blocked).toBe('')
    job.apply([
      {
        op: 'add',
        record: {
          ...{ ...blankState, ...evidenceBy('Idris', noon), id: 'state:quiet', kind: 'sounder-off' },
          ...{ about: 'device:keypad', who: 'Idris', why: 'a child sleeps', until: '2026-05-04T18:00:00Z' },
        },
      },
    ])
    expect(runOf(job).blocked).toContain('A keypad sounder is noted as off')
  })

  it.each([
    [null, null],
    [0, null],
    [1, 1],
    [3, 3],
  ])('a swinger shutdown of %s shuts out after %s', (swinger, after) => {
    expect(runOf(tarn().set('job:main', { swinger })).shutsOutAfter).toBe(after)
  })
})

describe('a trip that was not heard', () => {
  const oneWay = runOf(learned(cleanMorrow(), 'front', 'hall').set('job:main', { swinger: 2 }))
  const trip = (kind: string) =>
    oneWay.trips.find(({ item }) => item.kind === kind) ?? expect.fail(`no ${kind}`)

  it('may have slept only where a motion sends one way, and be shut out only where the panel does that', () => {
    expect(trip('walk').sleeps).not.toBeNull()
    expect(trip('toggle').sleeps).toBeNull()
    expect(whyNotHeard(oneWay, trip('walk'))).toEqual(['asleep', 'shut-out', 'sounder', 'awake'])
    expect(whyNotHeard(oneWay, trip('toggle'))).toEqual(['shut-out', 'sounder', 'awake'])
    const open = { ...oneWay, shutsOutAfter: null }
    expect(whyNotHeard(open, trip('toggle'))).toEqual(['sounder', 'awake'])
    const twoWay = new SmallJob({ panel: 'panel/ostler-s-8' })
      .add('hall', 'watcher-8', { use: 'on-way' })
      .number()
    const [other] = runOf(learned(twoWay, 'hall')).trips
    expect(other?.sleeps).toBeNull()
  })

  it('has failed only where it was awake; what it may have been otherwise tells nothing', () => {
    const came = (['asleep', 'shut-out', 'sounder', 'awake'] as const).map(
      (why) => notHeard(oneWay, trip('walk'), why).outcome,
    )
    expect(came).toEqual(['inconclusive', 'inconclusive', 'inconclusive', 'fail'])
    expect(notHeard(oneWay, trip('walk'), 'asleep').note).toMatch(
      /Leave its room alone for .* and walk it again/,
    )
    expect(notHeard(oneWay, { ...trip('walk'), sleeps: 180 }, 'asleep').note).toContain('3 min')
    expect(notHeard(oneWay, { ...trip('walk'), sleeps: 0 }, 'asleep').note).toContain('its sleep time')
    expect(notHeard(oneWay, trip('walk'), 'shut-out').note).toContain('after 2 trips')
    expect(notHeard({ ...oneWay, shutsOutAfter: 1 }, trip('walk'), 'shut-out').note).toContain(
      'after 1 trip.',
    )
    expect(notHeard(oneWay, trip('toggle'), 'awake').note).toContain('Opened and closed')
    expect(notHeard(oneWay, trip('walk'), 'awake').note).toContain('Walked while it was awake')
  })
})
