import type { Doc } from '../records/ops.ts'
import { SCHEMA, type JobInfo, type JobRecord, type RecordNamed, type RecordType } from './records.ts'

/** One premises' system: flat records by id. Values are never changed in place. */
export type JobDocument = Doc<JobRecord>

/** A document without any record; the first edit of a job adds `job:main`. */
export const emptyDocument: JobDocument = Object.freeze({ schema: SCHEMA, records: Object.freeze({}) })

const listsByDocument = new WeakMap<JobDocument, Map<RecordType, readonly JobRecord[]>>()

/**
 * All records of one type in their shown order; evidence by its time, or where its device's clock was doubtful by when it
 * was taken. The same document gives the same array each time.
 */
export function recordsOf<T extends RecordType>(doc: JobDocument, type: T): readonly RecordNamed<T>[] {
  let lists = listsByDocument.get(doc)
  if (!lists) {
    lists = sortIntoLists(doc)
    listsByDocument.set(doc, lists)
  }
  return (lists.get(type) ?? []) as readonly RecordNamed<T>[]
}

/** One record by id and type, or null when there is none of that type. */
export function recordOf<T extends RecordType>(
  doc: JobDocument,
  type: T,
  id: string | null,
): RecordNamed<T> | null {
  const record = id === null ? undefined : doc.records[id]
  return record?.type === type ? (record as RecordNamed<T>) : null
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
  if (!('made' in record)) return ''
  return record.made.clockDoubtful && record.made.takenAt ? record.made.takenAt : record.at
}

function byText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0
}

/** Whether a job is practice; a document that no job is begun in is not. */
export function isPractice(doc: JobDocument): boolean {
  return recordOf(doc, 'job', 'job:main')?.practice ?? false
}
