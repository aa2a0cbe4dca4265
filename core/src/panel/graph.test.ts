import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { demoPanel } from '../testing/panels.ts'
import { distancesFrom, graphOf, restingId, wipingScreens } from './graph.ts'
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
