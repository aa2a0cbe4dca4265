import type { Move, PanelInterface, Target, Widget } from '../catalogue/schema.ts'
import { movesOf, screenOf, type Compiled } from './compiled.ts'

/*
 * What a screen can show, whatever is stored and typed: the text that stands there, with gaps. What somebody reads off a display is
 * laid against it, misread signs allowed; what falls into the gaps is what was typed or is stored.
 */

/** What can stand in a gap. */
export interface Gap {
  /** `typed` with the cursor behind it; `shown` as the display names a value; `raw` as it is stored; `row` of a list; lights; live. */
  readonly kind: 'typed' | 'shown' | 'raw' | 'row' | 'lit' | 'live'
  /** Address as the description writes it; empty for what has none. */
  readonly at: string
}

/** A piece of a line: signs that stand there, the number of a pointer, or a gap. */
type Piece = { readonly text: string } | { readonly pointer: string } | { readonly gap: Gap }

/** One way a screen can look: with what is stored, with something typed, or with a message. */
export interface Look {
  readonly screen: string
  readonly typing: boolean
  /** The message that covers a line; empty for none. */
  readonly says: string
  readonly lines: readonly (readonly Piece[])[]
}

/** Every way in which the screens of a panel can look. */
export function looksOf(panel: Compiled): readonly Look[] {
  const says = messagesOf(panel.description)
  return Object.keys(panel.description.screens).flatMap((screen) => {
    const plain = looksTyped(panel, screen).map((typing) => lookOf(panel, { screen, typing, says: '' }))
    const told = [...(says.get(screen) ?? [])].map((text) =>
      lookOf(panel, { screen, typing: false, says: text }),
    )
    return [...plain, ...told]
  })
}

/** Whether what is typed and what is stored look otherwise on a screen. */
function looksTyped(panel: Compiled, name: string): readonly boolean[] {
  const { lines } = screenOf(panel, name)
  const both = lines.some((line) => line.includes('{buf}') || line.includes('{raw}'))
  return both ? [false, true] : [false]
}

function lookOf(
  panel: Compiled,
  { screen, typing, says }: { readonly screen: string; readonly typing: boolean; readonly says: string },
): Look {
  const { display } = panel.description
  const { lines, widget } = screenOf(panel, screen)
  return {
    ...{ screen, typing, says },
    lines: Array.from({ length: display.lines }, (_, index): readonly Piece[] =>
      says !== '' && index === display.messages - 1
        ? [{ text: says }]
        : piecesOf(lines[index] ?? '', { widget, typing, cursor: display.cursor }),
    ),
  }
}

interface Here {
  readonly widget: Widget
  readonly typing: boolean
  readonly cursor: string
}

function piecesOf(line: string, here: Here): readonly Piece[] {
  const pieces: Piece[] = []
  let at = 0
  for (const match of line.matchAll(/\{([^{}]*(?:\{[^{}]*\}[^{}]*)*)\}/g)) {
    if (match.index > at) pieces.push({ text: line.slice(at, match.index) })
    pieces.push(...tokenPieces(match[1] ?? '', here))
    at = match.index + match[0].length
  }
  if (at < line.length) pieces.push({ text: line.slice(at) })
  return pieces
}

function tokenPieces(token: string, { widget, typing, cursor }: Here): readonly Piece[] {
  const at = 'at' in widget ? widget.at : ''
  const typed: readonly Piece[] = [
    { gap: { kind: 'typed', at } },
    ...(widget.kind === 'code' ? [] : [{ text: cursor }]),
  ]
  if (token.startsWith('live:')) return [{ gap: { kind: 'live', at: '' } }]
  if (token.startsWith('@')) return [{ gap: { kind: 'shown', at: token.slice(1, -1) } }]
  switch (token) {
    case 'typed':
      return typed
    case 'buf':
      return typing || at === '' ? typed : [{ gap: { kind: 'shown', at } }]
    case 'raw':
      return typing || at === '' ? typed : [{ gap: { kind: 'raw', at } }]
    case 'value':
      return [{ gap: { kind: 'shown', at } }]
    case 'row':
      return [{ gap: { kind: 'row', at } }]
    case 'lit':
      return [{ gap: { kind: 'lit', at: '' } }]
    default:
      return [{ pointer: token }]
  }
}

