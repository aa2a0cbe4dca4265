import { isPractice, recordsOf, type JobDocument } from './document.ts'
import { enrolments } from './enrolment.ts'

const setsByDocument = new WeakMap<object, ReadonlySet<string>>()

/**
 * Every transmitter ID that a job uses or has noted from a sticker, in stored form (no spaces or hyphens). Those of a practice job are
 * nobody's: it has none that other jobs could meet.
 */
export function serialsOf(doc: JobDocument): ReadonlySet<string> {
  const known = setsByDocument.get(doc)
  if (known) return known
  const serials = new Set<string>()
  if (isPractice(doc)) return serials
  for (const device of recordsOf(doc, 'device')) if (device.sticker) serials.add(device.sticker)
  for (const { serial } of enrolments(doc).values()) if (serial) serials.add(serial)
  setsByDocument.set(doc, serials)
  return serials
}
