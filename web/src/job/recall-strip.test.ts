import { afterEach, describe, expect, it } from 'vitest'
import { recordsOf, type CatalogueAct } from '#core'
import { useSession } from '../line/session.ts'
import { openJob, type JobPage } from '../testing/job-page.ts'
import { smallDoc } from '../testing/small-doc.ts'
import RecallStrip from './RecallStrip.vue'

let page: JobPage
afterEach(() => page.close())
const text = (): string => page.host.textContent?.replace(/\s+/g, ' ').trim() ?? ''

/** The job on a page with what was said of catalogue entries; `about` is given the model of its first device. */
async function open(about: (model: string) => CatalogueAct[]): Promise<void> {
  page = await openJob(smallDoc())
  const [first] = recordsOf(page.job.doc, 'device')
  useSession().acts = about(first?.model ?? '')
  await page.show(RecallStrip)
}
type Recall = Extract<CatalogueAct, { kind: 'recall' }>
const recall = (entryId: string, over: Partial<Recall> = {}): Recall => ({
  ...{
    kind: 'recall',
    id: 'recall-1',
    entryId,
    why: 'The seal lets water in',
    by: 'Morwen',
    at: '2026-05-04T10:00:00Z',
  },
  ...{ serials: { from: '00000000', to: '99999999' }, years: null },
  ...over,
})

describe('the strip of recalls', () => {
  it('is none where nothing is recalled, where another model is, and where the recall was ended', async () => {
    await open(() => [])
    expect(text()).toBe('')
    page.close()
    await open(() => [recall('device/puddle')])
    expect(text()).toBe('')
    page.close()
    await open((model) => [
      recall(model),
      {
        ...{ kind: 'end-recall', id: 'end', entryId: model, why: 'all were changed', recall: 'recall-1' },
        ...{ by: 'Morwen', at: '2026-05-05T10:00:00Z' },
      },
    ])
    expect(text()).toBe('')
  })

  it('names each device with its place, why, and what is to be read where it cannot be told', async () => {
    await open((model) => [recall(model)])
    const [first] = recordsOf(page.job.doc, 'device')
    expect(text()).toMatch(/^▲ .+ is recalled: \d+ to be looked at ?The seal lets water in \(Morwen, /)
    expect(text()).toContain(`${first?.room}`)
    expect(text()).toContain('its ID or year of make is not known: read them off the device')
    // With its sticker known it is one that the recall is about.
    page.job.edit('device.sticker', [
      { op: 'set', id: first?.id ?? '', field: 'sticker', from: null, to: '20417733' },
    ])
    await page.settle()
    expect(text()).toContain('1 device here')
    expect(text()).toContain('20417733')
  })
})
