import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel } from '../catalogue/schema.ts'
import { factChanges, type FactChange } from '../catalogue/describe.ts'
import type { KeptEntry } from '../catalogue/written.ts'
import { beginDraft, draftEntry } from '../draft/entry.ts'
import type { Question } from '../draft/form.ts'
import { questionsOf } from '../draft/questions.ts'
import {
  answerOps,
  answersOf,
  draftInfo,
  draftKernel,
  type DraftDocument,
  type DraftOp,
} from '../draft/records.ts'
import { sameJson } from '../units/canonical.ts'
import { answerText, readAnswer } from './answer-text.ts'
import { isRefused, readSheet, writeSheet, type SheetFile, type SheetRow } from './sheet-file.ts'

/*
 * Devices of a catalogue as a spreadsheet: a row each, a column for each question that is asked of devices. A row is answered like a
 * draft, so that what a person may not publish no list may bring.
 */

/** Columns by the question that they answer, each with the headings that mean it; the first is the one written. */
const columns = {
  id: ['id', 'entry', 'entry id'],
  name: ['name', 'device', 'model', 'item', 'product', 'description'],
  maker: ['maker', 'manufacturer', 'brand', 'make'],
  class: ['class', 'type', 'kind', 'category', 'kind of device'],
  family: ['family', 'radio family', 'radio'],
  regions: ['regions', 'region', 'market'],
  encryption: ['encrypted', 'encryption'],
  needsTwoWay: ['needs an answer', 'two way'],
  checkInMinutes: ['checks in every min', 'check in', 'check in min', 'supervision min'],
  transmitDbm: ['power dbm', 'radiated power'],
  loops: ['events and loops', 'loops', 'events'],
  joined: ['smoke and heat joined', 'joined'],
  'tripsAtC.heat': ['trips at heat', 'heat threshold'],
  'tripsAtC.freeze': ['trips at cold', 'frost threshold'],
  switches: ['switched inputs', 'inputs'],
  ways: ['made to send by', 'ways', 'learning'],
  confirm: ['second transmission', 'confirm'],
  sticker: ['sticker', 'where the sticker is'],
  stickerPlace: ['sticker is', 'sticker place'],
  equipmentCodes: ['equipment codes', 'equipment code'],
  magnetGapMm: ['magnet gap mm', 'gap mm', 'magnet gap'],
  petKg: ['pets up to kg', 'pet kg', 'pets'],
  petSettings: ['pet settings'],
  sleepsSeconds: ['sleeps s', 'sleep'],
  readyAfterSeconds: ['ready after s', 'warm up'],
  sensitivity: ['sensitivity'],
  carried: ['carried'],
  disarms: ['unsets', 'disarms'],
  'temperatureC.from': ['from °c', 'temperature from', 'min temperature'],
  'temperatureC.to': ['to °c', 'temperature to', 'max temperature'],
  outdoor: ['outdoors', 'outdoor'],
  lifeYears: ['replaced after years', 'life years'],
  grade: ['grade', 'en 50131 grade'],
  'batteries.count': ['batteries', 'battery count'],
  'batteries.type': ['battery type', 'battery'],
  'batteries.wayUp': ['battery way up'],
  'batteries.order': ['battery order'],
  'batteries.firstInsertLearns': ['sends at first battery'],
  'variant.of': ['variant of', 'variant'],
  'variant.how': ['variant how'],
  discontinued: ['no longer made', 'discontinued'],
  note: ['note', 'notes', 'remark', 'remarks'],
} as const
/** A column that a list of devices may have. */
export type DeviceColumn = keyof typeof columns
/** What a column of a list of devices can be. */
export const deviceColumns = Object.keys(columns) as [DeviceColumn, ...DeviceColumn[]]
/** How each column is headed where it is written. */
export const deviceHeadings = Object.fromEntries(
  deviceColumns.map((column) => {
    const [first] = columns[column]
    return [column, (first.charAt(0).toUpperCase() + first.slice(1)).replace('°c', '°C')]
  }),
) as Readonly<Record<DeviceColumn, string>>

/** How many rows are read. */
const MOST_ROWS = 500

/** What one row of a list of devices became. */
export type DeviceRow =
  | {
      readonly row: number
      readonly ok: true
      readonly kept: KeptEntry
      readonly state: 'new' | 'changed' | 'same'
      /** Of a changed one what it says otherwise. */
      readonly changes: readonly FactChange[]
    }
  | { readonly row: number; readonly ok: false; readonly reasons: readonly string[]; readonly text: string }

/** What reading a list of devices gave. */
export interface DeviceList extends Omit<SheetFile<DeviceColumn>, 'rows'> {
  readonly rows: readonly DeviceRow[]
}

/** Every device of a catalogue, or those of these ids, as CSV: read again it changes nothing. */
export function writeDeviceList(catalogue: Catalogue, ids: ReadonlySet<string> | null = null): string {
  const data = catalogue
    .all('device')
    .filter(({ id }) => ids === null || ids.has(id))
    .map((model) => {
      const doc = begun(model, catalogue)
      const answers = answersOf(doc)
      const asked = new Map(questionsOf(doc, catalogue).map((one) => [one.path, one]))
      return deviceColumns.map((column) => {
        const question = asked.get(column)
        if (column === 'id') return model.id
        return question ? answerText(question, answers.get(column), catalogue) : ''
      })
    })
  return writeSheet(
    deviceColumns.map((column) => deviceHeadings[column]),
    data,
  )
}

