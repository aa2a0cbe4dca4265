import { defaultHouseRules, type Figures } from '../house-rules/house-rules.ts'
import { recordOf } from '../job/document.ts'
import { isInService } from '../job/in-service.ts'
import type { TestResult, Zone } from '../job/records.ts'
import { houseOf, paceOf, type Walk } from '../premises/house.ts'
import { servedAreas } from '../premises/served-areas.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import { startedDelay } from './copy.ts'

/*
 * Coming home, timed: whoever lives there comes in by an entry door and unsets. What was seen says whether the delay that the
 * panel holds is the planned one, whether it suffices, and how fast these people really walk.
 */

/** What the system is unset at: a keypad, a fob, or the panel itself where neither is planned. */
export interface Unsetter {
  /** Device id; `fob` for any fob, `panel` for the panel itself. */
  readonly id: string
  readonly name: string
}

/** What was seen of somebody coming home. */
export interface CameHome {
  /** From opening the door to unsetting, or to the alarm, s. */
  readonly seconds: number
  /** Whether it alarmed before it was unset. */
  readonly alarmed: boolean
  /** Whether the slowest person of the house was who came. */
  readonly slowest: boolean
  readonly at: Unsetter
}

/** What it comes to. */
export interface HomeVerdict {
  readonly outcome: TestResult['outcome']
  readonly note: string
  /** The pace it tells of the slowest person, m/s; null where it tells none. */
  readonly pace: number | null
}

/** What two taps of a hand may be off by, s (house judgement). */
const TAPS = 3

/** How a place is recorded at which nobody unsets who comes in by the door. */
export const NOT_USED = 'nobody unsets there, coming in by this door'

/** A job and the figures of its house rules. */
export interface JobAndFigures extends JobAndCatalogue {
  readonly figures: Figures
}

/**
 * Where who comes in by a zone can unset: the keypads that serve its area, nearest its door first; where there is none a fob, else
 * the panel itself. Coming home is owed at each.
 */
export function placesToUnset(job: JobAndCatalogue, zoneId: string): readonly Unsetter[] {
  const { doc, catalogue } = job
  const system = systemOf(doc, catalogue)
  const zone = recordOf(doc, 'zone', zoneId)
  const there = system.devices.filter(({ device }) => isInService(device))
  const keypads = there
    .filter(({ device, model }) => model.class === 'keypad' && serves(job, zone, device.id))
    .map(({ device, model }) => ({
      id: device.id,
      name: device.room === '' ? model.name : `${model.name} in ${device.room}`,
    }))
  if (keypads.length > 1) return nearestFirst(job, zone, keypads)
  if (keypads.length === 1) return keypads
  const fob = there.some(({ model }) => model.slot === 'fob' && model.disarms)
  return fob ? [{ id: 'fob', name: 'a fob' }] : [{ id: 'panel', name: 'the panel itself' }]
}

function nearestFirst(job: JobAndCatalogue, zone: Zone | null, keypads: Unsetter[]): readonly Unsetter[] {
  // Every pace makes the same order of them, so that no house rule is asked.
  const { figures } = defaultHouseRules
  const seconds = new Map(
    keypads.map(({ id }) => [id, walkTo({ ...job, figures }, zone, id)?.seconds ?? Infinity]),
  )
  const of = ({ id }: Unsetter): number => seconds.get(id) ?? Infinity
  return keypads.toSorted((a, b) => of(a) - of(b) || 0)
}

/** People come in by what opens and starts an entry delay. */
export function opensForHome(job: JobAndCatalogue, zone: Zone): boolean {
  return (zone.event === 'open' || zone.event === 'terminals') && homeDelay(job, zone.id) !== null
}

/** The entry delay that a door starts, s; null where its trip starts none. */
export function homeDelay({ doc, catalogue }: JobAndCatalogue, zone: string): number | null {
  return startedDelay(doc, systemOf(doc, catalogue).panel, recordOf(doc, 'zone', zone))
}

