import { recordsOf, type JobDocument } from './document.ts'
import type { Op } from './edit.ts'
import type { Area, Device } from './records.ts'

/** Takes a device out with its zones, what it sees and the areas it serves; what was reached through it is freed of it. */
export function removeDeviceOps(doc: JobDocument, device: Device): Op[] {
  const mine = (record: { readonly device: string | null }): boolean => record.device === device.id
  const behind = recordsOf(doc, 'device').filter((other) => other.via === device.id)
  return [
    ...recordsOf(doc, 'zone').filter(mine).map(remove),
    ...recordsOf(doc, 'sight').filter(mine).map(remove),
    ...recordsOf(doc, 'serves').filter(mine).map(remove),
    ...behind.map((other) => set(other.id, 'via', device.id, null)),
    remove(device),
  ]
}

/** Takes an area out: its zones go to their second area or to `to`; rooms, keypads and moves forget it. */
export function removeAreaOps(doc: JobDocument, area: Area, to: string | null): Op[] {
  return [
    ...recordsOf(doc, 'zone').flatMap((zone) => [
      ...(zone.area === area.id
        ? [
            set(zone.id, 'area', area.id, zone.area2 ?? to),
            ...(zone.area2 === null ? [] : [set(zone.id, 'area2', zone.area2, null)]),
          ]
        : []),
      ...(zone.area !== area.id && zone.area2 === area.id ? [set(zone.id, 'area2', area.id, null)] : []),
      ...(zone.leaves === area.id ? [set(zone.id, 'leaves', area.id, null)] : []),
    ]),
    ...recordsOf(doc, 'room').flatMap((room) =>
      room.area === area.id ? [set(room.id, 'area', area.id, null)] : [],
    ),
    ...recordsOf(doc, 'serves')
      .filter((record) => record.area === area.id)
      .map(remove),
    remove(area),
  ]
}

function remove(record: Extract<Op, { op: 'remove' }>['record']): Op {
  return { op: 'remove', record }
}

function set(id: string, field: string, from: string | null, to: string | null): Op {
  return { op: 'set', id, field, from, to }
}
