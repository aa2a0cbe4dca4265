import { diffIndices } from 'node-diff3'
import { sameJson } from '../units/canonical.ts'
import { answerOps, answerTo, type Answer, type DraftDocument, type DraftOp } from './records.ts'

type Value = Answer['value'] | undefined
type Cells = Readonly<Record<string, Value>>

/** An answer as it was read, as this person made it, and as somebody else left it meanwhile; undefined where there is none. */
export interface TwoAnswers {
  readonly from: Value
  readonly mine: Value
  readonly theirs: Value
}

/**
 * What two people said of one answer at a time, put together: rows and cells that only one of them changed are theirs, and rows that
 * both added stand one after the other, those that were taken first in front. Nothing is chosen between two: null where both
 * changed the same cell, or one changed what the other took away.
 */
export function mergedAnswer({ from, mine, theirs }: TwoAnswers): { readonly value: Value } | null {
  if (sameJson(mine, theirs) || sameJson(from, mine)) return { value: theirs }
  if (sameJson(from, theirs)) return { value: mine }
  if (Array.isArray(mine) && Array.isArray(theirs))
    return mergedRows({ from: Array.isArray(from) ? from : [], mine, theirs })
  if (!isCells(from) || !isCells(mine) || !isCells(theirs)) return null
  const merged: Record<string, Value> = {}
  for (const key of new Set([...Object.keys(theirs), ...Object.keys(mine)])) {
    const cell = mergedAnswer({ from: from[key], mine: mine[key], theirs: theirs[key] })
    if (!cell) return null
    if (cell.value !== undefined) merged[key] = cell.value
  }
  return { value: merged as Value }
}

/**
 * Ops that say again, of the document as it now stands, what answers said of an earlier one; none where it says so already. Null
 * where something is to be chosen, or where they are about more than answers.
 */
export function mergedOps(doc: DraftDocument, ops: readonly DraftOp[]): readonly DraftOp[] | null {
  const merged: DraftOp[] = []
  for (const op of ops) {
    const said = answered(doc, op)
    const both = said && mergedAnswer({ ...said, theirs: answerTo(doc, said.path)?.value })
    if (!both) return null
    merged.push(...answerOps(doc, said.path, both.value))
  }
  return merged
}

/** What an op says of an answer; null where it says something else. */
function answered(doc: DraftDocument, op: DraftOp): { path: string; from: Value; mine: Value } | null {
  if (op.op === 'add')
    return op.record.type === 'answer'
      ? { path: op.record.path, from: undefined, mine: op.record.value }
      : null
  if (op.op === 'remove')
    return op.record.type === 'answer'
      ? { path: op.record.path, from: op.record.value, mine: undefined }
      : null
  const there = doc.records[op.id]
  if (op.field !== 'value' || there?.type !== 'answer') return null
  return { path: there.path, from: op.from as Value, mine: op.to as Value }
}

type Rows = readonly Value[]

function mergedRows(rows: { readonly from: Rows; readonly mine: Rows; readonly theirs: Rows }) {
  const from = rows.from.map(written)
  const [mine, theirs] = [sideOf(from, rows.mine.map(written)), sideOf(from, rows.theirs.map(written))]
  // Two orders cannot be put together, and neither can one with rows that were put in by the other.
  if (mine.moved || theirs.moved) return null
  const added = (at: number) =>
    [...new Set([...(theirs.added[at] ?? []), ...(mine.added[at] ?? [])])].map(read)
  const merged: Value[] = added(0)
  for (const [at, was] of from.entries()) {
    const row = mergedRow(was, mine.rows[at] ?? null, theirs.rows[at] ?? null)
    if (!row) return null
    merged.push(...row, ...added(at + 1))
  }
  return { value: merged as Value }
}

/** One row that both may have changed: none where one took it away and the other left it as it was; null where something is to be chosen. */
function mergedRow(was: string, mine: string | null, theirs: string | null): readonly Value[] | null {
  if (mine === null || theirs === null) return (mine ?? was) === was && (theirs ?? was) === was ? [] : null
  const row = mergedAnswer({ from: read(was), mine: read(mine), theirs: read(theirs) })
  return row && [row.value]
}

/** What one person made of rows: what each is now, null where it was taken away, and what was put in before each and at the end. */
interface Side {
  readonly rows: (string | null)[]
  readonly added: string[][]
  /** Whether a row now stands elsewhere. */
  readonly moved: boolean
}

function sideOf(from: readonly string[], to: readonly string[]): Side {
  const rows: (string | null)[] = [...from]
  const added: string[][] = [...from, ''].map(() => [])
  for (const { buffer1, buffer2Content: now } of diffIndices([...from], [...to])) {
    const [at, length] = buffer1
    // As many rows or more: they were changed, and those behind put in. Fewer: nobody can tell which of them are left.
    const changed = now.length >= length
    for (let row = 0; row < length; row += 1) rows[at + row] = changed ? (now[row] ?? null) : null
    added[at + length] = changed ? now.slice(length) : now
  }
  const anew = new Set(added.flat())
  return { rows, added, moved: from.some((row, at) => rows[at] === null && anew.has(row)) }
}

function written(value: Value): string {
  return JSON.stringify(value ?? null)
}

function read(text: string): Value {
  return JSON.parse(text) as Value
}

function isCells(value: Value): value is Cells & Value {
  return typeof value === 'object' && value !== null && !Array.isArray(value)
}
