import type { Move, Target } from '../catalogue/schema.ts'
import type { Memory } from '../memory/memory.ts'
import { filled, movesOf, screenOf, type Compiled } from './compiled.ts'
import { blankState, guardHolds, keptDraft, write, type Input, type PanelState } from './state.ts'
import { codeTyped, heardOn, opened, settled, typedOn } from './widgets.ts'

/*
 * A panel acted out. Pure and total: an input that means nothing on a screen beeps and leaves everything as it is. There is no clock;
 * time passes by `wait`.
 */

/** A panel at its first screen, holding this. */
export function switchedOn(panel: Compiled, kept: Memory): PanelState {
  const { start } = panel.description
  return gone(panel, { ...blankState(kept), screen: start }, start)
}

/** The panel after one input. */
export function act(panel: Compiled, state: PanelState, input: Input): PanelState {
  switch (input.kind) {
    case 'press':
      return press(panel, state, input.key)
    case 'hold':
      return hold(panel, state, input)
    case 'code':
      return typedCode(panel, state, input.who)
    case 'hear':
      return hear(panel, state, input)
    case 'wait':
      return wait(panel, state, input.seconds)
  }
}

/** The panel after several inputs. */
export function acted(panel: Compiled, state: PanelState, inputs: readonly Input[]): PanelState {
  return inputs.reduce((at, input) => act(panel, at, input), state)
}

function press(panel: Compiled, state: PanelState, key: string): PanelState {
  const { widget, keys, alone } = screenOf(panel, state.screen)
  const calm = awake(state)
  if (widget.kind === 'busy') return { ...state, beeped: true }
  const typed = typedOn(panel, calm, { widget, key })
  if (typed) return typed.then ? run(panel, typed.state, typed.then) : typed.state
  const target = keys?.[key] ?? (alone ? undefined : panel.description.common[key])
  return target === undefined ? { ...calm, beeped: true } : run(panel, calm, target)
}

/** A key wakes it: the message goes, and it no longer listens. */
function awake(state: PanelState): PanelState {
  if (state.says === '' && !state.beeped && state.waited === 0 && state.listening === 0) return state
  return { ...state, says: '', beeped: false, waited: 0, listening: 0, heard: null }
}

function hold(
  panel: Compiled,
  state: PanelState,
  { key, seconds }: { key: string; seconds: number },
): PanelState {
  const long = screenOf(panel, state.screen).holds?.[key]
  if (!long || seconds < long.seconds) return press(panel, state, key)
  return run(panel, awake(state), long.to)
}

function typedCode(panel: Compiled, state: PanelState, who: string): PanelState {
  const { widget } = screenOf(panel, state.screen)
  return widget.kind === 'code' ? codeTyped(awake(state), who) : { ...awake(state), beeped: true }
}

function hear(
  panel: Compiled,
  state: PanelState,
  sent: { readonly serial: string; readonly loop: number | null },
): PanelState {
  const { widget } = screenOf(panel, state.screen)
  if (state.listening === 0 || widget.kind !== 'serial') return state
  const heard = heardOn(panel, state, { widget, sent })
  return heard.then ? run(panel, heard.state, heard.then) : heard.state
}

function wait(panel: Compiled, state: PanelState, seconds: number): PanelState {
  if (seconds <= 0) return state
  const { widget } = screenOf(panel, state.screen)
  const { idle, letters } = panel.description
  const waited = state.waited + seconds
  if (widget.kind === 'busy')
    return waited >= widget.seconds ? run(panel, { ...state, waited: 0 }, widget.then) : { ...state, waited }
  if (idle && waited >= idle.seconds) return run(panel, { ...awake(state), typed: null }, idle.to)
  const listening = Math.max(0, state.listening - seconds)
  const over = letters?.pause !== undefined && seconds >= letters.pause
  const ended = state.listening > 0 && listening === 0
  const next = { ...state, waited, listening, ...(ended ? { heard: null, says: '' } : {}) }
  return over ? settled(next) : next
}

/** Goes the first way of a target whose guard holds; none beeps. */
function run(panel: Compiled, state: PanelState, target: Target): PanelState {
  const move = firstOf(panel, state, target)
  if (!move) return { ...state, beeped: true }
  const passed = inPassing(panel, state, move)
  const next = move.go === undefined ? passed : gone(panel, passed, move.go)
  return move.say === undefined ? next : { ...next, says: move.say }
}

