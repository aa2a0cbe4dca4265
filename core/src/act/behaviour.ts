import type { AlarmKind, Trip } from '../catalogue/entry-fields.ts'

/* How a panel behaves, as plain values: what the machine of this folder acts out. No document, no pack, no clock. */

/** Arming modes of a set system; not set is no mode. */
export type SetMode = 'away' | 'stay' | 'night'

/** What an alarm, a report or a trouble is about: the kinds of response types, and what the panel raises of itself. */
export type ActKind = AlarmKind | 'tamper' | 'duress'

/** How an alarm is heard at the premises. */
export type Sound = 'siren' | 'three-pulse' | 'four-pulse' | 'tone' | 'silent' | 'none'

/** What a fob button or key switch does. */
export type Command = 'set-away' | 'set-stay' | 'unset' | 'output'

/** A zone as the panel treats it. */
export interface ActZone {
  readonly id: string
  /** The transmitter it belongs to: its cover, battery and silence show on all zones of one device. */
  readonly device: string
  /** Areas it is in; one in several is common to them: set only while all of them are. */
  readonly areas: readonly string[]
  /** Part sets it belongs to, by letter; empty where the panel has none: then it is in every one. */
  readonly parts: readonly string[]
  readonly kind: AlarmKind
  readonly sound: Sound
  /** What a trip does in each mode, and while unset. */
  readonly trips: Readonly<Record<SetMode | 'unset', Trip>>
  /** What a trip that alarms at once does while the exit delay runs; night counts as stay. */
  readonly whileExit: { readonly away: 'live' | 'ignored'; readonly stay: 'live' | 'ignored' }
  /** Of a command, what it does; null for every other zone. */
  readonly command: Command | null
  readonly chime: boolean
  readonly report: boolean
  /** Whether its alarm is held before it is sent. */
  readonly held: boolean
  readonly supervised: boolean
  /** Whether two trips are needed. */
  readonly doubleKnock: boolean
  /** Of a fire zone, how it decides. */
  readonly fire: 'plain' | 'delayed' | 'verified'
  /** Detectors that verify each other; null for none. */
  readonly group: number | null
  /** Whether it shows open until it closes again (contacts); a motion, a pane or a button only trips. */
  readonly stands: boolean
}

/** Seconds of an area; null where nobody has said them: the machine then takes none. */
interface ActDelays {
  readonly entry1: number | null
  readonly entry2: number | null
  readonly exit: number | null
  /** In stay and night. */
  readonly exitStay: number | null
}

/** An area with its delays. */
export interface ActArea {
  readonly id: string
  readonly delays: ActDelays
}

/** What holds for the whole panel. Null where the panel's data does not say: each member names what is then taken. */
export interface ActOptions {
  /** What ends the exit delay: its time, the closing of an entry door, or whichever comes first. */
  readonly exitBy: 'timer' | 'door' | 'either'
  /** What becomes of a zone open at the end of exit; null is taken as `exclude`, which leaves it unprotected. */
  readonly openAtExit: 'exclude' | 'alarm' | null
  /** Whether coming back in restarts a running exit delay, once; null is taken as no. */
  readonly exitRestarts: boolean | null
  /** Whether away becomes stay when nobody left by an entry door; null is taken as no. */
  readonly staysIfNobodyLeft: boolean | null
  /** Whether a second entry zone with a shorter delay shortens the one that runs; null is taken as no. */
  readonly shorterEntryWins: boolean | null
  /** Seconds an alarm sounds; null until it is silenced. */
  readonly sirenSeconds: number | null
  /** Seconds an alarm is held before it is sent; null for none. */
  readonly holdSeconds: number | null
  /** Alarms of one zone in one set period after which it is left out; 0 or null for never. */
  readonly swinger: number | null
  /** Whether the first unset silences and only the second clears. */
  readonly secondUnsetClears: boolean
  /** Seconds within which the second trip of double knock must come; null for the whole set period. */
  readonly knockSeconds: number | null
  /** What verifies a fire: the same detector again, or a second one of its group. */
  readonly verifiedBy: 'again' | 'group'
  /** Seconds within which a fire is verified; null until it is cleared. */
  readonly verifySeconds: number | null
  /** Seconds to acknowledge a delayed fire; null where nobody has said them: it then alarms at once. */
  readonly acknowledgeSeconds: number | null
  /** What an opened cover is while unset; null is taken as trouble. */
  readonly tamperUnset: 'trouble' | 'alarm' | null
  /** Whether an open cover, a lost device or jamming prevents setting; null is taken as no. */
  readonly troublePrevents: boolean | null
  /** Whether anything is sent anywhere. */
  readonly reports: boolean
}

/** A panel of which nothing is stated, which reports. */
export const nothingStated: ActOptions = {
  exitBy: 'timer',
  openAtExit: null,
  exitRestarts: null,
  staysIfNobodyLeft: null,
  shorterEntryWins: null,
  sirenSeconds: null,
  holdSeconds: null,
  swinger: null,
  secondUnsetClears: false,
  knockSeconds: null,
  verifiedBy: 'again',
  verifySeconds: null,
  acknowledgeSeconds: null,
  tamperUnset: null,
  troublePrevents: null,
  reports: true,
}

/** A panel as it behaves. */
export interface Behaviour {
  readonly areas: readonly ActArea[]
  readonly zones: readonly ActZone[]
  readonly options: ActOptions
}

/** Whether a zone alarms at any hour: no mode, delay or leaving out stops it. */
export function isAlwaysOn(zone: ActZone): boolean {
  return zone.trips.unset === 'instant'
}

/** Whether a trip starts an entry delay. */
export function isEntry(does: Trip): does is 'entry-1' | 'entry-2' {
  return does === 'entry-1' || does === 'entry-2'
}
