import { readFileSync } from 'node:fs'
import { expect, type Page } from '@playwright/test'
import { answers, asked, begin, countActs, pick, pickSeen, press, type } from './describing.ts'
import { accessible, colleague, signIn, url } from './help.ts'
import { test } from './test.ts'

// What is published here no other journey has in its catalogue.
test.use({ apart: 'describe' })

test('the firm’s own catalogue: a family and a device described from their leaflets, tried, published, corrected, and planned with', async ({
  page,
  browser,
}) => {
  await signIn(page, 'morwen')
  await page.goto(`${url()}/catalogue`)
  await describeFamily(page)
  await describeDevice(page)
  await together(page, await colleague(browser, new URL(page.url()).pathname))
  await publish(page, 'Burrow contact', 'its leaflet, page 4')
  await correct(page)
  await fromSpreadsheet(page)
  await plannedWith(page)
})

test('a contact takes 25 acts and a detector of three events 45, from the catalogue to its published entry', async ({
  page,
}) => {
  await signIn(page, 'morwen')
  await page.goto(`${url()}/catalogue`)
  const acts = await countActs(page)
  // The leaflet: like the Reedling Slim, but on loop 5 and of another battery.
  await beginLike(page, 'slim', 'Reedling Slim contact')
  await answers(page, { 'What is it called?': 'Burrow lid' })
  await type(asked(page, 'Which events does it report').getByLabel('Loop shown'), '5')
  await press(page, 'Of which type?', 'CR2450')
  await publishAsItIs(page, 'Burrow lid', /loop 5/)
  const contact = await acts.count()
  // The leaflet: like the Ember One, but with heat and frost, two batteries, and up to 50 °C.
  await beginLike(page, 'ember o', 'Ember One smoke')
  await answers(page, { 'What is it called?': 'Burrow ash' })
  const events = asked(page, 'Which events does it report')
  for (const [index, [event, loop]] of [
    ['heat', '2'],
    ['frost', '4'],
  ].entries()) {
    await events.getByRole('button', { name: 'Add an event' }).click()
    const row = events.getByRole('group', { name: `event ${index + 2}` })
    await pickSeen(row, 'What happens', event ?? '')
    await type(row.getByLabel('Loop shown'), loop ?? '')
  }
  await answers(page, { 'Up to which?': '50', 'How many batteries?': '2' })
  await publishAsItIs(page, 'Burrow ash', /loop 4/)
  const detector = (await acts.count()) - contact
  expect(contact).toBeLessThanOrEqual(25)
  expect(detector).toBeLessThanOrEqual(45)
})

/** Begins a new entry like one that is found by what is typed. */
async function beginLike(page: Page, typed: string, name: string): Promise<void> {
  // What was just published is shown: put away, else the two would be compared.
  const before = page.getByRole('button', { pressed: true }).and(page.locator('.entry'))
  if ((await before.count()) > 0) await before.click()
  await page.getByLabel('Find any word, code or figure').fill(typed)
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click()
  await page.getByRole('button', { name: 'Begin a new one like it' }).click()
  await expect(page.getByText(`begun like ${name}`)).toBeVisible()
}

async function publishAsItIs(page: Page, name: string, holds: RegExp): Promise<void> {
  await expect(page.getByRole('region', { name: 'What it does' })).toContainText(holds)
  await expect(page.getByText('All saved')).toBeVisible()
  await page.getByRole('complementary').getByRole('button', { name: 'Publish it' }).click()
  await expect(page.getByRole('button', { name, pressed: true })).toBeVisible()
}

