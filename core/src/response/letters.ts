import type { PanelModel, Trip } from '../catalogue/schema.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Zone } from '../job/records.ts'

type Trips = Readonly<Record<'away' | 'stay' | 'night' | 'unset', Trip>>

/**
 * The area that stands for the full set where a panel’s areas are letters of sets: the first; the others are part sets. Null on
 * every other panel, and where no part set is described: then the type alone says what a zone does in stay.
 */
export function fullSet(doc: JobDocument, panel: PanelModel | null): string | null {
  if (panel?.couplings?.twoAreas !== 'full-and-part') return null
  const areas = recordsOf(doc, 'area')
  const [first] = [...areas].sort((a, b) => a.number - b.number)
  return areas.length > 1 ? (first?.id ?? null) : null
}

/** The sets that a zone is in; in both where letters mean nothing, or it has none yet. */
export function setsOf(
  zone: Pick<Zone, 'area' | 'area2'>,
  full: string | null,
): { readonly full: boolean; readonly part: boolean } {
  const letters = [zone.area, zone.area2].filter((id) => id !== null)
  if (full === null || letters.length === 0) return { full: true, part: true }
  return { full: letters.includes(full), part: letters.some((id) => id !== full) }
}

/** What a trip does in each mode where the zone is in these sets: nothing in a set that it is not in, unless it is always on. */
export function tripsInSets(trips: Trips, sets: { readonly full: boolean; readonly part: boolean }): Trips {
  if ((sets.full && sets.part) || trips.unset === 'instant' || trips.away === 'command') return trips
  return {
    unset: trips.unset,
    away: sets.full ? trips.away : 'ignore',
    stay: sets.part ? trips.stay : 'ignore',
    night: sets.part ? trips.night : 'ignore',
  }
}
