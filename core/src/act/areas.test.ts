import { describe, expect, it } from 'vitest'
import type { ActOptions } from './behaviour.ts'
import { home } from './testing/home.ts'
import { panelOf, plainArea, played, trips, zone } from './testing/timeline.ts'

/* Areas of their own, zones common to two, part sets by letter; and troubles of devices. */

const areas = [
  { ...plainArea, id: 'house' },
  { ...plainArea, id: 'office', delays: { entry1: 45, entry2: 90, exit: 30, exitStay: 10 } },
]
const both = ['house', 'office']
const twoFlats = (options: Partial<ActOptions> = {}) =>
  panelOf(
    [
      zone('front', { areas: both, trips: trips('entry-1 entry-1 entry-1 ignore'), stands: true }),
      zone('hall', { trips: trips('follow ignore ignore ignore') }),
      zone('desk', { areas: ['office'], trips: trips('follow follow follow ignore') }),
      zone('office-door', {
        areas: ['office'],
        trips: trips('entry-1 entry-1 entry-1 ignore'),
        stands: true,
        chime: true,
      }),
      zone('window', { trips: trips('instant instant instant ignore'), stands: true }),
      zone('fob', {
        areas: ['office'],
        kind: 'command',
        command: 'unset',
        trips: trips('command command command command'),
      }),
    ],
    options,
    areas,
  )

const apart: Readonly<Record<string, string>> = {
  'each area has its own delays': `
    0 set away office → leave office away until 30
    40 open office-door → 30 set office away; enter office by office-door entry-1 until 85
    50 unset office → unset office`,
  'all areas at once': `
    0 set away → leave house away until 60; leave office away until 30
    60 wait → 30 set office away; set house away
    70 unset → unset house; unset office`,
  'unsetting one leaves the other set': `
    0 set away → leave house away until 60; leave office away until 30
    70 unset office → 30 set office away; 60 set house away; unset office
    80 open window → alarm burglary window; sound siren; report burglary window`,
  'a fob of one area silences nothing of the other': `
    0 set away → leave house away until 60; leave office away until 30
    80 open window → 30 set office away; 60 set house away; alarm burglary window; sound siren; report burglary window
    90 trip fob → unset office
    95 unset house → unset house; quiet; report cancelled window; clear`,
  'a common door is not watched while one area is unset': `
    0 set away office → leave office away until 30
    40 open front → 30 set office away`,
  'a common door is watched when both are set, and delays both by their own delays': `
    0 set away → leave house away until 60; leave office away until 30
    70 open front → 30 set office away; 60 set house away; enter house by front entry-1 until 100; enter office by front entry-1 until 115
    75 trip hall → wait hall
    76 trip desk → wait desk
    90 unset → unset house; unset office`,
  'a common door alarms once when nobody unsets': `
    0 set away → leave house away until 60; leave office away until 30
    70 open front → 30 set office away; 60 set house away; enter house by front entry-1 until 100; enter office by front entry-1 until 115
    120 wait → 100 alarm burglary front; 100 sound siren; 100 report burglary front`,
  'follow counts only a delay of its own area': `
    0 set away → leave house away until 60; leave office away until 30
    70 open office-door → 30 set office away; 60 set house away; enter office by office-door entry-1 until 115
    75 trip hall → alarm burglary hall; sound siren; report burglary hall`,
  'a common door while one area is still being left: ignored': `
    0 set away office → leave office away until 30
    40 set away house → 30 set office away; leave house away until 100
    50 open front
    55 close front
    100 wait → set house away`,
  'one away, one stay: a common door goes by stay': `
    0 set away office → leave office away until 30
    0 set stay house → leave house stay until 20
    50 open front → 20 set house stay; 30 set office away; enter house by front entry-1 until 80; enter office by front entry-1 until 95`,
  'an unknown area is no area': `
    0 set away cellar
    5 unset cellar`,
}

