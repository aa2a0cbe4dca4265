import { afterEach, expect, it, vi } from 'vitest'
import type { Store } from '../db/store.ts'
import type { JudgingPool } from '../workers/pool.ts'
import { Summaries } from './summaries.ts'

afterEach(() => {
  vi.useRealTimers()
})

/** Summaries over one job that is old again whenever it is looked at; it ends after 50, so that a mistake is a failure. */
function alwaysOld() {
  const seen = { claims: 0 }
  const store = {
    summaries: {
      claim: () => Promise.resolve((seen.claims += 1) < 50 ? [{ id: 'job', firmId: 'firm' }] : []),
    },
    jobsOf: () => ({ text: () => Promise.resolve(null) }),
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
  await summaries.stop()
})

it('goes on without rest while somebody waits until nothing is old', async () => {
  const { seen, summaries } = alwaysOld()
  await summaries.settled()
  expect(seen.claims).toBe(50)
  await summaries.stop()
})
