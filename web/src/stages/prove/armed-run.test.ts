import { afterEach, expect, it } from 'vitest'
import { recordsOf, type JobDocument, type Op } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, learned, smallDoc } from '../../testing/small-doc.ts'
import Prove from './Prove.vue'

let page: JobPage
afterEach(() => page.close())

const set = (id: string, field: string, from: unknown, to: unknown): Op => ({
  op: 'set',
  id,
  field,
  from,
  to,
})

/** A porch door that is learned and starts entry delay 1, in a job that reports to nobody unless asked. */
function doorDoc({ monitored }: { monitored: boolean }): JobDocument {
  const doc = after(smallDoc(), [
    set('zone:one', 'response', null, 'entry-1'),
    set('job:main', 'entry1', null, 30),
    set('job:main', 'exit', null, 60),
    ...(monitored ? [] : [set('job:main', 'monitored', true, false)]),
  ])
  return learned(doc, 'zone:one', '12345678')
}

async function open(doc: JobDocument): Promise<void> {
  page = await openJob(doc)
  await page.show(Prove)
  await page.press('Armed run: 1 trip')
}

const results = () =>
  recordsOf(page.job.doc, 'test').map(({ kind, outcome, note, method }) => [kind, outcome, note, method])

it('says what is expected of a door and passes it only as expected', async () => {
  await open(doorDoc({ monitored: false }))
  expect(page.host.textContent).toContain('entry delay 1 of 30 s, then its burglary alarm: wait it out')
  expect(page.host.textContent).toContain('Then wait for the exit delay of 60 s.')
  await page.press('It is set now')
  expect(page.host.textContent).toMatch(/Trips count in [01]:[0-5]\d/)
  await page.press('✓ Passed: as expected')
  expect(results()).toEqual([
    [
      'armed',
      'pass',
      'Seen as expected: entry delay 1 of 30 s, then its burglary alarm: wait it out.',
      'in the armed run, away',
    ],
  ])
  // What is done stays on the list of the run.
  expect(page.host.textContent).toContain('zone 07 Porch Door')
  expect(page.edits.map(({ kind }) => kind)).toEqual(['prove.record'])
})

it('fails a delayed door that alarms, with its reason', async () => {
  await open(doorDoc({ monitored: false }))
  await page.press('Something else…')
  const seen = [...document.querySelectorAll<HTMLElement>('.v-list-item')].map((one) =>
    one.textContent.trim(),
  )
  expect(seen).toContain('Seen: the alarm at once')
  expect(seen).not.toContain('Seen: an entry delay first, then the alarm')
  const item = [...document.querySelectorAll<HTMLElement>('.v-list-item')].find((one) =>
    one.textContent.includes('the alarm at once'),
  )
  item?.click()
  await page.settle()
  expect(results()).toEqual([
    [
      'armed',
      'fail',
      'Expected entry delay 1 of 30 s, then its burglary alarm: wait it out; seen: the alarm at once.',
      'in the armed run, away',
    ],
  ])
})

it('asks for the station first on a monitored job', async () => {
  await open(doorDoc({ monitored: true }))
  expect(page.host.textContent).toContain('Put the station on test first')
  expect(page.host.textContent).toContain('entry delay 1 of 30 s')
  expect(
    [...page.host.querySelectorAll('button')].some((one) => one.textContent.includes('as expected')),
  ).toBe(false)
})

it('asks whether the second unset cleared a panel of which only that clears, in the run and on its own', async () => {
  await open(doorDoc({ monitored: false }))
  expect(page.host.textContent).toContain('Unset once more: only the second clears this panel.')
  await page.press('✕ It still shows the alarm')
  expect(page.host.textContent).toContain('failed: it was not cleared')
  await page.press('✓ The second unset cleared it')
  expect(page.host.textContent).toContain('The second unset was seen to clear it.')
  expect(results()).toEqual([
    ['clears', 'fail', '', 'in the armed run'],
    ['clears', 'pass', '', 'in the armed run'],
  ])
})

it('notes at the panel that its mains are off, for an hour, and that it runs on its battery', async () => {
  page = await openJob(doorDoc({ monitored: false }))
  await page.show(Prove)
  const panel = [...page.host.querySelectorAll<HTMLElement>('button')].find((one) =>
    one.textContent.includes('mains: not tested'),
  )
  panel?.click()
  await page.settle()
  await page.press('Its mains are off now…')
  expect(page.host.textContent).toContain('Meanwhile the system runs on its battery alone.')
  expect(page.host.textContent).toContain('switch off by the breaker')
  await page.press('Note it')
  expect(page.host.textContent).toContain('Say why, so that the next person knows.')
  await page.type('Why', 'to see its report')
  await page.press('Note it')
  const [state] = recordsOf(page.job.doc, 'state')
  expect([state?.kind, state?.about, state?.why]).toEqual(['mains-off', null, 'to see its report'])
  expect(Date.parse(state?.until ?? '') - Date.parse(state?.at ?? '')).toBe(3_600_000)
})
