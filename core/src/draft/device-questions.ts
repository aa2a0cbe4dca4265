import type { events } from '../catalogue/entry-fields.ts'
import { is, isRadio } from './device-classes.ts'
import { batteryQuestions, placeQuestions, tradeQuestions } from './device-more-questions.ts'
import {
  beginning,
  choices,
  classChoices,
  oneOf,
  real,
  section,
  words,
  yesNo,
  type Asked,
} from './question.ts'
import type { Cell, Form, Question } from './form.ts'

const eventTitles = choices({
  open: 'opening (reed)',
  terminals: 'wired terminals',
  motion: 'motion',
  glass: 'breaking glass',
  shock: 'shock',
  smoke: 'smoke',
  heat: 'heat',
  freeze: 'frost',
  co: 'carbon monoxide',
  flood: 'water',
  panic: 'panic call',
  'panic-silent': 'silent panic call',
  medical: 'medical call',
  'arm-away': 'set away',
  'arm-stay': 'set stay',
  disarm: 'unset',
  output: 'switch an output',
} satisfies Record<(typeof events)[number], string>)

const loopCells: readonly Cell[] = [
  { key: 'event', title: 'What happens', form: { is: 'one-of', choices: eventTitles } },
  {
    key: 'loop',
    title: 'Loop shown',
    form: { is: 'number', unit: '', least: 1, most: 16, whole: true },
  },
  { key: 'name', title: 'Called', form: { is: 'text', most: 80 } },
  { key: 'bench', title: 'Can be tripped on the bench', form: { is: 'yes-no' }, begins: true },
]
const wayCells: readonly Cell[] = [
  { key: 'way', title: 'What is done', form: { is: 'text', most: 80 } },
  {
    ...{ key: 'sends', title: 'The panel then hears' },
    form: {
      is: 'one-of',
      choices: choices({
        event: 'its event',
        tamper: 'its tamper',
        'power-up': 'that it starts',
        button: 'a button',
      }),
    },
  },
  { key: 'indicator', title: 'Its light', form: { is: 'text', most: 80 }, optional: true },
  {
    ...{ key: 'seconds', title: 'Held for', optional: true },
    form: { is: 'number', unit: 's', least: 0.1, most: 600, whole: false },
  },
]

/** What is asked of a device, keypad, siren, fob or repeater: only what its class can have. */
export function deviceQuestions(asked: Asked): Question[] {
  return [
    ...beginning('device', asked),
    ...kindQuestions(),
    ...radioQuestions(asked),
    ...eventQuestions(asked),
    ...learnQuestions(asked),
    ...placeQuestions(asked),
    ...batteryQuestions(asked),
    ...tradeQuestions(asked),
  ]
}

function kindQuestions(): Question[] {
  return section('What it is', [
    {
      path: 'class',
      ask: 'What kind of device is it?',
      why: 'It decides what else is asked.',
      leaflet: 'front of the leaflet',
      form: oneOf(classChoices),
    },
    {
      path: 'family',
      ask: 'Which radio family does it speak?',
      why: 'Only a receiver of that family hears it.',
      leaflet: 'compatibility, technical data',
      form: { is: 'one-entry', kind: 'family' },
      unless: 'none: it is wired',
      needed: true,
    },
  ])
}

function radioQuestions({ of, catalogue }: Asked): Question[] {
  if (!isRadio(of)) return []
  const family = catalogue.get('family', String(of('family')))
  const reports = is(of)(
    'contact',
    'motion',
    'glass-break',
    'shock',
    'smoke',
    'heat',
    'gas',
    'flood',
    'temperature',
    'panic',
    'keypad',
    'siren',
    'repeater',
  )
  return section('On the air', [
    family && (family.encryption === 'optional' || family.encryption === undefined)
      ? {
          path: 'encryption',
          ask: 'Is this device encrypted?',
          why: 'Its family has both kinds, or does not say: where nobody knows, Kapelle says that it cannot tell.',
          leaflet: 'technical data, security',
          form: oneOf(choices({ none: 'no', optional: 'if the receiver is', always: 'always' })),
          unless: 'not stated',
        }
      : null,
    is(of)('motion', 'keypad', 'siren', 'repeater')
      ? {
          path: 'needsTwoWay',
          ask: 'Does it need an answer to do its work?',
          why: 'A picture, a sound, a display: behind a receiver that only hears it cannot.',
          leaflet: 'functions',
          form: yesNo,
          unless: 'not stated',
        }
      : null,
    reports
      ? {
          path: 'checkInMinutes',
          ask: 'How often does it check in?',
          why: 'What is silent longer than the panel waits counts as lost. 0 where it never does.',
          leaflet: 'technical data, supervision',
          form: real('min', 0, 2880),
          unless: 'not stated',
        }
      : null,
    {
      path: 'transmitDbm',
      ask: 'How strong does it send?',
      why: 'It helps to judge range; nobody must know it.',
      leaflet: 'technical data, radiated power',
      form: real('dBm', -40, 30),
      unless: 'not stated',
    },
  ])
}

