import { cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { ostler } from '../testing/case-jobs.ts'
import { by, describeBothWays } from '../testing/both-ways.ts'

const fob = (job: SmallJob, key: string, over: Record<string, unknown>) =>
  job.add(key, 'quartet-c', { room: '', ...over })

describeBothWays('fob-unbound', [
  { what: 'a fob that somebody carries', job: () => cleanTarn(), says: [] },
  {
    what: 'a keypad and a contact are carried by nobody',
    job: () => new SmallJob().add('pad', 'tapwell-c').add('porch', 'reedling'),
    says: [],
  },
])

describeBothWays('user-two-fobs', [
  {
    what: 'two people with a fob each',
    job: () => fob(cleanTarn().user('Ivo'), 'second', { user: 'user:Ivo' }),
    says: [],
  },
  { what: 'two fobs of nobody', job: () => fob(fob(new SmallJob(), 'one', {}), 'two', {}), says: [] },
  {
    what: 'one person with three',
    job: () => fob(fob(cleanTarn(), 'second', { user: 'user:Nell' }), 'third', { user: 'user:Nell' }),
    says: [
      'This user already carries a Quartet C fob: give each person one fob, so that a lost one can be told apart.',
      'This user already carries a Quartet C fob: give each person one fob, so that a lost one can be told apart.',
    ],
  },
])

describeBothWays('slot-twice', [
  {
    what: 'a fob and a keypad in places of one number',
    job: () => new SmallJob().add('fob', 'quartet-c', { slot: 1 }).add('pad', 'tapwell-c', { slot: 1 }),
    says: [],
  },
  {
    what: 'devices that have no place yet',
    job: () => fob(fob(new SmallJob(), 'one', { slot: null }), 'two', { slot: null }),
    says: [],
  },
  {
    what: 'the next free place is past those that are taken',
    job: () => fob(fob(fob(new SmallJob(), 'one', { slot: 1 }), 'two', { slot: 2 }), 'three', { slot: 1 }),
    says: ['Fob slot 1 is given to Quartet C fob and to Quartet C fob.'],
    ways: ['Give it slot 3, the next free one', 'Take it out of the slot; number again to find a free one'],
  },
  {
    what: 'all places are taken',
    job: () =>
      Array.from({ length: 8 }, (_, at) => at + 1).reduce(
        (job, slot) => fob(job, `n${slot}`, { slot }),
        fob(new SmallJob(), 'more', { slot: 1 }),
      ),
    says: ['Fob slot 1 is given to Quartet C fob and to Quartet C fob.'],
    ways: ['Take it out of the slot; number again to find a free one'],
  },
])

const stored = (panel: string, model: string, storedIn: 'panel' | 'keypad') =>
  new SmallJob({ panel: `panel/${panel}`, radioFirmware: '2.11' }).add('keys', model, { room: '', storedIn })
describeBothWays('fob-store', [
  { what: 'in the panel', job: () => stored('ostler-s-8', 'quatern-8', 'panel'), says: [] },
  {
    what: 'in a keypad, where that is the house rule',
    job: () => by(stored('ostler-s-8', 'quatern-8', 'keypad'), { fobStore: 'keypad' }),
    says: [],
  },
  {
    what: 'in a keypad, against it',
    job: () => stored('ostler-s-8', 'quatern-8', 'keypad'),
    says: ['Quatern 8 fob is stored in a keypad: a new keypad or a change of codes loses it.'],
    ways: ['Store it in the panel'],
  },
  {
    what: 'in a keypad that stores none, whatever the house rule',
    job: () => by(stored('tarn-40', 'quartet-c', 'keypad'), { fobStore: 'keypad' }),
    says: ['Quartet C fob is to be stored in a keypad; Tarn 40 keeps fobs itself.'],
  },
  {
    what: 'a contact is stored in no keypad',
    job: () => ostler().add('shed', 'sill-8', { storedIn: 'keypad' }),
    says: [],
  },
])
