import { afterEach, expect, it } from 'vitest'
import { recordOf, type PanelModel, type Zone } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, smallDoc } from '../../testing/small-doc.ts'
import Program from '../program/Program.vue'
import ZoneDetail from './ZoneDetail.vue'

let page: JobPage
afterEach(() => page.close())

const label = 'zone 07 is left as programmed: not keyed, not learned again, proved all the same'
const zone = (): Zone => recordOf(page.job.doc, 'zone', 'zone:one') as Zone
const panel = catalogue.get('panel', 'panel/tarn-40') as PanelModel
const show = () => page.show(ZoneDetail, { zone: zone(), panel, findings: [] })

it('is offered for what was there before, and the sheet then names the zone instead of its keys', async () => {
  page = await openJob(
    after(smallDoc(), [{ op: 'set', id: 'zone:one', field: 'existing', from: false, to: true }]),
  )
  await page.show(Program)
  expect(page.host.textContent).toContain('Zone 07')
  await show()
  await page.tick(label, true)
  expect(zone().asProgrammed).toBe(true)
  expect(page.edits.map(({ kind }) => kind)).toEqual(['zone.set'])
  await show()
  expect(page.host.textContent).toContain('as the panel has it')
  await page.show(Program)
  expect(page.host.textContent).toMatch(/zone 07 left as\s+programmed/)
  expect([...page.host.querySelectorAll('h2')].some((head) => head.textContent?.includes('Zone 07'))).toBe(
    false,
  )
  page.job.undo()
  expect(zone().asProgrammed).toBe(false)
})

it('is not offered for a new device', async () => {
  page = await openJob(smallDoc())
  await show()
  expect(page.host.textContent).not.toContain('Left as programmed')
})