function firstOf(panel: Compiled, state: PanelState, target: Target): Move | undefined {
  return movesOf(target).find((one) => !one.when || guardHolds(panel, state, one.when))
}

/** What a move does besides going somewhere. */
function inPassing(panel: Compiled, from: PanelState, move: Move): PanelState {
  let state = pointed(panel, from, move.point ?? {})
  for (const [template, value] of Object.entries(move.put ?? {}))
    state = write(panel, state, { address: filled(template, state.pointers), value })
  for (const what of move.do ?? []) state = done(panel, state, what)
  return state
}

function pointed(panel: Compiled, state: PanelState, point: NonNullable<Move['point']>): PanelState {
  let { pointers } = state
  for (const [name, to] of Object.entries(point)) {
    const range = panel.description.pointers[name]
    if (!range) continue
    const at = pointers[name] ?? range.from
    pointers = { ...pointers, [name]: typeof to === 'number' ? to : stepped(range, at, to) }
  }
  return { ...state, pointers }
}

function stepped(
  { from, to, ends }: { from: number; to: number; ends: 'wrap' | 'stop' },
  at: number,
  way: '+' | '-',
): number {
  const next = way === '+' ? at + 1 : at - 1
  if (next >= from && next <= to) return next
  if (ends === 'stop') return at
  return way === '+' ? from : to
}

type Done = NonNullable<Move['do']>[number]

function done(panel: Compiled, state: PanelState, what: Done): PanelState {
  switch (what) {
    case 'keep':
      return { ...state, kept: keptDraft(state), draft: new Map() }
    case 'drop':
      return { ...state, draft: new Map() }
    case 'factory':
      return { ...state, kept: panel.factory, draft: new Map() }
    case 'clear':
      return { ...state, typed: null, tap: null, shifted: false }
    case 'back':
      return { ...state, typed: (state.typed ?? '').slice(0, -1), tap: null }
    case 'beep':
      return { ...state, beeped: true }
    case 'listen': {
      const { widget } = screenOf(panel, state.screen)
      return widget.kind === 'serial'
        ? { ...state, typed: null, listening: widget.window, heard: null }
        : { ...state, beeped: true }
    }
  }
}

/**
 * Goes to a screen and opens it: pointers it does not depend on are forgotten, those it needs begin at their first number, and
 * what is to be passed over is passed over in the direction of travel. A ring in which all is passed over beeps where it began.
 */
function gone(panel: Compiled, from: PanelState, to: string): PanelState {
  if (to === '.') return opened(panel, from)
  let state = from
  let go = to
  let way: '>' | '<' = '>'
  for (let steps = 0; steps < MOST_STEPS; steps++) {
    if (go === '>' || go === '<') {
      way = go
      const next = beside(panel, state, go)
      if (!next) return { ...from, beeped: true }
      state = next.state
      if (next.go === '.') return opened(panel, state)
      go = next.go
      if (go === '>' || go === '<') continue
    }
    state = { ...state, screen: go, pointers: pointersOf(panel, state, go) }
    if (screenOf(panel, go).skip?.some((guard) => guardHolds(panel, state, guard)) !== true)
      return opened(panel, state)
    go = way
  }
  return { ...from, beeped: true }
}

/** More screens than any way through an interface passes over. */
const MOST_STEPS = 2000

/** Where a walk goes on from a screen: its neighbour, or beyond its end; null for a screen in no walk. */
function beside(
  panel: Compiled,
  state: PanelState,
  way: '>' | '<',
): { readonly state: PanelState; readonly go: string } | null {
  const place = panel.places.get(state.screen)
  if (!place) return null
  const next = place.screens[place.at + (way === '>' ? 1 : -1)]
  if (next !== undefined) return { state, go: next }
  const move = firstOf(panel, state, way === '>' ? place.after : place.before)
  if (!move) return null
  const passed = inPassing(panel, state, move)
  return {
    state: move.say === undefined ? passed : { ...passed, says: move.say },
    go: move.go ?? '.',
  }
}

function pointersOf(panel: Compiled, state: PanelState, screen: string): Readonly<Record<string, number>> {
  const { over = [], carry = [] } = screenOf(panel, screen)
  const pointers: Record<string, number> = {}
  for (const name of over)
    pointers[name] = state.pointers[name] ?? panel.description.pointers[name]?.from ?? 0
  for (const name of carry) if (state.pointers[name] !== undefined) pointers[name] = state.pointers[name]
  return pointers
}
