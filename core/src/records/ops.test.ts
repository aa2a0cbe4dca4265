import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { runs } from '../testing/runs.ts'
import { aBook, aLoan, aShelf, kernel, libraryWith, type LibraryOp } from './testing/shelf.ts'

const { applyOps, invertOps, partOps } = kernel
const one = aBook('one', { title: 'hall', shelf: 'shelf:a' })
const doc = libraryWith(aShelf('a'), one)
const titles = (from: string, to: string): LibraryOp => ({
  op: 'set',
  id: 'book:one',
  field: 'title',
  from,
  to,
})
const titleOf = (result: ReturnType<typeof applyOps>): unknown =>
  result.ok && (result.doc.records['book:one'] as { title?: string } | undefined)?.title

describe('applying ops', () => {
  it('sets a value that is still what the maker saw', () => {
    expect(titleOf(applyOps(doc, [titles('hall', 'attic')]))).toBe('attic')
    expect(doc.records['book:one']).toBe(one)
  })

  it('leaves a value that is already wanted, and gives the same document', () => {
    const result = applyOps(doc, [titles('cellar', 'hall')])
    expect(result).toEqual({ ok: true, doc, took: [] })
    expect(result.ok && result.doc).toBe(doc)
  })

  it('names both values where another stands', () => {
    expect(applyOps(doc, [titles('cellar', 'attic')])).toEqual({
      ok: false,
      conflict: { code: 'changed', id: 'book:one', field: 'title', yours: 'attic', theirs: 'hall' },
    })
  })

  it('refuses the whole edit for one conflict', () => {
    const result = applyOps(doc, [
      titles('hall', 'attic'),
      { op: 'set', id: 'book:two', field: 'title', from: '', to: 'x' },
    ])
    expect(result).toMatchObject({ ok: false, conflict: { code: 'gone', id: 'book:two', yours: 'x' } })
  })

  it('refuses an add under a taken id, and leaves the same record', () => {
    expect(applyOps(doc, [{ op: 'add', record: aBook('one', { title: 'loft' }) }])).toMatchObject({
      conflict: { code: 'exists', id: 'book:one' },
    })
    expect(applyOps(doc, [{ op: 'add', record: one }])).toMatchObject({ ok: true, took: [] })
  })

  it('knows evidence again though the server has put its maker and times right', () => {
    const loan = aLoan('a')
    const kept = {
      ...loan,
      at: '2026-01-01T00:00:00Z',
      until: 'later',
      made: { ...loan.made, takenAt: loan.at },
    }
    const there = libraryWith(aShelf('a'), one, kept)
    expect(applyOps(there, [{ op: 'add', record: loan }])).toEqual({ ok: true, doc: there, took: [] })
    expect(applyOps(there, [{ op: 'add', record: { ...loan, book: 'book:two' } }])).toMatchObject({
      conflict: { code: 'exists', id: 'loan:a' },
    })
  })

  it('removes a record only as last seen, and refuses what is not there', () => {
    expect(applyOps(doc, [{ op: 'remove', record: { ...one, title: 'loft' } }])).toMatchObject({
      conflict: { code: 'changed', field: 'title', theirs: 'hall' },
    })
    const gone = applyOps(doc, [{ op: 'remove', record: one }])
    expect(gone.ok && Object.keys(gone.doc.records)).toEqual(['shelf:a'])
    expect(applyOps(doc, [{ op: 'remove', record: aBook('two') }])).toMatchObject({
      ok: false,
      conflict: { code: 'gone', id: 'book:two', field: null },
    })
  })

  it('keeps references whole both ways', () => {
    expect(applyOps(doc, [{ op: 'add', record: aBook('two', { shelf: 'shelf:b' }) }])).toMatchObject({
      conflict: { code: 'reference', id: 'book:two', field: 'shelf', yours: 'shelf:b' },
    })
    expect(
      applyOps(doc, [{ op: 'set', id: 'book:one', field: 'shelf', from: 'shelf:a', to: 'shelf:b' }]),
    ).toMatchObject({ conflict: { code: 'reference', field: 'shelf' } })
    expect(applyOps(doc, [{ op: 'remove', record: aShelf('a') }])).toMatchObject({
      conflict: { code: 'reference', id: 'shelf:a', theirs: 'book:one' },
    })
    const both = applyOps(doc, [
      { op: 'remove', record: aShelf('a') },
      { op: 'remove', record: one },
    ])
    expect(both.ok).toBe(true)
  })

  it('parts what still holds from what does not', () => {
    const set = (field: string, from: unknown, to: unknown): LibraryOp => ({
      op: 'set',
      id: 'book:one',
      field,
      from,
      to,
    })
    const part = partOps(doc, [set('title', 'cellar', 'x'), set('pages', null, 12)])
    expect(part.holds).toEqual([set('pages', null, 12)])
    expect(part.conflicts).toMatchObject([{ code: 'changed', field: 'title' }])
  })
})

describe('the inverse', () => {
  it('undoes exactly what was taken', () => {
    const title = fc.constantFrom('hall', 'attic', 'loft', 'shed')
    const key = fc.constantFrom('one', 'two', 'three')
    const record = fc.tuple(key, title).map(([k, r]) => aBook(k, { title: r }))
    const op: fc.Arbitrary<LibraryOp> = fc.oneof(
      fc.record({ op: fc.constant('add' as const), record }),
      fc.record({ op: fc.constant('remove' as const), record }),
      fc.record({
        op: fc.constant('set' as const),
        id: key.map((k) => `book:${k}`),
        field: fc.constant('title'),
        from: title,
        to: title,
      }),
    )
    const start = libraryWith(aBook('one'))
    let taken = 0
    fc.assert(
      fc.property(fc.array(op, { minLength: 1, maxLength: 6 }), (ops) => {
        const forth = applyOps(start, ops)
        if (!forth.ok) return
        const back = applyOps(forth.doc, invertOps(forth.took))
        taken += forth.took.length
        expect(back.ok && back.doc.records).toEqual(start.records)
      }),
      { seed: 7, numRuns: runs(5000) },
    )
    expect(taken).toBeGreaterThan(runs(5000) / 25)
  })

  it('leaves evidence out', () => {
    expect(invertOps([{ op: 'add', record: aLoan('a') }, titles('hall', 'attic')])).toEqual([
      titles('attic', 'hall'),
    ])
  })
})
