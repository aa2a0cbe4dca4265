import { describe, expect, it } from 'vitest'
import { on, press, smallDisplay, smallPanel, smallScreens, uncheckedPanel } from '../testing/small-panel.ts'
import { laid, looksOf, patternsAt, plain, shapeOf, type Gap, type LinePattern } from './patterns.ts'

const gap: Gap = { kind: 'typed', at: 'x.list' }
const line = (...parts: readonly (string | Gap)[]): LinePattern => ({ key: '', parts })

describe('what was read, laid against a line', () => {
  it.each<[string, readonly (string | Gap)[], number, readonly string[]]>([
    // As it stands; capitals and blanks do not count.
    ['zone 07', ['zone 07'], 0, []],
    ['ZONE07', ['zone 07'], 0, []],
    ['  zone   07 ', ['zone 07'], 0, []],
    // One sign otherwise, missing, too many, and all of them missing.
    ['zone 01', ['zone 07'], 1, []],
    ['zoe 07', ['zone 07'], 1, []],
    ['zonee 07', ['zone 07'], 1, []],
    ['zone 07x', ['zone 07'], 1, []],
    ['', ['zone 07'], 6, []],
    ['17', [''], 2, []],
    // Two are otherwise; one is missing and another too many.
    ['aone 01', ['zone 07'], 2, []],
    ['one 071', ['zone 07'], 2, []],
    // What stands in a gap costs nothing, and is given back as it was read.
    ['delay 30 s', ['delay ', gap, ' s'], 0, ['30']],
    ['Delay  30   S', ['delay ', gap, ' s'], 0, ['30']],
    ['delay s', ['delay ', gap, ' s'], 0, ['']],
    ['delqy 30 s', ['delay ', gap, ' s'], 1, ['30']],
    ['Front Door ok', [gap, ' ok'], 0, ['Front Door']],
    ['is Front  Door', ['is ', gap], 0, ['Front  Door']],
    ['d5 to 12', ['d', gap, ' to ', gap], 0, ['5', '12']],
    // A sign misread before or behind a gap takes nothing off it and adds nothing to it.
    ['n 12 enx', ['n ', gap, ' end'], 1, ['12']],
    ['n 12 ed', ['n ', gap, ' end'], 1, ['12']],
    // What is too much beside a gap can as well stand in it.
    ['n 12 eend', ['n ', gap, ' end'], 0, ['12 e']],
    ['xn 12 end', ['n ', gap, ' end'], 1, ['12']],
    ['  12  ', [gap], 0, ['12']],
    ['a', ['', gap, 'a'], 0, ['']],
    ['anything', [gap], 0, ['anything']],
    ['', [gap], 0, ['']],
    ['', [], 0, []],
  ])('%s', (read, parts, apart, gaps) => {
    expect(laid(line(...parts), read)).toEqual({ apart, gaps })
  })

  it('finds the end of a gap by the blank behind it', () => {
    // Each of the two could begin with any sign of the other: the blank decides.
    expect(laid(line(gap, ' ', gap), 'one two').gaps).toEqual(['one', 'two'])
    expect(laid(line(gap, ' of ', gap), '3 of 12').gaps).toEqual(['3', '12'])
  })
})

