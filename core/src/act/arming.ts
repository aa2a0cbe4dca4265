import { report, silence } from './alarms.ts'
import { isAlwaysOn, isEntry, type ActZone, type SetMode } from './behaviour.ts'
import type { AreaState } from './state.ts'
import { standingOf, type Turn } from './turn.ts'

/* Setting and unsetting, and the exit delay between. */

/** How areas are to be set. */
export interface Setting {
  readonly mode: SetMode
  /** The letter of a part set; null for the whole. */
  readonly part: string | null
}

/** Sets areas: at once where there is no exit delay, else people leave first. Refused where it would alarm at once. */
export function setAreas(turn: Turn, asked: readonly string[], how: Setting): void {
  const areas = named(turn, asked)
  if (areas.some((id) => turn.state.areas[id]?.is === 'entering'))
    return turn.tell({ does: 'refuse', why: 'entry runs', of: [] })
  const { troubles } = turn.state
  if (turn.behaviour.options.troublePrevents && troubles.some(({ what }) => what !== 'battery'))
    return turn.tell({ does: 'refuse', why: 'trouble', of: [...new Set(troubles.map((one) => one.device))] })
  const before = turn.state.areas
  const changed = areas.filter((id) => !isAlready(before[id], how))
  for (const id of changed) turn.putArea(id, leavingOr(turn, id, how))
  const hindering = turn.behaviour.zones.filter(
    (zone) => zone.areas.some((id) => changed.includes(id)) && wouldAlarm(turn, zone),
  )
  if (hindering.length > 0) {
    turn.put({ areas: before })
    return turn.tell({ does: 'refuse', why: 'would alarm at once', of: hindering.map(({ id }) => id) })
  }
  for (const id of changed) tellArea(turn, id)
}

/** Unsets areas: silences what sounds there, takes back what was sent, and clears what was silenced before. */
export function unsetAreas(turn: Turn, asked: readonly string[], duress: boolean): void {
  const areas = named(turn, asked)
  const here = (source: string): boolean => isOf(turn, source, areas)
  const wasSet = areas.filter((id) => turn.state.areas[id]?.is !== 'unset')
  const sounded = turn.state.alarms.some(({ source }) => here(source))
  const asking = turn.state.asking.some(({ zone }) => here(zone))
  for (const id of wasSet) {
    turn.putArea(id, { is: 'unset' })
    turn.tell({ does: 'unset', area: id })
  }
  if (duress) report(turn, { what: 'duress', source: 'duress', hold: null })
  silence(turn, ({ source }) => here(source))
  takeBack(turn, here)
  forget(turn, here)
  const first = wasSet.length > 0 || sounded || asking
  if (turn.behaviour.options.secondUnsetClears && first) return
  clear(turn, here)
}

/** An entry door opened while people leave: the first is the leaving, the next a coming back. */
export function restartExit(turn: Turn, zone: ActZone): void {
  for (const id of zone.areas) {
    const area = turn.state.areas[id]
    if (area?.is !== 'leaving') continue
    if (!area.left) {
      turn.putArea(id, { ...area, left: true })
      continue
    }
    if (!turn.behaviour.options.exitRestarts || area.restarted) continue
    const until = area.until === null ? null : turn.state.at + exitSeconds(turn, id, area.mode)
    turn.putArea(id, { ...area, until, restarted: true })
    turn.tell({ does: 'leave again', area: id, until })
  }
}

/** An entry door closes behind who leaves: that ends the exit delay where the panel goes by the door. */
export function leftBy(turn: Turn, zone: ActZone): void {
  if (turn.behaviour.options.exitBy === 'timer') return
  const standing = standingOf(turn.state, zone)
  if (standing.is !== 'leaving' || !isEntry(zone.trips[standing.mode])) return
  for (const id of zone.areas) {
    const area = turn.state.areas[id]
    if (area?.is === 'leaving' && area.left) endExit(turn, id)
  }
}

/** The exit delay is over: what stands open is left out or alarms, as the panel does. */
export function endExit(turn: Turn, id: string): void {
  const area = turn.state.areas[id]
  if (area?.is !== 'leaving') return
  const stays = area.mode === 'away' && !area.left && turn.behaviour.options.staysIfNobodyLeft === true
  turn.putArea(id, { is: 'set', mode: stays ? 'stay' : area.mode, part: area.part })
  tellArea(turn, id)
  for (const zone of turn.behaviour.zones) if (zone.areas.includes(id)) standsOpen(turn, zone)
}

