import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { DeviceModel, Price } from '../catalogue/schema.ts'
import { keepEntry, pricedEntry } from '../catalogue/written.ts'
import { readPack, writePack } from '../catalogue/pack.ts'
import { runs } from '../testing/runs.ts'
import { catalogue } from '../testing/small-job.ts'
import { readPriceList, writePriceList } from './price-list.ts'

const wick = catalogue.get('device', 'device/wick') ?? expect.fail('no wick')
/** A catalogue in which the CO alarm costs this, or nothing that is stated. */
const priced = (price: Price | undefined) => {
  const { price: _price, ...rest } = wick
  return catalogue.with([keepEntry({ ...rest, ...(price ? { price } : {}) } as DeviceModel)])
}
const none = priced(undefined)
const inEuro = priced({ amount: 31.5, currency: 'EUR', pack: 1 })

describe('a price', () => {
  it.each([
    ['12.50', 12.5],
    ['12,50', 12.5],
    ['12', 12],
    ['0', 0],
    ['12.5', 12.5],
    ['1,234.50', 1234.5],
    ['1.234,50', 1234.5],
    ['1.234,5', 1234.5],
    ['12 345,60', 12345.6],
    ['1,234,500', null],
    ['12.3456', 12.3456],
    ['EUR 12.50', 12.5],
    ['12,50 €', 12.5],
    ['1’234.50', 1234.5],
  ])('%s is %s', (text, amount) => {
    const [row] = readPriceList(`name;price;currency\nWick CO alarm;"${text}";EUR`, none).rows
    // 1,234,500 is above what a device may cost.
    if (amount === null)
      expect(row).toMatchObject({ ok: false, reasons: [`price “${text}” must be 0 to 100000`] })
    else expect(row).toMatchObject({ ok: true, changed: true, price: { amount, currency: 'EUR', pack: 1 } })
  })

  it.each([
    ['1,234', 'price “1,234” could be 1234 or 1.234: write 1234.00 or 1.2340'],
    ['1.234', 'price “1.234” could be 1234 or 1.234: write 1234.00 or 1.2340'],
    ['twelve', 'price “twelve” is no amount: write it as 12.50'],
    ['-3', 'price “-3” is no amount: write it as 12.50'],
    ['1,23,456', 'price “1,23,456” is no amount: write it as 12.50'],
    ['1,234.5.6', 'price “1,234.5.6” is no amount: write it as 12.50'],
    ['200000', 'price “200000” must be 0 to 100000'],
  ])('%s is asked about, never guessed', (text, reason) => {
    const [row] = readPriceList(`name;price;currency\nWick CO alarm;"${text}";EUR`, none).rows
    expect(row?.ok === false && row.reasons).toContain(reason)
  })

  it.each([
    ['12.50', '', 'EUR', 'no currency: add a column Currency with a code such as EUR'],
    ['12.50 £', '', 'GBP', null],
    ['$12.50', '', null, '“$” is the sign of several currencies: write a code such as USD'],
    ['€ 12.50', 'EUR', 'EUR', null],
    ['€ 12.50', 'GBP', null, 'two currencies: GBP and EUR'],
    ['12.50', 'euro', null, 'currency “EURO” must be a code such as EUR'],
    ['12.50', 'chf', 'CHF', null],
  ])('%s in “%s” is in %s', (price, currency, code, reason) => {
    const text = `name\tprice\tcurrency\nWick CO alarm\t${price}\t${currency}`
    const [alone] = readPriceList(text, none).rows
    if (reason !== null) expect(alone).toMatchObject({ ok: false, reasons: [reason] })
    else expect(alone).toMatchObject({ ok: true, price: { currency: code } })
    // Where the device has a price, its currency goes without saying.
    const [before] = readPriceList(text, inEuro).rows
    if (code !== null) expect(before).toMatchObject({ ok: true, price: { currency: code } })
  })

  it('is for so many pieces as the list says, else as before, else for one', () => {
    const ten = priced({ amount: 90, currency: 'EUR', pack: 10 })
    const at = (pieces: string, of = ten) =>
      readPriceList(`name,price,pack of\nWick CO alarm,88,${pieces}`, of).rows[0]
    expect(at('')).toMatchObject({ price: { amount: 88, pack: 10 } })
    expect(at('5')).toMatchObject({ price: { amount: 88, pack: 5 } })
    expect(at('', inEuro)).toMatchObject({ price: { amount: 88, pack: 1 } })
    for (const odd of ['0', '101', '2.5', 'box'])
      expect(at(odd)).toMatchObject({
        ok: false,
        reasons: [`pieces “${odd}” must be a whole number from 1 to 100`],
      })
  })
})

