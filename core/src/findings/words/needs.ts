import type { AlarmKind } from '../../catalogue/schema.ts'
import { tripWords } from '../../response/advise.ts'
import { formatSeconds } from '../../units/seconds.ts'
import { lowerFirst } from '../../units/words.ts'
import type { WordsOf } from '../finding.ts'
import type { Cell, NeedFacts } from '../needs/rules.ts'

/** How the rules on a type against its need read. */
export const needWords: WordsOf<NeedFacts> = {
  'alarms-on-owner': {
    title: 'alarms on its owner',
    source: 'A door used every day starts an entry delay; what lies on the way waits for it',
    says: ({ zone, cells, door, at, lacks }) =>
      `Zone ${zone} would alarm on its owner: ${cells.map((cell) => `${does(cell)}, ${whenThere(cell, at, door)}`).join('; ')}.${noType(lacks)}`,
  },
  'leaf-follows': {
    title: 'motion at the leaf that follows',
    source: 'A motion that sees the leaf of an entry door trips before the contact does',
    says: ({ zone, door, assumed, lacks }) =>
      `Zone ${zone} ${assumed ? 'is taken to see' : 'sees'} the leaf of ${door === '' ? 'an entry door' : `the ${lowerFirst(door)}`} and follows: motion and contact race, and where the motion is first it alarms on its owner. That door’s delay cures it, or turning or masking the motion.${noType(lacks)}`,
  },
  'way-unwatched': {
    title: 'not watched in a mode',
    source: 'What does nothing in a mode stops nobody there',
    says: ({ zone, cells, lacks }) =>
      `Zone ${zone} stops nobody: ${cells.map(does).join('; ')}.${noType(lacks)}`,
  },
  'delay-no-entry': {
    title: 'entry delay where nobody comes in',
    source: 'Only ways in, and what sees their leaf, start a delay',
    says: ({ zone, modes, seconds, door }) =>
      `Zone ${zone} starts an entry delay in ${modes.join(' and ')}, but ${door ? 'nobody comes in there then' : 'its device is no way in'}: an intruder there would have ${seconds === null ? 'the whole delay' : formatSeconds(seconds)} of silence.`,
  },
  'shorter-delay': {
    title: 'the shorter delay for a far door',
    source: 'Entry delay: way to the keypad, code and margin, by the delay that the type starts',
    says: ({ zone, cells, door, seconds, needed, keypad, lacks }) => {
      const there = seconds === null ? '' : `: ${formatSeconds(seconds)} are there`
      const takes =
        needed === null
          ? ', and its door is far from the keypad'
          : `, and from the ${lowerFirst(door)} to the keypad in the ${lowerFirst(keypad)} it takes ${formatSeconds(needed)}`
      return `Zone ${zone} starts entry 1 in ${modesOf(cells)}${there}${takes}.${noType(lacks)}${lacks === null ? '' : ' Lengthen entry 1, give a fob, or move the keypad.'}`
    },
  },
  'delay-gives-away': {
    title: 'more delay than is needed',
    source: 'Every second more is an intruder’s',
    says: ({ zone, cells, why, seconds, needed, lacks }) =>
      why === 'passed'
        ? `Zone ${zone} starts an entry delay in ${modesOf(cells)} though it lies on the way only: whoever came in by a window has ${seconds === null ? 'the whole delay' : formatSeconds(seconds)}. As follow it waits for the door’s delay alone.${noType(lacks)}`
        : `Zone ${zone} starts entry 2 in ${modesOf(cells)}, ${formatSeconds(seconds ?? 0)}, where ${formatSeconds(needed ?? 0)} are enough: ${formatSeconds((seconds ?? 0) - (needed ?? 0))} are given away.${noType(lacks)}`,
  },
  'waits-for-delay': {
    title: 'waits where nobody comes in',
    source: 'Follow waits while an entry delay runs, else it alarms at once',
    says: ({ zone, cells }) =>
      `Zone ${zone} follows in ${modesOf(cells)}, and nobody comes in there: while an entry delay runs it waits with it. Instant is stronger.`,
  },
  'against-school': {
    title: 'glass break against the house rule',
    source: 'House rule: glass break',
    says: ({ zone, cells, awayOnly }) =>
      `Zone ${zone}: ${cells.map(does).join('; ')}. The house rule has breaking glass ${awayOnly ? 'there in away only: daily noise sounds alike' : 'alarm whenever the house is set'}.`,
  },
  'nearest-type': {
    title: 'nearest type of the panel',
    source: 'The nearest safe type, with what it does otherwise',
    says: ({ zone, type, cells, wanted, lacks }) =>
      `Zone ${zone} has “${type}”, the nearest that ${lacks ?? 'the panel'} offers: ${cells.map(({ mode, does: given }, index) => `in ${mode} ${tripWords(given)} instead of ${tripWords(wanted[index]?.does ?? given)}`).join('; ')}.`,
  },
  'burglary-wrong-kind': {
    title: 'burglary device on another kind of type',
    source: 'A wrong kind sends the wrong help',
    says: ({ zone, event, type, kind }) =>
      `Zone ${zone} watches ${event} as “${type}”, ${kinds[kind]}: it ${wrong[kind]}.`,
  },
  'sleeps-unset': {
    title: 'never opened, yet asleep while unset',
    source: 'What nobody opens alarms at any hour',
    says: ({ zone, event, type, lacks }) =>
      `Zone ${zone} watches ${event} as “${type}”, which sleeps while the system is unset; its place is never opened, so it is to alarm at any hour.${lacks === null ? '' : ` ${lacks} has no burglary type that does: an area of its own that stays set would.`}`,
  },
  'opened-quietly': {
    title: 'how it is opened quietly',
    source: 'An alarm at any hour needs a way to open it without one',
    says: ({ zone, place }) =>
      `Zone ${zone} alarms at any hour. Write down how ${place === '' ? 'it' : `the ${lowerFirst(place)}`} is opened quietly: who asks for it, and what is keyed or left out first.`,
  },
  'any-hour': {
    title: 'burglary device that is always on',
    source: 'Only what is never opened alarms at any hour',
    says: ({ zone, event, type }) =>
      `Zone ${zone} watches ${event} as “${type}”, which alarms while the system is unset, too. For a safe, a gun cabinet or a hatch that is never opened that is right: say so as the use of its place, in the kit.`,
  },
}

