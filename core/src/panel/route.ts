import type { Target } from '../catalogue/schema.ts'
import { differences, keyedInto, type TargetMemory } from '../memory/target.ts'
import type { Memory } from '../memory/memory.ts'
import { filled, movesOf, screenOf, spread, type Compiled } from './compiled.ts'
import { distancesFrom, effortOf, graphOf, restingId, rests, type Distances, type Graph } from './graph.ts'
import { acted, switchedOn } from './machine.ts'
import { shortestOrder, type Visits } from '../units/order.ts'
import { held, type Input, type PanelState } from './state.ts'
import { answer, press, templatesOf, type Wanted } from './typist.ts'

/** What is said of a value that no display of a panel stores. */
export const NO_PLACE = 'has no place for it.'

/*
 * The shortest keys from one memory to another. Each question to be answered is a stop; ways between stops are sought on a graph that
 * is frozen at the memory in the end, and the whole is then replayed on the machine: what it refuses stops the route with its reason.
 */

/** What a route is made of. */
interface RouteEnds {
  readonly panel: Compiled
  readonly target: TargetMemory
  /** What the panel holds before. */
  readonly start: Memory
  /** Whether an ID that is wanted is learned by a transmission and not typed; none is without it. */
  readonly isHeard?: (address: string) => boolean
}
/** The shortest order, or the order in which the plan reads. */
export type RouteOrder = 'shortest' | 'plan'

/** One stop of a route as it is keyed. */
export interface RouteStep {
  /** What is pressed on the way to the question. */
  readonly way: readonly Input[]
  /** What answers it. */
  readonly answer: readonly Input[]
  /** Addresses that it sets, with what they then hold; empty for the way out. */
  readonly sets: readonly { readonly address: string; readonly value: string }[]
  /** `learn`: the panel listens, and a device is made to transmit. `empty`: the value goes, so that another can have it. */
  readonly kind: 'answer' | 'empty' | 'learn' | 'end'
  /** The panel before the way, at the question, and after its answer. */
  readonly from: PanelState
  readonly before: PanelState
  readonly after: PanelState
}

/** A route that was replayed, or why there is none. */
export type Route =
  | {
      readonly ok: true
      readonly steps: readonly RouteStep[]
      readonly keys: number
      readonly seconds: number
      /** What the panel then holds. */
      readonly memory: Memory
      /** Wanted addresses at which it is not as wanted: none, or the route is not right. */
      readonly differences: number
    }
  | { readonly ok: false; readonly reasons: readonly Problem[] }

/** A question that is to be answered. */
interface Stop {
  readonly screen: string
  readonly pointers: Readonly<Record<string, number>>
  readonly addresses: readonly string[]
  readonly kind: 'answer' | 'empty' | 'learn'
}

/** Makes the keys from one memory to another. Total and deterministic. */
export function routeTo(wanted: RouteEnds & { readonly order: RouteOrder }): Route {
  const [route] = routesTo(wanted, [wanted.order])
  return route ?? { ok: false, reasons: [] }
}

/** Routes of the same ends in several orders, made on one graph. */
export function routesTo(wanted: RouteEnds, orders: readonly RouteOrder[]): readonly Route[] {
  const { panel, target, start } = wanted
  const reasons = [...target.refused, ...unstorable(panel, target), ...heldTwice(panel, wanted)]
  const found = stopsOf(wanted)
  if (reasons.length > 0) return orders.map(() => ({ ok: false, reasons }))
  if (!found.ok) return orders.map(() => found)
  const end = keyedInto(target, start)
  const graph = graphOf(panel, end)
  const distances = new Map<string, Distances>()
  const values: Wanted = (address) => end.get(address) ?? ''
  return orders.map((order) => {
    const keyed: Keyed = { graph, values, steps: [], state: switchedOn(panel, start), distances }
    return keyedRoute(keyed, { phases: found.phases, order, target })
  })
}

function keyedRoute(
  keyed: Keyed,
  {
    phases,
    order,
    target,
  }: {
    readonly phases: readonly (readonly Stop[])[]
    readonly order: RouteOrder
    readonly target: TargetMemory
  },
): Route {
  for (const stops of phases) {
    const problem = keyStops(keyed, stops, order)
    if (problem) return { ok: false, reasons: [problem] }
  }
  const problem = goHome(keyed)
  if (problem) return { ok: false, reasons: [problem] }
  const inputs = keyed.steps.flatMap((step) => [...step.way, ...step.answer])
  return {
    ok: true,
    steps: keyed.steps,
    ...effortOf(inputs),
    memory: keyed.state.kept,
    differences: differences(target, keyed.state.kept).length,
  }
}

