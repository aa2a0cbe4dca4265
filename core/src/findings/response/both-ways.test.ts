import { expect } from 'vitest'
import { recordsOf } from '../../job/document.ts'
import { keepEntry } from '../../catalogue/written.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { ostler, pinfold, quillet } from '../testing/case-jobs.ts'
import { but, describeBothWays } from '../testing/both-ways.ts'

const quiet = (over: Record<string, unknown> = {}) => new SmallJob(over).add('bedroom', 'whisper').number()

describeBothWays('response-missing', [
  {
    what: 'without a panel none can be had',
    job: () => but(cleanTarn(), 'hall', { response: null }).set('job:main', { panel: null }),
    says: [],
  },
  {
    what: 'a type of another panel is none of this one',
    job: () => but(cleanTarn(), 'hall', { response: 'any-hour' }),
    says: ['Zone 03 has no response type of Tarn 40.'],
    ways: ['Use “Passage, away only”'],
  },
])

/** A call button on a panel that has siren outputs and a list of day zones. */
const pinfoldCall = (over: Record<string, unknown>) =>
  but(
    new SmallJob({ panel: 'panel/pinfold-16', grade: 1 }).add('bedroom', 'summon').number(),
    'bedroom',
    over,
  )
/** The same button as one that calls silently. */
const quietCall = (over: Record<string, unknown>): SmallJob => {
  const job = pinfoldCall({ event: 'panic-silent', response: 'instant', ...over })
  const button = catalogue.get('device', 'device/summon') ?? expect.fail()
  const loops = button.loops.map((loop) => ({ ...loop, event: 'panic-silent' as const, name: 'silent call' }))
  job.catalogue = catalogue.with([keepEntry({ ...button, loops })])
  return job
}
const quietAsDoor =
  'Zone 09 reports silent call as “Shell”, a burglary type: it calls the police as for a burglar, and may sleep while unset. A call for help needs a panic type, instant in every mode.'
const bedroomOf = (job: SmallJob) => {
  const { response, report, sirens, dayZone } = job.zone('bedroom')
  return { response, report, sirens, dayZone }
}

describeBothWays('panic-wrong-kind', [
  {
    what: 'a silent call sounds at no siren output',
    job: () => quietCall({ sirens: [1], report: false }),
    says: [quietAsDoor],
    ways: ['Use “Call, quiet”'],
    then: (job) =>
      expect(bedroomOf(job)).toEqual({ response: 'panic-silent', report: true, sirens: [], dayZone: false }),
  },
  {
    what: 'a silent call whose outputs nobody chose would sound at all',
    job: () => quietCall({ sirens: null, report: true }),
    says: [quietAsDoor],
    then: (job) =>
      expect(bedroomOf(job)).toEqual({ response: 'panic-silent', report: true, sirens: [], dayZone: false }),
  },
  {
    what: 'a silent call that sounds nowhere already',
    job: () => quietCall({ sirens: [] }),
    says: [quietAsDoor],
    then: (job) => expect(bedroomOf(job).sirens).toEqual([]),
  },
  {
    what: 'a loud call keeps its outputs and leaves the list of day zones',
    job: () => pinfoldCall({ response: 'instant', sirens: [1], dayZone: true }),
    says: [
      'Zone 09 reports call as “Shell”, a burglary type: it calls the police as for a burglar, and may sleep while unset. A call for help needs a panic type, instant in every mode.',
    ],
    ways: ['Use “Call, loud”'],
    then: (job) => expect(bedroomOf(job)).toMatchObject({ response: 'panic', sirens: [1], dayZone: false }),
  },
  { what: 'a loud call on the loud type', job: () => cleanTarn(), says: [] },
  { what: 'a silent call on the silent type', job: () => quiet(), says: [] },
  {
    what: 'a silent call on a type that is for burglars, on a panel that sends',
    job: () => but(quiet(), 'bedroom', { response: 'instant', report: false, transmissionDelay: true }),
    says: [
      'Zone 01 reports silent call as “Outer line”, a burglary type: it calls the police as for a burglar, and may sleep while unset. A call for help needs a panic type, instant in every mode.',
    ],
    ways: ['Use “Call for help, quiet”'],
    then: (job) => {
      const zone = job.zone('bedroom')
      // Silent it must be reported, and at once.
      expect([zone.response, zone.report, zone.transmissionDelay]).toEqual(['panic-silent', true, false])
    },
  },
  {
    what: 'a silent call where nobody is called',
    job: () => but(quiet({ monitored: false }), 'bedroom', { response: 'instant' }),
    says: [
      'Zone 01 reports silent call as “Outer line”, a burglary type: it calls the police as for a burglar, and may sleep while unset. A call for help needs a panic type, instant in every mode.',
    ],
    ways: [],
  },
])

describeBothWays('house-watch-wrong-kind', [
  { what: 'frost on the type for it', job: () => cleanTarn(), says: [] },
  {
    what: 'frost on the fire type',
    job: () => but(cleanTarn(), 'landing', { response: 'fire' }, 'freeze'),
    says: [
      'Zone 07 reports frost as “Fire”, a fire type: it calls the fire brigade and sounds like a fire. Frost and water must be watched in every mode, with their own tone.',
    ],
    ways: ['Use “House watch”'],
  },
  {
    what: 'heat is another matter',
    job: () => but(cleanTarn(), 'landing', { response: 'day' }, 'heat'),
    says: [],
  },
])

describeBothWays('medical-wrong-kind', [
  { what: 'a care call on its type', job: () => cleanTarn().add('bed', 'attend').number(), says: [] },
  {
    what: 'a call for help is another matter',
    job: () => but(cleanTarn(), 'bedroom', { response: 'medical' }),
    says: [],
  },
])

