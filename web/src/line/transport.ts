import type { Edit, EditsAnswer, JournalEntry } from '#core'
import { api, ApiError } from './api.ts'

/** How a job's edits get to the server and its news back. */
export interface Transport {
  /** Sends edits in order; the answer tells each one's fate, up to the first that was not taken. */
  send(job: string, edits: readonly Edit[]): Promise<EditsAnswer>
  /** Journal entries behind a revision. */
  since(job: string, revision: number): Promise<readonly JournalEntry[]>
  /** Tells of new revisions while the page is visible; gives what ends it. */
  listen(job: string, told: (revision: number) => void): () => void
}

/** The transport over HTTP. A refusal with answers is an answer; anything else that fails throws. */
export const httpTransport: Transport = {
  async send(job, edits) {
    try {
      const sentAt = new Date().toISOString()
      return await api<EditsAnswer>('POST', `/api/jobs/${job}/edits`, { edits, sentAt })
    } catch (error) {
      if (error instanceof ApiError && Array.isArray(error.body.answers))
        return error.body as unknown as EditsAnswer
      throw error
    }
  },
  async since(job, revision) {
    const answer = await api<{ entries: JournalEntry[] }>('GET', `/api/jobs/${job}/edits?since=${revision}`)
    return answer.entries
  },
  listen(job, told) {
    let stream: EventSource | null = null
    // Six open streams leave a browser no connection for anything else: a hidden page has none.
    const look = (): void => {
      if (document.visibilityState !== 'visible') {
        stream?.close()
        stream = null
      } else if (!stream) {
        stream = new EventSource(`/api/jobs/${job}/events`)
        stream.onmessage = (message: MessageEvent<string>) =>
          told((JSON.parse(message.data) as { revision: number }).revision)
      }
    }
    document.addEventListener('visibilitychange', look)
    look()
    return () => {
      document.removeEventListener('visibilitychange', look)
      stream?.close()
    }
  },
}
