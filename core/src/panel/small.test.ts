import { describe, expect, it } from 'vitest'
import { interfaceProblems } from '../catalogue/interface-check.ts'
import type { PanelInterface } from '../catalogue/schema.ts'
import { catalogue } from '../testing/small-job.ts'
import { compiled, type Compiled } from './compiled.ts'
import { acted, switchedOn } from './machine.ts'
import type { Input, PanelState } from './state.ts'

/*
 * An interface of one screen for each thing that a description can say. What each key does is written from the description by
 * hand; the tables of the shipped panels are in machine.test.ts.
 */

const list = (factory: string) => ({
  form: {
    kind: 'list',
    values: ['1', '2', '3'].map((value) => ({ value, keyed: value, shows: `v${value}` })),
  },
  factory,
})
const bit = (factory: string) => ({ form: { kind: 'bit', on: 'yes', off: 'no' }, factory })
const screens = {
  home: {
    alone: true,
    lines: ['home'],
    widget: { kind: 'menu' },
    keys: { a: 'turn', b: 'ask', c: 'work', d: 'lone', e: 'w1' },
    holds: { z: { seconds: 4, to: 'ask' } },
  },
  /** Two pointers, one that goes round and one that stops. */
  turn: {
    over: ['n', 'm'],
    lines: ['turn {n} {m}'],
    widget: { kind: 'menu' },
    keys: {
      '1': { point: { n: '+' } },
      '2': { point: { n: '-' } },
      '3': { point: { m: '+' } },
      '4': { point: { m: '-' } },
      '5': { point: { n: 2 } },
      '6': [
        { when: { pointer: { n: 'first' } }, say: 'first' },
        { when: { pointer: { n: 'last' } }, say: 'last' },
        { say: 'between' },
      ],
      '7': [{ when: { pointer: { n: 2 } }, say: 'two' }],
      '8': [{ when: { pointer: { n: [2, 3] } }, say: 'from two' }, { say: 'below' }],
      '9': { go: 'kept' },
      '0': { go: 'lost' },
      f: { go: '.' },
    },
  },
  kept: { carry: ['n'], lines: ['kept'], widget: { kind: 'menu' }, keys: { '1': 'turn' } },
  lost: { lines: ['lost'], widget: { kind: 'menu' }, keys: { '1': 'turn' } },
  /** What is stored decides. */
  ask: {
    lines: ['ask'],
    widget: { kind: 'menu' },
    keys: {
      '1': { put: { 'x.list': '1' } },
      '2': { put: { 'x.list': '2' } },
      '3': { put: { 'x.list': '' } },
      '4': [{ when: { at: 'x.list', in: ['1'] }, say: 'one' }, { say: 'not one' }],
      '5': [{ when: { at: 'x.list', not: ['1', ''] }, say: 'another' }, { say: 'one or none' }],
      '6': [{ when: { at: 'x.list', in: ['1', '2'], not: ['2'] }, say: 'both hold' }],
      '7': { do: ['keep'] },
      '8': { do: ['drop'] },
      '9': { do: ['factory'] },
      '0': { do: ['beep'] },
      f: { do: ['listen'] },
      g: { put: { 'x.bit': 'on' }, do: ['keep'], say: 'kept', go: 'home' },
    },
  },
  work: { lines: ['work'], widget: { kind: 'busy', seconds: 20, then: 'ask' } },
  /** Typing, with a key for each thing that is done to what is typed. */
  lone: {
    lines: ['lone {typed}'],
    widget: {
      kind: 'number',
      at: 'x.list',
      digits: [1, 1],
      opens: 'empty',
      send: 's',
      bad: 'no',
      then: 'ask',
    },
    keys: {
      a: { do: ['clear'] },
      b: { do: ['back'] },
      c: [
        { when: { empty: true }, say: 'nothing typed' },
        { when: { empty: false }, say: 'typed' },
      ],
    },
  },
  /** A walk of three, of which the middle is passed over while a value stands. */
  w1: { lines: ['w1'], widget: { kind: 'menu' }, keys: { c: '>', d: '<' } },
  w2: {
    lines: ['w2'],
    skip: [
      { at: 'x.list', in: ['1'] },
      { at: 'x.list', in: ['3'] },
    ],
    widget: { kind: 'menu' },
    keys: { c: '>', d: '<' },
  },
  w3: { lines: ['w3'], widget: { kind: 'menu' }, keys: { c: '>', d: '<' } },
}
const description = (over: object = {}): PanelInterface =>
  ({
    ...{ kind: 'interface', id: 'interface/small', version: '1', maker: 'x', name: 'small' },
    regions: ['europe'],
    display: {
      ...{ lines: 1, columns: 20, messages: 1, cursor: '_' },
      alphabet: 'abcdefghijklmnopqrstuvwxyz0123456789_ ',
    },
    keys: [['0', '1', '2', '3', '4', '5', '6', '7', '8', '9', 'a', 'b', 'c', 'd', 'e', 'f', 'g', 's', 'z']],
    pointers: { n: { from: 1, to: 3, ends: 'wrap' }, m: { from: 1, to: 2, ends: 'stop' } },
    fields: { 'x.list': list('2'), 'x.bit': bit('off') },
    walks: { all: { screens: ['w1', 'w2', 'w3'], after: { say: 'round', go: 'w1' }, before: 'home' } },
    screens,
    common: { z: 'home' },
    keeping: 'session',
    start: 'home',
    ...over,
  }) as unknown as PanelInterface

