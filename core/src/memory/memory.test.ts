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
import type { Memory } from './memory.ts'
import { planFromMemory } from './read-plan.ts'
import { differences, keyedInto, targetMemory, type TargetMemory } from './target.ts'
import { zoneCells } from './zone-cells.ts'

const target = (job: SmallJob): TargetMemory => targetMemory(job.doc, catalogue) ?? expect.fail('no panel')
const under = (memory: Memory, start: string): Record<string, string> =>
  Object.fromEntries([...memory].filter(([address]) => address.startsWith(start)))
const names = (set: ReadonlySet<string>, start: string): string[] =>
  [...set].filter((address) => address.startsWith(start)).sort()

describe('addresses', () => {
  it('are named once for every field of a zone', () => {
    expect(Object.keys(zoneCells).sort()).toEqual([...zoneFields].sort())
    const addresses = Object.values(zoneCells).flatMap(({ address }) => address ?? [])
    expect(new Set(addresses).size).toBe(zoneFields.length - 1)
    expect(addresses.every((address) => /^(zone|wired)\.\{n\}\.[a-zA-Z]+$/.test(address))).toBe(true)
  })
})

describe('what a plan wants of the Tarn 40', () => {
  it('is each field of a zone that this panel asks, as it stores it', () => {
    const job = cleanTarn()
    job.set('device:porch', { sticker: '20417733' })
    job.set(job.zone('porch').id, { number: 1, label: 'Front door', chime: true })
    job.set(job.zone('study').id, { number: 2 })
    const memory = target(job)
    expect(memory.refused).toEqual([])
    // 21 “Way in, first delay”; the reed of a Reedling is loop 3, its code 318; words of the panel’s own list by number.
    expect(under(memory.wanted, 'zone.1.')).toEqual({
      'zone.1.equipmentCode': '318',
      'zone.1.response': '21',
      'zone.1.serial': '20417733',
      'zone.1.loop': '3',
      'zone.1.report': 'on',
      'zone.1.transmissionDelay': 'off',
      'zone.1.chime': 'on',
      'zone.1.supervise': 'on',
      'zone.1.label': wordNumbers('front', 'door'),
    })
    // No sticker is noted of the window: that is open, and nothing is made up.
    expect(names(memory.open, 'zone.2.')).toEqual(['zone.2.serial'])
    // One area: there is nothing to keep of areas, nor of wiring.
    expect([...memory.wanted.keys()].filter((at) => /areas|wiring|sirens|doubleKnock/.test(at))).toEqual([])
  })

  it('is the delays in its own units, and settings only where the plan sets them', () => {
    const job = cleanTarn()
    job.set('job:main', {
      entry1: 30,
      entry2: 45,
      exit: 60,
      sirenSeconds: 180,
      exitBeeps: false,
      keysOff: ['help key'],
    })
    const memory = target(job)
    expect(under(memory.wanted, 'system.')).toEqual({
      'system.entry1': '30',
      'system.entry2': '45',
      'system.exit': '60',
      'system.siren': '3',
      'system.exitBeeps': 'off',
      'system.keysOff.fire-key': 'off',
      'system.keysOff.help-key': 'on',
    })
    expect(names(memory.open, 'system.')).toEqual([
      'system.abort',
      'system.entryBeeps',
      'system.supervise',
      'system.swinger',
    ])
  })

  it('hides what its type does not ask', () => {
    const job = cleanTarn()
    const smoke = job.zone('landing', 'smoke').number
    const { hidden, wanted } = target(job)
    expect(names(hidden, `zone.${smoke}.`)).toEqual([`zone.${smoke}.chime`])
    expect(wanted.has(`zone.${smoke}.chime`)).toBe(false)
    expect(wanted.get(`zone.${smoke}.response`)).toBe('62')
  })

  it('holds fobs by their slots', () => {
    const job = cleanTarn()
    job.set('device:fob', { slot: 2, sticker: '4B2K90QX' })
    expect(under(target(job).wanted, 'fob.')).toEqual({ 'fob.2.serial': '4B2K90QX' })
    job.set('device:fob', { slot: 9 })
    expect(target(job).refused).toEqual([{ address: 'fob.9', reason: 'Tarn 40 has 8 fob slots.' }])
  })

  it('leaves a zone that stays as programmed alone', () => {
    const job = cleanTarn()
    const { id, number } = job.zone('study')
    job.set(id, { asProgrammed: true })
    const { wanted, open } = target(job)
    expect(under(wanted, `zone.${number}.`)).toEqual({})
    expect(open.has(`zone.${number}.response`)).toBe(true)
  })
})

