import { describe, expect, it } from 'vitest'
import { demoPanel } from '../testing/panels.ts'
import { smallPanel, uncheckedPanel } from '../testing/small-panel.ts'
import { found, keys, route, steps, wanting, why } from '../testing/small-routes.ts'
import type { Compiled } from './compiled.ts'
import { routesTo } from './route.ts'

/* Three questions in a walk, e c c, of which the second is passed over while the first says 1; s sends, h leads home, k keeps. */
const list = (factory: string, keyed: readonly string[] = ['1', '2', '3']) => ({
  form: {
    kind: 'list',
    values: keyed.map((typed, index) => ({ value: String(index + 1), keyed: typed, shows: `v${index + 1}` })),
  },
  factory,
})
const number = (at: string, then: unknown) => ({
  ...{ kind: 'number', at, digits: [1, 1], opens: 'empty', send: 's', bad: 'no', then },
})
const asks = (at: string, then: unknown, more: object = {}, pressed: object = {}) => ({
  ...{ lines: [`${at.replace('.', ' ')} {buf}`], widget: number(at, then), ...more },
  keys: { c: '>', h: 'home', ...pressed },
})
const walkScreens = {
  home: { alone: true, lines: ['home'], widget: { kind: 'menu' }, keys: { a: 'first', e: 'w1' } },
  first: asks('x.list', 'home', {}, { c: 'w1' }),
  w1: asks('v.one', '>'),
  w2: asks('v.two', '>', { skip: [{ at: 'x.list', in: ['1'] }] }),
  w3: asks('v.three', '>'),
}
const walkOver = {
  keys: [['1', '2', '3', 'a', 'c', 'e', 'h', 's']],
  fields: { 'x.list': list('2'), 'v.one': list('1'), 'v.two': list('1'), 'v.three': list('1') },
  walks: { all: { screens: ['w1', 'w2', 'w3'], after: 'home', before: 'home' } },
  screens: walkScreens,
  common: {},
  keeping: 'at-once',
}
const walk = smallPanel(walkOver)

describe('what decides whether a question is asked', () => {
  it('is answered before it, in the order of the plan and in that of the fewest keys', () => {
    const target = wanting({ 'v.two': '2', 'v.one': '2', 'x.list': '2' })
    // It comes with the second passed over. By keys alone the walk would come first: e2s 2s h a 2s.
    for (const order of ['plan', 'shortest'] as const)
      expect(
        steps(route({ panel: walk, target, has: { 'x.list': '1' }, order })).map(
          (step) => step.split(' ')[2],
        ),
      ).toEqual(order === 'plan' ? ['x.list', 'v.two', 'v.one', ''] : ['x.list', 'v.one', 'v.two', ''])
    // What nothing decides stays where the plan has it.
    const free = wanting({ 'v.three': '2', 'v.one': '2' })
    expect(keys(route({ panel: walk, target: free, order: 'plan' }))).toBe('ecc2se2sh')
  })

  it('is answered first even where that takes more keys', () => {
    // The walk ends at the question that decides: e 2s 2s c 2s are fewer keys than a 2s e 2s 2s h, and lead past the second.
    const panel = smallPanel({
      ...walkOver,
      walks: { all: { screens: ['w1', 'w2', 'w3'], after: 'first', before: 'home' } },
    })
    const target = wanting({ 'v.two': '2', 'v.one': '2', 'x.list': '2' })
    expect(keys(route({ panel, target, has: { 'x.list': '1' } }))).toBe('a2se2s2sh')
    expect(keys(route({ panel, target, has: { 'x.list': '3' } }))).toBe('a2se2s2sh')
    const free = wanting({ 'v.three': '2', 'v.one': '2', 'x.list': '1' })
    expect(keys(route({ panel, target: free }))).toBe('e2sc2s1s')
  })

  it('leaves no way to a question that is then passed over', () => {
    const target = wanting({ 'v.two': '2', 'x.list': '1' })
    expect(why(route({ panel: walk, target }))).toEqual(['v.two: No keys lead to it (w2).'])
  })

  it('may make another way right on the way than in the end', () => {
    // In the end the second is passed over, e c; while the third is keyed it is not, e c c.
    const target = wanting({ 'v.three': '2', 'x.list': '1' })
    expect(keys(route({ panel: walk, target, order: 'plan' }))).toBe('ecc2sa1s')
  })

  it('is, on shipped panels, the type of a zone, and the unit of the time to leave and of no other', () => {
    const order = (panel: Compiled, wanted: Record<string, string>) =>
      found(route({ panel, target: wanting(wanted), order: 'plan' })).steps.flatMap(({ sets }) =>
        sets.map(({ address }) => address).filter((address) => address in wanted),
      )
    const tarn = demoPanel('tarn-40')
    expect(order(tarn, { 'zone.1.chime': 'on', 'zone.1.response': '21' })).toEqual([
      'zone.1.response',
      'zone.1.chime',
    ])
    expect(order(tarn, { 'zone.2.chime': 'on', 'zone.1.response': '21' })[0]).toBe('zone.2.chime')
    const pinfold = demoPanel('pinfold-16')
    expect(order(pinfold, { 'system.entry1': '45', 'system.exitUnit': 'on', 'system.exit': '4' })).toEqual([
      'system.entry1',
      'system.exitUnit',
      'system.exit',
    ])
    expect(order(pinfold, { 'system.exit': '75', 'system.entry1': '45' })).toEqual([
      'system.exit',
      'system.entry1',
    ])
  })
})