describe('the looks of a panel', () => {
  /** What each screen of the small panel can say, from its description by hand. */
  const said = {
    home: ['kept'],
    turn: ['first', 'last', 'between', 'two', 'from two', 'below'],
    ask: ['one', 'not one', 'another', 'one or none', 'both hold'],
    lone: ['no', 'nothing typed', 'typed'],
    // The walk says it at its end, and begins again.
    w1: ['round'],
  }
  it('are each screen as it stands, and with each thing that is said there', () => {
    const looks = looksOf(smallPanel()).map(
      ({ screen, says, typing }) => `${screen}: ${says} ${String(typing)}`,
    )
    const expected = Object.keys(smallScreens).flatMap((screen) =>
      ['', ...(screen in said ? said[screen as keyof typeof said] : [])].map(
        (says) => `${screen}: ${says} false`,
      ),
    )
    expect(looks.sort()).toEqual(expected.sort())
  })

  const saysOn = (over: object) =>
    looksOf(uncheckedPanel(over)).flatMap(({ screen, says }) => (says === 'here' ? [screen] : []))
  const keysOf = (name: keyof typeof smallScreens, keys: object, more: object = {}) => ({
    screens: { ...smallScreens, [name]: { ...smallScreens[name], ...more, keys } },
  })
  it.each<[string, object, readonly string[]]>([
    ['where it leads', keysOf('ask', { '1': { say: 'here', go: 'turn' } }), ['turn']],
    ['where it stays', keysOf('ask', { '1': { say: 'here' } }), ['ask']],
    ['where the same screen opens again', keysOf('ask', { '1': { say: 'here', go: '.' } }), ['ask']],
    ['along a walk', keysOf('w1', { c: { say: 'here', go: '>' } }), ['home', 'w1', 'w2', 'w3']],
    ['back along it', keysOf('w1', { c: { say: 'here', go: '<' } }), ['home', 'w1', 'w2', 'w3']],
    [
      'past what is passed over',
      keysOf('ask', { '1': { say: 'here', go: 'w2' } }),
      ['home', 'w1', 'w2', 'w3'],
    ],
    [
      'held',
      keysOf('home', { a: 'turn' }, { holds: { z: { seconds: 4, to: { say: 'here', go: 'ask' } } } }),
      ['ask'],
    ],
    // The way home is common to all screens but the one that stands alone, and holds z itself.
    ['by what is common', { common: { z: { say: 'here', go: 'home' } } }, ['home']],
    [
      'by what is common and stays',
      { common: { z: { say: 'here' } } },
      Object.keys(smallScreens).filter((screen) => screen !== 'home'),
    ],
    [
      'before a walk',
      { walks: { all: { screens: ['w1', 'w2', 'w3'], after: 'home', before: { say: 'here', go: 'ask' } } } },
      ['ask'],
    ],
    [
      'where a number that is typed leads',
      {
        screens: {
          ...smallScreens,
          lost: {
            lines: ['lost'],
            widget: { kind: 'jump', to: { '1': { say: 'here', go: 'turn' }, '2': 'ask' }, bad: 'no' },
          },
        },
      },
      ['turn'],
    ],
    // A screen that nobody has described says nothing.
    ['nowhere', keysOf('ask', { '1': { say: 'here', go: 'gone' } }), []],
    [
      'when it is done',
      {
        screens: {
          ...smallScreens,
          work: {
            ...smallScreens.work,
            widget: { kind: 'busy', seconds: 20, then: { say: 'here', go: 'ask' } },
          },
        },
      },
      ['ask'],
    ],
  ])('what is said stands %s', (_, over, screens) => {
    expect(saysOn(over).sort()).toEqual([...screens].sort())
  })

  it('differ by what is typed only where the line shows both', () => {
    const shows = (typed: string) => ({
      screens: { ...smallScreens, lone: { ...smallScreens.lone, lines: [`lone ${typed}`] } },
    })
    const typing = (token: string) =>
      looksOf(uncheckedPanel(shows(token)))
        .filter(({ screen, says }) => screen === 'lone' && says === '')
        .map((look) => look.lines[0])
    const typed = [{ text: 'lone ' }, { gap: { kind: 'typed', at: 'x.list' } }, { text: '_' }]
    const stands = (kind: string) => [{ text: 'lone ' }, { gap: { kind, at: 'x.list' } }]
    expect(typing('{typed}')).toEqual([typed])
    expect(typing('{buf}')).toEqual([stands('shown'), typed])
    expect(typing('{raw}')).toEqual([stands('raw'), typed])
    expect(typing('{value}')).toEqual([stands('shown')])
    expect(typing('{@x.bit@}')).toEqual([[{ text: 'lone ' }, { gap: { kind: 'shown', at: 'x.bit' } }]])
  })

  const piecesOf = (kept: object) =>
    looksOf(
      uncheckedPanel({ screens: { ...smallScreens, kept: { ...smallScreens.kept, ...kept } } }),
    ).flatMap(({ screen, says, lines }) => (screen === 'kept' && says === '' ? [lines[0]] : []))
  it.each<[string, object, readonly object[]]>([
    ['{n} is it', {}, [{ pointer: 'n' }, { text: ' is it' }]],
    ['{n}{m}', {}, [{ pointer: 'n' }, { pointer: 'm' }]],
    // The address of a value has numbers in it; what stands behind it is text again.
    [
      '{@z.{zone}.in.{n}.kind@} ok',
      {},
      [{ gap: { kind: 'shown', at: 'z.{zone}.in.{n}.kind' } }, { text: ' ok' }],
    ],
    ['{live:clock}', {}, [{ gap: { kind: 'live', at: '' } }]],
    ['at {row}', {}, [{ text: 'at ' }, { gap: { kind: 'row', at: '' } }]],
    ['{lit}', {}, [{ gap: { kind: 'lit', at: '' } }]],
    // A code is shown without the cursor; what is typed where nothing is stored can be nothing else.
    ['{typed}', { widget: { kind: 'code' } }, [{ gap: { kind: 'typed', at: '' } }]],
    ['{buf}', {}, [{ gap: { kind: 'typed', at: '' } }, { text: '_' }]],
    ['{raw}', {}, [{ gap: { kind: 'typed', at: '' } }, { text: '_' }]],
  ])('take a line apart: %s', (line, over, pieces) => {
    expect(piecesOf({ lines: [line], ...over })[0]).toEqual(pieces)
  })

  it('are two where one of the lines shows what is typed', () => {
    const display = { ...smallDisplay, lines: 2 }
    const lone = { ...smallScreens.lone, lines: ['lone', '{buf}'] }
    const looks = looksOf(uncheckedPanel({ display, screens: { ...smallScreens, lone } }))
    expect(looks.filter(({ screen, says }) => screen === 'lone' && says === '')).toHaveLength(2)
  })

  it('cover the line of the message, and no other', () => {
    const panel = uncheckedPanel({
      display: { ...smallDisplay, lines: 2, messages: 2 },
      screens: {
        ...smallScreens,
        kept: { ...smallScreens.kept, lines: ['kept', 'below'], keys: { '1': { say: 'so' } } },
      },
    })
    const kept = looksOf(panel).filter(({ screen }) => screen === 'kept')
    expect(kept.map(({ lines }) => lines)).toEqual([
      [[{ text: 'kept' }], [{ text: 'below' }]],
      [[{ text: 'kept' }], [{ text: 'so' }]],
    ])
  })
})

