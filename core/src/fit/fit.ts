import type { DeviceModel, Family, PanelModel } from '../catalogue/schema.ts'
import type { Device } from '../job/records.ts'
import { assignPlaces } from './assign.ts'
import { zoneLoops } from '../catalogue/zone-loops.ts'
import { kindOf } from '../response/advise.ts'
import { repeaterTrouble } from './repeaters.ts'
import type { PresentReceiver, System } from '../system/system.ts'

/** A verdict as a word: it works, it works but something is lost, it does not work, or a fact is missing. */
export type Verdict = 'works' | 'loss' | 'no' | 'unknown'

/** What one check has against a device. */
export interface FitReason {
  /** Which check speaks. */
  readonly code: FitCode
  readonly verdict: Exclude<Verdict, 'works'>
  /** One sentence with the figures used. */
  readonly text: string
}

/** What comes of fitting one device. */
export interface Fit {
  readonly verdict: Verdict
  /** Id of the receiver that takes it, or null. */
  readonly receiver: string | null
  /** The reasons against, of the receiver that comes nearest; empty when it works. */
  readonly reasons: readonly FitReason[]
}

const fitCodes = [
  'no-panel',
  'no-receiver',
  'band',
  'protocol',
  'firmware',
  'encryption',
  'encryption-optional',
  'class',
  'kind',
  'one-way',
  'region',
  'code',
  'window',
  'bridge',
  'grade',
  'check-in',
  'replay',
  'chain',
  'repeaters',
  'slots',
  'zones',
  'capacity',
] as const
/** The name of a check. */
export type FitCode = (typeof fitCodes)[number]

interface Case {
  readonly model: DeviceModel
  readonly family: Family
  readonly receiver: PresentReceiver
  readonly system: System
}

type Check = (c: Case) => Omit<FitReason, 'code'> | null

const no = (text: string) => ({ verdict: 'no', text }) as const
const loss = (text: string) => ({ verdict: 'loss', text }) as const

/*
 * The checks of one device against one receiver, in the order a practitioner asks: can it be heard at all, understood,
 * believed, and is there room. The first "no" is the answer; losses add up.
 */
const checks: readonly (readonly [FitCode, Check])[] = [
  ['band', band],
  ['protocol', protocol],
  ['firmware', firmware],
  ['encryption', encryption],
  ['class', deviceClass],
  ['kind', alarmKind],
  ['one-way', oneWay],
  ['region', region],
  ['code', equipmentCode],
  ['window', window],
  ['bridge', bridge],
  ['grade', grade],
  ['check-in', checkIn],
  ['replay', replay],
  ['encryption-optional', fallsBack],
]

/** Settings of a judgement; `without` leaves checks out, so that tests can show each one matters. */
export interface FitOptions {
  readonly without?: ReadonlySet<FitCode>
}

const fitsKept = new WeakMap<System, ReadonlyMap<string, Fit>>()

/**
 * Whether each device works with the receivers that are there, why not, and who takes it. Each transmitter is held by one
 * receiver; where they run short, the last devices of the list are the ones that do not fit.
 */
export function fitAll(system: System, options: FitOptions = {}): ReadonlyMap<string, Fit> {
  const known = options.without ? undefined : fitsKept.get(system)
  if (known) return known
  const slots = new Map<string, number>()
  const asked = system.devices.map(({ device, model, family }) => {
    const answer = optionsFor({ system, model, options }, family)
    const open = 'tries' in answer || answer.fit.verdict === 'works'
    const slot = open
      ? (chainTrouble(system, device, options) ??
        slotTrouble({ system, model, options }, slots) ??
        zoneTrouble({ system, model, options }, device.deferred, slots))
      : null
    return { id: device.id, answer: slot ? { fit: refusal(slot.code, slot.text) } : answer }
  })
  const places = assignPlaces(
    asked.map(({ id, answer }) => ({
      key: id,
      options: 'tries' in answer ? answer.tries.map((item) => item.receiver.id) : [],
    })),
    new Map(
      system.receivers.map(({ id, model }) => [
        id,
        options.without?.has('capacity') ? Infinity : model.transmitters,
      ]),
    ),
  )
  const fits = new Map(
    asked.map(({ id, answer }) => [
      id,
      'tries' in answer ? placed(answer.tries, places.get(id) ?? null) : answer.fit,
    ]),
  )
  if (!options.without) fitsKept.set(system, fits)
  return fits
}

/** How full each receiver is: transmitters it takes and holds. */
export function receiverLoad(system: System): { receiver: PresentReceiver; used: number }[] {
  const fits = [...fitAll(system).values()]
  return system.receivers.map((receiver) => ({
    receiver,
    used: fits.filter((fit) => fit.receiver === receiver.id).length,
  }))
}

