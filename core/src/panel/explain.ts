import type { Catalogue } from '../catalogue/catalogue.ts'
import type { JobDocument } from '../job/document.ts'
import type { Memory } from '../memory/memory.ts'
import { knownMemory } from '../memory/readings.ts'
import { keyedInto, targetMemory, type TargetMemory } from '../memory/target.ts'
import { fieldOf, partOf, type MemoryWords } from '../memory/words.ts'
import { systemOf } from '../system/system.ts'
import { interfaceOf, type Compiled } from './compiled.ts'
import { display } from './display.ts'
import { restingId } from './graph.ts'
import { keysText, readKeys } from './keys.ts'
import { act, switchedOn } from './machine.ts'
import { held, keptDraft, type Input, type PanelState } from './state.ts'
import { wordsAt } from './worded.ts'

/* What each of a row of keys does at a panel: a sheet that somebody wrote by hand is checked by it. */

/** What the panel holds before the first key. */
export type ExplainStart = 'factory' | 'keyed' | 'plan'

/** How an answer stands beside the plan: `open` where the plan leaves it, `unasked` where the panel asks it of another type only. */
type BesidePlan = 'planned' | 'otherwise' | 'open' | 'unasked'

/** An answer that a key gave, in plain words. */
export interface ExplainedAnswer {
  readonly address: string
  readonly part: string
  readonly field: string
  readonly words: string
  readonly plan: BesidePlan
  /** What the plan wants there; empty where it wants nothing. */
  readonly wanted: string
}

/** What a key did besides changing what is typed or where the panel is. */
export type KeyEffect =
  | ({ readonly kind: 'answered' } & ExplainedAnswer)
  /** Answers that were waiting are kept, or gone. */
  | { readonly kind: 'kept' | 'dropped'; readonly count: number }
  /** It holds what it came with. */
  | { readonly kind: 'wiped' }
  /** It means nothing there. */
  | { readonly kind: 'nothing' }
  | { readonly kind: 'says'; readonly text: string }
  | { readonly kind: 'listens'; readonly seconds: number }

/** Keys that belong together, what the display shows after them, and what they did. */
interface ExplainedLine {
  readonly keys: string
  readonly shows: readonly string[]
  readonly did: readonly KeyEffect[]
}

/** What came of a row of keys; or where it cannot be read, counted in signs from 0. */
export type Explained =
  | {
      readonly ok: true
      readonly lines: readonly ExplainedLine[]
      /** Keys and waits that were acted out. */
      readonly inputs: number
      /** What stands at the end at each address that was answered on the way. */
      readonly answers: readonly ExplainedAnswer[]
      /** Answers that the panel has not kept yet. */
      readonly unsaved: number
      /** Values that the plan wants and that do not stand there at the end. */
      readonly missing: number
      /** Values that the plan wants; 0 where it cannot be worked out. */
      readonly wanted: number
    }
  | { readonly ok: false; readonly at: number; readonly reason: string }

/** Most signs that are read, and most keys that they may stand for. */
export const MOST_SIGNS = 20_000

/** Explains keys at the panel of a job; null where nobody has described it. Total and deterministic. */
export function explainFor(
  doc: JobDocument,
  catalogue: Catalogue,
): ((text: string, start: ExplainStart) => Explained) | null {
  const { panel: model } = systemOf(doc, catalogue)
  const panel = model && interfaceOf(catalogue, model)
  if (!panel) return null
  const target = targetMemory(doc, catalogue)
  const telling: Telling = { panel, words: { doc, panel: panel.panel, catalogue }, target }
  const begins = (start: ExplainStart): Memory => {
    if (start === 'keyed') return knownMemory(doc, panel.panel.id, panel.factory)
    return start === 'plan' && target ? keyedInto(target, panel.factory) : panel.factory
  }
  return (text, start) => {
    if (text.length > MOST_SIGNS)
      return { ok: false, at: MOST_SIGNS, reason: `at most ${MOST_SIGNS} signs are read at once` }
    const read = readKeys(panel, text)
    if (read.ok && read.inputs.length > MOST_SIGNS)
      return { ok: false, at: 0, reason: `at most ${MOST_SIGNS} keys are acted out at once` }
    return read.ok ? explained(telling, read.inputs, begins(start)) : read
  }
}

