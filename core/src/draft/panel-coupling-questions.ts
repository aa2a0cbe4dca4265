import { choices, oneOf, section, someOf, whole, words, yesNo, type Asked } from './question.ts'
import type { Cell, Question } from './form.ts'
import { keyFrom, maybe, textCell } from './panel-cells.ts'

const unstated = 'not stated'

/** How the settings of a panel bear on each other: what is not stated counts as not there. */
export function couplingQuestions(asked: Asked): Question[] {
  return [
    ...section('Its areas', areaQuestions(asked)),
    ...section('Options of zones', zoneQuestions(asked)),
    ...section('Options of setting', settingQuestions()),
  ]
}

function areaQuestions({ of }: Asked) {
  const common = {
    path: 'couplings.twoAreas',
    ask: 'Can a zone be in two areas?',
    why: 'A common zone is armed only when all its areas are; a letter of a part set is something else.',
    leaflet: 'areas, common zones',
    form: oneOf(twoAreas),
    unless: unstated,
  }
  if (Number(of('areas.count') ?? 1) < 2) return [common]
  return [
    common,
    {
      path: 'couplings.delaysPerArea',
      ask: 'Has each area entry and exit delays of its own?',
      why: 'Then they are planned and keyed for each.',
      leaflet: 'programming, areas',
      form: yesNo,
      unless: unstated,
    },
    {
      path: 'couplings.keypadAreas',
      ask: 'Does a keypad or fob set only areas that it is given?',
      why: 'Then which it serves is planned: a keypad that unsets nothing strands its owner.',
      leaflet: 'keypads, areas',
      form: yesNo,
      unless: unstated,
    },
  ]
}
const twoAreas = choices({
  common: 'yes: common to both',
  'full-and-part': 'yes: a full and a part set',
  forbidden: 'no',
})

function zoneQuestions({ of }: Asked) {
  const rows = of('responseTypes')
  const types = (Array.isArray(rows) ? rows : []).flatMap((row, index) => {
    const { key, name } = (row ?? {}) as { readonly key?: string; readonly name?: string }
    return name ? [{ value: key ?? keyFrom(name, index), title: name }] : []
  })
  const groupCells: readonly Cell[] = [
    textCell('name', 'Called', 80),
    maybe({ key: 'types', title: 'Types', form: { is: 'some-of', choices: types } }),
    maybe({ key: 'dayZones', title: 'Zones offered as day zones are in it', form: { is: 'yes-no' } }),
  ]
  return [
    {
      path: 'couplings.dayZones',
      ask: 'How does a zone become a day zone?',
      why: 'By its type, or because the user chose it at the keypad among those offered.',
      leaflet: 'zone types, day alarm',
      form: oneOf(choices({ fixed: 'by its type', user: 'the user chooses' })),
      unless: unstated,
    },
    {
      path: 'couplings.typeGroups',
      ask: 'Are there lists of which a zone stands in one only?',
      why: 'Entering one takes it out of the other, without a word.',
      leaflet: 'programming, lists of zones',
      form: { is: 'rows' as const, most: 12, row: 'list', cells: groupCells },
      unless: 'no such lists',
    },
    {
      path: 'couplings.sirenOutputs',
      ask: 'Does it ask for each zone which siren outputs it drives?',
      why: 'Then a zone can be without any.',
      leaflet: 'zones, outputs',
      form: whole('outputs', 1, 8),
      unless: 'it does not ask',
    },
    {
      path: 'couplings.doubleKnock',
      ask: 'Can a zone need two trips to alarm?',
      why: 'It is for wired motions only: elsewhere it is a stop.',
      leaflet: 'zones, options',
      form: yesNo,
      unless: unstated,
    },
    {
      path: 'couplings.fireGroups',
      ask: 'How many groups has it for fire with a second detection?',
      why: 'The two must be in one group, in one open space.',
      leaflet: 'zone types, fire',
      form: whole('groups', 1, 16),
      unless: 'none',
    },
    {
      path: 'couplings.chimeStyles',
      ask: 'In which ways can a zone chime?',
      why: 'Where it is on or off only, there is nothing to choose.',
      leaflet: 'zones, chime',
      form: {
        ...{ is: 'rows' as const, most: 12, row: 'chime' },
        cells: [textCell('name', 'Called', 80), textCell('keyed', 'Keyed', 16)],
      },
      unless: 'on or off',
    },
    {
      path: 'couplings.endOfLineOhm',
      ask: 'Which resistor ends a wired zone?',
      why: 'The wrong one reads open, or never trips.',
      leaflet: 'wiring, technical data',
      form: whole('Ω', 1, 100_000),
      unless: unstated,
    },
    {
      path: 'couplings.shorterEntryWins',
      ask: 'While an entry delay runs: does a second entry zone with a shorter one shorten it?',
      why: 'None ever lengthens it; where one shortens it, a way past two doors has less time.',
      leaflet: 'entry delay, notes',
      form: yesNo,
      unless: unstated,
    },
  ]
}

function settingQuestions() {
  return [
    {
      path: 'couplings.exitBy',
      ask: 'What can end the exit delay?',
      why: 'The firm’s choice is keyed.',
      leaflet: 'exit delay',
      form: someOf(choices({ timer: 'its time', door: 'the last door shut', either: 'whichever is first' })),
      unless: unstated,
    },
    {
      path: 'couplings.openAtExit',
      ask: 'What may happen to a zone that is open when the exit delay ends?',
      why: 'One that is left out protects nothing until the system is unset.',
      leaflet: 'exit delay, faults at setting',
      form: someOf(choices({ exclude: 'it is left out', alarm: 'an alarm' })),
      unless: unstated,
    },
    {
      path: 'couplings.stayToEntry2',
      ask: 'Is there an option that gives all zones of stay entry delay 2?',
      why: 'Set, a window at night gives an intruder that time.',
      leaflet: 'options of the system',
      form: words(80),
      unless: 'no such option',
    },
    {
      path: 'couplings.beeps',
      ask: 'Can the sound of entry and exit delays be switched off?',
      why: 'Off, nobody hears that time runs.',
      leaflet: 'options of the system',
      form: yesNo,
      unless: unstated,
    },
    {
      path: 'couplings.fobsInKeypad',
      ask: 'Can a fob be stored in a keypad instead of the panel?',
      why: 'A new keypad loses it.',
      leaflet: 'keypads, fobs',
      form: yesNo,
      unless: unstated,
    },
    {
      path: 'couplings.latchingKeySwitch',
      ask: 'Does a key switch that stays over disable all other ways to set?',
      why: 'Then fobs and keypads do nothing while it is turned.',
      leaflet: 'key switch',
      form: yesNo,
      unless: unstated,
    },
    {
      path: 'couplings.outputs',
      ask: 'What can its outputs do?',
      why: 'A gate wants a pulse, a lamp is held.',
      leaflet: 'outputs',
      form: someOf(choices({ momentary: 'a pulse', latched: 'held until a code' })),
      unless: unstated,
    },
    {
      path: 'couplings.functionKeys',
      ask: 'Which keys of a keypad call for help?',
      why: 'They are tried, or the customer wants them off.',
      leaflet: 'keypad, alarm keys',
      form: { is: 'words' as const, most: 8 },
      unless: unstated,
    },
  ] satisfies Omit<Question, 'section' | 'needed'>[]
}