interface Keyed {
  readonly graph: Graph
  readonly values: Wanted
  readonly steps: RouteStep[]
  state: PanelState
  readonly distances: Map<string, Distances>
}

/** Where each address can be set: the screen, and the numbers of its pointers. */
export function placesOf(panel: Compiled): ReadonlyMap<string, Omit<Stop, 'kind'>> {
  const places = new Map<string, Omit<Stop, 'kind'>>()
  for (const [screen, { widget }] of Object.entries(panel.description.screens)) {
    const templates = templatesOf(widget)
    const all = templates.flatMap((template) => spread(panel.description, template))
    for (const { address, pointers } of all.filter((one) => !places.has(one.address)))
      places.set(address, {
        screen,
        pointers,
        addresses: templates.map((template) => filled(template, pointers)),
      })
  }
  return places
}

type Found =
  | { readonly ok: true; readonly phases: readonly (readonly Stop[])[] }
  | { readonly ok: false; readonly reasons: readonly Problem[] }

/** Every question to be answered: values first emptied that another number is to have, then what is wanted and what is learned. */
function stopsOf({ panel, target, start, isHeard = () => false }: RouteEnds): Found {
  const places = placesOf(panel)
  const reasons: { address: string; reason: string }[] = []
  const stops = new Map<string, Stop>()
  const add = (address: string, kind: Stop['kind']): void => {
    const place = places.get(address)
    if (!place) {
      reasons.push({ address, reason: `No screen of ${panel.panel.name} sets it.` })
      return
    }
    const id = restingId(place)
    if (!stops.has(id)) stops.set(id, { ...place, kind })
  }
  const listens = (address: string): boolean =>
    listeningKey(panel, places.get(address)?.screen ?? '') !== undefined
  for (const { address } of differences(target, start))
    add(address, isHeard(address) && listens(address) ? 'learn' : 'answer')
  for (const address of target.open)
    if (
      address.endsWith('.serial') &&
      places.has(address) &&
      !start.has(address) &&
      !target.left.has(address)
    )
      add(address, 'learn')
  const known = [...stops.values()].filter(({ addresses: [at = ''] }) => target.wanted.has(at))
  for (const loop of heardWith(panel, known)) stops.delete(loop)
  const emptied = takenAddresses(panel, target, start)
  const first = emptied.flatMap((address): Stop[] => {
    const place = places.get(address)
    return place ? [{ ...place, kind: 'empty' }] : []
  })
  return reasons.length > 0 ? { ok: false, reasons } : { ok: true, phases: [first, [...stops.values()]] }
}

/** Questions that need no answer of their own: an ID that is learned, and known, brings its input with it. */
function heardWith(panel: Compiled, stops: readonly Stop[]): readonly string[] {
  const places = placesOf(panel)
  return stops.flatMap(({ kind, screen, pointers }) => {
    const { widget } = screenOf(panel, screen)
    if (kind !== 'learn' || widget.kind !== 'serial' || widget.loopAt === undefined) return []
    const place = places.get(filled(widget.loopAt, pointers))
    return place?.addresses.length === 1 ? [restingId(place)] : []
  })
}

/** Addresses whose value another number is to have before they get their own: they are emptied first. */
function takenAddresses(panel: Compiled, { wanted }: TargetMemory, start: Memory): readonly string[] {
  const is = (address: string): string => start.get(address) ?? ''
  const willBe = (address: string): string => wanted.get(address) ?? is(address)
  return groupsOf(panel).flatMap((group) => {
    const holders = new Map(group.map(({ addresses }) => [addresses.map(is).join(' '), addresses]))
    return group.flatMap(({ addresses }) => {
      const values = addresses.map(willBe)
      const there = values.includes('') ? undefined : holders.get(values.join(' '))
      const [address = ''] = there ?? []
      // One that keeps what another is to have is told of elsewhere: no order of keys gets by it.
      return address === '' || address === addresses[0] ? [] : [address]
    })
  })
}

/** Something that stands in the way of a sheet: where, and why as a sentence. */
export interface Problem {
  readonly address: string
  readonly reason: string
}