interface Telling {
  readonly panel: Compiled
  readonly words: MemoryWords
  readonly target: TargetMemory | null
}

function explained(telling: Telling, inputs: readonly Input[], memory: Memory): Explained {
  const { panel, target } = telling
  const lines: ExplainedLine[] = []
  const answered = new Set<string>()
  let state = switchedOn(panel, memory)
  let open: { readonly from: PanelState; readonly inputs: Input[] } = { from: state, inputs: [] }
  const close = (did: readonly KeyEffect[]): void => {
    if (open.inputs.length > 0) lines.push({ keys: keysText(open.inputs), shows: display(panel, state), did })
    open = { from: state, inputs: [] }
  }
  for (const input of inputs) {
    const was = state
    const next = act(panel, was, input)
    const did = effectsOf(telling, { was, is: next, input })
    // What goes on typing at one question is one line; a key that did something stands with what was typed before it.
    if (did.some(({ kind }) => kind === 'nothing')) close([])
    open.inputs.push(input)
    state = next
    for (const one of did) if (one.kind === 'answered') answered.add(one.address)
    const goesOn = input.kind === 'press' || input.kind === 'code'
    if (did.length > 0 || restingId(state) !== restingId(open.from) || !goesOn) close(did)
  }
  close([])
  const now = held(state)
  const wanted = target?.wanted ?? new Map<string, string>()
  return {
    ok: true,
    lines,
    inputs: inputs.length,
    answers: [...answered].map((address) => answerAt(telling, state, address)),
    unsaved: state.draft.size,
    missing: [...wanted].filter(([address, value]) => now(address) !== value).length,
    wanted: wanted.size,
  }
}

function effectsOf(
  telling: Telling,
  { was, is, input }: { readonly was: PanelState; readonly is: PanelState; readonly input: Input },
): KeyEffect[] {
  const did: KeyEffect[] = []
  const says = is.says !== '' && (is.says !== was.says || input.kind === 'press')
  const isListening = is.listening > was.listening
  if (wasWiped(telling, was, is)) did.push({ kind: 'wiped' })
  else if (was.draft.size > 0 && is.draft.size === 0)
    did.push({ kind: is.kept === was.kept ? 'dropped' : 'kept', count: was.draft.size })
  else
    for (const address of changed(was, is)) did.push({ kind: 'answered', ...answerAt(telling, is, address) })
  if (isListening) did.push({ kind: 'listens', seconds: is.listening })
  if (says && !isListening) did.push({ kind: 'says', text: is.says })
  const isUnheard = input.kind === 'hear' && is === was
  if (did.length === 0 && (is.beeped || isUnheard)) did.push({ kind: 'nothing' })
  return did
}

/** Whether a key brought the panel back to how it came; one that holds nothing else is told the same. */
function wasWiped({ panel }: Telling, was: PanelState, is: PanelState): boolean {
  return is.kept === panel.factory && is.kept !== was.kept && keptDraft(was) !== is.kept
}

/** Addresses that hold something else than before, as far as the panel answers. */
function changed(was: PanelState, is: PanelState): readonly string[] {
  const [before, after] = [held(was), held(is)]
  const touched = new Set<string>()
  for (const [one, other] of [
    [is.draft, was.draft],
    [is.kept, was.kept],
  ] as const)
    if (one !== other) for (const address of [...one.keys(), ...other.keys()]) touched.add(address)
  return [...touched].filter((address) => before(address) !== after(address))
}

function answerAt({ panel, words, target }: Telling, state: PanelState, address: string): ExplainedAnswer {
  const value = held(state)(address)
  const wanted = target?.wanted.get(address)
  const inWords = (text: string): string => wordsAt(panel, words, { address, value: text })
  const beside = (): BesidePlan => {
    if (wanted !== undefined) return wanted === value ? 'planned' : 'otherwise'
    return target?.hidden.has(address) === true ? 'unasked' : 'open'
  }
  return {
    address,
    part: partOf(words, address),
    field: fieldOf(words, address),
    words: inWords(value),
    plan: beside(),
    wanted: wanted === undefined ? '' : inWords(wanted),
  }
}
