import type { Catalogue } from '../catalogue/catalogue.ts'
import type { AlarmKind, DeviceEvent, DeviceModel, Family } from '../catalogue/schema.ts'
import { fitAll } from '../fit/fit.ts'
import { roundOf } from '../premises/round.ts'
import { systemOf, type System, type JobAndCatalogue } from '../system/system.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { isDeviceInPanel, isInPanel } from '../job/enrolment.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { Device, TestResult, Zone } from '../job/records.ts'
import { wipedAt } from '../job/wiped.ts'
import { kindOf } from '../response/advise.ts'
import { printNumber } from '../zones/numbers.ts'
import { provisionalUntil } from './battery.ts'
import { NOT_USED, opensForHome, placesToUnset } from './coming-home.ts'
import { changedSince, PANEL } from './copy.ts'
import { movedSince } from './moved.ts'
import { handedOverAt, handedOverOlder, isOwedOf, type Older } from './older.ts'
import { openState, openStates, stationOnTest } from './states.ts'
import {
  deviceProofs,
  eventProofs,
  isReported,
  panelProofs,
  proofRules,
  type ProofKey,
  type ProofKind,
} from './table.ts'

/** One proof: what the last result says and every result on record. */
export interface ProofItem extends ProofKey {
  /** `kind subject loop place`, for lists. */
  readonly key: string
  /** What it is about beside its device: `Smoke, zone 12` or `Disarm`; empty for the device as a whole. */
  readonly label: string
  /** The event it is of; null for the device as a whole. */
  readonly event: DeviceEvent | null
  /** The kind of alarm that its zone raises; null where it has none. */
  readonly alarm: AlarmKind | null
  /** Whether its trip is silent at the panel. */
  readonly silent: boolean
  /**
   * `owed` until a first result; the last result decides. `stale`: what it proved has changed, so it is owed again. `waits`:
   * something else comes first.
   */
  readonly state: 'owed' | 'pass' | 'fail' | 'inconclusive' | 'stale' | 'waits'
  readonly results: readonly TestResult[]
  /** What changed since the last result; empty where it still stands. */
  readonly changed: readonly string[]
  /** What comes first; empty where it can be made now. */
  readonly waits: string
  /** From when it can be made, where only time is waited for; null else. */
  readonly from: string | null
  /** From when a passed reading of a battery is to be repeated, since it was made too early; null else. */
  readonly again: string | null
}

/** A device, or the panel itself, on the way through the house, with what it owes. */
export interface ProofStop {
  /** Device id, or PANEL. */
  readonly id: string
  /** Null for the panel. */
  readonly device: Device | null
  /** Null for the panel. */
  readonly model: DeviceModel | null
  readonly zones: readonly Zone[]
  /** What it is called: the model, or the panel. */
  readonly title: string
  /** `zone 07, 08` or `fob 1`. */
  readonly name: string
  readonly room: string
  readonly items: readonly ProofItem[]
}

/**
 * Every device with what it owes, room by room in the order of the shortest round, the panel last. Deferred devices are not there yet. Without `now` the clock
 * is not asked: what only waits for time counts as owed.
 */
export function proofRoute(doc: JobDocument, catalogue: Catalogue, now: string | null): ProofStop[] {
  const system = systemOf(doc, catalogue)
  const results = new Map<string, TestResult[]>()
  for (const result of evidenceOf(doc, 'test')) {
    const key = keyOf(result)
    results.set(key, [...(results.get(key) ?? []), result])
  }
  const look = { doc, catalogue, system, results, now, older: handedOverOlder(doc) }
  const stops = system.devices.flatMap(({ device, model, family }): ProofStop[] => {
    if (device.deferred !== null) return []
    const zones = recordsOf(doc, 'zone').filter((zone) => zone.device === device.id)
    const numbers = zones.map((zone) => printNumber(system.panel, zone.number)).join(', ')
    const slot = device.slot === null ? model.class : `${model.slot} ${device.slot}`
    return [
      {
        ...{ id: device.id, device, model, zones, title: model.name, room: device.room },
        name: zones.length > 0 ? `zone ${numbers}` : slot,
        items: itemsOf(look, { device, model, family, zones }),
      },
    ]
  })
  // Numbers mostly follow the way through a house that nobody described.
  const numbered = [...stops].sort((a, b) => firstNumber(a) - firstNumber(b)).map(({ room }) => room)
  const round = roundOf({ doc, system }, numbered, (a, b) => numbered.indexOf(a) - numbered.indexOf(b))
  stops.sort((a, b) => round(a.room, b.room) || (a.device?.order ?? 0) - (b.device?.order ?? 0))
  return [...stops, ...panelStop(look)]
}

