import { describe, expect, it } from 'vitest'
import { systemOf } from '../system/system.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { offerDevices, offerPanels } from './offers.ts'

const devices = (job: SmallJob) =>
  new Map(
    offerDevices(systemOf(job.doc, catalogue), catalogue).map(({ model, fit, here }) => [
      model.id.replace('device/', ''),
      [fit.verdict, here],
    ]),
  )

describe('devices before they are chosen', () => {
  it('say how each would fit, as its row then does', () => {
    const found = devices(new SmallJob())
    expect(found.size).toBe(catalogue.all('device').length)
    // The Tarn 40 hears Wren; Curlew 8 is on another band; a keypad that disarms over a plain link can be recorded.
    expect(found.get('reedling')).toEqual(['works', true])
    expect(found.get('herald-8')?.[0]).toBe('no')
    expect(found.get('tapwell')?.[0]).toBe('loss')
    expect(found.get('horn-w')).toEqual(['works', true])
  })

  it('cannot tell while no panel is chosen', () => {
    const found = devices(new SmallJob({ panel: null }))
    expect(found.get('reedling')?.[0]).toBe('unknown')
  })

  it('count the room that is left, and take none of it', () => {
    const job = new SmallJob()
    const tarn = catalogue.get('panel', 'panel/tarn-40')
    for (let n = 0; n < (tarn?.slots.keypads.count ?? 0); n++) job.add(`pad${n}`, 'tapwell')
    const before = JSON.stringify(job.doc)
    expect(devices(job).get('tapwell')?.[0]).toBe('no')
    expect(devices(job).get('reedling')?.[0]).toBe('works')
    expect(JSON.stringify(job.doc)).toBe(before)
  })

  it('tell what is made for another region, and nothing of that with figures of one’s own', () => {
    const elsewhere = (region: 'europe' | 'north-america' | 'own') =>
      [...devices(new SmallJob({ region }))].filter(([, [, here]]) => here === false).map(([id]) => id)
    expect(elsewhere('europe')).toContain('latchet')
    expect(elsewhere('europe')).not.toContain('reedling')
    expect(elsewhere('north-america')).toContain('sill-8')
    expect(elsewhere('own')).toEqual([])
  })
})

describe('panels before they are chosen', () => {
  it('say what each makes of the kit as it comes', () => {
    const job = new SmallJob().add('a', 'reedling').add('b', 'tapwell').add('c', 'horn-w')
    const found = new Map(
      offerPanels(systemOf(job.doc, catalogue), catalogue).map((offer) => [offer.panel.id, offer]),
    )
    expect(found.size).toBe(7)
    expect(found.get('panel/tarn-40')?.counts).toEqual({ works: 2, loss: 1, no: 0, unknown: 0 })
    // The Morrow 60 has no receiver built in: nothing with a radio fits.
    expect(found.get('panel/morrow-60')?.counts).toMatchObject({ no: 2 })
    expect([found.get('panel/tarn-40')?.here, found.get('panel/morrow-60')?.here]).toEqual([true, false])
  })
})
