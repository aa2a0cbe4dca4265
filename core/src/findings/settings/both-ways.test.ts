import { cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { pinfold, quillet } from '../testing/case-jobs.ts'
import { describeBothWays } from '../testing/both-ways.ts'

const set = (job: SmallJob, over: Record<string, unknown>) => job.set('job:main', over)

describeBothWays('key-consent', [
  { what: 'no key is off', job: () => cleanMorrow(), says: [] },
  {
    what: 'two keys are off: one is put back and the other stays off',
    job: () => set(cleanMorrow(), { keysOff: ['fire pair', 'medical pair'] }),
    says: [
      'The fire pair of the keypads is switched off, and the customer’s consent is not recorded.',
      'The medical pair of the keypads is switched off, and the customer’s consent is not recorded.',
    ],
    ways: ['Leave the fire pair on'],
  },
])

describeBothWays('key-latching', [
  { what: 'it springs back', job: () => set(quillet(), { keySwitch: 'momentary' }), says: [] },
  { what: 'there is none', job: () => quillet(), says: [] },
  { what: 'a panel that minds none', job: () => set(cleanTarn(), { keySwitch: 'latching' }), says: [] },
])

describeBothWays('beeps-off', [
  { what: 'nobody said', job: () => set(cleanTarn(), { entryBeeps: null, exitBeeps: null }), says: [] },
  { what: 'they sound', job: () => set(cleanTarn(), { entryBeeps: true, exitBeeps: true }), says: [] },
  {
    what: 'both are off',
    job: () => set(cleanTarn(), { entryBeeps: false, exitBeeps: false }),
    says: [
      'The keypads make no sound while entry runs: people do not hear that their time is passing.',
      'The keypads make no sound while exit runs: people do not hear that their time is passing.',
    ],
    ways: ['Let them sound'],
  },
  {
    what: 'a panel that has no choice',
    job: () => set(new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' }), { entryBeeps: false }),
    says: [],
  },
])

describeBothWays('outputs-latched', [
  { what: 'a pulse', job: () => set(cleanMorrow(), { outputs: 'momentary' }), says: [] },
  {
    what: 'held, where the panel can',
    job: () => set(cleanMorrow(), { outputs: 'latched' }),
    says: [
      'Outputs stay on until a code is keyed: show the customer how to clear them, and what they drive.',
    ],
    ways: ['Let them give a pulse'],
  },
  {
    what: 'held, where the panel cannot',
    job: () => set(cleanTarn(), { outputs: 'latched' }),
    says: ['Tarn 40 gives pulses only: its outputs cannot stay on.'],
  },
  { what: 'a panel without a choice', job: () => set(quillet(), { outputs: 'latched' }), says: [] },
])

describeBothWays('open-excluded', [
  { what: 'it alarms', job: () => set(pinfold(), { openAtExit: 'alarm' }), says: [] },
  { what: 'a panel without the choice', job: () => set(cleanTarn(), { openAtExit: 'exclude' }), says: [] },
])