function firstNumber({ zones }: Pick<ProofStop, 'zones'>): number {
  return Math.min(1000, ...zones.map(({ number }) => number))
}

interface Look {
  readonly doc: JobDocument
  readonly catalogue: Catalogue
  readonly system: System
  readonly results: ReadonlyMap<string, readonly TestResult[]>
  readonly now: string | null
  /** Proofs that did not exist when the job was handed over. */
  readonly older: Older | null
}

/** What is wanted of a proof, before its results are looked at. */
interface Wanted extends Partial<Pick<ProofItem, 'label' | 'event' | 'alarm' | 'silent'>> {
  readonly kind: ProofKind
  readonly subject: string
  readonly loop?: number | null
  readonly unsetAt?: string
  readonly waits?: string
  readonly from?: string | null
  /** A moment after which a result no longer stands, and what happened then. */
  readonly since?: { readonly at: string; readonly words: string } | null
}

/** A device of a stop with its zones, and why its proofs wait. */
interface Stop {
  readonly device: Device
  readonly model: DeviceModel
  readonly family: Family | null
  readonly zones: readonly Zone[]
  /** Why what is proved of the whole device waits for its enrolment; empty when it does not. */
  readonly whole: string
  /** Why it waits for its repeater. */
  readonly behind: string
}

const TO_ENROL = 'Enrol it first: what is proved is proved of the device that the panel knows.'

function itemsOf(look: Look, of: Pick<Stop, 'device' | 'model' | 'family' | 'zones'>): ProofItem[] {
  const { device, model, family } = of
  const whole = family && !isDeviceInPanel(look.doc, device.id) ? TO_ENROL : ''
  const stop: Stop = { ...of, whole, behind: repeaterWaits(look, device) }
  const wait = whole || stop.behind
  const list = [
    ...(model.carried ? [] : [{ kind: 'mount', subject: device.id } satisfies Wanted]),
    ...(family && !model.carried ? readingsWanted(look, { device, family }, wait) : []),
    ...of.zones.flatMap((zone) => zoneWanted(look, stop, zone)),
    ...(model.class === 'fob' && of.zones.length === 0 ? buttonsWanted(stop) : []),
    ...deviceProofs(model).map((kind): Wanted => {
      const after = kind === 'downstream' ? downstreamWaits(look, device) : ''
      return { kind, subject: device.id, waits: wait || after }
    }),
    ...(model.class === 'keypad' ? callsWanted(look, device, wait) : []),
  ]
  const subjects = [device.id, ...of.zones.map(({ id }) => id)]
  const items = list.filter(isOwedOf(look, subjects)).map((wanted) => itemOf(look, wanted))
  const doubtful = fitAll(look.system).get(device.id)?.verdict === 'no'
  return items
    .map((item) => unusedStands(items, item))
    .map((item) => (doubtful ? doubtfulProof(item) : item))
    .sort(byKind)
}

/** What was proved of a device that does not fit any more counts again once it fits: a panel may not hear it. */
function doubtfulProof(item: ProofItem): ProofItem {
  if (item.state !== 'pass' || item.kind === 'mount') return item
  return { ...item, state: 'stale', changed: ['it does not fit the panel and its receivers any more'] }
}

/** That nobody unsets at a place stands only while another one of the same door is timed. */
function unusedStands(items: readonly ProofItem[], item: ProofItem): ProofItem {
  if (item.kind !== 'home' || item.state !== 'pass' || item.results.at(-1)?.method !== NOT_USED) return item
  return mayBeUnused(items, item)
    ? item
    : { ...item, state: item.waits === '' ? 'stale' : 'waits', changed: ['no other place to unset is timed'] }
}

