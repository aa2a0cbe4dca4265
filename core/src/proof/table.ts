import type { AlarmKind, DeviceEvent, DeviceModel, PanelModel } from '../catalogue/schema.ts'
import type { proofKinds } from '../job/records.ts'

/** The kind of a proof. */
export type ProofKind = (typeof proofKinds)[number]

/** What one result is looked up by: kind, subject, button, and where who came home unset. */
export interface ProofKey {
  readonly kind: ProofKind
  /** Name of the zone, the device, or PANEL. */
  readonly subject: string
  /** The button, by its loop; null for what has none. */
  readonly loop: number | null
  /** A keypad's name, `fob` or `panel`; empty for all but coming home. */
  readonly unsetAt: string
}

/** One kind of proof: what it is called, what it is about, and whether it raises an alarm. */
export interface ProofRule {
  readonly name: string
  /** A word for a chip. */
  readonly short: string
  /** Whether it raises an alarm or asks for a report: on a monitored job the station is put on test first. */
  readonly alarms: boolean
}

/** The kinds of proof. */
export const proofRules: Readonly<Record<ProofKind, ProofRule>> = {
  mount: { name: 'Mounting', short: 'mounted', alarms: false },
  placement: { name: 'Placement reading', short: 'reading', alarms: false },
  average: { name: '24-hour average', short: '24 h', alarms: false },
  toggle: { name: 'Opens and closes at the panel', short: 'opens', alarms: false },
  walk: { name: 'Walk test', short: 'walk', alarms: false },
  tester: { name: 'Tester at its place', short: 'tester', alarms: false },
  agent: { name: 'Tripped by its own event', short: 'event', alarms: true },
  setting: { name: 'Pet setting looked at', short: 'setting', alarms: false },
  button: { name: 'Button', short: 'button', alarms: false },
  bound: { name: 'Bound to its user', short: 'bound', alarms: false },
  reach: { name: 'Works from where it is pressed', short: 'reach', alarms: false },
  sets: { name: 'Sets and unsets its areas', short: 'sets', alarms: false },
  calls: { name: 'Its emergency keys', short: 'calls', alarms: true },
  labels: { name: 'Shows the right labels', short: 'labels', alarms: false },
  sounds: { name: 'Sounds, and stops when silenced', short: 'sounds', alarms: true },
  cutoff: { name: 'Cut-off time read back', short: 'cut-off', alarms: false },
  mains: { name: 'Mains off and on', short: 'mains', alarms: false },
  downstream: { name: 'What hangs on it was read after it', short: 'behind it', alarms: false },
  settled: { name: 'Mesh left quiet until it settled', short: 'settled', alarms: false },
  clock: { name: 'Time and date', short: 'clock', alarms: false },
  battery: { name: 'Battery', short: 'battery', alarms: false },
  tamper: { name: 'Cover opened and closed', short: 'cover', alarms: false },
  armed: { name: 'Armed trip', short: 'armed', alarms: true },
  clears: { name: 'Silenced, then cleared by a second unset', short: 'clears', alarms: true },
  home: { name: 'Coming home, timed', short: 'home', alarms: true },
  trip: { name: 'Call pressed', short: 'call', alarms: true },
  report: { name: 'Report received', short: 'report', alarms: true },
  path: { name: 'Ways of reporting', short: 'paths', alarms: true },
}

/** What an event owes, each event for itself: one pass never vouches for an event that nobody saw. */
const byEvent: Readonly<Record<DeviceEvent, readonly ProofKind[]>> = {
  open: ['toggle', 'armed'],
  terminals: ['toggle', 'armed'],
  motion: ['walk', 'armed'],
  glass: ['tester', 'armed'],
  shock: ['tester', 'armed'],
  smoke: ['agent'],
  heat: ['agent'],
  freeze: ['agent'],
  co: ['agent'],
  flood: ['agent'],
  panic: ['trip'],
  'panic-silent': ['trip'],
  medical: ['trip'],
  'arm-away': ['button'],
  'arm-stay': ['button'],
  disarm: ['button'],
  output: ['button'],
}

/** The proofs of one event, without its report. */
export function eventProofs(event: DeviceEvent): readonly ProofKind[] {
  return byEvent[event]
}

/** Whether the station hears of an event at all: pressing a button to set is no alarm. */
export function isReported(event: DeviceEvent): boolean {
  return !byEvent[event].includes('button')
}

/** What a device owes as a whole, whatever its events; readings are told apart by its family. */
export function deviceProofs(model: DeviceModel): readonly ProofKind[] {
  const cover: readonly ProofKind[] = model.ways.some((way) => way.sends === 'tamper') ? ['tamper'] : []
  switch (model.class) {
    case 'motion':
      return model.petKg !== null || model.petSettings ? ['setting', ...cover] : cover
    case 'fob':
      return ['bound', 'reach', 'battery']
    case 'keypad':
      return ['sets', 'labels', 'tamper']
    case 'siren':
      return ['sounds', 'cutoff', 'tamper', ...(model.batteries ? (['battery'] as const) : [])]
    case 'repeater':
      return ['mains', 'downstream', ...cover]
    default:
      return cover
  }
}

/** The panel's own proofs: the ways of reporting where it is monitored, clearing where one unset only silences. */
export function panelProofs(
  monitored: boolean,
  { secondDisarmClears }: Pick<PanelModel, 'secondDisarmClears'>,
): readonly ProofKind[] {
  return [
    ...(['mount', 'mains', 'battery', 'tamper', 'clock'] as const),
    ...(secondDisarmClears ? (['clears'] as const) : []),
    ...(monitored ? (['path'] as const) : []),
  ]
}

