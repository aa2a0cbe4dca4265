import type { zoneFields } from '../catalogue/panel-schema.ts'
import { settingKeys } from '../catalogue/panel-schema.ts'
import { choices, section, someOf, type Asked } from './question.ts'
import type { Cell, Form, KeyedForm, Question } from './form.ts'
import { maybe, stepCells, textCell } from './panel-cells.ts'

const step: Form = { is: 'group', cells: stepCells }
const steps: Form = { is: 'rows', most: 20, row: 'step', cells: stepCells }
const plainSteps = 'as a plain list'

const fieldTitles = choices({
  ...{ number: 'number', response: 'response type', equipmentCode: 'equipment code' },
  ...{ equipmentKind: 'kind of device', serial: 'ID', loop: 'loop', inputs: 'switches of inputs' },
  ...{ area: 'area', report: 'report', chime: 'chime', supervise: 'supervision' },
  ...{ transmissionDelay: 'hold before sending', sirens: 'siren outputs', doubleKnock: 'double knock' },
  ...{ fireGroup: 'fire group', wiring: 'wiring', dayZone: 'day zone', label: 'name' },
} satisfies Record<(typeof zoneFields)[number], string>)

const onOff = choices({ on: 'on', off: 'off' })
const on = choices({ on: 'on' })
/** What is keyed for each way of a field of a zone that is chosen from a few. */
const zoneValues: KeyedForm = {
  ...{ is: 'keyed', by: 'field' },
  of: {
    wiring: choices({
      ...{ closed: 'closed loop', open: 'open loop' },
      ...{ 'end-of-line': 'end-of-line resistor', double: 'double end-of-line' },
    }),
  },
}

const settingTitles = choices({
  ...{ siren: 'siren time', swinger: 'alarms until a zone is shut out', supervise: 'counts as lost after' },
  ...{ exitUnit: 'unit of times', exitBy: 'what ends the exit delay', openAtExit: 'open at the end of exit' },
  ...{ stayToEntry2: 'stay zones to entry 2', entryBeeps: 'sound on entry', exitBeeps: 'sound on exit' },
  ...{ outputs: 'outputs', keySwitch: 'key switch', keysOff: 'alarm keys off' },
} satisfies Record<(typeof settingKeys)[number], string>)
const settingValues: KeyedForm = {
  ...{ is: 'keyed', by: 'setting' },
  of: {
    ...{ exitUnit: on, stayToEntry2: on, entryBeeps: onOff, exitBeeps: onOff },
    exitBy: choices({ timer: 'its time', door: 'the last door', either: 'whichever is first' }),
    openAtExit: choices({ exclude: 'left out', alarm: 'alarm' }),
    outputs: choices({ momentary: 'a pulse', latched: 'held' }),
    keySwitch: choices({ momentary: 'springs back', latching: 'stays over' }),
  },
}

/** A step of one field: left empty, its value is all that is keyed. */
const fieldStep = (key: string, title: string, titles: ReturnType<typeof choices>): readonly Cell[] => [
  { key, title, form: { is: 'one-of', choices: titles } },
  ...stepCells.map(maybe),
]

/** How a panel is keyed, as a plain sheet: the order of its fields, and what stands around a value. */
export function programmingQuestions(asked: Asked): Question[] {
  const questions = plainQuestions(asked)
  const told = new Set(questions.flatMap(({ path }) => keysIn(asked.of(path))))
  return questions.map((question) => withParts(question, [...told].slice(0, MOST_KEYS)))
}

/** Cells that say what is keyed. */
const keyedCells: readonly string[] = ['keys', 'addKeys', 'removeKeys']
/** So many keys of a panel are offered where one says what is keyed. */
const MOST_KEYS = 8

/** The keys that an answer says to be pressed, written as [ok]. */
function keysIn(value: unknown): readonly string[] {
  if (Array.isArray(value)) return value.flatMap(keysIn)
  if (typeof value !== 'object' || value === null) return []
  const keyed = Object.entries(value).filter(([key]) => keyedCells.includes(key))
  return keyed.flatMap(([, keys]) =>
    typeof keys === 'string' ? (keys.match(/\[[^[\]]{1,16}\]/g) ?? []) : [],
  )
}

/** Where one says what is keyed, what is filled in there, the code, and the keys named before are put in by a touch. */
function withParts(question: Question, told: readonly string[]): Question {
  const { form, why, path } = question
  if (form.is !== 'rows' && form.is !== 'group') return question
  const code = path === 'programming.wayIn' ? ['installer code'] : []
  const parts = [...code, ...(why.match(/\{[a-z]+\}/g) ?? []), ...told]
  const cells = form.cells.map((cell) =>
    cell.form.is === 'text' && keyedCells.includes(cell.key) && parts.length > 0
      ? { ...cell, form: { ...cell.form, parts } }
      : cell,
  )
  return { ...question, form: { ...form, cells } }
}

