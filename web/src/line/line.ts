import {
  clearTray,
  makeEdit,
  openReplica,
  readEdit,
  SCHEMA,
  shelve,
  takeNews,
  takeRefusal,
  type Edit,
  type JobDocument,
  type JournalEntry,
  type Replica,
  type TrayReason,
} from '#core'
import { ApiError } from './api.ts'
import type { Owner, QueueRow, QueueStore } from './queue.ts'
import type { Transport } from './transport.ts'

/**
 * What the line to the server is doing; `newer`: it holds what a newer build made, `refused`: the server lets nobody in, `full`:
 * its disk is full and it takes nothing until there is room.
 */
export type LineState = 'idle' | 'sending' | 'offline' | 'full' | 'signed-out' | 'newer' | 'refused'

/** What a line calls back when something changed. */
interface LineEvents {
  changed(replica: Replica): void
  state(state: LineState): void
  news(entries: readonly JournalEntry[]): void
  /** Whether edits outlive the page; false where the browser keeps nothing. */
  keeps(kept: boolean): void
}

/** What a line is opened with. */
export interface LineOptions {
  readonly owner: Owner
  readonly head: JobDocument
  readonly revision: number
  readonly queue: QueueStore
  readonly transport: Transport
  /** Asks for the turn to send among the tabs; gives what lets it go. */
  readonly hold: (name: string, got: () => void) => () => void
  readonly events: LineEvents
}

/** Edits that go together at most, and their length, characters: a request has its limit. */
const BATCH = 50
const BATCH_LENGTH = 1_500_000

/** What it means for the line that the server answered with a status, or with 0 not at all. */
function stateAfter(status: number): LineState {
  if (status === 401) return 'signed-out'
  if (status === 403 || status === 404) return 'refused'
  return status === 507 ? 'full' : 'offline'
}

/** The oldest edits that go together: the first alone when it is long by itself. */
export function batchOf(edits: readonly Edit[]): Edit[] {
  let length = 0
  const end = edits.findIndex((edit, index) => {
    length += JSON.stringify(edit).length
    return index > 0 && (index >= BATCH || length > BATCH_LENGTH)
  })
  return edits.slice(0, end < 0 ? edits.length : end)
}

/**
 * One job's line to the server: shows edits at once, keeps each in the queue, and sends them in order, one request in flight
 * and one tab at a time, again after a lost connection. What another tab of the same person made is shown here too.
 */
export class JobLine {
  replica: Replica
  #mine = false
  #sending = false
  #closed = false
  #retry: ReturnType<typeof setTimeout> | null = null
  #delay = 500
  /** Writing to the queue, in order: an edit is sent once it is kept. */
  #kept: Promise<void> = Promise.resolve()
  /** Rows seen in the queue, and edits that are done with. */
  readonly #known = new Set<string>()
  readonly #done = new Set<string>()
  readonly #ends: (() => void)[] = []

  /** Opens a line: what waits in the queue stands on the head again, what was refused lies in the tray. */
  static async open(options: LineOptions): Promise<JobLine> {
    const line = new JobLine(options)
    await line.#merge()
    line.#begin()
    return line
  }

  private constructor(readonly options: LineOptions) {
    this.replica = openReplica(options.head, options.revision)
  }

  /** Applies an edit at once, keeps it and sends it when it is its turn; what cannot be goes to the tray with its reason. */
  make(edit: Edit): TrayReason | null {
    const refusal = this.#apply(edit)
    if (refusal) {
      this.#set(shelve(this.replica, { edit, reason: refusal }))
      this.#keep((queue, owner) => queue.add(owner, edit, refusal))
    } else this.#keep((queue, owner) => queue.add(owner, edit))
    void this.flush()
    return refusal
  }

  /** Takes an item out of the tray: its maker has decided. */
  decide(editId: string): void {
    this.#set(clearTray(this.replica, editId))
    this.#done.add(editId)
    this.#keep((queue, owner) => queue.remove(owner, editId))
  }

