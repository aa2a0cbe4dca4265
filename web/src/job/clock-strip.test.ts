import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { blankState } from '#core'
import { openJob, type JobPage } from '../testing/job-page.ts'
import { catchSaved } from '../testing/saved-file.ts'
import { smallDoc } from '../testing/small-doc.ts'
import ClockStrip from './ClockStrip.vue'

let page: JobPage
const NOON = Date.UTC(2026, 4, 4, 12)
beforeEach(() => vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval'], now: NOON }))
afterEach(() => {
  page.close()
  vi.useRealTimers()
})

const text = (): string => page.host.textContent?.replace(/\s+/g, ' ').trim() ?? ''
/** Opens a job in which these states run for so many minutes. */
async function open(...states: readonly ['station-on-test' | 'hardware-watch-off' | 'chime-demo', number][]) {
  page = await openJob(smallDoc())
  for (const [kind, minutes] of states) {
    const until = new Date(NOON + minutes * 60_000).toISOString()
    const record = {
      ...blankState,
      id: `state:${kind}`,
      ...page.job.fresh(),
      kind,
      who: 'Idris',
      why: 'tests',
      until,
    }
    page.job.edit('state.begin', [{ op: 'add', record }])
  }
  await page.show(ClockStrip)
}

describe('the strip of clocks', () => {
  it('is none while none runs', async () => {
    await open()
    expect(text()).toBe('')
  })

  it('says what runs and how long still, and what is past its end', async () => {
    await open(['station-on-test', 10], ['chime-demo', 90])
    expect(text()).toMatch(
      /◷ The station is on test 10:00 ?until .*◷ Chime is on for a demonstration 1 h 30 min/,
    )
    vi.advanceTimersByTime(15_000)
    await page.settle()
    expect(text()).toContain('The station is on test 9:45')
    vi.advanceTimersByTime(10 * 60_000)
    await page.settle()
    expect(text()).toContain('▲ The station is on test: its end was')
  })

  it('is saved as a calendar file, all of it that still runs, also what is not shown', async () => {
    const saved = catchSaved()
    await open(['station-on-test', 10], ['chime-demo', 90], ['hardware-watch-off', 60])
    vi.advanceTimersByTime(20 * 60_000)
    await page.settle()
    await page.press('Calendar file')
    const lines = (await saved.text()).split('\r\n')
    expect(lines.filter((line) => line.startsWith('DTSTART'))).toEqual([
      'DTSTART:20260504T130000Z',
      'DTSTART:20260504T133000Z',
    ])
    expect(lines.filter((line) => line.startsWith('UID'))).toEqual([
      expect.stringContaining('job-1'),
      expect.stringContaining('job-1'),
    ])
    expect(saved.name()).toMatch(/ clocks\.ics$/)
    vi.advanceTimersByTime(90 * 60_000)
    await page.settle()
    // What is past its end stands in no calendar.
    expect(text()).not.toContain('Calendar file')
  })

  it('shows two and the rest on demand', async () => {
    await open(['station-on-test', 10], ['chime-demo', 90], ['hardware-watch-off', 60])
    expect(text()).not.toContain('Chime')
    await page.press('1 more')
    expect(text()).toContain('Chime')
    await page.press('Fewer clocks')
    expect(text()).not.toContain('Chime')
  })
})
