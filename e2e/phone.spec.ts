import { expect, type Page } from '@playwright/test'
import { toBuffer } from 'qrcode'
import {
  evidenceOf,
  inventId,
  labelLink,
  recordsOf,
  seededRandom,
  type JobDocument,
  type OpenedJob,
} from '#core'
import { accessible, passAll, signIn, stage, url } from './help.ts'
import { readBackAsPlanned } from './panel-in-hand.ts'
import { begin, offered, plan } from './plans.ts'
import { test } from './test.ts'

/* A house with a fob on a panel that was used before, by its display alone, on a phone: from the clean start to hand-over. */

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

/** The page's clock behind the real one at first, h: readings made then, without a net, are of the day before. */
const BEHIND_H = 26

async function documentOf(page: Page, job: string): Promise<JobDocument> {
  const answer = await page.request.get(`${url()}/api/jobs/${job}`)
  return ((await answer.json()) as OpenedJob).document
}

/** Types what the display shows for the zone that is looked at, twice where that is asked for, and accepts it. */
async function learnByDisplay(page: Page, signs: string, loop: RegExp | null): Promise<void> {
  const accept = page.getByRole('button', { name: /^Accept/ })
  const display = page.getByLabel('What does the display show?')
  await display.fill(signs)
  await display.press('Enter')
  // Told after the ID was compared it is of the same reading.
  if (loop) {
    await page
      .locator('.v-field', { has: page.getByRole('combobox', { name: 'Loop on the display' }) })
      .click()
    await page.getByRole('option', { name: loop }).click()
  }
  const again = page.getByRole('button', { name: 'Tripped again, it shows the same' })
  await expect(accept.or(again).first()).toBeVisible()
  if (await again.isVisible()) await again.click()
  await accept.click()
}

