import { describe, expect, it } from 'vitest'
import { aBook, aLoan, ann, anEdit, aNotice, aShelf, kernel, library } from './testing/shelf.ts'
import { recordSet } from './declare.ts'

const problems = (input: unknown): string[] => {
  const result = kernel.readEdit(input)
  if (result.ok) return []
  return result.code === 'newer'
    ? [`newer ${result.schema}`]
    : result.problems.map((p) => `${p.path}: ${p.message}`)
}
const one = aBook('one')

describe('reading an edit from outside', () => {
  it('takes a right one as it is', () => {
    const edit = anEdit([
      { op: 'add', record: one },
      { op: 'set', id: 'book:one', field: 'title', from: 'hall', to: 'attic' },
      { op: 'remove', record: aShelf('a') },
    ])
    expect(kernel.readEdit(edit)).toEqual({ ok: true, edits: [edit] })
  })

  it.each<[string, unknown, string]>([
    [
      'a wrong value',
      { op: 'set', id: 'book:a', field: 'pages', from: 1, to: 0 },
      'pages: must be at least 1',
    ],
    [
      'an unknown field',
      { op: 'set', id: 'book:a', field: 'colour', from: 1, to: 2 },
      'colour: is no field of a book that can be set',
    ],
    [
      'a field of every object',
      { op: 'set', id: 'book:a', field: 'constructor', from: 1, to: 2 },
      'constructor: is no field of a book that can be set',
    ],
    [
      'the id itself',
      { op: 'set', id: 'book:a', field: 'id', from: 'book:a', to: 'book:b' },
      'id: is no field of a book that can be set',
    ],
    [
      'the maker of a named record',
      { op: 'set', id: 'notice:a', field: 'made', from: null, to: aNotice('a').made },
      'made: of a notice record is who made it and when: it is never set',
    ],
    [
      'changed evidence',
      { op: 'set', id: 'loan:a', field: 'until', from: '', to: '' },
      'ops.0: a loan record is evidence: it is corrected by a later one, never changed',
    ],
    [
      'removed evidence',
      { op: 'remove', record: aLoan('a') },
      'ops.0: a loan record is evidence: it is corrected by a later one, never removed',
    ],
    [
      'evidence removed under another type',
      { op: 'remove', record: { ...aLoan('a'), type: 'book' } },
      'ops.0: names no known kind of record',
    ],
    [
      'what stays',
      { op: 'remove', record: { id: 'desk:main', type: 'desk', motto: '' } },
      'ops.0: the desk record cannot be removed',
    ],
    [
      'an unknown type',
      { op: 'add', record: { id: 'x:1', type: 'x' } },
      'ops.0.record: has type "x"; known types are shelf, book, desk, notice, loan',
    ],
    [
      'an unknown id',
      { op: 'set', id: 'x:1', field: 'a', from: 1, to: 2 },
      'ops.0.id: names no known kind of record',
    ],
    [
      'an odd id',
      { op: 'add', record: { ...one, id: 'shelf:one' } },
      'ops.0.record.id: must begin with "book:" and fit its record',
    ],
    [
      'an id that its record does not have',
      { op: 'add', record: { id: 'desk:other', type: 'desk', motto: '' } },
      'ops.0.record.id: must begin with "desk:" and fit its record',
    ],
    [
      'an extra field',
      { op: 'add', record: { ...one, colour: 'red' } },
      'ops.0.record.colour: is not a known field here',
    ],
    [
      'the time of a named record',
      { op: 'set', id: 'notice:a', field: 'at', from: '', to: '2026-05-04T09:30:00Z' },
      'at: of a notice record is who made it and when: it is never set',
    ],
    [
      'the time of a record that has none',
      { op: 'set', id: 'book:a', field: 'at', from: '', to: '2026-05-04T09:30:00Z' },
      'at: is no field of a book that can be set',
    ],
    [
      'a removal under an id of no known type',
      { op: 'remove', record: { ...one, id: 'x:1' } },
      'ops.0: names no known kind of record',
    ],
    [
      'a type that every object has',
      { op: 'add', record: { id: 'constructor:1', type: 'constructor' } },
      'ops.0.record: has type "constructor"; known types are shelf, book, desk, notice, loan',
    ],
  ])('refuses %s by name', (_what, op, message) => {
    expect(problems({ ...anEdit([]), ops: [op] })).toEqual([message])
  })

  it('keeps evidence an edit of its own', () => {
    const mixed = anEdit([
      { op: 'add', record: aLoan('a') },
      { op: 'add', record: one },
    ])
    expect(problems(mixed)).toEqual([
      'ops: must be evidence alone or plan alone: evidence is an edit of its own',
    ])
    expect(
      problems(
        anEdit([
          { op: 'add', record: aLoan('a') },
          { op: 'add', record: aLoan('b') },
        ]),
      ),
    ).toEqual([])
  })

  it('lets the text of a named record be set', () => {
    expect(
      problems(anEdit([{ op: 'set', id: 'notice:a', field: 'says', from: 'quiet', to: 'hush' }])),
    ).toEqual([])
  })

  it.each([
    [
      'id',
      ['edit-001', 'A'.repeat(40)],
      ['edit-01', 'A'.repeat(41), 'edit 0001', ' edit-0001', 'edit-0001\n'],
    ],
    ['kind', ['undo', 'zone.label'], ['u', 'Undo', '1undo', 'undo!', ' undo', 'undo ', 'u'.repeat(61)]],
    ['undoes', ['', 'edit-0001', 'A'.repeat(40)], ['A'.repeat(41)]],
    ['redoes', ['', 'edit-0001', 'A'.repeat(40)], ['A'.repeat(41)]],
    ['schema', [3], [0, 2.5]],
  ])('takes only a right %s', (field, right, wrong) => {
    const edit = anEdit([{ op: 'add', record: one }])
    for (const value of right) expect([value, problems({ ...edit, [field]: value })]).toEqual([value, []])
    for (const value of wrong)
      expect([value, problems({ ...edit, [field]: value })]).toEqual([
        value,
        [expect.stringMatching(new RegExp(`^${field}: `))],
      ])
  })

  it('says of what is no record that it is none', () => {
    for (const value of [null, 'book', 7, [], {}, { type: null }])
      expect(kernel.recordProblems(value)).toHaveLength(1)
    expect(kernel.recordProblems(null, 'records.1')).toEqual([
      { path: 'records.1', message: 'has type ""; known types are shelf, book, desk, notice, loan' },
    ])
    expect(kernel.recordProblems(one)).toEqual([])
  })

  it('names a value by where it stands, or by its field', () => {
    expect(kernel.fieldProblems({ type: 'book', field: 'pages' }, 0)).toEqual([
      { path: 'pages', message: 'must be at least 1' },
    ])
    expect(kernel.fieldProblems({ type: 'book', field: 'pages', root: 'cell' }, 0)).toEqual([
      { path: 'cell', message: 'must be at least 1' },
    ])
    expect(kernel.fieldProblems({ type: 'book', field: 'colour' }, 0)[0]?.path).toBe('colour')
    expect(kernel.fieldProblems({ type: 'book', field: 'colour', root: 'cell' }, 0)[0]?.path).toBe('cell')
    expect(kernel.fieldProblems({ type: 'x', field: 'title' }, '')).toHaveLength(1)
    expect(kernel.fieldProblems({ type: 'book', field: 'pages' }, 12)).toEqual([])
  })

  it('names what is missing around the ops', () => {
    expect(problems({ ...anEdit([]), id: 3, by: 7 })).toEqual([
      'id: must be a text',
      'by: must be a person with id and name',
      'ops: must have at least 1 entry',
    ])
    expect(problems(null)).toEqual([': must be an object'])
  })

  it('holds an edit of newer shapes instead of calling it invalid', () => {
    expect(
      problems({ ...anEdit([]), schema: 4, ops: [{ op: 'add', record: { id: 'new:1', type: 'new' } }] }),
    ).toEqual(['newer 4'])
  })
})

