import { describe, expect, it } from 'vitest'
import type { JournalEntry } from './journal.ts'
import {
  aBook,
  aLoan,
  anEdit,
  aShelf,
  kernel,
  type LibraryEdit,
  type LibraryOp,
  type LibraryRecord,
} from './testing/shelf.ts'
import { NewerShape, upgradeDocument, upgradeEdit, upgradeOps, type Step } from './upgrade.ts'

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

  it('of evidence alone stays one, and so does one of now', () => {
    const alone = read({ ...anEdit([]), schema: 2, ops: [{ op: 'add', record: aLoan('a') }] })
    expect(alone.ok && alone.edits.map((edit) => edit.id)).toEqual(['edit-0001'])
    const mixed = anEdit([
      { op: 'add', record: aBook('one') },
      { op: 'add', record: aLoan('a') },
    ])
    expect(read(mixed)).toMatchObject({ ok: false, code: 'invalid' })
  })

  it('that becomes two keeps each id within its length, and each op once', () => {
    const ops: LibraryOp[] = [
      { op: 'add', record: aLoan('a') },
      { op: 'add', record: aBook('one') },
      { op: 'remove', record: aShelf('a') },
    ]
    const result = read({ ...anEdit([]), id: 'a'.repeat(40), schema: 2, ops })
    expect(result.ok && result.edits.map((edit) => [edit.id, edit.ops])).toEqual([
      ['a'.repeat(40), [ops[0]]],
      [`${'a'.repeat(38)}-p`, ops.slice(1)],
    ])
  })
})

describe('the steps', () => {
  /** Each step writes its number behind what was there. */
  const step = (to: number): Step => ({
    to,
    records: (records) =>
      Object.fromEntries(
        Object.entries(records).map(([id, raw]) => [id, { ...raw, went: `${raw.went}${to}` }]),
      ),
    record: (raw) => ({ ...raw, went: `${raw.went}${to}` }),
    set: (op) => [{ ...op, to: `${String(op.to)}${to}` }],
  })
  const steps = [2, 3, 4].map(step)
  const between = [
    [1, 4, '234'],
    [1, 2, '2'],
    [2, 4, '34'],
    [2, 3, '3'],
    [3, 3, ''],
    [4, 3, ''],
  ] as const

  it.each(between)('taken from shape %i to %i are %s', (from, to, went) => {
    const record = { id: 'book:one', type: 'book', went: '' } as never
    const doc = { schema: from, records: { 'book:one': record } }
    const now = upgradeDocument(doc, steps, to)
    expect(now.records['book:one']).toMatchObject({ went })
    expect(now.schema).toBe(Math.max(from, to))
    if (from >= to) expect(now).toBe(doc)
    const edit = {
      ...anEdit([
        { op: 'add', record },
        { op: 'set', id: 'book:one', field: 'title', from: '', to: '' },
      ]),
      schema: from,
    }
    const moved = upgradeEdit(edit, { steps, target: to }, null)
    expect(moved).toMatchObject({
      ok: true,
      edit: {
        schema: Math.max(from, to),
        ops: [
          { op: 'add', record: { went } },
          { op: 'set', to: went },
        ],
      },
    })
    if (from >= to) expect(moved.ok && moved.edit).toBe(edit)
  })

  it('tell each op that is lost, and only those', () => {
    const losing: Step = { ...step(2), set: (op) => (op.field === 'title' ? null : [op]) }
    const lost: LibraryOp = { op: 'set', id: 'book:one', field: 'title', from: '', to: 'x' }
    const edit = { ...anEdit([{ ...lost, field: 'pages' }, lost]), schema: 1 }
    expect(upgradeEdit(edit, { steps: [losing], target: 2 }, null)).toEqual({ ok: false, lost: [lost] })
  })

  it('are written as ops of what went, what changed and what came', () => {
    const from = { schema: 1, records: { 'book:a': aBook('a'), 'book:b': aBook('b'), 'book:c': aBook('c') } }
    const to = {
      schema: 2,
      records: { 'book:b': aBook('b'), 'book:c': aBook('c', { pages: 4 }), 'book:d': aBook('d') },
    }
    expect(upgradeOps<LibraryRecord>(from, to)).toEqual([
      { op: 'remove', record: aBook('a') },
      { op: 'remove', record: aBook('c') },
      { op: 'add', record: aBook('c', { pages: 4 }) },
      { op: 'add', record: aBook('d') },
    ])
  })
})