async function describeFamily(page: Page): Promise<void> {
  await begin(page, 'A radio family')
  await answers(page, { 'Who makes it?': 'Penbrook', 'What is it called?': 'Burrow' })
  await press(page, 'Where is it made for?', 'Europe')
  await answers(page, { 'On which frequency does it send?': '86x' })
  await expect(asked(page, 'On which frequency does it send?')).toContainText(
    '“86x” is no number: from 1 to 6000 MHz',
  )
  await answers(page, { 'On which frequency does it send?': '8689' })
  await expect(asked(page, 'On which frequency does it send?')).toContainText('must be from 1 to 6000 MHz')
  await answers(page, { 'On which frequency does it send?': '868,9' })
  await press(page, 'Does it only send, or also hear?', 'it only sends')
  await press(page, 'Is what it sends encrypted?', 'never')
  await press(page, 'Who hears it?', 'the receiver, each for itself')
  await stickers(page)
  await answers(page, { 'How would you describe the sticker?': 'ten signs, the ID behind the first two' })
  await answers(page, {
    'In what is the link read?': 'bars',
    'From which reading on is it good?': '4',
    'Below which does it no longer hold?': '2',
  })
  await press(page, 'Where is it read?', 'at the panel or receiver')
  // Before it counts a wrong sticker is refused and a right one read.
  const does = page.getByRole('region', { name: 'What it does' })
  await does.getByLabel('Try a sticker').fill('RK 2041 2249')
  await expect(does).toContainText('ID 20412249')
  await does.getByLabel('Try a sticker').fill('RK 2041 224')
  await expect(does).toContainText('■')
  await accessible(page)
  await publish(page, 'Burrow', 'its leaflet')
}

/** Three stickers and what the panel showed of two of them: what is open is asked first. */
async function stickers(page: Page): Promise<void> {
  const at = asked(page, 'What do its stickers look like?')
  await at.getByLabel('Sticker 1, as printed').fill('QX 2041 2247')
  await expect(at).toContainText('Which part of it is the ID?')
  await expect(at.getByRole('button', { name: 'Take this rule' })).toBeDisabled()
  await at.getByLabel('Sticker 2, as printed').fill('QX 2041 224')
  await expect(at).toContainText('Sticker 2 has 9 characters and sticker 1 has 10')
  await at.getByLabel('Sticker 2, as printed').fill('ZB 1177 9031')
  await at.getByLabel('The panel then showed').nth(1).fill('1177 9031')
  await at.getByLabel('Sticker 3, as printed').fill('MH 4410 2086')
  await at.getByLabel('The panel then showed').nth(2).fill('4410 2086')
  await expect(at).toContainText(
    '10 characters, letters and digits; the ID is characters 3 to 10, shown as 4 + 4',
  )
  await at.getByRole('button', { name: 'Take this rule' }).click()
  await expect(at).toContainText('✓ 10 characters')
}

async function describeDevice(page: Page): Promise<void> {
  await page.goto(`${url()}/catalogue`)
  await begin(page, 'A device')
  await answers(page, { 'Who makes it?': 'Penbrook', 'What is it called?': 'Burrow contact' })
  await press(page, 'Where is it made for?', 'Europe')
  await pick(asked(page, 'What kind of device is it?'), 'What kind of device is it?', 'contact')
  // Not said of which family it is: it is not taken for a wired one.
  await expect(
    page.getByRole('complementary').getByRole('link', { name: 'Which radio family does it speak?' }),
  ).toBeVisible()
  await pick(asked(page, 'Which radio family does it speak?'), 'Which radio family does it speak?', 'Wren')
  const events = asked(page, 'Which events does it report')
  await events.getByRole('button', { name: 'Add an event' }).click()
  await expect(events).toContainText('event 1, what happens: is missing')
  await pick(events, 'What happens', 'opening (reed)')
  await type(events.getByLabel('Loop shown'), '3')
  const ways = asked(page, 'How is it made to send')
  await ways.getByRole('button', { name: 'Add a way' }).click()
  await type(ways.getByLabel('What is done'), 'open the door')
  await pick(ways, 'The panel then hears', 'its event')
  await answers(page, {
    'Where is its sticker?': 'inside the lid',
    'From which temperature on does it work?': '-10',
    'Up to which?': '50',
    'How many batteries?': '1',
    'Of which type?': 'CR2032',
  })
  const does = page.getByRole('region', { name: 'What it does' })
  await expect(does).toContainText('One zone: opening (reed) on loop 3.')
  // A panel that asks for an equipment code is not satisfied without one.
  await expect(does).toContainText('must be told the equipment code')
  const codes = asked(page, 'Which equipment code does a panel ask for it?')
  await codes.getByRole('button', { name: 'Add a code' }).click()
  await pick(codes, 'Panel', 'Tarn 40')
  await type(codes.getByLabel('Code', { exact: true }), '329')
  // What nobody states is not taken for the better case; that it is not known is an answer, too.
  const first = does.getByRole('listitem').first()
  const openly = /cannot tell.*Tarn 40.*Not stated of Burrow contact: how often it checks in/
  await expect(first).toContainText(openly)
  await asked(page, 'How often does it check in?')
    .getByRole('button', { name: /not stated$/ })
    .click()
  await expect(first).toContainText(openly)
  await answers(page, { 'How often does it check in?': '60' })
  await expect(first).toContainText(/fits.*Tarn 40/)
  await accessible(page)
}

