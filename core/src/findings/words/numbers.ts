import type { WordsOf } from '../finding.ts'
import type { NumberFacts, ZoneCalled } from '../numbers/rules.ts'

/** How the rules on numbers read. */
export const numberWords: WordsOf<NumberFacts> = {
  'pair-twice': {
    title: 'serial and loop used twice',
    source: 'Panels take a pair of serial and loop once',
    says: ({ zone, first, serial, loop }) =>
      `Zone ${zone} uses ID ${serial} loop ${loop}, which zone ${first} has already: the panel refuses the second. Take it out at Enrol and learn the right one.`,
  },
  'number-twice': {
    title: 'number used twice',
    source: 'A zone number stands for one zone',
    says: ({ zone, first, second }) =>
      `Zone ${zone} is given twice: to ${called(first)} and to ${called(second)}.`,
  },
  'number-range': {
    title: 'number outside its range',
    source: 'The panel’s own number ranges',
    says: ({ zone, use, panel, range }) =>
      `${zone} is no number for a ${use === 'fob' ? 'fob button' : `${use} zone`}: ${panel} keeps ${range} for them.`,
  },
  'live-terminal': {
    title: 'wireless device on a live wired terminal',
    source: 'Both would trip the zone, and an empty terminal reads open',
    says: ({ zone, terminal }) =>
      `Zone ${zone} is also wired terminal ${terminal}, which is live: left empty it reads open and the panel is never ready.`,
  },
  'left-but-new': {
    title: 'new device on a zone that is left as programmed',
    source: 'What is left as programmed is neither keyed nor learned: the panel must have it already',
    says: ({ zone, model }) =>
      `Zone ${zone} is left as programmed, but ${model === null ? 'it has no device of before' : `its ${model} is new`}: the panel does not have it, and nobody would key or learn it.`,
  },
  'mapped-terminal': {
    title: 'number that a keypad’s own terminal is mapped over',
    source: 'The panel terminal of that number is dead; radio there would trip beside the keypad',
    says: ({ zone, number, keypad }) => `Zone ${zone}: the terminal of ${keypad} is mapped over ${number}.`,
  },
}

function called({ label, model }: ZoneCalled): string {
  return label ? `“${label}”` : model ? `a ${model}` : 'an empty zone'
}
