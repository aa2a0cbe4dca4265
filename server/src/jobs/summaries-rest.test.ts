import { afterEach, expect, it, vi } from 'vitest'
import type { Store } from '../db/store.ts'
import type { JudgingPool } from '../workers/pool.ts'
import { Summaries } from './summaries.ts'

afterEach(() => {
  vi.useRealTimers()
})

/** Summaries over one job that is old again whenever it is looked at; it ends after 50, so that a mistake is a failure. */
function alwaysOld(took = () => Promise.resolve()) {
  const seen = { claims: 0 }
  const store = {
    summaries: {
      claim: () => Promise.resolve((seen.claims += 1) < 50 ? [{ id: 'job', firmId: 'firm' }] : []),
    },
    jobsOf: () => ({ text: () => took().then(() => null) }),
  } as unknown as Store
  const summaries = new Summaries(store, {} as JudgingPool, () => new Date(), vi.fn())
  return { seen, summaries }
}

it('rests after a look that found work, though edits go on', async () => {
  vi.useFakeTimers()
  const { seen, summaries } = alwaysOld()
  summaries.start()
  await vi.advanceTimersByTimeAsync(3_900)
  summaries.nudge()
  expect(seen.claims).toBe(1)
  await vi.advanceTimersByTimeAsync(200)
  expect(seen.claims).toBe(2)
  // Nor does the look that comes by the clock break the rest: one look every four seconds, not one at each fifth besides.
  await vi.advanceTimersByTimeAsync(16_000)
  expect(seen.claims).toBe(6)
  await summaries.stop()
})

it('goes on without rest while somebody waits until nothing is old', async () => {
  const { seen, summaries } = alwaysOld()
  await summaries.settled()
  expect(seen.claims).toBe(50)
  await summaries.stop()
})

it('rests longer after a look that took long', async () => {
  vi.useFakeTimers()
  const { seen, summaries } = alwaysOld(() => new Promise((done) => setTimeout(done, 1_000)))
  summaries.start()
  await vi.advanceTimersByTimeAsync(20_900)
  expect(seen.claims).toBe(1)
  await vi.advanceTimersByTimeAsync(200)
  expect(seen.claims).toBe(2)
  await Promise.all([summaries.stop(), vi.advanceTimersByTimeAsync(1_000)])
})