/** Whether it may be said of a place that nobody unsets there, coming in by that door: another one is timed and suffices. */
export function mayBeUnused(items: readonly ProofItem[], { kind, subject, key }: ProofItem): boolean {
  return (
    kind === 'home' &&
    items.some(
      (other) =>
        other.kind === 'home' &&
        other.subject === subject &&
        other.key !== key &&
        other.state === 'pass' &&
        other.results.at(-1)?.method !== NOT_USED,
    )
  )
}

/** The proofs of one event of a device. */
function zoneWanted(look: Look, { model, family, behind }: Stop, zone: Zone): Wanted[] {
  const { doc, system } = look
  const loop = model.loops.find((item) => item.event === zone.event)
  if (!loop) return []
  const type = system.panel?.responseTypes.find((item) => item.key === zone.response)
  const waits = (family && !isInPanel(doc, zone.id) ? TO_ENROL : '') || behind
  const label = `${loop.name}, zone ${printNumber(system.panel, zone.number)}`
  const about = { label, event: loop.event, alarm: type?.kind ?? kindOf(loop.event) }
  const base = { subject: zone.id, ...about, silent: type?.sound === 'silent', waits }
  // A type that hides the question decides it by itself, and may report: then it is owed, not left out.
  const reports = zone.report || (type?.hides.includes('report') ?? true)
  const reported = system.info.monitored && reports && isReported(loop.event)
  const kinds = [...eventProofs(loop.event), ...(reported ? (['report'] as const) : [])]
  return [...kinds.map((kind) => ({ ...base, kind })), ...homesWanted(look, zone, base)]
}

/** Whether the panel knows what it is unset at: a wired keypad and the panel itself are there at once, of fobs any may do it. */
function isKeyedAt({ doc, system }: Look, place: string): boolean {
  const family = system.byId.get(place)?.family ?? null
  return family === null || isDeviceInPanel(doc, place)
}

/** People come in by what opens and starts an entry delay: whether they unset in time is timed, at each place where they can. */
function homesWanted(look: Look, zone: Zone, base: Omit<Wanted, 'kind'>): Wanted[] {
  if (!opensForHome(look, zone)) return []
  const places = placesToUnset(look, zone.id)
  return places.map(({ id, name }) => ({
    ...{ ...base, kind: 'home', unsetAt: id },
    label: places.length > 1 ? `${base.label ?? ''}, at ${name}` : base.label,
    waits: base.waits || (isKeyedAt(look, id) ? '' : `Enrol ${name} first: it is unset there.`),
  }))
}

/** Every button of a fob in its slot, by itself. */
function buttonsWanted({ device, model, whole }: Stop): Wanted[] {
  return model.loops.map((loop) => ({
    ...{ subject: device.id, loop: loop.loop, label: loop.name, event: loop.event, waits: whole },
    kind: eventProofs(loop.event)[0] ?? 'button',
    alarm: isReported(loop.event) ? kindOf(loop.event) : null,
  }))
}

/** The keys of a keypad that call for help, as far as they are on. */
function callsWanted({ system }: Look, device: Device, waits: string): Wanted[] {
  const keys = system.panel?.couplings?.functionKeys ?? []
  const left = keys.filter((key) => !system.info.keysOff.includes(key))
  return left.length === 0 ? [] : [{ kind: 'calls', subject: device.id, label: left.join(', '), waits }]
}

function panelStop(look: Look): ProofStop[] {
  const { panel, info, devices } = look.system
  if (!panel || devices.length === 0) return []
  const wiped = wipedAt(look.doc)
  const since = wiped === '' ? null : { at: wiped, words: 'it was brought back to how it came since' }
  const wanted = panelProofs(info.monitored, panel).map((kind): Wanted => ({
    kind,
    subject: PANEL,
    since: kind === 'clock' ? since : null,
  }))
  const items = [...wanted, ...settledWanted(look)]
    .filter(isOwedOf(look, [PANEL]))
    .map((one) => itemOf(look, one))
    .sort(byKind)
  return [
    { id: PANEL, device: null, model: null, zones: [], title: panel.name, name: 'panel', room: '', items },
  ]
}

interface Heard {
  readonly device: Device
  readonly family: Family
}