/** A zone that stands open as its area comes to be set. */
function standsOpen(turn: Turn, zone: ActZone): void {
  const { open, leftOut } = turn.state
  if (!open.includes(zone.id) || leftOut.includes(zone.id) || isAlwaysOn(zone)) return
  const standing = standingOf(turn.state, zone)
  if (standing.is !== 'set' && standing.is !== 'entering') return
  const does = zone.trips[standing.mode]
  if (does === 'ignore' || does === 'alert' || does === 'command') return
  if (turn.behaviour.options.openAtExit === 'alarm') {
    turn.standing.push(zone)
    return
  }
  turn.put({ leftOut: [...leftOut, zone.id] })
  turn.tell({ does: 'leave out', zone: zone.id, why: 'open' })
}

function leavingOr(turn: Turn, id: string, { mode, part }: Setting): AreaState {
  const seconds = exitSeconds(turn, id, mode)
  // By the door alone no clock ends it.
  const until = turn.behaviour.options.exitBy === 'door' ? null : turn.state.at + seconds
  return seconds === 0
    ? { is: 'set', mode, part }
    : { is: 'leaving', mode, part, until, left: false, restarted: false }
}

function tellArea(turn: Turn, id: string): void {
  const area = turn.state.areas[id]
  if (area?.is === 'leaving') turn.tell({ does: 'leave', area: id, mode: area.mode, until: area.until })
  else if (area?.is === 'set') turn.tell({ does: 'set', area: id, mode: area.mode })
}

/** Whether a zone stands open that would alarm in the very moment of setting. */
function wouldAlarm(turn: Turn, zone: ActZone): boolean {
  if (!turn.state.open.includes(zone.id) || turn.state.leftOut.includes(zone.id) || isAlwaysOn(zone))
    return false
  const standing = standingOf(turn.state, zone)
  if (standing.is === 'unset' || standing.is === 'outside') return false
  const does = zone.trips[standing.mode]
  if (standing.is === 'leaving')
    return does === 'instant' && zone.whileExit[standing.mode === 'away' ? 'away' : 'stay'] === 'live'
  return does === 'instant' || does === 'follow' || isEntry(does)
}

/** Held alarms are dropped; what was sent is called off. */
function takeBack(turn: Turn, here: (source: string) => boolean): void {
  for (const { source } of turn.state.held.filter((one) => here(one.source)))
    turn.tell({ does: 'abort', source })
  for (const source of turn.state.sent.filter(here)) report(turn, { what: 'cancelled', source, hold: null })
  turn.put({
    held: turn.state.held.filter((one) => !here(one.source)),
    sent: turn.state.sent.filter((source) => !here(source)),
    asking: turn.state.asking.filter(({ zone }) => !here(zone)),
  })
}

/** A set period ends: what was left out, counted or knocked in it is forgotten. */
function forget(turn: Turn, here: (source: string) => boolean): void {
  const without = <T>(record: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(Object.entries(record).filter(([id]) => !here(id)))
  turn.put({
    leftOut: turn.state.leftOut.filter((id) => !here(id)),
    counts: without(turn.state.counts),
    knocks: without(turn.state.knocks),
  })
}

function clear(turn: Turn, here: (source: string) => boolean): void {
  const { memory, seen } = turn.state
  const left = memory.filter(({ source }) => !here(source))
  if (left.length < memory.length) turn.tell({ does: 'clear' })
  turn.put({ memory: left, seen: seen.filter(({ zone }) => !here(zone)) })
}

/** Whether a zone or device belongs to one of the areas; a device by any of its zones. */
function isOf(turn: Turn, source: string, areas: readonly string[]): boolean {
  const zone = turn.zone(source)
  const zones = zone ? [zone] : turn.zonesOfDevice(source)
  return zones.some((one) => one.areas.some((id) => areas.includes(id)))
}

function named(turn: Turn, asked: readonly string[]): readonly string[] {
  const all = turn.behaviour.areas.map(({ id }) => id)
  return asked.length === 0 ? all : all.filter((id) => asked.includes(id))
}

function isAlready(area: AreaState | undefined, { mode, part }: Setting): boolean {
  return area !== undefined && area.is !== 'unset' && area.mode === mode && area.part === part
}

function exitSeconds(turn: Turn, id: string, mode: SetMode): number {
  const delays = turn.behaviour.areas.find((one) => one.id === id)?.delays
  return (mode === 'away' ? delays?.exit : delays?.exitStay) ?? 0
}

/** The user leaves a zone out of the next set period; nothing while it is set. */
export function leaveOut(turn: Turn, zone: ActZone): void {
  if (isAlwaysOn(zone)) return turn.tell({ does: 'refuse', why: 'always on', of: [zone.id] })
  const { leftOut } = turn.state
  if (standingOf(turn.state, zone).is !== 'unset' || leftOut.includes(zone.id)) return
  turn.put({ leftOut: [...leftOut, zone.id] })
  turn.tell({ does: 'leave out', zone: zone.id, why: 'user' })
}
