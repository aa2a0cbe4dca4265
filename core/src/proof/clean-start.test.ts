import { describe, expect, it } from 'vitest'
import { judge } from '../findings/judge.ts'
import { owedList } from '../findings/handover.ts'
import { recordsOf } from '../job/document.ts'
import { blankSignoff } from '../job/blank.ts'
import { enrolmentOf } from '../job/enrolment.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { wipedAt } from '../job/wiped.ts'
import { jobOnEach } from '../testing/panels.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import {
  CLEAN_REFUSED,
  cleanSignoff,
  cleanStartOf,
  openCleanSteps,
  type CleanStepKey,
} from './clean-start.ts'
import { itemOf, learned, record } from './testing/proved-jobs.ts'
import { PANEL } from './copy.ts'
import { keyedNow } from './keyed.ts'

const at = (time: string): string => `2026-05-04T${time}:00.000Z`
let count = 0
function sign(job: SmallJob, what: string, time: string): SmallJob {
  const id = `signoff:${(count += 1)}`
  return job.apply([
    { op: 'add', record: { ...blankSignoff, ...evidenceBy('Idris', at(time)), id, what, keyed: null } },
  ])
}
function wipe(job: SmallJob, time: string, panel = 'panel/tarn-40'): SmallJob {
  const held = { id: `held:${(count += 1)}`, type: 'held', panel, how: 'wiped', saved: true } as const
  return job.apply([
    { op: 'add', record: { ...evidenceBy('Idris', at(time)), ...held, section: 'Clean start', values: [] } },
  ])
}
const states = (job: SmallJob) =>
  (cleanStartOf({ doc: job.doc, catalogue }) ?? []).map(({ key, state }) => [key, state])
const used = (): SmallJob => cleanTarn().set('job:main', { panelCame: 'used' })
function owed(job: SmallJob, key: string): string | null {
  const input = {
    ...{ doc: job.doc, catalogue, houseRules: job.houseRules, elsewhere: [] },
    now: at('23:30'),
  }
  return owedList(input, judge(input)).find((one) => one.key === key)?.text ?? null
}

describe('the clean start of a panel that was used before', () => {
  it.each([null, 'new', 'there'] as const)('is not asked of one that came %s', (panelCame) => {
    const job = cleanTarn().set('job:main', { panelCame })
    expect(cleanStartOf({ doc: job.doc, catalogue })).toBeNull()
    expect(openCleanSteps({ doc: job.doc, catalogue })).toEqual([])
    expect(owed(job, 'clean')).toBeNull()
  })

  it('has its steps in their order, each open until somebody saw it', () => {
    const job = used()
    const all: CleanStepKey[] = ['access', 'wiped', 'radio', 'log', 'grade']
    expect(states(job)).toEqual(all.map((key) => [key, 'open']))
    expect(owed(job, 'clean')).toContain('5 steps are open')
    sign(job, cleanSignoff('access'), '08:00')
    wipe(job, '08:10')
    for (const [index, key] of (['radio', 'log', 'grade'] as const).entries())
      sign(job, cleanSignoff(key), `08:2${index}`)
    expect(states(job)).toEqual(all.map((key) => [key, 'done']))
    expect(cleanStartOf({ doc: job.doc, catalogue })?.[1]?.seen).toEqual({ by: 'Idris', at: at('08:10') })
    expect(owed(job, 'clean')).toBeNull()
  })

  it('sees anew what was seen before it was brought back once more; the way in stays', () => {
    const job = wipe(used(), '08:10')
    for (const key of ['access', 'radio', 'log', 'grade'] as const) sign(job, cleanSignoff(key), '08:20')
    wipe(job, '09:00')
    expect(states(job)).toEqual([
      ['access', 'done'],
      ['wiped', 'done'],
      ['radio', 'again'],
      ['log', 'again'],
      ['grade', 'again'],
    ])
    expect(owed(job, 'clean')).toContain('3 steps are open')
  })

  it('may be refused by the panel, and done later all the same; another panel’s does not count', () => {
    const job = sign(used(), CLEAN_REFUSED, '08:10')
    expect(states(job)[1]).toEqual(['wiped', 'refused'])
    expect(openCleanSteps({ doc: job.doc, catalogue }).map(({ key }) => key)).not.toContain('wiped')
    wipe(job, '08:20', 'panel/morrow-60')
    expect(states(job)[1]).toEqual(['wiped', 'refused'])
    wipe(job, '08:30')
    expect(states(job)[1]).toEqual(['wiped', 'done'])
  })

  it.each(jobOnEach)('on %s: asks for a grade only where the panel has one', (panel, make) => {
    const job = make().set('job:main', { panelCame: 'used' })
    const keys = states(job).map(([key]) => key)
    expect(keys).toEqual([
      ...['access', 'wiped', 'radio', 'log'],
      // The Morrow is of no grade.
      ...(panel === 'morrow-60' ? [] : ['grade']),
    ])
    for (const step of cleanStartOf({ doc: job.doc, catalogue }) ?? []) expect(step.how).not.toEqual([])
  })
})

describe('a panel that was brought back to how it came', () => {
  it('knows no device that was learned before, whoever asks', () => {
    const job = learned(cleanTarn(), 'porch')
    const [zone] = recordsOf(job.doc, 'zone')
    const id = zone?.id ?? ''
    expect(enrolmentOf(job.doc, id)).not.toBeNull()
    wipe(job, '07:00')
    expect(wipedAt(job.doc)).toBe(at('07:00'))
    expect(enrolmentOf(job.doc, id)).not.toBeNull()
    wipe(job, '23:00')
    expect(enrolmentOf(job.doc, id)).toBeNull()
    job.learn(id, '20417733', { at: '2026-05-05T08:00:00.000Z' })
    expect(enrolmentOf(job.doc, id)?.serial).toBe('20417733')
  })

  it('has lost its time of day, and its codes are the maker’s', () => {
    const job = cleanTarn()
    record(job, itemOf(job, PANEL, 'clock'), { at: at('10:00') })
    record(job, itemOf(job, PANEL, 'mount'), { at: at('10:00') })
    expect(itemOf(job, PANEL, 'clock').state).toBe('pass')
    wipe(job, '11:00')
    expect(itemOf(job, PANEL, 'clock')).toMatchObject({
      ...{ state: 'stale', changed: ['it was brought back to how it came since'] },
    })
    expect(itemOf(job, PANEL, 'mount').state).toBe('pass')
    const keyed = keyedNow({ doc: job.doc, catalogue }, job.houseRules, 'code installer')
    for (const [time, is] of [
      ['10:30', true],
      ['11:30', false],
    ] as const) {
      const signed = new SmallJob({})
      signed.doc = job.doc
      signed.apply([
        {
          op: 'add',
          record: {
            ...{ ...blankSignoff, ...evidenceBy('Idris', at(time)), id: `signoff:code-${time}`, keyed },
            what: 'code installer',
          },
        },
      ])
      expect(owed(signed, 'code installer') !== null, time).toBe(is)
    }
    expect(owed(job, 'code installer')).toContain('the default is still set')
  })

  it('keeps nothing that was left as programmed', () => {
    const job = cleanTarn()
    const [zone] = recordsOf(job.doc, 'zone')
    job.set(zone?.id ?? '', { asProgrammed: true })
    expect(owed(job, 'forgot')).toBeNull()
    wipe(job, '11:00')
    expect(owed(job, 'forgot')).toContain('1 zone is left as programmed')
  })
})
