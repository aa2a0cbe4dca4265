import type { Problem } from '../units/problem.ts'
import type { AnyRecord, RecordSet } from './declare.ts'
import type { Edit } from './edit.ts'
import type { JournalEntry } from './journal.ts'
import { UPGRADE } from './journal.ts'
import { applyOps, type Conflict, type Doc, type Op } from './ops.ts'

/*
 * What one client holds of a document. `head` is what the server is known to have; `pending` are this person's edits that the
 * server has not acknowledged, in the order they were made; `shown` is head + pending. On news the news goes onto the head
 * and the pending edits on top again, by the same function the server uses. One that no longer applies goes to the tray
 * with the reason, and so does every later one that was built on it: it fails for want of what the first one made. Nothing
 * is dropped. An edit whose answer was lost stays pending until it is seen in the news or answered when sent again.
 */

/** Why an edit was not kept. */
export type TrayReason =
  | { readonly kind: 'conflict'; readonly conflict: Conflict }
  /** The server, or the rules of its shape, do not allow it. */
  | { readonly kind: 'invalid'; readonly problems: readonly Problem[] }

/** An edit of this person that could not be kept, with the reason; it stays until its maker decides. */
export interface TrayItem<R extends AnyRecord> {
  readonly edit: Edit<R>
  readonly reason: TrayReason
}

interface PendingEdit<R extends AnyRecord> {
  readonly edit: Edit<R>
  /** Its ops as they take effect on the document below it. */
  readonly took: readonly Op<R>[]
}

/** What a client holds: the head, its unsent edits on top, and what waits for a decision. */
export interface Replica<R extends AnyRecord> {
  readonly head: Doc<R>
  readonly revision: number
  readonly pending: readonly PendingEdit<R>[]
  readonly tray: readonly TrayItem<R>[]
  readonly shown: Doc<R>
}

/** A replica that shows what the server answered, with nothing of its own. */
export function openReplica<R extends AnyRecord>(head: Doc<R>, revision: number): Replica<R> {
  return { head, revision, pending: [], tray: [], shown: head }
}

/** Applies an edit made here at once; the conflict tells why it cannot be. */
export function makeEdit<R extends AnyRecord>(
  set: RecordSet,
  replica: Replica<R>,
  edit: Edit<R>,
): { readonly ok: true; readonly replica: Replica<R> } | { readonly ok: false; readonly conflict: Conflict } {
  const result = applyOps(set, replica.shown, edit.ops)
  if (!result.ok) return result
  const pending = [...replica.pending, { edit, took: result.took }]
  return { ok: true, replica: { ...replica, pending, shown: result.doc } }
}

/** Takes journal entries from the server. Entries already known are passed over; a gap throws, since it would lose work. */
export function takeNews<R extends AnyRecord>(
  set: RecordSet,
  replica: Replica<R>,
  entries: readonly JournalEntry<R>[],
): Replica<R> {
  let { head, revision } = replica
  const seen = new Set<string>()
  for (const entry of entries) {
    seen.add(entry.edit.id)
    if (entry.revision <= revision) continue
    if (entry.revision !== revision + 1)
      throw new RangeError(`takeNews: expected revision ${revision + 1}, got ${entry.revision}`)
    revision = entry.revision
    // The head was read in the shapes in force: its upgrade in the journal says nothing new.
    if (entry.edit.kind === UPGRADE) continue
    const result = applyOps(set, head, entry.edit.ops)
    if (!result.ok) throw new RangeError(`takeNews: revision ${entry.revision} does not apply`)
    head = result.doc
  }
  const left = replica.pending.filter((item) => !seen.has(item.edit.id))
  if (revision === replica.revision && left.length === replica.pending.length) return replica
  return rebase(set, { ...replica, head, revision }, left)
}

/** Puts an edit that the server refused into the tray and the rest on top of the head again. */
export function takeRefusal<R extends AnyRecord>(
  set: RecordSet,
  replica: Replica<R>,
  editId: string,
  reason: TrayReason,
): Replica<R> {
  const refused = replica.pending.find((item) => item.edit.id === editId)
  if (!refused) return replica
  return rebase(
    set,
    shelve(replica, { edit: refused.edit, reason }),
    replica.pending.filter((item) => item !== refused),
  )
}

/** Puts an item into the tray; one of its edit that is there already is replaced. */
export function shelve<R extends AnyRecord>(replica: Replica<R>, item: TrayItem<R>): Replica<R> {
  return { ...replica, tray: [...replica.tray.filter((other) => other.edit.id !== item.edit.id), item] }
}

/** Takes an item out of the tray once its maker has decided. */
export function clearTray<R extends AnyRecord>(replica: Replica<R>, editId: string): Replica<R> {
  return { ...replica, tray: replica.tray.filter((item) => item.edit.id !== editId) }
}

function rebase<R extends AnyRecord>(
  set: RecordSet,
  replica: Replica<R>,
  edits: readonly PendingEdit<R>[],
): Replica<R> {
  const tray = [...replica.tray]
  const pending: PendingEdit<R>[] = []
  let shown = replica.head
  for (const { edit } of edits) {
    const result = applyOps(set, shown, edit.ops)
    if (!result.ok) tray.push({ edit, reason: { kind: 'conflict', conflict: result.conflict } })
    else {
      shown = result.doc
      pending.push({ edit, took: result.took })
    }
  }
  return { ...replica, pending, tray, shown }
}
