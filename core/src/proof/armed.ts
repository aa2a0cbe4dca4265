import { ask, type Answer, type Situation } from '../act/ask.ts'
import type { Behaviour, SetMode } from '../act/behaviour.ts'
import type { Trip } from '../catalogue/schema.ts'
import { recordOf, type JobDocument } from '../job/document.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { TestResult, Zone } from '../job/records.ts'
import { behaviourOf } from '../response/behaviour-of.ts'
import { fullSet } from '../response/letters.ts'
import { modesOf } from '../response/modes.ts'
import { systemOf, type JobAndCatalogue, type System } from '../system/system.ts'
import { formatSeconds } from '../units/seconds.ts'
import type { ProofItem, ProofStop } from './owed.ts'

/*
 * The armed test: what each trip should do, asked of the machine, and all of them in one run with the fewest settings.
 */

/** What can be seen of a trip while the system is set. */
export type Seen = 'alarm' | 'delay' | 'second' | 'notice' | 'nothing' | 'other' | 'sound' | 'unclear'

/** What the plan expects of one trip. */
export interface Expected {
  readonly seen: 'alarm' | 'delay' | 'second'
  readonly words: string
}

/** What may be seen, in words. */
export const seenWords: Readonly<Record<Seen, string>> = {
  alarm: 'the alarm at once',
  delay: 'an entry delay first, then the alarm',
  second: 'the alarm only at a second trip',
  notice: 'a chime or a notice, no alarm',
  nothing: 'nothing at all',
  other: 'the alarm of another zone',
  sound: 'the right zone, sounded otherwise than planned',
  unclear: 'it could not be told',
}

/** How the system is set for some trips; `unset` for zones that alarm at any hour. */
export interface ArmedSetting {
  readonly mode: SetMode | 'unset'
  /** The area whose letter is the set, where letters are sets; null for everything. */
  readonly part: string | null
  /** Zones in the order of their trips: whoever starts an entry delay comes last. */
  readonly zones: readonly string[]
  /** How long its sleeping motions need to be left alone first, s; 0 for none. */
  readonly sleeps: number
}

/** All armed tests that are owed and can be made now, and what is left out with its reason. */
export interface ArmedRun {
  readonly settings: readonly ArmedSetting[]
  readonly left: readonly { readonly zone: string; readonly why: string }[]
}

/** What a zone is tripped in, and what the machine says to it. */
interface Armed {
  readonly zone: Zone
  readonly mode: ArmedSetting['mode']
  readonly part: string | null
  /** Areas that it is in, as the machine has them: a zone of none is in the first. */
  readonly areas: readonly string[]
  readonly expected: Expected
  /** How long it sleeps after a trip, s, where setting does not wake it; null for what never sleeps. */
  readonly sleeps: number | null
}

/** The kinds of set in which a zone is tried, the one that asks most of it first. */
const setModes = ['away', 'stay', 'night'] as const

/** What a trip of a zone should come to where it is tried; null where it has no response type, or nothing ever alarms. */
export function expectedTrip(job: JobAndCatalogue, zone: string): Expected | null {
  return armedOf(job, zone)?.expected ?? null
}

/**
 * The armed tests of a route in one run. Zones that alarm at any hour need no setting; the others are set as rarely as their
 * entry delays allow, for while the delay of one door runs another door of its area starts none. Within a setting: what alarms at
 * once in the order of the round, then motions that setting does not wake, the one seen longest ago first, then one entry door.
 */
export function armedRun(job: JobAndCatalogue, route: readonly ProofStop[]): ArmedRun {
  const owed = route.flatMap(({ items }) => items.filter(isOwed))
  const left: { zone: string; why: string }[] = []
  const armed: Armed[] = []
  for (const item of owed) {
    const found = item.waits === '' ? armedOf(job, item.subject) : null
    if (found) armed.push(found)
    else left.push({ zone: item.subject, why: item.waits || UNARMED })
  }
  return { settings: settingsOf(job.doc, armed), left }
}

const UNARMED =
  'By its response type it never alarms: see for itself that it does what the type says, or change the type.'

