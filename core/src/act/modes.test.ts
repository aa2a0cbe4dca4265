import { describe, expect, it } from 'vitest'
import { home } from './testing/home.ts'
import { played } from './testing/timeline.ts'

/* What a trip of each need does in each mode: the table of needs, cell by cell. Away is set from 60 s on, stay and night from 20 s. */

const timelines: Readonly<Record<string, string>> = {
  'daily door, away: entry 1': `
    0 set away → leave away until 60
    60 wait → set away
    100 open front → enter by front entry-1 until 130
    120 unset → unset`,
  'daily door, away, nobody unsets: alarm at the end of entry 1': `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    140 wait → 130 alarm burglary front; 130 sound siren; 130 report burglary front`,
  'daily door, stay: entry 1 for who comes home late': `
    0 set stay → leave stay until 20
    100 open front → 20 set stay; enter by front entry-1 until 130
    129 unset → unset`,
  'daily door, night: entry 1': `
    0 set night → leave night until 20
    100 open front → 20 set night; enter by front entry-1 until 130
    131 wait → 130 alarm burglary front; 130 sound siren; 130 report burglary front`,
  'daily door, unset: chime': `
    5 open front → chime front
    6 close front
    7 open front → chime front`,
  'far door, away: entry 2': `
    0 set away → leave away until 60
    100 open garage → 60 set away; enter by garage entry-2 until 190
    189 unset → unset`,
  'far door, stay: entry 2': `
    0 set stay → leave stay until 20
    100 open garage → 20 set stay; enter by garage entry-2 until 190
    190 wait → alarm burglary garage; sound siren; report burglary garage`,
  'far door, unset: chime': `
    5 open garage → chime garage`,
  'door not used in stay, away: entry 1': `
    0 set away → leave away until 60
    100 open back → 60 set away; enter by back entry-1 until 130
    110 unset → unset`,
  'door not used in stay, stay: instant': `
    0 set stay → leave stay until 20
    100 open back → 20 set stay; alarm burglary back; sound siren; report burglary back`,
  'door not used in stay, night: instant': `
    0 set night → leave night until 20
    100 open back → 20 set night; alarm burglary back; sound siren; report burglary back`,
  'door that follows in stay, opened from inside past the landing: waits': `
    0 set stay → leave stay until 20
    100 trip landing → 20 set stay; enter by landing entry-1 until 130
    110 open side → wait side
    125 unset → unset`,
  'door that follows in stay, opened from outside: at once': `
    0 set stay → leave stay until 20
    100 open side → 20 set stay; alarm burglary side; sound siren; report burglary side`,
  'door that follows in stay, away: entry 1': `
    0 set away → leave away until 60
    100 open side → 60 set away; enter by side entry-1 until 130`,
  'window, away: instant': `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren; report burglary window`,
  'window, stay: instant': `
    0 set stay → leave stay until 20
    100 open window → 20 set stay; alarm burglary window; sound siren; report burglary window`,
  'window, night: instant': `
    0 set night → leave night until 20
    100 open window → 20 set night; alarm burglary window; sound siren; report burglary window`,
  'window, unset: chime': `
    3 open window → chime window`,
  'shock on a frame, stay: instant': `
    0 set stay → leave stay until 20
    100 trip frame → 20 set stay; alarm burglary frame; sound siren; report burglary frame`,
  'shock on a frame, unset: nothing, not even chime': `
    3 trip frame`,
  'inner door, away, without a delay running: at once': `
    0 set away → leave away until 60
    100 open inner → 60 set away; alarm burglary inner; sound siren; report burglary inner`,
  'inner door, away, after the front door: waits': `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    104 open inner → wait inner
    120 unset → unset`,
  'inner door, stay: ignored': `
    0 set stay → leave stay until 20
    100 open inner → 20 set stay`,
  'inner door, unset: nothing': `
    3 open inner`,
  'motion that sees the leaf, away: the door’s delay, from the motion on': `
    0 set away → leave away until 60
    99 trip leaf → 60 set away; enter by leaf entry-1 until 129
    100 open front → wait front
    120 unset → unset`,
  'motion that sees the leaf, stay: ignored': `
    0 set stay → leave stay until 20
    99 trip leaf → 20 set stay`,
  'motion that sees the leaf of the far door, away: entry 2': `
    0 set away → leave away until 60
    99 trip far-leaf → 60 set away; enter by far-leaf entry-2 until 189`,
  'motion on the way, away, after the front door: waits': `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    103 trip hall → wait hall
    110 trip hall → wait hall
    128 unset → unset`,
  'motion on the way, away, by a window: at once': `
    0 set away → leave away until 60
    100 trip hall → 60 set away; alarm burglary hall; sound siren; report burglary hall`,
  'motion on the way, stay: ignored': `
    0 set stay → leave stay until 20
    100 trip hall → 20 set stay`,
  'motion off every way, away: at once, also while a delay runs': `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    103 trip lounge → alarm burglary lounge; sound siren; report burglary lounge`,
  'motion off every way, stay: ignored': `
    0 set stay → leave stay until 20
    100 trip lounge → 20 set stay`,
  'hall motion at night, away: follows': `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    103 trip landing → wait landing`,
  'hall motion at night, night: the way down has entry 1': `
    0 set night → leave night until 20
    100 trip landing → 20 set night; enter by landing entry-1 until 130
    115 unset → unset`,
  'hall motion at night, stay, nobody unsets: alarm': `
    0 set stay → leave stay until 20
    100 trip landing → 20 set stay; enter by landing entry-1 until 130
    130 wait → alarm burglary landing; sound siren; report burglary landing`,
  'glass, away and stay: instant': `
    0 set stay → leave stay until 20
    100 trip glass → 20 set stay; alarm burglary glass; sound siren; report burglary glass
    110 unset → unset; quiet; report cancelled glass; clear
    120 set away → leave away until 180
    200 trip glass → 180 set away; alarm burglary glass; sound siren; report burglary glass`,
  'glass in a kitchen, stay: ignored': `
    0 set stay → leave stay until 20
    100 trip kitchen-glass → 20 set stay`,
  'glass in a kitchen, away: instant': `
    0 set away → leave away until 60
    100 trip kitchen-glass → 60 set away; alarm burglary kitchen-glass; sound siren; report burglary kitchen-glass`,
  'glass, unset: nothing': `
    3 trip glass`,
  'day zone, unset: a notice, no alarm': `
    3 open shop → chime shop; notice shop`,
  'day zone, away: instant': `
    0 set away → leave away until 60
    100 open shop → 60 set away; alarm burglary shop; sound siren; report burglary shop`,
  'smoke, unset: fire with its own tone': `
    3 trip smoke → alarm fire smoke; sound three-pulse; report fire smoke`,
  'smoke, stay: fire': `
    0 set stay → leave stay until 20
    100 trip smoke → 20 set stay; alarm fire smoke; sound three-pulse; report fire smoke`,
  'heat, away: fire': `
    0 set away → leave away until 60
    100 trip heat → 60 set away; alarm fire heat; sound three-pulse; report fire heat`,
  'carbon monoxide, unset: gas, four-pulse': `
    3 trip co → alarm gas co; sound four-pulse; report gas co`,
  'carbon monoxide, away: gas': `
    0 set away → leave away until 60
    100 trip co → 60 set away; alarm gas co; sound four-pulse; report gas co`,
  'frost, unset: its tone, reported at once': `
    3 trip frost → alarm auxiliary frost; sound tone; report auxiliary frost`,
  'flood, away: its tone': `
    0 set away → leave away until 60
    100 trip flood → 60 set away; alarm auxiliary flood; sound tone; report auxiliary flood`,
  'panic, unset: loud and reported': `
    3 trip panic → alarm panic panic; sound siren; report panic panic`,
  'panic, stay: loud and reported': `
    0 set stay → leave stay until 20
    100 trip panic → 20 set stay; alarm panic panic; sound siren; report panic panic`,
  'hold-up, unset: reported, nothing is heard': `
    3 trip hold-up → alarm panic hold-up; report panic hold-up`,
  'hold-up, away: reported, nothing is heard': `
    0 set away → leave away until 60
    100 trip hold-up → 60 set away; alarm panic hold-up; report panic hold-up`,
  'hold-up while a siren sounds: the siren is not touched': `
    3 trip panic → alarm panic panic; sound siren; report panic panic
    5 trip hold-up → alarm panic hold-up; report panic hold-up`,
  'care pendant, unset: medical': `
    3 trip pendant → alarm medical pendant; sound tone; report medical pendant`,
  'care pendant, night: medical': `
    0 set night → leave night until 20
    100 trip pendant → 20 set night; alarm medical pendant; sound tone; report medical pendant`,
  'safe, unset: an alarm at any hour': `
    3 open safe → alarm burglary safe; sound siren; report burglary safe`,
  'safe, stay: an alarm': `
    0 set stay → leave stay until 20
    100 open safe → 20 set stay; alarm burglary safe; sound siren; report burglary safe`,
  'fob sets away': `
    0 trip fob-set-away → leave away until 60`,
  'fob sets stay': `
    0 trip fob-set-stay → leave stay until 20`,
  'fob unsets while the entry delay runs': `
    0 trip fob-set-away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    110 trip fob-unset → unset`,
  'fob switches an output and nothing else': `
    0 trip fob-output → switch fob-output`,
  'duress code: appears to unset, and calls': `
    0 set away → leave away until 60
    100 open front → 60 set away; enter by front entry-1 until 130
    110 duress → unset; report duress duress`,
  'duress after an alarm: what was reported is called off, the call is not': `
    0 set away → leave away until 60
    100 open window → 60 set away; alarm burglary window; sound siren; report burglary window
    110 duress → unset; report duress duress; quiet; report cancelled window; clear
    112 unset`,
}

describe('a trip in each mode', () => {
  it.each(Object.entries(timelines))('%s', (_, text) => {
    const { given, wanted } = played(home(), text)
    expect(given).toEqual(wanted)
  })
})
