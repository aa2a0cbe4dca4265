import type { PanelModel, ResponseType, Trip } from '../catalogue/schema.ts'
import type { JobInfo, Zone } from '../job/records.ts'

/** What a trip of a zone does in one arming mode. */
export interface ModeTrip {
  readonly mode: 'away' | 'stay' | 'night' | 'unset'
  readonly trip: Trip
  /** Why it is other than the response type alone says; empty where it is not. */
  readonly because: string
}

/**
 * What a trip of a zone does in each mode, with what the panel couples: an option that delays all zones of stay, and a
 * day zone of the user's choice.
 */
export function modesOf(
  panel: PanelModel,
  info: Pick<JobInfo, 'stayToEntry2'>,
  zone: Pick<Zone, 'dayZone'>,
  type: ResponseType,
): ModeTrip[] {
  const { stayToEntry2, dayZones } = panel.couplings ?? {}
  const delayed = info.stayToEntry2 && stayToEntry2 !== undefined && isDelayable(type)
  const offered = zone.dayZone && dayZones === 'user' && type.kind === 'burglary'
  const plain = (mode: ModeTrip['mode'], trip: Trip): ModeTrip => ({ mode, trip, because: '' })
  return [
    plain('away', type.away),
    delayed ? { mode: 'stay', trip: 'entry-2', because: `${stayToEntry2} is on` } : plain('stay', type.stay),
    ...(type.night === undefined ? [] : [plain('night', type.night)]),
    offered
      ? { mode: 'unset', trip: 'alert', because: 'if the user makes it a day zone' }
      : plain('unset', type.disarmed),
  ]
}

/** Zones that are on in stay and not always on: those the option delays. */
function isDelayable(type: ResponseType): boolean {
  return type.kind === 'burglary' && type.stay !== 'ignore' && type.stay !== 'entry-2'
}
