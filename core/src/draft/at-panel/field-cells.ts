import type { Form, PanelInterface } from '../../catalogue/schema.ts'
import type { Cell } from '../form.ts'
import { maybe, textCell } from '../panel-cells.ts'
import { choices } from '../question.ts'

/* What a panel holds at an address, as somebody says it who stands before it. */

type Field = PanelInterface['fields'][string]
/** Kinds of stored value. */
export type FieldKind = Form['kind']

const kinds = choices({
  ...{ stated: 'a time or count that the panel’s entry states', number: 'a number', bit: 'yes or no' },
  ...{ list: 'one of a list', 'of-entry': 'a list of the panel’s entry', digits: 'digits as they are typed' },
  ...{ serial: 'an ID', label: 'a name by the panel’s rule' },
})

/** What must be known of a number that displays go by, such as that of a zone. */
export const cellsOfPointer: readonly Cell[] = [
  { key: 'from', title: 'First', form: { is: 'number', unit: '', least: 0, most: 999, whole: true } },
  { key: 'to', title: 'Last', form: { is: 'number', unit: '', least: 0, most: 999, whole: true } },
  maybe({ key: 'digits', title: 'Digits', form: { is: 'number', unit: '', least: 1, most: 3, whole: true } }),
  {
    key: 'ends',
    title: 'One step beyond the last',
    form: { is: 'one-of', choices: choices({ stop: 'it stays', wrap: 'the first again' }) },
  },
]

const whole = { is: 'number', unit: '', least: 0, most: 99_999, whole: true } as const

/** What must be known of a value, by its kind. */
export function cellsOfField(kind: FieldKind | null): readonly Cell[] {
  const factory = maybe(textCell('factory', 'What it holds as shipped', 40))
  const what: Cell = { key: 'kind', title: 'What kind of value', form: { is: 'one-of', choices: kinds } }
  const of = (list: Readonly<Record<string, string>>, key: string, title: string): Cell => ({
    ...{ key, title },
    form: { is: 'one-of', choices: choices(list) },
  })
  switch (kind) {
    case 'stated':
      return [
        what,
        of(
          {
            ...{ entry1: 'entry delay 1', entry2: 'entry delay 2', exit: 'exit delay' },
            ...{ exitStay: 'exit delay in stay', abort: 'hold before sending' },
            ...{ siren: 'siren time', swinger: 'alarms until a zone is shut out' },
          },
          'of',
          'Which',
        ),
        factory,
      ]
    case 'number':
      return [
        what,
        { key: 'from', title: 'Least', form: whole },
        { key: 'to', title: 'Most', form: whole },
        factory,
      ]
    case 'of-entry':
      return [
        what,
        of(
          {
            ...{ responseTypes: 'response types', kinds: 'kinds of equipment' },
            ...{ chimeStyles: 'ways to chime' },
          },
          'list',
          'Which list',
        ),
        factory,
      ]
    case 'bit':
      return [what, textCell('on', 'How it shows yes', 40), textCell('off', 'How it shows no', 40), factory]
    default:
      return kind === null ? [what] : [what, factory]
  }
}

/** What each value of a list is. */
export const cellsOfValues: readonly Cell[] = [
  textCell('value', 'Value', 40),
  textCell('keyed', 'Keyed', 12),
  textCell('shows', 'Shown as', 40),
]

type Cells = Readonly<Record<string, unknown>>

/** What was answered, as a field of the sketch. */
export function fieldFrom(cells: Cells, values: readonly Cells[]): Field {
  const { kind, factory, ...rest } = cells
  const own = Object.fromEntries(
    cellsOfField(kind as FieldKind).flatMap(({ key }) =>
      key in rest && rest[key] !== null ? [[key, rest[key]]] : [],
    ),
  )
  const form = { kind, ...own, ...(kind === 'list' ? { values } : {}) } as Form
  return typeof factory === 'string' && factory !== '' ? { form, factory } : { form }
}

/** A field of the sketch as its cells answer it. */
export function fieldCells({ form, factory }: Field): {
  readonly cells: Cells
  readonly values: readonly Cells[]
} {
  const { kind, ...rest } = form
  const { values = [], ...cells } = rest as { values?: readonly Cells[] }
  return { cells: { kind, factory: factory ?? null, ...cells }, values }
}