const kinds: Readonly<Record<AlarmKind, string>> = {
  burglary: 'a burglary type',
  fire: 'a fire type',
  gas: 'a gas type',
  auxiliary: 'an auxiliary type',
  panic: 'a panic type',
  medical: 'a medical type',
  command: 'a command',
}

/** What a burglary device of a wrong kind does. */
const wrong: Readonly<Record<AlarmKind, string>> = {
  burglary: 'alarms',
  fire: 'sends the fire brigade, sounds like a fire and cannot be unset',
  gas: 'sounds like gas and cannot be unset',
  auxiliary: 'alarms at any hour, with a tone that nobody takes for a burglar',
  panic: 'calls for help at any hour, whoever opens it',
  medical: 'calls for care at any hour, whoever opens it',
  command: 'sets, unsets or switches something and never alarms',
}

function does({ mode, does: trip }: Cell): string {
  switch (trip) {
    case 'ignore':
      return `in ${mode} it does nothing`
    case 'alert':
      return `in ${mode} it gives a notice only`
    case 'follow':
      return `in ${mode} it follows`
    default:
      return `in ${mode} it does ${tripWords(trip)}`
  }
}

/** Who trips it then. */
function whenThere({ mode }: Cell, at: 'door' | 'way', door: string): string {
  if (mode === 'away') return `when somebody comes home${door === '' ? '' : ` by the ${lowerFirst(door)}`}`
  return at === 'door' ? 'when somebody comes home late' : 'when somebody walks there at night'
}

function modesOf(cells: readonly Cell[]): string {
  return cells.map(({ mode }) => mode).join(' and ')
}

function noType(lacks: string | null): string {
  return lacks === null ? '' : ` The nearest type of ${lacks} does the same.`
}
