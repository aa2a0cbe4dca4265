import { afterEach, expect, it } from 'vitest'
import {
  keepEntry,
  pinUpdateOps,
  pinUpdates,
  type CatalogueEntry,
  type DeviceModel,
  type ReceiverModel,
} from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { after, catalogue, smallDoc } from '../../testing/small-doc.ts'
import Kit from './Kit.vue'
import Remedies from '../../shared/Remedies.vue'

let page: JobPage
afterEach(() => page.close())

/** The small job with entries that leave something open taken in. */
async function open(...entries: readonly CatalogueEntry[]): Promise<void> {
  const served = catalogue.with(entries.map(keepEntry))
  const doc = smallDoc()
  const taken = after(doc, pinUpdateOps(doc, served, pinUpdates(doc, served)))
  page = await openJob(taken, 'installer', [], null, served)
}
const { encryption: _encryption, ...contact } = catalogue.get('device', 'device/reedling') as DeviceModel
const { transmitters: _holds, ...radio } = catalogue.get('receiver', 'receiver/tarn-radio') as ReceiverModel

it('counts what it cannot tell, says of which entry what is not stated, and makes up no room', async () => {
  await open(contact, radio)
  await page.show(Kit)
  const text = page.host.textContent.replace(/\s+/g, ' ')
  expect(text).toContain('1 device, 0 fit as they are, 0 do not, of 1 it cannot be told')
  expect(text).toContain('1 transmitter; how many it holds is not stated')
  expect(text).toContain(
    'Not stated of Reedling contact: whether it encrypts; of Tarn radio: how many transmitters it holds.',
  )
  expect(text).not.toMatch(/undefined|NaN|Infinity/)
})

it('counts as before where all is stated', async () => {
  await open()
  await page.show(Kit)
  const text = page.host.textContent.replace(/\s+/g, ' ')
  expect(text).toContain('1 device, 1 fit as they are, 0 do not')
  expect(text).not.toContain('cannot be told')
})

it('leads from what nobody stated to the catalogue, and from what nobody read to reading it', async () => {
  await open(radio)
  await page.show(Remedies, { device: 'device:porch' })
  expect(page.host.textContent).toContain('look it up on the leaflet')
  expect(page.host.querySelector('a')?.textContent).toBe('correct the entry in the catalogue')
})
