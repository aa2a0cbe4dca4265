import type { Family } from '../catalogue/schema.ts'
import { belongs, meantFor } from './look-alike.ts'

/** What a typed or scanned sticker gave. */
export type StickerResult =
  | { readonly ok: true; readonly serial: string }
  | {
      readonly ok: false
      readonly code: 'spreadsheet' | 'empty' | 'alphabet' | 'length' | 'check'
      readonly reason: string
    }

/**
 * Reads a sticker by its family's rule: spaces and hyphens are dropped, the ID is taken out of a longer sticker,
 * alphabet, length and check digit are held to. An ID alone is taken where the sticker is longer. Nothing is guessed.
 */
export function readSticker(family: Family, input: string): StickerResult {
  const rule = family.sticker
  const text = input.trim()
  if (text === '')
    return { ok: false, code: 'empty', reason: `Type or scan the ${family.name} sticker (${rule.where}).` }
  if (/^\d+([.,]\d+e[+-]?|e[+-])\d+$/i.test(text))
    return {
      ok: false,
      code: 'spreadsheet',
      reason: `“${text}” is a number that a spreadsheet rounded: the digits are lost. Format the column as text and type the ID from the sticker again.`,
    }
  const plain = text.replace(/[\s\-–·.]/g, '').toUpperCase()
  const size = rule.idTo - rule.idFrom + 1
  const wrong = wrongPlace(rule.alphabet, plain)
  if (wrong !== null) return { ok: false, code: 'alphabet', reason: alphabetReason(family, plain, wrong) }
  const serial = plain.length === rule.length ? plain.slice(rule.idFrom - 1, rule.idTo) : plain
  if (serial.length !== size) return { ok: false, code: 'length', reason: lengthReason(family, plain, size) }
  if (rule.check === 'weights-3-1' && !weightsHold(serial))
    return {
      ok: false,
      code: 'check',
      reason: `The check digit of ${groupId(family, serial)} does not fit: a digit is mistyped. Read the sticker again.`,
    }
  return { ok: true, serial }
}

/** An ID in the groups its sticker shows, such as `1234 5678`. */
export function groupId(family: Family | null, serial: string): string {
  if (!family) return serial
  const parts: string[] = []
  let at = 0
  for (const size of family.sticker.groups) {
    parts.push(serial.slice(at, at + size))
    at += size
  }
  parts.push(serial.slice(at))
  return parts.filter((part) => part !== '').join(' ')
}

/** One character of two IDs laid under each other. */
export interface ComparedCharacter {
  readonly heard: string
  readonly expected: string
  readonly same: boolean
}

/** Lays two IDs under each other, character by character; a missing character is a blank. */
export function compareIds(heard: string, expected: string): ComparedCharacter[] {
  const size = Math.max(heard.length, expected.length)
  return Array.from({ length: size }, (_, index) => {
    const a = heard[index] ?? ' '
    const b = expected[index] ?? ' '
    return { heard: a, expected: b, same: a === b }
  })
}

/** Weights 3 and 1 in turn from the left; the sum must be a multiple of 10. */
export function weightsHold(digits: string): boolean {
  const sum = [...digits].reduce(
    (total, digit, index) => total + Number(digit) * (index % 2 === 0 ? 3 : 1),
    0,
  )
  return sum % 10 === 0
}

function lengthReason(family: Family, plain: string, size: number): string {
  const { length } = family.sticker
  const whole = length === size ? `${size}` : `${length} on the sticker, ${size} in the ID`
  const lost =
    plain.length === size - 1
      ? ' If it came from a spreadsheet, a leading zero may have been stripped: read the sticker.'
      : ''
  return `A ${family.name} ID has ${size} characters (${whole}); this has ${plain.length}.${lost}`
}

/** Place of the first sign that does not belong, 0-based; null when all do. */
function wrongPlace(alphabet: Family['sticker']['alphabet'], text: string): number | null {
  const at = [...text].findIndex((sign, index) => !belongs(alphabet, sign, index))
  return at < 0 ? null : at
}

function alphabetReason(family: Family, text: string, at: number): string {
  const sign = [...text][at] ?? ''
  const meant = meantFor(family, sign, at)
  const asked = meant
    ? ` Was it ${/[AEFHILMNORSX8]/.test(meant) ? 'an' : 'a'} ${meant}? Read the sticker again.`
    : ''
  return `${family.name} IDs have ${alphabetWords(family.sticker.alphabet)}; “${sign}”, character ${at + 1}, does not belong.${asked}`
}

function alphabetWords(alphabet: Family['sticker']['alphabet']): string {
  return {
    digits: 'digits only',
    hexadecimal: 'the digits 0–9 and letters A–F',
    'letters-and-digits': 'letters and digits',
    'letter-then-digits': 'one letter, then digits',
  }[alphabet]
}
