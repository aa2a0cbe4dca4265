import type { Catalogue } from '../catalogue/catalogue.ts'
import type { JobDocument } from '../job/document.ts'
import type { Memory } from '../memory/memory.ts'
import { mustBeTyped } from '../memory/must-type.ts'
import { knownMemory, readingsOf } from '../memory/readings.ts'
import { keyedInto, targetMemory } from '../memory/target.ts'
import { fieldOf, partOf, type MemoryWords } from '../memory/words.ts'
import { systemOf } from '../system/system.ts'
import { interfaceOf, screenOf, type Compiled } from './compiled.ts'
import { display } from './display.ts'
import { distancesFrom, graphOf, restingId, type Distances, type Graph } from './graph.ts'
import { keysText } from './keys.ts'
import { acted } from './machine.ts'
import { displayReader, placeAt, type DisplayReader, type Place } from './read-off.ts'
import { placesOf } from './route.ts'
import { blankState, held, type PanelState } from './state.ts'
import { answer } from './typist.ts'
import { wordsAt } from './worded.ts'

/*
 * Reading a panel back: the fewest displays that show everything that was keyed, the keys from each to the next, and what a display
 * that was typed as it stands there says of the panel. Nothing on the way writes but the answer that is there already.
 */

/** One value that a display shows. */
interface ShownValue {
  readonly address: string
  /** As the plan wants the panel to store it. */
  readonly value: string
  readonly field: string
  readonly words: string
}

/** One display to be read. */
export interface ReadBackStep {
  readonly id: string
  /** Heading: what its values belong to. */
  readonly part: string
  /** Keys from the display before; empty where it is the same. */
  readonly keys: string
  /** What stands there where the panel holds what the plan wants. */
  readonly shows: readonly string[]
  /** Screen and pointers. */
  readonly place: string
  readonly values: readonly ShownValue[]
  /** Whether it is typed as it stands there, with nothing expected beside it. */
  readonly blind: boolean
}

/** Displays to be read, in order. */
export interface ReadBackPlan {
  readonly steps: readonly ReadBackStep[]
  /** Keys out, once all is read; they change nothing that is held. */
  readonly leave: string
  /** What no display shows, by heading and field: it cannot be read back. */
  readonly notShown: readonly string[]
}

/** What a display that was typed says. */
export type DisplaySays =
  | {
      readonly kind: 'values'
      /** Whether it is the display that was to be read. */
      readonly here: boolean
      readonly part: string
      readonly values: readonly (ShownValue & {
        /** What stands there, as the panel stores it and in words. */
        readonly is: string
        readonly isWords: string
        /** Keys that put it right from there, and back to that display; null where nobody has worked them out. */
        readonly mend: { readonly keys: string; readonly back: string } | null
      })[]
    }
  /** Something is typed there and not sent. */
  | { readonly kind: 'typed' }
  /** No display of the panel shows exactly that; those that come nearest. */
  | { readonly kind: 'unread'; readonly near: readonly (readonly string[])[] }

/** Reads a job's panel back. */
export interface ReadBack {
  /** The displays that show these addresses; from a place inside, or from outside. */
  readonly plan: (addresses: readonly string[], from: string | null) => ReadBackPlan
  /** What these lines say, read at a step. */
  readonly says: (step: Pick<ReadBackStep, 'place' | 'shows'>, read: readonly string[]) => DisplaySays
}

/** Makes the read-back of a job's panel; null without one, or where nobody has described it. */
export function readBackFor(doc: JobDocument, catalogue: Catalogue): ReadBack | null {
  const { panel: model } = systemOf(doc, catalogue)
  const panel = model && interfaceOf(catalogue, model)
  const target = targetMemory(doc, catalogue)
  if (!panel || !target) return null
  const words: MemoryWords = { doc, panel: panel.panel, catalogue }
  const memory = keyedInto(target, believed(doc, panel))
  const graph = graphOf(panel, memory)
  const reader = displayReader(panel, () => true)
  const reading: Reading = { panel, words, memory, wanted: target.wanted, graph, reader }
  return {
    plan: (addresses, from) => planOf(reading, addresses, from),
    says: (step, read) => saidBy(reading, step, read),
  }
}

