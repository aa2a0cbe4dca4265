import type { DeviceEvent, ResponseType } from '../catalogue/schema.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import { isInPanel } from '../job/enrolment.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { Room, TemporaryState, Zone } from '../job/records.ts'
import { houseOf, openingName, type House } from '../premises/house.ts'
import { isWatched } from '../proof/armed.ts'
import { proofRoute, type ProofItem } from '../proof/owed.ts'
import { openStates, stateAbout, stateRules, type StateKind } from '../proof/states.ts'
import { isLifeSafety, kindOf } from '../response/advise.ts'
import { fullSet } from '../response/letters.ts'
import { modesOf } from '../response/modes.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import { printNumber } from '../zones/numbers.ts'

/*
 * Leaving for tonight: parts or daylight lack, and people sleep behind what is there. It is a hand-over of its own kind, which says
 * what protects and what does not; it never counts as handed over.
 */

/** One zone as it stands tonight. */
interface TonightZone {
  readonly zone: string
  readonly name: string
  /** Why it does not protect, or what nobody has seen of it; empty where it was seen to work. */
  readonly why: string
  /** Whether it is of fire or gas. */
  readonly lifeSafety: boolean
}

/** What holds tonight. */
export interface Tonight {
  /** Seen to work as it now is: its event, or its call, or its alarm. */
  readonly protects: readonly TonightZone[]
  /** In the panel, and its alarm not seen yet: it may work. */
  readonly unproved: readonly TonightZone[]
  /** Not in the panel, deferred, or set to not used. */
  readonly not: readonly TonightZone[]
  /** Walks through the house that nothing sees while it is set so, in words; empty where the house is not described. */
  readonly blind: Readonly<Record<'away' | 'stay', readonly string[]>>
  /** Whether anything is known of the ways into the house: else nobody can say which walks are blind. */
  readonly described: boolean
  /** States that may not stay over a night: ended before one leaves. */
  readonly mustEnd: readonly { readonly state: TemporaryState; readonly words: string }[]
}

/** Sign-off of somebody who leaves for the night. */
export const LEFT_TONIGHT = 'left-tonight'

/** States that would leave people without help or without a sound all night. */
const notOverNight: ReadonlySet<StateKind> = new Set([
  'station-on-test',
  'siren-unplugged',
  'sounder-off',
  'hardware-watch-off',
  'mains-off',
])

/** Proofs in which a zone was seen to do what it is for. */
const shows: ReadonlySet<ProofItem['kind']> = new Set(['armed', 'agent', 'trip'])

/** What protects tonight and what does not, by what is on record. */
export function tonightOf(job: JobAndCatalogue, rules: HouseRules): Tonight {
  const { doc, catalogue } = job
  const { panel } = systemOf(doc, catalogue)
  const passed = new Set(
    proofRoute(doc, catalogue, null).flatMap(({ items }) =>
      items.filter(({ kind, state }) => shows.has(kind) && state === 'pass').map(({ subject }) => subject),
    ),
  )
  const unused = new Set(
    openStates(doc).flatMap(({ kind, about }) => (kind === 'zone-not-used' && about ? [about] : [])),
  )
  const typeOf = (zone: Zone): ResponseType | undefined =>
    panel?.responseTypes.find(({ key }) => key === zone.response)
  const zones = recordsOf(doc, 'zone').filter((zone) => typeOf(zone)?.kind !== 'command')
  const told = zones.map((zone): TonightZone => {
    const type = typeOf(zone)
    return {
      zone: zone.id,
      name: [`zone ${printNumber(panel, zone.number)}`, zone.label].filter(Boolean).join(' '),
      why: whyNot(job, zone, unused),
      // A heat event that is typed as something else is a heat event still.
      lifeSafety: isOfFireOrGas(zone, type),
    }
  })
  const alone = verifiedAlone(zones, new Set(told.flatMap(({ zone, why }) => (why === '' ? [zone] : []))), {
    typeOf,
    groups: panel?.couplings?.fireGroups,
  })
  for (const [index, one] of told.entries())
    if (alone.has(one.zone))
      told[index] = { ...one, why: 'no second detector of its group is there to agree' }
  const there = told.filter(({ why }) => why === '')
  const live = new Set(there.map(({ zone }) => zone))
  const house = houseOf(doc, systemOf(doc, catalogue), rules.figures)
  const blindIn = (mode: 'away' | 'stay'): string[] =>
    blindWalks(
      doc,
      house,
      new Set(zones.filter((zone) => live.has(zone.id) && isOn(job, zone, mode)).map(({ id }) => id)),
    )
  return {
    protects: there.filter(({ zone }) => passed.has(zone)),
    unproved: there
      .filter(({ zone }) => !passed.has(zone))
      .map((one) => ({ ...one, why: 'nobody has seen its alarm yet' })),
    not: told.filter(({ why }) => why !== ''),
    blind: { away: blindIn('away'), stay: blindIn('stay') },
    described: house.openings.some(({ to }) => to === null),
    mustEnd: openStates(doc)
      .filter(({ kind }) => notOverNight.has(kind))
      .map((state) => {
        const about = stateAbout(doc, catalogue, state)
        return { state, words: `${stateRules[state.kind].name}${about === '' ? '' : `: ${about}`}` }
      }),
  }
}