/** The messages that can stand on each screen. */
function messagesOf(description: PanelInterface): ReadonlyMap<string, ReadonlySet<string>> {
  const said = new Map<string, Set<string>>()
  const say = (screen: string, text: string | undefined): void => {
    if (text === undefined || !description.screens[screen]) return
    said.set(screen, (said.get(screen) ?? new Set()).add(text))
  }
  const led = (screen: string, { say: text, go = '.' }: Move): void => {
    if (text === undefined) return
    for (const there of landings(description, screen, go)) say(there, text)
  }
  for (const { screens, after, before } of Object.values(description.walks))
    for (const move of [after, before].flatMap(movesOf)) for (const screen of screens) led(screen, move)
  for (const [name, { widget, keys = {}, holds = {}, alone }] of Object.entries(description.screens)) {
    for (const text of ownMessages(widget)) say(name, text)
    const asked: readonly Target[] =
      widget.kind === 'jump' ? Object.values(widget.to) : 'then' in widget ? [widget.then] : []
    const common = alone ? [] : Object.values(description.common)
    const held = Object.values(holds).map(({ to }) => to)
    for (const move of [...Object.values(keys), ...held, ...asked, ...common].flatMap(movesOf))
      led(name, move)
  }
  return said
}

/** Where one can stand after going somewhere from a screen: along a walk also beyond its ends and past what is passed over. */
function landings({ screens, walks }: PanelInterface, from: string, go: string): readonly string[] {
  if (go === '.') return [from]
  const isAlong = go === '>' || go === '<'
  if (!isAlong && screens[go]?.skip === undefined) return [go]
  const at = isAlong ? from : go
  const walk = Object.values(walks).find((one) => one.screens.includes(at))
  if (!walk) return [go]
  const beyond = [walk.after, walk.before].flatMap(movesOf).map((move) => move.go ?? at)
  return [at, ...walk.screens, ...beyond]
}

function ownMessages(widget: Widget): readonly string[] {
  return ['bad', 'none', 'wrong', 'taken'].flatMap((name) => {
    const text = (widget as Readonly<Record<string, unknown>>)[name]
    return typeof text === 'string' ? [text] : []
  })
}

/** A line with the numbers of its pointers in place, ready to be laid against what was read. */
export interface LinePattern {
  /** Tells lines of the same shape apart from others. */
  readonly key: string
  readonly parts: readonly (string | Gap)[]
}

/** The lines of a look at these pointers. */
export function patternsAt(
  panel: Compiled,
  look: Look,
  pointers: Readonly<Record<string, number>>,
): readonly LinePattern[] {
  return look.lines.map((pieces) => {
    const parts = pieces.map((piece): string | Gap => {
      if ('gap' in piece) return piece.gap
      return squeezed('text' in piece ? piece.text : numberText(panel, piece.pointer, pointers))
    })
    const key = parts
      .map((part) => (typeof part === 'string' ? part : `\0${part.kind} ${part.at}\0`))
      .join('')
    return { key, parts }
  })
}

function numberText(
  { description }: Compiled,
  name: string,
  pointers: Readonly<Record<string, number>>,
): string {
  const at = pointers[name]
  return at === undefined ? '' : String(at).padStart(description.pointers[name]?.digits ?? 1, '0')
}

/** Signs as they are compared: blanks and capitals do not count. */
export function plain(text: string): string {
  return text.replace(/\s/g, '').toLowerCase()
}

/** Signs with the blanks between them: one for several. */
function squeezed(text: string): string {
  return text.replace(/\s+/g, ' ').toLowerCase()
}

/** A sign otherwise, missing or too many; a blank between two signs tells where a gap ends and counts next to nothing. */
const APART = 64
const costOf = (sign: string | null): number => (sign === null ? 0 : sign === ' ' ? 1 : APART)

/** What was read, laid against a line. */
export interface Laid {
  /** Signs that are otherwise, missing or too many. */
  readonly apart: number
  /** What stands in each gap, as it was read. */
  readonly gaps: readonly string[]
}

