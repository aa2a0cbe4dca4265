import type { ActZone, Behaviour, SetMode } from './behaviour.ts'
import type { ActOutput } from './events.ts'
import type { ActState, AreaState } from './state.ts'

/** An output without its moment, which the turn adds. */
export type Does = ActOutput extends infer O ? (O extends ActOutput ? Omit<O, 'at'> : never) : never

/** One step of the machine while it is made: a state that changes part by part, and what is done meanwhile. */
export class Turn {
  readonly behaviour: Behaviour
  readonly outputs: ActOutput[] = []
  /** Zones that stand open as their area comes to be set, and are to be decided as if they tripped now. */
  readonly standing: ActZone[] = []
  state: ActState

  constructor(behaviour: Behaviour, state: ActState) {
    this.behaviour = behaviour
    this.state = state
  }

  /** Puts changed parts into the state. */
  put(change: Partial<ActState>): void {
    this.state = { ...this.state, ...change }
  }

  /** Puts an area into another state. */
  putArea(area: string, to: AreaState): void {
    this.put({ areas: { ...this.state.areas, [area]: to } })
  }

  /** Tells what the panel does at this moment. */
  tell(does: Does): void {
    this.outputs.push({ at: this.state.at, ...does } as ActOutput)
  }

  zone(id: string): ActZone | null {
    return zonesOf(this.behaviour).get(id) ?? null
  }

  /** Every zone of a device, in the panel's order. */
  zonesOfDevice(device: string): readonly ActZone[] {
    return this.behaviour.zones.filter((zone) => zone.device === device)
  }
}

const maps = new WeakMap<Behaviour, ReadonlyMap<string, ActZone>>()

/** Zones of a behaviour by id; made once. */
function zonesOf(behaviour: Behaviour): ReadonlyMap<string, ActZone> {
  const kept = maps.get(behaviour)
  if (kept) return kept
  const made = new Map(behaviour.zones.map((zone) => [zone.id, zone]))
  maps.set(behaviour, made)
  return made
}

/** How a zone stands by the state of its areas. */
export type Standing =
  | { readonly is: 'unset' }
  /** Set, but the zone is not in the part that is set. */
  | { readonly is: 'outside' }
  | { readonly is: 'leaving' | 'set' | 'entering'; readonly mode: SetMode }

/**
 * How a zone stands now. One common to several areas is set only while all of them are, and then in the mode that asks least
 * (stay before away); an entry delay that runs in one of its areas counts for it.
 */
export function standingOf(state: ActState, zone: ActZone): Standing {
  const areas = zone.areas.map((id) => state.areas[id] ?? { is: 'unset' as const })
  const armed = areas.flatMap((area) => (area.is === 'unset' ? [] : area))
  if (armed.length === 0 || armed.length < areas.length) return { is: 'unset' }
  if (armed.some(({ part }) => part !== null && zone.parts.length > 0 && !zone.parts.includes(part)))
    return { is: 'outside' }
  const mode = armed.map((area) => area.mode).find((one) => one !== 'away') ?? 'away'
  if (armed.some(({ is }) => is === 'leaving')) return { is: 'leaving', mode }
  return { is: armed.some(({ is }) => is === 'entering') ? 'entering' : 'set', mode }
}
