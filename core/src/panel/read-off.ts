import { distance } from 'fastest-levenshtein'
import type { Widget } from '../catalogue/schema.ts'
import type { Memory } from '../memory/memory.ts'
import { filled, screenOf, spread, type Compiled } from './compiled.ts'
import { heldIn, type Values } from './forms.ts'
import {
  laid,
  lookAt,
  looksOf,
  patternsAt,
  plain,
  type Gap,
  type Laid,
  type LinePattern,
  type Look,
} from './patterns.ts'
import type { PanelState } from './state.ts'
import { bitsOf } from './widgets.ts'

/* What somebody reads off a display, and what it says: where the panel may be, what is typed there, what it holds. */

/** A place where a panel may be, by what was read. */
export interface Place {
  readonly look: Look
  readonly pointers: Readonly<Record<string, number>>
  /** Signs read otherwise than they can stand there. */
  readonly apart: number
  /** Values that the display shows otherwise than they are believed to be. */
  readonly strange: number
  /** What is typed; null where nothing can be told of it. */
  readonly typed: string | null
  /** The value on the display of a list; null where none is shown. */
  readonly row: string | null
  /** What it says that the panel holds. */
  readonly holds: Memory
}

/** Reads displays of a panel: made once, asked often. */
export interface DisplayReader {
  /** Places that can show these lines, nearest first; a line that was not read is left empty. */
  readonly places: (read: readonly string[], believed: Memory) => readonly Place[]
}

/** Most signs that may be otherwise: one, or one in three. */
const most = (signs: number): number => Math.max(1, Math.floor(signs / 3))

/** Makes the reader of a panel's displays; what is believed of an address counts where it is known. */
export function displayReader(panel: Compiled, isKnown: (address: string) => boolean): DisplayReader {
  const all = looksOf(panel).flatMap((look) => {
    const over = screenOf(panel, look.screen).over ?? []
    return spread(panel.description, over.map((name) => `{${name}}`).join('.')).map(({ pointers }) => ({
      look,
      pointers,
      lines: patternsAt(panel, look, pointers),
    }))
  })
  return {
    places(read, believed) {
      const limit = most(plain(read.join('')).length)
      const known = new Map<string, Laid>()
      const lay = (line: LinePattern, text: string): Laid => {
        const key = `${line.key}\n${text}`
        const there = known.get(key)
        if (there) return there
        const made = laid(line, text)
        known.set(key, made)
        return made
      }
      if (plain(read.join('')) === '') return []
      return all
        .flatMap(({ look, pointers, lines }): Place[] => {
          const found = lines.map((line, at) =>
            plain(read[at] ?? '') === '' ? null : lay(line, read[at] ?? ''),
          )
          const apart = found.reduce((sum, one) => sum + (one?.apart ?? 0), 0)
          if (apart > limit) return []
          const place = placeOf(panel, { look, pointers, lines, found, apart, believed, isKnown })
          return place.apart > limit ? [] : [place]
        })
        .sort((a, b) => a.apart - b.apart || a.strange - b.strange)
    },
  }
}

/** What a display says of the panel in a state: how far it is off what can stand there, and what it holds. */
export function placeAt(
  panel: Compiled,
  {
    state,
    read,
    believed,
  }: { readonly state: PanelState; readonly read: readonly string[]; readonly believed: Memory },
): Place {
  const look = lookAt(panel, state)
  const lines = patternsAt(panel, look, state.pointers)
  const found = lines.map((line, at) => laid(line, read[at] ?? ''))
  const apart = found.reduce((sum, one) => sum + one.apart, 0)
  return placeOf(panel, {
    ...{ look, pointers: state.pointers, lines, found, apart, believed },
    isKnown: () => true,
  })
}

interface Fit {
  readonly look: Look
  readonly pointers: Readonly<Record<string, number>>
  readonly lines: readonly LinePattern[]
  readonly found: readonly (Laid | null)[]
  readonly apart: number
  readonly believed: Memory
  readonly isKnown: (address: string) => boolean
}

/** What the gaps say, with what they are otherwise than any value is shown. */
function placeOf(panel: Compiled, fit: Fit): Place {
  const said = fit.lines.flatMap(({ parts }, line) => {
    const gaps = parts.filter((part): part is Gap => typeof part !== 'string')
    const found = fit.found[line]
    return found ? gaps.map((gap, at) => ({ gap, text: found.gaps[at] ?? '' })) : []
  })
  let { apart } = fit
  let typed: string | null = null
  let row: string | null = null
  const holds = new Map<string, string>()
  for (const { gap, text } of said) {
    const read = gapSays(panel, fit, { gap, text })
    apart += read.apart
    typed = read.typed ?? typed
    row = read.row ?? row
    for (const [address, value] of read.holds) holds.set(address, value)
  }
  const otherwise = [...holds].filter(
    ([address, value]) => fit.isKnown(address) && (fit.believed.get(address) ?? '') !== value,
  )
  // A line that nobody read is likelier one where nothing needs to stand.
  const unread = fit.lines.filter(({ parts }, line) => !fit.found[line] && parts.some((part) => part !== ''))
  const strange = otherwise.length + unread.length
  const { widget } = screenOf(panel, fit.look.screen)
  // A list that opens at what is stored shows it until it is moved.
  if (row !== null && widget.kind === 'choice' && widget.opens === 'value') {
    const at = filled(widget.at, fit.pointers)
    if (!holds.has(at)) holds.set(at, row)
  }
  return { look: fit.look, pointers: fit.pointers, apart, strange, typed, row, holds }
}

