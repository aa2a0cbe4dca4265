import type { Catalogue } from '../catalogue/catalogue.ts'
import type { Family } from '../catalogue/schema.ts'
import { systemOf, type System, type JobAndCatalogue } from '../system/system.ts'
import { belongs, lookAlike, lookAlikeWords } from '../identity/look-alike.ts'
import { groupId, readSticker } from '../identity/sticker.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { deviceSerial, isEnrolled, learnedSerial, NO_STICKER } from '../job/enrolment.ts'
import { formerOf, leftInPanel, occupantOf, type LeftInPanel } from '../job/left-in-panel.ts'
import { printNumber } from '../zones/numbers.ts'
import type { Transmission } from './air.ts'
import type { Target } from './learn.ts'

/** What to make of a transmission for a target. */
export type Judgement =
  | { readonly kind: 'accept'; readonly reason: string }
  | { readonly kind: 'ask-loop'; readonly reason: string }
  | { readonly kind: 'query'; readonly code: string; readonly reason: string }
  | { readonly kind: 'refuse'; readonly code: string; readonly reason: string }

/** Why it is asked where a device without a noted sticker was enrolled by another ID before. */
const READ_OTHERWISE = 'read-otherwise'

/** What one listens for, and what the firm’s other jobs know of IDs nearly the one heard; null while that is not known. */
export interface Listening {
  readonly doc: JobDocument
  readonly catalogue: Catalogue
  readonly target: Target
  readonly elsewhere: readonly { serial: string; job: string }[] | null
}

/** Judges what was heard for one target: accept, ask for the loop, query, or refuse with the reason. */
// eslint-disable-next-line complexity -- one guard per fact, read from top to bottom
export function judgeHeard({ doc, catalogue, target, elsewhere }: Listening, heard: Transmission): Judgement {
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
  const duplicate = duplicateOf({ doc, system, target }, heard)
  if (duplicate) return duplicate
  const before = ofBefore({ doc, catalogue, target, elsewhere }, heard.serial)
  if (before) return before
  if (sticker !== null && target.device.stickerUnsure)
    return refuse(
      'sticker-unsure',
      `The noted sticker ${groupId(item.family, sticker)} was written in from a typed ID, so it compares with itself. Read the sticker off the device and note it first.`,
    )
  if (sticker !== null && sticker !== heard.serial)
    return notItsSticker({ system, target, family: item.family }, heard, sticker)
  if (heard.deviceClass !== item.model.class)
    return refuse('class', `${id} says it is a ${heard.deviceClass}; a ${item.model.class} is planned here.`)
  if (heard.cause === 'check-in')
    return refuse('check-in', `${id} only checked in: trip it, so that its event is learned.`)
  if (heard.cause === 'tamper' && target.zone)
    return {
      kind: 'ask-loop',
      reason: `${id} sent its tamper: the panel now knows the device but not the event. State the loop.`,
    }
  const { loops } = item.model
  if (target.loop && heard.loop !== null && !loops.some(({ loop }) => loop === heard.loop))
    return refuse(
      LOOP_UNTOLD,
      `${id} showed loop ${heard.loop}, which the entry of the ${item.model.name} does not have: it says ${loops.map(({ loop, name }) => `${loop} ${name}`).join(', ')}. ${
        sticker === null
          ? 'Note its sticker first: another device may have been heard.'
          : 'Trip it once more; if the panel shows the same again, its entry is to be corrected.'
      }`,
    )
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
  const known = sticker === null ? deviceSerial(doc, target.device.id) : null
  if (known !== null && known !== heard.serial)
    return {
      kind: 'query',
      code: READ_OTHERWISE,
      reason: `${groupId(item.family, known)} was enrolled for this device before, and no sticker is noted: now it is ${id}. One of the two readings is of another device, or was misread. Trip this device alone once more, or note its sticker; accept ${id} only if it replaces ${groupId(item.family, known)}.`,
    }
  if (sticker === null) {
    const near = nearby({ system, target, family: item.family }, heard.serial, elsewhere)
    return {
      kind: 'query',
      code: near === '' ? NO_STICKER : 'look-alike',
      reason: `No sticker is noted for this device. Read it and note it: is it ${id}? Where it cannot be read, trip the device alone twice; the armed trip at its place then settles it.${near}`,
    }
  }
  return {
    kind: 'accept',
    reason: `${id} is the sticker’s ID${heard.loop === null ? '' : `, loop ${heard.loop}`}.`,
  }
}