function isOwed({ kind, state }: ProofItem): boolean {
  return kind === 'armed' && state !== 'pass'
}

function armedOf({ doc, catalogue }: JobAndCatalogue, id: string): Armed | null {
  const system = systemOf(doc, catalogue)
  const { panel, info } = system
  const zone = recordOf(doc, 'zone', id)
  const type = panel?.responseTypes.find((one) => one.key === zone?.response)
  const behaviour = behaviourOf(doc, system)
  if (!panel || !zone || !type || !behaviour) return null
  const full = fullSet(doc, panel)
  const trips = new Map(
    modesOf({ panel, info, fullSet: full }, zone, type).map(({ mode, trip }) => [mode, trip]),
  )
  const mode = trips.get('unset') === 'instant' ? 'unset' : setModes.find((one) => isWatched(trips.get(one)))
  if (mode === undefined) return null
  return {
    ...{ zone, mode, part: partOf(zone, { mode, full }) },
    areas: behaviour.zones.find((one) => one.id === id)?.areas ?? [],
    expected: expectedOf(behaviour, id, { mode, trip: trips.get(mode) }),
    sleeps: sleepOf(system, zone),
  }
}

/** How long a motion that setting does not wake sleeps, s, 0 where nobody has stated it; null for everything else. */
function sleepOf(system: System, { device }: Zone): number | null {
  const item = device === null ? undefined : system.byId.get(device)
  if (item?.model.class !== 'motion' || item.family?.way !== 'one-way') return null
  return item.model.sleepsSeconds ?? 0
}

/** Whether a trip in a mode comes to an alarm, sooner or later. */
export function isWatched(trip: Trip | undefined): boolean {
  return trip === 'instant' || trip === 'follow' || trip === 'entry-1' || trip === 'entry-2'
}

/** The letter to set where letters are sets: the whole's for away, else one that the zone is in. */
function partOf(
  zone: Pick<Zone, 'area' | 'area2'>,
  { mode, full }: { readonly mode: ArmedSetting['mode']; readonly full: string | null },
): string | null {
  if (mode === 'unset' || full === null) return null
  return mode === 'away' ? full : ([zone.area, zone.area2].find((id) => id !== null && id !== full) ?? null)
}

function expectedOf(
  behaviour: Behaviour,
  id: string,
  { mode, trip }: { readonly mode: ArmedSetting['mode']; readonly trip: Trip | undefined },
): Expected {
  const situation: Situation = { mode, while: 'still' }
  const answer = ask(behaviour, id, situation)
  const alarm = alarmWords(behaviour, id)
  if (answer.starts)
    return { seen: 'delay', words: `${delayWords(answer.starts)}, then ${alarm}: wait it out` }
  if ((trip === 'entry-1' || trip === 'entry-2') && isUnplanned(behaviour, id, trip))
    return {
      seen: 'delay',
      words: `entry delay ${delayNumber(trip)}, whose seconds the plan does not say, then ${alarm}: wait it out`,
    }
  if (answer.alarm === null)
    return { seen: 'second', words: `nothing at the first trip; at a second one soon after, ${alarm}` }
  return { seen: 'alarm', words: `${alarm} at once` }
}

/** Whether nobody has said how long an entry delay of a zone is: the machine then takes none. */
function isUnplanned(behaviour: Behaviour, id: string, trip: 'entry-1' | 'entry-2'): boolean {
  const areas = behaviour.zones.find((one) => one.id === id)?.areas ?? []
  const delays = behaviour.areas.filter((one) => areas.includes(one.id)).map((one) => one.delays)
  return delays.every(({ entry1, entry2 }) => (trip === 'entry-1' ? entry1 : entry2) === null)
}

const delayNumber = (delay: 'entry-1' | 'entry-2'): number => (delay === 'entry-1' ? 1 : 2)

function delayWords({ delay, seconds }: NonNullable<Answer['starts']>): string {
  return `entry delay ${delayNumber(delay)} of ${formatSeconds(seconds)}`
}

