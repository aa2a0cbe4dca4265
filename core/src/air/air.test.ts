import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readSticker } from '../identity/sticker.ts'
import { catalogue, cleanTarn, type SmallJob } from '../testing/small-job.ts'
import { seededRandom } from '../units/random.ts'
import { inventId, transmissions } from './air.ts'

const stickers = {
  porch: '11110001',
  study: '11110002',
  hall: '11110003',
  landing: '11110004',
  fob: 'AB12CD34',
}

function ready(): SmallJob {
  const job = cleanTarn()
  for (const [key, sticker] of Object.entries(stickers)) job.set(`device:${key}`, { sticker })
  return job
}

const minutes = (count: number): number => count * 60_000

describe('the simulated air', () => {
  it('is the same for two who listen', () => {
    expect(transmissions(ready().doc, catalogue, 0, minutes(10))).toEqual(
      transmissions(ready().doc, catalogue, 0, minutes(10)),
    )
  })

  it('gives in pieces what it gives whole', () => {
    const { doc } = ready()
    const whole = transmissions(doc, catalogue, 0, minutes(4))
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: minutes(4) }), { maxLength: 12 }), (cuts) => {
        const points = [0, ...cuts.sort((a, b) => a - b), minutes(4)]
        const pieces = points
          .slice(1)
          .flatMap((to, index) => transmissions(doc, catalogue, points[index] ?? 0, to))
        expect(pieces).toEqual(whole)
      }),
      { seed: 7, numRuns: 60 },
    )
  })

  it('carries every device of the job within ten minutes, and strangers weaker than they', () => {
    const heard = transmissions(ready().doc, catalogue, 0, minutes(10))
    const own = new Set<string>(Object.values(stickers))
    expect(
      [...own].filter((serial) => !heard.some((item) => item.serial === serial && item.cause !== 'tamper')),
    ).toEqual([])
    const foreign = heard.filter((item) => !own.has(item.serial))
    expect(foreign.length).toBeGreaterThan(5)
    expect(Math.max(...foreign.map((item) => item.level))).toBeLessThan(
      Math.min(...heard.filter((item) => own.has(item.serial)).map((item) => item.level)),
    )
  })

  it('trips only loops that have a zone and can be tripped on the bench', () => {
    const heard = transmissions(ready().doc, catalogue, 0, minutes(20))
    const loopsOf = (serial: string) =>
      new Set(heard.filter((item) => item.serial === serial && item.loop !== null).map((item) => item.loop))
    // A Reedling's reed is loop 3; its terminals (loop 4) have no zone here. An Ember Three's heat and frost need an oven and a freezer.
    expect([...loopsOf(stickers.porch)]).toEqual([3])
    expect([...loopsOf(stickers.landing)]).toEqual([1])
    expect(loopsOf(stickers.fob).size).toBe(4)
  })

  it('brings tampers and check-ins too', () => {
    const causes = new Set(transmissions(ready().doc, catalogue, 0, minutes(10)).map((item) => item.cause))
    expect([...causes].sort()).toEqual(['button', 'check-in', 'event', 'tamper'])
  })

  it('is another with another seed', () => {
    const other = ready().set('job:main', { airSeed: 5 })
    expect(transmissions(other.doc, catalogue, 0, minutes(2))).not.toEqual(
      transmissions(ready().doc, catalogue, 0, minutes(2)),
    )
  })
})

it('invents IDs that each family reads as its own', () => {
  for (const family of catalogue.all('family'))
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4_000_000_000 }), (seed) => {
        const id = inventId(family, seededRandom(seed))
        expect(readSticker(family, id)).toEqual({ ok: true, serial: id })
      }),
      { seed: 1, numRuns: 100 },
    )
})
