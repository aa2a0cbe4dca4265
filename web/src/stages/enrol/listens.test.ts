import { afterEach, beforeEach, expect, it } from 'vitest'
import { computed, effectScope, shallowRef, type EffectScope } from 'vue'
import { blankDevice, blankZone, freshEvidence, recordsOf, type JobDocument } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, docOn, smallDoc } from '../../testing/small-doc.ts'
import { pinOps } from '#core'
import Candidate from './Candidate.vue'
import TargetList from './TargetList.vue'
import { useEnrol, type Enrolling } from './useEnrol.ts'

let page: JobPage
let scope: EffectScope
beforeEach(() => {
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  page.close()
})

async function open(doc: JobDocument): Promise<Enrolling> {
  page = await openJob(doc)
  const enrol = scope.run(() =>
    useEnrol({
      ...{ listening: computed(() => false), heard: shallowRef([]), seconds: computed(() => 0) },
      ...{ start: () => undefined, stop: () => undefined },
    }),
  ) as Enrolling
  await page.show(Candidate, { enrol, listening: false })
  return enrol
}
const text = (): string => page.host.textContent.replace(/\s+/g, ' ')

it('says where the panel is told to learn, notes it by one press, and counts the time down', async () => {
  const enrol = await open(smallDoc())
  expect(text()).toContain(
    'At the panel, where it shows 07 id: ear. It listens 60 s and must hear the device once.',
  )
  await page.press('It listens now')
  expect(page.edits.map(({ kind }) => kind)).toEqual(['enrol.told'])
  expect(recordsOf(page.job.doc, 'told')).toMatchObject([{ subject: 'zone:one', seconds: 60 }])
  expect(text()).toMatch(/The panel listens for zone 07: (1:00|0:59) more\. Make it send once\./)
  await page.show(TargetList, { parts: enrol.parts.value, current: null, by: 'number' })
  expect(text()).toContain('told to the panel, not heard')
})

it('warns of what somebody else told it to learn', async () => {
  const base = smallDoc()
  const doc = after(base, [
    ...pinOps(base, catalogue, ['device/reedling']),
    {
      op: 'add',
      record: { ...blankDevice, id: 'device:study', model: 'device/reedling', room: 'study', order: 2 },
    },
    { op: 'add', record: { ...blankZone, id: 'zone:two', number: 8, device: 'device:study', event: 'open' } },
    {
      op: 'add',
      record: {
        ...freshEvidence({ id: 'p9', name: 'Tegan' }, new Date(Date.now() - 10_000).toISOString()),
        ...{ id: 'told:hers', type: 'told', subject: 'zone:two', of: null, seconds: 60 },
      },
    },
  ])
  await open(doc)
  expect(text()).toMatch(
    /The panel listens for zone 08, told by Tegan, 0:(50|49) more\. What is tripped now is taken for that one\./,
  )
})

it('is left out where nobody has described how the panel is keyed, and in a practice job', async () => {
  await open(after(smallDoc(), [{ op: 'set', id: 'job:main', field: 'practice', from: false, to: true }]))
  expect(text()).not.toContain('It listens')
})

it('shows every event of a device, and turns to the one that is missing', async () => {
  const base = docOn('panel/tarn-40', '1.31')
  const zone = { ...blankZone, device: 'device:loft' }
  const doc = after(base, [
    ...pinOps(base, catalogue, ['device/ember-three']),
    {
      op: 'add',
      record: { ...blankDevice, id: 'device:loft', model: 'device/ember-three', room: 'loft', order: 1 },
    },
    { op: 'add', record: { ...zone, id: 'zone:s', number: 4, event: 'smoke', loop: 1 } },
    { op: 'add', record: { ...zone, id: 'zone:h', number: 5, event: 'heat', loop: 2 } },
  ])
  const enrol = await open(doc)
  expect(text()).toContain('3 events, one ID: 2 are missing')
  expect(text()).toContain('no zone: nobody hears of it')
  const heat = [...page.host.querySelectorAll('button')].find((one) => one.textContent.includes('zone 05'))
  heat?.click()
  await page.settle()
  expect(enrol.target.value?.name).toBe('zone 05')
})
