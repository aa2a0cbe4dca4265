import { describe, expect, it } from 'vitest'
import { on, smallScreens, uncheckedPanel } from '../testing/small-panel.ts'
import { answer, templatesOf } from './typist.ts'
import { opened } from './widgets.ts'

/* The keys of an answer, by hand: x.list has the values 1 to 3 and came as 2, x.bit came as off; a wait stands as <seconds>. */

interface Asked {
  readonly widget: object
  /** What is wanted of the list and the bit; as they came where nothing is said. */
  readonly list?: string
  readonly bit?: string
  /** What the panel holds. */
  readonly holds?: Readonly<Record<string, string>>
  readonly letters?: object
  readonly values?: readonly (readonly [value: string, keyed: string])[]
}

function keys({ widget, list = '2', bit = 'off', holds = {}, letters, values }: Asked): string | null {
  const form = {
    kind: 'list',
    values: (
      values ?? [
        ['1', '1'],
        ['2', '2'],
        ['3', '3'],
      ]
    ).map(([value, keyed]) => ({ value, keyed, shows: `v${value}` })),
  }
  const panel = uncheckedPanel({
    screens: { ...smallScreens, kept: { lines: ['kept'], widget } },
    fields: {
      'x.list': { form, factory: '2' },
      'x.bit': { form: { kind: 'bit', on: 'yes', off: 'no' }, factory: 'off' },
    },
    letters,
  })
  const stored = new Map([...panel.factory, ...Object.entries(holds)])
  const state = opened(panel, { ...on(panel), kept: stored, screen: 'kept' })
  const wanted: Readonly<Record<string, string>> = { 'x.list': list, 'x.bit': bit }
  const inputs = answer(panel, state, (address) => wanted[address] ?? '')
  return (
    inputs &&
    inputs
      .map((input) =>
        input.kind === 'press' ? input.key : `<${input.kind === 'wait' ? input.seconds : input.kind}>`,
      )
      .join('')
  )
}
/** Each row: what it is, what is asked, and its keys; null where nothing can be typed. */
function cases(rows: readonly [string, Asked, string | null][]): void {
  it.each(rows)('%s', (_, asked, typed) => {
    expect(keys(asked)).toBe(typed)
  })
}

describe('a number', () => {
  const number = {
    kind: 'number',
    at: 'x.list',
    digits: [1, 1],
    opens: 'empty',
    send: 's',
    then: 'ask',
    bad: 'no',
  }
  cases([
    ['is typed and sent', { widget: number, list: '3' }, '3s'],
    ['that stands there is typed where the question opens empty', { widget: number }, '2s'],
    ['that stands there is sent where it is shown', { widget: { ...number, opens: 'value' } }, 's'],
    ['another is typed over what is shown', { widget: { ...number, opens: 'value' }, list: '1' }, '1s'],
    ['goes by itself with its last digit', { widget: { ...number, send: undefined } }, '2'],
    ['is typed anew where nothing sends it', { widget: { ...number, send: undefined, opens: 'value' } }, '2'],
    ['has the digits that it must have', { widget: { ...number, digits: [2, 3] } }, '02s'],
    [
      'has all of them where nothing sends it',
      { widget: { ...number, digits: [2, 3], send: undefined } },
      '002',
    ],
    ['of more digits than can be typed is none', { widget: number, values: [['2', '22']] }, null],
    ['of as many is one', { widget: { ...number, digits: [1, 2] }, values: [['2', '22']] }, '22s'],
    [
      'that is keyed otherwise than by digits is none',
      { widget: { ...number, digits: [1, 2] }, values: [['2', '2a']] },
      null,
    ],
    [
      'nor otherwise than by digits alone',
      { widget: { ...number, digits: [1, 2] }, values: [['2', 'a2']] },
      null,
    ],
    ['is keyed as the panel keys it', { widget: number, values: [['2', '7']] }, '7s'],
    ['that the panel does not know is none', { widget: number, list: '9' }, null],
    ['is emptied by its own key', { widget: { ...number, empties: 'e' }, list: '' }, 'e'],
    ['without one is not emptied', { widget: number, list: '' }, null],
  ])
})

describe('a question', () => {
  const yesno = { kind: 'yesno', at: 'x.bit', yes: '1', no: '0', then: 'ask' }
  cases([
    ['yes', { widget: yesno, bit: 'on' }, '1'],
    ['no', { widget: yesno, bit: 'off' }, '0'],
    ['nothing is no', { widget: yesno, bit: '' }, '0'],
  ])
})

describe('a list', () => {
  const list = {
    kind: 'choice',
    at: 'x.list',
    opens: 'first',
    take: 's',
    next: 'n',
    end: 'wrap',
    then: 'ask',
  }
  const both = { ...list, previous: 'p' }
  cases([
    ['shows its first', { widget: list, list: '1' }, 's'],
    ['goes ahead', { widget: list, list: '3' }, 'nns'],
    ['goes back round the end where that is shorter', { widget: both, list: '3' }, 'ps'],
    ['goes ahead where that is shorter', { widget: both, list: '2' }, 'ns'],
    ['does not go round where it stops', { widget: { ...both, end: 'stop' }, list: '3' }, 'nns'],
    [
      'goes back where it stops',
      { widget: { ...both, end: 'stop', opens: 'value' }, list: '1', holds: { 'x.list': '3' } },
      'pps',
    ],
    [
      'cannot go back without a key for it',
      { widget: { ...list, end: 'stop', opens: 'value' }, list: '1', holds: { 'x.list': '3' } },
      null,
    ],
    [
      'goes round to what is before it',
      { widget: { ...list, opens: 'value' }, list: '1', holds: { 'x.list': '2' } },
      'nns',
    ],
    [
      'takes what is shown',
      { widget: { ...list, opens: 'value' }, list: '3', holds: { 'x.list': '3' } },
      's',
    ],
    ['has no other value', { widget: both, list: '9' }, null],
    [
      'of four goes ahead where both ways are as long',
      {
        widget: both,
        list: '3',
        values: [
          ['1', '1'],
          ['2', '2'],
          ['3', '3'],
          ['4', '4'],
        ],
      },
      'nns',
    ],
  ])
})

