import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { blankDevice, jobInfo, pinOps, recordsOf, type JobDocument, type Op } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, learned, smallDoc } from '../../testing/small-doc.ts'
import Prove from './Prove.vue'

/* The real machine's clock goes on: only what counts seconds on the page is moved by hand. */

let page: JobPage
beforeEach(() => void vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval'] }))
afterEach(() => {
  page.close()
  vi.useRealTimers()
})

const set = (id: string, field: string, from: unknown, to: unknown): Op => ({
  op: 'set',
  id,
  field,
  from,
  to,
})

/** A learned porch door that starts entry delay 1 of 30 s, in a job that reports to nobody unless asked. */
function doorDoc(...more: Op[]): JobDocument {
  const doc = after(smallDoc(), [
    set('zone:one', 'response', null, 'entry-1'),
    set('job:main', 'entry1', null, 30),
    set('job:main', 'monitored', true, false),
    ...more,
  ])
  return learned(doc, 'zone:one', '12345678')
}

async function open(doc: JobDocument, proof: string): Promise<void> {
  page = await openJob(doc)
  await page.show(Prove)
  await click('zone 07')
  const head = buttons(proof)
  if (head?.getAttribute('aria-expanded') === 'false') await click(proof)
}

const buttons = (text: string) =>
  [...page.host.querySelectorAll<HTMLElement>('.row, .head')].find((one) => one.textContent.includes(text))

async function click(text: string): Promise<void> {
  buttons(text)?.click()
  await page.settle()
}

const results = () =>
  recordsOf(page.job.doc, 'test').map(({ kind, outcome, reading, note }) => [kind, outcome, reading, note])

async function passes(seconds: number): Promise<void> {
  vi.advanceTimersByTime(seconds * 1000)
  await page.settle()
}

it('times who comes home from one tap to the other, and records what is left beside the plan', async () => {
  await open(doorDoc(), 'Coming home')
  expect(page.host.textContent).toContain('Planned: 30 s')
  await page.press('The door opens: start')
  await passes(12)
  expect(page.host.querySelector('[role=timer]')?.textContent).toMatch(/12 s.*18 s left of the plan/)
  await passes(2)
  await page.press('It is unset')
  expect(page.host.textContent).toContain('14 s: Unset at the panel itself with 16 s of 30 s left.')
  expect(results()).toEqual([])
  await page.press('Record it')
  expect(results()).toEqual([
    [
      'home',
      'pass',
      14,
      'Unset at the panel itself with 16 s of 30 s left. The slowest of the house was not there.',
    ],
  ])
})

it('says what is over the plan, and that no alarm then means another delay', async () => {
  await open(doorDoc(), 'Coming home')
  await page.press('The door opens: start')
  await passes(45)
  expect(page.host.querySelector('[role=timer]')?.textContent).toContain('15 s over the plan')
  await page.press('It is unset')
  await page.press('Record it')
  expect(results()).toEqual([
    ['home', 'fail', 45, expect.stringContaining('the panel holds a longer delay') as unknown],
  ])
})

it('takes seconds by a watch, and says at the field what is allowed', async () => {
  await open(doorDoc(), 'Coming home')
  await page.type('Or by a watch', 'twelve')
  await page.press('It was unset')
  expect(page.host.textContent).toContain('Seconds: “twelve” must be a number from 1 to 900.')
  await page.type('Or by a watch', '29')
  await page.press('It alarmed')
  await page.press('Record it')
  expect(results()).toEqual([
    ['home', 'fail', 29, expect.stringContaining('Not unset within 30 s') as unknown],
  ])
})

it('asks for each keypad by itself, and takes that nobody unsets at one only once another suffices', async () => {
  const keypad = (key: string, room: string): Op => ({
    op: 'add',
    record: { ...blankDevice, id: `device:${key}`, model: 'device/tapwell-c', room, use: 'none', order: 2 },
  })
  const pin = pinOps(smallDoc(), catalogue, ['device/tapwell-c'])
  const doc = doorDoc(...pin, keypad('near', 'hall'), keypad('far', 'landing'))
  await open(learned(learned(doc, 'device:near', '23456781'), 'device:far', '23456782'), 'keypad in hall')
  const unused = () =>
    [...page.host.querySelectorAll('button')].filter((one) => one.textContent.includes('nobody unsets there'))
  expect(unused()).toEqual([])
  await page.type('Or by a watch', '14')
  await page.press('It was unset')
  await page.press('Record it')
  const head = buttons('keypad in landing')
  if (head?.getAttribute('aria-expanded') === 'false') await click('keypad in landing')
  expect(unused()).toHaveLength(1)
  unused()[0]?.click()
  await page.settle()
  const told = recordsOf(page.job.doc, 'test').map(({ unsetAt, outcome, reading, method }) => [
    ...[unsetAt, outcome, reading, method],
  ])
  expect(told.toSorted().toReversed()).toEqual([
    ['device:near', 'pass', 14, ''],
    ['device:far', 'pass', null, 'nobody unsets there, coming in by this door'],
  ])
  expect(unused()).toEqual([])
})

it('asks on a monitored job for the station first', async () => {
  await open(doorDoc(set('job:main', 'monitored', false, true)), 'Coming home')
  expect(page.host.textContent).toContain('Put the station on test first')
  expect(page.host.textContent).not.toContain('The door opens: start')
  expect(jobInfo(page.job.doc).pace).toBeNull()
})

it('mounts with one press where nothing is doubtful', async () => {
  await open(doorDoc(), 'Mounting')
  await page.press('✓ Mounted as shown')
  expect(results()).toEqual([['mount', 'pass', null, '']])
})

it('does not take a press for the answer to a question, and records what was asked', async () => {
  await open(doorDoc(set('device:porch', 'onSteel', false, true)), 'Mounting')
  await page.press('✓ Mounted as shown')
  expect(page.host.textContent).toContain('Say of each question whether it is so.')
  expect(results()).toEqual([])
  await page.press('It is so')
  await page.press('✓ Mounted as shown')
  expect(results()).toEqual([
    ['mount', 'pass', null, expect.stringContaining('Asked and seen: Shut,') as unknown],
  ])
})

it('fails by one tap on what is not so', async () => {
  await open(doorDoc(), 'Mounting')
  const free = [...page.host.querySelectorAll('button')].find((one) =>
    one.getAttribute('aria-label')?.startsWith('Not so: The leaf is free'),
  )
  free?.click()
  await page.settle()
  await page.press('■ Not as shown: 1 thing to mend')
  expect(results()).toEqual([
    ['mount', 'fail', null, 'Not as shown: The leaf is free: it touches neither, open, shut or slammed.'],
  ])
})

it('counts thirty seconds of pressing down', async () => {
  await open(doorDoc(), 'Mounting')
  await page.press('Press: 30 s')
  await passes(10)
  expect(page.host.querySelector('[role=timer]')?.textContent).toBe('20 s')
  await passes(20)
  expect(page.host.textContent).toContain('✓ 30 s pressed')
})
