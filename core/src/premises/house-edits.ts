import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Op } from '../job/edit.ts'
import type { Opening, Room } from '../job/records.ts'
import { roomKey } from './house.ts'

/** Renames a room: devices know their room by name, so they go with it. */
export function renameRoomOps(doc: JobDocument, room: Room, name: string): Op[] {
  const devices = recordsOf(doc, 'device').filter((device) => roomKey(device.room) === roomKey(room.name))
  return [
    { op: 'set', id: room.id, field: 'name', from: room.name, to: name },
    ...devices.map((device): Op => ({
      op: 'set',
      id: device.id,
      field: 'room',
      from: device.room,
      to: name,
    })),
  ]
}

/** Takes a room out with its ways, openings and what motions see of it; devices keep the name. */
export function removeRoomOps(doc: JobDocument, room: Room): Op[] {
  const openings = recordsOf(doc, 'opening').filter((item) => item.room === room.id || item.to === room.id)
  const ways = recordsOf(doc, 'way').filter((way) => way.from === room.id || way.to === room.id)
  const sights = recordsOf(doc, 'sight').filter((sight) => sight.room === room.id && sight.opening === null)
  return [
    ...sights.map((record): Op => ({ op: 'remove', record })),
    ...openings.flatMap((opening) => removeOpeningOps(doc, opening)),
    ...ways.map((record): Op => ({ op: 'remove', record })),
    { op: 'remove', record: room },
  ]
}

/** Takes an opening out; what guards or sees it is freed of it. */
export function removeOpeningOps(doc: JobDocument, opening: Opening): Op[] {
  const devices = recordsOf(doc, 'device').filter((device) => device.opening === opening.id)
  const sights = recordsOf(doc, 'sight').filter((sight) => sight.opening === opening.id)
  return [
    ...devices.map((device): Op => ({
      op: 'set',
      id: device.id,
      field: 'opening',
      from: opening.id,
      to: null,
    })),
    ...sights.map((record): Op => ({ op: 'remove', record })),
    { op: 'remove', record: opening },
  ]
}
