import {
  nothingStated,
  type ActArea,
  type ActOptions,
  type ActZone,
  type Behaviour,
  type Command,
} from '../act/behaviour.ts'
import type { PanelModel, ResponseType } from '../catalogue/schema.ts'
import type { System } from '../system/system.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { JobInfo, Zone } from '../job/records.ts'
import { delayFieldOf, delaySets, encodeDelay, exitInStay, limitOf, type DelayKey } from './delays.ts'

/* The panel's behaviour as this plan has it: what the machine of act/ is given. */

/** The area of a plan that names none. */
const WHOLE = 'area:whole'

/** What a plan couples to a zone's response type besides the type itself. */
export interface Coupled {
  /** The panel's option that turns all zones of stay into entry 2. */
  readonly stayToEntry2: boolean
  /** The zone is offered to the user as a day zone. */
  readonly dayZone: boolean
}

/** What a trip does in each mode: the type's own data, and what the panel couples to it. */
export function declaredTrips(panel: PanelModel, type: ResponseType, coupled: Coupled): ActZone['trips'] {
  const { stayToEntry2, dayZones } = panel.couplings ?? {}
  const delayed = coupled.stayToEntry2 && stayToEntry2 !== undefined && isDelayable(type)
  const offered = coupled.dayZone && dayZones === 'user' && type.kind === 'burglary'
  return {
    away: type.away,
    stay: delayed ? 'entry-2' : type.stay,
    // A panel without a night mode is never set to night; what stay does stands there.
    night: type.night ?? type.stay,
    unset: offered ? 'alert' : type.disarmed,
  }
}

/** Zones that are on in stay and not always on: those the option delays. */
function isDelayable(type: ResponseType): boolean {
  return type.kind === 'burglary' && type.stay !== 'ignore' && type.stay !== 'entry-2'
}

/** One zone of a response type on its own, with delays to tell apart: for questions about the type, not about a plan. */
export function behaviourOfType(panel: PanelModel, type: ResponseType, coupled: Coupled): Behaviour {
  const delays = { entry1: 30, entry2: 60, exit: 60, exitStay: 60 }
  return {
    areas: [{ id: WHOLE, delays }],
    zones: [
      {
        ...typed(panel, type, coupled),
        id: type.key,
        device: type.key,
        areas: [WHOLE],
        parts: [],
        chime: false,
        report: true,
        held: false,
        supervised: true,
        doubleKnock: false,
        group: null,
        stands: false,
      },
    ],
    options: { ...nothingStated, shorterEntryWins: panel.couplings?.shorterEntryWins ?? null },
  }
}

/** How the planned system behaves, or null without a panel. Zones without a type of it are left out: none is guessed. */
export function behaviourOf(doc: JobDocument, { panel, info }: System): Behaviour | null {
  if (!panel) return null
  const letters = panel.couplings?.twoAreas === 'full-and-part'
  const areas = letters ? [] : recordsOf(doc, 'area').map(({ id }) => id)
  const named = areas.length === 0 ? [WHOLE] : areas
  return {
    areas: named.map((id) => ({ id, delays: delaysOf(doc, panel, id) })),
    zones: recordsOf(doc, 'zone').flatMap(
      (zone) => zoneOf({ panel, info }, zone, { areas: named, letters }) ?? [],
    ),
    options: optionsOf(doc, panel, info),
  }
}

interface On {
  readonly panel: PanelModel
  readonly info: JobInfo
}

interface Parts {
  readonly areas: readonly string[]
  readonly letters: boolean
}

function zoneOf({ panel, info }: On, zone: Zone, { areas, letters }: Parts): ActZone | null {
  const type = panel.responseTypes.find((one) => one.key === zone.response)
  if (!type) return null
  const hidden = new Set<string>(type.hides)
  const own = [zone.area, zone.area2].flatMap((id) => (id !== null && areas.includes(id) ? id : []))
  return {
    ...typed(panel, type, { stayToEntry2: info.stayToEntry2, dayZone: zone.dayZone }),
    id: zone.id,
    device: zone.device ?? zone.id,
    areas: own.length > 0 ? own : areas.slice(0, 1),
    parts: letters ? [zone.area, zone.area2].flatMap((id) => id ?? []) : [],
    chime: zone.chime && !hidden.has('chime'),
    report: zone.report || hidden.has('report'),
    held: zone.transmissionDelay && type.transmissionDelayAllowed,
    supervised: zone.supervise || hidden.has('supervise'),
    doubleKnock: zone.doubleKnock && panel.couplings?.doubleKnock === true,
    group: zone.fireGroup,
    stands: zone.event === 'open' || zone.event === 'terminals',
  }
}

/** What a zone has of its type alone. */
function typed(
  panel: PanelModel,
  type: ResponseType,
  coupled: Coupled,
): Pick<ActZone, 'kind' | 'sound' | 'trips' | 'whileExit' | 'command' | 'fire'> {
  return {
    kind: type.kind,
    sound: type.sound,
    trips: declaredTrips(panel, type, coupled),
    whileExit: type.whileExit,
    command: type.kind === 'command' ? (commands[type.key] ?? 'output') : null,
    fire: type.fire ?? 'plain',
  }
}

const commands: Readonly<Record<string, Command>> = {
  'command-away': 'set-away',
  'command-stay': 'set-stay',
  'command-disarm': 'unset',
}

function delaysOf(doc: JobDocument, panel: PanelModel, area: string): ActArea['delays'] {
  const [whole, ...own] = delaySets(doc, panel)
  const set = own.find((one) => one.id === area)
  const seconds = (key: DelayKey): number | null =>
    stored({ doc, panel }, key, set?.values[key] ?? whole?.values[key] ?? null)
  const inStay = exitInStay(doc, panel, area)
  return {
    entry1: seconds('entry1'),
    entry2: seconds('entry2'),
    exit: seconds('exit'),
    exitStay: inStay === 0 ? 0 : stored({ doc, panel }, exitKey(panel), inStay),
  }
}

function exitKey(panel: PanelModel): DelayKey {
  return panel.couplings?.exitInStay === 'own' ? 'exitStay' : 'exit'
}

interface Kept {
  readonly doc: JobDocument
  readonly panel: PanelModel
}

/** A wanted delay as the panel keeps it, s; as wanted where it cannot keep it, which is a finding elsewhere. */
function stored({ doc, panel }: Kept, key: DelayKey, wanted: number | null): number | null {
  const field = delayFieldOf(panel, infoOf(doc), key)
  if (wanted === null || !field) return wanted
  const encoded = encodeDelay(field, wanted, { limit: limitOf(doc, key) })
  return encoded.ok ? encoded.seconds : wanted
}

function infoOf(doc: JobDocument): JobInfo {
  const [info] = recordsOf(doc, 'job')
  if (!info) throw new RangeError('behaviourOf: the document has no job record')
  return info
}

function optionsOf(doc: JobDocument, panel: PanelModel, info: JobInfo): ActOptions {
  return {
    ...nothingStated,
    exitBy: info.exitBy ?? 'timer',
    openAtExit: info.openAtExit,
    shorterEntryWins: panel.couplings?.shorterEntryWins ?? null,
    sirenSeconds: info.sirenSeconds,
    holdSeconds: stored({ doc, panel }, 'abort', info.abortWindow),
    swinger: info.swinger,
    secondUnsetClears: panel.secondDisarmClears,
    verifiedBy: panel.couplings?.fireGroups === undefined ? 'again' : 'group',
    reports: info.monitored,
  }
}
