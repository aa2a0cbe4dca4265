import type { Guard } from '../catalogue/schema.ts'
import type { Memory } from '../memory/memory.ts'
import { filled, type Compiled } from './compiled.ts'
import { heldIn } from './forms.ts'

/** What is done to a panel. */
export type Input =
  | { readonly kind: 'press'; readonly key: string }
  | { readonly kind: 'hold'; readonly key: string; readonly seconds: number }
  /** A person writes their code; nothing here knows it. */
  | { readonly kind: 'code'; readonly who: string }
  /** A transmission that reached the receiver; a tamper names no loop. */
  | { readonly kind: 'hear'; readonly serial: string; readonly loop: number | null }
  | { readonly kind: 'wait'; readonly seconds: number }

/** Everything that decides what a panel shows and what the next key does. */
export interface PanelState {
  readonly screen: string
  readonly pointers: Readonly<Record<string, number>>
  /** What is typed and not sent; null while the stored value stands there. */
  readonly typed: string | null
  /** The key under the finger: its presses make the last sign typed. */
  readonly tap: { readonly key: string; readonly times: number } | null
  /** Whether keys give letters in an ID. */
  readonly shifted: boolean
  /** Row of a list. */
  readonly row: number
  /** Seconds for which it still listens; 0 while it does not. */
  readonly listening: number
  /** The device heard so far, and how often. */
  readonly heard: { readonly serial: string; readonly times: number } | null
  /** Seconds since the last key, or since it began to work. */
  readonly waited: number
  /** A message that covers a line until the next key. */
  readonly says: string
  /** Whether the last key did nothing. */
  readonly beeped: boolean
  readonly kept: Memory
  /** Answers that are not kept yet; the empty text stands for an emptied value. */
  readonly draft: Memory
}

/** A state with nothing typed, heard or said, and no screen yet. */
export function blankState(kept: Memory): PanelState {
  return {
    ...{
      screen: '',
      pointers: {},
      typed: null,
      tap: null,
      shifted: false,
      row: 0,
      listening: 0,
      heard: null,
    },
    ...{ waited: 0, says: '', beeped: false, kept, draft: new Map() },
  }
}

/** What a panel now answers at an address: the draft before what is kept; nothing as the empty text. */
export function held(state: PanelState): (address: string) => string {
  return heldIn(state.draft, state.kept)
}

/** A memory with a value put at an address; the empty text empties it. */
function put(memory: Memory, address: string, value: string): Memory {
  if ((memory.get(address) ?? '') === value) return memory
  const next = new Map(memory)
  if (value === '') next.delete(address)
  else next.set(address, value)
  return next
}

/** Writes a value where the panel keeps such: at once, or in the draft. */
export function write(
  panel: Compiled,
  state: PanelState,
  at: { address: string; value: string },
): PanelState {
  if (held(state)(at.address) === at.value) return state
  if (panel.description.keeping === 'at-once')
    return { ...state, kept: put(state.kept, at.address, at.value) }
  return { ...state, draft: new Map(state.draft).set(at.address, at.value) }
}

/** What is kept once the draft is. */
export function keptDraft({ kept, draft }: PanelState): Memory {
  if (draft.size === 0) return kept
  const next = new Map(kept)
  for (const [address, value] of draft)
    if (value === '') next.delete(address)
    else next.set(address, value)
  return next
}

/** Whether all that a guard says holds. */
export function guardHolds(panel: Compiled, state: PanelState, guard: Guard): boolean {
  return (
    pointersHold(panel, state, guard) &&
    valueHolds(state, guard) &&
    (guard.hides === undefined || hidden(panel, state, guard.hides)) &&
    (guard.empty === undefined || guard.empty === ((state.typed ?? '') === ''))
  )
}

function pointersHold(panel: Compiled, { pointers }: PanelState, guard: Guard): boolean {
  return Object.entries(guard.pointer ?? {}).every(([name, wanted]) => {
    const at = pointers[name]
    const range = panel.description.pointers[name]
    if (at === undefined || !range) return false
    if (wanted === 'first') return at === range.from
    return wanted === 'last' ? at === range.to : within(at, wanted)
  })
}

function valueHolds(state: PanelState, { at, in: among, not }: Guard): boolean {
  if (at === undefined) return true
  const value = held(state)(filled(at, state.pointers))
  return among?.includes(value) !== false && not?.includes(value) !== true
}

function within(at: number, wanted: number | readonly [number, number]): boolean {
  return typeof wanted === 'number' ? at === wanted : at >= wanted[0] && at <= wanted[1]
}

/** Whether the type of the zone pointed at hides a field; a zone without a type hides what only some types have. */
function hidden(panel: Compiled, state: PanelState, field: NonNullable<Guard['hides']>): boolean {
  const code = held(state)(filled('zone.{zone}.response', state.pointers))
  const type = panel.panel.responseTypes.find((entry) => entry.code === code)
  return field === 'fireGroup' ? type?.fire !== 'verified' : type?.hides.includes(field) === true
}
