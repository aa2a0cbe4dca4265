import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import type { DeviceModel } from '../catalogue/schema.ts'
import { catalogue } from '../testing/small-job.ts'
import {
  deviceColumns,
  deviceHeadings,
  readDeviceList,
  writeDeviceList,
  type DeviceRow,
} from './device-list.ts'

type Sheet = Record<string, string>[]
const sheetOf = (csv: string): Sheet =>
  Papa.parse<Record<string, string>>(csv.replace(/^\uFEFF/, ''), { header: true, skipEmptyLines: true }).data
const csvOf = (sheet: Sheet): string => Papa.unparse(sheet)
const read = (sheet: Sheet, known = catalogue) => readDeviceList(csvOf(sheet), known)
const taken = (row: DeviceRow | undefined) => {
  if (!row?.ok) throw new Error(JSON.stringify(row))
  return row
}
const reasons = (row: DeviceRow | undefined): readonly string[] => (row && !row.ok ? row.reasons : ['taken'])

/** A wired and a radio device as somebody types them from two leaflets. */
const contact = {
  ...{ Device: 'Burrow contact', Brand: 'Penbrook', Type: 'contact', 'Radio family': 'Wren' },
  ...{ Market: 'Europe', Loops: 'opening (reed) / 3 / reed | terminals / 4 / wired terminals / no' },
  ...{ 'Check in': '60 min', Ways: 'open it / its event\npress the tamper / its tamper / blinks once / 1.5' },
  ...{ Sticker: 'inside the cover', 'Magnet gap': '22', 'From °C': '-10', 'To °C': '50' },
  ...{ Batteries: '1', Battery: 'CR123A' },
}

