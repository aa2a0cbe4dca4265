/* Takes pictures of pages of a running product: tsx e2e/look.ts URL SIGN-IN PASSWORD OUT WIDTHxHEIGHT PATH… */
import { chromium } from '@playwright/test'

const [address = '', login = '', password = '', out = '', size = '1280x800', ...paths] = process.argv.slice(2)
const [width = 1280, height = 800] = size.split('x').map(Number)
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width, height } })
page.on('console', (message) => message.type() === 'error' && console.log(message.text()))
page.on('pageerror', (error) => console.log(String(error)))
await page.goto(`${address}/sign-in`)
await page.getByLabel('Sign-in name').fill(login)
await page.getByLabel('Password').fill(password)
await page.getByRole('button', { name: 'Sign in' }).click()
await page.getByRole('heading', { name: 'Jobs' }).waitFor()
for (const [index, path] of paths.entries()) {
  await page.goto(address + path)
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${out}-${index + 1}.png` })
}
await browser.close()
