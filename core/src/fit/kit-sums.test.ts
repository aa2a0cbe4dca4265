import { describe, expect, it } from 'vitest'
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

  it('is empty for an empty kit', () => {
    expect(sums(new SmallJob())).toEqual({
      ...{ batteries: [], currency: null, toBuy: 0, saved: 0, elsewhere: 0, unpriced: 0 },
    })
  })
})
