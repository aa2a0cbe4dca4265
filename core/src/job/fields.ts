import { z } from 'zod'

/* Building blocks of this trade's record fields. */

export const entryId = z
  .string()
  .regex(/^(family|panel|receiver|device)\/[a-z0-9-]{1,60}$/, 'must be a catalogue entry id such as panel/…')
/** An entry that a job can pin: besides those that its records point at, how its panel is keyed. */
export const pinnedEntryId = z
  .string()
  .regex(
    /^(family|panel|receiver|device|interface)\/[a-z0-9-]{1,60}$/,
    'must be a catalogue entry id such as panel/…',
  )
/** A time of up to an hour, whole seconds. */
export const seconds = z.number().int().min(0).max(3600)
/** A transmitter ID in stored form: the family's letters and digits, without spaces or hyphens. */
export const serial = z
  .string()
  .regex(/^[0-9A-Z]{1,20}$/, 'must be a transmitter ID of 1 to 20 digits and capital letters, without spaces')

/** Id of the record that pins a catalogue entry. */
export function pinId(entry: string): string {
  return `pin:${entry}`
}

/** The record that a catalogue entry's id stands for: the one that pins it. */
export function pinned(value: unknown): string | null {
  return typeof value === 'string' ? pinId(value) : null
}
