import { expect, type Locator, type Page } from '@playwright/test'
import { accessible, choose, signIn, stage } from './help.ts'
import { keysOn, linesOn, PanelOnTheWall } from './panel-in-hand.ts'
import { test } from './test.ts'

/** What the nine stickers say, what they turn out to be, and where they are. */
const stickers = [
  ['Pebble Two 3F 9A0C', 'Plover', 'Pebble Two contact', 'Hall'],
  ['3F9 A41', 'Plover', 'Pebble contact', 'Kitchen'],
  ['skitter dog 4B09E1', 'Plover', 'Skitter Dog motion', 'Hall'],
  ['Ashcap ID: 51C 207', 'Plover', 'Ashcap smoke', 'Landing'],
  ['Reedling Old 2041 7790', 'Wren', 'Reedling Old contact', 'Front room'],
  ['4405 1344 Stilt', 'Wren', 'Stilt motion', 'Front room'],
  ['Beckon 7025 0455', 'Wren', 'Beckon pendant', 'Bedroom'],
  ['Sill 8 K 204 118', 'Curlew 8', 'Sill 8 contact', 'Kitchen'],
  ['singer k331507', 'Curlew 8', 'Singer 8 indoor siren', 'Hall'],
] as const

test('a takeover: identify what is there, choose a panel, keep what fits, remedy the rest', async ({
  page,
}) => {
  await signIn(page, 'morwen')
  await page.getByRole('link', { name: 'New job' }).click()
  await page.getByLabel('Name of the job').fill('Gull Court 3')
  await choose(page, 'New or takeover', /Takeover/)
  await choose(page, 'Grade', 'Grade 1')
  await choose(page, 'Reports', 'Local only')
  await page.getByRole('button', { name: 'Begin the job' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Survey' })).toBeVisible()
  await stage(page, 'Kit')
  await identifyAll(page)
  await choosePanel(page)
  await keepAndRemedy(page)
  await takeStock(page)
})

async function identifyAll(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Identify a sticker' }).click()
  const dialog = page.getByRole('dialog')
  const text = dialog.getByLabel('Type, paste or scan what the sticker says')
  await text.fill('7')
  await expect(dialog.getByText('No family of the catalogue has such an ID.')).toBeVisible()
  for (const [sticker, family, model, room] of stickers) {
    await text.fill(sticker)
    const first = dialog.getByRole('list', { name: 'What it could be' }).getByRole('button').first()
    await expect(first).toContainText(family)
    await first.click()
    if (!(await dialog.getByText(model, { exact: true }).isVisible()))
      await choose(page, 'Model', new RegExp(`^${model}$`))
    await dialog.getByRole('textbox', { name: 'Room' }).fill(room)
    if (sticker === stickers[0][0]) await accessible(page)
    await dialog.getByRole('button', { name: 'Add as existing' }).click()
    await expect(dialog.getByText(`✓ ${model} is in the kit.`)).toBeVisible()
  }
  // The same sticker twice is told.
  await text.fill('K204118')
  await dialog.getByRole('list', { name: 'What it could be' }).getByRole('button').first().click()
  await expect(dialog.getByText('This ID is in the kit already: Sill 8 contact, Kitchen.')).toBeVisible()
  await expect(dialog.getByRole('button', { name: 'Add as existing' })).toBeDisabled()
  await dialog.getByRole('button', { name: 'Done' }).click()
  await expect(page.getByText('9 devices')).toBeVisible()
  await expect(page.getByText('No panel is chosen yet, so nobody can tell what fits.')).toBeVisible()
}

async function choosePanel(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Which panel?' }).click()
  const rows = page.getByRole('region', { name: 'Which panel' }).getByRole('row')
  // Best first: four of the nine are Plover, and the Pinfold hears them as it comes.
  await expect(rows.nth(1)).toContainText('Pinfold 16')
  await expect(rows.nth(1)).toContainText('4 of 9')
  await expect(rows.nth(2)).toContainText('4 of 9 with Sallow bridge')
  await expect(page.getByRole('row', { name: /Morrow 60/ })).toContainText('is not made for this region')
  await accessible(page)
  await page.getByRole('button', { name: 'Choose Pinfold 16' }).click()
  await expect(page.getByText('5 of 9 devices do not fit it as it comes.')).toBeVisible()
  await page.getByRole('button', { name: 'Choose it' }).click()
  await expect(page.getByText('9 devices, 4 fit as they are, 5 do not')).toBeVisible()
}

async function keepAndRemedy(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Fit grid' }).click()
  const grid = page.getByRole('grid', { name: 'Fit grid' })
  await grid.getByRole('button', { name: 'Stilt motion in this job: does not fit' }).click()
  const why = page.getByRole('complementary', { name: 'Why, and what would help' })
  await expect(why.getByText('Pinfold radio hears the same band but not the Wren protocol.')).toBeVisible()
  // The arrow keys walk the grid: one to the right is the receiver, then the other panels.
  await page.keyboard.press('ArrowRight')
  await expect(
    grid.getByRole('button', { name: 'Stilt motion with Pinfold radio: does not fit' }),
  ).toBeFocused()
  await page.keyboard.press('ArrowUp')
  await expect(grid.getByRole('button', { name: /^Reedling Old contact with Pinfold radio/ })).toBeFocused()
  await accessible(page)

  // The whole kit at once: the cheapest way, searched in a worker, previewed and left for now.
  await page.getByRole('button', { name: 'Make it all fit' }).click()
  const solver = page.getByRole('dialog')
  // Four radio swaps and one wired siren at 5 each; another panel would cost 40 and strand the Plover devices.
  await expect(solver.getByText('✓ Everything fits, at a cost of 25.')).toBeVisible()
  await expect(solver.getByText(/swap Stilt motion, Front room for Skitter/)).toBeVisible()
  await accessible(page)
  await solver.getByRole('button', { name: 'Apply all of it' }).click()
  await expect(page.getByText('9 devices, 9 fit as they are, 0 do not')).toBeVisible()
  await page.getByRole('button', { name: 'Undo: applied a remedy' }).click()
  await expect(page.getByText('9 devices, 4 fit as they are, 5 do not')).toBeVisible()

  // Each that does not fit is swapped by its cheapest remedy, previewed first.
  await grid.getByRole('button', { name: /^Reedling Old contact in this job/ }).click()
  await why.getByRole('button', { name: /^Swap it for Pebble contact/ }).click()
  await expect(why.getByText(/does not fit → fits/)).toBeVisible()
  await why.getByRole('button', { name: 'Apply' }).click()
  await expect(page.getByText('9 devices, 5 fit as they are, 4 do not')).toBeVisible()
  await page.getByRole('button', { name: 'Undo: applied a remedy' }).click()
  await expect(page.getByText('9 devices, 4 fit as they are, 5 do not')).toBeVisible()
  await page.getByRole('button', { name: /^Redo/ }).click()
  for (const left of [3, 2, 1, 0]) {
    await grid
      .getByRole('button', { name: /in this job: does not fit/ })
      .first()
      .click()
    await why.getByRole('listitem').getByRole('button').first().click()
    await why.getByRole('button', { name: 'Apply' }).click()
    await expect(page.getByText(`${left} ${left === 1 ? 'does' : 'do'} not`)).toBeVisible()
  }

  // What stays is marked, and what keeping saves is summed.
  await page.getByRole('button', { name: 'List' }).click()
  await page.getByRole('button', { name: 'More of Pebble Two contact in Hall' }).click()
  await page.getByLabel('Plan for Pebble Two contact in Hall').selectOption('keep')
  const year = page.getByLabel('Year of Pebble Two contact in Hall')
  await year.fill('1066')
  await year.blur()
  await expect(page.getByText('must be a year from 1980 to 2100')).toBeVisible()
  await year.fill('2019')
  await year.blur()
  await expect(page.getByText(/there already · made 2019 · keep/)).toBeVisible()
  await expect(page.getByRole('region', { name: 'Batteries and cost' })).toContainText(
    'keeping what is there saves',
  )
  await accessible(page)
}

/** What somebody keyed into the panel years ago: a door with its chime, a longer way in, and a zone of which the job knows nothing. */
const keyedOnce = new Map([
  ['system.entry1', '45'],
  ['zone.9.response', '1'],
  ['zone.9.serial', '3F9A0C'],
  ['zone.9.loop', '1'],
  ['zone.9.chime', 'on'],
  ['zone.3.response', '5'],
])

/** The panel on the wall, read off without changing it: what it holds stands beside the plan, and the plan may follow. */
async function takeStock(page: Page): Promise<void> {
  await stage(page, 'Zones')
  await page.getByRole('button', { name: 'Number everything' }).click()
  await expect(page.getByText('Number afresh')).toBeVisible()
  await stage(page, 'Program')
  await page.getByRole('button', { name: 'Take stock' }).click()
  const stock = page.getByRole('region', { name: 'Take stock' })
  const panel = new PanelOnTheWall('panel/pinfold-16', keyedOnce)
  const exactly = stock.getByRole('button', { name: 'It shows exactly this' })
  const something = stock.getByRole('button', { name: 'Something stands there' })
  const read = stock.getByRole('button', { name: 'Read', exact: true })
  await expect(exactly.or(read)).toBeVisible()
  const limit = stock.getByLabel(/Look at zones up to/)
  await limit.fill('90')
  await limit.press('Enter')
  await expect(stock.getByText('A zone number from 1 to 16, or nothing for all.')).toBeVisible()
  await limit.fill('')
  await limit.press('Enter')
  await expect(limit).toHaveValue('')
  await accessible(page)
  for (let asked = 0; asked < 120 && (await exactly.or(read).isVisible()); asked++) {
    const left = (await stock.getByText(/^\d+ values? to be read/).textContent()) ?? ''
    if ((await stock.locator('.press').count()) > 0) panel.press(await keysOn(stock.locator('.press')))
    if ((await exactly.isVisible()) && (await linesOn(stock)).join('|') === panel.shows.join('|'))
      await exactly.click()
    else {
      if (await something.isVisible()) await something.click()
      await typeDisplay(stock, panel.shows)
      await read.click()
      await stock.getByRole('button', { name: 'It stands there so' }).click()
    }
    await expect(stock.getByText(left, { exact: true })).toHaveCount(0)
  }
  await expect(stock.getByRole('heading', { name: /^All that is in use/ })).toBeVisible()
  await expect(stock.getByText(/Zone 3 is in use and not in the plan/)).toBeVisible()
  await expect(stock.getByText('■ the plan wants 30 s')).toBeVisible()
  await accessible(page)
  // Nothing that it holds was changed on the way.
  for (const [address, value] of keyedOnce) expect([address, panel.kept(address)]).toEqual([address, value])
  await stock.getByRole('button', { name: 'The plan follows the panel…' }).click()
  await stock.getByRole('button', { name: 'Take it into the plan' }).click()
  await expect(stock.getByText('■ the plan wants 30 s')).toHaveCount(0)
  await stage(page, 'Zones')
  await expect(page.getByText('45 s').first()).toBeVisible()
}

async function typeDisplay(place: Locator, lines: readonly string[]): Promise<void> {
  for (const [index, line] of lines.entries())
    await place
      .getByLabel(lines.length === 1 ? 'What the display shows' : `Line ${index + 1} of the display`)
      .fill(line)
}
