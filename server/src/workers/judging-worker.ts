import './lower.ts'
import { parentPort } from 'node:worker_threads'
import { readKept, type KeptEntry, type WrittenEntry } from '#core'
import type { JobText } from '../db/jobs.ts'
import { doTask, parseJob, pinnedHashes, type JudgingTask } from './judging-tasks.ts'

/** What the pool sends and what it gets back. Entries are asked for once and then kept by their hash. */
export type ToWorker =
  | { readonly id: number; readonly task: JudgingTask; readonly text: Pick<JobText, 'snapshot' | 'tail'> }
  | { readonly id: number; readonly entries: readonly WrittenEntry[] }
/** What a judging thread says. */
export type FromWorker =
  | { readonly id: number; readonly need: readonly string[] }
  | { readonly id: number; readonly answer: unknown }
  | { readonly id: number; readonly failed: string }

/** Entries kept at most; the oldest go. */
const KEPT = 4000
const kept = new Map<string, KeptEntry>()
const waiting = new Map<number, (entries: readonly WrittenEntry[]) => void>()
const port = parentPort
if (!port) throw new Error('The judging worker runs as a worker thread only.')

port.on('message', (message: ToWorker) => {
  if ('entries' in message) waiting.get(message.id)?.(message.entries)
  else
    work(message).catch((error: unknown) => {
      say({ id: message.id, failed: error instanceof Error ? (error.stack ?? error.message) : String(error) })
    })
})

async function work({ id, task, text }: Extract<ToWorker, { task: unknown }>): Promise<void> {
  const document = parseJob(text)
  const hashes = pinnedHashes(document)
  const need = hashes.filter((hash) => !kept.has(hash))
  if (need.length > 0) {
    const entries = await new Promise<readonly WrittenEntry[]>((done) => {
      waiting.set(id, done)
      say({ id, need })
    })
    waiting.delete(id)
    for (const entry of entries) kept.set(entry.hash, readKept(entry))
  }
  const mine = hashes.flatMap((hash) => kept.get(hash) ?? [])
  for (const hash of kept.keys()) if (kept.size > KEPT) kept.delete(hash)
  say({ id, answer: await doTask(task, document, mine) })
}

function say(message: FromWorker): void {
  port?.postMessage(message)
}
