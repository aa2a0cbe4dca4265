import { expect, it } from 'vitest'
import { evidenceBy } from '../job/testing/records.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { heldValue } from './held.ts'

it('of a setting is as it was last read, else as the panel is shipped, else not known', () => {
  const job = new SmallJob({ panel: 'panel/pinfold-16' })
  const held = (address = 'system.openAtExit') => heldValue({ doc: job.doc, catalogue }, address)
  // The Pinfold comes with zones that alarm where they are open at the end of exit.
  expect(held()).toBe('alarm')
  const at = '2026-05-04T08:00:00Z'
  const values = [{ address: 'system.openAtExit', value: 'exclude' }]
  const record = {
    ...{ ...evidenceBy('Idris', at), id: 'held:1', type: 'held' as const, panel: 'panel/pinfold-16' },
    ...{ how: 'seen' as const, saved: true, section: '', values },
  }
  job.apply([{ op: 'add', record }])
  expect(held()).toBe('exclude')
  expect(held('system.none')).toBeNull()
  expect(heldValue({ doc: new SmallJob({ panel: null }).doc, catalogue }, 'system.openAtExit')).toBeNull()
})
