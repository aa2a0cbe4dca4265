import { afterAll, afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Component } from 'vue'
import {
  blankDevice,
  blankJob,
  changedSince,
  defaultHouseRules,
  emptyDocument,
  evidenceOf,
  inventId,
  isEnrolled,
  numberAll,
  pinOps,
  proofRoute,
  seededRandom,
  startOps,
  targetsOf,
  type JobDocument,
  type PanelModel,
  type Random,
} from '#core'
import { runs } from '../../../core/src/testing/runs.ts'
import { openJob, type JobPage } from '../testing/job-page.ts'
import { after, catalogue } from '../testing/small-doc.ts'
import { strictServer } from '../testing/strict-server.ts'
import Enrol from './enrol/Enrol.vue'
import HandOver from './handover/HandOver.vue'
import Prove from './prove/Prove.vue'

/*
 * Random acts of an impatient person on Enrol, Prove and Hand over: whatever the page lets them do, the server takes; in the end
 * the page shows what the server has, and nothing is called proved or learned that the record does not hold.
 */

let page: JobPage | null = null
beforeEach(() => void vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval'] }))
afterEach(() => {
  page?.close()
  vi.useRealTimers()
})
/** Kinds of acts that came to something, over all panels. */
const kinds = new Map<string, number>()
afterAll(() => {
  // Or the monkey slept; few acts do not get as far as a proof.
  if (process.env.KAPELLE_LONG !== '1') return
  for (const kind of [
    'enrol.accept',
    'enrol.refuse',
    'prove.record',
    'state.begin',
    'handover.sign',
    'device.set',
  ])
    expect([kind, (kinds.get(kind) ?? 0) > 0]).toEqual([kind, true])
})

/** A job with some devices of every family that a panel hears, half of them with a noted sticker. */
function jobOn(panel: PanelModel, practice: boolean, random: Random): JobDocument {
  const info = {
    ...blankJob,
    ...({ id: 'job:main', name: panel.name, kind: 'new', monitored: true, grade: 1, practice } as const),
    ...{ region: panel.regions[0] ?? 'europe', panel: panel.id, radioFirmware: '9.99', airSeed: 5 },
    ...{ entry1: 30, entry2: 45, exit: 60, exercise: practice ? ('surprises' as const) : ('plain' as const) },
  } as const
  let doc = after(emptyDocument, startOps(emptyDocument, catalogue, info))
  const hears = new Set(
    panel.receivers.flatMap((id) => catalogue.get('receiver', id)?.hears.map((item) => item.family) ?? []),
  )
  const models = catalogue.all('device').filter((model) => model.family !== null && hears.has(model.family))
  const classes = [...new Set(models.map((model) => model.class))]
  for (const [index, kind] of classes.entries()) {
    const ofClass = models.filter((model) => model.class === kind)
    const model = ofClass[Math.floor(random() * ofClass.length)]
    const family = catalogue.get('family', model?.family ?? null)
    if (!model || !family) continue
    const sticker = random() < 0.5 ? inventId(family, random) : null
    const slot = model.slot === 'none' ? null : 1
    doc = after(doc, [
      ...pinOps(doc, catalogue, [model.id]),
      {
        op: 'add',
        record: {
          ...blankDevice,
          ...{ id: `device:${kind}`, model: model.id, room: kind, order: index + 1, sticker, slot },
        },
      },
    ])
  }
  let count = 0
  const newId = (): string => `zone:${(count += 1)}`
  return after(doc, numberAll(doc, catalogue, { newId, houseRules: defaultHouseRules, fresh: false }).ops)
}

const junk = [
  '',
  ' ',
  '0',
  '7733',
  '20417733',
  'ÄÖ<script>',
  '4.0E+12',
  '99',
  '-3',
  'x'.repeat(400),
  '1e9',
  '7',
]

/** What is being learned or proved now, by the page's own mark. */
function current(doc: JobDocument): string | null {
  const marked = document.querySelector('.target[aria-current="true"] .num')?.textContent ?? ''
  const target = targetsOf(doc, catalogue).find((item) => item.name.replace('zone ', '') === marked)
  if (!target) return null
  const model = catalogue.get('device', target.device.model)
  const family = catalogue.get('family', model?.family ?? null)
  return target.device.sticker ?? (family ? inventId(family, seededRandom(7)) : null)
}

/** What leads on, pressed more often than the rest: else a monkey never gets anywhere. */
const forward = [
  ...['Note it as the sticker', 'Accept', 'Tripped again', 'Refuse', 'Take the sister', '✓ Passed'],
  ...['Put the station', 'Note it', 'Vouch', 'Ended', 'Done'],
]

/** One act: a button, a field, a list or a tick, whichever the dice say, as far as it can be used. */
async function act(on: JobPage, random: Random, doc: () => JobDocument): Promise<void> {
  const any = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)]
  const dice = random()
  // Half a slot of the practice air passes with each act.
  vi.advanceTimersByTime(1_500)
  const buttons = [...document.querySelectorAll<HTMLButtonElement>('button, .v-list-item')].filter(
    (button) => !button.disabled,
  )
  if (dice < 0.3) any(buttons)?.click()
  else if (dice < 0.55) {
    const there = forward.filter((name) => buttons.some((one) => one.textContent.trim().startsWith(name)))
    const name = any(there) ?? ''
    any(buttons.filter((button) => button.textContent.trim().startsWith(name)))?.click()
  } else if (dice < 0.62) any([...document.querySelectorAll<HTMLElement>('.rooms button')])?.click()
  else if (dice < 0.94) {
    const inputs = [...document.querySelectorAll<HTMLInputElement>('input[type="text"], input:not([type])')]
    const input = any(inputs.filter((one) => !one.readOnly && !one.disabled))
    if (!input) return
    const serial = current(doc()) ?? '20417733'
    input.value = any([...junk, serial, serial, serial.slice(-4), serial.slice(-4), serial.slice(-4)]) ?? ''
    input.dispatchEvent(new Event('input'))
    if (random() < 0.8) input.form?.dispatchEvent(new Event('submit'))
  } else any([...document.querySelectorAll<HTMLInputElement>('input[type="checkbox"]')])?.click()
  await on.settle()
}

