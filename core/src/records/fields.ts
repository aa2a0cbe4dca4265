import { z } from 'zod'
import { roles } from './roles.ts'

/* Building blocks of record fields that know no trade: ids, order, times, texts, makers. */

export const id = z.string().regex(/^[a-z-]+:[A-Za-z0-9._/-]{1,80}$/, 'must be a record id such as zone:…')
/** A place in a list; records between two others take a number between. */
export const order = z.number().min(-1e9).max(1e9)
/** A moment, UTC. */
export const time = z
  .string()
  .regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, 'must be a UTC time such as 2026-05-04T09:30:00Z')
/** A text of at most so many characters, without control characters. */
export const text = (limit: number) =>
  z
    .string()
    .max(limit)
    .refine((value) => !hasControl(value), 'must not contain control characters')
/** A text that is not empty. */
export const name = (limit: number) => text(limit).refine((value) => value.trim() !== '', 'must not be empty')

/** A person as maker of something: the id is null where only a name was kept. */
export const person = z.strictObject({ id: z.string().max(60).nullable(), name: name(80) })
/** Who: id and name as it then was. */
export type Person = Readonly<z.infer<typeof person>>

/**
 * Who made a record, as the server knows it. The client fills in id and name; role, time of taking and doubt are the
 * server's. What came in a file, from a build that kept less, or by an owner's hand for somebody who left is told: it counts for
 * nothing until repeated here.
 */
export const made = z.strictObject({
  ...person.shape,
  role: z.enum(roles).nullable(),
  takenAt: time.nullable(),
  /** The device's clock was too far off: the record is ordered by when it was taken. */
  clockDoubtful: z.boolean(),
  told: z.enum(['file', 'build', 'owner']).nullable(),
})
/** Who made a record, in which role, and when it was taken. */
export type Made = Readonly<z.infer<typeof made>>

/** The maker of a record that this client adds now. */
export function madeBy(who: Person): Made {
  return { id: who.id, name: who.name, role: null, takenAt: null, clockDoubtful: false, told: null }
}

function hasControl(value: string): boolean {
  for (const char of value) {
    const code = char.codePointAt(0) ?? 0
    if ((code < 32 && code !== 10) || code === 127) return true
  }
  return false
}
