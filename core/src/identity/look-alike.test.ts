import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Family } from '../catalogue/schema.ts'
import { inventId } from '../air/air.ts'
import { catalogue } from '../testing/small-job.ts'
import { seededRandom } from '../units/random.ts'
import { belongs, lookAlike, LookAlikes, lookAlikeWords, meantFor } from './look-alike.ts'
import { readSticker } from './sticker.ts'

/** The two IDs, what kind of likeness, and its words; by hand from the list of signs that are taken for each other. */
const alike: readonly [string, string, string, string][] = [
  ['K204118', 'K204116', 'confusable', 'character 7 is 8 here and 6 on the sticker'],
  ['9Q2K41XB', '9Q2K41X8', 'confusable', 'character 8 is B here and 8 on the sticker'],
  ['9O2K41XB', '902K41XB', 'confusable', 'character 2 is O here and 0 on the sticker'],
  ['9Q2K4IXB', '9Q2K41XB', 'confusable', 'character 6 is I here and 1 on the sticker'],
  ['S0417733', '50417733', 'confusable', 'character 1 is S here and 5 on the sticker'],
  ['Z0417733', '20417733', 'confusable', 'character 1 is Z here and 2 on the sticker'],
  // Several signs taken for each other at once are one misreading.
  ['SO4I7733', '50417733', 'confusable', 'character 1 is S here and 5 on the sticker'],
  ['20417733', '20417734', 'character', 'character 8 is 3 here and 4 on the sticker'],
  ['20417733', '20471733', 'swapped', 'characters 4 and 5 are swapped, 17 here and 71 on the sticker'],
]

describe('IDs that look alike', () => {
  it.each(alike)('%s and %s: %s', (id, other, kind, words) => {
    const found = lookAlike(id, other)
    expect(found?.kind).toBe(kind)
    expect(found && lookAlikeWords(found, 'on the sticker')).toBe(words)
    expect(lookAlike(other, id)?.kind).toBe(kind)
  })

  it.each([
    ['20417733', '20417733'],
    ['20417733', '2041773'],
    ['20417733', '20417799'],
    ['20417733', '29417739'],
    // Swapped, but not neighbours.
    ['21417735', '25417731'],
    ['', ''],
  ])('%s and %s are not', (id, other) => expect(lookAlike(id, other)).toBeNull())

  it('are found for every family, whichever place is misread', () => {
    const signs = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'
    fc.assert(
      fc.property(
        fc.constantFrom(...catalogue.all('family')),
        fc.nat(1_000_000),
        fc.nat(),
        fc.nat(),
        (family, seed, where, which) => {
          const id = inventId(family, seededRandom(seed))
          const at = where % id.length
          const allowed = [...signs].filter(
            (sign) => belongs(family.sticker.alphabet, sign, at) && sign !== id[at],
          )
          const other = id.slice(0, at) + (allowed[which % allowed.length] ?? '') + id.slice(at + 1)
          expect(lookAlike(other, id)).toMatchObject({ at: at + 1 })
        },
      ),
      { seed: 7, numRuns: 300 },
    )
  })

  it('are found among many as by trying all', () => {
    // Few signs and short, so that likenesses are frequent; of the second set none is taken for another, so that they are swaps.
    const id = fc.string({ unit: fc.constantFrom(...'0O6B8S5X'), minLength: 4, maxLength: 4 })
    const plain = fc.string({ unit: fc.constantFrom(...'03479'), minLength: 3, maxLength: 3 })
    for (const some of [id, plain]) tryAll(some)
  })

  const tryAll = (id: fc.Arbitrary<string>): void =>
    fc.assert(
      fc.property(fc.uniqueArray(id, { maxLength: 40 }), id, (ids, one) => {
        const all = new LookAlikes()
        for (const other of ids) all.add(other, other)
        const tried = ids.filter((other) => {
          const found = lookAlike(one, other)
          return found !== null && found.kind !== 'character'
        })
        expect(
          all
            .near(one)
            .map((found) => found.where)
            .sort(),
        ).toEqual(tried.sort())
      }),
      { seed: 8, numRuns: 300 },
    )

  it('are weighed within the family’s alphabet alone', () => {
    const family = (id: string) => catalogue.get('family', `family/${id}`) as Family
    // Digits only: an O was a zero, a B an 8; a K was nothing that stands there.
    expect(['O', 'B', 'I', 'S', 'Z', 'K'].map((sign) => meantFor(family('wren'), sign, 3))).toEqual([
      ...['0', '8', '1', '5', '2'],
      null,
    ])
    // One letter, then digits: in front a 0 was an O, behind it an O a 0.
    expect([meantFor(family('curlew-8'), '0', 0), meantFor(family('curlew-8'), 'O', 2)]).toEqual(['O', '0'])
    // Hexadecimal: S is no sign of it, and 5 is.
    expect([meantFor(family('plover'), 'S', 1), meantFor(family('plover'), 'G', 1)]).toEqual(['5', null])
  })

  it('are named where a typed sign does not belong', () => {
    const said = (id: string, text: string) => {
      const read = readSticker(catalogue.get('family', `family/${id}`) as Family, text)
      return read.ok ? '' : read.reason
    }
    expect(said('wren', '2O41 7733')).toBe(
      'Wren IDs have digits only; “O”, character 2, does not belong. Was it a 0? Read the sticker again.',
    )
    expect(said('wren', '2K41 7733')).toBe('Wren IDs have digits only; “K”, character 2, does not belong.')
    expect(said('curlew-8', '0204118')).toBe(
      'Curlew 8 IDs have one letter, then digits; “0”, character 1, does not belong. Was it an O? Read the sticker again.',
    )
  })
})
