import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { recordsOf } from '../job/document.ts'
import { applyOps, invertOps } from '../job/edit.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { numberAll } from './number-all.ts'
import { liveTerminals, numbersFor, printNumber } from './numbers.ts'
import { keepEntry } from '../catalogue/written.ts'

const tarn = catalogue.get('panel', 'panel/tarn-40')
const morrow = catalogue.get('panel', 'panel/morrow-60')
if (!tarn || !morrow) throw new Error('the demo pack lacks a panel')
const numbered = (
  job: SmallJob,
  newId = (
    (n) => () =>
      `zone:${(n += 1)}`
  )(0),
) => numberAll(job.doc, catalogue, { newId, houseRules: defaultHouseRules })
/** Ids that no zone here has. */
const fresh = (
  (n) => () =>
    `zone:fresh${(n += 1)}`
)(0)
const list = (job: SmallJob) =>
  recordsOf(job.doc, 'zone').map((zone) => `${zone.number} ${zone.device?.slice(7)} ${zone.event}`)

describe('numbering everything', () => {
  it('reads entry doors, openings, interior, life safety, carried', () => {
    expect(list(cleanTarn())).toEqual([
      '1 porch open',
      '2 study open',
      '3 hall motion',
      '4 lounge glass',
      '5 landing smoke',
      '6 landing heat',
      '7 landing freeze',
      '8 kitchen co',
      '9 bedroom panic',
    ])
    expect(cleanTarn().device('fob').slot).toBe(1)
  })

  it('fills every field of a zone', () => {
    expect(cleanTarn().zone('landing', 'heat')).toMatchObject({
      loop: 2,
      response: 'fire',
      equipmentCode: '507',
      equipmentKind: null,
      chime: false,
      report: true,
      supervise: true,
      transmissionDelay: false,
      label: 'Landing Heat',
      area: 'area:1',
    })
    const job = SmallJob.morrow().add('front', 'latchet', { use: 'entry', position: 'door' }).number()
    expect(job.zone('front')).toMatchObject({
      number: 7,
      loop: 1,
      response: 'entry-1',
      equipmentCode: null,
      equipmentKind: 'opening',
      chime: true,
      transmissionDelay: true,
      label: 'FRONT DOOR',
    })
  })

  it('keeps pinned and enrolled numbers and works around them', () => {
    const job = cleanTarn()
    job
      .set(job.zone('study').id, { number: 4, pinned: true })
      .set(job.zone('hall').id, { number: 1 })
      .learn(job.zone('hall').id, '12345678')
    job.number()
    expect(list(job).slice(0, 7)).toEqual([
      '1 hall motion',
      '2 porch open',
      '3 lounge glass',
      '4 study open',
      '5 landing smoke',
      '6 landing heat',
      '7 landing freeze',
    ])
  })

  it('keeps a device of several events together', () => {
    const job = new SmallJob().add('a', 'ember-three').add('b', 'reedling').number()
    job.set(job.zone('b').id, { number: 2, pinned: true }).number()
    expect([
      job.zone('a', 'smoke').number,
      job.zone('a', 'heat').number,
      job.zone('a', 'freeze').number,
    ]).toEqual([5, 3, 4])
  })

  it('begins wireless behind a fitted wired block', () => {
    const job = SmallJob.morrow().apply([
      { op: 'add', record: { id: 'terminal:9', type: 'terminal', number: 9, state: 'live' } },
    ])
    expect(job.add('front', 'latchet').number().zone('front').number).toBe(13)
    const off = SmallJob.morrow()
    for (let n = 7; n <= 12; n++)
      off.apply([{ op: 'add', record: { id: `terminal:${n}`, type: 'terminal', number: n, state: 'off' } }])
    expect(off.add('front', 'latchet').number().zone('front').number).toBe(7)
  })

  it.each([
    ['ostler-s-8', null, 'sill-slim-8', 1, 1, 11],
    ['ostler-s-9', 'ostler-radio-9', 'sill-9', 1, 1, 11],
    // Six terminals are always there; the seventh cable brings the second board.
    ['morrow-60', 'morrow-radio-module', 'latchet-thin', 7, 7, 13],
  ])(
    'moves radio off the block that its own wired zones bring, on %s, and is done once',
    (panel, receiver, contact, cables, before, after) => {
      const start = new SmallJob({
        panel: `panel/${panel}`,
        ...(panel === 'morrow-60' ? {} : { radioFirmware: '2.11' }),
        ...(panel === 'ostler-s-8' ? {} : { region: 'north-america' as const }),
      })
      const job = (receiver ? start.receiver(receiver) : start).add('window', contact).number()
      expect(job.zone('window').number).toBe(before)
      for (let cable = 1; cable <= cables; cable++) job.add(`gate${cable}`, 'contact-w')
      const plan = numbered(job, fresh)
      expect(plan.moves).toEqual([
        {
          zone: job.zone('window').id,
          from: before,
          to: after,
          why: `${before} is no number that a wireless zone may take here`,
        },
      ])
      job.number()
      expect(job.zone(`gate${cables}`).number).toBe(cables)
      expect(job.zone('window').number).toBe(after)
      expect(numbered(job).ops).toEqual([])
    },
  )

  it('leaves an enrolled radio zone where the panel knows it, though a wired block comes', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('window', 'sill-slim-8')
      .number()
    job.learn(job.zone('window').id, '20417733')
    job.add('gate', 'contact-w').number()
    expect([job.zone('window').number, job.zone('gate').number]).toEqual([1, 2])
    expect(numbered(job).ops).toEqual([])
  })

  it('gives wired devices wired numbers', () => {
    expect(new SmallJob().add('door', 'contact-w').number().zone('door')).toMatchObject({
      number: 41,
      loop: null,
      supervise: false,
    })
  })

  it('fills fob groups from the top of their range', () => {
    const job = SmallJob.morrow().add('one', 'fourkey').add('two', 'fourkey').number()
    expect(list(job)).toEqual([
      '76 two disarm',
      '77 two arm-stay',
      '78 two arm-away',
      '79 two output',
      '80 one disarm',
      '81 one arm-stay',
      '82 one arm-away',
      '83 one output',
    ])
    expect(job.zone('one', 'arm-away').response).toBe('command-away')
  })

  it('leaves out what is deferred or does not fit, and says when numbers run out', () => {
    const job = new SmallJob().add('later', 'stilt', { deferred: 'unknown room' }).add('siren', 'herald-8')
    expect(numbered(job, () => 'zone:x').ops).toEqual([])
    const noNumber = 'No wireless number is free for its 3 zones: Tarn 40 has 40 to give of 01–40.'
    const full = new SmallJob()
    for (let n = 0; n < 15; n++) full.add(`s${n}`, 'ember-three')
    const plan = numbered(full)
    expect([plan.added, plan.left]).toEqual([
      39,
      [
        { device: 'device:s13', reason: noNumber },
        { device: 'device:s14', reason: noNumber },
      ],
    ])
  })

  it('asks for a panel first', () => {
    expect(numbered(new SmallJob({ panel: null }), () => '').left[0]?.reason).toBe(
      'Choose a panel first: it decides the numbers.',
    )
  })

  it('is one edit that one undo takes back, and a second press changes nothing', () => {
    const job = cleanTarn()
    expect(numbered(job, () => 'zone:new').ops).toEqual([])
    const bare = new SmallJob().add('a', 'ember-three')
    const plan = numbered(bare)
    const done = applyOps(bare.doc, plan.ops)
    const undone = done.ok ? applyOps(done.doc, invertOps(done.took)) : done
    expect(undone.ok && undone.doc.records).toEqual(bare.doc.records)
  })

  it('never collides, never moves a pinned number, never leaves its range', () => {
    const models = fc.constantFrom(
      'reedling',
      'reedling-slim',
      'stilt',
      'ember-three',
      'beckon',
      'contact-w',
      'wick',
    )
    const device = fc.record({ model: models, pin: fc.option(fc.integer({ min: 1, max: 40 })) })
    fc.assert(
      fc.property(fc.array(device, { minLength: 1, maxLength: 16 }), (devices) => {
        const job = new SmallJob()
        devices.forEach((item, index) => job.add(`d${index}`, item.model))
        job.number()
        const pinned = new Map<string, number>()
        devices.forEach((item, index) => {
          const zone = recordsOf(job.doc, 'zone').find((z) => z.device === `device:d${index}`)
          if (
            !zone ||
            item.pin === null ||
            item.model === 'contact-w' ||
            [...pinned.values()].includes(item.pin)
          )
            return
          pinned.set(zone.id, item.pin)
          job.set(zone.id, { number: item.pin, pinned: true })
        })
        job.number()
        const zones = recordsOf(job.doc, 'zone')
        const numbers = zones.map((zone) => zone.number)
        const unpinned = zones.filter((zone) => !pinned.has(zone.id))
        expect(new Set(unpinned.map((zone) => zone.number)).size).toBe(unpinned.length)
        for (const zone of unpinned) expect([...pinned.values()]).not.toContain(zone.number)
        for (const [id, number] of pinned) expect(zones.find((zone) => zone.id === id)?.number).toBe(number)
        for (const number of numbers) expect(number).toBeLessThanOrEqual(42)
      }),
      { seed: 11, numRuns: 120 },
    )
  })
})

