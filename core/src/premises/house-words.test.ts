import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { systemOf } from '../system/system.ts'
import { recordsOf } from '../job/document.ts'
import { catalogue, cleanHouse, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { HOUSE_LIMIT, houseFromKit, readHouse, writeHouse } from './house-words.ts'

let ids = 0
const newId = () => `w${(ids += 1)}`
const take = (job: SmallJob, text: string) => {
  const reading = readHouse(text, job.doc, newId)
  job.apply(reading.ops)
  return reading.lines
}
const bare = () => new SmallJob()

describe('the house in words', () => {
  it('reads rooms, ways and openings, whatever their order', () => {
    const job = bare()
    const lines = take(
      job,
      'Front door in Porch: every day, not in stay\nPorch - Hall 4\nHall – Landing 5,5 m stairs\nPorch\nHall: floor Ground\nLanding: floor Upper, unheated\nGlass door between Hall and Porch',
    )
    expect(lines.map((line) => line.says)).toEqual([
      'Front door in Porch: people come in every day, not once the house is in stay',
      'Porch to Hall, 4 m',
      'Hall to Landing, 5.5 m of stairs',
      'Porch, a room: hall, heated',
      'Hall, a room: hall, floor Ground, heated',
      'Landing, a room: hall, floor Upper, unheated',
      'Glass door between Hall and Porch: an inner door',
    ])
    expect(recordsOf(job.doc, 'way').map((way) => [way.metres, way.stairs])).toEqual([
      [4, false],
      [5.5, true],
    ])
  })

  it('tells what a name says by itself', () => {
    const job = bare()
    take(job, 'Kitchen\nGuest bedroom\nGarage\nBoat store\nYard\nDen')
    expect(recordsOf(job.doc, 'room').map((room) => [room.kind, room.heated, room.sleeps])).toEqual([
      ['kitchen', true, false],
      ['bedroom', true, true],
      ['garage', false, false],
      ['store', false, false],
      ['outdoors', false, false],
      ['other', true, false],
    ])
    take(job, 'Window in Den\nDoor in Den')
    expect(recordsOf(job.doc, 'opening').map((opening) => opening.use)).toEqual(['never', 'everyday'])
  })

  it('changes only what a line says of a room that is there', () => {
    const job = bare()
    take(job, 'Den: pet 18, floor Ground')
    const lines = take(job, 'den: unheated')
    expect(lines[0]).toMatchObject({ ok: true, changes: true })
    expect(recordsOf(job.doc, 'room')).toMatchObject([{ petKg: 18, floor: 'Ground', heated: false }])
    expect(readHouse('DEN: unheated', job.doc, newId).ops).toEqual([])
  })

  it.each([
    ['Hall: blue', '“blue” is not known of a room; write'],
    ['Hall: pet', '“pet” needs a weight'],
    ['Hall: pet 400', 'petKg must be a weight from 0 to 100 kg'],
    ['Hall - Attic 4', 'there is no room “Hall” yet'],
    ['Door in Attic', 'there is no room “Attic” yet; write a line “Attic:” for it'],
    ['Den\nDoor in Den: weekly', '“weekly” is not known of an opening; write every day'],
    ['Den\nDen - Den 4', 'a way leads from one room to another'],
    ['Den\nHall\nDen - Hall 600', 'metres must be a length from 0.5 to 500 m'],
    ['Den: area Moon', 'there is no area “Moon”; the job has whole premises'],
    ['x'.repeat(80), 'name'],
  ])('says what is wrong with %s', (text, says) => {
    const { lines, ops } = readHouse(text, bare().doc, newId)
    const bad = lines.find((line) => !line.ok)
    expect(bad?.says).toContain(says)
    // What is right beside it would still be taken.
    expect(ops.length).toBe(lines.filter((line) => line.ok).length)
  })

  it('writes what it reads: reading it back changes nothing', () => {
    const word = fc.constantFrom('Hall', 'Den', 'Attic', 'Boat store', 'Kitchen')
    const facts = fc.subarray([
      'unheated',
      'sleeps',
      'pet 12',
      'metal',
      'floor Upper',
      'compartment North',
      'garage',
    ])
    const rooms = fc.array(fc.tuple(word, facts), { minLength: 1, maxLength: 5 })
    const ways = fc.array(fc.tuple(word, word, fc.integer({ min: 1, max: 90 }), fc.boolean()), {
      maxLength: 5,
    })
    const doors = fc.array(
      fc.tuple(word, fc.constantFrom('every day', 'now and then', 'never, not in stay')),
      { maxLength: 4 },
    )
    fc.assert(
      fc.property(rooms, ways, doors, (r, w, d) => {
        const text = [
          ...r.map(([name, list]) => `${name}: ${list.join(', ')}`),
          ...w.map(([a, b, metres, stairs]) => `${a} - ${b} ${metres}${stairs ? ' stairs' : ''}`),
          ...d.map(([name, use], index) => `Door ${index} in ${name}: ${use}`),
        ].join('\n')
        const job = bare()
        take(job, text)
        expect(readHouse(writeHouse(job.doc), job.doc, newId).ops).toEqual([])
        const copy = bare()
        take(copy, writeHouse(job.doc))
        expect(writeHouse(copy.doc)).toBe(writeHouse(job.doc))
      }),
      { seed: 5, numRuns: 200 },
    )
  })

  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200, unit: 'binary' }), (text) => {
        const job = bare()
        take(job, text)
        expect(readHouse(text, job.doc, newId).ops).toEqual([])
      }),
      { seed: 6, numRuns: 300 },
    )
  })

  it('begins from what the kit names', () => {
    const job = cleanTarn()
    expect(houseFromKit(job.doc, systemOf(job.doc, catalogue)).split('\n')).toEqual([
      'porch:',
      'study:',
      'hall:',
      'lounge:',
      'landing:',
      'kitchen:',
      'bedroom:',
      'front door in porch: every day',
      'window in study: never',
    ])
    const described = cleanHouse()
    expect(houseFromKit(described.doc, systemOf(described.doc, catalogue))).toBe('window in kitchen: never')
  })
})

