import type { Memory } from '../memory/memory.ts'
import { screenOf, type Compiled } from './compiled.ts'
import { distancesFrom, graphOf, type Distances, marked, restingId, wipingScreens } from './graph.ts'
import { act, switchedOn } from './machine.ts'
import { shapeOf } from './patterns.ts'
import { displayReader, type Place } from './read-off.ts'
import type { PanelState } from './state.ts'
import { press } from './typist.ts'
import { waysTo, type WayBack, type WaysTo } from './way-back.ts'
import { freshOn, listOf } from './widgets.ts'

/*
 * Lost in a panel's menus: from what the display says to where one may be, to the one harmless key that tells the places apart, and to
 * the keys back.
 */

/** Where somebody may be. */
export interface Whereabouts {
  /** Screen and pointers. */
  readonly place: string
  readonly state: PanelState
  /** Signs read otherwise than they stand there. */
  readonly apart: number
}

/** A key that changes nothing, and after which places show something else from each other. */
interface Telling {
  readonly key: string
  /** How many places it tells apart. */
  readonly groups: number
}

/** Finds a way out of a panel's menus. */
export interface Lost {
  /** Places that can show these lines, likeliest first: fewest signs otherwise, then nearest to where one was. */
  readonly find: (read: readonly string[], near: string) => readonly Whereabouts[]
  /** The one harmless key that tells most of these places apart; null where none does. */
  readonly tell: (places: readonly Whereabouts[]) => Telling | null
  /** The places that are left when this was read after that key, each as it is then. */
  readonly then: (
    places: readonly Whereabouts[],
    key: string,
    read: readonly string[],
  ) => readonly Whereabouts[]
  /** Keys back to a place that neither write nor drop nor keep anything; null where there are none. */
  readonly back: (at: Whereabouts, to: string) => WayBack | null
  /** Whether answers that were not kept can still be there: false where the way from `near` to it kept or dropped them. */
  readonly keepsDraft: (at: Whereabouts, near: string) => boolean
}

/** Most places of which a telling key is sought. */
const MOST = 40

/** Makes the finder for a panel that holds this, where it is known. */
export function lostIn(panel: Compiled, memory: Memory, isKnown: (address: string) => boolean): Lost {
  const graph = graphOf(panel, memory)
  const reader = displayReader(panel, isKnown)
  const wiping = wipingScreens(panel.description)
  const others = otherMemories(panel, memory, isKnown)
  const ways = new Map<string, WaysTo>()
  const near = new Map<string, Distances['cost']>()
  const distances = (from: string): Distances['cost'] => {
    const known = near.get(from)
    if (known) return known
    const made = distancesFrom(graph, graph.byId.get(from) ?? graph.start, false).cost
    near.set(from, made)
    return made
  }
  const distanceTo = (place: string, from: string): number =>
    distances(from)[graph.byId.get(place) ?? -1] ?? Infinity

  return {
    find(read, from) {
      const places = new Map<string, { at: Whereabouts; strange: number }>()
      for (const place of reader.places(read, memory)) {
        const at = whereabouts(panel, memory, place)
        const id = `${at.place} ${at.state.typed ?? ''}`
        if (!places.has(id)) places.set(id, { at, strange: place.strange })
      }
      return [...places.values()]
        .map((one) => ({ ...one, far: distanceTo(one.at.place, from) }))
        .sort(
          (a, b) =>
            a.at.apart - b.at.apart ||
            a.strange - b.strange ||
            byNumber(a.far, b.far) ||
            halfTyped(b.at) - halfTyped(a.at),
        )
        .map(({ at }) => at)
    },
    tell(places) {
      const [first] = places
      const likely = places.filter(({ apart }) => apart <= (first?.apart ?? 0) + 1).slice(0, MOST)
      if (likely.length < 2) return null
      let best: (Telling & { readonly most: number }) | null = null
      for (const key of panel.keys) {
        const after = likely.map(({ state }) => ({ was: state, is: act(panel, state, press(key)) }))
        if (!after.every(({ was, is }) => isHarmless(was, is) && !wiping.has(is.screen))) continue
        const sizes = new Map<string, number>()
        for (const { is } of after) sizes.set(shapeOf(panel, is), (sizes.get(shapeOf(panel, is)) ?? 0) + 1)
        const most = Math.max(...sizes.values())
        if (sizes.size > 1 && (!best || most < best.most)) best = { key, groups: sizes.size, most }
      }
      return best
    },
    then(places, key, read) {
      const after = new Map(
        places.map((one) => {
          const state = act(panel, one.state, press(key))
          return [restingId(state), one.apart]
        }),
      )
      const found = new Map<string, Whereabouts>()
      for (const place of reader.places(read, memory)) {
        const at = whereabouts(panel, memory, place)
        const was = after.get(at.place)
        const id = `${at.place} ${at.state.typed ?? ''}`
        if (was !== undefined && !found.has(id)) found.set(id, { ...at, apart: was + at.apart })
      }
      return [...found.values()].sort((a, b) => a.apart - b.apart)
    },
    back(at, to) {
      const known = ways.get(to) ?? waysTo(graph, to, others)
      ways.set(to, known)
      return known(at.state)
    },
    keepsDraft: (at, from) => distanceTo(at.place, from) < Infinity,
  }
}

