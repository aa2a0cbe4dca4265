import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { reasonWords } from '../findings/words/fit-reasons.ts'
import { compareVersions, fitAll, receiverLoad, type Fit } from './fit.ts'
import type { FitCode } from './reasons.ts'
import { solveWhole } from './solve.ts'
import { systemOf } from '../system/system.ts'
import { keepEntry } from '../catalogue/written.ts'

function fitOf(job: SmallJob, key: string, without: FitCode[] = []) {
  return fitAll(systemOf(job.doc, catalogue), { without: new Set(without) }).get(`device:${key}`)
}

const first = (fit: Fit | undefined) => fit?.reasons.map(reasonWords)[0]

/** device, job, expected verdict, first reason's check, reasoned from what the invented world is meant to be. */
const table: readonly [string, () => SmallJob, string, FitCode | null][] = [
  // Tarn 40 hears Wren; Wren C from radio firmware 1.20. Wren has no encryption.
  ['reedling', () => new SmallJob(), 'works', null],
  ['reedling-c', () => new SmallJob({ radioFirmware: '1.20' }), 'works', null],
  ['reedling-c', () => new SmallJob({ radioFirmware: '1.10' }), 'no', 'firmware'],
  ['reedling-c', () => new SmallJob({ radioFirmware: null }), 'unknown', 'firmware'],
  // Curlew 8 is on 868.3 MHz, another band than Wren's 433.92 MHz.
  ['herald-8', () => new SmallJob(), 'no', 'band'],
  ['scriber-8', () => new SmallJob(), 'no', 'band'],
  // A keypad that disarms over a plain one-way link can be recorded.
  ['tapwell', () => new SmallJob(), 'loss', 'replay'],
  ['quartet', () => new SmallJob(), 'loss', 'replay'],
  ['quartet-c', () => new SmallJob(), 'works', null],
  // A wired siren needs no radio.
  ['horn-w', () => new SmallJob(), 'works', null],
  // No panel chosen.
  ['reedling', () => new SmallJob({ panel: null }), 'unknown', 'no-panel'],
  // Morrow 60 without any receiver hears nothing.
  ['latchet', () => new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' }), 'no', 'no-receiver'],
  // Dunlin by module; a plain device on an encrypted-only module is not believed.
  ['latchet-thin', () => SmallJob.morrow(), 'works', null],
  [
    'latchet-thin',
    () =>
      new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' }).receiver('morrow-radio-module', {
        encryptedOnly: true,
      }),
    'no',
    'encryption',
  ],
  [
    'latchet',
    () =>
      new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' }).receiver('morrow-radio-module', {
        encryptedOnly: true,
      }),
    'works',
    null,
  ],
  // The keypad receiver has no encrypted mode: optional encryption falls back to plain.
  [
    'latchet',
    () => new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' }).receiver('morrow-keypad-radio'),
    'loss',
    'encryption-optional',
  ],
  // Dunlin is approved for North America only.
  ['latchet', () => SmallJob.morrow({ region: 'europe' }), 'no', 'region'],
  // Wren is on another band than the Morrow's 345 MHz.
  ['reedling', () => SmallJob.morrow(), 'no', 'band'],
  // The fob that disarms over plain one-way Dunlin.
  ['fourkey', () => SmallJob.morrow(), 'loss', 'replay'],
]

