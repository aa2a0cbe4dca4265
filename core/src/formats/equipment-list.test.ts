import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { readEquipmentList, type EquipmentList } from './equipment-list.ts'
import { runs } from '../testing/runs.ts'

const read = (text: string): EquipmentList => readEquipmentList(text, catalogue)
const short = (list: EquipmentList) =>
  list.rows.map((row) =>
    row.ok
      ? `${row.row}: ${row.devices.length} × ${row.model.name}, ${row.devices[0]?.room}, ${row.devices[0]?.sticker}`
      : `${row.row}: ${row.reasons.join('; ')}`,
  )

describe('a list as spreadsheets write it', () => {
  it.each([
    ['comma', 'Device,Qty,Room,Serial\nReedling contact,1,Porch,20417733\n'],
    ['semicolon', 'Device;Qty;Room;Serial\nReedling contact;1;Porch;20417733\n'],
    ['tab', 'Device\tQty\tRoom\tSerial\nReedling contact\t1\tPorch\t20417733\n'],
    ['byte order mark and CRLF', '\uFEFFDevice,Qty,Room,Serial\r\nReedling contact,1,Porch,20417733\r\n'],
    ['quoted cells', '"Device","Qty","Room","Serial"\n"Reedling contact","1","Porch","2041 7733"\n'],
    ['a separator line', 'sep=;\nDevice;Qty;Room;Serial\nReedling contact;1;Porch;20417733'],
    ['an ID kept as text by a formula', 'Device,Qty,Room,Serial\nReedling contact,1,Porch,="20417733"\n'],
    ['the same, quoted', 'Device;Qty;Room;Serial\nReedling contact;1;Porch;"=""20417733"""\n'],
    ['an ID kept as text by an apostrophe', "Device,Qty,Room,Serial\nReedling contact,'1,Porch,'20417733\n"],
    ['other capitals and order', 'ROOM,serial number,ITEM\nPorch,20417733,reedling CONTACT'],
  ])('%s', (_name, text) => {
    expect(short(read(text)).map((line) => line.slice(line.indexOf(':')))).toEqual([
      ': 1 × Reedling contact, Porch, 20417733',
    ])
  })

  it('keeps the zero that an ID begins with, and the apostrophe of a name', () => {
    const sheet = `Device,Room,Serial\nReedling contact,'t Hof,="01234567"\nReedling contact,"'Tween decks",'01234568`
    expect(short(read(sheet))).toEqual([
      "2: 1 × Reedling contact, 't Hof, 01234567",
      "3: 1 × Reedling contact, 'Tween decks, 01234568",
    ])
  })

  it('passes blank lines over and still counts them in row numbers', () => {
    expect(short(read('\nDevice,Room\n\nReedling contact,Porch\n,\nStilt motion,Hall\n'))).toEqual([
      '4: 1 × Reedling contact, Porch, null',
      '6: 1 × Stilt motion, Hall, null',
    ])
  })

  it('says which columns it used and which it passed over', () => {
    expect(read('Device,Room,Colour,Price\nStilt motion,Hall,white,31')).toMatchObject({
      used: ['Device', 'Room'],
      unknown: ['Colour', 'Price'],
    })
  })

  it('keeps a cell with a separator or a line break whole', () => {
    const list = read('Device,Room,Position\nReedling contact,"Hall, lower","door\nleft"')
    expect(list.rows[0]).toMatchObject({ ok: true, devices: [{ room: 'Hall, lower' }] })
  })

  it('makes several devices of a quantity and understands use and deferred', () => {
    const list = read(
      'Device,Qty,Use,Deferred\nReedling Slim contact,3,window,\nStilt motion,1,,loft not built',
    )
    expect(
      list.rows.map((row) => row.ok && row.devices.map((device) => [device.use, device.deferred])),
    ).toEqual([
      [
        ['opening', null],
        ['opening', null],
        ['opening', null],
      ],
      [['none', 'loft not built']],
    ])
  })
})

describe('IDs that may have been mistaken for each other', () => {
  const doubts = (text: string, known: { serial: string; where: string }[] = []) =>
    readEquipmentList(text, catalogue, { meanings: {}, knownIds: known }).rows.map((row) =>
      row.ok ? row.doubts : row.reasons,
    )

  it('are named at their place, within the list and against the job; the rows are taken all the same', () => {
    const list =
      'device,serial\nReedling contact,2041 7733\nReedling contact,2041 7738\nReedling contact,2041 7783\nReedling contact,2641 7733\n'
    expect(doubts(list, [{ serial: '28417733', where: 'Stilt motion in Hall of this job' }])).toEqual([
      [],
      // One sign off: the next of its carton.
      [],
      [
        'the ID is nearly that of row 3: characters 7 and 8 are swapped, 83 here and 38 there; read both stickers again',
      ],
      [
        'the ID is nearly that of Stilt motion in Hall of this job: character 2 is 6 here and 8 there; read both stickers again',
      ],
    ])
  })
})

