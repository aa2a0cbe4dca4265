import { describe, expect, it } from 'vitest'
import { landingsOf, partsOf, screenName, templateOf } from './at-panel/display-read.ts'
import { readPath, sketchOf, writtenPath, type Sketch, type SketchScreen } from './at-panel/sketch.ts'
import { draftKernel } from './records.ts'

/* What a panel shows, found among what was told; and what of a new display may change. */

const screen = (lines: readonly string[], kind: 'menu' | 'code' | 'options' = 'menu'): SketchScreen => ({
  lines,
  widget:
    kind === 'code'
      ? { kind, who: 'installer', send: 'ok', wrong: 'no', then: null }
      : kind === 'options'
        ? { kind, bits: {}, then: null }
        : { kind },
  ...{ keys: {}, holds: {}, skip: [], note: '' },
})
const told = (
  screens: Readonly<Record<string, SketchScreen>>,
  size: Partial<Sketch['display']> = {},
): Sketch => ({
  ...sketchOf(draftKernel.empty),
  display: { ...sketchOf(draftKernel.empty).display, lines: 2, columns: 16, messages: 2, ...size },
  pointers: {
    zone: { from: 1, to: 42, digits: 2, ends: 'stop' },
    fob: { from: 1, to: 12, ends: 'stop' },
  },
  screens,
})
const house = told({
  rest: screen(['ready', '{live:5}']),
  does: screen(['{zone} does', '{buf}']),
  gong: screen(['{zone} gong?', '{value}']),
  tag: screen(['fob {fob}', '{typed}']),
  who: screen(['who is there?', '{typed}'], 'code'),
  lamps: screen(['lamps', '{lit}'], 'options'),
})
const found = (lines: readonly string[], sketch = house) =>
  landingsOf(sketch, lines).map(({ screen: name, pointers, says, typed }) => [name, pointers, says, typed])

describe('a display that was told', () => {
  it.each([
    [
      ['ready', '12:04'],
      ['rest', {}, '', null],
    ],
    [
      ['07 gong?', 'yes'],
      ['gong', { zone: 7 }, '', null],
    ],
    [
      ['42 does', ''],
      ['does', { zone: 42 }, '', null],
    ],
    [
      ['07 does', '12_'],
      ['does', { zone: 7 }, '', '12'],
    ],
    [
      ['07 does', '_'],
      ['does', { zone: 7 }, '', ''],
    ],
    [
      ['fob 12', '_'],
      ['tag', { fob: 12 }, '', ''],
    ],
    [
      ['who is there?', '***'],
      ['who', {}, '', '***'],
    ],
    [
      ['lamps', '13'],
      ['lamps', {}, '', '13'],
    ],
    // Blanks and small letters do not count.
    [
      ['07  GONG?', 'yes'],
      ['gong', { zone: 7 }, '', null],
    ],
  ] as const)('%j', (lines, is) => {
    expect(found(lines)[0]).toEqual(is)
  })

  it('is none where a number is out of its range, has other digits, or the text is another', () => {
    expect(found(['43 gong?', 'yes'])).toEqual([])
    expect(found(['7 gong?', 'yes'])).toEqual([])
    expect(found(['fob 13', '_'])).toEqual([])
    expect(found(['07 bell?', 'yes'])).toEqual([])
  })

  it('may stand behind a message: of that line nothing is asked, and enough of the others must be told', () => {
    expect(found(['fob 3', 'on another one'])).toEqual([['tag', { fob: 3 }, 'on another one', null]])
    // What can be stored and what can be a message are both offered, what needs no message first.
    expect(found(['07 does', 'not so']).map((one) => one.slice(0, 3))).toEqual([
      ['does', { zone: 7 }, ''],
      ['does', { zone: 7 }, 'not so'],
    ])
    expect(found(['', 'hello'], told({ thin: screen(['', 'x']) }))).toEqual([])
    const single = told({ rest: screen(['READY']) }, { lines: 1, messages: 1 })
    expect(found(['WRONG'], single)).toEqual([])
  })

  it('is cut where its line is full: what follows the last gap may be missing', () => {
    const sum = told({ sum: screen(['{@zone.{zone}.serial@} {@zone.{zone}.loop@}', '']) }, { columns: 8 })
    expect(found(['20417733', ''], sum)).toHaveLength(1)
    const tail = told({ sum: screen(['{value} end', '']) }, { columns: 8 })
    expect(found(['20417733', ''], tail)).toHaveLength(1)
    expect(found(['204177', ''], tail)).toEqual([])
  })

  it('begins at the first number where it depends on one that it does not show', () => {
    const blind = told({ set: { ...screen(['set it', '']), skip: [{ hides: 'chime' }] } })
    expect(found(['set it', ''], blind)).toEqual([['set', { zone: 1 }, '', null]])
  })
  it('cannot show one number as two', () => {
    const twice = told({ both: screen(['{zone} of {zone}', '']) })
    expect(found(['07 of 07', ''], twice)).toHaveLength(1)
    expect(found(['07 of 08', ''], twice)).toEqual([])
  })
})

