import type { Opening, Sight } from '../job/records.ts'
import type { SystemDevice } from '../system/system.ts'
import type { EntryWay } from './entry-ways.ts'
import type { House } from './house.ts'

/* What people trip on their way in: motions whose sight they enter, inner doors that they go through. */

/** A device in its place: the opening that it guards, and what it sees besides its own room. */
export interface Placed extends Pick<SystemDevice, 'device' | 'model'> {
  readonly opening: Opening | null
  readonly sights: readonly Sight[]
}

/**
 * Seconds from the opening of the entry door until somebody of the job's slowest pace trips a device on the way; null where the way
 * does not lead past it.
 */
export function passedAfter(house: House, way: EntryWay, placed: Placed): number | null {
  const { device, model, opening, sights } = placed
  const { rooms } = way.walk
  if (model.class === 'motion') {
    if (sights.some((sight) => sight.opening === way.door.id)) return 0
    const seen = new Set([house.room(device.room)?.id, ...sights.map(({ room }) => room)])
    return secondsTo(house, way, rooms.find(({ id }) => seen.has(id))?.id)
  }
  if (model.class !== 'contact' || opening === null || !isPassed(way, opening)) return null
  return secondsTo(house, way, rooms.find(({ id }) => id === opening.room || id === opening.to)?.id)
}

/** Whether a way leads through an inner door. */
export function isPassed(way: Pick<EntryWay, 'walk'>, { room: from, to }: Opening): boolean {
  return way.walk.rooms.some((room, index) => {
    const next = way.walk.rooms[index + 1]
    return (
      next !== undefined && ((room.id === from && next.id === to) || (room.id === to && next.id === from))
    )
  })
}

/** Inner doors on the shortest way between two rooms: what is behind one is seen only while it stands open. */
export function innerDoorsBetween(house: House, from: string, to: string): readonly Opening[] {
  const walk = house.walk(from, to)
  return walk ? house.openings.filter((opening) => opening.to !== null && isPassed({ walk }, opening)) : []
}

function secondsTo(house: House, way: EntryWay, room: string | undefined): number | null {
  return room === undefined ? null : (house.walk(way.door.room, room)?.seconds ?? null)
}
