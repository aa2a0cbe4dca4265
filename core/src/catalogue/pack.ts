import { z } from 'zod'
import { check, type Problem } from '../units/problem.ts'
import { hashOf } from '../units/canonical.ts'
import type { Catalogue } from './catalogue.ts'
import type { CatalogueEntry } from './schema.ts'
import { interfaceProblems } from './interface-check.ts'
import { pointersOf } from './pointers.ts'
import { entrySchema } from './schema.ts'
import { signatureShape, type Signature } from './signed.ts'
import { PACK_FORMAT, upgradedEntry, type KeptEntry } from './written.ts'

/** What reading a pack gave: all its entries, or every problem found and no entry. */
export type PackResult =
  | { readonly ok: true; readonly entries: readonly KeptEntry[] }
  | { readonly ok: false; readonly problems: readonly Problem[] }

/** How a file holds entries: those of its own form, and apart those written in an older one. */
export const entriesShape = {
  entries: z.array(z.unknown()).max(5000),
  older: z
    .array(
      z.strictObject({
        form: z.number().int().min(1).max(PACK_FORMAT),
        entries: z.array(z.unknown()).max(5000),
      }),
    )
    .max(PACK_FORMAT)
    .optional(),
}

const outer = z
  .strictObject({
    kapellePack: z.number('must be the pack form number').int().min(1),
    title: z.string().min(1).max(120),
    signature: signatureShape.optional(),
    ...entriesShape,
  })
  .refine((pack) => pack.entries.length + (pack.older ?? []).length > 0, {
    path: ['entries'],
    message: 'must have at least 1 entry',
  })

/**
 * Reads a catalogue pack. `known` are entries already there, which the pack's own may point at.
 * Every problem names the entry by its id, the field, and what is allowed.
 */
export function readPack(input: unknown, known: readonly CatalogueEntry[] = []): PackResult {
  const shape = check(outer, input)
  if (!shape.ok) return { ok: false, problems: shape.problems }
  if (shape.value.kapellePack > PACK_FORMAT)
    return {
      ok: false,
      problems: [
        {
          path: 'kapellePack',
          message: `is ${shape.value.kapellePack}; this Kapelle reads up to ${PACK_FORMAT}`,
        },
      ],
    }
  const read = readEntries(writtenEntries(shape.value, shape.value.kapellePack))
  if (!read.ok) return read
  const problems = entryProblems(
    read.entries.map((item) => item.entry),
    known,
  )
  return problems.length > 0 ? { ok: false, problems } : read
}

/** Reads entries as they were written, each in its form: the hash is of the raw entry, the check of what it reads as. */
export function readEntries(
  written: readonly { readonly raw: unknown; readonly form: number }[],
): PackResult {
  const entries: KeptEntry[] = []
  const problems: Problem[] = []
  written.forEach(({ raw, form }, index) => {
    const result = check(entrySchema, upgradedEntry(raw, form), nameOf(raw, index))
    if (result.ok) entries.push({ hash: hashOf(raw), form, raw, entry: result.value })
    else problems.push(...result.problems)
    if (result.ok) problems.push(...ownProblems(result.value))
  })
  return problems.length > 0 ? { ok: false, problems } : { ok: true, entries }
}

/** Most bytes of a pack, as UTF-8 JSON. */
export const PACK_LIMIT = 5_000_000

/** How an entry of a pack stands to the catalogue: by its hash, whatever its version label says. */
export interface PackChange {
  readonly entry: KeptEntry
  readonly state: 'new' | 'changed' | 'same'
}

/** What importing these entries would do, entry by entry. */
export function comparePack(entries: readonly KeptEntry[], catalogue: Catalogue): PackChange[] {
  const there = new Set(catalogue.entries.map((entry) => entry.id))
  return entries.map((kept) => {
    const { id } = kept.entry
    if (!there.has(id)) return { entry: kept, state: 'new' }
    return { entry: kept, state: catalogue.hash(id) === kept.hash ? 'same' : 'changed' }
  })
}

/** Entries as a pack, each as it was written: reading it gives entries of the same hashes. Signed where `sign` does that. */
export function writePack(
  title: string,
  entries: readonly KeptEntry[],
  sign: ((pack: object) => Signature) | null = null,
): string {
  const pack = { kapellePack: PACK_FORMAT, title, ...writeEntries(entries) }
  return `${JSON.stringify({ ...pack, ...(sign ? { signature: sign(pack) } : {}) }, null, 2)}\n`
}

