import { describe, expect, it } from 'vitest'
import type { Memory } from '../memory/memory.ts'
import { smallDisplay, smallScreens, uncheckedPanel } from '../testing/small-panel.ts'
import { restingId } from './graph.ts'
import { lostIn, type Lost } from './lost.ts'

/* Somebody lost on the small panel, by hand; the shipped panels are in lost.test.ts. */

const id = (screen: string, pointers: Record<string, number> = {}): string => restingId({ screen, pointers })
const kept = (keys: object, more: object = {}) => ({ ...smallScreens.lost, lines: ['lurk'], keys, ...more })
/** Another screen with the same text: only its keys tell it apart. */
const twin = (keys: object) => ({ ...smallScreens.lost, lines: ['lurk'], keys })
function lost(screens: object, { memory, known = true }: { memory?: Memory; known?: boolean } = {}): Lost {
  const panel = uncheckedPanel({ screens: { ...smallScreens, ...screens } })
  return lostIn(panel, memory ?? panel.factory, () => known)
}
const placesOf = (one: Lost, read: string, near = id('home')) =>
  one.find([read], near).map(({ place }) => place)

describe('places', () => {
  it('that look the same come by how near they are to where one was', () => {
    // One leads to the other, and the way back is over the turn.
    const both = lost({ kept: kept({ '1': 'lost' }), lost: twin({ '1': 'turn' }) })
    expect(placesOf(both, 'lurk', id('kept'))).toEqual([id('kept'), id('lost')])
    expect(placesOf(both, 'lurk', id('lost'))).toEqual([id('lost'), id('kept')])
  })

  it('that nothing leads to come last, also where they are written first', () => {
    const turn = { ...smallScreens.turn, keys: { '0': 'lost' } }
    const both = lost({ turn, kept: kept({ '1': 'turn' }), lost: twin({ '1': 'turn' }) })
    expect(placesOf(both, 'lurk')).toEqual([id('lost'), id('kept')])
  })

  it('with fewer signs otherwise come before all others', () => {
    const both = lost({ kept: kept({}), lost: { ...smallScreens.lost, lines: ['lurx'] } })
    expect(placesOf(both, 'lurk', id('lost'))).toEqual([id('kept'), id('lost')])
    expect(both.find(['lurk'], id('home')).map(({ apart }) => apart)).toEqual([0, 1])
  })

  it('show what is typed there, and half typed goes first', () => {
    const [first] = lost({}).find(['lone 2_'], id('home'))
    expect([first?.place, first?.state.typed]).toEqual([id('lone'), '2'])
    const [empty] = lost({}).find(['lone _'], id('home'))
    expect(empty?.state.typed).toBe('')
  })

  it('hold what they show, which is known from then on', () => {
    const shows = lost({ kept: kept({ '1': 'turn' }, { lines: ['kept {@x.list@}'] }) })
    const [three] = shows.find(['kept v3'], id('home'))
    expect(three?.state.kept.get('x.list')).toBe('3')
    expect(three?.state.kept.get('x.bit')).toBe('off')
  })

  it('of a list are at the row that is shown', () => {
    const widget = {
      kind: 'choice',
      at: 'x.list',
      opens: 'first',
      take: 's',
      next: '1',
      end: 'wrap',
      then: 'turn',
    }
    const list = lost({ kept: kept({}, { lines: ['pick {row}'], widget }) })
    expect(list.find(['pick v3'], id('home'))[0]?.state.row).toBe(2)
    expect(list.find(['pick v1'], id('home'))[0]?.state.row).toBe(0)
    // One that shows none is at its first.
    expect(list.find(['pick'], id('home'))[0]?.state.row).toBe(0)
  })
})

describe('what is half typed', () => {
  // The cursor cannot be seen: what stands there is typed, or stored.
  const display = { ...smallDisplay, cursor: ' ' }
  const lone = { ...smallScreens.lone, lines: ['lone {buf}'], keys: {} }
  // Each value is shown as it is keyed.
  const values = ['1', '2', '3'].map((value) => ({ value, keyed: value, shows: value }))
  const fields = { 'x.list': { form: { kind: 'list', values }, factory: '2' } }
  const panel = uncheckedPanel({ display, fields, screens: { ...smallScreens, lone } })
  const one = lostIn(panel, panel.factory, () => true)
  it('goes before what is stored: the keys out of it lead out of both', () => {
    const found = one.find(['lone 2'], id('home'))
    expect(found.map(({ place }) => place)).toEqual([id('lone'), id('lone')])
    expect(found.map(({ state }) => state.typed)).toEqual(['2', ''])
  })

  it('is told apart after a key as well', () => {
    const typed = one.find(['lone'], id('home'))
    const after = one.then(typed, '2', ['lone 2']).map(({ state }) => state.typed)
    expect(new Set(after)).toEqual(new Set(['2', '']))
  })

  it('is not seen below a message', () => {
    const two = { ...display, lines: 2, cursor: '_' }
    const below = { ...smallScreens.lone, lines: ['lone', '{typed}'], keys: { '3': { say: 'so' } } }
    const both = uncheckedPanel({ display: two, screens: { ...smallScreens, lone: below } })
    const told = lostIn(both, both.factory, () => true)
    expect(told.find(['lone', '2_'], id('home'))[0]?.state.typed).toBe('2')
    expect(told.find(['so', '2_'], id('home'))[0]?.state).toMatchObject({ says: 'so', typed: '' })
  })
})