/** What is wanted where the panel takes no such value. */
function unstorable(panel: Compiled, { wanted }: TargetMemory): readonly Problem[] {
  const value = (address: string): string => wanted.get(address) ?? panel.factory.get(address) ?? ''
  return [...wanted].flatMap(([address, stored]): Problem[] => {
    const field = panel.addresses.get(address)
    const values = field && panel.values(field.template, value)
    if (!values) return [{ address, reason: `${panel.panel.name} ${NO_PLACE}` }]
    if (values.keyed(stored) !== null) return []
    return [{ address, reason: `${panel.panel.name} takes ${values.takes} there, not “${stored}”.` }]
  })
}

/** What two numbers would hold though it must differ. */
function heldTwice(panel: Compiled, { target, start }: RouteEnds): readonly Problem[] {
  const end = keyedInto(target, start)
  return groupsOf(panel).flatMap((group) => {
    const seen = new Map<string, string>()
    return group.flatMap(({ addresses }): Problem[] => {
      const [address = ''] = addresses
      const values = addresses.map((at) => end.get(at) ?? '')
      const there = seen.get(values.join(' '))
      if (values.includes('')) return []
      if (there === undefined) seen.set(values.join(' '), address)
      const [, number = ''] = there?.split('.') ?? []
      return there === undefined
        ? []
        : [
            {
              address,
              reason: `${panel.panel.name} holds ${values.join(', input ')} once: number ${number} has it.`,
            },
          ]
    })
  })
}

/** Addresses that together must differ, number by number, group by group. */
function groupsOf(panel: Compiled): readonly (readonly { readonly addresses: readonly string[] }[])[] {
  return (panel.description.unique ?? []).map((group) =>
    spread(panel.description, group[0] ?? '').map(({ pointers }) => ({
      addresses: group.map((template) => filled(template, pointers)),
    })),
  )
}

/** Keys stops in the order that is wanted; what stands in the way, or null. */
function keyStops(keyed: Keyed, stops: readonly Stop[], order: RouteOrder): Problem | null {
  const sorted = order === 'plan' ? decidersFirst(keyed.graph.panel, stops) : ordered(keyed, stops)
  for (const stop of sorted) {
    const problem = keyStop(keyed, stop)
    if (problem) return problem
  }
  return null
}

function keyStop(keyed: Keyed, stop: Stop): Problem | null {
  const { panel } = keyed.graph
  const [address = ''] = stop.addresses
  const emptied: Wanted = (at) => (stop.addresses.includes(at) ? '' : keyed.values(at))
  const wanted = stop.kind === 'empty' ? emptied : keyed.values
  // Of what is learned without a sticker nobody knows what it will be.
  const isKnown = stop.kind !== 'learn' || wanted(address) !== ''
  const isThere = (state: PanelState): boolean => stop.addresses.every((at) => held(state)(at) === wanted(at))
  if (isKnown && isThere(keyed.state)) return null
  const way = wayTo(keyed, stop)
  if (!way) return { address, reason: `No keys lead to it (${stop.screen}).` }
  const before = acted(panel, keyed.state, way)
  const inputs = stop.kind === 'learn' ? learned(panel, before, wanted) : answer(panel, before, wanted)
  if (!inputs) return { address, reason: `No keys give “${wanted(address)}” there (${stop.screen}).` }
  const after = acted(panel, before, inputs)
  if (isKnown && !isThere(after))
    return { address, reason: `The panel refuses “${wanted(address)}” there: ${after.says || 'it beeps'}.` }
  const sets = stop.addresses.map((at) => ({ address: at, value: wanted(at) }))
  keyed.steps.push({ way, answer: inputs, sets, kind: stop.kind, from: keyed.state, before, after })
  keyed.state = after
  return null
}

