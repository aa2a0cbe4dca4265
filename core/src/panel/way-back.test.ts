import { describe, expect, it } from 'vitest'
import type { Memory } from '../memory/memory.ts'
import { on, press, smallPanel, smallScreens, uncheckedPanel } from '../testing/small-panel.ts'
import type { Compiled } from './compiled.ts'
import { graphOf, restingId } from './graph.ts'
import type { Input } from './state.ts'
import { waysTo } from './way-back.ts'

/* Ways on the small panel, by hand: its z leads home from everywhere but home. */

const id = (screen: string, pointers: Record<string, number> = {}): string => restingId({ screen, pointers })
const written = (inputs: readonly Input[]): string =>
  inputs
    .map((input) => (input.kind === 'press' ? input.key : input.kind === 'wait' ? `(${input.seconds})` : '?'))
    .join('')
function back(
  keys: string,
  to: string,
  { others = [], panel = smallPanel() }: { others?: readonly Memory[]; panel?: Compiled } = {},
) {
  const way = waysTo(graphOf(panel, panel.factory), to, others)(on(panel, ...press(keys)))
  return way && { keys: written(way.inputs), at: restingId(way.state) }
}
const listIs = (value: string): Memory => new Map([...smallPanel().factory, ['x.list', value]])

describe('a way back', () => {
  it.each([
    ['there already', '', id('home'), ''],
    ['by what is common', 'a11', id('home'), 'z'],
    ['over another screen', 'b', id('turn', { n: 1, m: 1 }), 'za'],
    ['to other numbers', 'a', id('turn', { n: 2, m: 1 }), '1'],
    ['round the end of them', 'a', id('turn', { n: 3, m: 1 }), '2'],
    ['out of what is half typed', 'd2', id('home'), 'z'],
    ['after waiting, where it works', 'c', id('ask'), '(20)'],
    ['after waiting, and on', 'c', id('home'), '(20)z'],
    ['along a walk', 'e', id('w3'), 'cc'],
  ])('%s', (_, keys, to, way) => {
    expect(back(keys, to)).toEqual({ keys: way, at: to })
  })

  it('is none to a place that is not there', () => {
    expect(back('', 'nowhere')).toBeNull()
  })

  it('is none where only keys that write or keep lead on', () => {
    const panel = uncheckedPanel({ common: {} })
    // The one way home from there stores an answer and keeps it.
    expect(back('b', id('home'), { panel })).toBeNull()
    expect(back('b', id('home'))).toEqual({ keys: 'z', at: id('home') })
    // Keeping alone does not go back either; dropping neither.
    for (const what of ['keep', 'drop', 'factory']) {
      const ask = { ...smallScreens.ask, keys: { '7': { do: [what], go: 'home' } } }
      const only = uncheckedPanel({ common: {}, screens: { ...smallScreens, ask } })
      const stored = on(only, ...press('b'))
      const draft = new Map([['x.list', '1']])
      const way = waysTo(graphOf(only, only.factory), id('home'), [])({ ...stored, draft })
      expect([what, way]).toEqual([what, null])
    }
  })

  it('does not go where it would end elsewhere with other answers stored', () => {
    // The middle of the walk is passed over while the list is 1.
    expect(back('e', id('w2'))).toEqual({ keys: 'c', at: id('w2') })
    expect(back('e', id('w2'), { others: [listIs('2')] })).toEqual({ keys: 'c', at: id('w2') })
    expect(back('e', id('w2'), { others: [listIs('1')] })).toBeNull()
    expect(back('e', id('w3'), { others: [listIs('1')] })).toBeNull()
    expect(back('e', id('home'), { others: [listIs('1'), listIs('3')] })?.at).toBe(id('home'))
  })

  it('leads out of what is half typed whatever the panel holds', () => {
    expect(back('d2', id('home'), { others: [listIs('1'), listIs('3')] })).toEqual({
      keys: 'z',
      at: id('home'),
    })
    expect(back('d', id('home'), { others: [listIs('1')] })).toEqual({ keys: 'z', at: id('home') })
  })

  it('clears what is half typed, however much it is', () => {
    const lone = { ...smallScreens.lone, widget: { ...smallScreens.lone.widget, opens: 'value' } }
    const panel = uncheckedPanel({ screens: { ...smallScreens, lone } })
    // Taking one sign back is not enough where another may have been typed before it.
    expect(back('d2', id('lone'), { panel })).toEqual({ keys: 'a', at: id('lone') })
  })

  it('takes the quicker of two', () => {
    const lone = { ...smallScreens.lone, keys: { ...smallScreens.lone.keys, d: 'kept' } }
    const kept = { ...smallScreens.kept, keys: { '1': 'turn', '2': 'home' } }
    const panel = uncheckedPanel({ screens: { ...smallScreens, lone, kept } })
    expect(back('d', id('home'), { panel })).toEqual({ keys: 'z', at: id('home') })
    expect(
      back('d', id('home'), {
        panel: uncheckedPanel({ common: {}, screens: { ...smallScreens, lone, kept } }),
      }),
    ).toEqual({
      keys: 'd2',
      at: id('home'),
    })
  })
})

