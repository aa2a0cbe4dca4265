import type { PanelModel, Target } from '../../catalogue/schema.ts'
import type { Cell, Choice } from '../form.ts'
import { maybe, textCell } from '../panel-cells.ts'
import { choices } from '../question.ts'
import { knownAddresses } from './known-addresses.ts'
import type { Sketch, SketchWidget } from './sketch.ts'

/* What is asked on a display, in the words of who stands before it: each kind of question with what must be known of it. */

/** Kinds of question. */
export type AskedKind = SketchWidget['kind']

/** What may be asked on a display. */
export const askedKinds: Readonly<Record<AskedKind, { readonly title: string; readonly why: string }>> = {
  menu: { title: 'nothing: keys lead on', why: 'at rest, a heading, a question whose keys only lead on' },
  summary: { title: 'nothing: it sums up', why: 'shows what is stored, to be compared' },
  jump: { title: 'a number to go to', why: 'digits lead to another display' },
  number: { title: 'digits to be stored', why: 'a time, a type, a count, a code of equipment' },
  yesno: { title: 'yes or no', why: 'one key for each' },
  choice: { title: 'one of a list', why: 'one at a time on the display; a key takes it' },
  options: { title: 'lights that keys turn', why: 'each key turns one on and off' },
  text: { title: 'text by letter keys', why: 'a name' },
  words: { title: 'words by their numbers', why: 'a name from a library of words' },
  serial: { title: 'an ID', why: 'typed, or heard' },
  code: { title: 'somebody’s code', why: 'it is never written down here' },
  busy: { title: 'nothing: it works', why: 'takes no key for a while' },
}

/** What can be stored: what a plan of the panel has words for, and what was told besides. */
function addressChoices({ fields }: Sketch, panel: PanelModel): readonly Choice[] {
  const known = knownAddresses(panel)
  const own = Object.keys(fields).filter((at) => !known.some(({ address }) => address === at))
  return [
    ...known.map(({ address, title }) => ({ value: address, title })),
    ...own.map((at) => ({ value: at, title: at })),
  ]
}

const whole = (least: number, most: number, unit = '') =>
  ({ is: 'number', unit, least, most, whole: true }) as const

/** What must be known of a question of this kind, besides where it leads. */
export function cellsAsked(sketch: Sketch, panel: PanelModel, kind: AskedKind): readonly Cell[] {
  const keys = sketch.keys.flat().map((key) => ({ value: key, title: key }))
  const fields = addressChoices(sketch, panel)
  const key = (name: string, title: string): Cell => ({
    key: name,
    title,
    form: { is: 'one-of', choices: keys },
  })
  const at: Cell = { key: 'at', title: 'What is stored', form: { is: 'one-of', choices: fields } }
  const send = key('send', 'Key that sends it')
  const opens = (second: string, title: string): Cell => ({
    key: 'opens',
    title: 'What stands there first',
    form: { is: 'one-of', choices: choices({ value: 'the stored value', [second]: title }) },
  })
  const bad = textCell('bad', 'What it says of a wrong answer', 40)
  const taken = maybe(textCell('taken', 'What it says if another number has it', 40))
  const empties = maybe(key('empties', 'Key that empties it'))
  switch (kind) {
    case 'menu':
    case 'summary':
      return []
    case 'busy':
      return [{ key: 'seconds', title: 'How long it works', form: whole(1, 3600, 's') }]
    case 'jump':
      return [
        { key: 'digits', title: 'Most digits', form: whole(1, 6) },
        maybe(key('send', 'Key that sends it; none where the last digit does')),
        textCell('none', 'What it says of a number that leads nowhere', 40),
      ]
    case 'number':
      return [
        at,
        { key: 'least', title: 'Fewest digits', form: whole(1, 8) },
        { key: 'most', title: 'Most digits', form: whole(1, 8) },
        opens('empty', 'nothing'),
        maybe(key('send', 'Key that sends it; none where the last digit does')),
        ...[bad, empties, taken],
      ]
    case 'yesno':
      return [at, key('yes', 'Key for yes'), key('no', 'Key for no')]
    case 'choice':
      return [
        ...[at, opens('first', 'the first of the list')],
        ...[key('take', 'Key that takes it'), key('next', 'Key for the next one')],
        maybe(key('previous', 'Key for the one before')),
        {
          key: 'end',
          title: 'After the last one',
          form: { is: 'one-of', choices: choices({ wrap: 'the first again', stop: 'it stays' }) },
        },
      ]
    case 'options':
      return [
        {
          key: 'one',
          title: 'Only one is on at a time',
          form: { is: 'yes-no' },
          begins: false,
        },
        maybe(key('send', 'Key that sends it; none where each press is stored')),
      ]
    case 'text':
      return [
        at,
        { key: 'length', title: 'Most signs', form: whole(1, 40) },
        opens('empty', 'nothing'),
        send,
        bad,
      ]
    case 'words':
      return [
        at,
        { key: 'most', title: 'Most words', form: whole(1, 8) },
        key('gap', 'Key between words'),
        send,
        bad,
      ]
    case 'serial':
      return [
        ...[at, maybe({ ...at, key: 'loopAt', title: 'Where the loop that it hears is stored' }), send],
        { key: 'window', title: 'How long it listens', form: whole(5, 600, 's') },
        { key: 'needs', title: 'How often it must hear it', form: whole(1, 3) },
        ...[bad, empties, taken],
      ]
    case 'code':
      return [
        {
          key: 'who',
          title: 'Whose code',
          form: { is: 'one-of', choices: panel.codes.map((one) => ({ value: one.key, title: one.name })) },
        },
        ...[send, textCell('wrong', 'What it says of a wrong code', 40)],
      ]
  }
}

