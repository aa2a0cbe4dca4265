import { expect } from 'vitest'
import { cleanHouse, cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { but, describeBothWays } from '../testing/both-ways.ts'

const terminal = (job: SmallJob, number: number, state: 'live' | 'off') =>
  job.apply([{ op: 'add', record: { id: `terminal:${number}`, type: 'terminal', number, state } }])

describeBothWays('pair-twice', [
  {
    what: 'one ID on the loops of one device',
    job: () =>
      ((j) =>
        j.learn(j.zone('landing', 'smoke').id, '12345678').learn(j.zone('landing', 'heat').id, '12345678'))(
        cleanTarn(),
      ),
    says: [],
  },
  {
    what: 'one loop, two IDs',
    job: () =>
      ((j) => j.learn(j.zone('porch').id, '12345678').learn(j.zone('study').id, '12345679'))(cleanTarn()),
    says: [],
  },
  {
    what: 'two devices with one ID are told as such',
    job: () =>
      ((j) => j.learn(j.zone('porch').id, '12345678').learn(j.zone('hall').id, '12345678'))(cleanTarn()),
    says: [],
  },
])

describeBothWays('number-twice', [
  { what: 'each has its own', job: () => cleanTarn(), says: [] },
  {
    what: 'three with one number',
    job: () => but(but(cleanTarn(), 'study', { number: 1 }), 'hall', { number: 1 }),
    says: [
      'Zone 01 is given twice: to “Porch Front Door” and to “Study Window”.',
      'Zone 01 is given twice: to “Porch Front Door” and to “Hall Motion”.',
    ],
    ways: ['Give it 02, the next free number'],
  },
])

describeBothWays('number-range', [
  {
    what: 'the first and the last',
    job: () => but(but(cleanTarn(), 'study', { number: 40 }), 'porch', { number: 1 }),
    says: [],
  },
  {
    what: 'one behind the last',
    job: () => but(cleanTarn(), 'study', { number: 41 }),
    says: ['41 is no number for a wireless zone: Tarn 40 keeps 01–40 for them.'],
    ways: ['Give it 02, the next free number'],
  },
  {
    what: 'without a panel there is no range',
    job: () => but(cleanTarn(), 'study', { number: 99 }).set('job:main', { panel: null }),
    says: [],
  },
  {
    what: 'a wired zone on a wireless number',
    job: () =>
      but(SmallJob.morrow().add('gate', 'contact-w', { use: 'opening' }).number(), 'gate', { number: 60 }),
    says: ['60 is no number for a wired zone: Morrow 60 keeps 01–06 and 07–12 for them.'],
    ways: ['Give it 01, the next free number'],
  },
  {
    what: 'a zone whose device is gone is told as that',
    job: () => but(but(cleanTarn(), 'study', { number: 99 }), 'study', { device: null }),
    says: [],
  },
])

/** The clip-on board of the Morrow is there, 7 to 12, with terminal 8 as said and the others off. */
const board = (state: 'live' | 'off') =>
  [7, 9, 10, 11, 12].reduce((job, number) => terminal(job, number, 'off'), terminal(cleanMorrow(), 8, state))
describeBothWays('live-terminal', [
  { what: 'all terminals are off', job: () => board('off'), says: [] },
  { what: 'a panel without wired terminals', job: () => cleanTarn(), says: [] },
  { what: 'a board that nobody fitted', job: () => cleanMorrow(), says: [] },
  {
    what: 'what is said of it is changed, not said twice',
    job: () => board('live'),
    says: [
      'Zone 08 is also wired terminal 8, which is live: left empty it reads open and the panel is never ready.',
    ],
    ways: ['Switch wired terminal 8 off', 'Give it 14, the next free number'],
    then: (job) => {
      expect(job.doc.records['terminal:8']).toMatchObject({ state: 'off' })
    },
  },
])

describeBothWays('left-but-new', [
  {
    what: 'the zone itself was there',
    job: () => but(cleanTarn(), 'porch', { asProgrammed: true, existing: true }),
    says: [],
  },
  {
    what: 'its device was there',
    job: () => but(cleanTarn().set('device:porch', { existing: true }), 'porch', { asProgrammed: true }),
    says: [],
  },
  { what: 'it is keyed', job: () => cleanTarn(), says: [] },
])

describeBothWays('mapped-terminal', [
  {
    what: 'over a number that nobody has',
    job: () => cleanHouse().set('device:keypad', { mappedOver: 9 }),
    says: [],
  },
  { what: 'over none', job: () => cleanHouse(), says: [] },
])
