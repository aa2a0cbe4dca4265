import type { Target, Widget } from '../catalogue/schema.ts'
import { filled, numbersIn, pointersIn, screenOf, type Compiled } from './compiled.ts'
import type { Values } from './forms.ts'
import { held, write, type PanelState } from './state.ts'

/* What each kind of question does with a key. */

/** What a key did on a question: the state, and where it leads now; no `then` stays. */
export interface Typed {
  readonly state: PanelState
  readonly then?: Target
}

type Of<K extends Widget['kind']> = Extract<Widget, { kind: K }>
type Handler<K extends Widget['kind']> = (
  panel: Compiled,
  state: PanelState,
  at: { readonly widget: Of<K>; readonly key: string },
) => Typed | null

/** The screen as it opens: nothing typed, its list at the row it opens at. */
export function opened(panel: Compiled, state: PanelState): PanelState {
  const { typed, row } = freshOn(panel, state)
  return { ...state, typed, row, tap: null, shifted: false, listening: 0, heard: null, waited: 0 }
}

/** What stands typed, and at which row its list is, when a screen opens. */
export function freshOn(
  panel: Compiled,
  state: PanelState,
): { readonly typed: string | null; readonly row: number } {
  const { widget } = screenOf(panel, state.screen)
  switch (widget.kind) {
    case 'choice': {
      if (widget.opens === 'first') return untouched
      const value = held(state)(filled(widget.at, state.pointers))
      const row = listOf(panel, state, widget.at).findIndex((item) => item.value === value)
      return { typed: null, row: Math.max(0, row) }
    }
    case 'options':
      return widget.send === undefined ? untouched : { typed: lit(state, widget), row: 0 }
    case 'number':
    case 'text':
      return widget.opens === 'empty' ? { typed: '', row: 0 } : untouched
    default:
      return untouched
  }
}

const untouched = { typed: null, row: 0 } as const

/** What a key does on the question of a screen; null where it is not one of its keys. */
export function typedOn(
  panel: Compiled,
  state: PanelState,
  { widget, key }: { readonly widget: Widget; readonly key: string },
): Typed | null {
  const handler = handlers[widget.kind] as Handler<Widget['kind']> | null
  return handler ? handler(panel, state, { widget: widget as never, key }) : null
}

const digit = (key: string): boolean => /^[0-9]$/.test(key)
const stay = (state: PanelState): Typed => ({ state })
const beeped = (state: PanelState): Typed => ({ state: { ...state, beeped: true } })
const refused = (state: PanelState, says: string): Typed => ({
  state: { ...state, typed: null, tap: null, shifted: false, says, beeped: true },
})