/** What the panel holds of before: in this very place, by this very ID elsewhere, or a device that was replaced and still sends. */
function ofBefore({ doc, catalogue, target }: Listening, serial: string): Judgement | null {
  const nameOf = ({ evidence }: LeftInPanel): string =>
    [catalogue.nameOf(evidence.of?.model ?? null), evidence.of?.room].filter(Boolean).join(' in ')
  const idOf = (id: string): string =>
    groupId(systemOf(doc, catalogue).byId.get(target.device.id)?.family ?? null, id)
  const occupant = occupantOf(doc, catalogue, target.id)
  if (occupant)
    return refuse(
      'occupied',
      `In the panel ${target.name} is still the ${nameOf(occupant)}, ${idOf(occupant.evidence.serial)}. Delete that there first, and note it above.`,
    )
  const same = leftInPanel(doc, catalogue).find(({ evidence }) => evidence.serial === serial)
  if (same)
    return refuse(
      'still-there',
      `The panel still knows ${idOf(serial)} in another place. Delete that there first, and note it above: no panel takes one ID twice.`,
    )
  const former = formerOf(doc, serial)
  if (!former?.of || former.of.device === target.device.id) return null
  return refuse(
    'former',
    `${idOf(serial)} is the ${catalogue.nameOf(former.of.model)}${former.of.room ? ` in ${former.of.room}` : ''} that was learned here and is in the plan no more: it still transmits. Take its battery out.`,
  )
}

interface Aim {
  readonly system: System
  readonly target: Target
  readonly family: Family
}

/** What was heard is not what the noted sticker says: how near it comes, and to what, decides where to look. */
function notItsSticker({ system, target, family }: Aim, heard: Transmission, sticker: string): Judgement {
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
    `${id} is on no sticker of this job: a neighbour’s device, or a mistyped sticker (this one says ${own}).${nearby({ system, target, family }, heard.serial, null)}`,
  )
}

/** Another device of this job, or of the firm's other jobs, whose ID is nearly this one; empty when there is none. */
function nearby(
  { system, target, family }: Aim,
  serial: string,
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
export function judgeTyped({ doc, catalogue, target, elsewhere }: Listening, serial: string): Judgement {
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
    lowBattery: false,
    deviceClass: item.model.class,
  }
  const judgement = judgeHeard({ doc, catalogue, target, elsewhere }, heard)
  if (judgement.kind === 'query' && ['elsewhere', READ_OTHERWISE].includes(judgement.code)) return judgement
  if (judgement.kind === 'query')
    return {
      kind: 'query',
      code: 'typed-only',
      reason: `${groupId(item.family, serial)} is typed only: no sticker is noted to compare it with, and nothing was heard. A trip must prove it.${nearby({ system: systemOf(doc, catalogue), target, family: item.family }, serial, elsewhere)}`,
    }
  return judgement.kind === 'accept'
    ? {
        kind: 'accept',
        reason: `${groupId(item.family, serial)} is what the noted sticker says; typed, not heard.`,
      }
    : judgement
}

/** What the panel's display showed of a transmission, as somebody reads it off. */
export interface Displayed {
  /** The ID, or its last signs, as typed. */
  readonly signs: string
  /** What made the device send. */
  readonly cause: Exclude<Transmission['cause'], 'check-in'>
  /** The loop that the display shows; null where it shows none. */
  readonly loop: number | null
}

/** Signs of the display that suffice, unless another known ID ends so too. */
const LAST_SIGNS = 4

/** What a display reading comes to: what is wrong with the typing, or the transmission that it stands for. */
export type DisplayReading =
  | { readonly ok: false; readonly reason: string }
  | {
      readonly ok: true
      readonly heard: Transmission
      /** The signs shown, where they are fewer than the ID; null where all were. */
      readonly shown: string | null
      readonly judgement: Judgement
    }

/**
 * Judges what the panel's display shows for one target. The last four signs, typed blind, suffice where the sticker is noted and
 * no other known ID ends so; without a sticker the whole ID is asked.
 */
export function judgeDisplayed(
  { doc, catalogue, target, elsewhere }: Listening,
  displayed: Displayed,
): DisplayReading {
  const system = systemOf(doc, catalogue)
  const item = system.byId.get(target.device.id)
  if (!item?.family) return { ok: false, reason: 'This device has no radio.' }
  const { family, model } = item
  const { sticker } = target.device
  const read = readTail(family, displayed.signs)
  if (!read.ok) return read
  const heard = (serial: string): Transmission => ({
    ...{ id: 'display', atMs: 0, serial, family: family.id, encrypted: model.encryption === 'always' },
    ...{ cause: displayed.cause, loop: displayed.loop, level: 0, lowBattery: false },
    deviceClass: model.class,
  })
  if (read.whole)
    return {
      ok: true,
      heard: heard(read.signs),
      shown: null,
      judgement: judgeHeard({ doc, catalogue, target, elsewhere }, heard(read.signs)),
    }
  if (sticker === null)
    return {
      ok: false,
      reason: `No sticker is noted to compare it with: note the sticker first, or type the whole ID that the display shows.`,
    }
  const shown = read.signs
  const judged = (judgement: Judgement): DisplayReading => ({
    ok: true,
    heard: heard(sticker),
    shown,
    judgement,
  })
  if (!sticker.endsWith(shown))
    return judged(
      refuse(
        'foreign',
        `The display shows … ${shown}, and this sticker ends in ${sticker.slice(-shown.length)}.${endingSo({ doc, system, target, elsewhere }, shown)} Another device was learned, or the sticker is mistyped: take what was learned out of the panel and compare again.`,
      ),
    )
  const sharing = othersEnding({ doc, system, target, elsewhere }, shown)
  if (sharing)
    return {
      ok: false,
      reason: `${sharing.whose} ends in ${shown} too: type at least the last ${sharing.need} signs.`,
    }
  return judged(judgeHeard({ doc, catalogue, target, elsewhere }, heard(sticker)))
}

