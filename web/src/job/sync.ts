import {
  clearTray,
  makeEdit,
  openReplica,
  takeNews,
  takeRefusal,
  upgradeEdit,
  type Conflict,
  type Edit,
  type JobDocument,
  type JournalEntry,
  type Problem,
  type Replica,
} from '#core'
import { api, ApiError } from '../app/api.ts'

/** A refusal of the server with the colleague's name and time, where known. */
export interface NamedConflict extends Conflict {
  readonly who?: string | null
  readonly when?: string | null
}

interface EditsAnswer {
  readonly answers: readonly (
    | { readonly id: string; readonly outcome: 'taken'; readonly revision: number }
    | { readonly id: string; readonly outcome: 'conflict'; readonly conflict: NamedConflict }
    | { readonly id: string; readonly outcome: 'invalid'; readonly problems: readonly Problem[] }
  )[]
}

/** What the line to the server is doing. */
export type LineState = 'idle' | 'sending' | 'offline' | 'signed-out'

/** What a line calls back when something changed. */
export interface LineEvents {
  changed(replica: Replica): void
  state(state: LineState): void
  news(entries: readonly JournalEntry[]): void
  invalid(edit: Edit, problems: readonly Problem[]): void
}

const BATCH = 50

/**
 * One job's line to the server: shows edits at once, sends them in order, one request in flight, and sends again after a
 * lost connection. Unsent edits are also kept in the browser's storage, so that a closed tab loses nothing.
 */
export class JobLine {
  replica: Replica
  #sending = false
  #closed = false
  #stream: EventSource | null = null
  #retry: ReturnType<typeof setTimeout> | null = null
  #delay = 500
  readonly #shelf: string

  constructor(
    readonly jobId: string,
    head: JobDocument,
    revision: number,
    readonly events: LineEvents,
  ) {
    this.replica = openReplica(head, revision)
    this.#shelf = `kapelle.unsent.${jobId}`
    for (const edit of this.#unsent()) {
      const result = makeEdit(this.replica, edit)
      this.replica = result.ok
        ? result.replica
        : { ...this.replica, tray: [...this.replica.tray, { edit, conflict: result.conflict }] }
    }
    document.addEventListener('visibilitychange', this.#onVisible)
    this.#listen()
    void this.flush()
  }

  /** Applies an edit at once and sends it when it is its turn; the conflict tells why it cannot be. */
  make(edit: Edit): Conflict | null {
    const result = makeEdit(this.replica, edit)
    if (!result.ok) return result.conflict
    this.#set(result.replica)
    void this.flush()
    return null
  }

  /** Puts an edit that cannot be applied here into the tray, where its maker decides. */
  shelve(edit: Edit, conflict: Conflict): void {
    this.#set({ ...this.replica, tray: [...this.replica.tray, { edit, conflict }] })
  }

  /** Takes an item out of the tray. */
  decide(editId: string): void {
    this.#set(clearTray(this.replica, editId))
  }

  /** Sends what is unsent, then fetches what is new. */
  async flush(): Promise<void> {
    if (this.#sending || this.#closed) return
    this.#sending = true
    try {
      while (this.replica.pending.length > 0 && !this.#closed) {
        this.events.state('sending')
        const before = this.replica.pending[0]?.edit.id
        await this.#sendBatch()
        // Taken, and yet not in the journal: ask again later instead of in a circle.
        if (this.replica.pending[0]?.edit.id === before)
          throw new Error('the server does not show what it took')
      }
      this.#delay = 500
      this.events.state('idle')
    } catch (error) {
      this.#later(error)
    } finally {
      this.#sending = false
    }
  }

  /** Fetches the journal behind the head and takes it in. */
  async fetchNews(): Promise<void> {
    const { entries } = await api<{ entries: JournalEntry[] }>(
      'GET',
      `/api/jobs/${this.jobId}/edits?since=${this.replica.revision}`,
    )
    if (this.#closed || entries.length === 0) return
    const fresh = entries.filter((entry) => entry.revision > this.replica.revision)
    this.#set(takeNews(this.replica, fresh))
    this.events.news(fresh)
  }

  close(): void {
    this.#closed = true
    this.#stream?.close()
    if (this.#retry) clearTimeout(this.#retry)
    document.removeEventListener('visibilitychange', this.#onVisible)
  }

  async #sendBatch(): Promise<void> {
    const edits = this.replica.pending.slice(0, BATCH).map((item) => item.edit)
    let answer: EditsAnswer
    try {
      answer = await api<EditsAnswer>('POST', `/api/jobs/${this.jobId}/edits`, { edits })
    } catch (error) {
      if (
        !(error instanceof ApiError) ||
        (error.status !== 409 && error.status !== 422) ||
        !Array.isArray(error.body.answers)
      )
        throw error
      answer = error.body as unknown as EditsAnswer
    }
    await this.fetchNews()
    for (const item of answer.answers) {
      const edit = edits.find((sent) => sent.id === item.id)
      if (item.outcome === 'conflict') this.#set(takeRefusal(this.replica, item.id, item.conflict))
      if (item.outcome === 'invalid' && edit) {
        const conflict: Conflict = { code: 'changed', id: '', field: null, yours: null, theirs: null }
        this.#set(clearTray(takeRefusal(this.replica, edit.id, conflict), edit.id))
        this.events.invalid(edit, item.problems)
      }
    }
  }

  #later(error: unknown): void {
    const signedOut = error instanceof ApiError && error.status === 401
    this.events.state(signedOut ? 'signed-out' : 'offline')
    if (this.#closed || signedOut) return
    this.#retry = setTimeout(() => void this.flush(), this.#delay)
    this.#delay = Math.min(this.#delay * 2, 15_000)
  }

  #listen(): void {
    if (this.#stream || this.#closed || document.visibilityState !== 'visible') return
    this.#stream = new EventSource(`/api/jobs/${this.jobId}/events`)
    this.#stream.onmessage = (message: MessageEvent<string>) => {
      const { revision } = JSON.parse(message.data) as { revision: number }
      if (revision > this.replica.revision && !this.#sending) void this.fetchNews().catch(() => undefined)
      if (this.replica.pending.length > 0) void this.flush()
    }
  }

  readonly #onVisible = (): void => {
    if (document.visibilityState === 'visible') {
      this.#listen()
      void this.flush()
      void this.fetchNews().catch(() => undefined)
    } else {
      this.#stream?.close()
      this.#stream = null
    }
  }

  #set(replica: Replica): void {
    this.replica = replica
    this.#keep()
    this.events.changed(replica)
  }

  #unsent(): Edit[] {
    try {
      const kept = JSON.parse(localStorage.getItem(this.#shelf) ?? '[]') as Edit[]
      // A page of an older build may have left edits in an older shape.
      return kept.map((edit) => {
        const upgraded = upgradeEdit(edit)
        return upgraded.ok ? upgraded.value : edit
      })
    } catch {
      return []
    }
  }

  #keep(): void {
    const edits = [
      ...this.replica.tray.map((item) => item.edit),
      ...this.replica.pending.map((item) => item.edit),
    ]
    try {
      if (edits.length === 0) localStorage.removeItem(this.#shelf)
      else localStorage.setItem(this.#shelf, JSON.stringify(edits))
    } catch {
      // Storage may be full or forbidden; the edits are still sent from memory.
    }
  }
}
