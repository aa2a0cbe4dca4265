import { tripWords } from '../../response/advise.ts'
import type { AlarmKind } from '../../catalogue/schema.ts'
import type { WordsOf } from '../finding.ts'
import type { ResponseFacts } from '../response/rules.ts'
import type { WrongKind } from '../response/wrong-kind.ts'
import { upperFirst } from '../../units/words.ts'

/** How the rules on response types read. */
export const responseWords: WordsOf<ResponseFacts> = {
  'response-missing': {
    title: 'no response type',
    source: 'A type that is not stated is asked for, never guessed',
    says: ({ zone, panel, lacks }) =>
      lacks === null
        ? `Zone ${zone} has no response type of ${panel}.`
        : `${panel} has no response type for a ${lacks} alarm: zone ${zone} cannot be programmed.`,
  },
  'panic-wrong-kind': {
    title: 'panic device on a type that is not panic',
    source: 'Contradictions are findings',
    says: (facts) => `${wrongKind(facts)} A call for help needs a panic type, instant in every mode.`,
  },
  'house-watch-wrong-kind': {
    title: 'frost or water not on an always-on type',
    source: 'Freeze and flood are auxiliary, always on',
    says: (facts) =>
      `${wrongKind(facts)} Frost and water must be watched in every mode, with their own tone.`,
  },
  'medical-wrong-kind': {
    title: 'care call typed as something else',
    source: 'A help pendant is its own kind: typed as panic it sends the police',
    says: ({ zone, type, kind }) =>
      `Zone ${zone} is a care call but does “${type}”, a ${kind} type: ${calls[kind]}.`,
  },
  'follow-alone': {
    title: 'follow zone without an entry zone in its area',
    source: 'A follow zone waits only for an entry delay of its own area',
    says: ({ zone, modes }) =>
      `Zone ${zone} follows in ${modes.join(' and ')}, but no zone of its area starts an entry delay there: it is only ever instant.`,
  },
  'double-knock': {
    title: 'double knock where one trip must be enough',
    source:
      'Two trips to alarm is for wired motions only: refused on radio, shock, contacts, life safety and panic',
    says: ({ zone, why, panel, event }) => {
      const because = {
        panel: `${panel} has no double knock`,
        radio: 'a radio device may sleep after its first trip',
        once: `a ${event} may trip only once`,
      }
      return `Zone ${zone} waits for a second trip: ${because[why]}.`
    },
  },
  'stay-option': {
    title: 'option that delays all stay zones',
    source: 'The option turns every zone of stay into entry 2: windows then give an intruder that delay',
    says: (facts) =>
      facts.has
        ? `${upperFirst(facts.option)} is on: ${facts.zones.map((zone) => `zone ${zone}`).join(', ')} would start entry 2 in stay instead of alarming at once.`
        : `${facts.panel} has no option that turns stay zones into entry 2.`,
  },
  'day-zone': {
    title: 'day zone that the panel cannot make of it',
    source:
      'The panel’s own lists: a zone that enters one leaves the other; an always-on zone is no day zone',
    says: ({ zone, why, panel, type, list, day }) => {
      const because = {
        'no-choice': `${panel} leaves no choice of day zones to the user`,
        'any-hour': `“${type}” alarms at any hour`,
        list: `“${type}” stands in the ${list}, and entering the ${day} takes it out of there`,
      }
      return `Zone ${zone} is offered as a day zone: ${because[why]}.`
    },
  },
  'stay-motion': {
    title: 'motion on in stay with nowhere to unset it',
    source: 'A motion kept on in stay needs an exit delay in stay, or a keypad or fob upstairs',
    says: ({ zone, exit }) =>
      `Zone ${zone} is a motion that is on in stay, and there is ${exit ? 'neither a fob nor' : 'no exit delay in stay, no fob, nor'} a keypad on another floor: whoever goes up or comes down trips it.`,
  },
}

/** An event on the wrong type, for the sentences that go on with what it needs. */
export function wrongKind({ zone, event, type, kind, weak }: WrongKind): string {
  if (weak !== null)
    return `Zone ${zone} reports ${event} as “${type}” (${weak.modes.join(', ')}: ${tripWords(weak.does)}).`
  return `Zone ${zone} reports ${event} as “${type}”, a ${kind} type: ${calls[kind]}.`
}

/** Who would come for an alarm of a kind, and how it sounds, where it is the wrong one. */
const calls: Readonly<Record<AlarmKind, string>> = {
  burglary: 'it calls the police as for a burglar, and may sleep while unset',
  fire: 'it calls the fire brigade and sounds like a fire',
  gas: 'it sounds like gas, and people leave the house as for gas',
  auxiliary: 'nobody is sent as for an emergency, and its tone warns nobody',
  panic: 'it calls the police as for an attack',
  medical: 'it calls an ambulance',
  command: 'nobody comes: it sets, unsets or switches something and never alarms',
}
