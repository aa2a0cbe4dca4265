import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, Family, LoopEvent } from '../catalogue/schema.ts'
import { systemOf, type System } from '../fit/system.ts'
import { lookAlike, lookAlikeWords } from '../identity/look-alike.ts'
import { groupId } from '../identity/sticker.ts'
import type { Schools } from '../house-rules/house-rules.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Op } from '../job/edit.ts'
import type { Device, Heard, Zone } from '../job/records.ts'
import { setOp } from '../findings/context.ts'
import { isLifeSafety, kindOf } from '../response/advise.ts'
import { printNumber } from '../zones/numbers.ts'
import type { Transmission } from './air.ts'
import { enrolmentOf, isEnrolled, learnedSerial, waitsToBeSent } from '../job/enrolment.ts'
import { asItIs, freshEvidence } from '../job/evidence.ts'
import type { Person } from '../records/fields.ts'

/** What is to be enrolled next: a zone, or a fob, keypad or siren in its slot. */
export interface Target {
  /** Zone id, or device id for a slot. */
  readonly id: string
  readonly device: Device
  readonly zone: Zone | null
  readonly loop: LoopEvent | null
  /** `zone 07` or `fob 1`. */
  readonly name: string
  readonly done: boolean
  /** Whether what enrols it still waits to be sent. */
  readonly waits: boolean
  /** The ID it was learned by, or is told to have; null for none. */
  readonly serial: string | null
  /** True for an event that cannot be tripped on the bench: it is typed from its sister's serial. */
  readonly sister: boolean
}

/** What to make of a transmission for a target. */
export type Judgement =
  | { readonly kind: 'accept'; readonly reason: string }
  | { readonly kind: 'ask-loop'; readonly reason: string }
  | { readonly kind: 'query'; readonly code: string; readonly reason: string }
  | { readonly kind: 'refuse'; readonly code: string; readonly reason: string }

/** Everything to enrol, in number order, slots behind the zones. */
export function targetsOf(doc: JobDocument, catalogue: Catalogue): Target[] {
  const system = systemOf(doc, catalogue)
  const zones = recordsOf(doc, 'zone').flatMap((zone): Target[] => {
    const item = zone.device === null ? undefined : system.byId.get(zone.device)
    if (!item?.family) return []
    const loop = item.model.loops.find((entry) => entry.event === zone.event) ?? null
    return [
      {
        id: zone.id,
        device: item.device,
        zone,
        loop,
        name: `zone ${printNumber(system.panel, zone.number)}`,
        done: isEnrolled(doc, zone.id),
        waits: waits(doc, zone.id),
        serial: learnedSerial(doc, zone.id),
        sister: loop !== null && !loop.bench,
      },
    ]
  })
  const slots = system.devices.flatMap(({ device, model, family }): Target[] => {
    if (
      !family ||
      model.slot === 'none' ||
      zones.some((target) => target.device.id === device.id) ||
      device.deferred !== null ||
      device.slot === null
    )
      return []
    return [
      {
        id: device.id,
        device,
        zone: null,
        loop: null,
        name: `${model.slot} ${device.slot}`,
        done: isEnrolled(doc, device.id),
        waits: waits(doc, device.id),
        serial: learnedSerial(doc, device.id),
        sister: false,
      },
    ]
  })
  return [...zones, ...slots]
}

function waits(doc: JobDocument, subject: string): boolean {
  const known = enrolmentOf(doc, subject)
  return known !== null && waitsToBeSent(known.evidence)
}

/** Judges what was heard for one target: accept, ask for the loop, query, or refuse with the reason. */
export function judgeHeard(
  doc: JobDocument,
  catalogue: Catalogue,
  target: Target,
  heard: Transmission,
  elsewhere: readonly { serial: string; job: string }[] | null,
): Judgement {
  const system = systemOf(doc, catalogue)
  const item = system.byId.get(target.device.id)
  if (!item?.family) return refuse('wired', 'This device has no radio.')
  const id = groupId(item.family, heard.serial)
  const { sticker } = target.device
  const owner = ownerOf(system, heard.serial)
  if (owner && owner.device.id !== target.device.id)
    return refuse(
      'other-device',
      `${groupId(owner.family, heard.serial)} is the ${owner.model.name}${owner.device.room ? ` in ${owner.device.room}` : ''}, not this device.`,
    )
  if (heard.family !== item.family.id) {
    const plainTwin = item.model.encryption === 'always' && !heard.encrypted
    return plainTwin
      ? refuse('plain', `${id} sends plain; the plan has the encrypted ${item.model.name} here.`)
      : refuse(
          'family',
          `${id} speaks ${catalogue.get('family', heard.family)?.name ?? 'another language'}; ${item.model.name} speaks ${item.family.name}.`,
        )
  }
  const duplicate = duplicateOf(doc, system, target, heard)
  if (duplicate) return duplicate
  if (sticker !== null && sticker !== heard.serial)
    return notItsSticker(system, target, heard, sticker, item.family)
  if (heard.deviceClass !== item.model.class)
    return refuse('class', `${id} says it is a ${heard.deviceClass}; a ${item.model.class} is planned here.`)
  if (heard.cause === 'check-in')
    return refuse('check-in', `${id} only checked in: trip it, so that its event is learned.`)
  if (heard.cause === 'tamper')
    return {
      kind: 'ask-loop',
      reason: `${id} sent its tamper: the panel now knows the device but not the event. State the loop.`,
    }
  if (target.loop && heard.loop !== null && heard.loop !== target.loop.loop)
    return refuse(
      'loop',
      `${id} tripped loop ${heard.loop}; ${target.name} is the ${target.loop.name}, loop ${target.loop.loop}. Trip that one.`,
    )
  const used = elsewhere?.find((use) => use.serial === heard.serial)
  if (used)
    return {
      kind: 'query',
      code: 'elsewhere',
      reason: `${id} is enrolled in the job “${used.job}”. A sensor that was moved here, or an old job of the same house? Accept it only if you know which.`,
    }
  if (sticker === null) {
    const near = nearby(system, target, heard.serial, item.family, elsewhere)
    return {
      kind: 'query',
      code: near === '' ? 'no-sticker' : 'look-alike',
      reason: `No sticker ID is noted for this device. Read its sticker: is it ${id}?${near} Strength alone never decides.`,
    }
  }
  return {
    kind: 'accept',
    reason: `${id} is the sticker’s ID${heard.loop === null ? '' : `, loop ${heard.loop}`}.`,
  }
}

