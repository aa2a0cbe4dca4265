import { describe, expect, it } from 'vitest'
import { blankState, type PanelState } from '../panel/state.ts'
import { alikeKeys, toldAlike } from './at-panel/alike.ts'
import type { Landing } from './at-panel/display-read.ts'
import { rowed, rowOf, takenAway } from './at-panel/rows.ts'
import { moveSeen, passedOver, toldSeen, type SeenAfter } from './at-panel/seen-move.ts'
import { targetAt, toldSlot } from './at-panel/slots.ts'
import { BEEP, isAlone, pointersOver, withTold, type Sketch, type SketchScreen } from './at-panel/sketch.ts'
import { draftKernel } from './records.ts'
import { sketchOf } from './at-panel/sketch.ts'

/* What a key does, from what was seen before and after it: tables written by hand from what a person would say. */

const screen = (more: Partial<SketchScreen> = {}): SketchScreen => ({
  ...{ lines: ['x'], widget: { kind: 'menu' }, keys: {}, holds: {}, skip: [], note: '' },
  ...more,
})
const sketch: Sketch = {
  ...sketchOf(draftKernel.empty),
  keys: [['a', 'b', 'c']],
  pointers: {
    zone: { from: 1, to: 9, digits: 2, ends: 'stop' },
    fob: { from: 1, to: 4, ends: 'wrap' },
  },
  screens: {
    rest: screen(),
    pick: screen({ widget: { kind: 'jump', digits: 2, none: 'no', to: { '14': null, '{zone}': null } } }),
    one: screen({ lines: ['{zone}'] }),
    two: screen({ lines: ['{zone}'] }),
    three: screen({ lines: ['{zone}'] }),
    time: screen({
      widget: { kind: 'number', at: 'system.exit', digits: [1, 3], opens: 'value', then: null, bad: 'no' },
    }),
    lamps: screen({ widget: { kind: 'options', bits: { '1': 'zone.{zone}.chime' }, then: null } }),
    tag: screen({ lines: ['{fob}'] }),
  },
  start: 'rest',
}
const at = (name: string, more: Partial<PanelState> = {}): PanelState => ({
  ...blankState(new Map()),
  screen: name,
  ...more,
})
const landing = (name: string, more: Partial<Landing> = {}): Landing => ({
  ...{ screen: name, pointers: {}, says: '', typed: null },
  ...more,
})
const seen = (from: PanelState, to: Landing, more: Partial<SeenAfter> = {}): SeenAfter => ({
  ...{ from, to, effect: 'none', beeped: false, along: 'no' },
  ...more,
})
const key = (name: string) => ({ path: `screens.${name}`, part: 'key a' })

