import { SmallJob, cleanTarn } from '../../testing/small-job.ts'
import { ostler, quillet } from '../testing/case-jobs.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { areaRules } from './rules.ts'

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

const cases: readonly RuleCase[] = [
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
    rule: 'nothing-unsets',
    unbound: true,
    clean: cleanTarn,
    spoil: (j) => j.apply([{ op: 'remove', record: j.device('fob') }]),
    says: 'Zones watch for burglars, and the kit has neither a keypad nor a fob that unsets: nobody could set Tarn 40 or stop its alarm, unless it has keys of its own.',
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
    rule: 'left-out-of-set',
    clean: () => quillet().add('study', 'sill-slim-8', { use: 'opening' }).number(),
    spoil: (j) => j.area(2, 'Night'),
    says: 'Night leaves zones 001, 002 out: doors and windows that are to be watched while people are in the house, so the night is open.',
    fix: 'Put them into Night',
  },
  {
    rule: 'area-move',
    clean: () => ostler().area(2, 'Annexe'),
    spoil: (j) => j.set(j.zone('front').id, { area: 'area:2', leaves: 'area:1' }),
    says: 'Zone 01 moves from Whole premises to Annexe: add it there at the panel, then take it out of Whole premises.',
    fix: 'Both are keyed',
  },
]

describeRules(areaRules, cases)
