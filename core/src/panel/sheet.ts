import type { Catalogue } from '../catalogue/catalogue.ts'
import type { JobDocument } from '../job/document.ts'
import { fieldOf, partOf, type MemoryWords } from '../memory/words.ts'
import { isToBeHeard } from '../memory/must-type.ts'
import { targetMemory } from '../memory/target.ts'
import { knownMemory } from '../memory/readings.ts'
import { systemOf } from '../system/system.ts'
import { filled, interfaceOf, screenOf, type Compiled } from './compiled.ts'
import { display } from './display.ts'
import { keysText } from './keys.ts'
import { act, acted, switchedOn } from './machine.ts'
import { cleanStart, effortOf, restingId } from './graph.ts'
import { routesTo, type Problem, type RouteOrder, type RouteStep } from './route.ts'
import { slipsOf } from './slips.ts'
import { held, type Input, type PanelState } from './state.ts'
import { wordsAt } from './worded.ts'

/* The sheet of a panel whose interface is described: every key, and what the display shows after it. */

/** What a line sets at one address, in plain words. */
interface LineValue {
  readonly address: string
  readonly value: string
  readonly field: string
  readonly words: string
}

/** One line of the sheet. */
export interface SheetLine {
  /** Keys as they are pressed. */
  readonly keys: string
  /** The line of the display that shows what was typed before the last of them, or that it listens; null where nothing is typed. */
  readonly typed: string | null
  /** What the display shows after them. */
  readonly shows: readonly string[]
  readonly sets: readonly LineValue[]
  /** `way` leads somewhere, `wait` lets the panel work, `learn` wants a device to transmit. */
  readonly kind: 'way' | 'wait' | 'answer' | 'empty' | 'learn'
  /** What to mind here; empty for nothing. */
  readonly note: string
  /** Where the panel rests before the keys of this line, and where behind them: screen and pointers. */
  readonly from: string
  readonly to: string
  /** Fields that one wrong key here would change without the display showing it: they are read back. */
  readonly check: readonly string[]
}

/** Lines that belong together. */
interface SheetPart {
  readonly id: string
  readonly title: string
  readonly lines: readonly SheetLine[]
}

/** Heading of what brings a panel back to how it came. */
export const CLEAN_START = 'Clean start'
/** Heading of what leads out, and keeps what a panel keeps only then. */
export const WAY_OUT = 'Way out and save'

/** A sheet that the machine has proved, or why there is none. */
export type PanelSheet =
  | {
      readonly ok: true
      readonly parts: readonly SheetPart[]
      readonly keys: number
      readonly seconds: number
      /** Keys of the other order: zone by zone for the shortest, the shortest for zone by zone. */
      readonly otherKeys: number
      /** Wanted addresses at which the machine then differs. */
      readonly differences: number
      readonly wanted: number
      readonly open: number
      readonly hidden: number
    }
  | {
      readonly ok: false
      /** What the plan wants and the panel cannot hold, each with where it stands. */
      readonly reasons: readonly {
        readonly address: string
        readonly part: string
        readonly reason: string
      }[]
    }

/** What the panel holds before: what it came with, what was keyed into it since, or nobody knows. */
export type SheetStart = 'factory' | 'keyed' | 'unknown'

/** How a sheet is to be made. */
export interface SheetWanted {
  readonly doc: JobDocument
  readonly catalogue: Catalogue
  readonly start: SheetStart
  readonly order: RouteOrder
  /** Whether an ID that nobody heard yet is learned over the air, or typed from its sticker. */
  readonly identity: 'learn' | 'type'
}

/**
 * Makes the sheet from what the panel holds to what the plan wants; null without a panel, or where nobody has described how it is
 * keyed. Total and deterministic.
 */
