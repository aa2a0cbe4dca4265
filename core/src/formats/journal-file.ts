import { z } from 'zod'
import { entriesShape, readEntries, writeEntries, writtenEntries } from '../catalogue/pack.ts'
import { PACK_FORMAT, type KeptEntry } from '../catalogue/written.ts'
import { emptyDocument, type JobDocument } from '../job/document.ts'
import { readEdit, replay, type Edit } from '../job/edit.ts'
import { check, type Problem } from '../units/problem.ts'

/** Number of the journal file form. */
const JOURNAL_FORMAT = 1

/** A job as it came to be: its edits in order, and the entries they pin. */
export type JournalFileResult =
  | {
      readonly ok: true
      readonly id: string
      readonly edits: readonly Edit[]
      readonly entries: readonly KeptEntry[]
      /** What the edits make of nothing. */
      readonly document: JobDocument
    }
  | { readonly ok: false; readonly problems: readonly Problem[] }

const outer = z.strictObject({
  kapelleJournal: z.number('must be the form number of a Kapelle journal file, such as 1').int().min(1),
  id: z.string().max(60),
  ...entriesShape,
  edits: z.array(z.unknown()).min(1).max(20_000),
})

/** Edits in order as one open JSON file, with a copy of every entry they pin, as it was written. */
export function writeJournalFile(id: string, edits: readonly Edit[], entries: readonly KeptEntry[]): string {
  const hashes = new Set(
    edits.flatMap((edit) =>
      edit.ops.flatMap((op) => (op.op === 'add' && op.record.type === 'pin' ? [op.record.hash] : [])),
    ),
  )
  const file = {
    kapelleJournal: JOURNAL_FORMAT,
    id,
    ...writeEntries(entries.filter((item) => hashes.has(item.hash))),
    edits,
  }
  return `${JSON.stringify(file, null, 2)}\n`
}

/** Reads a journal file, everything or nothing: each edit must read and apply on those before it. */
export function readJournalFile(input: unknown): JournalFileResult {
  const shape = check(outer, input)
  if (!shape.ok) return shape
  const file = shape.value
  if (file.kapelleJournal > JOURNAL_FORMAT)
    return fail(
      'kapelleJournal',
      `is ${file.kapelleJournal}: written by a newer version of Kapelle; this one reads form ${JOURNAL_FORMAT}`,
    )
  const entries = readEntries(writtenEntries(file, PACK_FORMAT))
  if (!entries.ok) return entries
  const edits: Edit[] = []
  let document = emptyDocument
  for (const [index, raw] of file.edits.entries()) {
    const read = readEdit(raw, document)
    if (!read.ok)
      return read.code === 'invalid'
        ? {
            ok: false,
            problems: read.problems.map((one) => ({ ...one, path: `edits.${index}.${one.path}` })),
          }
        : fail(`edits.${index}.schema`, `is ${read.schema}: written by a newer version of Kapelle`)
    try {
      const entry = (edit: Edit) => ({ revision: index + 1, edit, takenAt: edit.madeAt })
      document = replay(read.edits.map(entry), document)
    } catch (error) {
      return fail(`edits.${index}`, error instanceof Error ? error.message : 'does not apply')
    }
    edits.push(...read.edits)
  }
  return { ok: true, id: file.id, edits, entries: entries.entries, document }
}

function fail(path: string, message: string): { ok: false; problems: Problem[] } {
  return { ok: false, problems: [{ path, message }] }
}
