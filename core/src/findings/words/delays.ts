import { encodedWords } from '../../response/delay-words.ts'
import { delayNames } from '../../response/delays.ts'
import { formatSeconds } from '../../units/seconds.ts'
import type { DelayFacts } from '../delays/rules.ts'
import type { WordsOf } from '../finding.ts'
import { lowerFirst, upperFirst } from '../../units/words.ts'

/** How the rules on delays read. */
export const delayWords: WordsOf<DelayFacts> = {
  'delay-unstorable': {
    title: 'delay the panel cannot store',
    source: 'The panel’s own field',
    says: ({ area, field, encoded }) => {
      const words = encodedWords(field, encoded)
      return `${of(area)}${encoded.ok ? `${field}: ${words}.` : words}`
    },
  },
  'delay-over-limit': {
    title: 'delay outside the region’s limit',
    source: 'The region’s preset',
    says: ({ area, delay, wanted, bound, limit, preset, source }) =>
      `${of(area)}${upperFirst(delayNames[delay])} is ${formatSeconds(wanted)}; ${preset} ${bound === 'most' ? 'allows at most' : 'asks for at least'} ${formatSeconds(limit)} (${source}).`,
  },
  'entry-plus-abort': {
    title: 'entry delay and hold before sending together too long',
    source: 'ANSI/SIA CP-01: entry delay and abort window together at most 60 s',
    says: ({ area, delay, entry, abort, most }) =>
      `${of(area)}${upperFirst(delayNames[delay])} ${formatSeconds(entry)} and ${delayNames.abort} ${formatSeconds(abort)} make ${formatSeconds(entry + abort)}; together at most ${formatSeconds(most)}.`,
  },
  'delay-cut': {
    title: 'entry delay cut short on the way',
    source:
      'A second entry delay never lengthens the one that runs; whether a shorter one shortens it is panel data',
    says: ({ zone, way, keypad, modes, from, to, needed, panel, known }) =>
      `Zone ${zone} starts the shorter entry delay in ${modes.join(' and ')} on the way from the ${lowerFirst(way)}: ${known ? 'that leaves' : 'that may leave'} ${formatSeconds(to)} of ${formatSeconds(from)}, and the way to the keypad in the ${lowerFirst(keypad)} takes ${formatSeconds(needed)}. ${known ? `${panel} goes by the shorter of two running delays.` : `Whether ${panel} goes by the shorter of two running delays, its catalogue entry does not say.`}`,
  },
  'entry-too-short': {
    title: 'entry delay shorter than the way to the keypad',
    source: 'Slowest way from door to keypad at walking pace, time to key a code, and a margin (house rules)',
    says: tooShort,
  },
  'delay-unset': {
    title: 'delay that nobody has set',
    source: 'A delay left as the panel comes is nobody’s figure',
    says: ({ delay, zones }) =>
      delay === 'exit'
        ? `No exit delay is set, and people leave by ${zones.length === 1 ? 'zone' : 'zones'} ${zones.join(', ')}: the panel’s own time holds, whatever it is.`
        : `No ${delayNames[delay]} is set, and ${zones.length === 1 ? 'zone' : 'zones'} ${zones.join(', ')} ${zones.length === 1 ? 'starts' : 'start'} it: the panel’s own time holds, whatever it is.`,
  },
  'exit-too-short': {
    title: 'exit delay shorter than the way out',
    source: 'Slowest way from keypad to door at walking pace, time to key a code, and a margin (house rules)',
    says: tooShort,
  },
  'siren-time': {
    title: 'siren time outside the region’s limit or the panel’s field',
    source: 'The region’s preset; the local code rules',
    says: ({ wanted, field, preset, min, max, source }) => {
      const bounds = [
        ...(min === null ? [] : [`at least ${formatSeconds(min)}`]),
        ...(max === null ? [] : [`at most ${formatSeconds(max)}`]),
      ].join(' and ')
      const why = field === null ? `${preset} asks for ${bounds} (${source})` : `${field} cannot store that`
      return `The siren sounds ${formatSeconds(wanted)}; ${why}.`
    },
  },
  swinger: {
    title: 'swinger shutdown outside its limits',
    source: 'ANSI/SIA CP-01: 1–6 trips, 2 as shipped; and the panel’s own field',
    says: ({ alarms, from, to }) =>
      `Swinger shutdown after ${alarms} trips; ${from} to ${to} are allowed here.`,
  },
}

function tooShort(facts: DelayFacts['entry-too-short']): string {
  const { area, delay, now, way, room, needed, walk, code, margin, legal, most } = facts
  const parts = `walk ${formatSeconds(walk)}, code ${code} s, margin ${margin} s`
  const end = legal
    ? ''
    : ` No legal delay is long enough${most === null ? '' : ` (at most ${formatSeconds(most)})`}: move the keypad, give a fob, or use another door.`
  return `${of(area)}${upperFirst(delayNames[delay])} is ${formatSeconds(now)}; ${way} to the keypad in ${room} takes ${formatSeconds(needed)} (${parts}).${end}`
}

function of(area: string | null): string {
  return area === null ? '' : `${area}: `
}