/** The reading now, and the average of a whole day where the family keeps one: it waits until that day has passed. */
function readingsWanted(look: Look, { device, family }: Heard, waits: string): Wanted[] {
  const reading: Wanted = { kind: 'placement', subject: device.id, waits }
  const { averageHours } = family.placement
  if (averageHours === undefined) return [reading]
  const first = itemOf(look, reading)
  const at = first.state === 'pass' ? (first.results.at(-1)?.at ?? null) : null
  const from = at === null ? null : new Date(Date.parse(at) + averageHours * 3_600_000).toISOString()
  const early = from !== null && look.now !== null && look.now < from
  return [
    reading,
    {
      ...{ kind: 'average', subject: device.id, from: early ? from : null },
      waits:
        waits ||
        (at === null
          ? 'The reading now comes first.'
          : early
            ? `A whole day has not passed since the reading.`
            : ''),
    },
  ]
}

/** A mesh settles after its last device is learned and read at its place; each later one starts the time anew. */
function settledWanted(look: Look): Wanted[] {
  const mesh = look.system.devices.filter(
    ({ device, family }) => family?.settleMinutes !== undefined && device.deferred === null,
  )
  const minutes = Math.max(0, ...mesh.map(({ family }) => family?.settleMinutes ?? 0))
  if (minutes === 0) return []
  const { open, last } = lastAtPlace(look, mesh)
  const from = last ? new Date(Date.parse(last.at) + minutes * 60_000).toISOString() : null
  const early = open === 0 && from !== null && look.now !== null && look.now < from
  const waits = open > 0 ? notAtPlace(open) : early ? `Its ${minutes} minutes of quiet are not over.` : ''
  return [{ kind: 'settled', subject: PANEL, since: last, waits, from: early ? from : null }]
}

/** How many devices of a mesh are not yet learned and read at their place, and which came to its place last. */
function lastAtPlace(
  look: Look,
  mesh: System['devices'],
): { readonly open: number; readonly last: NonNullable<Wanted['since']> | null } {
  let last: NonNullable<Wanted['since']> | null = null
  let open = 0
  for (const { device, model } of mesh) {
    const reading = itemOf(look, { kind: 'placement', subject: device.id })
    const isRead = model.carried || reading.state === 'pass'
    if (!isDeviceInPanel(look.doc, device.id) || !isRead) open += 1
    const at = reading.results.at(-1)?.at ?? ''
    const words = `${[model.name, device.room].filter(Boolean).join(' in ')} came to its place since`
    if (at > (last?.at ?? '')) last = { at, words }
  }
  return { open, last }
}

function notAtPlace(open: number): string {
  return open === 1
    ? '1 of its devices is not learned and read at its place yet.'
    : `${open} of its devices are not learned and read at their place yet.`
}

/** What hangs on a repeater is read after the repeater was. */
function repeaterWaits(look: Look, device: Device): string {
  const repeater = device.via === null ? undefined : look.system.byId.get(device.via)
  if (!repeater) return ''
  const reading = itemOf(look, { kind: 'placement', subject: repeater.device.id })
  return reading.state === 'pass'
    ? ''
    : `The reading of its repeater comes first: ${[repeater.model.name, repeater.device.room].filter(Boolean).join(', ')}.`
}

/** What was read after a repeater counts only once all of it was. */
function downstreamWaits(look: Look, repeater: Device): string {
  const behind = look.system.devices.filter(
    ({ device }) => device.via === repeater.id && device.deferred === null,
  )
  const open = behind.filter(
    ({ device }) => itemOf(look, { kind: 'placement', subject: device.id }).state !== 'pass',
  )
  return open.length === 0
    ? ''
    : `Read what hangs on it first: ${open.map(({ model, device }) => [model.name, device.room].filter(Boolean).join(' in ')).join(', ')}.`
}

function itemOf(look: Look, wanted: Wanted): ProofItem {
  const { kind, subject, waits = '', from = null } = wanted
  const { loop, unsetAt } = { loop: null, unsetAt: '', ...wanted }
  const { label = '', event = null, alarm = null, silent = false } = wanted
  const key = keyOf({ kind, subject, loop, unsetAt })
  const results = [...unplaced(look, wanted), ...(look.results.get(key) ?? [])]
  const last = results.at(-1)
  const moved = movedSince(look, { kind, subject, unsetAt })
  const changed = last ? changedUnder(look, last, wanted.since ?? moved) : []
  const told = !last ? 'owed' : changed.length > 0 ? 'stale' : last.outcome
  return {
    ...{ key, kind, subject, loop, unsetAt, results, changed, waits, from },
    ...{ label, event, alarm, silent },
    state: told !== 'pass' && waits !== '' ? 'waits' : told,
    again: again(look, told, last),
  }
}

