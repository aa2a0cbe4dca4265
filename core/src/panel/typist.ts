import type { Widget } from '../catalogue/schema.ts'
import { filled, screenOf, type Compiled } from './compiled.ts'
import { held, type Input, type PanelState } from './state.ts'
import { bitsOf, capitals, listOf } from './widgets.ts'

/* The keys that give an answer. Nothing is searched: each kind of question knows what is typed for a value. */

/** What an address is to hold; nothing as the empty text. */
export type Wanted = (address: string) => string

type Of<K extends Widget['kind']> = Extract<Widget, { kind: K }>
interface At<K extends Widget['kind']> {
  readonly panel: Compiled
  readonly state: PanelState
  readonly widget: Of<K>
  readonly wanted: Wanted
}
type Typist<K extends Widget['kind']> = (at: At<K>) => readonly Input[] | null

/** A press of a key. */
export const press = (key: string): Input => ({ kind: 'press', key })
const presses = (keys: readonly string[]): Input[] => keys.map(press)

/** The inputs that answer the question of a screen just opened so that its addresses hold what is wanted; null where none do. */
export function answer(panel: Compiled, state: PanelState, wanted: Wanted): readonly Input[] | null {
  const { widget } = screenOf(panel, state.screen)
  const typist = typists[widget.kind] as Typist<Widget['kind']> | null
  return typist ? typist({ panel, state, widget: widget as never, wanted }) : null
}

/** Addresses that a question sets, as the description writes them. */
export function templatesOf(widget: Widget): readonly string[] {
  if (widget.kind === 'options') return bitsOf(widget).map(({ at }) => at)
  return 'at' in widget ? [widget.at] : []
}

const typists: { readonly [K in Widget['kind']]: Typist<K> | null } = {
  menu: null,
  summary: null,
  busy: null,
  jump: null,
  code: null,
  number({ panel, state, widget, wanted }) {
    const value = wanted(filled(widget.at, state.pointers))
    if (value === '') return widget.empties === undefined ? null : [press(widget.empties)]
    const present = held(state)(filled(widget.at, state.pointers)) === value
    if (present && widget.opens === 'value' && widget.send !== undefined) return [press(widget.send)]
    const keyed = panel.values(widget.at, held(state))?.keyed(value) ?? null
    const [least, most] = widget.digits
    if (keyed === null || !/^\d+$/.test(keyed) || keyed.length > most) return null
    const typed = keyed.padStart(widget.send === undefined ? most : least, '0')
    return presses([...typed, ...(widget.send === undefined ? [] : [widget.send])])
  },
  yesno({ state, widget, wanted }) {
    return [press(wanted(filled(widget.at, state.pointers)) === 'on' ? widget.yes : widget.no)]
  },
  choice({ panel, state, widget, wanted }) {
    const list = listOf(panel, state, widget.at)
    const row = list.findIndex((item) => item.value === wanted(filled(widget.at, state.pointers)))
    if (row < 0) return null
    const wraps = widget.end === 'wrap'
    const ahead = row >= state.row ? row - state.row : wraps ? row - state.row + list.length : Infinity
    const behind = row <= state.row ? state.row - row : wraps ? state.row - row + list.length : Infinity
    const back = widget.previous !== undefined && behind < ahead
    if (!back && ahead === Infinity) return null
    const steps = back ? behind : ahead
    const key = back ? (widget.previous ?? widget.next) : widget.next
    return presses([...Array.from({ length: steps }, () => key), widget.take])
  },
  options({ state, widget, wanted }) {
    const lamps = bitsOf(widget)
    const change = lamps.filter(({ at, on }) => {
      const address = filled(at, state.pointers)
      return (held(state)(address) === on) !== (wanted(address) === on)
    })
    // Where one is on at a time, its own key is enough; none on, or two, is nothing that can be answered.
    const mine = lamps.filter(({ at, on }) => wanted(filled(at, state.pointers)) === on)
    if (widget.one && change.length > 0 && mine.length !== 1) return null
    const turned = widget.one && change.length > 0 ? mine : change
    return presses([...turned.map(({ key }) => key), ...(widget.send === undefined ? [] : [widget.send])])
  },
  text({ panel, state, widget, wanted }) {
    const value = wanted(filled(widget.at, state.pointers))
    if (value === '' || value.length > widget.length) return null
    const typed = lettersOf(panel, value)
    return typed && [...typed, press(widget.send)]
  },
  words({ state, widget, wanted }) {
    const value = wanted(filled(widget.at, state.pointers))
    return value === ''
      ? null
      : presses([...[...value].map((sign) => (sign === ' ' ? widget.gap : sign)), widget.send])
  },
  serial({ panel, state, widget, wanted }) {
    const value = wanted(filled(widget.at, state.pointers))
    if (value === '') return widget.empties === undefined ? null : [press(widget.empties)]
    if (held(state)(filled(widget.at, state.pointers)) === value) return [press(widget.send)]
    const typed = idOf(panel, value)
    return typed && [...typed, press(widget.send)]
  },
}

/** Presses of a text; the same key twice needs the letter to end between them. */
function lettersOf({ description: { letters } }: Compiled, text: string): Input[] | null {
  const inputs: Input[] = []
  let last = ''
  for (const sign of text) {
    const found = letters && signsOf(letters.keys).get(sign)
    if (!found) return null
    const { key, times: presses } = found
    if (key === last) {
      if (letters.step !== undefined) inputs.push(press(letters.step))
      else if (letters.pause !== undefined) inputs.push({ kind: 'wait', seconds: letters.pause })
      else return null
    }
    for (let times = 0; times < presses; times++) inputs.push(press(key))
    last = key
  }
  return inputs
}

const signs = new WeakMap<object, ReadonlyMap<string, { readonly key: string; readonly times: number }>>()

/** The key of each sign, and how often it is pressed: the first key that has it. */
function signsOf(keys: Readonly<Record<string, string>>) {
  const known = signs.get(keys)
  if (known) return known
  const made = new Map<string, { key: string; times: number }>()
  for (const [key, has] of Object.entries(keys))
    [...has].forEach((sign, index) => {
      if (!made.has(sign)) made.set(sign, { key, times: index + 1 })
    })
  signs.set(keys, made)
  return made
}

/** Presses of an ID: digits as they are, letters behind the key that turns to them and back. */
function idOf({ description: { letters } }: Compiled, id: string): Input[] | null {
  const keys: string[] = []
  let last = ''
  let shifted = false
  for (const sign of id) {
    const letter = /\D/.test(sign)
    const key = letter ? letterKey(letters?.keys ?? {}, sign) : { key: sign, times: 1 }
    if (!key || (letter && letters?.shift === undefined)) return null
    const shift = letters?.shift ?? ''
    if (letter !== shifted) keys.push(shift)
    // The same key again would go on with its letter: to digits and back ends it.
    else if (letter && key.key === last) keys.push(shift, shift)
    keys.push(...Array.from({ length: key.times }, () => key.key))
    last = key.key
    shifted = letter
  }
  return presses(keys)
}

/** The key that has a capital letter, and its presses while an ID is typed: capitals alone count there. */
function letterKey(
  keys: Readonly<Record<string, string>>,
  sign: string,
): { readonly key: string; readonly times: number } | null {
  for (const [key, signs] of Object.entries(keys)) {
    const at = capitals(signs).indexOf(sign)
    if (at >= 0) return { key, times: at + 1 }
  }
  return null
}
