import { describe, expect, it } from 'vitest'
import { on, press, smallDisplay, smallScreens, uncheckedPanel } from '../testing/small-panel.ts'
import type { Compiled } from './compiled.ts'
import { displayReader, placeAt, type Place } from './read-off.ts'

/* What a display says is reasoned by hand on a panel of one screen for each thing that a line can show. */

const lines = (over: Readonly<Record<string, object>>, more: object = {}): Compiled =>
  uncheckedPanel({ screens: { ...smallScreens, ...over }, ...more })
const kept = (line: string, more: object = {}, over: object = {}): Compiled =>
  lines({ kept: { ...smallScreens.kept, lines: [line], ...more } }, over)
const places = (panel: Compiled, read: string | readonly string[], isKnown = true): readonly Place[] =>
  displayReader(panel, () => isKnown).places(typeof read === 'string' ? [read] : read, panel.factory)
/** The likeliest place on a screen, by what is told of it. */
function said(panel: Compiled, read: string | readonly string[], isKnown = true) {
  const found = places(panel, read, isKnown).find(({ look }) => look.screen === 'kept')
  if (!found) return null
  const { apart, strange, typed, row, holds } = found
  return { apart, strange, typed, row, holds: Object.fromEntries(holds) }
}
const plainly = { apart: 0, strange: 0, typed: null, row: null, holds: {} }

describe('places that can show what was read', () => {
  const at = (read: string) =>
    places(lines({}), read).map(
      ({ look, pointers, apart }) => `${look.screen} ${Object.values(pointers).join('')} ${apart}`,
    )
  it('come nearest first, with the numbers that stand there', () => {
    // Six signs: two may be otherwise.
    expect(at('turn 2 1')).toEqual([
      'turn 21 0',
      'turn 11 1',
      'turn 22 1',
      'turn 31 1',
      'turn 12 2',
      'turn 32 2',
    ])
    // Three signs: one may.
    expect(at('ask')).toEqual(['ask  0'])
    expect(at('asx')).toEqual(['ask  1'])
    expect(at('axx')).toEqual([])
    // One sign may always be otherwise.
    expect(at('w1').map((one) => one.slice(0, 2))).toEqual(['w1', 'w2', 'w3'])
  })

  it('are none where nothing was read', () => {
    expect(at('')).toEqual([])
    expect(at('  ')).toEqual([])
  })

  it('with a message are told apart by it; the numbers that it covers can be any', () => {
    const found = places(lines({}), 'from two')
    expect(new Set(found.map(({ look }) => `${look.screen}: ${look.says}`))).toEqual(
      new Set(['turn: from two']),
    )
    expect(found).toHaveLength(6)
  })

  it('of two with as many signs otherwise, what is believed goes first', () => {
    const both = lines({
      kept: { ...smallScreens.kept, lines: ['is {@x.list@}'] },
      lost: { ...smallScreens.lost, lines: ['is {@x.bit@}'] },
    })
    // The list came as v2, the bit as no.
    expect(places(both, 'is v2')[0]?.look.screen).toBe('kept')
    expect(places(both, 'is no')[0]?.look.screen).toBe('lost')
    const same = lines({
      kept: { ...smallScreens.kept, lines: ['v3 {@x.list@}'] },
      lost: { ...smallScreens.lost, lines: ['{@x.list@} v2'] },
    })
    expect(places(same, 'v3 v2').map(({ look, strange }) => [look.screen, strange])).toEqual([
      ['kept', 0],
      ['lost', 1],
    ])
  })
})

