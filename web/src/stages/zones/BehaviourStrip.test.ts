import { afterEach, expect, it } from 'vitest'
import type { ResponseType } from '#core'
import { mount, type Mounted } from '../../testing/mount.ts'
import BehaviourStrip from './BehaviourStrip.vue'

const type: ResponseType = {
  key: 'entry-1-stay-instant',
  code: '23',
  name: 'Way in, at once in stay',
  kind: 'burglary',
  away: 'entry-1',
  stay: 'instant',
  disarmed: 'ignore',
  whileExit: { away: 'ignored', stay: 'live' },
  sound: 'siren',
  transmissionDelayAllowed: true,
  hides: [],
}
let page: Mounted
afterEach(() => page.unmount())
const words = () => page.host.querySelector('[role="img"]')?.getAttribute('aria-label')

it('says by mode what a trip does, for those who cannot see it', () => {
  page = mount(BehaviourStrip, { type })
  expect(words()).toBe('away: entry 1, stay: instant, unset: nothing')
  expect([...page.host.querySelectorAll('.mode')].map((mode) => mode.textContent)).toEqual(['1', '!', '·'])
})

it('shows the night where the panel has one', () => {
  page = mount(BehaviourStrip, { type: { ...type, night: 'follow' } })
  expect(words()).toBe('away: entry 1, stay: instant, night: follow, unset: nothing')
})

it('shows what a day zone gives while unset, as the user’s choice', () => {
  page = mount(BehaviourStrip, { type, dayZone: true })
  expect(words()).toBe('away: entry 1, stay: instant, unset, if the user chooses: notice only')
})

it('shows nothing for a type that is not stated', () => {
  page = mount(BehaviourStrip, { type: null })
  expect(page.host.textContent).toBe('')
})
