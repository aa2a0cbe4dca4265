import type { WordsOf } from '../finding.ts'
import type { SlotFacts } from '../slots/rules.ts'
import { here } from './plural.ts'

/** How the rules on fobs, slots and users read. */
export const slotWords: WordsOf<SlotFacts> = {
  'fob-unbound': {
    title: 'fob bound to nobody',
    source: 'A fob does nothing until it is bound to a user',
    says: ({ model }) => `${model} is bound to no user: it will do nothing.`,
  },
  'user-two-fobs': {
    title: 'user with several fobs',
    source: 'Each fob is bound to one user, so that the log tells who came',
    says: ({ first }) =>
      `This user already carries a ${first}: give each person one fob, so that a lost one can be told apart.`,
  },
  'slot-twice': {
    title: 'slot used twice',
    source: 'A fob, keypad or siren slot holds one device',
    says: ({ kind, slot, first, second }) => `${kind} slot ${slot} is given to ${first} and to ${second}.`,
  },
  'fob-store': {
    title: 'fob stored in a keypad',
    source: 'House rule: in the panel it survives a change of codes and of the keypad',
    says: ({ model, room, can, panel }) =>
      can
        ? `${model}${here(room)} is stored in a keypad: a new keypad or a change of codes loses it.`
        : `${model}${here(room)} is to be stored in a keypad; ${panel} keeps fobs itself.`,
  },
}
