import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import type { Device } from '../job/records.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { systemOf } from '../system/system.ts'
import { delayNeeds, entryWays } from './entry-ways.ts'
import { houseOf, openingName, roomKey, type House } from './house.ts'
import { placesOf } from './places.ts'

const { figures } = defaultHouseRules
const houseIn = (job: SmallJob): House => houseOf(job.doc, systemOf(job.doc, catalogue), figures)
const waysIn = (job: SmallJob) => entryWays(houseIn(job), systemOf(job.doc, catalogue), figures)

/** Porch 6 m hall; garage 30 m hall; a loft up 6 m of stairs; the keypad in the hall, on a panel that keeps areas per keypad. */
const house = (): SmallJob =>
  new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
    .area(2, 'Annexe')
    .room('porch')
    .room('hall')
    .room('garage')
    .room('loft')
    .way('porch', 'hall', 6)
    .way('hall', 'garage', 30)
    .way('hall', 'loft', 6, true)
    .opening('door', 'porch')
    .opening('window', 'loft', { use: 'never' })
    .add('pad', 'scriber-8', { room: 'Hall' })

describe('a house', () => {
  it('finds a room however its name is written', () => {
    expect(roomKey('  Boat \t  Store ')).toBe('boat store')
    expect(houseIn(house()).room(' HALL ')?.id).toBe('room:hall')
    expect(houseIn(house()).room('cellar')).toBeNull()
  })

  it('names an opening with its room only where another has its name', () => {
    const job = house()
    const name = (id: string) => {
      const all = houseIn(job)
      return openingName(all.openings.find((one) => one.id === `opening:${id}`) ?? expect.fail(id), all)
    }
    expect(name('door')).toBe('door')
    job.opening('Door 2', 'garage', { name: 'DOOR' })
    expect([name('door'), name('Door 2'), name('window')]).toEqual(['porch door', 'garage door', 'window'])
  })

  it('has its keypads where their rooms are, and tells those that are in none', () => {
    const job = house()
      .add('lost', 'scriber-8', { room: 'cellar' })
      .add('siren', 'singer-8', { room: 'hall' })
    const found = houseIn(job)
    expect(found.keypads.map(({ device, name, room }) => [device.id, name, room.id])).toEqual([
      ['device:pad', 'Scriber 8 keypad', 'room:hall'],
    ])
    expect(found.lostKeypads.map(({ id }) => id)).toEqual(['device:lost'])
  })

  it('puts a room into the first area unless another is stated', () => {
    const job = house()
    job.set('room:garage', { area: 'area:2' })
    const { areaOf } = houseIn(job)
    expect([areaOf('room:hall'), areaOf('room:garage'), areaOf('room:gone')]).toEqual([
      'area:1',
      'area:2',
      'area:1',
    ])
  })

  it('adds metres and stairs apart on a walk, and keeps the rooms on it', () => {
    const walk = houseIn(house()).walk('room:porch', 'room:loft')
    // 6 m on the level at 1.2 m/s and 6 m of stairs at half that.
    expect(walk).toMatchObject({ metres: 6, stairMetres: 6 })
    expect(walk?.seconds).toBeCloseTo(5 + 10, 6)
    expect(walk?.rooms.map(({ name }) => name)).toEqual(['porch', 'hall', 'loft'])
    expect(houseIn(house()).walk('room:hall', 'room:hall')).toMatchObject({ metres: 0, seconds: 0 })
    expect(houseIn(house()).walk('room:gone', 'room:hall')).toBeNull()
  })

  it('is the same object until something of it changes', () => {
    const job = house()
    const before = houseIn(job)
    expect(houseIn(job)).toBe(before)
    job.set('device:pad', { room: 'garage' })
    expect(houseIn(job)).not.toBe(before)
    expect(houseIn(job).keypads[0]?.room.id).toBe('room:garage')
  })
})

