import { afterEach, expect, it } from 'vitest'
import { blankDevice, blankZone, labelLink, pinOps } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, smallDoc } from '../../testing/small-doc.ts'
import BoxLabels from './BoxLabels.vue'
import Enrol from './Enrol.vue'

const JOB = '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001'
const OTHER = '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a002'
let page: JobPage
afterEach(() => page.close())

/** A door on zone 7 and a window on zone 8, neither learned. */
async function open(): Promise<void> {
  const doc = smallDoc()
  page = await openJob(
    after(doc, [
      ...pinOps(doc, catalogue, ['device/reedling']),
      {
        op: 'add',
        record: { ...blankDevice, id: 'device:study', model: 'device/reedling', room: 'study', order: 2 },
      },
      {
        op: 'add',
        record: {
          ...blankZone,
          ...{ id: 'zone:two', number: 8, device: 'device:study', event: 'open', label: 'Study Window' },
        },
      },
    ]),
  )
  page.job.jobId = JOB
}
async function scan(text: string): Promise<void> {
  const entry = document.getElementById('sticker-entry') as HTMLInputElement
  entry.value = text
  entry.dispatchEvent(new Event('input'))
  await page.settle()
  entry.closest('form')?.dispatchEvent(new Event('submit'))
  await page.settle()
}

it('turns to the device whose label is scanned, and refuses one of another job or of nothing here', async () => {
  await open()
  await page.show(Enrol)
  expect(page.host.textContent).toContain('zone 07: Porch Door')
  await scan(labelLink('http://127.0.0.1:4680', JOB, 'device:study'))
  expect(page.host.textContent).toContain('zone 08: Study Window')
  expect(page.host.textContent).toContain('zone 08, by its label.')
  await scan(labelLink('http://127.0.0.1:4680', OTHER, 'device:porch'))
  expect(page.host.textContent).toContain('That label is of another job.')
  expect(page.host.textContent).toContain('zone 08: Study Window')
  await scan(labelLink('http://127.0.0.1:4680', JOB, 'device:gone'))
  expect(page.host.textContent).toContain('That label is of a device that is not learned here')
  // What is no label is read as a sticker, as ever.
  await scan('12')
  expect(page.host.textContent).toContain('zone 08: Study Window')
  expect(page.edits).toEqual([])
})

it('offers the labels on the paper at hand, and says what is wrong with a first label', async () => {
  await open()
  await page.show(BoxLabels)
  await page.press('Box labels…')
  expect(document.body.textContent).toContain('2 labels on 1 page.')
  expect(document.body.textContent).toContain('2 say “ID not known yet”')
  const link = () => document.querySelector<HTMLAnchorElement>('a[href*="labels.pdf"]')?.getAttribute('href')
  expect(link()).toBe(`/api/jobs/${JOB}/labels.pdf?paper=a4-24&from=1`)
  await page.type('First free label of the sheet', '24')
  expect(document.body.textContent).toContain('2 labels on 2 pages.')
  expect(link()).toContain('from=24')
  for (const wrong of ['0', '25', 'x', '']) {
    await page.type('First free label of the sheet', wrong)
    expect(document.body.textContent).toContain('First free label: a whole number from 1 to 24.')
    expect(link()).toBeUndefined()
  }
})
