import type { Catalogue } from '../catalogue/catalogue.ts'
import type { JobDocument } from '../job/document.ts'
import { knownMemory, readingsOf } from '../memory/readings.ts'
import { fieldOf, partOf, type MemoryWords } from '../memory/words.ts'
import { systemOf } from '../system/system.ts'
import { filled, interfaceOf, screenOf, type Compiled } from './compiled.ts'
import { display } from './display.ts'
import { keysText } from './keys.ts'
import { lostIn, type Lost, type Whereabouts } from './lost.ts'
import type { SheetStart } from './sheet.ts'
import { templatesOf } from './typist.ts'

/* Where somebody lost in a panel may be, in words and keys. */

/** What somebody reads off the display, and what was pressed and read since. */
export interface LostAsked {
  /** Where the sheet was: screen and pointers. */
  readonly from: string
  /** The lines as they were read; one that was not read is empty. */
  readonly read: readonly string[]
  /** Keys that were pressed to tell places apart, each with what was read after it. */
  readonly then: readonly { readonly key: string; readonly read: readonly string[] }[]
}

/** One place where the panel may be. */
export interface LostPlace {
  readonly place: string
  /** What stands there, as the panel shows it. */
  readonly shows: readonly string[]
  /** What is asked there: `Zone 07 — Hall, chime`; empty for a menu. */
  readonly asks: string
  /** Signs read otherwise than they stand there. */
  readonly apart: number
  /** Keys back to where the sheet was; empty where it is there, null where none lead there without harm. */
  readonly back: string | null
  /** Whether what was answered and not kept is still there; null on a panel that keeps each answer. */
  readonly unsaved: boolean | null
}

/** Where the panel may be, likeliest first. */
export interface LostAnswer {
  readonly places: readonly LostPlace[]
  /** How many more there are. */
  readonly more: number
  /** The one harmless key that tells them apart, and how many it tells. */
  readonly tell: { readonly key: string; readonly groups: number } | null
}

/** Most places that are told. */
const TOLD = 4

/** Finds the way out for whoever is lost in the panel of a job; null where nobody has described it. */
export function lostFor({
  doc,
  catalogue,
  start,
}: {
  readonly doc: JobDocument
  readonly catalogue: Catalogue
  readonly start: SheetStart
}): ((asked: LostAsked) => LostAnswer) | null {
  const { panel: model } = systemOf(doc, catalogue)
  const panel = model && interfaceOf(catalogue, model)
  if (!panel) return null
  const words: MemoryWords = { doc, panel: panel.panel, catalogue }
  // What was answered since counts too, kept or not: it is what the panel now shows.
  const held = new Map(start === 'keyed' ? knownMemory(doc, panel.panel.id, panel.factory) : panel.factory)
  for (const [address, { value }] of readingsOf(doc, panel.panel.id).unsaved) held.set(address, value)
  const lost = lostIn(panel, held, () => start !== 'unknown')
  return ({ from, read, then }) => {
    let places = lost.find(read, from)
    for (const one of then) places = lost.then(places, one.key, one.read)
    return {
      places: places.slice(0, TOLD).map((at) => told({ panel, words, lost, from }, at)),
      more: Math.max(0, places.length - TOLD),
      tell: lost.tell(places),
    }
  }
}

interface Telling {
  readonly panel: Compiled
  readonly words: MemoryWords
  readonly lost: Lost
  readonly from: string
}

function told({ panel, words, lost, from }: Telling, at: Whereabouts): LostPlace {
  const back = lost.back(at, from)
  const [template] = templatesOf(screenOf(panel, at.state.screen).widget)
  const address = template === undefined ? null : filled(template, at.state.pointers)
  return {
    place: at.place,
    shows: display(panel, at.state),
    asks: address === null ? '' : `${partOf(words, address)}, ${fieldOf(words, address)}`,
    apart: at.apart,
    back: back && keysText(back.inputs),
    unsaved: panel.description.keeping === 'at-once' ? null : lost.keepsDraft(at, from),
  }
}