/** One device against one receiver as a verdict with its reasons, capacity left aside. */
export function fitPair(c: Case, options: FitOptions = {}): { verdict: Verdict; reasons: FitReason[] } {
  const reasons = fitWith(c, options)
  return { verdict: verdictOf(reasons), reasons }
}

/** One device against one receiver, capacity left aside. */
function fitWith(c: Case, options: FitOptions = {}): FitReason[] {
  const reasons: FitReason[] = []
  for (const [code, check] of checks) {
    const result = options.without?.has(code) ? null : check(c)
    if (!result) continue
    reasons.push({ code, ...result })
    if (result.verdict === 'no') break
  }
  return reasons
}

/** A receiver that could take a device, with what is lost. */
interface Try {
  readonly receiver: PresentReceiver
  readonly reasons: readonly FitReason[]
}

interface Fitting {
  readonly system: System
  readonly model: DeviceModel
  readonly options: FitOptions
}

/** The receivers that could take a device, the best first; or what is already settled without counting. */
function optionsFor(
  { system, model, options }: Fitting,
  family: Family | null,
): { readonly tries: readonly Try[] } | { readonly fit: Fit } {
  const without = options.without
  if (!family) {
    if (model.family !== null) return { fit: unknown(`the catalogue lacks its radio family ${model.family}`) }
    return { fit: wired(system, without) }
  }
  if (!system.panel && !without?.has('no-panel'))
    return { fit: unknown('no panel is chosen yet: choose one in the survey') }
  if (system.receivers.length === 0 && !without?.has('no-receiver'))
    return {
      fit: refusal(
        'no-receiver',
        `No receiver is on the job that hears ${family.name} (${megahertz(family)}). Add one in the kit.`,
      ),
    }
  const tries = system.receivers.map((receiver) => ({
    receiver,
    reasons: fitWith({ model, family, receiver, system }, options),
  }))
  const open = tries.filter((item) => verdictOf(item.reasons) !== 'no')
  if (open.length > 0) return { tries: open.sort((a, b) => a.reasons.length - b.reasons.length) }
  const nearest = [...tries].sort((a, b) => depth(b.reasons) - depth(a.reasons))[0]
  return { fit: { verdict: 'no', receiver: null, reasons: nearest?.reasons ?? [] } }
}

function placed(tries: readonly Try[], receiver: string | null): Fit {
  const mine = tries.find((item) => item.receiver.id === receiver)
  if (mine) return { verdict: verdictOf(mine.reasons), receiver: mine.receiver.id, reasons: mine.reasons }
  const { name, transmitters } = (tries[0] as Try).receiver.model
  return refusal(
    'capacity',
    `${name} holds ${transmitters} transmitters and all are taken by devices before this one.`,
  )
}

function chainTrouble(
  system: System,
  device: Device,
  options: FitOptions,
): { readonly code: FitCode; readonly text: string } | null {
  const text = options.without?.has('chain') ? null : repeaterTrouble(system, device)
  return text === null ? null : { code: 'chain', text }
}

/** Fobs, keypads and sirens need a slot of their class on the panel, repeaters a place among its repeaters. */
// eslint-disable-next-line complexity -- one guard per fact, read from top to bottom
function slotTrouble(
  { system, model, options }: Fitting,
  slots: Map<string, number>,
): { readonly code: FitCode; readonly text: string } | null {
  const { panel } = system
  if (!panel) return null
  const repeater = model.class === 'repeater'
  const code = repeater ? 'repeaters' : 'slots'
  if ((model.slot === 'none' && !repeater) || options.without?.has(code)) return null
  const kind = repeater ? 'repeater' : model.slot
  const { fobs, keypads, sirens } = panel.slots
  const rule = {
    fob: fobs,
    keypad: keypads,
    siren: sirens,
    repeater: { count: panel.repeaters ?? 0 },
    none: fobs,
  }[kind]
  if (model.family !== null && 'wireless' in rule && !rule.wireless)
    return { code, text: `${panel.name} takes wired ${kind}s only.` }
  if (rule.count === 0) return { code, text: `${panel.name} takes no ${kind}s.` }
  const used = slots.get(kind) ?? 0
  if (used >= rule.count)
    return {
      code,
      text: `${panel.name} holds ${rule.count} ${kind}${rule.count === 1 ? '' : 's'} and all are taken by devices before this one.`,
    }
  slots.set(kind, used + 1)
  return null
}