describe('a long way back', () => {
  /** Six screens in a row, n for the next and home behind the last; nothing else leads on but what is given for a screen. */
  function row(over: Readonly<Record<string, object>> = {}): Compiled {
    const names = ['l1', 'l2', 'l3', 'l4', 'l5', 'l6']
    const screens = names.map((name, at): [string, object] => [
      name,
      { lines: [name], widget: { kind: 'menu' }, keys: { a: names[at + 1] ?? 'home', ...over[name] } },
    ])
    const waits = [20, 60].map((seconds): [string, object] => [
      `work${seconds}`,
      { lines: ['work'], widget: { kind: 'busy', seconds, then: 'l6' } },
    ])
    const home = { alone: true, lines: ['home'], widget: { kind: 'menu' }, keys: { s: 'l1' } }
    const widget = { ...smallScreens.lone.widget, then: 'l1' }
    const question = { ...smallScreens.lone, widget, keys: { ...smallScreens.lone.keys, d: 'l1' } }
    return uncheckedPanel({
      common: {},
      walks: {},
      screens: { home, ...Object.fromEntries(screens), ...Object.fromEntries(waits), lone: question },
    })
  }
  const from = (
    screen: string,
    panel: Compiled,
    others: readonly Memory[] = [],
    typed: string | null = null,
  ) => {
    const state = { ...on(panel), screen, pointers: {}, typed: typed ?? on(panel).typed }
    const way = waysTo(graphOf(panel, panel.factory), id('home'), others)(state)
    return way && written(way.inputs)
  }

  it('is found however long it is', () => {
    expect(from('l1', row())).toBe('aaaaaa')
    expect(from('l4', row())).toBe('aaa')
  })

  it('writes nothing, however short that would be', () => {
    expect(from('l1', row({ l4: { b: { put: { 'x.list': '1' }, go: 'home' } } }))).toBe('aaaaaa')
    expect(from('l1', row({ l4: { b: { do: ['keep'], go: 'home' } } }))).toBe('aaaaaa')
  })

  it('is the one of fewest keys, and of those the one that waits least', () => {
    expect(from('l1', row({ l2: { b: 'l6' } }))).toBe('aba')
    expect(from('l1', row({ l4: { b: 'l6' } }))).toBe('aaaba')
    expect(from('l1', row({ l4: { b: 'work20' } }))).toBe('aaab(20)a')
    expect(from('l1', row({ l4: { b: 'work60', c: 'work20' } }))).toBe('aaac(20)a')
    // A wait does not weigh against a key.
    expect(from('l1', row({ l5: { b: 'work20' } }))).toBe('aaaaaa')
  })

  it('is sure whatever is stored', () => {
    const guarded = row({
      l4: { b: [{ when: { at: 'x.list', in: ['2'] }, go: 'l6' }, { go: 'l1' }] },
    })
    expect(from('l1', guarded)).toBe('aaaba')
    expect(from('l1', guarded, [listIs('2')])).toBe('aaaba')
    expect(from('l1', guarded, [listIs('3')])).toBe('aaaaaa')
    expect(from('l1', guarded, [listIs('2'), listIs('3')])).toBe('aaaaaa')
    // Nor a key that writes only with other answers stored.
    const writing = row({
      l4: { b: [{ when: { at: 'x.list', in: ['3'] }, put: { 'x.bit': 'on' }, go: 'l6' }, { go: 'l6' }] },
    })
    expect(from('l1', writing)).toBe('aaaba')
    expect(from('l1', writing, [listIs('3')])).toBe('aaaaaa')
    // Nor one after which a message stands.
    const saying = row({
      l4: { b: [{ when: { at: 'x.list', in: ['3'] }, say: 'so', go: 'l6' }, { go: 'l6' }] },
    })
    expect(from('l1', saying, [listIs('3')])).toBe('aaaaaa')
  })

  it('begins with the keys out of what is half typed', () => {
    expect(from('lone', row(), [], '2')).toBe('daaaaaa')
  })

  it('is none where the row is broken', () => {
    expect(from('l1', row({ l5: { a: 'l4' } }))).toBeNull()
  })
})

