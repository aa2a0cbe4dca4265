import type { System } from '../system/system.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Device, Opening, Room, Sight, Use } from '../job/records.ts'
import { entryWays, type EntryWay } from './entry-ways.ts'
import { Keeper } from '../units/keep.ts'
import { houseOf, openingName, roomKey, type House } from './house.ts'
import { isPassed } from './passing.ts'
import { leavesFrom } from './sights.ts'

/** Names in it are as said of the house; a leaf is named with its room. */
export type PlaceFact =
  /** It is in the room of the leaf and taken to see it, where nobody said; else it is said to. */
  | { readonly is: 'sees-leaf'; readonly leaf: string; readonly assumed: boolean }
  /** It sees that leaf, and the way from a farther door leads past it, on a panel where the shorter of two delays may win. */
  | {
      readonly is: 'leaf-passed'
      readonly leaf: string
      readonly from: string
      readonly assumed: boolean
    }
  | { readonly is: 'sees-way'; readonly from: string; readonly keypad: string }
  | { readonly is: 'off-way' }
  | { readonly is: 'way-through'; readonly opening: string; readonly from: string }
  | { readonly is: 'no-way-through'; readonly opening: string }
  | { readonly is: 'never-used'; readonly opening: string }
  | { readonly is: 'not-in-stay'; readonly opening: string }
  /** Seconds from the opening to the keypad, code and margin counted. */
  | { readonly is: 'far'; readonly opening: string; readonly seconds: number }
  | { readonly is: 'used'; readonly opening: string }

/** What is not said yet. */
export type NeededFact =
  | { readonly needs: 'room' }
  | { readonly needs: 'room-described'; readonly room: string }
  | { readonly needs: 'opening' }
  | { readonly needs: 'door' }
  | { readonly needs: 'keypad' }
  | { readonly needs: 'sees-leaf'; readonly leaf: string }
  /** Whether an inner door stands open while the system is set: glass and a closed door hide the leaf behind them. */
  | { readonly needs: 'inner-door'; readonly door: string; readonly leaf: string }

/** A fact that a judgement would need, and where it is entered. */
interface MissingFact {
  readonly fact: NeededFact
  /** Id of the record, or `premises`, where it is said. */
  readonly at: string
}

/** Where a device stands, as far as its behaviour depends on it. */
export interface DevicePlace {
  /** As stated on the device; else as the house tells; `none` where neither does. */
  readonly use: Use
  /** What the house tells; null where it cannot. */
  readonly derived: Use | null
  /** Why; null where nothing was derived. */
  readonly why: PlaceFact | null
  /** The way that it bears on: from the door people come in by to the keypad; null where the house tells none. */
  readonly way: EntryWay | null
  readonly missing: readonly MissingFact[]
  readonly room: Room | null
  /** The opening it guards, stated or the only one that it can be. */
  readonly opening: Opening | null
  /** Whether daily noise there sounds like breaking glass. */
  readonly noisy: boolean
}

interface Derived {
  readonly use: Use | null
  readonly why: PlaceFact | null
  readonly way: EntryWay | null
  readonly missing: readonly MissingFact[]
}

const keeper = new Keeper<ReadonlyMap<string, DevicePlace>>()

/** Where each device stands, by device id. */
export function placesOf(
  doc: JobDocument,
  system: System,
  rules: HouseRules,
): ReadonlyMap<string, DevicePlace> {
  const house = houseOf(doc, system, rules.figures)
  const sights = recordsOf(doc, 'sight')
  const from = [...system.devices.flatMap(({ device, model }) => [device, model]), ...sights]
  return keeper.get(house, from, () => {
    const ways = entryWays(house, system, rules.figures).filter((way) => way.nearest)
    const shorterMayWin = system.panel !== null && system.panel.couplings?.shorterEntryWins !== false
    const around = { house, ways, sights, shorterMayWin }
    return new Map(system.devices.map((item) => [item.device.id, placeOf(item, around)] as const))
  })
}

interface Around {
  readonly house: House
  readonly ways: readonly EntryWay[]
  readonly sights: readonly Sight[]
  /** Whether the shorter of two delays may win: the panel's entry says so, or says nothing. */
  readonly shorterMayWin: boolean
}

function placeOf(item: System['devices'][number], around: Around): DevicePlace {
  const { house } = around
  const { device } = item
  const room = house.room(device.room)
  const opening = openingOf({ device, deviceClass: item.model.class }, room, house)
  const found = house.rooms.length === 0 ? nothing : derive(item, around, { room, opening })
  return {
    use: device.use === 'none' ? (found.use ?? 'none') : device.use,
    derived: found.use,
    why: found.why,
    way: found.way,
    missing: found.missing,
    room,
    opening,
    noisy: room ? noisyKinds.has(room.kind) : noisyName.test(device.room),
  }
}

const nothing: Derived = { use: null, why: null, way: null, missing: [] }
/** Rooms where pans, tools or compressors break glass alarms. */
const noisyKinds: ReadonlySet<string> = new Set(['kitchen', 'utility', 'garage', 'workshop'])
const noisyName = /kitchen|utility|garage|workshop/i

interface Sensor {
  readonly device: Device
  readonly deviceClass: string
}

/** The opening that a device guards: the one stated; else the one of its room that is named like its position, or the only one, where its position does not name another thing. */
function openingOf({ device, deviceClass }: Sensor, room: Room | null, house: House): Opening | null {
  if (device.opening !== null) return house.openings.find((item) => item.id === device.opening) ?? null
  if (!room || (deviceClass !== 'contact' && deviceClass !== 'shock')) return null
  const here = house.openings.filter((item) => item.room === room.id || item.to === room.id)
  const position = roomKey(device.position)
  const named = here.filter(
    (item) => position !== '' && [position, roomKey(`${room.name} ${position}`)].includes(roomKey(item.name)),
  )
  if (named.length === 1) return named[0] ?? null
  const [only] = here
  return only && here.length === 1 && mayMean(position, only) ? only : null
}

