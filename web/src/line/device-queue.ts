import { idbQueue } from './idb-queue.ts'
import { memoryQueue } from './memory-queue.ts'
import type { QueueStore } from './queue.ts'

let queue: QueueStore | null = null

/** Puts another queue in place of this device's; tests begin with an empty one. */
export function useQueue(other: QueueStore): void {
  queue = other
}

/** The queue of this device: in the browser's database, or in memory where there is none. */
export function deviceQueue(): QueueStore {
  return (queue ??= typeof indexedDB === 'undefined' ? memoryQueue() : idbQueue())
}
