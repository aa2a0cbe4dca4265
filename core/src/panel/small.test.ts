import { describe, expect, it } from 'vitest'
import { on, press, smallPanel, smallScreens, uncheckedPanel } from '../testing/small-panel.ts'
import { acted } from './machine.ts'
import type { Input, PanelState } from './state.ts'

/* What each key of the small panel does is written from its description by hand; the shipped panels are in machine.test.ts. */

const waits = (seconds: number): Input => ({ kind: 'wait', seconds })
const at = (keys: string): PanelState => on(smallPanel(), ...press(keys))
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
    const hold = (seconds: number) => on(smallPanel(), { kind: 'hold', key: 'z', seconds })
    expect(seen(hold(4))).toEqual(['ask', '', false])
    expect(seen(hold(3.9))).toEqual(['home', '', true])
    expect(seen(on(smallPanel(), ...press('f'), { kind: 'hold', key: 'z', seconds: 4 }))).toEqual([
      'ask',
      '',
      false,
    ])
  })

  it('that is a code beeps where none is asked for, and ends what is said', () => {
    expect(seen(on(smallPanel(), ...press('bg'), { kind: 'code', who: 'installer' }))).toEqual([
      'home',
      '',
      true,
    ])
  })

  it('that is heard means nothing where no ID is asked for', () => {
    const before = at('a')
    expect(acted(smallPanel(), before, [{ kind: 'hear', serial: '20417733', loop: 1 }])).toEqual(before)
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
    const { kept, draft } = on(smallPanel(over), ...press(keys))
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
      const panel = smallPanel({ keeping })
      expect(on(panel, ...press('b27')).kept).toBe(panel.factory)
    }
  })
})

describe('time', () => {
  it('ends what it works at, after just so long, and no key does', () => {
    expect(seen(on(smallPanel(), ...press('c'), waits(19)))).toEqual(['work', '', false])
    expect(seen(on(smallPanel(), ...press('c'), waits(20)))).toEqual(['ask', '', false])
    expect(seen(on(smallPanel(), ...press('c'), waits(12), waits(8)))).toEqual(['ask', '', false])
    expect(seen(on(smallPanel(), ...press('c1')))).toEqual(['work', '', true])
    // Having worked it has waited for nothing yet.
    expect(on(smallPanel(), ...press('c'), waits(20)).waited).toBe(0)
  })

  it('is none where it is not more than nothing', () => {
    const state = at('c')
    for (const seconds of [0, -5]) expect(acted(smallPanel(), state, [waits(seconds)])).toBe(state)
  })

  it('without a key leads home, typed or not; a key begins it anew', () => {
    const idle = { idle: { seconds: 60, to: 'home' } }
    expect(seen(on(smallPanel(idle), ...press('d1'), waits(59)))).toEqual(['lone', '', false])
    expect(seen(on(smallPanel(idle), ...press('d1'), waits(60)))).toEqual(['home', '', false])
    expect(seen(on(smallPanel(idle), ...press('d1'), waits(59), ...press('2'), waits(59)))[0]).toBe('lone')
    expect(seen(on(smallPanel(idle), ...press('d1'), waits(30), waits(30)))[0]).toBe('home')
    expect(seen(on(smallPanel(), ...press('d1'), waits(9999)))[0]).toBe('lone')
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
        ...smallScreens,
        w1: { ...smallScreens.w1, skip },
        w2: { ...smallScreens.w2, skip },
        w3: { ...smallScreens.w3, skip },
      },
      walks: { all: { screens: ['w1', 'w2', 'w3'], after: 'w1', before: 'w3' } },
    }
    // The checker refuses such a description; the machine ends all the same.
    expect(seen(on(uncheckedPanel(over), ...press('e')))).toEqual(['home', '', true])
  })

  it('has no neighbour for what is in none', () => {
    const over = { screens: { ...smallScreens, lost: { ...smallScreens.lost, keys: { '1': '>' } } } }
    expect(seen(on(uncheckedPanel(over), ...press('a01')))).toEqual(['lost', '', true])
  })
})
