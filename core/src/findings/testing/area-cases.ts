import { cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { ostler, pinfold, quillet } from './case-jobs.ts'
import type { RuleCase } from './rule-case.ts'

/** An Ostler with an annexe behind the hall: its door leads to a keypad in the hall. */
const annexe = (): SmallJob =>
  new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', exitStay: 0 })
    .area(2, 'Annexe')
    .room('hall', { kind: 'hall' })
    .room('annexe')
    .way('hall', 'annexe', 5)
    .opening('annexe door', 'annexe')
    .add('annexe', 'sill-8', { position: 'annexe door', use: 'entry' })
    .add('hall', 'watcher-8', { use: 'on-way' })
    .add('porch', 'sill-8', { position: 'front door', use: 'entry' })
    .add('pad', 'scriber-8', { room: 'hall' })
    .number()

/** Rules on areas, keypads that set only theirs, and what a panel couples with them. */
export const areaCases: readonly RuleCase[] = [
  {
    rule: 'two-areas',
    clean: () => cleanTarn().area(2, 'Annexe'),
    spoil: (j) => j.set(j.zone('hall').id, { area2: 'area:2' }),
    says: 'Zone 03 is in two areas: Tarn 40 takes one area per zone.',
    fix: 'Leave it in the first',
  },
  {
    rule: 'area-number',
    clean: cleanTarn,
    spoil: (j) => j.area(2, 'Annexe'),
    says: 'Area 2 (Annexe): Tarn 40 has 1.',
    fix: null,
  },
  {
    rule: 'common-entry',
    clean: () => ostler().area(2, 'Annexe'),
    spoil: (j) => j.set(j.zone('front').id, { area2: 'area:2' }),
    says: 'Zone 01 is common to Whole premises and Annexe: while only one of them is set, it is not watched.',
    fix: null,
  },
  {
    rule: 'area-unserved',
    clean: () => ostler().add('pad', 'scriber-8', { room: 'hall' }).area(2, 'Annexe').number(),
    spoil: (j) => j.set(j.zone('front').id, { area: 'area:2' }).serves('pad', 1),
    says: 'Annexe has zones that are set, and no keypad or fob sets and unsets it.',
    fix: 'Let Scriber 8 keypad in hall set it too',
  },
  {
    rule: 'area-passed',
    clean: annexe,
    spoil: (j) => j.set('room:annexe', { area: 'area:2' }),
    says: 'From annexe door to its keypad people pass zone 03 of Whole premises: while that is set, it alarms on them, for Annexe’s entry delay does not count there.',
    fix: null,
  },
  {
    rule: 'area-move',
    clean: () => ostler().area(2, 'Annexe'),
    spoil: (j) => j.set(j.zone('front').id, { area: 'area:2', leaves: 'area:1' }),
    says: 'Zone 01 moves from Whole premises to Annexe: add it there at the panel, then take it out of Whole premises.',
    fix: 'Both are keyed',
  },
  {
    rule: 'key-latching',
    clean: () => quillet().set('job:main', { keySwitch: 'momentary' }),
    spoil: (j) => j.set('job:main', { keySwitch: 'latching' }),
    says: 'The key switch is latching: on Quillet 32 no keypad, fob or timer can set the system beside it.',
    fix: 'Take a momentary one',
  },
  {
    rule: 'beeps-off',
    clean: () => quillet().set('job:main', { entryBeeps: true, exitBeeps: true }),
    spoil: (j) => j.set('job:main', { exitBeeps: false }),
    says: 'The keypads make no sound while exit runs: people do not hear that their time is passing.',
    fix: 'Let them sound',
  },
  {
    rule: 'outputs-latched',
    clean: () => ostler().set('job:main', { outputs: 'momentary' }),
    spoil: (j) => j.set('job:main', { outputs: 'latched' }),
    says: 'Outputs stay on until a code is keyed: show the customer how to clear them, and what they drive.',
    fix: 'Let them give a pulse',
  },
  {
    rule: 'day-zone',
    clean: () => ((j) => j.set(j.zone('study').id, { dayZone: true }))(pinfold()),
    spoil: (j) => j.set(j.zone('front').id, { dayZone: true }),
    says: 'Zone 01 is offered as a day zone: “Door, first delay” stands in the first-door list, and entering the day list takes it out of there.',
    fix: 'Do not offer it',
  },
  {
    rule: 'fob-store',
    clean: () =>
      ostler()
        .user('Nell')
        .add('fob', 'quatern-8', { user: 'user:Nell', room: '', storedIn: 'panel' })
        .number(),
    spoil: (j) => j.set('device:fob', { storedIn: 'keypad' }),
    says: 'Quatern 8 fob is stored in a keypad: a new keypad or a change of codes loses it.',
    fix: 'Store it in the panel',
  },
  {
    rule: 'chime-style',
    clean: () => ((j) => j.set(j.zone('front').id, { chime: true, chimeStyle: 'two' }))(quillet()),
    spoil: (j) => j.set(j.zone('front').id, { chimeStyle: 'wood' }),
    says: 'Zone 001 is to chime “wood”; Quillet 32 has one note, two notes, says the name.',
    fix: 'Take the first one',
  },
]
