import { z } from 'zod'

/* Building blocks of the record shapes: what a text, an id, a time may be. */

export const id = z.string().regex(/^[a-z-]+:[A-Za-z0-9._/-]{1,80}$/, 'must be a record id such as zone:…')
export const entryId = z
  .string()
  .regex(/^(family|panel|receiver|device)\/[a-z0-9-]{1,60}$/, 'must be a catalogue entry id such as panel/…')
export const order = z.number().min(-1e9).max(1e9)
export const seconds = z.number().int().min(0).max(3600)
export const time = z
  .string()
  .regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, 'must be a UTC time such as 2026-05-04T09:30:00Z')
export const text = (limit: number) =>
  z
    .string()
    .max(limit)
    .refine((value) => !hasControl(value), 'must not contain control characters')
/** A transmitter ID in stored form: the family's letters and digits, without spaces or hyphens. */
export const serial = z
  .string()
  .regex(/^[0-9A-Z]{1,20}$/, 'must be a transmitter ID of 1 to 20 digits and capital letters, without spaces')
export const name = (limit: number) => text(limit).refine((value) => value.trim() !== '', 'must not be empty')

function hasControl(value: string): boolean {
  for (const char of value) {
    const code = char.codePointAt(0) ?? 0
    if ((code < 32 && code !== 10) || code === 127) return true
  }
  return false
}
