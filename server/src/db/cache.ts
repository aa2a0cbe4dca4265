import type { JobDocument } from '#core'

interface Kept {
  readonly revision: number
  readonly document: JobDocument
}

/** The documents last used, by job and revision. Cache only: what it lacks is read from snapshot and journal. */
export class DocumentCache {
  readonly #kept = new Map<string, Kept>()

  constructor(readonly limit = 300) {}

  get(key: string): Kept | null {
    const kept = this.#kept.get(key)
    if (!kept) return null
    this.#kept.delete(key)
    this.#kept.set(key, kept)
    return kept
  }

  drop(key: string): void {
    this.#kept.delete(key)
  }

  set(key: string, revision: number, document: JobDocument): void {
    const there = this.#kept.get(key)
    if (there && there.revision > revision) return
    this.#kept.delete(key)
    this.#kept.set(key, { revision, document })
    const oldest = this.#kept.keys().next().value
    if (this.#kept.size > this.limit && oldest !== undefined) this.#kept.delete(oldest)
  }
}