describe('a move from what was seen', () => {
  it.each([
    ['another display', seen(at('rest'), landing('time')), 'time'],
    ['nothing, with its sound', seen(at('rest'), landing('rest'), { beeped: true }), BEEP],
    ['nothing to be seen or heard', seen(at('rest'), landing('rest')), { do: ['clear'] }],
    ['a message', seen(at('rest'), landing('rest', { says: 'not now' })), { say: 'not now' }],
    [
      'a message, with the sound',
      seen(at('rest'), landing('rest', { says: 'not now' }), { beeped: true }),
      { do: ['beep'], say: 'not now' },
    ],
    [
      'it listens',
      seen(at('time', { typed: '12' }), landing('time', { says: 'hark' }), { effect: 'listen' }),
      { do: ['listen'], say: 'hark' },
    ],
    [
      'all is kept on the way out',
      seen(at('time'), landing('rest'), { effect: 'keep' }),
      { do: ['keep'], go: 'rest' },
    ],
    [
      'another display with a message',
      seen(at('time'), landing('rest', { says: 'bye' })),
      { say: 'bye', go: 'rest' },
    ],
    // What was typed goes, all of it or its last sign.
    [
      'typed, then nothing',
      seen(at('time', { typed: '12' }), landing('time', { typed: '' })),
      { do: ['clear'] },
    ],
    ['typed, then the stored value', seen(at('time', { typed: '12' }), landing('time')), { do: ['clear'] }],
    ['one sign less', seen(at('time', { typed: '12' }), landing('time', { typed: '1' })), { do: ['back'] }],
    [
      'a single sign gone',
      seen(at('time', { typed: '1' }), landing('time', { typed: '' })),
      { do: ['clear'] },
    ],
    [
      'typed and it stands',
      seen(at('time', { typed: '12' }), landing('time', { typed: '12' }), { beeped: true }),
      BEEP,
    ],
    [
      'a code stands as stars',
      seen(at('time', { typed: '123' }), landing('time', { typed: '***' }), { beeped: true }),
      BEEP,
    ],
    ['fewer stars', seen(at('time', { typed: '123' }), landing('time', { typed: '**' })), { do: ['clear'] }],
    [
      'lights as they are stored',
      seen(at('lamps', { typed: '12' }), landing('lamps', { typed: '1' })),
      { do: ['clear'] },
    ],
    // Numbers: the next, the one before, round the end, one of them; where it begins at the first nothing is said.
    [
      'the next zone',
      seen(at('one', { pointers: { zone: 4 } }), landing('one', { pointers: { zone: 5 } })),
      { point: { zone: '+' }, go: '.' },
    ],
    [
      'the zone before',
      seen(at('one', { pointers: { zone: 4 } }), landing('two', { pointers: { zone: 3 } })),
      { point: { zone: '-' }, go: 'two' },
    ],
    [
      'a zone far off',
      seen(at('one', { pointers: { zone: 4 } }), landing('two', { pointers: { zone: 9 } })),
      { point: { zone: 9 }, go: 'two' },
    ],
    ['the first zone', seen(at('rest'), landing('one', { pointers: { zone: 1 } })), 'one'],
    [
      'a zone from nowhere',
      seen(at('rest'), landing('one', { pointers: { zone: 3 } })),
      { point: { zone: 3 }, go: 'one' },
    ],
    [
      'the same zone',
      seen(at('one', { pointers: { zone: 4 } }), landing('two', { pointers: { zone: 4 } })),
      'two',
    ],
    [
      'round to the first fob',
      seen(at('tag', { pointers: { fob: 4 } }), landing('tag', { pointers: { fob: 1 } })),
      { point: { fob: '+' }, go: '.' },
    ],
    [
      'round to the last fob',
      seen(at('tag', { pointers: { fob: 1 } }), landing('tag', { pointers: { fob: 4 } })),
      { point: { fob: '-' }, go: '.' },
    ],
    [
      'no way round for zones',
      seen(at('one', { pointers: { zone: 9 } }), landing('one', { pointers: { zone: 1 } })),
      { point: { zone: 1 }, go: '.' },
    ],
  ])('%s', (_what, was, move) => {
    expect(moveSeen(sketch, key(was.from.screen), was)).toEqual(move)
  })

  it('names the display where it leads there from anywhere', () => {
    const idle = { path: 'idle', part: 'to' }
    expect(moveSeen(sketch, idle, seen(at('rest'), landing('rest'), { effect: 'drop' }))).toEqual({
      ...{ do: ['drop'], go: 'rest' },
    })
  })

  it('an answer that leads to its own display is no key that does nothing', () => {
    const then = { path: 'screens.time', part: 'then' }
    expect(
      moveSeen(sketch, then, seen(at('time', { typed: '' }), landing('time'), { beeped: true })),
    ).toEqual({
      do: ['clear', 'beep'],
    })
  })
})

