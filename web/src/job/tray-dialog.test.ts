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
  expect(shown()).toContain('The label of zone 07 was changed in the meantime.')
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
    { by: { id: 'p2', name: 'Rhys' } },
  )
  page.job.undo()
  await page.show(UndoRestDialog)
  expect(shown()).toContain('It is now Side Door')
  expect(shown()).toContain('The rest, 1 change, can still be taken back.')
  await page.press('Leave everything')
  expect([label(), recordOf(page.job.doc, 'zone', 'zone:one')?.report]).toEqual(['Side Door', true])
})

it('keeps what was found invalid, with its reason and values, until it is dismissed', async () => {
  page.job.set('zone.set', 'zone:one', 'number', 7, 4000)
  expect(recordOf(page.job.doc, 'zone', 'zone:one')?.number).toBe(7)
  expect(page.edits).toEqual([])
  await page.show(TrayDialog)
  expect(shown()).toContain('This change was not taken')
  expect(shown()).toContain('number must be a whole number from 1 to 999')
  expect(shown()).toContain('4000')
  await page.press('Dismiss it')
  expect(page.job.tray).toEqual([])
})

it('lets a viewer look on, and changes nothing', async () => {
  page.close()
  page = await openJob(smallDoc(), 'viewer')
  expect(page.job.set('zone.set', 'zone:one', 'label', 'Porch Door', 'Lobby Door')).toBe(false)
  expect([label(), page.edits.length, page.job.tray.length]).toEqual(['Porch Door', 0, 0])
  expect(page.job.notice?.title).toBe('You look on here: nothing was changed.')
})
