import { expect } from '@playwright/test'
import { accessible, passAll, signIn, stage, unfoldTimes, url } from './help.ts'
import { test } from './test.ts'

const fennel = '/jobs/0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a002'

test('a finished job gets a second area: who sets it, a zone moved in two acts, a key switched off with consent', async ({
  page,
}) => {
  await signIn(page, 'idris')
  await page.goto(`${url()}${fennel}/zones`)
  // A name is asked for before an area is there.
  await page.getByRole('button', { name: 'Add area' }).click()
  await expect(page.getByText('name must not be empty')).toBeVisible()
  await page.getByLabel('New area').fill('Den')
  await page.getByRole('button', { name: 'Add area' }).click()
  await expect(page.getByText('This panel has 2 areas.')).toBeVisible()

  // The den's window was enrolled and read back: at the panel it must be added there and taken out here.
  await page.getByRole('button', { name: 'More of zone 09' }).click()
  await page.getByLabel('Area of zone 09').selectOption({ label: '2 Den' })
  await expect(page.getByText('the panel still has it in Whole premises')).toBeVisible()
  await expect(page.getByText(/Zone 09 moves from Whole premises to Den: add it there/)).toBeVisible()

  // The only keypad sets the house alone: then nobody sets the den.
  const sets = (area: string) => page.getByLabel(`Keyplate W wired keypad in Hall sets ${area}`)
  await sets('Den').uncheck()
  await expect(sets('Whole premises')).toBeDisabled()
  await page.getByRole('button', { name: /findings$/ }).click()
  await expect(
    page.getByText('Den has zones that are set, and no keypad or fob sets and unsets it.'),
  ).toBeVisible()
  await page
    .getByRole('article')
    .filter({ hasText: 'Den has zones that are set' })
    .getByRole('button', { name: 'Show' })
    .click()
  await expect(page.getByRole('heading', { name: 'Areas' })).toBeInViewport()
  await page.getByRole('button', { name: 'Let Keyplate W wired keypad in Hall set it too…' }).click()
  await page.getByRole('button', { name: 'Apply' }).click()
  await expect(sets('Den')).toBeChecked()
  await accessible(page)
  await page.getByRole('button', { name: 'Close' }).click()

  // A key of the keypads goes only with the customer's consent.
  await unfoldTimes(page)
  await page.getByLabel('Switch the medical pair off').check()
  await stage(page, 'Hand over')
  // Its 24-hour readings wait for their day; the consent and what is keyed otherwise now came on top.
  await expect(page.getByText(/9 24-hour readings wait for their day to pass/)).toBeVisible()
  await expect(page.getByText(/\d things block it/)).toBeVisible()
  await page
    .getByRole('button', { name: 'Vouch: Customer consents to the medical pair being switched off' })
    .click()
  await expect(page.getByText('These keys of the keypads do nothing: medical pair.')).toBeVisible()

  // This panel has a zone in one part at a time: one answer puts it into the den and out of the rest.
  await stage(page, 'Program')
  await expect(page.getByText(/✓ acted out: \d+ keys, 0 differences/)).toBeVisible()
  const moved = page.getByRole('region', { name: /^Zone 09/ }).getByRole('row', { name: 'in Den: yes' })
  await expect(moved).toContainText('in Whole premises: no')
  await expect(page.getByText('medical pair off: yes')).toBeVisible()
  await stage(page, 'Zones')
  await page.getByRole('button', { name: 'More of zone 09' }).click()
  await page.getByRole('button', { name: 'Both are keyed…' }).click()
  await page.getByRole('button', { name: 'Apply' }).click()
  // What was proved was another area: those tests are owed again, the reading at its place is not.
  await stage(page, 'Hand over')
  await expect(
    page.getByText(/^3 proofs are of what has changed since: area: Whole premises then, Den now/),
  ).toBeVisible()
  // So is the read-back: the panel was seen to hold something else than is planned now.
  await expect(
    page.getByText(/values? stands? otherwise in the panel than in the plan: .*Zone 09/),
  ).toBeVisible()
  await page.getByRole('link', { name: 'Read back' }).click()
  const reading = page.getByRole('region', { name: 'Read back' })
  const shows = reading.getByRole('button', { name: 'It shows this' })
  await expect(shows).toBeVisible()
  while (await shows.isVisible()) {
    const far = (await reading.getByText(/^\d+ of \d+$/).textContent()) ?? ''
    await shows.click()
    await expect(reading.getByText(far, { exact: true })).toHaveCount(0)
  }
  await expect(reading).toContainText('none otherwise')
  await reading.getByRole('button', { name: 'Done' }).click()
  await stage(page, 'Prove')
  await page.getByRole('button', { name: 'Put the station on test' }).click()
  await page.getByRole('button', { name: /den window/i }).click()
  await passAll(page, '7')
  await page.getByRole('button', { name: 'Take it off test' }).click()
  await stage(page, 'Hand over')
  await expect(page.getByText('■ not ready: 1 thing blocks it')).toBeVisible()
  await expect(page.getByText(/24-hour readings wait/)).toBeVisible()
  await expect(page.getByRole('button', { name: 'Hand over', exact: true })).toBeDisabled()
  await accessible(page)
})
