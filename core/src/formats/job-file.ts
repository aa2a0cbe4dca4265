import { z } from 'zod'
import { readPack } from '../catalogue/pack.ts'
import type { CatalogueEntry } from '../catalogue/schema.ts'
import { emptyDocument, recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps, recordProblems, type Op } from '../job/edit.ts'
import type { JobRecord } from '../job/records.ts'
import { upgradeDocument } from '../job/upgrades.ts'
import { hashOf } from '../units/canonical.ts'
import { check, type Problem } from '../units/problem.ts'

/** Number of the job file form. */
export const JOB_FILE_FORMAT = 1

/** What a job file holds once read: ops that make the job, and the entries it pins. */
export type JobFileResult =
  | {
      readonly ok: true
      readonly ops: readonly Op[]
      readonly document: JobDocument
      readonly entries: readonly CatalogueEntry[]
    }
  | { readonly ok: false; readonly problems: readonly Problem[] }

const outer = z.strictObject({
  kapelleJob: z.number('must be the form number of a Kapelle job file, such as 1').int().min(1),
  schema: z.number().int().min(1),
  id: z.string().max(60),
  entries: z.array(z.unknown()).max(5000),
  records: z
    .array(z.looseObject({ id: z.string(), type: z.string() }))
    .min(1)
    .max(20_000),
})

/**
 * A job as one open JSON file: its records, and a copy of every catalogue entry it pins. It holds no secrets and no
 * journal. Keys and records are in a fixed order, so that the same job always gives the same bytes.
 */
export function writeJobFile(id: string, document: JobDocument, entries: readonly CatalogueEntry[]): string {
  const hashes = new Set(recordsOf(document, 'pin').map((pin) => pin.hash))
  const pinned = entries.filter((entry) => hashes.has(hashOf(entry))).sort(byId)
  const records = Object.values(document.records).sort(byId)
  const file = { kapelleJob: JOB_FILE_FORMAT, schema: document.schema, id, entries: pinned, records }
  return `${JSON.stringify(sortKeys(file), null, 2)}\n`
}

/** Reads a job file: everything or nothing, with each problem named. */
export function readJobFile(input: unknown): JobFileResult {
  const shape = check(outer, input)
  if (!shape.ok) return shape
  const file = shape.value
  if (file.kapelleJob > JOB_FILE_FORMAT)
    return fail(
      'kapelleJob',
      `is ${file.kapelleJob}: this file was written by a newer version of Kapelle; this one reads form ${JOB_FILE_FORMAT}`,
    )
  const twice = firstTwice(file.records.map((record) => record.id))
  if (twice !== null) return fail(twice, 'stands twice in this file')
  const raw = Object.fromEntries(file.records.map((record) => [record.id, record]))
  const upgraded = upgradeDocument({ schema: file.schema, records: raw })
  if (!upgraded.ok) return fail('schema', upgraded.reason)
  const records = Object.values(upgraded.value.records)
  const problems = records.flatMap((record) => recordProblems(record, record.id))
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, 50) }
  const entries = readEntries(file.entries, records)
  if (!entries.ok) return entries
  const ops = records.sort(inOrder).map((record): Op => ({ op: 'add', record }))
  const applied = applyOps(emptyDocument, ops)
  if (!applied.ok)
    return fail(
      applied.conflict.id,
      `${applied.conflict.field ?? 'it'} points at something that is not in this file`,
    )
  if (!('job:main' in applied.doc.records)) return fail('records', 'must contain the record job:main')
  return { ok: true, ops, document: applied.doc, entries: entries.entries }
}

function readEntries(raw: readonly unknown[], records: readonly JobRecord[]): ReturnType<typeof readPack> {
  const pins = records.filter((record) => record.type === 'pin')
  if (raw.length === 0 && pins.length === 0) return { ok: true, entries: [] }
  const read = readPack({ kapellePack: 1, title: 'job file', entries: raw }, looseKnown(raw))
  if (!read.ok) return read
  const hashes = new Map(read.entries.map((entry) => [entry.id, hashOf(entry)]))
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

/** A job file carries only what it pins; what those entries point at beyond may be missing. */
function looseKnown(raw: readonly unknown[]): CatalogueEntry[] {
  const targets = new Set<string>()
  JSON.stringify(raw, (_key, value: unknown) => {
    if (typeof value === 'string' && /^(family|receiver|device)\/[a-z0-9-]+$/.test(value)) targets.add(value)
    return value
  })
  return [...targets].map((id) => ({ id }) as CatalogueEntry)
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
