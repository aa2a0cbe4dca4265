import type { System } from '../system/system.ts'
import type { Figures } from '../house-rules/house-rules.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { Keeper } from '../units/keep.ts'
import { isInService } from '../job/in-service.ts'
import { servedAreas } from './served-areas.ts'
import type { Device, JobInfo, Opening, Room, Way } from '../job/records.ts'

/** A walk through the house, by the quickest way. */
export interface Walk {
  /** Metres on the level and on stairs. */
  readonly metres: number
  readonly stairMetres: number
  readonly seconds: number
  /** Rooms passed, first and last included. */
  readonly rooms: readonly Room[]
}

/** A keypad in a described room. */
interface Keypad {
  readonly device: Device
  readonly name: string
  readonly room: Room
  /** Areas that it sets and unsets; null for all. */
  readonly areas: ReadonlySet<string> | null
}

/** The premises in words, looked up. */
export interface House {
  readonly rooms: readonly Room[]
  readonly ways: readonly Way[]
  readonly openings: readonly Opening[]
  /** Openings that people come in by: they lead outside, and are used. */
  readonly doors: readonly Opening[]
  /** Keypads whose room is described. */
  readonly keypads: readonly Keypad[]
  /** Keypads in no described room. */
  readonly lostKeypads: readonly Device[]
  /** The room of a name, however it is written; null when it is not described. */
  readonly room: (name: string) => Room | null
  /** The area that a room belongs to: its own, else the first; null where the job has none. */
  readonly areaOf: (room: string) => string | null
  /** The quickest walk between two rooms at the pace of the job's slowest person; null when no way joins them. */
  readonly walk: (from: string, to: string) => Walk | null
}

/** Names are alike however they are spaced and capitalised. */
export function roomKey(name: string): string {
  return name.trim().replace(/\s+/g, ' ').toLowerCase()
}

/** What an opening is called among the others: with its room where two have the same name. */
export function openingName(opening: Opening, house: Pick<House, 'openings' | 'rooms'>): string {
  const alike = house.openings.some(
    (other) => other.id !== opening.id && roomKey(other.name) === roomKey(opening.name),
  )
  const room = house.rooms.find((item) => item.id === opening.room)
  return alike && room ? `${room.name} ${opening.name.toLowerCase()}` : opening.name
}

/** Walking pace of the job's slowest person, m/s: as it was timed, else the figure of the house rules. */
export function paceOf(info: Pick<JobInfo, 'pace' | 'slowest'>, figures: Figures): number {
  if (info.pace !== null) return info.pace
  return info.slowest === 'slow' ? figures.paceSlow : figures.paceOrdinary
}

const keeper = new Keeper<House>()

/** The house of a job; as long as its records and keypads are the same objects it is the same answer object. */
export function houseOf(doc: JobDocument, system: System, figures: Figures): House {
  const rooms = recordsOf(doc, 'room')
  const keypads = system.devices
    .filter(({ model, device }) => model.class === 'keypad' && isInService(device))
    .map(({ device }) => device)
  const from = [
    figures,
    system.info.slowest,
    system.info.pace,
    ...rooms,
    ...recordsOf(doc, 'way'),
    ...recordsOf(doc, 'opening'),
    ...keypads,
    ...recordsOf(doc, 'area'),
    ...recordsOf(doc, 'serves'),
    system.panel ?? doc,
  ]
  return keeper.get(rooms[0] ?? doc, from, () => buildHouse(doc, system, figures))
}

function buildHouse(doc: JobDocument, system: System, figures: Figures): House {
  const rooms = recordsOf(doc, 'room')
  const ways = recordsOf(doc, 'way')
  const openings = recordsOf(doc, 'opening')
  const byName = new Map(rooms.map((room) => [roomKey(room.name), room]))
  const room = (name: string): Room | null => byName.get(roomKey(name)) ?? null
  const keypads = system.devices.filter(
    ({ model, device }) => model.class === 'keypad' && isInService(device),
  )
  const placed = keypads.flatMap(({ device, model }) => {
    const at = room(device.room)
    return at ? [{ device, name: model.name, room: at, areas: servedAreas(doc, system.panel, device) }] : []
  })
  const first = recordsOf(doc, 'area')[0]?.id ?? null
  const areas = new Map(rooms.map((item) => [item.id, item.area ?? first]))
  const walks = new Map<string, ReadonlyMap<string, Walk>>()
  const pace = paceOf(system.info, figures)
  return {
    rooms,
    ways,
    openings,
    doors: openings.filter((opening) => opening.to === null && opening.use !== 'never'),
    keypads: placed,
    lostKeypads: keypads.filter(({ device }) => !room(device.room)).map(({ device }) => device),
    room,
    areaOf: (id) => areas.get(id) ?? first,
    walk(from, to) {
      let found = walks.get(from)
      if (!found) {
        found = walksFrom(from, { rooms, ways, pace, stairs: figures.stairs })
        walks.set(from, found)
      }
      return found.get(to) ?? null
    },
  }
}

interface Terrain {
  readonly rooms: readonly Room[]
  readonly ways: readonly Way[]
  readonly pace: number
  readonly stairs: number
}

/** Dijkstra's shortest ways in seconds from one room to every other; houses have some dozens of rooms. */
function walksFrom(start: string, { rooms, ways, pace, stairs }: Terrain): ReadonlyMap<string, Walk> {
  const byId = new Map(rooms.map((room) => [room.id, room]))
  const first = byId.get(start)
  const done = new Map<string, Walk>()
  if (!first) return done
  const open = new Map<string, Walk>([[start, { metres: 0, stairMetres: 0, seconds: 0, rooms: [first] }]])
  while (open.size > 0) {
    const [id, walk] = [...open].reduce((best, item) => (item[1].seconds < best[1].seconds ? item : best))
    open.delete(id)
    done.set(id, walk)
    for (const way of ways) {
      const next = way.from === id ? way.to : way.to === id ? way.from : null
      const room = next === null ? undefined : byId.get(next)
      if (!room || done.has(room.id)) continue
      const longer = extend(walk, { way, room }, { pace, stairs })
      const known = open.get(room.id)
      if (!known || longer.seconds < known.seconds) open.set(room.id, longer)
    }
  }
  return done
}

interface Step {
  readonly way: Way
  readonly room: Room
}

function extend(walk: Walk, { way, room }: Step, { pace, stairs }: Pick<Terrain, 'pace' | 'stairs'>): Walk {
  return {
    metres: walk.metres + (way.stairs ? 0 : way.metres),
    stairMetres: walk.stairMetres + (way.stairs ? way.metres : 0),
    seconds: walk.seconds + way.metres / (way.stairs ? pace * stairs : pace),
    rooms: [...walk.rooms, room],
  }
}
