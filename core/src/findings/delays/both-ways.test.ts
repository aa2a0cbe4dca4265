import type { Area, Device } from '../../job/records.ts'
import { cleanHouse, cleanMorrow, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { but, describeBothWays } from '../testing/both-ways.ts'
import { pinfold } from '../testing/case-jobs.ts'

/* The limits: EN 50131 entry at most 45 s, bell 90 s to 15 min; CP-01 entry 30 to 240 s, exit 45 to 255 s, hold 15 to 45 s. */

const europe = 'EN 50131-1: entry at most 45 s (confirm against the edition in force)'
const america =
  'ANSI/SIA CP-01: entry 30–240 s, exit 45–255 s, abort window 15–45 s; entry + abort at most 60 s where a listing or certificate asks it (confirm)'
const on = (panel: string, over: object = {}) => new SmallJob({ panel: `panel/${panel}`, ...over })
const morrow = (over: Record<string, unknown>) => cleanMorrow().set('job:main', over)
const tarn = (over: Record<string, unknown>) => cleanTarn().set('job:main', over)

describeBothWays('delay-over-limit', [
  { what: 'just the most', job: () => on('ostler-s-8', { entry1: 45, entry2: 45 }), says: [] },
  {
    what: 'a second more',
    job: () => on('ostler-s-8', { entry1: 45, entry2: 46 }),
    says: [`Entry delay 2 is 46 s; EN 50131 allows at most 45 s (${europe}).`],
    ways: ['Set the entry delay 2 to 45 s'],
  },
  {
    what: 'the most that the panel stores is less',
    job: () => on('quillet-32', { entry1: 60, entry2: 40 }),
    says: [`Entry delay 1 is 60 s; EN 50131 allows at most 45 s (${europe}).`],
    ways: ['Set the entry delay 1 to 40 s'],
  },
  { what: 'EN 50131 says nothing of the exit', job: () => on('tarn-40', { exit: 240 }), says: [] },
  {
    what: 'CP-01, all at the least',
    job: () => morrow({ entry1: 30, entry2: 30, exit: 45, abortWindow: 15 }),
    says: [],
  },
  {
    what: 'CP-01, all at the most',
    job: () => morrow({ entry1: 240, entry2: 240, exit: 255, abortWindow: 45 }),
    says: [],
  },
  {
    what: 'CP-01, each a step below',
    job: () => morrow({ entry1: 29, entry2: 30, exit: 30, abortWindow: 14 }),
    says: [
      `Entry delay 1 is 29 s; CP-01 asks for at least 30 s (${america}).`,
      `Exit delay is 30 s; CP-01 asks for at least 45 s (${america}).`,
      `Hold before sending is 14 s; CP-01 asks for at least 15 s (${america}).`,
    ],
    ways: ['Set the entry delay 1 to 30 s'],
  },
  {
    what: 'CP-01, each a step above',
    job: () => morrow({ entry1: 30, entry2: 241, exit: 270, abortWindow: 46 }),
    says: [
      `Entry delay 2 is 4 min 1 s; CP-01 allows at most 4 min (${america}).`,
      `Exit delay is 4 min 30 s; CP-01 allows at most 4 min 15 s (${america}).`,
      `Hold before sending is 46 s; CP-01 allows at most 45 s (${america}).`,
    ],
    ways: ['Set the entry delay 2 to 4 min'],
  },
  {
    what: 'the least is no step of the panel: the next one is offered',
    job: () => on('quillet-32', { region: 'north-america', exit: 40, entry1: 30, entry2: 30 }),
    says: [`Exit delay is 40 s; CP-01 asks for at least 45 s (${america}).`],
    ways: ['Set the exit delay to 50 s'],
  },
  {
    what: 'none at all on leaving in stay is a choice',
    job: () => on('ostler-s-9', { region: 'north-america', exit: 60, exitStay: 0 }),
    says: [],
  },
  {
    what: 'a short one on leaving in stay is short',
    job: () => on('ostler-s-9', { region: 'north-america', exit: 60, exitStay: 20 }),
    says: [`Exit delay of stay is 20 s; CP-01 asks for at least 45 s (${america}).`],
  },
  { what: 'one of stay is left from another panel', job: () => morrow({ exitStay: 20 }), says: [] },
  {
    what: 'nothing is set',
    job: () => morrow({ entry1: null, entry2: null, exit: null, abortWindow: null }),
    says: [],
  },
  {
    what: 'own figures set no limit',
    job: () => on('ostler-s-8', { region: 'own', entry1: 200, exit: 5 }),
    says: [],
  },
])

describeBothWays('entry-plus-abort', [
  {
    what: 'just the most together',
    job: () => morrow({ listed: true, entry1: 45, entry2: 30, abortWindow: 15 }),
    says: [],
  },
  { what: 'no listing asks for it', job: () => morrow({ entry1: 45, abortWindow: 30 }), says: [] },
  {
    what: 'nothing is held before sending',
    job: () => morrow({ listed: true, entry1: 90, abortWindow: null }),
    says: [],
  },
  {
    what: 'leaving has no part in it',
    job: () => morrow({ listed: true, exit: 255, abortWindow: 30 }),
    says: [],
  },
  {
    what: 'of the second delay',
    job: () => morrow({ listed: true, entry2: 31, abortWindow: 30 }),
    says: ['Entry delay 2 31 s and hold before sending 30 s make 61 s; together at most 60 s.'],
    ways: ['Set the entry delay 2 to 30 s', 'Set the hold before sending to 29 s'],
  },
  {
    what: 'a shorter delay would be too short, a shorter hold is not',
    job: () => morrow({ listed: true, entry1: 45, entry2: null, abortWindow: 40 }),
    says: ['Entry delay 1 45 s and hold before sending 40 s make 85 s; together at most 60 s.'],
    ways: ['Set the hold before sending to 15 s'],
  },
  {
    what: 'a shorter hold would be too short, a shorter delay is not',
    job: () => morrow({ listed: true, entry1: 50, abortWindow: 20 }),
    says: ['Entry delay 1 50 s and hold before sending 20 s make 70 s; together at most 60 s.'],
    ways: ['Set the entry delay 1 to 40 s'],
  },
  {
    what: 'both would be too short',
    job: () => morrow({ listed: true, entry1: 55, entry2: null, abortWindow: 45 }),
    says: ['Entry delay 1 55 s and hold before sending 45 s make 100 s; together at most 60 s.'],
    ways: [],
  },
])

describeBothWays('delay-unstorable', [
  { what: 'a step of the panel', job: () => on('tarn-40', { exit: 65 }), says: [] },
  { what: 'a value that stands for none', job: () => on('ostler-s-8', { exitStay: 0 }), says: [] },
  {
    what: 'more than it stores',
    job: () => on('tarn-40', { exit: 245 }),
    says: ['Leaving time stores 5 s to 4 min in steps of 5 s: 4 min 5 s cannot be kept. Nearest: 4 min.'],
    ways: ['Set the exit delay to 4 min'],
  },
  {
    what: 'up would be beyond the most that is allowed',
    job: () => on('quillet-32', { entry1: 42, entry2: 40 }),
    says: [
      'Entry time one stores 10 s to 4 min 10 s in steps of 10 s, and the region allows at most 45 s: 42 s cannot be kept. Nearest: 40 s and 50 s.',
    ],
    ways: ['Set the entry delay 1 to 40 s'],
  },
  { what: 'without a panel nothing is stored', job: () => on('none', { panel: null, exit: 62 }), says: [] },
  {
    what: 'a panel that holds nothing before sending',
    job: () => on('pinfold-16', { grade: 1, exit: 60, entry1: 30, entry2: 45, abortWindow: 20 }),
    says: [],
  },
])

describeBothWays('siren-time', [
  { what: 'nobody set one', job: () => tarn({ sirenSeconds: null }), says: [] },
  { what: 'the least', job: () => on('ostler-s-8', { sirenSeconds: 90 }), says: [] },
  { what: 'the most', job: () => on('ostler-s-8', { sirenSeconds: 900 }), says: [] },
  {
    what: 'less than the least',
    job: () => on('ostler-s-8', { sirenSeconds: 80 }),
    says: [
      'The siren sounds 80 s; EN 50131 asks for at least 90 s and at most 15 min (EN 50131-1: 90 s to 15 min).',
    ],
    ways: ['Let it sound 90 s'],
  },
  {
    what: 'no step of the panel',
    job: () => tarn({ sirenSeconds: 200 }),
    says: ['The siren sounds 3 min 20 s; Bell minutes cannot store that.'],
    ways: ['Let it sound 3 min'],
  },
  {
    what: 'a step of the panel would be shorter than the least',
    job: () => tarn({ sirenSeconds: 90 }),
    says: ['The siren sounds 90 s; Bell minutes cannot store that.'],
    ways: ['Let it sound 2 min'],
  },
  { what: 'a household of North America, the least', job: () => morrow({ sirenSeconds: 240 }), says: [] },
  { what: 'a household of North America has no most', job: () => morrow({ sirenSeconds: 1800 }), says: [] },
  {
    what: 'a household of North America, less',
    job: () => morrow({ sirenSeconds: 180 }),
    says: ['The siren sounds 3 min; CP-01 asks for at least 4 min (US household: at least 4 min).'],
    ways: ['Let it sound 4 min'],
  },
  { what: 'own figures', job: () => on('ostler-s-8', { region: 'own', sirenSeconds: 10 }), says: [] },
])

describeBothWays('swinger', [
  { what: 'the least of CP-01', job: () => morrow({ swinger: 1 }), says: [] },
  { what: 'the most of CP-01', job: () => morrow({ swinger: 6 }), says: [] },
  {
    what: 'none',
    job: () => morrow({ swinger: 0 }),
    says: ['Swinger shutdown after 0 trips; 1 to 6 are allowed here.'],
    ways: ['Shut out after 2'],
  },
  { what: 'nobody set one', job: () => morrow({ swinger: null }), says: [] },
  { what: 'as many as the panel counts', job: () => tarn({ swinger: 9 }), says: [] },
  {
    what: 'more than the panel counts',
    job: () => tarn({ swinger: 10 }),
    says: ['Swinger shutdown after 10 trips; 0 to 9 are allowed here.'],
  },
  {
    what: 'fewer than the panel counts',
    job: () => on('ostler-s-8', { swinger: 0 }),
    says: ['Swinger shutdown after 0 trips; 1 to 10 are allowed here.'],
    ways: ['Shut out after 1'],
  },
  {
    what: 'without a panel up to what can be typed',
    job: () => on('none', { panel: null, swinger: 15 }),
    says: [],
  },
])

/* 4 m at 1.2 m/s are 3.3 s; with 8 s for the code and 5 s to spare 16.3 s, that is 17 s. */
const house = (over: Record<string, unknown>) => cleanHouse().set('job:main', over)
describeBothWays('entry-too-short', [
  { what: 'just long enough', job: () => house({ entry1: 17 }), says: [] },
  {
    what: 'a second less',
    job: () => house({ entry1: 16 }),
    says: [
      'Entry delay 1 is 16 s; front door to the keypad in hall takes 17 s (walk 4 s, code 8 s, margin 5 s).',
    ],
    ways: ['Set the entry delay 1 to 20 s'],
  },
  { what: 'none is set', job: () => house({ entry1: null }), says: [] },
  { what: 'the door that starts the other delay', job: () => house({ entry1: 45, entry2: 5 }), says: [] },
  {
    what: 'a way that no allowed delay is long enough for',
    // 40 m at 0.6 m/s are 66.7 s; with 13 s more 79.7 s, that is 80 s.
    job: () =>
      ((j) => j.set('way:porch-hall', { metres: 40 }).set('job:main', { slowest: 'slow', entry1: 45 }))(
        cleanHouse(),
      ),
    says: [
      'Entry delay 1 is 45 s; front door to the keypad in hall takes 80 s (walk 67 s, code 8 s, margin 5 s). No legal delay is long enough (at most 45 s): move the keypad, give a fob, or use another door.',
    ],
    ways: [],
  },
])
const short =
  'Entry delay 1 is 16 s; front door to the keypad in hall takes 17 s (walk 4 s, code 8 s, margin 5 s).'
const carrying = (model: string, over: Partial<Device> = {}) =>
  house({ entry1: 16 })
    .user('Nell')
    .add('carried', model, { user: 'user:Nell', room: '', ...over })
    .number()
describeBothWays('entry-too-short', [
  { what: 'everybody unsets at the door by a fob', job: () => carrying('quartet-c'), says: [] },
  { what: 'one of two has no fob', job: () => carrying('quartet-c').user('Ola'), says: [short] },
  { what: 'nobody has the fob', job: () => carrying('quartet-c', { user: null }), says: [short] },
  {
    what: 'the fob is not there yet',
    job: () => carrying('quartet-c', { deferred: 'later' }),
    says: [short],
  },
  { what: 'the fob cannot unset', job: () => carrying('safekey'), says: [short] },
  { what: 'a pendant is no fob', job: () => carrying('beckon'), says: [short] },
])
describeBothWays('exit-too-short', [
  { what: 'just long enough', job: () => house({ exit: 17 }), says: [] },
  {
    what: 'a second less',
    job: () => house({ exit: 16 }),
    says: [
      'Exit delay is 16 s; front door to the keypad in hall takes 17 s (walk 4 s, code 8 s, margin 5 s).',
    ],
    ways: ['Set the exit delay to 20 s'],
  },
])

const unset = { entry1: null, entry2: null, exit: null }
describeBothWays('delay-unset', [
  {
    what: 'no zone starts one',
    job: () =>
      on('tarn-40', unset).add('study', 'reedling-slim', { use: 'opening', position: 'window' }).number(),
    says: [],
  },
  { what: 'without a panel nobody can say', job: () => on('none', { panel: null, ...unset }), says: [] },
  {
    what: 'the usual time of the region where the house tells none',
    job: () => morrow({ exit: null }),
    says: ['No exit delay is set, and people leave by zone 07: the panel’s own time holds, whatever it is.'],
    ways: ['Set the exit delay to 60 s'],
  },
])
describeBothWays('delay-unset', [
  {
    what: 'a zone that starts it in one mode alone starts it',
    job: () => but(pinfold().set('job:main', unset), 'front', { response: 'delay-away' }),
    says: [
      'No entry delay 1 is set, and zone 01 starts it: the panel’s own time holds, whatever it is.',
      'No exit delay is set, and people leave by zone 01: the panel’s own time holds, whatever it is.',
    ],
  },
])

describeBothWays('delay-unstorable', [
  {
    what: 'the least that the panel stores is below the region’s: the first that is not is offered',
    job: () => on('pinfold-16', { region: 'north-america', grade: 1, entry1: 0 }),
    says: ['Entry A: raised to 1 s, the least this field stores.'],
    ways: ['Set the entry delay 1 to 30 s'],
  },
  {
    what: 'the least that the panel stores is the region’s',
    job: () => morrow({ exit: 44 }),
    says: ['Exit time, steps of 15 s: raised to 45 s, the least this field stores.'],
    ways: ['Set the exit delay to 45 s'],
  },
  {
    what: 'the next step is the most that is allowed',
    job: () => on('sallow-m', { entry1: 43 }),
    says: ['Door delay: 43 s goes up to 45 s, the next step.'],
    ways: ['Set the entry delay 1 to 45 s'],
  },
  {
    what: 'the next step would be below the region’s least',
    job: () => on('sallow-m', { region: 'north-america', entry1: 22 }),
    says: ['Door delay: 22 s goes up to 25 s, the next step.'],
    ways: ['Set the entry delay 1 to 30 s'],
  },
  {
    what: 'the other unit stores just that',
    job: () => on('pinfold-16', { grade: 1, entry1: 30, entry2: 45, exit: 105, abortWindow: null }),
    says: ['Exit stores 5 s to 90 s in steps of 1 s: 105 s cannot be kept. Nearest: 90 s.'],
    ways: ['Set the exit delay to 90 s', 'Count the exit delay in the other unit, which stores 105 s'],
  },
  {
    what: 'the other unit stores something near alone',
    job: () => on('pinfold-16', { grade: 1, entry1: 30, entry2: 45, exit: 100, abortWindow: null }),
    says: ['Exit stores 5 s to 90 s in steps of 1 s: 100 s cannot be kept. Nearest: 90 s.'],
    ways: ['Set the exit delay to 90 s'],
  },
])

describeBothWays('entry-plus-abort', [
  {
    what: 'a hold that the panel stores and CP-01 forbids is no way out',
    job: () =>
      on('ostler-s-9', { region: 'north-america', listed: true, entry1: 50, entry2: 30, abortWindow: 20 }),
    says: ['Entry delay 1 50 s and hold before sending 20 s make 70 s; together at most 60 s.'],
    ways: ['Set the entry delay 1 to 40 s'],
  },
])

/*
 * Two doors to one keypad in the hall: 12 m from the porch are 10 s, with 13 s more 23 s; 5 m from the annexe 4.2 s, with 13 s
 * more 17.2 s, that is 18 s.
 */
const twoDoors = (over: Record<string, unknown>, own: Partial<Area> = {}): SmallJob =>
  new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', ...over })
    .area(2, 'Annexe', own)
    .room('porch', { kind: 'hall' })
    .room('hall', { kind: 'hall' })
    .room('annexe', { area: 'area:2' })
    .way('porch', 'hall', 12)
    .way('hall', 'annexe', 5)
    .opening('front door', 'porch')
    .opening('annexe door', 'annexe')
    .add('porch', 'sill-8', { position: 'front door' })
    .add('annexe', 'sill-8', { position: 'annexe door' })
    .add('pad', 'scriber-8', { room: 'hall' })
    .number()
describeBothWays('entry-too-short', [
  {
    what: 'each area has its own, long enough',
    job: () => twoDoors({ entry1: 23 }, { entry1: 18 }),
    says: [],
  },
  {
    what: 'an area without one of its own is on the job’s',
    job: () => twoDoors({ entry1: 17 }, { exit: 60 }),
    says: [
      'Entry delay 1 is 17 s; front door to the keypad in hall takes 23 s (walk 10 s, code 8 s, margin 5 s).',
    ],
    ways: ['Set the entry delay 1 to 23 s'],
  },
  {
    what: 'an area’s own is too short',
    job: () => twoDoors({ entry1: 23 }, { entry1: 17 }),
    says: [
      'Annexe: Entry delay 1 is 17 s; annexe door to the keypad in hall takes 18 s (walk 5 s, code 8 s, margin 5 s).',
    ],
    ways: ['Set the entry delay 1 of Annexe to 18 s'],
  },
  {
    what: 'an area’s own, however long, does not help the other door',
    job: () => twoDoors({ entry1: 22 }, { entry1: 45 }),
    says: [
      'Entry delay 1 is 22 s; front door to the keypad in hall takes 23 s (walk 10 s, code 8 s, margin 5 s).',
    ],
    ways: ['Set the entry delay 1 to 23 s'],
  },
  {
    what: 'the only door of the job’s delay has an area of its own',
    job: () => twoDoors({ entry1: 5 }, { entry1: 18 }).set('room:porch', { area: 'area:2' }),
    says: [
      'Annexe: Entry delay 1 is 18 s; front door to the keypad in hall takes 23 s (walk 10 s, code 8 s, margin 5 s).',
    ],
  },
  {
    // 38 m are 31.7 s; with 13 s more 44.7 s, that is 45 s.
    what: 'just the most that is allowed is long enough',
    job: () => cleanHouse().set('way:porch-hall', { metres: 38 }).set('job:main', { entry1: 40 }),
    says: [
      'Entry delay 1 is 40 s; front door to the keypad in hall takes 45 s (walk 32 s, code 8 s, margin 5 s).',
    ],
    ways: ['Set the entry delay 1 to 45 s'],
  },
  {
    // 4 m and 6 m are 8.3 s; with 13 s more 21.3 s, that is 22 s.
    what: 'the keypad two rooms on',
    job: () => cleanHouse().set('device:keypad', { room: 'kitchen' }).set('job:main', { entry1: 20 }),
    says: [
      'Entry delay 1 is 20 s; front door to the keypad in kitchen takes 22 s (walk 9 s, code 8 s, margin 5 s).',
    ],
  },
  {
    // 200 m are 166.7 s; with 13 s more 179.7 s.
    what: 'own figures set no most',
    job: () =>
      cleanHouse().set('way:porch-hall', { metres: 200 }).set('job:main', { region: 'own', entry1: 100 }),
    says: [
      'Entry delay 1 is 100 s; front door to the keypad in hall takes 3 min (walk 2 min 47 s, code 8 s, margin 5 s).',
    ],
    ways: ['Set the entry delay 1 to 3 min'],
  },
])
describeBothWays('exit-too-short', [
  {
    what: 'an area’s own',
    job: () => twoDoors({ exit: 60 }, { exit: 17 }),
    says: [
      'Annexe: Exit delay is 17 s; annexe door to the keypad in hall takes 18 s (walk 5 s, code 8 s, margin 5 s).',
    ],
    ways: ['Set the exit delay of Annexe to 18 s'],
  },
])

/* On the Morrow 24 m are 20 s; with 13 s more 33 s. */
const americanHouse = (over: Record<string, unknown>, metres = 24): SmallJob =>
  SmallJob.morrow(over)
    .room('porch', { kind: 'hall' })
    .room('hall', { kind: 'hall' })
    .way('porch', 'hall', metres)
    .opening('front door', 'porch')
    .add('porch', 'latchet', { position: 'front door' })
    .add('pad', 'keyplate-w', { room: 'hall' })
    .number()
const way33 =
  'Entry delay 1 is 30 s; front door to the keypad in hall takes 33 s (walk 20 s, code 8 s, margin 5 s).'
describeBothWays('entry-too-short', [
  {
    what: 'with the hold before sending together at most 60 s',
    job: () => americanHouse({ listed: true, entry1: 30, abortWindow: 30 }),
    says: [
      `${way33} No legal delay is long enough (at most 30 s): move the keypad, give a fob, or use another door.`,
    ],
    ways: [],
  },
  {
    what: 'a shorter hold leaves room for it',
    job: () => americanHouse({ listed: true, entry1: 30, abortWindow: 15 }),
    says: [way33],
    ways: ['Set the entry delay 1 to 33 s'],
  },
  {
    what: 'no listing asks for the sum',
    job: () => americanHouse({ entry1: 30, abortWindow: 30 }),
    says: [way33],
    ways: ['Set the entry delay 1 to 33 s'],
  },
  {
    what: 'nothing is held before sending',
    job: () => americanHouse({ listed: true, entry1: 30, abortWindow: null }),
    says: [way33],
    ways: ['Set the entry delay 1 to 33 s'],
  },
])
describeBothWays('exit-too-short', [
  {
    // 48 m are 40 s; with 13 s more 53 s.
    what: 'leaving has no part in the sum',
    job: () => americanHouse({ listed: true, exit: 45, abortWindow: 30 }, 48),
    says: [
      'Exit delay is 45 s; front door to the keypad in hall takes 53 s (walk 40 s, code 8 s, margin 5 s).',
    ],
    ways: ['Set the exit delay to 60 s'],
  },
])
