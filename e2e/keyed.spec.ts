import { expect, type Locator, type Page } from '@playwright/test'
import { answers, asked, begin, pick, press, type } from './describing.ts'
import { accessible, signIn, url } from './help.ts'
import { test } from './test.ts'

// What is published here no other journey has in its catalogue.
test.use({ apart: 'keyed' })

test('how a panel is keyed is described at the panel, key by key, and tried before it counts', async ({
  page,
}) => {
  await signIn(page, 'morwen')
  await page.goto(`${url()}/catalogue`)
  await begin(page, 'How a panel is keyed')
  await leaflet(page)
  const panel = asked(page, 'What does it show, key after key?')
  await atRest(panel)
  await code(panel)
  await numbers(panel)
  await exitTime(panel)
  await zone(panel)
  await wayOut(panel)
  await changed(page, panel)
  await expect(panel).toContainText('Nothing is open')
  await accessible(page)
  await tried(page, panel)
  await published(page)
  await pointed(page)
})

async function leaflet(page: Page): Promise<void> {
  await answers(page, { 'Who makes it?': 'Penbrook', 'What is it called?': 'Burrow numbers' })
  await press(page, 'Where is it made for?', 'Europe')
  await pick(asked(page, 'Which panel is keyed so?'), 'Which panel is keyed so?', 'Pinfold 16')
  const size = asked(page, 'How large is its display?')
  await type(size.getByLabel('Lines', { exact: true }), '2')
  await type(size.getByLabel('Signs in a line'), '16')
  await type(size.getByLabel('Sign behind what is typed'), '_')
  await type(size.getByLabel('Line that messages cover'), '2')
  await asked(page, 'Which signs can it show?').getByRole('button').last().click()
  await answers(page, { 'How do its keys lie?': '1 2 3 menu\n4 5 6 off\n7 8 9\n0 ok' })
  await press(page, 'When does it keep what is keyed?', 'each answer as it is sent')
  for (const none of [
    'Which letters does each key type? no letters are typed',
    'After how long does it leave by itself? it waits for ever',
  ])
    await page.getByRole('button', { name: none }).click()
}

/** Types what the panel shows. */
async function shows(panel: Locator, first: string, second: string): Promise<void> {
  await panel.getByLabel('Line 1').fill(first)
  await panel.getByLabel('Line 2').fill(second)
  await panel.getByRole('button', { name: 'That is what it shows' }).click()
}
/** Says of a part of a display what it is. */
async function means(panel: Locator, part: string, what: string): Promise<void> {
  await panel.locator('.part').filter({ hasText: part }).click()
  await panel.page().getByRole('option', { name: what, exact: true }).click()
}
/** Says what is asked on a display. */
async function asks(panel: Locator, what: string): Promise<void> {
  await panel.locator('.v-select').filter({ hasText: 'What is asked here' }).click()
  await panel
    .page()
    .getByRole('option', { name: new RegExp(`^${what}`) })
    .click()
}
/** Presses a key there and here. */
const key = (panel: Locator, name: string): Promise<void> =>
  panel
    .getByRole('group', { name: 'Keys of the panel' })
    .getByRole('button', { name: new RegExp(`^${name}(, not tried here)?$`) })
    .click()
const told = (panel: Locator): Promise<void> =>
  panel.getByRole('button', { name: 'That is the display' }).click()
const down = (panel: Locator): Promise<void> => panel.getByRole('button', { name: 'Put it down' }).click()
/** What this says that the panel must now show. */
const must = (panel: Locator) => panel.getByRole('img', { name: 'The panel must now show' })

async function atRest(panel: Locator): Promise<void> {
  await panel.getByRole('button', { name: 'That is what it shows' }).click()
  await expect(panel).toContainText('Type what stands on the display: at least one sign.')
  await shows(panel, 'All quiet', '12:04')
  await told(panel)
  await expect(panel).toContainText('say what is asked here: one of those offered')
  await asks(panel, 'nothing: keys lead on')
  for (const part of ['“12”', '“:”', '“04”']) await means(panel, `What ${part} is`, 'changes by itself')
  await told(panel)
  await expect(must(panel)).toContainText('All quiet')
}

