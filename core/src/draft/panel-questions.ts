import {
  choices,
  beginning,
  gradeQuestion,
  oneOf,
  section,
  someOf,
  whole,
  words,
  yesNo,
  type Asked,
} from './question.ts'
import type { Cell, Form, Question } from './form.ts'
import { couplingQuestions } from './panel-coupling-questions.ts'
import { programmingQuestions } from './panel-programming-questions.ts'
import { textCell } from './panel-cells.ts'

const count = (title: string, most: number): Cell => ({
  ...{ key: 'count', title, form: whole('', 0, most) },
})
const wireless: Cell = { key: 'wireless', title: 'They can be wireless', form: yesNo }

/** What is asked of a panel, in the order in which its manual says it: what it is, its radio, its numbers, what its zones do, how it is keyed. */
export function panelQuestions(asked: Asked): Question[] {
  return [
    ...beginning('panel', asked),
    ...madeQuestions(),
    ...radioQuestions(asked),
    ...numberQuestions(asked),
    ...typeQuestions(),
    ...delayQuestions(asked),
    ...labelQuestions(asked),
    ...couplingQuestions(asked),
    ...programmingQuestions(asked),
  ]
}

function madeQuestions(): Question[] {
  return section('What it is', [
    {
      path: 'variant',
      ask: 'Which of several variants is it?',
      why: 'Size, country or firmware can change what it takes: whoever stands before it must be able to tell.',
      leaflet: 'type plate, table of models',
      form: {
        is: 'group',
        cells: [
          textCell('of', 'All of them are called', 80),
          textCell('how', 'This one is', 80),
          textCell('readAt', 'Where that is read', 400),
        ],
      },
      unless: 'there is only one',
    },
    gradeQuestion,
    {
      path: 'style',
      ask: 'How is it keyed?',
      why: 'The sheet and the step-by-step follow its way.',
      leaflet: 'programming, first page',
      form: oneOf(
        choices({
          'question walk': 'it asks question after question',
          'address and value': 'an address, then a value',
          'section menu': 'menus with numbered sections',
          'location and option': 'a location, then options lit or out',
          'yes/no menu': 'a menu answered with yes and no',
          'touch list': 'lists that are touched',
        }),
      ),
    },
  ])
}

function radioQuestions({ catalogue, of }: Asked): Question[] {
  const all = catalogue.all('receiver')
  const taken = of('receivers')
  const chosen = Array.isArray(taken) ? taken : []
  const titled = (list: typeof all) => list.map(({ id, name }) => ({ value: id, title: name }))
  return section('Its radio', [
    {
      path: 'receivers',
      ask: 'Which receivers can it have?',
      why: 'What no receiver hears cannot be learned. A receiver that is not offered is described first.',
      leaflet: 'accessories, compatibility',
      form: someOf(titled(all)),
    },
    {
      path: 'builtIn',
      ask: 'Which of them is built in?',
      why: 'It is there in every job; the others are put on the list of what to bring.',
      leaflet: 'technical data, radio',
      form: oneOf(titled(all.filter(({ id }) => chosen.includes(id)))),
      unless: 'none',
    },
    chosen.length > 1
      ? {
          path: 'receiversAdd',
          ask: 'Do two receivers of one radio hold more transmitters together?',
          why: 'Not stated, the larger counts for both.',
          leaflet: 'capacity, notes',
          form: yesNo,
          unless: 'not stated',
        }
      : null,
    {
      path: 'radioFirmware',
      ask: 'Which versions of radio firmware are there?',
      why: 'A family may be heard from a version on: the version of the panel on the wall is then asked for.',
      leaflet: 'release notes, type plate',
      form: { is: 'words', most: 12 },
      unless: 'not stated',
    },
    {
      path: 'superviseMinutes',
      ask: 'After how long a silence does it count a device as lost?',
      why: 'A device that checks in too rarely for it is lost again and again.',
      leaflet: 'supervision',
      form: whole('min', 1, 10_000),
      unless: 'not stated',
    },
    {
      path: 'repeaters',
      ask: 'How many repeaters does it take?',
      why: 'A house that is too far apart needs them: the plan counts them.',
      leaflet: 'technical data, capacity',
      form: whole('', 0, 64),
      unless: 'not stated',
    },
  ])
}

const uses = choices({
  wired: 'wired',
  wireless: 'wireless',
  fob: 'buttons of fobs',
  'keypad-panic': 'keys of keypads',
  template: 'templates',
})
const blockCells: readonly Cell[] = [
  { key: 'use', title: 'For', form: oneOf(uses) },
  { key: 'from', title: 'From', form: whole('', 1, 999) },
  { key: 'to', title: 'To', form: whole('', 1, 999) },
  { key: 'optional', title: 'Only with a module', form: yesNo, begins: false },
  { key: 'group', title: 'In boards of', form: whole('', 1, 64), optional: true },
]

