import { afterEach, expect, it } from 'vitest'
import type { ModeTrip } from '#core'
import { mount, type Mounted } from '../../testing/mount.ts'
import BehaviourStrip from './BehaviourStrip.vue'

const mode = (name: ModeTrip['mode'], trip: ModeTrip['trip'], because = ''): ModeTrip => ({
  mode: name,
  trip,
  because,
})
let page: Mounted
afterEach(() => page.unmount())
const words = () => page.host.querySelector('[role="img"]')?.getAttribute('aria-label')

it('says by mode what a trip does, for those who cannot see it', () => {
  page = mount(BehaviourStrip, {
    modes: [mode('away', 'entry-1'), mode('stay', 'instant'), mode('unset', 'ignore')],
  })
  expect(words()).toBe('away: entry 1, stay: instant, unset: nothing')
  expect([...page.host.querySelectorAll('.mode')].map((item) => item.textContent)).toEqual(['1', '!', '·'])
})

it('says why a mode is other than its type, by more than colour', () => {
  page = mount(BehaviourStrip, {
    modes: [
      mode('stay', 'entry-2', 'bit 3 of location 047 is on'),
      mode('unset', 'alert', 'if the user chooses'),
    ],
  })
  expect(words()).toBe(
    'stay: entry 2 (bit 3 of location 047 is on), unset: notice only (if the user chooses)',
  )
  expect(page.host.querySelectorAll('.coupled')).toHaveLength(2)
})

it('shows nothing for a type that is not stated', () => {
  page = mount(BehaviourStrip, { modes: [] })
  expect(page.host.textContent).toBe('')
})
