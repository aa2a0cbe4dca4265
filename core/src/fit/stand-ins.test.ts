import { describe, expect, it } from 'vitest'
import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel } from '../catalogue/schema.ts'
import { keepEntry } from '../catalogue/written.ts'
import { recordOf } from '../job/document.ts'
import { pinOps } from '../job/start.ts'
import { aDevice } from '../job/testing/records.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { systemOf } from '../system/system.ts'
import { encryptedVariant, neededEvents, remediesFor, stands, swapOps } from './remedies.ts'

const model = (id: string): DeviceModel => catalogue.get('device', `device/${id}`) ?? expect.fail(`no ${id}`)
const reedling = model('reedling')
const withModels = (...models: readonly DeviceModel[]): Catalogue => catalogue.with(models.map(keepEntry))

describe('what can stand in a device’s place', () => {
  const may = (
    change: Partial<DeviceModel>,
    opts: { from?: Partial<DeviceModel>; needed?: readonly (string | null)[]; petKg?: number | null } = {},
  ): boolean => {
    const system = systemOf(new SmallJob({ petKg: opts.petKg ?? null }).doc, catalogue)
    const before = { ...reedling, ...opts.from }
    const other = { ...before, id: 'device/other', ...change }
    return stands(system, { model: before, other }, new Set(opts.needed ?? ['open']))
  }

  it('is the same thing of another make', () => {
    expect(may({ maker: 'Other', name: 'Other contact' })).toBe(true)
  })

  it.each<[string, Partial<DeviceModel>]>([
    ['another class', { class: 'shock' }],
    ['another place on the panel', { slot: 'fob' }],
    ['what is no longer made', { discontinued: { successor: null } }],
    ['a wired one, whose terminal would be another number', { family: null }],
    ['what is carried', { carried: true }],
    ['what lacks the event', { loops: [{ loop: 1, event: 'terminals', name: 'terminals', bench: true }] }],
  ])('is not %s', (_what, change) => {
    expect(may(change)).toBe(false)
  })

  it('may be wired or not where it has no zone: a siren', () => {
    const siren = { ...model('herald-8'), loops: [] }
    expect(may({ family: null }, { from: siren, needed: [] })).toBe(true)
  })

  it('needs every event that has a zone, and no event of a zone without one', () => {
    expect(may({}, { needed: ['open', 'terminals'] })).toBe(true)
    expect(may({}, { needed: ['open', 'motion'] })).toBe(false)
    expect(may({}, { needed: [null] })).toBe(true)
    expect(may({}, { needed: [] })).toBe(true)
  })

  it('stands the weather where the other did, and its cold', () => {
    const yard = { outdoor: true, temperatureC: { from: -20, to: 50 } }
    expect(may({}, { from: yard })).toBe(true)
    expect(may({ outdoor: false }, { from: yard })).toBe(false)
    expect(may({ outdoor: undefined }, { from: yard })).toBe(false)
    expect(may({ temperatureC: { from: -10, to: 50 } }, { from: yard })).toBe(false)
    expect(may({ temperatureC: { from: -30, to: 50 } }, { from: yard })).toBe(true)
    // Indoors the lowest temperature decides nothing.
    expect(may({ temperatureC: { from: 0, to: 40 } }, { from: { outdoor: false } })).toBe(true)
    expect(may({ outdoor: true }, { from: { outdoor: false } })).toBe(true)
  })

  it('tolerates the pet of the house, as far as the other did', () => {
    const motion = { ...model('stilt-hound'), petKg: 20 }
    const pet = (petKg: number | null, other: number | null) =>
      may({ petKg: other }, { from: motion, needed: ['motion'], petKg })
    expect(pet(18, 18)).toBe(true)
    expect(pet(18, 17)).toBe(false)
    expect(pet(18, null)).toBe(false)
    // The other took 20 kg: nobody is promised more than that.
    expect(pet(30, 20)).toBe(true)
    expect(pet(30, 19)).toBe(false)
    // Without a pet in the house any will do, and what tolerated none before need not now.
    expect(pet(null, null)).toBe(true)
    expect(may({ petKg: null }, { from: { ...motion, petKg: null }, needed: ['motion'], petKg: 18 })).toBe(
      true,
    )
    expect(may({ petKg: null }, { from: { petKg: 18 }, petKg: 18 })).toBe(true)
  })
})

describe('the order of swaps', () => {
  const made = (key: string, over: Partial<DeviceModel>): DeviceModel => {
    const { price, variant, discontinued, ...bare } = reedling
    expect([price?.currency, variant, discontinued]).toEqual(['EUR', undefined, undefined])
    return { ...bare, id: `device/${key}`, maker: 'Northwold', name: `${key} contact`, ...over }
  }
  const price = (amount: number) => ({ amount, currency: 'EUR', pack: 1 })
  const swapTitles = (models: readonly DeviceModel[], of: string): string[] => {
    // The Tarn hears no Plover: what is swapped does not fit, the others do.
    const small = withModels(...models)
    const job = new SmallJob()
    job.apply([...pinOps(job.doc, small, [of]), { op: 'add', record: aDevice('one', { model: of }) }])
    return remediesFor({ doc: job.doc, catalogue: small }, 'device:one', {
      newId: () => 'x',
      costs: job.houseRules.costs,
    })
      .filter(({ kind }) => kind === 'swap')
      .map(({ title }) => title)
  }

  it('is successor, variant, same maker, then the cheaper of others, four at most', () => {
    const old = made('Elder', {
      family: 'family/plover',
      class: 'shock',
      loops: [{ loop: 1, event: 'freeze', name: 'odd event', bench: true }],
      discontinued: { successor: 'device/Younger' },
    })
    const like = (key: string, over: Partial<DeviceModel> = {}) =>
      made(key, { class: 'shock', loops: old.loops, ...over })
    const titles = swapTitles(
      [
        old,
        like('Zephyr', { maker: 'Southwold', price: price(10) }),
        like('Aspen', { maker: 'Southwold', price: price(20) }),
        like('Birch', { price: price(90) }),
        like('Kin', { maker: 'Southwold', variant: { of: 'Elder', how: 'white' }, price: price(95) }),
        like('Younger', { price: price(99) }),
      ],
      'device/Elder',
    )
    expect(titles).toEqual([
      'Swap it for Younger contact, its successor',
      'Swap it for Kin contact',
      'Swap it for Birch contact',
      'Swap it for Zephyr contact',
    ])
  })
})

