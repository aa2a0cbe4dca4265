import { afterEach, describe, expect, it } from 'vitest'
import { recordOf, recordsOf, type Device, type DeviceModel } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { catalogue, smallDoc } from '../../testing/small-doc.ts'
import KitDetail from './KitDetail.vue'

let page: JobPage
afterEach(() => page.close())
const contact = () => recordOf(page.job.doc, 'device', 'device:porch') as Device
const zones = () => recordsOf(page.job.doc, 'zone').map(({ device, event }) => [device, event])

/** The details of the contact in the porch, on zone 7 by its reed. */
async function show(): Promise<void> {
  page = await openJob(smallDoc())
  await page.show(KitDetail, {
    device: contact(),
    model: catalogue.get('device', 'device/reedling') as DeviceModel,
    name: 'the contact',
  })
}

describe('a device that is taken out', () => {
  it('asks what becomes of its zone, and leaves all as it was on Cancel', async () => {
    await show()
    await page.press('Remove the contact…')
    expect(document.body.textContent).toContain('What becomes of its zone?')
    await page.press('Cancel')
    expect(page.edits).toEqual([])
    expect(zones()).toEqual([['device:porch', 'open']])
  })

  it('goes with its zone', async () => {
    await show()
    await page.press('Remove the contact…')
    await page.press('Remove its zone, too')
    expect([recordsOf(page.job.doc, 'device'), zones()]).toEqual([[], []])
  })

  it('leaves its zone open for a successor, which is then a stop', async () => {
    await show()
    await page.press('Remove the contact…')
    await page.press('Keep its zone open')
    expect([recordsOf(page.job.doc, 'device'), zones()]).toEqual([[], [[null, 'open']]])
    expect(page.job.findings.map(({ rule }) => rule)).toContain('zone-open')
    page.job.undo()
    expect(zones()).toEqual([['device:porch', 'open']])
  })
})

describe('the inputs of a contact', () => {
  it('are chosen with what hangs on them', async () => {
    await show()
    expect(page.control<HTMLSelectElement>('Inputs of the contact').value).toBe('')
    await page.choose('Inputs of the contact', 'terminals')
    expect(contact().inputs).toBe('terminals')
    expect(zones()).toEqual([['device:porch', 'terminals']])
    await page.choose('Inputs of the contact', '')
    expect(contact().inputs).toBeNull()
    expect(zones()).toEqual([['device:porch', 'open']])
  })
})
