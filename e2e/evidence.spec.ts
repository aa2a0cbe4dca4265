import { expect, type Page } from '@playwright/test'
import { evidenceOf, recordsOf, type JobDocument, type OpenedJob } from '#core'
import { accessible, passAll, signIn, stage, unfoldTimes, url } from './help.ts'
import { readBackAsPlanned } from './panel-in-hand.ts'
import { begin, offered, plan } from './plans.ts'
import { test } from './test.ts'

/* Evidence that is evidence: a Curlew house learned, proved event by event and handed over; a real job by its display alone. */

async function documentOf(page: Page, job: string): Promise<JobDocument> {
  const answer = await page.request.get(`${url()}/api/jobs/${job}`)
  return ((await answer.json()) as OpenedJob).document
}

/** The page's clock behind the real one at first, h: readings made then, without a net, are of the day before. */
const BEHIND_H = 26

test('a Curlew house of twelve devices, one a repeater, is learned, proved event by event and handed over on a phone', async ({
  page,
  context,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await signIn(page, 'idris')
  const catalogue = await offered(page)
  const doc = plan(catalogue, { name: 'Alder Weir', panel: 'panel/ostler-s-8', practice: true }, [
    {
      id: 'device:front',
      model: 'device/sill-8',
      room: 'Hall',
      position: 'door',
      use: 'entry',
      sticker: 'K482913',
    },
    { id: 'device:relay', model: 'device/spanner-8', room: 'Landing', sticker: 'R100201' },
    {
      id: 'device:shed',
      model: 'device/sill-8',
      room: 'Shed',
      use: 'opening',
      via: 'device:relay',
      sticker: 'K482999',
    },
    { id: 'device:smoke', model: 'device/brander-8', room: 'Landing', sticker: 'B700311' },
    { id: 'device:fob', model: 'device/quatern-8', user: 'user:one', sticker: 'F200144' },
    { id: 'device:bell', model: 'device/singer-8', room: 'Gable', sticker: 'S300255' },
    { id: 'device:pad', model: 'device/scriber-8', room: 'Hall', sticker: 'P400366' },
    {
      ...{ id: 'device:kitchen', model: 'device/sill-slim-8', room: 'Kitchen', position: 'window' },
      ...{ use: 'opening', sticker: 'K482807' },
    },
    { id: 'device:hall', model: 'device/watcher-8', room: 'Hall', use: 'on-way', sticker: 'M511204' },
    { id: 'device:lounge', model: 'device/watcher-8', room: 'Lounge', use: 'off-way', sticker: 'M511316' },
    { id: 'device:boiler', model: 'device/fumer-8', room: 'Boiler room', sticker: 'G620015' },
    { id: 'device:study', model: 'device/crackle-8', room: 'Study', use: 'opening', sticker: 'C733481' },
  ])
  const job = await begin(page, doc)
  await page.clock.install({ time: new Date(Date.now() - BEHIND_H * 3_600_000) })
  await page.goto(`${url()}/jobs/${job}/enrol`)
  await expect(page.getByText('Practice job.')).toBeVisible()

  // Nothing is proved before it is enrolled.
  await stage(page, 'Prove')
  await page
    .getByRole('button', { name: /^Hall Door/i })
    .first()
    .click()
  const card = page.getByRole('region', { name: /^Proofs of/ })
  await expect(card.getByText(/Enrol it first/)).toBeVisible()
  await expect(card.getByRole('button', { name: '✓ Passed' })).toHaveCount(0)

  // Every device is heard, the repeater among them; the heat event takes its sister's ID and is not called heard.
  await stage(page, 'Enrol')
  const total = await page.locator('.targets .target').count()
  await page.getByRole('button', { name: 'Start listening' }).click()
  await expect(page.getByRole('button', { name: /Stop listening/ })).toBeVisible()
  const accept = page.getByRole('button', { name: /^Accept/ })
  for (let round = 0; round < 240; round++) {
    if (await page.getByText(`${total - 1} of ${total} learned`).isVisible()) break
    await page.clock.fastForward(3_000)
    if (await accept.isEnabled()) await accept.click()
    else if (await page.getByText('Which loop?').isVisible())
      await page.getByRole('button', { name: 'Refuse, keep on record' }).click()
  }
  await page.getByRole('button', { name: /Landing Heat/i }).click()
  await page.getByRole('button', { name: /Take the sister’s ID/ }).click()
  await expect(page.getByText(`${total - 1} of ${total} learned, 1 typed, not heard`)).toBeVisible()
  await page.getByRole('button', { name: /Stop listening/ }).click()
  await expect(page.getByText('All saved')).toBeAttached()

  // The day before, without a net: the readings, the repeater's before what hangs on it.
  await stage(page, 'Prove')
  await context.setOffline(true)
  await page.getByRole('button', { name: /Shed/ }).first().click()
  await expect(
    card.getByText(/The reading of its repeater comes first: Spanner 8 repeater, Landing/),
  ).toBeVisible()
  const placed = [/Spanner 8/, /^Hall Door/i, /Shed/, /^Landing Smoke/i, /Singer 8/, /Scriber 8/]
  const more = [/^Kitchen/i, /^Hall Motion/i, /^Lounge/i, /^Boiler/i, /^Study/i]
  for (const row of [...placed, ...more]) {
    await page
      .getByRole('button', { name: row })
      .filter({ has: page.locator('.chips') })
      .first()
      .click()
    await card.getByRole('button', { name: /Placement reading/ }).click()
    await card.getByLabel('Reading').first().fill('82')
    await card.getByRole('button', { name: '✓ Passed' }).first().click()
    await expect(card.getByText(/passed, 82 %/)).toBeVisible()
  }
  await expect(card.getByText(/waiting to be sent/).first()).toBeVisible()
  await expect(page.getByText(/0 of \d+ proofs passed, 11 waiting to be sent/)).toBeVisible()
  await expect(card.getByText(/A whole day has not passed/)).toBeVisible()

  // A day later the net is back: they go with their own time, and the averages can be read.
  await page.clock.fastForward(BEHIND_H * 3_600_000)
  await context.setOffline(false)
  await page.clock.fastForward(60_000)
  await expect(page.getByText('All saved')).toBeAttached()
  await expect(page.getByText(/11 of \d+ proofs passed$/)).toBeVisible()
  await page.getByRole('button', { name: 'Put the station on test' }).click()

  // One pass never vouches for another event: smoke passed leaves heat open.
  await page
    .getByRole('button', { name: /^Landing Smoke/i })
    .filter({ has: page.locator('.chips') })
    .click()
  await card.getByRole('button', { name: /Tripped by its own event: smoke/ }).click()
  const smoke = card.locator('.step', { hasText: 'Tripped by its own event: smoke' })
  await smoke.getByRole('button', { name: '✓ Passed' }).click()
  await expect(smoke.getByText(/passed, the maker’s aerosol/)).toBeVisible()
  await expect(card.locator('.step', { hasText: 'Tripped by its own event: heat' })).toContainText(
    'not tested',
  )
  await accessible(page)

  const route = page.getByRole('button', { name: /not tested/ }).filter({ has: page.locator('.chips') })
  for (let round = 0; round < 24 && (await route.count()) > 0; round++) {
    await route.first().click()
    await passAll(page, '82')
  }
  await expect(page.getByText(/^(\d+) of \1 proofs passed$/)).toBeVisible()
  await page.getByRole('button', { name: 'Take it off test' }).click()

  await stage(page, 'Hand over')
  const vouch = page.getByRole('button', { name: /^Vouch/ })
  while ((await vouch.count()) > 0) await vouch.first().click()
  await expect(page.getByText('All saved')).toBeAttached()
  await readBackAsPlanned(page)
  // Any finding that stops is the plan's; the evidence is whole.
  await expect(page.getByText('✓ ready to hand over')).toBeVisible()
  await page.getByRole('button', { name: 'Hand over', exact: true }).click()
  await expect(page.getByText(/house rules fixed/)).toBeVisible()
  await expect(page.getByText('All saved')).toBeAttached()

  // The record holds a result for each event by itself, each with the ID that it was of.
  const document = await documentOf(page, job)
  const results = evidenceOf(document, 'test')
  const events = recordsOf(document, 'zone').map((zone) => zone.id)
  for (const zone of events)
    expect(results.some((result) => result.subject === zone && result.outcome === 'pass')).toBe(true)
  expect(results.every((result) => result.of !== null)).toBe(true)
  expect(evidenceOf(document, 'heard').every((heard) => heard.source === 'practice')).toBe(true)

  // A new delay: what was proved of the old one is owed again, and says so.
  await stage(page, 'Zones')
  await unfoldTimes(page)
  await page.getByLabel('Entry delay 1').first().fill('40')
  await page.getByLabel('Entry delay 1').first().press('Enter')
  await stage(page, 'Hand over')
  await expect(
    page.getByText(/proofs are of what has changed since: entry delay: 30 s then, 40 s now/),
  ).toBeVisible()
  await expect(
    page.getByText(/stands? otherwise in the panel than in the plan: Whole system, entry delay/),
  ).toBeVisible()
})

test('a real job is learned by what its panel displays and its stickers say, and nothing else', async ({
  page,
}) => {
  await signIn(page, 'idris')
  const catalogue = await offered(page)
  const doc = plan(catalogue, { name: 'Heron Lock', panel: 'panel/tarn-40' }, [
    {
      id: 'device:front',
      model: 'device/reedling',
      room: 'Porch',
      position: 'door',
      use: 'entry',
      sticker: '20667701',
    },
    { id: 'device:window', model: 'device/reedling-slim', room: 'Study', position: 'window', use: 'opening' },
    { id: 'device:hall', model: 'device/stilt-hound', room: 'Hall', use: 'on-way', sticker: '20669901' },
    { id: 'device:call', model: 'device/beckon', room: 'Bedroom', user: 'user:one' },
  ])
  const job = await begin(page, doc)
  await page.goto(`${url()}/jobs/${job}/enrol`)
  await expect(page.getByText('0 of 4 learned')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Start listening' })).toHaveCount(0)
  await expect(page.getByText('Practice job.')).toHaveCount(0)
  await expect(page.getByText(/Let the panel learn, make the device send/)).toBeVisible()
  await accessible(page)
  const display = page.getByLabel('What does the display show?')
  const sticker = page.getByLabel('Type or scan the sticker')
  const accept = page.getByRole('button', { name: /^Accept/ })
  const again = page.getByRole('button', { name: 'Tripped again, it shows the same' })
  const show = async (signs: string): Promise<void> => {
    await display.fill(signs)
    await display.press('Enter')
  }

  // Bad input stays at the field and says what is allowed.
  await show('77')
  await expect(
    page.getByText('Type at least the last 4 of the 8 signs that the display shows.'),
  ).toBeVisible()
  await show('77K1')
  await expect(page.getByText(/“K” stands in no Wren ID at that place/)).toBeVisible()
  // The motion's last four are known too: whose they are is said.
  await show('9901')
  await expect(page.getByText(/The display shows … 9901, and this sticker ends in 7701/)).toBeVisible()
  await expect(page.getByText(/Stilt Hound motion in Hall/)).toBeVisible()
  await expect(accept).toBeDisabled()
  await page.getByRole('button', { name: 'Refuse, keep on record' }).click()
  await show('7701')
  await expect(page.getByText('This is it.')).toBeVisible()
  await expect(accept).toBeDisabled()
  await again.click()
  await accept.click()
  await expect(page.getByText('1 of 4 learned')).toBeVisible()

  // Without a noted sticker the last four compare with nothing: it is read, noted, then compared.
  await page.getByRole('button', { name: /Study Window/ }).click()
  await show('0452')
  await expect(page.getByText(/No sticker is noted to compare it with/)).toBeVisible()
  await sticker.fill('3170 0452')
  await sticker.press('Enter')
  await page.getByRole('button', { name: 'Note it as the sticker' }).click()
  await display.fill('0452')
  await display.press('Enter')
  await again.click()
  await accept.click()
  await expect(page.getByText('2 of 4 learned')).toBeVisible()

  // Its sticker typed alone is typed, not heard, and is called so for good.
  await page.getByRole('button', { name: /Hall Motion/ }).click()
  await sticker.fill('20669901')
  await sticker.press('Enter')
  await accept.click()
  await expect(page.getByText('2 of 4 learned, 1 typed, not heard')).toBeVisible()

  // No readable sticker: the whole ID, tripped alone twice.
  await page.getByRole('button', { name: /Bedroom/ }).click()
  await show('40881122')
  await expect(page.getByText('No sticker to compare with.')).toBeVisible()
  await expect(accept).toBeDisabled()
  await show('40881122')
  await accept.click()
  await expect(page.getByText('3 of 4 learned, 1 typed, not heard')).toBeVisible()
  await expect(page.getByText('All saved')).toBeVisible()

  const heard = evidenceOf(await documentOf(page, job), 'heard').filter(
    (record) => record.decision === 'accepted',
  )
  expect(heard.map(({ source, cause, shown, times }) => [source, cause, shown, times])).toEqual([
    ['display', 'event', '7701', 2],
    ['display', 'event', '0452', 2],
    ['sticker', 'typed', null, null],
    ['display', 'event', null, 2],
  ])
  await stage(page, 'Hand over')
  await expect(page.getByRole('row', { name: /Hall Motion/ })).toContainText('2066 9901, typed, not heard')

  // The same plan for practice: nothing of this goes along.
  await stage(page, 'Survey')
  await page.getByRole('button', { name: 'Practise on a copy of this plan' }).click()
  await expect(page.getByText('Practice job.')).toBeVisible()
  await stage(page, 'Enrol')
  await expect(page.getByText('0 of 4 learned')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Start listening' })).toBeVisible()
})
