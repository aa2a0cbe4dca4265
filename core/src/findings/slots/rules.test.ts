import { cleanTarn } from '../../testing/small-job.ts'
import { ostler } from '../testing/case-jobs.ts'
import { describeRules, type RuleCase } from '../testing/rule-case.ts'
import { slotRules } from './rules.ts'

const cases: readonly RuleCase[] = [
  {
    rule: 'fob-unbound',
    clean: cleanTarn,
    spoil: (j) => j.set('device:fob', { user: null }),
    says: 'Quartet C fob is bound to no user: it will do nothing.',
    fix: null,
  },
  {
    rule: 'user-two-fobs',
    clean: cleanTarn,
    spoil: (j) => j.add('spare', 'quartet-c', { user: 'user:Nell', room: '', slot: 2 }),
    says: 'This user already carries a Quartet C fob: give each person one fob, so that a lost one can be told apart.',
    fix: null,
  },
  {
    rule: 'slot-twice',
    clean: cleanTarn,
    spoil: (j) => j.user('Odo').add('spare', 'quartet-c', { user: 'user:Odo', room: '', slot: 1 }),
    says: 'Fob slot 1 is given to Quartet C fob and to Quartet C fob.',
    fix: 'Give it slot 2, the next free one',
    others: ['Take it out of the slot; number again to find a free one'],
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
]

describeRules(slotRules, cases)
