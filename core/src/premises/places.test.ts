import { describe, expect, it } from 'vitest'
import { systemOf } from '../system/system.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { recordOf, recordsOf } from '../job/document.ts'
import { applyOps, invertOps } from '../job/edit.ts'
import type { Room } from '../job/records.ts'
import { neededWords, placeWords } from '../findings/words/places.ts'
import { catalogue, cleanHouse, SmallJob } from '../testing/small-job.ts'
import { delayNeeds, entryWays } from './entry-ways.ts'
import { removeRoomOps, renameRoomOps } from './house-edits.ts'
import { houseOf } from './house.ts'
import { placesOf } from './places.ts'

const { figures } = defaultHouseRules
const houseIn = (job: SmallJob) => houseOf(job.doc, systemOf(job.doc, catalogue), figures)
const ways = (job: SmallJob) => entryWays(houseIn(job), systemOf(job.doc, catalogue), figures)
const place = (job: SmallJob, key: string) =>
  placesOf(job.doc, systemOf(job.doc, catalogue), defaultHouseRules).get(`device:${key}`)
/** The place with why and what is missing in words. */
const told = (job: SmallJob, key: string) => {
  const found = place(job, key)
  const missing = (found?.missing ?? []).map(({ fact, at }) => ({ fact: neededWords(fact), at }))
  return { ...found, why: placeWords(found?.why ?? null), missing }
}

/** Two floors, a garage far from the keypad in the hall, and a second keypad on the landing. */
const big = () =>
  cleanHouse()
    .room('garage', { kind: 'garage', heated: false })
    .way('kitchen', 'garage', 18)
    .opening('garage door', 'garage')

describe('walks', () => {
  it('take the quickest way at the pace of the slowest person', () => {
    const job = cleanHouse()
    // 4 m on the level at 1.2 m/s, then 5 m of stairs at half that.
    const walk = houseIn(job).walk('room:porch', 'room:landing')
    expect(walk?.seconds).toBeCloseTo(4 / 1.2 + 5 / 0.6, 6)
    expect(walk?.rooms.map((room) => room.name)).toEqual(['porch', 'hall', 'landing'])
    job.set('job:main', { slowest: 'slow' })
    expect(houseIn(job).walk('room:porch', 'room:landing')?.seconds).toBeCloseTo(4 / 0.6 + 5 / 0.3, 6)
  })

  it('prefer a longer level way to short stairs when it is quicker', () => {
    const job = new SmallJob()
      .room('a')
      .room('b')
      .room('c')
      .way('a', 'b', 4, true)
      .way('a', 'c', 2)
      .way('c', 'b', 3)
    expect(
      houseIn(job)
        .walk('room:a', 'room:b')
        ?.rooms.map((room) => room.name),
    ).toEqual(['a', 'c', 'b'])
  })

  it('are none where no way leads', () => {
    expect(houseIn(cleanHouse().room('island')).walk('room:porch', 'room:island')).toBeNull()
  })
})

describe('entry ways', () => {
  it('add walk, code and margin, and round up', () => {
    // 4 m at 1.2 m/s are 3.33 s; 8 s and 5 s more make 16.33 s: 17 s.
    expect(ways(cleanHouse()).map((way) => [way.door.name, way.seconds, way.delay])).toEqual([
      ['front door', 17, 1],
    ])
  })

  it('give a door far from the keypad the second delay', () => {
    // From the garage 18 + 6 m at 1.2 m/s are 20 s, with 13 s more 33 s.
    expect(ways(big()).map((way) => [way.door.name, way.seconds, way.delay])).toEqual([
      ['front door', 17, 1],
      ['garage door', 33, 2],
    ])
    const needs = delayNeeds(ways(big()))
    expect([needs.entry1?.seconds, needs.entry2?.seconds, needs.exit?.seconds]).toEqual([17, 33, 33])
  })

  it('lead to the nearest keypad, and a stated use decides the delay', () => {
    const job = big().add('second', 'tapwell-c', { room: 'garage' })
    expect(
      ways(job)
        .filter((way) => way.nearest)
        .map((way) => [way.door.name, way.seconds]),
    ).toEqual([
      ['front door', 17],
      ['garage door', 13],
    ])
    const stated = big().add('roller', 'reedling', {
      room: 'garage',
      opening: 'opening:garage door',
      use: 'entry',
    })
    expect(ways(stated).map((way) => way.delay)).toEqual([1, 1])
  })
})

