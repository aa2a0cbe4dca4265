import type { StaleJob } from '../db/summaries.ts'
import type { Store } from '../db/store.ts'
import type { JudgingPool } from '../workers/pool.ts'

/** How often it is looked whether summaries are old though nothing was heard of, milliseconds. */
const LOOK_MS = 5_000
/** How long after a change it is looked: many edits in a row are summed up once, and the table is not read for each. */
const SOON_MS = 800
/**
 * How long it rests after a look that found work: a job under edit is old again at once, and each look holds its edits up. What
 * took long rests longer, so that summing up never takes more than a small part of the time.
 */
const REST_MS = 4_000
const REST_TIMES = 20
/** Jobs that one look takes on: few, so that another process finds work too. */
const AT_ONCE = 4
/** How long a job that could not be summed up is left alone, milliseconds. */
const AGAIN_MS = 60_000

/**
 * Sums jobs up behind the answers. After an edit, a change of the house rules, a new build or when the clock says so, a
 * summary is old; it is then made anew in a worker thread and kept with what it was made by.
 */
export class Summaries {
  #timer: NodeJS.Timeout | null = null
  #soon: NodeJS.Timeout | null = null
  #running: Promise<void> | null = null
  #again = false
  #ended = false
  #restsUntil = 0
  /** How many wait until nothing is old. */
  #waited = 0

  constructor(
    readonly store: Store,
    readonly pool: JudgingPool,
    readonly now: () => Date,
    readonly tell: (error: unknown) => void,
  ) {}

  /** Begins to look now and then. */
  start(): void {
    this.#timer = setInterval(() => {
      if (performance.now() >= this.#restsUntil) this.#look()
    }, LOOK_MS)
    this.#timer.unref()
    this.#look()
  }

  /** Something changed: looks soon. */
  nudge(): void {
    if (this.#ended || this.#soon) return
    const wait = Math.max(SOON_MS, this.#restsUntil - performance.now())
    this.#soon = setTimeout(() => this.#look(), wait)
    this.#soon.unref()
  }

  #look(): void {
    if (this.#ended) return
    if (this.#soon) clearTimeout(this.#soon)
    this.#soon = null
    if (this.#running) {
      this.#again = true
      return
    }
    this.#running = this.#work()
      .catch(this.tell)
      .finally(() => {
        this.#running = null
        if (this.#again) {
          this.#again = false
          this.#look()
        }
      })
  }

  /** Waits until nothing is old any more. */
  async settled(): Promise<void> {
    this.#waited += 1
    try {
      this.#look()
      while (this.#running) await this.#running
    } finally {
      this.#waited -= 1
    }
  }

  async stop(): Promise<void> {
    this.#ended = true
    if (this.#timer) clearInterval(this.#timer)
    if (this.#soon) clearTimeout(this.#soon)
    await this.#running
  }

  async #work(): Promise<void> {
    const began = performance.now()
    while (!this.#ended) {
      const jobs = await this.store.summaries.claim(AT_ONCE, this.now())
      if (jobs.length === 0) return
      for (const job of jobs) await this.#sumUp(job)
      if (jobs.length < AT_ONCE && this.#waited === 0) {
        const now = performance.now()
        this.#restsUntil = now + Math.max(REST_MS, REST_TIMES * (now - began))
        this.nudge()
        return
      }
    }
  }

  async #sumUp(job: StaleJob): Promise<void> {
    try {
      const text = await this.store.jobsOf(job.firmId).text(job.id)
      if (!text) return
      const { rules } = await this.store.settingsOf(job.firmId).houseRules()
      const { summary, due } = await this.pool.run(
        { kind: 'summary', rules, now: this.now().toISOString() },
        text,
        (hashes) => this.store.catalogueOf(job.firmId).byHashes(hashes),
      )
      await this.store.summaries.keep(job, {
        revision: text.revision,
        summary,
        due: due === null ? null : new Date(due),
      })
    } catch (error) {
      if (this.#ended) return
      this.tell(error)
      await this.store.summaries.release(job, new Date(this.now().getTime() + AGAIN_MS))
    }
  }
}