describe('a pattern', () => {
  const turn = (over: object = {}) => {
    const panel = smallPanel(over)
    const look = looksOf(panel).find(({ screen, says }) => screen === 'turn' && says === '') ?? expect.fail()
    return (pointers: Record<string, number>) => patternsAt(panel, look, pointers)
  }
  it('has the numbers of its pointers in place, as wide as the panel shows them', () => {
    const wide = turn({
      pointers: { n: { from: 1, to: 3, ends: 'wrap', digits: 2 }, m: { from: 1, to: 2, ends: 'stop' } },
    })
    expect(wide({ n: 3, m: 2 })).toEqual([{ key: 'turn 03 2', parts: ['turn ', '03', ' ', '2'] }])
    // A number that nobody knows is left out.
    expect(turn()({ n: 3 })[0]?.parts).toEqual(['turn ', '3', ' ', ''])
  })

  it('is told from others by its gaps and where they are from', () => {
    const key = (lines: string) => {
      const panel = uncheckedPanel({
        screens: { ...smallScreens, kept: { ...smallScreens.kept, lines: [lines] } },
      })
      const look = looksOf(panel).find(({ screen }) => screen === 'kept') ?? expect.fail()
      return patternsAt(panel, look, {})[0]?.key
    }
    const keys = ['a {@x.list@}', 'a {@x.bit@}', 'a', 'b {@x.bit@}'].map(key)
    expect(new Set(keys).size).toBe(4)
    expect(key('A  {@x.bit@}')).toBe(key('a {@x.bit@}'))
  })
})

describe('the shape of what is shown', () => {
  const shape = (keys: string) => shapeOf(smallPanel(), on(smallPanel(), ...press(keys)))
  it.each([
    ['', 'home'],
    ['a1', 'turn 2 1'],
    ['a6', 'first'],
    ['d', 'lone _'],
    ['d2', 'lone 2_'],
  ])('%s: %s', (keys, shown) => {
    expect(shape(keys)).toBe(shown)
  })

  it('shows what is stored until something is typed', () => {
    const widget = { ...smallScreens.lone.widget, opens: 'value' }
    const lone = { ...smallScreens.lone, lines: ['lone {buf}'], widget }
    const panel = uncheckedPanel({ screens: { ...smallScreens, lone } })
    expect(shapeOf(panel, on(panel, ...press('d')))).toBe('lone …')
    expect(shapeOf(panel, on(panel, ...press('d2')))).toBe('lone 2_')
  })

  it('has a sign for what the panel holds', () => {
    const over = {
      screens: { ...smallScreens, turn: { ...smallScreens.turn, lines: ['{n} is {@x.list@}'] } },
    }
    const panel = uncheckedPanel(over)
    expect(shapeOf(panel, on(panel, ...press('a')))).toBe('1 is …')
  })
})

it('signs are compared without blanks and capitals', () => {
  expect(plain(' Zone\t07 A')).toBe('zone07a')
})
