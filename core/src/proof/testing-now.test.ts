import { describe, expect, it } from 'vitest'
import { blankState } from '../job/blank.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { PANEL } from './copy.ts'
import { cautions, hints } from './advice.ts'
import { testBlocked, type ProofItem } from './owed.ts'
import { openStates, stationOnTest } from './states.ts'
import type { ProofKind } from './table.ts'
import {
  behindRepeater,
  itemOf,
  itemsOf,
  learned,
  noon,
  one,
  record,
  stopOf,
  tarn,
  two,
} from './testing/proved-jobs.ts'

describe('what may not be tested now', () => {
  const begin = (job: SmallJob, kind: 'station-on-test' | 'sounder-off' | 'tamper-linked'): SmallJob =>
    job.apply([
      {
        op: 'add',
        record: {
          ...blankState,
          ...{
            id: `state:${kind}`,
            kind,
            who: 'Idris',
            why: 'tests',
            ...evidenceBy('Idris', noon),
            until: one,
          },
        },
      },
    ])
  const blocked = (job: SmallJob, item: ProofItem, now: string) =>
    testBlocked({ doc: job.doc, catalogue }, item, now)

  it('alarms and reports of a monitored job, before the station is on test and after', () => {
    const job = tarn()
    const kinds = (now: string) =>
      itemsOf(job, 'porch')
        .filter((item) => blocked(job, item, now) !== null)
        .map((item) => item.kind)
    expect(kinds(noon)).toEqual(['armed', 'home', 'report'])
    expect(blocked(job, itemOf(job, 'landing', 'agent'), noon)).toContain('station on test')
    expect(blocked(job, itemOf(job, 'fob', 'trip'), noon)).toContain('station on test')
    expect(blocked(job, itemOf(job, 'fob', 'button'), noon)).toBeNull()
    begin(job, 'station-on-test')
    expect(kinds(noon)).toEqual([])
    expect(kinds(one)).toEqual(['armed', 'home', 'report'])
    job.set('job:main', { monitored: false })
    expect(kinds(one)).toEqual([])
  })

  it('a walk test while a sounder is noted as off', () => {
    const job = begin(tarn(), 'sounder-off')
    expect(blocked(job, itemOf(job, 'hall', 'walk'), noon)).toContain('sounder')
    expect(blocked(job, itemOf(job, 'hall', 'setting'), noon)).toBeNull()
  })

  it('a siren test while a tamper is noted as open', () => {
    const job = new SmallJob({ panel: 'panel/quillet-32', monitored: false })
      .add('bell', 'singer-8', { slot: 1 })
      .add('porch', 'sill-8', { use: 'entry' })
      .number()
    learned(job, 'bell', 'porch')
    const sounds = () => itemOf(job, 'bell', 'sounds')
    expect(blocked(job, sounds(), noon)).toBeNull()
    record(job, itemOf(job, 'porch', 'tamper'), { outcome: 'fail' })
    expect(blocked(job, sounds(), noon)).toContain('tamper')
    record(job, itemOf(job, 'porch', 'tamper'), { outcome: 'pass', at: one })
    expect(blocked(job, sounds(), noon)).toBeNull()
    begin(job, 'tamper-linked')
    expect(blocked(job, sounds(), noon)).toContain('tamper')
  })

  it('anything that waits for something else', () => {
    const job = cleanTarn()
    expect(blocked(job, itemOf(job, 'porch', 'toggle'), noon)).toContain('Enrol it first')
  })
})

it('the station stays noted as on test past its time until that is ended', () => {
  const record = {
    ...blankState,
    ...({ id: 'state:1', kind: 'station-on-test', who: 'Idris', why: 'tests', until: one } as const),
    ...evidenceBy('Idris', noon),
  }
  const job = tarn().apply([{ op: 'add', record }])
  expect(stationOnTest(job.doc, noon)?.id).toBe('state:1')
  expect(stationOnTest(job.doc, two)).toBeNull()
  expect(openStates(job.doc)).toHaveLength(1)
  const end = { id: 'state-end:1', type: 'state-end', state: 'state:1', kind: 'station-on-test' } as const
  job.apply([{ op: 'add', record: { ...end, ...evidenceBy('Idris', two) } }])
  expect(openStates(job.doc)).toEqual([])
})

describe('cautions and hints', () => {
  const said = (job: SmallJob, key: string, kind: ProofKind) => {
    const item = itemOf(job, key, kind)
    return cautions(item, stopOf(job, key === PANEL ? key : `device:${key}`).model).join(' ')
  }

  it.each<[string, ProofKind, string]>([
    ['landing', 'agent', 'aerosol'],
    ['kitchen', 'agent', 'test gas'],
    ['bedroom', 'trip', 'bring police'],
    ['fob', 'trip', 'bring police'],
    ['porch', 'armed', 'harms hearing'],
    ['landing', 'agent', 'harms hearing'],
    ['hall', 'placement', 'ladder'],
    [PANEL, 'mains', 'licensed'],
    [PANEL, 'battery', 'no metal across the poles'],
  ])('%s, %s: %s', (key, kind, words) => expect(said(tarn(), key, kind)).toContain(words))

  it('says nothing of sirens where nothing sounds', () => {
    for (const [key, kind] of [
      ['porch', 'toggle'],
      ['porch', 'report'],
      ['fob', 'button'],
    ] as const)
      expect(said(tarn(), key, kind)).not.toContain('hearing')
  })

  it('warns of armed police before a silent call', () => {
    const job = tarn()
    job.set(job.zone('bedroom').id, { response: 'panic-silent' })
    expect(said(job, 'bedroom', 'trip')).toContain('armed police')
  })

  it('says that one-way motions sleep, and what a reading needs', () => {
    const wren = catalogue.get('family', 'family/wren')
    const told = (key: string, kind: ProofKind) => {
      const { model } = stopOf(tarn(), `device:${key}`)
      return hints(itemOf(tarn(), key, kind), model, wren).join(' ')
    }
    expect(told('hall', 'armed')).toContain('leave the room for 150 s first')
    const hall = stopOf(tarn(), 'device:hall').model
    const { sleepsSeconds, ...unsaid } = hall ?? ((): never => expect.fail('no model'))()
    expect(sleepsSeconds).toBe(150)
    expect(hints(itemOf(tarn(), 'hall', 'armed'), unsaid, wren).join(' ')).toContain(
      'for the sleep time first',
    )
    expect(told('hall', 'walk')).toContain('inconclusive, not failed')
    expect(told('porch', 'armed')).not.toContain('sleep')
    expect(told('porch', 'placement')).toMatch(/receiver.*4 bars.*2 bars/)
  })

  it('says how long a two-way device answers', () => {
    const curlew = catalogue.get('family', 'family/curlew-8')
    const job = behindRepeater()
    const { model } = stopOf(job, 'device:hall')
    expect(hints(itemOf(job, 'hall', 'placement'), model, curlew).join(' ')).toContain('15 minutes')
  })
})
