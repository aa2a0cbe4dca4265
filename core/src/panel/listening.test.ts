import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { PanelInHand, demoPanel } from '../testing/panels.ts'
import { listeningFor, type LearnPlace } from './listening.ts'

const at = (panel: string, place: LearnPlace) =>
  listeningFor(catalogue, catalogue.get('panel', `panel/${panel}`), place)
const zone = (number: number): LearnPlace => ({ group: 'zone', number })

/** By hand, from what each panel's display asks and its own key that makes it listen. */
const zones = [
  ['tarn-40', 7, { seconds: 60, needs: 1, key: 'ear', shows: '07 id' }],
  ['morrow-60', 12, { seconds: 60, needs: 2, key: 'mode', shows: 'Z12 ID' }],
  ['ostler-s-8', 3, { seconds: 45, needs: 2, key: 'down', shows: '5.3 zone 03 ID' }],
  ['ostler-s-9', 3, { seconds: 45, needs: 2, key: 'down', shows: '5.3 zone 03 ID' }],
  ['pinfold-16', 4, { seconds: 30, needs: 1, key: 'work', shows: '404' }],
  ['quillet-32', 9, { seconds: 60, needs: 2, key: 'next', shows: '009 ID' }],
  ['sallow-m', 9, { seconds: 90, needs: 1, key: 'listen', shows: '09 ID' }],
] as const

describe('how a panel is told to learn', () => {
  it.each(zones)('%s, zone %i', (panel, number, told) => {
    expect(at(panel, zone(number))).toEqual(told)
  })

  it.each([
    ['tarn-40', 'fob', 'fob 2 id'],
    ['tarn-40', 'keypad', 'keypad 2 id'],
    ['tarn-40', 'siren', null],
    // Its fobs take numbers of zones, keypads and siren are wired.
    ['morrow-60', 'fob', null],
    ['ostler-s-8', 'fob', '6 fob 02 ID'],
    ['ostler-s-8', 'siren', '8 siren 2 ID'],
    ['pinfold-16', 'fob', '62'],
    ['pinfold-16', 'siren', null],
    ['quillet-32', 'siren', 'Siren 2 ID'],
    ['sallow-m', 'keypad', 'Keypad 2 ID'],
  ] as const)('%s, %s 2: %s', (panel, group, shows) => {
    expect(at(panel, { group, number: 2 })?.shows ?? null).toBe(shows)
  })

  it('is unknown where no panel is chosen or nobody has described it', () => {
    expect(listeningFor(catalogue, null, zone(1))).toBeNull()
    const plain = catalogue.get('panel', 'panel/tarn-40')
    expect(plain).not.toBeNull()
    if (plain) expect(listeningFor(catalogue, { ...plain, interface: undefined }, zone(1))).toBeNull()
  })

  it.each(zones)(
    'is what %s itself does: it shows that line, and listens by that key',
    (panel, number, told) => {
      const hand = new PanelInHand(demoPanel(panel))
      const { screens } = hand.panel.description
      const [screen = ''] =
        Object.entries(screens).find(
          ([, { widget }]) => widget.kind === 'serial' && widget.at.startsWith('zone.'),
        ) ?? []
      hand.state = { ...hand.state, screen, pointers: { ...hand.state.pointers, zone: number } }
      expect(hand.shows).toContain(told.shows)
      hand.keys(`[${told.key}]`)
      expect(hand.state.listening).toBe(told.seconds)
    },
  )
})
