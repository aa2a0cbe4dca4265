import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import {
  blankArea,
  blankDevice,
  blankZone,
  pinOps,
  recordOf,
  recordsOf,
  type JobDocument,
  type PanelModel,
  type Zone,
} from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, docOn, learned } from '../../testing/small-doc.ts'
import Areas from './Areas.vue'
import ZoneDetail from './ZoneDetail.vue'

/** An Ostler S with two areas, a keypad, a fob, and a door whose ID was learned. */
function twoAreas(): JobDocument {
  const doc = docOn('panel/ostler-s-8', '2.11')
  const planned = after(doc, [
    ...pinOps(doc, catalogue, ['device/sill-8', 'device/scriber-8', 'device/quatern-8']),
    { op: 'add', record: { ...blankArea, id: 'area:2', number: 2, name: 'Annexe', order: 2 } },
    { op: 'add', record: { id: 'user:nell', type: 'user', name: 'Nell', order: 1 } },
    {
      op: 'add',
      record: { ...blankDevice, id: 'device:door', model: 'device/sill-8', room: 'Porch', order: 1 },
    },
    {
      op: 'add',
      record: { ...blankDevice, id: 'device:pad', model: 'device/scriber-8', room: 'Hall', order: 2 },
    },
    {
      op: 'add',
      record: { ...blankDevice, id: 'device:fob', model: 'device/quatern-8', user: 'user:nell', order: 3 },
    },
    {
      op: 'add',
      record: {
        ...blankZone,
        id: 'zone:door',
        number: 1,
        device: 'device:door',
        event: 'open',
        area: 'area:1',
        response: 'entry-1',
        label: 'Porch door',
      },
    },
  ])
  return learned(planned, 'zone:door', 'A204118')
}

let page: JobPage
beforeEach(async () => (page = await openJob(twoAreas())))
afterEach(() => page.close())
const panel = () => catalogue.get('panel', 'panel/ostler-s-8') as PanelModel
const zone = () => recordOf(page.job.doc, 'zone', 'zone:door') as Zone

describe('who sets which area', () => {
  beforeEach(() => page.show(Areas))
  const pad = 'Scriber 8 keypad in Hall sets '

  it('shows all for a keypad of which nothing was said', () => {
    expect(page.control(`${pad}Whole premises`).checked).toBe(true)
    expect(page.control(`${pad}Annexe`).checked).toBe(true)
    expect(page.control('Quatern 8 fob of Nell sets Annexe').checked).toBe(true)
  })

  it('takes an area off by one edit, and keeps the last', async () => {
    await page.tick(`${pad}Annexe`, false)
    expect(recordsOf(page.job.doc, 'serves').map((item) => [item.device, item.area])).toEqual([
      ['device:pad', 'area:1'],
    ])
    expect(page.control(`${pad}Whole premises`).disabled).toBe(true)
    expect(page.edits.map((edit) => edit.kind)).toEqual(['keypad.areas'])
    await page.tick(`${pad}Annexe`, true)
    expect(recordsOf(page.job.doc, 'serves')).toEqual([])
  })
})

describe('the list of areas', () => {
  beforeEach(() => page.show(Areas))

  it('adds one with a name, and asks for it', async () => {
    await page.press('Add area')
    expect(page.host.textContent).toContain('name must not be empty')
    await page.type('New area', 'Barn')
    await page.press('Add area')
    expect(recordsOf(page.job.doc, 'area').map((area) => [area.number, area.name])).toEqual([
      [1, 'Whole premises'],
      [2, 'Annexe'],
      [3, 'Barn'],
    ])
  })

  it('keeps delays of an area’s own, and says what is allowed', async () => {
    await page.type('Exit of stay of Annexe, s', 'soon')
    expect(page.host.querySelector('[role="alert"]')?.textContent).toMatch(/number/)
    await page.type('Exit of stay of Annexe, s', '20')
    expect(recordOf(page.job.doc, 'area', 'area:2')?.exitStay).toBe(20)
  })

  it('gives the zones of a removed area to another', async () => {
    await page.press('Remove area Whole premises; its zones go to another')
    expect(zone().area).toBe('area:2')
    expect(page.edits).toHaveLength(1)
  })
})

describe('the area of a zone', () => {
  it('is moved in two acts once its ID was learned', async () => {
    await page.show(ZoneDetail, { zone: zone(), panel: panel(), findings: [] })
    await page.choose('Area of zone 01', 'area:2')
    expect([zone().area, zone().leaves]).toEqual(['area:2', 'area:1'])
    await page.show(ZoneDetail, { zone: zone(), panel: panel(), findings: [] })
    expect(page.host.textContent).toContain('the panel still has it in Whole premises')
    expect(page.job.findings.find((finding) => finding.rule === 'area-move')?.fix?.title).toBe(
      'Both are keyed',
    )
  })
})