test('a Morrow house with a fob is learned by its display, proved and handed over on a phone', async ({
  page,
  context,
}) => {
  await signIn(page, 'idris')
  const catalogue = await offered(page)
  const dunlin = catalogue.get('family', 'family/dunlin')
  if (!dunlin) throw new Error('no Dunlin')
  // Each with its check digit.
  const [door = '', study = '', hall = '', fob = '', next = ''] = [1, 2, 3, 4, 5].map((seed) =>
    inventId(dunlin, seededRandom(4_700 + seed)),
  )
  const doc = plan(
    catalogue,
    {
      ...{ name: 'Otter Steps', panel: 'panel/morrow-60', region: 'north-america', monitored: false },
      ...{ radioFirmware: null, entry1: 30, entry2: 30, abortWindow: 30, panelCame: 'used' },
    },
    [
      {
        ...{ id: 'device:front', model: 'device/latchet-thin', room: 'Hall', position: 'door' },
        ...{ use: 'entry', sticker: door },
      },
      {
        id: 'device:study',
        model: 'device/latchet-thin',
        room: 'Study',
        use: 'opening',
        sticker: study,
      },
      { id: 'device:hall', model: 'device/prowl', room: 'Hall', use: 'on-way', sticker: hall },
      { id: 'device:fob', model: 'device/fourkey', user: 'user:one', sticker: fob },
      { id: 'device:pad', model: 'device/keyplate-w', room: 'Hall' },
    ],
  )
  const job = await begin(page, doc)
  await page.clock.install({ time: new Date(Date.now() - BEHIND_H * 3_600_000) })

  // The panel hung elsewhere before: its clean start, each step seen and noted.
  await page.goto(`${url()}/jobs/${job}/program`)
  const clean = page.getByRole('region', { name: 'Clean start of the panel' })
  await expect(clean).toContainText('4 of 4 steps are open')
  await accessible(page)
  for (const step of ['I have a way in', 'It restarted as it came', 'None is left', 'It is empty']) {
    // It goes as of now: a clock that jumps before it is sent would put it a minute back.
    const sent = page.waitForResponse((answer) => answer.url().endsWith('/edits'))
    await clean.getByRole('button', { name: step }).click()
    await sent
    await page.clock.fastForward(60_000)
  }
  await expect(clean).toContainText('done: the panel was used before')

  // Where and how long the panel listens; what is not heard at first is tried again; then each is learned.
  await stage(page, 'Enrol')
  await page
    .getByRole('button', { name: /Hall Door/i })
    .first()
    .click()
  // A photo of a box label turns to its device.
  const photo = page.getByLabel('Photo of a code')
  const png = await toBuffer(labelLink(url(), job, 'device:hall'))
  await photo.setInputFiles({ name: 'label.png', mimeType: 'image/png', buffer: png })
  await expect(page.getByRole('heading', { name: /Hall Motion/i })).toBeVisible()
  await page
    .getByRole('button', { name: /Hall Door/i })
    .first()
    .click()
  await page.getByRole('button', { name: 'It listens now' }).click()
  await expect(page.getByText(/The panel listens for zone \d+: /).first()).toBeVisible()
  await page.getByRole('button', { name: 'Nothing is heard…' }).click()
  await page.getByRole('button', { name: 'I do this now' }).first().click()
  await accessible(page)
  await learnByDisplay(page, door.slice(-4), /^loop \d+$/)
  await page.getByRole('button', { name: /Study/i }).first().click()
  await learnByDisplay(page, study.slice(-4), /^loop \d+$/)
  await page
    .getByRole('button', { name: /Hall Motion/i })
    .first()
    .click()
  await learnByDisplay(page, hall.slice(-4), null)
  // One press of the fob learns all of its buttons.
  await page
    .getByRole('button', { name: /fob/i })
    .filter({ has: page.locator('.num') })
    .first()
    .click()
  await learnByDisplay(page, fob, /^loop 1$/)
  await page.getByRole('button', { name: /The same press learned its 3 other buttons/ }).click()
  await expect(page.getByText('Every button of the fob is learned with that press.')).toBeVisible()
  await expect(page.getByText(/^4 of 7 learned, 3 typed, not heard$/)).toBeVisible()
  await expect(page.getByText('All saved')).toBeAttached()

  // Dark before all is proved: what protects tonight is said, and that the customer knows is kept. It is not handed over.
  await stage(page, 'Hand over')
  const tonight = page.getByRole('region', { name: 'Leave for tonight' })
  await tonight.getByRole('button', { name: 'What holds tonight…' }).click()
  await expect(tonight).toContainText(/○ May protect: in the panel, its alarm not seen \(\d+\)/)
  await accessible(page)
  await tonight.getByLabel('Who was told, and when you are back').fill('Mrs Teasel; back at eight')
  await tonight.getByRole('button', { name: 'The customer knows; I leave for tonight' }).click()
  await expect(tonight).toContainText(/Idris Quayle left .*; it is not handed over/)
  await expect(page.getByText(/■ not ready/)).toBeVisible()

  // The day before, without a net: the readings.
  await stage(page, 'Prove')
  await context.setOffline(true)
  const rows = page.getByRole('button').filter({ has: page.locator('.chips') })
  const card = page.getByRole('region', { name: /^Proofs of/ })
  for (const row of [/Hall Door/i, /Study/i, /Hall Motion/i]) {
    await rows.filter({ hasText: row }).first().click()
    await card.getByRole('button', { name: /Placement reading/ }).click()
    await card.getByLabel('Reading').first().fill('8')
    await card.getByRole('button', { name: '✓ Passed' }).first().click()
    await expect(card.getByText(/passed, 8 steps/)).toBeVisible()
  }
  await page.clock.fastForward(BEHIND_H * 3_600_000)
  await context.setOffline(false)
  await page.clock.fastForward(60_000)
  await expect(page.getByText('All saved')).toBeAttached()

  // One walk through the house: what was not heard says why, and is walked again.
  await page.getByRole('button', { name: 'Walk test: 3' }).click()
  const walk = page.getByRole('region', { name: 'Walk test' })
  await accessible(page)
  await walk.getByRole('button', { name: /^Not heard: Hall Motion/i }).click()
  await walk.getByRole('button', { name: 'It may have slept' }).click()
  await expect(walk).toContainText('0 heard, 1 not heard, 2 to go')
  const heard = walk.getByRole('button', { name: /^Heard: / })
  while ((await heard.count()) > 0) await heard.first().click()
  await expect(walk).toContainText('3 heard, 0 not heard, 0 to go')
  await walk.getByRole('button', { name: 'Back to the round' }).click()

  // One run for all armed trips, set as rarely as the doors allow.
  await page.getByRole('button', { name: 'Armed run: 3 trips' }).click()
  const run = page.getByRole('region', { name: 'Armed run' })
  await run.getByRole('button', { name: 'It is set now' }).first().click()
  await accessible(page)
  const seen = run.getByRole('button', { name: '✓ Passed: as expected' })
  while ((await seen.count()) > 0) await seen.first().click()
  // Of a Morrow only the second unset clears the alarm: it is asked for once.
  await run.getByRole('button', { name: 'The second unset cleared it' }).first().click()
  await expect(run.getByText('The second unset was seen to clear it.').first()).toBeVisible()
  await run.getByRole('button', { name: 'Back to the round' }).click()

  const open = rows.filter({ hasText: /not tested/ })
  for (let round = 0; round < 10 && (await open.count()) > 0; round++) {
    await open.first().click()
    await passAll(page, '8')
  }
  await expect(page.getByText(/^(\d+) of \1 proofs passed$/)).toBeVisible()

  await stage(page, 'Hand over')
  const vouch = page.getByRole('button', { name: /^Vouch/ })
  while ((await vouch.count()) > 0) await vouch.first().click()
  await expect(page.getByText('All saved')).toBeAttached()
  await readBackAsPlanned(page)
  await expect(page.getByText('✓ ready to hand over')).toBeVisible()
  await page.getByRole('button', { name: 'Hand over', exact: true }).click()
  await expect(page.getByText(/house rules fixed/)).toBeVisible()

  // Weeks later a contact is replaced: the old one is deleted at the panel first, the new one learned and proved.
  await stage(page, 'Kit')
  await page.getByRole('button', { name: 'More of Latchet Thin contact in Study' }).click()
  await page.getByRole('button', { name: 'Replace Latchet Thin contact in Study…' }).click()
  await page.getByRole('button', { name: 'Replace it' }).click()
  await stage(page, 'Enrol')
  await page.getByRole('button', { name: /^It is deleted there: / }).click()
  await page.getByRole('button', { name: /Study/i }).first().click()
  await learnByDisplay(page, next, /^loop \d+$/)
  await expect(page.getByText('All saved')).toBeAttached()
  await stage(page, 'Prove')
  await rows.filter({ hasText: /Study/i }).first().click()
  await passAll(page, '8')
  await expect(card.getByText(/A whole day has not passed|passed/).first()).toBeVisible()

  // The motion moves to the landing with its number and its ID; what its place bears on is owed anew, and nothing else.
  const before = await documentOf(page, job)
  await stage(page, 'Kit')
  await page.getByRole('button', { name: 'More of Prowl motion in Hall' }).click()
  await page.getByRole('button', { name: 'Move Prowl motion in Hall…', exact: true }).click()
  const moving = page.getByRole('dialog')
  await moving.getByLabel('Room').fill('Landing')
  await moving.getByRole('button', { name: 'Move it' }).last().click()
  await expect(moving).toBeHidden()

  // A contact is added: a free number, nothing of before moves, and Kit says what comes next.
  await page.getByRole('combobox', { name: 'Device from the catalogue' }).fill('Latchet Thin')
  await page.getByRole('option', { name: /^Latchet Thin/ }).click()
  await page.getByLabel('Room', { exact: true }).fill('Larder')
  await page.getByRole('button', { name: 'Add to the kit' }).click()
  const since = page.getByRole('region', { name: 'Since hand-over' })
  await expect(since).toContainText(/Larder.*: give it its number/)
  await expect(since).toContainText(/Landing.*: \d+ proofs are open/)
  await accessible(page)
  await since.getByRole('link', { name: 'give it its number' }).click()
  await page.getByRole('button', { name: /^Number everything/ }).click()
  await expect(page.getByText('All saved')).toBeAttached()
  const after = await documentOf(page, job)
  const zonesOf = (of: JobDocument) =>
    recordsOf(of, 'zone').map(({ id, number, device, type }) => ({ id, number, device, type }))
  expect(zonesOf(after)).toEqual(expect.arrayContaining(zonesOf(before)))
  expect(recordsOf(after, 'zone').length).toBe(recordsOf(before, 'zone').length + 1)
  const moved = (of: JobDocument) => recordsOf(of, 'device').find(({ id }) => id === 'device:hall')
  expect(moved(after)?.room).toBe('Landing')
  expect(moved(after)?.sticker).toBe(moved(before)?.sticker)

  // What it owes of a whole day is open: it is not handed over anew, and says so.
  await stage(page, 'Hand over')
  await expect(page.getByText(/■ not ready/)).toBeVisible()
  await expect(page.getByText('All saved')).toBeAttached()
  const document = await documentOf(page, job)
  expect(evidenceOf(document, 'told').length).toBe(1)
  expect(evidenceOf(document, 'tried').length).toBe(1)
  const heardOf = recordsOf(document, 'heard').map(({ decision, serial }) => `${decision} ${serial}`)
  for (const was of [`accepted ${study}`, `released ${study}`, `accepted ${next}`])
    expect(heardOf).toContain(was)
  // The loop beside the ID is on record, too: a Latchet Thin is loop 4.
  const loops = recordsOf(document, 'heard').filter(({ decision }) => decision === 'accepted')
  for (const serial of [door, study, next]) expect(loops.find((one) => one.serial === serial)?.loop).toBe(4)
  // Every button of the fob was pressed for itself, though one press learned them all.
  const buttons = evidenceOf(document, 'test').filter(
    ({ kind, outcome }) => kind === 'button' && outcome === 'pass',
  )
  expect(new Set(buttons.map(({ subject }) => subject)).size).toBe(4)
})
