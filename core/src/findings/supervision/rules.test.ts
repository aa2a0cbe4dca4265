import { cleanMorrow, cleanTarn } from '../../testing/small-job.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { supervisionRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'carried-supervised',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('bedroom').id, { supervise: true }),
    says: 'Zone 09 belongs to a carried panic: out of the house it shows as lost.',
    fix: 'Do not supervise it',
  },
  {
    rule: 'fixed-unsupervised',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('study').id, { supervise: false }),
    says: 'Zone 02: no zone of its Reedling Slim contact is supervised, so its silence or low battery is noticed by nobody.',
    fix: 'Supervise it',
  },
  {
    rule: 'supervision-window',
    clean: () => cleanMorrow().set('job:main', { superviseMinutes: 240 }),
    spoil: (j) => j.set('job:main', { superviseMinutes: 300 }),
    says: 'A device is called lost after 300 min; a household fire zone asks for at most 240 min.',
    fix: 'Call it lost after 240 min',
  },
]

describeRules(supervisionRules, cases)
