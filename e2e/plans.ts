import { randomUUID } from 'node:crypto'
import { expect, type Page } from '@playwright/test'
import {
  applyOps,
  blankDevice,
  blankJob,
  Catalogue,
  defaultHouseRules,
  emptyDocument,
  fitAll,
  inventId,
  numberAll,
  pinOps,
  readKept,
  SCHEMA,
  seededRandom,
  startOps,
  systemOf,
  type Device,
  type JobDocument,
  type JobInfo,
  type Op,
  type PanelModel,
  type WrittenEntry,
} from '#core'
import { url } from './help.ts'

/* Plans for journeys, begun at the server by one edit. */

export const panelNames = [
  'Tarn 40',
  'Quillet 32',
  'Ostler S 8',
  'Ostler S 9',
  'Morrow 60',
  'Pinfold 16',
  'Sallow M',
]

/** The catalogue as the server offers it. */
export async function offered(page: Page): Promise<Catalogue> {
  const answer = await page.request.get(`${url()}/api/catalogue`)
  return new Catalogue(((await answer.json()) as { entries: WrittenEntry[] }).entries.map(readKept))
}

/** A plan for a panel with every receiver it may have, and one device of each family that it then hears. */
export function planFor(
  panel: PanelModel,
  catalogue: Catalogue,
  practice = true,
): { doc: JobDocument; families: string[] } {
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
      practice,
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

export async function begin(page: Page, doc: JobDocument): Promise<string> {
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

/** A numbered plan of these devices, with a receiver where the panel has none of its own, and a user of this name for what is carried. */
export function plan(
  catalogue: Catalogue,
  info: Partial<JobInfo> & Pick<JobInfo, 'name' | 'panel'>,
  devices: readonly (Partial<Device> & Pick<Device, 'id' | 'model'>)[],
  user = 'Nell Teasel',
): JobDocument {
  let doc = emptyDocument
  const apply = (ops: readonly Op[]): void => {
    const result = applyOps(doc, ops)
    if (!result.ok) throw new Error(JSON.stringify(result.conflict))
    doc = result.doc
  }
  const whole = {
    ...blankJob,
    ...{ id: 'job:main', kind: 'new', monitored: true, grade: 1, region: 'europe', airSeed: 7 },
    ...{ radioFirmware: catalogue.get('panel', info.panel)?.radioFirmware.at(-1) ?? null },
    ...{ entry1: 30, entry2: 45, exit: 60, abortWindow: 0, ...info },
  } as JobInfo
  apply(startOps(doc, catalogue, whole))
  const panel = catalogue.get('panel', whole.panel)
  const apart = panel?.builtIn === null ? panel.receivers.at(-1) : undefined
  if (apart !== undefined) {
    const receiver = { id: 'receiver:one', type: 'receiver', model: apart, room: 'Hall', order: 1 } as const
    apply([...pinOps(doc, catalogue, [apart]), { op: 'add', record: { ...receiver, encryptedOnly: false } }])
  }
  apply([{ op: 'add', record: { id: 'user:one', type: 'user', name: user, order: 1 } }])
  for (const [index, over] of devices.entries())
    apply([
      ...pinOps(doc, catalogue, [over.model]),
      { op: 'add', record: { ...blankDevice, order: index + 1, ...over } },
    ])
  let count = 0
  const newId = (): string => `zone:${(count += 1)}`
  apply(numberAll(doc, catalogue, { newId, houseRules: defaultHouseRules, fresh: false }).ops)
  return doc
}
