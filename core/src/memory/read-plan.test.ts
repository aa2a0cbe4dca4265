import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { ZoneField } from '../catalogue/schema.ts'
import { zoneFields } from '../catalogue/schema.ts'
import { recordsOf } from '../job/document.ts'
import { applyOps } from '../job/edit.ts'
import type { JobInfo, Zone } from '../job/records.ts'
import { carelessJobs } from '../testing/careless-jobs.ts'
import { runs } from '../testing/runs.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { planFromMemory } from './read-plan.ts'
import { targetMemory, type TargetMemory } from './target.ts'

const target = (job: SmallJob): TargetMemory => targetMemory(job.doc, catalogue) ?? expect.fail('no panel')

/** The same job with nothing planned in what a memory can tell: reading must bring it all back. */
function emptied(job: SmallJob): SmallJob {
  const nothing: Partial<Zone> = {
    ...{
      response: null,
      equipmentCode: null,
      equipmentKind: null,
      loop: null,
      label: '',
      area: null,
      area2: null,
    },
    ...{ report: false, chime: false, chimeStyle: null, supervise: false, transmissionDelay: false },
    ...{ sirens: null, doubleKnock: false, dayZone: false, fireGroup: null, wiring: null },
    ...{ reedOn: null, terminalsOn: null, endOfLineOn: null },
  }
  const info: Partial<JobInfo> = {
    ...{ entry1: null, entry2: null, exit: null, exitStay: null, abortWindow: null, sirenSeconds: null },
    ...{ swinger: null, superviseMinutes: null, exitBy: null, openAtExit: null, outputs: null, keysOff: [] },
    ...{ entryBeeps: null, exitBeeps: null, keySwitch: 'none', exitUnitSwitched: false, stayToEntry2: false },
  }
  const bare = new SmallJob()
  bare.doc = job.doc
  bare.set('job:main', info)
  for (const { id, asProgrammed } of recordsOf(bare.doc, 'zone')) if (!asProgrammed) bare.set(id, nothing)
  for (const { id } of recordsOf(bare.doc, 'area'))
    bare.set(id, { entry1: null, entry2: null, exit: null, exitStay: null })
  return bare
}

