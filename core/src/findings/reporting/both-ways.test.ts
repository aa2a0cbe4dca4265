import { cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { ostler, pinfold, quillet } from '../testing/case-jobs.ts'
import { but, by, describeBothWays } from '../testing/both-ways.ts'

const quiet = (over: Record<string, unknown> = {}) => new SmallJob(over).add('bedroom', 'whisper').number()
const care = () => cleanTarn().add('bed', 'attend').number()

describeBothWays('silent-unreported', [
  { what: 'it is reported', job: () => quiet(), says: [] },
  {
    what: 'it is not',
    job: () => but(quiet(), 'bedroom', { report: false }),
    says: ['Zone 01 makes no sound and its report is off: nobody would notice the call.'],
    ways: ['Report it'],
  },
  {
    what: 'nobody receives it',
    job: () => but(quiet(), 'bedroom', { report: true }).set('job:main', { monitored: false }),
    says: ['Zone 01 makes no sound and this job has no station: nobody would notice the call.'],
    ways: [],
  },
  {
    what: 'a loud call is another matter',
    job: () => but(cleanTarn(), 'bedroom', { report: false }),
    says: [],
  },
])

describeBothWays('silent-call-loud', [
  { what: 'a silent call on the silent type', job: () => quiet(), says: [] },
  { what: 'a loud call on the loud type', job: () => cleanTarn(), says: [] },
  {
    what: 'a silent call on the loud type',
    job: () => but(quiet(), 'bedroom', { response: 'panic' }),
    says: ['Zone 01 is a quiet call for help but does “Call for help, loud”: its sound betrays the caller.'],
    ways: ['Use “Call for help, quiet”'],
  },
])
describeBothWays('loud-call-silent', [
  { what: 'a loud call on the loud type', job: () => cleanTarn(), says: [] },
  {
    what: 'a loud call on the silent type',
    job: () => but(cleanTarn(), 'bedroom', { response: 'panic-silent' }),
    says: [
      'Zone 09 is a call for help that should be heard but does “Call for help, quiet”: nobody in the house is warned.',
    ],
    ways: ['Use “Call for help, loud”'],
  },
])

describeBothWays('call-unreported', [
  { what: 'a care call that is reported', job: () => care(), says: [] },
  {
    what: 'a care call that is not',
    job: () => but(care(), 'bed', { report: false }),
    says: ['Zone 10 is a care call and does not report, and this job is monitored: nobody comes.'],
    ways: ['Report it'],
  },
  {
    what: 'frost that is not',
    job: () => but(cleanTarn(), 'landing', { report: false }, 'freeze'),
    says: ['Zone 07 is frost or water and does not report, and this job is monitored: nobody comes.'],
  },
  {
    what: 'a call for help that is not',
    job: () => but(cleanTarn(), 'bedroom', { report: false }),
    says: ['Zone 09 is a call for help and does not report, and this job is monitored: nobody comes.'],
  },
  {
    what: 'a silent one has a rule of its own',
    job: () => but(quiet(), 'bedroom', { report: false }),
    says: [],
  },
  {
    what: 'fire has a rule of its own',
    job: () => but(cleanTarn(), 'landing', { report: false }, 'smoke'),
    says: [],
  },
  {
    what: 'nobody receives it',
    job: () => but(care(), 'bed', { report: false }).set('job:main', { monitored: false }),
    says: [],
  },
])

describeBothWays('burglary-unreported', [
  { what: 'all are reported', job: () => cleanTarn(), says: [] },
  {
    what: 'two are not: one finding',
    job: () => but(but(cleanTarn(), 'porch', { report: false }), 'study', { report: false }),
    says: [
      'Zones 01, 02 do not report though this job is monitored: the station hears nothing of a burglary there.',
    ],
    ways: ['Report it'],
  },
  {
    what: 'a day notice alarms while the house is set',
    job: () => but(cleanTarn(), 'study', { response: 'day', report: false }),
    says: [
      'Zone 02 does not report though this job is monitored: the station hears nothing of a burglary there.',
    ],
  },
  {
    what: 'a zone without a type is told as that',
    job: () => but(cleanTarn(), 'study', { response: null, report: false }),
    says: [],
  },
])

const local = (over: Record<string, unknown> = {}) => {
  const job = new SmallJob({ monitored: false })
    .add('study', 'reedling-slim', { use: 'opening', position: 'window' })
    .number()
  return but(job, 'study', over)
}
describeBothWays('report-mixed', [
  { what: 'off, as the house rule has it', job: () => local({ report: false }), says: [] },
  {
    what: 'on, against it',
    job: () => local({ report: true }),
    says: ['Zone 01 has report on; this job has no station and the house rule is off for all.'],
    ways: ['Turn it off'],
  },
  {
    what: 'on, where the house rule has it so',
    job: () => by(local({ report: true }), { localReport: 'on' }),
    says: [],
  },
  {
    what: 'off, against it',
    job: () => by(local({ report: false }), { localReport: 'on' }),
    says: ['Zone 01 has report off; this job has no station and the house rule is on for all.'],
    ways: ['Turn it on'],
  },
  {
    what: 'a silent call is told as that',
    job: () => but(quiet({ monitored: false }), 'bedroom', { report: true }),
    says: [],
  },
  { what: 'a job with a station', job: () => but(cleanTarn(), 'study', { report: false }), says: [] },
])

describeBothWays('silent-siren', [
  {
    what: 'it sounds at none',
    job: () =>
      but(
        new SmallJob({ panel: 'panel/pinfold-16', grade: 1 }).add('bedroom', 'summon').number(),
        'bedroom',
        { response: 'panic-silent', sirens: [] },
      ),
    says: [],
  },
  {
    what: 'it sounds at all',
    job: () =>
      but(
        new SmallJob({ panel: 'panel/pinfold-16', grade: 1 }).add('bedroom', 'summon').number(),
        'bedroom',
        { response: 'panic-silent', sirens: null },
      ),
    says: ['Zone 09 is silent and drives all siren outputs.'],
  },
  { what: 'a panel that has no outputs to choose', job: () => quiet(), says: [] },
])
describeBothWays('siren-none', [
  { what: 'it sounds at all', job: () => but(pinfold(), 'study', { sirens: null }), says: [] },
  { what: 'it sounds at one', job: () => but(pinfold(), 'study', { sirens: [2] }), says: [] },
  {
    what: 'it sounds at none',
    job: () => but(pinfold(), 'study', { sirens: [] }),
    says: ['Zone 02 should be heard (Shell) and drives no siren output.'],
    ways: ['Let it drive all of them'],
  },
  {
    what: 'a zone without a type is told as that',
    job: () => but(pinfold(), 'study', { sirens: [], response: null }),
    says: [],
  },
])

describeBothWays('chime-wrong', [
  { what: 'a door', job: () => but(cleanTarn(), 'porch', { chime: true }), says: [] },
  {
    what: 'terminals of a contact',
    job: () =>
      but(
        cleanTarn().set('device:porch', { inputs: 'both' }).number(),
        'porch',
        { chime: true },
        'terminals',
      ),
    says: [],
  },
  {
    what: 'a motion',
    job: () => but(cleanTarn(), 'hall', { chime: true }),
    says: ['Zone 03 chimes at every motion while the house is unset.'],
    ways: ['Turn its chime off'],
  },
  { what: 'a motion that is quiet', job: () => but(cleanMorrow(), 'hall', { chime: false }), says: [] },
])
describeBothWays('chime-style', [
  { what: 'one that the panel has', job: () => but(quillet(), 'front', { chimeStyle: 'two' }), says: [] },
  {
    what: 'one of another panel',
    job: () => but(quillet(), 'front', { chimeStyle: 'bell' }),
    says: ['Zone 001 is to chime “bell”; Quillet 32 has one note, two notes, says the name.'],
    ways: ['Take the first one'],
  },
  {
    what: 'a panel that has but one',
    job: () => but(ostler(), 'front', { chimeStyle: 'two' }),
    says: ['Zone 01 is to chime “two”; Ostler S 8 has one chime for all.'],
  },
])

const late = (device: string, event?: string) => but(cleanTarn(), device, { transmissionDelay: true }, event)
describeBothWays('held-back', [
  { what: 'a burglary may wait', job: () => late('study'), says: [] },
  ...(
    [
      ['smoke', '05 is fire'],
      ['heat', '06 is fire'],
      ['freeze', '07 is frost or water'],
    ] as const
  ).map(([event, zone]) => ({
    what: event,
    job: () => late('landing', event),
    says: [`Zone ${zone} and its report would be held back: it must go out at once.`],
    ways: ['Send it at once'],
  })),
  {
    what: 'carbon monoxide',
    job: () => late('kitchen'),
    says: ['Zone 08 is gas and its report would be held back: it must go out at once.'],
  },
  {
    what: 'a call for help',
    job: () => late('bedroom'),
    says: ['Zone 09 is a call for help and its report would be held back: it must go out at once.'],
  },
])
