import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Catalogue } from '../catalogue/catalogue.ts'
import { keepEntry } from '../catalogue/written.ts'
import { inventId } from '../air/air.ts'
import { catalogue } from '../testing/small-job.ts'
import { seededRandom } from '../units/random.ts'
import { groupId } from './sticker.ts'
import { identify } from './identify.ts'

const keptFamily = (id: string) => {
  const family = catalogue.get('family', `family/${id}`)
  if (!family) throw new Error(id)
  return family
}
const families = (text: string) => identify(catalogue, text).could.map((item) => item.family.name)

const rank = (encryption: string): number => ['none', 'optional', 'always'].indexOf(encryption)

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

  /** The plain families first: a Wren that is taken for a Wren C is never heard by the panel that was chosen for it. */
  it.each([
    // Typed as a letter O, eight signs fit Wren C; with a zero they are eight digits. 2·3+0+4·3+1+7·3+7+3·3+3 = 59: no Dunlin.
    [
      '2O41 7733',
      [
        ['Wren', '20417733', 'O'],
        ['Wren C', '2O417733', null],
      ],
    ],
    // 4·3+1+0·3+3+7·3+2+5·3+6 = 60: the check digit of a Dunlin fits as well.
    [
      '41O3 7256',
      [
        ['Wren', '41037256', 'O'],
        ['Dunlin', '41037256', 'O'],
        ['Wren C', '41O37256', null],
      ],
    ],
    [
      'K2O4118',
      [
        ['Curlew 8', 'K204118', 'O'],
        ['Curlew 9', 'K204118', 'O'],
      ],
    ],
    ['3F9AOC', [['Plover', '3F9A0C', 'O']]],
    ['3F 9AOC', [['Plover', '3F9A0C', 'O']]],
    ['9CO4F211B7', [['Shearwater', '9C04F211B7', 'O']]],
    [
      '2041 773Z',
      [
        ['Wren', '20417732', 'Z'],
        ['Wren C', '2041773Z', null],
      ],
    ],
    [
      '2041 77S3',
      [
        ['Wren', '20417753', 'S'],
        ['Wren C', '204177S3', null],
      ],
    ],
    // As they are: nothing is in doubt.
    [
      '2041 7733',
      [
        ['Wren', '20417733', null],
        ['Wren C', '20417733', null],
      ],
    ],
    [
      'K204118',
      [
        ['Curlew 8', 'K204118', null],
        ['Curlew 9', 'K204118', null],
      ],
    ],
  ])('%s is offered in every reading that one confusion explains', (text, readings) => {
    const said = identify(catalogue, text).could.map(({ family, serial, instead }) => [
      ...[family.name, serial, instead?.typed ?? null],
    ])
    expect(said.map((one) => one.join(' ')).sort()).toEqual(readings.map((one) => one.join(' ')).sort())
    const encryptions = identify(catalogue, text).could.map(({ family }) => family.encryption ?? '')
    if (said.some(([, , typed]) => typed !== null))
      expect([...encryptions].sort((a, b) => rank(a) - rank(b))).toEqual(encryptions)
  })

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

  /**
   * By hand: 1 to begin with, 1.5 off per digit left out, 5 for a check digit, 2 for the whole sticker's length, 2 for its groups,
   * 4 for words that name a model; for the signs 4 where a letter goes in front, 2 or −1 for hexadecimal with and without
   * letters, 1 for digits, 1 or −2 for letters and digits.
   */
  it.each([
    ['K204118', 'Curlew 8', 1 + 2 + 4],
    ['K 204 118', 'Curlew 8', 1 + 2 + 4 + 2],
    ['K 2041 18', 'Curlew 8', 1 + 2 + 4],
    ['4103 7256', 'Dunlin', 1 + 5 + 2 + 1 + 2],
    ['4103 7256', 'Wren', 1 + 2 + 1 + 2],
    ['4103 7256', 'Wren C', 1 - 2 + 2],
    ['41037256', 'Wren C', 1 - 2],
    ['9Q2K41XB', 'Wren C', 1 + 1],
    ['HS7A9Q2K41XBZZ', 'Wren C', 1 + 2 + 1],
    ['3f9a0c', 'Plover', 1 + 2 + 2],
    ['3F9 A0C', 'Plover', 1 + 2 + 2 + 2],
    ['204177', 'Plover', 1 + 2 - 1],
    ['pebble 3F9A0C', 'Plover', 1 + 2 + 2 + 4],
    ['Sill 8 K 204 118', 'Curlew 8', 1 - 1.5 + 2 + 4 + 2 + 4],
    ['Herald K204118', 'Curlew 8', 1 + 2 + 4 + 4],
    // The last word of a name says what kind of thing it is, and a word of two letters names nothing.
    ['siren K204118', 'Curlew 8', 1 + 2 + 4],
    ['co K204118', 'Curlew 8', 1 + 2 + 4],
  ])('weighs “%s” as %s: %d', (text, name, score) => {
    expect(identify(catalogue, text).could.find((item) => item.family.name === name)?.score).toBe(score)
  })

  it.each([
    [
      'K 204 118',
      'Curlew 8',
      [
        'it has the 7 characters of a Curlew 8 sticker',
        'one letter, then digits',
        'it is grouped 1-3-3 as on a Curlew 8 sticker',
      ],
    ],
    [
      'HS7A9Q2K41XBZZ',
      'Wren C',
      ['it has the 14 characters of a Wren C sticker; the ID is characters 5 to 12', 'letters and digits'],
    ],
    [
      '9Q2K41XB',
      'Wren C',
      ['it has the 8 characters of a Wren C ID, without the rest of the sticker', 'letters and digits'],
    ],
    [
      '204177',
      'Plover',
      ['it has the 6 characters of a Plover sticker', 'digits only, which is rare where letters may stand'],
    ],
    [
      '41037256',
      'Wren C',
      [
        'it has the 8 characters of a Wren C ID, without the rest of the sticker',
        'digits only, which is rare there',
      ],
    ],
    ['12345678', 'Wren', ['it has the 8 characters of a Wren sticker', 'digits only']],
    [
      'Herald K204118',
      'Curlew 8',
      [
        'the words on it name Herald 8 siren',
        'it has the 7 characters of a Curlew 8 sticker',
        'one letter, then digits',
      ],
    ],
  ])('says why “%s” could be %s', (text, name, reasons) => {
    expect(identify(catalogue, text).could.find((item) => item.family.name === name)?.reasons).toEqual(
      reasons,
    )
  })

  it('puts likelier families first, and those alike by their names', () => {
    expect(families('4103 7256')).toEqual(['Dunlin', 'Wren', 'Wren C'])
    // Two families of one rule whose ids stand the other way round than their names.
    const rule = keptFamily('curlew-8')
    const two = new Catalogue([
      keepEntry({ ...rule, id: 'family/aa', name: 'Zander' }),
      keepEntry({ ...rule, id: 'family/zz', name: 'Arbel' }),
    ])
    expect(identify(two, 'K204118').could.map((item) => item.family.name)).toEqual(['Arbel', 'Zander'])
  })

  it.each([
    // Two digits of a model’s name may be left out, three not.
    ['Sill 88 K204118', ['Curlew 8', 'Curlew 9']],
    ['Sills 888 K204118', []],
    // What is no sign of an ID is passed over with its digits.
    ['K204118 §12345', ['Curlew 8', 'Curlew 9']],
    ['12345§ K204118', ['Curlew 8', 'Curlew 9']],
    // The first 24 words and 200 characters are looked at.
    [`K204118 ${'ab '.repeat(30)}99999`, ['Curlew 8', 'Curlew 9']],
    [`${' '.repeat(200)}K204118`, []],
    // Seven pieces are no ID any more; the last six could be one.
    ['K 2 0 4 1 1 8', ['Plover']],
    // Letters alone are taken whole or not at all: a word is no ID.
    ['facade', ['Plover']],
    ['facade hello', []],
  ])('reads out of “%s” %j', (text, names) => expect(families(text)).toEqual(names))

  it('names the whole text’s fault, not that of a piece of it', () => {
    const fault = (text: string) =>
      identify(catalogue, text).not.find((item) => item.family.name === 'Wren')?.reason
    expect(fault('204177 x')).toContain('“X”')
    expect(fault('204177 1')).toContain('this has 7')
    expect(fault('')).toBe('There is no ID in it.')
  })

  it('lists all models of the family once, the named ones first', () => {
    const models = identify(catalogue, 'watcher K204118').could[0]?.models ?? []
    expect(models.slice(0, 3).map((model) => model.name)).toEqual([
      'Watcher 8 motion',
      'Watcher Pet 8 motion',
      'Watcher Look 8 camera motion',
    ])
    const own = catalogue.all('device').filter((model) => model.family === 'family/curlew-8')
    expect(models).toHaveLength(own.length)
    expect(new Set(models)).toEqual(new Set(own))
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
