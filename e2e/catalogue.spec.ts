import { readFileSync } from 'node:fs'
import { expect, type Page } from '@playwright/test'
import { accessible, signIn, url } from './help.ts'
import { test } from './test.ts'

interface Pack {
  entries: Record<string, unknown>[]
  signature?: unknown
}

test('the catalogue: compare, import a pack, and take its newer entries into a job', async ({ page }) => {
  await signIn(page, 'morwen')
  await page.getByRole('link', { name: 'Catalogue' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Catalogue' })).toBeVisible()
  await compare(page)
  const pack = await exportPack(page)
  await importPacks(page, pack)
  await updateJob(page)
  await prices(page)
})

async function compare(page: Page): Promise<void> {
  const list = page.getByRole('list', { name: 'Entries' })
  await page.getByLabel('Find any word, code or figure').fill('reedling')
  await list.getByRole('button', { name: /^Reedling contact/ }).click()
  await list.getByRole('button', { name: /^Reedling Old contact/ }).click()
  // The successor's loops differ, and that is marked by a sign, not by colour alone.
  await expect(page.getByRole('row', { name: /^≠ Loops/ })).toContainText('3 reed, 4 wired terminals')
  await expect(page.getByRole('row', { name: /^≠ Loops/ })).toContainText('1 reed, 2 wired terminals')
  await accessible(page)
  await page.getByLabel('Find any word, code or figure').fill('no such thing')
  await expect(page.getByText(/Nothing like it/)).toBeVisible()
  await page.getByLabel('Find any word, code or figure').fill('')
}

async function exportPack(page: Page): Promise<Pack> {
  await page.getByRole('button', { name: 'Share a pack' }).click()
  const dialog = page.getByRole('dialog')
  // What is laid side by side is proposed; here all that is offered goes.
  await expect(dialog.getByLabel('What the pack is')).toHaveValue('Reedling contact, Reedling Old contact')
  await expect(dialog).toContainText('With what they need: Wren (radio family).')
  await accessible(page)
  await dialog.getByLabel('What the pack is').fill('')
  await dialog.getByRole('button', { name: 'Save a pack of 3 entries' }).click()
  await expect(dialog).toContainText('Say what the pack is, in 1 to 120 characters.')
  await dialog.getByLabel('What the pack is').fill('All of ours')
  await dialog.getByLabel(/^All that is offered for real work/).check()
  const waiting = page.waitForEvent('download')
  await dialog.getByRole('button', { name: /^Save a pack of \d+ entries/ }).click()
  await expect(dialog).toHaveCount(0)
  return JSON.parse(readFileSync(await (await waiting).path(), 'utf8')) as Pack
}

async function importPacks(page: Page, pack: Pack): Promise<void> {
  const file = page.getByLabel('Catalogue pack file')
  const dialog = page.getByRole('dialog')
  const give = (name: string, text: string) =>
    file.setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) })

  await give('torn.json', '{"kapellePack": 1,')
  await expect(dialog).toContainText('torn.json is not valid JSON')
  await dialog.getByRole('button', { name: 'Cancel' }).click()
  await give('huge.json', `"${'x'.repeat(5_100_000)}"`)
  await expect(dialog).toContainText('a catalogue pack may have at most 5 MB. Nothing was sent.')
  await dialog.getByRole('button', { name: 'Cancel' }).click()
  const odd = {
    ...pack,
    entries: pack.entries.map((entry) => (entry.id === 'device/puddle' ? { ...entry, petKg: 'cat' } : entry)),
  }
  await give('odd.json', JSON.stringify(odd))
  await expect(dialog).toContainText('device/puddle.petKg must be a number')
  await expect(dialog.getByRole('button', { name: /^Take/ })).toHaveCount(0)
  await dialog.getByRole('button', { name: 'Cancel' }).click()

  // As it was written it is one’s own; with a sign changed it no longer fits what was signed.
  await give('own.json', JSON.stringify(pack))
  await expect(dialog).toContainText('Signed by your own firm’s key, and not changed since.')
  await expect(dialog).toContainText('Nothing of it would change your catalogue.')
  await dialog.getByRole('button', { name: 'Cancel' }).click()
  await give('changed.json', JSON.stringify({ ...pack, title: 'Ours, better' }))
  await expect(dialog).toContainText('it was changed after it was signed, or another key signed it')
  await expect(dialog.getByRole('button', { name: /^Take/ })).toHaveCount(0)
  await dialog.getByRole('button', { name: 'Cancel' }).click()

  // The maker states that the flood detector needs an answer: one entry is changed, all others are the same.
  const { signature: _signature, ...unsigned } = pack
  const newer = {
    ...unsigned,
    entries: pack.entries.map((entry) =>
      entry.id === 'device/puddle' ? { ...entry, needsTwoWay: true } : entry,
    ),
  }
  await give('newer.json', JSON.stringify(newer))
  await expect(dialog.getByText(`0 new, 1 changed, ${pack.entries.length - 1} the same.`)).toBeVisible()
  await expect(dialog).toContainText('Nobody signed this pack')
  const puddle = dialog.getByRole('listitem').filter({ hasText: 'Puddle' })
  await expect(puddle).toContainText('≠ changed')
  await expect(puddle).toContainText('Differs in: Needs a receiver that answers')
  // Nothing of one's own is replaced unless that is said.
  await expect(puddle).toContainText('Yours stays; theirs is not taken.')
  await expect(dialog.getByRole('button', { name: /^Take/ })).toHaveCount(0)
  await puddle.getByRole('button', { name: 'Both' }).click()
  await expect(puddle).toContainText('Theirs comes beside yours, as “Puddle flood (pack)”.')
  await puddle.getByRole('button', { name: 'Theirs' }).click()
  await accessible(page)
  await dialog.getByRole('button', { name: 'Take 1 entry' }).click()
  await expect(dialog).toHaveCount(0)
}

