import { afterEach, beforeEach, expect, it } from 'vitest'
import { computed, effectScope, shallowRef, type EffectScope } from 'vue'
import { enrolmentOf, recordsOf, type Transmission } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, smallDoc } from '../../testing/small-doc.ts'
import Candidate from './Candidate.vue'
import type { Air } from './useAir.ts'
import { useEnrol } from './useEnrol.ts'

let page: JobPage
const heard = shallowRef<readonly Transmission[]>([])
const air: Air = {
  listening: computed(() => true),
  heard,
  seconds: computed(() => 3),
  start: () => undefined,
  stop: () => undefined,
}
const trip = (id: string, over: Partial<Transmission> = {}): void => {
  const sent: Transmission = {
    id,
    atMs: 0,
    serial: '20417733',
    family: 'family/wren',
    encrypted: false,
    cause: 'event',
    loop: 3,
    level: 4,
    deviceClass: 'contact',
    ...over,
  }
  heard.value = [sent, ...heard.value]
}
const text = (): string => page.host.textContent
const accept = (): HTMLButtonElement =>
  [...page.host.querySelectorAll('button')].find((button) => button.textContent.startsWith('Accept')) ??
  ((): never => {
    throw new Error('no Accept')
  })()

async function open(
  sticker: string | null,
  others: readonly { serial: string; job: string }[] = [],
): Promise<void> {
  const doc = after(smallDoc(), [
    { op: 'set', id: 'device:porch', field: 'sticker', from: null, to: sticker },
    { op: 'set', id: 'zone:one', field: 'loop', from: null, to: 3 },
  ])
  page = await openJob(doc, 'installer', others)
  const enrol = scope.run(() => useEnrol(air))
  await page.show(Candidate, { enrol, listening: true })
}

let scope: EffectScope
beforeEach(() => {
  heard.value = []
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  page.close()
})

it('holds Accept back until a contact was tripped once more', async () => {
  await open('20417733')
  trip('one')
  await page.settle()
  expect(text()).toContain('trip it once more')
  expect(accept().disabled).toBe(true)
  trip('checked in', { cause: 'check-in', loop: null })
  await page.settle()
  expect(accept().disabled).toBe(true)
  trip('two')
  await page.settle()
  expect(text()).toContain('Heard 2 times: confirmed.')
  expect(text()).not.toContain('Ways to make it transmit')
  expect(accept().disabled).toBe(false)
  await page.press('Accept for zone 07')
  expect(page.edits.map((edit) => edit.kind)).toEqual(['enrol.accept'])
  expect(enrolmentOf(page.job.doc, 'zone:one')).toMatchObject({ serial: '20417733', by: 'air' })
  // Taken out again it is to be learned anew, and both stay on record.
  await page.press('Take it out of the panel')
  expect(enrolmentOf(page.job.doc, 'zone:one')).toBeNull()
  expect(recordsOf(page.job.doc, 'heard').map((record) => record.decision)).toEqual(['accepted', 'released'])
})

it('puts what was heard in an edit of its own, and the loop of the zone behind it', async () => {
  await open('20417733')
  page.job.set('zone.set', 'zone:one', 'loop', 3, 4)
  trip('one')
  trip('two')
  await page.settle()
  await page.press('Accept for zone 07')
  expect(page.edits.map((edit) => edit.kind)).toEqual(['zone.set', 'enrol.accept', 'zone.set'])
  expect(recordsOf(page.job.doc, 'zone')[0]?.loop).toBe(3)
  expect(enrolmentOf(page.job.doc, 'zone:one')?.serial).toBe('20417733')
})

it('never compares what was typed with itself', async () => {
  await open(null)
  const entry = page.host.querySelector<HTMLInputElement>('#sticker-entry')
  if (!entry) throw new Error('no entry')
  entry.value = '2041 7733'
  entry.dispatchEvent(new Event('input'))
  entry.form?.dispatchEvent(new Event('submit'))
  await page.settle()
  expect(text()).toContain('Typed, not heard.')
  expect(text()).toContain('no sticker noted')
  expect(text()).not.toContain('This is it')
  await page.press('Accept for zone 07')
  expect(recordsOf(page.job.doc, 'device')[0]?.sticker).toBeNull()
  expect(text()).not.toContain('the same, character by character')
})

it('asks about an ID that another job of the firm uses, and takes it on the word of whoever knows', async () => {
  await open('20417733', [{ serial: '20417733', job: 'Heron Weir' }])
  trip('one')
  trip('two')
  await page.settle()
  expect(text()).toContain('In another job, too.')
  expect(text()).toContain('2041 7733 is enrolled in the job “Heron Weir”. A sensor that was moved here')
  expect(accept().disabled).toBe(false)
  await page.press('Accept for zone 07')
  expect(recordsOf(page.job.doc, 'heard').map((record) => [record.decision, record.code])).toEqual([
    ['accepted', 'elsewhere'],
  ])
})

it('says where an ID is nearly the sticker’s, and does not take it', async () => {
  await open('20417738')
  const entry = page.host.querySelector<HTMLInputElement>('#sticker-entry')
  if (!entry) throw new Error('no entry')
  entry.value = '2041 7788'
  entry.dispatchEvent(new Event('input'))
  entry.form?.dispatchEvent(new Event('submit'))
  await page.settle()
  expect(text()).toContain('Nearly, but not it.')
  expect(text()).toContain('character 7 is 8 here and 3 on the sticker')
  expect(accept().disabled).toBe(true)
  expect(recordsOf(page.job.doc, 'heard').map((record) => [record.decision, record.code])).toEqual([
    ['refused', 'look-alike'],
  ])
})

it('goes without the second transmission for a reason that covers the class, counted, and kept with each', async () => {
  await open('20417733')
  trip('one')
  await page.settle()
  expect(accept().disabled).toBe(true)
  // While something is judged nothing is said of waiting for it.
  expect(text()).not.toContain('Ways to make it transmit')
  await page.press('Go without a second transmission…')
  const field = (): HTMLInputElement => {
    const input = page.host.querySelector<HTMLInputElement>('.without input')
    if (!input) throw new Error('no field')
    return input
  }
  const say = async (words: string): Promise<void> => {
    field().value = words
    field().dispatchEvent(new Event('input'))
    field().form?.dispatchEvent(new Event('submit'))
    await page.settle()
  }
  await say('x')
  expect(text()).toContain('must be a reason of at least 3 characters')
  expect(accept().disabled).toBe(true)
  await say('baby asleep')
  expect(text()).toContain('Without a second transmission: baby asleep (every contact that is enrolled now)')
  expect(accept().disabled).toBe(false)
  await page.press('Accept for zone 07')
  expect(recordsOf(page.job.doc, 'heard').map(({ code, reason }) => [code, reason])).toEqual([
    ['unconfirmed', 'Without a second transmission: baby asleep'],
  ])
  // What it covers next says how many went before; asked again, Accept waits again.
  await page.press('Take it out of the panel')
  heard.value = []
  trip('two')
  await page.settle()
  expect(text()).toContain('1 so far')
  await page.press('Ask for it again')
  expect(accept().disabled).toBe(true)
})
