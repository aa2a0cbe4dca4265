import type { Catalogue } from '../catalogue/catalogue.ts'
import { systemOf } from '../system/system.ts'
import { recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import { evidenceOf } from '../job/evidence.ts'
import type { TemporaryState } from '../job/records.ts'
import { isLifeSafety, kindOf } from '../response/advise.ts'
import { printNumber } from '../zones/numbers.ts'

/** The kind of a temporary state. */
export type StateKind = TemporaryState['kind']

/** What one kind of temporary state is called, is about, costs, and leaves to do the day after. */
export interface StateRule {
  readonly name: string
  /** What it must name; null for the station or the whole system. */
  readonly about: 'zone' | 'siren' | 'keypad' | 'device' | 'cover' | null
  /** What stays unprotected while it lasts. */
  readonly costs: string
  /** What is to be done the day after it began. */
  readonly task: string
  /** How nobody is hurt while it is begun; absent where nobody can be. */
  readonly caution?: string
}

/** The temporary states: each has an end and blocks hand-over until it is over. */
export const stateRules: Readonly<Record<StateKind, StateRule>> = {
  'station-on-test': {
    name: 'The station is on test',
    about: null,
    costs: 'alarms bring no help',
    task: 'Ask the station whether the account is live again.',
  },
  'chime-demo': {
    name: 'Chime is on for a demonstration',
    about: null,
    costs: 'every opening sounds, planned or not',
    task: 'See that the chime is as the plan says.',
  },
  'sounder-off': {
    name: 'A keypad sounder is off',
    about: 'keypad',
    costs: 'nobody hears entry, exit or trouble there, and a walk test tells nothing',
    task: 'Hear the sounder at its keypad.',
  },
  'siren-unplugged': {
    name: 'A siren is unplugged',
    about: 'siren',
    costs: 'an alarm is not heard from it',
    task: 'See the siren plugged in and its cover closed.',
  },
  'tamper-linked': {
    name: 'A tamper is linked out',
    about: 'cover',
    costs: 'opening it is not noticed',
    task: 'Take the link out and see the tamper.',
  },
  'zone-not-used': {
    name: 'A zone is set to not used',
    about: 'zone',
    costs: 'that zone does not protect',
    task: 'Put the zone back in use and trip it.',
  },
  'hardware-watch-off': {
    name: 'Watching of the hardware is off',
    about: null,
    costs: 'faults of bells, batteries and the bus are not told',
    task: 'Switch the watching on and read the fault list.',
  },
  'low-battery': {
    name: 'A low battery is accepted',
    about: 'device',
    costs: 'the device may fall silent',
    task: 'Change the battery.',
  },
  'mains-off': {
    name: 'The panel’s mains are off',
    about: null,
    costs: 'the system runs on its battery alone',
    caution:
      'Mains: switch off by the breaker and see that it is dead; wiring is for those who are licensed.',
    task: 'See the mains on, and that the battery charges: it counts a day from then.',
  },
}

/** The temporary states that are open: begun and not ended; one past its time stays open and says so. */
export function openStates(doc: JobDocument): TemporaryState[] {
  const ended = new Set(evidenceOf(doc, 'state-end').map((end) => end.state))
  return evidenceOf(doc, 'state').filter((state) => !ended.has(state.id))
}

/** An open state of one kind, about one thing where that is asked; null for none. */
export function openState(
  doc: JobDocument,
  kind: StateKind,
  about: string | null = null,
): TemporaryState | null {
  return (
    openStates(doc).find((state) => state.kind === kind && (about === null || state.about === about)) ?? null
  )
}

/** Whether the station is on test now: begun, not ended and not past its time. */
export function stationOnTest(doc: JobDocument, now: string): TemporaryState | null {
  return openStates(doc).find((state) => state.kind === 'station-on-test' && state.until > now) ?? null
}

/** Sign-off by which somebody says that the task of a temporary state is done. */
export const TASK_DONE = 'task-done'

/** Tasks that temporary states leave for the day after: open until somebody says that they are done. */
export function openTasks(
  doc: JobDocument,
): readonly { readonly state: TemporaryState; readonly task: string; readonly from: string }[] {
  const done = new Set(
    evidenceOf(doc, 'signoff').flatMap(({ what, about }) => (what === TASK_DONE && about ? [about] : [])),
  )
  return evidenceOf(doc, 'state')
    .filter((state) => !done.has(state.id))
    .map((state) => ({ state, task: stateRules[state.kind].task, from: dayAfter(state.at) }))
}

/** Begin of the day after, UTC. */
function dayAfter(time: string): string {
  const day = new Date(time)
  day.setUTCHours(24, 0, 0, 0)
  return day.toISOString()
}

/** Something that a temporary state can be about. */
export interface StateSubject {
  readonly id: string
  readonly name: string
}

/** What a kind of state can be about in this job. Never a zone of fire or gas: their stop-gap is the fire code's matter. */
export function stateSubjects(
  doc: JobDocument,
  catalogue: Catalogue,
  kind: StateKind,
): readonly StateSubject[] {
  const system = systemOf(doc, catalogue)
  const { about } = stateRules[kind]
  if (about === null) return []
  if (about === 'zone')
    return recordsOf(doc, 'zone').flatMap((zone): StateSubject[] => {
      const type = system.panel?.responseTypes.find((item) => item.key === zone.response)
      if (zone.event !== null && isLifeSafety(kindOf(zone.event as never))) return []
      if (type && isLifeSafety(type.kind)) return []
      return [
        {
          id: zone.id,
          name: `zone ${printNumber(system.panel, zone.number)}${zone.label ? `, ${zone.label}` : ''}`,
        },
      ]
    })
  const wanted = system.devices.filter(({ model, device }) => {
    if (device.deferred !== null) return false
    const life = model.loops.some((loop) => isLifeSafety(kindOf(loop.event)))
    if (about === 'device') return model.batteries !== null && !life
    if (about === 'cover')
      return !life && (model.class === 'siren' || model.ways.some((way) => way.sends === 'tamper'))
    return model.class === about
  })
  return wanted.map(({ device, model }) => ({
    id: device.id,
    name: [model.name, device.room, device.position].filter(Boolean).join(', '),
  }))
}

/** What a state is about, in words; empty for the whole system, or where it is not in the plan any more. */
export function stateAbout(doc: JobDocument, catalogue: Catalogue, state: TemporaryState): string {
  if (state.about === null) return ''
  const zone = recordOf(doc, 'zone', state.about)
  const system = systemOf(doc, catalogue)
  if (zone) return `zone ${printNumber(system.panel, zone.number)}${zone.label ? `, ${zone.label}` : ''}`
  const item = system.byId.get(state.about)
  return item
    ? [item.model.name, item.device.room].filter(Boolean).join(', ')
    : 'something that is not there any more'
}

/** Why a temporary state cannot be begun so; null when it can. */
export function stateProblem(
  doc: JobDocument,
  catalogue: Catalogue,
  state: Pick<TemporaryState, 'kind' | 'about' | 'at' | 'until' | 'why'>,
): { readonly field: 'about' | 'until' | 'why'; readonly message: string } | null {
  const rule = stateRules[state.kind]
  if (rule.about !== null) {
    const subjects = stateSubjects(doc, catalogue, state.kind)
    if (!subjects.some((subject) => subject.id === state.about))
      return {
        field: 'about',
        message:
          rule.about === 'zone'
            ? 'Say which zone. Zones of fire and gas are never put out of use here.'
            : 'Say which one it is.',
      }
  }
  if (state.why.trim().length < 3) return { field: 'why', message: 'Say why, so that the next person knows.' }
  const hours = (Date.parse(state.until) - Date.parse(state.at)) / 3_600_000
  if (!(hours > 0 && hours <= MOST_HOURS))
    return { field: 'until', message: `Choose an end within ${MOST_HOURS / 24} days from now.` }
  return null
}

/** How long a temporary state may last at most, h. */
const MOST_HOURS = 72
