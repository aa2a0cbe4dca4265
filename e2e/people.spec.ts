import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect } from '@playwright/test'
import { accessible, choose, signIn, url } from './help.ts'
import { product, test } from './test.ts'

const password = 'long enough 12'

test('an owner invites somebody, gives and takes, and sees the service; links work once', async ({
  page,
  browser,
}) => {
  await signIn(page, 'morwen')
  await page.goto(`${url()}/people`)
  await expect(page.getByRole('row', { name: /Idris Quayle/ })).toContainText('idris')
  await page.getByLabel(/Who it is for/).fill('Dai Moss')
  await page.getByRole('button', { name: 'Make the link' }).click()
  await expect(page.getByText('Send this to Dai Moss.')).toBeVisible()
  const link = await page.locator('code').innerText()
  await accessible(page)
  await expect(page.getByRole('row', { name: /Dai Moss, invited/ })).toContainText('until')

  // What is wrong stands at its field, and the link works again.
  const other = await (await browser.newContext()).newPage()
  await other.goto(link)
  await expect(other.getByText('invites you as an installer')).toBeVisible()
  await expect(other.getByLabel(/Your name/)).toHaveValue('Dai Moss')
  await other.getByLabel(/Sign-in name/).fill('dai')
  await other.getByLabel(/Password/).fill('short')
  await other.getByRole('button', { name: 'Come in' }).click()
  await expect(other.getByText('must have at least 10 characters')).toBeVisible()
  await accessible(other)
  await other.getByLabel(/Password/).fill(password)
  await other.getByRole('button', { name: 'Come in' }).click()
  await expect(other.getByRole('heading', { name: 'Jobs' })).toBeVisible()
  expect(other.url()).not.toContain('#')

  // What the owner keeps for others he may not; once it is given, he may.
  await other.goto(`${url()}/house-rules`)
  await expect(other.getByText('Only an owner changes them')).toBeVisible()
  await page.reload()
  const row = page.getByRole('row', { name: /Dai Moss/ })
  await row.getByLabel('house rules').check()
  await expect(page.getByRole('status')).toContainText('Dai Moss is an installer now.')
  await expect(async () => {
    await other.reload()
    await expect(other.getByRole('heading', { name: 'Schools' })).toBeVisible({ timeout: 2_000 })
    await expect(other.getByText('Only an owner changes them')).toBeHidden({ timeout: 500 })
  }).toPass()

  // The link is spent.
  const late = await (await browser.newContext()).newPage()
  await late.goto(link)
  await expect(late.getByRole('heading', { name: 'This link does not work' })).toBeVisible()
  await late.getByRole('link', { name: 'To sign-in' }).click()
  await expect(late.getByRole('heading', { name: 'Sign in' })).toBeVisible()

  // His own account: two sessions, one ended from the other; a new password.
  await late.getByLabel('Sign-in name').fill('dai')
  await late.getByLabel('Password').fill(password)
  await late.getByRole('button', { name: 'Sign in' }).click()
  await expect(late.getByRole('heading', { name: 'Jobs' })).toBeVisible()
  await late.goto(`${url()}/account`)
  await expect(late.getByRole('row')).toHaveCount(3)
  await accessible(late)
  await late.getByRole('button', { name: 'Sign out everywhere else' }).click()
  await expect(late.getByRole('row')).toHaveCount(2)
  await late.getByLabel('Password now').fill('wrong one 12')
  await late.getByLabel('New password').fill('another one 12')
  await late.getByRole('button', { name: 'Change it' }).click()
  await expect(late.getByText('is not the password in force')).toBeVisible()
  await late.getByLabel('Password now').fill(password)
  await late.getByRole('button', { name: 'Change it' }).click()
  await expect(late.getByText('The password is changed.')).toBeVisible()

  // What he does while the server is away waits on this device.
  const ropewalk = `${url()}/jobs/0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001`
  await late.goto(`${ropewalk}/survey`)
  await expect(late.getByRole('heading', { level: 1, name: 'Survey' })).toBeVisible()
  await late.route('**/edits', (route) => route.abort())
  await late.getByLabel('Wishes of the customer').fill('A quiet siren, says Dai')
  await late.getByLabel('Wishes of the customer').blur()
  await expect(late.getByText(/Offline: 1 change waits here/)).toBeVisible()

  // Taken out of the firm: asked first, then gone, and the name stays.
  await page.reload()
  await row.getByRole('button', { name: 'Remove…' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Cancel' }).click()
  await expect(row).toBeVisible()
  await row.getByRole('button', { name: 'Remove…' }).click()
  await accessible(page)
  await page.getByRole('dialog').getByRole('button', { name: 'Take out' }).click()
  await expect(page.getByText(/Left the firm, named in journals: Dai Moss/)).toBeVisible()
  await expect(async () => {
    await late.reload()
    await expect(late.getByRole('heading', { name: 'Sign in' })).toBeVisible({ timeout: 2_000 })
  }).toPass()
  // The owner signs in there and hands it in: the owner's now, made by him.
  await late.unroute('**/edits')
  await signIn(late, 'morwen')
  await late.goto(`${url()}/people`)
  await expect(late.getByText(/1 change of Dai Moss waits/)).toBeVisible()
  await accessible(late)
  await late.getByRole('button', { name: 'Hand them in' }).click()
  await expect(late.getByText('One change is handed in.')).toBeVisible()
  await late.goto(`${ropewalk}/survey`)
  await expect(late.getByLabel('Wishes of the customer')).toHaveValue('A quiet siren, says Dai')
  await late.getByRole('button', { name: 'Journal' }).click()
  await expect(late.getByText(/Morwen Tallis.*made by Dai Moss, who left/).first()).toBeVisible()

  // The last owner stays one.
  await choose(page, 'Role of Morwen Tallis', 'viewer')
  await expect(page.getByText('The firm needs an owner')).toBeVisible()
  await expect(page.getByRole('row', { name: /Morwen Tallis/ })).toContainText('everything')

  await page.goto(`${url()}/service`)
  await expect(page.getByText('Running since')).toBeVisible()
  await expect(async () => {
    await page.reload()
    await expect(page.getByRole('cell', { name: /^kapelle-\d{8}-\d{6}\.gz$/ })).toBeVisible({
      timeout: 2_000,
    })
  }).toPass()
  await accessible(page)
})

test('work goes on while the database is killed and comes back', async ({ page }) => {
  await signIn(page, 'idris')
  await page.goto(`${url()}/jobs/new`)
  await page.getByLabel('Name of the job').fill('Weir House')
  await page.getByRole('button', { name: 'Begin the job' }).click()
  await expect(page.getByRole('heading', { name: 'Survey' })).toBeVisible()
  const folder = join(product().data, 'db')
  process.kill(Number(readFileSync(join(folder, 'db.pid'), 'utf8')), 'SIGKILL')
  const wishes = page.getByLabel('Wishes of the customer')
  for (const words of ['no siren at night', 'no siren at night, two fobs']) {
    await wishes.fill(words)
    await wishes.blur()
  }
  await expect(page.getByText('All saved')).toBeVisible({ timeout: 60_000 })
  await page.reload()
  await expect(wishes).toHaveValue('no siren at night, two fobs')
})
