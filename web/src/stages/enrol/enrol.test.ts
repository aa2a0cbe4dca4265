import { afterEach, beforeEach, expect, it } from 'vitest'
import { computed, shallowRef } from 'vue'
import { recordsOf, type Transmission } from '#core'
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

async function open(sticker: string | null): Promise<void> {
  const doc = after(smallDoc(), [
    { op: 'set', id: 'device:porch', field: 'sticker', from: null, to: sticker },
    { op: 'set', id: 'zone:one', field: 'loop', from: null, to: 3 },
  ])
  page = await openJob(doc)
  const enrol = useEnrol(air)
  await page.show(Candidate, { enrol, listening: true })
}

beforeEach(() => (heard.value = []))
afterEach(() => page.close())

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
  expect(accept().disabled).toBe(false)
  await page.press('Accept for zone 07')
  expect(page.edits.map((edit) => edit.kind)).toEqual(['enrol.accept'])
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
