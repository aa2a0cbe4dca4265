import type { Room, Way } from '../job/records.ts'
import type { House } from './house.ts'

/*
 * The house as boxes on a grid, from its words alone: a floor each, rooms beside those that a way joins them with. It is a picture
 * of who is next to whom and no plan: nothing in it has a length.
 */

/** A room's box: whole cells of its floor's grid, a cell high. */
export interface RoomBox {
  readonly room: Room
  readonly x: number
  readonly y: number
  /** Cells across: rooms that many ways leave have more sides. */
  readonly width: number
}

/** A way between two boxes that touch. */
interface Gate {
  readonly way: Way
  /** The cell that it leaves, and whether it leads to the right of it or down. */
  readonly x: number
  readonly y: number
  readonly across: boolean
}

/** A floor of the house. */
export interface Floor {
  /** As said of its rooms; empty where nobody said. */
  readonly name: string
  readonly columns: number
  readonly rows: number
  readonly boxes: readonly RoomBox[]
  readonly gates: readonly Gate[]
}

/** The house laid out, highest floor first. */
export interface HouseLayout {
  readonly floors: readonly Floor[]
  /** Ways that no gate shows, stairs and such between rooms that do not touch, by the room at either end. */
  readonly links: ReadonlyMap<string, readonly Link[]>
}

/** A way from a room, and where it leads. */
export interface Link {
  readonly way: Way
  readonly to: Room
}

/** Most cells across: what a screen of 1280 px shows with words in them. */
const ACROSS = 5

/** Lays the rooms out; the same words give the same picture. */
export function layHouse({ rooms, ways }: Pick<House, 'rooms' | 'ways'>): HouseLayout {
  const byId = new Map(rooms.map((room) => [room.id, room]))
  const known = ways.filter((way) => way.from !== way.to && byId.has(way.from) && byId.has(way.to))
  const floors = levelsOf(rooms, known).map(({ name, rooms: mine }) => {
    const ids = new Set(mine.map((room) => room.id))
    const level = known.filter((way) => !way.stairs && ids.has(way.from) && ids.has(way.to))
    return layFloor(name, mine, level)
  })
  const gated = new Set(floors.flatMap((floor) => floor.gates.map((gate) => gate.way.id)))
  const links = new Map<string, Link[]>()
  for (const way of known.filter(({ id }) => !gated.has(id)))
    for (const [end, other] of [
      [way.from, way.to],
      [way.to, way.from],
    ] as const) {
      const to = byId.get(other)
      if (to) links.set(end, [...(links.get(end) ?? []), { way, to }])
    }
  return { floors, links }
}

interface Level {
  readonly name: string
  readonly rooms: readonly Room[]
}

/**
 * Rooms by floor. Where a room's floor was not said it is that of the rooms that it is joined with on the level; rooms that are
 * joined with none of a named floor are together, but for those that only stairs lead to.
 */
function levelsOf(rooms: readonly Room[], ways: readonly Way[]): Level[] {
  const groups = groupsOf(
    rooms,
    ways.filter((way) => !way.stairs),
  )
  const stairs = ways.filter((way) => way.stairs)
  const levels = new Map<string, { name: string; rooms: Room[] }>()
  const put = (key: string, name: string, room: Room) => {
    const level = levels.get(key) ?? { name, rooms: [] }
    level.rooms.push(room)
    levels.set(key, level)
  }
  for (const group of groups) {
    const said = group.find((room) => room.floor.trim() !== '')?.floor.trim() ?? ''
    const ids = new Set(group.map((room) => room.id))
    const apart = said === '' && stairs.some((way) => ids.has(way.from) !== ids.has(way.to))
    for (const room of group) {
      const name = room.floor.trim() || said
      put(name === '' && apart ? `apart ${group[0]?.id ?? ''}` : name.toLowerCase(), name, room)
    }
  }
  const order = new Map(rooms.map((room, index) => [room.id, index]))
  return [...levels.values()]
    .map(({ name, rooms: mine }) => ({
      name,
      rooms: mine.sort((a, b) => (order.get(a.id) ?? 0) - (order.get(b.id) ?? 0)),
    }))
    .sort((a, b) => heightOf(b) - heightOf(a))
}

/** Rooms that ways join, however many lie between. */
function groupsOf(rooms: readonly Room[], ways: readonly Way[]): Room[][] {
  const left = new Map(rooms.map((room) => [room.id, room]))
  return rooms.flatMap((first) => {
    if (!left.delete(first.id)) return []
    const group = [first]
    for (const room of group)
      for (const way of ways) {
        const next = left.get(way.from === room.id ? way.to : way.to === room.id ? way.from : '')
        if (next && left.delete(next.id)) group.push(next)
      }
    return [group]
  })
}

/** What is above what, by the usual words; a floor that none of them names lies just above the ground. */
const heights: readonly (readonly [RegExp, number])[] = [
  [/attic|loft|roof/i, 90],
  [/basement|cellar|lower/i, -10],
  [/third/i, 30],
  [/second|top/i, 20],
  [/first|upper|upstairs|landing/i, 10],
  [/ground|main|downstairs/i, 0],
]

/** By the floor's name, or its number; where it has none by what its rooms are called. */
function heightOf({ name, rooms }: Level): number {
  const number = /^(?:floor |level )?(-?\d+)/i.exec(name)?.[1]
  if (number !== undefined) return Number(number) * 10
  const words = name === '' ? rooms.map((room) => room.name) : [name]
  const named = heights.find(([word]) => words.some((one) => word.test(one)))
  return named?.[1] ?? (name === '' ? 0 : 5)
}