describe('a new display', () => {
  it('has parts that may change: digits by the numbers that could be printed so, the known one first', () => {
    const parts = partsOf(house, ['07 fob 12', 'v5'], { fob: 12 })
    expect(parts.map(({ line, from, to, text, pointers }) => [line, from, to, text, pointers])).toEqual([
      [0, 0, 2, '07', ['zone', 'fob']],
      [0, 3, 6, 'fob', []],
      [0, 7, 9, '12', ['fob', 'zone']],
      [1, 0, 1, 'v', []],
      [1, 1, 2, '5', ['fob']],
    ])
    expect(partsOf(house, ['77'], {})[0]?.pointers).toEqual([])
  })

  it('has a known number taken out of the digits beside it', () => {
    expect(
      partsOf(house, ['8107'], { zone: 7 }).map(({ from, to, text, pointers }) => [from, to, text, pointers]),
    ).toEqual([
      [0, 2, '81', []],
      [2, 4, '07', ['zone']],
    ])
    expect(partsOf(house, ['1071'], { zone: 7 }).map(({ text }) => text)).toEqual(['1', '07', '1'])
    expect(partsOf(house, ['1234'], { zone: 7 }).map(({ text }) => text)).toEqual(['1234'])
  })

  it('is written with what may change in braces', () => {
    const lines = ['07 does', '12:04']
    expect(
      templateOf(lines, [
        { line: 0, from: 0, to: 2, is: 'zone' },
        { line: 1, from: 0, to: 5, is: 'live' },
      ]),
    ).toEqual(['{zone} does', '{live:5}'])
    expect(templateOf(lines, [{ line: 0, from: 9, to: 9, is: 'typed' }])).toEqual([
      '07 does  {typed}',
      '12:04',
    ])
    expect(templateOf(lines, [])).toEqual(lines)
    // Of two marks over the same signs the first counts.
    const over = [
      { line: 0, from: 0, to: 4, is: 'a' },
      { line: 0, from: 2, to: 7, is: 'b' },
    ]
    expect(templateOf(lines, over)).toEqual(['{a}oes', '12:04'])
  })

  it('gets a name from its text that none has', () => {
    expect(screenName(house, ['{zone} Gong?', '{value}'])).toBe('gong-2')
    expect(screenName(house, ['Exit time', '{raw}'])).toBe('exit-time')
    expect(screenName(house, ['{typed}'])).toBe('display')
    expect(screenName(house, ['Überall laut und deutlich'])).toBe('uberall-laut-und-d')
    expect(screenName(told({}), ['not told'])).toBe('display')
  })
})

it('a path is written as a record may be named, and read again', () => {
  for (const path of [
    'fields.zone.{zone}.inputs.end-of-line',
    'common.#',
    'common.↑',
    'common._',
    'screens.14',
    'common.A b',
  ])
    expect([readPath(writtenPath(path)), /^[A-Za-z0-9._/-]{1,80}$/.test(writtenPath(path))]).toEqual([
      path,
      true,
    ])
})
