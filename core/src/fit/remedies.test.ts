import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import type { JobInfo } from '../job/records.ts'
import { applyOps } from '../job/edit.ts'
import { catalogue, cleanMorrow, SmallJob } from '../testing/small-job.ts'
import { rankPanels } from './candidates.ts'
import { fitAll, type Verdict } from './fit.ts'
import { remediesFor, type Remedy } from './remedies.ts'
import { systemOf } from '../system/system.ts'
import { enrolmentOf } from '../job/enrolment.ts'

const { costs } = defaultHouseRules
let ids = 0
const remedies = (job: SmallJob, key: string): Remedy[] =>
  remediesFor({ doc: job.doc, catalogue }, `device:${key}`, { costs, newId: () => `new-${(ids += 1)}` })
const titles = (list: readonly Remedy[]) => list.map((remedy) => `${remedy.cost} ${remedy.title}`)
const verdicts = (job: SmallJob) =>
  [...fitAll(systemOf(job.doc, catalogue))].map(([id, fit]) => `${id.slice(7)} ${fit.verdict}`)

describe('remedies', () => {
  it('switch the encrypted-only setting off before anything dearer', () => {
    const job = SmallJob.morrow().add('study', 'latchet-thin')
    job.set('receiver:morrow-radio-module', { encryptedOnly: true })
    expect(titles(remedies(job, 'study'))).toEqual([
      '1 Let Morrow radio module take plain devices too',
      '5 Swap it for Latchet contact',
      '8 Add Morrow keypad radio',
    ])
  })

  it('update the radio firmware no further than needed', () => {
    const job = new SmallJob({ radioFirmware: '1.10' }).add('porch', 'reedling-c')
    expect(titles(remedies(job, 'porch')).slice(0, 2)).toEqual([
      '3 Update the radio firmware of Tarn 40 from 1.10 to 1.20',
      '3 Update the radio firmware of Tarn 40 from 1.10 to 1.31',
    ])
  })

  it('offer a bridge for a plain sensor of a takeover', () => {
    const job = new SmallJob({ panel: 'panel/sallow-m', kind: 'takeover', grade: 1 }).add(
      'hall',
      'skitter-dog',
    )
    const found = remedies(job, 'hall')
    expect(titles(found)).toContain('8 Add the bridge Sallow bridge')
    expect(found.find((remedy) => remedy.kind === 'receiver')?.changes).toEqual([
      { device: 'device:hall', from: 'no', to: 'loss' },
    ])
    // A swap fits without a loss and comes first.
    expect(found[0]?.kind).toBe('swap')
  })

  it('name the successor of a discontinued model first', () => {
    const job = SmallJob.morrow({ panel: 'panel/tarn-40', region: 'europe', radioFirmware: '1.31', grade: 2 })
    job.add('porch', 'reedling-old')
    const swaps = remedies(job, 'porch').filter((remedy) => remedy.kind === 'swap')
    expect(swaps[0]?.title).toBe('Swap it for Reedling contact, its successor')
  })

  it('put the successor’s loops and code into the zones and forget the IDs', () => {
    const job = new SmallJob()
      .add('porch', 'reedling-old', { use: 'entry', position: 'door', sticker: '20417733' })
      .number()
    expect(job.zone('porch').loop).toBe(1)
    job.learn(job.zone('porch').id, '20417733')
    const swap = remedies(job, 'porch').find((remedy) => remedy.kind === 'swap')
    // Five for the swap and one for enrolling the successor.
    expect(swap?.cost).toBe(6)
    job.apply(swap?.ops ?? [])
    expect(job.zone('porch')).toMatchObject({ loop: 3, equipmentCode: '318' })
    expect(enrolmentOf(job.doc, job.zone('porch').id)).toBeNull()
    expect(job.device('porch')).toMatchObject({ model: 'device/reedling', sticker: null })
    expect(verdicts(job)).toEqual(['porch works'])
  })

  it('count each enrolled device on another panel', () => {
    const job = new SmallJob({ radioFirmware: null })
      .add('siren', 'herald-8')
      .add('porch', 'reedling')
      .number()
    job.learn(job.zone('porch').id, '20417733')
    // Ostler, Quillet: both hear Curlew 8, but the Reedling then does not fit: not offered.
    expect(remedies(job, 'siren').filter((remedy) => remedy.kind === 'panel')).toEqual([])
    const alone = new SmallJob().add('siren', 'herald-8')
    expect(titles(remedies(alone, 'siren'))).toEqual([
      '5 Swap it for Horn W wired siren',
      '40 Choose Ostler S 8 instead',
      '40 Choose Quillet 32 instead',
    ])
  })

  it('are none for a device that works', () => {
    expect(remedies(new SmallJob().add('porch', 'reedling'), 'porch')).toEqual([])
  })

  it('set a receiver to encrypted devices only, where no plain one is lost by it', () => {
    const job = SmallJob.morrow().add('fob', 'fourkey')
    expect(titles(remedies(job, 'fob'))[0]).toBe('1 Set Morrow radio module to encrypted devices only')
    job.add('study', 'latchet-thin')
    expect(titles(remedies(job, 'fob')).join()).not.toContain('encrypted devices only')
  })

  it('never offer a plain swap for a link that should be encrypted, and say where one sends plain', () => {
    const keypad = new SmallJob().add('gate', 'tapwell', { slot: 1 })
    const swaps = remedies(keypad, 'gate').filter((remedy) => remedy.kind === 'swap')
    expect(swaps.length).toBeGreaterThan(0)
    for (const { ops } of swaps) {
      const model = ops.flatMap((op) => (op.op === 'set' && op.field === 'model' ? [String(op.to)] : []))[0]
      expect(catalogue.get('device', model ?? null)?.encryption).not.toBe('none')
    }
    // An encrypted contact that old firmware cannot hear may be swapped for a plain one, and that is said.
    const old = new SmallJob({ radioFirmware: '1.10' }).add('porch', 'reedling-c')
    expect(titles(remedies(old, 'porch'))).toContain('5 Swap it for Reedling contact, which sends plain')
  })

  it('encrypt the fob’s link where its receiver is set to encrypted only', () => {
    const job = SmallJob.morrow().add('fob', 'fourkey')
    expect(verdicts(job)).toEqual(['fob loss'])
    job.set('receiver:morrow-radio-module', { encryptedOnly: true })
    expect(verdicts(job)).toEqual(['fob works'])
  })
})