describe('numbers', () => {
  it('prints in the panel’s format', () => {
    expect([
      printNumber(tarn, 7),
      printNumber({ ...tarn, numberDigits: 3 }, 7),
      printNumber(null, 7),
    ]).toEqual(['07', '007', '7'])
  })

  it('knows the ranges of the Morrow 60', () => {
    const system = systemOf(SmallJob.morrow().doc, catalogue)
    const wireless = numbersFor({ doc: SmallJob.morrow().doc, system }, 'wireless')
    expect([wireless[0], wireless.at(-1), wireless.length]).toEqual([7, 54, 48])
    expect(numbersFor({ doc: SmallJob.morrow().doc, system }, 'fob').length).toBe(24)
  })
})

describe('numbers that are spoken for', () => {
  const tarnWith = (use: 'template', from: number, to: number) =>
    catalogue.with([keepEntry({ ...tarn, blocks: [...tarn.blocks, { use, from, to, optional: false }] })])

  it('leaves template zones out', () => {
    const entries = tarnWith('template', 1, 3)
    const job = new SmallJob().add('porch', 'reedling')
    const plan = numberAll(job.doc, entries, { newId: () => 'zone:x', houseRules: defaultHouseRules })
    const zone = plan.ops.find((op) => op.op === 'add' && op.record.type === 'zone')
    expect(zone).toMatchObject({ record: { number: 4 } })
  })

  it('leaves the two that the Ostler S keeps as templates', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
    const numbers = numbersFor({ doc: job.doc, system: systemOf(job.doc, catalogue) }, 'wireless')
    expect([numbers.at(-1), numbers.length]).toEqual([62, 62])
  })

  it('leaves numbers under a keypad’s own terminal to the keypad, and frees the dead panel terminal', () => {
    const job = new SmallJob({ panel: 'panel/pinfold-16', grade: 1 }).add('pad', 'chalkpad', {
      mappedOver: 3,
    })
    const system = systemOf(job.doc, catalogue)
    expect(numbersFor({ doc: job.doc, system }, 'wired')).not.toContain(3)
    expect(liveTerminals(job.doc, system).has(3)).toBe(false)
    expect(numbersFor({ doc: job.doc, system }, 'wireless')).not.toContain(3)
  })

  it('keeps a started wired group whole by the house rule', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('gate', 'contact-w')
      .number()
    for (let n = 2; n <= 10; n++)
      job.apply([{ op: 'add', record: { id: `terminal:${n}`, type: 'terminal', number: n, state: 'off' } }])
    const first = (school: 'if-used' | 'kept' | 'from-1') =>
      numbersFor({ doc: job.doc, system: systemOf(job.doc, catalogue) }, 'wireless', school)[0]
    // Terminals come in groups of five; 1 is used, so 1 to 5 stay together.
    expect([first('if-used'), first('kept'), first('from-1')]).toEqual([6, 11, 2])
  })
})
