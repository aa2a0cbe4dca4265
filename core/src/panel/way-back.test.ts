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