describe('out of what does not rest', () => {
  const menu = (keys: object) => ({ lines: ['p'], widget: { kind: 'menu' }, keys })
  /** Screens by their keys; a message stands on the first of them, so that nothing rests there. */
  function told(
    screens: Readonly<Record<string, object>>,
    others: readonly Memory[] = [],
    over: object = {},
  ) {
    // All of them are reached from home, each by its key.
    const led = Object.keys(screens).map((name, at): [string, string] => [[...'abcfgsz'][at] ?? '0', name])
    const home = { alone: true, lines: ['home'], widget: { kind: 'menu' }, keys: Object.fromEntries(led) }
    const panel = uncheckedPanel({
      ...{ common: {}, walks: {} },
      screens: { home, ...screens },
      ...over,
    })
    const [screen = ''] = Object.keys(screens)
    const way = waysTo(
      graphOf(panel, panel.factory),
      id('home'),
      others,
    )({
      ...{ ...on(panel), screen, pointers: {}, says: screen === 'works' ? '' : 'so' },
    })
    return way && written(way.inputs)
  }
  const onward = (go: string) => ({ say: 'on', go })

  it('three keys are enough, and more are not tried', () => {
    const chain = { p2: menu({ d: onward('p3') }), p3: menu({ d: 'home' }) }
    expect(told({ p1: menu({ d: onward('p2') }), ...chain })).toBe('ddd')
    expect(told({ p0: menu({ d: onward('p1') }), p1: menu({ d: onward('p2') }), ...chain })).toBeNull()
  })

  it('fewest keys count, those out of it and those after', () => {
    const row = { l1: menu({ a: 'l2' }), l2: menu({ a: 'home' }) }
    // One key and two to go are as many as two keys and one to go: the first of them is taken.
    expect(told({ p1: menu({ d: 'l1', e: onward('p2') }), p2: menu({ d: 'l2' }), ...row })).toBe('daa')
    expect(told({ p1: menu({ d: 'l2', e: 'l1' }), ...row })).toBe('da')
    expect(told({ p1: menu({ d: 'l1', e: 'l2' }), ...row })).toBe('ea')
  })

  it('what is typed may have been more than is seen', () => {
    const keys = { b: { do: ['back'] }, e: { do: ['clear'] } }
    const lone = { ...smallScreens.lone, keys, widget: { ...smallScreens.lone.widget, opens: 'value' } }
    const panel = uncheckedPanel({ screens: { ...smallScreens, lone } })
    expect(back('d2', id('lone'), { panel })).toEqual({ keys: 'e', at: id('lone') })
  })

  it('what works already may keep when it ends; what a key begins may not', () => {
    const works = {
      lines: ['work'],
      widget: { kind: 'busy', seconds: 20, then: { do: ['keep'], go: 'home' } },
    }
    expect(told({ works })).toBe('(20)')
    expect(told({ p1: menu({ d: 'works' }), works })).toBeNull()
    expect(
      told({
        works: { ...works, widget: { ...works.widget, then: { do: ['keep'], go: 'p1' } } },
        p1: menu({ d: 'home' }),
      }),
    ).toBe('(20)d')
  })

  it('no key that writes, whatever is stored', () => {
    const put = { put: { 'x.bit': 'on' }, go: 'home' }
    expect(told({ p1: menu({ d: put }) })).toBeNull()
    expect(told({ p1: menu({ d: put }) }, [], { keeping: 'at-once' })).toBeNull()
    expect(told({ p1: menu({ d: 'home' }) }, [], { keeping: 'at-once' })).toBe('d')
    const sometimes = { p1: menu({ d: [{ when: { at: 'x.list', in: ['3'] }, ...put }, { go: 'home' }] }) }
    expect(told(sometimes, [listIs('1')])).toBe('d')
    expect(told(sometimes, [listIs('1'), listIs('3')])).toBeNull()
    expect(told(sometimes, [listIs('3'), listIs('1')])).toBeNull()
  })
})