function numberQuestions({ of }: Asked): Question[] {
  return section('Its numbers', [
    {
      path: 'numberDigits',
      ask: 'How does it print zone seven?',
      why: 'Labels and the sheet print it as the panel does.',
      leaflet: 'programming, examples',
      form: oneOf(choices({ 1: '7', 2: '07', 3: '007' })),
    },
    {
      path: 'blocks',
      ask: 'Which numbers are for what?',
      why: 'A number that is taken by a terminal, a fob or a template is given to nothing else.',
      leaflet: 'technical data, zones',
      form: { is: 'rows', most: 12, row: 'block', cells: blockCells },
    },
    {
      path: 'slots.fobs.by',
      ask: 'How do fobs count?',
      why: 'In places of their own they leave zone numbers free; else each button takes one, from the top down.',
      leaflet: 'fobs, capacity',
      form: oneOf(choices({ slots: 'in places of their own', numbers: 'a zone number for each button' })),
    },
    {
      path: 'slots.fobs.count',
      ask: 'How many fobs does it take?',
      why: 'The plan counts them.',
      leaflet: 'fobs, capacity',
      form: whole('fobs', 0, 999),
    },
    of('slots.fobs.by') === 'numbers'
      ? {
          path: 'slots.fobs.group',
          ask: 'How many numbers does one fob take?',
          why: 'They are kept together: one for each button.',
          leaflet: 'fobs, zone numbers',
          form: whole('numbers', 1, 16),
        }
      : null,
    {
      path: 'slots.keypads',
      ask: 'How many keypads does it take?',
      why: 'The plan counts them; a wireless one must be learned.',
      leaflet: 'technical data, capacity',
      form: { is: 'group', cells: [count('Keypads', 999), wireless] },
    },
    {
      path: 'slots.sirens',
      ask: 'How many sirens does it take?',
      why: 'The plan counts them; a wireless one must be learned.',
      leaflet: 'technical data, capacity',
      form: { is: 'group', cells: [count('Sirens', 999), wireless] },
    },
    {
      path: 'areas.count',
      ask: 'How many areas has it?',
      why: 'Letters, parts or tenants: they are planned where there are several.',
      leaflet: 'technical data, areas',
      form: whole('areas', 1, 64),
    },
    {
      path: 'areas.meaning',
      ask: 'What is an area on this panel?',
      why: 'The same word means three things: it is shown wherever areas are planned.',
      leaflet: 'areas, part setting',
      form: {
        ...{ is: 'text', most: 400, lines: 2 },
        offers: [
          'The whole premises is set and unset together.',
          'Full and part sets of one premises, not parts of it.',
          'Parts of the premises with users and keypads of their own.',
        ],
      },
    },
  ])
}

const equipmentEvents = choices({
  ...{ open: 'opening', terminals: 'terminals', motion: 'motion', glass: 'glass', shock: 'shock' },
  ...{ smoke: 'smoke', heat: 'heat', freeze: 'frost', co: 'CO', flood: 'water', panic: 'panic' },
  ...{ 'panic-silent': 'silent panic', medical: 'medical', 'arm-away': 'set away', 'arm-stay': 'set stay' },
  ...{ disarm: 'unset', output: 'an output' },
})

function typeQuestions(): Question[] {
  return section('What its zones do', [
    {
      path: 'responseTypes',
      ask: 'Which types can a zone have, and what does a trip then do?',
      why: 'By its behaviour, not by its name, a type is chosen and judged: a wrong one alarms on its owner, or never.',
      leaflet: 'zone types, often in an appendix',
      form: { is: 'response-types' },
    },
    {
      path: 'equipment.code',
      ask: 'Does it ask for the code of each device model?',
      why: 'A wrong code is a wrong battery or encryption: devices then carry their code for this panel.',
      leaflet: 'zones, equipment',
      form: yesNo,
    },
    {
      path: 'equipment.kinds',
      ask: 'Which kinds of device does it ask for?',
      why: 'A frost detector stored as smoke calls the fire brigade.',
      leaflet: 'zones, equipment',
      form: {
        ...{ is: 'rows', most: 40, row: 'kind' },
        cells: [
          textCell('name', 'Called', 80),
          textCell('keyed', 'Keyed', 16),
          { key: 'events', title: 'For', form: someOf(equipmentEvents), optional: true },
        ],
      },
      unless: 'it does not ask',
    },
    {
      path: 'secondDisarmClears',
      ask: 'Does an alarm stay in its memory until it is unset a second time?',
      why: 'Then the second unset is tried, and the customer is shown it.',
      leaflet: 'use, after an alarm',
      form: yesNo,
    },
    {
      path: 'codes',
      ask: 'Which codes come with it and must be changed?',
      why: 'A code that everybody knows opens the house: that each was changed is asked at hand-over. Codes themselves are never written down.',
      leaflet: 'codes, first start',
      form: { is: 'rows', most: 12, row: 'code', cells: [textCell('name', 'Called', 80)] },
      unless: 'none',
    },
  ])
}

