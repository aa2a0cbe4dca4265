import { distance } from 'fastest-levenshtein'
import { lowerFirst } from '../units/words.ts'
import { fieldProblems, recordProblems } from '../job/edit.ts'
import { nextOrder, recordsOf, type JobDocument } from '../job/document.ts'
import type { Op } from '../job/edit.ts'
import {
  roomKinds,
  type Opening,
  type OpeningUse,
  type Room,
  type RoomKind,
  type Way,
} from '../job/records.ts'
import type { System } from '../system/system.ts'
import { roomKey } from './house.ts'
import { guesses, parseLine, withBareRooms, type LineParts } from './house-lines.ts'
import { isWindowLike } from './opening-names.ts'

/*
 * The house in words: a line for a room, a way or an opening, quick to type and to read back.
 *
 *   Kitchen: floor Ground, pet 18        a room with what is known of it
 *   Hall - Kitchen 4                     the walk between two rooms in metres; `stairs` where there are some
 *   Front door in Porch: every day       an opening outside; `not in stay`, `now and then`, `never`: how often people come in by it
 *   Glass door between Hall and Studio   an inner one
 *
 * What is not understood is refused with the nearest that is: nothing is guessed from a line that may mean something else.
 */

/** One line as it was understood, or what is wrong with it. */
interface HouseLine {
  readonly line: number
  readonly text: string
  readonly ok: boolean
  /** Read back in whole words; or the fault, with what is allowed. */
  readonly says: string
  /** Whether it changes anything. */
  readonly changes: boolean
}

/** What a description in words gave. */
export interface HouseReading {
  readonly lines: readonly HouseLine[]
  /** What the good lines would change. */
  readonly ops: readonly Op[]
}

/** Longest description that is read, in characters. */
export const HOUSE_LIMIT = 40_000

const useWords: Readonly<Record<string, OpeningUse>> = {
  'every day': 'everyday',
  everyday: 'everyday',
  daily: 'everyday',
  'now and then': 'occasional',
  occasional: 'occasional',
  sometimes: 'occasional',
  never: 'never',
  'people come in every day': 'everyday',
  'people come in now and then': 'occasional',
  'nobody comes in': 'never',
}
/** Words of a use that say outright that people come in: asked of a window, where `every day` may only mean that it is opened. */
const outright = /^(people|nobody) comes? in/
const shownUse: Readonly<Record<OpeningUse, string>> = {
  everyday: 'every day',
  occasional: 'now and then',
  never: 'never',
}

/** Reads a description; lines that are already so change nothing. `newId` gives the unique part of new record ids. */
export function readHouse(text: string, doc: JobDocument, newId: () => string): HouseReading {
  const reader = new Reader(doc, newId)
  if (text.length > HOUSE_LIMIT)
    return {
      lines: [
        {
          line: 1,
          text: '',
          ok: false,
          says: `This is longer than the ${HOUSE_LIMIT} characters read here: split it.`,
          changes: false,
        },
      ],
      ops: [],
    }
  const rows = text.split(/\r?\n/).map((row, index) => ({ line: index + 1, text: row.trim() }))
  const filled = rows.filter((row) => row.text !== '')
  // Rooms first, so that ways and openings may stand before the rooms they name.
  const known = recordsOf(doc, 'room').map((room) => room.name)
  const taken = withBareRooms(
    filled.map((row) => parseLine(row.text)),
    known,
  )
  const parsed = filled.flatMap((row, index) => {
    const parts = taken[index]
    return parts ? [{ ...row, parts }] : []
  })
  const lines = new Map<number, HouseLine>()
  for (const pass of ['unknown', 'room', 'way', 'opening'] as const)
    for (const row of parsed)
      if (row.parts.what === pass) lines.set(row.line, { ...row, ...reader.take(row.parts) })
  return { lines: parsed.flatMap((row) => lines.get(row.line) ?? []), ops: reader.ops }
}

