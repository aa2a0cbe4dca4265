import { describe, expect, it } from 'vitest'
import { jobInfo } from '../job/document.ts'
import { applyOps } from '../job/edit.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { choosePanelOps, firmwareWhenChosen } from './choose-panel.ts'

const ostler = 'panel/ostler-s-8'

describe('choosing a panel', () => {
  it.each([
    // World: an Ostler S 8 has had 2.04 and 2.11; a Pinfold tells none.
    ['panel/ostler-s-8', 'new', '2.11'],
    ['panel/ostler-s-8', 'takeover', null],
    ['panel/pinfold-16', 'new', null],
  ] as const)('%s of a %s job takes firmware %s', (id, kind, firmware) => {
    expect(firmwareWhenChosen(catalogue.get('panel', id), kind)).toBe(firmware)
  })

  it('pins it and sets both as one edit', () => {
    const { doc } = new SmallJob({ panel: null, radioFirmware: null })
    const result = applyOps(doc, choosePanelOps(doc, catalogue, ostler))
    if (!result.ok) throw new Error(JSON.stringify(result.conflict))
    expect(jobInfo(result.doc)).toMatchObject({ panel: ostler, radioFirmware: '2.11' })
    expect(result.doc.records[`pin:${ostler}`]).toBeDefined()
  })

  it('leaves a chosen one as it is, its read firmware too', () => {
    const { doc } = new SmallJob({ panel: ostler, radioFirmware: '2.04' })
    expect(choosePanelOps(doc, catalogue, ostler)).toEqual([])
  })

  it('of none forgets the firmware', () => {
    const { doc } = new SmallJob({ panel: ostler, radioFirmware: '2.04' })
    const result = applyOps(doc, choosePanelOps(doc, catalogue, null))
    expect(result.ok && jobInfo(result.doc)).toMatchObject({ panel: null, radioFirmware: null })
  })
})
