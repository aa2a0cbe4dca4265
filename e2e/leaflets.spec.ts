import { expect, type Page } from '@playwright/test'
import { accessible, signIn, url } from './help.ts'
import { leafletPdf } from './leaflet-file.ts'
import { test } from './test.ts'

const ROPEWALK = '/jobs/0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001'
const list = (page: Page) => page.getByRole('region', { name: 'Leaflets' })
const give = (page: Page, name: string, buffer: Buffer) =>
  page.getByLabel('Leaflet file').setInputFiles({ name, mimeType: 'application/pdf', buffer })

test('a leaflet: attached, read beside the questions and on site, taken away', async ({ page, browser }) => {
  const leaflet = await leafletPdf('Reedling contact')
  await signIn(page, 'morwen')
  await page.goto(`${url()}/catalogue?show=device/reedling`)
  await expect(list(page)).toContainText('None is attached.')

  await test.step('what is none is refused where it was chosen', async () => {
    await give(page, 'prices.pdf', Buffer.from('<!doctype html>'))
    await expect(list(page).getByRole('alert')).toHaveText(
      'prices.pdf is neither a PDF nor a photo (JPEG, PNG or WebP). Nothing was sent.',
    )
    await give(page, 'empty.pdf', Buffer.alloc(0))
    await expect(list(page).getByRole('alert')).toHaveText('empty.pdf is empty. Nothing was sent.')
    await give(page, 'scan.pdf', Buffer.concat([Buffer.from('%PDF-1.7\n'), Buffer.alloc(10 * 1024 * 1024)]))
    await expect(list(page).getByRole('alert')).toContainText('a leaflet may have 10 MB. Nothing was sent.')
  })

  await test.step('it is shown page by page', async () => {
    await give(page, 'reedling.pdf', leaflet)
    const shown = page.getByRole('region', { name: 'Leaflet reedling.pdf' })
    await expect(shown).toContainText('Magnet and reed may stand 22 mm apart')
    await expect(list(page).getByRole('alert')).toHaveCount(0)
    await shown.getByRole('button', { name: 'Next page' }).click()
    await expect(shown.getByRole('status')).toHaveText('page 2 of 2')
    await expect(shown).toContainText('the terminals')
    await shown.getByRole('button', { name: 'Larger' }).click()
    await accessible(page)
    // Something was drawn: not all of the page is white.
    const dark = await shown.locator('canvas').evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height) ?? {
        data: [],
      }
      return Array.from(data).filter((value, at) => at % 4 === 0 && value < 100).length
    })
    expect(dark).toBeGreaterThan(100)
  })

  await test.step('what cannot be read is said, and does not stand in the way', async () => {
    await give(page, 'torn.pdf', Buffer.concat([leaflet.subarray(0, 600)]))
    await expect(page.getByRole('alert')).toContainText('This PDF cannot be shown here')
    await list(page).getByRole('button', { name: 'Take torn.pdf away' }).click()
    await list(page).getByRole('button', { name: 'Take it away' }).click()
    await expect(list(page)).not.toContainText('torn.pdf')
    await expect(page.getByRole('region', { name: 'Leaflet torn.pdf' })).toHaveCount(0)
  })

  await test.step('a correction has it beside its questions', async () => {
    await page.getByRole('button', { name: 'Correct it' }).click()
    await expect(page.getByRole('heading', { level: 1, name: 'Correct Reedling contact' })).toBeVisible()
    await page.getByRole('button', { name: 'Read reedling.pdf' }).click()
    await expect(page.getByRole('region', { name: 'Leaflet reedling.pdf' })).toContainText('22 mm')
    await give(page, 'of the draft.pdf', leaflet)
    await expect(list(page)).toContainText('of the draft.pdf')
    await page.getByRole('button', { name: 'Put this draft aside…' }).click()
    await page.getByRole('button', { name: 'Put it aside' }).click()
    await expect(page.getByRole('heading', { level: 1, name: 'Catalogue' })).toBeVisible()
  })

  await test.step('it is at hand on site, also for a colleague on a phone', async () => {
    const phone = await browser.newPage({ viewport: { width: 390, height: 844 } })
    await signIn(phone, 'idris')
    for (const stage of ['enrol', 'prove'] as const) {
      await phone.goto(`${url()}${ROPEWALK}/${stage}`)
      await phone
        .getByRole('button', { name: /Porch Front Door/ })
        .first()
        .click()
      await phone.getByRole('button', { name: 'Leaflet', exact: true }).click()
      const dialog = phone.getByRole('dialog')
      await expect(dialog).toContainText('Read it before the cover closes')
      await dialog.getByRole('button', { name: 'Close' }).click()
      await expect(dialog).toHaveCount(0)
    }
    await phone.close()
  })

  await test.step('what is retired meanwhile is offered no more on a page that is open', async () => {
    const other = await browser.newPage()
    await signIn(other, 'idris')
    await other.goto(`${url()}${ROPEWALK}/kit`)
    const find = other.getByRole('combobox', { name: 'Device from the catalogue' })
    const option = other.getByRole('option', { name: /^Beckon pendant/ })
    await find.fill('Beckon pendant')
    await expect(option).toBeVisible()
    await find.press('Escape')
    const say = async (kind: 'Retire it' | 'Offer it') => {
      await page.goto(`${url()}/catalogue?show=device/beckon`)
      const standing = page.getByRole('region', { name: 'How it stands' })
      await standing.getByRole('button', { name: `${kind}…` }).click()
      await standing.getByLabel('Why').fill('for this journey')
      await standing.getByRole('button', { name: kind, exact: true }).click()
      await expect(standing).toContainText('for this journey')
    }
    await say('Retire it')
    // It asks by itself every minute; coming back to the page it asks at once.
    const asked = other.waitForResponse((answer) => answer.url().endsWith('/api/catalogue'))
    await other.evaluate(() => window.dispatchEvent(new Event('focus')))
    await asked
    await find.fill('')
    await find.fill('Beckon pendant')
    await expect(option).toHaveCount(0)
    await say('Offer it')
    await other.close()
  })

  await page.goto(`${url()}/catalogue?show=device/reedling`)
  await list(page).getByRole('button', { name: 'Take reedling.pdf away' }).click()
  await list(page).getByRole('button', { name: 'Keep it' }).click()
  await expect(list(page)).toContainText('reedling.pdf')
  await list(page).getByRole('button', { name: 'Take reedling.pdf away' }).click()
  await list(page).getByRole('button', { name: 'Take it away' }).click()
  await expect(list(page)).toContainText('None is attached.')
})
