import { expect } from '@playwright/test'
import { choose, colleague, signIn, url } from './help.ts'
import { test } from './test.ts'

test('two people work on one job: news, conflict, undo, offline', async ({ page, browser }) => {
  await signIn(page, 'morwen')
  await page.getByRole('link', { name: 'New job' }).click()
  await page.getByRole('button', { name: 'Begin the job' }).click()
  await expect(page.getByText('must not be empty')).toBeVisible()
  await page.getByLabel('Name of the job').fill('Heron Weir')
  await page.getByRole('textbox', { name: 'Address' }).fill('3 Sluice Lane')
  await page.getByLabel('Heaviest pet').fill('eight')
  await page.getByRole('button', { name: 'Begin the job' }).click()
  await expect(page.getByText('must be a number')).toBeVisible()
  await page.getByLabel('Heaviest pet').fill('8')
  await page.getByRole('button', { name: 'Begin the job' }).click()
  await expect(page.getByRole('heading', { name: 'Survey' })).toBeVisible()
  await expect(page.getByLabel('Heaviest pet')).toHaveValue('8')

  // A colleague sees a change as it is made.
  const other = await colleague(browser, new URL(page.url()).pathname)
  await page.getByRole('textbox', { name: 'Address' }).fill('4 Sluice Lane')
  await page.getByRole('textbox', { name: 'Address' }).blur()
  await expect(other.getByRole('textbox', { name: 'Address' })).toHaveValue('4 Sluice Lane')

  // Both change the same field: the later one is shown both values and asked.
  const wishes = 'Wishes of the customer'
  await other.getByLabel(wishes).click()
  await page.getByLabel(wishes).fill('quiet siren')
  await page.getByLabel(wishes).blur()
  await expect(page.getByText('All saved')).toBeVisible()
  await page.waitForTimeout(1200)
  await other.getByLabel(wishes).fill('loud siren')
  await other.getByRole('textbox', { name: 'Address' }).click()
  const dialog = other.getByRole('dialog')
  await expect(dialog.getByRole('row', { name: /Yours/ })).toContainText('loud siren')
  await expect(dialog.getByRole('row', { name: /Theirs/ })).toContainText('quiet siren')
  await expect(dialog.getByRole('row', { name: /Theirs/ })).toContainText('Morwen Tallis')
  await dialog.getByRole('button', { name: 'Use mine' }).click()
  await expect(page.getByLabel(wishes)).toHaveValue('loud siren')

  // Undo takes back mine and leaves my colleague's; the same field says who changed it.
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(page.getByText(/is now loud siren \(Idris Quayle/)).toBeVisible()
  await page.getByRole('button', { name: 'Leave everything' }).click()
  await choose(page, 'Grade', 'Grade 1')
  await expect(other.getByRole('button', { name: /Grade 1/ })).toBeVisible()
  await page.getByRole('button', { name: /^Undo: changed the grade of the job/ }).click()
  await expect(other.getByRole('button', { name: /Grade 2/ })).toBeVisible()
  await page.getByRole('button', { name: /^Redo/ }).click()
  await expect(other.getByRole('button', { name: /Grade 1/ })).toBeVisible()

  // Offline work is kept through a reload and sent when the server answers again.
  await page.context().setOffline(true)
  await page.getByRole('textbox', { name: 'Address' }).fill('5 Sluice Lane')
  await page.getByRole('textbox', { name: 'Address' }).blur()
  await expect(page.getByText(/Offline: 1 change waits here/)).toBeVisible()
  await page.context().setOffline(false)
  await expect(other.getByRole('textbox', { name: 'Address' })).toHaveValue('5 Sluice Lane', {
    timeout: 20_000,
  })
  await page.reload()
  await expect(page.getByRole('textbox', { name: 'Address' })).toHaveValue('5 Sluice Lane')

  // The journal tells what was done by whom.
  await page.getByRole('button', { name: 'Journal' }).click()
  await expect(page.getByText('Idris Quayle changed the wishes of the job')).toBeVisible()
  // It leads to where that is worked on.
  await page.goto(page.url().replace('/survey', '/zones'))
  await page.getByRole('button', { name: 'Journal' }).click()
  await page.getByRole('button', { name: 'Show where Idris Quayle changed the wishes of the job' }).click()
  await expect(page).toHaveURL(/\/survey/)
  await other.context().close()
})

test('a visitor is asked to sign in and a wrong password says so', async ({ page }) => {
  await page.goto(`${url()}/jobs`)
  await page.getByLabel('Sign-in name').fill('morwen')
  await page.getByLabel('Password').fill('wrong-password')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toHaveText('Sign-in name and password do not belong together.')
})
