/*
 * How numbers, lists and names are put into a sentence. English for now: another language has a folder of its own beside this one.
 */

const rules = new Intl.PluralRules('en')

/** The form of a word for a number: `plural(2, 'zone', 'zones')` is `zones`. */
export function plural(count: number, one: string, other: string): string {
  return rules.select(count) === 'one' ? one : other
}

/** A number with its word: `1 zone`, `2 zones`. */
export function counted(count: number, one: string, other = `${one}s`): string {
  return `${count} ${plural(count, one, other)}`
}

/** ` in Hall`, or nothing where no room is known. */
export function here(room: string): string {
  return room === '' ? '' : ` in ${room}`
}
