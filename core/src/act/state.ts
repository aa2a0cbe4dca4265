import type { ActKind, Behaviour, SetMode, Sound } from './behaviour.ts'

/** How an area stands; times are seconds on the caller's clock. */
export type AreaState =
  | { readonly is: 'unset' }
  | {
      readonly is: 'leaving'
      readonly mode: SetMode
      readonly part: string | null
      /** Null where only a closing door ends it. */
      readonly until: number | null
      /** Whether an entry zone has been opened since it was set: somebody left. */
      readonly left: boolean
      readonly restarted: boolean
    }
  | { readonly is: 'set'; readonly mode: SetMode; readonly part: string | null }
  | {
      readonly is: 'entering'
      readonly mode: SetMode
      readonly part: string | null
      readonly until: number
      /** The zone that started the delay. */
      readonly by: string
    }

/** An alarm that is not yet silenced or over. */
export interface ActAlarm {
  /** The zone, or the device whose cover was opened. */
  readonly source: string
  readonly kind: ActKind
  readonly sound: Sound
  /** When its sound ends by itself; null when only silencing ends it. */
  readonly until: number | null
}

/** Why a device shows trouble. */
export type Trouble = 'cover' | 'lost' | 'battery' | 'jammed'

/** Everything the panel knows at one moment. A new value with every change; the same one when nothing changed. */
export interface ActState {
  /** The moment, seconds. */
  readonly at: number
  readonly areas: Readonly<Record<string, AreaState>>
  /** Zones that stand open. */
  readonly open: readonly string[]
  readonly leftOut: readonly string[]
  readonly alarms: readonly ActAlarm[]
  /** What is heard now; null for nothing. */
  readonly heard: Sound | null
  /** Alarms since the last clearing, first to last. */
  readonly memory: readonly { readonly source: string; readonly kind: ActKind }[]
  /** Reports not yet sent. */
  readonly held: readonly { readonly source: string; readonly kind: ActKind; readonly due: number }[]
  /** Reports sent since the system was last unset: they are taken back by unsetting. */
  readonly sent: readonly string[]
  /** Alarms of a zone in this set period. */
  readonly counts: Readonly<Record<string, number>>
  /** When a zone of double knock tripped first. */
  readonly knocks: Readonly<Record<string, number>>
  /** Fires seen once and not yet verified. */
  readonly seen: readonly { readonly zone: string; readonly at: number }[]
  /** Delayed fires that wait to be acknowledged. */
  readonly asking: readonly { readonly zone: string; readonly until: number }[]
  /** Troubles by device; jamming by the empty name. */
  readonly troubles: readonly { readonly device: string; readonly what: Trouble }[]
}

/** A panel at rest: unset, all closed, nothing to report. `at`: the moment it begins, seconds. */
export function atRest(behaviour: Behaviour, at = 0): ActState {
  return {
    at,
    areas: Object.fromEntries(behaviour.areas.map(({ id }) => [id, { is: 'unset' }])),
    open: [],
    leftOut: [],
    alarms: [],
    heard: null,
    memory: [],
    held: [],
    sent: [],
    counts: {},
    knocks: {},
    seen: [],
    asking: [],
    troubles: [],
  }
}

/** Whether it could be set anew as if nothing had been: unset, closed, silent, cleared, no trouble. */
export function isReady(state: ActState): boolean {
  const empty = [state.open, state.leftOut, state.alarms, state.memory, state.held, state.seen, state.asking]
  return (
    Object.values(state.areas).every((area) => area.is === 'unset') &&
    empty.every((list) => list.length === 0) &&
    state.troubles.length === 0
  )
}
