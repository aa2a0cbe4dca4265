import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { jobInfo, recordOf, recordsOf, type DeviceModel, type PanelModel, type Zone } from '#core'
import { openJob, type JobPage } from '../../testing/job-page.ts'
import { catalogue, docOn, smallDoc } from '../../testing/small-doc.ts'
import Signoffs from '../handover/Signoffs.vue'
import Delays from './Delays.vue'
import SystemSettings from './SystemSettings.vue'
import ZoneCouplings from './ZoneCouplings.vue'

let page: JobPage
afterEach(() => page.close())
const info = () => jobInfo(page.job.doc)
const labels = () => [...page.host.querySelectorAll('label')].map((label) => label.textContent.trim())

describe('settings of the whole system', () => {
  it('show what the panel has and nothing else', async () => {
    page = await openJob(docOn('panel/pinfold-16', null))
    await page.show(SystemSettings)
    expect(labels()).toContain('Zone open at the end of exit')
    expect(labels()).toContain('Sound while entry runs')
    expect(labels()).not.toContain('End of exit')
    expect(labels()).not.toContain('Key switch')
    expect(page.host.textContent).toContain('leaves it when it enters another: first-door list')
    page.close()
    page = await openJob(docOn('panel/quillet-32', null))
    await page.show(SystemSettings)
    expect(labels()).toContain('End of exit')
    expect(labels()).toContain('Key switch')
    expect(labels()).not.toContain('Outputs')
  })

  it('keep a siren time, show what is keyed for it, and refuse what is none', async () => {
    page = await openJob(smallDoc())
    await page.show(SystemSettings)
    await page.type('Siren time', 'long')
    expect(info().sirenSeconds).toBeNull()
    expect(page.host.textContent).toMatch(/expected number|must be a number/i)
    await page.type('Siren time', '180')
    expect(info().sirenSeconds).toBe(180)
    // The Tarn 40 keys minutes.
    expect(page.host.textContent).toContain('keyed 3 → 3 min')
  })

  it('ask for the customer’s consent to a key that is switched off', async () => {
    page = await openJob(smallDoc())
    await page.show(SystemSettings)
    await page.tick('Switch the help key off', true)
    expect(info().keysOff).toEqual(['help key'])
    const stopping = () => page.job.findings.some((finding) => finding.rule === 'key-consent')
    expect(stopping()).toBe(true)
    await page.show(Signoffs, { ready: false })
    await page.press('Vouch: Customer consents to the help key being switched off')
    expect(stopping()).toBe(false)
    expect(recordsOf(page.job.doc, 'signoff').map((record) => [record.what, record.made.name])).toEqual([
      ['consent help key', 'Nell'],
    ])
    await page.show(SystemSettings)
    await page.tick('Switch the help key off', false)
    expect(info().keysOff).toEqual([])
  })
})

describe('delays', () => {
  it('show both numbers, and one of stay only where the panel has it', async () => {
    page = await openJob(docOn('panel/morrow-60', null))
    await page.show(Delays)
    expect(labels()).not.toContain('Exit delay of stay')
    await page.type('Exit delay', '50')
    // Steps of 15 s: 50 s go up to 60 s, keyed 4.
    expect(page.host.textContent).toContain('keyed 4 → 60 s')
    page.close()
    page = await openJob(docOn('panel/quillet-32', null))
    await page.show(Delays)
    await page.type('Exit delay of stay', '25')
    expect(info().exitStay).toBe(25)
    expect(page.host.textContent).toContain('keyed 30 → 30 s')
  })
})

describe('what a panel couples with a zone', () => {
  const zone = () => recordOf(page.job.doc, 'zone', 'zone:one') as Zone
  const show = (panel: string) =>
    page.show(ZoneCouplings, {
      zone: zone(),
      panel: catalogue.get('panel', panel) as PanelModel,
      model: catalogue.get('device', 'device/reedling') as DeviceModel,
      name: 'zone 07',
    })
  beforeEach(async () => (page = await openJob(smallDoc())))

  it('offers siren outputs, of which none leaves it silent', async () => {
    await show('panel/pinfold-16')
    for (const output of [1, 2, 3, 4]) {
      await page.tick(`Siren output ${output} of zone 07`, false)
      await show('panel/pinfold-16')
    }
    expect(zone().sirens).toEqual([])
    await page.tick('Siren output 3 of zone 07', true)
    expect(zone().sirens).toEqual([3])
  })

  it('offers a day zone where the user chooses, and says it as of a set field', async () => {
    await show('panel/pinfold-16')
    await page.tick('The user may make zone 07 a day zone', true)
    expect(zone().dayZone).toBe(true)
    await show('panel/quillet-32')
    // It stays to be seen on a panel that has no such choice: the finding points at it.
    expect(page.control('The user may make zone 07 a day zone').checked).toBe(true)
  })

  it('offers the ways to chime of a zone that chimes', async () => {
    await show('panel/quillet-32')
    expect(() => page.control('How zone 07 chimes')).toThrow()
    page.job.set('zone.set', 'zone:one', 'chime', false, true)
    await show('panel/quillet-32')
    await page.choose('How zone 07 chimes', 'say')
    expect(zone().chimeStyle).toBe('say')
    await page.choose('How zone 07 chimes', '')
    expect(zone().chimeStyle).toBeNull()
  })

  it('asks for a written reason of a fire zone that is not plain', async () => {
    page.job.edit('zone.set', [
      { op: 'set', id: 'zone:one', field: 'response', from: null, to: 'fire-delayed' },
    ])
    await show('panel/quillet-32')
    await page.type('Reason of zone 07', 'cooking haze in the open kitchen')
    expect(zone().reason).toBe('cooking haze in the open kitchen')
  })
})

it('hands over once, and fixes the house rules with it', async () => {
  page = await openJob(smallDoc())
  await page.show(Signoffs, { ready: false })
  const button = () =>
    [...page.host.querySelectorAll('button')].find((item) => item.textContent.trim() === 'Hand over')
  expect(button()?.disabled).toBe(true)
  await page.show(Signoffs, { ready: true })
  await page.press('Hand over')
  expect(button()).toBeUndefined()
  expect(recordsOf(page.job.doc, 'fixed-rules')[0]?.rules).toEqual(page.job.rules)
  expect(page.edits.map((edit) => edit.kind)).toEqual(['handover.done'])
})
