import type { Catalogue } from '../catalogue/catalogue.ts'
import type { CatalogueEntry } from '../catalogue/schema.ts'
import { recordsOf, type JobDocument } from './document.ts'
import type { Op } from './edit.ts'
import type { Pin } from './records.ts'
import { pinOps } from './start.ts'

/** A pinned entry of which the catalogue offers another form now. */
export interface PinUpdate {
  readonly pin: Pin
  /** The entry as it is offered now. */
  readonly entry: CatalogueEntry
}

/** The job's pins that the offered catalogue has moved on from, by id; what is no longer offered stays as pinned. */
export function pinUpdates(doc: JobDocument, offered: Catalogue): PinUpdate[] {
  const byId = new Map(offered.entries.map((entry) => [entry.id, entry]))
  return recordsOf(doc, 'pin').flatMap((pin) => {
    const entry = byId.get(pin.entry)
    return entry && offered.hash(entry.id) !== pin.hash ? [{ pin, entry }] : []
  })
}

/** The edit's ops that move these pins to the offered entries, and pin what those newly need. */
export function pinUpdateOps(doc: JobDocument, offered: Catalogue, updates: readonly PinUpdate[]): Op[] {
  return [
    ...pinOps(
      doc,
      offered,
      updates.map((update) => update.entry.id),
    ),
    ...updates.map(({ pin, entry }): Op => ({
      op: 'set',
      id: pin.id,
      field: 'hash',
      from: pin.hash,
      to: offered.hash(entry.id),
    })),
  ]
}