/** From when what has passed is to be repeated all the same. */
function again({ doc }: Look, told: string, last: TestResult | undefined): string | null {
  return last && told === 'pass' ? provisionalUntil(doc, last) : null
}

/** What a result no longer stands for: what it named has changed, or something has happened since. */
function changedUnder(look: Look, last: TestResult, since: Wanted['since'] | null): readonly string[] {
  const changed = changedSince(look.doc, look.catalogue, last)
  return changed.length === 0 && since && last.at < since.at ? [since.words] : changed
}

/**
 * Results of coming home that do not say where it was unset: there was no asking before. They stand for the only place there is, and
 * for every place where the job was handed over with them.
 */
function unplaced(look: Look, { kind, subject, unsetAt }: Wanted): readonly TestResult[] {
  if (kind !== 'home' || unsetAt === undefined) return []
  const list = look.results.get(keyOf({ kind, subject, loop: null, unsetAt: '' })) ?? []
  if (list.length === 0 || placesToUnset(look, subject).length === 1) return list
  const handedOver = handedOverAt(look.doc)
  return list.filter(({ at }) => handedOver !== null && at <= handedOver)
}

function keyOf({ kind, subject, loop, unsetAt }: ProofKey): string {
  return `${kind} ${subject} ${loop ?? ''} ${unsetAt}`.trim()
}

const order = Object.keys(proofRules)

/** In the order in which they are made; what is of one kind stays in the order of the zones. */
function byKind(a: ProofItem, b: ProofItem): number {
  return order.indexOf(a.kind) - order.indexOf(b.kind)
}

/** Proofs not passed yet over all stops. */
export function openProofs(route: readonly ProofStop[]): number {
  return route.reduce((sum, stop) => sum + stop.items.filter((item) => item.state !== 'pass').length, 0)
}

/**
 * Why a result may not be recorded now; null when it may. Nothing is proved before what comes first; an alarm needs the station on
 * test on a monitored job; a walk test needs the sounders on, a siren test closed tampers.
 */
export function testBlocked(
  { doc, catalogue }: JobAndCatalogue,
  item: ProofItem,
  now: string,
): string | null {
  if (item.waits !== '') return item.waits
  if (item.kind === 'walk' && openState(doc, 'sounder-off'))
    return 'A keypad sounder is noted as off: a walk test would tell nothing. Switch it on and end that state first.'
  if (item.kind === 'sounds' && tamperOpen(doc, catalogue))
    return 'A tamper is noted as open or linked out: close it first, or the siren answers to that.'
  const { monitored } = systemOf(doc, catalogue).info
  if (!monitored || !proofRules[item.kind].alarms) return null
  return stationOnTest(doc, now)
    ? null
    : 'Put the station on test first: an alarm sent now would bring help to a test.'
}

/** Whether a tamper is noted as linked out, or its cover's last result is a failure. */
function tamperOpen(doc: JobDocument, catalogue: Catalogue): boolean {
  if (openStates(doc).some((state) => state.kind === 'tamper-linked')) return true
  const last = new Map<string, TestResult>()
  for (const result of evidenceOf(doc, 'test')) if (result.kind === 'tamper') last.set(result.subject, result)
  return [...last.values()].some(
    (result) => result.outcome === 'fail' && changedSince(doc, catalogue, result).length === 0,
  )
}

/** Kinds of proof in which the event itself is seen at the panel: they settle an ID that no sticker was compared with. */
const settling: readonly ProofKind[] = ['armed', 'agent', 'trip']

/** Zones and devices whose event was seen at its place, and still stands. */
export function settledSubjects(route: readonly ProofStop[]): ReadonlySet<string> {
  const items = route.flatMap((stop) => stop.items)
  return new Set(
    items
      .filter(({ kind, state }) => state === 'pass' && settling.includes(kind))
      .map(({ subject }) => subject),
  )
}