describe('what the house tells of a device', () => {
  it.each([
    ['porch', 'entry', 'People come in by the front door, also while the house is in stay.'],
    ['kitchen', 'opening', 'Nobody comes in by the kitchen window.'],
    ['hall', 'on-way', 'It sees the way from the front door to the keypad in the hall.'],
  ])('%s is %s', (key, use, why) => {
    expect(told(cleanHouse(), key)).toMatchObject({ use, derived: use, why, missing: [] })
  })

  it('a door not used in stay, and one far away', () => {
    expect(place(cleanHouse().set('opening:front door', { inStay: false }), 'porch')?.use).toBe(
      'entry-not-in-stay',
    )
    const job = big().add('roller', 'reedling', { room: 'garage' })
    expect(told(job, 'roller')).toMatchObject({
      use: 'entry-far',
      why: 'From the garage door it takes 33 s to the keypad, code and margin counted.',
    })
  })

  it('a motion in the room of an entry door is taken to see its leaf, until somebody says', () => {
    const job = cleanHouse().add('eye', 'stilt', { room: 'porch' })
    expect(told(job, 'eye')).toMatchObject({
      use: 'sees-entry',
      missing: [{ fact: 'whether it sees the leaf of the front door', at: 'device:eye' }],
    })
    expect(place(job.sees('eye', { room: 'porch' }), 'eye')).toMatchObject({ use: 'on-way', missing: [] })
    expect(place(job.sees('eye', { opening: 'front door' }), 'eye')).toMatchObject({
      use: 'sees-entry',
      missing: [],
    })
  })

  it('of several leaves the longest delay counts', () => {
    const job = big().add('eye', 'stilt', { room: 'kitchen' }).add('upper', 'stilt', { room: 'landing' })
    expect([place(job, 'eye')?.use, place(job, 'upper')?.use]).toEqual(['on-way', 'off-way'])
    job.sees('eye', { opening: 'front door' }).sees('eye', { opening: 'garage door' })
    expect(place(job, 'eye')?.use).toBe('entry-far')
  })

  it('an inner door on the way, and one off it', () => {
    const job = cleanHouse()
      .opening('glass door', 'porch', { to: 'room:hall' })
      .opening('pantry door', 'kitchen', { to: 'room:hall' })
      .add('glass', 'reedling', { room: 'porch', opening: 'opening:glass door' })
      .add('pantry', 'reedling', { room: 'kitchen', opening: 'opening:pantry door' })
    expect([place(job, 'glass')?.use, place(job, 'pantry')?.use]).toEqual(['inner-way', 'opening'])
  })

  it('names the fact that is missing and where to say it', () => {
    const job = cleanHouse().opening('side door', 'kitchen').add('attic', 'stilt', { room: 'attic' })
    // Two openings of the kitchen now, and neither is called “side”.
    job.add('side', 'reedling', { room: 'kitchen', position: 'left' })
    expect(told(job, 'side')).toMatchObject({
      use: 'none',
      derived: null,
      missing: [{ fact: 'which opening it guards, and how people use it', at: 'device:side' }],
    })
    expect(told(job, 'attic').missing[0]).toEqual({ fact: 'a description of “attic”', at: 'premises' })
    const blind = new SmallJob()
      .room('hall')
      .room('porch')
      .opening('door', 'porch')
      .add('eye', 'stilt', { room: 'hall' })
    expect(told(blind, 'eye').missing[0]?.fact).toBe('a keypad in a described room')
  })

  it('a stated use stands, and the described kind of a room tells noise', () => {
    const job = cleanHouse().set('device:hall', { use: 'off-way' })
    expect(place(job, 'hall')).toMatchObject({ use: 'off-way', derived: 'on-way' })
    expect(place(job, 'kitchen')?.noisy).toBe(true)
    expect(place(job.set('room:kitchen', { kind: 'living' }), 'kitchen')?.noisy).toBe(false)
  })
})

describe('changing the house', () => {
  it('renames a room with its devices', () => {
    const job = cleanHouse()
    job.apply(renameRoomOps(job.doc, recordOf(job.doc, 'room', 'room:hall') as Room, 'Lobby'))
    expect([job.device('hall').room, job.device('keypad').room]).toEqual(['Lobby', 'Lobby'])
    expect(place(job, 'hall')?.use).toBe('on-way')
  })

  it('takes a room out with all that names it, and one undo brings it back', () => {
    const job = cleanHouse().sees('hall', { opening: 'front door' }).sees('hall', { room: 'porch' })
    job.set('device:porch', { opening: 'opening:front door' })
    const before = job.doc
    const result = applyOps(job.doc, removeRoomOps(job.doc, recordOf(job.doc, 'room', 'room:porch') as Room))
    if (!result.ok) throw new Error(JSON.stringify(result.conflict))
    expect(recordsOf(result.doc, 'way').map((way) => way.id)).toEqual([
      'way:hall-kitchen',
      'way:hall-landing',
    ])
    expect([recordsOf(result.doc, 'opening').length, recordsOf(result.doc, 'sight').length]).toEqual([1, 0])
    const back = applyOps(result.doc, invertOps(result.took))
    expect(back.ok && back.doc.records).toEqual(before.records)
  })
})
