import { describe, expect, it } from 'vitest'
import { demoPanel, PanelInHand } from '../testing/panels.ts'

/*
 * Rows of keys with wrong ones among them, and what the panel then holds otherwise than it was shipped. Written by hand from the
 * descriptions before the machine was asked: each has its slip, and what comes of it.
 */
type Row = readonly [slip: string, keys: string, kept: Readonly<Record<string, string>>]

/** Tarn 40: a session; nothing counts before the last [tick] and the restart. */
const tarnIn = '[tick] for 5 s (main-user code) [tick] (installer code) [tick]'
const tarnOut = '[home] [tick] wait 40 s'
const line = (number: string): string => `[go] 50 [tick] ${number} [tick]`
const id = (number: string): string => `${line(number)} [next] [next]`
const tarn: readonly Row[] = [
  ['none', '45 [tick]', { 'system.entry1': '45' }],
  ['a digit twice: 445 s is more than there is', '445 [tick]', {}],
  ['a digit left out: 5 s is a time too', '5 [tick]', { 'system.entry1': '5' }],
  ['sent twice: the next question is passed', '45 [tick] [tick]', { 'system.entry1': '45' }],
  ['cleared before it is sent', '45 [cross] [tick]', {}],
  ['not sent: the walk leaves it behind', '45 [next]', {}],
  ['left by cross', '45 [tick] [home] [cross]', {}],
  ['home by mistake, and back', '45 [tick] [home] [back] 50 [tick]', { 'system.entry1': '50' }],
  ['left alone for four minutes', '45 [tick] wait 240 s', {}],
  ['left alone for not quite four', '45 [tick] wait 239 s', { 'system.entry1': '45' }],
  ['a question that is none, and the answer behind it', '[go] 61 [tick] 45 [tick]', {}],
  ['the question beside it', '[go] 15 [tick] 45 [tick]', { 'system.entry2': '45' }],
  [
    'no pressed twice: the next question hears the second',
    '[go] 31 [tick] [cross] [cross]',
    { 'system.entryBeeps': 'off', 'system.exitBeeps': 'off' },
  ],
  // A type has two digits: the third of the ID is not taken, and 20 is no type.
  ['type mistyped, and the ID typed over it', `${line('07')} [next] 43 [tick] 20417733 [tick]`, {}],
  ['one digit of a type', `${line('07')} [next] 3 [tick]`, {}],
  // 7 alone is no line, 34 then is one: the model of line 7 lands on line 34.
  ['a line without its nought', `${line('7')} 34 [tick] 318 [tick]`, { 'zone.34.equipmentCode': '318' }],
  [
    'ID sent twice: the input is passed, and its digit means nothing at the next',
    `${id('07')} 20417733 [tick] [tick] 3 [tick]`,
    { 'zone.7.serial': '20417733' },
  ],
  ['an input that is none', `${id('07')} 20417733 [tick] 9 [tick]`, { 'zone.7.serial': '20417733' }],
  // A fire line has no gong: the answer meant for it is heard by the question behind.
  [
    'fire where an outer line was meant, and its answers',
    `${line('07')} [next] 62 [tick] [next] [next] [cross] [tick] [cross]`,
    {
      'zone.7.response': '62',
      'zone.7.report': 'off',
      'zone.7.transmissionDelay': 'on',
      'zone.7.supervise': 'off',
    },
  ],
  ['words without the gap', `${line('07')} [next] ×8 187070 [tick]`, {}],
  ['the gap twice', `${line('07')} [next] ×8 187 [gap] [gap] 070 [tick]`, { 'zone.7.label': '187 070' }],
  // The fourth 7 is not taken; three are enough to lose everything.
  ['one 7 too many at the wiping question', '45 [tick] [go] 99 [tick] 7777 [tick] wait 20 s', {}],
  ['one 7 too few there', '45 [tick] [go] 99 [tick] 77 [tick]', { 'system.entry1': '45' }],
  [
    'a neighbour’s device heard first',
    `${id('01')} [ear] (hears 20417801 3) (hears 20417733 3)`,
    { 'zone.1.serial': '20417801', 'zone.1.loop': '3' },
  ],
  ['a key while it listens', `${id('01')} [ear] [cross] (hears 20417733 3)`, {}],
  // The first clears what is typed, the second empties what is held.
  ['cross once too often', `${id('07')} 20417733 [tick] [back] 2041 [cross] [cross]`, {}],
  [
    'one contact on two lines',
    `${id('01')} 20417733 [tick] 3 [tick] ${id('02')} 20417733 [tick] 3 [tick]`,
    { 'zone.1.serial': '20417733', 'zone.1.loop': '3', 'zone.2.serial': '20417733' },
  ],
  [
    'a fob sent twice goes to two places',
    '[go] 72 [tick] 2 [tick] 20417733 [tick] 20417733 [tick]',
    { 'fob.2.serial': '20417733', 'fob.3.serial': '20417733' },
  ],
]

