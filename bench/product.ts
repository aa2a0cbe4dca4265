import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { pino } from 'pino'
import { chromium, type Page } from '@playwright/test'
import type { Op } from '#core'
import { shippedAt } from '../server/src/db/catalogue.ts'
import { startMariaDb } from '../server/src/db/mariadb.ts'
import { startServer } from '../server/src/server.ts'
import { benchEdit } from './edits.ts'
import type { MadeJob } from './made-job.ts'

/** The running product with a firm of its own, and a page that is signed in to it. */
interface Product {
  readonly page: Page
  readonly address: string
  /** Takes a made job and its equipment in; returns the ID that it has there. */
  add(made: MadeJob): Promise<string>
}

/** Runs a benchmark in Chromium on the whole product, and ends all of it afterwards. */
export async function onProduct(run: (product: Product) => Promise<void>): Promise<void> {
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
    const add = async ({ doc, entries }: MadeJob): Promise<string> => {
      const catalogue = await store.catalogueOf(firmId)
      await catalogue.add([...entries], shippedAt(new Date()))
      const id = randomUUID()
      const ops = Object.values(doc.records).map((record): Op => ({ op: 'add', record }))
      await store.jobsOf(firmId).take(id, { edit: benchEdit(ops), now: new Date(), create: true })
      await summaries.settled()
      return id
    }
    await run({ page, address: server.url, add })
  } finally {
    await browser.close()
    await server.stop()
    await db.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
