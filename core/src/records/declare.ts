import { z } from 'zod'
import { id as recordId, made, time } from './fields.ts'
import type { Role } from './roles.ts'

/** Every record: an id `type:rest` and its type. */
export interface AnyRecord {
  readonly id: string
  readonly type: string
}

/** One field of a record type. */
export interface Field<Z extends z.ZodType = z.ZodType> {
  readonly schema: Z
  /** What the field is called in the journal and in messages. */
  readonly words: string
  /** Unit of its number, as written behind it; empty for none. */
  readonly unit: string
  /** The record id that a value stands for, where the field points at another record; null where it points at none. */
  readonly refers: ((value: unknown) => string | null) | null
  /** True for what is said once, when the record is made, and is never set. */
  readonly fixed?: boolean
  /** Its value before anybody said anything, where that is not null. */
  readonly blank?: unknown
  /** Where it is worked on, if not where the other fields of its record are. */
  readonly stage?: string
}

type Fields = Readonly<Record<string, Field>>

/**
 * One record type, declared once: schema, references, authority and words all derive from it. Nothing is allowed by
 * omission, so every member must be said.
 */
export interface Declaration<T extends string = string, F extends Fields = Fields> {
  readonly type: T
  /** What one of them is called: `zone`, `heard transmission`. */
  readonly words: string
  /** Where its records are worked on: the key of a stage. */
  readonly stage: string
  /** A plan is changed, removed and undone; evidence is added, and corrected by a later record that names it. */
  readonly is: 'plan' | 'evidence'
  /** Whether it bears the name of who made it. Evidence always does. */
  readonly named: boolean
  /** The least role that may add it, and where it is plan change and remove it. */
  readonly may: Role
  /** Whether it can be removed at all. */
  readonly removable: boolean
  /** Fields besides `at` that hold a device's time. */
  readonly times: readonly string[]
  /** The id that a record must have by what it holds; null where any of its type will do. */
  readonly idBy: ((record: Readonly<Record<string, unknown>>) => string) | null
  readonly fields: F
}

type ValuesOf<F extends Fields> = { readonly [K in keyof F]: z.infer<F[K]['schema']> }

/** A record as its declaration describes it. */
export type RecordOf<D> =
  D extends Declaration<infer T, infer F>
    ? Flat<{ readonly id: string; readonly type: T } & ValuesOf<F>>
    : never
type Flat<T> = { readonly [K in keyof T]: T[K] }

type BlankKeys<F extends Fields> = {
  [K in keyof F]: F[K] extends { readonly blank: unknown }
    ? K
    : null extends z.output<F[K]['schema']>
      ? K
      : never
}[keyof F]

/** The type and the fields of a record that have a value before anybody said anything. */
type BlankOf<D> =
  D extends Declaration<infer T, infer F>
    ? Flat<
        { readonly type: T } & {
          readonly [K in BlankKeys<F>]: F[K] extends { readonly blank: infer V } ? V : null
        }
      >
    : never

/** A record as it begins: every field that may be null is, the others as their declaration says; the rest is to be said. */
export function blankOf<D extends Declaration>(declaration: D): BlankOf<D> {
  const known = Object.entries(declaration.fields).flatMap(
    ([name, { schema, blank }]): [string, unknown][] =>
      blank !== undefined ? [[name, blank]] : schema.safeParse(null).success ? [[name, null]] : [],
  )
  return { type: declaration.type, ...Object.fromEntries(known) } as BlankOf<D>
}

/** A plain field. */
export function field<Z extends z.ZodType>(words: string, schema: Z, unit = ''): Field<Z> {
  return { schema, words, unit, refers: null }
}

/** A field with its value before anybody said anything; one that may be null begins as null without this. */
export function starts<F extends Field, const V extends z.output<F['schema']>>(
  blank: V,
  declared: F,
): F & { readonly blank: V } {
  return { ...declared, blank }
}

/** A field that is worked on elsewhere than the other fields of its record. */
export function atStage<F extends Field>(stage: string, declared: F): F {
  return { ...declared, stage }
}

