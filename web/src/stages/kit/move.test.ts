import { afterEach, expect, it } from 'vitest'
import { enrolmentOf, proofRecord, proofRoute, recordsOf } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, learned, smallDoc } from '../../testing/small-doc.ts'
import MoveDevice from './MoveDevice.vue'

let page: JobPage
afterEach(() => page.close())

it('moves a learned device: its ID and number stay, its label follows, and what was proved is owed anew', async () => {
  const doc = learned(smallDoc(), 'zone:one', '20417733')
  const item = proofRoute(doc, catalogue, null)
    .flatMap(({ items }) => items)
    .find(({ kind }) => kind === 'toggle')
  if (!item) throw new Error('nothing to prove')
  const made = { id: 'test:one', who: { id: 'p1', name: 'Nell' }, at: '2026-05-04T10:00:00.000Z' }
  const proved = after(doc, [
    {
      op: 'add',
      record: proofRecord({ doc, catalogue }, item, { made, result: { outcome: 'pass' } }),
    },
  ])
  page = await openJob(proved)
  const [device] = recordsOf(page.job.doc, 'device')
  const model = catalogue.get('device', 'device/reedling')
  await page.show(MoveDevice, { device, model, name: 'Reedling contact' })
  await page.press('Move Reedling contact…')
  await page.press('Move it')
  expect(document.body.textContent).toContain('Say which room')
  expect(page.edits).toEqual([])
  await page.type('Room', 'study')
  await page.type('Position', 'window')
  expect(document.body.textContent).toContain('1 proof that passed is owed anew')
  expect(document.body.textContent).toContain('Key the new label into the panel')
  await page.press('Move it')
  expect(page.edits.map(({ kind }) => kind)).toEqual(['device.move'])
  expect(recordsOf(page.job.doc, 'device')).toMatchObject([{ room: 'study', position: 'window' }])
  expect(recordsOf(page.job.doc, 'zone')).toMatchObject([{ number: 7, label: 'Study Window' }])
  expect(enrolmentOf(page.job.doc, 'zone:one')?.serial).toBe('20417733')
  const again = proofRoute(page.job.doc, catalogue, null).flatMap(({ items }) => items)
  expect(again.find(({ kind }) => kind === 'toggle')).toMatchObject({ changed: ['it was moved since'] })
})
