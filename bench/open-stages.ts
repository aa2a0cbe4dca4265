/* npm run bench:open [devices …]: how long each stage of a large job takes to show its rows in Chromium, from the press on the rail. */
import type { Page } from '@playwright/test'
import { madeJob } from './made-job.ts'
import { onProduct } from './product.ts'

/** What a stage of a job of 512 devices may take to show its rows, ms, on two cores. */
const MOST_MS = 2000
const HELD = 512
const sizes = process.argv.slice(2).map(Number)
/** What a stage of the smallest job took, ms: the baseline of the others. */
const small = new Map<string, number>()
const SIZES = sizes.length > 0 ? sizes : [64, 512, 2000]

/** Each stage, and what stands there once its rows do. */
const stages = [
  ['Survey', 'main #house-head'],
  ['Kit', 'main table [aria-label^="Sticker ID of"]'],
  ['Zones', 'main tr[id^="zone:"]'],
  ['Program', 'main h1:has-text("Program")'],
  ['Enrol', 'main [aria-label="To enrol"] button'],
  ['Prove', 'main section[aria-label] button[aria-pressed]'],
  ['Hand over', 'main [aria-label="Zone schedule"] tbody tr'],
] as const

let within = true
await onProduct(async ({ page, address, add }) => {
  for (const devices of SIZES) {
    const took = await openStages(page, `${address}/jobs/${await add(madeJob(devices, true))}`)
    for (const [stage, ms] of took) {
      const least = small.get(stage) ?? ms
      small.set(stage, least)
      const budget = devices === HELD ? MOST_MS : Infinity
      within &&= ms <= budget
      console.log(
        `${ms <= budget ? '✓' : '✗'} ${devices} devices, ${stage}: ${ms.toFixed(0)} ms = ${(ms / least).toFixed(1)} × that of ${SIZES[0]}${devices === HELD ? `; budget ${MOST_MS} ms` : ''}`,
      )
    }
  }
})
process.exitCode = within ? 0 : 1

/** Each stage with what it took to open, ms. */
async function openStages(page: Page, job: string): Promise<(readonly [string, number])[]> {
  const from = performance.now()
  await page.goto(`${job}/survey`)
  await page.locator('main h1').first().waitFor({ timeout: 300_000 })
  console.log(`· from nothing: ${(performance.now() - from).toFixed(0)} ms`)
  const took: (readonly [string, number])[] = []
  for (const [stage, shown] of stages) took.push([stage, await opens(page, stage, shown)])
  return took
}

/** From the press to the next picture after the rows stand there. */
async function opens(page: Page, stage: string, shown: string): Promise<number> {
  const link = page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: new RegExp(`^${stage}`) })
  const from = performance.now()
  await link.click({ timeout: 300_000 })
  await page.locator(shown).first().waitFor({ timeout: 300_000 })
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))
  return performance.now() - from
}
