import { useNames } from '../../response/use-names.ts'
import type { WordsOf } from '../finding.ts'
import type { PlacementFacts } from '../placement/rules.ts'
import { lowerFirst } from '../../units/words.ts'
import { neededWords, placeWords } from './places.ts'
import { here } from './plural.ts'

/** How the rules on places read. */
export const placementWords: WordsOf<PlacementFacts> = {
  'metal-building': {
    title: 'radio inside a metal building',
    source:
      'Inside a metal building radio is refused, not merely warned of; place a receiver or a cable inside',
    says: ({ model, room }) =>
      `${model}${here(room)} sends from inside a metal building: it would not be heard reliably.`,
  },
  'too-cold': {
    title: 'room outside the device’s temperature range',
    source:
      'Each transmitter’s stated range; unheated rooms are taken as −10 to 45 °C unless the job says otherwise',
    says: ({ model, room, cold, hot, from, to }) =>
      `${room} ${cold === null ? `gets up to ${hot} °C` : `is unheated, ${cold} to ${hot} °C`}; ${rangeWords(model, from, to)}.`,
  },
  'not-for-outdoors': {
    title: 'indoor device outdoors',
    source: 'Only what is stated for outdoors stays dry',
    says: ({ model, room }) => `${model} is not stated for outdoors, and ${room} is.`,
  },
  'motion-unheated': {
    title: 'motion in an unheated garage, shed or store',
    source: 'Motions are not for unheated garages and sheds: draughts and heat alarm them',
    says: ({ model, room }) =>
      `${model} watches ${room}, which is unheated: draughts and quick warmth there can trip it.`,
  },
  'motion-height': {
    title: 'motion at an unusual height',
    source: 'A motion sits 1.8 to 2.1 m high, in a corner looking across the path; the maker’s manual rules',
    says: ({ model, room, m, from, to }) =>
      `${model}${here(room)} hangs at ${m} m; ${from} to ${to} m is usual.`,
  },
  'gap-too-wide': {
    title: 'magnet too far from its contact',
    source: 'The model’s stated gap; on steel about half is left (usual figure)',
    says: ({ model, room, mm, usable, stated, onSteel }) =>
      `The magnet of ${model}${here(room)} is ${mm} mm away; ${usable} mm is ${stated ? 'stated' : 'usual, for the model states none'}${onSteel === null ? '' : `, ${onSteel} mm on steel`}.`,
  },
  'sensitivity-high': {
    title: 'shock set more sensitive than to begin with',
    source: 'Begin with low or medium and raise it only after a trial',
    says: ({ model, room, setting, begin }) =>
      `${model}${here(room)} is set to ${setting}; begin with ${begin} and try it.`,
  },
  'pet-too-heavy': {
    title: 'pet heavier than the motion tolerates',
    source: 'No motion where pets roam while armed unless its setting covers their weight',
    says: ({ model, room, kg, tolerates, setting }) =>
      `A pet of ${kg} kg lives here; ${model}${here(room)} ${tolerates === null ? 'has no pet immunity' : `tolerates ${tolerates} kg${setting === null ? '' : ` at ${setting}`}`}. Keep the pet out of the room while set, or swap the motion.`,
  },
  'pet-setting': {
    title: 'pet setting that nobody noted',
    source: 'A motion tolerates what its switch is set to: unset it may tolerate nothing',
    says: ({ model, room, kg, offers }) =>
      `A pet of ${kg} kg lives here; how ${model}${here(room)} is set is not noted. It has ${offers.map(({ setting, kg: most }) => `${setting} (${most} kg)`).join(', ')}.`,
  },
  'use-differs': {
    title: 'stated use differs from the described house',
    source: 'The house in words tells how people move; one of the two is wrong',
    says: ({ model, room, said, derived, why }) =>
      `${model}${here(room)} is said to be ${useNames[said]}, but ${lowerFirst(placeWords(why))} That makes it ${useNames[derived]}.`,
  },
  'use-unstated': {
    title: 'use of doors and motions not stated',
    source: 'A door whose use nobody stated is asked for, never taken for a window',
    says: ({ devices }) => {
      const named = devices.slice(0, 3).join(', ')
      const more = devices.length > 3 ? ` and ${devices.length - 3} more` : ''
      return `Nobody said how people use the place of ${named}${more}: who comes in there, and what is on the way to the keypad. Their types are taken as for windows and ways until then; describe the house, or say the use of each.`
    },
  },
  'window-way-in': {
    title: 'window or flap as a way in',
    source: 'What people come in by starts an entry delay; what is only opened does not',
    says: ({ opening, use }) =>
      `People come in by the ${lowerFirst(opening)} ${use === 'everyday' ? 'every day' : 'now and then'}, by the survey: its zone then starts an entry delay, for a burglar too. If it is only opened, nobody comes in by it.`,
  },
  'fact-missing': {
    title: 'a fact about the house is missing',
    source: 'A judgement that lacks a fact names it instead of guessing',
    says: ({ model, room, needed, assumed }) => {
      const name = `The use of ${model}${here(room)}`
      return assumed === null
        ? `${name} cannot be told yet; needed: ${needed.map(neededWords).join(' and ')}.`
        : `${name} is assumed: ${lowerFirst(placeWords(assumed))} Say ${needed.map(neededWords).join(' and ')}.`
    },
  },
}

function rangeWords(model: string, from: number | null, to: number | null): string {
  if (from !== null && to !== null) return `${model} works from ${from} to ${to} °C`
  if (from === null && to === null) return `for which temperatures ${model} is made is not stated`
  return from === null
    ? `${model} works up to ${to} °C, and from where on is not stated`
    : `${model} works from ${from} °C on, and up to where is not stated`
}
