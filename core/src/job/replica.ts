import type { JobDocument } from './document.ts'
import type { Conflict, Edit, Op } from './edit.ts'
import { applyOps } from './edit.ts'
import type { JournalEntry } from './journal.ts'

/*
 * What one client holds of a job. `head` is what the server is known to have; `pending` are this client's edits that the
 * server has not acknowledged, in the order they were made; `shown` is head + pending. On news the news goes onto the head
 * and the pending edits on top again, by the same function the server uses. One that no longer applies goes to the tray
 * with the reason, and so does every later one that was built on it: it fails for want of what the first one made. Nothing
 * is dropped. An edit whose answer was lost stays pending until it is seen in the news or answered when sent again.
 */

/** An edit of this client that could not be kept, with the reason. */
export interface TrayItem {
  readonly edit: Edit
  readonly conflict: Conflict
}

export interface PendingEdit {
  readonly edit: Edit
  /** Its ops as they take effect on the document below it. */
  readonly took: readonly Op[]
}

export interface Replica {
  readonly head: JobDocument
  readonly revision: number
  readonly pending: readonly PendingEdit[]
  readonly tray: readonly TrayItem[]
  readonly shown: JobDocument
}

/** A replica that shows what the server answered, with nothing of its own. */
export function openReplica(head: JobDocument, revision: number): Replica {
  return { head, revision, pending: [], tray: [], shown: head }
}

/** Applies an edit made here at once; the conflict tells why it cannot be. */
export function makeEdit(
  replica: Replica,
  edit: Edit,
): { readonly ok: true; readonly replica: Replica } | { readonly ok: false; readonly conflict: Conflict } {
  const result = applyOps(replica.shown, edit.ops)
  if (!result.ok) return result
  const pending = [...replica.pending, { edit, took: result.took }]
  return { ok: true, replica: { ...replica, pending, shown: result.doc } }
}

/** Takes journal entries from the server. Entries already known are passed over; a gap throws, since it would lose work. */
export function takeNews(replica: Replica, entries: readonly JournalEntry[]): Replica {
  let { head, revision } = replica
  const seen = new Set<string>()
  for (const entry of entries) {
    seen.add(entry.edit.id)
    if (entry.revision <= revision) continue
    if (entry.revision !== revision + 1)
      throw new RangeError(`takeNews: expected revision ${revision + 1}, got ${entry.revision}`)
    const result = applyOps(head, entry.edit.ops)
    if (!result.ok) throw new RangeError(`takeNews: revision ${entry.revision} does not apply`)
    head = result.doc
    revision = entry.revision
  }
  const left = replica.pending.filter((item) => !seen.has(item.edit.id))
  if (revision === replica.revision && left.length === replica.pending.length) return replica
  return rebase({ ...replica, head, revision }, left)
}

/** Puts an edit that the server refused into the tray and the rest on top of the head again. */
export function takeRefusal(replica: Replica, editId: string, conflict: Conflict): Replica {
  const refused = replica.pending.find((item) => item.edit.id === editId)
  if (!refused) return replica
  const tray = [...replica.tray, { edit: refused.edit, conflict }]
  return rebase(
    { ...replica, tray },
    replica.pending.filter((item) => item !== refused),
  )
}

/** Takes an item out of the tray once its maker has decided. */
export function clearTray(replica: Replica, editId: string): Replica {
  return { ...replica, tray: replica.tray.filter((item) => item.edit.id !== editId) }
}

function rebase(replica: Replica, edits: readonly PendingEdit[]): Replica {
  const tray = [...replica.tray]
  const pending: PendingEdit[] = []
  let shown = replica.head
  for (const { edit } of edits) {
    const result = applyOps(shown, edit.ops)
    if (!result.ok) tray.push({ edit, conflict: result.conflict })
    else {
      shown = result.doc
      pending.push({ edit, took: result.took })
    }
  }
  return { ...replica, pending, tray, shown }
}
