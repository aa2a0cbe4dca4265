import { describe, expect, it } from 'vitest'
import type { Doc } from './ops.ts'
import { lastTouch, UPGRADE, type JournalEntry } from './journal.ts'
import {
  aBook,
  aLoan,
  ann,
  anEdit,
  bob,
  kernel,
  type Book as BookRecord,
  type LibraryEdit,
  type LibraryOp,
  type LibraryRecord,
} from './testing/shelf.ts'
import type { Person } from './fields.ts'

const { planUndo, replay, undoStacks } = kernel
const set = (field: string, from: unknown, to: unknown): LibraryOp => ({
  op: 'set',
  id: 'book:one',
  field,
  from,
  to,
})

class Journal {
  doc: Doc<LibraryRecord> = kernel.empty
  readonly entries: JournalEntry<LibraryRecord>[] = []

  constructor() {
    this.write(ann, [{ op: 'add', record: aBook('one') }])
  }

  write(
    by: Person,
    ops: readonly LibraryOp[],
    extra: Partial<LibraryEdit> = {},
  ): JournalEntry<LibraryRecord> {
    const result = kernel.applyOps(this.doc, ops)
    if (!result.ok) throw new Error(result.conflict.code)
    this.doc = result.doc
    const revision = this.entries.length + 1
    const edit = anEdit(result.took, { id: `edit-${revision}`, by, ...extra })
    const entry = { revision, edit, takenAt: edit.madeAt }
    this.entries.push(entry)
    return entry
  }

  next(by: Person) {
    const { undo, redo } = undoStacks(this.entries, by)
    return { undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null }
  }

  undo(by: Person): void {
    const entry = this.next(by).undo
    if (entry) this.write(by, planUndo(this.doc, entry).ops, { kind: 'undo', undoes: entry.edit.id })
  }

  redo(by: Person): void {
    const entry = this.next(by).redo
    if (entry) this.write(by, planUndo(this.doc, entry).ops, { kind: 'redo', redoes: entry.edit.id })
  }

  get book() {
    return this.doc.records['book:one'] as BookRecord
  }
}