describe('a question that is passed by answering it', () => {
  const yesno = (at: string, then: string, more: object = {}) => ({
    ...{ lines: [at], widget: { kind: 'yesno', at, yes: 'y', no: 'n', then }, ...more },
  })
  const bit = (factory: string) => ({ form: { kind: 'bit', on: 'yes', off: 'no' }, factory })
  const over = (screens: object) => ({
    ...walkOver,
    keys: [['1', '2', '3', 'a', 'c', 'e', 'h', 'n', 's', 'y']],
    fields: { ...walkOver.fields, 'b.one': bit('on'), 'b.two': bit('off') },
    walks: { all: { screens: ['w1', 'w2', 'w3', 'w4'], after: 'home', before: 'home' } },
    screens: { ...walkScreens, w4: asks('v.three', '>'), ...screens },
  })

  it('is answered as it is wanted on the way, and not again', () => {
    const panel = uncheckedPanel(over({ w2: yesno('b.two', '>'), w3: asks('v.two', '>') }))
    const target = wanting({ 'v.three': '2', 'b.two': 'on' })
    // e c, yes as it is wanted, c, and the answer; then nothing is left.
    expect(keys(route({ panel, target, order: 'plan' }))).toBe('ecyc2s')
    for (const keeping of ['session', 'by-zone']) {
      const kept = uncheckedPanel({
        ...over({
          ...{ w2: yesno('b.two', '>'), w3: asks('v.two', '>') },
          w4: asks('v.three', { do: ['keep'], go: 'home' }),
        }),
        keeping,
      })
      expect(keys(route({ panel: kept, target, order: 'plan' }))).toBe('ecyc2s')
    }
  })

  it('is not answered by keys that were meant for another', () => {
    // In the end the second is passed over, and no at the third leads on. Now the same no would fall on the second.
    const panel = uncheckedPanel(
      over({
        w2: yesno('b.one', 'w4', { skip: [{ at: 'x.list', in: ['1'] }] }),
        w3: yesno('b.two', '>'),
      }),
    )
    const after = route({ panel, target: wanting({ 'v.three': '2', 'x.list': '1' }), order: 'plan' })
    expect(keys(after)).toBe('ecy2sa1s')
    expect(found(after).memory.get('b.one')).toBe('on')
  })
})

describe('answers that are kept', () => {
  /* p and q hang on home; from p one comes to q by keeping, or by two screens between. */
  const screens = {
    home: { alone: true, lines: ['home'], widget: { kind: 'menu' }, keys: { a: 'p', b: 'q' } },
    p: {
      lines: ['p {buf}'],
      widget: number('x.list', '.'),
      keys: { k: { do: ['keep'], go: 'home' }, c: 't' },
    },
    t: { lines: ['t'], widget: { kind: 'menu' }, keys: { c: 'u' } },
    u: { lines: ['u'], widget: { kind: 'menu' }, keys: { c: 'q' } },
    q: { lines: ['q {buf}'], widget: number('v.one', '.'), keys: { k: { do: ['keep'], go: 'home' } } },
  }
  const over = (keeping: string) => ({
    ...walkOver,
    ...{ keys: [['1', '2', '3', 'a', 'b', 'c', 'h', 'k', 's']], walks: {}, screens, keeping },
  })
  const target = wanting({ 'x.list': '3', 'v.one': '3' })

  it('are kept once at the end where a session is kept whole, and number by number where the panel does that', () => {
    expect(keys(route({ panel: uncheckedPanel(over('session')), target, order: 'plan' }))).toBe('a3sccc3sk')
    expect(keys(route({ panel: uncheckedPanel(over('by-zone')), target, order: 'plan' }))).toBe('a3skb3sk')
  })

  it('and none of them lost: where no key keeps there is no way home', () => {
    const { k: _k, ...left } = screens.q.keys
    const without = { ...over('session'), screens: { ...screens, q: { ...screens.q, keys: left } } }
    expect(why(route({ panel: uncheckedPanel(without), target, order: 'plan' }))).toEqual([
      ': No keys lead from q to home with all answers kept.',
    ])
    // Nor where nothing waits to be kept: it is left at home, and not anywhere.
    const stuck = {
      ...over('at-once'),
      screens: { ...screens, q: { ...screens.q, keys: {} } },
    }
    expect(why(route({ panel: uncheckedPanel(stuck), target: wanting({ 'v.one': '3' }) }))).toEqual([
      ': No keys lead from q to home with all answers kept.',
    ])
    const away = { ...screens, p: { ...screens.p, keys: { h: 'home' } } }
    expect(
      why(
        route({
          panel: uncheckedPanel({ ...over('session'), screens: away }),
          target: wanting({ 'x.list': '3' }),
        }),
      ),
    ).toEqual([': No keys lead from p to home with all answers kept.'])
  })
})