interface Said {
  readonly apart: number
  readonly typed: string | null
  readonly row: string | null
  readonly holds: readonly (readonly [address: string, value: string])[]
}

const nothing: Said = { apart: 0, typed: null, row: null, holds: [] }

function gapSays(
  panel: Compiled,
  { look, pointers, believed }: Fit,
  { gap, text }: { readonly gap: Gap; readonly text: string },
): Said {
  const { widget } = screenOf(panel, look.screen)
  if (gap.kind === 'live') return nothing
  if (gap.kind === 'typed') return { ...nothing, ...typedSays(widget, text) }
  if (gap.kind === 'lit') return litSays({ widget, pointers }, text)
  const asked = { template: gap.at, address: filled(gap.at, pointers), raw: gap.kind === 'raw', believed }
  const { value, apart } = valueSaid(panel, asked, text)
  if (gap.kind === 'row') return { ...nothing, apart, row: value }
  return { ...nothing, apart, holds: value === null ? [] : [[asked.address, value]] }
}

/** What was typed: digits alone where only digits can be. */
function typedSays(widget: Widget, text: string): Pick<Said, 'typed' | 'apart'> {
  const others = { jump: /\d/g, number: /\d/g, words: /[\d\s]/g, code: /\*/g }
  const taken = widget.kind in others ? others[widget.kind as keyof typeof others] : /./g
  return { typed: text, apart: text.replace(taken, '').length }
}

/** Lights that are on, each by its sign. */
function litSays(
  { widget, pointers }: { readonly widget: Widget; readonly pointers: Readonly<Record<string, number>> },
  text: string,
): Said {
  if (widget.kind !== 'options') return { ...nothing, apart: text.length }
  const bits = bitsOf(widget)
  const known = new Set(bits.map(({ key }) => key))
  const on = new Set([...plain(text)].filter((sign) => known.has(sign)))
  // A set that is sent later shows what stands to be sent, which may not be what is stored.
  const holds = bits.map(
    ({ key, at, on: lit, off }) => [filled(at, pointers), on.has(key) ? lit : off] as const,
  )
  const typed = [...on].sort().join('')
  return {
    ...nothing,
    apart: plain(text).length - on.size,
    typed: widget.send === undefined ? null : typed,
    holds,
  }
}

/** The stored value that a text names, nearest where none is named so; how far it is off. */
function valueSaid(
  panel: Compiled,
  {
    template,
    address,
    raw,
    believed,
  }: {
    readonly template: string
    readonly address: string
    readonly raw: boolean
    readonly believed: Memory
  },
  text: string,
): { readonly value: string | null; readonly apart: number } {
  const values = panel.values(template, heldIn(believed))
  if (text === '') return { value: '', apart: 0 }
  if (!values) return { value: null, apart: 1 }
  if (!raw && values.list.length > 0) return listedSaid(values.list, plain(text))
  if (raw) return values.keyed(text) === null ? { value: null, apart: 1 } : { value: text, apart: 0 }
  const value = values.stored(text)
  if (value !== null) return { value, apart: 0 }
  // A text that is cut where the display ends says no more than that it begins as it should.
  const is = believed.get(address) ?? ''
  const begins = text.length >= MOST_CUT && is !== '' && plain(values.shows(is)).startsWith(plain(text))
  return begins ? { value: is, apart: 0 } : { value: null, apart: 1 }
}

/** The value of a list that is named so, or nearest to it; a name that is cut tells its value where no other begins so. */
function listedSaid(
  list: Values['list'],
  text: string,
): { readonly value: string | null; readonly apart: number } {
  const begin = text.length < MOST_CUT ? [] : list.filter(({ shows }) => plain(shows).startsWith(text))
  const exact = list.find(({ shows }) => plain(shows) === text)
  const [only, other] = exact ? [exact] : begin
  if (only) return { value: other ? null : only.value, apart: 0 }
  let best = { value: '', apart: Infinity }
  for (const { value, shows } of list) {
    const apart = distance(plain(shows), text)
    if (apart < best.apart) best = { value, apart }
  }
  return best
}

/** Signs of a name that are enough to know it by where it is cut. */
const MOST_CUT = 6
