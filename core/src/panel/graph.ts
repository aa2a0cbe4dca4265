import TinyQueue from 'tinyqueue'
import type { Move, PanelInterface, Screen } from '../catalogue/schema.ts'
import type { Memory } from '../memory/memory.ts'
import { movesOf, screenOf, type Compiled } from './compiled.ts'
import { acted, switchedOn } from './machine.ts'
import { held, type Input, type PanelState } from './state.ts'
import { answer, press } from './typist.ts'
import { freshOn, patternsOf } from './widgets.ts'

/*
 * Where a panel rests, and the ways between. A resting state is a screen with its own pointers, nothing half typed. The graph is
 * made with a memory that no way through it changes: what is written on the way is what is there.
 */

/** A way from one resting state to another. */
interface Way {
  readonly to: number
  readonly inputs: readonly Input[]
  /** Keys pressed; a code counts as one, for nobody knows how many it has. */
  readonly keys: number
  readonly seconds: number
  /** Keys first, then seconds, as one number. */
  readonly cost: number
  /** Whether answers are kept on the way. */
  readonly keeps: boolean
}

/** A resting state with the ways out of it. */
interface RestingState {
  readonly id: string
  readonly state: PanelState
  readonly ways: readonly Way[]
}

/** All resting states of a panel that holds a memory. */
export interface Graph {
  readonly panel: Compiled
  readonly nodes: readonly RestingState[]
  readonly byId: ReadonlyMap<string, number>
  /** The screen at which it was switched on. */
  readonly start: number
}

/** An address that no panel has: while it stands in the draft, nothing was kept and nothing dropped. */
const MARK = '~'

/** Makes the graph of a panel that holds `memory`; only `everywhere` leads also over screens from which all can be wiped. */
export function graphOf(panel: Compiled, memory: Memory, everywhere = false): Graph {
  const wiping = everywhere ? new Set<string>() : wipingScreens(panel.description)
  const first = marked(panel, switchedOn(panel, memory))
  const nodes: { id: string; state: PanelState; ways: Way[] }[] = []
  const byId = new Map<string, number>()
  const nodeOf: NodeOf = (at, state) => {
    const id = restingId(at)
    const there = byId.get(id)
    if (there !== undefined) return there
    byId.set(id, nodes.length)
    nodes.push({ id, state: state(), ways: [] })
    return nodes.length - 1
  }
  const start = nodeOf(first, () => first)
  for (let at = 0; at < nodes.length; at++) {
    const node = nodes[at]
    if (!node) break
    const best = new Map<number, Way>()
    for (const inputs of movesFrom(panel, node.state)) {
      const reached = acted(panel, node.state, inputs)
      const wipes = wiping.has(reached.screen)
      if (wipes && screenOf(panel, reached.screen).widget.kind === 'busy') continue
      const way = wayTo(panel, { memory, inputs, reached }, nodeOf)
      // An answer may lead on to where all can be wiped: ways lead out from there, and none leads there.
      if (!way || way.to === at || wipes) continue
      const known = best.get(way.to)
      if (!known || way.cost < known.cost) best.set(way.to, way)
    }
    node.ways.push(...best.values())
  }
  return { panel, nodes, byId, start }
}

/** The node of a place; its state is made when it is reached first. */
type NodeOf = (at: PanelState, state: () => PanelState) => number

/** The keys of a clean start, whatever the panel holds: from its first screen until all is as shipped; null where it has none. */
export function cleanStart(panel: Compiled): readonly Input[] | null {
  const graph = graphOf(panel, new Map(), true)
  const { cost, inputsTo } = distancesFrom(graph, graph.start, false)
  let best: readonly Input[] | null = null
  let least = Infinity
  graph.nodes.forEach(({ state }, node) => {
    for (const inputs of movesFrom(panel, state)) {
      if (acted(panel, state, inputs).kept !== panel.factory) continue
      const total = (cost[node] ?? Infinity) + costOf(effortOf(inputs))
      if (total >= least) continue
      least = total
      best = [...inputsTo(node), ...inputs]
    }
  })
  return best
}

/** Screens from which one answer brings back all that was shipped: no way leads over them. */
export function wipingScreens({ screens }: PanelInterface): ReadonlySet<string> {
  const wipes = (name: string): boolean => leaves(screens[name]).some((move) => move.do?.includes('factory'))
  const wiping = new Set(Object.keys(screens).filter(wipes))
  const before = Object.keys(screens).filter((name) =>
    leaves(screens[name]).some((move) => move.go !== undefined && wiping.has(move.go)),
  )
  return new Set([...wiping, ...before])
}

/** The moves that a screen's own keys and question make. */
function leaves(screen: Screen | undefined): readonly Move[] {
  if (!screen) return []
  const { keys = {}, holds = {}, widget } = screen
  const asked = widget.kind === 'jump' ? Object.values(widget.to) : 'then' in widget ? [widget.then] : []
  return [...Object.values(keys), ...Object.values(holds).map(({ to }) => to), ...asked].flatMap(movesOf)
}

/** Screen and pointers: what tells resting states apart. */
export function restingId({ screen, pointers }: Pick<PanelState, 'screen' | 'pointers'>): string {
  const at = Object.entries(pointers).sort(([a], [b]) => (a < b ? -1 : 1))
  return [screen, ...at.map(([name, number]) => `${name}${number}`)].join(' ')
}

/** Whether nothing is half typed, no message stands and it does not listen. */
export function rests(panel: Compiled, state: PanelState): boolean {
  if (state.tap || state.listening > 0 || state.says !== '') return false
  const fresh = freshOn(panel, state)
  return !state.shifted && state.typed === fresh.typed && state.row === fresh.row
}