describe('what a message says of the place', () => {
  const serial = { kind: 'serial', at: 'x.list', send: 's', window: 60, needs: 1, then: 'turn', bad: 'no' }
  const listens = { '3': { do: ['listen'], say: 'send it' }, '4': { say: 'so' }, '5': ['turn'], '6': 'turn' }
  const state = (read: string, widget: object = serial) =>
    lost({ kept: kept(listens, { widget, lines: ['lurk {typed}'] }) }).find([read], id('home'))[0]?.state
  it('it listens where a key makes it listen with these words, and nowhere else', () => {
    expect([state('send it')?.listening, state('send it')?.says]).toEqual([60, 'send it'])
    expect([state('so')?.listening, state('so')?.says]).toEqual([0, 'so'])
    expect(state('lurk _')?.listening).toBe(0)
    expect(state('send it', { kind: 'menu' })?.listening).toBe(0)
  })

  it('nothing is typed below it that can be seen', () => {
    expect(state('lurk 204_')?.typed).toBe('204')
    expect(state('lurk 204_')?.listening).toBe(0)
    expect(state('so')?.typed).toBe(state('lurk _')?.typed)
  })
})

describe('the key that tells places apart', () => {
  const told = (screens: object) => {
    const one = lost(screens)
    return one.tell(one.find(['lurk'], id('home')))
  }
  it('leads somewhere else from each', () => {
    expect(told({ kept: kept({ '3': 'turn' }), lost: twin({ '3': 'w1' }) })).toMatchObject({
      key: '3',
      groups: 2,
    })
    expect(told({ kept: kept({ '3': 'turn' }), lost: twin({}) })).toMatchObject({ key: '3', groups: 2 })
    // What leads to the same from both tells nothing; nor does a key that does nothing on both.
    expect(told({ kept: kept({ '3': 'w1' }), lost: twin({ '3': 'w1' }) })).toBeNull()
  })

  it('writes nothing and keeps nothing, and leads to no screen on which all can be wiped', () => {
    expect(told({ kept: kept({ '3': { put: { 'x.list': '1' }, say: 'so' } }), lost: twin({}) })).toBeNull()
    expect(told({ kept: kept({ '3': 'ask' }), lost: twin({}) })).toBeNull()
    const atOnce = uncheckedPanel({
      keeping: 'at-once',
      screens: {
        ...smallScreens,
        kept: kept({ '3': { put: { 'x.list': '1' }, say: 'so' } }),
        lost: twin({}),
      },
    })
    const one = lostIn(atOnce, atOnce.factory, () => true)
    expect(one.tell(one.find(['lurk'], id('home')))).toBeNull()
    expect(
      told({ kept: kept({ '3': { put: { 'x.list': '1' }, say: 'so' }, '5': 'w1' }), lost: twin({}) }),
    ).toMatchObject({ key: '5' })
  })

  it('is the one that leaves the fewest together', () => {
    const three = {
      kept: kept({ '3': 'w1', '4': 'w1' }),
      lost: twin({ '3': 'w1', '4': 'w3' }),
      w2: { ...smallScreens.w2, lines: ['lurk'], keys: {} },
    }
    // By 3 two go the same way; by 4 each goes its own.
    expect(told(three)).toMatchObject({ key: '4', groups: 3 })
    const turned = { ...three, kept: kept({ '4': 'w1', '3': 'w1' }), lost: twin({ '4': 'w1', '3': 'w3' }) }
    expect(told(turned)).toMatchObject({ key: '3', groups: 3 })
    // Of two that tell as much the first.
    expect(
      told({ kept: kept({ '3': 'w1', '4': 'w1' }), lost: twin({ '3': 'w3', '4': 'w3' }) }),
    ).toMatchObject({
      key: '3',
    })
  })

  it('is none for one place, nor for places that are much less likely', () => {
    const one = lost({ kept: kept({}) })
    expect(one.tell(one.find(['lurk'], id('home')).slice(0, 1))).toBeNull()
    expect(one.tell([])).toBeNull()
    const far = lost({ kept: kept({}), lost: { ...smallScreens.lost, lines: ['lurx'], keys: {} } })
    const found = far
      .find(['lurk'], id('home'))
      .map((at) => ({ ...at, apart: at.place === id('lost') ? 2 : 0 }))
    expect(far.tell(found)).toBeNull()
    // One sign more is as likely: it may have been misread.
    const near = found.map((at) => ({ ...at, apart: Math.min(at.apart, 1) }))
    expect(far.tell(near)).not.toBeNull()
  })
})

