import AxeBuilder from '@axe-core/playwright'
import { expect, type Browser, type Locator, type Page } from '@playwright/test'
import { product } from './test.ts'

/** Address of the running product. */
export const url = (): string => product().url

/** Signs in on the sign-in page, as a person would. */
export async function signIn(page: Page, login: 'morwen' | 'idris'): Promise<void> {
  const person = product().people.find((one) => one.login === login)
  await page.goto(`${url()}/sign-in`)
  await page.getByLabel('Sign-in name').fill(login)
  await page.getByLabel('Password').fill(person?.password ?? '')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible()
}

/** A second person's own browser on the same address. */
export async function colleague(browser: Browser, path: string): Promise<Page> {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await signIn(page, 'idris')
  await page.goto(url() + path)
  return page
}

/** Chooses from a select by its label. */
export async function choose(page: Page, label: string | RegExp, option: string | RegExp): Promise<void> {
  await page.locator('.v-field', { has: page.getByRole('combobox', { name: label }) }).click()
  await page.getByRole('option', { name: option }).click()
}

/** Checks the page as it stands against WCAG 2.2 A and AA. */
export async function accessible(page: Page): Promise<void> {
  // Colours fade while a page settles; axe would measure them half-way.
  await page.waitForTimeout(400)
  const builder = new AxeBuilder({ page })
  // What lies under an open dialog is dimmed and cannot be reached: the dialog is the page then.
  if (await page.getByRole('dialog').isVisible()) builder.include('[role="dialog"]')
  const result = await builder.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']).analyze()
  const found = result.violations.map(
    (violation) =>
      `${violation.id}: ${violation.nodes
        .map((node) => node.target.join(' '))
        .slice(0, 3)
        .join(' | ')}`,
  )
  expect(found).toEqual([])
}

/** Opens a stage by the rail. */
export async function stage(page: Page, name: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('link', { name: new RegExp(`^${name}`) })
    .click()
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible()
}

/** Unfolds the line of delays and settings on Zones. */
export async function unfoldTimes(page: Page): Promise<void> {
  const times = page.getByRole('region', { name: 'Delays and settings' })
  await times.getByRole('button', { name: /Entry delay 1/ }).click()
}

/** How a journey presses and types: by mouse, or by keyboard alone. */
export interface Hands {
  readonly press: (button: Locator) => Promise<void>
  readonly type: (field: Locator, text: string) => Promise<void>
}
/** The mouse, on the first of several. */
export const mouse: Hands = {
  press: (button) => button.first().click(),
  type: (field, text) => field.first().fill(text),
}

/** Passes what the chosen device owes, step by step; `best` is a reading of its family's best band. */
export async function passAll(page: Page, best = '4', hands: Hands = mouse): Promise<void> {
  const count = page.getByText(/^\d+ of \d+ proofs passed$/)
  for (let step = 0; step < 24; step++) {
    const before = await count.innerText()
    if (!(await passNext(page.getByRole('region', { name: /^Proofs of/ }), best, hands))) return
    await expect(count).not.toHaveText(before)
  }
}

/** Passes the proof that is open, as its kind asks; false where none is. */
async function passNext(card: Locator, best: string, hands: Hands): Promise<boolean> {
  const mounted = card.getByRole('button', { name: '✓ Mounted as shown' })
  const unset = card.getByRole('button', { name: 'It was unset' })
  const passed = card.getByRole('button', { name: '✓ Passed' })
  if ((await mounted.count()) > 0) {
    const so = card.getByRole('button', { name: 'It is so', pressed: false })
    for (let left = await so.count(); left > 0; left--) await hands.press(so)
    await hands.press(mounted)
  } else if ((await unset.count()) > 0) {
    await hands.type(card.getByLabel('Or by a watch'), '12')
    await hands.press(unset)
    await hands.press(card.getByRole('button', { name: 'Record it' }))
  } else {
    if ((await passed.count()) === 0) return false
    const reading = card.getByLabel('Reading')
    if ((await reading.count()) > 0) await hands.type(reading, best)
    await hands.press(passed)
  }
  return true
}
