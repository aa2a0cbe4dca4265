import { cleanTarn } from '../../testing/small-job.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { identityRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'sticker-differs',
    clean: () => cleanTarn().set('device:porch', { sticker: '12345678' }),
    spoil: (j) => j.learn(j.zone('porch').id, '12345679'),
    says: 'Zone 01 learned ID 1234 5679; the sticker of its device says 1234 5678. Take it out at Enrol and learn the right one.',
    fix: null,
  },
  {
    rule: 'serial-elsewhere',
    clean: () => cleanTarn().set('device:porch', { sticker: '12345678' }),
    spoil: (j) => {
      j.elsewhere = [{ serial: '12345678', job: 'Heron Weir' }]
      return j
    },
    says: 'ID 1234 5678 is also used in the job “Heron Weir”.',
    fix: null,
  },
]

describeRules(identityRules, cases)