describe('rows that are not taken', () => {
  const head = 'Device,Qty,Serial,Use\n'
  it.each([
    ['no device', ',1,,', '2: the device is missing'],
    [
      'unknown device',
      'Moonbeam,1,,',
      '2: “Moonbeam” is not in the catalogue; add it to the catalogue, or write a name that is there',
    ],
    [
      'ambiguous device',
      'Quart,1,,',
      '2: “Quart” is not in the catalogue; it could be Quartet C fob or Quartet fob: write which',
    ],
    ['quantity in words', 'Stilt motion,two,,', '2: quantity “two” must be a whole number from 1 to 50'],
    ['quantity of none', 'Stilt motion,0,,', '2: quantity “0” must be a whole number from 1 to 50'],
    [
      'a rounded serial',
      'Stilt motion,1,4.0E+12,',
      '2: “4.0E+12” is a number that a spreadsheet rounded: the digits are lost. Format the column as text and type the ID from the sticker again.',
    ],
    [
      'a rounded serial with a comma',
      'Stilt motion,1,"4,40512E+7",',
      '2: “4,40512E+7” is a number that a spreadsheet rounded: the digits are lost. Format the column as text and type the ID from the sticker again.',
    ],
    [
      'a stripped zero',
      'Stilt motion,1,4405121,',
      '2: A Wren ID has 8 characters (8); this has 7. If it came from a spreadsheet, a leading zero may have been stripped: read the sticker.',
    ],
    [
      'letters in a serial',
      'Stilt motion,1,4405I213,',
      '2: Wren IDs have digits only; “I”, character 5, does not belong. Was it a 1? Read the sticker again.',
    ],
    [
      'one ID for several',
      'Stilt motion,2,44051213,',
      '2: one ID cannot belong to 2 devices: give each its own row',
    ],
    [
      'a wired device with an ID',
      'Horn W wired siren,1,44051213,',
      '2: Horn W wired siren is wired and has no radio ID',
    ],
    [
      'an unknown use',
      'Stilt motion,1,,ceiling',
      '2: use “ceiling” is not known; write one of: everyday door · entry door, far from keypad · entry door, not in stay · window or unused door · inner door on the way in · sees entry · on the way · on the way down at night · off every way · never opened',
    ],
  ])('%s', (_name, row, said) => {
    expect(short(read(head + row))[0]).toBe(said)
  })

  it('names the row where an ID stands already, and takes the rest', () => {
    expect(
      short(read('Device,Serial\nStilt motion,44051213\nStilt motion,44051213\nStilt motion,44051214')),
    ).toEqual([
      '2: 1 × Stilt motion, , 44051213',
      '3: the ID stands in row 2 already',
      '4: 1 × Stilt motion, , 44051214',
    ])
  })
})

describe('headings of the firm’s own', () => {
  const text = 'Teil,Raum,Stück\nReedling contact,Hall,2'
  it('are understood once somebody said what they mean', () => {
    expect(readEquipmentList(text, catalogue).trouble).toContain('No column says what the device is')
    const list = readEquipmentList(text, catalogue, {
      meanings: { teil: 'device', raum: 'room', stück: 'quantity' },
    })
    expect(
      list.rows.map((row) => row.ok && [row.model.id, row.devices.length, row.devices[0]?.room]),
    ).toEqual([['device/reedling', 2, 'Hall']])
    expect(list.unknown).toEqual([])
  })

  it('count before the usual meaning, and can be passed over', () => {
    const both = 'Device,Room,Location\nReedling contact,Hall,upper floor'
    const room = (meanings: Record<string, string>) => {
      const row = readEquipmentList(both, catalogue, { meanings }).rows[0]
      return row?.ok ? row.devices[0]?.room : null
    }
    expect(room({})).toBe('Hall')
    expect(room({ location: 'room' })).toBe('upper floor')
    expect(room({ room: 'nothing', location: 'nothing' })).toBe('')
  })
})

describe('files that cannot be read', () => {
  it.each([
    ['', 'The file is empty.'],
    ['  \n \n', 'The file is empty.'],
    [
      'Colour,Price\nwhite,3',
      'No column says what the device is. The first row must name one of: device, model, item, equipment, product, type; found: Colour, Price. Say below what the columns mean, or change the file.',
    ],
    ['Device,Qty', 'The file has a heading but no rows.'],
    ['PK\u0003\u0004\u0000', 'This is no text file. Save the sheet as CSV (UTF-8) and choose that file.'],
    ['x'.repeat(2_000_001), 'The file is larger than the 2 million characters read here. Split it.'],
  ])('%#', (text, said) => expect(read(text).trouble).toBe(said))

  it('never throws, whatever the file holds', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400, unit: 'binary' }), (text) => {
        const list = read(`Device,Qty,Serial,Room\n${text}`)
        for (const row of list.rows) if (!row.ok) expect(row.reasons.length).toBeGreaterThan(0)
      }),
      { seed: 11, numRuns: runs(4000) },
    )
  })
})

it('understands every use that it offers', () => {
  const words = read('Device,Use\nStilt motion,nonsense').rows[0]
  const offered = words?.ok === false ? (words.reasons[0]?.split('one of: ')[1]?.split(' · ') ?? []) : []
  expect(offered).toHaveLength(10)
  const list = read(`Device,Use\n${offered.map((use) => `Stilt motion,"${use}"`).join('\n')}`)
  expect(new Set(list.rows.map((row) => row.ok && row.devices[0]?.use)).size).toBe(10)
})
