import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { readHouse, recordOf, recordsOf, type JobDocument } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, smallDoc } from '../../testing/small-doc.ts'
import HouseTables from './HouseTables.vue'

const words = `
Porch:
Hall: sleeps
Porch - Hall 4
Front door in Porch: every day
Pane in Hall: never
`

/** The porch of the small job with a hall behind it. */
function withHouse(): JobDocument {
  const doc = smallDoc()
  let count = 0
  const read = readHouse(words, doc, () => String((count += 1)))
  return after(doc, read.ops)
}

let page: JobPage
beforeEach(async () => {
  page = await openJob(withHouse())
  await page.show(HouseTables)
})
afterEach(() => page.close())
const names = (type: 'room' | 'opening') => recordsOf(page.job.doc, type).map((record) => record.name)

describe('rooms', () => {
  it('take their devices along when they are renamed, as one edit', async () => {
    await page.type('Name of Porch', 'Lobby')
    expect(names('room')).toEqual(['Lobby', 'Hall'])
    expect(recordOf(page.job.doc, 'device', 'device:porch')?.room).toBe('Lobby')
    expect(page.edits.map((edit) => [edit.kind, edit.ops.length])).toEqual([['room.rename', 2]])
  })

  it.each([
    ['hall', 'there is a room “hall” already'],
    ['  ', 'must have 1 to 60 characters'],
    ['x'.repeat(61), 'must have 1 to 60 characters'],
  ])('keep their name against “%s”, and say why', async (name, why) => {
    await page.type('Name of Porch', name)
    expect(names('room')).toEqual(['Porch', 'Hall'])
    expect(page.host.querySelector('[role="alert"]')?.textContent).toBe(why)
    // What was typed stands there until it is mended.
    expect(page.control('Name of Porch').value).toBe(name.trim())
    await page.type('Name of Porch', 'Lobby')
    expect(names('room')).toEqual(['Lobby', 'Hall'])
    expect(page.host.querySelector('[role="alert"]')).toBeNull()
  })

  it('refuse a weight that is none, name what is allowed, and keep what was typed', async () => {
    await page.type('Pet in Hall, kg', '250')
    expect(page.host.querySelector('[role="alert"]')?.textContent).toBe('must be a weight from 0 to 100 kg')
    expect(page.control('Pet in Hall, kg').value).toBe('250')
    await page.type('Pet in Hall, kg', '17,5')
    expect(recordsOf(page.job.doc, 'room')[1]?.petKg).toBe(17.5)
    expect(page.host.querySelector('[role="alert"]')).toBeNull()
  })

  it('know their fire compartment', async () => {
    await page.type('Fire compartment of Hall', 'North')
    expect(recordsOf(page.job.doc, 'room')[1]?.compartment).toBe('North')
  })

  it('go with their ways and openings; devices keep the name', async () => {
    await page.press('Remove the room Hall with its ways and openings')
    expect([names('room'), names('opening'), recordsOf(page.job.doc, 'way')]).toEqual([
      ['Porch'],
      ['Front door'],
      [],
    ])
    page.job.undo()
    expect([names('room').sort(), names('opening').sort()]).toEqual([
      ['Hall', 'Porch'],
      ['Front door', 'Pane'],
    ])
  })
})

describe('openings and ways', () => {
  it('ask whether people come in, and in stay only of those they do', async () => {
    expect(() => page.control('Pane is still used in stay')).toThrow()
    await page.choose('How often people come in by Pane', 'occasional')
    expect(page.control('Pane is still used in stay').checked).toBe(true)
  })

  it('free what guards an opening that goes', async () => {
    const door = recordsOf(page.job.doc, 'opening')[0]
    page.job.set('device.set', 'device:porch', 'opening', null, door?.id)
    await page.press('Remove the opening Front door')
    expect(recordOf(page.job.doc, 'device', 'device:porch')?.opening).toBeNull()
  })

  it('reckon the walk at the pace of the slowest person', async () => {
    // 4 m at 1.2 m/s are 3.3 s; on stairs half the pace: 6.7 s.
    expect(page.host.textContent).toContain('3.3 s')
    await page.tick('Stairs from Porch to Hall', true)
    expect(page.host.textContent).toContain('6.7 s')
    await page.type('Metres from Porch to Hall', '0')
    expect(page.host.querySelector('[role="alert"]')?.textContent).toBe('must be a length from 0.5 to 500 m')
  })
})
