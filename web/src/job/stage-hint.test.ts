import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { blankDevice, pinOps } from '#core'
import { openJob, type JobPage } from '../testing/job-page.ts'
import { catalogue, docOn, smallDoc } from '../testing/small-doc.ts'
import StageHint from './StageHint.vue'

let page: JobPage
beforeEach(() => localStorage.clear())
afterEach(() => page.close())
const hint = () => page.host.querySelector('[role="note"]')?.textContent.replace(/\s+/g, ' ').trim() ?? null

/** Opens the stage of a job on the Tarn 40 that has nothing in it yet. */
async function open(stage: string): Promise<void> {
  page = await openJob(docOn('panel/tarn-40', '1.31'))
  await page.go(stage)
  await page.show(StageHint)
}

function addContact(): void {
  const record = { ...blankDevice, id: 'device:one', model: 'device/reedling', order: 1 } as const
  page.job.edit('device.add', [...pinOps(page.job.doc, catalogue, [record.model]), { op: 'add', record }])
}

describe('the hint of a stage', () => {
  it.each([
    ['survey', /panel/],
    ['kit', /what is to be fitted/],
    ['zones', /Number everything/],
    ['program', /what to key/],
    ['enrol', /compare the ID/],
    ['prove', /stays owed/],
    ['handover', /blocks/],
  ])('says on %s what it is for', async (stage, says) => {
    await open(stage)
    expect(hint()).toMatch(/^First time here\?/)
    expect(hint()).toMatch(says)
  })

  it('goes for good when the act is done', async () => {
    await open('kit')
    addContact()
    await page.settle()
    expect(hint()).toBeNull()
    page.close()
    await reopened('kit')
    expect(hint()).toBeNull()
  })

  it('goes for good when it is put away, and that of another stage stays', async () => {
    await open('zones')
    await page.press('Put the hint away')
    expect(hint()).toBeNull()
    page.close()
    await reopened('enrol')
    expect(hint()).toMatch(/compare/)
  })

  it('is not there where somebody has done it, and comes back in a job where nobody has', async () => {
    page = await openJob(smallDoc())
    await page.go('kit')
    await page.show(StageHint)
    expect(hint()).toBeNull()
    page.close()
    await open('kit')
    expect(hint()).toMatch(/fitted/)
  })

  /** The next job on the same device: what it remembers is kept. */
  async function reopened(stage: string): Promise<void> {
    const kept = localStorage.getItem('kapelle-hints') ?? '{}'
    page = await openJob(docOn('panel/tarn-40', '1.31'))
    localStorage.setItem('kapelle-hints', kept)
    await page.go(stage)
    await page.show(StageHint)
  }
})
