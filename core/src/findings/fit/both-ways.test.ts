import { cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { describeBothWays } from '../testing/both-ways.ts'

const withFob = () =>
  cleanMorrow().user('Ola').add('keys', 'fourkey', { user: 'user:Ola', room: '' }).number()
const withoutZone = (job: SmallJob, device: string, event: string) =>
  job.apply([{ op: 'remove', record: job.zone(device, event) }])

describeBothWays('no-fit', [
  {
    what: 'what works, what loses something, and what nobody can tell',
    job: () => cleanTarn().add('gate', 'tapwell', { slot: 1 }).set('job:main', { radioFirmware: null }),
    says: [],
  },
])

describeBothWays('fit-loss', [
  { what: 'what works', job: () => cleanTarn(), says: [] },
  {
    what: 'a fob whose disarm button is heard',
    job: () => withFob(),
    says: ['Fourkey fob disarms over a plain one-way link: its command can be recorded and sent again.'],
  },
  {
    what: 'a fob whose disarm button is left unprogrammed',
    job: () => withoutZone(withFob(), 'keys', 'disarm'),
    says: [],
  },
  {
    what: 'a grade that the whole lacks is told once, of the whole',
    job: () => cleanTarn().set('job:main', { grade: 3 }),
    says: [],
  },
  {
    what: 'a check-in that is too rare is told once, by model',
    job: () => cleanTarn().add('attic', 'rime').number(),
    says: [],
  },
])

describeBothWays('fit-unknown', [
  {
    what: 'without a panel everything would be unknown',
    job: () => cleanTarn().set('job:main', { panel: null }),
    says: [],
  },
  { what: 'a loss is no doubt', job: () => withFob(), says: [] },
])

describeBothWays('grade-low', [
  { what: 'all are of the grade', job: () => cleanTarn().set('job:main', { grade: 2 }), says: [] },
  { what: 'all are of a higher one', job: () => cleanTarn().set('job:main', { grade: 1 }), says: [] },
])

describeBothWays('check-in-rare', [
  {
    what: 'one device is not counted',
    job: () => cleanTarn().add('attic', 'rime').number(),
    says: [
      'Rime temperature checks in every 130 min; grade 2 wants a message at least every 120 min (EN 50131-5-3).',
    ],
  },
  {
    what: 'the lowest grade wants less',
    job: () => cleanTarn().add('attic', 'rime').number().set('job:main', { grade: 1 }),
    says: [],
  },
])

describeBothWays('life-over', [
  // A CO alarm that lasts 7 years; it is 2026.
  {
    what: 'this is its last year',
    job: () => cleanTarn().set('device:kitchen', { madeYear: 2019 }),
    says: [],
  },
  {
    what: 'nobody said when it was made',
    job: () => cleanTarn().set('device:kitchen', { madeYear: null }),
    says: [],
  },
  {
    what: 'it is to be replaced',
    job: () => cleanTarn().set('device:kitchen', { madeYear: 2010, existing: true, plan: 'replace' }),
    says: [],
  },
  {
    what: 'what lasts as long as it lasts',
    job: () => cleanTarn().set('device:porch', { madeYear: 1999 }),
    says: [],
  },
])

describeBothWays('not-approved', [
  {
    what: 'where the firm types its own figures',
    job: () => cleanTarn().set('job:main', { region: 'own' }),
    says: [],
  },
  {
    what: 'a panel and a receiver that was added, each for itself',
    job: () => SmallJob.morrow({ region: 'europe' }),
    says: [
      'The panel Morrow 60 is made for North America, not for Europe.',
      'The receiver Morrow radio module is made for North America, not for Europe.',
    ],
  },
  { what: 'what is made for it', job: () => cleanMorrow(), says: [] },
])

describeBothWays('discontinued', [
  {
    what: 'it hangs there already',
    job: () => cleanTarn().add('back', 'reedling-old', { existing: true, use: 'opening' }).number(),
    says: [],
  },
  { what: 'what is still made', job: () => cleanTarn(), says: [] },
  {
    what: 'its successor stands in for it',
    job: () => cleanTarn().add('back', 'reedling-old', { use: 'opening' }).number(),
    says: ['Reedling Old contact is no longer made; Reedling contact follows it.'],
    ways: ['Plan its successor Reedling contact'],
  },
])
