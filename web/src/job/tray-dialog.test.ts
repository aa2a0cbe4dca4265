import { afterEach, beforeEach, expect, it } from 'vitest'
import { recordOf } from '#core'
import { openJob, type JobPage } from '../testing/job-page.ts'
import { smallDoc } from '../testing/small-doc.ts'
import TrayDialog from './TrayDialog.vue'
import UndoRestDialog from './UndoRestDialog.vue'

let page: JobPage
const label = () => recordOf(page.job.doc, 'zone', 'zone:one')?.label
const shown = () => document.body.textContent
beforeEach(async () => (page = await openJob(smallDoc())))
afterEach(() => page.close())

/** My change of a label that was something else when I began. */
function meet(): void {
  page.job.set('zone.set', 'zone:one', 'label', 'Porch Door', 'Lobby Door')
  page.job.set('zone.set', 'zone:one', 'label', 'Porch Door', 'Front Door')
}

it('shows mine and theirs, and keeps theirs', async () => {
  meet()
  expect(page.job.tray).toHaveLength(1)
  await page.show(TrayDialog)
  expect(shown()).toContain('The label of zone 7 was changed in the meantime.')
  expect(shown()).toMatch(/Yours.*Front Door.*Theirs.*Lobby Door/s)
  await page.press('Keep theirs')
  expect([label(), page.job.tray.length]).toEqual(['Lobby Door', 0])
})

it('uses mine from what stands there now', async () => {
  meet()
  await page.show(TrayDialog)
  await page.press('Use mine')
  expect([label(), page.job.tray.length]).toEqual(['Front Door', 0])
})

it('says what an undo can no longer take back, and leaves it', async () => {
  page.job.edit('zone.set', [
    { op: 'set', id: 'zone:one', field: 'label', from: 'Porch Door', to: 'Lobby Door' },
    { op: 'set', id: 'zone:one', field: 'report', from: false, to: true },
  ])
  // A colleague renames it; my undo may take back the rest only.
  page.job.edit(
    'zone.set',
    [{ op: 'set', id: 'zone:one', field: 'label', from: 'Lobby Door', to: 'Side Door' }],
    { by: 'Rhys' },
  )
  page.job.undo()
  await page.show(UndoRestDialog)
  expect(shown()).toContain('It is now Side Door')
  expect(shown()).toContain('The rest, 1 change, can still be taken back.')
  await page.press('Leave everything')
  expect([label(), recordOf(page.job.doc, 'zone', 'zone:one')?.report]).toEqual(['Side Door', true])
})
