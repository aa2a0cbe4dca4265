import { pressedClasses } from '../catalogue/entry-fields.ts'
import type { DeviceModel, Family, PanelModel, ReceiverModel } from '../catalogue/schema.ts'
import type { Device } from '../job/records.ts'
import { assignPlaces, type Together } from './assign.ts'
import type { FitCode, FitReason } from './reasons.ts'
import { zoneLoops } from '../catalogue/zone-loops.ts'
import { isOfLifeSafety, kindOf } from '../response/advise.ts'
import { repeaterTrouble } from './repeaters.ts'
import { unstated, type Case } from './unstated.ts'
import type { PresentReceiver, System } from '../system/system.ts'

/** A verdict as a word: it works, it works but something is lost, it does not work, or a fact is missing. */
export type Verdict = 'works' | 'loss' | 'no' | 'unknown'

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
  'unstated',
  'chain',
  'repeaters',
  'slots',
  'zones',
  'capacity',
] as const satisfies readonly FitCode[]

/** What a check of a receiver has against a device; null when nothing. */
type Check = (c: Case) => FitReason | null

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
  ['unstated', unstated],
]

/** Settings of a judgement; `without` leaves checks out, so that tests can show each one matters. */
export interface FitOptions {
  readonly without?: ReadonlySet<FitCode>
}

const fitsKept = new WeakMap<System, ReadonlyMap<string, Fit>>()

/**
 * Whether each device works with the receivers that are there, why not, and who takes it. Each transmitter is held by one
 * receiver; where they run short, the last devices of the list are the ones that do not fit, never life safety for another.
 */
export function fitAll(system: System, options: FitOptions = {}): ReadonlyMap<string, Fit> {
  const known = options.without ? undefined : fitsKept.get(system)
  if (known) return known
  const slots = new Map<string, number>()
  const asked = lifeSafetyFirst(system).map(({ device, model, family }) => {
    const answer = optionsFor({ system, model, options }, family)
    const open = 'tries' in answer || answer.fit.verdict === 'works'
    const slot = open
      ? (chainTrouble(system, device, options) ??
        slotTrouble({ system, model, options }, slots) ??
        zoneTrouble({ system, model, options }, device, slots))
      : null
    return { id: device.id, answer: slot ? { fit: refusal(slot) } : answer }
  })
  const without = options.without?.has('capacity')
  const together = without ? [] : sharedRoom(system)
  const places = assignPlaces(
    asked.map(({ id, answer }) => ({
      key: id,
      options: 'tries' in answer ? answer.tries.map((item) => item.receiver.id) : [],
    })),
    new Map(system.receivers.map(({ id, model }) => [id, without ? Infinity : roomOf(model)])),
    together,
  )
  const byId = new Map(
    asked.map(({ id, answer }) => [
      id,
      'tries' in answer ? placed(answer.tries, places.get(id) ?? null, together) : answer.fit,
    ]),
  )
  // In the order of the list again.
  const fits = new Map(system.devices.flatMap(({ device: { id } }) => [[id, byId.get(id) as Fit] as const]))
  if (!options.without) fitsKept.set(system, fits)
  return fits
}

/** Who counts first where room runs short. */
function lifeSafetyFirst(system: System): System['devices'] {
  const first = system.devices.filter(({ model }) => isOfLifeSafety(model))
  return first.length === 0
    ? system.devices
    : [...first, ...system.devices.filter(({ model }) => !isOfLifeSafety(model))]
}

interface SharedRoom extends Together {
  readonly names: readonly string[]
}

/**
 * Receivers of one radio whose room is not added up, with what they hold together: the largest of them, unless the panel's entry
 * says that they add up. A bridge is a radio of its own.
 */
export function sharedRoom({ panel, receivers }: Pick<System, 'panel' | 'receivers'>): readonly SharedRoom[] {
  if (panel?.receiversAdd) return []
  const ones = receivers.filter(({ model }) => model.place !== 'bridge')
  const groups: PresentReceiver[][] = []
  for (const one of ones) {
    const mine = groups.find((group) => group.some((other) => hearAlike(one, other)))
    if (mine) mine.push(one)
    else groups.push([one])
  }
  return groups
    .filter((group) => group.length > 1)
    .map((group) => ({
      ids: group.map(({ id }) => id),
      names: group.map(({ model }) => model.name),
      most: Math.max(...group.map(({ model }) => roomOf(model))),
    }))
}

/** How many transmitters a receiver holds; without end where nobody states it: the devices then say that it is open. */
export function roomOf({ transmitters }: ReceiverModel): number {
  return transmitters ?? Infinity
}

