/**
 * What a panel holds: address → value. An address is named by its meaning, `group.number.field`, with the plan's own field names,
 * such as `zone.12.response` or `zone.12.areas.2`; a list is one address per member. Values are as the panel stores them: a number
 * in its own units, the code of a response type, `on` or `off`, an ID without spaces, a text, numbers of words.
 */
export type Memory = ReadonlyMap<string, string>

/** What is put at an address by the plan: a value, nothing (`open`), what the panel does not ask (`hidden`), or what it cannot hold. */
export type Cell = { readonly address: string } & (
  | { readonly value: string }
  /** `left`: open because the zone stays as the panel has it, whatever that is. */
  | { readonly state: 'open' | 'hidden' | 'left' }
  /** Why the panel cannot hold it, as a sentence. */
  | { readonly refused: string }
)

/** A flag as it is stored. */
export function bit(on: boolean): string {
  return on ? 'on' : 'off'
}

/** A stored flag; null for a value that is none. */
export function isOn(value: string | undefined): boolean | null {
  return value === 'on' ? true : value === 'off' ? false : null
}

/** A value the plan sets, or `open` where it leaves it. */
export function cellOf(address: string, value: string | null): Cell {
  return value === null ? { address, state: 'open' } : { address, value }
}

/** A name as a part of an address: small letters, digits and hyphens. */
export function slug(name: string): string {
  return name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
}