async function updateJob(page: Page): Promise<void> {
  await page.goto(`${url()}/jobs`)
  await page.getByRole('link', { name: 'The Old Ropewalk' }).click()
  await expect(page.getByText('23 devices, 22 fit as they are, 1 does not')).toBeVisible()
  await page.getByRole('button', { name: 'What would change…' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByText('Findings that would come: 1')).toBeVisible()
  await expect(
    dialog.getByText(/Puddle flood needs an answer, and Tarn radio only listens to Wren/),
  ).toBeVisible()
  await accessible(page)
  await dialog.getByRole('button', { name: 'Take the newer ones' }).click()
  await expect(page.getByText('23 devices, 21 fit as they are, 2 do not')).toBeVisible()
  await page.reload()
  await expect(page.getByText('23 devices, 21 fit as they are, 2 do not')).toBeVisible()
  await page.getByRole('button', { name: 'Undo: took newer catalogue entries' }).click()
  await expect(page.getByText('23 devices, 22 fit as they are, 1 does not')).toBeVisible()
  await expect(page.getByRole('button', { name: 'What would change…' })).toBeVisible()
}

/** Prices go out as a list, and come in from a supplier's whose headings are said once. */
async function prices(page: Page): Promise<void> {
  await page.goto(`${url()}/catalogue`)
  await page.getByRole('button', { name: 'Prices' }).click()
  const dialog = page.getByRole('dialog')
  const waiting = page.waitForEvent('download')
  await dialog.getByRole('button', { name: 'Save the list (CSV)' }).click()
  const own = readFileSync(await (await waiting).path(), 'utf8')
  expect(own).toContain('device/wick,Wick CO alarm,Hallmere Signal,gas,Wren,118.00,EUR,1,')
  const give = (name: string, text: string) =>
    page
      .getByLabel('Price list file')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
  await give('own.csv', own)
  await expect(dialog).toContainText('0 prices change,')
  await expect(dialog.getByRole('button', { name: /^Take/ })).toHaveCount(0)

  const theirs = 'Artikel;Preis\nWick CO alarm;121,50 €\nPuddle flood;1.234\nBeckon pendant;96\n'
  await give('theirs.csv', theirs)
  await expect(dialog).toContainText('No column says what a device costs.')
  await dialog.getByLabel('Preis').selectOption('price')
  await dialog.getByLabel('Artikel').selectOption('device')
  await expect(dialog).toContainText('2 prices change, 0 stay as they are.')
  await expect(dialog).toContainText('▲ 1 is at least twice or at most half of what it was')
  await expect(dialog).toContainText('Row 3: price “1.234” could be 1234 or 1.234')
  await expect(dialog.getByRole('row', { name: /Wick CO alarm/ })).toContainText('121.50 EUR')
  await accessible(page)
  await dialog.getByRole('button', { name: 'Take 2 prices' }).click()
  await expect(dialog).toContainText('2 prices were taken.')
  // What the headings mean is known from now on.
  await give('theirs.csv', theirs)
  await expect(dialog).toContainText('0 prices change, 2 stay as they are.')
}
