import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mergedAnswer, type TwoAnswers } from './merged-answer.ts'

type Value = TwoAnswers['from']
const reed = { event: 'open', loop: 1, name: 'reed' }
const lid = { event: 'tamper', loop: null, name: 'lid' }
const wire = { event: 'terminals', loop: 2, name: 'wire' }
const heat = { event: 'heat', loop: 3, name: 'heat' }

describe('two answers to one question', () => {
  it.each<[string, Value, Value, Value, Value]>([
    ['each adds a row', [reed], [reed, lid], [reed, wire], [reed, wire, lid]],
    ['each begins the rows', undefined, [lid], [wire], [wire, lid]],
    ['both add the same row', [reed], [reed, lid], [reed, lid], [reed, lid]],
    ['both add the same and one more', [], [lid, heat], [lid, wire], [lid, wire, heat]],
    [
      'each changes another row',
      [reed, lid],
      [{ ...reed, loop: 4 }, lid],
      [reed, { ...lid, loop: 5 }],
      [
        { ...reed, loop: 4 },
        { ...lid, loop: 5 },
      ],
    ],
    [
      'each changes another cell of one row',
      [reed],
      [{ ...reed, loop: 4 }],
      [{ ...reed, name: 'magnet' }],
      [{ ...reed, loop: 4, name: 'magnet' }],
    ],
    [
      'one adds behind the row that the other changes',
      [reed],
      [reed, lid],
      [{ ...reed, loop: 4 }],
      [{ ...reed, loop: 4 }, lid],
    ],
    [
      'one takes a row away, the other adds one',
      [reed, lid, wire],
      [lid, wire],
      [reed, lid, wire, heat],
      [lid, wire, heat],
    ],
    ['both take the same row away', [reed, lid], [lid], [lid], [lid]],
    ['one changes the order, the other nothing', [reed, lid], [lid, reed], [reed, lid], [lid, reed]],
    [
      'one puts a row in before the one that the other changes',
      [reed, lid],
      [reed, { ...lid, loop: 3 }],
      [reed, wire, lid],
      [reed, wire, { ...lid, loop: 3 }],
    ],
    ['names of a choice of several', ['a', 'b'], ['a', 'b', 'c'], ['b'], ['b', 'c']],
    [
      'cells of one answer',
      { entry: 1, exit: 2 },
      { entry: 5, exit: 2 },
      { entry: 1, exit: 6 },
      { entry: 5, exit: 6 },
    ],
    ['a cell that one takes away', { entry: 1, exit: 2 }, { entry: 1 }, { entry: 3, exit: 2 }, { entry: 3 }],
    ['the same word twice', 'a', 'b', 'b', 'b'],
    ['a word that only one said', 'a', 'a', 'b', 'b'],
    ['an answer that one took back and the other left', 4, undefined, 4, undefined],
    ['not stated, said by both', 4, null, null, null],
  ])('%s: both stand', (_, from, mine, theirs, both) => {
    expect(mergedAnswer({ from, mine, theirs })).toEqual({ value: both })
  })

  it.each<[string, Value, Value, Value]>([
    ['two figures', 4, 5, 6],
    ['two first answers', undefined, 5, 6],
    ['one takes back what the other changes', 4, undefined, 6],
    ['not stated against a figure', 4, null, 6],
    ['one cell of one row', [reed], [{ ...reed, loop: 4 }], [{ ...reed, loop: 5 }]],
    ['one cell of one answer', { entry: 1 }, { entry: 2 }, { entry: 3 }],
    ['a row taken away that the other changes', [reed, lid], [lid], [{ ...reed, loop: 4 }, lid]],
    ['rows against not stated', [reed], [reed, lid], null],
    ['rows against cells', [reed], [lid], reed],
    ['a new order and a new row', [reed, lid, wire], [reed, wire, lid], [reed, lid, wire, heat]],
    ['one row in two places', [reed, lid, wire], [lid, reed, wire], [lid, wire, reed]],
    ['two orders', [reed, lid, wire], [wire, reed, lid], [lid, reed, wire]],
  ])('%s: nobody chooses between them', (_, from, mine, theirs) => {
    expect(mergedAnswer({ from, mine, theirs })).toBeNull()
  })

  it('what only one changed stands, and to merge with oneself changes nothing', () => {
    const value = fc.jsonValue({ maxDepth: 2 }) as fc.Arbitrary<Value>
    fc.assert(
      fc.property(value, value, (from, to) => {
        // As it is kept: −0 and what JSON drops are none of it.
        const [was, now] = [from, to].map((one) => JSON.parse(JSON.stringify(one)) as Value)
        expect(mergedAnswer({ from: was, mine: now, theirs: was })).toEqual({ value: now })
        expect(mergedAnswer({ from: was, mine: was, theirs: now })).toEqual({ value: now })
        expect(mergedAnswer({ from: was, mine: now, theirs: now })).toEqual({ value: now })
      }),
    )
  })

  it('rows that each adds are all kept, whoever comes first', () => {
    const rows = fc.uniqueArray(fc.integer({ min: 0, max: 40 }), { maxLength: 6 })
    fc.assert(
      fc.property(rows, rows, rows, (old, one, other) => {
        const from = old.map((n) => ({ n }))
        const mine = [...from, ...one.map((n) => ({ n: n + 100 }))]
        const theirs = [...from, ...other.map((n) => ({ n: n + 200 }))]
        expect(mergedAnswer({ from, mine, theirs })).toEqual({
          value: [...theirs, ...mine.slice(from.length)],
        })
      }),
    )
  })
})
