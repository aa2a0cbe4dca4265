import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { demoPanel } from '../testing/panels.ts'
import { distancesFrom, graphOf, restingId } from './graph.ts'
import { acted, switchedOn } from './machine.ts'

const described = catalogue
  .all('panel')
  .flatMap(({ id, interface: entry }) => (entry ? [id.slice('panel/'.length)] : []))

describe.each(described)('where the %s rests', (id) => {
  const panel = demoPanel(id)
  const graph = graphOf(panel, panel.factory, true)
  const { cost, inputsTo } = distancesFrom(graph, graph.start, false)

  it('is every screen that its memory does not pass over: none must be answered to be passed', () => {
    const rested = new Set(graph.nodes.map(({ state }) => state.screen))
    // Without a type nobody asks for the pair of a fire detector.
    const hidden = Object.entries(panel.description.screens).flatMap(([name, { skip }]) =>
      skip?.some(({ hides }) => hides === 'fireGroup') ? [name] : [],
    )
    expect(Object.keys(panel.description.screens).filter((name) => !rested.has(name))).toEqual(hidden)
  })

  it('is reached by the keys that the graph tells, with nothing changed on the way', () => {
    graph.nodes.forEach((node, index) => {
      // Screens behind an answer that keeps are not reached without it.
      if (cost[index] === Infinity) return
      const after = acted(panel, switchedOn(panel, panel.factory), inputsTo(index))
      expect([node.id, after.kept === panel.factory, after.draft.size]).toEqual([restingId(after), true, 0])
    })
    expect(cost.filter((one) => one < Infinity).length).toBeGreaterThan(100)
  })

  it('leads over no screen from which one answer wipes everything, unless that is wanted', () => {
    const usual = graphOf(panel, panel.factory)
    const left = graph.nodes.filter(({ id: node }) => !usual.byId.has(node)).map(({ state }) => state.screen)
    expect(left).toContain('wiping')
    expect(left.length).toBeLessThanOrEqual(3)
  })
})