function hearAlike(a: PresentReceiver, b: PresentReceiver): boolean {
  return a.model.hears.some(({ family }) => b.model.hears.some((other) => other.family === family))
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
    reasons.push(result)
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
    if (model.family !== null) return { fit: unknown(model.family) }
    return { fit: wired(system, without) }
  }
  if (!system.panel && !without?.has('no-panel')) return { fit: unknown(null) }
  if (system.receivers.length === 0 && !without?.has('no-receiver'))
    return {
      fit: refusal({
        ...{ code: 'no-receiver', verdict: 'no' },
        facts: { family: family.name, band: megahertz(family) },
      }),
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

function placed(tries: readonly Try[], receiver: string | null, together: readonly SharedRoom[]): Fit {
  const mine = tries.find((item) => item.receiver.id === receiver)
  if (mine) return { verdict: verdictOf(mine.reasons), receiver: mine.receiver.id, reasons: mine.reasons }
  const { id, model } = (tries[0] as Try).receiver
  const shared = together.find(({ ids }) => ids.includes(id))
  const facts = shared
    ? { receiver: shared.names.join(' and '), holds: shared.most, together: true }
    : { receiver: model.name, holds: roomOf(model), together: false }
  return refusal({ code: 'capacity', verdict: 'no', facts })
}

function chainTrouble(system: System, device: Device, options: FitOptions): FitReason | null {
  const facts = options.without?.has('chain') ? null : repeaterTrouble(system, device)
  return facts === null ? null : { code: 'chain', verdict: 'no', facts }
}

/** Fobs, keypads and sirens need a slot of their class on the panel, repeaters a place among its repeaters. */

function slotTrouble({ system, model, options }: Fitting, slots: Map<string, number>): FitReason | null {
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
  const short = (has: number | null): FitReason => ({
    ...{ code, verdict: 'no' },
    facts: { panel: panel.name, has, kind },
  })
  if (model.family !== null && 'wireless' in rule && !rule.wireless) return short(null)
  const used = slots.get(kind) ?? 0
  if (used >= rule.count) return short(rule.count)
  slots.set(kind, used + 1)
  return null
}

/** Zone numbers are counted per event: the panel's wireless numbers for radio, its wired ones for cable. */
function zoneTrouble(
  { system, model, options }: Fitting,
  device: Device,
  slots: Map<string, number>,
): FitReason | null {
  const { panel } = system
  if (!panel || model.slot !== 'none' || device.deferred !== null || options.without?.has('zones'))
    return null
  const use = model.family === null ? 'wired' : 'wireless'
  const events = zoneLoops({ device, model }).length
  const has = zoneNumbers(panel, use)
  const used = slots.get(use) ?? 0
  if (used + events > has)
    return {
      ...{ code: 'zones', verdict: 'no' },
      facts: { panel: panel.name, has, use, model: model.name, needs: events, taken: used },
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

function refusal(reason: FitReason): Fit {
  return { verdict: 'no', receiver: null, reasons: [reason] }
}

function band({ family, receiver }: Case): FitReason | null {
  const bands = receiver.families.map((item) => item.bandMHz)
  if (bands.some((item) => family.bandMHz.from <= item.to && family.bandMHz.to >= item.from)) return null
  const listens = [...new Set(bands.map(bandWords))]
  const facts = { family: family.name, band: megahertz(family), receiver: receiver.model.name, listens }
  return { code: 'band', verdict: 'no', facts }
}

function protocol({ family, receiver }: Case): FitReason | null {
  if (receiver.model.hears.some((item) => item.family === family.id)) return null
  return { code: 'protocol', verdict: 'no', facts: { receiver: receiver.model.name, family: family.name } }
}

function firmware({ family, receiver, system }: Case): FitReason | null {
  const need = receiver.model.hears.find((item) => item.family === family.id)?.fromFirmware ?? null
  if (need === null) return null
  const has = system.info.radioFirmware
  if (has !== null && compareVersions(has, need) >= 0) return null
  const facts = { family: family.name, need, has }
  return { code: 'firmware', verdict: has === null ? 'unknown' : 'no', facts }
}

function encryption({ model, receiver }: Case): FitReason | null {
  if (!receiver.encryptedOnly || model.encryption !== 'none') return null
  return { code: 'encryption', verdict: 'no', facts: { model: model.name, receiver: receiver.model.name } }
}

function fallsBack({ model, receiver }: Case): FitReason | null {
  if (model.encryption !== 'optional' || receiver.encryptedOnly) return null
  // Where nobody states whether it has the setting, that is what is said.
  if (receiver.model.encryptedOnlySetting !== false) return null
  const facts = { model: model.name, receiver: receiver.model.name }
  return { code: 'encryption-optional', verdict: 'loss', facts }
}

function deviceClass({ model, receiver }: Case): FitReason | null {
  if (!receiver.model.classes || receiver.model.classes.includes(model.class)) return null
  const facts = { receiver: receiver.model.name, deviceClass: model.class }
  return { code: 'class', verdict: 'no', facts }
}

/** A panel that has no type for a kind of alarm cannot take the device: CO is never typed as anything else. */
function alarmKind({ model, system }: Case): FitReason | null {
  const { panel } = system
  if (!panel || model.slot !== 'none') return null
  for (const { event, name } of model.loops) {
    const kind = kindOf(event)
    if (panel.responseTypes.some((type) => type.kind === kind)) continue
    return { code: 'kind', verdict: 'no', facts: { panel: panel.name, kind, event: name, model: model.name } }
  }
  return null
}

function oneWay({ model, family, receiver }: Case): FitReason | null {
  if (!model.needsTwoWay || family.way !== 'one-way') return null
  const facts = { model: model.name, receiver: receiver.model.name, family: family.name }
  return { code: 'one-way', verdict: 'no', facts }
}

function region({ model, family, system }: Case): FitReason | null {
  const here = system.info.region
  if (here === 'own') return null
  const against = (what: string, band: string | null): FitReason => ({
    ...{ code: 'region', verdict: 'no' },
    facts: { what, band, region: here },
  })
  if (!model.regions.includes(here)) return against(model.name, null)
  return family.regions.includes(here) ? null : against(family.name, megahertz(family))
}

function equipmentCode({ model, system }: Case): FitReason | null {
  const { panel } = system
  if (!panel?.equipment.code || model.equipmentCodes.some((item) => item.panel === panel.id)) return null
  return { code: 'code', verdict: 'no', facts: { panel: panel.name, model: model.name } }
}

/** A panel's supervision window holds at least three check-ins of a device (usual practice beside EN 50131-5-3). */
function window({ model, receiver, system }: Case): FitReason | null {
  const { panel } = system
  const most = panel?.superviseMinutes
  const every = model.checkInMinutes
  if (!panel || !most || every == null || receiver.model.loses?.includes('supervision')) return null
  if (3 * every <= most) return null
  const lost = every > most
  // Waivers are bound to the figures in this order.
  const facts = { model: model.name, every, most, panel: panel.name, lost }
  return { code: 'window', verdict: lost ? 'no' : 'loss', facts }
}

function bridge({ model, receiver }: Case): FitReason | null {
  const lost = receiver.model.loses ?? []
  if (lost.length === 0) return null
  const facts = { receiver: receiver.model.name, lost, model: model.name }
  return { code: 'bridge', verdict: 'loss', facts }
}

/** The lowest component decides the grade of a system (EN 50131-1). */
function grade({ model, receiver, system }: Case): FitReason | null {
  const { info, panel } = system
  if (info.region !== 'europe') return null
  // What is wrong with the whole comes before what is wrong with one device.
  const parts = [...(panel ? [panel] : []), receiver.model, model]
  const part =
    parts.find((item) => item.grade !== undefined && item.grade < info.grade) ??
    parts.find((item) => item.grade === undefined)
  if (!part) return null
  const facts = { part: part.name, has: part.grade ?? null, wanted: info.grade }
  return { code: 'grade', verdict: 'loss', facts }
}

/** Longest time between messages by grade, minutes (EN 50131-5-3; confirm against the edition in force). */
const checkInLimits = { 1: 240, 2: 120, 3: 100 / 60 } as const

function checkIn({ model, receiver, system }: Case): FitReason | null {
  const { info } = system
  const every = model.checkInMinutes
  if (info.region !== 'europe' || every === undefined || receiver.model.loses?.includes('supervision'))
    return null
  if (every === null ? pressedClasses.has(model.class) : every <= checkInLimits[info.grade]) return null
  const most = info.grade === 3 ? '100 s' : `${checkInLimits[info.grade]} min`
  const facts = { model: model.name, every, grade: info.grade, most, source: 'EN 50131-5-3' }
  return { code: 'check-in', verdict: 'loss', facts }
}

/** A command over a plain one-way link can be recorded and sent again. */
function replay({ model, family, receiver }: Case): FitReason | null {
  const encrypted =
    model.encryption === 'always' || (model.encryption === 'optional' && receiver.encryptedOnly)
  // Where nobody states whether it encrypts, that is what is said.
  if (!model.disarms || family.way === 'two-way' || encrypted || model.encryption === undefined) return null
  return { code: 'replay', verdict: 'loss', facts: { model: model.name } }
}

function wired(system: System, without: FitOptions['without']): Fit {
  if (!system.panel && !without?.has('no-panel')) return unknown(null)
  return { verdict: 'works', receiver: null, reasons: [] }
}

/** Cannot tell: no panel, or a radio family that the catalogue lacks. */
function unknown(lacksFamily: string | null): Fit {
  const reason: FitReason = { code: 'no-panel', verdict: 'unknown', facts: { lacksFamily } }
  return { verdict: 'unknown', receiver: null, reasons: [reason] }
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