function believed(doc: JobDocument, panel: Compiled): Memory {
  const memory = new Map(knownMemory(doc, panel.panel.id, panel.factory))
  for (const [address, { value }] of readingsOf(doc, panel.panel.id).unsaved)
    if (value === '') memory.delete(address)
    else memory.set(address, value)
  return memory
}

interface Reading {
  readonly panel: Compiled
  readonly words: MemoryWords
  readonly memory: Memory
  readonly wanted: Memory
  readonly graph: Graph
  readonly reader: DisplayReader
}

function planOf(reading: Reading, addresses: readonly string[], from: string | null): ReadBackPlan {
  const { graph, words, panel } = reading
  const shown = shownAt(reading)
  const distances = new Map<number, Distances>()
  const awayFrom = (node: number): Distances => {
    const known = distances.get(node) ?? distancesFrom(graph, node, false)
    distances.set(node, known)
    return known
  }
  const parts = new Map<string, string[]>()
  const notShown: string[] = []
  for (const address of addresses) {
    const part = partOf(words, address)
    if (!shown.some(({ values }) => values.has(address))) notShown.push(`${part}: ${fieldOf(words, address)}`)
    else parts.set(part, [...(parts.get(part) ?? []), address])
  }
  let at = (from === null ? undefined : graph.byId.get(from)) ?? graph.start
  const steps: ReadBackStep[] = []
  for (const [part, asked] of parts) {
    const open = covering(shown, asked)
    while (open.length > 0) {
      const { cost, inputsTo } = awayFrom(at)
      open.sort((a, b) => (cost[a.node] ?? 0) - (cost[b.node] ?? 0))
      const next = open.shift()
      const state = next && graph.nodes[next.node]?.state
      if (!next || !state) continue
      steps.push({
        ...{ id: `${steps.length} ${part}`, part, place: restingId(state) },
        keys: keysText(inputsTo(next.node)),
        shows: display(panel, state),
        values: next.addresses.map((address) => shownValue(reading, address)),
        blind: next.addresses.some((address) => mustBeTyped(words, address)),
      })
      at = next.node
    }
  }
  const leave = steps.length === 0 ? [] : distancesFrom(graph, at, true).inputsTo(graph.start)
  return { steps, leave: keysText(leave), notShown }
}

interface Shown {
  readonly node: number
  /** Addresses whose wanted value stands there, so that it can be told from any other. */
  readonly values: ReadonlySet<string>
}

/** What each resting display shows of what is wanted. */
function shownAt({ panel, graph, memory, wanted }: Reading): readonly Shown[] {
  return graph.nodes.flatMap(({ state }, node): Shown[] => {
    if (screenOf(panel, state.screen).widget.kind === 'busy') return []
    const { apart, holds } = placeAt(panel, { state, read: display(panel, state), believed: memory })
    const values = [...holds].filter(([address, value]) => wanted.get(address) === value)
    return apart > 0 ? [] : [{ node, values: new Set(values.map(([address]) => address)) }]
  })
}

/** The fewest displays that show these addresses: each time the one that shows most of what is left. */
function covering(
  shown: readonly Shown[],
  asked: readonly string[],
): { readonly node: number; readonly addresses: readonly string[] }[] {
  let left = asked
  const found: { node: number; addresses: readonly string[] }[] = []
  for (;;) {
    let best: { node: number; addresses: readonly string[] } = { node: 0, addresses: [] }
    for (const { node, values } of shown) {
      const addresses = left.filter((address) => values.has(address))
      if (addresses.length > best.addresses.length) best = { node, addresses }
    }
    if (best.addresses.length === 0) return found
    found.push(best)
    const there = new Set(best.addresses)
    left = left.filter((address) => !there.has(address))
  }
}

