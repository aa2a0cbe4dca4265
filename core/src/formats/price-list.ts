import type { Catalogue } from '../catalogue/catalogue.ts'
import { price as priceShape, type DeviceModel, type Price } from '../catalogue/schema.ts'
import { sameJson } from '../units/canonical.ts'
import { findModel } from './equipment-list.ts'
import {
  isRefused,
  readSheet,
  writeSheet,
  type Refused,
  type SheetFile,
  type SheetRow,
} from './sheet-file.ts'

/* What devices cost, as a spreadsheet: out as the catalogue has it, in row by row. What could mean two things is asked, never guessed. */

const columns = {
  id: ['id', 'entry', 'entry id'],
  device: ['device', 'name', 'model', 'item', 'equipment', 'product', 'article', 'description'],
  price: ['price', 'net price', 'unit price', 'list price', 'cost', 'net'],
  currency: ['currency', 'curr', 'cur'],
  pieces: ['pieces', 'pack', 'pack of', 'per', 'pcs'],
} as const
/** A column that a price list may have. */
export type PriceColumn = keyof typeof columns
/** What a column of a price list can be. */
export const priceColumns = Object.keys(columns) as [PriceColumn, ...PriceColumn[]]

/** What one row of a price list became. */
type PriceRow =
  | {
      readonly row: number
      readonly ok: true
      readonly model: DeviceModel
      readonly price: Price
      /** Whether the catalogue has it otherwise. */
      readonly changed: boolean
    }
  | { readonly row: number; readonly ok: false; readonly reasons: readonly string[]; readonly text: string }

/** What reading a price list gave; rows without a price are passed over. */
export interface PriceList extends Omit<SheetFile<PriceColumn>, 'rows'> {
  readonly rows: readonly PriceRow[]
}

/** Reads a price list. `meanings` says what headings of the firm's own mean, by `headingKey`. Total. */
export function readPriceList(
  text: string,
  catalogue: Catalogue,
  meanings: Readonly<Record<string, string>> = {},
): PriceList {
  const sheet = readSheet(text, columns, { meanings, needed: 'price', what: 'what a device costs' })
  const seen = new Map<string, number>()
  const rows = sheet.rows
    .filter(({ cell }) => cell('price') !== '')
    .map((line) => readRow(line, catalogue, seen))
  const trouble = sheet.trouble ?? (rows.length === 0 ? 'No row of this file has a price.' : null)
  return { ...sheet, rows, trouble }
}

function readRow(line: SheetRow<PriceColumn>, catalogue: Catalogue, seen: Map<string, number>): PriceRow {
  const { cell, row } = line
  const reasons: string[] = []
  const take = <T>(read: T | Refused): T | undefined => {
    if (!isRefused(read)) return read
    reasons.push(read.refused)
    return undefined
  }
  const model = take(modelOf(line, catalogue))
  const amount = take(amountOf(cell('price')))
  const currency = take(currencyOf(cell('currency'), cell('price'), model?.price?.currency))
  const pack = take(piecesOf(cell('pieces'), model?.price?.pack ?? 1))
  if (model) take(alone(model, row, seen))
  const read = priceShape.safeParse({ amount, currency, pack })
  if (!read.success && reasons.length === 0) reasons.push(`price “${cell('price')}” must be 0 to 100000`)
  if (!model || !read.success || reasons.length > 0)
    return { row, ok: false, reasons, text: line.cells.join(' | ').slice(0, 200) }
  return { row, ok: true, model, price: read.data, changed: !sameJson(model.price ?? null, read.data) }
}

function modelOf({ cell }: SheetRow<PriceColumn>, catalogue: Catalogue): DeviceModel | Refused {
  const byId = cell('id') === '' ? null : catalogue.get('device', cell('id'))
  const model = byId ?? findModel(catalogue, cell('device') === '' ? cell('id') : cell('device'))
  return typeof model === 'string' ? { refused: model } : model
}

