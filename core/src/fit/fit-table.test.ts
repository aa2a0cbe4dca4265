import { readFileSync } from 'node:fs'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { systemOf } from '../system/system.ts'
import { fitPair, type FitOptions, type Verdict } from './fit.ts'
import type { FitCode } from './reasons.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import type { DeviceModel, ReceiverModel } from '../catalogue/schema.ts'
import type { JobInfo } from '../job/records.ts'

interface Row {
  readonly pair: string
  readonly device: string
  readonly receiver: string
  readonly verdict: Verdict
  readonly first: FitCode | ''
  readonly sentence: string
}

const table = readFileSync(new URL('./expected-fit.csv', import.meta.url), 'utf8')
const rows = Papa.parse<Row>(table.trim(), { header: true }).data

/** The set-ups of the table: the receiver on its own panel, in that panel's region, at grade 2 where grades count. */
const setups: Readonly<Record<string, Partial<JobInfo>>> = {
  'tarn-radio': { panel: 'panel/tarn-40', radioFirmware: '1.31' },
  'tarn-radio old': { panel: 'panel/tarn-40', radioFirmware: '1.10' },
  'tarn-radio unread': { panel: 'panel/tarn-40', radioFirmware: null },
  'morrow-keypad-radio': { panel: 'panel/morrow-60', region: 'north-america', grade: 1 },
  'morrow-radio-module': { panel: 'panel/morrow-60', region: 'north-america', grade: 1 },
  'morrow-radio-module encrypted-only': { panel: 'panel/morrow-60', region: 'north-america', grade: 1 },
  'ostler-radio-8': { panel: 'panel/ostler-s-8' },
  'ostler-radio-9': { panel: 'panel/ostler-s-9', region: 'north-america', grade: 1 },
  'pinfold-radio': { panel: 'panel/pinfold-16' },
  'quillet-radio': { panel: 'panel/quillet-32' },
  'sallow-mesh': { panel: 'panel/sallow-m' },
  'sallow-bridge': { panel: 'panel/sallow-m' },
}

const systems = Object.fromEntries(
  Object.entries(setups).map(([name, info]) => {
    const [id, setting] = name.split(' ')
    const { doc } = new SmallJob({ grade: 2, region: 'europe', ...info })
    const model = catalogue.get('receiver', `receiver/${id}`) as ReceiverModel
    const families = model.hears.flatMap((item) => catalogue.get('family', item.family) ?? [])
    const receiver = { id: 'receiver:one', model, families, encryptedOnly: setting === 'encrypted-only' }
    return [name, { system: systemOf(doc, catalogue), receiver }]
  }),
)

function judged(row: Row, options?: FitOptions): string {
  const model = catalogue.get('device', row.device) as DeviceModel
  const family = catalogue.get('family', model.family)
  const setup = systems[row.receiver]
  if (!family || !setup) throw new Error(`${row.device} with ${row.receiver}`)
  const { verdict, reasons } = fitPair({ model, family, ...setup }, options)
  return `${verdict} ${reasons[0]?.code ?? ''}`.trim()
}

describe('every device with every receiver', () => {
  it('is in the table once', () => {
    const devices = catalogue.all('device').filter((model) => model.family !== null)
    expect(rows).toHaveLength(devices.length * Object.keys(setups).length)
    expect(new Set(rows.map((row) => `${row.device} ${row.receiver}`)).size).toBe(rows.length)
  })

  it.each(Object.keys(setups))('as the catalogue means it: %s', (receiver) => {
    const mine = rows.filter((row) => row.receiver === receiver)
    const wanted = mine.map((row) => `${row.device}: ${`${row.verdict} ${row.first}`.trim()}`)
    expect(mine.map((row) => `${row.device}: ${judged(row)}`)).toEqual(wanted)
  })

  it('rests three rows of each pair on a sentence', () => {
    const pairs = new Map<string, Row[]>()
    for (const row of rows) pairs.set(row.pair, [...(pairs.get(row.pair) ?? []), row])
    for (const [pair, list] of pairs)
      expect([pair, list.filter((row) => row.sentence !== '').length >= Math.min(3, list.length)]).toEqual([
        pair,
        true,
      ])
  })

  const checks = [
    'band',
    'protocol',
    'firmware',
    'encryption',
    'encryption-optional',
    'class',
    'kind',
    'one-way',
    'region',
    'code',
    'window',
    'bridge',
    'grade',
    'check-in',
    'replay',
  ] as const
  it.each(checks)('needs the check %s: without it a row differs', (code) => {
    const without = new Set<FitCode>([code])
    expect(rows.some((row) => judged(row, { without }) !== `${row.verdict} ${row.first}`.trim())).toBe(true)
  })
})

it('no two devices are alike in what is read of them', () => {
  const seen = new Map<string, string>()
  for (const model of catalogue.all('device')) {
    const {
      id,
      name,
      version: _version,
      maker: _maker,
      note: _note,
      variant: _variant,
      price: _price,
      ...read
    } = model
    const key = JSON.stringify(read)
    expect([id, seen.get(key) ?? 'its own']).toEqual([id, 'its own'])
    seen.set(key, `${id} ${name}`)
  }
  expect(seen.size).toBeGreaterThanOrEqual(60)
})
