import { describe, expect, it } from 'vitest'
import type { ActOptions, ActZone } from './behaviour.ts'
import { home } from './testing/home.ts'
import { played } from './testing/timeline.ts'

/* What an alarm does until it is over: sound, report, hold, abort, memory, counting; and fire that is asked about or verified. */

interface Case {
  readonly options?: Partial<ActOptions>
  readonly differ?: Readonly<Record<string, Partial<ActZone>>>
  readonly text: string
}

const alarms: Readonly<Record<string, Case>> = {
  'the siren ends by itself': {
    text: `
    3 trip panic → alarm panic panic; sound siren; report panic panic
    200 wait → 183 quiet`,
  },
  'the siren sounds until it is silenced where no time is said': {
    options: { sirenSeconds: null },
    text: `
    3 trip panic → alarm panic panic; sound siren; report panic panic
    9000 wait
    9001 unset → quiet; clear`,
  },
  'a zone that trips again while its alarm sounds adds nothing': {
    text: `
    3 trip panic → alarm panic panic; sound siren; report panic panic
    8 trip panic
    190 trip panic → 183 quiet; alarm panic panic; sound siren; report panic panic`,
  },
  'fire over burglary: the fire is heard': {
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren; report burglary window
    110 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'burglary under fire: the fire is heard on, then the siren': {
    text: `
    0 set away → leave away until 60
    100 trip smoke → 60 set away; alarm fire smoke; sound three-pulse; report fire smoke
    150 open window → alarm burglary window; report burglary window
    400 wait → 280 sound siren; 330 quiet`,
  },
  'gas goes before panic, fire before gas': {
    text: `
    3 trip panic → alarm panic panic; sound siren; report panic panic
    4 trip co → alarm gas co; sound four-pulse; report gas co
    5 trip heat → alarm fire heat; sound three-pulse; report fire heat`,
  },
  'frost under burglary: its tone waits': {
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren; report burglary window
    120 trip frost → alarm auxiliary frost; report auxiliary frost
    290 wait → 280 sound tone`,
  },
  'medical goes before burglary': {
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren; report burglary window
    120 trip pendant → alarm medical pendant; sound tone; report medical pendant`,
  },
  'unset silences, calls off and clears at once': {
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren; report burglary window
    110 unset → unset; quiet; report cancelled window; clear`,
  },
  'a second unset clears on many panels': {
    options: { secondUnsetClears: true },
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren; report burglary window
    110 unset → unset; quiet; report cancelled window
    115 unset → clear
    120 unset`,
  },
  'an alarm while unset: the first unset silences, the second clears': {
    options: { secondUnsetClears: true },
    text: `
    3 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke
    20 unset → quiet
    25 unset → clear`,
  },
  'a call for help is not called off by unsetting': {
    text: `
    3 trip panic → alarm panic panic; sound siren; report panic panic
    4 trip hold-up → alarm panic hold-up; report panic hold-up
    9 unset → quiet; clear`,
  },
  'held before sending: sent when nobody unsets': {
    options: { holdSeconds: 30 },
    differ: { window: { held: true } },
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren
    131 wait → 130 report burglary window`,
  },
  'unset within the window: aborted, nothing is sent': {
    options: { holdSeconds: 30 },
    differ: { window: { held: true } },
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren
    129 unset → unset; quiet; abort window; clear
    200 wait`,
  },
  'unset after the window: sent, then called off': {
    options: { holdSeconds: 30 },
    differ: { window: { held: true } },
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren
    131 unset → 130 report burglary window; unset; quiet; report cancelled window; clear`,
  },
  'entry runs out: sounder at once, report after the hold': {
    options: { holdSeconds: 30 },
    differ: { front: { held: true } },
    text: `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    200 wait → 130 alarm burglary front; 130 sound siren; 160 report burglary front`,
  },
  'life safety is not held': {
    options: { holdSeconds: 30 },
    text: `
    3 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'a zone flagged to hold on a panel without a hold: sent at once': {
    differ: { window: { held: true } },
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren; report burglary window`,
  },
  'report off: heard, sent to nobody': {
    differ: { window: { report: false } },
    text: `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren
    110 unset → unset; quiet; clear`,
  },
  'a panel that reports to nobody': {
    options: { reports: false },
    text: `
    3 trip smoke → alarm fire smoke; sound three-pulse
    9 unset → quiet; clear`,
  },
  'shut out after two alarms in one set period': {
    options: { swinger: 2 },
    text: `
    0 set away → leave away until 60
    100 trip lounge → 60 set away; alarm burglary lounge; sound siren; report burglary lounge
    400 trip lounge → 280 quiet; alarm burglary lounge; sound siren; report burglary lounge; leave out lounge too often
    700 trip lounge → 580 quiet`,
  },
  'counted anew in the next set period': {
    options: { swinger: 1 },
    text: `
    0 set away → leave away until 60
    100 trip lounge → 60 set away; alarm burglary lounge; sound siren; report burglary lounge; leave out lounge too often
    110 unset → unset; quiet; report cancelled lounge; clear
    200 set away → leave away until 260
    300 trip lounge → 260 set away; alarm burglary lounge; sound siren; report burglary lounge; leave out lounge too often`,
  },
  'what is always on is never shut out': {
    options: { swinger: 1 },
    text: `
    0 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke
    200 trip smoke → 180 quiet; alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'double knock: the second trip alarms': {
    differ: { lounge: { doubleKnock: true } },
    text: `
    0 set away → leave away until 60
    100 trip lounge → 60 set away; first knock lounge
    130 trip lounge → alarm burglary lounge; sound siren; report burglary lounge`,
  },
  'double knock: the second comes too late': {
    options: { knockSeconds: 60 },
    differ: { lounge: { doubleKnock: true } },
    text: `
    0 set away → leave away until 60
    100 trip lounge → 60 set away; first knock lounge
    161 trip lounge → first knock lounge
    221 trip lounge → alarm burglary lounge; sound siren; report burglary lounge`,
  },
  'double knock: the next set period begins anew': {
    differ: { lounge: { doubleKnock: true } },
    text: `
    0 set away → leave away until 60
    100 trip lounge → 60 set away; first knock lounge
    110 unset → unset
    120 set away → leave away until 180
    200 trip lounge → 180 set away; first knock lounge`,
  },
  'memory of two alarms is cleared together': {
    options: { secondUnsetClears: true },
    text: `
    3 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke
    4 trip frost → alarm auxiliary frost; report auxiliary frost
    20 unset → quiet
    21 unset → clear`,
  },
}

const fires: Readonly<Record<string, Case>> = {
  'delayed fire: acknowledged in time': {
    options: { acknowledgeSeconds: 30 },
    differ: { smoke: { fire: 'delayed' } },
    text: `
    3 trip smoke → ask smoke until 33
    20 unset
    60 wait`,
  },
  'delayed fire: nobody acknowledges': {
    options: { acknowledgeSeconds: 30 },
    differ: { smoke: { fire: 'delayed' } },
    text: `
    3 trip smoke → ask smoke until 33
    10 trip smoke
    40 wait → 33 alarm fire smoke; 33 sound three-pulse; 33 report fire smoke`,
  },
  'delayed fire of a panel whose time nobody said: at once': {
    differ: { smoke: { fire: 'delayed' } },
    text: `
    3 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'verified fire: the same detector again': {
    differ: { smoke: { fire: 'verified' } },
    text: `
    3 trip smoke → verify smoke
    40 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'verified fire: too late is a first time': {
    options: { verifySeconds: 60 },
    differ: { smoke: { fire: 'verified' } },
    text: `
    3 trip smoke → verify smoke
    64 trip smoke → verify smoke
    70 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'verified fire: two of one group': {
    options: { verifiedBy: 'group' },
    differ: { smoke: { fire: 'verified', group: 1 }, heat: { fire: 'verified', group: 1 } },
    text: `
    3 trip smoke → verify smoke
    9 trip smoke → verify smoke
    20 trip heat → alarm fire heat; sound three-pulse; report fire heat`,
  },
  'verified fire: two of different groups do not verify each other': {
    options: { verifiedBy: 'group' },
    differ: { smoke: { fire: 'verified', group: 1 }, heat: { fire: 'verified', group: 2 } },
    text: `
    3 trip smoke → verify smoke
    20 trip heat → verify heat`,
  },
  'verified fire: a detector without a group is verified by itself': {
    options: { verifiedBy: 'group' },
    differ: { smoke: { fire: 'verified' } },
    text: `
    3 trip smoke → verify smoke
    20 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'a plain detector beside a verified one alarms alone': {
    differ: { smoke: { fire: 'verified' } },
    text: `
    3 trip smoke → verify smoke
    5 trip heat → alarm fire heat; sound three-pulse; report fire heat`,
  },
  'clearing forgets what was seen once': {
    differ: { smoke: { fire: 'verified' } },
    text: `
    3 trip smoke → verify smoke
    5 unset
    20 trip smoke → verify smoke`,
  },
}

describe('an alarm', () => {
  it.each(Object.entries(alarms))('%s', (_, { options, differ, text }) => {
    const { given, wanted } = played(home(options, differ), text)
    expect(given).toEqual(wanted)
  })
})

describe('fire', () => {
  it.each(Object.entries(fires))('%s', (_, { options, differ, text }) => {
    const { given, wanted } = played(home(options, differ), text)
    expect(given).toEqual(wanted)
  })
})
