import type { Question } from './form.ts'
import { textCell, maybe } from './panel-cells.ts'
import { knownAddresses } from './at-panel/known-addresses.ts'
import { readPath, toldParts } from './at-panel/sketch.ts'
import { beginning, choices, oneOf, section, whole, words, type Asked } from './question.ts'

const atPanel = { is: 'at-panel' } as const

/** How a panel is keyed: what a leaflet says of its display and keys; the displays themselves are told at the panel. */
export function interfaceQuestions(asked: Asked): Question[] {
  const { catalogue, of, paths } = asked
  const keys = String(of('keys') ?? '')
    .split(/\s+/)
    .filter((key) => key !== '')
    .map((key) => ({ value: key, title: key }))
  const panel = catalogue.get('panel', (of('panel') as string | null | undefined) ?? null)
  const known = panel ? knownAddresses(panel) : []
  const fields = paths()
    .filter((path) => path.startsWith('fields.'))
    .map((path) => readPath(path).slice('fields.'.length))
    .map((at) => ({ value: at, title: known.find(({ address }) => address === at)?.title ?? at }))
  const letters = of('letters.keys') != null
  const told = paths().filter((path) => toldParts.some((part) => path.startsWith(`${part}.`)))
  return [
    ...beginning('way of keying', asked),
    ...section('Its display and keys', [
      {
        path: 'panel',
        ask: 'Which panel is keyed so?',
        why: 'Its response types, times and word list say what may be stored. Describe the panel first, as a plain list.',
        leaflet: 'front of the installation manual',
        form: { is: 'one-entry', kind: 'panel' },
      },
      {
        path: 'display',
        ask: 'How large is its display?',
        why: 'Text that is longer is cut, and a sheet shows what stands there.',
        leaflet: 'keypad, display',
        form: {
          is: 'group',
          cells: [
            { key: 'lines', title: 'Lines', form: whole('', 1, 4) },
            { key: 'columns', title: 'Signs in a line', form: whole('', 4, 40) },
            textCell('cursor', 'Sign behind what is typed', 1),
            { key: 'messages', title: 'Line that messages cover', form: whole('', 1, 4) },
          ],
        },
      },
      {
        path: 'alphabet',
        ask: 'Which signs can it show?',
        why: 'A misread sign is looked for among these.',
        leaflet: 'keypad, display',
        form: {
          ...words(200),
          offers: [
            'ABCDEFGHIJKLMNOPQRSTUVWXYZ0123456789-_*.,?/',
            'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789?,.-/*_',
          ],
        },
      },
      {
        path: 'keys',
        ask: 'How do its keys lie?',
        why: 'A line for each row, blanks between keys: as they are called on the sheet.',
        leaflet: 'keypad, front',
        form: words(400, 5),
      },
      {
        path: 'letters.keys',
        ask: 'Which letters does each key type?',
        why: 'In the order of presses. Names and some IDs are typed so.',
        leaflet: 'keypad, text',
        form: {
          ...{ is: 'rows', most: 40, row: 'key', pick: 'key' },
          cells: [{ key: 'key', title: 'Key', form: oneOf(keys) }, textCell('signs', 'Signs, in order', 24)],
        },
        unless: 'no letters are typed',
      },
      letters
        ? {
            path: 'letters.ends',
            ask: 'How does a letter end?',
            why: 'So that the same key can begin the next one.',
            leaflet: 'keypad, text',
            form: {
              is: 'group',
              cells: [
                maybe({ key: 'step', title: 'By this key', form: oneOf(keys) }),
                maybe({
                  key: 'pause',
                  title: 'By itself, after',
                  form: { is: 'number', unit: 's', least: 0.5, most: 10, whole: false },
                }),
                maybe({ key: 'shift', title: 'In an ID: digits or letters', form: oneOf(keys) }),
              ],
            },
            unless: 'not stated',
          }
        : null,
      {
        path: 'keeping',
        ask: 'When does it keep what is keyed?',
        why: 'What is not kept yet is lost with a wrong way out: the sheet says so.',
        leaflet: 'programming, first page',
        form: oneOf(
          choices({
            'at-once': 'each answer as it is sent',
            'by-zone': 'a zone when it is finished',
            session: 'all of them at the end',
          }),
        ),
      },
      {
        path: 'idle.seconds',
        ask: 'After how long does it leave by itself?',
        why: 'Whoever reads a manual meanwhile loses what was not kept.',
        leaflet: 'programming, first page',
        form: whole('s without a key', 10, 3600),
        unless: 'it waits for ever',
      },
      fields.length > 0
        ? {
            path: 'unique',
            ask: 'What may no two numbers share?',
            why: 'Such as an ID with its loop: a swap must empty one first.',
            leaflet: 'learning, messages',
            form: {
              ...{ is: 'rows', most: 4, row: 'rule' },
              cells: [
                { key: 'first', title: 'This', form: oneOf(fields) },
                maybe({ key: 'second', title: 'with this', form: oneOf(fields) }),
                maybe({ key: 'third', title: 'and this', form: oneOf(fields) }),
              ],
            },
            unless: 'nothing',
          }
        : null,
    ]),
    ...section('At the panel', [
      {
        path: 'start',
        ask: 'What does it show, key after key?',
        why: 'Stand before the panel. It begins with the display at rest; a screen and a key at a time, the menu is drawn.',
        leaflet: 'nowhere: look at the panel',
        form: atPanel,
      },
      ...told.map((path) => ({
        path,
        ask: `${titles[path.split('.')[0] ?? ''] ?? 'Told'} ${readPath(path).slice(path.indexOf('.') + 1)}`,
        why: '',
        leaflet: 'nowhere: look at the panel',
        form: atPanel,
        // What is told at the panel may stay open there; what an entry cannot be without, its check names.
        needed: false,
      })),
    ]),
  ]
}

const titles: Readonly<Record<string, string>> = {
  pointers: 'The number',
  fields: 'The value',
  screens: 'The display',
  walks: 'The row of questions from',
  common: 'On every display, the key',
}