/** A device stands in one row: of two prices nobody knows which holds. */
function alone({ id, name }: DeviceModel, row: number, seen: Map<string, number>): true | Refused {
  const first = seen.get(id)
  if (first !== undefined) return { refused: `${name} stands in row ${first} already` }
  seen.set(id, row)
  return true
}

function piecesOf(text: string, before: number): number | Refused {
  if (text === '') return before
  const pieces = Number(text)
  if (Number.isInteger(pieces) && pieces >= 1 && pieces <= 100) return pieces
  return { refused: `pieces “${text}” must be a whole number from 1 to 100` }
}

/** An amount as people write it: with a point or a comma before its decimals, either between thousands, a sign or code about it. */
function amountOf(text: string): number | Refused {
  const bare = text.replace(/[\s\u00A0\u202F'’]/g, '').replace(/^[A-Za-z€£$]{1,3}|[A-Za-z€£$]{1,3}$/g, '')
  const [, whole = '', decimals = ''] = /^(\d+)(?:[.,](\d+))?$/.exec(bare) ?? []
  // Three digits behind one sign are thousandths, or thousands.
  if (decimals.length === 3)
    return {
      refused: `price “${text}” could be ${whole}${decimals} or ${whole}.${decimals}: write ${whole}${decimals}.00 or ${whole}.${decimals}0`,
    }
  if (whole !== '') return Number(`${whole}.${decimals || '0'}`)
  return groupedAmount(bare) ?? { refused: `price “${text}” is no amount: write it as 12.50` }
}

/** An amount with one sign between its thousands, and the other before its decimals where it has any. */
function groupedAmount(bare: string): number | null {
  for (const [between, before] of [
    [',', '.'],
    ['.', ','],
  ] as const) {
    const [thousands = '', decimals = '0', ...more] = bare.split(before)
    const groups = thousands.split(between)
    const isWhole =
      groups.length > 1 && groups.every((group, index) => (index === 0 ? /^\d{1,3}$/ : /^\d{3}$/).test(group))
    if (isWhole && more.length === 0 && /^\d{1,2}$/.test(decimals))
      return Number(`${groups.join('')}.${decimals}`)
  }
  return null
}

const codes: Readonly<Record<string, string>> = { '€': 'EUR', '£': 'GBP' }

/** The currency of a row: as its cell or its price names it, else the one that its device has a price in. */
function currencyOf(cell: string, price: string, before: string | undefined): string | Refused {
  const about = /^[^\d]*/.exec(price)?.[0] ?? ''
  const behind = /[^\d]*$/.exec(price)?.[0] ?? ''
  const named = [cell, about, behind].map((text) => text.trim()).filter((text) => text !== '')
  const found = [...new Set(named.map((text) => codes[text] ?? text.toUpperCase()))]
  if (found.length > 1) return { refused: `two currencies: ${found.join(' and ')}` }
  const one = found[0] ?? before
  if (one === undefined) return { refused: 'no currency: add a column Currency with a code such as EUR' }
  if (/^[A-Z]{3}$/.test(one)) return one
  if (one === '$') return { refused: '“$” is the sign of several currencies: write a code such as USD' }
  return { refused: `currency “${one}” must be a code such as EUR` }
}

/** Every device of a catalogue with what it costs, as CSV: read again it changes nothing. */
export function writePriceList(catalogue: Catalogue): string {
  const fields = ['Id', 'Name', 'Maker', 'Class', 'Family', 'Price', 'Currency', 'Pieces', 'No longer made']
  const data = catalogue
    .all('device')
    .map((model) => [
      model.id,
      model.name,
      model.maker,
      model.class,
      catalogue.get('family', model.family)?.name ?? 'wired',
      model.price ? amountText(model.price.amount) : '',
      model.price?.currency ?? '',
      model.price ? String(model.price.pack) : '',
      model.discontinued ? 'yes' : '',
    ])
  return writeSheet(fields, data)
}

/** Two decimals where they are enough: with three it could be read as thousands. */
function amountText(amount: number): string {
  const two = amount.toFixed(2)
  return Number(two) === amount ? two : amount.toFixed(4)
}
