import { describe, expect, it } from 'vitest'
import { zoneFields } from '../catalogue/schema.ts'
import { catalogue, cleanMorrow, cleanTarn, SmallJob } from '../testing/small-job.ts'
import type { Memory } from './memory.ts'
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

describe('cells of a zone that say little', () => {
  it('a group of verified fire up to the last that the panel has; open where none is planned', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: null })
      .add('one', 'brander-8')
      .number()
    const { id, number } = job.zone('one', 'smoke')
    job.set(id, { response: 'fire-verified', fireGroup: 3 })
    expect([target(job).refused, target(job).wanted.get(`zone.${number}.fireGroup`)]).toEqual([[], '3'])
    job.set(id, { fireGroup: null })
    expect(target(job).open.has(`zone.${number}.fireGroup`)).toBe(true)
  })

  it('a label that is empty or of blanks is open, and so is a wiring that nobody stated', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: null })
      .add('one', 'sill-8')
      .add('two', 'contact-w')
      .number()
    const [radio, wired] = [job.zone('one'), job.zone('two')]
    job.set(radio.id, { label: '  ' }).set(wired.id, { wiring: null })
    const { open, wanted } = target(job)
    expect(open.has(`zone.${radio.number}.label`)).toBe(true)
    expect(open.has(`wired.${wired.number}.wiring`)).toBe(true)
    // A wired zone has neither ID nor input, one of radio no wiring.
    const asked = [...open, ...wanted.keys()]
    expect(
      asked.filter((at) => /^zone\.\d+\.(serial|inputs)/.test(at) && at.includes(`.${wired.number}.`)),
    ).toEqual([])
    expect(asked.includes(`wired.${radio.number}.wiring`)).toBe(false)
  })

  it('a kind of equipment as the panel keys it, or refused where it has no such kind', () => {
    const job = SmallJob.morrow().add('one', 'latchet', { use: 'opening' }).number()
    const { id, number } = job.zone('one')
    job.set(id, { equipmentKind: null })
    expect(target(job).open.has(`zone.${number}.equipmentKind`)).toBe(true)
    job.set(id, { equipmentKind: 'lantern' })
    expect(target(job).refused).toEqual([
      {
        address: `zone.${number}.equipmentKind`,
        reason: expect.stringMatching(/^Morrow 60 has no kind of equipment “lantern”/) as unknown,
      },
    ])
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

function wordNumbers(...words: readonly string[]): string {
  const rule = catalogue.get('panel', 'panel/tarn-40')?.label
  if (rule?.style !== 'library') throw new Error('the Tarn has words by number')
  return words
    .map((word) => rule.words.find(({ text }) => text.toLowerCase() === word)?.number ?? expect.fail(word))
    .join(' ')
}
