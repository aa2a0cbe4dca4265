import { isPractice, recordOf, recordsOf, jobInfo, type JobDocument } from './document.ts'
import { correctedIds } from './evidence.ts'
import type { Heard, Zone } from './records.ts'
import { wipedAt } from './wiped.ts'

/** Heard as the device sent it; typed from a sticker; or taken from a sister zone of the same device. */
export type KnownBy = 'heard' | 'typed' | 'sister'

/** Causes of what nobody heard. */
const TYPED = 'typed'
const SISTER = 'sister'

/** How a piece of evidence knows its ID: a sticker proves the device in hand, not that it was heard. */
export function knownBy({ source, cause }: Pick<Heard, 'source' | 'cause'>): KnownBy {
  if (cause === SISTER) return 'sister'
  return source === 'sticker' || cause === TYPED ? 'typed' : 'heard'
}

/**
 * Whether what was heard counts in this job: a real job knows nothing of simulated air, and in a practice job nothing is
 * real. So it was with what a job of before took from the air.
 */
export function countsHere(doc: JobDocument, { source }: Pick<Heard, 'source'>): boolean {
  return (source === 'practice') === isPractice(doc)
}

/** What is known of the ID of a zone, or of a device in its slot. */
export interface Enrolment {
  /** The ID in stored form. */
  readonly serial: string
  /** How it came to be known. */
  readonly how: KnownBy
  /** The record that says so. */
  readonly evidence: Heard
  /** Who told it where nobody here saw it: then it counts for nothing until it is learned again. */
  readonly told: Heard['made']['told']
  /** Another ID that was accepted before, was not taken out and not ruled out by hearing this one again; null for none. */
  readonly other: string | null
}

const kept = new WeakMap<JobDocument, ReadonlyMap<string, Enrolment>>()

/**
 * What is enrolled, by zone or device id: the latest acceptance that still fits the plan. It is derived from what was heard,
 * never stored: a device of another model, a zone of another number, loop or panel is not the one that was learned, and a panel
 * that was brought back to how it came knows nothing of before.
 */
export function enrolments(doc: JobDocument): ReadonlyMap<string, Enrolment> {
  const known = kept.get(doc)
  if (known) return known
  const map = new Map<string, Enrolment>()
  const corrected = correctedIds(doc)
  const wiped = wipedAt(doc)
  for (const record of recordsOf(doc, 'heard')) {
    if (corrected.has(record.id) || record.decision === 'refused') continue
    if (!countsHere(doc, record) || !fits(doc, record) || record.at <= wiped) continue
    const told = record.made.told
    // What a file tells never stands against what was seen here.
    if (told !== null && map.get(record.subject)?.told === null) continue
    if (record.decision === 'released') map.delete(record.subject)
    else {
      const { serial } = record
      const other = otherSerial(map.get(record.subject), record)
      map.set(record.subject, { serial, how: knownBy(record), evidence: record, told, other })
    }
  }
  kept.set(doc, map)
  return map
}

/** The other ID of two that were accepted for one target; hearing the later one again rules the earlier out. */
function otherSerial(before: Enrolment | undefined, { serial, made }: Heard): string | null {
  if (!before || before.told !== null || made.told !== null) return null
  return before.serial === serial ? null : before.serial
}

/** What is known of one zone's or device's ID; null where nothing was learned, told or typed. */
export function enrolmentOf(doc: JobDocument, subject: string): Enrolment | null {
  return enrolments(doc).get(subject) ?? null
}

/** Whether a zone or device was learned here. */
export function isEnrolled(doc: JobDocument, subject: string): boolean {
  return enrolments(doc).get(subject)?.told === null
}

/** Whether the panel has a zone or a device in its slot: learned here, or a zone that is left as programmed. */
export function isInPanel(doc: JobDocument, subject: string): boolean {
  return isEnrolled(doc, subject) || recordOf(doc, 'zone', subject)?.asProgrammed === true
}