const handlers: { readonly [K in Widget['kind']]: Handler<K> | null } = {
  menu: null,
  summary: null,
  busy: null,
  jump(_panel, state, { widget, key }) {
    const typed = state.typed ?? ''
    if (digit(key) && typed.length < widget.digits) {
      const next = typed + key
      if (widget.send !== undefined || next.length < widget.digits) return stay({ ...state, typed: next })
      return jumped(_panel, state, { widget, typed: next })
    }
    if (key === widget.send && typed !== '') return jumped(_panel, state, { widget, typed })
    return digit(key) ? beeped(state) : null
  },
  number(panel, state, { widget, key }) {
    const typed = state.typed ?? ''
    const [least, most] = widget.digits
    if (digit(key)) {
      if (typed.length >= most) return beeped(state)
      const next = { ...state, typed: typed + key }
      return widget.send === undefined && next.typed.length === most
        ? numberSent(panel, next, widget)
        : stay(next)
    }
    if (typed === '' && key === widget.empties) return emptied(panel, state, widget.at)
    if (key !== widget.send) return null
    if (typed === '')
      return widget.opens === 'value' ? passed(state, widget.then) : refused(state, widget.bad)
    return typed.length < least ? refused(state, widget.bad) : numberSent(panel, state, widget)
  },
  yesno(panel, state, { widget, key }) {
    if (key !== widget.yes && key !== widget.no) return null
    return stored(panel, state, {
      at: widget.at,
      value: key === widget.yes ? 'on' : 'off',
      then: widget.then,
    })
  },
  choice(panel, state, { widget, key }) {
    const list = listOf(panel, state, widget.at)
    const to = state.row + (key === widget.next ? 1 : -1)
    if (key === widget.next || key === widget.previous) {
      if (to >= 0 && to < list.length) return stay({ ...state, row: to })
      return widget.end === 'wrap' ? stay({ ...state, row: to < 0 ? list.length - 1 : 0 }) : beeped(state)
    }
    const row = list[state.row]
    if (key !== widget.take || !row) return null
    return stored(panel, state, { at: widget.at, value: row.value, then: widget.then })
  },
  options(panel, state, { widget, key }) {
    const bits = bitsOf(widget)
    const bit = bits.find((one) => one.key === key)
    if (widget.send === undefined) {
      if (!bit) return null
      const address = filled(bit.at, state.pointers)
      return stay(write(panel, state, { address, value: held(state)(address) === bit.on ? bit.off : bit.on }))
    }
    const typed = state.typed ?? ''
    if (bit) {
      const without = typed.split('').filter((one) => one !== key)
      const on = without.length === typed.length ? [...without, key].sort() : without
      return stay({ ...state, typed: widget.one ? key : on.join('') })
    }
    if (key !== widget.send) return null
    let next = state
    for (const { key: lamp, at, on, off } of bits)
      next = write(panel, next, {
        address: filled(at, state.pointers),
        value: typed.includes(lamp) ? on : off,
      })
    return passed(next, widget.then)
  },
  text(panel, state, { widget, key }) {
    const { letters } = panel.description
    const signs = letters?.keys[key]
    if (signs !== undefined) return tapped(state, { key, signs, length: widget.length })
    if (key === letters?.step && state.tap) return stay(settled(state))
    if (key !== widget.send) return null
    if ((state.typed ?? '') === '')
      return widget.opens === 'value' ? passed(state, widget.then) : refused(state, widget.bad)
    return sent(panel, state, widget)
  },
  words(panel, state, { widget, key }) {
    const typed = state.typed ?? ''
    if (digit(key)) return stay({ ...state, typed: typed + key })
    if (key === widget.gap) {
      const more = typed !== '' && !typed.endsWith(' ') && typed.split(' ').length < widget.most
      return more ? stay({ ...state, typed: `${typed} ` }) : beeped(state)
    }
    if (key !== widget.send) return null
    return typed === '' ? passed(state, widget.then) : sent(panel, state, widget)
  },
  serial(panel, state, { widget, key }) {
    const { letters } = panel.description
    const typed = state.typed ?? ''
    const signs = letters?.keys[key]
    if (key === letters?.shift)
      return stay({ ...state, shifted: !state.shifted, tap: null, typed: state.typed ?? '' })
    if (state.shifted && signs !== undefined)
      return tapped(state, { key, signs: capitals(signs), length: 20 })
    if (digit(key)) return typed.length < 20 ? stay({ ...state, typed: typed + key }) : beeped(state)
    if (typed === '' && key === widget.empties) return emptied(panel, state, widget.at)
    if (key !== widget.send) return null
    return typed === '' ? passed(state, widget.then) : sent(panel, state, widget)
  },
  code(_panel, state, { widget, key }) {
    if (digit(key)) return stay({ ...state, typed: ((state.typed ?? '') + key).slice(0, 40) })
    if (key !== widget.send) return null
    return state.typed === codeOf(widget.who) ? passed(state, widget.then) : refused(state, widget.wrong)
  },
}

/** Signs of a key that an ID can have: its capital letters. */
export function capitals(signs: string): string {
  return signs.replace(/[^A-Z]/g, '')
}

/** A code as it stands in a state: whose it is and never which. */
const codeOf = (who: string): string => `code ${who}`

/** A person has written their code. */
export function codeTyped(state: PanelState, who: string): PanelState {
  return { ...state, typed: codeOf(who) }
}

/** A transmission heard while an ID is asked for. */
export function heardOn(
  panel: Compiled,
  state: PanelState,
  {
    widget,
    sent: { serial, loop },
  }: {
    readonly widget: Of<'serial'>
    readonly sent: { readonly serial: string; readonly loop: number | null }
  },
): Typed {
  if (panel.values(widget.at, held(state))?.read(serial) !== serial) return stay(state)
  const times = (state.heard?.serial === serial ? state.heard.times : 0) + 1
  if (times < widget.needs) return stay({ ...state, heard: { serial, times } })
  const at = filled(widget.at, state.pointers)
  const first = write(panel, state, { address: at, value: serial })
  const both =
    widget.loopAt === undefined
      ? first
      : write(panel, first, {
          address: filled(widget.loopAt, state.pointers),
          value: loop === null ? '' : String(loop),
        })
  const rest = { ...both, listening: 0, heard: null, says: '' }
  return isTaken(panel, rest, widget.at)
    ? refused({ ...state, listening: 0, heard: null }, widget.taken ?? widget.bad)
    : { state: rest, then: widget.then }
}

/** The letter under the finger is done. */
export function settled(state: PanelState): PanelState {
  return state.tap ? { ...state, tap: null } : state
}

/** What each key of an option screen turns, and the values of lit and out. */
export function bitsOf({ bits }: Of<'options'>): readonly {
  readonly key: string
  readonly at: string
  readonly on: string
  readonly off: string
}[] {
  return Object.entries(bits).map(([key, bit]) =>
    typeof bit === 'string' ? { key, at: bit, on: 'on', off: 'off' } : { key, ...bit },
  )
}

/** Signs of the options that are on, as they light up. */
export function lit(state: PanelState, widget: Of<'options'>): string {
  return bitsOf(widget)
    .filter(({ at, on }) => held(state)(filled(at, state.pointers)) === on)
    .map(({ key }) => key)
    .sort()
    .join('')
}