/** What was heard is not what the noted sticker says: how near it comes, and to what, decides where to look. */
function notItsSticker(
  system: System,
  target: Target,
  heard: Transmission,
  sticker: string,
  family: Family,
): Judgement {
  const id = groupId(family, heard.serial)
  const own = groupId(family, sticker)
  const alike = lookAlike(heard.serial, sticker)
  if (alike)
    return refuse(
      'look-alike',
      `${id} is nearly the sticker’s ${own}: ${lookAlikeWords(alike, 'on the sticker')}. A mistyped sticker, or another device: read it again.`,
    )
  return refuse(
    'foreign',
    `${id} is on no sticker of this job: a neighbour’s device, or a mistyped sticker (this one says ${own}).${nearby(system, target, heard.serial, family, null)}`,
  )
}

/** Another device of this job, or of the firm's other jobs, whose ID is nearly this one; empty when there is none. */
function nearby(
  system: System,
  target: Target,
  serial: string,
  family: Family,
  elsewhere: readonly { serial: string; job: string }[] | null,
): string {
  for (const { device, model } of system.devices) {
    if (device.id === target.device.id || device.sticker === null) continue
    const alike = lookAlike(serial, device.sticker)
    if (alike)
      return ` It is nearly that of the ${model.name}${device.room ? ` in ${device.room}` : ''}, ${groupId(family, device.sticker)}: ${lookAlikeWords(alike, 'there')}.`
  }
  for (const use of elsewhere ?? []) {
    const alike = lookAlike(serial, use.serial)
    if (alike)
      return ` It is nearly ${groupId(family, use.serial)} of the job “${use.job}”: ${lookAlikeWords(alike, 'there')}.`
  }
  return ''
}

/** Judges a typed or scanned ID for one target, as if it had been heard with the right event. */
export function judgeTyped(
  doc: JobDocument,
  catalogue: Catalogue,
  target: Target,
  serial: string,
  elsewhere: readonly { serial: string; job: string }[] | null,
): Judgement {
  const item = systemOf(doc, catalogue).byId.get(target.device.id)
  if (!item?.family) return refuse('wired', 'This device has no radio.')
  const heard: Transmission = {
    id: 'typed',
    atMs: 0,
    serial,
    family: item.family.id,
    encrypted: item.model.encryption === 'always',
    cause: 'event',
    loop: target.loop?.loop ?? null,
    level: 0,
    deviceClass: item.model.class,
  }
  const judgement = judgeHeard(doc, catalogue, target, heard, elsewhere)
  if (judgement.kind === 'query' && judgement.code === 'elsewhere') return judgement
  if (judgement.kind === 'query')
    return {
      kind: 'query',
      code: 'typed-only',
      reason: `${groupId(item.family, serial)} is typed only: no sticker is noted to compare it with, and nothing was heard. A trip must prove it.${nearby(systemOf(doc, catalogue), target, serial, item.family, elsewhere)}`,
    }
  return judgement.kind === 'accept'
    ? {
        kind: 'accept',
        reason: `${groupId(item.family, serial)} is what the noted sticker says; typed, not heard.`,
      }
    : judgement
}

/** How often the air brought the same ID with the same cause and loop as this transmission, itself counted. */
export function timesHeard(air: readonly Transmission[], heard: Transmission): number {
  const same = (other: Transmission): boolean =>
    other.serial === heard.serial && other.cause === heard.cause && other.loop === heard.loop
  return air.filter(same).length
}