/** The described house as such lines: reading them back changes nothing. */
export function writeHouse(doc: JobDocument): string {
  const rooms = recordsOf(doc, 'room')
  const name = (id: string | null): string => rooms.find((room) => room.id === id)?.name ?? ''
  return [
    ...rooms.map((room) => `${room.name}: ${roomFacts(room).join(', ')}`),
    ...recordsOf(doc, 'way').map(
      (way) => `${name(way.from)} - ${name(way.to)} ${way.metres}${way.stairs ? ' stairs' : ''}`,
    ),
    ...recordsOf(doc, 'opening').map((opening) =>
      opening.to === null
        ? `${opening.name} in ${name(opening.room)}: ${writtenUse(opening)}${opening.inStay ? '' : ', not in stay'}`
        : `${opening.name} between ${name(opening.room)} and ${name(opening.to)}`,
    ),
  ].join('\n')
}

/** Lines for the rooms and openings that the kit names and nobody has described yet. */
export function houseFromKit(doc: JobDocument, system: System): string {
  const known = new Set(recordsOf(doc, 'room').map((room) => roomKey(room.name)))
  const names = new Map<string, string>()
  for (const { device } of system.devices)
    if (device.room !== '' && !known.has(roomKey(device.room)))
      names.set(roomKey(device.room), names.get(roomKey(device.room)) ?? device.room)
  const openings = system.devices.flatMap(({ device, model }) => {
    if (model.class !== 'contact' || device.room === '' || device.position === '') return []
    const use = device.use === 'opening' || isWindowLike(device.position) ? 'never' : 'every day'
    const stay = device.use === 'entry-not-in-stay' ? ', not in stay' : ''
    return [`${device.position} in ${device.room}: ${use}${stay}`]
  })
  const there = new Set(
    recordsOf(doc, 'opening').map((opening) => {
      const room = recordsOf(doc, 'room').find((item) => item.id === opening.room)
      return `${roomKey(opening.name)} in ${roomKey(room?.name ?? '')}`
    }),
  )
  return [
    ...[...names.values()].map((name) => `${name}:`),
    ...openings.filter((line) => !there.has(roomKey(line.split(':')[0] ?? ''))),
  ].join('\n')
}

/** Of a window it is said outright whether people come in, so that reading it back asks nothing. */
function writtenUse({ name, use }: Opening): string {
  return isWindowLike(name) && use !== 'never' ? `people come in ${shownUse[use]}` : shownUse[use]
}

type Taken = Pick<HouseLine, 'ok' | 'says' | 'changes'>

/** Takes lines in one after the other, each on top of those before. */
class Reader {
  readonly ops: Op[] = []
  readonly #rooms: Room[]
  readonly #ways: Way[]
  readonly #openings: Opening[]
  readonly #areas: ReadonlyMap<string, string>
  #order: Readonly<Record<'room' | 'way' | 'opening', number>>
  readonly #newId: () => string

