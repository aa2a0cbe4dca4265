import type { Answer } from './records.ts'
import { delayProblem } from './delay-field.ts'
import type { Cell, Form, KeyedForm } from './form.ts'
import { typesProblem } from './response-types.ts'
import { wordsProblem } from './word-list.ts'

type Value = NonNullable<Answer['value']>

/** What is wrong with an answer, naming what is allowed; empty where nothing is. */
export function formProblem(form: Form, value: Value): string {
  switch (form.is) {
    case 'text':
      return typeof value !== 'string' || value.trim() === '' || value.length > form.most
        ? `must be 1 to ${form.most} characters`
        : ''
    case 'number':
      return numberProblem(form, value)
    case 'yes-no':
      return typeof value === 'boolean' ? '' : 'must be yes or no'
    case 'one-of':
      return form.choices.some((choice) => choice.value === value) ? '' : 'must be one of those offered'
    case 'some-of':
      return isSome(form, value) ? '' : 'must be at least one of those offered'
    case 'one-entry':
      return typeof value === 'string' && value.startsWith(`${form.kind}/`)
        ? ''
        : `must be a ${form.kind} of the catalogue`
    case 'words':
      return areWords(form, value) ? '' : `must be up to ${form.most} words`
    case 'rows':
      return rowsProblem(form, value)
    case 'group':
      return cellsProblem(form.cells, value)
    case 'id-rule':
      return typeof value === 'object' ? '' : 'must be a rule found from stickers'
    case 'delay':
      return delayProblem(value)
    case 'word-list':
      return wordsProblem(value)
    case 'response-types':
      return typesProblem(value)
    // Its displays are checked as the whole that they make.
    case 'at-panel':
      return ''
  }
}

function isSome({ choices }: Extract<Form, { is: 'some-of' }>, value: Value): boolean {
  return (
    Array.isArray(value) &&
    value.length > 0 &&
    value.every((one) => choices.some((choice) => choice.value === one))
  )
}

function areWords({ most }: Extract<Form, { is: 'words' }>, value: Value): boolean {
  return (
    Array.isArray(value) &&
    value.length <= most &&
    value.every((one) => typeof one === 'string' && one.trim() !== '')
  )
}

function numberProblem({ unit, least, most, whole }: Extract<Form, { is: 'number' }>, value: Value): string {
  const range = `from ${least} to ${most}${unit === '' ? '' : ` ${unit}`}`
  if (typeof value !== 'number' || !Number.isFinite(value) || value < least || value > most)
    return `must be ${whole ? 'a whole number ' : ''}${range}`
  return whole && !Number.isInteger(value) ? `must be a whole number ${range}` : ''
}

function rowsProblem({ cells, most, row }: Extract<Form, { is: 'rows' }>, value: Value): string {
  if (!Array.isArray(value) || value.length === 0) return `must have at least one ${row}`
  if (value.length > most) return `must have at most ${most}`
  for (const [index, one] of value.entries()) {
    const message = cellsProblem(cells, one)
    if (message !== '') return `${row} ${index + 1}${message.startsWith('is ') ? ' ' : ', '}${message}`
  }
  return ''
}

function cellsProblem(cells: readonly Cell[], value: Answer['value']): string {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return 'is empty'
  for (const cell of cells) {
    const message = cellProblem(cell, value[cell.key] ?? null)
    if (message !== '') return `${cell.title.toLowerCase()}: ${message}`
  }
  return ''
}

function cellProblem({ form, optional }: Cell, value: Answer['value']): string {
  if (value === null || value === '') return optional ? '' : 'is missing'
  return form.is === 'keyed' ? keyedProblem(form, value) : formProblem(form, value)
}

const MOST_KEYED = 16

function keyedProblem(_form: KeyedForm, value: Value): string {
  const isKeyed =
    typeof value === 'object' &&
    !Array.isArray(value) &&
    Object.values(value).every(
      (keyed) => typeof keyed === 'string' && keyed !== '' && keyed.length <= MOST_KEYED,
    )
  return isKeyed ? '' : `must be up to ${MOST_KEYED} characters for each choice`
}