/** Keys first, then seconds. */
function costOf({ keys, seconds }: { readonly keys: number; readonly seconds: number }): number {
  return keys * 10_000 + Math.min(9_999, Math.round(seconds))
}

/** Keys and seconds of a list of inputs. */
export function effortOf(inputs: readonly Input[]): { readonly keys: number; readonly seconds: number } {
  let keys = 0
  let seconds = 0
  for (const input of inputs)
    if (input.kind === 'wait') seconds += input.seconds
    else if (input.kind !== 'hear') {
      keys += 1
      if (input.kind === 'hold') seconds += input.seconds
    }
  return { keys, seconds }
}

/** A panel with a sign in its draft, where it has one: while it stands there nothing was kept and nothing dropped. */
export function marked(panel: Compiled, state: PanelState): PanelState {
  return panel.description.keeping === 'at-once' ? state : { ...state, draft: new Map([[MARK, 'on']]) }
}

/** Everything that can be done at a resting state and may lead to another. */
function movesFrom(panel: Compiled, state: PanelState): readonly (readonly Input[])[] {
  const { widget, holds } = screenOf(panel, state.screen)
  if (widget.kind === 'busy') return [[{ kind: 'wait', seconds: widget.seconds }]]
  // A digit where digits are typed leaves something half typed.
  const typing = typingKinds.has(widget.kind)
  const keys = [...panel.keys].filter((key) => !typing || !/^\d$/.test(key)).map((key) => [press(key)])
  const held = Object.entries(holds ?? {}).map(([key, { seconds }]): Input[] => [
    { kind: 'hold', key, seconds },
  ])
  return [...keys, ...held, ...typedMoves(panel, state)]
}

const typingKinds: ReadonlySet<string> = new Set(['jump', 'number', 'text', 'words', 'serial', 'code'])

function typedMoves(panel: Compiled, state: PanelState): readonly (readonly Input[])[] {
  const { widget } = screenOf(panel, state.screen)
  if (widget.kind === 'code') return [[{ kind: 'code', who: widget.who }, press(widget.send)]]
  if (widget.kind === 'jump')
    return patternsOf(panel, widget).map((typed) => [
      ...[...typed].map(press),
      ...(widget.send === undefined ? [] : [press(widget.send)]),
    ])
  const same = answer(panel, state, held(state))
  return same ? [same] : []
}

/** A way, where what was done changed nothing that is held and left nothing half typed. */
function wayTo(
  panel: Compiled,
  { memory, inputs, reached }: { memory: Memory; inputs: readonly Input[]; reached: PanelState },
  nodeOf: NodeOf,
): Way | null {
  if (!rests(panel, reached)) return null
  const effort = effortOf(inputs)
  const cost = costOf(effort)
  if (panel.description.keeping === 'at-once')
    return reached.kept === memory
      ? { to: nodeOf(reached, () => calm(reached)), inputs, ...effort, cost, keeps: false }
      : null
  const keeps = reached.kept.has(MARK)
  const whole = keeps ? onlyKept(reached, memory) : unchanged(reached, memory)
  if (!whole) return null
  const state = (): PanelState => marked(panel, { ...calm(reached), kept: memory })
  return { to: nodeOf(reached, state), inputs, ...effort, cost, keeps }
}

function unchanged({ kept, draft }: PanelState, memory: Memory): boolean {
  return kept === memory && draft.size === 1 && draft.has(MARK)
}

/** Whether what was kept is what stood there before, but for the sign: a key may store a value and keep it at once. */
function onlyKept({ kept, draft }: PanelState, memory: Memory): boolean {
  return (
    draft.size === 0 &&
    kept.size === memory.size + 1 &&
    [...memory].every(([address, value]) => kept.get(address) === value)
  )
}

function calm(state: PanelState): PanelState {
  if (!state.beeped && state.waited === 0) return state
  return { ...state, beeped: false, waited: 0 }
}

/** Distances from one resting state to all, with the way that leads to each. */
export interface Distances {
  /** Cost to each node; Infinity where no way leads. */
  readonly cost: Readonly<Float64Array>
  /** The inputs to a node; empty for the node itself. */
  readonly inputsTo: (node: number) => readonly Input[]
}

/** Shortest ways from a node, by Dijkstra; ways that keep are taken only where they may be. */
export function distancesFrom(graph: Graph, from: number, mayKeep: boolean): Distances {
  const { nodes } = graph
  const count = nodes.length
  const cost = new Float64Array(count).fill(Infinity)
  const before = new Int32Array(count)
  const came: (Way | undefined)[] = []
  // A number holds both: what it costs, and where one then is.
  const open = new TinyQueue<number>([from])
  cost[from] = 0
  for (let next = open.pop(); next !== undefined; next = open.pop()) {
    const at = next % count
    const so = (next - at) / count
    if (so > (cost[at] ?? 0)) continue
    for (const way of nodes[at]?.ways ?? []) {
      if (way.keeps && !mayKeep) continue
      const there = so + way.cost
      if (there >= (cost[way.to] ?? 0)) continue
      cost[way.to] = there
      before[way.to] = at
      came[way.to] = way
      open.push(there * count + way.to)
    }
  }
  return {
    cost,
    inputsTo(node) {
      const parts: (readonly Input[])[] = []
      for (let way = came[node], at = node; way && at !== from; way = came[at]) {
        parts.unshift(way.inputs)
        at = before[at] ?? from
      }
      return parts.flat()
    },
  }
}