/** The way to a stop: as the frozen graph has it where the panel follows it, else sought in what the panel now holds. */
function wayTo(
  keyed: Keyed,
  stop: { readonly screen: string; readonly pointers: Readonly<Record<string, number>> },
): readonly Input[] | null {
  const { graph, state } = keyed
  const id = restingId(stop)
  const to = graph.byId.get(id)
  const from = graph.byId.get(restingId(state))
  if (to !== undefined && from !== undefined) {
    const inputs = distancesAt(keyed, from).inputsTo(to)
    if (leadsTo(graph.panel, state, { inputs, id }) && !changes(keyed, inputs)) return inputs
  }
  const now = graphOf(graph.panel, new Map([...state.kept, ...state.draft]))
  const here = now.byId.get(restingId(state))
  const there = now.byId.get(id)
  if (here === undefined || there === undefined) return null
  const inputs = distancesFrom(now, here, graph.panel.description.keeping === 'by-zone').inputsTo(there)
  return leadsTo(graph.panel, state, { inputs, id }) && !changes(keyed, inputs) ? inputs : null
}

function leadsTo(
  panel: Compiled,
  state: PanelState,
  { inputs, id }: { readonly inputs: readonly Input[]; readonly id: string },
): boolean {
  const after = acted(panel, state, inputs)
  return restingId(after) === id && rests(panel, after)
}

/** Whether inputs write something that is neither wanted nor there already. */
function changes({ graph: { panel }, state, values }: Keyed, inputs: readonly Input[]): boolean {
  const after = acted(panel, state, inputs)
  if (after.kept === state.kept && after.draft === state.draft) return false
  const was = held(state)
  const is = held(after)
  const addresses = new Set([...after.kept.keys(), ...after.draft.keys(), ...state.kept.keys()])
  return [...addresses].some((address) => is(address) !== was(address) && is(address) !== values(address))
}

function distancesAt({ graph, distances }: Keyed, from: number, mayKeep = false): Distances {
  const id = `${from} ${String(mayKeep)}`
  const known = distances.get(id)
  if (known) return known
  const made = distancesFrom(graph, from, mayKeep || graph.panel.description.keeping === 'by-zone')
  distances.set(id, made)
  return made
}

/** What is pressed to learn: it listens, and a device transmits. Where its ID is not known a stand-in shows where it leads. */
function learned(panel: Compiled, state: PanelState, wanted: Wanted): readonly Input[] | null {
  const { widget } = screenOf(panel, state.screen)
  if (widget.kind !== 'serial') return null
  const key = listeningKey(panel, state.screen)
  const takes = panel.values(widget.at, held(state))
  const planned = wanted(filled(widget.at, state.pointers))
  const serial = [planned, ...standIns].find((id) => id !== '' && takes?.read(id) === id)
  if (key === undefined || serial === undefined) return null
  const loop = widget.loopAt === undefined ? null : Number(wanted(filled(widget.loopAt, state.pointers)))
  const heard: Input = { kind: 'hear', serial, loop: loop === 0 ? null : loop }
  return [press(key), ...Array.from({ length: widget.needs }, () => heard)]
}

/** The key that makes a screen listen; undefined where none does. */
function listeningKey({ description }: Compiled, screen: string): string | undefined {
  const listens = (to: Target): boolean => movesOf(to).some((move) => move.do?.includes('listen') === true)
  return Object.entries(description.screens[screen]?.keys ?? {}).find(([, to]) => listens(to))?.[0]
}

const standIns = [4, 5, 6, 7, 8, 9, 10, 12, 14].flatMap((size) => [
  '0'.repeat(size),
  `A${'0'.repeat(size - 1)}`,
])

/** Home, with all that was answered kept. */
function goHome(keyed: Keyed): Problem | null {
  const { graph, state } = keyed
  if (keyed.steps.length === 0) return null
  const from = graph.byId.get(restingId(state))
  const inputs = from === undefined ? [] : distancesAt(keyed, from, true).inputsTo(graph.start)
  const after = acted(graph.panel, state, inputs)
  const home = graph.nodes[graph.start]
  if (restingId(after) !== home?.id || after.draft.size > 0)
    return {
      address: '',
      reason: `No keys lead from ${state.screen} to ${home?.id ?? ''} with all answers kept.`,
    }
  keyed.steps.push({ way: inputs, answer: [], sets: [], kind: 'end', from: state, before: state, after })
  keyed.state = after
  return null
}

/** Stops in the shortest order: those that follow each other without a key between are taken as one first. */
function ordered(keyed: Keyed, stops: readonly Stop[]): readonly Stop[] {
  const { graph } = keyed
  const known = stops.flatMap((stop) => {
    const node = graph.byId.get(restingId(stop))
    return node === undefined ? [] : [{ stop, node, leaves: leaving(keyed, stop, node) }]
  })
  const lost = stops.filter((stop) => !graph.byId.has(restingId(stop)))
  const chains = known.length <= 12 ? known.map((one) => [one]) : chained(known)
  const visits = visitsOf(keyed, chains)
  const order = shortestOrder(visits)
  return [...order.flatMap((at) => (chains[at] ?? []).map(({ stop }) => stop)), ...lost]
}

