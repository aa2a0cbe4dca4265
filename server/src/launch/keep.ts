/** A part of the product that runs by itself: the database or the server. */
export interface Part {
  readonly pid: number
  /** Fulfilled with how it ended, once it has. */
  readonly ended: Promise<string>
  stop(): Promise<void>
}

/** When it is given up to start a part again: so many endings within this time, milliseconds. */
const MOST_ENDINGS = 5
const WITHIN_MS = 120_000
/** The pause before a part is started again, milliseconds: it doubles with each ending within the time above. */
const FIRST_PAUSE_MS = 200
const LONGEST_PAUSE_MS = 10_000

/** What a keeper uses and whom it tells. */
export interface Keeping<P extends Part> {
  /** As a person knows the part: `the database`. */
  readonly name: string
  /** Starts it anew after it ended. */
  readonly again: () => Promise<P>
  /** Hears what happened, one sentence each. */
  readonly tell: (what: string) => void
  /** It ended too often: this is why, and nothing is tried any more. */
  readonly giveUp: (why: string) => void
  readonly now?: () => number
  readonly pause?: (ms: number) => Promise<void>
}

/**
 * Keeps a part running: when it ends by itself it is started again, after a pause that grows; after five endings within two
 * minutes it is given up, and said why. A start that fails counts as an ending.
 */
export class Keeper<P extends Part> {
  #endings: number[] = []
  #stopping = false
  #part: P
  readonly #done: Promise<void>

  constructor(
    first: P,
    readonly keeping: Keeping<P>,
  ) {
    this.#part = first
    this.#done = this.#watch()
  }

  /** The part as it runs now, or as it last ran. */
  get part(): P {
    return this.#part
  }

  /** Ends the part and the keeping. */
  async stop(): Promise<void> {
    this.#stopping = true
    await this.#part.stop()
    await this.#done
  }

  async #watch(): Promise<void> {
    const { name, tell, giveUp } = this.keeping
    for (;;) {
      let how = await this.#part.ended
      for (;;) {
        if (this.#stopping) return
        const pause = this.#pauseAfter()
        if (pause === null) {
          giveUp(`${name} ended ${MOST_ENDINGS} times within two minutes, the last time: ${how}`)
          return
        }
        tell(`${name} ${how}: it is started again`)
        await (this.keeping.pause ?? wait)(pause)
        if (this.#stopping) return
        try {
          this.#part = await this.keeping.again()
          // Stopped while it was being started: it ends with the rest.
          if (this.#stopping) return await this.#part.stop()
          tell(`${name} runs again`)
          break
        } catch (error) {
          how = `could not start: ${error instanceof Error ? error.message : String(error)}`
        }
      }
    }
  }

  /** How long to wait before the next start; null when it ended too often. */
  #pauseAfter(): number | null {
    const now = (this.keeping.now ?? Date.now)()
    this.#endings = [...this.#endings.filter((at) => now - at < WITHIN_MS), now]
    if (this.#endings.length >= MOST_ENDINGS) return null
    return Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (this.#endings.length - 1))
  }
}

function wait(ms: number): Promise<void> {
  return new Promise((done) => setTimeout(done, ms))
}