/** Entries as a file holds them: those of the form in force, and apart from them those written in an older one. */
export function writeEntries(entries: readonly KeptEntry[]): {
  readonly entries: readonly unknown[]
  readonly older?: readonly { readonly form: number; readonly entries: readonly unknown[] }[]
} {
  const sorted = [...entries].sort((a, b) => (a.entry.id < b.entry.id ? -1 : 1))
  const written = (form: number): unknown[] =>
    sorted.filter((item) => item.form === form).map((item) => item.raw)
  const forms = [...new Set(sorted.map((item) => item.form))].filter((form) => form !== PACK_FORMAT).sort()
  const older = forms.map((form) => ({ form, entries: written(form) }))
  return { entries: written(PACK_FORMAT), ...(older.length > 0 ? { older } : {}) }
}

/** Entries of a file as they were written, each with its form. */
export function writtenEntries(
  file: Readonly<z.infer<z.ZodObject<typeof entriesShape>>>,
  form: number,
): { readonly raw: unknown; readonly form: number }[] {
  return [
    ...file.entries.map((raw) => ({ raw, form })),
    ...(file.older ?? []).flatMap((group) => group.entries.map((raw) => ({ raw, form: group.form }))),
  ]
}

/** The JSON Schema of a pack, made from the schemas that read it. */
export function packJsonSchema(): unknown {
  return z.toJSONSchema(z.strictObject({ ...outer.shape, entries: z.array(entrySchema).max(5000) }), {
    io: 'input',
  })
}

function nameOf(raw: unknown, index: number): string {
  const id = typeof raw === 'object' && raw !== null && 'id' in raw ? raw.id : null
  return typeof id === 'string' && id.length < 80 ? id : `entries.${index}`
}

function entryProblems(entries: readonly CatalogueEntry[], known: readonly CatalogueEntry[]): Problem[] {
  const problems: Problem[] = []
  const ids = new Set<string>()
  for (const entry of entries) {
    if (ids.has(entry.id)) problems.push({ path: entry.id, message: 'stands twice in this pack' })
    ids.add(entry.id)
  }
  for (const entry of known) ids.add(entry.id)
  for (const entry of entries) {
    for (const [field, target] of pointersOf(entry))
      if (!ids.has(target))
        problems.push({
          path: `${entry.id}.${field}`,
          message: `points at ${target}, which is not in this pack nor in the catalogue`,
        })
  }
  return problems
}

function ownProblems(entry: CatalogueEntry): Problem[] {
  if (entry.kind === 'device') return deviceProblems(entry)
  if (entry.kind === 'panel') return panelProblems(entry)
  if (entry.kind === 'interface') return interfaceProblems(entry)
  if (entry.kind !== 'family') return []
  const { sticker, bandMHz } = entry
  const problems: Problem[] = []
  const size = sticker.idTo - sticker.idFrom + 1
  if (size < 1 || sticker.idTo > sticker.length)
    problems.push({ path: `${entry.id}.sticker.idTo`, message: 'must lie within the sticker, behind idFrom' })
  else if (sum(sticker.groups) !== size)
    problems.push({
      path: `${entry.id}.sticker.groups`,
      message: `must add up to the ID's ${size} characters`,
    })
  if (bandMHz.to < bandMHz.from)
    problems.push({ path: `${entry.id}.bandMHz.to`, message: 'must not lie below bandMHz.from' })
  return problems
}

function deviceProblems(entry: Extract<CatalogueEntry, { kind: 'device' }>): Problem[] {
  const problems: Problem[] = []
  const loops = entry.loops.map((item) => item.loop)
  if (new Set(loops).size !== loops.length)
    problems.push({ path: `${entry.id}.loops`, message: 'must not use a loop number twice' })
  if (entry.slot === 'none' && entry.class !== 'repeater' && loops.length === 0)
    problems.push({ path: `${entry.id}.loops`, message: 'must have a loop, or the device a slot' })
  if ((entry.family === null) !== (entry.way === null))
    problems.push({ path: `${entry.id}.way`, message: 'must be given with a family and only then' })
  return problems
}

function panelProblems(entry: Extract<CatalogueEntry, { kind: 'panel' }>): Problem[] {
  const problems: Problem[] = []
  if (entry.builtIn && !entry.receivers.includes(entry.builtIn))
    problems.push({ path: `${entry.id}.builtIn`, message: 'must be one of receivers' })
  entry.blocks.forEach((block, index) => {
    if (block.to < block.from)
      problems.push({ path: `${entry.id}.blocks.${index}.to`, message: 'must not lie below from' })
  })
  for (const [key, field] of Object.entries(entry.delays))
    if (field && field.max < field.min)
      problems.push({ path: `${entry.id}.delays.${key}.max`, message: 'must not lie below min' })
  const types = entry.responseTypes.map((type) => type.key)
  if (new Set(types).size !== types.length)
    problems.push({ path: `${entry.id}.responseTypes`, message: 'must not use a key twice' })
  return problems
}

function sum(values: readonly number[]): number {
  return values.reduce((total, value) => total + value, 0)
}
