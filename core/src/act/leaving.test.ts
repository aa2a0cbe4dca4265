import { describe, expect, it } from 'vitest'
import type { ActZone, ActOptions } from './behaviour.ts'
import { home } from './testing/home.ts'
import { plainArea, played } from './testing/timeline.ts'

/* Setting, leaving, coming home: the table of what a trip does while exit or entry runs. Exit 60 s, in stay 20 s; entry 30 s and 90 s. */

interface Case {
  readonly options?: Partial<ActOptions>
  readonly differ?: Readonly<Record<string, Partial<ActZone>>>
  readonly text: string
}

const leaving: Readonly<Record<string, Case>> = {
  'away is set when the exit delay is over': {
    text: `
    0 set away → leave away until 60
    59 wait
    60 wait → set away`,
  },
  'stay has an exit delay of its own': {
    text: `
    0 set stay → leave stay until 20
    20 wait → set stay`,
  },
  'leaving by the front door and the hall: nothing': {
    text: `
    0 set away → leave away until 60
    10 trip hall
    12 trip leaf
    15 open front
    18 close front
    60 wait → set away`,
  },
  'leaving by the far door: nothing': {
    text: `
    0 set away → leave away until 60
    15 open garage
    18 close garage
    61 wait → 60 set away`,
  },
  'a window opened while people leave in away: ignored by this type': {
    text: `
    0 set away → leave away until 60
    10 open window
    12 close window
    60 wait → set away`,
  },
  'a window opened while stay is being set: live by this type': {
    text: `
    0 set stay → leave stay until 20
    10 open window → alarm burglary window; sound siren; report burglary window`,
  },
  'a type that is live at once while people leave in away': {
    differ: { window: { whileExit: { away: 'live', stay: 'live' } } },
    text: `
    0 set away → leave away until 60
    10 open window → alarm burglary window; sound siren; report burglary window`,
  },
  'night goes by what the type does in stay': {
    text: `
    0 set night → leave night until 20
    10 trip glass → alarm burglary glass; sound siren; report burglary glass`,
  },
  'smoke while people leave: fire': {
    text: `
    0 set away → leave away until 60
    10 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'hold-up while people leave: reported': {
    text: `
    0 set away → leave away until 60
    10 trip hold-up → alarm panic hold-up; report panic hold-up`,
  },
  'day zone while people leave in away: nothing, it alarms only when set': {
    text: `
    0 set away → leave away until 60
    10 open shop
    12 close shop`,
  },
  'somebody comes back for the keys: the exit delay starts again, once': {
    options: { exitRestarts: true },
    text: `
    0 set away → leave away until 60
    20 open front
    22 close front
    40 open front → leave again until 100
    42 close front
    50 open front
    100 wait → set away; leave out front open`,
  },
  'coming back without a restart: the delay runs on': {
    text: `
    0 set away → leave away until 60
    20 open front
    22 close front
    40 open front
    42 close front
    60 wait → set away`,
  },
  'exit by the door: closing it behind oneself sets': {
    options: { exitBy: 'door' },
    text: `
    0 set away → leave away until the door
    200 open front
    203 close front → set away`,
  },
  'exit by the door: an inner door does not set': {
    options: { exitBy: 'door' },
    text: `
    0 set away → leave away until the door
    20 open inner
    21 close inner
    30 open window
    31 close window`,
  },
  'exit by either: the door first': {
    options: { exitBy: 'either' },
    text: `
    0 set away → leave away until 60
    20 open front
    23 close front → set away
    60 wait`,
  },
  'exit by either: the time first': {
    options: { exitBy: 'either' },
    text: `
    0 set away → leave away until 60
    60 wait → set away`,
  },
  'unset while people leave': {
    text: `
    0 set away → leave away until 60
    30 unset → unset
    90 wait`,
  },
  'set again in the same mode: the delay runs on': {
    text: `
    0 set away → leave away until 60
    30 set away
    60 wait → set away`,
  },
  'set in another mode while people leave: that one’s delay': {
    text: `
    0 set away → leave away until 60
    30 set stay → leave stay until 50
    50 wait → set stay`,
  },
  'a window open at the end of exit is left out, and unwatched': {
    text: `
    0 open window → chime window
    5 set away → leave away until 65
    65 wait → set away; leave out window open
    70 close window
    80 open window`,
  },
  'left out until unset, then watched again': {
    text: `
    0 open window → chime window
    5 set away → leave away until 65
    65 wait → set away; leave out window open
    70 close window
    80 unset → unset
    90 set away → leave away until 150
    200 open window → 150 set away; alarm burglary window; sound siren; report burglary window`,
  },
  'a window open at the end of exit alarms where the panel does so': {
    options: { openAtExit: 'alarm' },
    text: `
    0 open window → chime window
    5 set away → leave away until 65
    65 wait → set away; alarm burglary window; sound siren; report burglary window`,
  },
  'the front door open at the end of exit starts its delay where the panel alarms': {
    options: { openAtExit: 'alarm' },
    text: `
    0 set away → leave away until 60
    50 open front
    60 wait → set away; enter by front entry-1 until 90
    90 wait → alarm burglary front; sound siren; report burglary front`,
  },
  'the front door left out: the hall alarms on its owner': {
    text: `
    0 set away → leave away until 60
    50 open front
    60 wait → set away; leave out front open
    300 close front
    301 open front
    304 trip hall → alarm burglary hall; sound siren; report burglary hall`,
  },
  'what is ignored in stay is not left out of it': {
    text: `
    0 open inner
    5 set stay → leave stay until 25
    25 wait → set stay`,
  },
  'a day zone that stands open is left out of away': {
    text: `
    0 open shop → chime shop; notice shop
    5 set away → leave away until 65
    65 wait → set away; leave out shop open`,
  },
  'a window that would alarm at once refuses stay': {
    text: `
    0 open window → chime window
    5 set stay → refuse would alarm at once window
    6 close window
    7 set stay → leave stay until 27`,
  },
  'left out by the user: stay is set, the window open': {
    text: `
    0 open window → chime window
    3 leave-out window → leave out window user
    5 set stay → leave stay until 25
    26 wait → 25 set stay
    30 close window
    31 open window`,
  },
  'left out twice is left out once': {
    text: `
    3 leave-out window → leave out window user
    4 leave-out window`,
  },
  'what is always on is never left out': {
    text: `
    3 leave-out smoke → refuse always on smoke
    5 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'nothing is left out once it is set': {
    text: `
    0 set stay → leave stay until 20
    30 leave-out window → 20 set stay
    31 open window → alarm burglary window; sound siren; report burglary window`,
  },
  'nobody leaves: away becomes stay where the panel does so': {
    options: { staysIfNobodyLeft: true },
    text: `
    0 set away → leave away until 60
    30 trip hall
    60 wait → set stay
    70 trip hall
    80 open window → alarm burglary window; sound siren; report burglary window`,
  },
  'somebody leaves: away stays away': {
    options: { staysIfNobodyLeft: true },
    text: `
    0 set away → leave away until 60
    30 open front
    32 close front
    60 wait → set away`,
  },
  'nobody leaves, and the panel does not mind': {
    text: `
    0 set away → leave away until 60
    60 wait → set away
    70 trip hall → alarm burglary hall; sound siren; report burglary hall`,
  },
}

const entering: Readonly<Record<string, Case>> = {
  'entry runs: a window alarms now': {
    text: `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    105 open window → alarm burglary window; sound siren; report burglary window`,
  },
  'entry runs: smoke alarms now': {
    text: `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    105 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  },
  'a second door with the longer delay lengthens nothing': {
    text: `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    110 open garage → wait garage
    130 wait → alarm burglary front; sound siren; report burglary front`,
  },
  'a second door with the same delay lengthens nothing': {
    options: { shorterEntryWins: true },
    text: `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    110 open back → wait back
    131 wait → 130 alarm burglary front; 130 sound siren; 130 report burglary front`,
  },
  'a shorter delay shortens where the panel does so': {
    options: { shorterEntryWins: true },
    text: `
    0 set away → leave away until 60
    100 open garage → 60 set away; enter by garage entry-2 until 190
    110 open front → enter sooner by front until 140
    140 wait → alarm burglary garage; sound siren; report burglary garage`,
  },
  'a shorter delay that would end later shortens nothing': {
    options: { shorterEntryWins: true },
    text: `
    0 set away → leave away until 60
    100 open garage → 60 set away; enter by garage entry-2 until 190
    170 open front → wait front`,
  },
  'a shorter delay shortens nothing elsewhere': {
    options: { shorterEntryWins: false },
    text: `
    0 set away → leave away until 60
    100 open garage → 60 set away; enter by garage entry-2 until 190
    110 open front → wait front
    189 unset → unset`,
  },
  'a shorter delay where nobody said so shortens nothing': {
    text: `
    0 set away → leave away until 60
    100 open garage → 60 set away; enter by garage entry-2 until 190
    110 open front → wait front`,
  },
  'unset at the last second is in time, at the end it is not': {
    text: `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    129 unset → unset
    200 set away → leave away until 260
    300 close front → 260 set away; 260 leave out front open
    301 unset → unset
    310 set away → leave away until 370
    400 open front → 370 set away; enter by front entry-1 until 430
    430 unset → alarm burglary front; sound siren; report burglary front; unset; quiet; report cancelled front; clear`,
  },
  'a door that stays open trips once': {
    text: `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    105 open front
    110 unset → unset`,
  },
  'the hall motion before the door: it alarms on its owner when it sees the leaf and follows': {
    differ: { leaf: { trips: { away: 'follow', stay: 'ignore', night: 'ignore', unset: 'ignore' } } },
    text: `
    0 set away → leave away until 60
    100 trip leaf → 60 set away; alarm burglary leaf; sound siren; report burglary leaf
    101 open front → enter by front entry-1 until 131`,
  },
  'setting while entry runs is refused': {
    text: `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    105 set away → refuse entry runs`,
  },
  'set in stay, then away: people leave anew': {
    text: `
    0 set stay → leave stay until 20
    100 set away → 20 set stay; leave away until 160
    120 open front
    160 wait → set away; leave out front open`,
  },
}

const noDelay: Readonly<Record<string, string>> = {
  'no exit delay in stay: set at once': `
    0 set stay → set stay
    1 trip landing → alarm burglary landing; sound siren; report burglary landing`,
  'a delay that nobody said is none: an entry door alarms at once': `
    0 set away → leave away until 60
    100 open front → 60 set away; alarm burglary front; sound siren; report burglary front`,
  'a door that would alarm at once refuses a mode without exit delay': `
    0 open front → chime front
    1 set stay → refuse would alarm at once front`,
}

describe('leaving', () => {
  it.each(Object.entries(leaving))('%s', (_, { options, differ, text }) => {
    const { given, wanted } = played(home(options, differ), text)
    expect(given).toEqual(wanted)
  })
})

describe('coming home', () => {
  it.each(Object.entries(entering))('%s', (_, { options, differ, text }) => {
    const { given, wanted } = played(home(options, differ), text)
    expect(given).toEqual(wanted)
  })
})

describe('where a delay is none', () => {
  const delays = { ...plainArea.delays, exitStay: 0, entry1: null }
  const behaviour = { ...home(), areas: [{ id: 'house', delays }] }
  it.each(Object.entries(noDelay))('%s', (_, text) => {
    const { given, wanted } = played(behaviour, text)
    expect(given).toEqual(wanted)
  })
})