/** The keys out of what is half typed also lead out of where nothing is: of two looks of a place that one goes first. */
function halfTyped({ state }: Whereabouts): number {
  return state.typed === null || state.typed === '' ? 0 : 1
}

function byNumber(a: number, b: number): number {
  return a === b ? 0 : a < b ? -1 : 1
}

function isHarmless(was: PanelState, is: PanelState): boolean {
  return was.kept === is.kept && was.draft === is.draft
}

/** The panel as it would be at a place. */
function whereabouts(
  panel: Compiled,
  memory: Memory,
  { look, pointers, apart, ...said }: Place,
): Whereabouts {
  const kept = said.holds.size === 0 ? memory : new Map([...memory, ...said.holds])
  const { widget, keys = {} } = screenOf(panel, look.screen)
  const opened = marked(panel, { ...switchedOn(panel, kept), screen: look.screen, pointers, says: look.says })
  const fresh = freshOn(panel, opened)
  const hears = Object.values(keys).some(
    (to) => typeof to === 'object' && !Array.isArray(to) && to.say === look.says && to.do?.includes('listen'),
  )
  const rows = widget.kind === 'choice' ? listOf(panel, opened, widget.at) : []
  const row = rows.findIndex(({ value }) => value === said.row)
  return {
    place: restingId({ screen: look.screen, pointers }),
    apart,
    state: {
      ...opened,
      typed: look.says === '' && said.typed !== null && said.typed !== '' ? said.typed : fresh.typed,
      row: row < 0 ? fresh.row : row,
      listening: hears && widget.kind === 'serial' ? widget.window : 0,
    },
  }
}

/** What the panel may hold instead, at addresses that nobody knows: other types, other answers, nothing. */
function otherMemories(
  panel: Compiled,
  memory: Memory,
  isKnown: (address: string) => boolean,
): readonly Memory[] {
  const unknown = [...panel.addresses.keys()].filter((address) => !isKnown(address))
  if (unknown.length === 0) return []
  const types = panel.panel.responseTypes
  const most = types.reduce(
    (a, b) => (b.hides.length > a.hides.length ? b : a),
    types[0] ?? { hides: [], code: '' },
  )
  const verified = types.find(({ fire }) => fire === 'verified')
  const turned = (response: string): Memory => {
    const other = new Map(memory)
    for (const address of unknown) {
      const value = memory.get(address)
      if (address.endsWith('.response')) other.set(address, response)
      else if (value === 'on' || value === 'off') other.set(address, value === 'on' ? 'off' : 'on')
    }
    return other
  }
  const empty = new Map([...turned('')].filter(([, value]) => value !== ''))
  return [empty, turned(most.code), ...(verified ? [turned(verified.code)] : [])]
}