  /** Sends what waits, if it is this tab's turn. */
  async flush(): Promise<void> {
    if (!this.#mine || this.#sending || this.#closed) return
    this.#sending = true
    try {
      while (this.replica.pending.length > 0 && !this.#closed) {
        await this.#kept
        this.options.events.state('sending')
        const before = this.replica.pending[0]?.edit.id
        if (!(await this.#sendBatch())) return
        // Taken, and yet not in the journal: ask again later instead of in a circle.
        if (this.replica.pending[0]?.edit.id === before)
          throw new Error('the server does not show what it took')
      }
      this.#delay = 500
      this.options.events.state('idle')
    } catch (error) {
      this.#later(error)
    } finally {
      this.#sending = false
    }
  }

  /** Fetches the journal behind the head and takes it in. */
  async fetchNews(): Promise<void> {
    const entries = await this.options.transport.since(this.options.owner.job, this.replica.revision)
    if (this.#closed || entries.length === 0) return
    const fresh = entries.filter((entry) => entry.revision > this.replica.revision)
    if (fresh.length === 0) return
    this.#set(takeNews(this.replica, fresh))
    for (const { edit } of fresh) if (edit.by.id === this.options.owner.person) this.#gone(edit.id)
    this.options.events.news(fresh)
  }

  close(): void {
    this.#closed = true
    if (this.#retry) clearTimeout(this.#retry)
    for (const end of this.#ends) end()
  }

  #begin(): void {
    const { owner, queue, transport, hold } = this.options
    this.#ends.push(
      queue.listen(() => void this.#merge()),
      transport.listen(owner.job, (revision) => {
        if (revision > this.replica.revision && !this.#sending) void this.fetchNews().catch(() => undefined)
        if (this.replica.pending.length > 0) void this.flush()
      }),
      hold(`kapelle|${owner.firm}|${owner.person}|${owner.job}`, () => {
        this.#mine = true
        void this.flush()
      }),
    )
    const seen = (): void => {
      if (document.visibilityState !== 'visible') return
      void this.flush()
      void this.fetchNews().catch(() => undefined)
    }
    document.addEventListener('visibilitychange', seen)
    this.#ends.push(() => document.removeEventListener('visibilitychange', seen))
  }

  /** Puts an edit onto what is shown; the reason tells why it cannot be. */
  #apply(edit: Edit): TrayReason | null {
    const read = readEdit(edit, this.replica.shown)
    if (!read.ok)
      return {
        kind: 'invalid',
        problems: read.code === 'invalid' ? read.problems : [],
      }
    const result = makeEdit(this.replica, edit)
    if (!result.ok) return { kind: 'conflict', conflict: result.conflict }
    this.#set(result.replica)
    return null
  }

  /** Brings in what the queue has and this page does not: at the start all of it, later what other tabs did. */
  async #merge(): Promise<void> {
    const { queue, owner } = this.options
    const rows = await queue.rows(owner).catch(() => null)
    if (!rows || this.#closed) return
    const waited = this.replica.pending.length
    for (const row of rows) await this.#mergeRow(row)
    const there = new Set(rows.map((row) => row.edit.id))
    for (const { edit } of this.replica.tray)
      if (this.#known.has(edit.id) && !there.has(edit.id)) this.#set(clearTray(this.replica, edit.id))
    for (const id of there) this.#known.add(id)
    if (this.replica.pending.length > waited) void this.flush()
  }

  async #mergeRow({ edit, reason }: QueueRow): Promise<void> {
    const { queue, owner, events } = this.options
    const waits = this.replica.pending.some((item) => item.edit.id === edit.id)
    const shelved = this.replica.tray.some((item) => item.edit.id === edit.id)
    if (this.#done.has(edit.id)) return
    if (reason) {
      if (waits) this.#set(takeRefusal(this.replica, edit.id, reason))
      else if (!shelved) this.#set(shelve(this.replica, { edit, reason }))
      return
    }
    if (waits || shelved) return
    // A newer build of this product made it: that one will send it.
    if (edit.schema > SCHEMA) return events.state('newer')
    if (edit.schema < SCHEMA) return this.#upgradeRow(edit)
    const refusal = this.#apply(edit)
    if (!refusal) return
    this.#set(shelve(this.replica, { edit, reason: refusal }))
    await queue.refuse(owner, edit.id, refusal)
  }

  /** An edit that waited over an update: brought to the shapes of this build, or into the tray when it has no place there. */
  async #upgradeRow(old: Edit): Promise<void> {
    const { queue, owner } = this.options
    const read = readEdit(old, this.replica.shown)
    if (!read.ok) {
      const reason: TrayReason = {
        kind: 'invalid',
        problems: read.code === 'invalid' ? read.problems : [],
      }
      this.#set(shelve(this.replica, { edit: old, reason }))
      return queue.refuse(owner, old.id, reason)
    }
    await queue.remove(owner, old.id)
    for (const edit of read.edits) {
      const mine: Edit = { ...edit, by: { ...edit.by, id: edit.by.id ?? owner.person } }
      const refusal = this.#apply(mine)
      if (refusal) this.#set(shelve(this.replica, { edit: mine, reason: refusal }))
      await queue.add(owner, mine, refusal)
    }
  }

  /** Sends the oldest edits; false when the rest must stay where it is. */
  async #sendBatch(): Promise<boolean> {
    const { transport, owner, events } = this.options
    const edits = batchOf(this.replica.pending.map((item) => item.edit))
    const { answers } = await transport.send(owner.job, edits)
    await this.fetchNews()
    for (const answer of answers) {
      switch (answer.outcome) {
        case 'taken':
          this.#taken(answer.id, answer.revision)
          break
        case 'conflict':
          this.#refused(answer.id, { kind: 'conflict', conflict: answer.conflict })
          break
        case 'invalid':
          this.#refused(answer.id, { kind: 'invalid', problems: answer.problems })
          break
        case 'held':
          events.state('newer')
          return false
      }
    }
    return true
  }

  /** One that the server had long before, so that no news of it comes any more; others go when the news shows them. */
  #taken(editId: string, revision: number): void {
    if (revision > this.replica.revision) return
    this.#gone(editId)
    const pending = this.replica.pending.filter((item) => item.edit.id !== editId)
    if (pending.length < this.replica.pending.length) this.#set({ ...this.replica, pending })
  }

  #refused(editId: string, reason: TrayReason): void {
    this.#set(takeRefusal(this.replica, editId, reason))
    for (const item of this.replica.tray)
      this.#keep((queue, owner) => queue.refuse(owner, item.edit.id, item.reason))
  }

  #gone(editId: string): void {
    this.#done.add(editId)
    this.#keep((queue, owner) => queue.remove(owner, editId))
  }

  #later(error: unknown): void {
    const status = error instanceof ApiError ? error.status : 0
    const state = stateAfter(status)
    this.options.events.state(state)
    if (this.#closed || (state !== 'offline' && state !== 'full')) return
    this.#retry = setTimeout(() => void this.flush(), this.#delay)
    this.#delay = Math.min(this.#delay * 2, 15_000)
  }

  #keep(write: (queue: QueueStore, owner: Owner) => Promise<void>): void {
    const { queue, owner, events } = this.options
    this.#kept = this.#kept
      .then(() => write(queue, owner))
      .then(
        () => events.keeps(true),
        // Storage may be full or forbidden: the edit is sent from memory, and the person is told.
        () => events.keeps(false),
      )
  }

  #set(replica: Replica): void {
    this.replica = replica
    this.options.events.changed(replica)
  }
}