describe('what a swap writes', () => {
  it('loop and code of the other in every zone, and neither on a wired one or one with switches', () => {
    const job = new SmallJob().add('one', 'ember-three', { sticker: '60911204' }).number()
    const zones = ['smoke', 'heat', 'freeze'].map((event) => job.zone('one', event))
    const device = job.device('one')
    const fields = (other: DeviceModel, small = catalogue): unknown[] =>
      swapOps({ doc: job.doc, catalogue: small }, device, other)
        .flatMap((op) => (op.op === 'set' ? [op] : []))
        .map(({ id, field, to }) => [zones.findIndex((zone) => zone.id === id), field, to])
    const other = model('ember-three-c')
    const loopOf = (event: string): number | undefined =>
      other.loops.find((loop) => loop.event === event)?.loop
    const code = other.equipmentCodes.find(({ panel }) => panel === 'panel/tarn-40')?.code
    expect(fields(other)).toEqual(
      [
        [-1, 'model', 'device/ember-three-c'],
        [-1, 'sticker', null],
        ...zones.flatMap((zone, index) => [
          [index, 'loop', loopOf(zone.event ?? '')],
          [index, 'equipmentCode', code],
        ]),
      ].filter(([index, field, to]) => {
        const zone = zones[Number(index)]
        return !zone || zone[field as 'loop'] !== to
      }),
    )
    // Wired, or told apart by switches: no loop; a model without a code for this panel: none.
    const wired = { ...other, id: 'device/w', family: null, equipmentCodes: [] }
    expect(fields(wired, withModels(wired))).toContainEqual([0, 'loop', null])
    expect(fields(wired, withModels(wired))).toContainEqual([0, 'equipmentCode', null])
    const switched = { ...other, id: 'device/s', switches: [{ switch: 'reed' as const, on: true }] }
    expect(fields(switched, withModels(switched))).toContainEqual([0, 'loop', null])
    // An event that the other lacks has no loop there.
    const less = { ...other, id: 'device/l', loops: other.loops.slice(0, 1) }
    expect(fields(less, withModels(less))).toContainEqual([1, 'loop', null])
  })

  it('leaves the code alone on a panel that keys none', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('one', 'sill-8')
      .number()
    job.set(job.zone('one').id, { equipmentCode: '77' })
    const ops = swapOps({ doc: job.doc, catalogue }, job.device('one'), model('sill-slim-8'))
    expect(ops.some((op) => op.op === 'set' && op.field === 'equipmentCode')).toBe(false)
  })

  it('needs the events of the zones there are, else of those it would get', () => {
    const job = new SmallJob().add('one', 'ember-three')
    const needed = () => {
      const system = systemOf(job.doc, catalogue)
      return [...neededEvents({ doc: job.doc, system }, job.device('one'), model('ember-three'))].sort()
    }
    expect(needed()).toEqual(['freeze', 'heat', 'smoke'])
    job.add('two', 'reedling').number()
    job.apply([{ op: 'remove', record: job.zone('one', 'freeze') }])
    expect(needed()).toEqual(['heat', 'smoke'])
  })
})

describe('an encrypted variant', () => {
  const variantOf = (job: SmallJob, key: string, small = catalogue) => {
    const item = systemOf(job.doc, small).byId.get(`device:${key}`) ?? expect.fail(key)
    return encryptedVariant({ doc: job.doc, catalogue: small }, item)?.name ?? null
  }

  it('is the nearest that always encrypts and is heard there', () => {
    expect(variantOf(new SmallJob().add('fob', 'quartet', { room: '' }), 'fob')).toBe('Quartet C fob')
    expect(variantOf(new SmallJob().add('one', 'reedling'), 'one')).toBe('Reedling C contact')
    expect(variantOf(new SmallJob().add('one', 'reedling-slim'), 'one')).toBe('Reedling Slim C contact')
  })

  it('is none where the firmware is too old to hear it, or nothing of the class encrypts', () => {
    expect(variantOf(new SmallJob({ radioFirmware: '1.10' }).add('one', 'reedling'), 'one')).toBeNull()
    expect(
      variantOf(new SmallJob({ panel: 'panel/pinfold-16' }).add('fob', 'trine', { room: '' }), 'fob'),
    ).toBeNull()
    // Optional encryption falls back to plain: it is no cure.
    expect(variantOf(SmallJob.morrow().add('fob', 'fourkey', { room: '' }), 'fob')).toBeNull()
  })

  it('is none of another class, however near', () => {
    const odd = { ...model('quartet-c'), id: 'device/odd', name: 'Reedling X contact', class: 'fob' as const }
    const job = new SmallJob().add('one', 'puddle')
    expect(variantOf(job, 'one', withModels(odd))).toBeNull()
    expect(recordOf(job.doc, 'device', 'device:one')?.model).toBe('device/puddle')
  })
})
