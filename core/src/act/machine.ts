import { alarm, report, silence } from './alarms.ts'
import { endExit, leaveOut, leftBy, setAreas, unsetAreas } from './arming.ts'
import type { Behaviour } from './behaviour.ts'
import type { ActEvent, ActOutput } from './events.ts'
import { atRest, type ActState } from './state.ts'
import { decide, trip } from './trips.ts'
import { cover, jammed, over, watched } from './troubles.ts'
import { Turn } from './turn.ts'

/*
 * A panel's behaviour as one timed machine: what it shows, sounds and sends when things happen to it. Time passes only by events:
 * each first lets run out what was due until then, in order, and then happens. Nothing is drawn, guessed or remembered elsewhere,
 * so the same events always do the same, at whatever hour they begin.
 */

/** What came of an event. */
export interface Acted {
  readonly state: ActState
  /** First to last; times are those of the events or of what ran out between them. */
  readonly outputs: readonly ActOutput[]
}

/** Lets one event happen. An event that names what the panel does not have only lets time pass. */
export function act(behaviour: Behaviour, state: ActState, event: ActEvent): Acted {
  const turn = new Turn(behaviour, state)
  const at = Math.max(state.at, event.at)
  runOut(turn, at)
  if (at !== turn.state.at) turn.put({ at })
  happen(turn, event)
  decideStanding(turn)
  return { state: turn.state, outputs: turn.outputs }
}

/** Lets events happen one after the other, from rest or from a state. */
export function actAll(behaviour: Behaviour, events: readonly ActEvent[], from?: ActState): Acted {
  let state = from ?? atRest(behaviour, events[0]?.at ?? 0)
  const outputs: ActOutput[] = []
  for (const event of events) {
    const acted = act(behaviour, state, event)
    state = acted.state
    outputs.push(...acted.outputs)
  }
  return { state, outputs }
}

function happen(turn: Turn, event: ActEvent): void {
  switch (event.do) {
    case 'set':
      return setAreas(turn, event.areas, event)
    case 'unset':
      return unsetAreas(turn, event.areas, event.duress)
    case 'trip':
    case 'close':
    case 'leave-out':
      return toZone(turn, event.do, event.zone)
    case 'cover':
      return cover(turn, event.device, event.open)
    case 'lost':
      return watched(turn, event.device, 'lost')
    case 'back':
      return over(turn, event.device, 'lost')
    case 'battery':
      return event.low ? watched(turn, event.device, 'battery') : over(turn, event.device, 'battery')
    case 'jam':
      return event.on ? jammed(turn) : over(turn, '', 'jammed')
    case 'wait':
      return
  }
}

function toZone(turn: Turn, does: 'trip' | 'close' | 'leave-out', id: string): void {
  const zone = turn.zone(id)
  if (!zone) return
  if (does === 'trip') return trip(turn, zone)
  if (does === 'leave-out') return leaveOut(turn, zone)
  if (!turn.state.open.includes(id)) return
  turn.put({ open: turn.state.open.filter((one) => one !== id) })
  leftBy(turn, zone)
}

/** What runs out by itself, and when. */
interface Due {
  readonly at: number
  readonly run: () => void
}

/** Lets everything run out that is due until a moment, first to last. */
function runOut(turn: Turn, until: number): void {
  for (let next = nextDue(turn); next !== null && next.at <= until; next = nextDue(turn)) {
    if (next.at > turn.state.at) turn.put({ at: next.at })
    next.run()
    decideStanding(turn)
  }
}

/** The first thing to run out; of several at one moment exit, entry, asking, sending, sounding in this order. */
function nextDue(turn: Turn): Due | null {
  let first: Due | null = null
  for (const due of allDue(turn)) if (first === null || due.at < first.at) first = due
  return first
}

function allDue(turn: Turn): Due[] {
  const { areas, asking, held, alarms } = turn.state
  const list: Due[] = []
  for (const [id, area] of Object.entries(areas))
    if (area.is === 'leaving' && area.until !== null)
      list.push({ at: area.until, run: () => endExit(turn, id) })
  for (const area of Object.values(areas))
    if (area.is === 'entering') list.push({ at: area.until, run: () => endEntry(turn, area.by, area.until) })
  for (const { zone, until } of asking) list.push({ at: until, run: () => endAsking(turn, zone) })
  for (const one of held) list.push({ at: one.due, run: () => send(turn, one) })
  for (const one of alarms)
    if (one.until !== null) list.push({ at: one.until, run: () => silence(turn, (other) => other === one) })
  return list
}

/** Nobody unset in time: the zone that started the delay alarms, once for all areas it started it in. */
function endEntry(turn: Turn, by: string, until: number): void {
  for (const [id, area] of Object.entries(turn.state.areas))
    if (area.is === 'entering' && area.by === by && area.until <= until)
      turn.putArea(id, { is: 'set', mode: area.mode, part: area.part })
  const zone = turn.zone(by)
  if (zone) alarm(turn, zone)
}

function endAsking(turn: Turn, id: string): void {
  turn.put({ asking: turn.state.asking.filter((one) => one.zone !== id) })
  const zone = turn.zone(id)
  if (zone) alarm(turn, zone)
}

function send(turn: Turn, one: ActState['held'][number]): void {
  turn.put({ held: turn.state.held.filter((other) => other !== one) })
  report(turn, { what: one.kind, source: one.source, hold: null })
}

function decideStanding(turn: Turn): void {
  for (const zone of turn.standing.splice(0)) decide(turn, zone)
}