export function panelSheet({ doc, catalogue, start, order, identity }: SheetWanted): PanelSheet | null {
  const { panel: model } = systemOf(doc, catalogue)
  const panel = model && interfaceOf(catalogue, model)
  const target = targetMemory(doc, catalogue)
  if (!panel || !target) return null
  const words: MemoryWords = { doc, panel: panel.panel, catalogue }
  const memory = start === 'keyed' ? knownMemory(doc, panel.panel.id, panel.factory) : panel.factory
  const orders: readonly RouteOrder[] = order === 'plan' ? ['plan', 'shortest'] : ['shortest', 'plan']
  const isHeard = (address: string): boolean => identity === 'learn' && isToBeHeard(words, address)
  const [route, other] = routesTo({ panel, target, start: memory, isHeard }, orders)
  if (!route?.ok) return { ok: false, reasons: (route?.reasons ?? []).map((one) => placed(words, one)) }
  const making: Making = { panel, words, told: new Set(), parts: [] }
  const clean = start === 'unknown' ? cleanStart(panel) : []
  if (!clean) return { ok: false, reasons: [{ address: '', part: CLEAN_START, reason: noCleanStart(panel) }] }
  const cleaned = effortOf(clean)
  cleanLines(making, clean)
  for (const step of route.steps) stepLines(making, step)
  return {
    ok: true,
    parts: making.parts.map(({ title, lines }, index) => ({ id: `${index} ${title}`, title, lines })),
    keys: route.keys + cleaned.keys,
    seconds: route.seconds + cleaned.seconds,
    otherKeys: (other?.ok ? other.keys : route.keys) + cleaned.keys,
    differences: route.differences,
    wanted: target.wanted.size,
    open: target.open.size,
    hidden: target.hidden.size,
  }
}

function noCleanStart({ panel }: Compiled): string {
  return `${panel.name} has no clean start: read back what it holds first.`
}

/** A clean start from a panel of which nothing is known: its display shows what nobody can foretell. */
function cleanLines(making: Making, inputs: readonly Input[]): void {
  const { lead, rest, at } = ledIn(making.panel, switchedOn(making.panel, new Map()), inputs)
  const chunks = rest.length > 0 ? [...lead, { before: at, inputs: rest }] : lead
  for (const chunk of chunks) addLine(making, CLEAN_START, wayLine(making, chunk))
}

function placed(words: MemoryWords, { address, reason }: Problem) {
  return { address, part: address === '' ? 'Way out' : partOf(words, address), reason }
}

interface Making {
  readonly panel: Compiled
  readonly words: MemoryWords
  /** Notes that were told: each stands once. */
  readonly told: Set<string>
  readonly parts: { title: string; lines: SheetLine[] }[]
}

function stepLines(making: Making, step: RouteStep): void {
  const { panel } = making
  const from = !making.parts.some(({ title }) => title === 'Way in')
  const { lead, rest, at } = ledIn(panel, step.from, step.way)
  const title = step.kind === 'end' ? WAY_OUT : 'Way in'
  if (from || step.kind === 'end') for (const chunk of lead) addLine(making, title, wayLine(making, chunk))
  const told = from || step.kind === 'end'
  const way: Chunk = told
    ? { before: at, inputs: rest }
    : { before: step.from, inputs: [...lead.flatMap(({ inputs }) => inputs), ...rest] }
  if (step.kind === 'end') {
    if (way.inputs.length > 0) addLine(making, title, wayLine(making, way))
    return
  }
  const line = step.kind === 'learn' ? learnLine(making, step, way) : answerLine(making, step, way)
  addLine(making, partOf(making.words, step.sets[0]?.address ?? ''), line)
}

/** A stretch of inputs with the state in which it begins. */
interface Chunk {
  readonly before: PanelState
  readonly inputs: readonly Input[]
}

/** Inputs cut behind each code, hold, wait, and wherever there is something to mind; what is left leads to the question. */
function ledIn(
  panel: Compiled,
  from: PanelState,
  inputs: readonly Input[],
): { readonly lead: readonly Chunk[]; readonly rest: readonly Input[]; readonly at: PanelState } {
  const lead: Chunk[] = []
  let before = from
  let open: Input[] = []
  let state = from
  inputs.forEach((input, index) => {
    const wasCode = open.some((one) => one.kind === 'code')
    open.push(input)
    state = act(panel, state, input)
    const next = inputs[index + 1]
    const noted = screenOf(panel, state.screen).note !== undefined && state.screen !== before.screen
    const ends = input.kind === 'hold' || input.kind === 'wait' || (wasCode && input.kind === 'press')
    if (!ends && !(noted && next !== undefined) && next?.kind !== 'wait') return
    lead.push({ before, inputs: open })
    before = state
    open = []
  })
  return { lead, rest: open, at: before }
}

