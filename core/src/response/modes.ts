import { tripIn } from '../act/ask.ts'
import type { PanelModel, ResponseType, Trip } from '../catalogue/schema.ts'
import type { JobInfo, Zone } from '../job/records.ts'
import { setsOf, tripsInSets } from './letters.ts'
import { behaviourOfType, type Coupled } from './behaviour-of.ts'

/** What a trip of a zone does in one arming mode. */
export interface ModeTrip {
  readonly mode: 'away' | 'stay' | 'night' | 'unset'
  readonly trip: Trip
  /** Why it is other than the response type alone says; empty where it is not. */
  readonly because: string
}

/** What a trip does in each mode; `night` stands in for stay where the panel has no night mode. */
export type Trips = Readonly<Record<ModeTrip['mode'], Trip>>

const alone: Coupled = { stayToEntry2: false, dayZone: false }
/** By type, then by what is coupled: one type belongs to one panel. */
const asked = [new WeakMap<ResponseType, Trips>(), new WeakMap(), new WeakMap(), new WeakMap()] as const

/** What a trip of a response type does in each mode, asked of the machine once per type. */
export function tripsOf(panel: PanelModel, type: ResponseType, coupled: Coupled = alone): Trips {
  const kept = asked[((coupled.stayToEntry2 ? 1 : 0) + (coupled.dayZone ? 2 : 0)) as 0]
  const known = kept.get(type)
  if (known) return known
  const behaviour = behaviourOfType(panel, type, coupled)
  const inMode = (mode: ModeTrip['mode']): Trip => tripIn(behaviour, type.key, mode)
  const trips = { away: inMode('away'), stay: inMode('stay'), night: inMode('night'), unset: inMode('unset') }
  kept.set(type, trips)
  return trips
}

/** A panel, and what of its job bears on the modes. */
export interface PanelAndJob {
  readonly panel: PanelModel
  readonly info: Pick<JobInfo, 'stayToEntry2'>
  /** The area of the full set where areas are letters of sets; null or left out elsewhere. */
  readonly fullSet?: string | null
}

/**
 * What a trip of a zone does in each mode of its panel, with what the panel couples: an option that delays all zones of
 * stay, and a day zone of the user's choice.
 */
export function modesOf(
  { panel, info, fullSet = null }: PanelAndJob,
  zone: Pick<Zone, 'dayZone' | 'area' | 'area2'>,
  type: ResponseType,
): ModeTrip[] {
  const plain = tripsOf(panel, type)
  const coupled = tripsOf(panel, type, { stayToEntry2: info.stayToEntry2, dayZone: zone.dayZone })
  const inSets = tripsInSets(coupled, setsOf(zone, fullSet))
  const modes = (['away', 'stay', 'night', 'unset'] as const).filter(
    (mode) => mode !== 'night' || type.night !== undefined,
  )
  return modes.map((mode) => ({
    mode,
    trip: inSets[mode],
    because:
      inSets[mode] !== coupled[mode]
        ? `it is in no ${mode === 'away' ? 'full' : 'part'} set`
        : coupled[mode] === plain[mode]
          ? ''
          : because(panel, mode),
  }))
}

function because(panel: PanelModel, mode: ModeTrip['mode']): string {
  return mode === 'unset'
    ? 'if the user makes it a day zone'
    : `${panel.couplings?.stayToEntry2 ?? 'an option'} is on`
}
