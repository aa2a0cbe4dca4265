import { afterEach, expect, it, vi } from 'vitest'
import { jobInfo, type DeviceModel, type DraftOp, type Family } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, smallDoc } from '../../testing/small-doc.ts'
import SeenOtherwise from '../../shared/SeenOtherwise.vue'

let page: JobPage
afterEach(() => page.close())
const motion = catalogue.get('device', 'device/stilt') as DeviceModel
const wren = catalogue.get('family', 'family/wren') as Family
const text = (): string => page.host.textContent

async function show(kind: 'armed' | 'placement' | 'mount', practice = false): Promise<void> {
  const doc = after(smallDoc(), [{ op: 'set', id: 'job:main', field: 'practice', from: false, to: practice }])
  page = await openJob(doc)
  await page.show(SeenOtherwise, { kind, model: motion, family: wren })
}

it('takes the time that a motion was seen to sleep back to its entry, with where it was seen', async () => {
  await show('armed')
  expect(text()).toContain(`Its entry says ${motion.sleepsSeconds} s.`)
  await page.press('Correct its entry…')
  expect(text()).toContain('Say the figure that you saw, as a number.')
  for (const [typed, says] of [
    ['soon', 'Say the figure that you saw'],
    ['5000', '1 to 3600'],
    [String(motion.sleepsSeconds), 'That is what its entry says.'],
  ] as const) {
    await page.type('You saw', typed)
    await page.press('Correct its entry…')
    expect(text()).toContain(says)
    expect(page.path()).toBe('/')
  }
  const sent = vi.spyOn(globalThis, 'fetch')
  await page.type('You saw', '240')
  await page.press('Correct its entry…')
  expect(page.path()).toMatch(/^\/catalogue\/drafts\/[0-9a-f-]{36}$/)
  const begun = sent.mock.calls.find(([, init]) => init?.method === 'PUT')
  const { edit } = JSON.parse(String(begun?.[1]?.body)) as { edit: { ops: DraftOp[] } }
  expect(edit.ops).toContainEqual({
    ...{ op: 'set', id: 'answer:sleepsSeconds', field: 'value', from: motion.sleepsSeconds, to: 240 },
  })
  expect(edit.ops).toContainEqual({
    ...{ op: 'set', id: 'answer:sleepsSeconds', field: 'source' },
    ...{ from: '', to: `seen at ${jobInfo(page.job.doc).name}` },
  })
  sent.mockRestore()
})

it('asks at a reading for both bands of the family', async () => {
  await show('placement')
  expect(text()).toContain('Wren: From which reading on is it good? Its entry says 4 bars.')
  expect(text()).toContain('Wren: Below which does it no longer hold? Its entry says 2 bars.')
})

it('has nothing to ask at another proof, and teaches nothing in a practice job', async () => {
  await show('mount')
  expect(text()).toBe('')
  page.close()
  await show('armed', true)
  expect(text()).toContain('what its air shows says nothing of a real device')
  expect(text()).not.toContain('Correct its entry')
})
