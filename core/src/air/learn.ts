import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, LoopEvent } from '../catalogue/schema.ts'
import { systemOf } from '../system/system.ts'
import type { Schools } from '../house-rules/house-rules.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { setOp, type Op } from '../job/edit.ts'
import { enrolmentOf, isEnrolled, learnedSerial, waitsToBeSent, type KnownBy } from '../job/enrolment.ts'
import { asItIs, freshEvidence } from '../job/evidence.ts'
import type { LeftInPanel } from '../job/left-in-panel.ts'
import type { Device, Heard, Zone } from '../job/records.ts'
import type { Person } from '../records/fields.ts'
import { isOfLifeSafety } from '../response/advise.ts'
import { printNumber } from '../zones/numbers.ts'
import type { Transmission } from './air.ts'

/** What is to be enrolled next: a zone, a fob, keypad or siren in its slot, or a repeater. */
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
  /** How that ID is known; null for none. */
  readonly how: KnownBy | null
  /** True for an event that cannot be tripped on the bench: it is typed from its sister's serial. */
  readonly sister: boolean
}

/** Everything to enrol, in number order, but what is left as programmed; slots and repeaters behind the zones. */
export function targetsOf(doc: JobDocument, catalogue: Catalogue): Target[] {
  const system = systemOf(doc, catalogue)
  const known = (id: string) => ({
    id,
    done: isEnrolled(doc, id),
    waits: waits(doc, id),
    serial: learnedSerial(doc, id),
    how: enrolmentOf(doc, id)?.how ?? null,
  })
  const zones = recordsOf(doc, 'zone').flatMap((zone): Target[] => {
    const item = zone.device === null ? undefined : system.byId.get(zone.device)
    if (!item?.family || zone.asProgrammed) return []
    const loop = item.model.loops.find((entry) => entry.event === zone.event) ?? null
    const name = `zone ${printNumber(system.panel, zone.number)}`
    const sister = loop !== null && !loop.bench
    return [{ ...known(zone.id), device: item.device, zone, loop, name, sister }]
  })
  let repeaters = 0
  const others = system.devices.flatMap(({ device, model, family }): Target[] => {
    const zoned = recordsOf(doc, 'zone').some((zone) => zone.device === device.id)
    if (!family || zoned || device.deferred !== null) return []
    const name =
      model.class === 'repeater'
        ? `repeater ${(repeaters += 1)}`
        : model.slot !== 'none' && device.slot !== null
          ? `${model.slot} ${device.slot}`
          : null
    if (name === null) return []
    return [{ ...known(device.id), device, zone: null, loop: null, name, sister: false }]
  })
  return [...zones, ...others]
}

function waits(doc: JobDocument, subject: string): boolean {
  const known = enrolmentOf(doc, subject)
  return known !== null && waitsToBeSent(known.evidence)
}

/** How often the air brought the same ID with the same cause and loop as this transmission, itself counted. */
export function timesHeard(air: readonly Transmission[], heard: Transmission): number {
  const same = (other: Transmission): boolean =>
    other.serial === heard.serial && other.cause === heard.cause && other.loop === heard.loop
  return air.filter(same).length
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
    (heard.cause === 'event' || heard.cause === 'check-in' ? null : (mine[0] ?? null))
  )
}

/**
 * The serial of a sister zone of the same device, for an event that cannot be tripped on the bench; null when none is learned. An
 * ID is typed whole: a sister of which the display showed the last signs only cannot lend it, for the rest was never compared.
 */
export function sisterSerial(doc: JobDocument, target: Target): string | null {
  const sister = recordsOf(doc, 'zone').find((zone) => {
    const known = enrolmentOf(doc, zone.id)
    return (
      zone.device === target.device.id &&
      zone.id !== target.id &&
      isEnrolled(doc, zone.id) &&
      known?.evidence.shown === null
    )
  })
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
  readonly shown?: string | null
  readonly times?: number | null
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
    shown: facts.shown ?? null,
    times: facts.times ?? null,
    loop: learnedLoop(target, facts.loop),
    decision,
    code,
    reason: reason.slice(0, 300),
    subject: target.id,
    of: asItIs(doc, target.id),
  }
}

/** The record that what the panel knew of before is deleted there: a step that is kept, by who did it. */
export function deletedRecord(
  { evidence }: LeftInPanel,
  made: { readonly id: string; readonly who: Person; readonly at: string; readonly source: Heard['source'] },
): Heard {
  return {
    ...evidence,
    ...freshEvidence(made.who, made.at),
    id: made.id,
    ...{ cause: 'deleted', level: null, source: made.source, shown: null, times: null },
    ...{ decision: 'released', code: 'deleted', reason: 'Deleted at the panel: it is not there any more.' },
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
