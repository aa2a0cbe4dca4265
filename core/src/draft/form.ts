import type { EntryKind } from '../catalogue/schema.ts'

/* How a question is asked. */

/** One of a few answers. */
export interface Choice {
  readonly value: string
  readonly title: string
}

/** How an answer is given. */
export type Form =
  /** `offers` are answers that are often right: one touch instead of typing. `parts` are put in where one types. */
  | {
      readonly is: 'text'
      readonly most: number
      readonly lines?: number
      readonly offers?: readonly string[]
      readonly parts?: readonly string[]
    }
  | {
      readonly is: 'number'
      readonly unit: string
      readonly least: number
      readonly most: number
      readonly whole: boolean
    }
  | { readonly is: 'yes-no' }
  | { readonly is: 'one-of'; readonly choices: readonly Choice[] }
  /** `ordered`: the order in which they are chosen is part of the answer. */
  | { readonly is: 'some-of'; readonly choices: readonly Choice[]; readonly ordered?: boolean }
  | { readonly is: 'one-entry'; readonly kind: EntryKind }
  | { readonly is: 'words'; readonly most: number }
  /** Several alike, each of a few cells; `pick` is the cell by whose choices they are put in, in the order of choosing. */
  | {
      readonly is: 'rows'
      readonly most: number
      readonly cells: readonly Cell[]
      readonly row: string
      readonly pick?: string
    }
  /** A few cells that belong together. */
  | { readonly is: 'group'; readonly cells: readonly Cell[] }
  /** Stickers to find the rule of an ID by. */
  | { readonly is: 'id-rule' }
  /** Keyed values with their seconds to find unit, range and step of a time by. */
  | { readonly is: 'delay' }
  /** A pasted list of words with their numbers. */
  | { readonly is: 'word-list' }
  /** What a trip does, type by type and mode by mode. */
  | { readonly is: 'response-types' }
  /** Told at the panel, key by key. */
  | { readonly is: 'at-panel' }

/** What is keyed for each of a few choices; which they are tells another cell of the row. */
export interface KeyedForm {
  readonly is: 'keyed'
  readonly by: string
  readonly of: Readonly<Record<string, readonly Choice[]>>
}

/** Forms of an answer that is one value or a plain list of them. */
export type PlainForm = Extract<
  Form,
  { readonly is: 'text' | 'number' | 'yes-no' | 'one-of' | 'some-of' | 'one-entry' | 'words' }
>

/** A cell of a row. */
export interface Cell {
  readonly key: string
  readonly title: string
  readonly form: Exclude<PlainForm, { readonly is: 'words' }> | KeyedForm
  /** What is left away when it is empty. */
  readonly optional?: boolean
  /** What a new row says to it: what is so most often. */
  readonly begins?: boolean
}

/** One question of a draft. */
export interface Question {
  /** The field of the entry that it fills, dotted. */
  readonly path: string
  readonly section: string
  readonly ask: string
  /** Why it is asked. */
  readonly why: string
  /** Where it stands on a leaflet. */
  readonly leaflet: string
  readonly form: Form
  /** What may be said instead of an answer, such as *not stated*; empty where there is nothing else to say. */
  readonly unless: string
  /** Whether an entry cannot be without it: left open it is missing. Else left open is said instead. */
  readonly needed: boolean
}
