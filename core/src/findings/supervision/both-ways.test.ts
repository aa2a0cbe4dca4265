import { cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { but, describeBothWays } from '../testing/both-ways.ts'

describeBothWays('carried-supervised', [
  { what: 'what hangs on a wall is supervised', job: () => cleanTarn(), says: [] },
  {
    what: 'a pendant leaves the house',
    job: () => but(cleanTarn(), 'bedroom', { supervise: true }),
    says: ['Zone 09 belongs to a carried panic: out of the house it shows as lost.'],
    ways: ['Do not supervise it'],
  },
])

describeBothWays('fixed-unsupervised', [
  { what: 'a pendant leaves the house', job: () => cleanTarn(), says: [] },
  {
    what: 'a sister zone is supervised',
    job: () =>
      but(
        cleanTarn().set('device:porch', { inputs: 'both' }).number(),
        'porch',
        { supervise: false },
        'open',
      ),
    says: [],
  },
  {
    what: 'fire has a rule of its own',
    job: () =>
      ['smoke', 'heat', 'freeze'].reduce(
        (job, event) => but(job, 'landing', { supervise: false }, event),
        cleanTarn(),
      ),
    says: [],
  },
  {
    what: 'a wired contact has no radio to fall silent',
    job: () =>
      but(SmallJob.morrow().add('gate', 'contact-w', { use: 'opening' }).number(), 'gate', {
        supervise: false,
      }),
    says: [],
  },
  {
    what: 'a motion of one zone',
    job: () => but(cleanTarn(), 'hall', { supervise: false }),
    says: [
      'Zone 03: no zone of its Stilt Hound motion is supervised, so its silence or low battery is noticed by nobody.',
    ],
    ways: ['Supervise it'],
  },
])

/* Longest silence: EN 50131 by grade 60, 20 and 1 min; a US household 4 h with fire, else a day. */
const window = (minutes: number | null, over: Record<string, unknown> = {}) =>
  new SmallJob({ superviseMinutes: minutes, ...over })
const america = (minutes: number, ...models: readonly string[]) =>
  models
    .reduce(
      (job, model, at) => job.add(`d${at}`, model, { use: 'opening' }),
      SmallJob.morrow({ superviseMinutes: minutes }),
    )
    .number()
describeBothWays('supervision-window', [
  { what: 'nobody set one', job: () => window(null), says: [] },
  { what: 'grade 1, the longest', job: () => window(60, { grade: 1 }), says: [] },
  {
    what: 'grade 1, longer',
    job: () => window(61, { grade: 1 }),
    says: [
      'A device is called lost after 61 min; EN 50131-5-3 grade 1, to prevent arming, asks for at most 60 min.',
    ],
    ways: ['Call it lost after 60 min'],
  },
  { what: 'grade 2, the longest', job: () => window(20), says: [] },
  {
    what: 'grade 2, longer',
    job: () => window(21),
    says: [
      'A device is called lost after 21 min; EN 50131-5-3 grade 2, to prevent arming, asks for at most 20 min.',
    ],
    ways: ['Call it lost after 20 min'],
  },
  {
    what: 'grade 3, longer',
    job: () => window(2, { grade: 3 }),
    says: [
      'A device is called lost after 2 min; EN 50131-5-3 grade 3, to prevent arming, asks for at most 1 min.',
    ],
  },
  { what: 'a US household with fire, the longest', job: () => america(240, 'cinder-one'), says: [] },
  {
    what: 'a US household with fire, longer',
    job: () => america(241, 'cinder-one'),
    says: ['A device is called lost after 241 min; a household fire zone asks for at most 240 min.'],
    ways: ['Call it lost after 240 min'],
  },
  { what: 'a US household without fire, a day', job: () => america(1440, 'latchet-thin'), says: [] },
  {
    what: 'a US household without fire, longer',
    job: () => america(1441, 'latchet-thin'),
    says: ['A device is called lost after 1441 min; a household burglary system asks for at most 1440 min.'],
  },
  {
    what: 'shorter than three check-ins',
    job: () => window(60, { grade: 1 }).add('porch', 'reedling', { use: 'opening' }),
    says: [
      'A device is called lost after 60 min, and Reedling contact checks in every 60 min: three check-ins do not fit.',
    ],
    ways: [],
  },
  {
    what: 'of a device that has no place yet',
    job: () => window(60, { grade: 1 }).add('porch', 'reedling', { deferred: 'later' }),
    says: [],
  },
  { what: 'just three check-ins of 66 min', job: () => america(198, 'latchet-thin'), says: [] },
  {
    what: 'a minute less, of two models',
    job: () => america(197, 'latchet-thin', 'prowl'),
    says: [
      'A device is called lost after 197 min, and Latchet Thin contact checks in every 66 min: three check-ins do not fit, nor of 1 more.',
    ],
  },
])
