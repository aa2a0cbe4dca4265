import {
  blankDevice,
  blankJob,
  defaultHouseRules,
  emptyDocument,
  lostFor,
  numberAll,
  panelSheet,
  pinOps,
  startOps,
  systemOf,
  type Catalogue,
  type JobDocument,
  type Op,
} from '#core'
import { interfaceOf } from '../core/src/panel/compiled.ts'
import { display } from '../core/src/panel/display.ts'
import { act, acted, switchedOn } from '../core/src/panel/machine.ts'
import { routesTo } from '../core/src/panel/route.ts'
import { press } from '../core/src/panel/typist.ts'
import { targetMemory } from '../core/src/memory/target.ts'
import { shippedCatalogue, take } from './made-job.ts'
import { median, type Measured } from './measure.ts'

/** The panel acted out: what one waits for at its display, measured on the panels with the most zones. */
export function panelBenches(): Measured[] {
  const sallow = panelJob('panel/sallow-m', ['jetty-slim', 'drifter', 'jetty-slim', 'drifter-pet'], 64)
  const ostler = panelJob('panel/ostler-s-9', ['sill-9', 'watcher-9', 'sill-slim-9', 'watcher-pet-9'], 62)
  return [
    route('a route of 64 zones from factory, menu tree', sallow),
    route('a route of 62 zones from factory, many screens', ostler),
    sheet('the sheet of 64 zones with its slips, both orders', sallow),
    keys('one key', sallow),
    lost('where somebody lost may be, two lines read', sallow),
  ]
}

interface PanelJob {
  readonly doc: JobDocument
  readonly catalogue: Catalogue
}

/** A job of this many one-zone devices on a shipped panel, each with a sticker. */
function panelJob(panel: string, models: readonly string[], devices: number): PanelJob {
  const catalogue = shippedCatalogue()
  const info = { ...blankJob, id: 'job:main', name: 'Made job', kind: 'new' } as const
  let doc = take(
    emptyDocument,
    startOps(emptyDocument, catalogue, {
      ...{ ...info, panel, grade: 1, entry1: 30, entry2: 60, exit: 90, airSeed: 1 },
      region: catalogue.get('panel', panel)?.regions[0] ?? 'europe',
      monitored: false,
      radioFirmware: catalogue.get('panel', panel)?.radioFirmware.at(-1) ?? null,
    }),
  )
  const records = Array.from({ length: devices }, (_, index): Op => {
    const model = models[index % models.length] ?? ''
    const family = catalogue.get('family', catalogue.get('device', `device/${model}`)?.family ?? null)
    const digits = String(index + 100_001)
    return {
      op: 'add',
      record: {
        ...blankDevice,
        id: `device:d${index}`,
        model: `device/${model}`,
        room: `Room ${Math.floor(index / 4) + 1}`,
        position: `${index}`,
        use: index === 0 ? 'entry' : index % 2 === 1 ? 'off-way' : 'opening',
        sticker: family?.sticker.alphabet === 'letter-then-digits' ? `H${digits}` : digits.padStart(10, '0'),
        order: index + 1,
      },
    }
  })
  doc = take(doc, [
    ...pinOps(
      doc,
      catalogue,
      models.map((model) => `device/${model}`),
    ),
    ...records,
  ])
  let count = 0
  const newId = (): string => `zone:z${(count += 1)}`
  doc = take(doc, numberAll(doc, catalogue, { newId, houseRules: defaultHouseRules }).ops)
  return { doc, catalogue }
}

/** What is keyed, and the panel that it is keyed into; throws where the plan cannot be held, for then nothing is measured. */
function ready({ doc, catalogue }: PanelJob) {
  const { panel: model } = systemOf(doc, catalogue)
  const panel = model && interfaceOf(catalogue, model)
  const target = targetMemory(doc, catalogue)
  if (!panel || !target || target.refused.length > 0) throw new Error(JSON.stringify(target?.refused))
  return { panel, target }
}

function route(name: string, job: PanelJob): Measured {
  const { panel, target } = ready(job)
  let keyed = 0
  const ms = median(8, () => {
    const [one] = routesTo({ panel, target, start: panel.factory }, ['shortest'])
    if (!one?.ok) throw new Error(JSON.stringify(one?.reasons))
    keyed = one.keys
  })
  return result(`${name}, ${keyed} keys`, { ms, job, most: 500, budget: '500 ms, in a worker' })
}

/** No budget names it: what is waited for on Program is the route, its slips and the other order. */
function sheet(name: string, { doc, catalogue }: PanelJob): Measured {
  const ms = median(5, () => {
    const made = panelSheet({ doc, catalogue, start: 'factory', order: 'shortest', identity: 'type' })
    if (!made?.ok) throw new Error('no sheet')
  })
  return result(name, { ms, job: { doc, catalogue }, most: 2000, budget: '2 s, in a worker' })
}

function keys(name: string, job: PanelJob): Measured {
  const { panel, target } = ready(job)
  const all = [...panel.keys]
  const [one] = routesTo({ panel, target, start: panel.factory }, ['shortest'])
  const begin = acted(panel, switchedOn(panel, panel.factory), one?.ok ? (one.steps[0]?.way ?? []) : [])
  const ms =
    median(20, (round) => {
      let state = begin
      for (let count = 0; count < 1000; count++)
        state = act(panel, state, press(all[(count * 7 + round) % all.length] ?? ''))
    }) / 1000
  const baselineMs =
    median(20, () => {
      for (let count = 0; count < 1000; count++) void JSON.stringify(display(panel, begin))
    }) / 1000
  const baseline = 'what its display shows, written out'
  return { name, ms, baselineMs, baseline, budget: '0.02 ms', within: ms <= 0.02 }
}

function lost(name: string, job: PanelJob): Measured {
  const { panel } = ready(job)
  const find = lostFor({ ...job, start: 'factory' })
  const shows = display(panel, switchedOn(panel, panel.factory))
  // Its map is drawn with the first question.
  find?.({ from: '', read: shows, then: [] })
  const ms = median(20, (round) => {
    const line = String((round % 60) + 10)
    find?.({ from: '', read: [`${line} type`, 'inner'], then: [] })
  })
  return result(name, { ms, job, most: 50, budget: '50 ms' })
}

function result(
  name: string,
  { ms, job, most, budget }: { ms: number; job: PanelJob; most: number; budget: string },
): Measured {
  const text = JSON.stringify(job.doc)
  const baselineMs = median(40, () => void JSON.parse(text))
  return { name, ms, baselineMs, baseline: 'reading the document from JSON', budget, within: ms <= most }
}