interface KnownStop {
  readonly stop: Stop
  readonly node: number
  /** The resting state in which its answer leaves the panel. */
  readonly leaves: number
}

function leaving({ graph, values }: Keyed, stop: Stop, node: number): number {
  const state = graph.nodes[node]?.state
  if (!state) return node
  const inputs = answer(graph.panel, state, values)
  const after = inputs && acted(graph.panel, state, inputs)
  return (after && graph.byId.get(restingId(after))) ?? node
}

function chained(stops: readonly KnownStop[]): readonly (readonly KnownStop[])[] {
  const byNode = new Map(stops.map((stop) => [stop.node, stop]))
  const follows = new Set<KnownStop>()
  const next = new Map<KnownStop, KnownStop>()
  for (const stop of stops) {
    const after = byNode.get(stop.leaves)
    if (!after || after === stop || follows.has(after)) continue
    next.set(stop, after)
    follows.add(after)
  }
  const chains: KnownStop[][] = []
  const done = new Set<KnownStop>()
  for (const stop of [...stops.filter((one) => !follows.has(one)), ...stops]) {
    if (done.has(stop)) continue
    const chain: KnownStop[] = []
    for (let at: KnownStop | undefined = stop; at && !done.has(at); at = next.get(at)) {
      done.add(at)
      chain.push(at)
    }
    chains.push(chain)
  }
  return chains
}

function visitsOf(keyed: Keyed, chains: readonly (readonly KnownStop[])[]): Visits {
  const { graph, state } = keyed
  const heads = chains.map((chain) => chain[0]?.node ?? 0)
  const tails = chains.map((chain) => chain.at(-1)?.leaves ?? 0)
  const here = graph.byId.get(restingId(state)) ?? graph.start
  const begin = distancesAt(keyed, here).cost
  const costs = tails.map((tail) => distancesAt(keyed, tail).cost)
  return {
    count: chains.length,
    first: (stop) => begin[heads[stop] ?? 0] ?? Infinity,
    between: (from, to) => costs[from]?.[heads[to] ?? 0] ?? Infinity,
    last: (stop) => distancesAt(keyed, tails[stop] ?? 0, true).cost[graph.start] ?? Infinity,
    before: decidedFirst(graph.panel, chains),
  }
}

/** What decides whether a question is asked is answered before it. */
function decidedFirst(
  panel: Compiled,
  chains: readonly (readonly KnownStop[])[],
): readonly (readonly [number, number])[] {
  const setIn = new Map<string, number>()
  chains.forEach((chain, index) => {
    for (const { stop } of chain) for (const address of stop.addresses) setIn.set(address, index)
  })
  const pairs = chains.flatMap((chain, index) =>
    chain.flatMap(({ stop }) =>
      decidedBy(panel, stop).flatMap((address): [number, number][] => {
        const first = setIn.get(address)
        return first === undefined || first === index ? [] : [[first, index]]
      }),
    ),
  )
  return pairs
}

/** Stops as they stand, each behind what decides about it. */
function decidersFirst(panel: Compiled, stops: readonly Stop[]): readonly Stop[] {
  const sorted = new Set<Stop>()
  for (const stop of stops) {
    const first = decidedBy(panel, stop)
    for (const other of stops) if (other.addresses.some((at) => first.includes(at))) sorted.add(other)
    sorted.add(stop)
  }
  return [...sorted]
}

/** Addresses that decide whether a screen is passed over, or in which unit its value is typed. */
function decidedBy(panel: Compiled, { screen, pointers, addresses }: Stop): readonly string[] {
  const guards = screenOf(panel, screen).skip ?? []
  const unit =
    addresses.includes('system.exit') && panel.panel.delays.exit.switched ? ['system.exitUnit'] : []
  return [
    ...unit,
    ...guards.flatMap(({ at, hides }) => [
      ...(at === undefined ? [] : [filled(at, pointers)]),
      ...(hides === undefined ? [] : [filled('zone.{zone}.response', pointers)]),
    ]),
  ]
}
