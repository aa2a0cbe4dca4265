import { describe, expect, it } from 'vitest'
import type { JournalEntry } from './journal.ts'
import { aBook, aLoan, anEdit, kernel, type LibraryEdit, type LibraryRecord } from './testing/shelf.ts'
import { NewerShape, upgradeOps } from './upgrade.ts'

/** A book as shape 1 had it: a name, and no page count. */
const oldBook = (key: string, name: string) => {
  const { title: _title, pages: _pages, ...rest } = aBook(key)
  return { ...rest, name } as unknown as LibraryRecord
}
const entries = (...edits: readonly Partial<LibraryEdit>[]): JournalEntry<LibraryRecord>[] =>
  edits.map((edit, index) => ({
    revision: index + 1,
    takenAt: '2026-01-01T00:00:00Z',
    edit: { ...anEdit([]), id: `edit-${index}`, ...edit },
  }))

describe('documents', () => {
  it('come to the shapes in force step by step, and the same document each time', () => {
    const old = { schema: 1, records: { 'book:one': oldBook('one', 'Atlas') } }
    const now = kernel.upgraded(old)
    expect(now).toEqual({ schema: 3, records: { 'book:one': aBook('one', { title: 'Atlas', pages: null }) } })
    expect(kernel.upgraded(old)).toBe(now)
    expect(kernel.upgraded(now)).toBe(now)
    const second = { ...oldBook('one', 'Atlas'), pages: 40 } as unknown as LibraryRecord
    expect(kernel.upgraded({ schema: 2, records: { 'book:one': second } }).records['book:one']).toEqual(
      aBook('one', { title: 'Atlas', pages: 40 }),
    )
  })

  it('of newer shapes are refused by name', () => {
    expect(() => kernel.upgraded({ schema: 9, records: {} })).toThrow(NewerShape)
    expect(() => kernel.upgraded({ schema: 9, records: {} })).toThrow('shape 9; this one reads up to 3')
  })

  it('are brought there by ordinary ops, which leave alone what did not change', () => {
    const old = {
      schema: 1,
      records: {
        'book:one': oldBook('one', 'Atlas'),
        'shelf:a': { id: 'shelf:a', type: 'shelf', name: 'a' } as const,
      },
    }
    const ops = upgradeOps(old, kernel.upgraded(old))
    expect(ops).toEqual([
      { op: 'remove', record: oldBook('one', 'Atlas') },
      { op: 'add', record: aBook('one', { title: 'Atlas' }) },
    ])
    expect(
      kernel.replay(
        entries(
          { schema: 1, ops: [...upgradeOps({ schema: 1, records: {} }, old)] },
          { kind: 'upgrade', ops },
        ),
      ),
    ).toEqual(kernel.upgraded(old))
  })
})

describe('a journal', () => {
  it('of older shapes is put in raw, and comes to a newer number where its entries do', () => {
    const doc = kernel.replay(
      entries(
        { schema: 1, ops: [{ op: 'add', record: oldBook('one', 'Atlas') }] },
        { schema: 1, ops: [{ op: 'set', id: 'book:one', field: 'name', from: 'never so', to: 'Maps' }] },
        // The next build counted pages and wrote no upgrade of its own.
        { schema: 2, ops: [{ op: 'set', id: 'book:one', field: 'pages', from: null, to: 12 }] },
      ),
    )
    expect(doc).toEqual({ schema: 2, records: { 'book:one': { ...oldBook('one', 'Maps'), pages: 12 } } })
  })

  it('with an entry of newer shapes is refused, not guessed at', () => {
    expect(() => kernel.replay(entries({ schema: 4, ops: [{ op: 'add', record: aBook('one') }] }))).toThrow(
      NewerShape,
    )
  })

  it('in the shapes in force must apply', () => {
    const wrong = entries(
      { ops: [{ op: 'add', record: aBook('one') }] },
      { ops: [{ op: 'set', id: 'book:one', field: 'title', from: 'never so', to: 'x' }] },
    )
    expect(() => kernel.replay(wrong)).toThrow('revision 2 does not apply (changed book:one)')
  })
})

describe('a waiting edit', () => {
  const read = (edit: unknown) => kernel.readEdit(edit)

  it('brings its records by their step and its fields by their map, from too', () => {
    expect(
      read({
        ...anEdit([]),
        schema: 1,
        by: 'Ann',
        ops: [
          { op: 'add', record: oldBook('one', 'Atlas') },
          { op: 'set', id: 'book:one', field: 'name', from: 'Atlas', to: 'Maps' },
          { op: 'set', id: 'shelf:a', field: 'name', from: 'a', to: 'b' },
        ],
      }),
    ).toEqual({
      ok: true,
      edits: [
        {
          ...anEdit([]),
          by: { id: null, name: 'Ann' },
          ops: [
            { op: 'add', record: aBook('one', { title: 'Atlas' }) },
            { op: 'set', id: 'book:one', field: 'title', from: 'Atlas', to: 'Maps' },
            { op: 'set', id: 'shelf:a', field: 'name', from: 'a', to: 'b' },
          ],
        },
      ],
    })
  })

  it('says what has no place any more', () => {
    expect(
      read({
        ...anEdit([]),
        schema: 2,
        ops: [{ op: 'set', id: 'book:one', field: 'colour', from: 1, to: 2 }],
      }),
    ).toMatchObject({ ok: false, code: 'invalid', problems: [{ path: 'colour' }] })
  })

  it('that held evidence beside a plan becomes two, evidence first', () => {
    const result = read({
      ...anEdit([]),
      schema: 2,
      ops: [
        { op: 'add', record: aBook('one') },
        { op: 'add', record: aLoan('a') },
      ],
    })
    expect(result.ok && result.edits.map((edit) => [edit.id, edit.ops.length])).toEqual([
      ['edit-0001', 1],
      ['edit-0001-p', 1],
    ])
    expect(result.ok && result.edits[0]?.ops[0]).toMatchObject({ record: { type: 'loan' } })
  })
})