describe('ways in', () => {
  const guard = (job: SmallJob, door: string, over: Partial<Device>): SmallJob =>
    job.add(`on ${door}`, 'sill-8', { room: 'garage', opening: `opening:${door}`, ...over })
  const delays = (job: SmallJob) => waysIn(job).map(({ name, delay, nearest }) => [name, delay, nearest])

  it('are none without a door that people come in by, or without a keypad', () => {
    const job = house()
    expect(waysIn(job)).toHaveLength(1)
    job.set('opening:door', { use: 'never' })
    expect(waysIn(job)).toEqual([])
    const bare = house()
    bare.set('device:pad', { room: 'cellar' })
    expect(waysIn(bare)).toEqual([])
  })

  it('count walk, key-in and margin, rounded up', () => {
    const [way] = waysIn(house())
    expect(way?.seconds).toBe(Math.ceil(5 + figures.keyIn + figures.margin))
    expect([way?.name, way?.keypad.id]).toEqual(['door', 'device:pad'])
  })

  it('take the second delay where the keypad is more than ten seconds further than from the nearest door', () => {
    // 30 m are 25 s, the porch 5 s: twenty more.
    expect(delays(house().opening('gate', 'garage'))).toEqual([
      ['door', 1, true],
      ['gate', 2, true],
    ])
    // Not once it is not used in stay: the first delay counts for whoever leaves the house set behind them.
    expect(delays(house().opening('gate', 'garage', { inStay: false }))[1]).toEqual(['gate', 1, true])
    // Ten seconds are 12 m: at 18 m it is just not more than ten further.
    const near = house().room('shed').way('hall', 'shed', 18).opening('gate', 'shed')
    expect(delays(near)[1]).toEqual(['gate', 1, true])
    const far = house().room('shed').way('hall', 'shed', 19.5).opening('gate', 'shed')
    expect(delays(far)[1]).toEqual(['gate', 2, true])
  })

  it('take the delay that is stated on what guards the door', () => {
    const far = house().opening('gate', 'garage')
    expect(delays(guard(far, 'gate', { use: 'entry' }))[1]).toEqual(['gate', 1, true])
    const late = house().opening('gate', 'garage')
    expect(delays(guard(late, 'gate', { use: 'entry-not-in-stay' }))[1]).toEqual(['gate', 1, true])
    expect(delays(guard(house(), 'door', { use: 'entry-far' }))[0]).toEqual(['door', 2, true])
    // What guards another door states nothing of this one.
    const other = guard(house().opening('gate', 'garage'), 'gate', { use: 'entry-far' })
    expect(delays(other)[0]).toEqual(['door', 1, true])
    // A change of what is stated is seen at once.
    const job = guard(house(), 'door', { use: 'entry-far' })
    expect(delays(job)[0]?.[1]).toBe(2)
    job.set('device:on door', { use: 'entry' })
    expect(delays(job)[0]?.[1]).toBe(1)
  })

  it('lead to keypads that serve the area of the door, the nearest first', () => {
    const two = house().add('second', 'scriber-8', { room: 'garage' })
    expect(waysIn(two).map(({ keypad, nearest }) => [keypad.id, nearest])).toEqual([
      ['device:pad', true],
      ['device:second', false],
    ])
    two.serves('pad', 2)
    expect(waysIn(two).map(({ keypad, nearest }) => [keypad.id, nearest])).toEqual([['device:second', true]])
  })

  it('ask of each delay what its slowest door needs', () => {
    const job = house().opening('gate', 'garage').opening('side', 'hall')
    const needs = delayNeeds(waysIn(job))
    expect([needs.entry1?.name, needs.entry2?.name]).toEqual(['door', 'gate'])
    expect(delayNeeds([])).toEqual({ entry1: null, entry2: null, exit: null })
  })
})

describe('the opening that a contact guards', () => {
  const guarded = (over: Partial<Device>, model = 'sill-8', job = house()): string | null => {
    job.add('one', model, { room: 'porch', ...over })
    const system = systemOf(job.doc, catalogue)
    return placesOf(job.doc, system, defaultHouseRules).get('device:one')?.opening?.id ?? null
  }
  const two = (): SmallJob => house().opening('porch window', 'porch', { use: 'never' })

  it('is the one that is stated, wherever it is', () => {
    expect(guarded({ opening: 'opening:window' })).toBe('opening:window')
    expect(guarded({ opening: 'opening:window' }, 'watcher-8')).toBe('opening:window')
  })

  it('is the one of its room that is named like its position, with or without the room', () => {
    expect(guarded({ position: ' Door ' }, 'sill-8', two())).toBe('opening:door')
    expect(guarded({ position: 'window' }, 'sill-8', two())).toBe('opening:porch window')
    expect(guarded({ position: 'window' }, 'stirrer-8', two())).toBe('opening:porch window')
    // Named twice it is neither.
    expect(guarded({ position: 'door' }, 'sill-8', house().opening('Porch door', 'porch'))).toBeNull()
  })

  it('is the only one of its room where nothing is said, or what is said can mean it', () => {
    expect(guarded({ position: '' })).toBe('opening:door')
    expect(guarded({ position: 'inner door' })).toBe('opening:door')
    expect(guarded({ position: '' }, 'sill-8', two())).toBeNull()
    // A gate between two rooms belongs to both.
    const inner = house().opening('hatch', 'hall', { to: 'room:garage' })
    expect(guarded({ room: 'garage', position: '' }, 'sill-8', inner)).toBe('opening:hatch')
  })

  it('is not the only door where its position names a window: nobody gets a delay through that', () => {
    expect(guarded({ position: 'window' })).toBeNull()
    const job = house().add('one', 'sill-8', { room: 'porch', position: 'side window' })
    const place = placesOf(job.doc, systemOf(job.doc, catalogue), defaultHouseRules).get('device:one')
    expect([place?.use, place?.derived]).toEqual(['none', null])
    expect(place?.missing.length).toBeGreaterThan(0)
  })

  it('is none of a motion, and none without its room', () => {
    expect(guarded({ position: 'door' }, 'watcher-8')).toBeNull()
    expect(guarded({ room: 'cellar', position: 'door' })).toBeNull()
  })

  it('between two rooms is on the way that people walk, from either side', () => {
    const use = (from: string, to: string) => {
      const job = house().opening('hatch', from, { to: `room:${to}` })
      job.add('one', 'sill-8', { room: from, position: 'hatch' })
      return placesOf(job.doc, systemOf(job.doc, catalogue), defaultHouseRules).get('device:one')?.use
    }
    expect([use('porch', 'hall'), use('hall', 'porch')]).toEqual(['inner-way', 'inner-way'])
    expect([use('hall', 'garage'), use('loft', 'hall'), use('porch', 'garage')]).toEqual([
      'opening',
      'opening',
      'opening',
    ])
  })
})
