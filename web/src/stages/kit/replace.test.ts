import { afterEach, expect, it } from 'vitest'
import { recordsOf } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, learned, smallDoc } from '../../testing/small-doc.ts'
import Enrol from '../enrol/Enrol.vue'
import ReplaceDevice from './ReplaceDevice.vue'

let page: JobPage
afterEach(() => page.close())

it('replaces a learned device, and learns nothing in its place before the old one is deleted at the panel', async () => {
  const doc = after(learned(smallDoc(), 'zone:one', '20417733'), [
    { op: 'set', id: 'device:porch', field: 'sticker', from: null, to: '20417733' },
  ])
  page = await openJob(doc)
  const [device] = recordsOf(page.job.doc, 'device')
  const model = catalogue.get('device', 'device/reedling')
  await page.show(ReplaceDevice, { device, model, name: 'Reedling contact' })
  await page.press('Replace Reedling contact…')
  expect(document.body.textContent).toContain('delete 2041 7733 there and note it at Enrol')
  await page.press('Replace it')
  expect(page.edits.map(({ kind }) => kind)).toEqual(['device.replace'])
  const [fresh, ...others] = recordsOf(page.job.doc, 'device')
  expect(others).toEqual([])
  expect(fresh).toMatchObject({ model: 'device/reedling', room: 'porch', sticker: null })
  expect(fresh?.id).not.toBe('device:porch')
  expect(recordsOf(page.job.doc, 'zone').map(({ device: id, label }) => [id, label])).toEqual([
    [fresh?.id, 'Porch Door'],
  ])

  await page.show(Enrol)
  expect(page.host.textContent).toContain('Delete at the panel first')
  expect(page.host.textContent).toContain('Zone 07: 2041 7733')
  await page.press('It is deleted there: Zone 07, 2041 7733')
  expect(page.host.textContent).not.toContain('Delete at the panel first')
  expect(
    recordsOf(page.job.doc, 'heard').map(({ decision, code, serial }) => [decision, code, serial]),
  ).toEqual([
    ['accepted', 'accept', '20417733'],
    ['released', 'deleted', '20417733'],
  ])
})