describe('a line of the house', () => {
  type Row = Readonly<Record<'line' | 'taken' | 'says', string>>
  const text = readFileSync(new URL('./house-lines.csv', import.meta.url), 'utf8').trim()
  it.each(Papa.parse<Row>(text, { header: true, comments: '#' }).data)('$line', ({ line, taken, says }) => {
    const job = bare().room('Hall').room('Kitchen')
    const [read] = take(job, line)
    expect([read?.ok, read?.says.includes(says) ? says : read?.says]).toEqual([taken === 'yes', says])
    expect(recordsOf(job.doc, 'opening').length + recordsOf(job.doc, 'room').length > 2).toBe(
      taken === 'yes' && !/^(Kitchen:|Hall -)/.test(line),
    )
    // What was taken is written so that reading it back changes nothing.
    expect(readHouse(writeHouse(job.doc), job.doc, newId).ops).toEqual([])
  })

  it('of a name alone is a room where another line names it', () => {
    const job = bare()
    expect(take(job, 'Plum\nHall\nHall - Plum 4').map(({ ok }) => ok)).toEqual([true, true, true])
    expect(take(job, 'Plum')).toMatchObject([{ ok: true, changes: false }])
  })
})

describe('every word that may be said', () => {
  it.each<[string, Record<string, unknown>, string]>([
    ['sleeps', { sleeps: true }, 'Den, a room: other, heated, sleeps'],
    ['people sleep', { sleeps: true }, 'Den, a room: other, heated, sleeps'],
    ['metal', { metal: true }, 'Den, a room: other, heated, metal'],
    ['pet 18', { petKg: 18 }, 'Den, a room: other, heated, pet 18'],
    ['Pets of 18 kg', { petKg: 18 }, 'Den, a room: other, heated, pet 18'],
    ['pet   of   7,5kg', { petKg: 7.5 }, 'Den, a room: other, heated, pet 7.5'],
    ['pet 4.5', { petKg: 4.5 }, 'Den, a room: other, heated, pet 4.5'],
    ['floor   Upper  one', { floor: 'Upper  one' }, 'Den, a room: other, floor Upper  one, heated'],
    ['Compartment  North', { compartment: 'North' }, 'Den, a room: other, heated, compartment North'],
    ['area   annexe', { area: 'area:2' }, 'Den, a room: other, heated'],
    ['workshop', { kind: 'workshop' }, 'Den, a room: workshop, heated'],
    ['unheated', { heated: false }, 'Den, a room: other, unheated'],
  ])('of a room: %s', (fact, fields, says) => {
    const job = bare().area(2, 'Annexe')
    expect(take(job, `Den: ${fact}`)).toMatchObject([{ ok: true, changes: true, says }])
    expect(recordsOf(job.doc, 'room')).toMatchObject([{ name: 'Den', ...fields }])
  })

  it.each<[string, Record<string, unknown>]>([
    ['nobody sleeps', { sleeps: false }],
    ['no metal', { metal: false }],
    ['no pet', { petKg: null }],
    ['heated', { heated: true }],
  ])('and what takes it back: %s', (fact, fields) => {
    const job = bare()
    take(job, 'Den: sleeps, metal, pet 18, unheated')
    expect(take(job, `Den: ${fact}`)).toMatchObject([{ ok: true, changes: true }])
    expect(recordsOf(job.doc, 'room')).toMatchObject([fields])
    expect(take(job, `Den: ${fact}`)).toMatchObject([{ ok: true, changes: false }])
  })

  it.each([
    'pets18x',
    'a pet 18',
    'pet 18 kg heavy',
    'pet 1234',
    'pet 18.55',
    'upper floor two',
    'the compartment North',
    'no area Annexe',
    'floor',
    'compartment',
    'area',
  ])('is not guessed: %s', (fact) => {
    const job = bare().area(2, 'Annexe')
    const [line] = take(job, `Den: ${fact}`)
    expect(line).toMatchObject({ ok: false, changes: false })
    expect(line?.says).toContain(`“${fact}”`)
    expect(recordsOf(job.doc, 'room')).toEqual([])
  })

  it('names the areas that there are where one is not', () => {
    const [line] = take(bare().area(2, 'Annexe'), 'Den: area Barn')
    expect(line?.says).toMatch(/^there is no area “Barn”; the job has .*annexe/i)
  })

  it.each<[string, Record<string, unknown>, string]>([
    ['Door in Den: every day', { use: 'everyday', inStay: true }, 'Door in Den: people come in every day'],
    ['Door in Den: now and then', { use: 'occasional' }, 'Door in Den: people come in now and then'],
    ['Door in Den: never', { use: 'never' }, 'Door in Den: nobody comes in by it'],
    [
      'Door  in  Den: not in stay',
      { use: 'everyday', inStay: false },
      'Door in Den: people come in every day, not once the house is in stay',
    ],
    ['Skylight in Den', { use: 'never' }, 'Skylight in Den: nobody comes in by it'],
    ['Hatch between   Den   and   Hall', { to: true }, 'Hatch between Den and Hall: an inner door'],
  ])('of an opening: %s', (line, fields, says) => {
    const job = bare()
    take(job, 'Den\nHall')
    expect(take(job, line)).toMatchObject([{ ok: true, changes: true, says }])
    const [opening] = recordsOf(job.doc, 'opening')
    const hall = recordsOf(job.doc, 'room').find(({ name }) => name === 'Hall')?.id
    expect(opening).toMatchObject('to' in fields ? { to: hall } : { to: null, ...fields })
  })

  it('an opening is also in stay again, and one of the same name elsewhere is another', () => {
    const job = bare()
    take(job, 'Den\nHall\nDoor in Den: not in stay\nDoor in Hall')
    expect(take(job, 'door in den: also in stay')).toMatchObject([{ ok: true, changes: true }])
    expect(recordsOf(job.doc, 'opening').map(({ inStay }) => inStay)).toEqual([true, true])
    expect(take(job, 'Door between Den and Hall')).toMatchObject([{ ok: true, changes: true }])
    expect(recordsOf(job.doc, 'opening')).toHaveLength(3)
    expect(take(job, 'Door between Den and Hall')).toMatchObject([{ ok: true, changes: false }])
    expect(take(job, 'Door between Den and Attic')).toMatchObject([{ ok: false }])
    expect(recordsOf(job.doc, 'opening')).toHaveLength(3)
  })

  it.each<[string, number, boolean]>([
    ['Den - Hall 4', 4, false],
    ['Den   –   Hall   4,25 m', 4.25, false],
    ['Den — Hall 12.5m, stairs', 12.5, true],
    ['Den - Hall 3 m stairs', 3, true],
  ])('of a way: %s', (line, metres, stairs) => {
    const job = bare()
    take(job, 'Den\nHall')
    expect(take(job, line)).toMatchObject([{ ok: true, changes: true }])
    expect(recordsOf(job.doc, 'way')).toMatchObject([{ metres, stairs }])
    // The same way from its other end is the same way.
    expect(take(job, `Hall - Den ${metres}${stairs ? ' stairs' : ''}`)).toMatchObject([
      { ok: true, changes: false },
    ])
    expect(take(job, 'Hall - Den 9')).toMatchObject([{ ok: true, changes: true }])
    expect(recordsOf(job.doc, 'way')).toHaveLength(1)
  })

  it('is read line by line, numbered as they stand, empty ones left out', () => {
    const lines = readHouse('\n  Den  \r\n\r\nHall: blue\n', bare().doc, newId).lines
    expect(lines.map(({ line, text, ok }) => [line, text, ok])).toEqual([
      [2, 'Den', true],
      [4, 'Hall: blue', false],
    ])
  })

  it('is not read beyond its length, and up to it is', () => {
    const doc = bare().doc
    const rest = 'Den\n'.padEnd(HOUSE_LIMIT, ' ')
    expect(readHouse(rest, doc, newId).lines).toMatchObject([{ ok: true, text: 'Den' }])
    const long = readHouse(`${rest} `, doc, newId)
    expect(long).toMatchObject({ ops: [], lines: [{ line: 1, ok: false, changes: false }] })
    expect(long.lines[0]?.says).toContain(`${HOUSE_LIMIT} characters`)
  })

  it('gives each record of a type the next place in its list', () => {
    const job = bare()
    take(job, 'Den\nHall\nLoft\nDen - Hall 4\nHall - Loft 3\nDoor in Den\nDoor in Hall')
    for (const type of ['room', 'way', 'opening'] as const) {
      const orders = recordsOf(job.doc, type).map(({ order }) => order)
      expect(orders).toEqual(orders.map((_, index) => (orders[0] ?? 0) + index))
    }
  })
})

