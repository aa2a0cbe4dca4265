import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'

/** A JSON value. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json }

/**
 * Canonical JSON: keys sorted by code unit, no white space, members that are undefined left out.
 * Two equal values always give the same text, so texts and hashes can be compared.
 */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map((item) => canonicalJson(item ?? null)).join(',')}]`
  if (value !== null && typeof value === 'object') {
    const entries = Object.entries(value)
      .filter(([, member]) => member !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0))
    return `{${entries.map(([key, member]) => `${JSON.stringify(key)}:${canonicalJson(member)}`).join(',')}}`
  }
  return JSON.stringify(value ?? null)
}

/** SHA-256 of the canonical JSON of `value`, 64 lower-case hexadecimal digits. */
export function hashOf(value: unknown): string {
  return bytesToHex(sha256(utf8ToBytes(canonicalJson(value))))
}

/** Whether two JSON values are equal, whatever the order of their keys. */
export function sameJson(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  return canonicalJson(a) === canonicalJson(b)
}
