import { isEntry, type SetMode } from '../../act/behaviour.ts'
import { entryWays, type EntryWay } from '../../premises/entry-ways.ts'
import { passedAfter } from '../../premises/passing.ts'
import { consequence } from '../../response/compare.ts'
import { delayInArea } from '../../response/delays.ts'
import { tripsOf, type Trips } from '../../response/modes.ts'
import type { Context, ZoneView } from '../context.ts'
import type { Found } from '../finding.ts'
import { isProtecting } from '../partners.ts'
import { everybodyHasFob } from '../people.ts'
import { useAdvisedType } from '../response/use-type.ts'
import { placedOf } from '../placed.ts'

/** An entry delay that another zone on the way cuts short; seconds. */
export interface CutDelay {
  readonly zone: string
  readonly way: string
  readonly keypad: string
  readonly modes: readonly SetMode[]
  /** What the door starts, and what of it is left once the zone on the way trips. */
  readonly from: number
  readonly to: number
  readonly needed: number
  readonly panel: string
  /** Whether the panel’s entry says that the shorter of two delays wins; false where it does not say. */
  readonly known: boolean
}

const setModes = ['away', 'stay', 'night'] as const

/**
 * Zones that start a shorter delay on the way from a door that has a longer one, on panels where the shorter of two running delays
 * wins, or whose entry does not say. Where what is left is long enough, nobody is hurt.
 */
export function cutDelays(c: Context): Found<CutDelay>[] {
  const wins = c.panel?.couplings?.shorterEntryWins
  // Whoever carries a fob unsets at the door.
  if (!c.panel || wins === false || everybodyHasFob(c)) return []
  const ways = entryWays(c.house, c.system, c.rules.figures).filter((way) => way.nearest)
  return c.zones.flatMap((view) => {
    if (!isProtecting(c, view) || view.type?.kind !== 'burglary' || !view.trips) return []
    const [worst] = ways
      .flatMap((way) => cutOn(c, way, { view, trips: view.trips }) ?? [])
      .sort((a, b) => a.to - a.needed - (b.to - b.needed))
    if (!worst) return []
    return [{ subject: view.zone.id, field: 'response', facts: worst, fix: cure(c, view, ways) }]
  })
}

/** A zone, and what it does: by its type, or by one that it might get. */
interface Typed {
  readonly view: ZoneView
  readonly trips: Trips | null
}

function cutOn(c: Context, way: EntryWay, { view, trips }: Typed): CutDelay | null {
  const placed = placedOf(c, view)
  const after = placed && passedAfter(c.house, way, placed)
  if (after === null || !trips) return null
  const doors = c.zones.filter(
    (door) => door !== view && door.place?.opening?.id === way.door.id && isProtecting(c, door),
  )
  const cuts = setModes.flatMap((mode) => {
    const own = secondsOf(c, view, trips[mode])
    if (own === null || isToldAsShorter(view, mode, trips)) return []
    const left = Math.ceil(after) + own
    return doors.flatMap((door) => {
      const from = sharesArea(view, door) ? secondsOf(c, door, door.trips?.[mode]) : null
      return from !== null && left < from && left < way.seconds ? [{ mode, from, to: left }] : []
    })
  })
  const [first] = cuts
  if (!first) return null
  const modes = [...new Set(cuts.map(({ mode }) => mode))].filter(
    (mode) => mode !== 'night' || view.type?.night !== undefined,
  )
  return {
    ...{ zone: view.number, way: way.name, keypad: way.walk.rooms.at(-1)?.name ?? '', modes },
    ...{ from: first.from, to: first.to, needed: way.seconds, panel: c.panel?.name ?? '' },
    known: c.panel?.couplings?.shorterEntryWins === true,
  }
}

/** The advised type, where it cuts nothing. */
function cure(c: Context, view: ZoneView, ways: readonly EntryWay[]): ReturnType<typeof useAdvisedType> {
  const advised = view.advice?.type
  if (!c.panel || !advised) return null
  const trips = tripsOf(c.panel, advised)
  return ways.some((way) => cutOn(c, way, { view, trips })) ? null : useAdvisedType(c, view)
}

/** A zone at the far door itself that starts the shorter delay is told as that. */
function isToldAsShorter({ advice, place }: ZoneView, mode: SetMode, trips: Trips): boolean {
  const watch = advice?.need.watch ?? null
  return (
    watch !== null && place?.why?.is !== 'leaf-passed' && consequence(watch, mode, trips[mode]) === 'less'
  )
}

function secondsOf(c: Context, { zone }: ZoneView, trip: Trips[SetMode] | undefined): number | null {
  if (trip === undefined || !isEntry(trip)) return null
  return delayInArea(c.doc, c.panel, { area: zone.area, key: trip === 'entry-1' ? 'entry1' : 'entry2' })
}

function sharesArea({ zone: a }: ZoneView, { zone: b }: ZoneView): boolean {
  return [a.area, a.area2 ?? a.area].some((area) => area === b.area || (b.area2 !== null && area === b.area2))
}