describe('what is refused, by address', () => {
  const panel = uncheckedPanel({
    ...walkOver,
    fields: {
      ...walkOver.fields,
      ...{ 'v.none': list('1'), 'v.far': list('1'), 'v.long': list('1', ['1', '22', '3']) },
      ...{ 'v.same': list('1', ['1', '1', '3']), 'v.said': list('1', ['1', '1', '3']) },
    },
    keys: [['1', '2', '3', 'a', 'b', 'c', 'd', 'e', 'f', 'h', 's']],
    screens: {
      ...walkScreens,
      home: { ...walkScreens.home, keys: { ...walkScreens.home.keys, b: 'long', d: 'same', f: 'said' } },
      far: asks('v.far', 'home'),
      long: asks('v.long', 'home'),
      same: asks('v.same', 'home'),
      said: asks('v.said', { say: 'odd', go: '.' }),
    },
  })
  it.each([
    ['v.none', 'No screen of Tarn 40 sets it.'],
    ['v.far', 'No keys lead to it (far).'],
    ['v.long', 'No keys give “2” there (long).'],
    ['v.same', 'The panel refuses “2” there: it beeps.'],
    ['v.said', 'The panel refuses “2” there: odd.'],
    ['v.other', 'Tarn 40 has no place for it.'],
  ])('%s: %s', (address, reason) => {
    const first: Record<string, string> = /none|other/.test(address) ? {} : { 'v.one': '2' }
    // One that can be keyed before it does not hide it, and one behind it does not either.
    for (const wanted of [
      { ...first, [address]: '2' },
      { [address]: '2', 'v.three': '2' },
    ])
      for (const order of ['plan', 'shortest'] as const)
        expect(why(route({ panel, target: wanting(wanted), order }))[0]).toBe(`${address}: ${reason}`)
  })

  it('every route of a list of orders tells it', () => {
    const target = wanting({ 'v.none': '2', 'v.one': '2' })
    const all = routesTo({ panel, target, start: panel.factory }, ['plan', 'shortest'])
    expect(all.map(why)).toEqual(Array(2).fill(['v.none: No screen of Tarn 40 sets it.']))
    const bad = routesTo({ panel, target: wanting({ 'v.one': '9' }), start: panel.factory }, ['plan', 'plan'])
    expect(bad.map(why)).toEqual(Array(2).fill(['v.one: Tarn 40 takes v1, v2, v3 there, not “9”.']))
  })
})

describe('more questions than every order can be weighed for', () => {
  const count = 14
  const names = Array.from({ length: count }, (_, index) => `q${index + 1}`)
  const many = (walks: object, entered: string) =>
    uncheckedPanel({
      ...walkOver,
      fields: Object.fromEntries(names.map((name) => [`v.${name}`, list('1')])),
      walks: { all: { screens: names, before: 'home', ...walks } },
      screens: {
        home: { alone: true, lines: ['home'], widget: { kind: 'menu' }, keys: { e: entered } },
        ...Object.fromEntries(names.map((name) => [name, asks(`v.${name}`, '>')])),
      },
    })
  const all = (order: readonly string[]) =>
    wanting(Object.fromEntries(order.map((name) => [`v.${name}`, '2'])))
  const mixed = names.map((_, index) => names[(index * 5 + 3) % count] ?? '')

  it('are keyed one behind the other where the panel asks so, in whatever order they are planned', () => {
    const panel = many({ after: 'home' }, 'q1')
    for (const order of [names, mixed, names.toReversed()])
      expect(keys(route({ panel, target: all(order) }))).toBe(`e${'2s'.repeat(count)}`)
    // Two apart from the others: what lies between is passed.
    const some = names.filter((name) => name !== 'q4' && name !== 'q9')
    expect(keys(route({ panel, target: all([...some].reverse()) }))).toBe(
      `e${'2s'.repeat(3)}c${'2s'.repeat(4)}c${'2s'.repeat(5)}`,
    )
    const thirteen = names.slice(1)
    expect(keys(route({ panel, target: all(thirteen.toReversed()) }))).toBe(`ec${'2s'.repeat(13)}`)
  })

  it('also where they lie in a ring that is entered in its midst', () => {
    const ring = many({ after: 'q1' }, 'q6')
    const route14 = route({ panel: ring, target: all(mixed) })
    expect(found(route14)).toMatchObject({ differences: 0 })
    expect(found(route14).steps).toHaveLength(count + 1)
  })

  it('each once, also where an answer leaves the panel where it is', () => {
    const still = uncheckedPanel({
      ...walkOver,
      fields: Object.fromEntries(names.map((name) => [`v.${name}`, list('1')])),
      walks: { all: { screens: names, before: 'home', after: 'home' } },
      screens: {
        home: { alone: true, lines: ['home'], widget: { kind: 'menu' }, keys: { e: 'q1' } },
        ...Object.fromEntries(names.map((name) => [name, asks(`v.${name}`, '.')])),
      },
    })
    expect(keys(route({ panel: still, target: all(mixed) }))).toBe(`e2s${'c2s'.repeat(count - 1)}c`)
  })
})
