/* npm run bench:open [devices …]: how long each stage of a large job takes to show its rows in Chromium, from the press on the rail. */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { pino } from 'pino'
import { chromium, type Page } from '@playwright/test'
import type { Op } from '#core'
import { startMariaDb } from '../server/src/db/mariadb.ts'
import { startServer } from '../server/src/server.ts'
import { benchEdit } from './edits.ts'
import { madeJob } from './made-job.ts'

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

const folder = mkdtempSync(join(tmpdir(), 'kapelle-bench-'))
const db = await startMariaDb(folder)
const server = await startServer({
  address: db,
  port: 0,
  host: '127.0.0.1',
  logger: pino({ level: 'silent' }),
})
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
})
let within = true
try {
  const { accounts, store, summaries } = server.services
  const firmId = await accounts.addFirm('Bench Alarms')
  const person = { name: 'Ann', login: 'ann', role: 'owner', password: 'bench-password-1' } as const
  await accounts.addPerson(firmId, person)
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await page.goto(`${server.url}/sign-in`)
  await page.getByLabel('Sign-in name').fill(person.login)
  await page.getByLabel('Password').fill(person.password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('heading', { name: 'Jobs', exact: true }).waitFor()
  for (const devices of SIZES) {
    const { doc, entries } = madeJob(devices, true)
    const catalogue = await store.catalogueOf(firmId)
    await catalogue.add([...entries], true)
    const id = randomUUID()
    const records = Object.values(doc.records)
    const ops = records.map((record): Op => ({ op: 'add', record }))
    await store.jobsOf(firmId).take(id, { edit: benchEdit(ops), now: new Date(), create: true })
    await summaries.settled()
    const took = await openStages(page, id)
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
} finally {
  await browser.close()
  await server.stop()
  await db.stop()
  rmSync(folder, { recursive: true, force: true })
}
process.exitCode = within ? 0 : 1

/** Each stage with what it took to open, ms. */
async function openStages(page: Page, id: string): Promise<(readonly [string, number])[]> {
  const from = performance.now()
  await page.goto(`${server.url}/jobs/${id}/survey`)
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