const unchecked = (over: object): Compiled =>
  compiled(description(over), catalogue.get('panel', 'panel/tarn-40') ?? expect.fail(), [])
const small = (over: object = {}): Compiled => {
  expect(interfaceProblems(description(over))).toEqual([])
  return unchecked(over)
}
const press = (keys: string): Input[] => [...keys].map((key) => ({ kind: 'press', key }))
const waits = (seconds: number): Input => ({ kind: 'wait', seconds })
const on = (panel: Compiled, ...inputs: Input[]): PanelState =>
  acted(panel, switchedOn(panel, panel.factory), inputs)
const at = (keys: string): PanelState => on(small(), ...press(keys))
/** Where it stands, what it says, and whether the last key did nothing. */
const seen = (state: PanelState) => [state.screen, state.says, state.beeped]

describe('a key', () => {
  it.each([
    ['', 'home', '', false],
    ['a', 'turn', '', false],
    // Nothing belongs to it here; on this screen what is common does not act either.
    ['f', 'home', '', true],
    ['z', 'home', '', true],
    // What is common acts on any other screen; a key that does something ends the beep.
    ['az', 'home', '', false],
    ['fa', 'turn', '', false],
    ['ba', 'ask', '', true],
    ['b0', 'ask', '', true],
    // It cannot listen where no ID is asked for.
    ['bf', 'ask', '', true],
    ['bg', 'home', 'kept', false],
    ['bga', 'turn', '', false],
  ])('%s: %s', (keys, ...after) => {
    expect(seen(at(keys))).toEqual(after)
  })

  it('held long enough does what holding does, else what pressing does', () => {
    const hold = (seconds: number) => on(small(), { kind: 'hold', key: 'z', seconds })
    expect(seen(hold(4))).toEqual(['ask', '', false])
    expect(seen(hold(3.9))).toEqual(['home', '', true])
    expect(seen(on(small(), ...press('f'), { kind: 'hold', key: 'z', seconds: 4 }))).toEqual([
      'ask',
      '',
      false,
    ])
  })

  it('that is a code beeps where none is asked for, and ends what is said', () => {
    expect(seen(on(small(), ...press('bg'), { kind: 'code', who: 'installer' }))).toEqual(['home', '', true])
  })

  it('that is heard means nothing where no ID is asked for', () => {
    const before = at('a')
    expect(acted(small(), before, [{ kind: 'hear', serial: '20417733', loop: 1 }])).toEqual(before)
  })
})

describe('a pointer', () => {
  const places = (keys: string) => at(`a${keys}`).pointers
  it.each([
    ['', { n: 1, m: 1 }],
    ['1', { n: 2, m: 1 }],
    ['11', { n: 3, m: 1 }],
    // One goes round at its ends, the other stops there.
    ['111', { n: 1, m: 1 }],
    ['2', { n: 3, m: 1 }],
    ['22', { n: 2, m: 1 }],
    ['3', { n: 1, m: 2 }],
    ['33', { n: 1, m: 2 }],
    ['334', { n: 1, m: 1 }],
    ['44', { n: 1, m: 1 }],
    ['5', { n: 2, m: 1 }],
    // Opened again it stays.
    ['5f', { n: 2, m: 1 }],
    // A screen that carries it gives it back; one that does not has forgotten it.
    ['591', { n: 2, m: 1 }],
    ['501', { n: 1, m: 1 }],
  ])('after %s', (keys, after) => {
    expect(places(keys)).toEqual(after)
  })

  it('is kept by what carries it, as far as it was there', () => {
    expect(at('a59').pointers).toEqual({ n: 2 })
    expect(at('a50').pointers).toEqual({})
  })

  it.each([
    ['6', 'first', false],
    ['16', 'between', false],
    ['116', 'last', false],
    ['7', '', true],
    ['17', 'two', false],
    ['117', '', true],
    ['8', 'below', false],
    ['18', 'from two', false],
    ['118', 'from two', false],
  ])('decides after %s', (keys, says, beeped) => {
    expect(seen(at(`a${keys}`))).toEqual(['turn', says, beeped])
  })
})