describe('where it is put down', () => {
  it.each([
    [{ path: 'screens.rest', part: 'key a' }],
    [{ path: 'screens.rest', part: 'hold a' }],
    [{ path: 'screens.pick', part: 'to 14' }],
    [{ path: 'screens.pick', part: 'to {zone}' }],
    [{ path: 'screens.time', part: 'then' }],
    [{ path: 'walks.w', part: 'after' }],
    [{ path: 'walks.w', part: 'before' }],
    [{ path: 'idle', part: 'to' }],
  ])('%o: is told, read again and taken back, and nothing else', (slot) => {
    const whole: Sketch = {
      ...sketch,
      idle: { seconds: 60, to: null },
      walks: { w: { screens: ['one', 'two'], seen: [['one', 'two']], after: null, before: null } },
    }
    expect(targetAt(whole, slot)).toBeNull()
    const told = toldSlot(whole, slot, 'rest')
    const then = withTold(whole, told)
    expect(targetAt(then, slot)).toBe('rest')
    expect(told).toHaveLength(1)
    expect(targetAt(withTold(then, toldSlot(then, slot, null)), slot)).toBeNull()
  })

  it('says nothing of a display or question that is gone', () => {
    expect(toldSlot(sketch, { path: 'screens.gone', part: 'key a' }, 'rest')).toEqual([])
    expect(toldSlot(sketch, { path: 'walks.gone', part: 'after' }, 'rest')).toEqual([])
    expect(toldSlot(sketch, { path: 'screens.rest', part: 'then' }, 'rest')).toEqual([])
    expect(targetAt(sketch, { path: 'screens.gone', part: 'key a' })).toBeNull()
  })

  it('keeps the seconds of a key that is held', () => {
    const held = { ...sketch, screens: { rest: screen({ holds: { a: { seconds: 5, to: null } } }) } }
    const then = withTold(held, toldSlot(held, { path: 'screens.rest', part: 'hold a' }, 'rest'))
    expect(then.screens.rest?.holds.a).toEqual({ seconds: 5, to: 'rest' })
    const new_ = withTold(sketch, toldSlot(sketch, { path: 'screens.rest', part: 'hold a' }, 'rest'))
    expect(new_.screens.rest?.holds.a).toEqual({ seconds: 3, to: 'rest' })
  })

  it('two things of one key are told apart by what decides: what now holds comes first, what held before guards that', () => {
    const slot = key('rest')
    const first = withTold(sketch, toldSlot(sketch, slot, 'time'))
    const went = seen(at('rest'), landing('one', { pointers: { zone: 1 } }))
    const now = toldSeen(first, slot, { seen: went, decides: { of: 'now', guard: { empty: true } } })
    const before = toldSeen(first, slot, { seen: went, decides: { of: 'before', guard: { empty: true } } })
    const always = toldSeen(first, slot, { seen: went, decides: null })
    const read = (told: typeof now) =>
      'problem' in told ? told.problem : targetAt(withTold(first, told), slot)
    expect(read(now)).toEqual([{ when: { empty: true }, go: 'one' }, { go: 'time' }])
    expect(read(before)).toEqual([{ when: { empty: true }, go: 'time' }, { go: 'one' }])
    expect(read(always)).toBe('one')
    // A third case stands before both; what has a reason keeps it.
    const third = { of: 'now', guard: { pointer: { zone: 'last' } } } as const
    const two = withTold(first, 'problem' in now ? [] : now)
    const more = toldSeen(two, slot, {
      seen: seen(at('rest'), landing('rest'), { beeped: true }),
      decides: third,
    })
    expect('problem' in more ? more : targetAt(withTold(two, more), slot)).toEqual([
      { when: { pointer: { zone: 'last' } }, do: ['beep'] },
      { when: { empty: true }, go: 'one' },
      { go: 'time' },
    ])
  })
})

