import { ask, type Answer } from '../act/ask.ts'
import type { SetMode } from '../act/behaviour.ts'
import type {
  AlarmKind,
  DeviceEvent,
  DeviceModel,
  PanelModel,
  ResponseType,
  Trip,
} from '../catalogue/schema.ts'
import type { Schools } from '../house-rules/house-rules.ts'
import type { Region } from '../units/region.ts'
import type { Use } from '../job/records.ts'
import { behaviourOfType } from './behaviour-of.ts'
import { consequence, isGrave, watchOf, type Watch, type Watched } from './compare.ts'
import { tripsOf } from './modes.ts'

/** What the needed behaviour depends on besides the event itself; the schools are those in force for the job. */
export interface Place extends Omit<Watched, 'event'> {
  readonly region: Region
}

/** The behaviour that a device event needs where it is. */
export interface Need {
  readonly kind: AlarmKind
  readonly away: Trip
  readonly stay: Trip
  /** In the panel's night mode, where it has one. */
  readonly night: Trip
  /** Whether it is to alarm while the system is unset, too. */
  readonly anyHour: boolean
  /** True for a call that must make no sound. */
  readonly silent: boolean
  /** Why, one sentence. */
  readonly reason: string
  /** What is watched there; null where it is no burglary device. */
  readonly watch: Watch | null
}

/** A need by the event and its use alone. */
type Asked = Omit<Need, 'watch'>

/** The panel's response type for a need. */
export interface Advice {
  readonly need: Need
  /** Null when the panel has no type that could stand for it. */
  readonly type: ResponseType | null
  /** What the type does otherwise than needed; empty when it gives just that. */
  readonly differs: readonly string[]
}

const entries: ReadonlySet<Use> = new Set(['entry', 'entry-far', 'entry-not-in-stay'])

/** Whether a use is a way in, on which an entry delay belongs. */
export function isWayIn(use: Use): boolean {
  return entries.has(use) || use === 'sees-entry'
}

/** Events of life safety: instant in every mode, always on, reported, never held back. */
export function isLifeSafety(kind: AlarmKind): boolean {
  return kind === 'fire' || kind === 'gas'
}

/** Whether any event of a device is of life safety: smoke, heat, gas, and the like. */
export function isOfLifeSafety(model: DeviceModel): boolean {
  return model.loops.some((loop) => isLifeSafety(kindOf(loop.event)))
}

/** The kind of alarm that an event is, wherever it stands. */
export function kindOf(event: DeviceEvent): AlarmKind {
  switch (event) {
    case 'smoke':
    case 'heat':
      return 'fire'
    case 'co':
      return 'gas'
    case 'freeze':
    case 'flood':
      return 'auxiliary'
    case 'panic':
    case 'panic-silent':
      return 'panic'
    case 'medical':
      return 'medical'
    case 'arm-away':
    case 'arm-stay':
    case 'disarm':
    case 'output':
      return 'command'
    case 'open':
    case 'terminals':
    case 'motion':
    case 'glass':
    case 'shock':
      return 'burglary'
  }
}

/** What a device event at this place needs. */
export function needOf(event: DeviceEvent, place: Place): Need {
  return { ...askedOf(event, place), watch: watchOf({ ...place, event }) }
}

function askedOf(event: DeviceEvent, place: Place): Asked {
  switch (event) {
    case 'smoke':
    case 'heat':
      return always(
        'fire',
        `${event === 'smoke' ? 'Smoke' : 'Heat'} is a fire at any hour: instant in every mode.`,
      )
    case 'co':
      return always(
        'gas',
        'Carbon monoxide is its own kind of alarm: instant in every mode, never typed as fire.',
      )
    case 'freeze':
    case 'flood':
      return always(
        'auxiliary',
        `${event === 'freeze' ? 'Frost' : 'Water'} harms the house at any hour: always on, with its own tone.`,
      )
    case 'panic':
      return always('panic', 'A call for help works in every mode and is never held back.')
    case 'panic-silent':
      return {
        ...always('panic', 'A quiet call for help: every mode, no sound at the premises.'),
        silent: true,
      }
    case 'medical':
      return always('medical', 'A care call is its own kind: typed as panic it would send the police.')
    case 'arm-away':
    case 'arm-stay':
    case 'disarm':
    case 'output':
      return {
        kind: 'command',
        away: 'command',
        stay: 'command',
        night: 'command',
        anyHour: false,
        silent: false,
        reason: 'A fob button gives a command.',
      }
    case 'motion':
      return motionNeed(place)
    case 'glass':
      return glassNeed(place)
    case 'shock':
      if (place.use === 'always-on') return openingNeed(place.use)
      return burglary(
        ['instant', 'instant'],
        'A blow on frame or pane alarms at once whenever the house is set.',
      )
    case 'open':
    case 'terminals':
      return openingNeed(place.use)
  }
}

