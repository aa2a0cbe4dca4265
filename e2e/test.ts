import { test as base } from '@playwright/test'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { startProduct, type DemoSignIn } from '../server/src/launch/product.ts'

/** The running product of one worker. */
interface Running {
  readonly url: string
  /** Its data folder. */
  readonly data: string
  readonly people: readonly DemoSignIn[]
  /** Where the first person comes in; null once somebody has. */
  readonly setUp: string | null
}

let running: Running | null = null

/** The product that this worker's journeys go through. */
export function product(): Running {
  if (!running) throw new Error('the product has not been started')
  return running
}

/**
 * The journeys' `test`: before the first of a worker it starts the whole product with the demo on a throw-away data folder, as
 * `./kapelle demo` does. Two workers never meet in one database.
 */
export const test = base.extend<object, { product: Running; apart: string; demo: boolean }>({
  /** Named by journeys that change what others rely on, such as the catalogue: they get a worker, and so a product, of their own. */
  apart: ['', { option: true, scope: 'worker' }],
  /** Without the demo there is nobody yet: the journey comes in by the link of the first set-up. */
  demo: [true, { option: true, scope: 'worker' }],
  product: [
    async ({ apart: _apart, demo }, use) => {
      const data = mkdtempSync(join(tmpdir(), 'kapelle-e2e-'))
      try {
        const started = await startProduct({ data, port: 0, demo })
        running = { url: started.url, data, people: started.signIns, setUp: started.setUp }
        await use(running)
        running = null
        await started.stop()
      } finally {
        rmSync(data, { recursive: true, force: true })
      }
    },
    { scope: 'worker', auto: true, timeout: 300_000 },
  ],
})
