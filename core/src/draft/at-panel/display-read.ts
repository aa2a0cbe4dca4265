import type { PanelInterface } from '../../catalogue/schema.ts'
import { pointersOver, type Sketch, type SketchScreen } from './sketch.ts'

/* Which of the displays that were told a panel shows, and which signs of a new one may change. */

/** A display that was told, as a panel shows it. */
export interface Landing {
  readonly screen: string
  readonly pointers: Readonly<Record<string, number>>
  /** The message that covers a line; empty for none. */
  readonly says: string
  /** What is typed and not sent; null where nothing can be told to be. */
  readonly typed: string | null
}

/** Signs of a message line that must stand beside it for the display behind it to be known. */
const LEAST_SIGNS = 3

/** Every display told so far that can show these lines, the likeliest first: without a message, then that with the most signs. */
export function landingsOf(sketch: Sketch, lines: readonly string[]): readonly Landing[] {
  const all = Object.entries(sketch.screens).flatMap(([name, screen]) => {
    const plain = landingOn(sketch, [name, screen], { lines })
    const over = covered(sketch, [name, screen], lines)
    return [...(plain ? [plain] : []), ...(over ? [over] : [])]
  })
  return all
    .toSorted((a, b) => b.signs - a.signs)
    .toSorted((a, b) => Number(a.says !== '') - Number(b.says !== ''))
    .map(({ signs: _signs, ...landing }) => landing)
}

type Named = readonly [name: string, screen: SketchScreen]
type Found = Landing & { readonly signs: number }

function landingOn(
  sketch: Sketch,
  [name, screen]: Named,
  { lines, says = '' }: { readonly lines: readonly string[]; readonly says?: string },
): Found | null {
  const pointers = new Map<string, number>()
  let typed: string | null = null
  let signs = 0
  for (let index = 0; index < sketch.display.lines; index++) {
    const isCovered = says !== '' && index === sketch.display.messages - 1
    if (isCovered) continue
    const [template = '', read = ''] = [screen.lines[index], lines[index]]
    const found = lineRead(sketch, screen, { template, read })
    if (!found || !agree(pointers, found.pointers)) return null
    typed ??= found.typed
    signs += found.signs
  }
  if (says !== '' && signs < LEAST_SIGNS) return null
  beginUnseen(sketch, screen, pointers)
  return { screen: name, pointers: Object.fromEntries(pointers), says, typed, signs }
}

/** What a display depends on without showing it begins at its first number. */
function beginUnseen(sketch: Sketch, screen: SketchScreen, pointers: Map<string, number>): void {
  for (const pointer of pointersOver(sketch, screen))
    if (!pointers.has(pointer)) pointers.set(pointer, sketch.pointers[pointer]?.from ?? 0)
}

/** Takes numbers in; false where one of them is known to be another. */
function agree(known: Map<string, number>, more: Readonly<Record<string, number>>): boolean {
  for (const [name, number] of Object.entries(more)) {
    if ((known.get(name) ?? number) !== number) return false
    known.set(name, number)
  }
  return true
}

/** The same display with a message over one of its lines. */
function covered(sketch: Sketch, named: Named, lines: readonly string[]): Found | null {
  const says = lines[sketch.display.messages - 1]?.trim() ?? ''
  return sketch.display.lines === 1 || says === '' ? null : landingOn(sketch, named, { lines, says })
}

interface LineRead {
  readonly pointers: Readonly<Record<string, number>>
  readonly typed: string | null
  readonly signs: number
}

const TOKEN = /\{([^{}]*(?:\{[^{}]*\}[^{}]*)*)\}/g

/** One line laid against what a display shows there; null where it cannot show that. */
function lineRead(
  sketch: Sketch,
  screen: SketchScreen,
  { template, read }: { readonly template: string; readonly read: string },
): LineRead | null {
  const { columns } = sketch.display
  const pieces = template.split(TOKEN)
  // A line that is full may be cut: then what follows its last gap may be missing.
  const whole = read.trimEnd().length >= columns
  for (let upto = pieces.length; upto > 0; upto -= whole ? 1 : pieces.length) {
    const found = piecesRead(sketch, screen, { pieces: pieces.slice(0, upto), read: read.padEnd(columns) })
    if (found) return found
  }
  return null
}

function piecesRead(
  sketch: Sketch,
  screen: SketchScreen,
  { pieces, read }: { readonly pieces: readonly string[]; readonly read: string },
): LineRead | null {
  const names: string[] = []
  let pattern = ''
  let signs = 0
  for (const [index, piece] of pieces.entries()) {
    if (index % 2 === 0) {
      pattern += escaped(piece)
      signs += piece.replace(/\s/g, '').length
      continue
    }
    names.push(piece)
    pattern += gapPattern(sketch, screen, piece)
    if (sketch.pointers[piece]) signs += 1
  }
  const match = new RegExp(`^${pattern}\\s*$`, 'iu').exec(read)
  if (!match) return null
  const pointers: Record<string, number> = {}
  let typed: string | null = null
  for (const [index, name] of names.entries()) {
    const text = match[index + 1] ?? ''
    const pointer = sketch.pointers[name]
    if (pointer) {
      const number = Number(text)
      if (number < pointer.from || number > pointer.to) return null
      if (pointers[name] !== undefined && pointers[name] !== number) return null
      pointers[name] = number
    } else typed ??= typedIn(sketch.display, name, text)
  }
  return { pointers, typed, signs }
}

