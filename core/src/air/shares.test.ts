import { describe, expect, it } from 'vitest'
import type { DeviceModel, Family } from '../catalogue/schema.ts'
import { asItIs } from '../job/evidence.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { readSticker } from '../identity/sticker.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { transmissions, type Transmission } from './air.ts'

/*
 * What the simulated air is made of, counted over many seeds: how often each thing happens, and what never does. Shares are those that
 * the exercise means to have; five in a hundred either way is chance.
 */

const SLOT = 3000
/** No two are one sign apart, so that a mistyped one is never another's. */
const stickers = {
  ...{ porch: '58230419', study: '20417733', hall: '31700452', landing: '60911204' },
  ...{ lounge: '77345601', kitchen: '94028817', bedroom: '15563390', fob: 'AB12CD34' },
}
const own = new Set<string>(Object.values(stickers))
const wren = catalogue.get('family', 'family/wren') as Family
const bare = cleanTarn().set('job:main', { practice: true })
for (const [key, sticker] of Object.entries(stickers)) bare.set(`device:${key}`, { sticker })

/** Half an hour of air under one seed; eight devices of the job's own. */
const airOf = (airSeed: number, exercise: 'plain' | 'surprises'): Transmission[] => {
  const { doc } = bare
  bare.set('job:main', { airSeed, exercise })
  const heard = transmissions({ doc: bare.doc, catalogue }, 0, 30 * 60_000)
  bare.doc = doc
  return heard
}
const seeds = Array.from({ length: 30 }, (_, index) => index * 7919 + 1)
/** Made anew for each test: the mutation runner tells by it which test hears what. */
const plainAir = (): Transmission[][] => seeds.map((seed) => airOf(seed, 'plain'))
const oddAir = (): Transmission[][] =>
  Array.from({ length: 200 }, (_, index) => airOf(index * 104_729 + 3, 'surprises'))

const share = (list: readonly Transmission[], is: (item: Transmission) => boolean): number =>
  list.filter(is).length / list.length
const near = (share: number, meant: number): void => {
  expect(share).toBeGreaterThan(meant - 0.05)
  expect(share).toBeLessThan(meant + 0.05)
}
const slotOf = ({ atMs }: Transmission): number => Math.floor(atMs / SLOT)