/** Quillet 32: every answer counts at once. */
const quilletIn = '(main-user code) [yes] (installer code) [yes]'
const idOfOne = '[no] [yes] [yes] [no] [yes]'
/** From the first device: its type and its ID passed, its reed works, its terminals and the resistor do not. */
const setsOfOne = '[no] [yes] [yes] [no] [no] [yes] [no] [no]'
/** On from there: sets and gong passed, it dials, does not wait, is watched, one trip will do. */
const nameOfOne = `${setsOfOne} [no] [no] [yes] [no] [yes] [no] [yes]`
const quillet: readonly Row[] = [
  ['none', '[yes] [yes] 50 [yes]', { 'system.entry1': '50' }],
  ['a time between two steps', '[yes] [yes] 55 [yes]', {}],
  ['left half typed: what follows means nothing in the list', '[yes] [yes] 5 [no] 50 [yes]', {}],
  ['one no too many', '[yes] [no] [no] [yes] 50 [yes]', { 'system.exit': '50' }],
  ['more rests of the bell than there are', '[yes] [no] ×6 [yes] 6 [yes]', {}],
  ['one row too far', '[yes] [no] ×8 [yes] [no] ×2 [yes]', { 'system.exitBy': 'either' }],
  ['so far that it is round again', '[yes] [no] ×8 [yes] [no] ×3 [yes]', {}],
  ['next where yes was meant', '[yes] [no] ×8 [yes] [no] [next]', {}],
  [
    'two no too many: they are answers there',
    '[yes] [no] ×11',
    { 'system.entryBeeps': 'off', 'system.exitBeeps': 'off' },
  ],
  ['none, third row of the types', '[no] [yes] [yes] [yes] [no] ×3 [yes]', { 'zone.1.response': 'shell' }],
  ['one row of the types too far', '[no] [yes] [yes] [yes] [no] ×4 [yes]', { 'zone.1.response': 'walk' }],
  ['round the types', '[no] [yes] [yes] [yes] [no] ×16 [yes]', { 'zone.1.response': 'door 1' }],
  ['next out of the types', '[no] [yes] [yes] [yes] [no] ×3 [next]', {}],
  ['none, by number', '[no] [yes] 007 [yes] [yes] [yes]', { 'zone.7.response': 'door 1' }],
  ['a number without one nought', '[no] [yes] 07 [yes] [yes] [yes]', { 'zone.1.response': 'door 1' }],
  ['a number that is none', '[no] [yes] 035 [yes] [yes] [yes]', { 'zone.1.response': 'door 1' }],
  // Twice in a row is asked for: another one between begins anew.
  [
    'a neighbour’s device between the two of one’s own',
    `${idOfOne} [next] (hears H204177) (hears K300001) (hears H204177)`,
    {},
  ],
  [
    'the same, and once more',
    `${idOfOne} [next] (hears H204177) (hears K300001) (hears H204177) (hears H204177)`,
    { 'zone.1.serial': 'H204177' },
  ],
  ['one tap too few: another ID', `${idOfOne} [abc] 4 [abc] 204177 [yes]`, { 'zone.1.serial': 'G204177' }],
  ['still at letters', `${idOfOne} [abc] 44 204177 [yes]`, {}],
  ['no at a question that takes it', '[no] [yes] [yes] [no] ×5', { 'zone.1.inputs.reed': 'off' }],
  ['none, a set more', `${setsOfOne} 2 [yes]`, { 'zone.1.areas.2': 'on' }],
  ['a set pressed twice', `${setsOfOne} 22 [yes]`, {}],
  [
    'the set that is lit already pressed too',
    `${setsOfOne} 12 [yes]`,
    { 'zone.1.areas.1': 'off', 'zone.1.areas.2': 'on' },
  ],
  // l is the third sign of 5, K the sixth.
  ['two letters of one key run together', `${nameOfOne} 444444 2 555555 [yes]`, { 'zone.1.label': 'HaK' }],
  ['none, waited between them', `${nameOfOne} 444444 2 555 wait 2 s 555 [yes]`, { 'zone.1.label': 'Hall' }],
]