describe('rows of questions', () => {
  const along = (...pairs: readonly (readonly [string, string])[]): Sketch =>
    pairs.reduce((now, [a, b]) => {
      const told = rowed(now, a, b)
      return 'problem' in told ? now : withTold(now, told)
    }, sketch)
  const rows = ({ walks }: Sketch) => Object.values(walks).map(({ screens }) => screens.join(' '))

  it.each([
    ['a new one', [['one', 'two']], ['one two']],
    [
      'longer at its end',
      [
        ['one', 'two'],
        ['two', 'three'],
      ],
      ['one two three'],
    ],
    [
      'longer at its beginning',
      [
        ['two', 'three'],
        ['one', 'two'],
      ],
      ['one two three'],
    ],
    [
      'one more between two: it was passed over before',
      [
        ['one', 'three'],
        ['one', 'two'],
        ['two', 'three'],
      ],
      ['one two three'],
    ],
    [
      'two that are one',
      [
        ['one', 'two'],
        ['three', 'tag'],
        ['two', 'three'],
      ],
      ['one two three tag'],
    ],
    [
      'the same again',
      [
        ['one', 'two'],
        ['one', 'two'],
      ],
      ['one two'],
    ],
    [
      'two apart',
      [
        ['one', 'two'],
        ['three', 'tag'],
      ],
      ['one two', 'three tag'],
    ],
    [
      'told out of order',
      [
        ['three', 'tag'],
        ['one', 'tag'],
        ['one', 'two'],
        ['two', 'three'],
      ],
      ['one two three tag'],
    ],
    [
      'one that was passed over before stands right behind what it was seen behind',
      [
        ['one', 'two'],
        ['two', 'three'],
        ['one', 'tag'],
      ],
      ['one tag two three'],
    ],
  ] as const)('%s', (_what, pairs, is) => {
    expect(rows(along(...pairs))).toEqual(is)
  })

  it('refuses a row that would go round, and one of a single display', () => {
    const row = along(['one', 'two'], ['two', 'three'])
    expect(rowed(row, 'three', 'one')).toEqual({ problem: 'was seen to come before it: a row goes one way' })
    expect(rowed(row, 'one', 'one')).toHaveProperty('problem')
    expect(rowOf(row, 'tag')).toBeNull()
  })

  it('loses a display that is taken away; what stood before and behind it stays in order', () => {
    const row = along(['one', 'two'], ['two', 'three'])
    const left = withTold(row, takenAway(row, 'two'))
    expect([rows(left), left.screens.two]).toEqual([['one three'], undefined])
    expect(rowed(left, 'three', 'one')).toHaveProperty('problem')
    const none = withTold(left, takenAway(left, 'one'))
    expect([none.walks, none.screens.one]).toEqual([{}, undefined])
    expect(takenAway(sketch, 'rest')).toEqual([['screens.rest', undefined]])
  })

  it('a key along it, and out of it behind its last and before its first', () => {
    const next = toldSeen(sketch, key('one'), {
      seen: seen(at('one', { pointers: { zone: 2 } }), landing('two', { pointers: { zone: 2 } }), {
        along: 'next',
      }),
      decides: null,
    })
    if ('problem' in next) throw new RangeError(next.problem)
    const row = withTold(sketch, next)
    expect([rows(row), row.screens.one?.keys.a]).toEqual([['one two'], '>'])
    const previous = toldSeen(row, key('three'), {
      seen: seen(at('three'), landing('two'), { along: 'previous' }),
      decides: null,
    })
    if ('problem' in previous) throw new RangeError(previous.problem)
    const longer = withTold(row, previous)
    expect([rows(longer), longer.screens.three?.keys.a]).toEqual([['one two three'], '<'])
    const end = toldSeen(longer, key('three'), {
      seen: seen(at('three'), landing('rest'), { along: 'end' }),
      decides: null,
    })
    if ('problem' in end) throw new RangeError(end.problem)
    const ended = withTold(longer, end)
    expect([ended.walks.one?.after, ended.walks.one?.before, ended.screens.three?.keys.a]).toEqual([
      'rest',
      null,
      '>',
    ])
    expect(
      toldSeen(longer, key('rest'), {
        seen: seen(at('rest'), landing('tag'), { along: 'end' }),
        decides: null,
      }),
    ).toHaveProperty('problem', 'stands in no row of questions: it has no end yet')
  })

  it('a display that is passed over says when, beside what it said', () => {
    const once = withTold(sketch, passedOver(sketch, 'two', { hides: 'chime' }))
    const twice = withTold(once, passedOver(once, 'two', { pointer: { zone: [1, 3] } }))
    expect(twice.screens.two?.skip).toEqual([{ hides: 'chime' }, { pointer: { zone: [1, 3] } }])
    expect(passedOver(sketch, 'gone', { hides: 'chime' })).toEqual([])
  })
})