/** Zone numbers are counted per event: the panel's wireless numbers for radio, its wired ones for cable. */
function zoneTrouble(
  { system, model, options }: Fitting,
  deferred: string | null,
  slots: Map<string, number>,
): { readonly code: FitCode; readonly text: string } | null {
  const { panel } = system
  if (!panel || model.slot !== 'none' || deferred !== null || options.without?.has('zones')) return null
  const use = model.family === null ? 'wired' : 'wireless'
  const events = zoneLoops(model).length
  const has = zoneNumbers(panel, use)
  const used = slots.get(use) ?? 0
  if (used + events > has)
    return {
      code: 'zones',
      text: `${panel.name} has ${has} ${use} zone numbers; ${model.name} needs ${events} and ${used} are taken by devices before it.`,
    }
  slots.set(use, used + events)
  return null
}

const numbersKept = new WeakMap<PanelModel, Record<'wired' | 'wireless', number>>()

/** How many zone numbers a panel has for radio or for cable, optional modules counted. */
export function zoneNumbers(panel: PanelModel, use: 'wired' | 'wireless'): number {
  const known = numbersKept.get(panel)
  if (known) return known[use]
  const count = (wanted: string): number => {
    const numbers = new Set<number>()
    for (const block of panel.blocks)
      if (block.use === wanted)
        for (let number = block.from; number <= block.to; number++) numbers.add(number)
    return numbers.size
  }
  const counts = { wired: count('wired'), wireless: count('wireless') }
  numbersKept.set(panel, counts)
  return counts[use]
}

function refusal(code: FitCode, text: string): Fit {
  return { verdict: 'no', receiver: null, reasons: [{ code, ...no(text) }] }
}

function band({ family, receiver }: Case): ReturnType<Check> {
  const bands = receiver.families.map((item) => item.bandMHz)
  if (bands.some((item) => family.bandMHz.from <= item.to && family.bandMHz.to >= item.from)) return null
  return no(
    `${family.name} sends on ${megahertz(family)}; ${receiver.model.name} listens on ${[...new Set(bands.map(bandWords))].join(' and ')}.`,
  )
}

function protocol({ family, receiver }: Case): ReturnType<Check> {
  if (receiver.model.hears.some((item) => item.family === family.id)) return null
  return no(`${receiver.model.name} hears the same band but not the ${family.name} protocol.`)
}

function firmware({ family, receiver, system }: Case): ReturnType<Check> {
  const need = receiver.model.hears.find((item) => item.family === family.id)?.fromFirmware ?? null
  if (need === null) return null
  const has = system.info.radioFirmware
  if (has === null)
    return {
      verdict: 'unknown',
      text: `${family.name} needs radio firmware ${need} or newer; the firmware of this panel is not noted in the survey.`,
    }
  return compareVersions(has, need) < 0
    ? no(`${family.name} needs radio firmware ${need} or newer; this panel has ${has}.`)
    : null
}

function encryption({ model, receiver }: Case): ReturnType<Check> {
  if (!receiver.encryptedOnly || model.encryption !== 'none') return null
  return no(`${model.name} sends plain and ${receiver.model.name} is set to encrypted devices only.`)
}

function fallsBack({ model, receiver }: Case): ReturnType<Check> {
  if (model.encryption !== 'optional' || receiver.encryptedOnly || receiver.model.encryptedOnlySetting)
    return null
  return loss(`${model.name} can encrypt, but falls back to plain with ${receiver.model.name}.`)
}

function deviceClass({ model, receiver }: Case): ReturnType<Check> {
  return receiver.model.classes.includes(model.class)
    ? null
    : no(`${receiver.model.name} does not take a ${model.class}.`)
}

/** A panel that has no type for a kind of alarm cannot take the device: CO is never typed as anything else. */
function alarmKind({ model, system }: Case): ReturnType<Check> {
  const { panel } = system
  if (!panel || model.slot !== 'none') return null
  for (const { event, name } of model.loops) {
    const kind = kindOf(event)
    if (!panel.responseTypes.some((type) => type.kind === kind))
      return no(`${panel.name} has no ${kind} type: it cannot take the ${name} of ${model.name}.`)
  }
  return null
}

function oneWay({ model, family, receiver }: Case): ReturnType<Check> {
  return model.needsTwoWay && family.way === 'one-way'
    ? no(`${model.name} needs an answer, and ${receiver.model.name} only listens to ${family.name}.`)
    : null
}

function region({ model, family, system }: Case): ReturnType<Check> {
  const here = system.info.region
  if (here === 'own') return null
  const place = here === 'europe' ? 'Europe' : 'North America'
  if (!model.regions.includes(here)) return no(`${model.name} is not approved for ${place}.`)
  return family.regions.includes(here)
    ? null
    : no(`${family.name} on ${megahertz(family)} is not a legal band in ${place}.`)
}

function equipmentCode({ model, system }: Case): ReturnType<Check> {
  const { panel } = system
  if (!panel?.equipment.code || model.equipmentCodes.some((item) => item.panel === panel.id)) return null
  return no(
    `${panel.name} must be told the equipment code of a device, and the catalogue has none for ${model.name}.`,
  )
}