/** How a proof can be made, where its record must say which way was taken; empty where there is one way only. */
export function proofMethods(kind: ProofKind, event: DeviceEvent | null): readonly string[] {
  if (kind === 'tester') return event === 'shock' ? ['knock at the frame'] : ['tester at the glass']
  if (kind !== 'agent') return []
  switch (event) {
    case 'smoke':
      return ['the maker’s aerosol', 'test button']
    case 'heat':
      return ['warm air', 'test button']
    case 'co':
      return ['the maker’s test gas', 'test button']
    case 'flood':
      return ['wet cloth', 'test mode', NOT_TRIPPED]
    default:
      return ['test mode', 'ice', NOT_TRIPPED]
  }
}

/** The method that says on the record that an event was never tripped. */
export const NOT_TRIPPED = 'not tripped: supervised, its loop compared twice'

/** Other kinds that one observation truly shows: an armed trip shows that trips arrive, but no closing. */
export const alsoShows: Readonly<Partial<Record<ProofKind, readonly ProofKind[]>>> = {
  armed: ['walk'],
}

/** What the station should see of a proof, in words; empty where it sees nothing. */
export function stationSees(kind: ProofKind, alarm: AlarmKind | null): string {
  switch (kind) {
    case 'armed':
    case 'agent':
    case 'trip':
    case 'calls':
    case 'report':
      return alarm
        ? `an alarm of the kind ${alarm}, with this zone, and its restoral`
        : 'the alarm, and its restoral'
    case 'tamper':
      return 'a tamper, and its restoral'
    case 'mains':
      return 'mains off after the panel’s own hold, maybe an hour (note the mains as off, and a clock runs), and its return'
    case 'clears':
      return 'nothing more: what was sent before the first unset is not recalled'
    case 'home':
      return 'nothing; an alarm of this zone only where it is not unset in time'
    case 'path':
      return 'a test report by each way, read back by the real centre'
    default:
      return ''
  }
}

/** How a proof is made without fooling oneself. */
export function proofHow(
  kind: ProofKind,
  about: { readonly event: DeviceEvent | null; readonly class: DeviceModel['class'] | 'panel' },
): readonly string[] {
  switch (kind) {
    case 'clears':
      return [
        'After an alarm, unset with a user code: it falls silent and still shows the alarm. Unset once more: it is cleared and ready to set.',
      ]
    case 'home':
      return [
        'Set the system, all out. Whoever lives there opens this door, walks in and unsets as on any day, best the slowest of them: one tap at the door, one when it is unset.',
      ]
    case 'average':
      return ['Read the average of a whole day: it counts from the day after the first reading.']
    case 'toggle':
      return [
        about.event === 'terminals'
          ? 'Open and close the contact wired to its terminals: it alone, the reed at rest. See both at the panel.'
          : 'Open and close it: see both at the panel, on this very zone.',
      ]
    case 'walk':
      return [
        'Shows that trips arrive; the keypad sounder must be on. It is not the final test.',
        'A walk test does not wake a sleeping motion: no answer is inconclusive, not failed.',
      ]
    case 'tester':
      return [
        about.event === 'shock'
          ? 'Knock at the frame as the maker says. A button proves only the radio.'
          : 'Use the maker’s tester at the glass itself. A button proves only the radio.',
      ]
    case 'agent':
      return [
        'Trip this event itself, as the maker’s instruction says: right zone, right sound, right report. A button that raises several zones counts for those that were seen, each by itself.',
      ]
    case 'setting':
      return ['Look at the jumper or menu: the pet setting is the one that the plan says.']
    case 'button':
      return ['Press this button and see what the panel does. Each button by itself.']
    case 'bound':
      return ['The panel shows its user when it is pressed.']
    case 'reach':
      return ['Press it where people will: at the door, from the car, in bed.']
    case 'sets':
      return ['Set and unset each area that it serves, with a user code: an installer code may not do it.']
    case 'calls':
      return ['Press each emergency key that is left on: right kind, right sound.']
    case 'labels':
      return ['Open something in each area: the keypad names it as the plan does.']
    case 'sounds':
      return ['Sound it briefly, then silence it. Outside, or with ears protected.']
    case 'cutoff':
      return ['Read the cut-off time back from the panel: it is not waited for.']
    case 'mains':
      return about.class === 'panel'
        ? ['Switch its mains off by the breaker: it runs on. Then on again.']
        : ['Pull its supply: it runs on, or says that it is gone. Then on again.']
    case 'downstream':
      return ['Every device that hangs on it was read after it was at its place.']
    case 'settled':
      return [
        'Leave the panel open and quiet for the stated time after the last device is learned and at its place. Skipped, it shows as supervision faults days later.',
      ]
    case 'clock':
      return ['Time, date and the change of clocks are right.']
    case 'battery':
      return about.class === 'panel'
        ? ['Test it under load, after a day or two of charge.']
        : ['Good, by the device’s own light or the panel’s list.']
    case 'tamper':
      return [
        'Open the cover: trouble on those of its zones where the panel shows it. Close it: none is left. Close covers before the installer menu is left: it may sound.',
      ]
    case 'armed':
      return ['Set, trip it, see the alarm and the right zone, silence, clear.']
    case 'trip':
      return ['Press it, and see the right kind of call. A silent one: nothing sounds or lights.']
    case 'report':
      return ['Ask the station to read back what arrived: the zone, the kind and the time.']
    case 'path':
      return ['Each way of reporting by itself, with the other cut off, at the real centre.']
    case 'mount':
    case 'placement':
      return []
  }
}