const delay: Form = { is: 'delay' }

function delayQuestions({ of }: Asked): Question[] {
  const where = 'programming, times'
  return section('Its times', [
    {
      path: 'delays.entry1',
      ask: 'Entry delay 1',
      why: 'Key two values with the seconds they stand for: a unit that is mistaken is a delay off by a factor of ten.',
      leaflet: where,
      form: delay,
    },
    {
      path: 'delays.entry2',
      ask: 'Entry delay 2',
      why: 'For the door that is far from the keypad.',
      leaflet: where,
      form: delay,
    },
    { path: 'delays.exit', ask: 'Exit delay', why: 'The time to leave.', leaflet: where, form: delay },
    {
      path: 'couplings.exitInStay',
      ask: 'What does the exit delay do in stay?',
      why: 'A motion that stays on at night needs one.',
      leaflet: where,
      form: oneOf(choices({ same: 'as in away', own: 'a time of its own', none: 'there is none' })),
      unless: 'not stated',
    },
    of('couplings.exitInStay') === 'own'
      ? {
          path: 'delays.exitStay',
          ask: 'Exit delay in stay',
          why: 'A field of its own.',
          leaflet: where,
          form: delay,
        }
      : null,
    {
      path: 'delays.abort',
      ask: 'How long is a report held before it is sent?',
      why: 'A burglary report can be called back in that time; fire and panic never wait.',
      leaflet: `${where}, reporting`,
      form: delay,
      unless: 'it is never held',
    },
    {
      path: 'siren',
      ask: 'How long does the siren sound?',
      why: 'Standards and neighbours limit it: it is rounded down.',
      leaflet: where,
      form: delay,
      unless: 'not stated',
    },
    {
      path: 'swinger',
      ask: 'After how many alarms is a zone shut out?',
      why: 'The preset of the region may want a figure.',
      leaflet: 'programming, alarms per zone',
      form: {
        ...{ is: 'group' },
        cells: [
          { key: 'from', title: 'Least', form: whole('', 0, 99) },
          { key: 'to', title: 'Most', form: whole('', 0, 99) },
        ],
      },
      unless: 'not stated',
    },
  ])
}

const capitals = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'
const plainSigns = '0123456789 -/.'

function labelQuestions({ of }: Asked): Question[] {
  const style = of('label.style')
  return section('Its labels', [
    {
      path: 'label.style',
      ask: 'How are zones named on it?',
      why: 'A label must say where: it is fitted to what the panel can show.',
      leaflet: 'programming, zone names',
      form: oneOf(choices({ library: 'words of a list, by number', text: 'typed, or not at all' })),
    },
    ...(style === 'library' ? libraryLabel() : style === 'text' ? typedLabel() : []),
  ])
}

function libraryLabel() {
  return [
    {
      path: 'label.entries',
      ask: 'How many words can one name have?',
      why: 'The plan keeps place, side and thing within them.',
      leaflet: 'programming, zone names',
      form: whole('words', 1, 8),
    },
    {
      path: 'label.words',
      ask: 'Which words has its list?',
      why: 'Paste it as it is printed: lines that cannot be read, and numbers that are missing, are named.',
      leaflet: 'appendix, list of words',
      form: { is: 'word-list' } satisfies Form,
    },
  ]
}

function typedLabel() {
  return [
    {
      path: 'label.length',
      ask: 'How many signs can one name have?',
      why: 'Names are shortened so that they keep place and thing.',
      leaflet: 'programming, zone names',
      form: whole('signs', 4, 60),
    },
    {
      path: 'label.lines',
      ask: 'On how many lines are they shown?',
      why: 'A word that breaks between two lines is hard to read.',
      leaflet: 'display',
      form: whole('lines', 1, 4),
      unless: 'one',
    },
    {
      path: 'label.capitals',
      ask: 'Are they capitals only?',
      why: 'Names are printed as the panel shows them.',
      leaflet: 'display',
      form: yesNo,
    },
    {
      path: 'label.characters',
      ask: 'Which signs has it?',
      why: 'Letters that it lacks are spelled out.',
      leaflet: 'programming, table of signs',
      form: {
        ...{ is: 'text', most: 120 },
        offers: [`${capitals}${plainSigns}`, `${capitals}${capitals.toLowerCase()}${plainSigns}`],
      } satisfies Form,
    },
    {
      path: 'label.insteadOn',
      ask: 'Where do the names stand, if the panel shows none?',
      why: 'Then a card or list beside it carries them.',
      leaflet: 'display, keypad',
      form: words(80),
      unless: 'the panel shows them',
    },
  ]
}