function plainQuestions({ of }: Asked): Question[] {
  const severalAreas = Number(of('areas.count') ?? 1) > 1
  const list = of('interface') === undefined || of('interface') === null
  return section('How it is keyed', [
    {
      path: 'interface',
      ask: 'Is how it is keyed described already?',
      why: 'Then every key and display is proven before it is printed. Without, the sheet lists its fields in its order, marked not proven.',
      leaflet: 'catalogue, how panels are keyed',
      form: { is: 'one-entry', kind: 'interface' },
      unless: 'not yet',
    },
    {
      path: 'programming.wayIn',
      ask: 'How does one come into programming?',
      why: 'It stands first on the sheet. Never write a code here.',
      leaflet: 'programming, first page',
      form: steps,
    },
    {
      path: 'programming.wayOut',
      ask: 'How is it left so that all is kept?',
      why: 'Left another way, some panels lose everything.',
      leaflet: 'programming, last page',
      form: steps,
    },
    {
      path: 'programming.yes',
      ask: 'What is keyed for yes?',
      why: 'For fields that are on or off.',
      leaflet: 'programming, keys',
      form: { is: 'text', most: 12, offers: ['1', 'yes', 'on'] },
    },
    {
      path: 'programming.no',
      ask: 'What is keyed for no?',
      why: 'For fields that are on or off.',
      leaflet: 'programming, keys',
      form: { is: 'text', most: 12, offers: ['0', 'no', 'off'] },
    },
    {
      path: 'programming.systemFields',
      ask: 'Which times does it ask for, and in which order?',
      why: 'The sheet follows it.',
      leaflet: 'programming, times',
      form: {
        ...someOf(timesAsked(of)),
        ...{ ordered: true },
      },
    },
    {
      path: 'programming.system',
      ask: 'How is a time keyed?',
      why: `{address}, {name} and {value} are filled in.${list ? ' As a plain list: its address and its value.' : ''}`,
      leaflet: 'programming, examples',
      form: step,
      unless: plainSteps,
    },
    {
      path: 'programming.settings',
      ask: 'Which settings of the system can be keyed?',
      why: 'Those that a plan changes stand on the sheet. {value} is filled in.',
      leaflet: 'programming, options of the system',
      form: {
        ...{ is: 'rows', most: settingKeys.length, row: 'setting', pick: 'setting' },
        cells: [
          ...fieldStep('setting', 'Setting', settingTitles),
          maybe({ key: 'values', title: 'Keyed for', form: settingValues }),
        ],
      },
      unless: 'none',
    },
    {
      path: 'programming.zoneStart',
      ask: 'How is a zone begun?',
      why: '{number} is filled in.',
      leaflet: 'programming, zones',
      form: step,
      unless: plainSteps,
    },
    {
      path: 'programming.zone',
      ask: 'Which fields of a zone does it ask for, in which order?',
      why: 'Choose them in the panel’s order. Where more than the value is keyed, say how: {number}, {value} and {meaning} are filled in.',
      leaflet: 'programming, zones',
      form: {
        ...{ is: 'rows', most: 40, row: 'field', pick: 'field' },
        cells: [
          ...fieldStep('field', 'Field', fieldTitles),
          maybe({ key: 'values', title: 'Keyed for', form: zoneValues }),
        ],
      },
    },
    {
      path: 'programming.zoneEnd',
      ask: 'How is a zone finished?',
      why: '{number} is filled in.',
      leaflet: 'programming, zones',
      form: step,
      unless: plainSteps,
    },
    {
      path: 'programming.slot',
      ask: 'How is a fob, keypad or siren stored in its place?',
      why: '{address}, {number}, {name} and {value} are filled in.',
      leaflet: 'programming, fobs and keypads',
      form: {
        ...{ is: 'group' },
        cells: [
          ...stepCells,
          textCell('fob', 'Address of fobs', 12),
          textCell('keypad', 'Address of keypads', 12),
          textCell('siren', 'Address of sirens', 12),
        ],
      },
      unless: 'nothing is keyed for them',
    },
    ...(severalAreas ? areaSteps(of) : []),
    of('couplings.fobsInKeypad') === true
      ? {
          path: 'programming.fobInKeypad',
          ask: 'How is a fob stored in a keypad?',
          why: '{number} and {value} are filled in.',
          leaflet: 'keypads, fobs',
          form: step,
          unless: 'not stated',
        }
      : null,
  ])
}

function timesAsked(of: Asked['of']) {
  const titles = choices({
    ...{ entry1: 'entry delay 1', entry2: 'entry delay 2', exit: 'exit delay' },
    ...{ exitStay: 'exit delay in stay', abort: 'hold before sending' },
  })
  return titles.filter(
    ({ value }) =>
      (value !== 'exitStay' || of('couplings.exitInStay') === 'own') &&
      (value !== 'abort' || of('delays.abort') !== null),
  )
}

function areaSteps(of: Asked['of']) {
  return [
    of('couplings.keypadAreas') === true
      ? {
          path: 'programming.keypadAreas',
          ask: 'How are the areas of a keypad or fob keyed?',
          why: '{name}, {number} and {value} are filled in.',
          leaflet: 'keypads, areas',
          form: step,
          unless: 'not stated',
        }
      : null,
    {
      path: 'programming.areaMove',
      ask: 'How does a zone come into another area?',
      why: 'Two acts: it is added there, then taken out here. {number} and {value} are filled in.',
      leaflet: 'programming, areas',
      form: {
        ...{ is: 'group' as const },
        cells: [
          textCell('addKeys', 'Keyed to add it', 80),
          maybe(textCell('addShows', 'It then shows', 120)),
          maybe(textCell('addNote', 'What to mind', 300)),
          textCell('removeKeys', 'Keyed to take it out', 80),
          maybe(textCell('removeShows', 'It then shows', 120)),
          maybe(textCell('removeNote', 'What to mind', 300)),
        ],
      },
      unless: 'not stated',
    },
  ]
}