/**
 * Reads a list of devices against a catalogue. An empty cell leaves what the device says, of a new one it is not answered; `–` says that
 * there is none, or that it is not stated. `meanings` says what headings of the firm's own mean, by `headingKey`. Total.
 */
export function readDeviceList(
  text: string,
  catalogue: Catalogue,
  meanings: Readonly<Record<string, string>> = {},
): DeviceList {
  const sheet = readSheet(text, columns, { meanings, needed: 'name', what: 'what a device is called' })
  if (sheet.rows.length > MOST_ROWS)
    return { ...sheet, rows: [], trouble: `The file has more than ${MOST_ROWS} rows. Split it.` }
  let known = catalogue
  const seen = new Map<string, number>()
  const rows = sheet.rows.map((line): DeviceRow => {
    const read = readRow(line, known, seen)
    // A device may follow another one of the same list, and no two get one id.
    if (read.ok && read.state !== 'same') known = known.with([read.kept])
    return read
  })
  return { ...sheet, rows }
}

function readRow(line: SheetRow<DeviceColumn>, catalogue: Catalogue, seen: Map<string, number>): DeviceRow {
  const { row, cells } = line
  const refused = (reasons: readonly string[]): DeviceRow => ({
    ...{ row, ok: false, reasons, text: cells.filter(Boolean).join(' | ').slice(0, 200) },
  })
  const like = likeOf(line, catalogue)
  if (typeof like === 'string') return refused([like])
  const first = like ? seen.get(like.id) : undefined
  if (like && first !== undefined) return refused([`${like.name} stands in row ${first} already`])
  const { doc, reasons } = answered(line, begun(like, catalogue), catalogue)
  const told = reasons.map(({ column, message }) => `${deviceHeadings[column]}: ${message}`)
  // What else is asked follows from these: of the rest nothing can be said yet.
  if (reasons.some(({ column }) => column === 'class' || column === 'family')) return refused(told)
  const { kept, problems, missing } = draftEntry(doc, catalogue)
  // What a cell is refused for is not missing besides.
  const open = new Set(reasons.map(({ column }) => column))
  const all = [
    ...told,
    ...missing
      .filter((path) => !open.has(path as DeviceColumn))
      .map((path) => `“${headingOf(path)}” is missing`),
    ...problems.map(({ path, message }) => `${headingOf(path)}: ${message}`),
  ]
  if (!kept || all.length > 0) return refused(all)
  seen.set(kept.entry.id, row)
  if (!like) return { row, ok: true, kept, state: 'new', changes: [] }
  const same = sameJson({ ...kept.entry, version: '' }, { ...like, version: '' })
  return {
    ...{ row, ok: true, kept, state: same ? 'same' : 'changed' },
    changes: same ? [] : factChanges(like, kept.entry, catalogue).filter(({ label }) => label !== 'Version'),
  }
}

function headingOf(path: string): string {
  return (deviceHeadings as Readonly<Record<string, string>>)[path] ?? path
}

/** The device that a row is about: by its id, else by name and maker; null for a new one, and in words where it cannot be told. */
function likeOf({ cell }: SheetRow<DeviceColumn>, catalogue: Catalogue): DeviceModel | null | string {
  const id = cell('id')
  if (id !== '')
    return catalogue.get('device', id) ?? `Id: “${id}” is no device of this catalogue; a new one has none`
  const lower = (text: string): string => text.trim().toLowerCase()
  const named = catalogue
    .all('device')
    .filter(({ name, maker }) => lower(name) === lower(cell('name')) && lower(maker) === lower(cell('maker')))
  return named.length > 1
    ? `could be ${named.map((one) => one.id).join(' or ')}: write the id`
    : (named[0] ?? null)
}

function begun(like: DeviceModel | null, catalogue: Catalogue): DraftDocument {
  return applied(draftKernel.empty, beginDraft('device', { like, corrects: like !== null }, catalogue))
}

function applied(doc: DraftDocument, ops: readonly DraftOp[]): DraftDocument {
  const result = draftKernel.applyOps(doc, ops)
  if (!result.ok) throw new RangeError('an answer is given once')
  return result.doc
}

interface Told {
  readonly column: DeviceColumn
  readonly message: string
}

/** A draft with the answers of a row; which questions are asked follows from those before. */
function answered(
  { cell }: SheetRow<DeviceColumn>,
  begin: DraftDocument,
  catalogue: Catalogue,
): { readonly doc: DraftDocument; readonly reasons: readonly Told[] } {
  let doc = begin
  const reasons: Told[] = []
  // What it was told by it is called already, also where the list writes it in other letters.
  const told: readonly string[] =
    cell('id') === '' && draftInfo(begin)?.corrects ? ['id', 'name', 'maker'] : ['id']
  const open = new Set(deviceColumns.filter((column) => !told.includes(column) && cell(column) !== ''))
  const next = (): Question | undefined =>
    questionsOf(doc, catalogue).find(({ path }) => open.has(path as DeviceColumn))
  for (let question = next(); question; question = next()) {
    const column = question.path as DeviceColumn
    open.delete(column)
    const value = readAnswer(question, cell(column), catalogue)
    if (isRefused(value)) reasons.push({ column, message: value.refused })
    else doc = applied(doc, answerOps(doc, column, value))
  }
  // What is not asked of such a device is passed over where it says no more than that.
  const idle = ['–', '-', 'no', 'none', 'not stated']
  const known = !reasons.some(({ column }) => column === 'class' || column === 'family')
  for (const column of known ? open : [])
    if (!idle.includes(cell(column).toLowerCase()))
      reasons.push({ column, message: 'is not asked of such a device: leave it empty' })
  return { doc, reasons }
}
