import { isAlwaysOn, type ActKind, type ActZone, type Sound } from './behaviour.ts'
import type { ReportOf } from './events.ts'
import type { ActAlarm } from './state.ts'
import type { Turn } from './turn.ts'

/* What an alarm does: sound, report, memory; and how it ends. */

/** Which of several is heard and leads: the first that sounds. */
const precedence: readonly ActKind[] = [
  'fire',
  'gas',
  'panic',
  'duress',
  'medical',
  'burglary',
  'tamper',
  'auxiliary',
  'command',
]

/** The alarm of a zone; nothing anew while its own still sounds. */
export function alarm(turn: Turn, zone: ActZone): void {
  if (isSounding(turn, zone.id)) return
  raise(turn, { source: zone.id, kind: zone.kind, sound: zone.sound })
  if (zone.report)
    report(turn, {
      what: zone.kind,
      source: zone.id,
      hold: zone.held ? turn.behaviour.options.holdSeconds : null,
    })
  countAlarm(turn, zone)
}

/** An opened cover that alarms. */
export function alarmOfCover(turn: Turn, device: string, zones: readonly ActZone[]): void {
  if (isSounding(turn, device)) return
  raise(turn, { source: device, kind: 'tamper', sound: 'siren' })
  if (zones.some((zone) => zone.report)) report(turn, { what: 'tamper', source: device, hold: null })
}

/** What goes to the monitoring station: the event, its source, and seconds it is held; null is at once. */
export interface Sending {
  readonly what: ReportOf
  readonly source: string
  readonly hold: number | null
}

/** Sends a report now, or after so many seconds; nothing where the panel reports to nobody. */
export function report(turn: Turn, { what, source, hold }: Sending): void {
  if (!turn.behaviour.options.reports) return
  const { state } = turn
  if (hold !== null && hold > 0 && what !== 'cancelled' && what !== 'trouble' && what !== 'trouble over') {
    turn.put({ held: [...state.held, { source, kind: what, due: state.at + hold }] })
    return
  }
  turn.tell({ does: 'report', what, source })
  // A call for help is never taken back: whoever unsets may be made to.
  if (what === 'burglary' || what === 'tamper') turn.put({ sent: [...turn.state.sent, source] })
}

/** Tells what is heard now, if that has changed: of several alarms the one that goes before. */
function hear(turn: Turn): void {
  const sounding = turn.state.alarms.filter(({ sound }) => sound !== 'silent' && sound !== 'none')
  const first = [...sounding].sort((a, b) => rank(a) - rank(b))[0]
  const heard = first?.sound ?? null
  if (heard === turn.state.heard) return
  turn.put({ heard })
  turn.tell(heard === null ? { does: 'quiet' } : { does: 'sound', sound: heard })
}

/** Ends the alarms of some sources: silenced, and no longer sounding. */
export function silence(turn: Turn, ends: (alarm: ActAlarm) => boolean): void {
  const alarms = turn.state.alarms.filter((one) => !ends(one))
  if (alarms.length === turn.state.alarms.length) return
  turn.put({ alarms })
  hear(turn)
}

function raise(turn: Turn, { source, kind, sound }: { source: string; kind: ActKind; sound: Sound }): void {
  const { state, behaviour } = turn
  const loud = sound !== 'silent' && sound !== 'none'
  const seconds = behaviour.options.sirenSeconds
  const until = loud && seconds !== null ? state.at + seconds : null
  turn.put({
    // What makes no sound needs no silencing: it is over once it is told.
    alarms: loud ? [...state.alarms, { source, kind, sound, until }] : state.alarms,
    memory: [...state.memory, { source, kind }],
  })
  turn.tell({ does: 'alarm', source, kind })
  hear(turn)
}

/** Leaves a zone out when it has alarmed as often as the panel allows in one set period. */
function countAlarm(turn: Turn, zone: ActZone): void {
  const most = turn.behaviour.options.swinger ?? 0
  if (most === 0 || isAlwaysOn(zone)) return
  const count = (turn.state.counts[zone.id] ?? 0) + 1
  turn.put({ counts: { ...turn.state.counts, [zone.id]: count } })
  if (count < most) return
  turn.put({ leftOut: [...turn.state.leftOut, zone.id] })
  turn.tell({ does: 'leave out', zone: zone.id, why: 'too often' })
}

function isSounding(turn: Turn, source: string): boolean {
  return turn.state.alarms.some((one) => one.source === source)
}

function rank({ kind }: ActAlarm): number {
  return precedence.indexOf(kind)
}
