import { evidenceBy } from '../../job/testing/records.ts'
import { blankSignoff } from '../../job/blank.ts'
import { cleanMorrow } from '../../testing/small-job.ts'
import { ostler, pinfold, quillet } from '../testing/case-jobs.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { settingRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'key-consent',
    clean: () =>
      cleanMorrow()
        .set('job:main', { keysOff: ['police pair'] })
        .apply([
          {
            op: 'add',
            record: {
              id: 'signoff:consent',
              ...blankSignoff,
              what: 'consent police pair',
              ...evidenceBy('Nell'),
              note: '',
            },
          },
        ]),
    spoil: (j) => j.set('job:main', { keysOff: ['police pair', 'medical pair'] }),
    says: 'The medical pair of the keypads is switched off, and the customer’s consent is not recorded.',
    fix: 'Leave the medical pair on',
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
    rule: 'open-excluded',
    unbound: true,
    clean: () => pinfold().set('job:main', { openAtExit: 'alarm' }),
    spoil: (j) => j.set('job:main', { openAtExit: 'exclude' }),
    says: 'A zone open at the end of exit is left out: it is unprotected, and with the entry door left out the first follow zone alarms on its owner.',
    fix: 'Let it alarm instead',
  },
]

describeRules(settingRules, cases)