describe('the verdict of a device', () => {
  it.each(table)('%s %#: %s', (model, make, verdict, code) => {
    const fit = fitOf(make().add('it', model), 'it')
    expect([fit?.verdict, fit?.reasons[0]?.code ?? null]).toEqual([verdict, code])
  })

  it('changes for each check that is switched off', () => {
    const speaking = new Set(table.map((row) => row[3]).filter((code): code is FitCode => code !== null))
    for (const code of speaking) {
      const changed = table.some(([model, make, verdict, first]) => {
        const fit = fitOf(make().add('it', model), 'it', [code])
        return fit?.verdict !== verdict || (fit.reasons[0]?.code ?? null) !== first
      })
      expect([code, changed]).toEqual([code, true])
    }
    expect(speaking.size).toBeGreaterThanOrEqual(8)
  })

  it('gives its reason with the figures', () => {
    const fit = fitOf(new SmallJob({ radioFirmware: '1.10' }).add('it', 'reedling-c'), 'it')
    expect(first(fit)).toBe('Wren C needs radio firmware 1.20 or newer; this panel has 1.10.')
  })

  it('asks for an equipment code that the catalogue lacks', () => {
    const job = new SmallJob({ region: 'own' })
    const bare = { ...catalogue.get('device', 'device/reedling') } as NonNullable<
      ReturnType<typeof catalogue.get<'device'>>
    >
    const poor = catalogue.with([keepEntry({ ...bare, equipmentCodes: [] })])
    expect(fitAll(systemOf(job.add('it', 'reedling').doc, poor)).get('device:it')?.reasons[0]?.code).toBe(
      'code',
    )
  })

  it('says that a grade cannot be told where a part states none, and only where grades count', () => {
    const { grade, ...silent } = catalogue.get('device', 'device/reedling') as NonNullable<
      ReturnType<typeof catalogue.get<'device'>>
    >
    expect(grade).toBe(2)
    const poor = catalogue.with([keepEntry(silent)])
    const reasons = (region: 'europe' | 'own', entries: typeof poor) =>
      fitAll(systemOf(new SmallJob({ region }).add('it', 'reedling').doc, entries)).get('device:it')?.reasons
    expect(reasons('europe', poor)?.map(reasonWords)).toEqual([
      'Reedling contact states no grade: whether the system is grade 2 with it cannot be told.',
    ])
    expect(reasons('europe', catalogue)).toEqual([])
    expect(reasons('own', poor)).toEqual([])
  })
})

