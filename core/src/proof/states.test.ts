import { describe, expect, it } from 'vitest'
import { blankState } from '../job/blank.ts'
import type { TemporaryState } from '../job/records.ts'
import { evidenceBy } from '../job/testing/records.ts'
import type { SmallJob } from '../testing/small-job.ts'
import { catalogue, cleanTarn } from '../testing/small-job.ts'
import {
  openState,
  openTasks,
  stateAbout,
  stateProblem,
  stateRules,
  stateSubjects,
  TASK_DONE,
  type StateKind,
} from './states.ts'

const at = '2026-05-04T12:00:00Z'
const state = (over: Partial<TemporaryState>): TemporaryState => ({
  ...blankState,
  ...({ id: 'state:1', kind: 'chime-demo', who: 'Idris', why: 'shown to them' } as const),
  ...evidenceBy('Idris', at),
  until: '2026-05-04T20:00:00Z',
  ...over,
})
const subjects = (job: SmallJob, kind: StateKind) =>
  stateSubjects(job.doc, catalogue, kind).map((subject) => subject.name)
const problem = (job: SmallJob, over: Partial<TemporaryState>) =>
  stateProblem(job.doc, catalogue, state(over))?.field ?? null

describe('what a temporary state can be about', () => {
  const job = () =>
    cleanTarn().add('pad', 'tapwell', { slot: 1, room: 'hall' }).add('bell', 'horn-w', { slot: 1 })

  it('a zone, but none of fire or gas', () => {
    // Porch and study are contacts, hall a motion, lounge glass; landing is smoke, kitchen CO, bedroom a call.
    const zones = subjects(job(), 'zone-not-used')
    expect(zones.map((name) => name.slice(0, 7))).toEqual([
      'zone 01',
      'zone 02',
      'zone 03',
      'zone 04',
      'zone 07',
      'zone 09',
    ])
    expect(zones[0]).toBe('zone 01, Porch Front Door')
  })

  it('no zone that a fire type was put on', () => {
    const fire = job()
    fire.set(fire.zone('porch').id, { response: 'fire' })
    expect(subjects(fire, 'zone-not-used')).not.toContain('zone 01, Porch Front Door')
  })

  it('a siren, a keypad, a cover, a battery: each of what has one, and of nothing that saves lives', () => {
    expect(subjects(job(), 'siren-unplugged')).toEqual(['Horn W wired siren, bell'])
    expect(subjects(job(), 'sounder-off')).toEqual(['Tapwell keypad, hall'])
    const covers = subjects(job(), 'tamper-linked')
    expect(covers).toEqual([
      'Reedling contact, porch, front door',
      'Reedling Slim contact, study, window',
      'Stilt Hound motion, hall',
      'Pane Ear glass break, lounge',
      'Horn W wired siren, bell',
    ])
    const batteries = subjects(job(), 'low-battery')
    expect(batteries).toContain('Reedling contact, porch, front door')
    expect(batteries.join()).not.toMatch(/Ember|Wick|Horn/)
  })

  it('nothing for the station, the chime and the hardware, nor what has no place yet', () => {
    for (const kind of ['station-on-test', 'chime-demo', 'hardware-watch-off', 'mains-off'] as const)
      expect(subjects(job(), kind)).toEqual([])
    const deferred = job().set('device:bell', { deferred: 'no ladder' })
    expect(subjects(deferred, 'siren-unplugged')).toEqual([])
  })

  it('is said in words, also when it is gone', () => {
    const on = job()
    const about = (over: Partial<TemporaryState>) => stateAbout(on.doc, catalogue, state(over))
    expect(about({})).toBe('')
    expect(about({ about: on.zone('porch').id })).toBe('zone 01, Porch Front Door')
    expect(about({ about: 'device:bell' })).toBe('Horn W wired siren, bell')
    expect(about({ about: 'device:gone' })).toBe('something that is not there any more')
    on.set(on.zone('porch').id, { label: '' })
    expect(about({ about: on.zone('porch').id })).toBe('zone 01')
  })
})

describe('a temporary state', () => {
  it('names what it is about, says why, and ends within three days', () => {
    const job = cleanTarn()
    const zone = job.zone('porch').id
    expect(problem(job, {})).toBeNull()
    expect(problem(job, { kind: 'zone-not-used', about: zone })).toBeNull()
    expect(problem(job, { kind: 'zone-not-used', about: null })).toBe('about')
    expect(problem(job, { kind: 'zone-not-used', about: job.zone('landing', 'smoke').id })).toBe('about')
    expect(
      stateProblem(job.doc, catalogue, state({ kind: 'zone-not-used', about: null }))?.message,
    ).toContain('fire and gas')
    expect(stateProblem(job.doc, catalogue, state({ kind: 'sounder-off', about: null }))?.message).toBe(
      'Say which one it is.',
    )
    for (const why of ['', '  ', 'ab', ' ab ']) expect(problem(job, { why })).toBe('why')
    expect(problem(job, { why: 'abc' })).toBeNull()
    expect(problem(job, { until: at })).toBe('until')
    expect(problem(job, { until: '2026-05-04T11:00:00Z' })).toBe('until')
    expect(problem(job, { until: '2026-05-07T12:00:00Z' })).toBeNull()
    expect(problem(job, { until: '2026-05-07T12:00:01Z' })).toBe('until')
    expect(problem(job, { until: 'never' })).toBe('until')
  })

  it('is found open by kind and by what it is about', () => {
    const job = cleanTarn().apply([
      { op: 'add', record: state({ kind: 'low-battery', about: 'device:porch' }) },
    ])
    expect(openState(job.doc, 'low-battery')?.id).toBe('state:1')
    expect(openState(job.doc, 'low-battery', 'device:porch')?.id).toBe('state:1')
    expect(openState(job.doc, 'low-battery', 'device:hall')).toBeNull()
    expect(openState(job.doc, 'sounder-off')).toBeNull()
  })

  it('leaves its task for the day after, until somebody says that it is done', () => {
    const job = cleanTarn().apply([{ op: 'add', record: state({}) }])
    expect(openTasks(job.doc)).toEqual([
      { state: state({}), task: stateRules['chime-demo'].task, from: '2026-05-05T00:00:00.000Z' },
    ])
    const sign = (what: string, about: string | null, id: string) =>
      job.apply([
        {
          op: 'add',
          record: { id, type: 'signoff', what, about, note: '', keyed: null, ...evidenceBy('Idris', at) },
        },
      ])
    sign(TASK_DONE, 'state:2', 'signoff:1')
    sign('read-back', 'state:1', 'signoff:2')
    sign(TASK_DONE, null, 'signoff:3')
    expect(openTasks(job.doc)).toHaveLength(1)
    sign(TASK_DONE, 'state:1', 'signoff:4')
    expect(openTasks(job.doc)).toEqual([])
  })

  it('says of every kind what it costs and what is to be done', () => {
    for (const rule of Object.values(stateRules)) {
      expect(rule.costs).not.toBe('')
      expect(rule.task).toMatch(/\.$|\?$/)
    }
  })
})
