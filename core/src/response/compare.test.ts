import { readFileSync } from 'node:fs'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import type { SetMode } from '../act/behaviour.ts'
import type { DeviceEvent, Trip } from '../catalogue/schema.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { catalogue } from '../testing/small-job.ts'
import { advise, needOf } from './advise.ts'
import { consequence, watchOf, type Watched } from './compare.ts'
import { tripsOf } from './modes.ts'

const { schools } = defaultHouseRules
const at = (event: DeviceEvent, use: Watched['use'], over: Partial<Watched> = {}): Watched => ({
  ...{ event, use, noisy: false, sleeps: false, delay: null, schools },
  ...over,
})

/** The places of the table, as the house tells them. */
const places: Readonly<Record<string, readonly Watched[]>> = {
  'entry door': [at('open', 'entry'), at('terminals', 'entry'), at('open', 'entry', { delay: 2 })],
  'far entry door': [at('open', 'entry-far')],
  'entry door not in stay': [at('open', 'entry-not-in-stay')],
  'inner door to entry 1': [at('open', 'inner-way', { delay: 1 })],
  'inner door to entry 2': [at('open', 'inner-way', { delay: 2 }), at('terminals', 'on-way', { delay: 2 })],
  'inner door': [at('open', 'inner-way'), at('open', 'on-way-night')],
  window: [at('open', 'opening'), at('terminals', 'off-way'), at('open', 'sees-entry')],
  shock: [at('shock', 'opening'), at('shock', 'none'), at('shock', 'entry')],
  'motion at the leaf': [at('motion', 'sees-entry')],
  'motion at the leaf follows': [at('motion', 'sees-entry', { schools: { ...schools, seesLeaf: 'follow' } })],
  'motion at the far leaf': [at('motion', 'entry-far')],
  'motion on the way': [at('motion', 'on-way'), at('motion', 'inner-way')],
  'motion on the way at night': [at('motion', 'on-way-night')],
  'motion off the way': [
    at('motion', 'off-way'),
    at('motion', 'off-way', { schools: { ...schools, offWay: 'follow' } }),
  ],
  'motion off the way where people sleep': [at('motion', 'off-way', { sleeps: true })],
  glass: [
    at('glass', 'opening'),
    at('glass', 'none'),
    at('glass', 'opening', { noisy: true, schools: { ...schools, glass: 'both' } }),
  ],
  'glass away only': [
    at('glass', 'opening', { noisy: true }),
    at('glass', 'opening', { schools: { ...schools, glass: 'away-only' } }),
  ],
  'use not stated': [
    at('open', 'none'),
    at('motion', 'none'),
    at('motion', 'opening'),
    at('motion', 'entry'),
  ],
}
const trips = ['ignore', 'instant', 'entry-1', 'entry-2', 'follow', 'alert'] as const
type Row = { readonly place: string; readonly mode: SetMode } & Readonly<Record<Trip, string>>
const rows = Papa.parse<Row>(readFileSync(new URL('./need-by-type.csv', import.meta.url), 'utf8').trim(), {
  header: true,
  comments: '#',
}).data

describe('a chosen type against the need of its place', () => {
  it('is in the table once, place by mode', () => {
    expect(rows.map(({ place, mode }) => `${place} ${mode}`)).toEqual(
      Object.keys(places).flatMap((place) => ['away', 'stay', 'night'].map((mode) => `${place} ${mode}`)),
    )
  })

  it.each(rows)('$place, $mode', (row) => {
    for (const place of places[row.place] ?? []) {
      const watch = watchOf(place)
      if (!watch) throw new Error(row.place)
      const given = trips.map((trip) => [trip, consequence(watch, row.mode, trip) ?? 'ok'])
      expect(given).toEqual(trips.map((trip) => [trip, row[trip]]))
    }
  })

  it('says nothing of events that are no burglary, nor of a command', () => {
    for (const event of ['smoke', 'heat', 'co', 'freeze', 'flood', 'panic', 'medical', 'disarm'] as const)
      expect(watchOf(at(event, 'entry'))).toBeNull()
    expect(consequence({ of: 'entry door', inStay: true, delay: 1 }, 'away', 'command')).toBeNull()
  })
})

describe('the type that is advised', () => {
  const uses = ['entry', 'entry-far', 'entry-not-in-stay', 'opening', 'inner-way', 'sees-entry'] as const
  const events = ['open', 'motion', 'glass', 'shock'] as const
  const panels = catalogue.all('panel')
  const clean = (
    panel: (typeof panels)[number],
    place: Watched,
    type: (typeof panel.responseTypes)[number],
  ) => {
    const watch = watchOf(place)
    const does = tripsOf(panel, type)
    return (
      watch !== null && (['away', 'stay'] as const).every((mode) => !consequence(watch, mode, does[mode]))
    )
  }

  it.each(panels)('of $name is right wherever the panel has one that is', (panel) => {
    const burglary = panel.responseTypes.filter(
      (type) => type.kind === 'burglary' && type.disarmed === 'ignore',
    )
    for (const event of events)
      for (const use of [...uses, 'on-way', 'on-way-night', 'off-way', 'none'] as const) {
        const place = at(event, use)
        const need = needOf(event, { ...place, region: 'europe' })
        const { type } = advise(panel, event, need)
        // A motion is not kept on in stay unasked, though that may be somebody's wish.
        const asked = burglary.filter((one) => need.stay !== 'ignore' || one.stay === 'ignore')
        const some = asked.some((one) => clean(panel, place, one))
        expect([event, use, type !== null && clean(panel, place, type)]).toEqual([event, use, some])
      }
  })
})
