import type { Catalogue } from '../catalogue/catalogue.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Memory } from '../memory/memory.ts'
import { targetMemory } from '../memory/target.ts'
import { fieldOf, partOf, type MemoryWords } from '../memory/words.ts'
import { systemOf } from '../system/system.ts'
import { filled, interfaceOf, screenOf, spread, type Compiled } from './compiled.ts'
import { display } from './display.ts'
import { distancesFrom, graphOf, restingId, type Graph } from './graph.ts'
import { keysText } from './keys.ts'
import { displayReader, placeAt, type Place } from './read-off.ts'
import { blankState, type PanelState } from './state.ts'
import { templatesOf } from './typist.ts'
import { wordsAt } from './worded.ts'

/*
 * Reading off a panel of which nothing is known: display by display, next the one that says most for the fewest keys, until all that is
 * in use is known. Nothing on the way writes. Which number is in use is what the panel says itself: one without an ID, a type or a
 * label is not.
 */

/** A value that stands in the panel, in words. */
export interface StandingValue {
  readonly address: string
  /** As the panel stores it; the empty text for nothing. */
  readonly value: string
  readonly part: string
  readonly field: string
  readonly words: string
}

/** The display to be read next. */
export interface NextDisplay {
  /** Keys from the display before, or from outside; empty where it stands there already. */
  readonly keys: string
  /** Screen and pointers. */
  readonly place: string
  /** What it tells of, as a heading. */
  readonly part: string
  /** Fields that it tells of and that are not read yet. */
  readonly fields: readonly string[]
  /** How many lines the display has. */
  readonly lines: number
  /** What stands there where nothing is stored: only where all that it tells of comes empty, so that a glance is enough. */
  readonly empty: {
    readonly shows: readonly string[]
    readonly values: readonly StandingValue[]
  } | null
  /** Values that are still to be read, as far as it is known what is in use. */
  readonly left: number
}

/** What lines read off a display say. */
export type StandsThere =
  | {
      readonly kind: 'values'
      /** The display that shows this: screen and pointers. */
      readonly place: string
      readonly values: readonly StandingValue[]
      /** The first of a list, which this display shows too where nothing is stored: it is not known. */
      readonly vague: readonly StandingValue[]
    }
  /** More than one display shows exactly that. */
  | {
      readonly kind: 'several'
      readonly places: readonly { readonly place: string; readonly part: string }[]
    }
  /** A message stands there, or something that is typed and not sent. */
  | { readonly kind: 'busy' }
  /** No display of the panel that says anything of what it holds shows exactly that. */
  | { readonly kind: 'unread' }

/** How far a panel is read off. */
interface ReadSoFar {
  /** What is known of it, by address; the empty text for nothing. */
  readonly read: Memory
  /** Displays that are not asked for again: passed over, or read and not telling all. Screens with their pointers. */
  readonly asked: ReadonlySet<string>
  /** The highest number of a zone that is looked at; null for all. */
  readonly upTo: number | null
}

/** A value of the report, beside the plan. */
export interface AuditLine extends StandingValue {
  /** Whether it is what the panel comes with. */
  readonly shipped: boolean
  /** What the plan wants there, in words; null where it wants nothing. */
  readonly wanted: string | null
  readonly asPlanned: boolean
}

/** What was read off a panel. */
export interface AuditReport {
  /** By heading; numbers that are not in use are left out. */
  readonly parts: readonly { readonly part: string; readonly lines: readonly AuditLine[] }[]
  /** How many zones, fobs and other numbers have nothing stored. */
  readonly unused: number
  /** What is stored at numbers that are in use: what a plan may take. Nothing is never taken. */
  readonly held: Memory
  /** Zones in use that the plan does not have, by number. */
  readonly unplanned: readonly number[]
}