/** What each light of an options display stands for. */
export function cellsOfBits(sketch: Sketch, panel: PanelModel): readonly Cell[] {
  const keys = sketch.keys.flat().map((key) => ({ value: key, title: key }))
  const fields = addressChoices(sketch, panel)
  return [
    { key: 'key', title: 'Key', form: { is: 'one-of', choices: keys } },
    { key: 'at', title: 'What it turns', form: { is: 'one-of', choices: fields } },
    maybe(textCell('on', 'Stored when lit', 40)),
    maybe(textCell('off', 'Stored when out', 40)),
  ]
}

type Cells = Readonly<Record<string, unknown>>
/** A question as its cells answer it: of lights with what each turns, of a number to go to with what may be typed. */
export interface AskedCells {
  readonly kind: AskedKind
  readonly cells: Cells
  readonly bits: readonly Cells[]
  readonly patterns: readonly string[]
}

const empty = (value: unknown): boolean => value === undefined || value === null || value === ''

/** What was answered, as a question of the sketch; where it leads stays as it was told. */
export function widgetFrom(
  { kind, cells, bits, patterns }: AskedCells,
  was: SketchWidget | null,
): SketchWidget {
  const said = Object.fromEntries(Object.entries(cells).filter(([, value]) => !empty(value)))
  const then = was && 'then' in was ? was.then : null
  switch (kind) {
    case 'menu':
    case 'summary':
      return { kind }
    case 'jump': {
      const led: Readonly<Record<string, Target | null>> = was?.kind === 'jump' ? was.to : {}
      const to = Object.fromEntries(patterns.map((pattern) => [pattern, led[pattern] ?? null]))
      return { kind, ...said, to } as SketchWidget
    }
    case 'number': {
      const { least, most, ...rest } = said
      return { kind, ...rest, digits: [least, most], then } as SketchWidget
    }
    case 'options': {
      const { one, ...rest } = said
      const turned = bits.map(({ key, at, on, off }): [string, unknown] => [
        String(key),
        empty(on) || empty(off) ? at : { at, on, off },
      ])
      return {
        ...{ kind, bits: Object.fromEntries(turned) },
        ...{ ...rest, ...(one === true ? { one } : {}), then },
      } as SketchWidget
    }
    default:
      return { kind, ...said, then } as unknown as SketchWidget
  }
}

/** A question of the sketch as its cells answer it. */
export function cellsFrom(widget: SketchWidget): AskedCells {
  const none = { bits: [], patterns: [] }
  switch (widget.kind) {
    case 'jump': {
      const { kind, to, ...cells } = widget
      return { ...none, kind, cells, patterns: Object.keys(to) }
    }
    case 'number': {
      const { kind, digits, then: _then, ...cells } = widget
      return { ...none, kind, cells: { ...cells, least: digits[0], most: digits[1] } }
    }
    case 'options': {
      const { kind, bits, then: _then, ...cells } = widget
      const rows = Object.entries(bits).map(([key, bit]) =>
        typeof bit === 'string' ? { key, at: bit, on: null, off: null } : { key, ...bit },
      )
      return { ...none, kind, cells: { one: false, ...cells }, bits: rows }
    }
    default: {
      const { kind, ...cells } = widget
      const { then: _then, ...rest } = cells as { then?: unknown }
      return { ...none, kind, cells: rest }
    }
  }
}