/** A colleague answers another question of the same draft; an answer is taken back and brought again. */
async function together(page: Page, other: Page): Promise<void> {
  await expect(other.getByRole('heading', { level: 1, name: 'Burrow contact' })).toBeVisible()
  await type(asked(other, 'How far apart may magnet and contact be?').getByRole('textbox').first(), '22')
  await expect(
    asked(page, 'How far apart may magnet and contact be?').getByRole('textbox').first(),
  ).toHaveValue('22')
  await answers(page, { 'Up to which?': '55' })
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(asked(page, 'Up to which?').getByRole('textbox').first()).toHaveValue('50')
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(asked(page, 'Up to which?').getByRole('textbox').first()).toHaveValue('55')
  await page.reload()
  await expect(asked(page, 'Up to which?').getByRole('textbox').first()).toHaveValue('55')
  await bothAdd(page, other)
  await other.context().close()
}

/** Two people add a way of sending, one of them without a line to the server: both are kept. */
async function bothAdd(page: Page, other: Page): Promise<void> {
  const ways = (at: Page) => asked(at, 'How is it made to send')
  const add = async (at: Page, what: string) => {
    await ways(at).getByRole('button', { name: 'Add a way' }).click()
    const row = ways(at)
      .getByRole('group', { name: /^way \d$/ })
      .last()
    await type(row.getByLabel('What is done'), what)
    await pick(row, 'The panel then hears', 'a button')
  }
  await other.context().setOffline(true)
  await add(other, 'hold the lid switch')
  await add(page, 'press the lens')
  await expect(page.getByText('All saved')).toBeVisible()
  await other.context().setOffline(false)
  for (const at of [page, other]) {
    await expect(ways(at).getByLabel('What is done')).toHaveCount(3)
    await expect(ways(at).getByLabel('What is done').nth(1)).toHaveValue('press the lens')
    await expect(ways(at).getByLabel('What is done').nth(2)).toHaveValue('hold the lid switch')
  }
  for (const row of ['way 3', 'way 2']) await page.getByRole('button', { name: `Remove ${row}` }).click()
}

async function publish(page: Page, name: string, why: string): Promise<void> {
  const beside = page.getByRole('complementary')
  await expect(beside).toContainText('Ready to publish')
  await beside.getByRole('textbox').first().fill(why)
  await expect(page.getByText('All saved')).toBeVisible()
  await beside.getByRole('button', { name: 'Publish it' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Catalogue' })).toBeVisible()
  await expect(page.getByRole('button', { name, pressed: true })).toBeVisible()
  const versions = page.getByRole('region', { name: 'Versions' })
  await expect(versions).toContainText(/in use · published by Morwen Tallis/)
  await expect(versions).toContainText(why)
}

async function correct(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Correct it' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Correct Burrow contact' })).toBeVisible()
  await answers(page, { 'How far apart may magnet and contact be?': '18' })
  await expect(asked(page, 'How far apart may magnet and contact be?')).toContainText('≠ Burrow contact: 22')
  // Left open it is said in every job that asks for a grade: it cannot be told.
  await press(page, 'Which grade is it stated for (EN 50131)?', 'grade 2')
  await publish(page, 'Burrow contact', 'measured at a door')
  const versions = page.getByRole('region', { name: 'Versions' })
  await expect(versions.getByText('22 mm → 18 mm')).toBeVisible()
  await versions.getByRole('button', { name: 'Earlier versions (1)' }).click()
  await expect(versions.getByRole('listitem').filter({ hasText: 'published by' })).toHaveCount(2)
  await expect(page.getByRole('row', { name: /Version/ })).toContainText('2')
  await expect(page.getByRole('row', { name: /Magnet gap/ })).toContainText('18 mm')
}

