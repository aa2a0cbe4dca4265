import type { Response } from 'express'
import type { Accounts } from '../auth/accounts.ts'
import type { Store } from '../db/store.ts'

/** What a stream is opened for, and by whose session. */
export interface Listening {
  readonly firmId: string
  readonly jobId: string
  readonly revision: number
  readonly token: string
}

interface Listener {
  readonly firmId: string
  readonly jobId: string
  readonly token: string
  readonly response: Response
  revision: number
}

/** How often streams look for news and for sessions that ended, milliseconds. */
export const POLL_MS = 500
const HEARTBEAT_MS = 15_000

/**
 * Event streams of open jobs. An event is only job and revision; the client fetches what it lacks. The database is asked
 * for the revisions of the jobs listened to, so that several server processes on one database serve each other's people.
 */
export class EventStreams {
  readonly #listeners = new Set<Listener>()
  readonly #poll: NodeJS.Timeout
  readonly #heartbeat: NodeJS.Timeout
  #polling = false

  constructor(
    readonly store: Store,
    readonly accounts: Accounts,
  ) {
    this.#poll = setInterval(() => void this.#look(), POLL_MS)
    this.#heartbeat = setInterval(() => this.#beat(), HEARTBEAT_MS)
  }

  /** Opens a stream for one job on a response; it ends with the session it was opened by. */
  open({ firmId, jobId, revision, token }: Listening, response: Response): void {
    response.status(200).set({
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    })
    response.flushHeaders()
    response.write(`retry: 2000\ndata: ${JSON.stringify({ job: jobId, revision })}\n\n`)
    const listener: Listener = { firmId, jobId, token, response, revision }
    this.#listeners.add(listener)
    response.on('close', () => this.#listeners.delete(listener))
  }

  /** Ends all streams; a server waits for them when it closes. */
  close(): void {
    clearInterval(this.#poll)
    clearInterval(this.#heartbeat)
    for (const listener of this.#listeners) listener.response.end()
    this.#listeners.clear()
  }

  async #look(): Promise<void> {
    if (this.#polling || this.#listeners.size === 0) return
    this.#polling = true
    try {
      await this.#endStrangers()
      const revisions = await this.store.revisions([...this.#listeners])
      for (const listener of this.#listeners) {
        const revision = revisions.get(`${listener.firmId}|${listener.jobId}`)
        if (revision === undefined || revision === listener.revision) continue
        listener.revision = revision
        listener.response.write(`data: ${JSON.stringify({ job: listener.jobId, revision })}\n\n`)
      }
    } catch {
      // The database may be away for a moment; the next look tells.
    } finally {
      this.#polling = false
    }
  }

  /** Ends the streams of sessions that hold no more, here or signed out by another process. */
  async #endStrangers(): Promise<void> {
    for (const listener of [...this.#listeners]) {
      const account = await this.accounts.bySession(listener.token)
      if (account?.firmId === listener.firmId) continue
      listener.response.end()
      this.#listeners.delete(listener)
    }
  }

  #beat(): void {
    for (const listener of this.#listeners) listener.response.write(': still here\n\n')
  }
}
