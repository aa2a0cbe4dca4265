import type { Op } from '../job/edit.ts'
import type { Stage } from '../job/stages.ts'
import type { Waiver } from '../job/records.ts'
import type { Context } from './context.ts'
import type { FixFacts } from './words/fixes.ts'

/* A finding is a rule, a subject and facts. Sentences are made of them afterwards, under words/. */

/** `stops` must be cured before hand-over, `risks` should be, `advice` may be. */
export type Severity = 'stops' | 'risks' | 'advice'

/** A fact of a finding, as it is printed or ready to be: texts, figures, lists of them. */
export type Fact = string | number | boolean | null | readonly Fact[] | { readonly [name: string]: Fact }

/** What would cure a finding, as an edit to preview and apply. */
interface Fix {
  readonly title: string
  readonly ops: readonly Op[]
}

/** One thing found, in facts and in words. */
export interface Finding {
  /** Stable id of the rule. */
  readonly rule: string
  readonly severity: Severity
  /** Record that it points at, and its field where one is meant. */
  readonly subject: string
  readonly field: string | null
  /** What was found, by name: the same wherever the sentence is better. */
  readonly facts: Readonly<Record<string, Fact>>
  /** The facts that a waiver is bound to, as one text: ids and figures as printed, no clock. */
  readonly key: string
  /** One sentence with the figures used. */
  readonly text: string
  readonly fix: Fix | null
  /** Further ways out, where there are any; each cures it as well. */
  readonly others: readonly Fix[]
  /** Who took it upon themselves, and why; null while nobody did. */
  readonly waived: Waiver | null
  /** A waiver given for an earlier wording, before waivers were bound to facts: it counts once renewed. Null for none. */
  readonly earlier: Waiver | null
}

/** What cures a finding, before it is put into words. */
export type FoundFix = {
  [K in keyof FixFacts]: { readonly does: K; readonly facts: FixFacts[K]; readonly ops: readonly Op[] }
}[keyof FixFacts]

/** What a rule's search gives. */
export interface Found<F> {
  readonly subject: string
  readonly field: string | null
  readonly facts: F
  readonly fix: FoundFix | null
  /** Further ways out; none where it is left out. */
  readonly others?: readonly FoundFix[]
}

/** How grave a rule is and what it looks for. `F`: the facts of one finding. */
export interface Declared<F> {
  readonly severity: Severity
  /** Who may take it upon themselves: by default anybody; `owner` for life safety; `never` for what physics or the panel forbids. */
  readonly waive?: 'owner' | 'never'
  /** Stages on which it is shown. */
  readonly stage: Stage
  /** Facts that a waiver is bound to, besides rule and subject: it ends when one of them is another. */
  readonly key: readonly (keyof F & string)[]
  readonly find: (context: Context) => readonly Found<F>[]
}

/** The rules of a topic by id, each with its own facts. */
export type RulesOf<T> = { readonly [K in keyof T]: Declared<T[K]> }

/** How a topic's rules read. */
export type WordsOf<T> = {
  readonly [K in keyof T]: {
    /** What is wrong, as a short noun phrase for lists and filters. */
    readonly title: string
    /** Where the rule comes from: a standard, or the trade's practice. */
    readonly source: string
    readonly says: (facts: T[K]) => string
  }
}

/** One rule with its words, whatever its facts. */
export interface Rule extends Omit<Declared<Readonly<Record<string, Fact>>>, 'find'> {
  readonly id: string
  readonly title: string
  readonly source: string
  /** What it finds, as sentences too. */
  readonly find: (
    context: Context,
  ) => readonly Pick<Finding, 'subject' | 'field' | 'facts' | 'key' | 'text' | 'fix' | 'others'>[]
}
