import { describe, expect, it } from 'vitest'
import { on, press, smallPanel, smallScreens } from '../testing/small-panel.ts'
import type { Compiled } from './compiled.ts'
import type { Input, PanelState } from './state.ts'
import { patternsOf } from './widgets.ts'

/* One question after the other in place of the small panel's; what each key does is written from its description by hand. */

/** The small panel with this question behind its key d. */
const asking = (widget: object): Compiled =>
  smallPanel({
    screens: { ...smallScreens, lone: { lines: ['lone {typed}'], widget } },
    // Only the last pointer of a pattern may be of any length.
    pointers: { n: { from: 1, to: 3, ends: 'wrap', digits: 1 }, m: { from: 1, to: 2, ends: 'stop' } },
  })
/** What stands after keys: screen, what is typed, the row, what is said, whether the last key did nothing, what was answered. */
const after = (panel: Compiled, keys: string): unknown[] => look(on(panel, ...press(`d${keys}`)))
const look = ({ screen, typed, row, says, beeped, draft }: PanelState): unknown[] => [
  ...[screen, typed, row, says, beeped],
  Object.fromEntries(draft),
]

describe('a number', () => {
  const number = (over: object) => ({
    ...{ kind: 'number', at: 'x.list', digits: [1, 2], opens: 'empty', send: 's', bad: 'no', then: 'ask' },
    ...over,
  })
  it.each([
    ['', ['lone', '', 0, '', false, {}]],
    ['1', ['lone', '1', 0, '', false, {}]],
    ['12', ['lone', '12', 0, '', false, {}]],
    // No sign more than the most, and none that is no digit.
    ['123', ['lone', '12', 0, '', true, {}]],
    ['1f', ['lone', '1', 0, '', true, {}]],
    ['1s', ['ask', null, 0, '', false, { 'x.list': '1' }]],
    // What its list does not have, and nothing at all, are refused; both are typed anew.
    ['9s', ['lone', null, 0, 'no', true, {}]],
    ['s', ['lone', null, 0, 'no', true, {}]],
    ['9s1s', ['ask', null, 0, '', false, { 'x.list': '1' }]],
  ])('that opens empty, after %s', (keys, expected) => {
    expect(after(asking(number({})), keys)).toEqual(expected)
  })

  it('that opens at its value is passed with nothing typed, and needs its least number of signs', () => {
    const panel = asking(number({ opens: 'value', digits: [2, 2] }))
    expect(after(panel, '')).toEqual(['lone', null, 0, '', false, {}])
    expect(after(panel, 's')).toEqual(['ask', null, 0, '', false, {}])
    expect(after(panel, '1s')).toEqual(['lone', null, 0, 'no', true, {}])
  })

  it('without a key to send it is sent by its last sign', () => {
    const panel = asking(number({ send: undefined, digits: [1, 1] }))
    expect(after(panel, '3')).toEqual(['ask', null, 0, '', false, { 'x.list': '3' }])
    expect(after(panel, '9')).toEqual(['lone', null, 0, 'no', true, {}])
    const two = asking(number({ send: undefined, digits: [1, 2] }))
    expect(after(two, '1')).toEqual(['lone', '1', 0, '', false, {}])
  })

  it('is emptied by a key of its own, as long as nothing is typed', () => {
    const panel = asking(number({ empties: 'e' }))
    expect(after(panel, 'e')).toEqual(['lone', '', 0, '', false, { 'x.list': '' }])
    expect(after(panel, '1e')).toEqual(['lone', '1', 0, '', true, {}])
  })
})

describe('yes and no', () => {
  const panel = () => asking({ kind: 'yesno', at: 'x.bit', yes: 'a', no: 'b', then: 'ask' })
  it.each([
    ['a', ['ask', null, 0, '', false, { 'x.bit': 'on' }]],
    // It is off as it comes.
    ['b', ['ask', null, 0, '', false, {}]],
    ['c', ['lone', null, 0, '', true, {}]],
  ])('after %s', (keys, expected) => {
    expect(after(panel(), keys)).toEqual(expected)
  })
})

describe('a list', () => {
  const choice = (over: object) =>
    asking({
      ...{ kind: 'choice', at: 'x.list', opens: 'first', take: 'a', next: 'b', previous: 'c', end: 'wrap' },
      ...{ then: 'ask' },
      ...over,
    })
  it.each([
    ['', 'wrap', ['lone', null, 0, '', false, {}]],
    ['b', 'wrap', ['lone', null, 1, '', false, {}]],
    ['bb', 'wrap', ['lone', null, 2, '', false, {}]],
    ['bbb', 'wrap', ['lone', null, 0, '', false, {}]],
    ['c', 'wrap', ['lone', null, 2, '', false, {}]],
    ['bc', 'wrap', ['lone', null, 0, '', false, {}]],
    ['bbb', 'stop', ['lone', null, 2, '', true, {}]],
    ['c', 'stop', ['lone', null, 0, '', true, {}]],
    ['a', 'wrap', ['ask', null, 0, '', false, { 'x.list': '1' }]],
    ['bba', 'stop', ['ask', null, 0, '', false, { 'x.list': '3' }]],
    ['f', 'stop', ['lone', null, 0, '', true, {}]],
  ])('after %s, where its end is %s', (keys, end, expected) => {
    expect(after(choice({ end }), keys)).toEqual(expected)
  })

  it('opens at what is stored where it says so', () => {
    expect(after(choice({ opens: 'value' }), '')).toEqual(['lone', null, 1, '', false, {}])
    // Emptied, nothing of it is stored: then at its first.
    expect(look(on(choice({ opens: 'value' }), ...press('b3zd')))).toEqual([
      ...['lone', null, 0, '', false],
      { 'x.list': '' },
    ])
  })
})

