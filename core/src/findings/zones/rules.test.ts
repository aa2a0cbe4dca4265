import { cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { ostler } from '../testing/case-jobs.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { zoneRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'event-without-zone',
    clean: cleanTarn,
    spoil: (j) =>
      j.apply([
        { op: 'remove', record: j.zone('landing', 'heat') },
        { op: 'remove', record: j.zone('landing', 'freeze') },
      ]),
    says: 'Ember Three smoke in landing has no zone for heat and frost (loop 2, 4): the panel would not report it.',
    fix: 'Add 2 zones: heat, frost',
  },
  {
    rule: 'deferred',
    clean: cleanTarn,
    spoil: (j) => j.add('later', 'stilt-hound', { deferred: 'the stairs are being rebuilt' }),
    says: 'Stilt Hound motion has no place yet: the stairs are being rebuilt.',
    fix: null,
  },
  {
    rule: 'loop-wrong',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('porch').id, { loop: 4 }),
    says: 'Zone 01 listens to loop 4; the reed of Reedling contact is loop 3.',
    fix: 'Use loop 3',
    others: ['Plan the wired terminals for this zone'],
  },
  {
    rule: 'zone-open',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('study').id, { device: null }),
    says: 'Zone 02 (Study Window) has no device: a successor takes it over, or it goes.',
    fix: 'Give it to Reedling Slim contact in study',
    others: ['Remove the zone'],
  },
  {
    rule: 'inputs-differ',
    clean: cleanTarn,
    spoil: (j) => j.set('device:porch', { inputs: 'terminals' }),
    says: 'Reedling contact in porch is planned with its terminals; its zones listen to its reed.',
    fix: 'Have its zones listen to its terminals',
    others: ['Plan its reed, as its zones have it'],
  },
  {
    rule: 'equipment-wrong',
    clean: cleanMorrow,
    spoil: (j) => j.set(j.zone('attic', 'freeze').id, { equipmentKind: 'smoke' }),
    says: 'Zone 12 reports freeze but its equipment kind is smoke; Morrow 60 wants cold.',
    fix: 'Use cold',
  },
  {
    rule: 'switches-off',
    clean: ostler,
    spoil: (j) => j.set(j.zone('front').id, { reedOn: false }),
    says: 'Zone 01 has reed and terminals off: it never trips.',
    fix: 'Switch the reed on',
  },
  {
    rule: 'end-of-line-alone',
    clean: ostler,
    spoil: (j) => j.set(j.zone('front').id, { endOfLineOn: true }),
    says: 'Zone 01 has end-of-line on and its terminals off.',
    fix: 'Switch end-of-line off',
  },
  {
    rule: 'resistor-wrong',
    clean: () =>
      ((j) => j.set(j.zone('gate').id, { wiring: 'end-of-line', resistorOhm: 3300 }))(
        SmallJob.morrow().add('gate', 'contact-w', { use: 'opening' }).number(),
      ),
    spoil: (j) => j.set(j.zone('gate').id, { resistorOhm: 2200 }),
    says: 'Zone 01 ends in 2200 ohms; Morrow 60 expects 3300 ohms.',
    fix: 'Note 3300 ohms, once it is fitted',
  },
]

describeRules(zoneRules, cases)