/** Whether any event of a device is of life safety: smoke, heat, gas, and the like. */
export function isOfLifeSafety(model: DeviceModel): boolean {
  return model.loops.some((loop) => isLifeSafety(kindOf(loop.event)))
}

/**
 * Whether a second transmission is to confirm a device, by the house rule; the model’s own policy decides its class. `school` is
 * what holds for the job, `firm` what the firm's house rule says: a job's departure never loosens it for life safety.
 */
export function wantsConfirming(
  model: DeviceModel,
  school: Schools['confirm'],
  firm: Schools['confirm'] = school,
): boolean {
  if (isOfLifeSafety(model) && askedBy(model, firm)) return true
  return askedBy(model, school)
}

function askedBy(model: DeviceModel, school: Schools['confirm']): boolean {
  if (school !== 'by-class') return school === 'always'
  return model.confirm ?? (model.class === 'contact' || model.class === 'motion')
}

/** The open target that a transmission belongs to: its device by the sticker, its event by the loop; null when none. */
export function targetOf(targets: readonly Target[], heard: Transmission): Target | null {
  const mine = targets.filter((target) => !target.done && knownAs(targets, target.device) === heard.serial)
  return (
    mine.find((target) => target.loop?.loop === heard.loop) ??
    (heard.cause === 'tamper' || heard.cause === 'button' ? (mine[0] ?? null) : null)
  )
}

/** The serial of a sister zone of the same device, for an event that cannot be tripped on the bench; null when none is learned. */
export function sisterSerial(doc: JobDocument, target: Target): string | null {
  const sister = recordsOf(doc, 'zone').find(
    (zone) => zone.device === target.device.id && zone.id !== target.id && isEnrolled(doc, zone.id),
  )
  return sister ? learnedSerial(doc, sister.id) : null
}

/** What was heard, typed or taken from a sister for a target, before anybody says who made it and when. */
export interface HeardFacts {
  readonly serial: string
  readonly family: string
  readonly cause: string
  readonly loop: number | null
  readonly level: number | null
  readonly source: Heard['source']
}

/**
 * The record of a decision on what was heard: a piece of evidence, with a copy of the zone or device that it is for. Once
 * accepted, the target is enrolled by it. The noted sticker stays as it is: what was heard or typed is never written in as
 * the sticker that it would then be compared with.
 */
export function heardRecord(
  doc: JobDocument,
  opts: {
    readonly id: string
    readonly target: Target
    readonly facts: HeardFacts
    readonly decision: Heard['decision']
    readonly code: string
    readonly reason: string
    readonly who: Person
    readonly at: string
  },
): Heard {
  const { id, target, facts, decision, code, reason, who, at } = opts
  return {
    ...freshEvidence(who, at),
    id,
    type: 'heard',
    serial: facts.serial,
    family: facts.family,
    cause: facts.cause,
    level: facts.level,
    source: facts.source,
    loop: learnedLoop(target, facts.loop),
    decision,
    code,
    reason: reason.slice(0, 300),
    subject: target.id,
    of: asItIs(doc, target.id),
  }
}

/** The plan's edit that an acceptance causes: the zone takes the loop of its event, where it had another. */
export function loopOps(target: Target): Op[] {
  const { zone, loop } = target
  return zone && loop && zone.loop !== null && zone.loop !== loop.loop ? [setOp(zone, 'loop', loop.loop)] : []
}

/** What a panel that tells no loops learns of one is none; else it is the loop of the planned event. */
function learnedLoop({ zone, loop }: Target, heard: number | null): number | null {
  if (!zone) return heard
  return zone.loop === null ? null : (loop?.loop ?? heard)
}

/** The ID a device goes by: its sticker's, else the one that a zone of it has learned. */
function knownAs(targets: readonly Target[], device: Device): string | null {
  return device.sticker ?? targets.find((item) => item.device.id === device.id && item.serial)?.serial ?? null
}

function duplicateOf(
  doc: JobDocument,
  system: System,
  target: Target,
  heard: Transmission,
): Judgement | null {
  const loop = target.loop?.loop ?? null
  const zone = recordsOf(doc, 'zone').find(
    (other) =>
      other.id !== target.id &&
      isEnrolled(doc, other.id) &&
      learnedSerial(doc, other.id) === heard.serial &&
      other.loop === loop &&
      other.device !== target.device.id,
  )
  if (zone)
    return refuse(
      'duplicate',
      `This ID and loop are enrolled on zone ${printNumber(system.panel, zone.number)} already.`,
    )
  const slot = system.devices.find(
    (other) =>
      other.device.id !== target.device.id &&
      isEnrolled(doc, other.device.id) &&
      learnedSerial(doc, other.device.id) === heard.serial,
  )
  return slot
    ? refuse('duplicate', `This ID is enrolled as ${slot.model.slot} ${slot.device.slot ?? ''} already.`)
    : null
}

function ownerOf(system: System, serial: string) {
  return system.devices.find((item) => item.device.sticker === serial) ?? null
}

function refuse(code: string, reason: string): Judgement {
  return { kind: 'refuse', code, reason }
}
