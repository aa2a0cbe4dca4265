import { hashOf, sameJson } from '../units/canonical.ts'
import type { PackChange } from './pack.ts'
import { pointersOf } from './pointers.ts'
import type { CatalogueEntry } from './schema.ts'
import { readKept, type KeptEntry } from './written.ts'

/*
 * Taking a pack in where it has entries of ids that are there with other content. Two firms may have given one id to two things:
 * nothing is replaced and nothing is mixed unless somebody says so.
 */

/** Of an entry that is there with other content: the pack's replaces one's own, one's own stays, or both are kept under two ids. */
export const takeChoices = ['theirs', 'mine', 'both'] as const
/** What is done with one entry of a pack. */
export type TakeChoice = (typeof takeChoices)[number]

/** Changed entries on which entries that come new rest, by id, with the names of those that come new. */
export function restingOn(changes: readonly PackChange[]): ReadonlyMap<string, readonly string[]> {
  const byId = new Map(changes.map((change) => [change.entry.entry.id, change]))
  const resting = new Map<string, string[]>()
  for (const { state, entry } of changes) {
    if (state !== 'new') continue
    for (const id of restsOn(entry.entry, byId))
      resting.set(id, [...(resting.get(id) ?? []), entry.entry.name])
  }
  return resting
}

/** Changed entries of a pack that an entry leads to, at any remove; what is the same on both sides leads to one's own. */
function restsOn(entry: CatalogueEntry, byId: ReadonlyMap<string, PackChange>): ReadonlySet<string> {
  const seen = new Map<string, PackChange>()
  const open = [entry]
  for (let at = open.pop(); at; at = open.pop())
    for (const [, id] of pointersOf(at)) {
      const there = byId.get(id)
      if (!there || there.state === 'same' || seen.has(id)) continue
      seen.set(id, there)
      open.push(there.entry.entry)
    }
  return new Set([...seen].flatMap(([id, { state }]) => (state === 'changed' ? [id] : [])))
}

/** What is proposed: one's own stays; both where something that comes new rests on theirs. */
export function proposedChoices(changes: readonly PackChange[]): Readonly<Record<string, TakeChoice>> {
  const resting = restingOn(changes)
  return Object.fromEntries(
    changes
      .filter(({ state }) => state === 'changed')
      .map(({ entry: { entry } }) => [entry.id, resting.has(entry.id) ? 'both' : 'mine']),
  )
}

/** What a pack brings by these choices. */
export interface Taking {
  /** Entries that come in, in the order of the pack. */
  readonly entries: readonly KeptEntry[]
  /** Ids that were given anew, by those in the pack. */
  readonly renamed: ReadonlyMap<string, string>
  /** Changed entries of which nobody said what is to be done. */
  readonly open: readonly string[]
}

/**
 * The entries that come in. Those kept beside one's own get a free id and `mark` behind their name, and what comes with them points at
 * them and not at one's own.
 */
export function taken(
  changes: readonly PackChange[],
  choices: Readonly<Record<string, TakeChoice>>,
  { ids, mark }: { readonly ids: ReadonlySet<string>; readonly mark: string },
): Taking {
  const used = new Set([...ids, ...changes.map(({ entry }) => entry.entry.id)])
  const renamed = new Map<string, string>()
  const open: string[] = []
  const coming = changes.filter(({ state, entry: { entry } }) => {
    if (state !== 'changed') return true
    const choice = Object.hasOwn(choices, entry.id) ? choices[entry.id] : undefined
    if (choice === undefined) open.push(entry.id)
    if (choice === 'both') {
      const id = freeId(entry.id, used)
      used.add(id)
      renamed.set(entry.id, id)
    }
    return choice === 'both' || choice === 'theirs'
  })
  // What is the same on both sides is one's own, and goes on pointing at one's own.
  const entries = coming.map(({ state, entry }) =>
    state === 'same' ? entry : rewritten(entry, renamed, mark),
  )
  return { entries, renamed, open }
}

function freeId(id: string, used: ReadonlySet<string>): string {
  for (let number = 2; ; number++) {
    const end = `-${number}`
    const [kind = '', name = ''] = id.split('/')
    const made = `${kind}/${name.slice(0, ID_LENGTH - end.length)}${end}`
    if (!used.has(made)) return made
  }
}

/** Most characters of an id behind its kind. */
const ID_LENGTH = 60
/** Most characters of a name. */
const NAME_LENGTH = 80

/** An entry with ids that were given anew in place of those it was written with; the same one where it has none of them. */
function rewritten(kept: KeptEntry, renamed: ReadonlyMap<string, string>, mark: string): KeptEntry {
  const { id, name } = kept.entry
  const own = renamed.get(id)
  const anew = written(kept.raw, renamed)
  if (own === undefined && sameJson(anew, kept.raw)) return kept
  const marked = own === undefined ? name : named(name, mark)
  const raw = { ...(anew as Record<string, unknown>), id: own ?? id, name: marked }
  return readKept({ hash: hashOf(raw), form: kept.form, raw })
}

function named(name: string, mark: string): string {
  const end = ` (${mark.slice(0, NAME_LENGTH / 2)})`
  return `${name.slice(0, NAME_LENGTH - end.length)}${end}`
}

/** Every text that is one of the ids: an id has a kind before its stroke, and no other text of an entry looks so. */
function written(value: unknown, renamed: ReadonlyMap<string, string>): unknown {
  if (typeof value === 'string') return renamed.get(value) ?? value
  if (Array.isArray(value)) return value.map((item) => written(item, renamed))
  if (typeof value !== 'object' || value === null) return value
  return Object.fromEntries(Object.entries(value).map(([key, item]) => [key, written(item, renamed)]))
}