describe('what a plan wants of the others', () => {
  it('Morrow 60: steps of 15 s, areas as bits, kinds of equipment, texts in capitals', () => {
    const job = cleanMorrow().area(2, 'Annexe')
    job.set('job:main', { exit: 60 })
    const { id, number } = job.zone('front')
    job.set(id, { label: 'Front door', area: 'area:2' })
    const { wanted } = target(job)
    expect(wanted.get('system.exit')).toBe('4')
    expect(under(wanted, `zone.${number}.areas`)).toEqual({
      [`zone.${number}.areas.1`]: 'off',
      [`zone.${number}.areas.2`]: 'on',
    })
    expect(wanted.get(`zone.${number}.label`)).toBe('FRONT DOOR')
    expect(wanted.get(`zone.${number}.response`)).toBe('2')
  })

  it('Ostler S: delays per area, inputs of a contact as switches, groups of verified fire', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', exitStay: 0 })
      .area(2, 'Annexe', { entry1: 20 })
      .add('front', 'sill-8', { use: 'entry', position: 'door' })
      .add('hall', 'brander-8')
      .number()
    const { id, number } = job.zone('front')
    job.set(id, { reedOn: true, terminalsOn: false })
    const smoke = job.zone('hall', 'smoke')
    job.set(smoke.id, { response: 'fire-verified', fireGroup: 2 })
    const memory = target(job)
    expect(under(memory.wanted, 'area.2.')).toEqual({ 'area.2.entry1': '20' })
    expect(names(memory.open, 'area.2.')).toEqual(['area.2.entry2', 'area.2.exit', 'area.2.exitStay'])
    expect(under(memory.wanted, `zone.${number}.inputs`)).toEqual({
      [`zone.${number}.inputs.reed`]: 'on',
      [`zone.${number}.inputs.terminals`]: 'off',
      [`zone.${number}.inputs.end-of-line`]: 'off',
    })
    expect(memory.wanted.get(`zone.${smoke.number}.fireGroup`)).toBe('2')
    expect(memory.hidden.has(`zone.${number}.fireGroup`)).toBe(true)
    job.set(smoke.id, { fireGroup: 4 })
    expect(target(job).refused).toEqual([
      { address: `zone.${smoke.number}.fireGroup`, reason: 'Ostler S 8 has 3 groups of verified fire.' },
    ])
  })

  it('Pinfold 16: the exit delay in the unit of its option, siren outputs as bits, no label on the panel’s list', () => {
    const job = new SmallJob({
      panel: 'panel/pinfold-16',
      radioFirmware: null,
      grade: 1,
      exitUnitSwitched: true,
      exit: 60,
    })
      .add('front', 'pebble', { use: 'entry', position: 'door' })
      .number()
    const { id, number } = job.zone('front')
    job.set(id, { sirens: [1, 3], dayZone: true })
    const { wanted } = target(job)
    expect([wanted.get('system.exit'), wanted.get('system.exitUnit')]).toEqual(['4', 'on'])
    expect(under(wanted, `zone.${number}.sirens`)).toEqual({
      [`zone.${number}.sirens.1`]: 'on',
      [`zone.${number}.sirens.2`]: 'off',
      [`zone.${number}.sirens.3`]: 'on',
      [`zone.${number}.sirens.4`]: 'off',
    })
    expect(wanted.get(`zone.${number}.dayZone`)).toBe('on')
    expect(wanted.has(`zone.${number}.label`)).toBe(false)
    job.set('job:main', { exitUnitSwitched: false })
    expect(target(job).wanted.get('system.exit')).toBe('60')
  })

  it('Quillet 32: the way of chiming, double knock, letters; none is the plan’s word for no key switch', () => {
    const job = new SmallJob({ panel: 'panel/quillet-32', radioFirmware: null, entry2: 50 })
      .add('front', 'sill-8', { use: 'entry', position: 'door' })
      .number()
    const { id, number } = job.zone('front')
    job.set(id, { chime: true, chimeStyle: 'two', doubleKnock: true })
    const { wanted } = target(job)
    expect(wanted.get(`zone.${number}.chime`)).toBe('two')
    expect(wanted.get(`zone.${number}.doubleKnock`)).toBe('on')
    expect(wanted.get('system.keySwitch')).toBe('none')
    job.set(id, { chime: false })
    expect(target(job).wanted.get(`zone.${number}.chime`)).toBe('off')
  })
})