/** A field that is said once, when its record is made: it is never set, and no undo reaches it. */
export function fixed<Z extends z.ZodType>(words: string, schema: Z): Field<Z> {
  return { ...field(words, schema), fixed: true }
}

/** A field that holds the id of another record. */
export function reference<Z extends z.ZodType>(
  words: string,
  schema: Z,
  refers: (value: unknown) => string | null = sameId,
): Field<Z> {
  return { schema, words, unit: '', refers }
}

/** Declares a record type of the plan. */
export function plan<const T extends string, F extends Fields>(
  declaration: Omit<Declaration<T, F>, 'is' | 'named' | 'times'>,
): Declaration<T, F> {
  return { ...declaration, is: 'plan', named: false, times: [] }
}

/** Declares a record type of the plan that bears its maker's name and time. */
export function namedPlan<const T extends string, F extends Fields>(
  declaration: Omit<Declaration<T, F>, 'is' | 'named' | 'times'>,
): Declaration<T, F & typeof makerFields> {
  return {
    ...declaration,
    is: 'plan',
    named: true,
    times: [],
    fields: { ...declaration.fields, ...makerFields },
  }
}

/** Declares a record type of evidence: it bears its maker's name and time, and what it corrects. */
export function evidence<const T extends string, F extends Fields>(
  declaration: Omit<Declaration<T, F>, 'is' | 'named' | 'removable'>,
): Declaration<T, F & typeof makerFields & typeof correction> {
  return {
    ...declaration,
    is: 'evidence',
    named: true,
    removable: false,
    fields: { ...declaration.fields, ...makerFields, ...correction },
  }
}

const makerFields = {
  made: field('made by', made),
  at: field('time', time),
}
const correction = {
  /** Name of the record that this one corrects, which then counts no more; null for none. */
  corrects: field('what it corrects', recordId.nullable()),
}

/** A set of record types with the number of its shapes: what a journal, its documents and its files are made of. */
export interface RecordSet {
  /** What a document of the set is called, such as `job`. */
  readonly name: string
  /** Number of the shapes in force, for the whole set. */
  readonly schema: number
  readonly types: Readonly<Record<string, Declaration>>
  /** Schema of a whole record, by type. */
  readonly schemas: Readonly<Record<string, z.ZodObject>>
  /** Reference fields by type. */
  readonly references: Readonly<
    Record<string, readonly (readonly [string, (value: unknown) => string | null])[]>
  >
}

/** Puts declarations together; throws when two have one type. */
export function recordSet(name: string, schema: number, declarations: readonly Declaration[]): RecordSet {
  const types: Record<string, Declaration> = {}
  const schemas: Record<string, z.ZodObject> = {}
  const references: Record<string, (readonly [string, (value: unknown) => string | null])[]> = {}
  for (const declaration of declarations) {
    const { type, fields } = declaration
    if (type in types) throw new RangeError(`recordSet: ${type} is declared twice`)
    types[type] = declaration
    schemas[type] = z.strictObject({
      id: recordId,
      type: z.literal(type),
      ...Object.fromEntries(Object.entries(fields).map(([key, item]) => [key, item.schema])),
    })
    references[type] = Object.entries(fields).flatMap(([key, { refers }]) =>
      refers ? [[key, refers] as const] : [],
    )
  }
  return { name, schema, types, schemas, references }
}

/** The type named by a record id, or null when the set knows none of it. */
export function typeNamed(set: RecordSet, recordId: string): string | null {
  const type = recordId.slice(0, recordId.indexOf(':'))
  return Object.hasOwn(set.types, type) ? type : null
}

/** Whether a type is evidence; false for a type the set does not know. */
export function isEvidence(set: RecordSet, type: string | null): boolean {
  return type !== null && Object.hasOwn(set.types, type) && set.types[type]?.is === 'evidence'
}

function sameId(value: unknown): string | null {
  return typeof value === 'string' ? value : null
}
