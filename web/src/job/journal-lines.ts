import { UPGRADE, type Catalogue, type JobDocument, type JournalEntry, type Op } from '#core'
import { opLines } from '../store/ops-words.ts'

/** Whether an edit bears on one of these records. */
export function touches(entry: JournalEntry, ids: ReadonlySet<string>): boolean {
  return entry.edit.ops.some((op) => ids.has(idOf(op)))
}

/** What an edit did as whole lines: `zone 12, response: follow → entry 1`. With ids, only those of these records. */
export function journalLines(
  doc: JobDocument,
  catalogue: Catalogue,
  entry: JournalEntry,
  ids: ReadonlySet<string> | null,
): string[] {
  // An upgrade touches every record and says nothing new of any.
  if (entry.edit.kind === UPGRADE) return []
  const ops = ids ? entry.edit.ops.filter((op) => ids.has(idOf(op))) : entry.edit.ops
  return opLines(doc, catalogue, ops).map((line) =>
    line.from === '' && line.to === ''
      ? line.what
      : line.from === ''
        ? `${line.what}: ${line.to}`
        : `${line.what}: ${line.from} → ${line.to}`,
  )
}

function idOf(op: Op): string {
  return op.op === 'set' ? op.id : op.record.id
}
