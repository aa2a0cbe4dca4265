import { cleanTarn, type SmallJob } from '../../testing/small-job.ts'
import { farm, ostler } from '../testing/case-jobs.ts'
import { by, describeBothWays } from '../testing/both-ways.ts'

/* The farm’s front door needs 13 s to its keypad, the garage door 30 s; entry 1 is 20 s, entry 2 is 40 s. */

const typed = (device: string, response: string, over: Record<string, unknown> = {}): SmallJob => {
  const job = farm().set('job:main', over)
  return job.set(job.zone(device).id, { response })
}

describeBothWays('alarms-on-owner', [
  { what: 'each door with a delay', job: () => farm(), says: [] },
  { what: 'a window that nobody comes in by', job: () => typed('study', 'instant'), says: [] },
  {
    what: 'the motion that sees the leaf, at once',
    job: () => typed('watch', 'instant'),
    says: [
      'Zone 007 would alarm on its owner: in away it does instant, when somebody comes home by the garage door; in stay it does instant, when somebody walks there at night.',
    ],
    ways: ['Use “Walkway with second delay”'],
  },
  {
    what: 'the far door, off in stay',
    job: () => typed('far', 'instant-away'),
    says: [
      'Zone 002 would alarm on its owner: in away it does instant, when somebody comes home by the garage door.',
    ],
  },
])

describeBothWays('leaf-follows', [
  { what: 'it takes that door’s delay', job: () => farm(), says: [] },
  { what: 'a motion that sees no leaf', job: () => typed('bedroom', 'follow-away'), says: [] },
])

describeBothWays('way-unwatched', [
  {
    what: 'a motion where people sleep is off in stay',
    job: () => typed('bedroom', 'instant-away'),
    says: [],
  },
  {
    what: 'a contact of a window off in stay',
    job: () => typed('study', 'instant-away'),
    says: ['Zone 004 stops nobody: in stay it does nothing.'],
  },
])

describeBothWays('shorter-delay', [
  {
    what: 'the shorter one is just long enough',
    job: () => typed('far', 'entry-1', { entry1: 30 }),
    says: [],
  },
  {
    what: 'the shorter one lacks a second',
    job: () => typed('far', 'entry-1', { entry1: 29 }),
    says: [
      'Zone 002 starts entry 1 in away and stay: 29 s are there, and from the garage door to the keypad in the hall it takes 30 s.',
    ],
    ways: ['Use “Door, second delay”'],
  },
  {
    what: 'everybody unsets at the door',
    job: () => typed('far', 'entry-1').user('Nell').add('fob', 'quatern-8', { room: '', user: 'user:Nell' }),
    says: [],
  },
  {
    what: 'nobody set the shorter one',
    job: () => typed('far', 'entry-1', { entry1: null }),
    says: [
      'Zone 002 starts entry 1 in away and stay, and from the garage door to the keypad in the hall it takes 30 s.',
    ],
  },
])

describeBothWays('delay-gives-away', [
  { what: 'both delays are alike', job: () => typed('front', 'entry-2', { entry1: 40 }), says: [] },
  { what: 'the way takes as long', job: () => typed('far', 'entry-2', { entry2: 30 }), says: [] },
  {
    what: 'a second more than enough',
    job: () => typed('front', 'entry-2', { entry2: 21 }),
    says: ['Zone 001 starts entry 2 in away and stay, 21 s, where 20 s are enough: 1 s are given away.'],
  },
  { what: 'nobody set the longer one', job: () => typed('front', 'entry-2', { entry2: null }), says: [] },
])

describeBothWays('delay-no-entry', [
  { what: 'a door', job: () => farm(), says: [] },
  {
    what: 'a motion off every way',
    job: () => typed('bedroom', 'entry-2'),
    says: [
      'Zone 005 starts an entry delay in away and stay, but its device is no way in: an intruder there would have 40 s of silence.',
    ],
  },
])

describeBothWays('waits-for-delay', [
  { what: 'at once', job: () => farm(), says: [] },
  {
    what: 'where people stray, a motion may wait',
    job: () => by(typed('bedroom', 'follow-away'), { offWay: 'follow' }),
    says: [],
  },
])

describeBothWays('against-school', [
  {
    what: 'away only where that is the house rule',
    job: () => by(typed('pane', 'instant-away'), { glass: 'away-only' }),
    says: [],
  },
  {
    what: 'both modes where that is the house rule',
    job: () => by(typed('panes', 'instant'), { glass: 'both' }),
    says: [],
  },
  {
    what: 'a noisy room in both modes',
    job: () => typed('panes', 'instant'),
    says: [
      'Zone 008: in stay it does instant. The house rule has breaking glass there in away only: daily noise sounds alike.',
    ],
  },
  { what: 'a noisy room away only', job: () => typed('panes', 'instant-away'), says: [] },
])

describeBothWays('burglary-wrong-kind', [
  ...(
    [
      ['fire', '“Fire”, a fire type: it sends the fire brigade, sounds like a fire and cannot be unset'],
      ['gas', '“Carbon monoxide”, a gas type: it sounds like gas and cannot be unset'],
      [
        'auxiliary',
        '“House watch”, an auxiliary type: it alarms at any hour, with a tone that nobody takes for a burglar',
      ],
      ['panic', '“Call for help, loud”, a panic type: it calls for help at any hour, whoever opens it'],
      ['medical', '“Care call”, a medical type: it calls for care at any hour, whoever opens it'],
    ] as const
  ).map(([kind, why]) => ({
    what: `a window as ${kind}`,
    job: () => ((j: SmallJob) => j.set(j.zone('study').id, { response: kind }))(cleanTarn()),
    says: [`Zone 02 watches reed as ${why}.`],
    ways: ['Use “Outer line”'],
  })),
  { what: 'smoke as fire', job: () => cleanTarn(), says: [] },
  {
    what: 'a window without a type is another matter',
    job: () => ((j: SmallJob) => j.set(j.zone('study').id, { response: null }))(cleanTarn()),
    says: [],
  },
])

const safe = (response: string, reason = 'Nell asks the station first') => {
  const job = ostler()
    .add('safe', 'sill-8', { room: 'study', position: 'gun cabinet', use: 'always-on' })
    .number()
  return job.set(job.zone('safe').id, { response, reason })
}
describeBothWays('any-hour', [
  { what: 'a place that is never opened', job: () => safe('any-hour'), says: [] },
  { what: 'fire alarms at any hour', job: () => ostler(), says: [] },
])
describeBothWays('sleeps-unset', [
  { what: 'it alarms at any hour', job: () => safe('any-hour'), says: [] },
  { what: 'a door that is used', job: () => ostler(), says: [] },
])
describeBothWays('opened-quietly', [
  { what: 'it is written down', job: () => safe('any-hour'), says: [] },
  { what: 'it sleeps while the system is unset', job: () => safe('instant', ''), says: [] },
  {
    what: 'nobody wrote it down',
    job: () => safe('any-hour', ''),
    says: [
      'Zone 06 alarms at any hour. Write down how the gun cabinet is opened quietly: who asks for it, and what is keyed or left out first.',
    ],
  },
])