const pages: readonly Component[] = [Enrol, Enrol, Prove, HandOver, Prove]

it.each(
  catalogue
    .all('panel')
    .flatMap((panel) => [true, false].map((practice) => [panel.name, practice, panel] as const)),
)(
  'whatever is done on %s, practice %s, the server takes it, and the page shows what the server has',
  async (_name, practice, panel) => {
    const random = seededRandom(panel.name.length * 977 + (practice ? 1 : 2))
    const start = jobOn(panel, practice, random)
    const server = strictServer(start, { id: 'p1', name: 'Nell', role: 'installer' })
    page = await openJob(start, 'installer', [], server)
    const acts = Math.ceil(runs(6_000) / 14)
    for (let count = 0; count < acts; count++) {
      if (count % 20 === 0) await page.show(pages[Math.floor(count / 20) % pages.length] ?? Enrol)
      await act(page, random, server.head)
    }
    for (let turn = 0; turn < 20 && page.job.unsent.length > 0; turn++) await page.settle()
    for (const { kind } of page.edits) kinds.set(kind, (kinds.get(kind) ?? 0) + 1)
    expect(server.refused).toEqual([])
    expect(page.job.tray).toEqual([])
    expect(page.job.doc).toEqual(server.head())
    truthful(page, server.head())
  },
  120_000,
)

/** Nothing is called learned or proved that the record does not hold, as it is now. */
function truthful(on: JobPage, doc: JobDocument): void {
  for (const target of targetsOf(on.job.doc, on.job.catalogue)) {
    const last = evidenceOf(doc, 'heard').filter(
      (record) => record.subject === target.id && record.decision !== 'refused',
    )
    if (target.done) expect(last.at(-1)?.decision, target.name).toBe('accepted')
    if (target.how === 'heard') {
      expect(['display', 'practice']).toContain(last.at(-1)?.source)
      expect(last.at(-1)?.cause).not.toMatch(/typed|sister/)
    }
  }
  for (const stop of proofRoute(on.job.doc, on.job.catalogue, null))
    for (const item of stop.items.filter(({ state }) => state === 'pass')) {
      const results = evidenceOf(doc, 'test').filter(
        (result) => result.kind === item.kind && result.subject === item.subject && result.loop === item.loop,
      )
      expect([item.key, results.at(-1)?.outcome]).toEqual([item.key, 'pass'])
      const result = results.at(-1)
      if (result) expect(changedSince(doc, on.job.catalogue, result)).toEqual([])
      if (item.subject.startsWith('zone:') && stop.model?.family)
        expect(isEnrolled(doc, item.subject)).toBe(true)
    }
}