function gapPattern(sketch: Sketch, { widget }: SketchScreen, name: string): string {
  const pointer = sketch.pointers[name]
  if (pointer) return pointer.digits === undefined ? '(\\d+)' : `(\\d{${Math.max(pointer.digits, 1)},})`
  if (name === 'typed') return widget?.kind === 'code' ? '(\\**)' : `(.*${escaped(sketch.display.cursor)})`
  return '(.*)'
}

function typedIn({ cursor }: PanelInterface['display'], name: string, text: string): string | null {
  if (name === 'typed' && /^\*+$/.test(text.trim())) return text.trim()
  if (name === 'lit') return text.trim()
  if (!['typed', 'buf', 'raw'].includes(name)) return null
  return text.trimEnd().endsWith(cursor) ? text.trimEnd().slice(0, -cursor.length) : null
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&').replace(/ +/g, '\\s+')
}

/** A run of signs of a line that may be more than text: digits, letters, or others. */
export interface Part {
  readonly line: number
  readonly from: number
  readonly to: number
  readonly text: string
  /** Pointers that could be printed so, those whose number is known to be this one first. */
  readonly pointers: readonly string[]
}

/** The parts of a display that may change, with what each could be. */
export function partsOf(
  sketch: Sketch,
  lines: readonly string[],
  pointers: Readonly<Record<string, number>>,
): readonly Part[] {
  return lines.flatMap((text, line) =>
    [...text.matchAll(/\d+|[^\d\s]+/g)].flatMap((match) =>
      piecesOf(sketch, match[0], pointers).map(({ at, text: piece, of }) => ({
        ...{ line, from: match.index + at, to: match.index + at + piece.length },
        ...{ text: piece, pointers: of },
      })),
    ),
  )
}

interface Piece {
  readonly at: number
  readonly text: string
  readonly of: readonly string[]
}

/** A run of digits, taken apart where the number of a pointer that is known stands in it with others beside it. */
function piecesOf(sketch: Sketch, run: string, pointers: Readonly<Record<string, number>>): readonly Piece[] {
  if (!/^\d/.test(run)) return [{ at: 0, text: run, of: [] }]
  for (const [name, number] of Object.entries(pointers)) {
    const digits = sketch.pointers[name]?.digits
    const printed = String(number).padStart(digits ?? 1, '0')
    const at = run.indexOf(printed, digits === undefined || run.length === digits ? 0 : 1)
    if (digits === undefined || run.length <= digits || at < 0) continue
    return [
      { at: 0, text: run.slice(0, at), of: [] },
      { at, text: printed, of: [name] },
      { at: at + printed.length, text: run.slice(at + printed.length), of: [] },
    ].filter(({ text }) => text !== '')
  }
  const of = Object.entries(sketch.pointers)
    .filter(
      ([, { digits, from, to }]) =>
        Number(run) >= from && Number(run) <= to && (digits === undefined || digits === run.length),
    )
    .map(([name]) => name)
    .toSorted((a, b) => Number(pointers[b] === Number(run)) - Number(pointers[a] === Number(run)))
  return [{ at: 0, text: run, of }]
}

/** What stands at a place of a display instead of text. */
export interface Mark {
  readonly line: number
  /** First sign and the one behind the last; alike where nothing stands there now. */
  readonly from: number
  readonly to: number
  /** The name of a pointer, or `typed`, `buf`, `raw`, `value`, `row`, `lit`, `live`, or an address between two @. */
  readonly is: string
}

/** The lines of a display as a description writes them: what was read, with what may change in braces. */
export function templateOf(lines: readonly string[], marks: readonly Mark[]): readonly string[] {
  return lines.map((text, line) => {
    let out = ''
    let at = 0
    for (const { from, to, is } of marks
      .filter((mark) => mark.line === line)
      .toSorted((a, b) => a.from - b.from || a.to - b.to)) {
      if (from < at) continue
      out += text.slice(at, from).padEnd(from - at)
      out += is === 'live' ? `{live:${Math.max(1, to - from)}}` : `{${is}}`
      at = to
    }
    return out + text.slice(at)
  })
}

/** A name for a new display that none has yet: from its text, else counted. */
export function screenName(sketch: Pick<Sketch, 'screens'>, lines: readonly string[]): string {
  const plain = lines
    .join(' ')
    .replace(TOKEN, ' ')
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 18)
    .replace(/^-+|-+$/g, '')
  const base = plain === '' || plain === 'not-told' ? 'display' : plain
  for (let count = 1; ; count += 1) {
    const name = count === 1 ? base : `${base}-${count}`
    if (!Object.hasOwn(sketch.screens, name)) return name
  }
}
