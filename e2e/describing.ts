import { expect, type Locator, type Page } from '@playwright/test'

/* How journeys answer the questions of a draft. */

/** A question with its answer. */
export const asked = (page: Page, what: string): Locator =>
  page.locator('.question').filter({ has: page.getByRole('heading', { level: 3, name: what }) })

/** Begins a new draft of a kind from the catalogue. */
export async function begin(page: Page, kind: string): Promise<void> {
  await page.getByRole('button', { name: 'Describe a new one' }).click()
  await page.getByText(kind, { exact: true }).click()
  await expect(page.getByRole('complementary')).toContainText('Still needed')
}
/** Types an answer and leaves its field. */
export async function type(at: Locator, text: string): Promise<void> {
  await at.fill(text)
  await at.press('Tab')
}
/** Chooses from a list that is searched by typing. */
export async function pick(within: Locator, label: string, text: string): Promise<void> {
  await within.locator(`input[aria-label="${label}"]`).fill(text)
  await within.page().getByRole('option', { name: text }).first().click()
}
/** Types the answers to several questions. */
export async function answers(page: Page, list: Readonly<Record<string, string>>): Promise<void> {
  for (const [what, text] of Object.entries(list))
    await type(asked(page, what).getByRole('textbox').first(), text)
}
/** Presses an answer. */
export const press = (page: Page, what: string, button: string): Promise<void> =>
  asked(page, what).getByRole('button', { name: button, exact: true }).click()
