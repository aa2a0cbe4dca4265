import type { Catalogue } from '../catalogue/catalogue.ts'
import type {
  DeviceClass,
  DeviceModel,
  PanelInterface,
  PanelModel,
  ResponseType,
} from '../catalogue/schema.ts'
import { keepEntry } from '../catalogue/written.ts'
import type { Finding } from '../findings/finding.ts'
import { judge } from '../findings/judge.ts'
import { fitAll, type Fit } from '../fit/fit.ts'
import type { FitReason } from '../fit/reasons.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { blankDevice, blankJob } from '../job/blank.ts'
import { emptyDocument, recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps, type Op } from '../job/edit.ts'
import type { Device, JobInfo, Receiver } from '../job/records.ts'
import { pinOps, startOps } from '../job/start.ts'
import { programmingSheet } from '../programming/sheet.ts'
import { firstDelays } from '../response/first-delays.ts'
import { tripsOf, type ModeTrip } from '../response/modes.ts'
import { systemOf } from '../system/system.ts'
import { numberAll, type NumberingPlan } from '../zones/number-all.ts'
import { printNumber } from '../zones/numbers.ts'

/* What a panel makes of a small house: eight devices of the catalogue numbered, typed, named, judged and written on its sheet. */

/** A place of the house and what it wants. */
interface Wish extends Pick<Device, 'room' | 'position' | 'use'> {
  readonly class: DeviceClass
}

/** The house: what nearly every house has, by class and use. */
const wishes: readonly Wish[] = [
  { class: 'contact', room: 'Hall', position: 'Front door', use: 'entry' },
  { class: 'contact', room: 'Kitchen', position: 'Window', use: 'opening' },
  { class: 'motion', room: 'Hall', position: '', use: 'sees-entry' },
  { class: 'motion', room: 'Living room', position: '', use: 'off-way' },
  { class: 'smoke', room: 'Landing', position: '', use: 'none' },
  { class: 'flood', room: 'Kitchen', position: '', use: 'none' },
  { class: 'keypad', room: 'Hall', position: '', use: 'none' },
  { class: 'fob', room: '', position: '', use: 'none' },
]

/** A zone of the sample as the panel would have it. */
interface SampleZone {
  readonly number: string
  readonly label: string
  readonly device: string
  readonly type: ResponseType | null
  readonly modes: readonly ModeTrip[]
}

/** What became of the small house on a panel. */
export interface SamplePlan {
  readonly zones: readonly SampleZone[]
  /** Classes of which no device of the catalogue fits this panel, each with the one that comes nearest and what is against it. */
  readonly without: readonly {
    readonly class: DeviceClass
    readonly nearest: { readonly device: string; readonly reasons: readonly FitReason[] } | null
  }[]
  /** Devices that got no number, each with why. */
  readonly left: readonly { readonly device: string; readonly reason: string }[]
  /** What stops, of the plan itself: no sample is learned or proved. */
  readonly stops: readonly Finding[]
  /** Steps of its sheet, and how many of them the plan still owes. */
  readonly steps: number
  readonly open: number
}

const rankOf: Readonly<Record<Fit['verdict'], number>> = { works: 0, loss: 1, unknown: 2, no: 3 }

/** What a small house needs, with the device that suits each best, and its plan on a panel. */
interface SampleHouse {
  readonly chosen: readonly { readonly wish: Wish; readonly best: Tried | null }[]
  readonly planned: JobDocument
  readonly plan: NumberingPlan
  readonly whole: Catalogue
}

/** Plans the small house on a panel that need not be in the catalogue yet. */
function sampleHouse(panel: PanelModel, catalogue: Catalogue): SampleHouse {
  const whole = catalogue.with([keepEntry(panel)])
  const empty = emptyJob(panel, whole)
  const chosen = wishes.map((wish) => ({ wish, best: bestFor(wish.class, empty, whole) }))
  const doc = chosen.reduce(
    (at, { wish, best }, index) =>
      best && best.verdict !== 'no'
        ? withDevice(at, whole, { wish, model: best.model, order: index + 1 })
        : at,
    empty,
  )
  let count = 0
  const plan = numberAll(doc, whole, {
    newId: () => `zone:${(count += 1)}`,
    houseRules: defaultHouseRules,
  })
  return { chosen, plan, whole, planned: taken(doc, plan.ops) }
}

/** The small house as a job on a panel that is keyed by an interface which need not be in the catalogue yet, with the catalogue for it. */
export function sampleJob(
  keyed: PanelInterface,
  panel: PanelModel,
  catalogue: Catalogue,
): { readonly doc: JobDocument; readonly catalogue: Catalogue } {
  const { planned, whole } = sampleHouse(
    { ...panel, interface: keyed.id },
    catalogue.with([keepEntry(keyed)]),
  )
  return { doc: planned, catalogue: whole }
}