  constructor(doc: JobDocument, newId: () => string) {
    this.#rooms = [...recordsOf(doc, 'room')]
    this.#ways = [...recordsOf(doc, 'way')]
    this.#openings = [...recordsOf(doc, 'opening')]
    this.#areas = new Map(recordsOf(doc, 'area').map((area) => [roomKey(area.name), area.id]))
    this.#order = {
      room: nextOrder(doc, 'room'),
      way: nextOrder(doc, 'way'),
      opening: nextOrder(doc, 'opening'),
    }
    this.#newId = newId
  }

  take(parts: LineParts): Taken {
    switch (parts.what) {
      case 'unknown':
        return fault(parts.says)
      case 'room':
        return this.#takeRoom(parts)
      case 'way':
        return this.#takeWay(parts)
      case 'opening':
        return this.#takeOpening(parts)
    }
  }

  #takeRoom(parts: Extract<LineParts, { what: 'room' }>): Taken {
    const said: Partial<Room> = {}
    for (const fact of parts.facts) {
      const wrong = this.#roomFact(fact, said)
      if (wrong) return fault(wrong)
    }
    const there = this.#rooms.find((room) => roomKey(room.name) === roomKey(parts.name))
    const room: Room = there
      ? { ...there, ...said }
      : {
          id: `room:${this.#newId()}`,
          type: 'room',
          name: parts.name,
          floor: '',
          kind: 'other',
          heated: true,
          sleeps: false,
          petKg: null,
          hottestC: null,
          metal: false,
          compartment: '',
          area: null,
          ...guesses.find(([pattern]) => pattern.test(parts.name))?.[1],
          ...said,
          order: this.#next('room'),
        }
    const changes = this.#put(this.#rooms, there, room)
    if (typeof changes === 'string') return fault(changes)
    return { ok: true, changes, says: `${room.name}, a room: ${roomFacts(room).join(', ')}` }
  }

  /** Adds what one fact says of a room; gives what is wrong with it, or null. */
  // eslint-disable-next-line complexity -- one branch per word that may be said of a room
  #roomFact(fact: string, said: { -readonly [K in keyof Room]?: Room[K] }): string | null {
    const word = fact.toLowerCase()
    const pet = /^pets?(?:\s+(?:of\s+)?(\d{1,3}(?:[.,]\d)?)\s*(?:kg)?)?$/.exec(word)
    const hot = /^hot:?\s+(?:up\s+)?to\s+(\d{1,3})\s*(?:°?\s*c)?$/.exec(word)
    const floor = /^floor\s+(.+)$/i.exec(fact)
    const area = /^area\s+(.+)$/i.exec(fact)
    const compartment = /^compartment\s+(.+)$/i.exec(fact)
    if ((roomKinds as readonly string[]).includes(word)) said.kind = word as RoomKind
    else if (word === 'heated' || word === 'unheated') said.heated = word === 'heated'
    else if (word === 'sleeps' || word === 'people sleep') said.sleeps = true
    else if (word === 'nobody sleeps') said.sleeps = false
    else if (word === 'metal') said.metal = true
    else if (word === 'no metal') said.metal = false
    else if (word === 'no pet') said.petKg = null
    else if (word === 'not hot') said.hottestC = null
    else if (hot) said.hottestC = Number(hot[1])
    else if (pet) {
      if (pet[1] === undefined) return '“pet” needs a weight, such as pet 18'
      said.petKg = Number(pet[1].replace(',', '.'))
    } else if (floor) said.floor = (floor[1] ?? '').trim()
    else if (compartment) said.compartment = (compartment[1] ?? '').trim()
    else if (area) {
      const id = this.#areas.get(roomKey(area[1] ?? ''))
      if (!id) return `there is no area “${area[1]}”; the job has ${[...this.#areas.keys()].join(', ')}`
      said.area = id
    } else
      return `“${fact}” is not known of a room; ${didYouMean(fact, roomFactWords)}write ${roomKinds.join(', ')}, unheated, hot: up to 60, sleeps, pet 18, metal, floor Upper, compartment North or area Annexe`
    return null
  }

  #takeWay(parts: Extract<LineParts, { what: 'way' }>): Taken {
    const from = this.#room(parts.from)
    const to = this.#room(parts.to)
    if (!from || !to) return fault(this.#noRoom(from ? parts.to : parts.from))
    if (from.id === to.id) return fault('a way leads from one room to another')
    const there = this.#ways.find(
      (way) => (way.from === from.id && way.to === to.id) || (way.from === to.id && way.to === from.id),
    )
    const { metres, stairs } = parts
    const way: Way = there
      ? { ...there, metres, stairs }
      : {
          id: `way:${this.#newId()}`,
          type: 'way',
          from: from.id,
          to: to.id,
          metres,
          stairs,
          order: this.#next('way'),
        }
    const changes = this.#put(this.#ways, there, way)
    if (typeof changes === 'string') return fault(changes)
    return {
      ok: true,
      changes,
      says: `${from.name} to ${to.name}, ${metres} m${stairs ? ' of stairs' : ''}`,
    }
  }

  #takeOpening(parts: Extract<LineParts, { what: 'opening' }>): Taken {
    const room = this.#room(parts.room)
    const to = parts.to === null ? null : this.#room(parts.to)
    if (!room) return fault(this.#noRoom(parts.room))
    if (parts.to !== null && !to) return fault(this.#noRoom(parts.to))
    const said = openingFacts(parts)
    if (typeof said === 'string') return fault(said)
    const there = this.#openings.find(
      (item) =>
        roomKey(item.name) === roomKey(parts.name) && item.room === room.id && item.to === (to?.id ?? null),
    )
    const opening: Opening = there
      ? { ...there, ...said }
      : {
          id: `opening:${this.#newId()}`,
          type: 'opening',
          name: parts.name,
          room: room.id,
          to: to?.id ?? null,
          use: isWindowLike(parts.name) ? 'never' : 'everyday',
          inStay: true,
          ...said,
          order: this.#next('opening'),
        }
    const changes = this.#put(this.#openings, there, opening)
    if (typeof changes === 'string') return fault(changes)
    const where = to ? `between ${room.name} and ${to.name}` : `in ${room.name}`
    const use = to
      ? 'an inner door'
      : opening.use === 'never'
        ? 'nobody comes in by it'
        : `people come in ${shownUse[opening.use]}${opening.inStay ? '' : ', not once the house is in stay'}`
    return { ok: true, changes, says: `${opening.name} ${where}: ${use}` }
  }

  #room(name: string): Room | null {
    return this.#rooms.find((room) => roomKey(room.name) === roomKey(name)) ?? null
  }

  #noRoom(name: string): string {
    const near = nearest(
      name,
      this.#rooms.map((room) => room.name),
    )
    return `there is no room “${name}” yet; write ${near === null ? '' : `“${near}”, or `}a line “${name}:” for it`
  }

  #next(type: 'room' | 'way' | 'opening'): number {
    const order = this.#order[type]
    this.#order = { ...this.#order, [type]: order + 1 }
    return order
  }

  /** Keeps a new or changed record; true when that changes anything, or what is wrong with it. */
  #put<T extends Room | Way | Opening>(list: T[], there: T | undefined, record: T): boolean | string {
    if (!there) {
      const problem = recordProblems(record)[0]
      if (problem) return `${problem.path.replace(/^\./, '')} ${problem.message}`
      list.push(record)
      this.ops.push({ op: 'add', record })
      return true
    }
    const fields = (Object.keys(record) as (keyof T & string)[]).filter(
      (field) => record[field] !== there[field],
    )
    for (const field of fields) {
      const problem = fieldProblems({ type: record.type, field }, record[field])[0]
      if (problem) return `${problem.path} ${problem.message}`
    }
    list[list.indexOf(there)] = record
    for (const field of fields)
      this.ops.push({ op: 'set', id: record.id, field, from: there[field], to: record[field] })
    return fields.length > 0
  }
}

