import { afterEach, expect, it } from 'vitest'
import { recordOf, type JobDocument, type PanelModel, type Zone } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { catalogue, learned, smallDoc } from '../../testing/small-doc.ts'
import ZoneRow from './ZoneRow.vue'

let page: JobPage
afterEach(() => page.close())

async function open(doc: JobDocument): Promise<void> {
  page = await openJob(doc)
  const zone = recordOf(doc, 'zone', 'zone:one') as Zone
  const panel = catalogue.get('panel', 'panel/tarn-40') as PanelModel
  await page.show(ZoneRow, { zone, panel, findings: [], marked: false })
}
const type = (number: string): Promise<void> => page.type('Number of zone 07', number)

it('moves a zone by its typed number and pins it, as the rack does', async () => {
  await open(smallDoc())
  await type('12')
  expect(recordOf(page.job.doc, 'zone', 'zone:one')).toMatchObject({ number: 12, pinned: true })
  expect(page.edits[0]?.kind).toBe('zone.move')
})

it('refuses at the field what the rack refuses, and changes nothing', async () => {
  await open(learned(smallDoc(), 'zone:one', '20417733'))
  await type('12')
  expect(page.host.textContent).toContain('Zone 07 is enrolled: the panel knows it by its number.')
  expect(page.edits).toEqual([])
})

it.each([
  ['41', '41 is not for wireless zones: those are 01–40.'],
  ['x', 'must be a whole number from 1 to 999'],
  ['0', 'must be a whole number from 1 to 999'],
])('names what is allowed instead of %s', async (typed, says) => {
  await open(smallDoc())
  await type(typed)
  expect(page.host.textContent).toContain(says)
  expect(page.edits).toEqual([])
})
