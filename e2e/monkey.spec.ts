import { expect, type Locator, type Page } from '@playwright/test'
import { evidenceOf, proofRoute, seededRandom, targetsOf, type OpenedJob, type Random } from '#core'
import { runs } from '../core/src/testing/runs.ts'
import { signIn, url } from './help.ts'
import { begin, offered, panelNames, planFor } from './plans.ts'
import { test } from './test.ts'

/*
 * Acts of an impatient person on each panel, a hundred with --long, on Enrol, Prove and Hand over: no fault of the page, nothing that the
 * server does not take; in the end the screen says what the server has, and nothing is called proved that the record does not hold.
 */

/** All of them with --long; an act in the browser takes half a second. */
const ACTS = runs(100)
const junk = ['', '77', '7733', 'ÄÖ<script>', '4.0E+12', '99', '7']

/** What leads on, pressed more often than the rest. */
const forward = [
  /^Accept/,
  /^Refuse/,
  /^Tripped again/,
  /^Note it as/,
  /✓ Passed/,
  /^Put the station/,
  /^Vouch/,
  /^Note it$/,
]

async function act(page: Page, random: Random, serials: readonly string[]): Promise<void> {
  const any = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)]
  const press = async (found: Locator): Promise<void> => {
    const count = await found.count()
    if (count === 0) return
    const one = found.nth(Math.floor(random() * count))
    if ((await one.isVisible()) && (await one.isEnabled()))
      await one.click({ timeout: 2_000 }).catch(() => undefined)
  }
  const main = page.locator('main')
  const dice = random()
  await page.clock.fastForward(1_500)
  if (dice < 0.2) await press(main.locator('button'))
  else if (dice < 0.5) await press(main.getByRole('button', { name: any(forward) ?? /^Accept/ }))
  else if (dice < 0.62) await press(main.locator('.rooms button, .targets button'))
  else {
    const field = main.locator('input[type="text"]:not([readonly]), input:not([type]):not([readonly])')
    const count = await field.count()
    if (count === 0) return
    const one = field.nth(Math.floor(random() * count))
    const serial = any(serials) ?? '20417733'
    if (!(await one.isVisible())) return
    await one
      .fill(any([...junk, serial, serial, serial.slice(-4)]) ?? '', { timeout: 2_000 })
      .catch(() => undefined)
    if (random() < 0.8) await one.press('Enter', { timeout: 2_000 }).catch(() => undefined)
  }
  await page.keyboard.press('Escape')
}

for (const [index, name] of panelNames.entries())
  test(`a monkey on ${name} is taken at its word, and the screen is the server’s`, async ({ page }) => {
    test.setTimeout(240_000)
    const faults: string[] = []
    page.on('pageerror', (error) => faults.push(error.message))
    page.on('response', (answer) => {
      if (answer.status() >= 400 && answer.url().includes('/edits'))
        faults.push(`${answer.status()} ${answer.url()}`)
      if (answer.status() >= 500) faults.push(`${answer.status()} ${answer.url()}`)
    })
    await signIn(page, 'idris')
    const catalogue = await offered(page)
    const panel = catalogue.all('panel').find((item) => item.name === name)
    if (!panel) throw new Error(name)
    const { doc } = planFor(panel, catalogue, index % 2 === 0)
    const job = await begin(page, doc)
    const serials = Object.values(doc.records).flatMap((record) =>
      record.type === 'device' ? (record.sticker ?? []) : [],
    )
    await page.clock.install()
    const random = seededRandom(700 + index)
    const stages = ['enrol', 'enrol', 'prove', 'handover', 'prove']
    for (let count = 0; count < ACTS; count++) {
      if (count % (ACTS / 5) === 0) {
        await page.goto(`${url()}/jobs/${job}/${stages[count / (ACTS / 5)] ?? 'enrol'}`)
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      }
      await act(page, random, serials)
    }
    await page.clock.fastForward(5_000)
    await expect(page.getByText('All saved')).toBeVisible()
    expect(faults).toEqual([])

    // Opened anew, the screen counts what the server's record holds, and no more.
    await page.goto(`${url()}/jobs/${job}/prove`)
    const opened = (await (await page.request.get(`${url()}/api/jobs/${job}`)).json()) as OpenedJob
    const items = proofRoute(opened.document, catalogue, new Date().toISOString()).flatMap(
      (stop) => stop.items,
    )
    const passed = items.filter((item) => item.state === 'pass')
    await expect(page.getByText(`${passed.length} of ${items.length} proofs passed`)).toBeVisible()
    const results = evidenceOf(opened.document, 'test')
    for (const item of passed)
      expect(
        results.findLast(
          (result) =>
            result.kind === item.kind && result.subject === item.subject && result.loop === item.loop,
        )?.outcome,
      ).toBe('pass')
    const targets = targetsOf(opened.document, catalogue)
    const heard = targets.filter((target) => target.done && target.how === 'heard').length
    await page.goto(`${url()}/jobs/${job}/enrol`)
    await expect(page.getByText(new RegExp(`^${heard} of ${targets.length} learned`))).toBeVisible()
  })