/** A small house planned on a panel that need not be in the catalogue yet, in a region that it is made for. */
export function samplePlan(panel: PanelModel, catalogue: Catalogue, now: string): SamplePlan {
  const { chosen, plan, whole, planned } = sampleHouse(panel, catalogue)
  const sheet = programmingSheet(planned, whole, defaultHouseRules)
  const names = new Map(recordsOf(planned, 'device').map(({ id, model }) => [id, nameOf(model, whole)]))
  return {
    zones: recordsOf(planned, 'zone')
      .toSorted((a, b) => a.number - b.number)
      .map((zone) => {
        const type = panel.responseTypes.find(({ key }) => key === zone.response) ?? null
        return {
          ...{ number: printNumber(panel, zone.number), label: zone.label, type },
          ...{ device: names.get(zone.device ?? '') ?? '', modes: type ? modesOfType(panel, type) : [] },
        }
      }),
    without: [...new Map(chosen.map(({ wish, best }) => [wish.class, best]))].flatMap(([of, best]) =>
      best === null || best.verdict === 'no'
        ? [{ class: of, nearest: best && { device: best.model.name, reasons: best.reasons } }]
        : [],
    ),
    left: plan.left.map(({ device, reason }) => ({ device: names.get(device) ?? '', reason })),
    stops: judge({
      ...{ doc: planned, catalogue: whole, now, elsewhere: null, houseRules: defaultHouseRules },
    }).filter(({ severity }) => severity === 'stops'),
    steps: sheet?.sections.reduce((sum, { steps }) => sum + steps.length, 0) ?? 0,
    open: sheet?.open ?? 0,
  }
}

function modesOfType(panel: PanelModel, type: ResponseType): ModeTrip[] {
  const trips = tripsOf(panel, type)
  const modes = ['away', 'stay', ...(type.night === undefined ? [] : (['night'] as const)), 'unset'] as const
  return modes.map((mode) => ({ mode, trip: trips[mode], because: '' }))
}

/** A new job on the panel with the usual figures of its region; of a panel without a radio of its own, with a receiver that it takes. */
function emptyJob(panel: PanelModel, catalogue: Catalogue): JobDocument {
  const region = panel.regions[0] ?? 'europe'
  const info: JobInfo = {
    ...blankJob,
    ...{ id: 'job:main', name: 'Try-out', region, kind: 'new', monitored: true, grade: panel.grade ?? 1 },
    ...{ panel: panel.id, radioFirmware: panel.radioFirmware.at(-1) ?? null, airSeed: 1 },
    ...firstDelays(panel, region),
  }
  const begun = taken(emptyDocument, startOps(emptyDocument, catalogue, info))
  const [apart] = panel.builtIn === null ? panel.receivers : []
  if (apart === undefined) return begun
  const record: Receiver = {
    ...{ id: 'receiver:1', type: 'receiver', model: apart, room: 'Hall', encryptedOnly: false, order: 1 },
  }
  return taken(begun, [...pinOps(begun, catalogue, [apart]), { op: 'add', record }])
}

interface Tried extends Pick<Fit, 'verdict' | 'reasons'> {
  readonly model: DeviceModel
}

/** The device of a class that suits the panel best, a current one before one that is no longer made; null where there is none of the region. */
function bestFor(of: DeviceClass, doc: JobDocument, catalogue: Catalogue): Tried | null {
  const system = systemOf(doc, catalogue)
  const tried = catalogue
    .all('device')
    .filter((model) => model.class === of && model.regions.includes(system.info.region))
    .flatMap((model): Tried[] => {
      const device = { ...blankDevice, id: 'device:tried', model: model.id, order: 1 }
      const item = { device, model, family: catalogue.get('family', model.family) }
      const fit = fitAll({ ...system, devices: [item], byId: new Map([[device.id, item]]) }).get(device.id)
      return fit ? [{ model, verdict: fit.verdict, reasons: fit.reasons }] : []
    })
  return tried.toSorted((a, b) => rankFor(a) - rankFor(b))[0] ?? null
}

/** By verdict, of those that do not fit the one that is heard; then what is still made, then radio, then what reports most. */
function rankFor({ model, verdict, reasons }: Tried): number {
  const isDeaf = reasons.some(({ code }) => code === 'band' || code === 'protocol' || code === 'no-receiver')
  return (
    rankOf[verdict] * 1000 +
    (isDeaf ? 500 : 0) +
    (model.discontinued === undefined ? 0 : 100) +
    (model.family === null ? 50 : 0) -
    model.loops.length
  )
}

function withDevice(
  doc: JobDocument,
  catalogue: Catalogue,
  { wish, model, order }: { readonly wish: Wish; readonly model: DeviceModel; readonly order: number },
): JobDocument {
  const { class: _class, ...place } = wish
  const record = { ...blankDevice, ...place, id: `device:${order}`, model: model.id, order }
  return taken(doc, [...pinOps(doc, catalogue, [model.id]), { op: 'add', record }])
}

function nameOf(id: string, catalogue: Catalogue): string {
  return catalogue.get('device', id)?.name ?? id
}

function taken(doc: JobDocument, ops: readonly Op[]): JobDocument {
  const result = applyOps(doc, ops)
  if (!result.ok) throw new RangeError('samplePlan: a new job takes its first records')
  return result.doc
}
