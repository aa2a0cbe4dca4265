import { statfs } from 'node:fs/promises'

/** Below this much free room owners are warned, bytes. */
export const LOW_BYTES = 500_000_000
/** Below this much nothing more is taken, bytes: the database itself must never run out in the middle of a write. */
export const FULL_BYTES = 100_000_000
/** How long what was measured is taken as known, milliseconds. */
const KNOWN_MS = 2_000

/** Free room where the data is. */
export class Room {
  #free = Number.POSITIVE_INFINITY
  #until = 0

  /** `measure` gives the free bytes. */
  constructor(
    readonly measure: () => Promise<number>,
    readonly now: () => number = Date.now,
  ) {}

  /** Room of the disk that a folder is on; without a folder there is nothing to measure. */
  static of(folder: string | null): Room {
    return new Room(async () => {
      if (folder === null) return Number.POSITIVE_INFINITY
      const { bavail, bsize } = await statfs(folder)
      return bavail * bsize
    })
  }

  /** Free bytes, measured a moment ago at most. A disk that cannot be measured is not said to be full. */
  async free(): Promise<number> {
    if (this.now() < this.#until) return this.#free
    this.#free = await this.measure().catch(() => Number.POSITIVE_INFINITY)
    this.#until = this.now() + KNOWN_MS
    return this.#free
  }

  async isFull(): Promise<boolean> {
    return (await this.free()) < FULL_BYTES
  }

  async isLow(): Promise<boolean> {
    return (await this.free()) < LOW_BYTES
  }
}
