/** How many go together at most: more would keep the last of them waiting for all. */
const MOST = 40

interface Waiting<Item, Answer> {
  readonly item: Item
  readonly resolve: (answer: Answer) => void
  readonly reject: (error: unknown) => void
}

/**
 * Work that must be done one after another per key. What comes in while some of it runs waits and then goes together, so
 * that a slow disk is waited for once and not once each. Order per key is kept. Cache only: nothing waits here that its
 * maker does not wait for too.
 */
export class Batches<Item, Answer> {
  readonly #waiting = new Map<string, Waiting<Item, Answer>[]>()

  /** Does the item's work with `run`, which gives an answer for each of its items in their order, or throws and did nothing. */
  add(key: string, item: Item, run: (items: readonly Item[]) => Promise<readonly Answer[]>): Promise<Answer> {
    return new Promise((resolve, reject) => {
      const entry = { item, resolve, reject }
      const waiting = this.#waiting.get(key)
      if (waiting) waiting.push(entry)
      else {
        this.#waiting.set(key, [entry])
        void this.#drain(key, run)
      }
    })
  }

  async #drain(key: string, run: (items: readonly Item[]) => Promise<readonly Answer[]>): Promise<void> {
    for (;;) {
      const batch = this.#waiting.get(key)?.splice(0, MOST) ?? []
      if (batch.length === 0) break
      await this.#together(batch, run)
    }
    this.#waiting.delete(key)
  }

  /** One that breaks its batch must not take the others down: then each goes alone. */
  async #together(
    batch: readonly Waiting<Item, Answer>[],
    run: (items: readonly Item[]) => Promise<readonly Answer[]>,
  ): Promise<void> {
    try {
      const answers = await run(batch.map((entry) => entry.item))
      batch.forEach((entry, index) => {
        entry.resolve(answers[index] as Answer)
      })
    } catch (error) {
      const [first, second] = batch
      if (first && !second) first.reject(error)
      else for (const entry of batch) await this.#together([entry], run)
    }
  }
}
