import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { demoPanel } from '../testing/panels.ts'
import { on, press, smallPanel, smallScreens } from '../testing/small-panel.ts'
import {
  cleanStart,
  distancesFrom,
  effortOf,
  graphOf,
  restingId,
  rests,
  wipingScreens,
  type Graph,
} from './graph.ts'
import { acted, switchedOn } from './machine.ts'
import { routeTo } from './route.ts'

const described = catalogue
  .all('panel')
  .flatMap(({ id, interface: entry }) => (entry ? [id.slice('panel/'.length)] : []))

describe.each(described)('where the %s rests', (id) => {
  // Made in each test: what breaks while a file is read fails no test.
  const ready = () => {
    const panel = demoPanel(id)
    const graph = graphOf(panel, panel.factory, true)
    return { panel, graph, ...distancesFrom(graph, graph.start, false) }
  }

  it('is every screen that its memory does not pass over: none must be answered to be passed', () => {
    const { panel, graph } = ready()
    const rested = new Set(graph.nodes.map(({ state }) => state.screen))
    // Without a type nobody asks for the pair of a fire detector.
    const hidden = Object.entries(panel.description.screens).flatMap(([name, { skip }]) =>
      skip?.some(({ hides }) => hides === 'fireGroup') ? [name] : [],
    )
    expect(Object.keys(panel.description.screens).filter((name) => !rested.has(name))).toEqual(hidden)
  })

  it('is reached by the keys that the graph tells, with nothing changed on the way', () => {
    const { panel, graph, cost, inputsTo } = ready()
    graph.nodes.forEach((node, index) => {
      // Screens behind an answer that keeps are not reached without it.
      if (cost[index] === Infinity) return
      const after = acted(panel, switchedOn(panel, panel.factory), inputsTo(index))
      expect([node.id, after.kept === panel.factory, after.draft.size]).toEqual([restingId(after), true, 0])
    })
    expect(cost.filter((one) => one < Infinity).length).toBeGreaterThan(100)
  })

  it('leads to no screen from which one answer wipes everything, unless that is wanted, but out of each', () => {
    const { panel, graph } = ready()
    const usual = graphOf(panel, panel.factory)
    const wiping = wipingScreens(panel.description)
    const screenAt = (node: number): string => usual.nodes[node]?.state.screen ?? ''
    const led = usual.nodes.flatMap(({ ways }) => ways.map(({ to }) => screenAt(to)))
    expect(led.filter((screen) => wiping.has(screen))).toEqual([])
    expect(usual.byId.has('wiping')).toBe(false)
    expect(graph.byId.has('wiping')).toBe(true)
    const asked = usual.nodes.filter(({ state }) => wiping.has(state.screen))
    expect(asked.length).toBeGreaterThan(0)
    for (const { id: node } of asked) {
      const out = distancesFrom(usual, usual.byId.get(node) ?? -1, true).cost[usual.start]
      expect([node, (out ?? Infinity) < Infinity]).toEqual([node, true])
    }
  })
})

describe('an answer that leads on to where all can be wiped', () => {
  it('is keyed as the last one, and the way goes on from there', () => {
    const panel = demoPanel('sallow-m')
    // The last question before “As shipped” is which outputs sound.
    const [outs = ''] = [...panel.addresses.keys()].filter((address) => address.startsWith('system.outputs'))
    const value = panel
      .values(panel.addresses.get(outs)?.template ?? '', () => '')
      ?.list.find((one) => one.value !== panel.factory.get(outs))?.value
    const none = new Set<string>()
    const target = {
      wanted: new Map([[outs, value ?? '']]),
      ...{ open: none, left: none, hidden: none, refused: [] },
    }
    const route = routeTo({ panel, target, start: panel.factory, order: 'shortest' })
    expect(route).toMatchObject({ ok: true, differences: 0 })
  })
})

describe('ways on a small panel', () => {
  it('are the cheapest: fewest keys, then fewest seconds', () => {
    const panel = smallPanel()
    const graph = graphOf(panel, panel.factory, true)
    expect(graph.nodes[graph.start]?.id).toBe('home')
    const { cost, inputsTo } = distancesFrom(graph, graph.start, true)
    const to = (id: string) => inputsTo(graph.byId.get(id) ?? expect.fail(id))
    // Holding a key leads there too, and takes four seconds.
    expect(to('ask')).toEqual(press('b'))
    expect(to('turn m2 n3')).toHaveLength(3)
    expect(to('turn m1 n3')).toEqual(press('a2'))
    expect(to('home')).toEqual([])
    expect(cost[graph.start]).toBe(0)
  })

  it('lead nowhere by what asks for an answer that changes something', () => {
    const panel = smallPanel()
    const graph = graphOf(panel, panel.factory)
    for (const { state, ways } of graph.nodes)
      for (const way of ways) {
        const after = acted(panel, { ...state, draft: new Map(), kept: panel.factory }, way.inputs)
        expect([after.draft.size, restingId(after)]).toEqual([0, graph.nodes[way.to]?.id])
      }
    const ids = graph.nodes.map(({ id }) => id)
    expect(new Set(ids).size).toBe(ids.length)
    expect(ids).toEqual(expect.arrayContaining(['ask', 'kept n2', 'lost', 'w1', 'w2', 'w3', 'lone']))
  })

  const small = (): Graph => {
    const panel = smallPanel()
    const node = (id: string, ...ways: Graph['nodes'][number]['ways']) => ({
      ...{ id, state: switchedOn(panel, panel.factory), ways },
    })
    const way = (to: number, cost: number, key: string, keeps = false) => ({
      ...{ to, cost, keeps, inputs: press(key), keys: 1, seconds: 0 },
    })
    const nodes = [
      node('a', way(1, 10, '1'), way(2, 25, '2'), way(3, 2, '3', true)),
      node('b', way(2, 10, '4'), way(0, 10, '5')),
      node('c', way(3, 30, '6')),
      node('d'),
      node('e', way(0, 1, '7')),
    ]
    return { panel, nodes, byId: new Map(), start: 0 }
  }

  it('are added up, past those that keep only where they may', () => {
    const without = distancesFrom(small(), 0, false)
    expect([...without.cost]).toEqual([0, 10, 20, 50, Infinity])
    expect(without.inputsTo(3)).toEqual(press('146'))
    expect(without.inputsTo(4)).toEqual([])
    const may = distancesFrom(small(), 0, true)
    expect([...may.cost]).toEqual([0, 10, 20, 2, Infinity])
    expect(may.inputsTo(3)).toEqual(press('3'))
    expect([...distancesFrom(small(), 1, false).cost]).toEqual([10, 0, 10, 40, Infinity])
  })
})