describe('the way back', () => {
  it('brings a plan back from the memory that it wants, on every panel and of careless jobs', () => {
    const panels = new Set<string>()
    fc.assert(
      fc.property(carelessJobs, (job) => {
        const before = target(job)
        const bare = emptied(job)
        const read = planFromMemory(bare.doc, catalogue, before.wanted)
        const result = applyOps(bare.doc, read.ops)
        if (!result.ok) throw new Error(JSON.stringify(result.conflict))
        const after = targetMemory(result.doc, catalogue) ?? expect.fail('no panel')
        // IDs are evidence and stand on the devices; slots and areas of keypads are no plan of a zone.
        const told = new Set(read.rest.map(({ address }) => address))
        for (const [address, value] of before.wanted)
          if (/^(system|area|zone|wired)\./.test(address) && !told.has(address))
            expect([address, after.wanted.get(address)]).toEqual([address, value])
        for (const address of told) expect(address).toMatch(/\.serial$|^(fob|keypad|siren)\./)
        panels.add(recordsOf(job.doc, 'job')[0]?.panel ?? '')
      }),
      { numRuns: runs(300), seed: 14 },
    )
    expect(panels.size).toBe(7)
  })

  /** What one zone plans, on a panel, with the device that it watches. */
  const planned: readonly [string, string, string, Partial<Zone>][] = [
    ['ostler-s-8', 'sill-8', 'open', { area: 'area:1', area2: 'area:2', chime: true }],
    ['ostler-s-8', 'brander-8', 'smoke', { response: 'fire-verified', fireGroup: 2 }],
    ['ostler-s-8', 'sill-8', 'open', { reedOn: false, terminalsOn: true, endOfLineOn: true }],
    ['ostler-s-8', 'contact-w', 'open', { wiring: 'end-of-line' }],
    ['sallow-m', 'contact-w', 'open', { wiring: 'double' }],
    ['quillet-32', 'sill-8', 'open', { chime: true, chimeStyle: 'say', doubleKnock: true }],
    ['sallow-m', 'jetty', 'open', { chime: true, chimeStyle: 'wood' }],
    ['pinfold-16', 'pebble', 'open', { sirens: [2, 4], dayZone: true }],
    ['morrow-60', 'latchet', 'open', { equipmentKind: 'opening', loop: 2, label: 'YARD GATE' }],
    ['tarn-40', 'reedling', 'open', { equipmentCode: '318', report: false, transmissionDelay: true }],
  ]
  it.each(planned)('%s, %s: %s of %j', (panel, model, event, fields) => {
    const on = panel === 'morrow-60' ? SmallJob.morrow() : new SmallJob({ panel: `panel/${panel}` })
    const job = on.area(2, 'Annexe').add('one', model, { use: 'opening' }).number()
    const { id } = job.zone('one', event)
    job.set(id, fields)
    const before = target(job)
    const bare = emptied(job)
    const result = applyOps(bare.doc, planFromMemory(bare.doc, catalogue, before.wanted).ops)
    if (!result.ok) throw new Error(JSON.stringify(result.conflict))
    expect(recordsOf(result.doc, 'zone').find((zone) => zone.id === id)).toMatchObject(fields)
  })

  it('reads a delay in the unit that the memory has, not in that of the plan', () => {
    const job = new SmallJob({ panel: 'panel/pinfold-16', exitUnitSwitched: true, exit: 60 })
    const { wanted } = target(job)
    const bare = emptied(job)
    const { ops } = planFromMemory(bare.doc, catalogue, wanted)
    expect(ops).toContainEqual(expect.objectContaining({ field: 'exit', to: 60 }))
    expect(ops).toContainEqual(expect.objectContaining({ field: 'exitUnitSwitched', to: true }))
  })

  it('does not guess between two types of one code, nor between three areas', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8' })
      .area(2, 'Annexe')
      .area(3, 'Barn')
      .add('one', 'sill-8')
      .number()
    const { number } = job.zone('one')
    const held = new Map([1, 2, 3].map((area) => [`zone.${number}.areas.${area}`, 'on']))
    const { ops, rest } = planFromMemory(job.doc, catalogue, held)
    expect(ops).toEqual([])
    expect(rest.map(({ why }) => why)).toEqual(Array(3).fill('it is in 3 areas'))
    expect(planFromMemory(job.doc, catalogue, new Map([[`zone.${number}.areas.4`, 'on']])).rest[0]?.why).toBe(
      'it is in an area that the plan does not have',
    )
  })

  it('changes nothing where the plan is what the memory holds', () => {
    for (const job of [cleanTarn(), cleanMorrow()])
      expect(
        planFromMemory(job.doc, catalogue, target(job).wanted).ops.filter(({ op }) => op !== 'set'),
      ).toEqual([])
  })

  it.each<[string, string, string]>([
    ['system.entry1', '3', 'no value of'],
    ['system.entry1', 'soon', 'no value of'],
    ['system.siren', '99', 'no value of siren time'],
    ['system.keysOff.help-key', 'maybe', 'neither on nor off'],
    ['system.exitBeeps', 'loud', 'no value of'],
    ['zone.1.response', '99', 'no response type has the code 99'],
    ['zone.1.loop', '0', 'no loop from 1 to 16'],
    ['zone.1.report', '1', 'neither on nor off'],
    ['zone.1.label', '4 xyz', 'no word has the number'],
    ['zone.1.serial', '20417733', 'an ID is evidence'],
    ['zone.39.response', '21', 'the plan has no such zone'],
    ['panel.047', '3', 'no word for it'],
  ])('tells what it does not take: %s = %s', (address, value, why) => {
    const job = cleanTarn()
    job.set(job.zone('porch').id, { number: 1 })
    const { ops, rest } = planFromMemory(job.doc, catalogue, new Map([[address, value]]))
    expect(ops).toEqual([])
    expect(rest).toHaveLength(1)
    expect(rest[0]).toMatchObject({ address, value })
    expect(rest[0]?.why).toContain(why)
  })

  it('takes the delays of areas where the panel keeps them apart, and tells what is none', () => {
    const ostler = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: null }).area(2, 'Annexe')
    const held = new Map([
      ['area.2.entry1', '20'],
      ['area.2.exit', '300'],
      ['area.2.exitStay', '0'],
      ['area.7.entry1', '20'],
    ])
    const { ops, rest } = planFromMemory(ostler.doc, catalogue, held)
    expect(ops).toEqual([
      { op: 'set', id: 'area:2', field: 'entry1', from: null, to: 20 },
      { op: 'set', id: 'area:2', field: 'exitStay', from: null, to: 0 },
    ])
    expect(rest).toEqual([
      { address: 'area.2.exit', value: '300', why: '“300” is no value of Leaving delay' },
      { address: 'area.7.entry1', value: '20', why: 'the plan has no word for it' },
    ])
    // The Tarn has one set of delays for all.
    const tarn = cleanTarn().area(2, 'Annexe')
    expect(planFromMemory(tarn.doc, catalogue, new Map([['area.2.entry1', '20']]))).toEqual({
      ops: [],
      rest: [{ address: 'area.2.entry1', value: '20', why: 'the plan has no word for it' }],
    })
    // A delay is one of the whole system or of an area, and of nothing else.
    expect(planFromMemory(tarn.doc, catalogue, new Map([['fob.entry1', '20']])).rest).toHaveLength(1)
  })

  it('takes nothing into a zone that is left as programmed, and nothing without a panel', () => {
    const job = cleanTarn()
    const { id, number } = job.zone('study')
    const held = new Map([[`zone.${number}.response`, '21']])
    expect(planFromMemory(job.doc, catalogue, held).ops).toMatchObject([{ id, field: 'response' }])
    job.set(id, { asProgrammed: true })
    expect(planFromMemory(job.doc, catalogue, held)).toMatchObject({ ops: [], rest: [{ value: '21' }] })
    const none = new SmallJob({ panel: null })
    expect(planFromMemory(none.doc, catalogue, held)).toEqual({
      ops: [],
      rest: [{ address: `zone.${number}.response`, value: '21', why: 'no panel is chosen' }],
    })
  })

  it('reads each member of a list as its own address, and no other field that begins alike', () => {
    const job = new SmallJob({ panel: 'panel/pinfold-16', radioFirmware: null }).add('one', 'pebble').number()
    const { id, number } = job.zone('one')
    const held = new Map([
      [`zone.${number}.sirens.3`, 'on'],
      [`zone.${number}.sirens.1`, 'on'],
      [`zone.${number}.sirens.2`, 'off'],
      [`zone.${number}.sirensToo`, 'on'],
    ])
    const { ops, rest } = planFromMemory(job.doc, catalogue, held)
    expect(ops).toEqual([{ op: 'set', id, field: 'sirens', from: null, to: [1, 3] }])
    expect(rest.map(({ address }) => address)).toEqual([`zone.${number}.sirensToo`])
  })

  it.each<[value: string, loop: number | null]>([
    ['1', 1],
    ['16', 16],
    ['17', null],
    ['1.5', null],
    ['-1', null],
  ])('takes an input from 1 to 16: %s', (value, loop) => {
    const job = new SmallJob().add('one', 'reedling').number()
    const { id, number } = job.zone('one')
    const { ops, rest } = planFromMemory(job.doc, catalogue, new Map([[`zone.${number}.loop`, value]]))
    expect(ops.map((op) => op.op === 'set' && [op.id, op.to])).toEqual(loop === null ? [] : [[id, loop]])
    expect(rest).toHaveLength(loop === null ? 1 : 0)
  })

  it.each<[value: string, group: number | null]>([
    ['1', 1],
    ['10', 10],
    ['0', null],
    ['100', null],
    ['1x', null],
    ['x1', null],
  ])('takes a fire group of one or two digits: %s', (value, group) => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: null })
      .add('one', 'brander-8')
      .number()
    const { id, number } = job.zone('one', 'smoke')
    job.set(id, { response: 'fire-verified', fireGroup: null })
    const { ops } = planFromMemory(job.doc, catalogue, new Map([[`zone.${number}.fireGroup`, value]]))
    expect(ops.map((op) => op.op === 'set' && op.to)).toEqual(group === null ? [] : [group])
  })

  it('never throws, whatever a memory holds', () => {
    const address = fc.oneof(
      fc.constantFrom('system.entry1', 'system.siren', 'system.exitUnit', 'area.1.exit', 'zone.1.areas.9'),
      fc
        .tuple(fc.constantFrom<ZoneField>(...zoneFields), fc.nat(40))
        .map(([field, n]) => `zone.${n}.${field}`),
      fc.string(),
    )
    fc.assert(
      fc.property(carelessJobs, fc.array(fc.tuple(address, fc.string())), (job, held) => {
        const memory = new Map(held)
        const { rest } = planFromMemory(job.doc, catalogue, memory)
        for (const { address: at, value } of rest) expect(memory.get(at)).toBe(value)
      }),
      { numRuns: runs(200) },
    )
  })
})
