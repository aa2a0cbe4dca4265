import { afterEach, expect, it, vi } from 'vitest'
import { computed, effectScope, shallowRef, type EffectScope } from 'vue'
import { jobInfo, type DraftOp, type Transmission } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, smallDoc } from '../../testing/small-doc.ts'
import Candidate from './Candidate.vue'
import { useEnrol } from './useEnrol.ts'

let page: JobPage
let scope: EffectScope
let enrol: ReturnType<typeof useEnrol>
afterEach(() => {
  scope.stop()
  page.close()
})

/** The card of the contact in the porch, whose entry has loops 3 and 4, while it is heard by loop 1. */
async function heardByLoopOne(sticker: string | null, practice: boolean): Promise<void> {
  const doc = after(smallDoc(), [
    { op: 'set', id: 'device:porch', field: 'sticker', from: null, to: sticker },
    { op: 'set', id: 'zone:one', field: 'loop', from: null, to: 3 },
    { op: 'set', id: 'job:main', field: 'practice', from: false, to: practice },
  ])
  page = await openJob(doc)
  scope = effectScope()
  const sent: Transmission = {
    ...{ id: 'one', atMs: 0, serial: '20417733', family: 'family/wren', encrypted: false, cause: 'event' },
    ...{ loop: 1, level: 4, lowBattery: false, deviceClass: 'contact' },
  }
  const air = {
    ...{ listening: computed(() => true), heard: shallowRef([sent]), seconds: computed(() => 3) },
    ...{ start: () => undefined, stop: () => undefined },
  }
  enrol = scope.run(() => useEnrol(air)) ?? expect.fail('no enrolment')
  await page.show(Candidate, { enrol, listening: true })
  enrol.show(sent)
  await page.settle()
}
const text = (): string => page.host.textContent
const offered = (): boolean => text().includes('Correct its entry')
const accept = (): HTMLButtonElement | undefined =>
  [...page.host.querySelectorAll('button')].find((button) => button.textContent.startsWith('Accept'))

it('leads from a loop that the entry lacks to its correction, with where it was seen', async () => {
  await heardByLoopOne('20417733', false)
  expect(text()).toContain('Another loop than its entry knows.')
  expect(text()).toContain('it says 3 reed, 4 wired terminals')
  expect(accept()?.disabled).toBe(true)
  const sent = vi.spyOn(globalThis, 'fetch')
  await page.press('Correct its entry: reed is loop 1…')
  expect(page.path()).toMatch(/^\/catalogue\/drafts\/[0-9a-f-]{36}$/)
  const begun = sent.mock.calls.find(([, init]) => init?.method === 'PUT')
  const { edit } = JSON.parse(String(begun?.[1]?.body)) as { edit: { ops: DraftOp[] } }
  expect(edit.ops).toContainEqual({
    ...{ op: 'set', id: 'answer:loops', field: 'source' },
    ...{ from: '', to: `seen on the panel, ${jobInfo(page.job.doc).name}` },
  })
  sent.mockRestore()
})

it('takes a loop that is told after the ID was compared for that of the same reading', async () => {
  await heardByLoopOne('20417733', false)
  expect(enrol.display({ signs: '7733', cause: 'event', loop: null })).toBe('')
  await page.settle()
  expect(text()).toContain('This is it.')
  enrol.tellMore({ cause: 'event', loop: 1 })
  await page.settle()
  expect(text()).not.toContain('This is it.')
  expect(offered()).toBe(true)
  // Told right, it is it again; and shown once, however often it was told.
  enrol.tellMore({ cause: 'event', loop: 3 })
  await page.settle()
  expect(text()).toContain('This is it.')
  expect(text()).toContain('Shown once so far.')
})

it('corrects no entry by a device that was not compared with its sticker', async () => {
  await heardByLoopOne(null, false)
  expect(text()).toContain('Note its sticker first')
  expect(offered()).toBe(false)
})

it('corrects no entry by the air of a practice job', async () => {
  await heardByLoopOne('20417733', true)
  expect(text()).toContain('what its air shows says nothing of a real device')
  expect(offered()).toBe(false)
})
