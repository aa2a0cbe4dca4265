import { afterEach, expect, it } from 'vitest'
import { blankDevice, blankSignoff, freshEvidence, type JobDocument } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, learned, smallDoc } from '../../testing/small-doc.ts'
import SinceHandOver from './SinceHandOver.vue'

let page: JobPage
afterEach(() => page.close())

const handedOver = (doc: JobDocument): JobDocument =>
  after(doc, [
    {
      op: 'add',
      record: {
        ...{ ...blankSignoff, ...freshEvidence({ id: 'p1', name: 'Nell' }, '2026-05-04T09:00:00.000Z') },
        ...{ id: 'signoff:done', what: 'handed-over', keyed: null },
      },
    },
  ])
const text = (): string => page.host.textContent.replace(/\s+/g, ' ')

it('is not there before a job was handed over', async () => {
  page = await openJob(smallDoc())
  await page.show(SinceHandOver)
  expect(text()).toBe('')
})

it('says that nothing moves, and what is to be done next with what was added', async () => {
  const doc = handedOver(learned(smallDoc(), 'zone:one', '20417733'))
  const late = { ...blankDevice, id: 'device:late', model: 'device/reedling', room: 'shed', order: 2 }
  page = await openJob(after(doc, [{ op: 'add', record: late }]))
  await page.show(SinceHandOver)
  expect(text()).toMatch(/Handed over .*2026\. What is added takes free numbers/)
  expect(text()).toMatch(/Reedling contact in porch: \d+ proofs are open/)
  expect(text()).toContain('Reedling contact in shed: give it its number')
})
