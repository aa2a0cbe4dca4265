import { expect, it } from 'vitest'
import type { PanelModel, ResponseType } from '../catalogue/schema.ts'
import { catalogue } from '../testing/small-job.ts'
import { modesOf, tripsOf } from './modes.ts'

const panel = (id: string): PanelModel => {
  const found = catalogue.get('panel', `panel/${id}`)
  if (!found) throw new Error(id)
  return found
}
const modes = (id: string, key: string, over: { stayToEntry2?: boolean; dayZone?: boolean } = {}) => {
  const type = panel(id).responseTypes.find((item) => item.key === key) as ResponseType
  const { stayToEntry2 = false, dayZone = false } = over
  return modesOf(
    { panel: panel(id), info: { stayToEntry2 } },
    { dayZone, area: 'area:1', area2: null },
    type,
  ).map((item) => `${item.mode}: ${item.trip} ${item.because}`.trim())
}

it('is what the type says, with the night where the panel has it', () => {
  expect(modes('tarn-40', 'entry-1')).toEqual(['away: entry-1', 'stay: entry-1', 'unset: ignore'])
  expect(modes('ostler-s-8', 'instant').map((line) => line.split(':')[0])).toEqual([
    'away',
    'stay',
    'night',
    'unset',
  ])
})

it('delays what is on in stay by the panel’s option, and nothing that is off or always on', () => {
  const on = { stayToEntry2: true }
  const why = 'bit 3 of location 047 is on'
  expect(modes('pinfold-16', 'instant', on)[1]).toBe(`stay: entry-2 ${why}`)
  expect(modes('pinfold-16', 'entry-1', on)[1]).toBe(`stay: entry-2 ${why}`)
  expect(modes('pinfold-16', 'follow-away', on)[1]).toBe('stay: ignore')
  expect(modes('pinfold-16', 'fire', on)[1]).toBe('stay: instant')
  // A panel without that option keeps to the type.
  expect(modes('tarn-40', 'instant', on)[1]).toBe('stay: instant')
})

it('gives a notice while unset where the user may choose a day zone', () => {
  expect(modes('pinfold-16', 'instant', { dayZone: true }).at(-1)).toBe(
    'unset: alert if the user makes it a day zone',
  )
  expect(modes('pinfold-16', 'fire', { dayZone: true }).at(-1)).toBe('unset: instant')
  expect(modes('tarn-40', 'instant', { dayZone: true }).at(-1)).toBe('unset: ignore')
})

it('finds by trying what every type of every panel says of itself', () => {
  let tried = 0
  for (const one of catalogue.all('panel'))
    for (const type of one.responseTypes) {
      const { away, stay, night, unset } = tripsOf(one, type)
      expect([one.id, type.key, away, stay, night, unset]).toEqual([
        ...[one.id, type.key, type.away, type.stay, type.night ?? type.stay],
        type.disarmed,
      ])
      tried += 1
    }
  // Every panel has at least a way in, an outer line and life safety.
  expect(tried).toBeGreaterThan(7 * 8)
})
