import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel } from '../catalogue/schema.ts'
import { LookAlikes, lookAlikeWords } from '../identity/look-alike.ts'
import { readSticker } from '../identity/sticker.ts'
import { blankDevice } from '../job/blank.ts'
import type { Device, Use } from '../job/records.ts'
import { recordProblems } from '../job/edit.ts'
import { readSheet, type SheetFile, type SheetRow } from './sheet-file.ts'

/** What one row of an equipment list became. */
type ListRow =
  | {
      readonly row: number
      readonly ok: true
      readonly model: DeviceModel
      readonly devices: readonly Omit<Device, 'id' | 'order'>[]
      /** IDs that it may have been mistaken for, in words; it is taken all the same. */
      readonly doubts: readonly string[]
    }
  | { readonly row: number; readonly ok: false; readonly reasons: readonly string[]; readonly text: string }

/** What reading a list gave. */
export interface EquipmentList extends Omit<SheetFile<ListColumn>, 'rows'> {
  readonly rows: readonly ListRow[]
}

const columns = {
  device: ['device', 'model', 'item', 'equipment', 'product', 'type'],
  quantity: ['quantity', 'qty', 'count', 'number', 'pcs', 'amount'],
  room: ['room', 'place', 'location', 'where'],
  position: ['position', 'opening', 'spot', 'detail'],
  use: ['use', 'purpose'],
  sticker: ['serial', 'sticker', 'id', 'sticker id', 'serial number', 'radio id', 'transmitter id'],
  deferred: ['deferred', 'open', 'later', 'reason'],
} as const
/** A column that a list may have. */
export type ListColumn = keyof typeof columns
/** What a column of an equipment list can be. */
export const listColumns = Object.keys(columns) as [ListColumn, ...ListColumn[]]

const useWords: Readonly<Record<string, Use>> = {
  'everyday door': 'entry',
  'door used every day': 'entry',
  'entry door': 'entry',
  entry: 'entry',
  far: 'entry-far',
  'entry door, far from keypad': 'entry-far',
  'entry door far from the keypad': 'entry-far',
  'entry door, not in stay': 'entry-not-in-stay',
  'entry door not used in stay': 'entry-not-in-stay',
  window: 'opening',
  opening: 'opening',
  'window or unused door': 'opening',
  'inner door': 'inner-way',
  'inner door on the way in': 'inner-way',
  'sees an entry door’s leaf': 'sees-entry',
  'sees entry': 'sees-entry',
  'on the way': 'on-way',
  'on the way to the keypad': 'on-way',
  'on the way down at night': 'on-way-night',
  'off every way': 'off-way',
  safe: 'always-on',
  'gun cabinet': 'always-on',
  'never opened': 'always-on',
}

/** The words offered when a use was not understood: one for each. */
const shownUses = [
  'everyday door',
  'entry door, far from keypad',
  'entry door, not in stay',
  'window or unused door',
  'inner door on the way in',
  'sees entry',
  'on the way',
  'on the way down at night',
  'off every way',
  'never opened',
]

/** What the firm’s headings mean, and the IDs that its jobs know already, each with where. */
export interface ListOptions {
  readonly meanings?: Readonly<Record<string, string>>
  readonly knownIds?: readonly { readonly serial: string; readonly where: string }[]
}

/**
 * Reads an equipment list as spreadsheets write them. `meanings` says what headings of the firm's own mean, by
 * `headingKey`; `knownIds` are those of the job, which a row's ID may have been mistaken for. Bad rows are named with row number and reasons; nothing is guessed.
 */
export function readEquipmentList(
  text: string,
  catalogue: Catalogue,
  { meanings = {}, knownIds = [] }: ListOptions = {},
): EquipmentList {
  const sheet = readSheet(text, columns, { meanings, needed: 'device', what: 'what the device is' })
  const seen: SeenIds = { rows: new Map(), alikes: new LookAlikes() }
  for (const { serial, where } of knownIds) seen.alikes.add(serial, where)
  return { ...sheet, rows: sheet.rows.map((line) => readRow(line, { catalogue, seen })) }
}

