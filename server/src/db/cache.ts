import { LRUCache } from 'lru-cache'
import type { JobDocument } from '#core'

interface Kept {
  readonly revision: number
  readonly document: JobDocument
}

/** The documents last used, by job and revision. Cache only: what it lacks is read from snapshot and journal. */
export class DocumentCache {
  readonly #kept: LRUCache<string, Kept>

  constructor(limit = 300) {
    this.#kept = new LRUCache({ max: limit })
  }

  get(key: string): Kept | null {
    return this.#kept.get(key) ?? null
  }

  drop(key: string): void {
    this.#kept.delete(key)
  }

  /** Keeps the document unless a newer one is kept already. */
  set(key: string, revision: number, document: JobDocument): void {
    const there = this.#kept.peek(key)
    if (there && there.revision > revision) return
    this.#kept.set(key, { revision, document })
  }
}
