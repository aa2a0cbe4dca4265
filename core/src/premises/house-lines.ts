import type { Room } from '../job/records.ts'
import { roomKey } from './house.ts'
import { namesDevice, namesOpening } from './opening-names.ts'

/* One line of the house in words, taken apart. */

/** What a room's name tells of it, where nothing else is said. */
export const guesses: readonly (readonly [RegExp, Partial<Room>])[] = [
  [/kitchen/i, { kind: 'kitchen' }],
  [/bedroom|nursery|guest/i, { kind: 'bedroom', sleeps: true }],
  [/bath|toilet|shower/i, { kind: 'bathroom' }],
  [/utility|laundry|boiler|pantry/i, { kind: 'utility' }],
  [/garage|carport/i, { kind: 'garage', heated: false }],
  [/workshop|studio/i, { kind: 'workshop' }],
  [/store|shed|barn|loft/i, { kind: 'store', heated: false }],
  [/yard|garden|drive|terrace/i, { kind: 'outdoors', heated: false }],
  [/hall|porch|landing|passage|stair|corridor|gallery|lobby/i, { kind: 'hall' }],
]

/** Further words by which a line without a colon is known to be a room. */
const roomWords =
  /\b(\w*rooms?|lounge|parlour|study|office|library|den|snug|attic|cellar|basement|annexe?|conservatory|closet|cloaks|larder|scullery|greenhouse|extension|suite|sauna|spa|gym|bar|wc|cabin|flat|living|dining|utility)\b/i

/** Between two facts: a comma, unless it is one within a number such as 7,5. */
const between = /(?<!\d),|,(?!\d)/

/** What a line says, or why it is not understood. */
export type LineParts =
  /** `bare`: a name that is a room's if another line says so; null where no line can. */
  | { readonly what: 'unknown'; readonly says: string; readonly bare: string | null }
  | { readonly what: 'room'; readonly name: string; readonly facts: readonly string[] }
  | {
      readonly what: 'way'
      readonly from: string
      readonly to: string
      readonly metres: number
      readonly stairs: boolean
    }
  | {
      readonly what: 'opening'
      readonly name: string
      readonly room: string
      readonly to: string | null
      readonly facts: readonly string[]
    }

/** Takes a line apart; what could mean something else is not understood, with the nearest that is. */
export function parseLine(text: string): LineParts {
  const way = parseWay(text)
  if (way) return way
  const colon = text.indexOf(':')
  const head = (colon < 0 ? text : text.slice(0, colon)).trim()
  const facts = (colon < 0 ? '' : text.slice(colon + 1))
    .split(between)
    .map((fact) => fact.trim())
    .filter(Boolean)
  const inner = /^(.+?)\s+between\s+(.+?)\s+and\s+(.+)$/i.exec(head)
  if (inner) return { what: 'opening', name: inner[1] ?? '', room: inner[2] ?? '', to: inner[3] ?? '', facts }
  const outer = /^(.+?)\s+in\s+(.+)$/i.exec(head)
  const described = colon >= 0
  return outer
    ? outerOpening({ name: outer[1] ?? '', room: outer[2] ?? '', facts }, described)
    : roomLine(head, facts, described)
}

/** With a use said behind a colon it is an opening, whatever it is called: so the house is written out. */
function outerOpening(
  { name, room, facts }: { readonly name: string; readonly room: string; readonly facts: readonly string[] },
  described: boolean,
): LineParts {
  if (namesDevice(name) || (!described && !namesOpening(name)))
    return { what: 'unknown', says: noOpening(name, room), bare: null }
  return { what: 'opening', name, room, to: null, facts }
}

/** A name with a colon is a room, whatever it is called. */
function roomLine(name: string, facts: readonly string[], described: boolean): LineParts {
  if (!described && namesDevice(name))
    return { what: 'unknown', says: `${quoted(name)} is a device: add it in the kit`, bare: null }
  if (!described && !isRoomName(name)) return { what: 'unknown', says: noRoomLine(name), bare: name }
  return { what: 'room', name, facts }
}

function parseWay(text: string): LineParts | null {
  const way = /^(.+?)\s+[-–—]\s+(.+?)\s+(\d{1,4}(?:[.,]\d{1,2})?)\s*m?(?:,?\s*(stairs))?$/i.exec(text)
  if (!way) return null
  return {
    what: 'way',
    from: way[1] ?? '',
    to: way[2] ?? '',
    metres: Number((way[3] ?? '').replace(',', '.')),
    stairs: way[4] !== undefined,
  }
}

/** Whether a line without a colon can only be a room: its name says so. */
function isRoomName(name: string): boolean {
  return roomWords.test(name) || guesses.some(([pattern]) => pattern.test(name))
}

function noOpening(name: string, room: string): string {
  return namesDevice(name)
    ? `${quoted(name)} is a device: add it in the kit, with ${quoted(room)} as its room`
    : `${quoted(name)} is not known as a door or window; write “${name} door in ${room}”, or the walk as “${room} - … 4”`
}

/** The form that is nearest to a line that was not understood. */
function noRoomLine(text: string): string {
  const metres = /\d/.exec(text)
  if (metres) return `${quoted(text)} is not understood; a walk of 4 m is written “Hall - Kitchen 4”`
  if (namesOpening(text)) return `${quoted(text)} names no room; write “${text} in Hall”`
  return `${quoted(text)} is not understood; for a room of that name write “${text}:” with a colon`
}

function quoted(text: string): string {
  return `“${text}”`
}

/** Lines of a name alone count as rooms where another line, or the house so far, names such a room. */
export function withBareRooms(lines: readonly LineParts[], known: readonly string[]): readonly LineParts[] {
  const named = new Set(
    [
      ...known,
      ...lines.flatMap((line) => {
        if (line.what === 'way') return [line.from, line.to]
        return line.what === 'opening' ? [line.room, line.to ?? line.room] : []
      }),
    ].map(roomKey),
  )
  return lines.map((line) =>
    line.what === 'unknown' && line.bare !== null && named.has(roomKey(line.bare))
      ? { what: 'room', name: line.bare, facts: [] }
      : line,
  )
}