describe('options', () => {
  const bits = { a: 'x.bit', b: { at: 'x.list', on: '1', off: '2' } }
  const each = { kind: 'options', bits, then: 'ask' }
  const set = { ...each, send: 's' }
  const one = { ...each, one: true }
  cases([
    ['as they are need no key', { widget: each }, ''],
    ['or are sent', { widget: set }, 's'],
    ['are turned, each by its key', { widget: set, bit: 'on', list: '1' }, 'abs'],
    ['only those that differ', { widget: set, bit: 'on', list: '1', holds: { 'x.bit': 'on' } }, 'bs'],
    ['are turned off too', { widget: set, holds: { 'x.bit': 'on', 'x.list': '1' } }, 'abs'],
    ['of which one is on: its key is enough', { widget: one, list: '1', holds: { 'x.bit': 'on' } }, 'b'],
    ['of which one is on already need no key', { widget: one, bit: 'on', holds: { 'x.bit': 'on' } }, ''],
    ['of which one is on cannot all be off', { widget: one, holds: { 'x.bit': 'on' } }, null],
    ['nor two be on', { widget: one, bit: 'on', list: '1' }, null],
  ])
})

describe('a text', () => {
  const text = { kind: 'text', at: 'x.list', length: 3, opens: 'empty', send: 's', then: 'ask', bad: 'no' }
  const letters = { keys: { '2': 'abc', '3': 'dea' } }
  cases([
    ['is typed by the presses of each key', { widget: text, list: 'cd', letters }, '2223s'],
    ['takes the first key that has a letter', { widget: text, list: 'a', letters }, '2s'],
    [
      'ends a letter where the same key comes again',
      { widget: text, list: 'ab', letters: { ...letters, step: 'x' } },
      '2x22s',
    ],
    [
      'or waits until it has ended',
      { widget: text, list: 'ab', letters: { ...letters, pause: 2 } },
      '2<2>22s',
    ],
    ['that cannot be ended is none', { widget: text, list: 'ab', letters }, null],
    [
      'does not end a letter that another key follows',
      { widget: text, list: 'ada', letters: { ...letters, step: 'x' } },
      '232s',
    ],
    ['of letters that no key has is none', { widget: text, list: 'az', letters }, null],
    ['without letters is none', { widget: text, list: 'a' }, null],
    ['as long as it may be', { widget: text, list: 'ded', letters: { ...letters, step: 'x' } }, '3x33x3s'],
    ['longer than it may be is none', { widget: text, list: 'adad', letters }, null],
    ['of nothing is none', { widget: text, list: '', letters }, null],
  ])
})

describe('words', () => {
  const words = { kind: 'words', at: 'x.list', most: 3, gap: '*', send: 's', then: 'ask', bad: 'no' }
  cases([
    ['by their numbers, with the key between them', { widget: words, list: '12 7 30' }, '12*7*30s'],
    ['none is nothing to type', { widget: words, list: '' }, null],
  ])
})

describe('an ID', () => {
  const serial = { kind: 'serial', at: 'x.list', send: 's', window: 60, needs: 1, then: 'ask', bad: 'no' }
  const letters = { keys: { '2': 'abcABC', '3': 'DEF' }, shift: 'x' }
  cases([
    ['of digits is typed as it stands', { widget: serial, list: '2041' }, '2041s'],
    ['that stands there is sent', { widget: serial, list: '2041', holds: { 'x.list': '2041' } }, 's'],
    ['is emptied by its own key', { widget: { ...serial, empties: 'e' }, list: '' }, 'e'],
    ['without one is not emptied', { widget: serial, list: '' }, null],
    // Only capitals count while an ID is typed: B is the second of its key.
    ['with letters turns to them and back', { widget: serial, list: '4B7', letters }, '4x22x7s'],
    ['with letters of two keys stays with them', { widget: serial, list: 'AD', letters }, 'x23s'],
    [
      'with letters of one key ends each by turning there and back',
      { widget: serial, list: 'AC', letters },
      'x2xx222s',
    ],
    ['that begins with a digit of the key of its letter', { widget: serial, list: '2A', letters }, '2x2s'],
    ['with a letter that no key has is none', { widget: serial, list: '4Z', letters }, null],
    [
      'with letters where nothing turns to them is none',
      { widget: serial, list: '4B', letters: { keys: letters.keys } },
      null,
    ],
    ['with letters where none are typed is none', { widget: serial, list: '4B' }, null],
  ])
})

describe('what nobody answers', () => {
  it.each([
    { kind: 'menu' },
    { kind: 'summary' },
    { kind: 'busy', seconds: 20, then: 'ask' },
    { kind: 'jump', digits: 1, to: {}, none: 'no' },
    { kind: 'code', who: 'installer', send: 's', then: 'ask', wrong: 'no' },
  ])('$kind', (widget) => {
    expect(keys({ widget })).toBeNull()
    expect(templatesOf(widget as never)).toEqual([])
  })

  it('has addresses where it is a question', () => {
    expect(templatesOf({ kind: 'yesno', at: 'x.bit', yes: '1', no: '0', then: 'ask' })).toEqual(['x.bit'])
    const bits = { a: 'x.bit', b: { at: 'x.list', on: '1', off: '2' } }
    expect(templatesOf({ kind: 'options', bits, then: 'ask' })).toEqual(['x.bit', 'x.list'])
  })
})