describe('undo', () => {
  it("takes back mine and leaves a colleague's", () => {
    const book = new Journal()
    book.write(ann, [set('title', 'hall', 'attic')])
    book.write(bob, [set('pages', null, 12)])
    book.undo(ann)
    expect(book.book).toMatchObject({ title: 'hall', pages: 12 })
  })

  it('offers what is left when a colleague changed part', () => {
    const book = new Journal()
    const mine = book.write(ann, [set('title', 'hall', 'attic'), set('pages', null, 12)])
    book.write(bob, [set('title', 'attic', 'loft')])
    const plan = planUndo(book.doc, mine)
    expect(plan.ops).toEqual([set('pages', 12, null)])
    expect(plan.conflicts).toEqual([
      { code: 'changed', id: 'book:one', field: 'title', yours: 'hall', theirs: 'loft' },
    ])
    expect(lastTouch(book.entries, 'book:one', 'title')?.edit.by).toEqual(bob)
  })

  it('goes back step by step and forth again', () => {
    const book = new Journal()
    book.write(ann, [set('title', 'hall', 'attic')])
    book.write(ann, [set('title', 'attic', 'loft')])
    book.undo(ann)
    book.undo(ann)
    expect(book.book.title).toBe('hall')
    book.redo(ann)
    expect(book.book.title).toBe('attic')
    book.redo(ann)
    expect(book.book.title).toBe('loft')
    expect(book.next(ann).redo).toBeNull()
    book.undo(ann)
    expect(book.book.title).toBe('attic')
  })

  it('forgets the way forth after another edit', () => {
    const book = new Journal()
    book.write(ann, [set('title', 'hall', 'attic')])
    book.undo(ann)
    book.write(ann, [set('pages', null, 12)])
    expect(book.next(ann).redo).toBeNull()
  })

  it('passes over evidence', () => {
    const book = new Journal()
    const mine = book.write(ann, [set('title', 'hall', 'attic')])
    book.write(ann, [{ op: 'add', record: aLoan('a') }])
    expect(book.next(ann).undo).toBe(mine)
  })

  it('goes by the person, not by the name', () => {
    const book = new Journal()
    book.write({ id: 'other', name: 'Ann' }, [set('title', 'hall', 'attic')])
    expect(book.next(ann).undo?.revision).toBe(1)
    expect(book.next({ id: 'ann', name: 'Ann Renamed' }).undo?.revision).toBe(1)
  })

  it('stops at an upgrade and at older shapes', () => {
    const book = new Journal()
    book.write(ann, [set('title', 'hall', 'attic')])
    book.undo(ann)
    book.write({ id: null, name: 'Kapelle' }, [set('pages', null, 3)], { kind: UPGRADE })
    expect(book.next(ann)).toEqual({ undo: null, redo: null })
    const mine = book.write(ann, [set('title', 'hall', 'loft')])
    expect(book.next(ann).undo).toBe(mine)
    const old = { ...mine, edit: { ...mine.edit, schema: 2 } }
    expect(undoStacks([old], ann)).toEqual({ undo: [], redo: [] })
    // Nobody is named as having changed what an upgrade changed.
    expect(lastTouch(book.entries, 'book:one', 'pages')?.revision).toBe(1)
  })

  it('goes on from stacks that were known before', () => {
    const book = new Journal()
    book.write(ann, [set('title', 'hall', 'attic')])
    const before = undoStacks(book.entries, ann)
    const known = book.entries.length
    book.undo(ann)
    book.write(bob, [set('pages', null, 9)])
    expect(undoStacks(book.entries.slice(known), ann, before)).toEqual(undoStacks(book.entries, ann))
  })

  it('goes on from a redo that was known before', () => {
    const book = new Journal()
    book.write(ann, [set('title', 'hall', 'attic')])
    book.undo(ann)
    const before = undoStacks(book.entries, ann)
    const known = book.entries.length
    book.write(bob, [set('pages', null, 9)])
    expect(undoStacks(book.entries.slice(known), ann, before)).toEqual(undoStacks(book.entries, ann))
    expect(undoStacks(book.entries, ann).redo).toMatchObject([{ edit: { kind: 'undo' }, undid: 'book.set' }])
  })

  it('brings back what it no longer knows the undone edit of', () => {
    const book = new Journal()
    book.write(ann, [set('title', 'hall', 'attic')])
    book.undo(ann)
    const [undo] = book.entries.slice(2)
    expect(undo && undoStacks([undo], ann)).toEqual({ undo: [], redo: [undo] })
  })

  it('gives what takes effect, not what is so already', () => {
    const book = new Journal()
    const mine = book.write(ann, [set('title', 'hall', 'attic'), set('pages', null, 12)])
    book.write(bob, [set('title', 'attic', 'hall')])
    expect(planUndo(book.doc, mine)).toEqual({ ops: [set('pages', 12, null)], conflicts: [] })
  })

  it('knows who touched a field last, and who the record', () => {
    const book = new Journal()
    book.write(bob, [{ op: 'add', record: aBook('two') }])
    book.write(ann, [set('title', 'hall', 'attic'), set('pages', null, 12)])
    const other = book.write(bob, [{ ...set('pages', null, 4), id: 'book:two' } as LibraryOp])
    const touched = (id: string, field: string | null) => lastTouch(book.entries, id, field)?.revision ?? null
    expect([touched('book:one', 'pages'), touched('book:one', 'title'), touched('book:one', null)]).toEqual([
      3, 3, 3,
    ])
    expect([touched('book:one', 'shelf'), touched('book:two', 'title'), touched('book:two', null)]).toEqual([
      1,
      2,
      other.revision,
    ])
    expect(touched('book:three', null)).toBeNull()
  })

  it('replays to the same document', () => {
    const book = new Journal()
    book.write(ann, [set('title', 'hall', 'attic')])
    book.undo(ann)
    expect(replay(book.entries)).toEqual(book.doc)
    expect(() => replay(book.entries.slice(1))).toThrow('revision 2 does not apply')
  })
})