describe('keys that act alike', () => {
  const with_ = (
    targets: Readonly<Record<string, Readonly<Record<string, SketchScreen['keys'][string]>>>>,
  ): Sketch => ({
    ...sketch,
    screens: Object.fromEntries(Object.entries(targets).map(([name, keys]) => [name, screen({ keys })])),
  })

  it('are offered from three displays on, where at least half of those that have it say so', () => {
    expect(alikeKeys(with_({ r: { a: 's' }, s: { a: 's' } }))).toEqual([])
    const three = with_({ r: { a: 's' }, s: { a: 's' }, t: { a: 's' } })
    expect(alikeKeys(three)).toEqual([{ key: 'a', target: 's', screens: ['r', 's', 't'] }])
    const rare = with_({ r: { a: 's' }, s: { a: 's' }, t: { a: 's' }, u: {}, v: {}, w: {}, x: {} })
    expect(alikeKeys(rare)).toEqual([])
    // Where it was tried and does nothing, it does not count against it.
    const beeps = with_({
      r: { a: 's' },
      s: { a: 's' },
      t: { a: 's' },
      u: { a: BEEP },
      v: { a: BEEP },
      w: { a: BEEP },
      x: { a: BEEP },
    })
    expect(alikeKeys(beeps)).toHaveLength(1)
    expect(alikeKeys({ ...three, common: { a: 't' } })).toEqual([])
    expect(alikeKeys(with_({ r: { a: BEEP }, s: { a: BEEP }, t: { a: BEEP } }))).toEqual([])
  })

  it('say it once: displays that said the same say it no more, others keep what is theirs', () => {
    const before = with_({
      r: { a: 's', b: 't' },
      s: { a: 's' },
      t: { a: 's' },
      u: { a: 'r' },
      v: { a: BEEP },
      w: { a: 't' },
    })
    const then = withTold(before, toldAlike(before, { key: 'a', target: 's' }, ['w']))
    expect(then.common).toEqual({ a: 's' })
    expect(Object.fromEntries(Object.entries(then.screens).map(([name, { keys }]) => [name, keys]))).toEqual({
      r: { b: 't' },
      s: {},
      t: {},
      u: { a: 'r' },
      v: { a: BEEP },
      w: {},
    })
  })

  it('a display on which none of them acts is one of its own', () => {
    const common = { ...sketch, common: { a: 'rest', b: 'rest' } }
    expect(isAlone(common, screen({ keys: { a: BEEP, b: BEEP } }))).toBe(true)
    expect(isAlone(common, screen({ keys: { a: BEEP, b: 'time' } }))).toBe(true)
    expect(isAlone(common, screen({ keys: { a: BEEP } }))).toBe(false)
    expect(isAlone(common, screen({ keys: { a: 'time', b: 'time' } }))).toBe(false)
    expect(isAlone(common, screen({ alone: true }))).toBe(true)
    expect(isAlone(sketch, screen())).toBe(false)
    const taken = screen({
      keys: { a: BEEP },
      widget: { kind: 'yesno', at: 'x.y', yes: 'b', no: 'c', then: null },
    })
    expect(isAlone(common, taken)).toBe(true)
  })
})

it('a display depends on the numbers that it shows, stores by, and decides by', () => {
  const over = (more: Partial<SketchScreen>) => pointersOver(sketch, screen(more))
  expect(over({ lines: ['{zone} {typed}', '{@fob.{fob}.serial@}'] })).toEqual(['zone', 'fob'])
  expect(over({ widget: { kind: 'yesno', at: 'zone.{zone}.chime', yes: 'a', no: 'b', then: null } })).toEqual(
    ['zone'],
  )
  expect(
    over({
      widget: { kind: 'options', bits: { '1': { at: 'fob.{fob}.x', on: '1', off: '0' } }, then: null },
    }),
  ).toEqual(['fob'])
  expect(over({ skip: [{ hides: 'chime' }] })).toEqual(['zone'])
  expect(over({ skip: [{ pointer: { fob: 2 } }] })).toEqual(['fob'])
  expect(over({ keys: { a: [{ when: { pointer: { fob: 'last' } }, go: 'rest' }, { go: 'one' }] } })).toEqual([
    'fob',
  ])
  expect(over({ keys: { a: { point: { fob: '+' }, go: 'rest' } } })).toEqual([])
})
