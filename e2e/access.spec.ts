import { expect, type Locator, type Page } from '@playwright/test'
import { accessible, choose, passAll, signIn, stage, url, type Hands } from './help.ts'
import { readBackAsPlanned } from './panel-in-hand.ts'
import { test } from './test.ts'

/* Everything by keyboard, at every zoom, in either light, and in few acts. */

const ropewalk = '/jobs/0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001'
const fennel = '/jobs/0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a002'
const stages = [
  'survey',
  'kit',
  'kit?view=grid',
  'kit?view=panels',
  'zones',
  'program',
  'enrol',
  'prove',
  'handover',
]
const outside = ['/jobs', '/jobs/new', '/catalogue', '/house-rules', '/people', '/account', '/service']

test.describe.configure({ timeout: 420_000 })

/** The browser's own light, which a page follows when it is opened. */
async function inLight(page: Page, look: string): Promise<void> {
  await page.emulateMedia({ colorScheme: look === 'dark' ? 'dark' : 'light' })
}

/** One job a light, both with --long: the stages are the same, what is found in them is not. */
function jobsFor(look: string): readonly string[] {
  if (process.env.KAPELLE_LONG === '1') return [ropewalk, fennel]
  return [look === 'light' ? ropewalk : fennel]
}

for (const look of ['light', 'dark'])
  test(`every view keeps to WCAG 2.2 AA beside its findings: ${look}`, async ({ page }) => {
    await inLight(page, look)
    await signIn(page, 'morwen')
    for (const path of outside) {
      await page.goto(url() + path)
      await expect(page.locator('h1').first()).toBeVisible()
      await expect(page.locator('.v-application')).toHaveClass(new RegExp(`v-theme--${look}`))
      await test.step(path, () => accessible(page))
    }
    for (const job of jobsFor(look))
      for (const path of stages) {
        await page.goto(`${url()}${job}/${path}`)
        await expect(page.locator('h1').first()).toBeVisible()
        await page.getByRole('button', { name: /\d findings?$/ }).click()
        await expect(page.getByRole('heading', { name: 'Findings' })).toBeVisible()
        await test.step(`${job} ${path}`, () => accessible(page))
      }
  })

for (const look of ['light', 'dark'])
  test(`every dialog keeps to WCAG 2.2 AA: ${look}`, async ({ page }) => {
    await inLight(page, look)
    await signIn(page, 'morwen')
    /** Opens it, looks, and leaves it by Escape. */
    const opens = async (path: string, name: RegExp | string, open: () => Promise<void>) => {
      await page.goto(`${url()}${path}`)
      await expect(page.locator('h1').first()).toBeVisible()
      await open()
      await expect(page.getByRole('dialog').first()).toBeVisible()
      await test.step(String(name), () => accessible(page))
      await page.keyboard.press('Escape')
      await expect(page.getByRole('dialog')).toBeHidden()
    }
    const press = (name: RegExp | string) => () => page.getByRole('button', { name }).first().click()
    await opens('/jobs', 'search', () => page.keyboard.press('Control+k'))
    await opens('/jobs', 'keys', () => page.keyboard.press('?'))
    await opens(`${fennel}/kit?view=panels`, 'choose a panel', press(/^Choose Tarn 40/))
    await opens(`${ropewalk}/kit`, 'identify', press('Identify a sticker'))
    await opens(`${ropewalk}/kit?view=grid`, 'make it fit', press('Make it all fit'))
    await opens(`${ropewalk}/zones`, 'number afresh', press(/Number afresh/))
  })

test('nothing is lost at 400 %: a window of 320 px', async ({ page }) => {
  await signIn(page, 'morwen')
  await page.setViewportSize({ width: 320, height: 640 })
  const over: string[] = []
  for (const path of [...outside, ...stages.flatMap((one) => [`${ropewalk}/${one}`, `${fennel}/${one}`])]) {
    await page.goto(url() + path)
    await expect(page.locator('h1').first()).toBeVisible()
    const wider = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
    // Widths settle with fonts and rows.
    for (let look = 0; look < 20 && (await wider()) > 0; look++) await page.waitForTimeout(150)
    if ((await wider()) > 0) over.push(`${path}: ${await wider()} px`)
  }
  expect(over).toEqual([])
})

/** Presses Tab until it is there; a dialog or a page has an end, and begins again. */
async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target.first()).toBeVisible()
  for (let press = 0; press < 220; press++) {
    if (await target.first().evaluate((element) => element === document.activeElement)) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`${String(target)} is not reached by Tab`)
}