function shownValue({ words, wanted, panel }: Reading, address: string): ShownValue {
  const value = wanted.get(address) ?? ''
  return { address, value, field: fieldOf(words, address), words: wordsAt(panel, words, { address, value }) }
}

function saidBy(
  reading: Reading,
  step: Pick<ReadBackStep, 'place' | 'shows'>,
  read: readonly string[],
): DisplaySays {
  const { reader, memory } = reading
  const places = reader.places(read, memory)
  const exact = places.filter(({ apart }) => apart === 0)
  const id = ({ look, pointers }: Place): string => restingId({ screen: look.screen, pointers })
  const whole = step.shows.every((line, at) => line.trim() === '' || (read[at] ?? '').trim() !== '')
  if (!whole) return { kind: 'unread', near: [] }
  const here = exact.filter((place) => id(place) === step.place)
  const mine = here.find(({ look }) => !look.typing && look.says === '')
  if (!mine && here.some(({ look }) => look.typing)) return { kind: 'typed' }
  const [only, other] = exact.filter(({ look, holds }) => !look.typing && holds.size > 0)
  const place = mine ?? (other ? undefined : only)
  if (!place) return { kind: 'unread', near: nearest(reading, places) }
  return { kind: 'values', here: place === mine, ...valuesOf(reading, place) }
}

function valuesOf(
  reading: Reading,
  place: Place,
): Pick<Extract<DisplaySays, { kind: 'values' }>, 'part' | 'values'> {
  const { words, wanted } = reading
  const compared = [...place.holds].filter(([address]) => wanted.has(address))
  return {
    part: partOf(words, compared[0]?.[0] ?? [...place.holds.keys()][0] ?? ''),
    values: compared.map(([address, is]) => ({
      ...shownValue(reading, address),
      ...{ is, isWords: wordsAt(reading.panel, reading.words, { address, value: is }) },
      mend: is === wanted.get(address) ? null : mendOf(reading, place, address),
    })),
  }
}

/** Keys that put a value right, from the display that shows it; null where the panel would not follow them. */
function mendOf(
  { panel, graph, memory, wanted }: Reading,
  place: Place,
  address: string,
): { keys: string; back: string } | null {
  const to = placesOf(panel).get(address)
  const here = graph.byId.get(restingId({ screen: place.look.screen, pointers: place.pointers })) ?? -1
  const there = (to && graph.byId.get(restingId(to))) ?? -1
  const from = graph.nodes[here]?.state
  // Where nobody can stand, or whence nobody comes there.
  if (!to || !from || there < 0) return null
  const state: PanelState = { ...from, kept: new Map([...memory, ...place.holds]) }
  const way = distancesFrom(graph, here, false).inputsTo(there)
  const before = acted(panel, state, way)
  if (restingId(before) !== restingId(to)) return null
  const is = held(before)
  const inputs = answer(panel, before, (at) => (at === address ? (wanted.get(at) ?? '') : is(at)))
  const after = inputs && acted(panel, before, inputs)
  if (!after || held(after)(address) !== wanted.get(address)) return null
  const left = graph.byId.get(restingId(after))
  const back = left === undefined ? [] : distancesFrom(graph, left, false).inputsTo(here)
  return { keys: keysText([...way, ...inputs]), back: keysText(back) }
}

/** Displays that come nearest to what was read, as they would stand there. */
function nearest({ panel, memory }: Reading, places: readonly Place[]): readonly (readonly string[])[] {
  const shows = places.slice(0, NEAR).map(({ look, pointers }) => {
    const state = { ...blankState(memory), screen: look.screen, pointers, says: look.says }
    return display(panel, state)
  })
  return [...new Map(shows.map((lines) => [lines.join('\n'), lines])).values()]
}

/** Most displays that are told as near. */
const NEAR = 3
