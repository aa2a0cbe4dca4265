import { madeBy, type Person } from '../records/fields.ts'
import { jobInfo, recordOf, recordsOf, type JobDocument } from './document.ts'
import type { AsItWas, Device, JobRecord, RecordNamed, Zone } from './records.ts'

type Evidence = Extract<JobRecord, { readonly corrects: unknown }>
/** The record types that are evidence. */
export type EvidenceType = Evidence['type']

const standing = new WeakMap<JobDocument, Map<string, readonly JobRecord[]>>()

/**
 * The evidence of one type that counts: not told by a file or an earlier build, and not corrected by a later record.
 * In the order of its time. The same document gives the same array each time.
 */
export function evidenceOf<T extends EvidenceType>(doc: JobDocument, type: T): readonly RecordNamed<T>[] {
  let lists = standing.get(doc)
  if (!lists) standing.set(doc, (lists = new Map()))
  let list = lists.get(type)
  if (!list) {
    const corrected = correctedIds(doc)
    const all: readonly Evidence[] = recordsOf(doc, type)
    list = all.filter((record) => record.made.told === null && !corrected.has(record.id))
    lists.set(type, list)
  }
  return list as readonly RecordNamed<T>[]
}

const corrections = new WeakMap<JobDocument, ReadonlySet<string>>()

/** Ids of evidence that a later record, itself not told, corrects. */
export function correctedIds(doc: JobDocument): ReadonlySet<string> {
  const known = corrections.get(doc)
  if (known) return known
  const ids = new Set<string>()
  for (const id in doc.records) {
    const record = doc.records[id]
    if (record && 'corrects' in record && record.corrects !== null && record.made.told === null)
      ids.add(record.corrects)
  }
  corrections.set(doc, ids)
  return ids
}

/** What every new piece of evidence begins with: its maker, its time, and that it corrects nothing. */
export function freshEvidence(who: Person, at: string) {
  return { made: madeBy(who), at, corrects: null } as const
}

/** A copy of what a piece of evidence names, a zone or a device, as it now is; null where it is not there. */
export function asItIs(doc: JobDocument, subject: string): AsItWas | null {
  const zone = recordOf(doc, 'zone', subject)
  const device = recordOf(doc, 'device', zone ? zone.device : subject)
  if (!device) return null
  const zones = zone ? [zone] : recordsOf(doc, 'zone').filter((item) => item.device === device.id)
  return copyOf(doc, device, zones)
}

function copyOf(doc: JobDocument, device: Device, zones: readonly Zone[]): AsItWas {
  const { id, model, room, position, slot, user } = device
  return {
    panel: jobInfo(doc).panel,
    device: id,
    model,
    room,
    position,
    slot,
    serial: null,
    user,
    zones: zones.slice(0, 32).map(({ id: zone, number, event, loop, response, area }) => ({
      zone,
      number,
      event,
      loop,
      response,
      area,
      serial: null,
      delay: null,
    })),
  }
}