/** Reads off a job's panel. */
export interface Audit {
  /** Where to look next, from a place or from outside; null where all that is in use was read. */
  readonly next: (so: ReadSoFar, from: string | null) => NextDisplay | null
  /** What these lines say; `at` names the display where several show the same. */
  readonly stands: (read: Memory, lines: readonly string[], at: string) => StandsThere
  readonly report: (read: Memory) => AuditReport
  /** Keys out from a place; empty where none lead out without dropping anything. */
  readonly leave: (read: Memory, from: string) => string
}

/** Makes the audit of a job's panel; null without one, or where nobody has described it. Total and deterministic. */
export function auditFor(doc: JobDocument, catalogue: Catalogue): Audit | null {
  const { panel: model } = systemOf(doc, catalogue)
  const panel = model && interfaceOf(catalogue, model)
  if (!panel) return null
  const words: MemoryWords = { doc, panel: panel.panel, catalogue }
  const auditing: Auditing = {
    ...{ panel, words, vague: vagueOf(panel) },
    told: (address, value) => ({
      ...{ address, value, part: partOf(words, address), field: fieldOf(words, address) },
      words: wordsAt(panel, words, { address, value }),
    }),
  }
  let known: Memory = new Map()
  const reader = displayReader(panel, (address) => known.has(address))
  const wanted = targetMemory(doc, catalogue)?.wanted ?? new Map<string, string>()
  const mapOf = lastMap(panel)
  return {
    next: (so, from) => nextDisplay(auditing, { ...so, map: mapOf(so.read) }, from),
    stands(read, lines, at) {
      known = read
      const believed = believedOf(panel, read)
      const near = reader.places(lines, believed).map(({ look, pointers }) => {
        // A line that was left empty stands empty: what it then says counts, too.
        const state = { ...blankState(believed), screen: look.screen, pointers, says: look.says }
        return { ...placeAt(panel, { state, read: lines, believed }), typing: look.typing }
      })
      return standing(
        auditing,
        near.filter(({ apart }) => apart === 0),
        at,
      )
    },
    report: (read) => reportOf(auditing, read, wanted),
    leave(read, from) {
      const { graph } = mapOf(read)
      const node = graph.byId.get(from)
      if (node === undefined) return ''
      return keysText(distancesFrom(graph, node, true).inputsTo(graph.start))
    },
  }
}

interface Auditing {
  readonly panel: Compiled
  readonly words: MemoryWords
  /** Addresses whose display shows the first of a list where nothing is stored, each with that value. */
  readonly vague: Memory
  readonly told: (address: string, value: string) => StandingValue
}

/** As it comes, but for what is known. */
function believedOf(panel: Compiled, read: Memory): Memory {
  const memory = new Map(panel.factory)
  for (const [address, value] of read)
    if (value === '') memory.delete(address)
    else memory.set(address, value)
  return memory
}

/** The ways of a panel that holds a memory, and what each of its displays may tell of. */
interface PanelMap {
  readonly memory: Memory
  readonly graph: Graph
  /** Addresses by node; empty for a display that is not to be read. To ask what a display says takes far longer. */
  readonly tells: readonly (readonly string[])[]
}

/** Draws the map of a panel; most readings say what was believed, and the last map still holds. */
function lastMap(panel: Compiled): (read: Memory) => PanelMap {
  let last: { readonly changed: string; readonly map: PanelMap } | null = null
  return (read) => {
    const other = [...read].filter(([address, value]) => (panel.factory.get(address) ?? '') !== value)
    const changed = JSON.stringify(other)
    if (last?.changed === changed) return last.map
    const memory = believedOf(panel, read)
    const graph = graphOf(panel, memory)
    const map = { memory, graph, tells: graph.nodes.map(({ state }) => tellsAt(panel, state)) }
    last = { changed, map }
    return map
  }
}

/** Addresses of which a display may tell something. */
function tellsAt(panel: Compiled, { screen, pointers }: PanelState): readonly string[] {
  const { lines, widget } = screenOf(panel, screen)
  if (widget.kind === 'busy') return []
  const shown = lines.flatMap((line) =>
    [...line.matchAll(/\{@(.+?)@\}/g)].map(([, template]) => template ?? ''),
  )
  return [...shown, ...templatesOf(widget)].map((template) => filled(template, pointers))
}