/** The panel's type that gives a need, or the nearest safe one and what differs. */
export function advise(panel: PanelModel, event: DeviceEvent, need: Need): Advice {
  if (need.kind === 'command')
    return {
      need,
      type: panel.responseTypes.find((type) => type.key === commandKey(event)) ?? null,
      differs: [],
    }
  const kin = panel.responseTypes.filter(
    (type) => type.kind === need.kind && (type.sound === 'silent') === need.silent,
  )
  const unset = (trip: Trip) => (type: ResponseType) =>
    need.kind !== 'burglary' || tripsOf(panel, type).unset === trip
  const plain = kin.filter((type) => !isLifeSafety(need.kind) || (type.fire ?? 'plain') === 'plain')
  const anyHour = need.anyHour ? nearest(panel, need, plain.filter(unset('instant'))) : null
  const type = anyHour ?? nearest(panel, need, plain.filter(unset('ignore')))
  return { need, type, differs: type ? differences(need, doneBy(panel, type)) : [] }
}

/** What a trip of a type does while people leave or come in, one sentence each: asked of the machine, by the panel's data. */
export function whileMoving(panel: PanelModel, type: ResponseType): { leaving: string; entering: string } {
  if (type.kind === 'command') return { leaving: 'The command is taken.', entering: 'The command is taken.' }
  const behaviour = behaviourOfType(panel, type, { stayToEntry2: false, dayZone: false })
  const asked = (mode: 'away' | 'stay', runs: 'leaving' | 'entering'): Answer =>
    ask(behaviour, type.key, { mode, while: runs })
  const leaves = (mode: 'away' | 'stay'): string => {
    const { alarm, hesitates } = asked(mode, 'leaving')
    return alarm !== null || hesitates ? 'alarms at once' : 'is ignored'
  }
  const leaving =
    leaves('away') === leaves('stay')
      ? `A trip ${leaves('away')}.`
      : `Leaving in away a trip ${leaves('away')}; in stay it ${leaves('stay')}.`
  return { leaving, entering: enteringWords(panel, type, asked('away', 'entering')) }
}

function enteringWords(panel: PanelModel, type: ResponseType, answer: Answer): string {
  const { away, unset } = tripsOf(panel, type)
  if (unset === 'instant') return 'Always on: it alarms at once.'
  if (answer.notices) return 'It gives its notice only.'
  if (answer.waits) return away === 'follow' ? 'It waits for the delay that runs.' : secondEntry(panel)
  return answer.alarm === null ? 'It is not armed.' : 'It alarms at once.'
}

function secondEntry(panel: PanelModel): string {
  const shorter = panel.couplings?.shorterEntryWins
  if (shorter === undefined)
    return 'Whether a shorter delay shortens the one that runs, the panel’s entry does not say.'
  return shorter
    ? 'A shorter delay shortens the one that runs; none lengthens it.'
    : 'It neither lengthens nor shortens the delay that runs.'
}

/** What a trip does in a mode, in words. */
export function tripWords(trip: Trip): string {
  const words: Record<Trip, string> = {
    ignore: 'nothing',
    instant: 'instant',
    'entry-1': 'entry 1',
    'entry-2': 'entry 2',
    follow: 'follow',
    alert: 'notice only',
    command: 'command',
  }
  return words[trip]
}

function always(kind: AlarmKind, reason: string): Asked {
  return { kind, away: 'instant', stay: 'instant', night: 'instant', anyHour: true, silent: false, reason }
}

/** At night what stay does holds too, unless something else is said. */
function burglary([away, stay, night = stay]: readonly [Trip, Trip, Trip?], reason: string): Asked {
  return { kind: 'burglary', away, stay, night, anyHour: false, silent: false, reason }
}

function openingNeed(use: Use): Asked {
  switch (use) {
    case 'entry':
      return burglary(
        ['entry-1', 'entry-1'],
        'A door used every day starts entry 1, also for someone who comes home late in stay.',
      )
    case 'entry-far':
      return burglary(['entry-2', 'entry-2'], 'A door far from the keypad starts entry 2, the longer delay.')
    case 'entry-not-in-stay':
      return burglary(
        ['entry-1', 'instant'],
        'Nobody uses this door once the house is in stay: there it alarms at once.',
      )
    case 'inner-way':
    case 'on-way':
    case 'on-way-night':
      return burglary(
        ['follow', 'ignore'],
        'An inner door on the way to the keypad follows the entry delay; instant would alarm on its owner.',
      )
    case 'sees-entry':
    case 'off-way':
    case 'opening':
      return burglary(
        ['instant', 'instant'],
        'Nobody comes in this way: it alarms at once whenever the house is set.',
      )
    case 'always-on':
      return always(
        'burglary',
        'Nobody opens it but by arrangement: it alarms at once at any hour, also while the system is unset.',
      )
    case 'none':
      return burglary(
        ['instant', 'instant'],
        'Its use is not stated, so it is treated as an opening nobody comes in by.',
      )
  }
}

