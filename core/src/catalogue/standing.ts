import { z } from 'zod'
import { Catalogue } from './catalogue.ts'
import { closureOf } from './closure.ts'
import { entryKinds } from './entry-fields.ts'
import type { CatalogueEntry } from './schema.ts'
import type { KeptEntry } from './written.ts'

/*
 * How the entries of a firm stand: offered for real work, for practice only, or retired. An entry itself never changes by it, and
 * a job keeps what it was planned with, whatever is offered now.
 */

const range = z
  .strictObject({ from: z.string().trim().min(1).max(40), to: z.string().trim().min(1).max(40) })
  .refine(({ from, to }) => plainId(from).length === plainId(to).length, {
    path: ['to'],
    message: 'must have as many characters as the first ID',
  })
  .refine(({ from, to }) => plainId(from) <= plainId(to), {
    path: ['to'],
    message: 'must not lie below the first ID',
  })
const year = z.number('must be a year from 1980 to 2100').int().min(1980).max(2100)
const years = z
  .strictObject({ from: year, to: year })
  .refine(({ from, to }) => from <= to, { path: ['to'], message: 'must not lie below the first year' })

/** What a person says of an entry as a whole. */
export const catalogueActInput = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.enum(['offer', 'practice', 'retire']),
    entryId: z.string().regex(new RegExp(`^(${entryKinds.join('|')})/[a-z0-9-]{1,60}$`)),
    why: z.string().trim().min(1, 'must say why, in 1 to 300 characters').max(300),
  }),
  z
    .strictObject({
      kind: z.literal('recall'),
      entryId: z.string().regex(/^device\/[a-z0-9-]{1,60}$/, 'must be a device'),
      why: z.string().trim().min(1, 'must say why, in 1 to 300 characters').max(300),
      serials: range.nullable(),
      years: years.nullable(),
    })
    .refine(({ serials, years: made }) => serials !== null || made !== null, {
      path: ['serials'],
      message: 'must name IDs or years of make',
    }),
  z.strictObject({
    kind: z.literal('end-recall'),
    entryId: z.string().regex(/^device\/[a-z0-9-]{1,60}$/, 'must be a device'),
    why: z.string().trim().min(1, 'must say why, in 1 to 300 characters').max(300),
    recall: z.string().min(1).max(40),
  }),
])
/** What a person says of an entry as a whole. */
export type CatalogueActInput = z.infer<typeof catalogueActInput>
/** The same as it was kept: by whom and when. */
export type CatalogueAct = CatalogueActInput & {
  readonly id: string
  readonly by: string
  readonly at: string
}
/** A recall of devices by their IDs, their years of make, or both. */
export type Recall = Extract<CatalogueAct, { readonly kind: 'recall' }>

/** How an entry stands: `offered` where nobody said otherwise. */
export interface Standing {
  readonly state: 'offered' | 'practice' | 'retired'
  /** Who said so last; null where nobody did. */
  readonly act: CatalogueAct | null
}

const states = { offer: 'offered', practice: 'practice', retire: 'retired' } as const

/** How entries stand by what was said of them last; `acts` oldest first. */
export function standingsOf(acts: readonly CatalogueAct[]): ReadonlyMap<string, Standing> {
  const standings = new Map<string, Standing>()
  for (const act of acts)
    if (act.kind === 'offer' || act.kind === 'practice' || act.kind === 'retire')
      standings.set(act.entryId, { state: states[act.kind], act })
  return standings
}

/**
 * The entries that a job is offered: a real one none that is for practice only, and neither of them one that is retired. What an
 * offered one points at stays, though it be retired: without it the other could not be read.
 */
export function offeredTo(
  catalogue: Catalogue,
  acts: readonly CatalogueAct[],
  job: { readonly practice: boolean },
): Catalogue {
  const standings = standingsOf(acts)
  const isOffered = (id: string): boolean => {
    const state = standings.get(id)?.state ?? 'offered'
    return state === 'offered' || (state === 'practice' && job.practice)
  }
  if (catalogue.entries.every(({ id }) => isOffered(id))) return catalogue
  const offered = catalogue.entries.filter(({ id }) => isOffered(id)).map(({ id }) => id)
  const needed = new Set(closureOf(catalogue, offered))
  return new Catalogue(catalogue.kept.filter(({ entry }) => needed.has(entry.id)))
}

/** What a real job would get through an entry, though it is not offered it by itself. */
export interface UnofferedNeed {
  readonly entry: CatalogueEntry
  readonly state: 'practice' | 'retired'
}

/**
 * Entries that `entry` needs and that no real job is offered by themselves: own equipment that rests on what is for practice only
 * is seldom meant. Empty where the entry itself is not offered to real jobs. `entry` need not be in the catalogue yet.
 */
export function unofferedNeeds(
  kept: KeptEntry,
  catalogue: Catalogue,
  acts: readonly CatalogueAct[],
): readonly UnofferedNeed[] {
  const standings = standingsOf(acts)
  const state = (id: string) => standings.get(id)?.state ?? 'offered'
  const { id } = kept.entry
  if (state(id) !== 'offered') return []
  const all = new Catalogue([...catalogue.kept.filter(({ entry }) => entry.id !== id), kept])
  return closureOf(all, [id]).flatMap((need): UnofferedNeed[] => {
    const stands = state(need)
    const entry = all.entries.find((one) => one.id === need)
    return stands === 'offered' || !entry ? [] : [{ entry, state: stands }]
  })
}

/** Recalls that nobody ended. */
export function openRecalls(acts: readonly CatalogueAct[]): readonly Recall[] {
  const ended = new Set(acts.flatMap((act) => (act.kind === 'end-recall' ? [act.recall] : [])))
  return acts.flatMap((act) => (act.kind === 'recall' && !ended.has(act.id) ? [act] : []))
}

/** What is known of one device that may be recalled. */
export interface RecalledDevice {
  readonly serial: string | null
  readonly madeYear: number | null
}

/**
 * Whether a recall is about a device of its entry. `unknown` where the ID or the year that decides it is not known: such a device
 * is looked at, never left out.
 */
export function isRecalled(recall: Recall, device: RecalledDevice): 'yes' | 'no' | 'unknown' {
  const answers = [
    recall.serials && inRange(recall.serials, device.serial),
    recall.years && inYears(recall.years, device.madeYear),
  ].filter((answer) => answer !== null)
  if (answers.includes('no')) return 'no'
  return answers.includes('unknown') ? 'unknown' : 'yes'
}

/** IDs of one length are in the order of their signs: digits before letters. One of another length is none of them. */
function inRange(
  { from, to }: { from: string; to: string },
  serial: string | null,
): 'yes' | 'no' | 'unknown' {
  if (serial === null) return 'unknown'
  const own = plainId(serial)
  if (own.length !== plainId(from).length) return 'no'
  return own >= plainId(from) && own <= plainId(to) ? 'yes' : 'no'
}

function inYears({ from, to }: { from: number; to: number }, made: number | null): 'yes' | 'no' | 'unknown' {
  if (made === null) return 'unknown'
  return made >= from && made <= to ? 'yes' : 'no'
}

function plainId(text: string): string {
  return text.replace(/[\s.-]/g, '').toUpperCase()
}