interface Verified {
  readonly typeOf: (zone: Zone) => ResponseType | undefined
  /** How many groups the panel has; undefined where the same detector must see smoke again. */
  readonly groups: number | undefined
}

/** Of zones that protect, those that wait for a second detector which does not: they would never alarm. */
function verifiedAlone(
  zones: readonly Zone[],
  live: ReadonlySet<string>,
  { typeOf, groups }: Verified,
): ReadonlySet<string> {
  if (groups === undefined) return new Set()
  const verified = zones.filter((zone) => live.has(zone.id) && typeOf(zone)?.fire === 'verified')
  const alone = verified.filter(
    ({ device, fireGroup }) =>
      fireGroup === null ||
      !verified.some((other) => other.device !== device && other.fireGroup === fireGroup),
  )
  return new Set(alone.map(({ id }) => id))
}

function isOfFireOrGas({ event }: Zone, type: ResponseType | undefined): boolean {
  return (
    (type !== undefined && isLifeSafety(type.kind)) ||
    (event !== null && isLifeSafety(kindOf(event as DeviceEvent)))
  )
}

/** Why a zone protects nothing tonight; empty where it may. */
function whyNot({ doc, catalogue }: JobAndCatalogue, zone: Zone, unused: ReadonlySet<string>): string {
  const item = zone.device === null ? undefined : systemOf(doc, catalogue).byId.get(zone.device)
  if (!item) return 'it has no device'
  if (item.device.deferred !== null) return `its device is not there yet: ${item.device.deferred}`
  if (zone.response === null) return 'it has no response type'
  if (unused.has(zone.id)) return 'it is set to not used'
  if (item.family && !isInPanel(doc, zone.id)) return 'the panel has not learned it'
  return ''
}

/** Whether a trip of a zone comes to an alarm in a mode. */
function isOn({ doc, catalogue }: JobAndCatalogue, zone: Zone, mode: 'away' | 'stay'): boolean {
  const { panel, info } = systemOf(doc, catalogue)
  const type = panel?.responseTypes.find(({ key }) => key === zone.response)
  if (!panel || !type) return false
  const found = modesOf({ panel, info, fullSet: fullSet(doc, panel) }, zone, type).find(
    (one) => one.mode === mode,
  )
  return isWatched(found?.trip)
}

const opens: ReadonlySet<string> = new Set<DeviceEvent>(['open', 'terminals'])

/**
 * Walks that nothing sees: from each opening that no contact guards tonight, the rooms that one reaches without passing one that is
 * watched. An opening whose own room is watched begins none.
 */
function blindWalks(doc: JobDocument, house: House, live: ReadonlySet<string>): string[] {
  const guarded = new Set<string>()
  const watched = new Set<string>()
  for (const zone of recordsOf(doc, 'zone')) {
    const device = live.has(zone.id) ? recordOf(doc, 'device', zone.device) : null
    if (!device) continue
    if (opens.has(zone.event ?? '') && device.opening !== null) guarded.add(device.opening)
    if (zone.event !== 'motion') continue
    const room = house.room(device.room)
    if (room) watched.add(room.id)
    for (const sight of recordsOf(doc, 'sight'))
      if (sight.device === device.id && sight.room !== null) watched.add(sight.room)
  }
  return house.openings.flatMap((opening) => {
    if (opening.to !== null || guarded.has(opening.id) || watched.has(opening.room)) return []
    const rooms = reached(house, opening.room, watched)
    return rooms.length === 0
      ? []
      : [`By the ${openingName(opening, house)} unseen to: ${rooms.map(({ name }) => name).join(', ')}.`]
  })
}

/** Rooms reached from one without entering a watched one, the nearest first, itself included. */
function reached(house: House, from: string, watched: ReadonlySet<string>): Room[] {
  const found = [from]
  for (const at of found)
    for (const way of house.ways) {
      const next = way.from === at ? way.to : way.to === at ? way.from : null
      if (next !== null && !watched.has(next) && !found.includes(next)) found.push(next)
    }
  return found.flatMap((id) => house.rooms.find((room) => room.id === id) ?? [])
}

/** Why one cannot leave so; empty where one can. */
export function tonightBlocked({ mustEnd, protects, unproved, not }: Tonight): string {
  if (mustEnd.length > 0)
    return `End first what may not stay over a night: ${mustEnd.map(({ words }) => words).join('; ')}.`
  return protects.length + unproved.length + not.length === 0 ? 'There is no zone yet: nothing is left.' : ''
}

/** Who last left for a night, and when; null for nobody. */
export function leftTonight(doc: JobDocument): { readonly at: string; readonly who: string } | null {
  const last = evidenceOf(doc, 'signoff')
    .filter(({ what }) => what === LEFT_TONIGHT)
    .at(-1)
  return last ? { at: last.at, who: last.made.name } : null
}
