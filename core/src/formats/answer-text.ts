import type { Catalogue } from '../catalogue/catalogue.ts'
import type { Cell, Choice, Form, Question } from '../draft/form.ts'
import type { Answer } from '../draft/records.ts'
import { sameJson } from '../units/canonical.ts'
import { isRefused, type Refused } from './sheet-file.ts'

/* An answer of a draft as one cell of a spreadsheet, and back. What could mean two things is refused, never guessed. */

type Value = Answer['value']

/** What a cell says where there is no answer to give: not stated, none, wired. */
const NONE = '–'
const nothing: readonly string[] = [NONE, '-', 'none', 'not stated']
const noneWords: readonly string[] = [...nothing, 'wired', 'no']

/** An answer as a cell; empty where a cell cannot say it, so that it stays as it is when the cell is read again. */
export function answerText(question: Question, value: Value | undefined, catalogue: Catalogue): string {
  if (value === undefined) return ''
  const text = value === null ? NONE : said(question.form, value, catalogue)
  const back = readAnswer(question, text, catalogue)
  return !isRefused(back) && sameJson(back, value) ? text : ''
}

/** The answer that a cell gives; null for none. */
export function readAnswer(question: Question, text: string, catalogue: Catalogue): Value | Refused {
  const { form, unless } = question
  const cell = text.replace(/^'(?=[\s=+\-@])/, '').trim()
  const word = cell.toLowerCase()
  // Words may say anything: what says that there is nothing is no answer in words.
  if (form.is === 'text' && unless !== '' && (nothing.includes(word) || word === unless.toLowerCase()))
    return null
  const read = readForm(form, cell, catalogue)
  if (!isRefused(read)) return read
  if (unless !== '' && (noneWords.includes(word) || word === unless.toLowerCase())) return null
  return unless === '' ? read : { refused: `${read.refused}, or ${NONE} for “${unless}”` }
}

function said(form: Form, value: NonNullable<Value>, catalogue: Catalogue): string {
  switch (form.is) {
    case 'yes-no':
      return value === true ? 'yes' : 'no'
    case 'one-of':
      return form.choices.find((choice) => choice.value === value)?.title ?? ''
    case 'some-of':
      return listOf(value)
        .map((one) => said({ is: 'one-of', choices: form.choices }, one, catalogue))
        .join(', ')
    case 'one-entry':
      return catalogue.all(form.kind).find(({ id }) => id === value)?.name ?? ''
    case 'words':
      return listOf(value).map(String).join(', ')
    case 'rows':
      return listOf(value)
        .map((row) => rowText(form.cells, row, catalogue))
        .join(' | ')
    case 'text':
    case 'number':
      return String(value)
    default:
      return ''
  }
}

function rowText(cells: readonly Cell[], row: NonNullable<Value>, catalogue: Catalogue): string {
  if (typeof row !== 'object' || Array.isArray(row)) return ''
  const texts = cells.map(({ key, form }) => {
    const value = row[key]
    return value == null || form.is === 'keyed' ? '' : said(form, value, catalogue)
  })
  while (texts.at(-1) === '') texts.pop()
  return texts.join(' / ')
}

function listOf(value: NonNullable<Value>): readonly NonNullable<Value>[] {
  return Array.isArray(value) ? value.filter((one) => one !== null) : []
}

function readForm(form: Form, cell: string, catalogue: Catalogue): Value | Refused {
  switch (form.is) {
    case 'text':
      return cell === '' || cell.length > form.most
        ? { refused: `must be 1 to ${form.most} characters` }
        : cell === NONE
          ? { refused: 'must be words' }
          : cell
    case 'number':
      return numberOf(form, cell)
    case 'yes-no':
      return yesOrNo(cell)
    case 'one-of':
      return choiceOf(form.choices, cell)
    case 'some-of':
      return all(parts(cell), (one) => choiceOf(form.choices, one))
    case 'one-entry': {
      const named = catalogue
        .all(form.kind)
        .filter(({ id, name }) => id === cell || name.toLowerCase() === cell.toLowerCase())
      const [one] = named
      if (one && named.length === 1) return one.id
      return {
        refused: one
          ? `could be ${named.map(({ id }) => id).join(' or ')}: write one of these`
          : `“${cell}” is no ${form.kind} of this catalogue`,
      }
    }
    case 'words':
      return parts(cell).length > form.most ? { refused: `must be at most ${form.most} words` } : parts(cell)
    case 'rows':
      return all(
        cell.split(/[|\r\n]+/).filter((row) => row.trim() !== ''),
        (row) => rowOf(form.cells, row, catalogue),
      )
    default:
      return { refused: 'cannot be said in a cell' }
  }
}

const parts = (cell: string): string[] =>
  cell
    .split(/[,;]/)
    .map((one) => one.trim())
    .filter((one) => one !== '')

/** What each part says, or why one says nothing. */
function all<T>(texts: readonly T[], read: (one: T) => Value | Refused): Value | Refused {
  if (texts.length === 0) return { refused: 'is empty' }
  const values: NonNullable<Value>[] = []
  for (const text of texts) {
    const value = read(text)
    if (isRefused(value)) return value
    if (value !== null) values.push(value)
  }
  return values
}

/** Cells of a row, in their order with strokes between: those at its end may be left out where they are optional or begin as something. */
function rowOf(cells: readonly Cell[], text: string, catalogue: Catalogue): Value | Refused {
  const texts = text.split(/\s+\/\s+/).map((one) => one.trim())
  const order = cells.map(({ title }) => title.toLowerCase()).join(' / ')
  if (texts.length > cells.length)
    return { refused: `“${text.trim()}” must be ${order}, and “ | ” between two` }
  const row: Record<string, NonNullable<Value>> = {}
  for (const [index, { key, form, title, optional, begins }] of cells.entries()) {
    const one = texts[index] ?? ''
    if (one === '' && begins !== undefined) row[key] = begins
    else if (one === '') {
      if (!optional) return { refused: `“${text.trim()}” lacks ${title.toLowerCase()}: it must be ${order}` }
    } else {
      const value =
        form.is === 'keyed' ? { refused: 'cannot be said in a cell' } : readForm(form, one, catalogue)
      if (isRefused(value)) return { refused: `${title.toLowerCase()} ${value.refused}` }
      if (value !== null) row[key] = value
    }
  }
  return row
}

function numberOf(
  { unit, least, most, whole }: Extract<Form, { is: 'number' }>,
  cell: string,
): number | Refused {
  const bare = unit !== '' && cell.endsWith(unit) ? cell.slice(0, -unit.length).trim() : cell
  // Three digits behind a sign are thousandths, or thousands.
  const [, sign, digits, decimals] = /^([-−])?(\d{1,6})(?:[.,](\d{1,2}|\d{4,}))?$/.exec(bare) ?? []
  const value = Number(`${sign ? '-' : ''}${digits ?? ''}.${decimals ?? '0'}`)
  const range = `${least} to ${most}${unit === '' ? '' : ` ${unit}`}`
  if (digits === undefined || value < least || value > most || (whole && !Number.isInteger(value)))
    return { refused: `“${cell}” must be ${whole ? 'a whole number' : 'a number'} from ${range}` }
  return value
}

const yesNo: Readonly<Record<string, boolean>> = {
  yes: true,
  y: true,
  true: true,
  no: false,
  n: false,
  false: false,
}

function yesOrNo(cell: string): boolean | Refused {
  return yesNo[cell.toLowerCase()] ?? { refused: `“${cell}” must be yes or no` }
}

/** A choice by its value or title; what a title says in brackets behind may be left out where no two are then alike. */
function choiceOf(choices: readonly Choice[], cell: string): string | Refused {
  const word = cell.toLowerCase()
  const found = choices.find(({ value, title }) => value === word || title.toLowerCase() === word)
  const bare = choices.filter(({ title }) => title.replace(/ \(.*\)$/, '').toLowerCase() === word)
  const one = found ?? (bare.length === 1 ? bare[0] : undefined)
  const titles = choices.slice(0, 20).map(({ title }) => title)
  return one?.value ?? { refused: `“${cell}” must be one of: ${titles.join('; ')}` }
}