describe('what a panel cannot hold', () => {
  const refusals = (job: SmallJob) =>
    target(job).refused.map(({ address, reason }) => `${address}: ${reason}`)

  it.each<[string, (job: SmallJob) => void, RegExp]>([
    [
      'a delay beyond its field',
      (job) => job.set('job:main', { entry1: 600 }),
      /^system\.entry1: .*cannot be kept/,
    ],
    [
      'a siren time below its field',
      (job) => job.set('job:main', { sirenSeconds: 5 }),
      /^system\.siren: Siren time: cannot be stored/,
    ],
    [
      'a type of another panel',
      (job) => job.set(job.zone('study').id, { response: 'delay-2-away' }),
      /response: Tarn 40 has no type “delay-2-away”/,
    ],
    [
      'a word that its list lacks',
      (job) => job.set(job.zone('study').id, { label: 'Käsekammer' }),
      /^zone\.\d+\.label: .*Käsekammer/i,
    ],
    [
      'a number that it has not',
      (job) => job.set(job.zone('study').id, { number: 77 }),
      /^zone\.77: Tarn 40 has no number 77/,
    ],
    [
      'a number twice',
      (job) => job.set(job.zone('study').id, { number: job.zone('porch').number }),
      /^zone\.\d+: Number \d+ is given twice/,
    ],
  ])('%s', (_what, spoil, told) => {
    const job = cleanTarn()
    expect(refusals(job)).toEqual([])
    spoil(job)
    const found = refusals(job)
    expect(found).toHaveLength(1)
    expect(found[0]).toMatch(told)
    // What is refused is not wanted at the same time.
    const { wanted, refused } = target(job)
    expect(refused.filter(({ address }) => wanted.has(address))).toEqual([])
  })

  it('a zone in two areas where the panel keeps it in one, and never where it may be in both', () => {
    const job = cleanMorrow().area(2, 'Annexe')
    const { id, number } = job.zone('front')
    job.set(id, { area: 'area:1', area2: 'area:2' })
    expect(refusals(job)).toEqual([`zone.${number}.areas.2: Morrow 60 keeps a zone in one area only.`])
    expect(target(job).wanted.get(`zone.${number}.areas.1`)).toBe('on')
    // The same area twice is one.
    expect(refusals(job.set(id, { area2: 'area:1' }))).toEqual([])
    const common = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .area(2, 'Annexe')
      .add('front', 'sill-8', { use: 'entry' })
      .number()
    common.set(common.zone('front').id, { area: 'area:1', area2: 'area:2' })
    expect(refusals(common)).toEqual([])
  })

  it('no panel wants nothing', () => {
    expect(targetMemory(new SmallJob({ panel: null }).doc, catalogue)).toBeNull()
  })
})

describe('comparing and keying', () => {
  it('compares what is wanted alone, and names what nobody knows', () => {
    const job = cleanTarn()
    const memory = target(job)
    expect(differences(memory, memory.wanted)).toEqual([])
    const is = new Map([...memory.wanted, ['system.entry1', '35'], ['panel.77', '1']])
    is.delete('system.exit')
    for (const address of memory.hidden) is.set(address, 'on')
    expect(differences(memory, is)).toEqual([
      { address: 'system.entry1', wanted: '30', is: '35' },
      { address: 'system.exit', wanted: '60', is: null },
    ])
    const keyed = keyedInto(memory, is)
    expect(differences(memory, keyed)).toEqual([])
    expect(keyed.get('panel.77')).toBe('1')
  })
})

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

function wordNumbers(...words: readonly string[]): string {
  const rule = catalogue.get('panel', 'panel/tarn-40')?.label
  if (rule?.style !== 'library') throw new Error('the Tarn has words by number')
  return words
    .map((word) => rule.words.find(({ text }) => text.toLowerCase() === word)?.number ?? expect.fail(word))
    .join(' ')
}
