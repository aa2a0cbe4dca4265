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
  const field = within.locator(`input[aria-label="${label}"]`)
  await untilChosen(field, text, async () => {
    await field.fill(text)
    await within.page().getByRole('option', { name: text }).first().click()
  })
}
/** Chooses from a short list, which is seen as a whole. */
export async function pickSeen(within: Locator, label: string, text: string): Promise<void> {
  const field = within.locator(`input[aria-label="${label}"]`)
  await untilChosen(field, text, async () => {
    await field.click()
    await within.page().getByRole('option', { name: text, exact: true }).click()
  })
}
/** Chooses once more where a list that was just drawn anew did not take the click, as a hand would that sees the field empty. */
async function untilChosen(field: Locator, text: string, choose: () => Promise<void>): Promise<void> {
  await choose()
  const chosen = new RegExp(text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), 'i')
  const there = await expect(field)
    .toHaveValue(chosen, { timeout: 10_000 })
    .then(
      () => true,
      () => false,
    )
  if (!there) await choose()
  await expect(field).toHaveValue(chosen)
}
/** Types the answers to several questions. */
export async function answers(page: Page, list: Readonly<Record<string, string>>): Promise<void> {
  for (const [what, text] of Object.entries(list))
    await type(asked(page, what).getByRole('textbox').first(), text)
}
/** Presses an answer. */
export const press = (page: Page, what: string, button: string): Promise<void> =>
  asked(page, what).getByRole('button', { name: button, exact: true }).click()

/** What hands did on a page. */
export interface Acts {
  /** Clicks, letters, and each coming into a field, which is a click or a Tab. */
  readonly count: () => Promise<number>
  /** Does something that is not counted: a mistake that a test makes on purpose, and its mending. */
  readonly uncounted: (what: () => Promise<void>) => Promise<void>
}

/** Counts from now on what hands do on the page, until it is read anew. */
export async function countActs(page: Page): Promise<Acts> {
  await page.evaluate(() => {
    const lengths = new WeakMap<EventTarget, number>()
    const hands = { acts: 0, counts: true }
    let within: EventTarget | null = null
    Object.assign(window, { hands })
    const does = (acts: number): void => {
      if (hands.counts) hands.acts += acts
    }
    document.addEventListener(
      'click',
      ({ isTrusted, detail, target }) => {
        // What a label hands on to its field is no click of its own.
        if (!isTrusted || detail === 0) return
        does(1)
        within = target
      },
      true,
    )
    document.addEventListener(
      'input',
      ({ target }) => {
        if (!(target instanceof HTMLInputElement) && !(target instanceof HTMLTextAreaElement)) return
        if (within !== target) does(1)
        within = target
        const { length } = target.value
        // Put over what stood there: all of it is typed, or taken away by one key.
        const before = lengths.get(target) ?? 0
        does(length > before ? length - before : Math.max(1, length))
        lengths.set(target, length)
      },
      true,
    )
  })
  type Counting = Window & { hands: { acts: number; counts: boolean } }
  const counts = (on: boolean): Promise<void> =>
    page.evaluate((now) => {
      ;(window as unknown as Counting).hands.counts = now
    }, on)
  return {
    count: () => page.evaluate(() => (window as unknown as Counting).hands.acts),
    uncounted: async (what) => {
      await counts(false)
      await what()
      await counts(true)
    },
  }
}
