import { expect, it } from 'vitest'
import { cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { ostler } from '../testing/case-jobs.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { lifeSafetyRules } from './rules.ts'

const verified = (j: SmallJob, device: string, fireGroup: number | null): SmallJob =>
  j.set(j.zone(device, 'smoke').id, { response: 'fire-verified', reason: 'cooking haze', fireGroup })

const cases: readonly RuleCase[] = [
  {
    rule: 'fire-not-instant',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('landing', 'heat').id, { response: 'instant' }),
    says: 'Zone 06 reports heat as “Outer line”, a burglary type: it calls the police as for a burglar, and may sleep while unset. A fire must alarm at once in every mode, as fire.',
    fix: 'Use “Fire”',
  },
  {
    rule: 'gas-wrong-kind',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('kitchen').id, { response: 'fire' }),
    says: 'Zone 08 reports carbon monoxide as “Fire”, a fire type: it calls the fire brigade and sounds like a fire. Carbon monoxide needs the gas type, instant in every mode.',
    fix: 'Use “Carbon monoxide”',
  },
  {
    rule: 'life-unreported',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('kitchen').id, { report: false }),
    says: 'Zone 08 is gas and does not report, and this job is monitored.',
    fix: 'Report it',
  },
  {
    rule: 'life-unsupervised',
    // A supervised sister is enough: heat and frost of the detector are.
    clean: () => {
      const j = cleanTarn()
      return j.set(j.zone('landing', 'smoke').id, { supervise: false })
    },
    spoil: (j) =>
      j
        .set(j.zone('landing', 'heat').id, { supervise: false })
        .set(j.zone('landing', 'freeze').id, { supervise: false }),
    says: 'Zone 05 is fire and no zone of its device is supervised: nobody would notice that it fell silent.',
    fix: 'Supervise it',
  },
  {
    rule: 'fire-departure',
    clean: ostler,
    spoil: (j) =>
      verified(verified(j, 'attic', 1), 'study', 1).set(j.zone('study', 'smoke').id, { reason: ' ' }),
    says: 'Zone 04 is a verified fire zone (“Fire, two agree”) and no reason is written.',
    fix: 'Use “Fire”',
  },
  {
    rule: 'fire-school',
    clean: ostler,
    spoil: (j) => {
      j.houseRules = { ...j.houseRules, schools: { ...j.houseRules.schools, fire: 'verified' } }
      return j
    },
    says: 'Zone 02 is plain fire; the house rule is two detectors: “Fire, two agree” gives it, with the reason in writing.',
    fix: null,
  },
  {
    rule: 'verified-alone',
    clean: () => verified(verified(ostler(), 'attic', 1), 'study', 1),
    spoil: (j) => verified(j, 'study', 2),
    says: 'Zone 04 needs a second detector to agree but is alone in group 2: it would never alarm.',
    fix: 'Use “Fire”',
  },
  {
    rule: 'compartment-unknown',
    clean: () =>
      verified(
        verified(
          ostler().room('attic', { compartment: 'A' }).room('study', { compartment: 'A' }),
          'attic',
          1,
        ),
        'study',
        1,
      ),
    spoil: (j) => j.set('room:study', { compartment: '' }),
    says: 'Whether zone 04 and its second detector are in one fire compartment cannot be told; needed: the compartment of study.',
    fix: null,
  },
  {
    rule: 'joined-events',
    clean: cleanTarn,
    spoil: (j) => j.add('shed', 'ember-duo').number(),
    says: 'Ember Duo smoke in shed joins smoke and heat on one loop; the house rule is a zone each.',
    fix: null,
  },
]

describeRules(lifeSafetyRules, cases)

it('asks nobody for what no model of the family offers', () => {
  const joined = (job: SmallJob) => job.rules().filter((rule) => rule === 'joined-events')
  const sallow = new SmallJob({ panel: 'panel/sallow-m', radioFirmware: null })
  expect(joined(sallow.add('study', 'pitchpan').number())).toEqual([])
  expect(joined(cleanTarn().add('shed', 'ember-duo').number())).toEqual(['joined-events'])
})