function wayLine(making: Making, { before, inputs }: Chunk): SheetLine {
  const after = acted(making.panel, before, inputs)
  return {
    keys: keysText(inputs),
    typed: null,
    shows: display(making.panel, after),
    sets: [],
    kind: inputs.every((input) => input.kind === 'wait') ? 'wait' : 'way',
    note: notesOf(making, [before, after]),
    ...{ from: restingId(before), to: restingId(after), check: [] },
  }
}

function answerLine(making: Making, step: RouteStep, { before: from, inputs: way }: Chunk): SheetLine {
  const { panel, words } = making
  const { kind, answer, before, after, sets } = step
  const letters = screenOf(panel, before.screen).widget.kind === 'text'
  const typed = answer.length > 1 && kind === 'answer' ? acted(panel, before, answer.slice(0, -1)) : null
  const slips = kind === 'answer' ? slipsOf(panel, step) : []
  const keys = [keysText(way), keysText(answer, letters)]
  return {
    keys: keys.filter((part) => part !== '').join(' '),
    typed: typed && typedLine(panel, before, typed),
    shows: display(panel, after),
    sets: sets
      .filter(({ address }) => held(step.from)(address) !== held(after)(address))
      .map(({ address, value }) => ({
        address,
        value,
        field: fieldOf(words, address),
        words: wordsAt(panel, words, { address, value }),
      })),
    kind: kind === 'end' ? 'way' : kind,
    note: notesOf(making, [before]),
    ...{ from: restingId(from), to: restingId(after) },
    check: [...new Set(slips.map((address) => fieldOf(words, address)))],
  }
}

/**
 * The panel listens, and a device is made to transmit: which one it then has heard nobody knows until it is read. Where its sticker is
 * known the line says what it must be, with the input that comes with it.
 */
function learnLine(making: Making, step: RouteStep, { before: from, inputs: way }: Chunk): SheetLine {
  const { panel, words } = making
  const { answer, before, after, sets } = step
  const { widget } = screenOf(panel, before.screen)
  const isKnown = sets.some(({ value }) => value !== '')
  const listening = acted(panel, before, answer.slice(0, 1))
  const loop =
    widget.kind === 'serial' && widget.loopAt !== undefined ? [filled(widget.loopAt, before.pointers)] : []
  const inWords = (address: string): string => wordsAt(panel, words, { address, value: held(after)(address) })
  const told = (address: string, text: string) => ({
    ...{ address, value: '', field: fieldOf(words, address) },
    words: text,
  })
  return {
    keys: [keysText(way), keysText(answer.slice(0, 1))].filter((part) => part !== '').join(' '),
    typed: isKnown ? typedLine(panel, before, listening) : null,
    shows: display(panel, isKnown ? after : listening),
    sets: [
      ...sets.map(({ address }) =>
        told(address, isKnown ? `must be ${inWords(address)}` : 'make it transmit now'),
      ),
      ...loop.map((address) => told(address, isKnown ? `must be ${inWords(address)}` : 'comes with it')),
    ],
    kind: 'learn',
    note: notesOf(making, [before]),
    ...{ from: restingId(from), to: restingId(after), check: [] },
  }
}

/** The line that typing changed; where it changed none, the last that has something. */
function typedLine(panel: Compiled, before: PanelState, typed: PanelState): string {
  const was = display(panel, before)
  const is = display(panel, typed)
  return is.find((line, index) => line !== was[index]) ?? is.findLast((line) => line !== '') ?? ''
}

/** What there is to mind on screens, each note once. */
function notesOf({ panel, told }: Making, states: readonly PanelState[]): string {
  const notes = states.flatMap(({ screen }) => screenOf(panel, screen).note ?? [])
  const fresh = [...new Set(notes)].filter((note) => !told.has(note))
  for (const note of fresh) told.add(note)
  return fresh.join(' ')
}

function addLine({ parts }: Making, title: string, line: SheetLine): void {
  const last = parts.at(-1)
  if (last?.title === title) last.lines.push(line)
  else parts.push({ title, lines: [line] })
}
