import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, Family } from '../catalogue/schema.ts'
import { systemOf } from '../fit/system.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import { seededRandom, type Random } from '../units/random.ts'
import { deviceSerial } from '../job/enrolment.ts'

/** One transmission on the simulated air. */
export interface Transmission {
  /** Stable id: the same seed and moment give the same. */
  readonly id: string
  /** Milliseconds since listening was started. */
  readonly atMs: number
  readonly serial: string
  readonly family: string
  readonly encrypted: boolean
  /** What caused it: an event, a tamper, a button, or only a check-in. */
  readonly cause: 'event' | 'tamper' | 'button' | 'check-in'
  /** Loop that was tripped; null for a tamper or check-in. */
  readonly loop: number | null
  /** Level at the receiver, in the family's reading steps; weak ones are often far away. */
  readonly level: number
  /** Class as the transmission tells it. */
  readonly deviceClass: string
}

/** A transmitter within range, of this job or of somebody else. */
interface Sender {
  readonly serial: string
  readonly family: Family
  readonly model: DeviceModel
  /** Loops that somebody may trip: of the job's own devices those that have a zone. */
  readonly loops: readonly number[]
  readonly near: boolean
}

/** One slot of the simulated air, in milliseconds: it carries at most one transmission. */
const SLOT_MS = 3_000

/**
 * What the air carries between two moments after listening began: the job's own devices as someone trips them one after
 * the other, neighbours' devices, tampers and check-ins. A pure function of seed, devices and time, so that two browsers
 * hear the same and a test sets the time.
 */
export function transmissions(
  doc: JobDocument,
  catalogue: Catalogue,
  fromMs: number,
  toMs: number,
): Transmission[] {
  const info = jobInfo(doc)
  const senders = sendersOf(doc, catalogue, info.airSeed)
  if (senders.length === 0) return []
  const found: Transmission[] = []
  const first = Math.max(0, Math.floor(fromMs / SLOT_MS) - 1)
  for (let slot = first; slot * SLOT_MS < toMs; slot++) {
    const sent = inSlot(senders, info.airSeed, slot)
    if (sent && sent.atMs >= fromMs && sent.atMs < toMs) found.push(sent)
  }
  return found
}

/** What one slot carries; which one depends on seed, slot and senders only. */
function inSlot(senders: readonly Sender[], seed: number, slot: number): Transmission | null {
  const random = seededRandom((seed ^ Math.imul(slot + 1, 0x9e3779b1)) >>> 0)
  const own = senders.filter((sender) => sender.near)
  const dice = random()
  const foreign = senders.filter((sender) => !sender.near)
  // Own devices take their turn, each twice as for a confirmation; between them others are heard.
  const turn = own.length > 0 && dice < 0.75 ? own[Math.floor(slot / 2) % own.length] : undefined
  const sender = turn ?? foreign[Math.floor(random() * foreign.length)]
  if (!sender) return null
  const cause = causeOf(sender, random)
  const loop =
    cause === 'event' || cause === 'button'
      ? (sender.loops[Math.floor(random() * sender.loops.length)] ?? null)
      : null
  const { best, least } = sender.family.placement
  const level = sender.near ? best : Math.max(1, least - 1)
  return {
    id: `air-${seed}-${slot}`,
    atMs: slot * SLOT_MS + Math.floor(random() * 2_500),
    serial: sender.serial,
    family: sender.family.id,
    encrypted: sender.model.encryption === 'always',
    cause: loop === null && cause === 'event' ? 'check-in' : cause,
    loop,
    level,
    deviceClass: sender.model.class,
  }
}

function causeOf(sender: Sender, random: Random): Transmission['cause'] {
  const dice = random()
  if (!sender.near) return dice < 0.6 ? 'check-in' : 'event'
  if (sender.model.slot !== 'none') return 'button'
  const tampers = sender.model.ways.some((way) => way.sends === 'tamper')
  if (tampers && dice < 0.2) return 'tamper'
  return dice < 0.3 ? 'check-in' : 'event'
}

/** The job's radio devices with a sticker, and three of the neighbours' on each family the panel hears. */
function sendersOf(doc: JobDocument, catalogue: Catalogue, seed: number): Sender[] {
  const system = systemOf(doc, catalogue)
  const own = system.devices.flatMap(({ device, model, family }): Sender[] => {
    const serial = device.sticker ?? deviceSerial(doc, device.id)
    return family && serial
      ? [{ serial, family, model, loops: ownLoops(doc, device.id, model), near: true }]
      : []
  })
  const random = seededRandom(seed)
  const heard = [
    ...new Map(
      system.receivers.flatMap((receiver) => receiver.families).map((family) => [family.id, family]),
    ).values(),
  ]
  const foreign = heard.flatMap((family) => {
    const models = catalogue
      .all('device')
      .filter((model) => model.family === family.id && model.slot === 'none')
    return [0, 1, 2].flatMap((): Sender[] => {
      const model = models[Math.floor(random() * models.length)]
      const loops = model?.loops.filter((loop) => loop.bench).map((loop) => loop.loop) ?? []
      return model ? [{ serial: inventId(family, random), family, model, loops, near: false }] : []
    })
  })
  return [...own, ...foreign]
}

/** The loops of a device that somebody trips on purpose: those with a zone; of a fob in a slot every button. */
function ownLoops(doc: JobDocument, device: string, model: DeviceModel): number[] {
  const zones = recordsOf(doc, 'zone').filter((zone) => zone.device === device)
  const planned = new Set(zones.map((zone) => zone.event))
  return model.loops
    .filter((loop) => loop.bench && (zones.length === 0 || planned.has(loop.event)))
    .map((loop) => loop.loop)
}

/** An ID that fits the family's rule, check digit and all. */
export function inventId(family: Family, random: Random): string {
  const { sticker } = family
  const size = sticker.idTo - sticker.idFrom + 1
  const signs = {
    digits: '0123456789',
    hexadecimal: '0123456789ABCDEF',
    'letters-and-digits': 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789',
    'letter-then-digits': '0123456789',
  }[sticker.alphabet]
  const pick = (set: string): string => set.charAt(Math.floor(random() * set.length))
  let id = Array.from({ length: size }, (_, index) =>
    index === 0 && sticker.alphabet === 'letter-then-digits' ? pick('ABCDEFGHKLMNPRST') : pick(signs),
  ).join('')
  if (sticker.check === 'weights-3-1') {
    const body = id.slice(0, -1)
    const sum = [...body].reduce(
      (total, digit, index) => total + Number(digit) * (index % 2 === 0 ? 3 : 1),
      0,
    )
    const weight = (size - 1) % 2 === 0 ? 3 : 1
    const last =
      Array.from({ length: 10 }, (_, digit) => digit).find((digit) => (sum + digit * weight) % 10 === 0) ?? 0
    id = `${body}${last}`
  }
  return id
}
