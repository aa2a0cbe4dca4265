import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, Family } from '../catalogue/schema.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { JobInfo, Tried } from '../job/records.ts'
import { weightsHold } from '../identity/sticker.ts'
import { seededRandom, type Random } from '../units/random.ts'
import { deviceSerial } from '../job/enrolment.ts'
import { leftInPanel } from '../job/left-in-panel.ts'

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
  readonly cause: 'event' | 'tamper' | 'button' | 'power-up' | 'check-in'
  /** Loop that was tripped; null for a tamper or check-in. */
  readonly loop: number | null
  /** Level at the receiver, in the family's reading steps; weak ones are often far away. */
  readonly level: number
  /** Whether it says that its battery is low. */
  readonly lowBattery: boolean
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
  /** Level at the receiver, in the family's reading steps. */
  readonly level: number
  readonly lowBattery: boolean
  /** Whether it sends in a slot: one may be silent at first, or sleep between two trips. */
  readonly sendsIn: (slot: number) => boolean
}

/** One slot of the simulated air, in milliseconds: it carries at most one transmission. */
const SLOT_MS = 3_000

/**
 * What a practice job's air carries between two moments after listening began: the job's own devices as someone trips them one
 * after the other, neighbours' devices, tampers and check-ins; nothing in a real job. A pure function of seed, devices and time,
 * so that two browsers hear the same and a test sets the time.
 */
export function transmissions(
  { doc, catalogue }: JobAndCatalogue,
  fromMs: number,
  toMs: number,
): Transmission[] {
  const info = jobInfo(doc)
  if (!info.practice) return []
  const senders = sendersOf(doc, catalogue, info)
  if (senders.length === 0) return []
  const found: Transmission[] = []
  const first = Math.max(0, Math.floor(fromMs / SLOT_MS) - 1)
  for (let slot = first; slot * SLOT_MS < toMs; slot++)
    for (const sent of inSlot(senders, info, slot))
      if (sent.atMs >= fromMs && sent.atMs < toMs) found.push(sent)
  return found
}

/** What one slot carries; which one depends on seed, slot and senders only. */
function inSlot(
  senders: readonly Sender[],
  { airSeed, exercise }: Pick<JobInfo, 'airSeed' | 'exercise'>,
  slot: number,
): readonly Transmission[] {
  const random = seededRandom((airSeed ^ Math.imul(slot + 1, 0x9e3779b1)) >>> 0)
  const own = senders.filter((sender) => sender.near)
  const dice = random()
  const foreign = senders.filter((sender) => !sender.near)
  // Own devices take their turn, each twice as for a confirmation; between them others are heard.
  const turn = own.length > 0 && dice < 0.75 ? own[Math.floor(slot / 2) % own.length] : undefined
  const sender = turn ?? foreign[Math.floor(random() * foreign.length)]
  if (!sender?.sendsIn(slot)) return []
  // More than two seconds lie between one slot's and the next's: only what an exercise wants to clash does.
  const atMs = slot * SLOT_MS + Math.floor(random() * 900)
  const first = sent(sender, { id: `air-${airSeed}-${slot}`, atMs }, random)
  const clash = exercise === 'surprises' && random() < 0.12
  const other = clash ? senders[Math.floor(random() * senders.length)] : undefined
  if (!other?.sendsIn(slot) || other === sender) return [first]
  return [
    first,
    sent(other, { id: `air-${airSeed}-${slot}-2`, atMs: atMs + Math.floor(random() * 400) }, random),
  ]
}

interface Moment {
  readonly id: string
  readonly atMs: number
}

function sent(sender: Sender, { id, atMs }: Moment, random: Random): Transmission {
  const cause = causeOf(sender, random)
  const loop =
    cause === 'event' || cause === 'button'
      ? (sender.loops[Math.floor(random() * sender.loops.length)] ?? null)
      : null
  return {
    id,
    atMs,
    serial: sender.serial,
    family: sender.family.id,
    encrypted: sender.model.encryption === 'always',
    cause: loop === null && cause === 'event' ? 'check-in' : cause,
    loop,
    level: sender.level,
    lowBattery: sender.lowBattery,
    deviceClass: sender.model.class,
  }
}

function causeOf(sender: Sender, random: Random): Transmission['cause'] {
  const dice = random()
  if (!sender.near) return dice < 0.6 ? 'check-in' : 'event'
  const [first] = sender.model.ways
  if (sender.model.slot !== 'none' || sender.model.class === 'repeater')
    return first?.sends === 'power-up' ? 'power-up' : 'button'
  const tampers = sender.model.ways.some((way) => way.sends === 'tamper')
  if (tampers && dice < 0.2) return 'tamper'
  return dice < 0.3 ? 'check-in' : 'event'
}

