import type { Trip } from '../catalogue/entry-fields.ts'
import type { ActKind, ActZone, Behaviour, SetMode, Sound } from './behaviour.ts'
import type { ActOutput } from './events.ts'
import { act } from './machine.ts'
import { atRest, type ActState, type AreaState } from './state.ts'

/* Questions to the machine: what one trip of a zone comes to. Nobody else derives it. */

/** Where the house stands when the zone trips: unset, set and still, or while people leave or come in. */
export interface Situation {
  readonly mode: SetMode | 'unset'
  /** Of a set mode: nothing runs, the exit delay runs, or the entry delay of another zone in all areas. */
  readonly while: 'still' | 'leaving' | 'entering'
}

/** What one trip comes to, if nobody does anything afterwards. */
export interface Answer {
  /** The alarm it raises at once; null for none. */
  readonly alarm: ActKind | null
  /** How that is heard; null without an alarm. */
  readonly sound: Sound | null
  /** The entry delay that it starts; null for none. */
  readonly starts: { readonly delay: 'entry-1' | 'entry-2'; readonly seconds: number } | null
  /** Whether it waits for a delay that runs, or shortens that delay. */
  readonly waits: boolean
  readonly chimes: boolean
  readonly notices: boolean
  /** Whether it sets, unsets or switches something. */
  readonly commands: boolean
  /** Whether a second trip or a person is waited for before it alarms. */
  readonly hesitates: boolean
}

/** Asks the machine what one trip of a zone does. The behaviour has the zone, else RangeError. */
export function ask(behaviour: Behaviour, id: string, situation: Situation): Answer {
  const zone = behaviour.zones.find((one) => one.id === id)
  if (!zone) throw new RangeError(`ask: the behaviour has no zone "${id}"`)
  const state = standing(behaviour, zone, situation)
  const { outputs } = act(behaviour, state, { at: state.at, do: 'trip', zone: id })
  const has = (...does: readonly ActOutput['does'][]): boolean =>
    outputs.some((output) => does.includes(output.does))
  const alarm = outputs.find((output) => output.does === 'alarm')
  const enter = outputs.find((output) => output.does === 'enter')
  return {
    alarm: alarm?.kind ?? null,
    sound: alarm ? zone.sound : null,
    starts: enter ? { delay: enter.delay, seconds: enter.until - state.at } : null,
    waits: has('wait', 'enter sooner'),
    chimes: has('chime'),
    notices: has('notice'),
    // To be set as it stands already, or unset while unset, is a command that comes to nothing.
    commands: zone.command !== null,
    hesitates: has('first knock', 'verify', 'ask'),
  }
}

/** What a trip of a zone does in a mode, in the word of the trade: found by trying, not by reading. */
export function tripIn(behaviour: Behaviour, id: string, mode: SetMode | 'unset'): Trip {
  const still = ask(behaviour, id, { mode, while: 'still' })
  if (still.commands) return 'command'
  if (still.starts) return still.starts.delay
  if (still.alarm === null && !still.hesitates) return still.notices ? 'alert' : 'ignore'
  if (mode === 'unset') return 'instant'
  return ask(behaviour, id, { mode, while: 'entering' }).waits ? 'follow' : 'instant'
}

/** A name that no zone has: whoever came in before. */
const SOMEBODY = '(somebody)'

/** The panel at rest with the zone's areas standing as asked; a running delay is a day long. */
function standing(behaviour: Behaviour, zone: ActZone, situation: Situation): ActState {
  const rest = atRest(behaviour)
  if (situation.mode === 'unset') return rest
  const area = areaState(situation.mode, situation.while, zone.parts[0] ?? null)
  return { ...rest, areas: Object.fromEntries(behaviour.areas.map(({ id }) => [id, area])) }
}

function areaState(mode: SetMode, runs: Situation['while'], part: string | null): AreaState {
  const until = 86_400
  switch (runs) {
    case 'still':
      return { is: 'set', mode, part }
    case 'leaving':
      return { is: 'leaving', mode, part, until, left: false, restarted: false }
    case 'entering':
      return { is: 'entering', mode, part, until, by: SOMEBODY }
  }
}
