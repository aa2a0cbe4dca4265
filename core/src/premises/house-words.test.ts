import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { systemOf } from '../system/system.ts'
import { recordsOf } from '../job/document.ts'
import { catalogue, cleanHouse, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { houseFromKit, readHouse, writeHouse } from './house-words.ts'

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
    expect(houseFromKit(described.doc, systemOf(described.doc, catalogue))).toBe(
      'window in kitchen: every day',
    )
  })
})