type Spot = Omit<RoomBox, 'room'>

function layFloor(name: string, rooms: readonly Room[], ways: readonly Way[]): Floor {
  const placed = new Map<string, RoomBox>()
  const taken = new Set<string>()
  const left = new Set(rooms)
  while (left.size > 0) {
    const room = nextRoom(left, placed, ways)
    left.delete(room)
    const spot = bestSpot(room, { placed, taken, ways })
    for (let cell = 0; cell < spot.width; cell++) taken.add(`${spot.x + cell},${spot.y}`)
    placed.set(room.id, { room, ...spot })
  }
  const boxes = [...placed.values()]
  const [x, y] = [Math.min(...boxes.map((box) => box.x)), Math.min(...boxes.map((box) => box.y))]
  const moved = boxes.map((box) => ({ ...box, x: box.x - x, y: box.y - y }))
  const at = new Map(moved.map((box) => [box.room.id, box]))
  return {
    name,
    columns: Math.max(...moved.map((box) => box.x + box.width)),
    rows: Math.max(...moved.map((box) => box.y + 1)),
    boxes: moved.sort((a, b) => a.y - b.y || a.x - b.x),
    gates: ways.flatMap((way) => {
      const [from, to] = [at.get(way.from), at.get(way.to)]
      const gate = from && to && gateOf(from, to)
      return gate ? [{ way, ...gate }] : []
    }),
  }
}

function waysOf(room: Room, ways: readonly Way[]): string[] {
  return ways.flatMap((way) => (way.from === room.id ? [way.to] : way.to === room.id ? [way.from] : []))
}

/** The room with most ways to what stands already; of several the one that most ways leave, then the first said. */
function nextRoom(left: ReadonlySet<Room>, placed: ReadonlyMap<string, RoomBox>, ways: readonly Way[]): Room {
  let best: { room: Room; joins: number; ways: number } | null = null
  for (const room of left) {
    const ends = waysOf(room, ways)
    const joins = ends.filter((end) => placed.has(end)).length
    if (!best || joins > best.joins || (joins === best.joins && ends.length > best.ways))
      best = { room, joins, ways: ends.length }
  }
  if (!best) throw new Error('no room is left to lay')
  return best.room
}

interface Laid {
  readonly placed: ReadonlyMap<string, RoomBox>
  readonly taken: ReadonlySet<string>
  readonly ways: readonly Way[]
}

/** A box of one cell has four sides, each more cell two: so that each way may leave by a side of its own. */
function widthOf(count: number): number {
  return Math.min(Math.max(1, Math.ceil((count - 2) / 2)), ACROSS - 2)
}

/** The free place that touches most rooms which a way leads to, then nearest to the others, then the one that keeps the floor small. */
function bestSpot(room: Room, { placed, taken, ways }: Laid): Spot {
  const ends = waysOf(room, ways)
  const width = widthOf(ends.length)
  const boxes = [...placed.values()]
  if (boxes.length === 0) return { x: 0, y: 0, width }
  const joined = ends.flatMap((end) => placed.get(end) ?? [])
  const [left, right] = [
    Math.min(...boxes.map((box) => box.x)),
    Math.max(...boxes.map((box) => box.x + box.width)),
  ]
  const [top, bottom] = [Math.min(...boxes.map((box) => box.y)), Math.max(...boxes.map((box) => box.y))]
  let best: { spot: Spot; cost: number } | null = null
  for (let y = top - 1; y <= bottom + 1; y++)
    for (let x = right - ACROSS; x <= left + ACROSS - width; x++) {
      const spot = { x, y, width }
      if (!isFree(spot, taken)) continue
      const apart = joined.reduce((sum, box) => sum + (gateOf(spot, box) ? 0 : 4 + distance(spot, box)), 0)
      const wider = Math.max(right, x + width) - Math.min(left, x)
      const higher = Math.max(bottom, y) - Math.min(top, y) + 1
      // A screen is wider than it is high, and words go on to the right and down.
      const cost =
        apart * 100 +
        wider * higher +
        2 * higher +
        (x < left || y < top ? 0.5 : 0) +
        (boxes.some((box) => gateOf(spot, box)) ? 0 : 50)
      if (!best || cost < best.cost) best = { spot, cost }
    }
  // A row of its own below is always free.
  return best?.spot ?? { x: left, y: bottom + 1, width }
}

function isFree({ x, y, width }: Spot, taken: ReadonlySet<string>): boolean {
  return Array.from({ length: width }, (_, cell) => `${x + cell},${y}`).every((cell) => !taken.has(cell))
}

/** How far two boxes lie apart: two steps round a corner are nearer than two in a line. */
function distance(a: Spot, b: Spot): number {
  const across = Math.max(0, a.x - (b.x + b.width - 1), b.x - (a.x + a.width - 1))
  return across ** 2 + (a.y - b.y) ** 2
}

/** Where two boxes touch: side by side, or one above the other in the middle of what they share. Null where they do not. */
function gateOf(a: Spot, b: Spot): Omit<Gate, 'way'> | null {
  if (a.y === b.y) {
    if (a.x + a.width === b.x) return { x: b.x - 1, y: a.y, across: true }
    if (b.x + b.width === a.x) return { x: a.x - 1, y: a.y, across: true }
    return null
  }
  const from = Math.max(a.x, b.x)
  const to = Math.min(a.x + a.width, b.x + b.width)
  if (Math.abs(a.y - b.y) !== 1 || from >= to) return null
  return { x: Math.floor((from + to - 1) / 2), y: Math.min(a.y, b.y), across: false }
}