async function code(panel: Locator): Promise<void> {
  await key(panel, 'menu')
  await expect(panel).toContainText('What does the panel show after [menu]?')
  await shows(panel, 'Whose code?', '')
  await asks(panel, 'somebody’s code')
  await means(panel, 'Behind line 2', 'what is typed')
  await told(panel)
  await expect(panel).toContainText('Whose code')
  await pick(panel, 'Whose code', 'nstaller')
  await pick(panel, 'Key that sends it', 'ok')
  await type(panel.getByLabel('What it says of a wrong code'), 'No entry')
  await told(panel)
  await down(panel)
  await panel.getByRole('button', { name: 'The code was typed' }).click()
  await expect(must(panel)).toContainText('****')
}

async function numbers(panel: Locator): Promise<void> {
  await key(panel, 'ok')
  await shows(panel, 'Which number?', '_')
  await asks(panel, 'a number to go to')
  await means(panel, 'What “_” is', 'what is typed')
  await type(panel.getByLabel('Most digits'), '3')
  await pick(panel, 'Key that sends it; none where the last digit does', 'ok')
  await type(panel.getByLabel('What it says of a number that leads nowhere'), 'Not there')
  await told(panel)
  await expect(panel).toContainText('name at least one number that leads on')
  await panel.getByLabel('What can be typed, blanks between').fill('11 2{zone}')
  const zones = panel.getByRole('region', { name: 'Numbers of the zone' })
  await type(zones.getByLabel('Last', { exact: true }), '16')
  await type(zones.getByLabel('Digits'), '2')
  await told(panel)
  await down(panel)
  await expect(panel).toContainText('2 open')
  // What the panel refuses it shows by itself: it was told once.
  await key(panel, '9')
  await key(panel, 'ok')
  await expect(must(panel)).toContainText('Not there')
}

async function exitTime(panel: Locator): Promise<void> {
  for (const one of ['1', '1', 'ok']) await key(panel, one)
  await shows(panel, 'Exit time', '60')
  await asks(panel, 'digits to be stored')
  await means(panel, 'What “60” is', 'typed, else stored, as it was typed')
  await pick(panel, 'What is stored', 'exit delay')
  await type(panel.getByLabel('Fewest digits'), '1')
  await type(panel.getByLabel('Most digits'), '3')
  await pick(panel, 'What stands there first', 'the stored value')
  await pick(panel, 'Key that sends it; none where the last digit does', 'ok')
  await type(panel.getByLabel('What it says of a wrong answer'), 'Not taken')
  const stored = panel.getByRole('region', { name: 'Stored as exit delay' })
  await type(stored.getByLabel('What it holds as shipped'), '60')
  await told(panel)
  await down(panel)
  await expect(must(panel)).toContainText('60')
  // Nothing typed: [off] leads back; something typed: it is taken back. What decides is asked.
  await key(panel, 'off')
  await shows(panel, 'Which number?', '_')
  await panel.getByRole('button', { name: 'which-number' }).first().click()
  await down(panel)
  for (const one of ['1', '1', 'ok', '4', 'off']) await key(panel, one)
  await expect(must(panel)).toContainText('Which number?')
  await panel.getByRole('button', { name: 'The panel shows something else' }).click()
  await shows(panel, 'Exit time', '60')
  await panel.getByRole('button', { name: 'exit-time', exact: true }).click()
  await down(panel)
  await expect(panel).toContainText('Say what decides')
  await panel.getByLabel('it did the other, because nothing was typed then').check()
  await down(panel)
  for (const one of ['4', '5']) await key(panel, one)
  await expect(must(panel)).toContainText('45_')
  await key(panel, 'off')
  await expect(must(panel)).toContainText('60')
  await key(panel, 'off')
  await expect(must(panel)).toContainText('Which number?')
  for (const one of ['1', '1', 'ok', '4', '5', 'ok']) await key(panel, one)
  await shows(panel, 'Which number?', '_')
  await panel.getByRole('button', { name: 'which-number' }).first().click()
  await down(panel)
}

