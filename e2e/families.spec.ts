import { randomUUID } from 'node:crypto'
import { expect, test, type Page } from '@playwright/test'
import {
  Catalogue,
  blankDevice,
  blankJob,
  emptyDocument,
  applyOps,
  defaultHouseRules,
  fitAll,
  numberAll,
  pinOps,
  readKept,
  recordsOf,
  SCHEMA,
  startOps,
  systemOf,
  targetsOf,
  inventId,
  seededRandom,
  type Heard,
  type JobDocument,
  type JobInfo,
  type OpenedJob,
  type Op,
  type PanelModel,
  type WrittenEntry,
} from '#core'
import { signIn, url } from './help.ts'

/* One device of every family is learned and one refused, on every panel that hears it, in the browser through to the database. */

const panelNames = [
  'Tarn 40',
  'Quillet 32',
  'Ostler S 8',
  'Ostler S 9',
  'Morrow 60',
  'Pinfold 16',
  'Sallow M',
]

/** The catalogue as the server offers it. */
async function offered(page: Page): Promise<Catalogue> {
  const answer = await page.request.get(`${url()}/api/catalogue`)
  return new Catalogue(((await answer.json()) as { entries: WrittenEntry[] }).entries.map(readKept))
}

/** A plan for a panel with every receiver it may have, and one device of each family that it then hears. */
function planFor(panel: PanelModel, catalogue: Catalogue): { doc: JobDocument; families: string[] } {
  let doc = emptyDocument
  const apply = (ops: readonly Op[]): void => {
    const result = applyOps(doc, ops)
    if (!result.ok) throw new Error(JSON.stringify(result.conflict))
    doc = result.doc
  }
  const info = {
    ...blankJob,
    ...{ id: 'job:main', name: `All families on ${panel.name}`, kind: 'new', monitored: true, grade: 1 },
    ...{
      region: panel.regions[0] ?? 'europe',
      panel: panel.id,
      radioFirmware: '9.99',
      airSeed: 11,
      practice: true,
    },
    ...{ entry1: 30, entry2: 45, exit: 60 },
  } as JobInfo
  apply(startOps(doc, catalogue, info))
  for (const [index, model] of panel.receivers.entries()) {
    if (systemOf(doc, catalogue).receivers.some((item) => item.model.id === model)) continue
    const receiver = {
      id: `receiver:${index}`,
      type: 'receiver',
      model,
      room: 'Hall',
      encryptedOnly: false,
    } as const
    apply([...pinOps(doc, catalogue, [model]), { op: 'add', record: { ...receiver, order: index + 1 } }])
  }
  const families: string[] = []
  for (const family of catalogue.all('family')) {
    const model = catalogue
      .all('device')
      .filter(
        (item) => item.family === family.id && item.slot === 'none' && item.loops.some((loop) => loop.bench),
      )
      .find((item) => {
        const tried = applyOps(doc, [
          ...pinOps(doc, catalogue, [item.id]),
          { op: 'add', record: device(item.id, 'try') },
        ])
        return tried.ok && fitAll(systemOf(tried.doc, catalogue)).get('device:try')?.verdict !== 'no'
      })
    if (!model) continue
    const key = family.id.replace('family/', '')
    // IDs of its own per panel: one that another job has enrolled is refused, as it must be.
    const sticker = inventId(family, seededRandom(100 * panelNames.indexOf(panel.name) + families.length + 3))
    apply([
      ...pinOps(doc, catalogue, [model.id]),
      {
        op: 'add',
        record: { ...device(model.id, key), sticker, order: families.length + 1, room: family.name },
      },
    ])
    families.push(family.id)
  }
  let count = 0
  apply(
    numberAll(doc, catalogue, {
      newId: () => `zone:${(count += 1)}`,
      houseRules: defaultHouseRules,
      fresh: false,
    }).ops,
  )
  return { doc, families }
}

function device(model: string, key: string) {
  return { ...blankDevice, id: `device:${key}`, model, order: 1 }
}

async function begin(page: Page, doc: JobDocument): Promise<string> {
  const job = randomUUID()
  const edit = {
    ...{ id: randomUUID(), kind: 'job.start', schema: SCHEMA, by: { id: null, name: 'Idris Quayle' } },
    madeAt: new Date().toISOString(),
    ops: Object.values(doc.records).map((record) => ({ op: 'add', record })),
  }
  const begun = await page.request.put(`${url()}/api/jobs/${job}`, { data: { edit } })
  expect([begun.status(), await begun.text()]).toEqual([200, expect.anything()])
  return job
}

