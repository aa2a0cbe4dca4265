import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readSticker } from '../identity/sticker.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { seededRandom } from '../units/random.ts'
import { inventId, transmissions, type Transmission } from './air.ts'
import { clashWith } from './judge.ts'

const stickers = {
  porch: '11110001',
  study: '11110002',
  hall: '11110003',
  landing: '11110004',
  lounge: '11110005',
  kitchen: '11110006',
  bedroom: '11110007',
  fob: 'AB12CD34',
}

function ready(): SmallJob {
  const job = cleanTarn().set('job:main', { practice: true })
  for (const [key, sticker] of Object.entries(stickers)) job.set(`device:${key}`, { sticker })
  return job
}

const minutes = (count: number): number => count * 60_000

describe('the simulated air', () => {
  it('is the same for two who listen', () => {
    expect(transmissions({ doc: ready().doc, catalogue }, 0, minutes(10))).toEqual(
      transmissions({ doc: ready().doc, catalogue }, 0, minutes(10)),
    )
  })

  it('gives in pieces what it gives whole', () => {
    const { doc } = ready()
    const whole = transmissions({ doc, catalogue }, 0, minutes(4))
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: minutes(4) }), { maxLength: 12 }), (cuts) => {
        const points = [0, ...cuts.sort((a, b) => a - b), minutes(4)]
        const pieces = points
          .slice(1)
          .flatMap((to, index) => transmissions({ doc, catalogue }, points[index] ?? 0, to))
        expect(pieces).toEqual(whole)
      }),
      { seed: 7, numRuns: 60 },
    )
  })

  it('carries every device of the job within ten minutes, and strangers weaker than they', () => {
    const heard = transmissions({ doc: ready().doc, catalogue }, 0, minutes(10))
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
    const heard = transmissions({ doc: ready().doc, catalogue }, 0, minutes(20))
    const loopsOf = (serial: string) =>
      new Set(heard.filter((item) => item.serial === serial && item.loop !== null).map((item) => item.loop))
    // A Reedling's reed is loop 3; its terminals (loop 4) have no zone here. An Ember Three's heat and frost need an oven and a freezer.
    expect([...loopsOf(stickers.porch)]).toEqual([3])
    expect([...loopsOf(stickers.landing)]).toEqual([1])
    expect(loopsOf(stickers.fob).size).toBe(4)
  })

  it('brings tampers and check-ins too', () => {
    const causes = new Set(
      transmissions({ doc: ready().doc, catalogue }, 0, minutes(10)).map((item) => item.cause),
    )
    expect([...causes].sort()).toEqual(['button', 'check-in', 'event', 'tamper'])
  })

  it('is another with another seed', () => {
    const other = ready().set('job:main', { airSeed: 5 })
    expect(transmissions({ doc: other.doc, catalogue }, 0, minutes(2))).not.toEqual(
      transmissions({ doc: ready().doc, catalogue }, 0, minutes(2)),
    )
  })
})

describe('practice only', () => {
  it('a real job hears nothing of it, whatever its seed and exercise', () => {
    for (const exercise of ['plain', 'surprises'] as const) {
      const real = ready().set('job:main', { practice: false, exercise })
      expect(transmissions({ doc: real.doc, catalogue }, 0, minutes(30))).toEqual([])
    }
  })

  it('a device without a noted sticker sends too, always the same ID of its family', () => {
    const job = ready().set('device:porch', { sticker: null })
    const heard = (at: SmallJob) =>
      new Set(
        transmissions({ doc: at.doc, catalogue }, 0, minutes(10))
          .filter((item) => item.loop === 3 && item.deviceClass === 'contact' && item.level === 4)
          .map((item) => item.serial),
      )
    const ids = [...heard(job)]
    expect(ids).toHaveLength(1)
    const wren = catalogue.get('family', 'family/wren')
    if (!wren) throw new Error('no Wren')
    expect(readSticker(wren, ids[0] ?? '')).toEqual({ ok: true, serial: ids[0] })
    expect([...heard(ready().set('device:porch', { sticker: null }))]).toEqual(ids)
  })

  it('brings the power-up of a siren and of a repeater', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', practice: true })
      .add('bell', 'singer-8', { slot: 1 })
      .add('relay', 'spanner-8')
    const heard = transmissions({ doc: job.doc, catalogue }, 0, minutes(5)).filter(
      (item) => item.level === 70,
    )
    expect(new Set(heard.map((item) => `${item.deviceClass} ${item.cause}`))).toEqual(
      new Set(['siren power-up', 'repeater power-up']),
    )
  })
})