/** A list that opens at what is stored opens at its first row where nothing is. */
function vagueOf(panel: Compiled): Memory {
  const first = new Map<string, string>()
  for (const { widget } of Object.values(panel.description.screens)) {
    if (widget.kind !== 'choice' || widget.opens !== 'value') continue
    const row = panel.values(widget.at, () => '')?.list[0]?.value
    if (row === undefined) continue
    for (const { address } of spread(panel.description, widget.at))
      if (!panel.factory.has(address)) first.set(address, row)
  }
  return first
}

const placeIdOf = ({ look, pointers }: Pick<Place, 'look' | 'pointers'>): string =>
  restingId({ screen: look.screen, pointers })

function standing(
  { vague, told }: Auditing,
  exact: readonly (Place & { readonly typing: boolean })[],
  at: string,
): StandsThere {
  const whole = exact.filter(({ look, typing, holds }) => look.says === '' && !typing && holds.size > 0)
  const places = [...new Map(whole.map((place) => [placeIdOf(place), place])).values()]
  const [only, other] = places
  const place = places.find((one) => placeIdOf(one) === at) ?? (other ? undefined : only)
  if (!place) {
    if (!only)
      return { kind: exact.some(({ look, typing }) => typing || look.says !== '') ? 'busy' : 'unread' }
    const partAt = ({ holds }: Place): string => told([...holds.keys()][0] ?? '', '').part
    return {
      kind: 'several',
      places: places.map((one) => ({ place: placeIdOf(one), part: partAt(one) })),
    }
  }
  const all = [...place.holds].map(([address, value]) => told(address, value))
  const isVague = ({ address, value }: StandingValue): boolean => vague.get(address) === value
  return {
    ...{ kind: 'values', place: placeIdOf(place) },
    ...{ values: all.filter((one) => !isVague(one)), vague: all.filter(isVague) },
  }
}

/** A display that says something that is not known yet. */
interface Found {
  readonly state: PanelState
  readonly node: number
  readonly says: readonly string[]
  readonly holds: Memory
}

function nextDisplay(
  auditing: Auditing,
  so: ReadSoFar & { readonly map: PanelMap },
  from: string | null,
): NextDisplay | null {
  const { panel, words, vague, told } = auditing
  const { graph } = so.map
  const start = (from === null ? undefined : graph.byId.get(from)) ?? graph.start
  const { cost, inputsTo } = distancesFrom(graph, start, false)
  const found = telling(auditing, so).filter(({ node }) => cost[node] !== Infinity)
  let best: Found | null = null
  let least = Infinity
  for (const one of found) {
    const price = ((cost[one.node] ?? Infinity) + A_DISPLAY) / one.says.length
    if (price >= least) continue
    least = price
    best = one
  }
  if (!best) return null
  const { state, node, says, holds } = best
  const isEmpty = [...holds].every(([address, value]) => value === '' && !vague.has(address))
  const values = [...holds].map(([address, value]) => told(address, value))
  return {
    ...{ keys: keysText(inputsTo(node)), place: restingId(state), part: partOf(words, says[0] ?? '') },
    fields: [...new Set(says.map((address) => fieldOf(words, address)))],
    left: new Set(found.flatMap((one) => one.says)).size,
    lines: panel.description.display.lines,
    empty: isEmpty ? { shows: display(panel, state), values } : null,
  }
}

/** Displays that say something that is not known yet, and were not read or passed over. */
function telling(auditing: Auditing, so: ReadSoFar & { readonly map: PanelMap }): readonly Found[] {
  const { panel } = auditing
  const { memory, graph, tells } = so.map
  const open = openOf(auditing, so)
  return graph.nodes.flatMap(({ state }, node): Found[] => {
    if (tells[node]?.some((address) => open.has(address)) !== true || so.asked.has(restingId(state)))
      return []
    const { apart, holds } = placeAt(panel, { state, read: display(panel, state), believed: memory })
    const says = apart > 0 ? [] : [...holds.keys()].filter((address) => open.has(address))
    return says.length > 0 ? [{ state, node, says, holds }] : []
  })
}