it('declares a type once', () => {
  const [shelf] = Object.values(library.types)
  expect(() => recordSet('x', 1, shelf ? [shelf, shelf] : [])).toThrow('shelf is declared twice')
  expect(kernel.isEvidenceEdit(anEdit([{ op: 'add', record: aLoan('a', ann) }]))).toBe(true)
  expect(kernel.isEvidenceEdit(anEdit([{ op: 'set', id: 'loan:a', field: 'until', from: '', to: '' }]))).toBe(
    false,
  )
  expect(kernel.isEvidenceEdit(anEdit([{ op: 'remove', record: aLoan('a') }]))).toBe(false)
  expect(['book:1', 'x:1', 'book', 'constructor:1'].map((id) => kernel.typeNamed(id))).toEqual([
    'book',
    null,
    null,
    null,
  ])
  expect(kernel.isEvidence('x')).toBe(false)
  expect([kernel.isEvidence('loan'), kernel.isEvidence('book'), kernel.isEvidence(null)]).toEqual([
    true,
    false,
    false,
  ])
})

it('gives each kind of record what its declaration brings with it', () => {
  const { book, notice, loan } = library.types
  expect(
    [book, notice, loan].map((type) => type && [type.is, type.named, type.removable, type.times]),
  ).toEqual([
    ['plan', false, true, []],
    ['plan', true, true, []],
    ['evidence', true, false, ['until']],
  ])
  expect([book, notice, loan].map((type) => type && Object.keys(type.fields))).toEqual([
    ['title', 'shelf', 'pages', 'order'],
    ['says', 'made', 'at'],
    ['book', 'until', 'made', 'at', 'corrects'],
  ])
  expect(book?.fields.title).toMatchObject({ words: 'title', unit: '', refers: null })
  expect(['shelf:a', null, 7].map((value) => book?.fields.shelf?.refers?.(value))).toEqual([
    'shelf:a',
    null,
    null,
  ])
  expect(
    [aBook('one'), aLoan('a'), aNotice('a'), aShelf('a')].map((record) => kernel.recordProblems(record)),
  ).toEqual([[], [], [], []])
})
