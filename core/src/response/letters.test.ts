import { describe, expect, it } from 'vitest'
import { recordsOf } from '../job/document.ts'
import { SmallJob } from '../testing/small-job.ts'
import { fullSet, setsOf, tripsInSets } from './letters.ts'

/** On the Quillet areas are letters: the first the full set, the others part sets. */
const house = (): SmallJob =>
  new SmallJob({ panel: 'panel/quillet-32', radioFirmware: null, entry2: 50 })
    .add('front', 'sill-8', { use: 'entry', position: 'door' })
    .add('study', 'sill-slim-8', { use: 'opening', position: 'window' })
    .add('hall', 'watcher-8', { use: 'on-way' })
    .add('landing', 'brander-8')
    .number()
const about = (job: SmallJob) =>
  job
    .findings()
    .filter(({ rule }) => ['left-out-of-set', 'alarms-on-owner', 'way-unwatched'].includes(rule))
    .map(({ rule, text, fix, others }) => [rule, text, fix?.title, ...others.map(({ title }) => title)])

it('knows the full set only where areas are letters and a part set is described', () => {
  const panelOf = (job: SmallJob) => job.catalogue.get('panel', recordsOf(job.doc, 'job')[0]?.panel ?? null)
  const full = (job: SmallJob) => fullSet(job.doc, panelOf(job))
  expect(full(house())).toBeNull()
  expect(full(house().area(2, 'Night'))).toBe('area:1')
  expect(full(new SmallJob({ panel: 'panel/ostler-s-8' }).area(2, 'Annexe'))).toBeNull()
  expect(fullSet(house().area(2, 'Night').doc, null)).toBeNull()
})

it('reads the sets of a zone from its letters', () => {
  const sets = (area: string | null, area2: string | null, full: string | null = 'A') => {
    const { full: inFull, part } = setsOf({ area, area2 }, full)
    return `${inFull ? 'full' : ''} ${part ? 'part' : ''}`.trim()
  }
  expect(sets('A', null)).toBe('full')
  expect(sets('A', 'B')).toBe('full part')
  expect(sets('B', 'A')).toBe('full part')
  expect(sets('B', null)).toBe('part')
  expect(sets(null, null)).toBe('full part')
  expect(sets('B', null, null)).toBe('full part')
})

it('takes what a trip does from a set that the zone is not in, but for what is always on and for commands', () => {
  const door = { away: 'entry-1', stay: 'instant', night: 'instant', unset: 'ignore' } as const
  expect(tripsInSets(door, { full: true, part: true })).toEqual(door)
  expect(tripsInSets(door, { full: true, part: false })).toEqual({ ...door, stay: 'ignore', night: 'ignore' })
  expect(tripsInSets(door, { full: false, part: true })).toEqual({ ...door, away: 'ignore' })
  const smoke = { away: 'instant', stay: 'instant', night: 'instant', unset: 'instant' } as const
  expect(tripsInSets(smoke, { full: false, part: false })).toEqual(smoke)
  const button = { away: 'command', stay: 'command', night: 'command', unset: 'command' } as const
  expect(tripsInSets(button, { full: true, part: false })).toEqual(button)
})

describe('part sets by letter', () => {
  it('are asked of nobody while there is one set', () => {
    expect(about(house())).toEqual([])
  })

  it('that leave doors and windows out are one finding, cured by one press; what is off in stay stays out', () => {
    const job = house().area(2, 'Night')
    const [found, ...more] = about(job)
    expect(more).toEqual([])
    expect(found?.slice(0, 2)).toEqual([
      'left-out-of-set',
      'Night leaves zones 001, 002 out: doors and windows that are to be watched while people are in the house, so the night is open.',
    ])
    job.apply(job.findings().find(({ rule }) => rule === 'left-out-of-set')?.fix?.ops ?? [])
    expect(about(job)).toEqual([])
    expect(recordsOf(job.doc, 'zone').map(({ area2 }) => area2)).toEqual(
      ['area:2', 'area:2', null, null, null].slice(0, recordsOf(job.doc, 'zone').length),
    )
  })

  it('are joined where most zones are', () => {
    const job = house().area(2, 'Down').area(3, 'Night')
    job.set(job.zone('front').id, { area2: 'area:3' })
    const [finding] = job.findings().filter(({ rule }) => rule === 'left-out-of-set')
    expect(finding?.text).toMatch(/^Night leaves zone 002 out/)
    job.apply(finding?.fix?.ops ?? [])
    expect(job.zone('study')).toMatchObject({ area: 'area:1', area2: 'area:3' })
  })

  it('that alone hold a zone leave it out of the full set', () => {
    const job = house().area(2, 'Night')
    for (const key of ['front', 'study']) job.set(job.zone(key).id, { area2: 'area:2' })
    job.set(job.zone('study').id, { area: 'area:2', area2: null })
    expect(about(job)).toEqual([
      [
        'left-out-of-set',
        'Whole premises leaves zone 002 out: nobody is stopped there while the house is empty.',
        'Put them into Whole premises',
      ],
    ])
    job.apply(job.findings().find(({ rule }) => rule === 'left-out-of-set')?.fix?.ops ?? [])
    expect(about(job)).toEqual([])
    expect(job.zone('study')).toMatchObject({ area: 'area:1', area2: 'area:2' })
  })

  it('judge a type that alarms at night only where its zone is in one, and offer to take it out', () => {
    const job = house().area(2, 'Night')
    for (const key of ['front', 'study']) job.set(job.zone(key).id, { area2: 'area:2' })
    // The hall motion is typed as an outer line: out of the part set that harms nobody at night.
    job.set(job.zone('hall').id, { response: 'instant' })
    const wrong = () => about(job).filter(([rule]) => rule === 'alarms-on-owner')
    expect(wrong()[0]?.[1]).toBe(
      'Zone 003 would alarm on its owner: in away it does instant, when somebody comes home.',
    )
    job.set(job.zone('hall').id, { area2: 'area:2' })
    expect(wrong()[0]?.[1]).toBe(
      'Zone 003 would alarm on its owner: in away it does instant, when somebody comes home; in stay it does instant, when somebody walks there at night.',
    )
    job.set(job.zone('front').id, { response: 'entry-1' })
    job.set(job.zone('hall').id, { response: 'follow-stay-delay' })
    expect(wrong()).toEqual([])
  })
})