/** What reading and typing a display costs beside the keys to it, in the measure of ways: three keys. */
const A_DISPLAY = 30_000

/** Addresses that are still to be read: of a number that is not in use only what tells so. */
function openOf(auditing: Auditing, { read, upTo }: ReadSoFar): ReadonlySet<string> {
  const { panel } = auditing
  const open = new Set<string>()
  for (const address of panel.addresses.keys()) {
    if (read.has(address)) continue
    const { group, number } = numberAt(address)
    if (group === 'zone' && upTo !== null && number > upTo) continue
    const tells = tellsOf(auditing, group, number)
    if (tells === null || tells.includes(address) || isInUse(read, tells)) open.add(address)
  }
  return open
}

/** The group whose number an address belongs to: a wired zone is a zone. */
function numberAt(address: string): { readonly group: string; readonly number: number } {
  const [group = '', number = ''] = address.split('.')
  return { group: group === 'wired' ? 'zone' : group, number: Number(number) }
}

/** The addresses that tell whether a number is in use; null for what always is. */
function tellsOf({ panel, vague }: Auditing, group: string, number: number): readonly string[] | null {
  const at = (field: string): string => `${group}.${number}.${field}`
  // Where its display cannot tell no type from the first one, the label tells of a wired zone.
  const tells = vague.has(at('response')) ? ['serial', 'label'] : ['response', 'serial']
  const there = tells.map(at).filter((address) => panel.addresses.has(address))
  return there.length > 0 ? there : null
}

const isInUse = (read: Memory, tells: readonly string[]): boolean =>
  tells.some((address) => (read.get(address) ?? '') !== '')

function reportOf(auditing: Auditing, read: Memory, wanted: Memory): AuditReport {
  const { panel, words } = auditing
  const parts = new Map<string, AuditLine[]>()
  const unused = new Set<string>()
  const held = new Map<string, string>()
  const used = new Set<number>()
  // A zone that is left as programmed is planned, though nothing is wanted of it.
  const planned = new Set(recordsOf(words.doc, 'zone').map((zone) => zone.number))
  // In the order in which the panel's own fields stand, not in that of the walk.
  for (const address of panel.addresses.keys()) {
    const value = read.get(address)
    if (value === undefined) continue
    const { group, number } = numberAt(address)
    const tells = tellsOf(auditing, group, number)
    const isPlanned = group === 'zone' ? planned.has(number) : tells?.some((one) => wanted.has(one))
    if (tells && !isInUse(read, tells) && isPlanned !== true) {
      unused.add(`${group} ${number}`)
      continue
    }
    const isUsed = tells === null || isInUse(read, tells)
    if (group === 'zone' && isUsed) used.add(number)
    if (isUsed && value !== '') held.set(address, value)
    const line = lineOf(auditing, { address, value }, wanted.get(address))
    parts.set(line.part, [...(parts.get(line.part) ?? []), line])
  }
  return {
    parts: [...parts].map(([part, lines]) => ({ part, lines })),
    unused: unused.size,
    held,
    unplanned: [...used].filter((number) => !planned.has(number)).sort((a, b) => a - b),
  }
}

/** A value that was read, beside what the plan wants there. */
function lineOf(
  { panel, words, told }: Auditing,
  { address, value }: { readonly address: string; readonly value: string },
  want: string | undefined,
): AuditLine {
  return {
    ...told(address, value),
    shipped: (panel.factory.get(address) ?? '') === value,
    wanted: want === undefined ? null : wordsAt(panel, words, { address, value: want }),
    asPlanned: want === value,
  }
}
