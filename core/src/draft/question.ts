import type { Catalogue } from '../catalogue/catalogue.ts'
import type { Choice, Form, PlainForm, Question } from './form.ts'
import type { Answer } from './records.ts'

/* Short ways to write questions down. */

/** What a question may depend on. */
export interface Asked {
  readonly catalogue: Catalogue
  /** The answer to another question; undefined where it is not answered. */
  readonly of: (path: string) => Answer['value'] | undefined
  /** Paths of all that is answered, in the order of their names. */
  readonly paths: () => readonly string[]
}

type FormOf<Is extends PlainForm['is']> = Extract<Form, { readonly is: Is }>
export const yesNo: FormOf<'yes-no'> = { is: 'yes-no' }
export const words = (most: number, lines = 1): FormOf<'text'> => ({ is: 'text', most, lines })
export const whole = (unit: string, least: number, most: number): FormOf<'number'> => ({
  ...{ is: 'number', unit, least, most, whole: true },
})
export const real = (unit: string, least: number, most: number): FormOf<'number'> => ({
  ...{ is: 'number', unit, least, most, whole: false },
})
export const oneOf = (list: readonly Choice[]): FormOf<'one-of'> => ({ is: 'one-of', choices: list })
export const someOf = (list: readonly Choice[]): FormOf<'some-of'> => ({ is: 'some-of', choices: list })
/** Choices from `value: title`. */
export const choices = (titles: Readonly<Record<string, string>>): readonly Choice[] =>
  Object.entries(titles).map(([value, title]) => ({ value, title }))

type Written = Omit<Question, 'section' | 'unless' | 'needed'> & Partial<Pick<Question, 'unless' | 'needed'>>

/** The questions of a section; null for one that is not asked. */
export function section(name: string, list: readonly (Written | null)[]): Question[] {
  return list.flatMap((one) => (one ? [{ unless: '', needed: !one.unless, ...one, section: name }] : []))
}

/** What every part of a system is asked. */
export const gradeQuestion: Written = {
  path: 'grade',
  ask: 'Which grade is it stated for (EN 50131)?',
  why: 'A system is no better than its lowest part.',
  leaflet: 'approvals',
  form: oneOf(choices({ 1: 'grade 1', 2: 'grade 2', 3: 'grade 3' })),
  unless: 'not stated',
}
const regionChoices = choices({ europe: 'Europe', 'north-america': 'North America' })
export const classChoices = choices({
  contact: 'contact',
  motion: 'motion',
  'glass-break': 'glass break',
  shock: 'shock',
  smoke: 'smoke',
  heat: 'heat',
  gas: 'gas (CO)',
  flood: 'flood',
  temperature: 'temperature',
  panic: 'panic or call',
  fob: 'fob',
  keypad: 'keypad',
  siren: 'siren',
  repeater: 'repeater',
})

/** Most answers of other entries that are offered for one. */
const MOST_OFFERS = 4

/** A text for which answers that other entries have are offered, those that most of them have first: one touch, and one spelling. */
export function asOthers(most: number, others: readonly (string | undefined)[]): FormOf<'text'> {
  const counts = new Map<string, number>()
  for (const one of others) if (one !== undefined) counts.set(one, (counts.get(one) ?? 0) + 1)
  const offers = [...counts]
    .sort(([a, many], [b, more]) => more - many || (a < b ? -1 : 1))
    .slice(0, MOST_OFFERS)
    .map(([one]) => one)
  return { ...words(most), ...(offers.length > 0 ? { offers } : {}) }
}

/** What every entry begins with. */
export function beginning(what: string, { catalogue }: Asked): Question[] {
  return section('What it is', [
    {
      path: 'maker',
      ask: 'Who makes it?',
      why: `A ${what} is found by its maker, and two makers may use one name.`,
      leaflet: 'front of the leaflet, foot of the last page',
      form: asOthers(
        80,
        catalogue.entries.map(({ maker }) => maker),
      ),
    },
    {
      path: 'name',
      ask: 'What is it called?',
      why: 'As you would say it to a colleague: this is what plans and sheets show.',
      leaflet: 'front of the leaflet, type plate',
      form: words(80),
    },
    {
      path: 'regions',
      ask: 'Where is it made for?',
      why: 'Bands and standards differ: what is made for elsewhere is a stop.',
      leaflet: 'approvals, usually at the end',
      form: someOf(regionChoices),
    },
  ])
}
