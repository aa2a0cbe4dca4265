import { recordsOf, type JobDocument } from './document.ts'
import { setOp, type Op } from './edit.ts'
import type { Area, Device } from './records.ts'

/** What becomes of the zones of a device that is taken out: they go with it, or stay open for a successor. */
export type ZonesThen = 'go' | 'stay'

/** Takes a device out with what it sees and the areas it serves; what was reached through it is freed of it. */
export function removeDeviceOps(doc: JobDocument, device: Device, zones: ZonesThen = 'go'): Op[] {
  const mine = (record: { readonly device: string | null }): boolean => record.device === device.id
  const behind = recordsOf(doc, 'device').filter((other) => other.via === device.id)
  return [
    ...recordsOf(doc, 'zone')
      .filter(mine)
      .map((zone) => (zones === 'go' ? remove(zone) : setOp(zone, 'device', null))),
    ...recordsOf(doc, 'sight').filter(mine).map(remove),
    ...recordsOf(doc, 'serves').filter(mine).map(remove),
    ...behind.map((other) => setOp(other, 'via', null)),
    remove(device),
  ]
}

/** Takes an area out: its zones go to their second area or to `to`; rooms, keypads and moves forget it. */
export function removeAreaOps(doc: JobDocument, area: Area, to: string | null): Op[] {
  return [
    ...recordsOf(doc, 'zone').flatMap((zone) => [
      ...(zone.area === area.id
        ? [
            setOp(zone, 'area', zone.area2 ?? to),
            ...(zone.area2 === null ? [] : [setOp(zone, 'area2', null)]),
          ]
        : []),
      ...(zone.area !== area.id && zone.area2 === area.id ? [setOp(zone, 'area2', null)] : []),
      ...(zone.leaves === area.id ? [setOp(zone, 'leaves', null)] : []),
    ]),
    ...recordsOf(doc, 'room').flatMap((room) => (room.area === area.id ? [setOp(room, 'area', null)] : [])),
    ...recordsOf(doc, 'serves')
      .filter((record) => record.area === area.id)
      .map(remove),
    remove(area),
  ]
}

function remove(record: Extract<Op, { op: 'remove' }>['record']): Op {
  return { op: 'remove', record }
}
