import { describe, expect, it } from 'vitest'
import { blankState } from '../job/blank.ts'
import type { Heard } from '../job/records.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { clocksOf, leftWords } from './clocks.ts'
import { behindRepeater, itemOf, learned, noon, one, record } from './testing/proved-jobs.ts'

const at = (time: string): string => `2026-05-04T${time}:00.000Z`
const clocks = (job: SmallJob, now: string) => clocksOf({ doc: job.doc, catalogue }, now)
const short = (job: SmallJob, now: string) => clocks(job, now).map(({ kind, ends }) => [kind, ends])

describe('clocks', () => {
  it('a mesh: the last learned at its place at 14:10, another at 14:20, settles at 14:40', () => {
    const job = new SmallJob({ panel: 'panel/sallow-m' })
      .add('front', 'jetty', { use: 'entry' })
      .add('back', 'jetty-slim', { use: 'opening' })
      .number()
    const settles = (now: string) => short(job, now).filter(([kind]) => kind === 'settled')
    learned(job, 'front')
    record(job, itemOf(job, 'front', 'placement'), { reading: 25, at: at('14:10') })
    // One is not at its place yet: no time is waited for.
    expect(settles(at('14:12'))).toEqual([])
    learned(job, 'back')
    record(job, itemOf(job, 'back', 'placement'), { reading: 25, at: at('14:20') })
    expect(settles(at('14:21'))).toEqual([['settled', at('14:40')]])
    expect(settles(at('14:39'))).toEqual([['settled', at('14:40')]])
    expect(settles(at('14:40'))).toEqual([])
  })

  it('the average of a day runs a whole day from the reading', () => {
    const job = learned(cleanMorrow(), 'front')
    expect(clocks(job, noon)).toEqual([])
    record(job, itemOf(job, 'front', 'placement'), { reading: 7, at: noon })
    expect(clocks(job, one)).toMatchObject([
      {
        ...{ kind: 'average', ends: '2026-05-05T12:00:00.000Z', id: 'average' },
        words: 'Average of a whole day: Latchet contact, front',
      },
    ])
    expect(clocks(job, '2026-05-05T12:00:00.000Z')).toEqual([])
    // Of several it is one clock, which ends when the last can be read.
    job.add('back', 'latchet', { use: 'opening' }).number()
    learned(job, 'back')
    record(job, itemOf(job, 'back', 'placement'), { reading: 7, at: at('12:30') })
    expect(clocks(job, one)).toMatchObject([
      { ends: '2026-05-05T12:30:00.000Z', words: 'Average of a whole day: 2 devices' },
    ])
    expect(clocks(job, '2026-05-05T12:10:00.000Z')).toMatchObject([
      { ends: '2026-05-05T12:30:00.000Z', words: 'Average of a whole day: Latchet contact, back' },
    ])
  })

  it('a window of 15 minutes: the cover touched again at 12 ends 27 after the first', () => {
    const job = behindRepeater()
    const hall = (now: string) => clocks(job, now).filter(({ id }) => id === 'answer device:hall')
    const touch = (time: string): SmallJob =>
      record(job, itemOf(job, 'hall', 'tamper'), { outcome: 'pass', at: time })
    expect(hall(at('10:00'))).toEqual([])
    touch(at('10:00'))
    expect(hall(at('10:01'))).toMatchObject([
      { ends: at('10:15'), words: 'Answers for its reading: Sill 8 contact, hall' },
    ])
    expect(hall(at('10:15'))).toEqual([])
    touch(at('10:12'))
    expect(hall(at('10:16'))).toMatchObject([{ ends: at('10:27') }])
    // A tamper that was heard at Enrol, taken or not, says as much as one that was noted.
    const tamper = (time: string, over: Partial<Heard>): SmallJob =>
      job.learn(job.zone('hall').id, '20417', {
        ...evidenceBy('Idris', at(time)),
        decision: 'refused',
        ...over,
      })
    tamper('10:14', { cause: 'tamper' })
    expect(hall(at('10:16'))).toMatchObject([{ ends: at('10:29') }])
    tamper('10:15', { cause: 'event' })
    expect(hall(at('10:16'))).toMatchObject([{ ends: at('10:29') }])
    // Once it is read nobody waits for it.
    record(job, itemOf(job, 'hall', 'placement'), { reading: 80, at: at('10:17') })
    expect(hall(at('10:18'))).toEqual([])
    // A family that answers at any time has no such clock.
    const tarn = learned(cleanTarn(), 'porch')
    record(tarn, itemOf(tarn, 'porch', 'tamper'), { at: at('10:00') })
    expect(clocks(tarn, at('10:01'))).toEqual([])
  })

  it('a temporary state runs to its end and stays past it, first what ends first', () => {
    const begin = (id: string, kind: 'station-on-test' | 'hardware-watch-off', until: string) => ({
      op: 'add' as const,
      record: { ...blankState, id, kind, who: 'Idris', why: 'tests', ...evidenceBy('Idris', noon), until },
    })
    const job = cleanTarn().apply([
      begin('state:watch', 'hardware-watch-off', at('15:00')),
      begin('state:test', 'station-on-test', at('13:00')),
    ])
    const both = [
      ['state', at('13:00')],
      ['state', at('15:00')],
    ]
    expect(short(job, at('12:30'))).toEqual(both)
    expect(short(job, at('16:00'))).toEqual(both)
    expect(clocks(job, noon)[0]).toMatchObject({
      words: 'The station is on test',
      then: 'Until it is ended alarms bring no help.',
    })
    job.apply([
      {
        op: 'add',
        record: {
          ...{ id: 'state-end:1', type: 'state-end', state: 'state:test', kind: 'station-on-test' },
          ...{ who: 'Idris', why: '', ...evidenceBy('Idris', one) },
        } as never,
      },
    ])
    expect(short(job, at('12:30'))).toEqual([['state', at('15:00')]])
  })
})

describe('what is left', () => {
  const start = Date.parse(noon)
  it.each([
    [-1, ''],
    [0, ''],
    [0.4, '0:01'],
    [59, '0:59'],
    [60, '1:00'],
    [725, '12:05'],
    [3599, '59:59'],
    [3600, '1 h'],
    [3601, '1 h 1 min'],
    [4800, '1 h 20 min'],
    [86_399, '1 day'],
    [86_400, '1 day'],
    [90_000, '1 day 1 h'],
    [172_800, '2 days'],
  ])('of %f s is %s', (seconds, words) => {
    expect(leftWords(noon, new Date(start + seconds * 1000).toISOString())).toBe(words)
  })
})