function eventQuestions({ of, catalogue }: Asked): Question[] {
  if (of('class') === undefined || is(of)('keypad', 'siren', 'repeater')) return []
  const loops = Array.isArray(of('loops')) ? (of('loops') as readonly Record<string, unknown>[]) : []
  const hasEvent = (...names: string[]): boolean => loops.some(({ event }) => names.includes(String(event)))
  const smokes = catalogue
    .all('device')
    .filter((device) => device.loops.some(({ event }) => event === 'heat'))
  return section('Events and loops', [
    {
      path: 'loops',
      ask: 'Which events does it report, and which loop did the panel show when you tripped each?',
      why: 'A wrong loop is a zone that never trips. Each event is an own zone, and needs its own proof.',
      leaflet: 'programming, loop numbers; else trip it at the panel and look',
      form: { is: 'rows', most: 8, row: 'event', cells: loopCells },
    },
    is(of)('smoke')
      ? {
          path: 'joined',
          ask: 'Do smoke and heat come as one event?',
          why: 'Then heat has no zone of its own, and no proof of its own.',
          leaflet: 'functions, loop numbers',
          form: oneOf([
            { value: 'alone', title: 'yes, and there is no model that has them apart' },
            ...smokes.map(({ id, name }) => ({ value: id, title: `yes; ${name} has them apart` })),
          ]),
          unless: 'no',
        }
      : null,
    hasEvent('heat') || typeof of('joined') === 'string'
      ? {
          path: 'tripsAtC.heat',
          ask: 'At which heat does it trip?',
          why: 'It is told to the customer, and a sauna or boiler room may be hotter.',
          leaflet: 'technical data',
          form: real('°C', -50, 150),
          unless: 'not stated',
        }
      : null,
    hasEvent('freeze')
      ? {
          path: 'tripsAtC.freeze',
          ask: 'At which cold does it trip?',
          why: 'A garage may be colder every winter.',
          leaflet: 'technical data',
          form: real('°C', -50, 50),
          unless: 'not stated',
        }
      : null,
    is(of)('contact')
      ? {
          path: 'switches',
          ask: 'Are its inputs switched on and off at the panel instead of having loops of their own?',
          why: 'Then the panel cannot tell which of them opened.',
          leaflet: 'programming, inputs',
          form: {
            ...{ is: 'rows', most: 3, row: 'input' },
            cells: [
              {
                key: 'switch',
                title: 'Input',
                form: {
                  is: 'one-of',
                  choices: choices({
                    reed: 'reed',
                    terminals: 'terminals',
                    'end-of-line': 'end-of-line resistor',
                  }),
                },
              },
              { key: 'on', title: 'On as it comes', form: { is: 'yes-no' }, begins: true },
            ],
          },
          unless: 'no',
        }
      : null,
  ])
}

function learnQuestions({ of, catalogue }: Asked): Question[] {
  const coded = catalogue.all('panel').filter((panel) => panel.equipment.code)
  const where: Form = oneOf(
    choices({ outside: 'outside', inside: 'inside: cover off', 'under-batteries': 'under the batteries' }),
  )
  return section('Learning it', [
    {
      path: 'ways',
      ask: 'How is it made to send while the panel listens?',
      why: 'Enrol shows these, the next one when the first does not help.',
      leaflet: 'programming, learning',
      form: { is: 'rows', most: 6, row: 'way', cells: wayCells },
      unless: isRadio(of) ? 'not stated' : 'none',
    },
    is(of)('contact', 'motion', 'fob')
      ? {
          path: 'confirm',
          ask: 'Does learning it ask for a second transmission?',
          why: 'The second shows that the right one was heard.',
          leaflet: 'programming, learning',
          form: yesNo,
          unless: 'not known',
        }
      : null,
    {
      path: 'sticker',
      ask: 'Where is its sticker?',
      why: 'It is read before the cover closes.',
      leaflet: 'installation, or look',
      form: words(400, 2),
      unless: 'not known',
    },
    {
      path: 'stickerPlace',
      ask: 'And that is?',
      why: 'Kapelle says when to read it.',
      leaflet: 'look at it',
      form: where,
      unless: 'not known',
    },
    coded.length > 0
      ? {
          path: 'equipmentCodes',
          ask: 'Which equipment code does a panel ask for it?',
          why: 'With the code of another device it is learned and does not work.',
          leaflet: 'the panel’s manual, table of devices',
          form: {
            ...{ is: 'rows', most: 20, row: 'code' },
            cells: [
              { key: 'panel', title: 'Panel', form: { is: 'one-entry', kind: 'panel' } },
              { key: 'code', title: 'Code', form: { is: 'text', most: 12 } },
            ],
          },
          unless: 'none',
        }
      : null,
  ])
}
