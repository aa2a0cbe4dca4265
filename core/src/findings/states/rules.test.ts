import { evidenceBy } from '../../job/testing/records.ts'
import { blankState } from '../../job/blank.ts'
import { cleanTarn } from '../../testing/small-job.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { overdueRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'state-overdue',
    clean: () => cleanTarn(),
    spoil: (j) =>
      j.apply([
        {
          op: 'add',
          record: {
            id: 'state:one',
            ...blankState,
            kind: 'chime-demo',
            who: 'Nell',
            why: 'shown to the customer',
            ...evidenceBy('Nell', '2026-05-04T08:00:00Z'),
            until: '2026-05-04T09:00:00Z',
          },
        },
      ]),
    says: 'Chime is on for a demonstration, by Nell, was to end at 2026-05-04 09:00 UTC and is still open.',
    fix: null,
  },
]

describeRules(overdueRules, cases)