async function enter(page: Page, target: Locator): Promise<void> {
  await tabTo(page, target)
  await page.keyboard.press('Enter')
}

const keyboard = (page: Page): Hands => ({
  press: (button) => enter(page, button),
  async type(field, text) {
    await tabTo(page, field)
    await page.keyboard.type(text)
  },
})

async function write(page: Page, label: string | RegExp, text: string): Promise<void> {
  await tabTo(page, page.getByRole('textbox', { name: label }))
  await page.keyboard.press('Control+a')
  await page.keyboard.type(text)
}

/** From a list by arrows. */
async function pick(page: Page, label: string, option: RegExp): Promise<void> {
  await tabTo(page, page.getByRole('combobox', { name: label }))
  const field = page.locator('.v-field', { has: page.getByRole('combobox', { name: label }) })
  const wanted = page.getByRole('option', { name: option }).first()
  await expect(async () => {
    await page.keyboard.press('ArrowDown')
    await expect(wanted).toBeVisible()
    // The list sets its own focus once it stands open.
    await page.waitForTimeout(400)
    for (let press = 0; press < 40; press++) {
      if (await wanted.evaluate((element) => element.contains(document.activeElement))) break
      await page.keyboard.press('ArrowDown')
    }
    await page.keyboard.press('Enter')
    await expect(wanted).toBeHidden()
    await expect(field).toContainText(option, { timeout: 2_000 })
  }).toPass({ timeout: 45_000 })
}

test('a whole job by keyboard alone', async ({ page }) => {
  await signIn(page, 'idris')
  await enter(page, page.getByRole('link', { name: 'New job' }))
  await write(page, 'Name of the job', 'Keyed Cottage')
  await pick(page, 'Real or practice', /Practice/)
  await pick(page, 'Panel', /Tarn 40/)
  await enter(page, page.getByRole('button', { name: 'Begin the job' }))
  await expect(page.getByRole('heading', { level: 1, name: 'Survey' })).toBeVisible()
  await enter(page, page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Kit/ }))
  await expect(page.getByRole('heading', { name: 'The kit is empty' })).toBeVisible()

  await tabTo(page, page.getByRole('combobox', { name: 'Device from the catalogue' }))
  await page.keyboard.type('Reedling contact')
  await expect(page.getByRole('option', { name: /^Reedling contact/ })).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await write(page, 'Room', 'Porch')
  await write(page, 'Position', 'front door')
  await pick(page, 'Use', /everyday door/)
  await enter(page, page.getByRole('button', { name: 'Add to the kit' }))
  await write(page, 'Sticker ID of Reedling contact in Porch', '20555001')
  await page.keyboard.press('Enter')

  await page.keyboard.press('3')
  await expect(page.getByRole('heading', { level: 1, name: 'Zones' })).toBeVisible()
  await page.keyboard.press('n')
  await expect(page.getByLabel('Label of zone 01')).toHaveValue('Porch Front Door')
  await page.keyboard.press('4')
  await expect(page.getByRole('heading', { name: 'Zone 01 — Porch Front Door' })).toBeVisible()

  await page.clock.install()
  await page.keyboard.press('5')
  await expect(page.getByText('0 of 1 learned')).toBeVisible()
  await enter(page, page.getByRole('button', { name: 'Start listening' }))
  const accept = page.getByRole('button', { name: /^Accept/ })
  for (let round = 0; round < 120 && !(await accept.isEnabled()); round++) {
    await page.clock.fastForward(3_000)
    const refuse = page.getByRole('button', { name: 'Refuse, keep on record' })
    if (!(await accept.isEnabled()) && (await refuse.isEnabled())) await enter(page, refuse)
  }
  await enter(page, accept)
  await expect(page.getByText('1 of 1 learned')).toBeVisible()
  await enter(page, page.getByRole('button', { name: /Stop listening/ }))

  await enter(page, page.getByRole('link', { name: /^Prove/ }))
  await enter(page, page.getByRole('button', { name: 'Put the station on test' }))
  const rows = page.getByRole('button', { name: /not tested|failed/ }).filter({ has: page.locator('.chips') })
  for (let round = 0; round < 14 && (await rows.count()) > 0; round++) {
    await enter(page, rows)
    await passAll(page, '4', keyboard(page))
  }
  await expect(page.getByText(/^(\d+) of \1 proofs passed$/)).toBeVisible()
  await enter(page, page.getByRole('button', { name: 'Take it off test' }))

  await enter(page, page.getByRole('link', { name: /^Hand over/ }))
  await expect(page.getByRole('heading', { level: 1, name: 'Hand over' })).toBeVisible()
  const vouch = page.getByRole('button', { name: /^Vouch/ })
  for (let left = await vouch.count(); left > 0; left--) {
    await enter(page, vouch)
    await expect(vouch).toHaveCount(left - 1)
  }
  await readBackAsPlanned(page, keyboard(page))
  await expect(page.getByText('✓ ready to hand over')).toBeVisible()
  await enter(page, page.getByRole('button', { name: 'Hand over', exact: true }))
  await expect(page.getByText(/✓ Idris Quayle, .*: house rules fixed/)).toBeVisible()
})