describeBothWays('follow-alone', [
  { what: 'a door of its area starts a delay', job: () => cleanTarn(), says: [] },
  {
    what: 'the door starts one in stay alone',
    job: () => but(cleanTarn(), 'porch', { response: 'instant-away' }),
    says: [
      'Zone 03 follows in away, but no zone of its area starts an entry delay there: it is only ever instant.',
    ],
  },
  {
    what: 'the door is in another area',
    job: () =>
      but(
        but(ostler().area(2, 'Annexe').add('hall', 'watcher-8', { use: 'on-way' }).number(), 'hall', {
          response: 'follow-away',
        }),
        'front',
        { area: 'area:2' },
      ),
    says: [
      'Zone 06 follows in away, but no zone of its area starts an entry delay there: it is only ever instant.',
    ],
  },
  {
    what: 'the door is common to both areas',
    job: () =>
      but(
        but(ostler().area(2, 'Annexe').add('hall', 'watcher-8', { use: 'on-way' }).number(), 'hall', {
          response: 'follow-away',
        }),
        'front',
        { area: 'area:2', area2: 'area:1' },
      ),
    says: [],
  },
])

const knocking = (panel: string, device: string) =>
  but(new SmallJob({ panel: `panel/${panel}` }).add('hall', device, { use: 'off-way' }).number(), 'hall', {
    doubleKnock: true,
  })
describeBothWays('double-knock', [
  {
    what: 'a wired contact opens once',
    job: () => knocking('quillet-32', 'contact-w'),
    says: ['Zone 033 waits for a second trip: a terminal pair may trip only once.'],
    ways: ['Alarm at the first trip'],
  },
  {
    what: 'a radio motion',
    job: () => knocking('quillet-32', 'watcher-8'),
    says: ['Zone 001 waits for a second trip: a radio device may sleep after its first trip.'],
  },
  {
    what: 'a panel that has none',
    job: () => but(cleanTarn(), 'hall', { doubleKnock: true }),
    says: ['Zone 03 waits for a second trip: Tarn 40 has no double knock.'],
  },
])

describeBothWays('stay-option', [
  { what: 'it is off', job: () => pinfold(), says: [] },
  {
    what: 'it is on and no zone alarms at once in stay',
    job: () => but(pinfold().set('job:main', { stayToEntry2: true }), 'study', { response: 'instant-away' }),
    says: [],
  },
  {
    what: 'it is on, of a panel that has none',
    job: () => cleanTarn().set('job:main', { stayToEntry2: true }),
    says: ['Tarn 40 has no option that turns stay zones into entry 2.'],
    ways: ['Turn the option off'],
  },
])

describeBothWays('day-zone', [
  { what: 'nobody offers it', job: () => pinfold(), says: [] },
  { what: 'a window of no list', job: () => but(pinfold(), 'study', { dayZone: true }), says: [] },
  {
    what: 'a panel on which nobody chooses',
    job: () => but(cleanTarn(), 'study', { dayZone: true }),
    says: ['Zone 02 is offered as a day zone: Tarn 40 leaves no choice of day zones to the user.'],
    ways: ['Do not offer it'],
  },
  {
    what: 'what alarms at any hour',
    job: () => but(pinfold(), 'study', { dayZone: true, response: 'panic' }),
    says: ['Zone 02 is offered as a day zone: “Call, loud” alarms at any hour.'],
  },
])

const upstairs = (over: Record<string, unknown> = {}) =>
  new SmallJob({ panel: 'panel/quillet-32', entry2: 50, exitStay: 0, ...over })
    .room('landing', { floor: 'up' })
    .room('hall', { floor: 'down' })
    .add('porch', 'sill-8', { use: 'entry' })
    .add('landing', 'watcher-8', { use: 'on-way-night' })
const gone =
  'Zone 002 is a motion that is on in stay, and there is no exit delay in stay, no fob, nor a keypad on another floor: whoever goes up or comes down trips it.'
describeBothWays('stay-motion', [
  { what: 'nothing sets it from elsewhere', job: () => upstairs().number(), says: [gone] },
  {
    what: 'a keypad on the same floor',
    job: () => upstairs().add('pad', 'scriber-8', { room: 'landing' }).number(),
    says: [gone],
  },
  {
    what: 'a keypad on another floor',
    job: () => upstairs().add('pad', 'scriber-8', { room: 'hall' }).number(),
    says: [],
  },
  {
    what: 'a fob that unsets',
    job: () => upstairs().add('fob', 'quatern-8', { room: '' }).number(),
    says: [],
  },
  { what: 'an exit delay in stay', job: () => upstairs({ exitStay: 10 }).number(), says: [] },
  {
    what: 'it is off in stay',
    job: () => but(upstairs().number(), 'landing', { response: 'instant-away' }),
    says: [],
  },
  {
    what: 'nobody said what the exit delay in stay is',
    job: () => upstairs({ exitStay: null }).number(),
    says: [
      'Zone 002 is a motion that is on in stay, and there is neither a fob nor a keypad on another floor: whoever goes up or comes down trips it.',
    ],
  },
  { what: 'a contact is no motion', job: () => but(quillet(), 'front', { response: 'instant' }), says: [] },
])

describeBothWays('panic-wrong-kind', [
  {
    what: 'nothing else of the zone is changed with its type',
    job: () => but(cleanMorrow(), 'bedroom', { response: 'instant', transmissionDelay: true }),
    says: [
      'Zone 13 reports pendant as “Outer line”, a burglary type: it calls the police as for a burglar, and may sleep while unset. A call for help needs a panic type, instant in every mode.',
    ],
    then: (job) => {
      expect(recordsOf(job.doc, 'zone').filter(({ response }) => response === 'panic')).toHaveLength(1)
    },
  },
])
