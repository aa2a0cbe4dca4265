import { describe, expect, it } from 'vitest'
import { zoneFields } from '../catalogue/schema.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { keyedZone, fieldKeyed } from './field-values.ts'

describe('the fields of a zone', () => {
  it('are declared once for every field that a panel can ask', () => {
    expect(Object.keys(fieldKeyed).sort()).toEqual([...zoneFields].sort())
  })

  it('of a zone with nothing planned are owed or not asked, never made up', () => {
    const job = cleanTarn()
    const zone = {
      ...job.zone('porch'),
      ...{ device: null, response: null, area: null, loop: null, equipmentCode: null, label: ' ' },
    }
    const at = keyedZone(job.doc, systemOf(job.doc, catalogue), zone)
    if (!at) throw new Error('no panel')
    const keyed = (field: keyof typeof fieldKeyed) => fieldKeyed[field](at)
    for (const field of ['response', 'equipmentKind', 'area', 'label'] as const)
      expect([field, keyed(field)]).toEqual([field, 'open'])
    for (const field of ['equipmentCode', 'serial', 'loop', 'inputs', 'sirens', 'dayZone', 'wiring'] as const)
      expect([field, keyed(field)]).toEqual([field, null])
  })

  it('are none without a panel', () => {
    const job = new SmallJob({ panel: null })
    const zone = cleanTarn().zone('porch')
    expect(keyedZone(job.doc, systemOf(job.doc, catalogue), zone)).toBeNull()
  })
})
