import type { JobDocument } from '../job/document.ts'
import { holdsNumber } from '../job/enrolment.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { Op } from '../job/edit.ts'
import type { Zone } from '../job/records.ts'

/**
 * Puts a zone into another area. Once the plan was keyed that is two acts at the panel, so the area it leaves is kept
 * until both are done; going back to it before then leaves nothing to do.
 */
export function moveToAreaOps(doc: JobDocument, zone: Zone, to: string | null): Op[] {
  if (zone.area === to) return []
  const set = (field: 'area' | 'leaves', value: string | null): Op[] =>
    zone[field] === value ? [] : [{ op: 'set', id: zone.id, field, from: zone[field], to: value }]
  const from = zone.leaves ?? (isKeyed(doc, zone) ? zone.area : null)
  return [...set('area', to), ...set('leaves', from === to ? null : from)]
}

/** Whether the panel already has the zone: its ID was learned, or the summary was read back. */
function isKeyed(doc: JobDocument, zone: Zone): boolean {
  return holdsNumber(doc, zone) || evidenceOf(doc, 'signoff').some((record) => record.what === 'read-back')
}
