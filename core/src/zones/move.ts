import type { System } from '../system/system.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Op } from '../job/edit.ts'
import type { Zone } from '../job/records.ts'
import {
  keptForWired,
  liveTerminals,
  mappedNumbers,
  numbersOf,
  presentBlocks,
  printNumber,
  rangeWords,
} from './numbers.ts'
import { holdsNumber } from '../job/enrolment.ts'

/** What putting a zone on a number would do: the edit, or why the number refuses it. */
export type ZoneMove =
  | {
      readonly ok: true
      readonly ops: readonly Op[]
      /** In words: what moves where. */
      readonly says: string
    }
  | { readonly ok: false; readonly reason: string }

/** The job in which a zone is moved, under these house rules. */
export interface Moving {
  readonly doc: JobDocument
  readonly system: System
  readonly rules: HouseRules
}

/**
 * Puts a zone on a number by hand, where it is then pinned. A zone that is there changes places with it, unless it is pinned
 * or enrolled; an enrolled zone does not move at all, for the panel knows it by its number.
 */
// eslint-disable-next-line complexity -- one guard per fact, read from top to bottom
export function moveZone({ doc, system, rules }: Moving, zone: Zone, number: number): ZoneMove {
  const { panel } = system
  const print = (value: number): string => printNumber(panel, value)
  if (!panel) return { ok: false, reason: 'Choose a panel first: it decides the numbers.' }
  if (number === zone.number) return { ok: false, reason: `It is on ${print(number)} already.` }
  if (holdsNumber(doc, zone))
    return {
      ok: false,
      reason: `Zone ${print(zone.number)} is ${zone.asProgrammed ? 'left as programmed' : 'enrolled'}: the panel knows it by its number.`,
    }
  const own = refusal({ doc, system, rules }, zone, number)
  if (own) return { ok: false, reason: `${own}${nextFree({ doc, system, rules }, zone)}` }
  const there = recordsOf(doc, 'zone').filter((other) => other.number === number && other.id !== zone.id)
  const fixed = there.find((other) => other.pinned || holdsNumber(doc, other))
  if (fixed || there.length > 1)
    return {
      ok: false,
      reason: `${print(number)} is taken by ${fixed && holdsNumber(doc, fixed) ? 'an enrolled' : fixed ? 'a pinned' : 'more than one'} zone${fixed?.label ? ` (“${fixed.label}”)` : ''}.${nextFree({ doc, system, rules }, zone)}`,
    }
  const [other] = there
  const back = other ? refusal({ doc, system, rules }, other, zone.number) : null
  if (back) return { ok: false, reason: `The zone on ${print(number)} cannot go back: ${back}` }
  const set = (record: Zone, to: number): Op => ({
    op: 'set',
    id: record.id,
    field: 'number',
    from: record.number,
    to,
  })
  const pin: Op[] = zone.pinned ? [] : [{ op: 'set', id: zone.id, field: 'pinned', from: false, to: true }]
  return {
    ok: true,
    ops: [set(zone, number), ...(other ? [set(other, zone.number)] : []), ...pin],
    says: other
      ? `Zone ${print(zone.number)} goes to ${print(number)}, and ${print(number)} to ${print(zone.number)}.`
      : `Zone ${print(zone.number)} goes to ${print(number)}.`,
  }
}

/** The lowest number that the zone may take and nobody has, as a sentence; empty where none is free. */
function nextFree(moving: Moving, zone: Zone): string {
  const { doc, system } = moving
  const taken = new Set(recordsOf(doc, 'zone').map((other) => other.number))
  const last = Math.max(0, ...(system.panel?.blocks ?? []).map((block) => block.to))
  for (let number = 1; number <= last; number++)
    if (!taken.has(number) && refusal(moving, zone, number) === null)
      return ` The next free one is ${printNumber(system.panel, number)}.`
  return ''
}

/** Why a number is not for this zone, with the panel's ranges; null when it may take it. */
function refusal({ doc, system, rules }: Moving, zone: Zone, number: number): string | null {
  const { panel } = system
  const item = zone.device === null ? undefined : system.byId.get(zone.device)
  if (!panel || !item) return null
  const use = item.model.slot === 'fob' ? 'fob' : item.family === null ? 'wired' : 'wireless'
  const print = printNumber(panel, number)
  const blocks = use === 'wired' ? panel.blocks : presentBlocks(doc, system)
  if (!numbersOf(blocks, use).has(number))
    return `${print} is not for ${use === 'fob' ? 'fob buttons' : `${use} zones`}: those are ${rangeWords(panel, use)}.`
  if (mappedNumbers(system).has(number)) return `A keypad’s own terminal is mapped over ${print}.`
  if (numbersOf(presentBlocks(doc, system), 'template').has(number)) return `${print} is a template zone.`
  if (use !== 'wireless') return null
  if (liveTerminals(doc, system).has(number))
    return `Wired terminal ${print} is live: a radio device there would trip beside it. Switch the terminal off first.`
  if (keptForWired(doc, system, rules.schools.wiredBlock).has(number))
    return `${print} is kept for the wired block (house rule).`
  return null
}
