/** Work that nobody waits for, such as derived data: what fails is told, and made good the next time. */
export class Later {
  readonly #running = new Set<Promise<void>>()

  constructor(readonly tell: (error: unknown) => void) {}

  add(work: Promise<void>): void {
    const kept = work.catch(this.tell).finally(() => this.#running.delete(kept))
    this.#running.add(kept)
  }

  /** Waits until none of it runs any more. */
  async settled(): Promise<void> {
    while (this.#running.size > 0) await Promise.all(this.#running)
  }
}