/** Pinfold 16: places by number, kept as they are set. */
const pinfoldIn = '[work] (installer code) [set]'
const pinfold: readonly Row[] = [
  ['none', '021 [set] 45 [set]', { 'system.entry1': '45' }],
  // This place counts quarters of a minute: 45 are more than eleven minutes.
  ['the place beside it', '022 [set] 45 [set]', { 'system.entry2': '45' }],
  ['more than there is', '021 [set] 95 [set]', {}],
  ['a place that is none', '0211 [set] 45 [set]', {}],
  ['set twice', '021 [set] [set]', {}],
  ['out before it is set', '021 [set] 45 [work] 022 [set] [set]', {}],
  ['none, one light', '047 [set] 2 [set]', { 'system.exitUnit': 'on' }],
  ['the light twice', '047 [set] 22 [set]', {}],
  ['the light beside it too', '047 [set] 23 [set]', { 'system.exitUnit': 'on', 'system.stayToEntry2': 'on' }],
  ['lights without set', '047 [set] 2 [work]', {}],
  ['a zone that there is', '107 [set] 4 [set]', { 'zone.7.response': '4' }],
  ['a zone that there is not', '117 [set] 4 [set]', {}],
  ['a digit twice: no such type', '101 [set] 44 [set]', {}],
  ['a bell of no zone', '810 [set] 2 [set]', {}],
  [
    'the bell that is lit pressed too',
    '8101 [set] 12 [set]',
    { 'zone.1.sirens.1': 'off', 'zone.1.sirens.2': 'on' },
  ],
  // 61 is the ID of fob 1, 611 its parts.
  ['one digit more: another place', '611 [set] 1 [set]', { 'fob.1.areas.1': 'off' }],
  // A is the first sign of 2, B the second: 3FA20C is meant.
  ['the way back to digits left out', '401 [set] 3 [off] 3332202 [set]', {}],
  [
    'none, with a letter key between two',
    '401 [set] 3 [off] 333 2 [off] 20 [off] 222 [set]',
    { 'zone.1.serial': '3FA20C' },
  ],
  ['wiped after all', '021 [set] 45 [set] 990 [set] 990 [set] wait 10 s', {}],
  ['not wiped', '021 [set] 45 [set] 990 [set] 99 [set]', { 'system.entry1': '45' }],
]

describe.each([
  ['tarn-40', tarnIn, tarnOut, tarn],
  ['quillet-32', quilletIn, '', quillet],
  ['pinfold-16', pinfoldIn, '', pinfold],
] as const)('Wrong keys at %s', (panel, way, out, rows) => {
  it.each(rows)('%s', (_slip, keys, kept) => {
    const hand = new PanelInHand(demoPanel(panel))
    hand.keys(`${way} ${keys} ${out}`)
    expect(hand.kept).toEqual(kept)
  })
})

describe('Wrong keys while it saves', () => {
  it.each([
    ['the mains pulled a second too early', 'wait 39 s', {}],
    ['a key pressed while it saves does nothing', 'wait 39 s [home] wait 1 s', { 'system.entry1': '45' }],
  ])('%s', (_slip, end, kept) => {
    const hand = new PanelInHand(demoPanel('tarn-40'))
    hand.keys(`${tarnIn} 45 [tick] [home] [tick] ${end}`)
    expect(hand.kept).toEqual(kept)
  })
})