/** Lays what was read against a line with the fewest signs otherwise; what stands in a gap costs nothing. */
export function laid({ parts }: LinePattern, read: string): Laid {
  const signs = [...read.trimEnd()].flatMap((sign, at, all) =>
    !/\s/.test(sign)
      ? [{ sign: sign.toLowerCase(), at }]
      : at > 0 && !/\s/.test(all[at - 1] ?? '')
        ? [{ sign: ' ', at }]
        : [],
  )
  const elements = parts.flatMap((part, index): Element[] =>
    typeof part === 'string' ? [...part].map((sign) => ({ sign, index })) : [{ sign: null, index }],
  )
  const width = signs.length + 1
  const cost = new Uint32Array((elements.length + 1) * width)
  signs.forEach(({ sign }, at) => (cost[at + 1] = (cost[at] ?? 0) + costOf(sign)))
  elements.forEach(({ sign }, row) => {
    const above = row * width
    const here = above + width
    for (let column = 0; column < width; column++) {
      const mine = signs[column - 1]?.sign ?? null
      const gone = (cost[above + column] ?? 0) + costOf(sign)
      const more =
        column === 0 ? Infinity : (cost[here + column - 1] ?? 0) + (sign === null ? 0 : costOf(mine))
      const same =
        column === 0 || sign === null ? Infinity : (cost[above + column - 1] ?? 0) + swapOf(sign, mine)
      cost[here + column] = Math.min(gone, more, same)
    }
  })
  const taken = gapsOf({ elements, signs, cost, width })
  return {
    apart: Math.floor((cost[elements.length * width + signs.length] ?? 0) / APART),
    gaps: parts.flatMap((part, index) => {
      if (typeof part === 'string') return []
      const [from, to] = taken.get(index) ?? [0, 0]
      const first = signs[from]?.at ?? 0
      return to > from ? [read.slice(first, (signs[to - 1]?.at ?? 0) + 1).trim()] : ['']
    }),
  }
}

/** What it costs that a sign stands where another should. */
function swapOf(sign: string, is: string | null): number {
  return sign === is ? 0 : Math.max(costOf(sign), costOf(is))
}

/** One sign of a line, or a gap, with the part that it comes from. */
interface Element {
  readonly sign: string | null
  readonly index: number
}
interface Table {
  readonly elements: readonly Element[]
  readonly signs: readonly { readonly sign: string }[]
  readonly cost: Uint32Array
  readonly width: number
}

/** The way back through the table: from which sign to which each gap reaches. */
function gapsOf({ elements, signs, cost, width }: Table): ReadonlyMap<number, readonly [number, number]> {
  const taken = new Map<number, readonly [number, number]>()
  let row = elements.length
  let column = signs.length
  while (row > 0) {
    const { sign, index } = elements[row - 1] ?? { sign: null, index: -1 }
    const now = cost[row * width + column] ?? 0
    const above = (row - 1) * width
    if (sign === null) {
      const end = column
      while (column > 0 && cost[above + column] !== now) column -= 1
      taken.set(index, [column, end])
      row -= 1
      continue
    }
    if (
      column > 0 &&
      (cost[above + column - 1] ?? 0) + swapOf(sign, signs[column - 1]?.sign ?? null) === now
    ) {
      row -= 1
      column -= 1
    } else if ((cost[above + column] ?? 0) + costOf(sign) === now) row -= 1
    else column -= 1
  }
  return taken
}

/** How a panel looks in a state. */
export function lookAt(panel: Compiled, { screen, typed, says }: ShownState): Look {
  return lookOf(panel, { screen, typing: typed !== null, says })
}

/** What a panel shows, but for what it holds: text, numbers, messages and what is typed, with a sign for each gap. */
export function shapeOf(panel: Compiled, state: ShownState): string {
  const { pointers, typed } = state
  return patternsAt(panel, lookAt(panel, state), pointers)
    .map(({ parts }) =>
      parts
        .map((part) => (typeof part === 'string' ? part : part.kind === 'typed' ? (typed ?? '') : '…'))
        .join(''),
    )
    .join('\n')
}

interface ShownState {
  readonly screen: string
  readonly pointers: Readonly<Record<string, number>>
  readonly typed: string | null
  readonly says: string
}
