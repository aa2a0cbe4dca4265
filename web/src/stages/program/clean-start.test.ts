import { afterEach, expect, it } from 'vitest'
import { recordsOf, type JobDocument } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, docOn, smallDoc } from '../../testing/small-doc.ts'
import PanelChoice from '../survey/PanelChoice.vue'
import CleanStart from './CleanStart.vue'

let page: JobPage
afterEach(() => page.close())

const used = (doc: JobDocument): JobDocument =>
  after(doc, [{ op: 'set', id: 'job:main', field: 'panelCame', from: null, to: 'used' }])
const text = (): string => page.host.textContent.replace(/\s+/g, ' ')

it('goes step by step, each noted by one press with who saw it', async () => {
  page = await openJob(used(smallDoc()))
  await page.show(CleanStart, { keys: true })
  expect(text()).toContain('the panel was used before: 5 of 5 steps are open')
  await page.press('I have a way in')
  expect(text()).toContain('cannot be read afterwards')
  expect(text()).toContain('The keys stand first on the sheet below.')
  await page.press('It restarted as it came')
  await page.press('None is left')
  await page.press('It is empty')
  await page.press('It is chosen')
  expect(text()).toContain('done: the panel was used before')
  expect(page.edits.map(({ kind }) => kind)).toEqual([
    ...['panel.clean', 'panel.wiped', 'panel.clean', 'panel.clean', 'panel.clean'],
  ])
  expect(recordsOf(page.job.doc, 'held')).toMatchObject([{ how: 'wiped', panel: 'panel/tarn-40' }])
  expect(recordsOf(page.job.doc, 'signoff').map(({ what }) => what)).toEqual([
    ...['clean access', 'clean radio', 'clean log', 'clean grade'],
  ])
})

it('takes a panel that refuses, and says what that means', async () => {
  page = await openJob(used(docOn('panel/morrow-60', null)))
  await page.show(CleanStart, { keys: false })
  await page.press('I have a way in')
  expect(text()).not.toContain('The keys stand first')
  await page.press('It refuses')
  expect(text()).toContain('it refuses. All that is not read back is unknown: take stock of it')
})

it('is not there for a panel that nobody said was used before, until somebody says so', async () => {
  page = await openJob(smallDoc())
  await page.show(CleanStart, { keys: false })
  expect(text()).toBe('')
  await page.show(PanelChoice)
  expect(text()).toContain('How the panel came')
})
