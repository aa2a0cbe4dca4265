import { cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { ostler } from '../testing/case-jobs.ts'
import { but, by, describeBothWays } from '../testing/both-ways.ts'

describeBothWays('life-unreported', [
  {
    what: 'nobody receives it',
    job: () => but(cleanTarn().set('job:main', { monitored: false }), 'kitchen', { report: false }),
    says: [],
  },
  {
    what: 'frost is no life safety',
    job: () => but(cleanTarn(), 'landing', { report: false }, 'freeze'),
    says: [],
  },
  {
    what: 'heat is fire',
    job: () => but(cleanTarn(), 'landing', { report: false }, 'heat'),
    says: ['Zone 06 is fire and does not report, and this job is monitored.'],
    ways: ['Report it'],
  },
])

const silent = (job: SmallJob, ...events: readonly string[]) =>
  events.reduce((now, event) => but(now, 'landing', { supervise: false }, event), job)
describeBothWays('life-unsupervised', [
  { what: 'frost alone is supervised', job: () => silent(cleanTarn(), 'smoke', 'heat'), says: [] },
  {
    what: 'frost alone is supervised, where the one is to be fire or gas',
    job: () => by(silent(cleanTarn(), 'smoke', 'heat'), { sisters: 'one' }),
    says: [
      'Zone 05 is fire and no zone of its device is supervised: nobody would notice that it fell silent.',
    ],
    ways: ['Supervise it'],
  },
  {
    what: 'heat is supervised, where one is enough',
    job: () => by(silent(cleanTarn(), 'smoke', 'freeze'), { sisters: 'one' }),
    says: [],
  },
  {
    what: 'a detector of one zone',
    job: () => but(cleanTarn(), 'kitchen', { supervise: false }),
    says: [
      'Zone 08 is gas and no zone of its device is supervised: nobody would notice that it fell silent.',
    ],
    ways: ['Supervise it'],
  },
])

const reasoned = (reason: string) =>
  but(ostler(), 'study', { response: 'fire-verified', reason, fireGroup: 1 }, 'smoke')
describeBothWays('fire-departure', [
  { what: 'a reason is written', job: () => reasoned('steam of the shower'), says: [] },
  { what: 'plain fire needs none', job: () => ostler(), says: [] },
  {
    what: 'blanks are no reason',
    job: () => reasoned('  '),
    says: ['Zone 04 is a verified fire zone (“Fire, two agree”) and no reason is written.'],
    ways: ['Use “Fire”'],
  },
])

describeBothWays('fire-school', [
  { what: 'plain is the house rule', job: () => ostler(), says: [] },
  { what: 'the panel has none of that school', job: () => by(ostler(), { fire: 'delayed' }), says: [] },
  {
    what: 'a zone that is so already is left out',
    job: () => by(reasoned('steam'), { fire: 'verified' }),
    says: [
      'Zone 02 is plain fire; the house rule is two detectors: “Fire, two agree” gives it, with the reason in writing.',
      'Zone 03 is plain fire; the house rule is two detectors: “Fire, two agree” gives it, with the reason in writing.',
      'Zone 05 is plain fire; the house rule is two detectors: “Fire, two agree” gives it, with the reason in writing.',
    ],
  },
  {
    what: 'gas and frost are no fire',
    job: () =>
      by(
        new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' }).add('kitchen', 'fumer-8').number(),
        { fire: 'verified' },
      ),
    says: [],
  },
])

const pair = (
  attic: number | null,
  study: number | null,
  compartments: readonly [string, string] = ['', ''],
) => {
  const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
    .room('attic', { compartment: compartments[0] })
    .room('study', { compartment: compartments[1] })
    .add('attic', 'brander-8')
    .add('study', 'brander-8')
    .number()
  const of = (device: string, fireGroup: number | null) =>
    but(job, device, { response: 'fire-verified', reason: 'steam', fireGroup }, 'smoke')
  of('attic', attic)
  return of('study', study)
}
const alone = (zone: string, why: string) => `Zone ${zone} needs a second detector to agree but ${why}`
describeBothWays('verified-alone', [
  { what: 'two of one group', job: () => pair(1, 1), says: [] },
  { what: 'two of the last group', job: () => pair(3, 3), says: [] },
  {
    what: 'two of one compartment, however it is written',
    job: () => pair(1, 1, ['North', ' north ']),
    says: [],
  },
  { what: 'of one nobody said the compartment', job: () => pair(1, 1, ['', '']), says: [] },
  {
    what: 'two of two compartments',
    job: () => pair(1, 1, ['North', 'South']),
    says: [
      alone(
        '01',
        'is the only one of group 1 in the fire compartment North: a fire there alarms only once it has spread.',
      ),
      alone(
        '03',
        'is the only one of group 1 in the fire compartment South: a fire there alarms only once it has spread.',
      ),
    ],
  },
  {
    what: 'two of a group that the panel does not have',
    job: () => pair(4, 4),
    says: [
      alone('01', 'is in group 4, and Ostler S 8 has 3: it cannot be stored so.'),
      alone('03', 'is in group 4, and Ostler S 8 has 3: it cannot be stored so.'),
    ],
  },
  {
    what: 'two of no group',
    job: () => pair(null, null),
    says: [
      alone('01', 'is in no group: it would never alarm.'),
      alone('03', 'is in no group: it would never alarm.'),
    ],
  },
  {
    what: 'two of two groups',
    job: () => pair(1, 2),
    says: [
      alone('01', 'is alone in group 1: it would never alarm.'),
      alone('03', 'is alone in group 2: it would never alarm.'),
    ],
  },
  {
    what: 'smoke and heat of one detector do not agree with each other',
    job: () => but(pair(1, 2), 'attic', { response: 'fire-verified', reason: 'steam', fireGroup: 1 }, 'heat'),
    says: [
      alone('01', 'is alone in group 1: it would never alarm.'),
      alone('02', 'is alone in group 1: it would never alarm.'),
      alone('03', 'is alone in group 2: it would never alarm.'),
    ],
  },
])

describeBothWays('compartment-unknown', [
  { what: 'nobody waits for a second detector', job: () => ostler().room('attic'), says: [] },
  { what: 'both are said', job: () => pair(1, 1, ['A', 'A']), says: [] },
  {
    what: 'one is not said',
    job: () => pair(1, 1, ['A', ' ']),
    says: [
      'Whether zone 03 and its second detector are in one fire compartment cannot be told; needed: the compartment of study.',
    ],
  },
])

describeBothWays('joined-events', [
  {
    what: 'the house rule is that they are joined',
    job: () => by(new SmallJob().add('shed', 'ember-duo').number(), { smokeHeat: 'joined' }),
    says: [],
  },
  { what: 'smoke alone', job: () => new SmallJob().add('shed', 'ember-one').number(), says: [] },
  { what: 'smoke, heat and frost apart', job: () => cleanTarn(), says: [] },
])