/** Further devices of the family come as rows of a spreadsheet: what is wrong is said by row and column, the rest is published. */
async function fromSpreadsheet(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Describe a new one' }).click()
  await page.getByText('Devices from a spreadsheet').click()
  const dialog = page.getByRole('dialog')
  const saved = page.waitForEvent('download')
  await dialog.getByRole('button', { name: 'Save the list (CSV)' }).click()
  const own = readFileSync(await (await saved).path(), 'utf8')
  expect(own).toContain('device/burrow-contact,Burrow contact,Penbrook')
  const give = (name: string, text: string) =>
    page
      .getByLabel('Device list file')
      .setInputFiles({ name, mimeType: 'text/csv', buffer: Buffer.from(text) })
  await give('own.csv', own)
  await expect(dialog).toContainText(/0 new, 0 with a next version, \d+ as they are/)
  const row = (name: string, gap: string) =>
    `${name},Penbrook,contact,Burrow,Europe,Opening / 1 / reed,60,open it / its event,inside,${gap},-10,50,1,CR123A\r\n`
  const heading =
    'Article,Maker,Class,Family,Regions,Loops,Check in,Ways,Sticker,Magnet gap,From °C,To °C,Batteries,Battery\r\n'
  await give('warren.csv', heading + row('Warren contact', '20') + row('Spinney contact', 'wide'))
  // Nobody knows what an article is, until somebody says it.
  await expect(dialog).toContainText('No column says what a device is called.')
  await dialog.getByRole('combobox', { name: /^Article/ }).selectOption({ label: 'Name' })
  await expect(dialog).toContainText('1 new, 0 with a next version, 0 as they are.')
  await expect(dialog).toContainText('Row 3: Magnet gap mm: “wide” must be a number from 1 to 100 mm')
  await accessible(page)
  await dialog.getByRole('button', { name: 'Publish 1 device' }).click()
  await expect(dialog).toContainText('1 device was published.')
  // What was said of the heading holds for the next list; what is there already gets its next version.
  await give('warren.csv', heading + row('Warren contact', '22') + row('Spinney contact', '–'))
  await expect(dialog).toContainText('1 new, 1 with a next version, 0 as they are.')
  await expect(dialog).toContainText('Magnet gap: 20 mm → 22 mm')
  await dialog.getByRole('button', { name: 'Publish 2 devices' }).click()
  await expect(dialog).toContainText('2 devices were published.')
  await dialog.getByRole('button', { name: 'Close' }).click()
  await page.goto(`${url()}/catalogue?show=device/warren-contact`)
  const versions = page.getByRole('region', { name: 'Versions' })
  await expect(versions).toContainText('in use · read from a list by Morwen Tallis')
  await expect(versions).toContainText('20 mm → 22 mm')
}

async function plannedWith(page: Page): Promise<void> {
  await page.goto(`${url()}/jobs`)
  await page.getByRole('link', { name: /The Old Ropewalk/ }).click()
  await page.getByRole('navigation').getByRole('link', { name: /^Kit/ }).click()
  await page.getByRole('combobox', { name: 'Device from the catalogue' }).fill('Burrow')
  await page.getByRole('option', { name: /^Burrow contact/ }).click()
  await page.getByLabel('Room', { exact: true }).fill('Larder')
  await page.getByRole('button', { name: 'Add to the kit' }).click()
  await expect(page.getByRole('row', { name: /Burrow contact/ })).toContainText('✓ fits')
}