const models = catalogue.all('device').map((model) => model.id.slice(7))
const panels = catalogue.all('panel')
const kit = fc.record({
  panel: fc.constantFrom(...panels),
  models: fc.array(fc.constantFrom(...models), { minLength: 1, maxLength: 8 }),
  grade: fc.constantFrom(1 as const, 2 as const),
  encryptedOnly: fc.boolean(),
})
type Kit = typeof kit extends fc.Arbitrary<infer T> ? T : never

function made(one: Kit, order: readonly string[] = one.models): SmallJob {
  const info: Partial<JobInfo> = {
    panel: one.panel.id,
    region: one.panel.regions[0] ?? 'europe',
    grade: one.grade,
    radioFirmware: one.panel.radioFirmware[0] ?? null,
  }
  const job = new SmallJob(info)
  if (one.panel.id === 'panel/morrow-60')
    job.receiver('morrow-radio-module', { encryptedOnly: one.encryptedOnly })
  // The key tells a device apart whatever its place in the order.
  order.forEach((model) => job.add(`${one.models.indexOf(model)}-${model}`, model))
  return job
}

const rank: Readonly<Record<Verdict, number>> = { works: 0, loss: 1, unknown: 2, no: 3 }

describe('properties of fit', () => {
  it('remedies are sound: good for the device, worse for none, and what they say', () => {
    let tried = 0
    fc.assert(
      fc.property(kit, (one) => {
        const job = made({ ...one, models: [...new Set(one.models)] })
        const before = fitAll(systemOf(job.doc, catalogue))
        for (const [device, fit] of before)
          for (const remedy of remediesFor({ doc: job.doc, catalogue }, device, {
            costs,
            newId: () => `p-${(ids += 1)}`,
          })) {
            tried += 1
            const result = applyOps(job.doc, remedy.ops)
            if (!result.ok) throw new Error(JSON.stringify(result.conflict))
            const after = fitAll(systemOf(result.doc, catalogue))
            expect(rank[after.get(device)?.verdict ?? 'no']).toBeLessThan(rank[fit.verdict])
            for (const [other, was] of before)
              expect(rank[after.get(other)?.verdict ?? 'no']).toBeLessThanOrEqual(rank[was.verdict])
            const said = new Map(remedy.changes.map((change) => [change.device, change.to]))
            for (const [other, was] of before)
              expect(after.get(other)?.verdict).toBe(said.get(other) ?? was.verdict)
          }
      }),
      { seed: 21, numRuns: 120 },
    )
    expect(tried).toBeGreaterThan(200)
  })

  it('verdicts do not depend on the order while there is room', () => {
    fc.assert(
      fc.property(kit, (one) => {
        const distinct = { ...one, models: [...new Set(one.models)] }
        const there = fitAll(systemOf(made(distinct).doc, catalogue))
        const back = fitAll(systemOf(made(distinct, [...distinct.models].reverse()).doc, catalogue))
        const scarce = [...there.values(), ...back.values()].some((fit) =>
          fit.reasons.some((reason) => ['capacity', 'slots', 'repeaters'].includes(reason.code)),
        )
        if (scarce) return
        for (const [device, fit] of there) expect(back.get(device)?.verdict).toBe(fit.verdict)
      }),
      { seed: 22, numRuns: 200 },
    )
  })

  it('adding a receiver that the panel takes makes no device fit worse', () => {
    fc.assert(
      fc.property(kit, (one) => {
        const job = made({ ...one, models: [...new Set(one.models)] })
        const before = fitAll(systemOf(job.doc, catalogue))
        for (const id of one.panel.receivers) {
          const has = systemOf(job.doc, catalogue).receivers.some((item) => item.model.id === id)
          if (has) continue
          const after = fitAll(
            systemOf(made({ ...one, models: [...new Set(one.models)] }).receiver(id.slice(9)).doc, catalogue),
          )
          for (const [device, fit] of before)
            expect(rank[after.get(device)?.verdict ?? 'no']).toBeLessThanOrEqual(rank[fit.verdict])
        }
      }),
      { seed: 23, numRuns: 150 },
    )
  })
})

