import { describe, expect, it } from 'vitest'
import { smallPanel, uncheckedPanel } from '../testing/small-panel.ts'
import { found, keys, route, steps, wanting, why } from '../testing/small-routes.ts'
import { routesTo } from './route.ts'

/* An ID and an input for each of three numbers: a opens the first ID, u and d turn, l listens, h leads home. */
const [one, two, three] = ['20417733', '20417801', '20417802']
const radioScreens = {
  home: { alone: true, lines: ['home'], widget: { kind: 'menu' }, keys: { a: 'id' } },
  id: {
    over: ['n'],
    lines: ['id {n} {buf}'],
    widget: {
      ...{ kind: 'serial', at: 'z.{n}.serial', loopAt: 'z.{n}.loop', send: 's', window: 60, needs: 1 },
      ...{ then: 'in', bad: 'no', empties: 'b', taken: 'taken' },
    },
    keys: {
      ...{ u: { point: { n: '+' }, go: '.' }, d: { point: { n: '-' }, go: '.' }, h: 'home' },
      l: [{ when: { pointer: { n: [7, 9] } }, say: 'never' }, { do: ['listen'] }],
    },
  },
  in: {
    over: ['n'],
    lines: ['in {n} {buf}'],
    widget: {
      ...{
        kind: 'number',
        at: 'z.{n}.loop',
        digits: [1, 1],
        opens: 'empty',
        send: 's',
        then: 'id',
        bad: 'no',
        empties: 'b',
      },
    },
    keys: { i: 'id', h: 'home' },
  },
}
const radioOver = {
  keys: [['0', '1', '2', '3', '4', '5', '6', '7', '8', '9', 'a', 'b', 'd', 'h', 'i', 'l', 's', 'u']],
  pointers: { n: { from: 1, to: 3, ends: 'stop' } },
  fields: {
    'z.{n}.serial': { form: { kind: 'serial' } },
    'z.{n}.loop': { form: { kind: 'number', from: 1, to: 8 } },
  },
  unique: [['z.{n}.serial', 'z.{n}.loop']],
  walks: {},
  screens: radioScreens,
  common: {},
  keeping: 'at-once',
}
const radio = smallPanel(radioOver, 'family/wren')
const zone = (n: number, serial: string, loop = '3'): Record<string, string> => ({
  [`z.${n}.serial`]: serial,
  [`z.${n}.loop`]: loop,
})
const always = (): boolean => true

