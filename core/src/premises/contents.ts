import type { Opening } from '../job/records.ts'
import type { SystemDevice } from '../system/system.ts'
import { openingName, type House } from './house.ts'
import type { DevicePlace } from './places.ts'

/** A door or window of a room with what guards it. */
export interface OpeningIn {
  readonly opening: Opening
  /** What it is called among the others. */
  readonly name: string
  readonly guards: readonly SystemDevice[]
}

/** What is in a room. An inner door stands in the room that it was said of. */
export interface RoomContents {
  readonly openings: readonly OpeningIn[]
  /** Devices on none of its openings. */
  readonly devices: readonly SystemDevice[]
}

/** Rooms by id with what is in them, and the devices that are in no described room. */
export interface HouseContents {
  readonly rooms: ReadonlyMap<string, RoomContents>
  readonly elsewhere: readonly SystemDevice[]
}

/** Puts devices into the rooms and onto the openings where they stand. */
export function contentsOf(
  house: House,
  devices: readonly SystemDevice[],
  places: ReadonlyMap<string, DevicePlace>,
): HouseContents {
  const guards = new Map<string, SystemDevice[]>()
  const inRooms = new Map<string, SystemDevice[]>()
  const elsewhere: SystemDevice[] = []
  const put = (map: Map<string, SystemDevice[]>, key: string, item: SystemDevice) =>
    map.set(key, [...(map.get(key) ?? []), item])
  for (const item of devices) {
    const place = places.get(item.device.id)
    const guarded = item.model.class === 'motion' ? null : (place?.opening ?? null)
    const room = place?.room ?? house.room(item.device.room)
    if (guarded) put(guards, guarded.id, item)
    else if (room) put(inRooms, room.id, item)
    else elsewhere.push(item)
  }
  const rooms = house.rooms.map((room) => {
    const openings = house.openings
      .filter((opening) => opening.room === room.id)
      .map((opening) => ({
        opening,
        name: openingName(opening, house),
        guards: guards.get(opening.id) ?? [],
      }))
    return [room.id, { openings, devices: inRooms.get(room.id) ?? [] }] as const
  })
  return { rooms: new Map(rooms), elsewhere }
}
