import type { WordsOf } from '../finding.ts'
import type { SettingFacts } from '../settings/rules.ts'

/** How the rules on settings of the whole panel read. */
export const settingWords: WordsOf<SettingFacts> = {
  'key-consent': {
    title: 'help or panic key switched off without consent',
    source: 'Losing a fire, medical or panic key of a keypad needs the customer’s recorded consent',
    says: ({ key }) =>
      `The ${key} of the keypads is switched off, and the customer’s consent is not recorded.`,
  },
  'key-latching': {
    title: 'latching key switch that disables all other setting',
    source: 'The panel’s own coupling: while a latching key switch is fitted, keypads and fobs cannot set',
    says: ({ panel }) =>
      `The key switch is latching: on ${panel} no keypad, fob or timer can set the system beside it.`,
  },
  'beeps-off': {
    title: 'no sound while entry or exit runs',
    source: 'Whoever does not hear that a delay runs overstays it: the commonest false alarm',
    says: ({ runs, shipped }) =>
      `The keypads make no sound while ${runs} runs: people do not hear that their time is passing.${asShipped(shipped)}`,
  },
  'outputs-latched': {
    title: 'outputs that stay on until a code is keyed',
    source: 'A latched output works on after the siren has stopped: the customer must know how to clear it',
    says: ({ has, panel, shipped }) =>
      has
        ? `Outputs stay on until a code is keyed: show the customer how to clear them, and what they drive.${asShipped(shipped)}`
        : `${panel} gives pulses only: its outputs cannot stay on.`,
  },
  'open-excluded': {
    title: 'open zones are left out at the end of exit',
    source:
      'Leaving out means unprotected, and a door left out starts no delay on return: say so at hand-over',
    says: ({ shipped }) =>
      `A zone open at the end of exit is left out: it is unprotected, and with the entry door left out the first follow zone alarms on its owner.${asShipped(shipped)}`,
  },
}

function asShipped(shipped: boolean): string {
  return shipped ? ' The panel is set this way already, and the plan does not change it.' : ''
}