describe('what is stored', () => {
  it.each([
    ['b4', 'not one'],
    ['b14', 'one'],
    ['b34', 'not one'],
    ['b5', 'another'],
    ['b15', 'one or none'],
    ['b35', 'one or none'],
    ['b16', 'both hold'],
  ])('decides after %s', (keys, says) => {
    expect(seen(at(keys))).toEqual(['ask', says, false])
  })

  it('must hold in all that a guard says of it', () => {
    expect(seen(at('b26'))).toEqual(['ask', '', true])
    expect(seen(at('b36'))).toEqual(['ask', '', true])
  })

  const stored = (keys: string, over: object = {}) => {
    const { kept, draft } = on(small(over), ...press(keys))
    return [Object.fromEntries(kept), Object.fromEntries(draft)]
  }
  const factory = { 'x.list': '2', 'x.bit': 'off' }
  it.each([
    ['b1', factory, { 'x.list': '1' }],
    ['b17', { ...factory, 'x.list': '1' }, {}],
    ['b18', factory, {}],
    ['b178', { ...factory, 'x.list': '1' }, {}],
    ['b179', factory, {}],
    // An emptied value is none once it is kept.
    ['b3', factory, { 'x.list': '' }],
    ['b37', { 'x.bit': 'off' }, {}],
    // What stands there already is no answer.
    ['b2', factory, {}],
  ])('after %s where all is kept at the end', (keys, kept, draft) => {
    expect(stored(keys)).toEqual([kept, draft])
  })

  it.each([
    ['b1', { ...factory, 'x.list': '1' }],
    ['b3', { 'x.bit': 'off' }],
    ['b2', factory],
  ])('after %s where each answer is kept', (keys, kept) => {
    expect(stored(keys, { keeping: 'at-once' })).toEqual([kept, {}])
  })

  it('is the same memory where nothing is changed', () => {
    for (const keeping of ['at-once', 'session']) {
      const panel = small({ keeping })
      expect(on(panel, ...press('b27')).kept).toBe(panel.factory)
    }
  })
})

describe('time', () => {
  it('ends what it works at, after just so long, and no key does', () => {
    expect(seen(on(small(), ...press('c'), waits(19)))).toEqual(['work', '', false])
    expect(seen(on(small(), ...press('c'), waits(20)))).toEqual(['ask', '', false])
    expect(seen(on(small(), ...press('c'), waits(12), waits(8)))).toEqual(['ask', '', false])
    expect(seen(on(small(), ...press('c1')))).toEqual(['work', '', true])
    // Having worked it has waited for nothing yet.
    expect(on(small(), ...press('c'), waits(20)).waited).toBe(0)
  })

  it('is none where it is not more than nothing', () => {
    const state = at('c')
    for (const seconds of [0, -5]) expect(acted(small(), state, [waits(seconds)])).toBe(state)
  })

  it('without a key leads home, typed or not; a key begins it anew', () => {
    const idle = { idle: { seconds: 60, to: 'home' } }
    expect(seen(on(small(idle), ...press('d1'), waits(59)))).toEqual(['lone', '', false])
    expect(seen(on(small(idle), ...press('d1'), waits(60)))).toEqual(['home', '', false])
    expect(seen(on(small(idle), ...press('d1'), waits(59), ...press('2'), waits(59)))[0]).toBe('lone')
    expect(seen(on(small(idle), ...press('d1'), waits(30), waits(30)))[0]).toBe('home')
    expect(seen(on(small(), ...press('d1'), waits(9999)))[0]).toBe('lone')
  })
})

describe('what is typed', () => {
  it.each([
    ['d', null, '', 'nothing typed'],
    ['d1', '1', '', 'typed'],
    ['d1a', null, '', 'nothing typed'],
    ['d1b', '', '', 'nothing typed'],
    ['db', '', '', 'nothing typed'],
  ])('after %s', (keys, typed, _says, asked) => {
    expect(at(keys).typed ?? '').toBe(typed ?? '')
    expect(seen(at(`${keys}c`))).toEqual(['lone', asked, false])
  })
})

describe('a walk', () => {
  it.each([
    ['e', 'w1', ''],
    ['ec', 'w2', ''],
    ['ecc', 'w3', ''],
    ['eccc', 'w1', 'round'],
    ['ed', 'home', ''],
    ['eccd', 'w2', ''],
    // Passed over both ways while either value stands.
    ['b1zec', 'w3', ''],
    ['b1zecd', 'w1', ''],
  ])('after %s', (keys, screen, says) => {
    expect(seen(at(keys))).toEqual([screen, says, false])
  })

  it('in which all is passed over beeps where it began', () => {
    const skip = [{ at: 'x.bit', in: ['off'] }]
    const over = {
      screens: {
        ...screens,
        w1: { ...screens.w1, skip },
        w2: { ...screens.w2, skip },
        w3: { ...screens.w3, skip },
      },
      walks: { all: { screens: ['w1', 'w2', 'w3'], after: 'w1', before: 'w3' } },
    }
    // The checker refuses such a description; the machine ends all the same.
    expect(seen(on(unchecked(over), ...press('e')))).toEqual(['home', '', true])
  })

  it('has no neighbour for what is in none', () => {
    const over = { screens: { ...screens, lost: { ...screens.lost, keys: { '1': '>' } } } }
    expect(seen(on(unchecked(over), ...press('a01')))).toEqual(['lost', '', true])
  })
})