/** Whether the panel has a device, in its slot or by one of its zones. */
export function isDeviceInPanel(doc: JobDocument, device: string): boolean {
  return (
    isDeviceEnrolled(doc, device) ||
    recordsOf(doc, 'zone').some((zone) => zone.device === device && zone.asProgrammed)
  )
}

/** Whether an acceptance made here still waits for the server: until it has it, nothing is enrolled for others. */
export function waitsToBeSent({ made }: Pick<Heard, 'made'>): boolean {
  return made.takenAt === null && made.id !== null
}

/** The ID that the panel knows a zone or device by, as far as anybody says; null for none. */
export function learnedSerial(doc: JobDocument, subject: string): string | null {
  return enrolments(doc).get(subject)?.serial ?? null
}

/** The ID that a device was learned by, in its slot or on any of its zones; null for none. */
export function deviceSerial(doc: JobDocument, device: string): string | null {
  const known = enrolments(doc)
  const zone = recordsOf(doc, 'zone').find((item) => item.device === device && known.has(item.id))
  return known.get(device)?.serial ?? (zone ? (known.get(zone.id)?.serial ?? null) : null)
}

/** Whether the panel knows a device in its slot or by one of its zones, or is told to. */
export function isDeviceKnown(doc: JobDocument, device: string): boolean {
  const known = enrolments(doc)
  return (
    known.has(device) || recordsOf(doc, 'zone').some((zone) => zone.device === device && known.has(zone.id))
  )
}

/** Whether a device was learned here, in its slot or by one of its zones. */
function isDeviceEnrolled(doc: JobDocument, device: string): boolean {
  return (
    isEnrolled(doc, device) ||
    recordsOf(doc, 'zone').some((zone) => zone.device === device && isEnrolled(doc, zone.id))
  )
}

/** Whether the panel may know a zone by its number: it then does not move. A told ID holds its number too, and so does what is left as programmed. */
export function holdsNumber(doc: JobDocument, zone: Zone): boolean {
  return zone.asProgrammed || enrolments(doc).has(zone.id)
}

/** Whether what was heard was for what the plan has now. */
function fits(doc: JobDocument, { of, subject, loop }: Heard): boolean {
  if (!of) return false
  const device = recordOf(doc, 'device', of.device)
  if (!device || device.model !== of.model || jobInfo(doc).panel !== of.panel) return false
  if (subject === device.id) return device.slot === of.slot
  const zone = recordOf(doc, 'zone', subject)
  const was = of.zones.find((item) => item.zone === subject)
  return (
    zone !== null &&
    was !== undefined &&
    zone.device === device.id &&
    zone.number === was.number &&
    zone.event === was.event &&
    zone.loop === (loop ?? was.loop)
  )
}

/** Code of an acceptance without a sticker to compare with: heard alone twice, settled by the trip at its place. */
export const NO_STICKER = 'no-sticker'

/** Code of an acceptance that went without the second transmission that the house rule asks for. */
export const UNCONFIRMED = 'unconfirmed'
const WITHOUT = 'Without a second transmission: '

/** The reason kept with such an acceptance. */
export function withoutSecond(reason: string): string {
  return `${WITHOUT}${reason.trim()}`.slice(0, 300)
}

/** What is enrolled without a second transmission, by the reason that was given: one reason may cover a set. */
export function unconfirmedByReason(doc: JobDocument): ReadonlyMap<string, readonly Enrolment[]> {
  const sets = new Map<string, Enrolment[]>()
  for (const enrolment of enrolments(doc).values()) {
    const { code, reason } = enrolment.evidence
    if (enrolment.told !== null || code !== UNCONFIRMED) continue
    const given = reason.startsWith(WITHOUT) ? reason.slice(WITHOUT.length) : reason
    sets.set(given, [...(sets.get(given) ?? []), enrolment])
  }
  return sets
}
