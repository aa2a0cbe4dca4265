import type { Inputs, Use } from '../job/records.ts'

/** How a use of a place is named in a sentence: `… is said to be an everyday door`. */
export const useNames: Readonly<Record<Use, string>> = {
  entry: 'an everyday door',
  'entry-far': 'a door far from the keypad',
  'entry-not-in-stay': 'an entry door not used in stay',
  opening: 'an opening nobody comes in by',
  'inner-way': 'an inner door on the way in',
  'sees-entry': 'in sight of an entry door’s leaf',
  'on-way': 'on the way to the keypad',
  'on-way-night': 'on the way down at night',
  'off-way': 'off every way to the keypad',
  'always-on': 'never opened but by arrangement, such as a safe',
  none: 'not stated',
}

/** How the inputs that a contact uses are named in a sentence. */
export const inputNames: Readonly<Record<Inputs, string>> = {
  reed: 'its reed',
  terminals: 'its terminals',
  both: 'its reed and its terminals',
}
