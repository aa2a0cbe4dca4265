import { z } from 'zod'
import { evidence, field, namedPlan, plan, recordSet, reference, type RecordOf } from '../declare.ts'
import { id, madeBy, name, order, text, type Person } from '../fields.ts'
import { kernelOf } from '../kernel.ts'
import type { Edit } from '../edit.ts'
import type { Op } from '../ops.ts'
import type { Step } from '../upgrade.ts'

/*
 * A small library of its own: shelves with books, house rules of the reading room, and loans as evidence. It has nothing to do
 * with a job, so that what is tested here holds for any set of records.
 */

const shelf = plan({
  type: 'shelf',
  words: 'shelf',
  stage: 'room',
  may: 'installer',
  removable: true,
  idBy: null,
  fields: { name: field('name', name(40)) },
})
const book = plan({
  type: 'book',
  words: 'book',
  stage: 'room',
  may: 'installer',
  removable: true,
  idBy: null,
  fields: {
    title: field('title', text(60)),
    shelf: reference('shelf', id.nullable()),
    pages: field('pages', z.number().int().min(1).max(9999).nullable()),
    order: field('place', order),
  },
})
const desk = plan({
  type: 'desk',
  words: 'desk',
  stage: 'room',
  may: 'owner',
  removable: false,
  idBy: () => 'desk:main',
  fields: { motto: field('motto', text(60)) },
})
const notice = namedPlan({
  type: 'notice',
  words: 'notice',
  stage: 'room',
  may: 'installer',
  removable: true,
  idBy: null,
  fields: { says: field('text', text(60)) },
})
const loan = evidence({
  type: 'loan',
  words: 'loan',
  stage: 'room',
  may: 'installer',
  idBy: null,
  times: ['until'],
  fields: { book: field('book', id), until: field('until', text(40)) },
})

const declarations = [shelf, book, desk, notice, loan] as const
export const library = recordSet('library', 3, declarations)
export type LibraryRecord = RecordOf<(typeof declarations)[number]>
export type Book = RecordOf<typeof book>
export type LibraryOp = Op<LibraryRecord>
export type LibraryEdit = Edit<LibraryRecord>

/** Shape 2 gave books a page count; shape 3 calls a book's `name` its title. */
const steps: readonly Step[] = [
  {
    to: 2,
    record: (raw) => (raw.type === 'book' ? { pages: null, ...raw } : raw),
    records: (records) =>
      Object.fromEntries(
        Object.entries(records).map(([key, raw]) => [
          key,
          raw.type === 'book' ? { pages: null, ...raw } : raw,
        ]),
      ),
    set: (op) => [op],
  },
  {
    to: 3,
    record: titled,
    records: (records) => Object.fromEntries(Object.entries(records).map(([key, raw]) => [key, titled(raw)])),
    set: (op) =>
      op.field === 'colour'
        ? null
        : [op.field === 'name' && op.id.startsWith('book:') ? { ...op, field: 'title' } : op],
  },
]

function titled<T extends { readonly type: string; readonly id: string }>(raw: T): T {
  if (raw.type !== 'book' || !('name' in raw)) return raw
  const { name: title, ...rest } = raw as T & { name: unknown }
  return { ...rest, title } as unknown as T
}

export const kernel = kernelOf<LibraryRecord>(library, steps)

export const ann: Person = { id: 'ann', name: 'Ann' }
export const bob: Person = { id: 'bob', name: 'Bob' }

export function aBook(key: string, over: Partial<Book> = {}): Book {
  return { id: `book:${key}`, type: 'book', title: 'hall', shelf: null, pages: null, order: 1, ...over }
}

export function aShelf(key: string): LibraryRecord {
  return { id: `shelf:${key}`, type: 'shelf', name: key }
}

export function aLoan(key: string, who: Person = ann, at = '2026-05-04T09:30:00Z') {
  return {
    id: `loan:${key}`,
    type: 'loan',
    book: 'book:one',
    until: '2026-05-05T09:30:00Z',
    made: madeBy(who),
    at,
    corrects: null,
  } as const
}

export function aNotice(key: string, who: Person = ann, says = 'quiet') {
  return { id: `notice:${key}`, type: 'notice', says, made: madeBy(who), at: '2026-05-04T09:30:00Z' } as const
}

export function anEdit(ops: readonly LibraryOp[], over: Partial<LibraryEdit> = {}): LibraryEdit {
  return {
    id: 'edit-0001',
    kind: 'book.set',
    schema: 3,
    by: ann,
    madeAt: '2026-01-01T00:00:00Z',
    ops,
    ...over,
  }
}

/** A document with these records in it. */
export function libraryWith(...records: readonly LibraryRecord[]) {
  const result = kernel.applyOps(
    kernel.empty,
    records.map((record) => ({ op: 'add', record })),
  )
  if (!result.ok) throw new Error(JSON.stringify(result.conflict))
  return result.doc
}
