import { hideableFields, type Guard, type Move, type Target } from '../../catalogue/schema.ts'
import { filled, movesOf, pointersIn } from '../../panel/compiled.ts'
import { guardHolds, held, type PanelState } from '../../panel/state.ts'
import type { ActedOut, Slot } from './acted-out.ts'
import type { Landing } from './display-read.ts'
import { rowed, rowOf, type NoRow } from './rows.ts'
import { targetAt, toldSlot } from './slots.ts'
import { BEEP, toldScreen, type Sketch, type Told } from './sketch.ts'

/* From what a panel showed before and after a key to what that key does; and what decides where it did two things. */

/** What happens to what is keyed when a key is pressed: nothing yet, it is kept, lost, all is as shipped, or the panel listens. */
export type Effect = 'none' | 'keep' | 'drop' | 'factory' | 'listen'

/** What somebody saw and heard after a key. */
export interface SeenAfter {
  readonly from: PanelState
  readonly to: Landing
  readonly effect: Effect
  /** Whether it gave the sound of a key that does nothing. */
  readonly beeped: boolean
  /** Where it goes on along a row of questions; `end` where it left the row behind its last, or before its first. */
  readonly along: 'no' | 'next' | 'previous' | 'end' | 'beginning'
}

/** What decides between what a key did before and what it does now. */
export interface Decides {
  readonly of: 'now' | 'before'
  readonly guard: Guard
}

/** The move that leads from one display to the other. */
export function moveSeen(sketch: Sketch, slot: Slot, seen: SeenAfter): Target {
  const { from, to, beeped } = seen
  const point = pointsBetween(sketch, from, to)
  const moved = Object.keys(point).length > 0
  // What leads there from anywhere must name the display.
  const same = slot.path.startsWith('screens.') && to.screen === from.screen
  const stays = same && !moved
  const done = stays ? doneThere(sketch, seen) : doneFirst(seen)
  const isNothing = stays && done.length === 0 && to.says === ''
  if (isNothing && beeped && slot.part.startsWith('key ')) return BEEP
  // What does nothing that can be seen, without the sound of it, takes back what could be typed.
  if (isNothing) done.push('clear')
  if (beeped) done.push('beep')
  return shortest({ point, do: done, say: to.says, go: stays ? '' : same ? '.' : to.screen })
}

/** A move without what it does not do; where it only goes somewhere, just where. */
function shortest({ point, do: done, say, go }: Required<Omit<Move, 'when' | 'put'>>): Target {
  const move: Move = {
    ...(Object.keys(point ?? {}).length > 0 ? { point } : {}),
    ...((done ?? []).length > 0 ? { do: done } : {}),
    ...(say === '' ? {} : { say }),
    ...(go === '' ? {} : { go }),
  }
  return go !== undefined && Object.keys(move).join() === 'go' ? go : move
}

type Done = NonNullable<Move['do']>

/** What happens besides going elsewhere. */
function doneFirst({ effect }: SeenAfter): Done {
  return effect === 'none' ? [] : [effect]
}

/** What happens on a display that stays. */
function doneThere(sketch: Sketch, seen: SeenAfter): Done {
  const typed = typedAfter(sketch, seen)
  if (typed === 'stands') return doneFirst(seen)
  return [...doneFirst(seen), typed === 'shorter' ? 'back' : 'clear']
}

/** What became of what was typed on a display that stayed: it stands, its last sign is gone, or all of it. */
function typedAfter(sketch: Sketch, { from, to, effect }: SeenAfter): 'stands' | 'shorter' | 'gone' {
  const typed = from.typed ?? ''
  // Whoever listens forgets what was typed.
  if (typed === '' || effect === 'listen' || standsTyped(from, to)) return 'stands'
  const isLights = sketch.screens[from.screen]?.widget?.kind === 'options'
  // Of a single sign nobody can say whether it or all was taken back: all is usual. Lights are none.
  return !isLights && typed.length > 1 && to.typed === typed.slice(0, -1) ? 'shorter' : 'gone'
}

/** Whether what was typed still stands there; of a code only its stars do. */
function standsTyped({ typed }: PanelState, { typed: shown }: Landing): boolean {
  const was = typed ?? ''
  if (shown === null) return was === ''
  return shown === was || (/^\*+$/.test(shown) && (was.startsWith('code') || shown.length === was.length))
}