for (const name of panelNames)
  test(`every family that ${name} hears is learned, and a stranger of it refused`, async ({ page }) => {
    test.setTimeout(240_000)
    await signIn(page, 'idris')
    const catalogue = await offered(page)
    const panel = catalogue.all('panel').find((item) => item.name === name)
    if (!panel) throw new Error(`no panel ${name}`)
    const { doc, families } = planFor(panel, catalogue)
    expect(families.length).toBeGreaterThan(0)
    const job = await begin(page, doc)
    await page.clock.install()
    await page.goto(`${url()}/jobs/${job}/enrol`)
    await page.getByRole('button', { name: 'Start listening' }).click()
    await expect(page.getByRole('button', { name: /Stop listening/ })).toBeVisible()

    // Typed by hand, an ID of each family that is on no sticker is refused and kept; nothing is put right by itself.
    const targets = targetsOf(doc, catalogue).filter((target) => target.loop?.bench && !target.sister)
    const strangers = new Map<string, string>()
    for (const family of families) {
      const key = family.replace('family/', '')
      const target = targets.find((item) => item.device.id === `device:${key}`)
      const model = catalogue.get('family', family)
      if (!target || !model) throw new Error(`${family} has nothing to learn`)
      const stranger = inventId(model, seededRandom(9_000 + panelNames.indexOf(name)))
      strangers.set(family, stranger)
      await page.getByRole('button', { name: new RegExp(`^${numberOf(target.name)} `) }).click()
      const entry = page.getByLabel('Type or scan the sticker')
      await entry.fill(stranger)
      await entry.press('Enter')
      await expect(page.getByText(/is on no sticker of this job/).first()).toBeVisible()
      await expect(page.getByRole('button', { name: /^Accept/ })).toBeDisabled()
      await page.getByRole('button', { name: 'Refuse, keep on record' }).click()
    }

    // The air brings each device among others; what is its own is accepted, the rest refused.
    const accept = page.getByRole('button', { name: /^Accept/ })
    const opened = async (): Promise<OpenedJob> =>
      (await (await page.request.get(`${url()}/api/jobs/${job}`)).json()) as OpenedJob
    const heardOf = async (decision: Heard['decision']): Promise<Set<string>> => {
      const { document } = await opened()
      const heard = recordsOf(document, 'heard').filter((item) => item.decision === decision)
      return new Set(heard.map((item) => item.serial))
    }
    const stickers = recordsOf(doc, 'device').map((item) => item.sticker ?? '')
    for (let round = 0; round < 200; round++) {
      const learned = await heardOf('accepted')
      if (stickers.every((sticker) => learned.has(sticker))) break
      await page.clock.fastForward(4_000)
      if (await accept.isEnabled()) await accept.click()
      else if (await page.getByText('Which loop?').isVisible())
        await page.getByRole('button', { name: 'Refuse, keep on record' }).click()
    }
    const [learned, refused] = [await heardOf('accepted'), await heardOf('refused')]
    for (const [index, family] of families.entries())
      expect([family, learned.has(stickers[index] ?? ''), refused.has(strangers.get(family) ?? '')]).toEqual([
        family,
        true,
        true,
      ])
    await expect(page.getByText('All saved')).toBeVisible()
    // What is kept stays so for whoever opens the job next.
    await page.reload()
    await expect(
      page
        .getByRole('listitem')
        .filter({ hasText: /, typed|learned/ })
        .first(),
    ).toBeVisible()
  })

test('between them they hear every family of the catalogue', async ({ page }) => {
  await signIn(page, 'idris')
  const catalogue = await offered(page)
  const heard = catalogue.all('panel').flatMap((panel) => planFor(panel, catalogue).families)
  expect(
    catalogue
      .all('panel')
      .map((panel) => panel.name)
      .sort(),
  ).toEqual([...panelNames].sort())
  expect([...new Set(heard)].sort()).toEqual(
    catalogue
      .all('family')
      .map((family) => family.id)
      .sort(),
  )
})

function numberOf(name: string): string {
  return name.replace('zone ', '')
}
