import { describe, expect, it } from 'vitest'
import { keepEntry } from '../catalogue/written.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { kitSums } from './kit-sums.ts'
import { systemOf } from '../system/system.ts'

const sums = (job: SmallJob) => kitSums(systemOf(job.doc, catalogue))

describe('batteries and cost of a kit', () => {
  it('counts batteries by type over several devices', () => {
    // A Reedling takes one CR123A, an Ember Three two, a Duokey one CR2032; a wired siren none.
    const job = new SmallJob()
      .add('a', 'reedling')
      .add('b', 'ember-three')
      .add('c', 'duokey')
      .add('d', 'horn-w')
    expect(sums(job).batteries).toEqual([
      { type: 'CR123A', count: 3 },
      { type: 'CR2032', count: 1 },
    ])
  })

  it('buys what is new or replaced and saves what is kept', () => {
    // A contact is 38 EUR, a motion 54 EUR in the catalogue.
    const job = new SmallJob()
      .add('new', 'reedling')
      .add('kept', 'reedling', { existing: true, plan: 'keep' })
      .add('open', 'stilt', { existing: true })
      .add('out', 'stilt', { existing: true, plan: 'replace' })
    expect(sums(job)).toMatchObject({
      currency: 'EUR',
      toBuy: 92,
      saved: 92,
      elsewhere: 0,
      unpriced: 0,
    })
  })

  it('says for how many no price is stated', () => {
    expect(sums(new SmallJob().add('old', 'reedling-old')).unpriced).toBe(1)
  })

  it('sums in one currency, that of most prices, and says what is priced in another', () => {
    // A Latchet contact is priced in USD, a Reedling is 38 EUR.
    const job = new SmallJob().add('a', 'latchet').add('b', 'reedling').add('c', 'reedling')
    expect(sums(job)).toMatchObject({ currency: 'EUR', toBuy: 76, elsewhere: 1 })
    expect(sums(job.add('d', 'latchet').add('e', 'latchet'))).toMatchObject({ currency: 'USD', elsewhere: 2 })
  })

  it('counts the price of one where several come in a pack', () => {
    const fob = catalogue.get('device', 'device/quartet') ?? expect.fail('no fob')
    const packed = keepEntry({ ...fob, price: { amount: 90, currency: 'EUR', pack: 4 } })
    const job = new SmallJob().add('a', 'quartet').add('b', 'quartet').add('c', 'quartet')
    // 90 EUR for four: 22.50 each, three of them 67.50; 100 for three is 33.33 each.
    expect(kitSums(systemOf(job.doc, catalogue.with([packed]))).toBuy).toBe(67.5)
    const odd = keepEntry({ ...fob, price: { amount: 100, currency: 'EUR', pack: 3 } })
    const one = new SmallJob().add('a', 'quartet')
    expect(kitSums(systemOf(one.doc, catalogue.with([odd]))).toBuy).toBe(33.33)
  })

  it('lists batteries most first, equal ones by name, and none of what takes none', () => {
    const job = new SmallJob()
      .add('fob', 'quartet')
      .add('gas', 'wick')
      .add('slim', 'reedling-slim')
      .add('door', 'reedling')
      .add('frame', 'reedling-frame')
    // CR2032 in fob and slim contact, AA twice in the gas alarm, then one each of CR123A and CR2.
    expect(sums(job).batteries).toEqual([
      { type: 'AA', count: 2 },
      { type: 'CR2032', count: 2 },
      { type: 'CR123A', count: 1 },
      { type: 'CR2', count: 1 },
    ])
    const none = catalogue.get('device', 'device/reedling') ?? expect.fail('no contact')
    const empty = keepEntry({ ...none, batteries: { count: 0, type: 'CR123A' } })
    const one = new SmallJob().add('a', 'reedling')
    expect(kitSums(systemOf(one.doc, catalogue.with([empty]))).batteries).toEqual([])
  })

  it('takes the first currency by name where two have as many prices', () => {
    const ways = [
      new SmallJob().add('a', 'latchet').add('b', 'reedling'),
      new SmallJob().add('a', 'reedling').add('b', 'latchet'),
    ]
    for (const job of ways) expect(sums(job)).toMatchObject({ currency: 'EUR', toBuy: 38, elsewhere: 1 })
  })

  it('counts as unpriced only what is to be bought', () => {
    const job = new SmallJob().add('old', 'reedling-old', { existing: true, plan: 'keep' })
    expect(sums(job).unpriced).toBe(0)
  })

  it('is empty for an empty kit', () => {
    expect(sums(new SmallJob())).toEqual({
      ...{ batteries: [], currency: null, toBuy: 0, saved: 0, elsewhere: 0, unpriced: 0 },
    })
  })
})
