import { describe, expect, it } from 'vitest'
import type { LabelRule } from '../catalogue/schema.ts'
import { isFiller, isSide, shortForms, spellOut, standsFor } from './label-words.ts'
import { labelTrouble, makeLabel } from './labels.ts'

/** Words that labels are made of and that are too long for 16 letters together: each can be said shorter. */
const long = [
  ...['annexe', 'attic', 'back', 'basement', 'bath', 'bathroom', 'bedroom', 'boiler', 'ceiling'],
  ...['conservatory', 'contact', 'corridor', 'dining', 'door', 'doors', 'downstairs', 'east', 'entrance'],
  ...['family', 'first', 'floor', 'french', 'front', 'garage', 'garden', 'glass', 'ground', 'guest'],
  ...['hallway', 'house', 'inner', 'kitchen', 'landing', 'laundry', 'left', 'living', 'lounge', 'lower'],
  ...['main', 'master', 'middle', 'motion', 'north', 'nursery', 'office', 'outer', 'passage', 'patio'],
  ...['pendant', 'rear', 'right', 'room', 'shower', 'sitting', 'smoke', 'south', 'staircase', 'stairs'],
  ...['storage', 'study', 'terrace', 'toilet', 'upper', 'upstairs', 'utility', 'water', 'west', 'window'],
  ...['wired', 'workshop'],
]
/** Short forms that are not made of the word's own letters. */
const other: Readonly<Record<string, string>> = { first: '1ST', toilet: 'WC' }

describe('a short form', () => {
  it.each(long)('of “%s” is shorter, of its letters in their order, the longest first', (word) => {
    const forms = shortForms(word.toUpperCase())
    expect(forms.length).toBeGreaterThan(0)
    expect([...forms].sort((a, b) => b.length - a.length)).toEqual(forms)
    for (const form of forms) {
      expect(form.length).toBeLessThan(word.length)
      if (form === other[word]) continue
      expect(form.toLowerCase()).toMatch(/^[a-z]+$/)
      const inOrder = new RegExp([...form.toLowerCase()].join('.*'))
      expect([word, form, inOrder.test(word)]).toEqual([word, form, true])
      expect(form.charAt(0).toLowerCase()).toBe(word.charAt(0))
    }
  })

  it('is not known of every word', () => {
    expect(shortForms('kiln')).toEqual([])
  })

  it('tells apart what hangs side by side', () => {
    for (const pair of [
      ['left', 'right'],
      ['front', 'back'],
      ['upper', 'lower'],
      ['north', 'south'],
      ['east', 'west'],
      ['inner', 'outer'],
      ['smoke', 'water'],
    ]) {
      const [a = [], b = []] = pair.map(shortForms)
      expect(a.filter((form) => b.includes(form))).toEqual([])
    }
  })
})

describe('a place by another name', () => {
  /** A panel that has one word for the place, and window. */
  const only = (word: string): LabelRule => ({
    style: 'library',
    entries: 4,
    words: [word, 'Window'].map((text, index) => ({ text, number: String(index + 1) })),
  })
  it.each([
    ['sitting room', 'Lounge'],
    ['parents bedroom', 'Master bedroom'],
    ['spare bedroom', 'Guest room'],
    ['en suite', 'Bathroom'],
    ['cloakroom', 'Toilet'],
    ['basement', 'Cellar'],
    ['roof space', 'Attic'],
    ['foyer', 'Hall'],
    ['corridor', 'Passage'],
    ['laundry room', 'Utility'],
    ['study', 'Office'],
    ['garden shed', 'Shed'],
    ['carport', 'Garage'],
    ['winter garden', 'Conservatory'],
    ['box room', 'Store'],
    ['staircase', 'Stairs'],
    ['vestibule', 'Porch'],
    ['playroom', 'Nursery'],
    ['dining room', 'Dining'],
    ['larder', 'Pantry'],
    ['extension', 'Annexe'],
    ['skylight', 'Roof light'],
    ['balcony door', 'Patio door'],
  ])('%s is said as %s, and the other way round', (place, word) => {
    expect(makeLabel(only(word), { place, thing: 'window' }, new Set())).toBe(`${word} Window`)
    const back = makeLabel(only(place), { place: word, thing: 'window' }, new Set())
    expect(back.toLowerCase()).toBe(`${place} window`)
    expect(labelTrouble(only(word), `${word} window`)).toBeNull()
  })

  it.each([
    ['rear', 'back'],
    ['upstairs', 'upper'],
    ['downstairs', 'lower'],
    ['centre', 'middle'],
    ['3', 'three'],
    ['six', '6'],
  ])('so does the side %s for %s', (side, word) => {
    expect(standsFor(side)).toContain(word)
    expect(standsFor(word)).toContain(side)
  })

  it('never stands for itself, and a word of no group for nothing', () => {
    for (const word of ['lounge', 'hall', 'guest', 'two', 'garden door'])
      expect(standsFor(word)).not.toContain(word)
    expect(standsFor('kiln')).toEqual([])
  })
})

describe('words of a label', () => {
  it('say nothing, or tell one of several alike apart, or neither', () => {
    const fillers = ['room', 'the', 'of', 'and', 'in', 'at', 'by', 'to', 'a']
    const sides = [
      ...['left', 'right', 'front', 'back', 'rear', 'side', 'middle', 'corner', 'upper', 'lower'],
      ...['upstairs', 'downstairs', 'north', 'south', 'east', 'west', 'main', 'guest'],
      ...['one', 'two', 'three', 'four', 'five', 'six', '2', '14'],
    ]
    const things = ['window', 'hall', 'smoke', 'seven', '2nd', 'b2', '']
    for (const word of fillers)
      expect([word, isFiller(word.toUpperCase()), isSide(word)]).toEqual([word, true, false])
    for (const word of sides)
      expect([word, isFiller(word), isSide(word.toUpperCase())]).toEqual([word, false, true])
    for (const word of things) expect([word, isFiller(word), isSide(word)]).toEqual([word, false, false])
  })
})

describe('letters that a panel lacks', () => {
  const has = (signs: string) => (letter: string) => signs.includes(letter)
  const plain = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz'
  it.each([
    ['ä', 'ae'],
    ['ö', 'oe'],
    ['ü', 'ue'],
    ['ß', 'ss'],
    ['æ', 'ae'],
    ['ø', 'oe'],
    ['å', 'aa'],
    ['œ', 'oe'],
    ['þ', 'th'],
    ['ð', 'd'],
    ['ł', 'l'],
    ['é', 'e'],
    ['ñ', 'n'],
    ['č', 'c'],
  ])('%s is written %s, large as it is large', (letter, written) => {
    expect(spellOut(letter, has(plain))).toBe(written)
    const large = letter === 'ß' ? 'ẞ' : letter.toUpperCase()
    expect(spellOut(large, has(plain))).toBe(written.toUpperCase())
    // A panel that has it shows it.
    expect(spellOut(letter, has(plain + letter))).toBe(letter)
  })

  it('go where nothing stands for them, and so does what is still lacking', () => {
    expect(spellOut('a☂b', has(plain))).toBe('ab')
    expect(spellOut('bär', has('br'))).toBe('br')
    expect(spellOut('BÄR', has('BRE'))).toBe('BER')
  })
})
