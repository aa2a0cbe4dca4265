import type {
  Area,
  Departure,
  Device,
  FixedRules,
  JobInfo,
  JobRecord,
  Opening,
  Pin,
  Receiver,
  RecordType,
  Room,
  Serves,
  Sight,
  Signoff,
  StateEnd,
  SystemUser,
  TemporaryState,
  Terminal,
  TestResult,
  Heard,
  Waiver,
  WaiverEnd,
  Way,
  Zone,
} from './records.ts'
import { SCHEMA } from './records.ts'

/** One premises' system: flat records by id. Values are never changed in place. */
export interface JobDocument {
  /** Number of the record shapes it is written in. */
  readonly schema: number
  /** Every record by its id. */
  readonly records: Readonly<Record<string, JobRecord>>
}

interface TypeMap {
  job: JobInfo
  pin: Pin
  area: Area
  receiver: Receiver
  device: Device
  zone: Zone
  terminal: Terminal
  user: SystemUser
  heard: Heard
  test: TestResult
  state: TemporaryState
  'state-end': StateEnd
  signoff: Signoff
  room: Room
  way: Way
  opening: Opening
  sight: Sight
  serves: Serves
  departure: Departure
  'fixed-rules': FixedRules
  waiver: Waiver
  'waiver-end': WaiverEnd
}

/** A document without any record; the first edit of a job adds `job:main`. */
export const emptyDocument: JobDocument = Object.freeze({ schema: SCHEMA, records: Object.freeze({}) })

const listsByDocument = new WeakMap<JobDocument, Map<RecordType, readonly JobRecord[]>>()

/** All records of one type in their shown order. The same document gives the same array each time. */
export function recordsOf<T extends keyof TypeMap>(doc: JobDocument, type: T): readonly TypeMap[T][] {
  let lists = listsByDocument.get(doc)
  if (!lists) {
    lists = sortIntoLists(doc)
    listsByDocument.set(doc, lists)
  }
  return (lists.get(type) ?? []) as readonly TypeMap[T][]
}

/** One record by id and type, or null when there is none of that type. */
export function recordOf<T extends keyof TypeMap>(
  doc: JobDocument,
  type: T,
  id: string | null,
): TypeMap[T] | null {
  const record = id === null ? undefined : doc.records[id]
  return record?.type === type ? (record as TypeMap[T]) : null
}

/** The job's own facts; throws when the document has not had its first edit. */
export function jobInfo(doc: JobDocument): JobInfo {
  const info = recordOf(doc, 'job', 'job:main')
  if (!info) throw new RangeError('jobInfo: the document has no job:main')
  return info
}

/** The order value that puts a new record of `type` behind all others. */
export function nextOrder(
  doc: JobDocument,
  type: 'area' | 'receiver' | 'device' | 'user' | 'room' | 'way' | 'opening',
): number {
  return recordsOf(doc, type).reduce((highest, record) => Math.max(highest, record.order), 0) + 1
}

function sortIntoLists(doc: JobDocument): Map<RecordType, readonly JobRecord[]> {
  const lists = new Map<RecordType, JobRecord[]>()
  for (const id in doc.records) {
    const record = doc.records[id]
    if (!record) continue
    const list = lists.get(record.type)
    if (list) list.push(record)
    else lists.set(record.type, [record])
  }
  for (const list of lists.values())
    list.sort((a, b) => rank(a) - rank(b) || byText(whenOf(a), whenOf(b)) || byText(a.id, b.id))
  return lists
}

function rank(record: JobRecord): number {
  if ('number' in record) return record.number
  return 'order' in record ? record.order : 0
}

function whenOf(record: JobRecord): string {
  if ('at' in record) return record.at
  return 'since' in record ? record.since : ''
}

function byText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0
}
