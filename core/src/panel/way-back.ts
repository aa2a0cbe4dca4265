import TinyQueue from 'tinyqueue'
import type { Memory } from '../memory/memory.ts'
import { screenOf, type Compiled } from './compiled.ts'
import { restingId, rests, type Graph } from './graph.ts'
import { act, acted } from './machine.ts'
import type { Input, PanelState } from './state.ts'
import { press } from './typist.ts'
import { opened } from './widgets.ts'

/*
 * Ways from wherever a panel may be, that neither write nor drop nor keep anything, and that end where they should whatever the panel
 * holds at addresses that nobody knows.
 */

/** Keys back to a place, and the panel at their end as it is believed to be. */
export interface WayBack {
  readonly inputs: readonly Input[]
  readonly state: PanelState
}

/** Ways back to one place; null where none lead there without harm. */
export type WaysTo = (state: PanelState) => WayBack | null

/** Keys that are pressed at most before the panel rests: out of what is half typed. */
const DEEP = 3
/** What one key costs beside seconds, as the graph counts. */
const KEY = 10_000

/** Makes the ways to a resting state; `others` are memories that the panel may hold instead of the one it is believed to. */
export function waysTo(graph: Graph, to: string, others: readonly Memory[]): WaysTo {
  const { panel } = graph
  const target = graph.byId.get(to)
  if (target === undefined) return () => null
  const { cost, inputsFrom } = costsTo(graph, target, others)
  return (state) => {
    let best: readonly Input[] | null = null
    let least = Infinity
    const costOf = (id: string): number => cost[graph.byId.get(id) ?? -1] ?? Infinity
    for (const out of outOf(panel, { state, others, leads: (id) => costOf(id) < Infinity })) {
      const id = restingId(out.state)
      const node = graph.byId.get(id)
      const total = costOf(id) + out.inputs.length * KEY
      if (node === undefined || total >= least) continue
      least = total
      best = [...out.inputs, ...inputsFrom(node)]
    }
    return best && { inputs: best, state: acted(panel, state, best) }
  }
}

interface Step {
  readonly from: number
  readonly to: number
  readonly inputs: readonly Input[]
  readonly cost: number
}

/** Shortest ways from every node to one, by Dijkstra against their direction, over ways that are sure. */
function costsTo(
  graph: Graph,
  target: number,
  others: readonly Memory[],
): { readonly cost: readonly number[]; readonly inputsFrom: (node: number) => readonly Input[] } {
  const into: Step[][] = graph.nodes.map(() => [])
  graph.nodes.forEach(({ ways }, from) => {
    for (const { to, inputs, keys, seconds, keeps } of ways)
      if (!keeps) into[to]?.push({ from, to, inputs, cost: keys * KEY + Math.round(seconds) })
  })
  const cost = graph.nodes.map(() => Infinity)
  const next: (Step | undefined)[] = []
  cost[target] = 0
  const open = new TinyQueue([{ so: 0, at: target }], (a, b) => a.so - b.so)
  for (let one = open.pop(); one; one = open.pop()) {
    const { so, at } = one
    if (so > (cost[at] ?? 0)) continue
    for (const step of into[at] ?? []) {
      const there = so + step.cost
      if (there >= (cost[step.from] ?? 0) || !isSure(graph, step, others)) continue
      cost[step.from] = there
      next[step.from] = step
      open.push({ so: there, at: step.from })
    }
  }
  return {
    cost,
    inputsFrom(node) {
      const inputs: Input[] = []
      for (let step = next[node]; step; step = next[step.to]) inputs.push(...step.inputs)
      return inputs
    },
  }
}

/** Whether a way ends at the same place whatever the panel holds, and changes none of it. */
function isSure({ panel, nodes }: Graph, { from, to, inputs }: Step, others: readonly Memory[]): boolean {
  const start = nodes[from]?.state
  const end = nodes[to]?.id
  if (!start || end === undefined) return false
  return others.every((kept) => {
    const after = acted(panel, opened(panel, { ...start, kept }), inputs)
    return restingId(after) === end && rests(panel, after) && isAsItWas(after, { ...start, kept })
  })
}

function isAsItWas(after: PanelState, before: PanelState): boolean {
  return after.kept === before.kept && after.draft === before.draft
}

/** A panel in doubt, and the keys that led there. */
interface Doubted {
  readonly states: readonly PanelState[]
  readonly inputs: readonly Input[]
}

/** Resting states that a few keys lead to, out of what is half typed, whatever that is and whatever the panel holds. */
function outOf(
  panel: Compiled,
  {
    state,
    others,
    leads,
  }: {
    readonly state: PanelState
    readonly others: readonly Memory[]
    readonly leads: (id: string) => boolean
  },
): readonly { readonly state: PanelState; readonly inputs: readonly Input[] }[] {
  const found: { state: PanelState; inputs: readonly Input[] }[] = []
  const seen = new Set<string>()
  let edge: readonly Doubted[] = [{ states: doubted(panel, state, others), inputs: [] }]
  for (let deep = 0; deep <= DEEP && edge.length > 0; deep++) {
    const open: Doubted[] = []
    for (const at of edge) {
      const [first] = at.states
      const id = at.states.map(signature).join()
      if (!first || seen.has(id)) continue
      seen.add(id)
      if (leads(restingId(first)) && isOnePlace(panel, at.states))
        found.push({ state: first, inputs: at.inputs })
      else if (deep < DEEP) open.push(...keysFrom(panel, at))
    }
    edge = open
  }
  return found
}

function signature(state: PanelState): string {
  return [restingId(state), state.typed, state.row, state.says, state.shifted].join('|')
}

/** What the panel may be in: with other things typed or nothing, and other memories held. */
function doubted(panel: Compiled, state: PanelState, others: readonly Memory[]): readonly PanelState[] {
  const fresh = opened(panel, state)
  const typed = state.typed === fresh.typed ? [] : [{ ...state, typed: `${state.typed ?? ''}1` }, fresh]
  return [state, ...typed, ...others.map((kept) => ({ ...state, kept }))]
}

/** Whether all that it may be in rest at the same place. */
function isOnePlace(panel: Compiled, states: readonly PanelState[]): boolean {
  const ids = new Set(states.map(restingId))
  return ids.size === 1 && states.every((state) => rests(panel, state))
}

function keysFrom(panel: Compiled, at: Doubted): readonly Doubted[] {
  const [first] = at.states
  const widget = first && screenOf(panel, first.screen).widget
  const inputs: readonly Input[] =
    widget?.kind === 'busy' ? [{ kind: 'wait', seconds: widget.seconds }] : [...panel.keys].map(press)
  return inputs.flatMap((input) => {
    const states = at.states.map((one) => act(panel, one, input))
    // Waiting is all that can be done where it works already; otherwise nothing may change.
    const works = at.inputs.every(({ kind }) => kind === 'wait') && input.kind === 'wait'
    const harmless = works || states.every((one, index) => isAsItWas(one, at.states[index] ?? one))
    return harmless ? [{ states, inputs: [...at.inputs, input] }] : []
  })
}
