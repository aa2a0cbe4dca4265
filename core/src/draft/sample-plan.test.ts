import { describe, expect, it } from 'vitest'
import { Catalogue } from '../catalogue/catalogue.ts'
import type { PanelModel } from '../catalogue/schema.ts'
import { catalogue } from '../testing/small-job.ts'
import { samplePlan } from './sample-plan.ts'

const now = '2026-05-04T10:00:00.000Z'
const panels = catalogue.all('panel')
const panelOf = (id: string): PanelModel => {
  const found = catalogue.get('panel', `panel/${id}`)
  if (!found) throw new Error(id)
  return found
}
/** A panel that no device knows yet; of one that asks for equipment codes that is what is against it. */
const asNew = (panel: PanelModel): PanelModel => ({
  ...{ ...panel, id: 'panel/new-one' },
  equipment: { ...panel.equipment, code: false },
})
const byLabel = (panel: PanelModel) =>
  new Map(samplePlan(panel, catalogue, now).zones.map((zone) => [zone.label.toLowerCase(), zone]))

describe('a small house on a panel that is being described', () => {
  it.each(panels.map((panel) => [panel.id, panel] as const))(
    '%s takes it whole, though it is new',
    (_id, panel) => {
      const { zones, stops, left, without } = samplePlan(asNew(panel), catalogue, now)
      expect([stops, left]).toEqual([[], []])
      // The demo world has no flood detector for the North American Ostler.
      expect(without.map((one) => one.class)).toEqual(panel.id === 'panel/ostler-s-9' ? ['flood'] : [])
      expect(zones.every(({ type, label }) => type !== null && label !== '')).toBe(true)
      expect(new Set(zones.map(({ number }) => number)).size).toBe(zones.length)
    },
  )

  it('shows type and behaviour of each zone as the panel calls them', () => {
    const zones = byLabel(panelOf('tarn-40'))
    const door = zones.get('hall front door')
    expect([door?.number, door?.type?.code, door?.modes.map(({ trip }) => trip)]).toEqual([
      ...['01', '21', ['entry-1', 'entry-1', 'ignore']],
    ])
    expect(zones.get('kitchen window')?.type?.code).toBe('34')
    expect(zones.get('landing smoke')?.type?.name).toBe('Fire')
    // The motion sees the leaf of the entry door: it must not follow.
    expect(zones.get('hall motion')?.type?.away).toBe('entry-1')
    const night = byLabel(panelOf('ostler-s-8')).get('hall front door')
    expect(night?.modes.map(({ mode }) => mode)).toEqual(['away', 'stay', 'night', 'unset'])
  })

  it('tells what is missing: a type, numbers, a device that its radio hears', () => {
    const tarn = panelOf('tarn-40')
    const noFire = { ...tarn, responseTypes: tarn.responseTypes.filter(({ kind }) => kind !== 'fire') }
    const plan = samplePlan(noFire, catalogue, now)
    // Without a type of fire no smoke detector may be had on it: it is said, and nothing else is typed for it.
    expect(plan.without.map((one) => one.class)).toEqual(['smoke'])
    expect(plan.without[0]?.nearest?.reasons).not.toEqual([])
    const coded = samplePlan({ ...tarn, id: 'panel/new-one' }, catalogue, now)
    // What is wired needs no code; of all else the code for this panel is what is not known yet.
    expect(coded.without.map((one) => [one.class, one.nearest?.reasons.map(({ code }) => code)])).toEqual(
      ['motion', 'smoke', 'flood', 'fob'].map((of) => [of, ['code']]),
    )
    const small = samplePlan(
      { ...tarn, blocks: [{ use: 'wireless', from: 1, to: 2, optional: false }] },
      catalogue,
      now,
    )
    expect([small.zones.length, small.left.length > 0]).toEqual([2, true])
    const alone = new Catalogue(catalogue.kept.filter(({ entry }) => entry.kind !== 'device'))
    expect(samplePlan(tarn, alone, now)).toMatchObject({
      ...{ zones: [], stops: [] },
      without: ['contact', 'motion', 'smoke', 'flood', 'keypad', 'fob'].map((of) => ({
        ...{ class: of, nearest: null },
      })),
    })
  })
})
