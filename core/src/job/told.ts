import type { JobDocument } from './document.ts'
import { evidenceOf } from './evidence.ts'
import type { Told } from './records.ts'

/** What was told to the panel and not heard since, by zone or device: it was not accepted, refused or taken out after that. */
export function toldOpen(doc: JobDocument): ReadonlyMap<string, Told> {
  const open = new Map<string, Told>()
  for (const told of evidenceOf(doc, 'told')) open.set(told.subject, told)
  for (const { subject, at } of evidenceOf(doc, 'heard'))
    if ((open.get(subject)?.at ?? '') < at) open.delete(subject)
  return open
}

/** When a panel stops to listen for what it was told, ISO 8601. */
export function listensUntil({ at, seconds }: Pick<Told, 'at' | 'seconds'>): string {
  return new Date(Date.parse(at) + seconds * 1000).toISOString()
}

/** What the panel listens for at a time (`now`, ISO 8601): the last that it was told, until it is heard or the time is over. */
export function listensFor(doc: JobDocument, now: string): Told | null {
  const last = evidenceOf(doc, 'told').at(-1)
  if (!last || toldOpen(doc).get(last.subject) !== last) return null
  return listensUntil(last) > now ? last : null
}
