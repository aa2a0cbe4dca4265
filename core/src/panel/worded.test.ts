import { expect, it } from 'vitest'
import type { PanelModel } from '../catalogue/schema.ts'
import { systemOf } from '../system/system.ts'
import { smallPanel } from '../testing/small-panel.ts'
import { catalogue, cleanTarn } from '../testing/small-job.ts'
import { wordsAt } from './worded.ts'

it('a value is named as the display names it; one that the panel has no field for stands as it is', () => {
  const { doc } = cleanTarn()
  const words = { doc, catalogue, panel: systemOf(doc, catalogue).panel as PanelModel }
  expect(wordsAt(smallPanel(), words, { address: 'x.list', value: '2' })).toBe('v2')
  expect(wordsAt(smallPanel(), words, { address: 'x.bit', value: 'off' })).toBe('no')
  // Evidence can be older than the description of the panel.
  expect(wordsAt(smallPanel(), words, { address: 'x.gone', value: '7' })).toBe('7')
})
