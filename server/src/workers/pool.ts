import { Worker } from 'node:worker_threads'
import type { WrittenEntry } from '#core'
import type { JobText } from '../db/jobs.ts'
import { programFile } from '../program.mjs'
import type { JudgingAnswers, JudgingTask } from './judging-tasks.ts'
import type { FromWorker, ToWorker } from './judging-worker.ts'

interface Running {
  readonly task: ToWorker
  readonly entriesOf: (hashes: readonly string[]) => Promise<readonly WrittenEntry[]>
  readonly done: (answer: unknown) => void
  readonly fail: (error: Error) => void
}

/**
 * Judging outside the thread that answers requests: a job of two thousand devices then keeps nobody else waiting. One task
 * runs at a time; a worker that dies fails its task and is started anew for the next.
 */
export class JudgingPool {
  #worker: Worker | null = null
  #closed = false
  readonly #running = new Map<number, Running>()
  #next = 1

  /** Does a task on a job given as text; `entriesOf` brings the catalogue entries that the worker lacks. */
  run<K extends JudgingTask['kind']>(
    task: Extract<JudgingTask, { kind: K }>,
    text: Pick<JobText, 'snapshot' | 'tail'>,
    entriesOf: (hashes: readonly string[]) => Promise<readonly WrittenEntry[]>,
  ): Promise<JudgingAnswers[K]> {
    if (this.#closed) return Promise.reject(new Error('The server is ending.'))
    return new Promise((done, fail) => {
      const id = this.#next++
      const message: ToWorker = { id, task, text: { snapshot: text.snapshot, tail: text.tail } }
      this.#running.set(id, { task: message, entriesOf, done: done as (answer: unknown) => void, fail })
      this.#started().postMessage(message)
    })
  }

  async close(): Promise<void> {
    this.#closed = true
    await this.#worker?.terminate()
  }

  #started(): Worker {
    if (this.#worker) return this.#worker
    const worker = new Worker(programFile('judging'))
    worker.on('message', (message: FromWorker) => this.#hear(worker, message))
    worker.on('error', (error) => this.#lost(worker, error))
    worker.on('exit', () => this.#lost(worker, new Error('The judging worker ended.')))
    worker.unref()
    this.#worker = worker
    return worker
  }

  #hear(worker: Worker, message: FromWorker): void {
    const running = this.#running.get(message.id)
    if (!running) return
    if ('need' in message) {
      running.entriesOf(message.need).then(
        (entries) => worker.postMessage({ id: message.id, entries } satisfies ToWorker),
        (error: unknown) => this.#end(message.id, () => running.fail(asError(error))),
      )
    } else if ('failed' in message) this.#end(message.id, () => running.fail(new Error(message.failed)))
    else this.#end(message.id, () => running.done(message.answer))
  }

  #lost(worker: Worker, error: Error): void {
    if (this.#worker !== worker) return
    this.#worker = null
    for (const [id, running] of [...this.#running]) this.#end(id, () => running.fail(error))
  }

  #end(id: number, how: () => void): void {
    this.#running.delete(id)
    how()
  }
}

function asError(error: unknown): Error {
  return error instanceof Error ? error : new Error(String(error))
}