/** Whether a position can mean this opening: a window is not taken for the only door that is described. */
function mayMean(position: string, opening: Opening): boolean {
  const words = new Set(roomKey(opening.name).split(' '))
  return position === '' || position.split(' ').some((word) => words.has(word))
}

interface Spot {
  readonly room: Room | null
  readonly opening: Opening | null
}

function derive(
  { device, model }: System['devices'][number],
  around: Around,
  { room, opening }: Spot,
): Derived {
  const { house, ways, sights } = around
  if (model.class !== 'contact' && model.class !== 'motion') return nothing
  if (!room)
    return device.room === ''
      ? lacks({ needs: 'room' }, device.id)
      : lacks({ needs: 'room-described', room: device.room }, 'premises')
  if (model.class === 'contact')
    return opening ? contactUse(opening, house, ways) : lacks({ needs: 'opening' }, device.id)
  if (house.doors.length === 0) return lacks({ needs: 'door' }, 'premises')
  const mine = sights.filter((sight) => sight.device === device.id)
  const assumed = mine.length === 0
  // Nothing said: it may well see the leaf of a door in its own room, and then it trips before the contact.
  const told = leavesFrom(house, room, mine).filter(({ door, said }) =>
    assumed ? door.room === room.id : said,
  )
  const leaves = told.flatMap(({ door, behind }) => (behind ? [] : [door]))
  const hidden = told.flatMap(({ door, behind }) =>
    behind ? [{ fact: hiddenBy(behind, door, house), at: device.id }] : [],
  )
  const seen = new Set([room.id, ...mine.flatMap((sight) => sight.room ?? [])])
  const watched = { assumed, deviceId: device.id, room, seen }
  if (leaves.length > 0) return and(leafUse(leaves, around, watched), hidden)
  if (house.keypads.length === 0) return and(lacks({ needs: 'keypad' }, 'premises'), hidden)
  const way = passing(ways, seen)
  return and(
    way
      ? derived('on-way', { is: 'sees-way', from: way.name, keypad: last(way) }, way)
      : derived('off-way', { is: 'off-way' }),
    hidden,
  )
}

function hiddenBy(inner: Opening, door: Opening, house: House): NeededFact {
  return { needs: 'inner-door', door: openingName(inner, house), leaf: openingName(door, house) }
}

function passing(ways: readonly EntryWay[], seen: ReadonlySet<string>): EntryWay | undefined {
  return ways.find((item) => item.walk.rooms.some((step) => seen.has(step.id)))
}

function and(found: Derived, missing: Derived['missing']): Derived {
  return missing.length === 0 ? found : { ...found, missing: [...found.missing, ...missing] }
}

interface Watched {
  readonly assumed: boolean
  readonly deviceId: string
  readonly room: Room
  /** Rooms that it sees, its own among them. */
  readonly seen: ReadonlySet<string>
}

/**
 * Of several leaves that it sees, the longest delay counts; and where the shorter of two delays may win, so does that of a farther
 * door of the same area whose way leads past it: else it would cut that door's delay short.
 */
function leafUse(
  leaves: readonly Opening[],
  { house, ways, shorterMayWin }: Around,
  { assumed, deviceId, room, seen }: Watched,
): Derived {
  const far = leaves.find((door) => ways.some((way) => way.door.id === door.id && way.delay === 2))
  const door = far ?? leaves[0]
  const way = ways.find((item) => item.door.id === door?.id) ?? null
  const leaf = door ? openingName(door, house) : ''
  const missing = assumed ? [{ fact: { needs: 'sees-leaf', leaf } as const, at: deviceId }] : []
  const longer = ways.filter(
    (item) => item.delay === 2 && house.areaOf(item.door.room) === house.areaOf(room.id),
  )
  const farther = shorterMayWin && !far ? passing(longer, seen) : undefined
  if (farther) {
    const passed = { is: 'leaf-passed', leaf, from: farther.name, assumed } as const
    return { use: 'entry-far', why: passed, way: farther, missing }
  }
  const why = { is: 'sees-leaf', leaf, assumed } as const
  return { use: far ? 'entry-far' : 'sees-entry', why, way, missing }
}

function contactUse(opening: Opening, house: House, ways: readonly EntryWay[]): Derived {
  const name = openingName(opening, house)
  if (opening.to !== null) {
    const passed = ways.find((way) => isPassed(way, opening))
    if (house.keypads.length === 0) return lacks({ needs: 'keypad' }, 'premises')
    return passed
      ? derived('inner-way', { is: 'way-through', opening: name, from: passed.name }, passed)
      : derived('opening', { is: 'no-way-through', opening: name })
  }
  if (opening.use === 'never') return derived('opening', { is: 'never-used', opening: name })
  // A door that is an opening like any other in stay keeps entry 1: no use has the second delay in away only.
  const way = ways.find((item) => item.door.id === opening.id) ?? null
  if (!opening.inStay) return derived('entry-not-in-stay', { is: 'not-in-stay', opening: name }, way)
  return way?.delay === 2
    ? derived('entry-far', { is: 'far', opening: name, seconds: way.seconds }, way)
    : derived('entry', { is: 'used', opening: name }, way)
}

function last(way: EntryWay): string {
  return way.walk.rooms.at(-1)?.name ?? ''
}

function derived(use: Use, why: PlaceFact, way: EntryWay | null = null): Derived {
  return { use, why, way, missing: [] }
}

function lacks(fact: NeededFact, at: string): Derived {
  return { use: null, why: null, way: null, missing: [{ fact, at }] }
}