/** The last signs of an ID, or all of it, as typed. */
function readTail(
  family: Family,
  text: string,
):
  | { readonly ok: true; readonly signs: string; readonly whole: boolean }
  | { readonly ok: false; readonly reason: string } {
  const size = family.sticker.idTo - family.sticker.idFrom + 1
  const signs = text.replace(/[\s\-–·.…]/g, '').toUpperCase()
  if (signs.length >= size) {
    const read = readSticker(family, text.replace(/…/g, ''))
    return read.ok ? { ok: true, signs: read.serial, whole: true } : read
  }
  const wrong = [...signs].find(
    (sign, index) => !belongs(family.sticker.alphabet, sign, size - signs.length + index),
  )
  if (wrong !== undefined)
    return {
      ok: false,
      reason: `“${wrong}” stands in no ${family.name} ID at that place. Read the display again.`,
    }
  if (signs.length < LAST_SIGNS)
    return {
      ok: false,
      reason: `Type at least the last ${LAST_SIGNS} of the ${size} signs that the display shows.`,
    }
  return { ok: true, signs, whole: false }
}

interface Known {
  readonly doc: JobDocument
  readonly system: System
  readonly target: Target
  readonly elsewhere: readonly { serial: string; job: string }[] | null
}

/** Another known ID that ends so too, and how many signs tell them apart; null when there is none. */
function othersEnding(
  { doc, system, target, elsewhere }: Known,
  shown: string,
): { readonly whose: string; readonly need: number } | null {
  const sticker = target.device.sticker ?? ''
  let found: { readonly whose: string; readonly need: number } | null = null
  for (const { serial, whose } of knownIds({ doc, system, target, elsewhere })) {
    if (serial === sticker || !serial.endsWith(shown)) continue
    let need = shown.length + 1
    while (need < sticker.length && serial.endsWith(sticker.slice(-need))) need += 1
    if (!found || need > found.need) found = { whose, need }
  }
  return found
}

/** Whose ID ends as the display shows, in words; empty when nobody's known does. */
function endingSo({ doc, system, target, elsewhere }: Known, shown: string): string {
  const ending = knownIds({ doc, system, target, elsewhere }).find(({ serial }) => serial.endsWith(shown))
  return ending ? ` It is how ${ending.whose} ends.` : ''
}

/** Every ID of other devices that is known here: noted, learned, or of the firm's other jobs. */
function knownIds({
  doc,
  system,
  target,
  elsewhere,
}: Known): readonly { readonly serial: string; readonly whose: string }[] {
  const others = system.devices.filter(({ device }) => device.id !== target.device.id)
  const named = others.flatMap(({ device, model, family }) => {
    const whose = (serial: string): string =>
      `${groupId(family, serial)}, the ${model.name}${device.room ? ` in ${device.room}` : ''},`
    const ids = [device.sticker, deviceSerial(doc, device.id)].filter((serial) => serial !== null)
    return ids.map((serial) => ({ serial, whose: whose(serial) }))
  })
  return [
    ...named,
    ...(elsewhere ?? []).map(({ serial, job }) => ({ serial, whose: `${serial} of the job “${job}”` })),
  ]
}

/** Two transmissions nearer than this may be one act on two devices, or two acts at once, ms. */
const CLASH_MS = 2_000

/** Another ID that sent at about the same time: then neither is taken. Check-ins come by themselves and clash with nothing. */
export function clashWith(air: readonly Transmission[], heard: Transmission): Transmission | null {
  if (heard.cause === 'check-in') return null
  return (
    air.find(
      (other) =>
        other.serial !== heard.serial &&
        other.cause !== 'check-in' &&
        Math.abs(other.atMs - heard.atMs) < CLASH_MS,
    ) ?? null
  )
}

/** Refuses a transmission that another clashed with, and says which of them belongs where. */
export function judgeClash(
  { doc, catalogue }: JobAndCatalogue,
  heard: Transmission,
  other: Transmission,
): Judgement {
  const system = systemOf(doc, catalogue)
  const words = ({ serial, family }: Transmission): string => {
    const id = groupId(catalogue.get('family', family), serial)
    const owner = ownerOf(system, serial)
    return owner
      ? `${id} is the ${owner.model.name}${owner.device.room ? ` in ${owner.device.room}` : ''}`
      : `${id} is on no sticker of this job`
  }
  return refuse(
    'clash',
    `Two sent at once, so neither is taken: ${words(heard)}; ${words(other)}. Trip one alone.`,
  )
}

function duplicateOf(
  { doc, system, target }: Omit<Known, 'elsewhere'>,
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

/** Why a device is refused that shows a loop which its entry lacks: then the entry may be wrong. */
export const LOOP_UNTOLD = 'loop-untold'

function refuse(code: string, reason: string): Judgement {
  return { kind: 'refuse', code, reason }
}