describe('lines from the kit', () => {
  it('name each room once, and each opening that a contact guards, by its use', () => {
    const job = new SmallJob()
      .add('a', 'reedling', { room: 'Porch', position: 'front door', use: 'entry' })
      .add('b', 'reedling', { room: 'porch', position: 'side door', use: 'entry-not-in-stay' })
      .add('c', 'reedling', { room: 'Den', position: 'window', use: 'opening' })
      .add('d', 'reedling', { room: 'Attic', position: '' })
      .add('e', 'reedling', { room: '', position: 'gate' })
      .add('f', 'stilt', { room: 'Hall', position: 'corner' })
    expect(houseFromKit(job.doc, systemOf(job.doc, catalogue)).split('\n')).toEqual([
      ...['Porch:', 'Den:', 'Attic:', 'Hall:'],
      'front door in Porch: every day',
      'side door in porch: every day, not in stay',
      'window in Den: never',
    ])
    // What is described already is not said again.
    job.room('Den').room('Porch').opening('Front door', 'Porch').opening('window', 'Porch')
    expect(houseFromKit(job.doc, systemOf(job.doc, catalogue)).split('\n')).toEqual([
      ...['Attic:', 'Hall:'],
      'side door in porch: every day, not in stay',
      'window in Den: never',
    ])
  })
})
