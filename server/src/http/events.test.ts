import { EventEmitter } from 'node:events'
import type { Response } from 'express'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Accounts } from '../auth/accounts.ts'
import type { Store } from '../db/store.ts'
import { EventStreams, POLL_MS } from './events.ts'

/** A response that keeps what is written to it. */
class Kept extends EventEmitter {
  readonly written: string[] = []
  ended = 0
  status = (): this => this
  set = (): this => this
  flushHeaders = (): void => undefined
  write = (text: string): void => void this.written.push(text)
  end = (): void => void (this.ended += 1)
}

let revisions: Map<string, number>
let session: { firmId: string } | null
let asked: number
let streams: EventStreams
beforeEach(() => {
  vi.useFakeTimers()
  revisions = new Map([['firm|job', 3]])
  session = { firmId: 'firm' }
  asked = 0
  const store = {
    revisions: () => {
      asked += 1
      return revisions.size === 0 ? Promise.reject(new Error('away')) : Promise.resolve(revisions)
    },
  }
  const accounts = { bySession: () => Promise.resolve(session) }
  streams = new EventStreams(store as unknown as Store, accounts as unknown as Accounts)
})
afterEach(() => {
  streams.close()
  vi.useRealTimers()
})

function listen(): Kept {
  const response = new Kept()
  streams.open({ firmId: 'firm', jobId: 'job', revision: 3, token: 't' }, response as unknown as Response)
  return response
}
const look = (): Promise<unknown> => vi.advanceTimersByTimeAsync(POLL_MS)

it('tells the revision at once, then only a new one, once', async () => {
  const response = listen()
  expect(response.written).toEqual(['retry: 2000\ndata: {"job":"job","revision":3}\n\n'])
  await look()
  expect(response.written).toHaveLength(1)
  revisions.set('firm|job', 4)
  await look()
  await look()
  expect(response.written.slice(1)).toEqual(['data: {"job":"job","revision":4}\n\n'])
  // A job that is not there any more is no news.
  revisions = new Map([['firm|other', 9]])
  await look()
  expect(response.written).toHaveLength(2)
})

it('asks nothing while nobody listens, nor after somebody left', async () => {
  await look()
  expect(asked).toBe(0)
  const response = listen()
  await look()
  expect(asked).toBe(1)
  response.emit('close')
  revisions.set('firm|job', 5)
  await look()
  expect([asked, response.written.length]).toEqual([1, 1])
})

it('goes on after the database was away', async () => {
  const response = listen()
  const kept = revisions
  revisions = new Map()
  await look()
  revisions = kept.set('firm|job', 6)
  await look()
  expect(response.written.at(-1)).toBe('data: {"job":"job","revision":6}\n\n')
})

it('ends with its session, or with another firm’s', async () => {
  const [gone, moved] = [listen(), listen()]
  session = null
  await look()
  expect([gone.ended, moved.ended]).toEqual([1, 1])
  const later = listen()
  session = { firmId: 'elsewhere' }
  await look()
  expect(later.ended).toBe(1)
  await look()
  expect([gone.ended, later.ended]).toEqual([1, 1])
})

it('keeps a quiet line alive, and ends all when the server closes', async () => {
  const response = listen()
  await vi.advanceTimersByTimeAsync(15_000)
  expect(response.written.at(-1)).toBe(': still here\n\n')
  streams.close()
  expect(response.ended).toBe(1)
  const before = asked
  await look()
  expect(asked).toBe(before)
})

it('never looks twice at once', async () => {
  listen()
  let answer = (): void => undefined
  revisions = new Map([['firm|job', 3]])
  const slow = new Promise<Map<string, number>>((resolve) => (answer = () => resolve(revisions)))
  vi.spyOn(streams.store, 'revisions').mockImplementation(() => {
    asked += 1
    return slow
  })
  await look()
  await look()
  await look()
  expect(asked).toBe(1)
  answer()
  await look()
  expect(asked).toBe(2)
})
