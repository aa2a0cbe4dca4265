import type { PanelModel } from '../catalogue/schema.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Op } from '../job/edit.ts'
import type { Device } from '../job/records.ts'

/** Areas that a keypad or fob sets and unsets; null for all, also where the panel keeps none per keypad. A fob that has zone numbers sets the areas of its zones. */
export function servedAreas(
  doc: JobDocument,
  panel: PanelModel | null,
  device: Device,
): ReadonlySet<string> | null {
  if (!panel?.couplings?.keypadAreas) return null
  if (hasZones(panel, device, doc)) {
    const zones = recordsOf(doc, 'zone').filter((zone) => zone.device === device.id)
    const areas = zones.flatMap((zone) => [zone.area, zone.area2]).filter((area) => area !== null)
    return areas.length === 0 ? null : new Set(areas)
  }
  const mine = recordsOf(doc, 'serves').filter((record) => record.device === device.id)
  return mine.length === 0 ? null : new Set(mine.map((record) => record.area))
}

/** Whether it is a fob whose buttons are zones of their own. */
function hasZones(panel: PanelModel, device: Device, doc: JobDocument): boolean {
  return panel.slots.fobs.by === 'numbers' && recordsOf(doc, 'zone').some((zone) => zone.device === device.id)
}

/** Ops after which a keypad or fob serves just these areas; all of the job's areas are kept as none stated. */
export function serveOps(doc: JobDocument, device: Device, areas: ReadonlySet<string>): Op[] {
  const all = recordsOf(doc, 'area').every((area) => areas.has(area.id))
  const wanted = all ? new Set<string>() : areas
  const there = recordsOf(doc, 'serves').filter((record) => record.device === device.id)
  const kept = new Set(there.map((record) => record.area))
  return [
    ...there.filter((record) => !wanted.has(record.area)).map((record): Op => ({ op: 'remove', record })),
    ...[...wanted]
      .filter((area) => !kept.has(area))
      .map((area): Op => ({
        op: 'add',
        record: { id: servesId(device.id, area), type: 'serves', device: device.id, area },
      })),
  ]
}

/** The same keypad and area give the same id, so that two people saying the same thing say it once. */
function servesId(device: string, area: string): string {
  const tail = (id: string): string => id.slice(id.indexOf(':') + 1)
  return `serves:${tail(device)}.${tail(area)}`
}
