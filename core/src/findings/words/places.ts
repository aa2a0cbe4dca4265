import type { NeededFact, PlaceFact } from '../../premises/places.ts'

/** Why a device has the use that the house tells, one sentence; empty where it tells none. */
export function placeWords(why: PlaceFact | null): string {
  switch (why?.is) {
    case undefined:
      return ''
    case 'sees-leaf':
      return why.assumed
        ? `It is in the room of the ${within(why.leaf)} and is taken to see its leaf.`
        : `It sees the leaf of the ${within(why.leaf)}.`
    case 'leaf-passed':
      return `It ${why.assumed ? 'is taken to see' : 'sees'} the leaf of the ${within(why.leaf)}, and the way from the ${within(why.from)} leads past it: it takes the longer delay, since the shorter of two could win.`
    case 'sees-way':
      return `It sees the way from the ${within(why.from)} to the keypad in the ${within(why.keypad)}.`
    case 'off-way':
      return 'No way from an entry door to its nearest keypad leads past it.'
    case 'way-through':
      return `The way from the ${within(why.from)} to the keypad leads through the ${within(why.opening)}.`
    case 'no-way-through':
      return `No way from an entry door to its nearest keypad leads through the ${within(why.opening)}.`
    case 'never-used':
      return `Nobody comes in by the ${within(why.opening)}.`
    case 'not-in-stay':
      return `People come in by the ${within(why.opening)}, but not once the house is in stay.`
    case 'far':
      return `From the ${within(why.opening)} it takes ${why.seconds} s to the keypad, code and margin counted.`
    case 'used':
      return `People come in by the ${within(why.opening)}, also while the house is in stay.`
  }
}

/** What is to be said of the house, within a sentence. */
export function neededWords(fact: NeededFact): string {
  switch (fact.needs) {
    case 'room':
      return 'the room it is in'
    case 'room-described':
      return `a description of “${fact.room}”`
    case 'opening':
      return 'which opening it guards, and how people use it'
    case 'door':
      return 'a door that people come in by'
    case 'keypad':
      return 'a keypad in a described room'
    case 'sees-leaf':
      return `whether it sees the leaf of the ${within(fact.leaf)}`
    case 'inner-door':
      return `whether the ${within(fact.door)} stands open while the system is set (a motion sees neither through glass nor through a closed door), so that it can see the leaf of the ${within(fact.leaf)}`
  }
}

/** A name within a sentence: a capital that only begins it goes. */
function within(name: string): string {
  return /^[A-Z][a-z]/.test(name) ? name.charAt(0).toLowerCase() + name.slice(1) : name
}