describe('what a gap says', () => {
  it('a value, by the name that the display has for it', () => {
    const panel = kept('list {@x.list@}')
    expect(said(panel, 'list v2')).toEqual({ ...plainly, holds: { 'x.list': '2' } })
    // It came as v2: another is strange where that is known.
    expect(said(panel, 'list v3')).toEqual({ ...plainly, strange: 1, holds: { 'x.list': '3' } })
    expect(said(panel, 'list v3', false)).toEqual({ ...plainly, holds: { 'x.list': '3' } })
    // Nothing there is the empty value; a name that is none is the nearest.
    expect(said(panel, 'list')).toEqual({ ...plainly, strange: 1, holds: { 'x.list': '' } })
    expect(said(panel, 'list v9')).toEqual({ ...plainly, apart: 1, strange: 1, holds: { 'x.list': '1' } })
    expect(said(panel, 'list V 2')).toEqual({ ...plainly, holds: { 'x.list': '2' } })
    expect(said(kept('list {@x.gone@}'), 'list v2')).toEqual({ ...plainly, apart: 1 })
  })

  it('a name that is cut, where no other begins so', () => {
    const shows = ['interior door', 'interior wall', 'outer gate', 'outer']
    const values = shows.map((name, at) => ({ value: String(at), keyed: String(at), shows: name }))
    const panel = kept(
      'at {@x.list@}',
      {},
      {
        fields: { 'x.list': { form: { kind: 'list', values }, factory: '0' } },
      },
    )
    const holds = (read: string) => {
      const found = said(panel, read)
      return [found?.apart, found?.holds['x.list']]
    }
    expect(holds('at interior w')).toEqual([0, '1'])
    // Two begin so: it is one of them, and nobody knows which.
    expect(holds('at interior')).toEqual([0, undefined])
    expect(holds('at outer g')).toEqual([0, '2'])
    // A name that stands there whole is that name, though another begins so.
    expect(holds('at outer')).toEqual([0, '3'])
    // Five signs are not enough to be a beginning: outer is four signs off.
    expect(holds('at inte')).toEqual([undefined, undefined])
  })

  it('what is typed: digits where only digits can be', () => {
    const typed = (widget: object, read: string) => {
      const found = said(kept('is {typed}', { widget }, {}), read)
      return [found?.typed, found?.apart]
    }
    const number = { ...smallScreens.lone.widget }
    expect(typed(number, 'is 12_')).toEqual(['12', 0])
    expect(typed(number, 'is _')).toEqual(['', 0])
    expect(typed(number, 'is 1x_')).toEqual(['1x', 1])
    expect(typed({ kind: 'code' }, 'is **')).toEqual(['**', 0])
    expect(typed({ kind: 'code' }, 'is *7')).toEqual(['*7', 1])
    expect(typed({ kind: 'words', at: 'x.list' }, 'is 12 34_')).toEqual(['12 34', 0])
    expect(typed({ kind: 'words', at: 'x.list' }, 'is 12 a_')).toEqual(['12 a', 1])
    expect(typed({ kind: 'jump', to: {} }, 'is 4_')).toEqual(['4', 0])
    expect(typed({ kind: 'text', at: 'x.list' }, 'is den 4_')).toEqual(['den 4', 0])
  })

  it('lights, each by its sign', () => {
    const widget = {
      kind: 'options',
      bits: { a: 'x.bit', b: { at: 'x.list', on: '1', off: '2' } },
      then: 'ask',
    }
    const lit = kept('on {lit}', { widget })
    const off = { 'x.bit': 'off', 'x.list': '2' }
    expect(said(lit, 'on')).toEqual({ ...plainly, holds: off })
    expect(said(lit, 'on a')).toEqual({ ...plainly, strange: 1, holds: { ...off, 'x.bit': 'on' } })
    expect(said(lit, 'on b a')).toEqual({ ...plainly, strange: 2, holds: { 'x.bit': 'on', 'x.list': '1' } })
    expect(said(lit, 'on ax')).toEqual({ ...plainly, apart: 1, strange: 1, holds: { ...off, 'x.bit': 'on' } })
    // A set that is sent later is typed as well.
    const sent = kept('on {lit}', { widget: { ...widget, send: 's' } })
    expect(said(sent, 'on ba')?.typed).toBe('ab')
    expect(said(sent, 'on')?.typed).toBe('')
    // Lights on a screen that has none are signs too many.
    expect(said(kept('on {lit}'), 'on a')).toEqual({ ...plainly, apart: 1 })
  })

  it('a row of a list, which is stored only where the list opens at what is stored', () => {
    const widget = {
      kind: 'choice',
      at: 'x.list',
      opens: 'first',
      take: 's',
      next: '1',
      end: 'wrap',
      then: 'ask',
    }
    expect(said(kept('pick {row}', { widget }), 'pick v3')).toEqual({ ...plainly, row: '3' })
    expect(said(kept('pick {row}', { widget: { ...widget, opens: 'value' } }), 'pick v3')).toEqual({
      ...{ ...plainly, row: '3' },
      holds: { 'x.list': '3' },
    })
    expect(said(kept('pick {row}', { widget }), 'pick v9')).toEqual({ ...plainly, apart: 1, row: '1' })
  })

  it('the stored number itself, where it is one', () => {
    const widget = { ...smallScreens.lone.widget, opens: 'value' }
    const raw = kept('has {raw}', { widget })
    expect(said(raw, 'has 3')).toEqual({ ...plainly, strange: 1, holds: { 'x.list': '3' } })
    // Nine is no value of the list, so it is not what is stored; as something typed it can stand there, with the cursor.
    expect(said(raw, 'has 9')?.apart).toBe(1)
    expect(said(raw, 'has 9_')).toEqual({ ...plainly, typed: '9' })
  })

  it('nothing of the clock', () => {
    expect(said(kept('now {live:clock}'), 'now 12:40')).toEqual(plainly)
  })
})

describe('lines', () => {
  const display = { ...smallDisplay, lines: 2 }
  it('that nobody read count against a place where something must stand', () => {
    const two = kept('top', { lines: ['top', 'below'] }, { display })
    expect(said(two, ['top'])).toEqual({ ...plainly, strange: 1 })
    expect(said(two, ['top', ''])).toEqual({ ...plainly, strange: 1 })
    expect(said(two, ['top', 'below'])).toEqual(plainly)
    expect(said(two, ['', 'below'])).toEqual({ ...plainly, strange: 1 })
    expect(said(kept('top', { lines: ['top'] }, { display }), ['top'])).toEqual(plainly)
  })

  it('are added up: what is otherwise in both counts', () => {
    const two = kept('top', { lines: ['topmost', 'below it'] }, { display })
    expect(said(two, ['topmosx', 'belox it'])?.apart).toBe(2)
  })
})

describe('a display of a panel in a known state', () => {
  const panel = kept('list {@x.list@}')
  const at = (read: string) => {
    const state = on(panel, ...press('a9'))
    const { look, apart, holds, strange } = placeAt(panel, { state, read: [read], believed: panel.factory })
    return [look.screen, apart, strange, Object.fromEntries(holds)]
  }
  it('says what the panel holds, and how far it is off what can stand there', () => {
    expect(at('list v2')).toEqual(['kept', 0, 0, { 'x.list': '2' }])
    // All that it holds is taken as known there.
    expect(at('list v1')).toEqual(['kept', 0, 1, { 'x.list': '1' }])
    expect(at('lixt v2')).toEqual(['kept', 1, 0, { 'x.list': '2' }])
    expect(at('')).toEqual(['kept', 4, 1, { 'x.list': '' }])
  })
})