describe('IDs and inputs', () => {
  it('are typed one behind the other where the panel leads from one to the other', () => {
    expect(steps(route({ panel: radio, target: wanting(zone(1, one)) }))).toEqual([
      `a ${one}s z.1.serial`,
      ' 3s z.1.loop',
      'h  ',
    ])
  })

  it('that are heard bring their input with them', () => {
    const heard = route({ panel: radio, target: wanting(zone(1, one)), isHeard: always })
    expect(steps(heard)).toEqual(['a l* z.1.serial', 'h  '])
    expect(found(heard).steps.map(({ kind }) => kind)).toEqual(['learn', 'end'])
    expect(found(heard).steps[0]?.answer[1]).toEqual({ kind: 'hear', serial: one, loop: 3 })
    expect([...found(heard).memory]).toEqual(Object.entries(zone(1, one)))
    // Also where the plan names the input first: it is not keyed before the ID that brings it.
    const first = wanting({ 'z.1.loop': '3', 'z.1.serial': one })
    expect(steps(route({ panel: radio, target: first, isHeard: always, order: 'plan' }))).toEqual([
      'a l* z.1.serial',
      'h  ',
    ])
    expect(steps(route({ panel: radio, target: first, order: 'plan' }))).toEqual([
      'as 3s z.1.loop',
      ` ${one}s z.1.serial`,
      'h  ',
    ])
    // Whether an ID is heard is asked of it alone: its input is no ID.
    const asked: string[] = []
    route({ panel: radio, target: wanting(zone(1, one)), isHeard: (at) => asked.push(at) > 9 })
    expect(asked).toEqual(['z.1.serial', 'z.1.loop'])
  })

  it('are typed where the panel cannot listen, and the input of another number still is', () => {
    const { l: _l, ...keysOfId } = radioScreens.id.keys
    const deaf = smallPanel(
      { ...radioOver, screens: { ...radioScreens, id: { ...radioScreens.id, keys: keysOfId } } },
      'family/wren',
    )
    expect(steps(route({ panel: deaf, target: wanting(zone(1, one)), isHeard: always }))).toEqual([
      `a ${one}s z.1.serial`,
      ' 3s z.1.loop',
      'h  ',
    ])
    const both = route({
      ...{ panel: radio, target: wanting({ ...zone(1, one), ...zone(2, two) }) },
      isHeard: (at) => at === 'z.1.serial',
      order: 'plan',
    })
    expect(steps(both)).toEqual(['a l* z.1.serial', `iu ${two}s z.2.serial`, ' 3s z.2.loop', 'h  '])
  })

  it('that nobody knows are learned: not one that is there, not one left as it is, not one that no screen asks for', () => {
    const open = new Set(['z.1.serial', 'z.2.serial', 'z.3.serial', 'y.9.serial', 'z.1.loop'])
    const target = wanting({}, { open, left: new Set(['z.3.serial']) })
    const learned = route({ panel: radio, target, has: zone(2, two) })
    expect(steps(learned)).toEqual(['a l* z.1.serial', 'h  '])
    // Where it stands in nobody's plan a stand-in shows where it leads; it names no input.
    expect(found(learned).steps[0]?.answer[1]).toEqual({ kind: 'hear', serial: '00000000', loop: null })
    expect(found(learned).steps[0]?.sets).toEqual([{ address: 'z.1.serial', value: '' }])
    // Its input is known, and keyed: what is heard brought none that could be known before.
    const known = route({
      panel: radio,
      target: wanting({ 'z.1.loop': '3' }, { open: new Set(['z.1.serial']) }),
    })
    expect(steps(known)).toEqual(['a l* z.1.serial', 'h  '])
  })

  it('of a family whose IDs begin with a letter have a stand-in, too; of none there is no way to learn', () => {
    const target = wanting({}, { open: new Set(['z.1.serial']) })
    const lettered = smallPanel(radioOver, 'family/curlew-8')
    expect(found(route({ panel: lettered, target })).steps[0]?.answer[1]).toEqual({
      ...{ kind: 'hear', serial: 'A000000', loop: null },
    })
    expect(why(route({ panel: smallPanel(radioOver), target }))).toEqual([
      'z.1.serial: No keys give “” there (id).',
    ])
  })

  it('that change places are emptied first, each where it is', () => {
    const has = { ...zone(1, one), ...zone(2, two) }
    const swapped = route({ panel: radio, target: wanting({ ...zone(1, two), ...zone(2, one) }), has })
    expect(steps(swapped)).toEqual([
      'a b z.1.serial',
      'u b z.2.serial',
      ` ${one}s z.2.serial`,
      `ha ${two}s z.1.serial`,
      'h  ',
    ])
    expect(found(swapped).steps.map(({ kind }) => kind)).toEqual([
      'empty',
      'empty',
      'answer',
      'answer',
      'end',
    ])
    expect(found(swapped).steps[0]?.sets).toEqual([{ address: 'z.1.serial', value: '' }])
    expect([found(swapped).differences, found(swapped).memory.get('z.2.serial')]).toEqual([0, one])
    // A device that moves to a number that stands empty leaves its own first; one that comes new needs nothing emptied.
    const moved = route({
      ...{ panel: radio, target: wanting({ ...zone(1, three), ...zone(2, one) }) },
      has: zone(1, one),
    })
    expect(steps(moved)[0]).toBe('a b z.1.serial')
    const fresh = route({ panel: radio, target: wanting(zone(2, two)), has: zone(1, one) })
    expect(found(fresh).steps.map(({ kind }) => kind)).toEqual(['answer', 'answer', 'end'])
    const stays = route({
      ...{ panel: radio, target: wanting({ ...zone(1, one), ...zone(2, two) }) },
      has: zone(1, one),
    })
    expect(found(stays).steps.map(({ kind }) => kind)).toEqual(['answer', 'answer', 'end'])
    // The same device by another input stands in nobody's way.
    const other = route({ panel: radio, target: wanting(zone(2, one, '4')), has: zone(1, one, '3') })
    expect(steps(other)).toEqual([`au ${one}s z.2.serial`, ' 4s z.2.loop', 'h  '])
  })

  it('that two numbers would share are refused, by the later one', () => {
    const shared = ['z.2.serial: Tarn 40 holds 20417733, input 3 once: number 1 has it.']
    expect(why(route({ panel: radio, target: wanting({ ...zone(1, one), ...zone(2, one) }) }))).toEqual(
      shared,
    )
    expect(why(route({ panel: radio, target: wanting(zone(2, one)), has: zone(1, one) }))).toEqual(shared)
    // Two that are empty share nothing, nor does one without its input.
    const bare = wanting({ 'z.1.serial': one, 'z.2.serial': one })
    expect(why(route({ panel: radio, target: bare }))).toEqual([])
  })

  it('that are to be heard where no ID is asked for are not', () => {
    const numbered = { ...radioScreens.id, widget: { ...radioScreens.in.widget, at: 'z.{n}.serial' } }
    const odd = uncheckedPanel({ ...radioOver, screens: { ...radioScreens, id: numbered } }, 'family/wren')
    expect(why(route({ panel: odd, target: wanting(zone(1, one)), isHeard: always }))).toEqual([
      `z.1.serial: No keys give “${one}” there (id).`,
    ])
  })

  it('stand in the order of the plan where it is asked for, else in that of the fewest keys; both from one graph', () => {
    const target = wanting({ 'z.3.serial': three, 'z.1.serial': one })
    const both = routesTo({ panel: radio, target, start: radio.factory }, ['plan', 'shortest'])
    expect(both.map(keys)).toEqual([`auu${three}sha${one}sh`, `a${one}siuu${three}sh`])
    expect(both.map((each) => found(each).keys)).toEqual([24, 23])
  })
})