describe('lamps', () => {
  const bits = { '1': 'x.bit', '2': { at: 'x.list', on: '3', off: '1' } }
  const options = (over: object) => asking({ kind: 'options', bits, then: 'ask', ...over })
  it('without a key to send are turned at once', () => {
    const panel = options({})
    expect(after(panel, '')).toEqual(['lone', null, 0, '', false, {}])
    expect(after(panel, '1')).toEqual(['lone', null, 0, '', false, { 'x.bit': 'on' }])
    expect(after(panel, '11')).toEqual(['lone', null, 0, '', false, { 'x.bit': 'off' }])
    // What is neither lit nor out is lit first.
    expect(after(panel, '2')).toEqual(['lone', null, 0, '', false, { 'x.list': '3' }])
    expect(after(panel, '22')).toEqual(['lone', null, 0, '', false, { 'x.list': '1' }])
    expect(after(panel, 's')).toEqual(['lone', null, 0, '', true, {}])
  })

  it('with one stand lit as they are stored, and are stored together', () => {
    const panel = options({ send: 's' })
    expect(after(panel, '')).toEqual(['lone', '', 0, '', false, {}])
    expect(after(panel, '2')).toEqual(['lone', '2', 0, '', false, {}])
    expect(after(panel, '21')).toEqual(['lone', '12', 0, '', false, {}])
    expect(after(panel, '212')).toEqual(['lone', '1', 0, '', false, {}])
    expect(after(panel, '21s')).toEqual(['ask', null, 0, '', false, { 'x.bit': 'on', 'x.list': '3' }])
    expect(after(panel, '1s')).toEqual(['ask', null, 0, '', false, { 'x.bit': 'on', 'x.list': '1' }])
    expect(after(panel, 'f')).toEqual(['lone', '', 0, '', true, {}])
    // Opened again the lamp that is on stands lit.
    expect(look(on(panel, ...press('d1szd'))).slice(0, 2)).toEqual(['lone', '1'])
  })

  it('of which one is lit at a time', () => {
    expect(after(options({ send: 's', one: true }), '21')).toEqual(['lone', '1', 0, '', false, {}])
  })
})

describe('digits that lead somewhere', () => {
  const to = { '14': 'ask', '2{n}': 'turn', '3{n}{m}': 'turn' }
  const jump = (over: object) => asking({ kind: 'jump', digits: 3, send: 's', to, none: 'none', ...over })
  const place = (keys: string, over: object = {}) => {
    const { screen, pointers, says, beeped, typed } = on(jump(over), ...press(`d${keys}`))
    return [screen, pointers, says, beeped, typed ?? '']
  }
  it.each([
    ['14s', ['ask', {}, '', false, '']],
    ['22s', ['turn', { n: 2, m: 1 }, '', false, '']],
    ['332s', ['turn', { n: 3, m: 2 }, '', false, '']],
    ['1', ['lone', {}, '', false, '1']],
    // Beyond the numbers of a pointer, too few, too many, and nothing.
    ['24s', ['lone', {}, 'none', true, '']],
    ['20s', ['lone', {}, 'none', true, '']],
    ['2s', ['lone', {}, 'none', true, '']],
    ['221s', ['lone', {}, 'none', true, '']],
    ['333s', ['lone', {}, 'none', true, '']],
    ['15s', ['lone', {}, 'none', true, '']],
    ['1412', ['lone', {}, '', true, '141']],
    ['s', ['lone', {}, '', true, '']],
    ['1f', ['lone', {}, '', true, '1']],
  ])('after %s', (keys, expected) => {
    expect(place(keys)).toEqual(expected)
  })

  it('without a key to send lead there once all are typed', () => {
    const over = { send: undefined, digits: 2, to: { '14': 'ask', '2{n}': 'turn' } }
    expect(place('1', over)).toEqual(['lone', {}, '', false, '1'])
    expect(place('14', over)).toEqual(['ask', {}, '', false, ''])
    expect(place('23', over)).toEqual(['turn', { n: 3, m: 1 }, '', false, ''])
    expect(place('99', over)).toEqual(['lone', {}, 'none', true, ''])
  })

  it('are all that fit their patterns, each pointer in as many digits as it has', () => {
    const all = (over: object = {}): readonly string[] => {
      const panel = smallPanel({
        pointers: { n: { from: 1, to: 3, ends: 'wrap', ...over }, m: { from: 1, to: 2, ends: 'stop' } },
      })
      return patternsOf(panel, {
        ...{ kind: 'jump', digits: 3, none: 'none' },
        to,
      })
    }
    expect(all()).toEqual(['14', '21', '22', '23', '311', '312', '321', '322', '331', '332'])
    expect(all({ digits: 2 })).toEqual([
      ...['14', '201', '202', '203'],
      ...['3011', '3012', '3021', '3022', '3031', '3032'],
    ])
  })
})

describe('a code', () => {
  const panel = () => asking({ kind: 'code', who: 'installer', send: 's', then: 'ask', wrong: 'unknown' })
  const entered = (who: string, ...inputs: Input[]) =>
    look(on(panel(), ...press('d'), { kind: 'code', who }, ...inputs)).slice(0, 5)
  it('leads on where it is the one that is asked for, once it is sent', () => {
    expect(entered('installer', ...press('s'))).toEqual(['ask', null, 0, '', false])
    expect(entered('installer')[0]).toBe('lone')
    expect(entered('main-user', ...press('s')).slice(3)).toEqual(['unknown', true])
    expect(after(panel(), 's')[0]).toBe('lone')
  })
})