/** How the pointers move: where they stay, or begin at their first number, nothing is said. */
function pointsBetween(sketch: Sketch, from: PanelState, to: Landing): NonNullable<Move['point']> {
  return Object.fromEntries(
    Object.entries(to.pointers).flatMap(([name, number]): [string, '+' | '-' | number][] => {
      const range = sketch.pointers[name]
      const was = from.pointers[name]
      if (!range || was === number || (was === undefined && number === range.from)) return []
      if (was === undefined) return [[name, number]]
      const round = range.ends === 'wrap'
      if (number === was + 1 || (round && was === range.to && number === range.from)) return [[name, '+']]
      if (number === was - 1 || (round && was === range.from && number === range.to)) return [[name, '-']]
      return [[name, number]]
    }),
  )
}

/** What could decide that a key now does something else than before: what holds now, and what does not. */
export function couldDecide({ sketch, panel }: ActedOut, state: PanelState): readonly Decides[] {
  const typed = (state.typed ?? '') === ''
  const pointers = Object.entries(state.pointers).flatMap(([pointer, at]): Decides[] => {
    const range = sketch.pointers[pointer]
    if (!range) return []
    return [
      at === range.to ? now({ pointer: { [pointer]: 'last' } }) : before({ pointer: { [pointer]: 'last' } }),
      at === range.from
        ? now({ pointer: { [pointer]: 'first' } })
        : before({ pointer: { [pointer]: 'first' } }),
      // From which to which number is for the person to say.
      now({ pointer: { [pointer]: [at, at] } }),
      before({ pointer: { [pointer]: [range.from, range.from] } }),
    ]
  })
  const types =
    state.pointers.zone === undefined
      ? []
      : hideableFields.map((hides) =>
          guardHolds(panel, state, { hides }) ? now({ hides }) : before({ hides }),
        )
  return [typed ? now({ empty: true }) : before({ empty: true }), ...pointers, ...types]
}

/** Values that could decide: what is stored at the addresses that are reached by the numbers that stand here. */
export function valuesDecide({ sketch }: ActedOut, state: PanelState): readonly Decides[] {
  return Object.keys(sketch.fields)
    .filter((address) => pointersIn(address).every((name) => state.pointers[name] !== undefined))
    .map((address) => now({ at: address, in: [held(state)(filled(address, state.pointers))] }))
}

const now = (guard: Guard): Decides => ({ of: 'now', guard })
const before = (guard: Guard): Decides => ({ of: 'before', guard })

/** A target that does what it did, and in one case something else. */
function withCase(was: Target, move: Target, { of, guard }: Decides): Target {
  const mine = movesOf(move)
  if (of === 'now') return [...mine.map((one) => ({ when: guard, ...one })), ...movesOf(was)]
  return [...movesOf(was).map((one) => (one.when ? one : { when: guard, ...one })), ...mine]
}

/** What was seen after a key, as answers of the sketch; a problem where it cannot be put down so. */
export function toldSeen(
  sketch: Sketch,
  slot: Slot,
  { seen, decides }: { readonly seen: SeenAfter; readonly decides: Decides | null },
): readonly Told[] | NoRow {
  const { along, from, to } = seen
  if (along === 'no') {
    const move = moveSeen(sketch, slot, seen)
    const was = targetAt(sketch, slot)
    return toldSlot(sketch, slot, decides && was !== null ? withCase(was, move, decides) : move)
  }
  const isOn = along === 'next' || along === 'end'
  const way = isOn ? '>' : '<'
  const led = slot.path.startsWith('screens.') ? toldSlot(sketch, slot, way) : []
  if (along === 'next' || along === 'previous') {
    const row = isOn ? rowed(sketch, from.screen, to.screen) : rowed(sketch, to.screen, from.screen)
    return 'problem' in row ? row : [...led, ...row]
  }
  const walk = rowOf(sketch, from.screen)
  if (!walk) return { problem: 'stands in no row of questions: it has no end yet' }
  const end: Slot = { path: `walks.${walk[0]}`, part: isOn ? 'after' : 'before' }
  return [...led, ...toldSlot(sketch, end, moveSeen(sketch, end, seen))]
}

/** A display that the sketch showed and the panel passed over, and when. */
export function passedOver(sketch: Sketch, screen: string, guard: Guard): readonly Told[] {
  const told = sketch.screens[screen]
  return told ? [toldScreen(screen, { ...told, skip: [...told.skip, guard] })] : []
}
