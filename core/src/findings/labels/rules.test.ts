import { cleanMorrow, cleanTarn } from '../../testing/small-job.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { labelRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'label-missing',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('study').id, { label: 'Zone 2' }),
    says: 'Zone 02 has only the label “Zone 2”: it does not say where.',
    fix: 'Call it “Study Window”',
  },
  {
    rule: 'label-bare',
    clean: cleanTarn,
    spoil: (j) => j.set(j.zone('hall').id, { label: 'Motion' }),
    says: 'Zone 03 is labelled “Motion”: it says what or which, and not where.',
    fix: 'Call it “Hall Motion”',
  },
  {
    rule: 'label-twice',
    clean: cleanMorrow,
    spoil: (j) => j.set(j.zone('study').id, { label: 'FRONT DOOR' }),
    says: 'Zone 08 is labelled “FRONT DOOR” like zone 07.',
    fix: 'Call it “STUDY WINDOW”',
  },
  {
    rule: 'label-long',
    clean: cleanMorrow,
    spoil: (j) => j.set(j.zone('study').id, { label: 'BEDROOM WINDOW LEFT' }),
    says: '“BEDROOM WINDOW LEFT” of zone 08: it has 19 characters and the panel shows 16.',
    fix: 'Use “BEDROOM WINDOW L”',
  },
]

describeRules(labelRules, cases)
