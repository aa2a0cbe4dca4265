import type { EntryKind } from '../catalogue/schema.ts'

/* How a question is asked. */

/** One of a few answers. */
export interface Choice {
  readonly value: string
  readonly title: string
}

/** How an answer is given. */
export type Form =
  | { readonly is: 'text'; readonly most: number; readonly lines?: number }
  | {
      readonly is: 'number'
      readonly unit: string
      readonly least: number
      readonly most: number
      readonly whole: boolean
    }
  | { readonly is: 'yes-no' }
  | { readonly is: 'one-of'; readonly choices: readonly Choice[] }
  | { readonly is: 'some-of'; readonly choices: readonly Choice[] }
  | { readonly is: 'one-entry'; readonly kind: EntryKind }
  | { readonly is: 'words'; readonly most: number }
  /** Several alike, each of a few cells. */
  | { readonly is: 'rows'; readonly most: number; readonly cells: readonly Cell[]; readonly row: string }
  /** Stickers to find the rule of an ID by. */
  | { readonly is: 'id-rule' }

/** A cell of a row. */
export interface Cell {
  readonly key: string
  readonly title: string
  readonly form: Exclude<Form, { readonly is: 'rows' | 'id-rule' | 'words' }>
  /** What is left away when it is empty. */
  readonly optional?: boolean
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
