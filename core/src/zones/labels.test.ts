import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import type { LabelRule } from '../catalogue/schema.ts'
import { shortForms } from './label-words.ts'
import {
  fitLabel,
  isBareLabel,
  isDefaultLabel,
  labelKey,
  labelTrouble,
  libraryEntries,
  makeLabel,
  nearestWords,
} from './labels.ts'

const ruleOf = (panel: string): LabelRule => {
  const entry = catalogue.get('panel', `panel/${panel}`)
  if (!entry) throw new Error(panel)
  return entry.label
}
const tarn = { label: ruleOf('tarn-40') }
const morrow = { label: ruleOf('morrow-60') }
const none = new Set<string>()

describe('a label keeps place, side and thing', () => {
  it.each([
    // The Tarn 40's list of 75 words, four of them to a label.
    ['tarn-40', 'boat store', 'window', 'Boat store Window'],
    ['tarn-40', 'pottery studio', 'motion', 'Pottery Studio Motion'],
    ['tarn-40', 'living room', 'motion', 'Lounge Motion'],
    ['tarn-40', 'master bedroom', 'window', 'Main Bedroom Window'],
    ['tarn-40', 'upstairs bathroom', 'window', 'Upper Bathroom Window'],
    ['tarn-40', 'sun room', 'door', 'Conservatory Door'],
    ['tarn-40', 'scullery', 'window', 'Utility Window'],
    ['tarn-40', 'basement', 'water', 'Cellar Water'],
    ['tarn-40', 'spare room', 'window left', 'Guest Bedroom Window Left'],
    ['tarn-40', 'utility room', 'rear door', 'Utility Back Door'],
    ['tarn-40', 'boiler room', 'gas', 'Boiler room Gas'],
    ['tarn-40', 'children’s room', 'smoke', 'Nursery Smoke'],
    ['tarn-40', 'bedroom 2', 'window', 'Bedroom Two Window'],
    // Five entries: a side of the place goes before a side of the thing, and neither place nor thing ever.
    ['tarn-40', 'main guest bedroom', 'window left', 'Main Bedroom Window Left'],
    // A place that the list cannot say makes no label: 'Window' alone sends nobody anywhere.
    ['tarn-40', 'observatory', 'window', ''],
    ['morrow-60', 'front', 'door', 'FRONT DOOR'],
    // 16 letters: BED for BEDROOM costs less than two other words made short.
    ['morrow-60', 'guest bedroom', 'window', 'GUEST BED WINDOW'],
    ['morrow-60', 'upper landing', 'bath', 'UPR LANDING BATH'],
    ['morrow-60', 'family room', 'back patio door', 'FAMILY BK PAT DR'],
    ['morrow-60', 'Küche', 'Tür', 'KUECHE TUER'],
    ['ostler-s-8', 'Straße', 'gate', 'Strasse gate'],
    ['quillet-32', 'Café', 'window', 'Cafe window'],
    ['pinfold-16', 'upper conservatory', 'window left', 'Upper conservatory window left'],
  ])('on %s: %s, %s', (panel, place, thing, label) => {
    const rule = ruleOf(panel)
    expect(makeLabel(rule, { place, thing }, none)).toBe(label)
    if (label !== '') expect(labelTrouble(rule, label)).toBeNull()
  })

  it('cuts no letters while a readable form fits', () => {
    const words = [
      'upper',
      'landing',
      'bathroom',
      'window',
      'left',
      'kitchen',
      'door',
      'patio',
      'garage',
      'study',
    ]
    const shortest = (word: string): number =>
      Math.min(word.length, ...shortForms(word).map((form) => form.length))
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...words), { minLength: 2, maxLength: 5 }), (some) => {
        const least = some.reduce((sum, word) => sum + shortest(word) + 1, -1)
        const label = makeLabel(morrow.label, { place: some.join(' '), thing: '' }, none)
        expect(label.length).toBeLessThanOrEqual(16)
        if (least > 16) return
        const parts = label.split(' ')
        expect(parts).toHaveLength(some.length)
        some.forEach((word, at) => {
          expect([word.toUpperCase(), ...shortForms(word)]).toContain(parts[at])
        })
      }),
      { seed: 12, numRuns: 300 },
    )
  })

  it('is shortened by a fix without losing a word that it said', () => {
    expect(fitLabel(morrow.label, 'Bedroom window left', none)).toBe('BEDROOM WINDOW L')
    expect(fitLabel(tarn.label, 'Living room motion', none)).toBe('Lounge Motion')
    expect(fitLabel(tarn.label, 'Observatory hall motion', none)).toBe('')
  })
})

describe('a label that says no place', () => {
  it.each(['Motion', 'sensor 3', 'Test', 'Window two', 'new zone', 'smoke detector', 'Contact 12', 'DOOR'])(
    '“%s” is bare',
    (label) => expect(isBareLabel(label)).toBe(true),
  )

  it.each(['Hall motion', 'Left window', 'Front door', 'Bedroom 2', 'Upper smoke', 'Pendant', ''])(
    '“%s” is not',
    (label) => expect(isBareLabel(label)).toBe(false),
  )
})

describe('labels', () => {
  it('goes by the firm’s order of place and thing', () => {
    expect(makeLabel(morrow.label, { place: 'hall', thing: 'motion', order: 'thing-place' }, none)).toBe(
      'MOTION HALL',
    )
  })

  it('offers the library’s nearest words', () => {
    const words = (word: string) => nearestWords(tarn.label as never, word).map((entry) => entry.text)
    expect(words('stair')).toEqual(['Stairs'])
    expect(words('Workshp')).toEqual(['Workshop'])
    expect(words('xylophone')).toEqual([])
  })

  it('never gives one twice, also after cutting', () => {
    const taken = new Set([labelKey(morrow.label, 'FRONT DOOR')])
    expect(makeLabel(morrow.label, { place: 'front', thing: 'door' }, taken)).toBe('FRONT DOOR 2')
    expect(makeLabel(tarn.label, { place: 'hall', thing: 'motion' }, new Set(['HALL MOTION']))).toBe(
      'Hall Motion Two',
    )
    expect(labelKey(morrow.label, 'abcdefghijklmnopqrst')).toBe('ABCDEFGHIJKLMNOP')
  })

  it('counts a two-word entry once', () => {
    if (tarn.label.style !== 'library') throw new Error('Tarn 40 has a library')
    expect(libraryEntries(tarn.label, 'Boat store window left').map((entry) => entry.text)).toEqual([
      'Boat store',
      'Window',
      'Left',
    ])
    expect(labelTrouble(tarn.label, 'Upper hall window left one')).toBe(
      'it takes 5 list entries and the panel shows 4',
    )
    expect(labelTrouble(tarn.label, 'Scullery window')).toBe("“scullery” is not in the panel's word list")
    expect(labelTrouble(tarn.label, 'Kichen door')).toBe(
      "“kichen” is not in the panel's word list; nearest: “Kitchen”",
    )
  })

  it.each(['', '  ', 'Zone 12', 'zone', 'Z7', 'Line 3'])('knows “%s” for a default', (label) => {
    expect(isDefaultLabel(label)).toBe(true)
  })

  it('takes a real one for no default', () => {
    expect(isDefaultLabel('Zone office')).toBe(false)
    expect(labelTrouble(morrow.label, 'KÜCHE')).toBe('the panel cannot show “Ü”')
  })
})