const letters = panelOf([
  zone('front', { parts: ['A', 'B'], trips: trips('entry-1 entry-1 entry-1 ignore'), stands: true }),
  zone('window', { parts: ['A', 'B'], trips: trips('instant instant instant ignore'), stands: true }),
  zone('lounge', { parts: ['A'], trips: trips('instant instant instant ignore') }),
  zone('landing', { parts: ['A', 'C'], trips: trips('follow entry-1 entry-1 ignore') }),
  zone('shed', { trips: trips('instant instant instant ignore') }),
  zone('smoke', {
    parts: ['A'],
    kind: 'fire',
    sound: 'three-pulse',
    trips: trips('instant instant instant instant'),
  }),
])
const parts: Readonly<Record<string, string>> = {
  'letter A: everything in it': `
    0 set away letter A → leave away until 60
    70 trip lounge → 60 set away; alarm burglary lounge; sound siren; report burglary lounge`,
  'letter B: a zone not in it does nothing': `
    0 set stay letter B → leave stay until 20
    70 trip lounge → 20 set stay
    71 trip landing`,
  'letter B: a zone in it alarms': `
    0 set stay letter B → leave stay until 20
    70 open window → 20 set stay; alarm burglary window; sound siren; report burglary window`,
  'letter C: the landing starts its delay': `
    0 set stay letter C → leave stay until 20
    70 trip landing → 20 set stay; enter by landing entry-1 until 100`,
  'letter C: with the front door not in it the night is open': `
    0 set stay letter C → leave stay until 20
    70 open front → 20 set stay`,
  'a zone without letters is in every part': `
    0 set stay letter C → leave stay until 20
    70 trip shed → 20 set stay; alarm burglary shed; sound siren; report burglary shed`,
  'what is always on is in no letter’s power': `
    0 set stay letter B → leave stay until 20
    70 trip smoke → 20 set stay; alarm fire smoke; sound three-pulse; report fire smoke`,
  'a window open outside the part does not hinder it': `
    0 open window
    5 set stay letter C → leave stay until 25
    25 wait → set stay`,
  'from one letter to another: people leave anew': `
    0 set stay letter B → leave stay until 20
    30 set stay letter C → 20 set stay; leave stay until 50`,
}

const troubles: Readonly<Record<string, { options?: Partial<ActOptions>; text: string }>> = {
  'a cover opened while unset: trouble': {
    text: `
    3 cover window off → trouble cover window; report trouble window
    9 cover window on → trouble over cover window; report trouble over window`,
  },
  'a cover opened while unset alarms where the panel does so': {
    options: { tamperUnset: 'alarm' },
    text: `
    3 cover window off → trouble cover window; alarm tamper window; sound siren; report tamper window
    9 unset → quiet; report cancelled window; clear`,
  },
  'a cover opened in away: alarm': {
    text: `
    0 set away → leave away until 60
    70 cover window off → 60 set away; trouble cover window; alarm tamper window; sound siren; report tamper window`,
  },
  'a cover opened in stay: alarm, also of a zone that stay ignores': {
    text: `
    0 set stay → leave stay until 20
    70 cover hall off → 20 set stay; trouble cover hall; alarm tamper hall; sound siren; report tamper hall`,
  },
  'a cover opened twice is opened once': {
    text: `
    3 cover window off → trouble cover window; report trouble window
    4 cover window off`,
  },
  'one cover of three zones: one trouble, gone when closed': {
    text: `
    3 cover detector off → trouble cover detector; report trouble detector
    5 cover detector on → trouble over cover detector; report trouble over detector`,
  },
  'a supervised device goes silent and comes back': {
    text: `
    3 lost window → trouble lost window; report trouble window
    99 back window → trouble over lost window; report trouble over window`,
  },
  'a device of three zones is noticed by its one supervised zone': {
    text: `
    3 lost detector → trouble lost detector; report trouble detector`,
  },
  'a carried pendant is not missed': {
    text: `
    3 lost pendant
    5 battery pendant low`,
  },
  'a low battery shows until it is changed': {
    text: `
    3 battery window low → trouble battery window; report trouble window
    4 battery window low
    9 battery window good → trouble over battery window; report trouble over window`,
  },
  'jamming shows and ends': {
    text: `
    3 jam on → trouble jammed; report trouble
    9 jam off → trouble over jammed; report trouble over`,
  },
  'a lost device prevents setting where the panel does so': {
    options: { troublePrevents: true },
    text: `
    3 lost window → trouble lost window; report trouble window
    5 set away → refuse trouble window
    9 back window → trouble over lost window; report trouble over window
    10 set away → leave away until 70`,
  },
  'a low battery prevents nothing': {
    options: { troublePrevents: true },
    text: `
    3 battery window low → trouble battery window; report trouble window
    5 set away → leave away until 65`,
  },
  'a lost device prevents nothing where nobody said so': {
    text: `
    3 lost window → trouble lost window; report trouble window
    5 set away → leave away until 65`,
  },
  'a trouble that is not there is not over': {
    text: `
    3 back window
    4 cover window on
    5 jam off`,
  },
}

describe('areas of their own', () => {
  it.each(Object.entries(apart))('%s', (_, text) => {
    const { given, wanted } = played(twoFlats(), text)
    expect(given).toEqual(wanted)
  })
})

describe('part sets by letter', () => {
  it.each(Object.entries(parts))('%s', (_, text) => {
    const { given, wanted } = played(letters, text)
    expect(given).toEqual(wanted)
  })
})

describe('troubles', () => {
  it.each(Object.entries(troubles))('%s', (_, { options, text }) => {
    const { given, wanted } = played(home(options), text)
    expect(given).toEqual(wanted)
  })
})
