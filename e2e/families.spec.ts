import { expect } from '@playwright/test'
import { inventId, recordsOf, seededRandom, targetsOf, type Heard, type OpenedJob } from '#core'
import { signIn, url } from './help.ts'
import { begin, offered, panelNames, planFor } from './plans.ts'
import { test } from './test.ts'

/* One device of every family is learned and one refused, on every panel that hears it, in the browser through to the database. */

for (const name of panelNames)
  test(`every family that ${name} hears is learned, and a stranger of it refused`, async ({ page }) => {
    test.setTimeout(240_000)
    await signIn(page, 'idris')
    const catalogue = await offered(page)
    const panel = catalogue.all('panel').find((item) => item.name === name)
    if (!panel) throw new Error(`no panel ${name}`)
    const { doc, families } = planFor(panel, catalogue)
    expect(families.length).toBeGreaterThan(0)
    const job = await begin(page, doc)
    await page.clock.install()
    await page.goto(`${url()}/jobs/${job}/enrol`)
    // Typed by hand before anybody listens, for what is heard turns the page to its device: an ID of each family that is on no sticker is refused and kept; nothing is put right by itself.
    const targets = targetsOf(doc, catalogue).filter((target) => target.loop?.bench && !target.sister)
    const strangers = new Map<string, string>()
    for (const family of families) {
      const key = family.replace('family/', '')
      const target = targets.find((item) => item.device.id === `device:${key}`)
      const model = catalogue.get('family', family)
      if (!target || !model) throw new Error(`${family} has nothing to learn`)
      const stranger = inventId(model, seededRandom(9_000 + panelNames.indexOf(name)))
      strangers.set(family, stranger)
      await page.getByRole('button', { name: new RegExp(`^${numberOf(target.name)} `) }).click()
      const entry = page.getByLabel('Type or scan the sticker')
      await entry.fill(stranger)
      await entry.press('Enter')
      await expect(page.getByText(/is on no sticker of this job/).first()).toBeVisible()
      await expect(page.getByRole('button', { name: /^Accept/ })).toBeDisabled()
      await page.getByRole('button', { name: 'Refuse, keep on record' }).click()
    }

    // The air brings each device among others; what is its own is accepted, the rest refused.
    await page.getByRole('button', { name: 'Start listening' }).click()
    await expect(page.getByRole('button', { name: /Stop listening/ })).toBeVisible()
    const accept = page.getByRole('button', { name: /^Accept/ })
    const opened = async (): Promise<OpenedJob> =>
      (await (await page.request.get(`${url()}/api/jobs/${job}`)).json()) as OpenedJob
    const heardOf = async (decision: Heard['decision']): Promise<Set<string>> => {
      const { document } = await opened()
      const heard = recordsOf(document, 'heard').filter((item) => item.decision === decision)
      return new Set(heard.map((item) => item.serial))
    }
    const stickers = recordsOf(doc, 'device').map((item) => item.sticker ?? '')
    for (let round = 0; round < 200; round++) {
      const learned = await heardOf('accepted')
      if (stickers.every((sticker) => learned.has(sticker))) break
      await page.clock.fastForward(4_000)
      if (await accept.isEnabled()) await accept.click()
      else if (await page.getByText('Which loop?').isVisible())
        await page.getByRole('button', { name: 'Refuse, keep on record' }).click()
    }
    const [learned, refused] = [await heardOf('accepted'), await heardOf('refused')]
    for (const [index, family] of families.entries())
      expect([family, learned.has(stickers[index] ?? ''), refused.has(strangers.get(family) ?? '')]).toEqual([
        family,
        true,
        true,
      ])
    await expect(page.getByText('All saved')).toBeVisible()
    // What is kept stays so for whoever opens the job next.
    await page.reload()
    await expect(
      page
        .getByRole('listitem')
        .filter({ hasText: /, typed|learned/ })
        .first(),
    ).toBeVisible()
  })

test('between them they hear every family of the catalogue', async ({ page }) => {
  await signIn(page, 'idris')
  const catalogue = await offered(page)
  const heard = catalogue.all('panel').flatMap((panel) => planFor(panel, catalogue).families)
  expect(
    catalogue
      .all('panel')
      .map((panel) => panel.name)
      .sort(),
  ).toEqual([...panelNames].sort())
  expect([...new Set(heard)].sort()).toEqual(
    catalogue
      .all('family')
      .map((family) => family.id)
      .sort(),
  )
})

function numberOf(name: string): string {
  return name.replace('zone ', '')
}
