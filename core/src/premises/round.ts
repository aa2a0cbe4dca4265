import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Room } from '../job/records.ts'
import type { System } from '../system/system.ts'
import { Keeper } from '../units/keep.ts'
import { shortestOrder } from '../units/order.ts'
import { houseOf, roomKey, type House } from './house.ts'

/** Compares two room names by a round; rooms that are not described come behind, by name, and what has no room last. */
export type Round = (a: string, b: string) => number

/** What a room that no way leads to counts, s: more than any walk through a house. */
const APART = 3600
const keeper = new Keeper<ReadonlyMap<string, number>>()

/**
 * The shortest round through the rooms of these names: from the door by which one comes in, through all of them, each once. It
 * ends where it ends: the way back is the same for whoever carries on elsewhere. `otherwise` orders rooms that are not described.
 */
export function roundOf(
  { doc, system }: { readonly doc: JobDocument; readonly system: System },
  names: Iterable<string>,
  otherwise: Round = (a, b) => (a < b ? -1 : 1),
): Round {
  // Which way is the shorter hangs on how much longer stairs take, not on who walks.
  const asked = [...new Set([...names].map(roomKey))].sort()
  const rooms = recordsOf(doc, 'room')
  const from = [...rooms, ...recordsOf(doc, 'way'), ...recordsOf(doc, 'opening'), asked.join('\n')]
  // The house itself is kept by the firm's figures: asking for another each time would make both anew each time.
  const rank = keeper.get(rooms[0] ?? system.devices, from, () =>
    rankRooms(houseOf(doc, system, defaultHouseRules.figures), asked),
  )
  return (a, b) => {
    const [at, other] = [rank.get(roomKey(a)) ?? Infinity, rank.get(roomKey(b)) ?? Infinity]
    if (at !== other) return at - other
    if (a === b || at < Infinity) return 0
    if (a === '') return 1
    return b === '' ? -1 : otherwise(a, b)
  }
}

/** The described rooms of these names, each with its place in the round, from 0. */
function rankRooms(house: House, asked: readonly string[]): ReadonlyMap<string, number> {
  const rooms = asked.flatMap((name) => house.room(name) ?? [])
  const start = startOf(house)
  const seconds = (from: Room | undefined, to: Room | undefined): number =>
    from && to ? (house.walk(from.id, to.id)?.seconds ?? APART) : APART
  const order = shortestOrder({
    count: rooms.length,
    first: (stop) => seconds(start, rooms[stop]),
    between: (from, to) => seconds(rooms[from], rooms[to]),
    last: () => 0,
    before: [],
  })
  const round = asPassed(
    house,
    start,
    order.flatMap((stop) => rooms[stop] ?? []),
  )
  return new Map(round.map((room, index) => [roomKey(room.name), index]))
}

/** The same round, with each room done when one first comes through it: that is no longer, and nobody passes it by. */
function asPassed(house: House, start: Room | undefined, order: readonly Room[]): readonly Room[] {
  const round: Room[] = []
  let at = start
  for (const room of order) {
    if (round.includes(room)) continue
    const passed = (at && house.walk(at.id, room.id)?.rooms) ?? []
    round.push(...passed.filter((one) => one !== room && order.includes(one) && !round.includes(one)), room)
    at = room
  }
  return round
}

/** Where one comes in: the door of every day, else any that is used, else the first room. */
function startOf({ doors, rooms }: House): Room | undefined {
  const door = doors.find(({ use }) => use === 'everyday') ?? doors[0]
  return rooms.find(({ id }) => id === door?.room) ?? rooms[0]
}
