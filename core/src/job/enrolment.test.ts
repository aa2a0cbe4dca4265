import { expect, it } from 'vitest'
import { knownBy } from './enrolment.ts'

it.each([
  ['display', 'event', 'heard'],
  ['bridge', 'event', 'heard'],
  ['station', 'tamper', 'heard'],
  ['practice', 'button', 'heard'],
  // A sticker proves the device in hand, not that it was heard.
  ['sticker', 'event', 'typed'],
  ['display', 'typed', 'typed'],
  ['practice', 'typed', 'typed'],
  // Another zone of the same device is learned: this one was neither heard nor read.
  ['display', 'sister', 'sister'],
  ['sticker', 'sister', 'sister'],
] as const)('an ID from the %s, by %s, is %s', (source, cause, how) => {
  expect(knownBy({ source, cause })).toBe(how)
})
