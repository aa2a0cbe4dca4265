import type { PanelModel } from '../catalogue/schema.ts'
import { jobInfo, type JobDocument } from '../job/document.ts'
import { evidenceOf } from '../job/evidence.ts'
import { wipedAt } from '../job/wiped.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'

/*
 * A panel that was used before holds what nobody here gave it: devices of another house, codes of other people, a log, a wrong time. Its
 * clean start is done step by step, each with who saw it and when, before anything of this job is keyed or learned.
 */

/** The steps of a clean start, in the order in which they are done. */
const cleanSteps = ['access', 'wiped', 'radio', 'log', 'grade'] as const
/** One step of a clean start. */
export type CleanStepKey = (typeof cleanSteps)[number]

/** Sign-off of a step; `wiped` is a reading of the panel instead. */
export const cleanSignoff = (step: CleanStepKey): string => `clean ${step}`
/** Sign-off that the panel cannot be brought back to how it came: then all of it is read back. */
export const CLEAN_REFUSED = 'clean refused'

/** One step as it stands. */
export interface CleanStep {
  readonly key: CleanStepKey
  readonly title: string
  readonly how: readonly string[]
  /** `again`: it was seen before the panel was last brought back to how it came. */
  readonly state: 'open' | 'done' | 'again' | 'refused'
  /** Who saw it, and when; null while nobody has. */
  readonly seen: { readonly by: string; readonly at: string } | null
}

/** The clean start of a panel that was used before; null for any other. */
export function cleanStartOf({ doc, catalogue }: JobAndCatalogue): readonly CleanStep[] | null {
  const { panel, info } = systemOf(doc, catalogue)
  if (!panel || jobInfo(doc).panelCame !== 'used') return null
  const asksGrade = panel.grade !== undefined
  return cleanSteps
    .filter((key) => key !== 'grade' || asksGrade)
    .map((key) => ({ key, title: titles[key], how: howTo(key, panel, info.grade), ...stateOf(doc, key) }))
}

/** Steps that are open still; none for a panel that was not used before. */
export function openCleanSteps(job: JobAndCatalogue): readonly CleanStep[] {
  return (cleanStartOf(job) ?? []).filter(({ state }) => state === 'open' || state === 'again')
}

const titles: Readonly<Record<CleanStepKey, string>> = {
  access: 'A way in: the owner has agreed, a code is known',
  wiped: 'All of it back to how it came: radio, codes, log',
  radio: 'No ID of before is left',
  log: 'Its log is empty',
  grade: 'Its grade is chosen',
}

function howTo(key: CleanStepKey, panel: PanelModel, grade: number): readonly string[] {
  switch (key) {
    case 'access':
      return [
        ...panel.programming.wayIn.map(({ note }) => note).filter((note) => note !== ''),
        'Where its installer code is not known, ask the owner or firm of before; else the maker’s manual says what is left.',
      ]
    case 'wiped':
      return [
        'Everything in it goes, and cannot be read afterwards: write down first what is worth keeping.',
        'Its codes are then the maker’s: anybody can look those up. They are changed before hand-over.',
      ]
    case 'radio':
      return ['Look at the first zones, fobs, keypads and sirens: each shows nothing, and none is heard.']
    case 'log':
      return ['What is logged from here on is of this house.']
    case 'grade':
      return [
        `This job is of grade ${grade}; the panel goes up to ${panel.grade ?? '?'}. Choose it before anything else is keyed: some settings follow it.`,
      ]
  }
}

function stateOf(doc: JobDocument, key: CleanStepKey): Pick<CleanStep, 'state' | 'seen'> {
  const wiped = wipedAt(doc)
  if (key === 'wiped') {
    const record = evidenceOf(doc, 'held').find(({ how, at }) => how === 'wiped' && at === wiped)
    if (record) return { state: 'done', seen: { by: record.made.name, at: record.at } }
  }
  const what = key === 'wiped' ? CLEAN_REFUSED : cleanSignoff(key)
  const last = evidenceOf(doc, 'signoff').findLast((record) => record.what === what)
  if (!last) return { state: 'open', seen: null }
  const seen = { by: last.made.name, at: last.at }
  if (key === 'wiped') return { state: 'refused', seen }
  // The way in is needed for the wiping itself; what is seen of the panel is seen after it.
  return { state: key === 'access' || last.at > wiped ? 'done' : 'again', seen }
}
