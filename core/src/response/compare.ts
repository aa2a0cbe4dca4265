import type { SetMode } from '../act/behaviour.ts'
import { isEntry } from '../act/behaviour.ts'
import type { DeviceEvent, Trip } from '../catalogue/schema.ts'
import type { Schools } from '../house-rules/house-rules.ts'
import type { Use } from '../job/records.ts'

/* A chosen type against the need of its place, cell by cell: everybody who judges a type asks here. */

/** What a burglary device watches, as far as the consequences of a trip depend on it. */
export type Watch =
  | { readonly of: 'entry door'; readonly inStay: boolean; readonly delay: 1 | 2 }
  /** An inner door or opening on the way; the delay is that of the door people come from, null where it is not known. */
  | { readonly of: 'inner door'; readonly delay: 1 | 2 | null }
  /** A window, an unused door, a pane or frame that is struck. */
  | { readonly of: 'outer line' }
  | { readonly of: 'leaf'; readonly delay: 1 | 2; readonly mayFollow: boolean }
  | { readonly of: 'way'; readonly atNight: boolean }
  | { readonly of: 'inside'; readonly sleeps: boolean }
  | { readonly of: 'glass'; readonly awayOnly: boolean }
  /** Nobody stated the use: it is asked, and only what holds for every use is said. */
  | { readonly of: 'not stated' }

/**
 * What a trip comes to where it differs from the need. `owner`: alarms on whoever comes in; `may`: may do so; `night`: alarms
 * on whoever walks there while the house is set around them; `unwatched`: nobody is stopped there; `less`, `more`: the
 * shorter or longer of the two delays; `given`: seconds for whoever came another way; `no-entry`: a delay where nobody comes
 * in; `waits`: waits while an entry delay runs; `school`: the house rule says otherwise.
 */
export type Consequence =
  'owner' | 'may' | 'night' | 'unwatched' | 'less' | 'more' | 'given' | 'no-entry' | 'waits' | 'school'

const grave: ReadonlySet<Consequence> = new Set(['owner', 'may', 'night', 'less', 'unwatched'])

/** Whether it harms people or leaves a way open; what is not grave is told, and taken where the panel has nothing nearer. */
export function isGrave(consequence: Consequence): boolean {
  return grave.has(consequence)
}

/** What is known of a device's place. */
export interface Watched {
  readonly event: DeviceEvent
  readonly use: Use
  /** Whether daily noise there sounds like breaking glass. */
  readonly noisy: boolean
  /** Whether people sleep in its room. */
  readonly sleeps: boolean
  /** The delay of the door that people come from, where the house tells. */
  readonly delay: 1 | 2 | null
  readonly schools: Schools
}

/** What a burglary device watches; null for every other event. */
export function watchOf({ event, use, noisy, sleeps, delay, schools }: Watched): Watch | null {
  switch (event) {
    case 'open':
    case 'terminals':
      return openingWatch(use, delay)
    case 'motion':
      return motionWatch({ use, sleeps, mayFollow: schools.seesLeaf === 'follow' })
    case 'shock':
      return { of: 'outer line' }
    case 'glass':
      return {
        of: 'glass',
        awayOnly: schools.glass === 'away-only' || (schools.glass === 'by-room' && noisy),
      }
    default:
      return null
  }
}

function openingWatch(use: Use, delay: 1 | 2 | null): Watch {
  switch (use) {
    case 'entry':
      return { of: 'entry door', inStay: true, delay: 1 }
    case 'entry-far':
      return { of: 'entry door', inStay: true, delay: 2 }
    case 'entry-not-in-stay':
      return { of: 'entry door', inStay: false, delay: 1 }
    case 'inner-way':
    case 'on-way':
    case 'on-way-night':
      return { of: 'inner door', delay }
    case 'opening':
    case 'off-way':
    case 'sees-entry':
    case 'always-on':
      return { of: 'outer line' }
    case 'none':
      return { of: 'not stated' }
  }
}