describe('which panel', () => {
  const ranked = (job: SmallJob) => rankPanels(systemOf(job.doc, catalogue), catalogue)

  it('puts the one first that takes all as it is', () => {
    const job = new SmallJob().add('porch', 'pebble').add('hall', 'skitter').add('fob', 'trine')
    job.set('job:main', { grade: 1 })
    const [first, second] = ranked(job)
    expect([first?.panel.name, first?.counts]).toEqual([
      'Pinfold 16',
      { works: 2, loss: 1, no: 0, unknown: 0 },
    ])
    // The Sallow hears contact and motion through its bridge, with a loss; the fob stays out.
    expect([second?.panel.name, second?.add.map((item) => item.name), second?.countsThen.no]).toEqual([
      'Sallow M',
      ['Sallow bridge'],
      1,
    ])
  })

  it('says what each panel loses', () => {
    const job = new SmallJob().add('kitchen', 'fumer-8').add('porch', 'sill-8')
    const loses = Object.fromEntries(ranked(job).map((choice) => [choice.panel.name, choice.loses]))
    expect(loses['Pinfold 16']).toEqual([
      'has no gas type',
      'is grade 1, the job grade 2',
      'shows no labels: a card beside the keypad',
      'cannot hold an alarm before it is sent',
    ])
    expect(loses['Morrow 60']).toEqual(
      expect.arrayContaining(['is not made for this region', 'states no grade, the job is grade 2']),
    )
    expect(ranked(job)[0]?.panel.name).toBe('Ostler S 8')
  })

  it('counts the room that is left', () => {
    const morrow = ranked(cleanMorrow()).find((choice) => choice.current)
    // Numbers 1–54; a smoke detector of three events and four devices of one take seven. One keypad, no fob or siren yet.
    expect(morrow?.left).toEqual({ zones: 47, fobs: 6, keypads: 5, sirens: 1 })
  })

  it('needs a receiver where the panel brings none', () => {
    const job = new SmallJob({ region: 'north-america', grade: 1 }).add('porch', 'latchet')
    const morrow = ranked(job).find((choice) => choice.panel.name === 'Morrow 60')
    expect([morrow?.counts.no, morrow?.countsThen.no, morrow?.add.length]).toEqual([1, 0, 1])
  })
})

it('nothing is swapped for a firmware that nobody has read', () => {
  const wrenC = (radioFirmware: string | null) =>
    new SmallJob({ radioFirmware }).add('fob', 'quartet-c', { room: '' })
  const found = (job: SmallJob) =>
    remediesFor({ doc: job.doc, catalogue }, 'device:fob', { newId: () => 'x', costs: job.houseRules.costs })
  expect(found(wrenC(null))).toEqual([])
  expect(found(wrenC('1.10')).map(({ kind }) => kind)).toContain('firmware')
  expect(found(wrenC('1.20'))).toEqual([])
})