describe('what is read after the key', () => {
  const both = () => lost({ kept: kept({ '3': 'w1' }), lost: twin({ '3': 'w3' }) })
  it('leaves the places that it can lead to, each as it is then', () => {
    const one = both()
    const found = one.find(['lurk'], id('home'))
    expect(found).toHaveLength(2)
    expect(one.then(found, '3', ['w1']).map(({ place }) => place)).toEqual([id('w1'), id('w3')])
    expect(one.then(found, '3', ['w1']).map(({ apart }) => apart)).toEqual([0, 1])
    // What was misread before counts on.
    const doubted = found.map((at) => ({ ...at, apart: at.place === id('kept') ? 3 : 0 }))
    expect(one.then(doubted, '3', ['w1']).map(({ place, apart }) => `${place} ${apart}`)).toEqual([
      `${id('w3')} 1`,
      `${id('w1')} 3`,
    ])
  })

  it('leaves none that no place leads to', () => {
    const one = both()
    expect(one.then(one.find(['lurk'], id('home')), '3', ['turn 1 1'])).toEqual([])
  })
})

describe('the way back', () => {
  it('goes where the panel is believed to lead', () => {
    const one = lost({})
    const [at] = one.find(['w1'], id('home'))
    expect(at && one.back(at, id('w2'))?.inputs).toEqual([{ kind: 'press', key: 'c' }])
    expect(at && one.back(at, id('w2'))?.inputs).toEqual([{ kind: 'press', key: 'c' }])
  })

  it('takes no key that ends elsewhere where nobody knows what is stored', () => {
    // The middle is passed over while the list is 1 or 3; turned about, an unknown answer is another or none.
    const skips = { w2: { ...smallScreens.w2, skip: [{ at: 'x.list', in: [''] }] } }
    const [known, unknown] = [true, false].map((one) => lost(skips, { known: one }))
    const back = (one?: Lost) => {
      const at = one?.find(['w1'], id('home'))[0]
      return at && one.back(at, id('w2'))
    }
    expect(back(known)).not.toBeNull()
    expect(back(unknown)).not.toBeNull()
    const bit = { w2: { ...smallScreens.w2, skip: [{ at: 'x.bit', in: ['on'] }] } }
    const [sure, unsure] = [true, false].map((one) => lost(bit, { known: one }))
    expect(back(sure)).not.toBeNull()
    // It came as off; where nobody knows it may be on.
    expect(back(unsure)).toBeNull()
    const isOn = new Map([...uncheckedPanel({}).factory, ['x.bit', 'on']])
    const off = { w2: { ...smallScreens.w2, skip: [{ at: 'x.bit', in: ['off'] }] } }
    expect(back(lost(off, { memory: isOn }))).not.toBeNull()
    expect(back(lost(off, { memory: isOn, known: false }))).toBeNull()
    // What is neither on nor off is not turned about.
    const list = { w2: { ...smallScreens.w2, skip: [{ at: 'x.list', not: ['2'] }] } }
    expect(back(lost(list, { known: false }))).not.toBeNull()
  })

  it('nor one that depends on an unknown type: none, or the one that hides most of its questions', () => {
    // Of the Tarn's types 62, fire, is the first that hides a question; 21 is any other.
    const passed = (code: string, isKnown = false) => {
      const values = ['21', '34', '62'].map((value) => ({ value, keyed: value, shows: `t${value}` }))
      const panel = uncheckedPanel({
        fields: { 'z.response': { form: { kind: 'list', values }, factory: '34' } },
        screens: { ...smallScreens, w2: { ...smallScreens.w2, skip: [{ at: 'z.response', in: [code] }] } },
      })
      const one = lostIn(panel, panel.factory, () => isKnown)
      const at = one.find(['w1'], id('home'))[0]
      return at && one.back(at, id('w2')) !== null
    }
    expect(passed('')).toBe(false)
    expect(passed('21')).toBe(true)
    expect(passed('62')).toBe(false)
    for (const code of ['', '21', '62']) expect(passed(code, true)).toBe(true)
  })

  it('says whether what was not kept can still be there', () => {
    const bare = uncheckedPanel({
      common: {},
      screens: { ...smallScreens, kept: kept({ '1': { do: ['keep'], go: 'w3' }, '2': 'turn' }) },
    })
    const only = lostIn(bare, bare.factory, () => true)
    // From there the one way to the one keeps all; the other is reached without.
    const at = (read: string) => only.find([read], id('home'))[0] ?? expect.fail(read)
    expect(only.keepsDraft(at('w3'), id('kept'))).toBe(false)
    expect(only.keepsDraft(at('turn 1 1'), id('kept'))).toBe(true)
    expect(only.keepsDraft(at('w3'), id('w3'))).toBe(true)
  })
})
