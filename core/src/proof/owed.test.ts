import { describe, expect, it } from 'vitest'
import { asItIs } from '../job/evidence.ts'
import type { TestResult } from '../job/records.ts'
import { evidenceBy } from '../job/testing/records.ts'
import type { SmallJob } from '../testing/small-job.ts'
import { catalogue, cleanMorrow, cleanTarn } from '../testing/small-job.ts'
import {
  cautions,
  hints,
  openProofs,
  openStates,
  proofRoute,
  resultProblem,
  stationOnTest,
  testBlocked,
} from './owed.ts'

const noon = '2026-05-04T12:00:00Z'
const one = '2026-05-04T13:00:00Z'
const two = '2026-05-04T14:00:00Z'

let count = 0
function result(over: Partial<TestResult>): TestResult {
  count += 1
  return {
    id: `test:${String(count).padStart(4, '0')}`,
    type: 'test',
    ...evidenceBy('Idris', noon),
    subject: 'device:porch',
    of: null,
    kind: 'walk',
    outcome: 'pass',
    reading: null,
    note: '',
    ...over,
  }
}
const withResults = (job: SmallJob, ...results: TestResult[]): SmallJob =>
  job.apply(
    results.map((record) => ({ op: 'add', record: { ...record, of: asItIs(job.doc, record.subject) } })),
  )
const entryOf = (job: SmallJob, key: string) => {
  const found = proofRoute(job.doc, catalogue).find((item) => item.device.id === `device:${key}`)
  if (!found) throw new Error(`no ${key} on the route`)
  return found
}
const states = (job: SmallJob, key: string) =>
  Object.fromEntries(entryOf(job, key).items.map((item) => [item.kind, item.state]))

describe('what a device owes', () => {
  it.each([
    ['porch', 'a mounted contact', ['placement', 'walk', 'armed', 'report']],
    ['bedroom', 'a worn pendant has no one place', ['walk', 'armed', 'report']],
    ['fob', 'a fob only works its buttons', ['armed']],
  ])('%s: %s', (key, _why, kinds) => {
    expect(entryOf(cleanTarn(), key).items.map((item) => item.kind)).toEqual(kinds)
  })

  it('leaves the report out where nobody receives it', () => {
    const local = cleanTarn().set('job:main', { monitored: false })
    expect(entryOf(local, 'porch').items.map((item) => item.kind)).toEqual(['placement', 'walk', 'armed'])
  })

  it('leaves a deferred device out: it is not there yet', () => {
    const job = cleanTarn().set('device:study', { deferred: 'window comes in June' })
    expect(proofRoute(job.doc, catalogue).map((item) => item.device.id)).not.toContain('device:study')
  })

  it('goes room by room', () => {
    expect(proofRoute(cleanTarn().doc, catalogue).map((item) => item.device.room)).toEqual([
      'bedroom',
      'hall',
      'kitchen',
      'landing',
      'lounge',
      'porch',
      'study',
      '',
    ])
  })
})

describe('results', () => {
  it('are owed first, then as the last one says; the failed one stays beside the retest', () => {
    const job = cleanTarn()
    expect(states(job, 'porch').walk).toBe('owed')
    withResults(job, result({ outcome: 'fail', at: noon }))
    expect(states(job, 'porch').walk).toBe('fail')
    withResults(job, result({ outcome: 'inconclusive', at: one }))
    expect(states(job, 'porch').walk).toBe('inconclusive')
    withResults(job, result({ outcome: 'pass', at: two }))
    expect(states(job, 'porch')).toEqual({ placement: 'owed', walk: 'pass', armed: 'owed', report: 'owed' })
    expect(entryOf(job, 'porch').items[1]?.results.map((item) => item.outcome)).toEqual([
      'fail',
      'inconclusive',
      'pass',
    ])
  })

  it('count as open until they pass', () => {
    const job = cleanTarn()
    // Six mounted devices owe four each, the pendant three, the fob one.
    expect(openProofs(proofRoute(job.doc, catalogue))).toBe(28)
    withResults(job, result({ kind: 'walk' }), result({ kind: 'armed', outcome: 'inconclusive' }))
    expect(openProofs(proofRoute(job.doc, catalogue))).toBe(27)
  })

  it.each<[string, number | null, string, string | null]>([
    // Wren reads in bars: best from 4, least 2.
    ['no reading', null, '', 'Reading: state it in bars.'],
    [
      'too weak',
      1,
      'wall',
      'Reading: 1 bars does not hold, at least 2 bars is needed. Record it as failed and move the device.',
    ],
    [
      'middling',
      3,
      ' ',
      'Reading: 3 bars is below the best band (4 bars). Improve it, or note why it stays.',
    ],
    ['middling with a reason', 2, 'stone wall, no other spot', null],
    ['best', 4, '', null],
  ])('a placement passes on its reading: %s', (_name, reading, note, problem) => {
    const family = catalogue.get('family', 'family/wren')
    expect(resultProblem('placement', family, { outcome: 'pass', reading, note })).toBe(problem)
    expect(resultProblem('placement', family, { outcome: 'fail', reading, note })).toBeNull()
    expect(resultProblem('walk', family, { outcome: 'pass', reading, note })).toBeNull()
  })
})