describe('what a list of inputs takes', () => {
  it('is a key for each press, hold and code, and the seconds of holding and waiting', () => {
    expect(effortOf([])).toEqual({ keys: 0, seconds: 0 })
    expect(
      effortOf([
        { kind: 'press', key: '1' },
        { kind: 'hold', key: '2', seconds: 5 },
        { kind: 'code', who: 'installer' },
        { kind: 'wait', seconds: 40 },
        { kind: 'hear', serial: '20417733', loop: 1 },
      ]),
    ).toEqual({ keys: 3, seconds: 45 })
  })
})

describe('a resting state', () => {
  it('is told by its screen and its pointers, in one order', () => {
    expect(restingId({ screen: 'x', pointers: { zone: 7, area: 2 } })).toBe('x area2 zone7')
    expect(restingId({ screen: 'x', pointers: { area: 2, zone: 7 } })).toBe('x area2 zone7')
    expect(restingId({ screen: 'x', pointers: {} })).toBe('x')
  })

  it('has nothing half typed, says nothing and does not listen', () => {
    const panel = smallPanel()
    const state = on(panel, ...press('d'))
    expect(rests(panel, state)).toBe(true)
    for (const over of [
      { tap: { key: '1', times: 1 } },
      { listening: 3 },
      { says: 'no' },
      { shifted: true },
      { typed: '1' },
      { row: 1 },
    ])
      expect([over, rests(panel, { ...state, ...over })]).toEqual([over, false])
  })
})

describe('a clean start', () => {
  it('is the fewest keys to all as shipped, whatever the panel holds', () => {
    const panel = smallPanel()
    expect(cleanStart(panel)).toEqual(press('b9'))
    const longer = smallPanel({
      screens: {
        ...smallScreens,
        ask: { ...smallScreens.ask, keys: { ...smallScreens.ask.keys, '9': 'lost' } },
        lost: { ...smallScreens.lost, keys: { '1': { do: ['factory'] } } },
      },
    })
    const keys = cleanStart(longer) ?? expect.fail('none')
    expect(keys).toHaveLength(3)
    const changed = new Map([...longer.factory, ['x.list', '3']])
    expect(acted(longer, switchedOn(longer, changed), keys).kept).toBe(longer.factory)
  })

  it('is none where nothing brings all back', () => {
    const { '9': _wipes, ...keys } = smallScreens.ask.keys
    expect(
      cleanStart(smallPanel({ screens: { ...smallScreens, ask: { ...smallScreens.ask, keys } } })),
    ).toBeNull()
  })

  it('is warned of on the screens that have it, and those before them', () => {
    expect(wipingScreens(smallPanel().description)).toEqual(new Set(['ask', 'home', 'work', 'lone']))
  })
})

describe('what a key leaves behind', () => {
  const far = { lines: ['far'], widget: { kind: 'menu' }, keys: { '1': 'kept' } }
  const withKeys = (keys: object) => {
    const kept = { ...smallScreens.kept, keys: { '1': 'turn', ...keys } }
    const panel = smallPanel({ screens: { ...smallScreens, kept, far } })
    const graph = graphOf(panel, panel.factory)
    const node = graph.nodes.find(({ state }) => state.screen === 'kept') ?? expect.fail()
    const ways = node.ways.map(({ inputs, keeps, to }) => [
      ...[inputs.map((one) => ('key' in one ? one.key : '')).join(''), keeps],
      graph.nodes[to]?.state.screen,
    ])
    return { graph, ways: ways.filter(([, , screen]) => screen === 'far') }
  }

  it('is a way only where what it keeps is what stood there', () => {
    const puts = { put: { 'x.bit': 'on' }, do: ['keep'], go: 'far' }
    expect(withKeys({ '2': puts }).ways).toEqual([])
    expect(withKeys({ '2': puts, '3': { do: ['keep'], go: 'far' } }).ways).toEqual([['3', true, 'far']])
    // The same value again changes nothing.
    expect(withKeys({ '2': { ...puts, put: { 'x.bit': 'off' } } }).ways).toEqual([['2', true, 'far']])
    expect(withKeys({ '2': { put: { 'x.bit': 'on' }, go: 'far' } }).ways).toEqual([])
    expect(withKeys({ '2': { go: 'far' } }).ways).toEqual([['2', false, 'far']])
  })

  it('is no sound: a place is the same whether it was reached with one or without', () => {
    const { graph, ways } = withKeys({ '2': { do: ['beep'], go: 'far' } })
    expect(ways).toEqual([['2', false, 'far']])
    expect(graph.nodes.map(({ state }) => state.beeped)).not.toContain(true)
  })
})