describe('capacity', () => {
  it('counts transmitters up to the last that fits', () => {
    const job = new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' }).receiver(
      'morrow-keypad-radio',
    )
    for (let n = 1; n <= 19; n++) job.add(`d${n}`, 'latchet-thin')
    expect(fitOf(job, 'd18')?.verdict).toBe('works')
    expect(first(fitOf(job, 'd19'))).toBe(
      'Morrow keypad radio holds 18 transmitters and all are taken by others.',
    )
    expect(receiverLoad(systemOf(job.doc, catalogue)).map((load) => load.used)).toEqual([18])
  })

  it('goes on to a second receiver only where the panel’s entry says that they add up', () => {
    const job = new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' })
      .receiver('morrow-keypad-radio')
      .receiver('morrow-radio-module')
    for (let n = 1; n <= 63; n++) job.add(`d${n}`, 'latchet-thin')
    // The two receivers hold 18 and 44 transmitters; the panel itself has numbers for 48 zones only.
    const fits = (entries: typeof catalogue) =>
      fitAll(systemOf(job.doc, entries), { without: new Set(['zones']) })
    const plain = fits(catalogue)
    expect(plain.get('device:d44')?.verdict).toBe('works')
    expect(first(plain.get('device:d45'))).toBe(
      'Morrow keypad radio and Morrow radio module hold 44 transmitters together, not each its own number, and all are taken by others.',
    )
    const panel = catalogue.get('panel', 'panel/morrow-60') as NonNullable<
      ReturnType<typeof catalogue.get<'panel'>>
    >
    const added = fits(catalogue.with([keepEntry({ ...panel, receiversAdd: true })]))
    expect(added.get('device:d62')?.verdict).toBe('works')
    expect(added.get('device:d63')?.reasons[0]?.code).toBe('capacity')
    expect([fitOf(job, 'd44')?.verdict, fitOf(job, 'd45')?.reasons[0]?.code]).toEqual(['works', 'capacity'])
  })

  it('holds what several take together to each one’s own room', () => {
    // The keypad’s radio takes 18 at most, whatever the module leaves.
    const job = new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' })
      .receiver('morrow-keypad-radio')
      .receiver('morrow-radio-module')
    for (let n = 1; n <= 40; n++) job.add(`d${n}`, 'latchet-thin')
    const used = receiverLoad(systemOf(job.doc, catalogue)).map((load) => load.used)
    expect(used[0]).toBeLessThanOrEqual(18)
    expect(used.reduce((sum, count) => sum + count, 0)).toBe(40)
  })

  it('leaves out a contact, never the smoke alarm that was added last', () => {
    const job = new SmallJob({ panel: 'panel/pinfold-16', grade: 1, radioFirmware: null })
    for (let n = 1; n <= 16; n++) job.add(`w${n}`, 'pebble')
    expect(fitOf(job, 'w16')?.verdict).toBe('works')
    job.add('smoke', 'ashcap')
    expect([fitOf(job, 'smoke')?.verdict, fitOf(job, 'w15')?.verdict, fitOf(job, 'w16')?.verdict]).toEqual([
      'works',
      'works',
      'no',
    ])
    const whole = solveWhole(job.doc, catalogue.with([]), {
      newId: () => 'x',
      costs: defaultHouseRules.costs,
    })
    expect(whole?.lifeSafetyOut).toBe(0)
  })

  it('holds fobs, keypads and sirens to their slots', () => {
    const job = new SmallJob()
    for (let n = 1; n <= 9; n++) job.add(`f${n}`, 'quartet-c')
    expect([fitOf(job, 'f8')?.verdict, fitOf(job, 'f9')?.reasons[0]?.code]).toEqual(['works', 'slots'])
    expect(first(fitOf(job.add('h1', 'horn-w').add('h2', 'horn-w'), 'h2'))).toBe(
      'Tarn 40 holds 1 siren, and another has its place.',
    )
  })

  it('does not cover what is reached only through two repeaters in series', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11' })
      .add('near', 'spanner-8')
      .add('far', 'spanner-8', { via: 'device:near' })
      .add('one', 'sill-8', { via: 'device:near' })
      .add('two', 'sill-8', { via: 'device:far' })
      .add('odd', 'sill-8', { via: 'device:one' })
    expect(fitOf(job, 'one')?.verdict).toBe('works')
    expect(first(fitOf(job, 'two'))).toBe(
      'It is reached only through Spanner 8 repeater in far and, behind it, Spanner 8 repeater in near: Curlew 8 repeaters do not relay each other.',
    )
    expect(first(fitOf(job, 'odd'))).toBe('Sill 8 contact in one is no repeater: it relays nothing.')
    const without = fitAll(systemOf(job.doc, catalogue), { without: new Set(['chain']) })
    expect(without.get('device:two')?.verdict).toBe('works')
    const whole = solveWhole(job.doc, catalogue, { newId: () => 'x', costs: defaultHouseRules.costs })
    expect(whole?.leftOut.map((item) => item.device)).toEqual(['device:two', 'device:odd'])
  })

  it('never worsens a verdict by one more receiver', () => {
    const rank = { no: 0, unknown: 1, loss: 2, works: 3 }
    for (const model of ['latchet', 'latchet-thin', 'cinder-trio', 'fourkey', 'reedling', 'herald-8']) {
      const one = new SmallJob({ panel: 'panel/morrow-60', region: 'north-america' })
        .receiver('morrow-keypad-radio')
        .add('it', model)
      const before = fitOf(one, 'it')?.verdict ?? 'no'
      const after = fitOf(one.receiver('morrow-radio-module'), 'it')?.verdict ?? 'no'
      expect(rank[after]).toBeGreaterThanOrEqual(rank[before])
    }
  })
})

it('orders firmware by its parts', () => {
  expect(compareVersions('1.9', '1.20')).toBeLessThan(0)
  expect(compareVersions('2.0', '1.31')).toBeGreaterThan(0)
  expect(compareVersions('1.20', '1.20')).toBe(0)
})