/** The job's radio devices, and three of the neighbours' on each family the panel hears. */
function sendersOf(
  doc: JobDocument,
  catalogue: Catalogue,
  { airSeed, exercise }: Pick<JobInfo, 'airSeed' | 'exercise'>,
): Sender[] {
  const system = systemOf(doc, catalogue)
  const surprises = exercise === 'surprises'
  const own = system.devices.flatMap(({ device, model, family }): Sender[] => {
    if (!family || device.deferred !== null) return []
    const random = seededRandom(seedOf(airSeed, device.id))
    const invented = inventId(family, random)
    const known = device.sticker ?? deviceSerial(doc, device.id)
    const quirk = surprises ? quirkOf(random) : 'none'
    const serial = quirk === 'mistyped' && device.sticker ? misread(family, device.sticker, random) : known
    const low = quirk === 'low-battery'
    const curedAtMs = quirk === 'silent' ? curedAt(doc, device.id, cureOf(model, random)) : 0
    return [
      {
        serial: serial ?? invented,
        family,
        model,
        loops: ownLoops(doc, device.id, model),
        near: true,
        level: levelsOf(family)[low ? 'least' : 'best'],
        lowBattery: low,
        sendsIn: (slot) =>
          quirk === 'silent'
            ? slot * SLOT_MS >= curedAtMs
            : !(quirk === 'asleep' && model.class === 'motion') || slot % AWAKE_OF < 2,
      },
    ]
  })
  const random = seededRandom(airSeed)
  const heard = [
    ...new Map(
      system.receivers.flatMap((receiver) => receiver.families).map((family) => [family.id, family]),
    ).values(),
  ]
  const foreign = heard.flatMap((family) => {
    const models = catalogue
      .all('device')
      .filter((model) => model.family === family.id && model.slot === 'none')
    return [0, 1, 2].flatMap((count): Sender[] => {
      const any = models[Math.floor(random() * models.length)]
      // A neighbour may well have the very same model behind a thin wall: strength alone never decides.
      const twin = surprises && count === 0 ? own.find((sender) => sender.family.id === family.id) : undefined
      const model = twin?.model ?? any
      const loops = model?.loops.filter((loop) => loop.bench).map((loop) => loop.loop) ?? []
      if (!model) return []
      const { best, least } = levelsOf(family)
      const level = twin ? best : Math.max(1, least - 1)
      const serial = inventId(family, random)
      return [{ serial, family, model, loops, near: false, level, lowBattery: false, sendsIn: () => true }]
    })
  })
  return [...own, ...foreign, ...(surprises ? formerOwn(doc, catalogue) : [])]
}

/** Levels that the exercise makes up where the family states none. */
function levelsOf({ placement }: Family): { readonly best: number; readonly least: number } {
  const best = placement.best ?? (placement.least ?? 1) * 2
  return { best, least: placement.least ?? best / 2 }
}

/** Devices that were replaced or taken out and that nobody has taken the battery from: they go on sending until they are seen to. */
function formerOwn(doc: JobDocument, catalogue: Catalogue): Sender[] {
  const seen = new Set<string>()
  return leftInPanel(doc, catalogue).flatMap(({ evidence: { serial, of } }): Sender[] => {
    const model = catalogue.get('device', of?.model ?? null)
    const family = catalogue.get('family', model?.family ?? null)
    if (!model || !family || seen.has(serial)) return []
    seen.add(serial)
    const loops = model.loops.filter((loop) => loop.bench).map((loop) => loop.loop)
    const level = levelsOf(family).best
    return [{ serial, family, model, loops, near: false, level, lowBattery: false, sendsIn: () => true }]
  })
}

/** Of how many slots a sleeping motion is awake in two. */
const AWAKE_OF = 12

/** What makes a silent device of an exercise send: something that its model can be made to do. */
function cureOf({ ways, batteries }: DeviceModel, random: Random): Tried['rung'] {
  const cures: Tried['rung'][] = ['nearer']
  if (ways.slice(1).some(({ sends }) => sends !== 'power-up')) cures.push('other-way')
  if (batteries && ways[0]?.sends !== 'power-up') cures.push('battery')
  return cures[Math.floor(random() * cures.length)] ?? 'nearer'
}

/** When somebody first tried what cures a device, milliseconds since listening was started; Infinity while nobody did. */
function curedAt(doc: JobDocument, device: string, cure: Tried['rung']): number {
  const tries = evidenceOf(doc, 'tried').filter((one) => one.of?.device === device && one.rung === cure)
  const start = Date.parse(jobInfo(doc).airStartedAt ?? '')
  return Math.min(
    Infinity,
    ...tries.map(({ at }) => Date.parse(at) - start).filter((ms) => !Number.isNaN(ms)),
  )
}

type Quirk = 'none' | 'mistyped' | 'silent' | 'asleep' | 'low-battery'

/** What is wrong with a device of an exercise with surprises: with about half of them nothing. */
function quirkOf(random: Random): Quirk {
  const dice = random()
  if (dice < 0.15) return 'mistyped'
  if (dice < 0.25) return 'silent'
  if (dice < 0.4) return 'asleep'
  return dice < 0.55 ? 'low-battery' : 'none'
}

/** A valid ID that somebody would mistype as this sticker: one sign off, or two where a check digit must fit. */
function misread(family: Family, sticker: string, random: Random): string {
  const size = sticker.length
  for (let tries = 0; tries < 200; tries++) {
    const other = inventId(family, random)
    const at = Math.floor(random() * size)
    const wide = family.sticker.check === 'none' ? 1 : 2
    const id = sticker.slice(0, at) + other.slice(at, at + wide) + sticker.slice(at + wide)
    if (id !== sticker && (family.sticker.check === 'none' || weightsHold(id))) return id
  }
  return sticker
}

/** A seed of its own for each device of a job. */
function seedOf(seed: number, device: string): number {
  let hash = seed >>> 0
  for (const char of device) hash = Math.imul(hash ^ (char.codePointAt(0) ?? 0), 0x01000193) >>> 0
  return hash
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