describe('an exercise with surprises', () => {
  const wren = catalogue.get('family', 'family/wren')
  const own = new Set<string>(Object.values(stickers))
  /** What two hundred exercises bring in twenty minutes, each by its seed. */
  const exercises = () =>
    Array.from({ length: 200 }, (_, seed) => {
      const job = ready().set('job:main', { airSeed: seed, exercise: 'surprises' })
      return transmissions({ doc: job.doc, catalogue }, 0, minutes(20))
    })
  const some = (holds: (heard: readonly Transmission[]) => boolean) =>
    exercises().filter((heard) => holds(heard)).length

  it('mistypes stickers by one sign, sends low batteries, stays silent and sleeps, in some and not in all', () => {
    const near = (heard: readonly Transmission[]) =>
      heard.some(({ serial }) => {
        const off = [...serial].filter((sign, at) => sign !== stickers.porch[at]).length
        return serial.length === 8 && off === 1 && !own.has(serial)
      })
    const silent = (heard: readonly Transmission[]) =>
      !near(heard) && !heard.some((item) => item.serial === stickers.porch)
    const asleep = (heard: readonly Transmission[]) =>
      heard.filter((item) => item.serial === stickers.hall).length <
      heard.filter((item) => item.serial === stickers.study).length / 3
    for (const holds of [
      near,
      silent,
      asleep,
      (heard: readonly Transmission[]) => heard.some((item) => item.lowBattery),
    ]) {
      const count = some(holds)
      expect(count).toBeGreaterThan(10)
      expect(count).toBeLessThan(190)
    }
  })

  it('has a strong neighbour of the same model, and two at once', () => {
    const strong = (heard: readonly Transmission[]) =>
      heard.some((item) => !own.has(item.serial) && item.level === wren?.placement.best)
    expect(some(strong)).toBeGreaterThan(150)
    expect(some((heard) => heard.some((item) => clashWith(heard, item) !== null))).toBeGreaterThan(150)
  })

  it('is as repeatable as a plain one, and a plain one has none of it', () => {
    const job = ready().set('job:main', { exercise: 'surprises' })
    expect(transmissions({ doc: job.doc, catalogue }, 0, minutes(5))).toEqual(
      transmissions({ doc: job.doc, catalogue }, 0, minutes(5)),
    )
    const plain = transmissions({ doc: ready().doc, catalogue }, 0, minutes(20))
    expect(plain.some((item) => item.lowBattery || clashWith(plain, item) !== null)).toBe(false)
  })

  it('mistypes an ID with a check digit to another valid one', () => {
    const dunlin = catalogue.get('family', 'family/dunlin')
    if (!dunlin) throw new Error('no Dunlin')
    const heard = Array.from({ length: 60 }, (_, airSeed) => {
      const job = new SmallJob({ panel: 'panel/morrow-60', practice: true, exercise: 'surprises', airSeed })
      job
        .receiver('morrow-radio-module')
        .add('front', 'latchet', { sticker: '41037256', use: 'entry' })
        .number()
      return transmissions({ doc: job.doc, catalogue }, 0, minutes(5))
    }).flat()
    const near = heard.filter(
      ({ serial }) =>
        [...serial].filter((sign, at) => sign !== '41037256'[at]).length <= 2 && serial !== '41037256',
    )
    expect(near.length).toBeGreaterThan(0)
    for (const { serial } of heard) expect(readSticker(dunlin, serial)).toEqual({ ok: true, serial })
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