interface MotionAt {
  readonly use: Use
  readonly sleeps: boolean
  readonly mayFollow: boolean
}

function motionWatch({ use, sleeps, mayFollow }: MotionAt): Watch {
  switch (use) {
    case 'sees-entry':
      return { of: 'leaf', delay: 1, mayFollow }
    case 'entry-far':
      return { of: 'leaf', delay: 2, mayFollow }
    case 'on-way':
    case 'inner-way':
      return { of: 'way', atNight: false }
    case 'on-way-night':
      return { of: 'way', atNight: true }
    case 'off-way':
      return { of: 'inside', sleeps }
    case 'entry':
    case 'entry-not-in-stay':
    case 'opening':
    case 'always-on':
    case 'none':
      return { of: 'not stated' }
  }
}

/** What a trip in a set mode comes to where it differs from the need; null where it is right, or stronger and harmless. */
export function consequence(watch: Watch, mode: SetMode, trip: Trip): Consequence | null {
  if (trip === 'command') return null
  if (trip === 'ignore' || trip === 'alert') return leftOut(watch, mode)
  const away = mode === 'away'
  switch (watch.of) {
    case 'entry door':
      return !away && !watch.inStay ? closed(trip) : atDoor(watch.delay, trip)
    case 'inner door':
      return atInnerDoor(watch.delay, away, trip)
    case 'leaf':
      return isEntry(trip) ? longerOrShorter(trip, watch.delay) : atLeaf(watch.mayFollow, away, trip)
    case 'way':
      return onTheWay(watch.atNight, away, trip)
    case 'inside':
      return inside(watch.sleeps && !away, trip)
    case 'glass':
      return watch.awayOnly && !away && !isEntry(trip) ? 'school' : closed(trip)
    case 'outer line':
      return closed(trip)
    case 'not stated':
      return null
  }
}

function atDoor(delay: 1 | 2, trip: Trip): Consequence | null {
  return isEntry(trip) ? longerOrShorter(trip, delay) : 'owner'
}

function atInnerDoor(delay: 1 | 2 | null, away: boolean, trip: Trip): Consequence | null {
  if (trip === 'instant') return away ? 'owner' : 'night'
  return isEntry(trip) && delay !== null ? longerOrShorter(trip, delay) : null
}

function inside(asleep: boolean, trip: Trip): Consequence | null {
  if (isEntry(trip)) return 'no-entry'
  return asleep ? 'night' : null
}

/** A trip that comes to nothing, or to a notice only. */
function leftOut(watch: Watch, mode: SetMode): Consequence | null {
  if (mode === 'away') return 'unwatched'
  switch (watch.of) {
    case 'entry door':
    case 'outer line':
      return 'unwatched'
    case 'way':
      return watch.atNight ? 'unwatched' : null
    case 'glass':
      return watch.awayOnly ? null : 'school'
    default:
      return null
  }
}

/** Where nobody comes in. */
function closed(trip: Trip): Consequence | null {
  if (isEntry(trip)) return 'no-entry'
  return trip === 'follow' ? 'waits' : null
}

function longerOrShorter(trip: 'entry-1' | 'entry-2', delay: 1 | 2): Consequence | null {
  const starts = trip === 'entry-1' ? 1 : 2
  if (starts === delay) return null
  return starts < delay ? 'less' : 'more'
}

/** A motion that sees the leaf trips before the contact does; while the house is set around people it sees them walk. */
function atLeaf(mayFollow: boolean, away: boolean, trip: Trip): Consequence | null {
  if (!away) return 'night'
  if (trip === 'instant') return 'owner'
  return mayFollow ? null : 'may'
}

function onTheWay(atNight: boolean, away: boolean, trip: Trip): Consequence | null {
  if (away) {
    if (trip === 'instant') return 'owner'
    return isEntry(trip) ? 'given' : null
  }
  if (isEntry(trip)) return null
  return atNight ? 'owner' : 'night'
}
