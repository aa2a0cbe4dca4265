import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inventId } from '../air/air.ts'
import { catalogue } from '../testing/small-job.ts'
import { seededRandom } from '../units/random.ts'
import { groupId } from './sticker.ts'
import { identify } from './identify.ts'

const families = (text: string) => identify(catalogue, text).could.map((item) => item.family.name)

describe('identifying a sticker', () => {
  it.each([
    // A letter and six digits stand on Curlew stickers only, of either band: the sticker alone does not tell which.
    ['K204118', ['Curlew 8', 'Curlew 9']],
    // Six hexadecimal digits.
    ['3F 9A0C', ['Plover']],
    // Ten hexadecimal digits; were the 9C part of a name, the rest would be a Wren C ID: less likely, and not hidden.
    ['9C 04F2 11B7', ['Shearwater', 'Wren C']],
    // Fourteen characters, the ID being 5 to 12: 9Q2K41XB.
    ['HS7A9Q2K41XBZZ', ['Wren C']],
  ])('%s could be %j', (text, names) => expect(families(text)).toEqual(names))

  it('puts the family with a fitting check digit before the others of eight digits', () => {
    // 3+0+3+0+3+0+3 = 12 with weights 3 and 1 in turn over 1010101; the eighth must be 8.
    expect(families('1010 1018').slice(0, 2)).toEqual(['Dunlin', 'Wren'])
    expect(identify(catalogue, '1010 1018').could[0]?.reasons[0]).toBe(
      'its check digit fits, which one in ten IDs would by chance',
    )
    expect(families('1010 1017')[0]).toBe('Wren')
    const dunlin = identify(catalogue, '1010 1017').not.find((item) => item.family.name === 'Dunlin')
    expect(dunlin?.reason).toContain('check digit')
  })

  it('names the model that the words on it name', () => {
    const [first] = identify(catalogue, 'Skitter Dog  ID 4B 09E1').could
    expect([first?.family.name, first?.models[0]?.name, first?.serial]).toEqual([
      'Plover',
      'Skitter Dog motion',
      '4B09E1',
    ])
    expect(first?.reasons[0]).toBe('the words on it name Skitter Dog motion before 1 like it')
    const models = (text: string) =>
      identify(catalogue, text)
        .could[0]?.models.slice(0, 2)
        .map((model) => model.name)
    expect(models('pebble two 3F9A0C')).toEqual(['Pebble Two contact', 'Pebble contact'])
    expect(models('pebble 3F9A0C')?.[0]).toBe('Pebble contact')
  })

  it('does not take the number of a model for part of the ID', () => {
    const [first] = identify(catalogue, 'Sill 8 K 204 118').could
    expect([first?.family.name, first?.serial, first?.models[0]?.name]).toEqual([
      'Curlew 8',
      'K204118',
      'Sill 8 contact',
    ])
  })

  it('says of each family why it cannot be it', () => {
    const { not } = identify(catalogue, '204177')
    expect(not.find((item) => item.family.name === 'Wren')?.reason).toContain('8 characters')
    expect(not.find((item) => item.family.name === 'Curlew 8')?.reason).toContain('one letter, then digits')
  })

  it('finds nothing in nothing', () => {
    expect(identify(catalogue, '').could).toEqual([])
    expect(identify(catalogue, '  hello there ').could).toEqual([])
  })

  it('finds every family’s own ID, however it is written', () => {
    const all = catalogue.all('family')
    fc.assert(
      fc.property(fc.constantFrom(...all), fc.nat(1_000_000), fc.boolean(), (family, seed, grouped) => {
        const id = inventId(family, seededRandom(seed))
        const text = grouped ? groupId(family, id) : id.toLowerCase()
        const found = identify(catalogue, text).could.find((item) => item.family.id === family.id)
        expect(found?.serial).toBe(id)
      }),
      { seed: 5, numRuns: 300 },
    )
  })

  it('never throws', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300, unit: 'binary' }), (text) => {
        expect(Array.isArray(identify(catalogue, text).could)).toBe(true)
      }),
      { seed: 6, numRuns: 300 },
    )
  })
})
