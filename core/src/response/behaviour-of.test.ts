import { describe, expect, it } from 'vitest'
import { actAll } from '../act/machine.ts'
import type { ActEvent } from '../act/events.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, cleanTarn } from '../testing/small-job.ts'
import { behaviourOf, declaredTrips } from './behaviour-of.ts'

describe('the behaviour of a plan', () => {
  const job = cleanTarn()
  const behaviour = behaviourOf(job.doc, systemOf(job.doc, catalogue))
  if (!behaviour) throw new Error('the small job has a panel')

  it('has a zone for every planned one with a type, and the delays as the panel keeps them', () => {
    expect(behaviour.zones.map(({ kind }) => kind)).toEqual([
      ...['burglary', 'burglary', 'burglary', 'burglary', 'fire', 'fire', 'auxiliary', 'gas', 'panic'],
    ])
    expect(behaviour.areas).toHaveLength(1)
  })

  it('lets the family in by the porch and past the hall', () => {
    const [porch, , hall] = behaviour.zones
    const delays = behaviour.areas[0]?.delays
    if (!porch || !hall || !delays?.exit || !delays.entry1) throw new Error('porch, hall, delays')
    const home = delays.exit + 100
    const events: ActEvent[] = [
      { at: 0, do: 'set', mode: 'away', areas: [], part: null },
      { at: home, do: 'trip', zone: porch.id },
      { at: home + 3, do: 'trip', zone: hall.id },
      { at: home + delays.entry1 - 1, do: 'unset', areas: [], duress: false },
    ]
    expect(actAll(behaviour, events).outputs.filter(({ does }) => does === 'alarm')).toEqual([])
    const late = [...events.slice(0, 3), { at: home + delays.entry1 + 1, do: 'wait' } as const]
    expect(actAll(behaviour, late).outputs.filter(({ does }) => does === 'alarm')).toEqual([
      { at: home + delays.entry1, does: 'alarm', source: porch.id, kind: 'burglary' },
    ])
  })

  it('is nothing without a panel', () => {
    const system = { ...systemOf(job.doc, catalogue), panel: null }
    expect(behaviourOf(job.doc, system)).toBeNull()
  })
})

it('lets a panel without a night mode do at night what it does in stay', () => {
  const tarn = catalogue.get('panel', 'panel/tarn-40')
  const type = tarn?.responseTypes.find(({ key }) => key === 'entry-1-stay-instant')
  if (!tarn || !type) throw new Error('Tarn 40 has such a type')
  expect(declaredTrips(tarn, type, { stayToEntry2: false, dayZone: false })).toEqual({
    away: 'entry-1',
    stay: 'instant',
    night: 'instant',
    unset: 'ignore',
  })
})
