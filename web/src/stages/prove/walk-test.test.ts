import { afterEach, expect, it } from 'vitest'
import { blankDevice, blankZone, pinOps, recordsOf, type JobDocument } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, learned, smallDoc } from '../../testing/small-doc.ts'
import Prove from './Prove.vue'

let page: JobPage
afterEach(() => page.close())

/** A porch door and a motion in the hall, both learned. */
function house(): JobDocument {
  const base = smallDoc()
  const doc = after(base, [
    ...pinOps(base, catalogue, ['device/stilt']),
    {
      op: 'add',
      record: { ...blankDevice, id: 'device:hall', model: 'device/stilt', room: 'hall', order: 2 },
    },
    {
      op: 'add',
      record: {
        ...{ ...blankZone, id: 'zone:two', number: 8, device: 'device:hall', event: 'motion' },
        label: 'Hall Motion',
      },
    },
  ])
  return learned(learned(doc, 'zone:one', '20417733'), 'zone:two', '20417741')
}
const text = (): string => page.host.textContent.replace(/\s+/g, ' ')
const results = () =>
  recordsOf(page.job.doc, 'test').map(({ kind, outcome, method }) => [kind, outcome, method])

it('notes who was heard by one press, and who was not with a reason', async () => {
  page = await openJob(house())
  await page.show(Prove)
  await page.press('Walk test: 2')
  expect(text()).toContain('0 heard, 0 not heard, 2 to go')
  expect(text()).toContain('One motion sleeps after a trip')
  await page.press('Heard: Porch Door, reed, zone 07')
  expect(text()).toContain('1 heard, 0 not heard, 1 to go')
  await page.press('Not heard: Hall Motion, motion, zone 08')
  expect(text()).not.toContain('It may be shut out')
  await page.press('It may have slept')
  expect(text()).toContain('1 heard, 1 not heard, 0 to go')
  expect(text()).toContain('Leave its room alone')
  // Heard at last: what was inconclusive stays on record beside it.
  await page.press('Heard: Hall Motion, motion, zone 08')
  expect(results()).toEqual([
    ['toggle', 'pass', 'in the walk test'],
    ['walk', 'inconclusive', 'in the walk test'],
    ['walk', 'pass', 'in the walk test'],
  ])
  await page.press('Back to the round')
  expect(text()).not.toContain('Walk test: ')
})