describe('a plain exercise', () => {
  const everything = () => {
    const all = plainAir().flat()
    const mine = all.filter(({ serial }) => own.has(serial))
    return { all, mine, foreign: all.filter(({ serial }) => !own.has(serial)) }
  }

  it('gives three quarters of the time to the job’s own devices', () => {
    const { all, mine } = everything()
    near(mine.length / all.length, 0.75)
  })

  it('has strangers mostly check in, and otherwise trip', () => {
    const { foreign } = everything()
    near(
      share(foreign, ({ cause }) => cause === 'check-in'),
      0.6,
    )
    expect(new Set(foreign.map(({ cause }) => cause))).toEqual(new Set(['check-in', 'event']))
  })

  it('has a contact send its tamper one time in five, and check in one in ten', () => {
    const { mine } = everything()
    const porch = mine.filter(({ serial }) => serial === stickers.porch)
    near(
      share(porch, ({ cause }) => cause === 'tamper'),
      0.2,
    )
    near(
      share(porch, ({ cause }) => cause === 'check-in'),
      0.1,
    )
    near(
      share(porch, ({ cause }) => cause === 'event'),
      0.7,
    )
  })

  it('has no tamper of what has none', () => {
    const without = new SmallJob({ practice: true })
    const model = catalogue
      .all('device')
      .find(
        (item) =>
          item.family === 'family/wren' &&
          item.slot === 'none' &&
          item.ways.every((way) => way.sends !== 'tamper') &&
          item.loops.some((loop) => loop.bench),
      )
    if (!model) return
    without.add('one', model.id.slice(7), { sticker: '20417734' }).number()
    const heard = transmissions({ doc: without.doc, catalogue }, 0, 60 * 60_000)
    const sent = heard.filter(({ serial }) => serial === '20417734')
    expect(sent.length).toBeGreaterThan(100)
    near(
      share(sent, ({ cause }) => cause === 'check-in'),
      0.3,
    )
  })

  it('sends at most once in a slot, within its first second', () => {
    const { all } = everything()
    const plain = plainAir()
    for (const heard of plain) {
      expect(new Set(heard.map(slotOf)).size).toBe(heard.length)
      expect(Math.max(...heard.map(({ atMs }) => atMs % SLOT))).toBeLessThan(900)
    }
    expect(Math.max(...all.map(({ atMs }) => atMs % SLOT))).toBeGreaterThan(800)
    expect(new Set(all.map(({ atMs }) => atMs % SLOT)).size).toBeGreaterThan(500)
  })

  it('lets each device of its own send twice in a row, one after the other', () => {
    const plain = plainAir()
    for (const heard of plain)
      for (const item of heard) {
        if (!own.has(item.serial)) continue
        const other = heard.find((one) => one !== item && slotOf(one) >> 1 === slotOf(item) >> 1)
        if (other && own.has(other.serial)) expect(other.serial).toBe(item.serial)
      }
    // Eight devices take turns of two slots each.
    const turns = plain.flatMap((heard) =>
      heard
        .filter(({ serial }) => own.has(serial))
        .map((item) => `${(slotOf(item) >> 1) % 8} ${item.serial}`),
    )
    expect(new Set(turns).size).toBe(8)
  })

  it('has three strangers of each family that the panel hears, weak, on loops that can be tripped', () => {
    const plain = plainAir()
    for (const heard of plain) {
      const strangers = heard.filter(({ serial }) => !own.has(serial))
      const families = new Set(strangers.map(({ family }) => family))
      expect(families).toEqual(new Set(['family/wren', 'family/wren-c']))
      for (const family of families)
        expect(
          new Set(strangers.filter((item) => item.family === family).map(({ serial }) => serial)).size,
        ).toBe(3)
      for (const item of strangers)
        expect(item.level).toBe(Math.max(1, (wren.placement.least ?? Infinity) - 1))
    }
  })

  it('has strangers of classes and loops that their family really has, and none from a slot', () => {
    const { foreign } = everything()
    for (const item of foreign) {
      const models = catalogue
        .all('device')
        .filter((model) => model.family === item.family && model.class === item.deviceClass)
      expect(models.some((model) => model.slot === 'none')).toBe(true)
      if (item.loop !== null)
        expect(
          models.some((model) => model.loops.some((loop) => loop.bench && loop.loop === item.loop)),
        ).toBe(true)
    }
    const classes = new Set(foreign.map(({ deviceClass }) => deviceClass))
    expect(classes.size).toBeGreaterThan(5)
    expect(['fob', 'keypad', 'siren'].some((name) => classes.has(name))).toBe(false)
  })

  it('says an event’s loop, and of nothing else one', () => {
    const { all } = everything()
    for (const { cause, loop } of all) expect(loop === null).toBe(cause === 'tamper' || cause === 'check-in')
  })

  it('is encrypted where the model always is', () => {
    const { all, mine } = everything()
    for (const item of all) {
      const models: readonly DeviceModel[] = catalogue
        .all('device')
        .filter((model) => model.family === item.family && model.class === item.deviceClass)
      expect(models.some((model) => (model.encryption === 'always') === item.encrypted)).toBe(true)
    }
    expect(new Set(mine.filter(({ encrypted }) => encrypted).map(({ serial }) => serial))).toEqual(
      new Set([stickers.fob]),
    )
  })

  it('names each transmission by seed and slot', () => {
    const plain = plainAir()
    for (const [index, heard] of plain.entries())
      for (const item of heard) expect(item.id).toBe(`air-${seeds[index]}-${slotOf(item)}`)
  })

  it('begins with the first moment asked for and ends before the last', () => {
    const plain = plainAir()
    const [first] = plain
    const [one] = first ?? []
    if (!one) throw new Error('nothing heard')
    bare.set('job:main', { airSeed: seeds[0] ?? 0, exercise: 'plain' })
    const between = (from: number, to: number) =>
      transmissions({ doc: bare.doc, catalogue }, from, to).map(({ id }) => id)
    expect(between(one.atMs, one.atMs + 1)).toEqual([one.id])
    expect(between(one.atMs - 1, one.atMs)).toEqual([])
    expect(between(one.atMs + 1, one.atMs + 2)).toEqual([])
    expect(between(0, 0)).toEqual([])
    // Nothing is sent before listening began.
    expect(between(-100_000, SLOT)).toEqual(between(0, SLOT))
  })
})