async function zone(panel: Locator): Promise<void> {
  for (const one of ['2', '0', '7', 'ok']) await key(panel, one)
  await shows(panel, '07 report?', 'yes')
  await asks(panel, 'yes or no')
  await means(panel, 'What “07” is', 'the number of the zone')
  await means(panel, 'What “yes” is', 'stored, as it names it')
  await pick(panel, 'What is stored', 'zone: report')
  await pick(panel, 'Key for yes', 'ok')
  await pick(panel, 'Key for no', 'menu')
  const stored = panel.getByRole('region', { name: 'Stored as zone: report' })
  await type(stored.getByLabel('How it shows yes'), 'yes')
  await type(stored.getByLabel('How it shows no'), 'no')
  await type(stored.getByLabel('What it holds as shipped'), 'on')
  await told(panel)
  await down(panel)
  await expect(must(panel)).toContainText('07 report?')
  await key(panel, 'ok')
  await shows(panel, 'Which number?', '_')
  await panel.getByRole('button', { name: 'which-number' }).first().click()
  await down(panel)
}

async function wayOut(panel: Locator): Promise<void> {
  await key(panel, 'off')
  await shows(panel, 'All quiet', '12:09')
  await panel.getByRole('button', { name: 'all-quiet' }).first().click()
  await down(panel)
  await expect(must(panel)).toContainText('All quiet')
}

/** A display is told better, taken away, and brought back. */
async function changed(page: Page, panel: Locator): Promise<void> {
  await panel.getByRole('button', { name: 'Change this display' }).click()
  await panel.getByLabel('What to mind here, once on a sheet').fill('Somebody may be at home')
  await panel.getByRole('button', { name: 'Put it right' }).click()
  const map = panel.getByRole('group', { name: 'Map of the displays' })
  await map.getByRole('button', { name: /^zone-report|^report/ }).click()
  await panel.getByRole('button', { name: 'Take this display away' }).click()
  await expect(panel).toContainText('where 2{zone} leads')
  await expect(map.getByRole('button')).toHaveCount(4)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(map.getByRole('button')).toHaveCount(5)
}

async function tried(page: Page, panel: Locator): Promise<void> {
  await expect(panel.getByRole('group', { name: 'Map of the displays' }).getByRole('button')).toHaveCount(5)
  const does = page.getByRole('region', { name: 'What it does' })
  await expect(does).toContainText('No sheet leads there')
  await expect(does).toContainText('say on its page')
}

async function published(page: Page): Promise<void> {
  const why = page.getByRole('complementary').getByLabel('Where it comes from')
  await why.fill('seen at a panel')
  await page.getByRole('button', { name: 'Publish it' }).click()
  await page.waitForURL(/\/catalogue\?show=/)
  await expect(page.getByText('Burrow numbers').first()).toBeVisible()
}

/** The panel is pointed at it: by a correction of its own, which counts once it is published. */
async function pointed(page: Page): Promise<void> {
  const keyed = page.getByRole('region', { name: 'Panels keyed so' })
  await expect(keyed).toContainText('No panel is keyed so yet')
  await keyed.getByRole('button', { name: 'Correct that panel' }).click()
  await expect(keyed).toContainText('Choose the panel that is keyed so.')
  await pick(keyed, 'Which panel is keyed so?', 'Pinfold 16')
  await keyed.getByRole('button', { name: 'Correct that panel' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Correct Pinfold 16' })).toBeVisible()
  await expect(asked(page, 'Is how it is keyed described already?')).toContainText('≠ Pinfold 16')
  await page.getByRole('complementary').getByLabel('What was wrong').fill('told at the panel')
  await page.getByRole('button', { name: 'Publish it' }).click()
  await page.waitForURL(/\/catalogue\?show=/)
  await page.getByRole('button', { name: 'How panels are keyed' }).click()
  await page.getByRole('button', { name: /^Burrow numbers/ }).click()
  await expect(keyed).toContainText('Panels keyed so')
  await expect(keyed).toContainText('Pinfold 16')
}