/** What coming home by a door comes to; null for a door that starts no delay. */
export function homeVerdict(job: JobAndFigures, zoneId: string, came: CameHome): HomeVerdict | null {
  const delay = homeDelay(job, zoneId)
  if (delay === null) return null
  const wrong = unlikePlan(delay, came)
  if (wrong !== null) return { outcome: 'fail', note: wrong, pace: null }
  const { margin } = job.figures
  const pace = paceSeen(job, zoneId, came)
  const left = delay - came.seconds
  if (came.alarmed)
    return {
      outcome: 'fail',
      note: `Not unset within ${delay} s: it alarmed. ${longer(came.seconds, margin)}`,
      pace: null,
    }
  if (left < margin)
    return {
      ...{ outcome: 'fail', pace },
      note: `Unset at ${came.at.name} with ${Math.max(0, left)} s of ${delay} s left, less than the ${margin} s to spare. ${longer(came.seconds, margin)}`,
    }
  const told = `Unset at ${came.at.name} with ${left} s of ${delay} s left`
  if (came.slowest) return { outcome: 'pass', note: `${told}, by the slowest of the house.`, pace }
  const slow = slowSeconds(job, came)
  if (slow === null || slow + margin <= delay)
    return { outcome: 'pass', note: `${told}. The slowest of the house was not there.`, pace: null }
  return {
    outcome: 'inconclusive',
    note: `${told}. The slowest of the house was not there and would need about ${slow} s, ${slow + margin} s with what is to spare.`,
    pace: null,
  }
}

/** What shows that the panel does not hold the planned delay; null where nothing does. */
function unlikePlan(delay: number, { seconds, alarmed }: CameHome): string | null {
  if (alarmed && seconds < delay - TAPS)
    return `It alarmed ${seconds} s after the door, though ${delay} s are planned: the panel holds another delay, or another zone was tripped on the way.`
  if (!alarmed && seconds > delay + TAPS)
    return `No alarm ${seconds} s after the door, though ${delay} s are planned: the panel holds a longer delay, or the door started none.`
  return null
}

function longer(seconds: number, margin: number): string {
  return `They need at least ${Math.ceil(seconds + margin)} s, or to unset before they come in.`
}

/** What the slowest would have needed, s, where a slow person was said to live there; null where not. */
function slowSeconds({ doc, catalogue, figures }: JobAndFigures, came: CameHome): number | null {
  const { info } = systemOf(doc, catalogue)
  const pace = paceOf(info, figures)
  if (pace >= figures.paceOrdinary || came.at.id === 'fob') return null
  const walked = Math.max(0, came.seconds - figures.keyIn)
  return Math.ceil((walked * figures.paceOrdinary) / pace + Math.min(came.seconds, figures.keyIn))
}

/**
 * The pace that a timed way tells, m/s: the walk by the house at the pace supposed, over what is left of the time after keying a
 * code. Null without a described way, at a fob, when somebody else came, or when less than a second is left for the walk.
 */
function paceSeen(job: JobAndFigures, zoneId: string, { seconds, slowest, at }: CameHome): number | null {
  const walk = slowest ? walkTo(job, recordOf(job.doc, 'zone', zoneId), at.id) : null
  const walked = seconds - job.figures.keyIn
  if (!walk || walk.seconds === 0 || walked < 1) return null
  const pace = (paceOf(systemOf(job.doc, job.catalogue).info, job.figures) * walk.seconds) / walked
  return Math.min(3, Math.max(0.1, Math.round(pace * 100) / 100))
}

/** The walk from a door's room to a keypad's; null where the house does not tell it. */
function walkTo({ doc, catalogue, figures }: JobAndFigures, zone: Zone | null, keypad: string): Walk | null {
  const system = systemOf(doc, catalogue)
  const house = houseOf(doc, system, figures)
  const described = (id: string | null): string | null => {
    const device = system.byId.get(id ?? '')?.device
    if (!device) return null
    return recordOf(doc, 'opening', device.opening)?.room ?? house.room(device.room)?.id ?? null
  }
  const [from, to] = [described(zone?.device ?? null), described(keypad)]
  return from === null || to === null ? null : house.walk(from, to)
}

/** A keypad that does not unset the door's area is no help to who comes in by it. */
function serves({ doc, catalogue }: JobAndCatalogue, zone: Zone | null, keypad: string): boolean {
  const { panel, byId } = systemOf(doc, catalogue)
  const device = byId.get(keypad)?.device
  const areas = device ? servedAreas(doc, panel, device) : null
  return areas === null || zone?.area == null || areas.has(zone.area)
}