describe('a list of devices', () => {
  it('that is written and read again changes nothing, and leaves out nothing that a cell can say', () => {
    const csv = writeDeviceList(catalogue)
    const list = readDeviceList(csv, catalogue)
    expect(list.trouble).toBeNull()
    expect(list.unknown).toEqual([])
    expect(list.rows.map((row) => (row.ok ? row.state : `${row.text}: ${row.reasons.join('; ')}`))).toEqual(
      catalogue.all('device').map(() => 'same'),
    )
  })

  it('makes every device anew from its own row alone', () => {
    // What follows another device, or is a price, is not of its leaflet; and each is here for the first time.
    const own = ({
      id: _i,
      name: _n,
      version: _v,
      price: _p,
      sources: _s,
      discontinued: _d,
      ...rest
    }: DeviceModel) => rest
    const sheet = sheetOf(writeDeviceList(catalogue)).map((row) => ({
      ...row,
      ...{ Id: '', Name: `${row.Name ?? ''} anew`, 'No longer made': '' },
    }))
    const list = read(sheet)
    const made = list.rows.map((row) => taken(row))
    expect(made.map(({ state }) => state)).toEqual(made.map(() => 'new'))
    const all = catalogue.all('device')
    made.forEach(({ kept }, index) => {
      const like = all[index]
      if (!like) throw new Error('one row too many')
      expect(kept.entry.name).toBe(`${like.name} anew`)
      expect(own(kept.entry as DeviceModel)).toEqual(own(like))
    })
    expect(new Set(made.map(({ kept }) => kept.entry.id)).size).toBe(all.length)
  })

  it('is read as people type it: own headings, units, a comma before decimals', () => {
    const { kept, state } = taken(read([contact]).rows[0])
    expect(state).toBe('new')
    expect(kept.entry).toMatchObject({
      ...{ id: 'device/burrow-contact', maker: 'Penbrook', class: 'contact', family: 'family/wren' },
      ...{ regions: ['europe'], checkInMinutes: 60, magnetGapMm: 22, temperatureC: { from: -10, to: 50 } },
      ...{ batteries: { count: 1, type: 'CR123A' }, encryption: 'none', way: 'one-way' },
      loops: [
        { event: 'open', loop: 3, name: 'reed', bench: true },
        { event: 'terminals', loop: 4, name: 'wired terminals', bench: false },
      ],
      ways: [
        { way: 'open it', sends: 'event' },
        { way: 'press the tamper', sends: 'tamper', indicator: 'blinks once', seconds: 1.5 },
      ],
    })
    expect(
      taken(read([{ ...contact, 'Magnet gap': '22,5 mm', 'Check in': '2.5' }]).rows[0]).kept.entry,
    ).toMatchObject({
      ...{ magnetGapMm: 22.5, checkInMinutes: 2.5 },
    })
    // What says that there is nothing is no name of a variant, and no note.
    for (const nothing of ['none', 'Not stated', '–', '-', 'no'])
      expect(Object.keys(taken(read([{ ...contact, Variant: nothing }]).rows[0]).kept.entry)).not.toContain(
        'variant',
      )
    expect(taken(read([{ ...contact, Note: 'none' }]).rows[0]).kept.entry).toMatchObject({ note: null })
    // Nothing that was left open is guessed.
    expect(Object.keys(kept.entry)).not.toContain('outdoor')
  })

  it('says of each row what is wrong, by its column, naming what is allowed', () => {
    const wrong = (over: Record<string, string>) => reasons(read([{ ...contact, ...over }]).rows[0])
    expect(wrong({ 'Magnet gap': 'wide' })).toEqual([
      'Magnet gap mm: “wide” must be a number from 1 to 100 mm, or – for “not stated”',
    ])
    expect(wrong({ 'Magnet gap': '1.234' })).toEqual([
      'Magnet gap mm: “1.234” must be a number from 1 to 100 mm, or – for “not stated”',
    ])
    expect(wrong({ 'Magnet gap': '101' })).toHaveLength(1)
    // What else is asked follows from the family: of the rest nothing is said.
    expect(wrong({ 'Radio family': 'Nobody' })).toEqual([
      'Family: “Nobody” is no family of this catalogue, or – for “none: it is wired”',
    ])
    expect(wrong({ Market: 'Europe, the moon' })).toEqual([
      'Regions: “the moon” must be one of: Europe; North America',
    ])
    expect(wrong({ Loops: 'reed / 3' })[0]).toMatch(/^Events and loops: what happens “reed” must be one of: /)
    expect(wrong({ Loops: 'Opening / 3 / reed' })).toEqual(['taken'])
    expect(wrong({ Loops: 'opening (reed) / 3' })).toEqual([
      'Events and loops: “opening (reed) / 3” lacks called: it must be what happens / loop shown / called / can be tripped on the bench',
    ])
    expect(wrong({ Loops: 'opening (reed) / 99 / reed' })).toEqual([
      'Events and loops: loop shown “99” must be a whole number from 1 to 16',
    ])
    expect(wrong({ Loops: '' })).toEqual(['“Events and loops” is missing'])
    expect(wrong({ Batteries: '2', Battery: '' })).toEqual(['taken'])
    expect(wrong({ Type: '' })).toContain('“Class” is missing')
    expect(wrong({ 'Pets up to kg': '20' })).toEqual([
      'Pets up to kg: is not asked of such a device: leave it empty',
    ])
    expect(wrong({ 'Pets up to kg': '–' })).toEqual(['taken'])
    expect(wrong({ Outdoors: 'maybe' })).toEqual([
      'Outdoors: “maybe” must be yes or no, or – for “not stated”',
    ])
    expect(wrong({ Brand: '' })).toEqual(['“Maker” is missing'])
    expect(wrong({ Id: 'device/nobody' })).toEqual([
      'Id: “device/nobody” is no device of this catalogue; a new one has none',
    ])
    // A class that is none: what else is asked is not known.
    expect(wrong({ Type: 'gadget' })[0]).toMatch(/^Class: “gadget” must be one of: contact; motion; /)
  })

  it('makes the next version of what is there, by id or by name and maker, of what was changed alone', () => {
    const [row] = sheetOf(writeDeviceList(catalogue, new Set(['device/reedling'])))
    if (!row) throw new Error('not written')
    const changed = taken(read([{ ...row, 'Magnet gap mm': '15' }]).rows[0])
    const before = catalogue.get('device', 'device/reedling') as DeviceModel
    expect([changed.state, changed.changes.map(({ label }) => label)]).toEqual(['changed', ['Magnet gap']])
    expect(changed.kept.entry).toEqual({
      ...before,
      ...{ magnetGapMm: 15, version: String(Number(before.version) + 1) },
    })
    // Without an id it is told by name and maker; an empty cell leaves what it says.
    const bare = { Name: 'reedling contact', Maker: before.maker, 'Magnet gap mm': '15' }
    expect(taken(read([bare]).rows[0]).kept.entry).toEqual(changed.kept.entry)
    // And a stroke takes it back.
    const taken_ = taken(read([{ ...bare, 'Magnet gap mm': '–' }]).rows[0])
    expect((taken_.kept.entry as DeviceModel).magnetGapMm).toBeNull()
    expect(read([row, row]).rows.map((one) => (one.ok ? one.state : one.reasons))).toEqual([
      'same',
      [`${before.name} stands in row 2 already`],
    ])
  })

  it('gives two of one name of two makers two ids, and lets one follow another of the same list', () => {
    const other = { ...contact, Brand: 'Harl', 'No longer made': 'yes; Burrow contact follows it' }
    const rows = read([{ ...contact, 'No longer made': '' }, other]).rows.map((row) => taken(row).kept.entry)
    expect(rows.map(({ id }) => id)).toEqual(['device/burrow-contact', 'device/burrow-contact-2'])
    expect((rows[1] as DeviceModel).discontinued).toEqual({ successor: 'device/burrow-contact' })
    // The same twice is told.
    expect(reasons(read([contact, contact]).rows[1])).toEqual(['Burrow contact stands in row 2 already'])
  })

  it('is none without names, and of too many rows is not begun', () => {
    expect(readDeviceList('Maker,Class\nx,contact', catalogue).trouble).toContain(
      'No column says what a device is called.',
    )
    const many = Array.from({ length: 501 }, (_, index) => ({ Name: `d${index}`, Maker: 'x' }))
    expect(read(many)).toMatchObject({ rows: [], trouble: 'The file has more than 500 rows. Split it.' })
    expect(readDeviceList('', catalogue).trouble).toBe('The file is empty.')
  })

  it('has a heading of its own for every column', () => {
    expect(new Set(Object.values(deviceHeadings)).size).toBe(deviceColumns.length)
  })
})
