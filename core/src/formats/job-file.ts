import { z } from 'zod'
import {
  entriesShape,
  readEntries,
  writeEntries,
  writtenEntries,
  type PackResult,
} from '../catalogue/pack.ts'
import { PACK_FORMAT, type KeptEntry } from '../catalogue/written.ts'
import { emptyDocument, recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps, isEvidence, recordProblems, upgraded, type Op } from '../job/edit.ts'
import { SCHEMA, type JobRecord } from '../job/records.ts'
import { check, type Problem } from '../units/problem.ts'

/** Number of the job file form. Form 2 keeps entries written in an older pack form apart. */
const JOB_FILE_FORMAT = 2

/** What a job file holds once read: ops that make the job, evidence apart, and the entries it pins. */
export type JobFileResult =
  | {
      readonly ok: true
      /** Ops of the plan. */
      readonly plan: readonly Op[]
      /** Ops of the evidence, each piece told by the file. */
      readonly told: readonly Op[]
      readonly document: JobDocument
      readonly entries: readonly KeptEntry[]
    }
  | { readonly ok: false; readonly problems: readonly Problem[] }

const outer = z.strictObject({
  kapelleJob: z.number('must be the form number of a Kapelle job file, such as 2').int().min(1),
  schema: z.number().int().min(1),
  id: z.string().max(60),
  ...entriesShape,
  records: z
    .array(z.looseObject({ id: z.string(), type: z.string() }))
    .min(1)
    .max(20_000),
})

/**
 * A job as one open JSON file: its records, and a copy of every catalogue entry it pins, as it was written. It holds no
 * secrets and no journal. Keys and records are in a fixed order, so that the same job always gives the same bytes.
 */
export function writeJobFile(id: string, document: JobDocument, entries: readonly KeptEntry[]): string {
  const hashes = new Set(recordsOf(document, 'pin').map((pin) => pin.hash))
  const pinned = entries.filter((item) => hashes.has(item.hash))
  const records = Object.values(document.records).sort(byId)
  const file = {
    kapelleJob: JOB_FILE_FORMAT,
    schema: document.schema,
    id,
    ...writeEntries(pinned),
    records,
  }
  return `${JSON.stringify(sortKeys(file), null, 2)}\n`
}

/**
 * Reads a job file: everything or nothing, with each problem named. Its evidence was made elsewhere: it is told by the file,
 * and counts for nothing until it is repeated here.
 */
export function readJobFile(input: unknown): JobFileResult {
  const shape = check(outer, input)
  if (!shape.ok) return shape
  const file = shape.value
  if (file.kapelleJob > JOB_FILE_FORMAT)
    return fail(
      'kapelleJob',
      `is ${file.kapelleJob}: this file was written by a newer version of Kapelle; this one reads form ${JOB_FILE_FORMAT}`,
    )
  if (file.schema > SCHEMA)
    return fail(
      'schema',
      `is ${file.schema}: this file was written by a newer version of Kapelle, update this one first; it reads up to ${SCHEMA}`,
    )
  const twice = firstTwice(file.records.map((record) => record.id))
  if (twice !== null) return fail(twice, 'stands twice in this file')
  const raw = Object.fromEntries(file.records.map((record) => [record.id, record]))
  const records = Object.values(upgraded({ schema: file.schema, records: raw }).records)
  const problems = records.flatMap((record) => recordProblems(record, record.id))
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, 50) }
  // Form 1 of a job file held entries of the first pack form.
  const written = writtenEntries(file, file.kapelleJob === 1 ? 1 : PACK_FORMAT)
  const entries = readPinned(written, records)
  if (!entries.ok) return entries
  const ops = records.sort(inOrder).map((record): Op => ({ op: 'add', record: toldRecord(record) }))
  const applied = applyOps(emptyDocument, ops)
  if (!applied.ok)
    return fail(
      applied.conflict.id,
      `${applied.conflict.field ?? 'it'} points at something that is not in this file`,
    )
  if (!('job:main' in applied.doc.records)) return fail('records', 'must contain the record job:main')
  const proof = (op: Op): boolean => op.op === 'add' && isEvidence(op.record.type)
  return {
    ok: true,
    plan: ops.filter((op) => !proof(op)),
    told: ops.filter(proof),
    document: applied.doc,
    entries: entries.entries,
  }
}

/** What bears a maker's name is told by the file, whoever it names. */
function toldRecord(record: JobRecord): JobRecord {
  return 'made' in record ? { ...record, made: { ...record.made, told: 'file' } } : record
}

function readPinned(
  written: readonly { readonly raw: unknown; readonly form: number }[],
  records: readonly JobRecord[],
): PackResult {
  const pins = records.filter((record) => record.type === 'pin')
  const read = readEntries(written)
  if (!read.ok) return read
  const hashes = new Map(read.entries.map((item) => [item.entry.id, item.hash]))
  const wrong = pins.filter((pin) => hashes.get(pin.entry) !== pin.hash)
  return wrong.length === 0
    ? read
    : {
        ok: false,
        problems: wrong.map((pin) => ({
          path: pin.id,
          message: `pins ${pin.entry} under a hash that no entry of this file has`,
        })),
      }
}

function sortKeys(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sortKeys)
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(
    Object.entries(value)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, member]) => [key, sortKeys(member)]),
  )
}

function inOrder(a: JobRecord, b: JobRecord): number {
  const rank = (record: JobRecord): number => (record.type === 'pin' ? 0 : record.type === 'job' ? 1 : 2)
  return rank(a) - rank(b) || byId(a, b)
}

function byId(a: { readonly id: string }, b: { readonly id: string }): number {
  return a.id < b.id ? -1 : a.id > b.id ? 1 : 0
}

function firstTwice(ids: readonly string[]): string | null {
  const seen = new Set<string>()
  return ids.find((id) => seen.has(id) || !seen.add(id)) ?? null
}

function fail(path: string, message: string): { ok: false; problems: Problem[] } {
  return { ok: false, problems: [{ path, message }] }
}
