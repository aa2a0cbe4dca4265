import type { Catalogue } from '../catalogue/catalogue.ts'
import { jobInfo, recordOf, recordsOf, type JobDocument } from './document.ts'
import { countsHere } from './enrolment.ts'
import { correctedIds } from './evidence.ts'
import type { Heard } from './records.ts'
import { wipedAt } from './wiped.ts'

/*
 * What the panel still knows though the plan has it there no more: a device that was replaced, removed or moved to another number
 * after it was learned. It shows as lost, and may raise alarms for a place where it no longer is.
 */

/** One thing that is to be deleted at the panel. */
export interface LeftInPanel {
  /** The acceptance by which the panel came to know it. */
  readonly evidence: Heard
  /** Where it stands in the panel: a zone's number, or a slot. */
  readonly place: { readonly number: number } | { readonly slot: string }
}

const kept = new WeakMap<JobDocument, readonly LeftInPanel[]>()

/** What is to be deleted at the panel, in the order in which it was learned; empty for a job in which nothing was taken back. */
export function leftInPanel(doc: JobDocument, catalogue: Catalogue): readonly LeftInPanel[] {
  const known = kept.get(doc)
  if (known) return known
  const { panel } = jobInfo(doc)
  const corrected = correctedIds(doc)
  const wiped = wipedAt(doc)
  // What stands where: a later acceptance at the same place stands there alone.
  const places = new Map<string, Heard>()
  for (const record of recordsOf(doc, 'heard')) {
    if (corrected.has(record.id) || record.made.told !== null || record.decision === 'refused') continue
    if (!countsHere(doc, record) || !record.of || record.of.panel !== panel || record.at <= wiped) continue
    if (record.decision === 'accepted') places.set(keyOf(catalogue, record), record)
    else takeOut(places, record)
  }
  const list = [...places.values()]
    .filter((record) => !isStillThere(doc, record))
    .map((evidence) => ({ evidence, place: placeOf(catalogue, evidence) }))
  kept.set(doc, list)
  return list
}

/** What was released stands nowhere any more. */
function takeOut(places: Map<string, Heard>, { subject, serial }: Heard): void {
  for (const [key, other] of places)
    if (other.subject === subject && other.serial === serial) places.delete(key)
}

/** What stands in the panel in the place of a zone or of a device in its slot, though it is to be something else; null for nothing. */
export function occupantOf(doc: JobDocument, catalogue: Catalogue, subject: string): LeftInPanel | null {
  const zone = recordOf(doc, 'zone', subject)
  const device = recordOf(doc, 'device', subject)
  const at = zone
    ? `zone ${zone.number}`
    : device
      ? slotOf(catalogue, { model: device.model, device: device.id, slot: device.slot })
      : ''
  return leftInPanel(doc, catalogue).find(({ evidence }) => keyOf(catalogue, evidence) === at) ?? null
}

/** The last acceptance of an ID that the plan has no more as it then was: whoever hears it hears a device of before; null for none. */
export function formerOf(doc: JobDocument, serial: string): Heard | null {
  const { panel } = jobInfo(doc)
  const corrected = correctedIds(doc)
  const found = recordsOf(doc, 'heard').filter(
    (record) =>
      record.serial === serial &&
      record.decision === 'accepted' &&
      record.made.told === null &&
      !corrected.has(record.id) &&
      countsHere(doc, record) &&
      record.of?.panel === panel,
  )
  const last = found.at(-1)
  return last && !found.some((record) => isStillThere(doc, record)) ? last : null
}

/** Whether the plan still has that very device at that very place; that its event or loop was changed since does not matter. */
function isStillThere(doc: JobDocument, { of, subject }: Heard): boolean {
  if (!of) return false
  const device = recordOf(doc, 'device', of.device)
  if (device?.model !== of.model) return false
  if (subject === device.id) return device.slot === of.slot
  const zone = recordOf(doc, 'zone', subject)
  const was = of.zones.find((item) => item.zone === subject)
  return zone !== null && zone.device === device.id && zone.number === was?.number
}

function keyOf(catalogue: Catalogue, { of, subject }: Heard): string {
  if (!of) return subject
  const number = of.zones.find((item) => item.zone === subject)?.number
  return subject === of.device || number === undefined ? slotOf(catalogue, of) : `zone ${number}`
}

interface InSlot {
  readonly model: string
  readonly device: string
  readonly slot: number | null
}

/** A slot by its kind and number; a repeater has none and is known by itself. */
function slotOf(catalogue: Catalogue, { model, device, slot }: InSlot): string {
  const entry = catalogue.get('device', model)
  return slot === null ? `${entry?.class ?? ''} ${device}` : `${entry?.slot ?? 'slot'} ${slot}`
}

function placeOf(catalogue: Catalogue, evidence: Heard): LeftInPanel['place'] {
  const { of, subject } = evidence
  const number = of?.zones.find((item) => item.zone === subject)?.number
  if (number !== undefined && subject !== of?.device) return { number }
  const entry = catalogue.get('device', of?.model ?? null)
  return { slot: of?.slot == null ? (entry?.class ?? 'device') : `${entry?.slot ?? 'slot'} ${of.slot}` }
}