interface Reading {
  readonly catalogue: Catalogue
  readonly seen: SeenIds
}

function readRow(line: SheetRow<ListColumn>, { catalogue, seen }: Reading): ListRow {
  const { cell } = line
  const reasons: string[] = []
  const doubts: string[] = []
  const model = findModel(catalogue, cell('device'))
  if (typeof model === 'string') reasons.push(model)
  const quantity = quantityOf(cell('quantity'), reasons)
  const use = useOf(cell('use'), reasons)
  const sticker = typeof model === 'string' ? null : stickerOf(cell('sticker'), { model, catalogue }, reasons)
  if (sticker !== null) {
    if (quantity > 1) reasons.push(`one ID cannot belong to ${quantity} devices: give each its own row`)
    const first = seen.rows.get(sticker)
    if (first !== undefined) reasons.push(`the ID stands in row ${first} already`)
    seen.rows.set(sticker, line.row)
    doubts.push(
      ...seen.alikes
        .near(sticker)
        .map(
          ({ where, alike }) =>
            `the ID is nearly that of ${where}: ${lookAlikeWords(alike, 'there')}; read both stickers again`,
        ),
    )
    seen.alikes.add(sticker, `row ${line.row}`)
  }
  if (typeof model !== 'string' && reasons.length === 0) {
    const device = {
      ...blankDevice,
      model: model.id,
      room: cell('room'),
      position: cell('position'),
      deferred: cell('deferred') === '' ? null : cell('deferred'),
      use,
      sticker,
    }
    for (const problem of recordProblems({ id: 'device:x', order: 0, ...device }))
      reasons.push(`${problem.path.replace(/^\./, '')} ${problem.message}`)
    if (reasons.length === 0)
      return {
        row: line.row,
        ok: true,
        model,
        devices: Array.from({ length: quantity }, () => device),
        doubts,
      }
  }
  return { row: line.row, ok: false, reasons, text: line.cells.join(' | ').slice(0, 200) }
}

/** IDs of the list so far by row, and in what they may be mistaken for each other, those that the job knows included. */
interface SeenIds {
  readonly rows: Map<string, number>
  readonly alikes: LookAlikes
}

/** The model that a list names, or why it names none. */
export function findModel(catalogue: Catalogue, text: string): DeviceModel | string {
  if (text === '') return 'the device is missing'
  const wanted = text.toLowerCase().replace(/\s+/g, ' ')
  const models = catalogue.all('device')
  const exact = models.filter(
    (model) => model.id === wanted || model.id === `device/${wanted}` || model.name.toLowerCase() === wanted,
  )
  if (exact[0]) return exact[0]
  const near = models.filter(
    (model) => model.name.toLowerCase().startsWith(wanted) || wanted.startsWith(model.name.toLowerCase()),
  )
  if (near.length === 1 && near[0]) return near[0]
  const hint =
    near.length > 1
      ? `it could be ${near.map((model) => model.name).join(' or ')}: write which`
      : 'add it to the catalogue, or write a name that is there'
  return `“${text}” is not in the catalogue; ${hint}`
}

function quantityOf(text: string, reasons: string[]): number {
  if (text === '') return 1
  const value = Number(text.replace(',', '.'))
  if (Number.isInteger(value) && value >= 1 && value <= 50) return value
  reasons.push(`quantity “${text}” must be a whole number from 1 to 50`)
  return 1
}

function useOf(text: string, reasons: string[]): Use {
  if (text === '') return 'none'
  const use = useWords[text.toLowerCase()]
  if (use) return use
  reasons.push(`use “${text}” is not known; write one of: ${shownUses.join(' · ')}`)
  return 'none'
}

interface Listed {
  readonly model: DeviceModel
  readonly catalogue: Catalogue
}

function stickerOf(text: string, { model, catalogue }: Listed, reasons: string[]): string | null {
  if (text === '') return null
  const family = catalogue.get('family', model.family)
  if (!family) {
    reasons.push(`${model.name} is wired and has no radio ID`)
    return null
  }
  const read = readSticker(family, text)
  if (read.ok) return read.serial
  reasons.push(read.reason)
  return null
}