describe('who sends at all', () => {
  it('nobody where there is nobody: no device, no panel', () => {
    const empty = new SmallJob({ panel: null, practice: true })
    expect(transmissions({ doc: empty.doc, catalogue }, 0, 60_000)).toEqual([])
  })

  it('strangers alone where the job has no device', () => {
    const empty = new SmallJob({ practice: true })
    const heard = transmissions({ doc: empty.doc, catalogue }, 0, 30 * 60_000)
    expect(new Set(heard.map(({ serial }) => serial)).size).toBe(6)
  })

  it('no device whose place is not known, and none by wire', () => {
    const job = new SmallJob({ practice: true })
      .add('porch', 'reedling', { sticker: '20417734', deferred: 'no room yet' })
      .add('study', 'reedling', { sticker: '31700452' })
    const wired = catalogue.all('device').find((item) => item.family === null && item.class === 'contact')
    if (!wired) throw new Error('no wired contact')
    job.add('cellar', wired.id.slice(7), { sticker: '40404040' })
    const heard = new Set(
      transmissions({ doc: job.doc, catalogue }, 0, 30 * 60_000).map(({ serial }) => serial),
    )
    expect([heard.has('20417734'), heard.has('31700452'), heard.has('40404040')]).toEqual([
      false,
      true,
      false,
    ])
  })

  it('a device without a zone by every loop that can be tripped', () => {
    const job = new SmallJob({ practice: true }).add('porch', 'reedling', { sticker: '20417734' })
    const loops = transmissions({ doc: job.doc, catalogue }, 0, 60 * 60_000).flatMap(({ serial, loop }) =>
      serial === '20417734' && loop !== null ? [loop] : [],
    )
    expect(new Set(loops)).toEqual(new Set([3, 4]))
  })
})