describe('the station on test', () => {
  const onTest = (job: SmallJob): SmallJob =>
    job.apply([
      {
        op: 'add',
        record: {
          id: 'state:1',
          type: 'state',
          kind: 'station-on-test',
          who: 'Idris',
          why: 'tests',
          ...evidenceBy('Idris', noon),
          until: one,
        },
      },
    ])

  it('comes before armed tests and reports of a monitored job', () => {
    const job = cleanTarn()
    const blocked = (kind: 'placement' | 'walk' | 'armed' | 'report', now: string) =>
      testBlocked(job.doc, catalogue, kind, now) !== null
    expect(['placement', 'walk', 'armed', 'report'].map((kind) => blocked(kind as 'walk', noon))).toEqual([
      false,
      false,
      true,
      true,
    ])
    onTest(job)
    expect(blocked('armed', noon)).toBe(false)
    expect(blocked('armed', one)).toBe(true)
  })

  it('is not asked for on a local job', () => {
    expect(
      testBlocked(cleanTarn().set('job:main', { monitored: false }).doc, catalogue, 'armed', noon),
    ).toBeNull()
  })

  it('stays open past its time until it is ended', () => {
    const job = onTest(cleanTarn())
    expect(stationOnTest(job.doc, two)).toBeNull()
    expect(openStates(job.doc)).toHaveLength(1)
    job.apply([
      {
        op: 'add',
        record: {
          id: 'state-end:1',
          type: 'state-end',
          state: 'state:1',
          kind: 'station-on-test',
          ...evidenceBy('Idris', two),
        },
      },
    ])
    expect(openStates(job.doc)).toEqual([])
  })
})

describe('cautions and hints', () => {
  const said = (job: SmallJob, key: string) => cautions(entryOf(job, key), 'armed').join(' ')

  it.each([
    ['landing', 'aerosol'],
    ['kitchen', 'test gas'],
    ['bedroom', 'bring police'],
    ['porch', 'harms hearing'],
  ])('%s: %s', (key, words) => expect(said(cleanTarn(), key)).toContain(words))

  it('warns of armed police before a silent call', () => {
    const job = cleanTarn()
    job.set(job.zone('bedroom').id, { response: 'panic-silent' })
    expect(said(job, 'bedroom')).toContain('armed police')
  })

  it('warns of the ladder at the placement reading', () => {
    expect(cautions(entryOf(cleanTarn(), 'hall'), 'placement').join(' ')).toContain('ladder')
  })

  it('says that one-way motions sleep', () => {
    const family = catalogue.get('family', 'family/wren')
    const { best, least } = { best: '4 bars', least: '2 bars' }
    expect(hints(entryOf(cleanTarn(), 'hall'), 'armed', family).join(' ')).toContain(
      'leave the room for the sleep time',
    )
    expect(hints(entryOf(cleanTarn(), 'hall'), 'walk', family).join(' ')).toContain(
      'inconclusive, not failed',
    )
    expect(hints(entryOf(cleanTarn(), 'porch'), 'armed', family).join(' ')).not.toContain('sleep')
    const placement = hints(entryOf(cleanTarn(), 'porch'), 'placement', family).join(' ')
    expect([placement.includes(best), placement.includes(least)]).toEqual([true, true])
  })
})

it('owes a report on the Morrow too', () => {
  expect(states(cleanMorrow(), 'front')).toEqual({
    placement: 'owed',
    walk: 'owed',
    armed: 'owed',
    report: 'owed',
  })
})