/** What a list offers at an address. */
export function listOf(panel: Compiled, state: PanelState, template: string): Values['list'] {
  return panel.values(template, held(state))?.list ?? []
}

function passed(state: PanelState, then: Target): Typed {
  return { state, then }
}

function jumped(
  panel: Compiled,
  state: PanelState,
  { widget, typed }: { widget: Of<'jump'>; typed: string },
): Typed {
  for (const [pattern, then] of Object.entries(widget.to)) {
    const pointers = matched(panel, pattern, typed)
    if (pointers) return { state: { ...state, pointers: { ...state.pointers, ...pointers } }, then }
  }
  return refused(state, widget.none)
}

/** Everything that can be typed for a jump. */
export function patternsOf({ description }: Compiled, { to }: Of<'jump'>): readonly string[] {
  return Object.keys(to).flatMap((pattern) => {
    let all = [pattern]
    for (const name of pointersIn(pattern)) {
      const range = description.pointers[name]
      const numbers = range ? numbersIn(range) : []
      all = all.flatMap((text) =>
        numbers.map((number) => text.replace(`{${name}}`, String(number).padStart(range?.digits ?? 1, '0'))),
      )
    }
    return all
  })
}

/** Numbers of the pointers in a pattern that what was typed fits; null where it does not. */
function matched(panel: Compiled, pattern: string, typed: string): Record<string, number> | null {
  if (!pattern.includes('{')) return pattern === typed ? {} : null
  const names = pointersIn(pattern)
  const parts = pattern.split(/\{[a-zA-Z0-9-]+\}/)
  const found: Record<string, number> = {}
  let at = 0
  for (const [index, part] of parts.entries()) {
    if (!typed.startsWith(part, at)) return null
    at += part.length
    const name = names[index]
    const range = name === undefined ? undefined : panel.description.pointers[name]
    if (name === undefined || !range) continue
    const size = range.digits ?? typed.length - at - (parts[index + 1] ?? '').length
    const digits = typed.slice(at, at + size)
    if (!/^\d+$/.test(digits) || Number(digits) < range.from || Number(digits) > range.to) return null
    found[name] = Number(digits)
    at += size
  }
  return at === typed.length ? found : null
}

function numberSent(panel: Compiled, state: PanelState, widget: Of<'number'>): Typed {
  return sent(panel, state, widget)
}

/** Stores what was typed, or says why not. */
function sent(
  panel: Compiled,
  state: PanelState,
  widget: {
    readonly at: string
    readonly then: Target
    readonly bad: string
    readonly taken?: string | undefined
  },
): Typed {
  const value = panel.values(widget.at, held(state))?.read(state.typed ?? '') ?? null
  if (value === null) return refused(state, widget.bad)
  const next = write(panel, state, { address: filled(widget.at, state.pointers), value })
  return isTaken(panel, next, widget.at)
    ? refused(state, widget.taken ?? widget.bad)
    : { state: next, then: widget.then }
}

function stored(
  panel: Compiled,
  state: PanelState,
  { at, value, then }: { readonly at: string; readonly value: string; readonly then: Target },
): Typed {
  return { state: write(panel, state, { address: filled(at, state.pointers), value }), then }
}

function emptied(panel: Compiled, state: PanelState, at: string): Typed {
  return { state: write(panel, state, { address: filled(at, state.pointers), value: '' }), then: '.' }
}

/** Whether another number already holds the same at all addresses that are to differ; judged once all of them are there. */
function isTaken(panel: Compiled, state: PanelState, template: string): boolean {
  const group = panel.description.unique?.find((one) => one.includes(template))
  if (!group) return false
  const value = held(state)
  const mine = group.map((one) => value(filled(one, state.pointers)))
  if (mine.includes('')) return false
  const [name = ''] = pointersIn(template)
  const range = panel.description.pointers[name]
  if (!range) return false
  for (let number = range.from; number <= range.to; number++) {
    if (number === state.pointers[name]) continue
    const pointers = { ...state.pointers, [name]: number }
    if (group.every((one, index) => value(filled(one, pointers)) === mine[index])) return true
  }
  return false
}

/** A press of a letter key: another sign of the letter under the finger, or the next letter. */
function tapped(
  state: PanelState,
  { key, signs, length }: { readonly key: string; readonly signs: string; readonly length: number },
): Typed {
  const typed = state.typed ?? ''
  if (signs === '') return beeped(state)
  if (state.tap?.key === key) {
    const times = state.tap.times + 1
    const sign = signs[(times - 1) % signs.length] ?? ''
    return stay({ ...state, tap: { key, times }, typed: typed.slice(0, -1) + sign })
  }
  if (typed.length >= length) return beeped(state)
  return stay({ ...state, tap: { key, times: 1 }, typed: typed + (signs[0] ?? '') })
}