/** Twenty-two devices of a house on the Tarn 40, as a van list has them; two of one model in one row. */
const van = `Item;Qty;Room;Position;Use;Serial
Reedling contact;1;Porch;front door;everyday door;20611001
Reedling contact;1;Kitchen;back door;everyday door;20611002
Reedling Slim contact;1;Study;window;window or unused door;20611003
Reedling Slim contact;1;Dining room;window;window or unused door;20611004
Reedling Slim contact;1;Lounge;window left;window or unused door;20611005
Reedling Slim contact;1;Lounge;window right;window or unused door;20611006
Reedling Slim contact;1;Utility;window;window or unused door;20611007
Reedling Slim contact;1;Bathroom;window;window or unused door;20611008
Reedling Slim contact;1;Bedroom;window;window or unused door;20611009
Reedling Slim contact;1;Nursery;window;window or unused door;20611010
Stilt motion;1;Hall;;on the way;20611011
Stilt motion;1;Landing;;on the way;20611012
Stilt motion;1;Lounge;;off every way;20611013
Stilt motion;1;Study;;off every way;20611014
Ember Three smoke;1;Landing;;;20611015
Ember Three smoke;1;Hall;;;20611016
Ember One smoke;1;Bedroom;;;20611017
Attend care pendant;1;Bedroom;bed;;20611018
Tapwell C keypad;1;Hall;;;20611019
Quartet C fob;1;;;;
Quartet C fob;1;;;;
Horn W wired siren;1;Yard;;;
`

test('twenty-two devices from an equipment list to a labelled plan without stops in at most 25 acts', async ({
  page,
}) => {
  await signIn(page, 'idris')
  let acts = 0
  /** One press, one choice or one field filled. */
  const act = async (done: Promise<unknown>) => {
    acts += 1
    await done
  }
  await act(page.getByRole('link', { name: 'New job' }).click())
  await act(page.getByLabel('Name of the job').fill('Twenty-two'))
  await act(choose(page, 'Panel', /Tarn 40/))
  await act(page.getByRole('button', { name: 'Begin the job' }).click())
  await act(stage(page, 'Kit'))
  await act(
    page
      .getByLabel('Equipment list file')
      .setInputFiles({ name: 'van.csv', mimeType: 'text/csv', buffer: Buffer.from(van) }),
  )
  await expect(page.getByText('22 of 22 rows can be taken, 22 devices.')).toBeVisible()
  await act(page.getByRole('button', { name: 'Take all 22 rows' }).click())
  await act(stage(page, 'Zones'))
  await act(page.getByRole('button', { name: 'Number everything' }).click())
  await expect(page.getByText(/\d+ zones on Tarn 40/)).toBeVisible()
  for (const name of ['Nell', 'Odo']) {
    await act(page.getByLabel('New user').fill(name))
    await act(page.getByRole('button', { name: 'Add user' }).click())
  }
  const carriers = page.getByLabel('User of Quartet C fob')
  await act(carriers.first().selectOption({ label: 'Nell' }))
  await act(carriers.last().selectOption({ label: 'Odo' }))
  await page.getByRole('button', { name: /findings?$/ }).click()
  const stops = page.getByRole('article').filter({ hasText: '■' })
  await expect(stops).toHaveCount(0)
  const labels = await page
    .getByLabel(/^Label of zone/)
    .evaluateAll((all) => all.map((one) => (one as HTMLInputElement).value))
  expect(labels.every((label) => label !== '')).toBe(true)
  expect(acts).toBeLessThanOrEqual(25)
})
