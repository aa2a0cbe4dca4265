import { afterEach, expect, it } from 'vitest'
import { evidenceOf, recordsOf } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { learned, smallDoc } from '../../testing/small-doc.ts'
import Tonight from './Tonight.vue'

let page: JobPage
afterEach(() => page.close())

it('says what holds tonight, and is on record as a leaving that is no hand-over', async () => {
  page = await openJob(smallDoc())
  await page.show(Tonight)
  await page.press('What holds tonight…')
  expect(page.host.textContent).toContain('■ Does not protect (1)')
  expect(page.host.textContent).toContain('zone 07 Porch Door: it has no response type')
  expect(page.host.textContent).toContain('nobody has described the ways into this house')
  await page.type('Who was told, and when you are back', 'Mrs Vane; back on Tuesday')
  await page.press('The customer knows; I leave for tonight')
  expect(page.edits.map(({ kind }) => kind)).toEqual(['handover.tonight'])
  expect(evidenceOf(page.job.doc, 'signoff').map(({ what, note }) => [what, note])).toEqual([
    ['left-tonight', '0 protect, 0 may, 1 do not. Mrs Vane; back on Tuesday'],
  ])
  expect(page.host.textContent).toMatch(/Nell left .*; it is not handed over\./)
})

it('tells what the panel has apart from what it has not', async () => {
  page = await openJob(learned(smallDoc(), 'zone:one', '20417733'))
  const [zone] = recordsOf(page.job.doc, 'zone')
  page.job.set('zone.set', zone?.id ?? '', 'response', null, 'entry-1')
  await page.show(Tonight)
  await page.press('What holds tonight…')
  expect(page.host.textContent).toContain('○ May protect: in the panel, its alarm not seen (1)')
})