/** The alarm of a zone as it is seen and heard. */
function alarmWords(behaviour: Behaviour, id: string): string {
  const zone = behaviour.zones.find((one) => one.id === id)
  const silent = zone?.sound === 'silent' || zone?.sound === 'none'
  return `its ${zone?.kind ?? ''} alarm${silent ? ', with nothing to hear' : ''}`
}

/* The order of the run */

function settingsOf(doc: JobDocument, armed: readonly Armed[]): ArmedSetting[] {
  const groups = new Map<string, Armed[]>()
  for (const one of armed) {
    const key = `${one.mode} ${one.part ?? ''}`
    groups.set(key, [...(groups.get(key) ?? []), one])
  }
  const order = ['unset', ...setModes]
  return [...groups.values()]
    .sort((a, b) => rank(a, order) - rank(b, order))
    .flatMap((group) => settingsOfGroup(doc, group))
}

function rank([first]: readonly Armed[], order: readonly string[]): number {
  return order.indexOf(first?.mode ?? '')
}

/** One kind of set: as often as the entry doors of one area, each with a delay of its own, need. */
function settingsOfGroup(doc: JobDocument, group: readonly Armed[]): ArmedSetting[] {
  const [first] = group
  if (!first) return []
  const seen = lastSeen(doc)
  const doors = group.filter(({ expected }) => expected.seen === 'delay')
  const plain = group.filter((one) => one.expected.seen !== 'delay' && one.sleeps === null)
  const asleep = group
    .filter((one) => one.expected.seen !== 'delay' && one.sleeps !== null)
    .sort((a, b) => compare(seen.get(a.zone.device ?? '') ?? '', seen.get(b.zone.device ?? '') ?? ''))
  const turns = doorTurns(doors)
  const runs = turns.length === 0 ? [[]] : turns
  return runs.map((turn, index) => {
    const trips = [...(index === 0 ? [...plain, ...asleep] : []), ...turn]
    return {
      ...{ mode: first.mode, part: first.part, zones: trips.map(({ zone }) => zone.id) },
      sleeps: Math.max(0, ...trips.map(({ sleeps }) => sleeps ?? 0)),
    }
  })
}

/** Doors by the setting in which each starts a delay of its own: none beside another of one of its areas. */
function doorTurns(doors: readonly Armed[]): Armed[][] {
  const turns: Armed[][] = []
  for (const door of doors) {
    const turn = turns.find((others) =>
      others.every(({ areas }) => !areas.some((id) => door.areas.includes(id))),
    )
    if (turn) turn.push(door)
    else turns.push([door])
  }
  return turns
}

/** When each device was last heard or tried, ISO 8601; a device without any is not there. */
function lastSeen(doc: JobDocument): ReadonlyMap<string, string> {
  const seen = new Map<string, string>()
  for (const { of, at } of [...evidenceOf(doc, 'heard'), ...evidenceOf(doc, 'test')])
    if (of && at > (seen.get(of.device) ?? '')) seen.set(of.device, at)
  return seen
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)

/* What was seen beside what was expected */

/** What one observation comes to. */
export interface Verdict {
  readonly outcome: TestResult['outcome']
  /** What was expected and seen, for the record. */
  readonly note: string
}

/**
 * What was seen of a trip, judged: as expected it passes, anything else fails with its reason. A motion that sends one way may
 * have slept: nothing seen of it tells nothing.
 */
export function verdictOf(job: JobAndCatalogue, zone: string, seen: Seen): Verdict | null {
  const armed = armedOf(job, zone)
  if (!armed) return null
  const { expected, sleeps } = armed
  if (seen === expected.seen) return { outcome: 'pass', note: `Seen as expected: ${expected.words}.` }
  if (seen === 'unclear')
    return { outcome: 'inconclusive', note: `Expected ${expected.words}; ${seenWords.unclear}.` }
  if (seen === 'nothing' && sleeps !== null)
    return {
      outcome: 'inconclusive',
      note: `Nothing seen: it may have slept. Leave its room alone for ${sleeps === 0 ? 'its sleep time' : formatSeconds(sleeps)} and trip it again.`,
    }
  return { outcome: 'fail', note: `Expected ${expected.words}; seen: ${seenWords[seen]}.` }
}