describe('an exercise with surprises', () => {
  const counted = (odd: Transmission[][], is: (heard: readonly Transmission[]) => boolean): number =>
    odd.filter(is).length / odd.length
  const mistypedPorch = (heard: readonly Transmission[]): string[] =>
    [...new Set(heard.map(({ serial }) => serial))].filter(
      (serial) =>
        serial.length === 8 &&
        !own.has(serial) &&
        [...serial].filter((sign, at) => sign !== stickers.porch[at]).length === 1,
    )
  const of = (heard: readonly Transmission[], serial: string) =>
    heard.filter((item) => item.serial === serial)

  it('mistypes one sticker in seven, by one sign, and then the noted ID is never heard', () => {
    const odd = oddAir()
    near(
      counted(odd, (heard) => mistypedPorch(heard).length > 0),
      0.15,
    )
    for (const heard of odd) {
      const mistyped = mistypedPorch(heard)
      if (mistyped.length > 0) expect([mistyped.length, of(heard, stickers.porch).length]).toEqual([1, 0])
    }
  })

  it('has one in ten silent until somebody does what helps it, and none for good', () => {
    const silent = (heard: readonly Transmission[]) =>
      of(heard, stickers.porch).length === 0 && mistypedPorch(heard).length === 0
    near(counted(oddAir(), silent), 0.1)
    const { doc } = bare
    const cures = new Set<string>()
    const start = Date.parse('2026-05-04T10:00:00Z')
    for (let index = 0; index < 200; index++) {
      const seed = index * 104_729 + 3
      if (!silent(airOf(seed, 'surprises'))) continue
      const cure = (['other-way', 'battery', 'nearer'] as const).filter((rung) => {
        bare.set('job:main', { airStartedAt: '2026-05-04T10:00:00.000Z' }).apply([
          {
            op: 'add',
            record: {
              ...evidenceBy('Idris', new Date(start + 300_000).toISOString()),
              ...{ id: 'tried:1', type: 'tried', rung, way: '' },
              ...{ subject: 'device:porch', of: asItIs(bare.doc, 'device:porch') },
            },
          },
        ])
        const porch = of(airOf(seed, 'surprises'), stickers.porch)
        bare.doc = doc
        // Nothing of it before it was tried.
        if (porch.length > 0) expect(porch[0]?.atMs).toBeGreaterThanOrEqual(300_000)
        return porch.length > 0
      })
      expect([seed, cure.length]).toEqual([seed, 1])
      for (const one of cure) cures.add(one)
    }
    expect(cures).toEqual(new Set(['other-way', 'battery', 'nearer']))
  })

  it('has one motion in seven asleep: awake in two slots of twelve', () => {
    const odd = oddAir()
    const asleep = odd.filter((heard) => {
      const hall = of(heard, stickers.hall)
      return hall.length > 0 && hall.every((item) => slotOf(item) % 12 < 2)
    })
    near(asleep.length / odd.length, 0.15)
    // A contact never sleeps.
    expect(
      odd.some((heard) => {
        const porch = of(heard, stickers.porch)
        return porch.length > 0 && porch.every((item) => slotOf(item) % 12 < 2)
      }),
    ).toBe(false)
  })

  it('has one in seven low on battery and weak with it, all the others strong', () => {
    const odd = oddAir()
    const low = (heard: readonly Transmission[]) => of(heard, stickers.porch).some((item) => item.lowBattery)
    near(counted(odd, low), 0.15)
    for (const item of odd.flat()) {
      if (!own.has(item.serial)) continue
      const family = catalogue.get('family', item.family)
      const { least, best } = family?.placement ?? {}
      expect(item.level).toBe(item.lowBattery ? least : best)
    }
    expect(odd.flat().some((item) => item.lowBattery && !own.has(item.serial))).toBe(false)
  })

  it('has two at once one time in eight, within 400 ms, of two senders', () => {
    const odd = oddAir()
    let pairs = 0
    let slots = 0
    const apart: number[] = []
    for (const heard of odd) {
      for (const slot of new Set(heard.map(slotOf))) {
        const items = heard.filter((item) => slotOf(item) === slot)
        slots += 1
        expect(items.length).toBeLessThanOrEqual(2)
        const [one, two] = items
        if (!one || !two) continue
        pairs += 1
        expect(one.serial).not.toBe(two.serial)
        expect(two.id).toBe(`${one.id}-2`)
        expect(one.id.endsWith(`-${slot}`)).toBe(true)
        apart.push(two.atMs - one.atMs)
      }
    }
    // One in eight draws a second sender, and about one in fourteen of those the same again.
    near(pairs / slots, 0.11)
    expect(Math.min(...apart)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...apart)).toBeLessThan(400)
    expect(new Set(apart).size).toBeGreaterThan(200)
  })

  it('has one strong stranger of each family of the job, of a model that the job has too', () => {
    const odd = oddAir()
    const mine = new Set(['contact', 'motion', 'glass-break', 'smoke', 'gas', 'panic', 'fob'])
    for (const heard of odd) {
      const strong = heard.filter(
        (item) => item.level === wren.placement.best && !own.has(item.serial) && !item.lowBattery,
      )
      const ids = new Set(strong.filter(({ serial }) => serial.length === 8).map(({ serial }) => serial))
      // A mistyped sticker of the job's own is strong as well.
      expect(ids.size).toBeGreaterThanOrEqual(1)
      for (const item of strong) expect(mine.has(item.deviceClass)).toBe(true)
    }
  })

  it('mistypes a check digit’s ID by two neighbouring signs, else by one, and always validly', () => {
    const dunlin = catalogue.get('family', 'family/dunlin') as Family
    const off = new Set<number>()
    for (let airSeed = 0; airSeed < 80; airSeed++) {
      const job = new SmallJob({ panel: 'panel/morrow-60', practice: true, exercise: 'surprises', airSeed })
        .receiver('morrow-radio-module')
        .add('front', 'latchet', { sticker: '41037256', use: 'entry' })
        .number()
      for (const { serial, level } of transmissions({ doc: job.doc, catalogue }, 0, 10 * 60_000)) {
        expect(readSticker(dunlin, serial)).toEqual({ ok: true, serial })
        const places = [...serial].flatMap((sign, at) => (sign === '41037256'[at] ? [] : [at]))
        if (level !== dunlin.placement.best || places.length === 0 || places.length > 2) continue
        off.add(places.length)
        expect((places.at(-1) ?? 0) - (places[0] ?? 0)).toBe(1)
      }
    }
    expect([...off]).toEqual([2])
  })
})