describe('a price list', () => {
  it('finds devices by id, else by name; of what is not there, or there twice, it says so by row', () => {
    const { rows, trouble } = readPriceList(
      [
        'id;name;price;currency',
        'device/wick;whatever it is called there;10;EUR',
        ';Puddle flood;11;EUR',
        'puddle;;12;EUR',
        ';Nothing of the kind;13;EUR',
        'device/gone;Reedling contact;14;EUR',
        ';;15;EUR',
        ';Beckon pendant;;',
      ].join('\n'),
      catalogue,
    )
    expect(trouble).toBeNull()
    expect(rows.map((one) => [one.row, one.ok ? one.model.id : one.reasons[0]])).toEqual([
      [2, 'device/wick'],
      [3, 'device/puddle'],
      [4, 'Puddle flood stands in row 3 already'],
      [
        5,
        '“Nothing of the kind” is not in the catalogue; add it to the catalogue, or write a name that is there',
      ],
      [6, 'device/reedling'],
      [7, 'the device is missing'],
    ])
  })

  it('without prices, or without a column of them, is told', () => {
    expect(readPriceList('name;price\nWick CO alarm;', catalogue).trouble).toBe(
      'No row of this file has a price.',
    )
    const without = readPriceList('Artikel;Preis\nWick CO alarm;12', catalogue)
    expect(without.trouble).toMatch(
      /^No column says what a device costs\. The first row must name one of: price,/,
    )
    // The firm says what its headings mean; what is said of another kind of list is nothing here.
    const said = readPriceList('Artikel;Preis\nWick CO alarm;12', inEuro, {
      artikel: 'device',
      preis: 'price',
    })
    expect(said.rows).toMatchObject([{ ok: true, price: { amount: 12 } }])
    expect(
      readPriceList('name;price\nWick CO alarm;12', inEuro, { name: 'room', price: 'nothing' }).trouble,
    ).toMatch(/^No column/)
    expect(readPriceList('name;price\nWick CO alarm;12', inEuro, { name: 'room' }).rows).toMatchObject([
      { ok: true },
    ])
  })

  it('as it goes out changes nothing when it comes in, and every device stands in it', () => {
    const text = writePriceList(inEuro)
    const { rows, trouble, unknown } = readPriceList(text, inEuro)
    expect([trouble, unknown]).toEqual([null, ['Maker', 'Class', 'Family', 'No longer made']])
    const costly = inEuro.all('device').filter(({ price }) => price)
    expect(rows.filter((one) => one.ok && !one.changed).length).toBe(costly.length)
    expect(rows.length).toBe(costly.length)
    expect(text.split('\r\n').length).toBe(catalogue.all('device').length + 2)
    expect(text).toContain('device/wick,Wick CO alarm,Hallmere Signal,gas,Wren,31.50,EUR,1,')
  })

  it('any price goes out and in again', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 10_000_000 }),
        fc.constantFrom('EUR', 'GBP', 'CHF'),
        fc.integer({ min: 1, max: 100 }),
        (cents, currency, pack) => {
          const price = { amount: cents / 100, currency, pack }
          const row = readPriceList(writePriceList(priced(price)), none).rows.find(
            (one) => one.ok && one.model.id === 'device/wick',
          )
          expect(row).toMatchObject({ ok: true, price })
        },
      ),
      { numRuns: runs(100), seed: 3 },
    )
  })

  it('nothing that is typed into it breaks the reader', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'binary' }),
        fc.string({ unit: fc.constantFrom(...'0123456789.,€$£ EURx-') }),
        (head, price) => {
          const { rows } = readPriceList(
            `name;price;${head.replace(/[\r\n;"]/g, '')}\nWick CO alarm;${price}`,
            inEuro,
          )
          for (const one of rows) if (!one.ok) expect(one.reasons.length).toBeGreaterThan(0)
        },
      ),
      { numRuns: runs(1000), seed: 3 },
    )
  })
})

it('a device with another price is the next version of its entry, and reads as before but for that', () => {
  const kept = catalogue.kept.find(({ entry }) => entry.id === 'device/wick') ?? expect.fail('no wick')
  const next = pricedEntry(kept, { amount: 9, currency: 'EUR', pack: 2 })
  const { price, version, ...rest } = next.entry as DeviceModel
  const { price: _price, version: before, ...was } = kept.entry as DeviceModel
  expect([price, rest]).toEqual([{ amount: 9, currency: 'EUR', pack: 2 }, was])
  expect(Number(version)).toBe(Number(before) + 1)
  expect(next.hash).not.toBe(kept.hash)
  expect(readPack(JSON.parse(writePack('x', [next])), catalogue.entries)).toMatchObject({ ok: true })
  expect((pricedEntry(next, null).entry as DeviceModel).price).toBeUndefined()
  const worded = pricedEntry(keepEntry({ ...wick, version: 'spring of twenty-six' } as DeviceModel), null)
  expect(worded.entry.version).toBe('spring of twenty-s.1')
})
