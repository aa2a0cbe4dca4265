import { describe, expect, it } from 'vitest'
import { owedList } from '../findings/handover.ts'
import type { SmallJob } from '../testing/small-job.ts'
import { catalogue, cleanTarn } from '../testing/small-job.ts'
import { clocksOf } from './clocks.ts'
import { PANEL } from './copy.ts'
import { itemOf, learned, record } from './testing/proved-jobs.ts'

const noon = '2026-05-04T12:00:00Z'

/** A fob learned at some minute past eight on 4 May 2026; its battery read at a time. */
function fobReadAt(at: string, outcome: 'pass' | 'fail' = 'pass'): SmallJob {
  const job = learned(cleanTarn(), 'fob')
  return record(job, itemOf(job, 'fob', 'battery'), { at, outcome })
}
const again = (job: SmallJob, key = 'fob') => itemOf(job, key, 'battery').again
const owed = (job: SmallJob, now: string) =>
  owedList({ ...job.input(now), doc: job.doc }, []).filter(({ key }) => key === 'batteries')

describe('a battery read in its first day', () => {
  it('passes, and is to be read once more a day after the device was first heard', () => {
    const job = fobReadAt(noon)
    const from = again(job)
    expect(itemOf(job, 'fob', 'battery').state).toBe('pass')
    expect(from).toMatch(/^2026-05-05T08:\d\d:00\.000Z$/)
    // Read again before the day is over it is still too early; after it, it counts.
    record(job, itemOf(job, 'fob', 'battery'), { at: '2026-05-05T07:59:00.000Z' })
    expect(again(job)).toBe(from)
    record(job, itemOf(job, 'fob', 'battery'), { at: from ?? '' })
    expect(again(job)).toBeNull()
  })

  it('counts at once when it is read the day after', () => {
    expect(again(fobReadAt('2026-05-05T09:30:00.000Z'))).toBeNull()
  })

  it('is no matter of a reading that failed', () => {
    expect(again(fobReadAt(noon, 'fail'))).toBeNull()
  })

  it('of the panel goes by the first evidence of the job', () => {
    const job = learned(cleanTarn(), 'fob')
    record(job, itemOf(job, PANEL, 'battery'), { at: noon })
    expect(again(job, PANEL)).toMatch(/^2026-05-05T08:/)
    // Without any earlier evidence the reading itself is the first.
    const bare = cleanTarn()
    record(bare, itemOf(bare, PANEL, 'battery'), { at: noon })
    expect(again(bare, PANEL)).toBe('2026-05-05T12:00:00.000Z')
    const keyed = cleanTarn()
    record(keyed, itemOf(keyed, PANEL, 'clock'), { at: '2026-05-03T11:00:00.000Z' })
    record(keyed, itemOf(keyed, PANEL, 'battery'), { at: noon })
    expect(again(keyed, PANEL)).toBeNull()
  })

  it('says nothing of other proofs', () => {
    const job = learned(cleanTarn(), 'fob')
    record(job, itemOf(job, 'fob', 'reach'), { at: noon })
    expect(itemOf(job, 'fob', 'reach').again).toBeNull()
  })
})

describe('what comes of it', () => {
  it('is a clock until it can be read again, and a task that blocks nothing until it is', () => {
    const job = fobReadAt(noon)
    record(job, itemOf(job, PANEL, 'battery'), { at: '2026-05-04T13:00:00.000Z' })
    const clocks = (now: string) =>
      clocksOf({ doc: job.doc, catalogue }, now).filter(({ kind }) => kind === 'battery')
    const from = again(job) ?? ''
    expect(clocks('2026-05-04T14:00:00.000Z')).toMatchObject([
      { id: 'battery', ends: from, words: '2 batteries read too early' },
    ])
    expect(clocks(from)).toEqual([])
    for (const now of ['2026-05-04T14:00:00.000Z', '2026-05-07T14:00:00.000Z']) {
      const [task, ...rest] = owed(job, now)
      expect(rest).toEqual([])
      expect(task).toMatchObject({ blocks: false, stage: 'prove', count: 2 })
      expect(task?.text).toContain('batteries are to be read once more')
    }
    record(job, itemOf(job, PANEL, 'battery'), { at: from })
    expect(owed(job, from)[0]?.text).toContain(
      'a battery is to be read once more, read in its first day so far: Quartet',
    )
    expect(clocks('2026-05-04T14:00:00.000Z')).toMatchObject([
      { words: expect.stringMatching(/early: Quartet/) as string },
    ])
    record(job, itemOf(job, 'fob', 'battery'), { at: from })
    expect(owed(job, from)).toEqual([])
  })
})
