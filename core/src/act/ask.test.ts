import { describe, expect, it } from 'vitest'
import { ask, tripIn } from './ask.ts'
import { home, homeZones } from './testing/home.ts'
import { panelOf, trips, zone } from './testing/timeline.ts'

const house = home({}, { lounge: { doubleKnock: true }, heat: { fire: 'verified' } })
const still = (mode: 'away' | 'stay' | 'night' | 'unset') => ({ mode, while: 'still' as const })
const nothing = {
  ...{ alarm: null, sound: null, starts: null, waits: false },
  ...{ chimes: false, notices: false, commands: false, hesitates: false },
}

describe('asking what a trip comes to', () => {
  it.each([
    ['front', still('away'), { starts: { delay: 'entry-1', seconds: 30 } }],
    ['garage', still('away'), { starts: { delay: 'entry-2', seconds: 90 } }],
    ['front', still('unset'), { chimes: true }],
    ['shop', still('unset'), { chimes: true, notices: true }],
    ['hall', still('away'), { alarm: 'burglary', sound: 'siren' }],
    ['hall', { mode: 'away', while: 'entering' }, { waits: true }],
    ['hall', { mode: 'away', while: 'leaving' }, {}],
    ['hall', still('stay'), {}],
    ['garage', { mode: 'away', while: 'entering' }, { waits: true }],
    ['window', { mode: 'stay', while: 'leaving' }, { alarm: 'burglary', sound: 'siren' }],
    ['window', { mode: 'away', while: 'leaving' }, {}],
    ['smoke', still('unset'), { alarm: 'fire', sound: 'three-pulse' }],
    ['hold-up', still('night'), { alarm: 'panic', sound: 'silent' }],
    ['lounge', still('away'), { hesitates: true }],
    ['heat', still('unset'), { hesitates: true }],
    ['fob-unset', still('away'), { commands: true }],
    ['fob-unset', still('unset'), { commands: true }],
    ['fob-set-stay', still('away'), { commands: true }],
    ['fob-output', still('unset'), { commands: true }],
  ] as const)('%s %j', (id, situation, differs) => {
    expect(ask(house, id, situation)).toEqual({ ...nothing, ...differs })
  })

  it('finds the word for what each zone of a house does in each mode', () => {
    for (const one of homeZones)
      for (const mode of ['away', 'stay', 'night', 'unset'] as const)
        expect([one.id, mode, tripIn(house, one.id, mode)]).toEqual([one.id, mode, one.trips[mode]])
  })

  it('asks of a zone in the part set that it belongs to', () => {
    const letters = panelOf([zone('x', { parts: ['C'], trips: trips('instant instant instant ignore') })])
    expect(tripIn(letters, 'x', 'stay')).toBe('instant')
  })

  it('knows only zones that are there', () => {
    expect(() => ask(house, 'nobody', still('away'))).toThrow('ask: the behaviour has no zone "nobody"')
  })
})
