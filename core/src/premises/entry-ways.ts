import type { System } from '../system/system.ts'
import type { Figures } from '../house-rules/house-rules.ts'
import type { Device, Opening } from '../job/records.ts'
import { Keeper } from '../units/keep.ts'
import { openingName, type House, type Walk } from './house.ts'

/** The way from an entry door to a keypad, and how long someone needs for it. */
export interface EntryWay {
  readonly door: Opening
  /** What the door is called among the others. */
  readonly name: string
  readonly keypad: Device
  readonly walk: Walk
  readonly keyIn: number
  readonly margin: number
  /** Walk, key-in and margin, seconds, rounded up. */
  readonly seconds: number
  /** True for the keypad that this door's people go to: the nearest. */
  readonly nearest: boolean
  /** Which entry delay the door takes. */
  readonly delay: 1 | 2
}

/** What the ways ask of each delay: the slowest way and its seconds; null where no door takes it. */
export interface DelayNeeds {
  readonly entry1: EntryWay | null
  readonly entry2: EntryWay | null
  readonly exit: EntryWay | null
}

/** A door whose nearest keypad is this much further than the nearest door's takes the second, longer delay. House judgement; a stated use wins. */
const FAR_SECONDS = 10

const none: readonly EntryWay[] = []
const keeper = new Keeper<readonly EntryWay[]>()

/** Every way from an entry door to a keypad, by door, the nearest keypad first. */
export function entryWays(house: House, system: System, figures: Figures): readonly EntryWay[] {
  if (house.doors.length === 0 || house.keypads.length === 0) return none
  // What guards a door, and how it is stated, decides which delay the door takes.
  const guards = system.devices.flatMap(({ device }) => (device.opening === null ? [] : [device]))
  return keeper.get(house, guards, () => waysOf(house, system, figures))
}

function waysOf(house: House, system: System, figures: Figures): readonly EntryWay[] {
  const { keyIn, margin } = figures
  const byDoor = house.doors.map((door) =>
    house.keypads
      .flatMap(({ device, room, areas }) => {
        const area = house.areaOf(door.room)
        // A keypad that does not unset the door's area is no help to who comes in by it.
        const serves = areas === null || area === null || areas.has(area)
        const walk = serves ? house.walk(door.room, room.id) : null
        return walk
          ? [
              {
                door,
                name: openingName(door, house),
                keypad: device,
                walk,
                keyIn,
                margin,
                seconds: Math.ceil(tidy(walk.seconds + keyIn + margin)),
              },
            ]
          : []
      })
      .sort((a, b) => a.seconds - b.seconds),
  )
  const shortest = Math.min(...byDoor.flatMap((ways) => ways[0]?.seconds ?? []))
  return byDoor.flatMap((ways) =>
    ways.map((way, index) => ({
      ...way,
      nearest: index === 0,
      delay: delayOf(way.door, { seconds: ways[0]?.seconds ?? way.seconds, shortest }, system),
    })),
  )
}

/** What the slowest ways ask of entry 1, entry 2 and exit. */
export function delayNeeds(ways: readonly EntryWay[]): DelayNeeds {
  const mine = ways.filter((way) => way.nearest)
  return {
    entry1: slowest(mine.filter((way) => way.delay === 1)),
    entry2: slowest(mine.filter((way) => way.delay === 2)),
    exit: slowest(mine),
  }
}

function slowest(ways: readonly EntryWay[]): EntryWay | null {
  return ways.reduce<EntryWay | null>((most, way) => (!most || way.seconds > most.seconds ? way : most), null)
}

interface WayTimes {
  readonly seconds: number
  readonly shortest: number
}

/** What the door's contact is stated to be decides; else how much further its keypad is than the nearest door's. */
function delayOf(door: Opening, { seconds, shortest }: WayTimes, system: System): 1 | 2 {
  const guards = system.devices.filter(({ device }) => device.opening === door.id)
  if (guards.some(({ device }) => device.use === 'entry-far')) return 2
  if (guards.some(({ device }) => device.use === 'entry' || device.use === 'entry-not-in-stay')) return 1
  return door.inStay && seconds > shortest + FAR_SECONDS ? 2 : 1
}

/** Takes off what binary fractions add, so that 25 s does not become 26. */
function tidy(seconds: number): number {
  return Math.round(seconds * 1000) / 1000
}
