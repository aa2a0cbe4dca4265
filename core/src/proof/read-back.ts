import { mustBeTyped } from '../memory/must-type.ts'
import { readingsOf, type KnownValue, type PanelReadings } from '../memory/readings.ts'
import type { Op } from '../job/edit.ts'
import type { Memory } from '../memory/memory.ts'
import { planFromMemory, type PlanRead } from '../memory/read-plan.ts'
import { targetMemory } from '../memory/target.ts'
import { partOf, type MemoryWords } from '../memory/words.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { evidenceOf } from '../job/evidence.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import { hashOf } from '../units/canonical.ts'
import { changedKeying, keyedNow } from './keyed.ts'

/* How far a panel was compared with the plan: value by value, and once more, shorter, after it had saved and started again. */

/** A value that the panel was seen to hold otherwise than the plan wants. */
interface ReadDifference {
  readonly address: string
  readonly wanted: string
  /** What stood on the display; the empty text for nothing. */
  readonly is: string
}

/** What of a panel is compared, and what is not. */
export interface ReadBackState {
  /** Values that the plan wants. */
  readonly wanted: readonly string[]
  /** Values seen to be otherwise: one stops hand-over. */
  readonly different: readonly ReadDifference[]
  /** Values that nobody has read since they were keyed, or that were only seen where they are to be typed as they stand there. */
  readonly open: readonly string[]
  /** Lines drawn at random that are to be read once more after the panel saved; empty while values are open or different. */
  readonly drawn: readonly string[]
}

/** How many lines are drawn once it has saved. */
const DRAWN = 3

/**
 * Compares what was read off the panel with the plan; null without a panel, or where nobody has described its displays. A value that was
 * keyed again counts as read only where it is the same.
 */
export function readBackState({ doc, catalogue }: JobAndCatalogue, rules: HouseRules): ReadBackState | null {
  const { panel } = systemOf(doc, catalogue)
  const target = targetMemory(doc, catalogue)
  if (!panel || !target || catalogue.get('interface', panel.interface ?? null) === null) return null
  const words: MemoryWords = { doc, panel, catalogue }
  const readings = readingsOf(doc, panel.id)
  const trusted = vouchedBefore({ doc, catalogue }, rules)
  const isTrusted = (address: string): boolean =>
    trusted(partOf(words, address), readings.now.get(address)?.at ?? '')
  const seen = seenValues(readings)
  const different: ReadDifference[] = []
  const open: string[] = []
  for (const [address, wanted] of target.wanted) {
    const known = seen.get(address)
    if (known && known.value !== wanted) different.push({ address, wanted, is: known.value })
    else if (known ? known.how === 'seen' && mustBeTyped(words, address) : !isTrusted(address))
      open.push(address)
  }
  const wanted = [...target.wanted.keys()]
  // Whoever vouched for all of it in an earlier build did so after it had saved.
  const ready = different.length === 0 && open.length === 0 && seen.size > 0
  return { wanted, different, open, drawn: ready ? drawn(wanted, readings, seen) : [] }
}

/**
 * Headings that somebody vouched for as a whole, in an earlier build, and that are keyed as they were then; of a value that was keyed
 * or read since (`at`, ISO 8601) it says nothing.
 */
function vouchedBefore(job: JobAndCatalogue, rules: HouseRules): (part: string, at: string) => boolean {
  const record = evidenceOf(job.doc, 'signoff').findLast(({ what }) => what === 'read-back')
  if (!record?.keyed) return () => false
  const changed = changedKeying(record, keyedNow(job, rules, 'read-back'))
  const then = new Set(record.keyed.map(({ step }) => step))
  const isSame = (step: string): boolean => !changed.includes(step) && !changed.includes(`${step}, now gone`)
  return (part, at) =>
    at <= record.at && stepsOf(part).every(isSame) && (!part.startsWith('Zone ') || then.has(part))
}

/** The sections of the plain sheet that a heading was vouched for with. */
function stepsOf(part: string): readonly string[] {
  if (part.startsWith('Area ')) return ['Whole system']
  return /^(Fob|Keypad|Siren) /.test(part)
    ? ['Fobs, keypads and sirens', 'Areas of keypads and fobs']
    : [part]
}

/** The latest reading of each address that was not keyed otherwise since. */
function seenValues({ now, read }: PanelReadings): ReadonlyMap<string, KnownValue> {
  return new Map([...read].filter(([address, { value }]) => now.get(address)?.value === value))
}

/** Lines that are read once more after the panel saved: the same for whoever reads them. */
function drawn(
  wanted: readonly string[],
  { kept }: PanelReadings,
  seen: ReadonlyMap<string, KnownValue>,
): readonly string[] {
  const seed = kept?.id ?? ''
  const sorted = wanted
    .map((address) => ({ address, at: hashOf([seed, address]) }))
    .sort((a, b) => (a.at < b.at ? -1 : 1))
    .slice(0, DRAWN)
  const since = kept?.at ?? ''
  return sorted
    .map(({ address }) => address)
    .filter((address) => {
      const known = seen.get(address)
      return !known?.saved || known.at < since
    })
}

/** Edits after which the plan wants what stands in the panel at these addresses, and which of them it cannot take, and why. */
export function planTakes({ doc, catalogue }: JobAndCatalogue, read: Memory): PlanRead {
  const wanted = targetMemory(doc, catalogue)?.wanted ?? new Map<string, string>()
  // The rest as it is planned: a list is read with all of its members.
  const { ops, rest } = planFromMemory(doc, catalogue, new Map([...wanted, ...read]))
  return { ops, rest: rest.filter(({ address, value }) => read.get(address) === value) }
}

/** Edits after which the plan wants what stands in the panel at an address, or why the plan cannot take it. */
export function planFollows(
  job: JobAndCatalogue,
  { address, is }: Pick<ReadDifference, 'address' | 'is'>,
): { readonly ops: readonly Op[]; readonly why: string } {
  const { ops, rest } = planTakes(job, new Map([[address, is]]))
  const why = rest[0]?.why ?? ''
  return {
    ops: why === '' ? ops : [],
    why: why === '' && ops.length === 0 ? 'the plan cannot say so' : why,
  }
}