function motionNeed({ use, region, schools }: Place): Asked {
  switch (use) {
    case 'sees-entry':
      return schools.seesLeaf === 'follow'
        ? burglary(
            ['follow', 'ignore'],
            'House rule: a motion that sees the leaf follows; the contact must then trip first.',
          )
        : burglary(
            ['entry-1', 'ignore'],
            'It sees the leaf of the entry door and trips before the contact: as follow it would alarm on its owner.',
          )
    case 'off-way':
      return offWayNeed(schools.offWay, region)
    case 'entry-far':
      return schools.seesLeaf === 'follow'
        ? burglary(['follow', 'ignore'], 'House rule: a motion that sees the leaf of a far door follows.')
        : burglary(
            ['entry-2', 'ignore'],
            'It sees the leaf of an entry door and takes the delay of the far one: that door’s, or one on whose way it lies.',
          )
    case 'on-way-night':
      return burglary(
        ['follow', 'entry-1'],
        'It watches the way down at night: whoever comes down in stay has the entry delay to reach the keypad.',
      )
    default:
      return burglary(
        ['follow', 'ignore'],
        'It lies on the way to the keypad: it waits while an entry delay runs, else it alarms at once.',
      )
  }
}

function offWayNeed(school: Schools['offWay'], region: Region): Asked {
  if (school === 'region')
    return region === 'europe'
      ? burglary(
          ['instant', 'ignore'],
          'It lies off every way to the keypad: in an EN region it alarms at once.',
        )
      : burglary(['follow', 'ignore'], 'It lies off every way to the keypad; outside EN regions it follows.')
  return school === 'instant'
    ? burglary(['instant', 'ignore'], 'House rule: a motion off every way alarms at once.')
    : burglary(['follow', 'ignore'], 'House rule: a motion off every way follows.')
}

function glassNeed({ noisy, schools }: Place): Asked {
  if (schools.glass === 'away-only')
    return burglary(['instant', 'ignore'], 'House rule: glass break is away only.')
  return noisy && schools.glass === 'by-room'
    ? burglary(
        ['instant', 'ignore'],
        'Glass break in a kitchen, utility, garage or workshop is away only: daily noise sounds alike.',
      )
    : burglary(['instant', 'instant'], 'Breaking glass alarms at once whenever the house is set.')
}

function commandKey(event: DeviceEvent): string {
  return (
    { 'arm-away': 'command-away', 'arm-stay': 'command-stay', disarm: 'command-disarm' }[event as 'disarm'] ??
    'command-output'
  )
}

/** What a type does in the modes of its panel, asked of the machine; night is null on a panel without. */
interface Done {
  readonly unset: Trip
  readonly away: Trip
  readonly stay: Trip
  readonly night: Trip | null
}

function doneBy(panel: PanelModel, type: ResponseType): Done {
  const { away, stay, night, unset } = tripsOf(panel, type)
  return { unset, away, stay, night: type.night === undefined ? null : night }
}

/** The type that does what is nearest to a need; of several the first. */
function nearest(panel: PanelModel, need: Need, types: readonly ResponseType[]): ResponseType | null {
  let best: ResponseType | null = null
  let least = Infinity
  for (const type of types) {
    const far = distance(need, doneBy(panel, type))
    if (far < least) [best, least] = [type, far]
  }
  return best
}

/** No gap in a mode weighs as much as a consequence in another. */
const HARM = 1000
/** Away weighs most, night least. */
const weights = [
  ['away', 4],
  ['stay', 2],
  ['night', 1],
] as const

/** First what a trip comes to, as the findings tell it; then how far it is from what is asked. */
function distance(need: Need, does: Done): number {
  let far = 0
  for (const [mode, weight] of weights) {
    const given = does[mode]
    if (given !== null) far += weight * (HARM * harm(need, mode, given) + gap(need[mode], given))
  }
  return far
}

/** How bad a trip is; live where nothing was asked is as bad as a consequence: a motion is not kept on in stay by the way. */
function harm(need: Need, mode: SetMode, given: Trip): number {
  const comes = need.watch && consequence(need.watch, mode, given)
  if (comes === null) return need[mode] === 'ignore' && given !== 'ignore' ? 5 : 0
  if (!isGrave(comes)) return 1
  return comes === 'less' ? 2 : 5
}

/** Ignoring what should alarm weighs more than alarming too readily. */
function gap(wanted: Trip, given: Trip): number {
  if (wanted === given) return 0
  if (given === 'ignore') return 9
  if (wanted === 'ignore') return 6
  if (wanted === 'follow' && given === 'entry-1') return 2
  if (wanted === 'entry-2' && given === 'entry-1') return 2
  return 4
}

function differences(need: Need, does: Done): string[] {
  const sleeps = need.anyHour && does.unset !== 'instant'
  return [
    ...(['away', 'stay', 'night'] as const).flatMap((mode) => {
      const given = does[mode]
      return given === null || given === need[mode]
        ? []
        : [`${mode}: ${tripWords(given)} instead of ${tripWords(need[mode])}`]
    }),
    ...(sleeps ? [`unset: ${tripWords(does.unset)} instead of ${tripWords('instant')}`] : []),
  ]
}
