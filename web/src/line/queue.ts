import type { Edit, TrayReason } from '#core'

/** Whose waiting edits these are, and of which job. */
export interface Owner {
  readonly firm: string
  /** Id of the person. */
  readonly person: string
  readonly job: string
}

/** One edit that waits on this device, or was refused and waits for its maker's decision. */
export interface QueueRow {
  /** Its place in the order in which edits were made on this device, over all tabs. */
  readonly sequence: number
  readonly edit: Edit
  /** Why it was not kept; null while it waits to be sent. */
  readonly reason: TrayReason | null
}

/** What somebody left unsent on this device in one job. */
export interface LeftEdits {
  readonly person: string
  readonly job: string
  readonly edits: readonly Edit[]
}

/**
 * Where waiting edits are kept over a reload, one row each. Another person on the same device has rows of their own and sees
 * none of these.
 */
export interface QueueStore {
  /** The rows of an owner, in order. */
  rows(owner: Owner): Promise<QueueRow[]>
  /** Keeps an edit behind all others; one that is there already stays as it is. */
  add(owner: Owner, edit: Edit, reason?: TrayReason | null): Promise<void>
  /** Says why an edit was not kept. */
  refuse(owner: Owner, editId: string, reason: TrayReason): Promise<void>
  /** Forgets an edit: the server has it, or its maker has decided. */
  remove(owner: Owner, editId: string): Promise<void>
  /** What waits here of these people of a firm, by person and job, in order: what an owner may hand in once they left. */
  left(firm: string, people: readonly string[]): Promise<LeftEdits[]>
  /** Tells when another tab changed something; gives what ends it. */
  listen(changed: () => void): () => void
}

/** Rows in their order, put together by person and job. */
export function groupLeft(
  rows: readonly { readonly person: string; readonly job: string; readonly edit: Edit }[],
): LeftEdits[] {
  const groups = new Map<string, { person: string; job: string; edits: Edit[] }>()
  for (const { person, job, edit } of rows) {
    const key = `${person}|${job}`
    const group = groups.get(key) ?? { person, job, edits: [] }
    group.edits.push(edit)
    groups.set(key, group)
  }
  return [...groups.values()]
}