function openingFacts({
  name,
  to,
  facts,
}: Extract<LineParts, { what: 'opening' }>): Partial<Opening> | string {
  const said: { use?: OpeningUse; inStay?: boolean } = {}
  for (const fact of facts) {
    const word = fact.toLowerCase().replaceAll(/\s+/g, ' ')
    const use = useWords[word]
    if (use && use !== 'never' && to === null && isWindowLike(name) && !outright.test(word))
      return `do people come in by the ${lowerFirst(name)}, or is it only opened? Write “people come in ${shownUse[use]}” (it then starts an entry delay), or “never”`
    if (use) said.use = use
    else if (word === 'not in stay') said.inStay = false
    else if (word === 'also in stay') said.inStay = true
    else
      return `“${fact}” is not known of an opening; ${didYouMean(fact, openingFactWords)}write every day, now and then, never, not in stay`
  }
  return said
}

/** A room's facts as they are written; `other` only says that nothing is known. */
function roomFacts(room: Room): string[] {
  return [
    room.kind,
    ...(room.floor === '' ? [] : [`floor ${room.floor}`]),
    room.heated ? 'heated' : 'unheated',
    ...(room.hottestC === null ? [] : [`hot: up to ${room.hottestC}`]),
    ...(room.sleeps ? ['sleeps'] : []),
    ...(room.petKg === null ? [] : [`pet ${room.petKg}`]),
    ...(room.metal ? ['metal'] : []),
    ...(room.compartment === '' ? [] : [`compartment ${room.compartment}`]),
  ]
}

const openingFactWords = [...Object.keys(useWords), 'not in stay', 'also in stay']
const roomFactWords = [
  ...roomKinds,
  'heated',
  'unheated',
  'sleeps',
  'nobody sleeps',
  'metal',
  'no metal',
  'no pet',
]

function didYouMean(word: string, known: readonly string[]): string {
  const near = nearest(word, known)
  return near === null ? '' : `did you mean “${near}”? Else `
}

/** The known word that a mistyped one is nearest to; null where none is near. */
function nearest(word: string, known: readonly string[]): string | null {
  const typed = roomKey(word)
  const [first] = known
    .map((one) => ({ one, far: distance(typed, roomKey(one)) }))
    .filter(({ one, far }) => far <= Math.max(1, Math.floor(one.length / 4)))
    .sort((a, b) => a.far - b.far)
  return first?.one ?? null
}

function fault(says: string): Taken {
  return { ok: false, says, changes: false }
}
