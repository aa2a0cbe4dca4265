import { readFileSync } from 'node:fs'
import { expect, type Page } from '@playwright/test'
import { accessible, signIn, url } from './help.ts'
import { test } from './test.ts'

interface Pack {
  entries: Record<string, unknown>[]
}

test('the catalogue: compare, import a pack, and take its newer entries into a job', async ({ page }) => {
  await signIn(page, 'morwen')
  await page.getByRole('link', { name: 'Catalogue' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Catalogue' })).toBeVisible()
  await compare(page)
  const pack = await exportPack(page)
  await importPacks(page, pack)
  await updateJob(page)
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
  const waiting = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Export as a pack' }).click()
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
  await expect(dialog.getByRole('button', { name: /^Take all/ })).toHaveCount(0)
  await dialog.getByRole('button', { name: 'Cancel' }).click()

  // The maker states that the flood detector needs an answer: one entry is changed, all others are the same.
  const newer = {
    ...pack,
    entries: pack.entries.map((entry) =>
      entry.id === 'device/puddle' ? { ...entry, needsTwoWay: true } : entry,
    ),
  }
  await give('newer.json', JSON.stringify(newer))
  await expect(dialog.getByText(`0 new, 1 changed, ${pack.entries.length - 1} the same.`)).toBeVisible()
  await expect(dialog.getByRole('row', { name: /Puddle/ })).toContainText('≠ changed')
  await accessible(page)
  await dialog.getByRole('button', { name: /^Take all/ }).click()
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