/** A panel's supervision window holds at least three check-ins of a device (EN 50131-5-3 practice; work.md section 5). */
function window({ model, receiver, system }: Case): ReturnType<Check> {
  const most = system.panel?.superviseMinutes
  const every = model.checkInMinutes
  if (!most || every === null || receiver.model.loses?.includes('supervision')) return null
  if (every > most)
    return no(
      `${model.name} checks in every ${every} min and ${system.panel?.name} counts it as lost after ${most} min.`,
    )
  return 3 * every > most
    ? loss(
        `${model.name} checks in every ${every} min; three of them do not fit in the ${most} min after which ${system.panel?.name} counts it as lost.`,
      )
    : null
}

function bridge({ model, receiver }: Case): ReturnType<Check> {
  const lost = receiver.model.loses ?? []
  if (lost.length === 0) return null
  const words = { supervision: 'supervision', encryption: 'encryption', battery: 'battery reports' } as const
  return loss(
    `${receiver.model.name} passes no ${lost.map((item) => words[item]).join(', no ')} of ${model.name} on.`,
  )
}

/** The lowest component decides the grade of a system (EN 50131-1). */
function grade({ model, receiver, system }: Case): ReturnType<Check> {
  const { info, panel } = system
  if (info.region !== 'europe') return null
  const parts = [
    { name: model.name, grade: model.grade },
    { name: receiver.model.name, grade: receiver.model.grade },
    ...(panel ? [{ name: panel.name, grade: panel.grade }] : []),
  ]
  const low = parts.find((part) => part.grade !== undefined && part.grade < info.grade)
  if (low)
    return loss(`${low.name} is grade ${low.grade}: with it the system is no longer grade ${info.grade}.`)
  const silent = parts.find((part) => part.grade === undefined)
  return silent
    ? loss(
        `${silent.name} states no grade: whether the system is grade ${info.grade} with it cannot be told.`,
      )
    : null
}

/** Longest time between messages by grade, minutes (EN 50131-5-3; confirm against the edition in force). */
const checkInLimits = { 1: 240, 2: 120, 3: 100 / 60 } as const

function checkIn({ model, receiver, system }: Case): ReturnType<Check> {
  const { info } = system
  const every = model.checkInMinutes
  if (info.region !== 'europe' || every === null || receiver.model.loses?.includes('supervision')) return null
  const most = checkInLimits[info.grade]
  return every > most
    ? loss(
        `${model.name} checks in every ${every} min; grade ${info.grade} wants a message at least every ${info.grade === 3 ? '100 s' : `${most} min`} (EN 50131-5-3).`,
      )
    : null
}

/** A command over a plain one-way link can be recorded and sent again (work.md section 2). */
function replay({ model, family, receiver }: Case): ReturnType<Check> {
  const encrypted =
    model.encryption === 'always' || (model.encryption === 'optional' && receiver.encryptedOnly)
  if (!model.disarms || family.way === 'two-way' || encrypted) return null
  return loss(
    `${model.name} disarms over a plain one-way link: its command can be recorded and sent again. An encrypted variant cures it.`,
  )
}

function wired(system: System, without: FitOptions['without']): Fit {
  if (!system.panel && !without?.has('no-panel'))
    return unknown('no panel is chosen yet: choose one in the survey')
  return { verdict: 'works', receiver: null, reasons: [] }
}

function unknown(text: string): Fit {
  return {
    verdict: 'unknown',
    receiver: null,
    reasons: [{ code: 'no-panel', verdict: 'unknown', text: `Cannot tell: ${text}.` }],
  }
}

function verdictOf(reasons: readonly FitReason[]): Verdict {
  if (reasons.some((reason) => reason.verdict === 'no')) return 'no'
  if (reasons.some((reason) => reason.verdict === 'unknown')) return 'unknown'
  return reasons.length > 0 ? 'loss' : 'works'
}

/** How far a device came with a receiver: the later the check that stopped it, the nearer it is. */
function depth(reasons: readonly FitReason[]): number {
  const stopped = reasons.find((reason) => reason.verdict === 'no')
  return stopped ? fitCodes.indexOf(stopped.code) : fitCodes.length
}

function bandWords(item: { from: number; to: number }): string {
  return item.from === item.to ? `${item.from} MHz` : `${item.from}–${item.to} MHz`
}

function megahertz(family: Family): string {
  return bandWords(family.bandMHz)
}

/** Orders versions such as 1.9 and 1.20 by their parts: negative when `a` is older. */
export function compareVersions(a: string, b: string): number {
  const left = a.split('.').map(Number)
  const right = b.split('.').map(Number)
  return (left[0] ?? 0) - (right[0] ?? 0) || (left[1] ?? 0) - (right[1] ?? 0)
}
