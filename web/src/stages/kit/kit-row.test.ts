import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import {
  blankDevice,
  pinOps,
  readHouse,
  recordOf,
  recordsOf,
  type Device,
  type DeviceModel,
  type JobDocument,
} from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, smallDoc } from '../../testing/small-doc.ts'
import KitDetail from './KitDetail.vue'
import KitPlacement from './KitPlacement.vue'
import KitRow from './KitRow.vue'

const model = (id: string) => catalogue.get('device', id) as DeviceModel

/** The small job with two doors, and a motion in the hall of which nothing is said yet. */
function withMotion(): JobDocument {
  const doc = smallDoc()
  let count = 0
  const house = 'Porch:\nHall:\nPorch - Hall 4\nFront door in Porch: every day\nYard door in Hall: every day'
  const read = readHouse(house, doc, () => String((count += 1)))
  return after(after(doc, read.ops), [
    ...pinOps(doc, catalogue, ['device/stilt-hound']),
    {
      op: 'add',
      record: { ...blankDevice, id: 'device:hall', model: 'device/stilt-hound', room: 'Hall', order: 2 },
    },
  ])
}

let page: JobPage
beforeEach(async () => (page = await openJob(withMotion())))
afterEach(() => page.close())
const device = (id: string) => recordOf(page.job.doc, 'device', id) as Device
const sights = () =>
  recordsOf(page.job.doc, 'sight').map(
    (sight) =>
      recordOf(page.job.doc, 'opening', sight.opening)?.name ??
      recordOf(page.job.doc, 'room', sight.room)?.name,
  )

describe('what a motion sees', () => {
  const show = () =>
    page.show(KitPlacement, {
      device: device('device:hall'),
      model: model('device/stilt-hound'),
      name: 'the motion',
    })

  it('is said leaf by leaf, and bears on its use', async () => {
    await show()
    expect(page.job.places.get('device:hall')?.missing.map((item) => item.fact)).toEqual([
      { needs: 'sees-leaf', leaf: 'Yard door' },
    ])
    await page.tick('Front door', true)
    expect(sights()).toEqual(['Front door'])
    expect(page.job.places.get('device:hall')).toMatchObject({ use: 'sees-entry', missing: [] })
    await page.tick('Front door', false)
    expect(sights()).toEqual([])
  })

  it('may be none of them', async () => {
    await show()
    await page.press('sees none of them')
    expect(sights()).toEqual(['Hall'])
  })
})

describe('a row of the kit', () => {
  const row = () =>
    page.show(KitRow, {
      device: device('device:hall'),
      model: model('device/stilt-hound'),
      family: catalogue.get('family', 'family/wren'),
      fit: undefined,
      marked: true,
    })

  it('takes a motion out together with what it was said to see', async () => {
    await page.show(KitPlacement, {
      device: device('device:hall'),
      model: model('device/stilt-hound'),
      name: 'the motion',
    })
    await page.tick('Front door', true)
    await row()
    await page.press('Remove Stilt Hound motion in Hall')
    expect(recordOf(page.job.doc, 'device', 'device:hall')).toBeNull()
    expect(sights()).toEqual([])
    expect(page.job.tray).toEqual([])
    page.job.undo()
    expect(sights()).toEqual(['Front door'])
  })

  it('takes a sticker however it is grouped, and says what one that cannot be should be', async () => {
    await row()
    const label = 'Sticker ID of Stilt Hound motion in Hall'
    await page.type(label, '2041 77')
    expect(page.host.querySelector('[role="alert"]')?.textContent).toMatch(/8/)
    expect(device('device:hall').sticker).toBeNull()
    expect(page.control(label).value).toBe('2041 77')
    await page.type(label, '2041-7733')
    expect(device('device:hall').sticker).toBe('20417733')
  })

  it('refuses a height that no ladder reaches', async () => {
    await page.show(KitDetail, {
      device: device('device:hall'),
      model: model('device/stilt-hound'),
      name: 'the motion',
    })
    await page.type('Height of the motion, m', '12')
    expect(page.host.querySelector('[role="alert"]')?.textContent).toBe('must be a height from 0 to 10 m')
    await page.type('Height of the motion, m', '2,1')
    expect(device('device:hall').heightM).toBe(2.1)
  })
})
