import { isEvidence } from '../records/declare.ts'
import { seededRandom } from '../units/random.ts'
import type { Problem } from '../units/problem.ts'
import { isPractice, type JobDocument } from './document.ts'
import type { Edit, Op } from './edit.ts'
import { jobRecords, type JobRecord } from './records.ts'

/* A practice job is made as one and stays one: only it hears simulated air, and nothing of it counts as real. */

/** What an edit says was heard or read that cannot be in such a job: simulated air in a real one, anything real in practice. */
export function sourceProblems(head: JobDocument, edit: Pick<Edit, 'ops'>): Problem[] {
  const begun = edit.ops.find((op) => op.op === 'add' && op.record.type === 'job')
  const practice =
    begun?.op === 'add' && begun.record.type === 'job' ? begun.record.practice : isPractice(head)
  return edit.ops.flatMap((op, index): Problem[] => {
    if (op.op !== 'add' || op.record.type !== 'heard' || op.record.made.told !== null) return []
    if ((op.record.source === 'practice') === practice) return []
    return [
      {
        path: `ops.${index}.record.source`,
        message: practice
          ? 'must be practice: this is a practice job, and nothing in it is real'
          : 'must be display, sticker, bridge or station: this is a real job, which hears no simulated air',
      },
    ]
  })
}

/** Plan records that stay behind when a plan is copied: who departs from a house rule decides it anew. */
const leftBehind: readonly JobRecord['type'][] = ['departure']

/**
 * The plan of a job as the beginning of another, practice or real: without evidence, IDs, stickers and departures, and with
 * an air of its own. A whole job's records in one edit, the job first.
 */
export function planCopyOps(
  doc: JobDocument,
  over: { readonly name: string; readonly practice: boolean; readonly airSeed: number },
): Op[] {
  const records = Object.values(doc.records).filter(
    (record) => !isEvidence(jobRecords, record.type) && !leftBehind.includes(record.type),
  )
  const copied = records.map((record): JobRecord => {
    if (record.type === 'job') return { ...record, ...over, airStartedAt: null }
    return record.type === 'device' ? { ...record, sticker: null, stickerUnsure: false } : record
  })
  const job = copied.filter((record) => record.type === 'job')
  const pins = copied.filter((record) => record.type === 'pin')
  const rest = copied.filter((record) => record.type !== 'job' && record.type !== 'pin')
  return [...pins, ...job, ...rest].map((record): Op => ({ op: 'add', record }))
}

/** A name for the copy that says what it is, within what a name holds. */
export function copyName(name: string, practice: boolean): string {
  const ending = practice ? ' (practice)' : ''
  const plain = name.replace(/ \(practice\)$/, '')
  return `${plain.slice(0, 120 - ending.length)}${ending}`
}

/** A seed for a new practice air. */
export function newAirSeed(from: number): number {
  return Math.floor(seededRandom(from >>> 0)() * 4_294_967_295)
}
