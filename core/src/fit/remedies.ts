import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, PanelModel } from '../catalogue/schema.ts'
import type { RemedyCosts } from '../house-rules/house-rules.ts'
import { nextOrder, recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps, changeOps, type Op } from '../job/edit.ts'
import type { Device } from '../job/records.ts'
import { pinOps } from '../job/start.ts'
import { eventsToZone } from '../catalogue/zone-loops.ts'
import { compareVersions, fitAll, fitPair, type Fit, type Verdict } from './fit.ts'
import type { FitCode } from './reasons.ts'
import { choosePanelOps } from '../response/choose-panel.ts'
import {
  systemOf,
  type System,
  type JobAndCatalogue,
  type JobAndSystem,
  type DocAndSystem,
} from '../system/system.ts'
import { isDeviceKnown } from '../job/enrolment.ts'

type RemedyKind = Exclude<keyof RemedyCosts, 'enrol'>

/** A device whose verdict a remedy changes. */
interface VerdictChange {
  readonly device: string
  readonly from: Verdict
  readonly to: Verdict
}

/** A change of the job that lets a device fit: an edit to preview and apply. */
export interface Remedy {
  readonly kind: RemedyKind
  readonly title: string
  readonly cost: number
  readonly ops: readonly Op[]
  /** Every verdict that changes, that of the device itself first. */
  readonly changes: readonly VerdictChange[]
}

const ranks: Readonly<Record<Verdict, number>> = { works: 0, loss: 1, unknown: 2, no: 3 }
const kindOrder: readonly RemedyKind[] = ['setting', 'firmware', 'swap', 'receiver', 'panel']
const MOST_SWAPS = 4

/**
 * What would let this device fit, cheapest first; nothing where only a fact is missing. Each remedy was tried on a copy: it makes the verdict good, worsens no
 * other device's and breaks no capacity. Equal costs stand in a fixed order: setting, firmware, swap, receiver, panel, then title.
 */
export function remediesFor(
  { doc, catalogue }: JobAndCatalogue,
  deviceId: string,
  opts: { readonly costs: RemedyCosts; readonly newId: () => string },
): Remedy[] {
  const system = systemOf(doc, catalogue)
  const before = fitAll(system)
  const now = before.get(deviceId)
  const item = system.byId.get(deviceId)
  if (!now || !item || now.verdict === 'works') return []
  // What is not known is read and noted: nobody swaps a device because of a number that nobody has looked at.
  if (now.verdict === 'unknown' && system.panel) return []
  const { costs } = opts
  const tries = [
    ...settings(system),
    ...firmwares(system),
    ...swaps({ doc, catalogue, system }, item, now),
    ...receivers({ doc, catalogue, system }, opts.newId),
    ...panels(doc, catalogue, system),
  ]
  const sound = tries.flatMap((attempt): Remedy[] => {
    const changes = changesOf({ doc, catalogue }, before, attempt.ops)
    const mine = changes?.find((change) => change.device === deviceId)
    if (!changes || !mine || ranks[mine.to] >= ranks[mine.from] || mine.to === 'unknown') return []
    if (changes.some((change) => ranks[change.to] > ranks[change.from])) return []
    const cost = costs[attempt.kind] + costs.enrol * attempt.again
    return [
      {
        kind: attempt.kind,
        title: attempt.title,
        cost,
        ops: attempt.ops,
        changes: [mine, ...changes.filter((change) => change !== mine)],
      },
    ]
  })
  const sorted = sound.sort(
    (a, b) =>
      ranks[a.changes[0]?.to ?? 'no'] - ranks[b.changes[0]?.to ?? 'no'] ||
      a.cost - b.cost ||
      kindOrder.indexOf(a.kind) - kindOrder.indexOf(b.kind),
  )
  return limitSwaps(sorted)
}

interface Attempt {
  readonly kind: RemedyKind
  readonly title: string
  readonly ops: readonly Op[]
  /** Devices to be enrolled again. */
  readonly again: number
}

/** Verdicts that an edit changes, or null when it does not apply. */
function changesOf(
  { doc, catalogue }: JobAndCatalogue,
  before: ReadonlyMap<string, Fit>,
  ops: readonly Op[],
): VerdictChange[] | null {
  const result = applyOps(doc, ops)
  if (!result.ok) return null
  const after = fitAll(systemOf(result.doc, catalogue))
  return [...before].flatMap(([device, fit]) => {
    const to = after.get(device)?.verdict ?? 'no'
    return to === fit.verdict ? [] : [{ device, from: fit.verdict, to }]
  })
}

/** The encrypted-only switch of each receiver that has one, turned the other way. */
function settings(system: System): Attempt[] {
  return system.receivers
    .filter(
      ({ id, encryptedOnly, model }) => id !== 'built-in' && (encryptedOnly || model.encryptedOnlySetting),
    )
    .map(({ id, encryptedOnly, model }) => ({
      kind: 'setting',
      title: encryptedOnly
        ? `Let ${model.name} take plain devices too`
        : `Set ${model.name} to encrypted devices only`,
      ops: [{ op: 'set', id, field: 'encryptedOnly', from: encryptedOnly, to: !encryptedOnly }],
      again: 0,
    }))
}

/** Newer firmware, the least new first, so that no more is updated than is needed. */
function firmwares(system: System): Attempt[] {
  const { panel, info } = system
  const has = info.radioFirmware
  if (!panel || has === null) return []
  return panel.radioFirmware
    .filter((version) => compareVersions(version, has) > 0)
    .slice(0, 3)
    .map((version) => ({
      kind: 'firmware',
      title: `Update the radio firmware of ${panel.name} from ${has} to ${version}`,
      ops: [{ op: 'set', id: 'job:main', field: 'radioFirmware', from: has, to: version }],
      again: 0,
    }))
}

/** Checks that miss encryption: what cannot encrypt never restores it. */
const missEncryption: ReadonlySet<FitCode> = new Set(['replay', 'encryption', 'encryption-optional'])

function swaps(
  { doc, catalogue, system }: JobAndSystem,
  { device, model }: System['devices'][number],
  now: Fit,
): Attempt[] {
  const needed = neededEvents({ doc, system }, device, model)
  const secret = now.reasons.some((reason) =>
    reason.code === 'bridge' ? reason.facts.lost.includes('encryption') : missEncryption.has(reason.code),
  )
  const fitting = catalogue
    .all('device')
    .filter((other) => other.id !== model.id && stands(system, { model, other }, needed))
    .filter((other) => !secret || encrypts(other))
    .sort(nearestFirst(model))
  return fitting.map((other) => ({
    kind: 'swap',
    title: `Swap it for ${other.name}${model.discontinued?.successor === other.id ? ', its successor' : ''}${encrypts(model) && other.encryption === 'none' && other.family !== null ? ', which sends plain' : ''}`,
    ops: swapOps({ doc, catalogue }, device, other),
    again: Number(isDeviceKnown(doc, device.id)),
  }))
}

/** Whether it is known to encrypt, always or where the receiver does. */
function encrypts({ encryption }: DeviceModel): boolean {
  return encryption !== undefined && encryption !== 'none'
}

/**
 * A model that could stand in a device's place, is heard by what is there and encrypts whatever is set: the nearest to it; null
 * when the catalogue has none.
 */
export function encryptedVariant(
  { doc, catalogue }: JobAndCatalogue,
  { device, model }: System['devices'][number],
): DeviceModel | null {
  const system = systemOf(doc, catalogue)
  const needed = neededEvents({ doc, system }, device, model)
  const heard = (other: DeviceModel): boolean => {
    const family = catalogue.get('family', other.family)
    return (
      family !== null &&
      system.receivers.some(
        (receiver) => fitPair({ model: other, family, receiver, system }).verdict === 'works',
      )
    )
  }
  const [nearest] = catalogue
    .all('device')
    .filter(
      (other) => other.encryption === 'always' && stands(system, { model, other }, needed) && heard(other),
    )
    .sort(nearestFirst(model))
  return nearest ?? null
}

/** Events that a stand-in must have: those of the device's zones, or those it would get. */
export function neededEvents(
  { doc, system }: DocAndSystem,
  device: Device,
  model: DeviceModel,
): ReadonlySet<string | null> {
  const zones = recordsOf(doc, 'zone').filter((zone) => zone.device === device.id)
  return new Set<string | null>(
    zones.length > 0
      ? zones.map((zone) => zone.event)
      : eventsToZone({ device, model }, system.panel).map((loop) => loop.event),
  )
}

/** A device model, and the other that might stand in its place. */
export interface Swap {
  readonly model: DeviceModel
  readonly other: DeviceModel
}

/** Whether another model can stand in the same place: class, events, weather, pets, carrying, and still made. */
// eslint-disable-next-line complexity -- one guard per fact, read from top to bottom
export function stands(system: System, { model, other }: Swap, needed: ReadonlySet<string | null>): boolean {
  if (other.class !== model.class || other.slot !== model.slot || other.discontinued) return false
  // A cable is no swap where a zone's number and terminal would have to change with it.
  if (model.loops.length > 0 && (other.family === null) !== (model.family === null)) return false
  const events = new Set<string>(other.loops.map((loop) => loop.event))
  if (![...needed].every((event) => event === null || events.has(event))) return false
  if (other.carried !== model.carried || (model.outdoor === true && other.outdoor !== true)) return false
  // What is not stated to bear the cold is not put out into it.
  const coldest = model.temperatureC.from
  if (model.outdoor === true && coldest !== undefined && (other.temperatureC.from ?? Infinity) > coldest)
    return false
  const pet = system.info.petKg ?? 0
  return model.class !== 'motion' || model.petKg === null || (other.petKg ?? 0) >= Math.min(pet, model.petKg)
}

/** Orders what could stand in a model's place: the nearest first, of equally near ones the cheapest; what has no price is last. */
export function nearestFirst(model: DeviceModel): (a: DeviceModel, b: DeviceModel) => number {
  return (a, b) => nearness(model, a) - nearness(model, b) || priceOf(a) - priceOf(b)
}

/** Of one piece; no price compares as beyond all. */
function priceOf({ price }: DeviceModel): number {
  return price ? price.amount / price.pack : Number.MAX_VALUE
}

/** Successor first, then a variant of the same model, then the same maker. */
function nearness(model: DeviceModel, other: DeviceModel): number {
  if (model.discontinued?.successor === other.id) return 0
  const base = (entry: DeviceModel): string =>
    entry.variant?.of ?? entry.name.split(' ').slice(0, -1).join(' ')
  if (base(model) === base(other)) return 1
  return model.maker === other.maker ? 2 : 3
}

/** The ops that put another model in a device's place: loops and codes follow, IDs are forgotten. */
export function swapOps({ doc, catalogue }: JobAndCatalogue, device: Device, other: DeviceModel): Op[] {
  const panel = catalogue.get('panel', recordOf(doc, 'job', 'job:main')?.panel ?? null)
  const zones = recordsOf(doc, 'zone').filter((zone) => zone.device === device.id)
  return [
    ...pinOps(doc, catalogue, [other.id]),
    ...changeOps(device, 'model', other.id),
    ...changeOps(device, 'sticker', null),
    ...zones.flatMap((zone) => {
      const loop = other.loops.find((item) => item.event === zone.event)
      const code = panel?.equipment.code
        ? (other.equipmentCodes.find((item) => item.panel === panel.id)?.code ?? null)
        : zone.equipmentCode
      return [
        ...changeOps(zone, 'loop', other.family === null || other.switches ? null : (loop?.loop ?? null)),
        ...changeOps(zone, 'equipmentCode', code),
      ]
    }),
  ]
}

function receivers({ doc, catalogue, system }: JobAndSystem, newId: () => string): Attempt[] {
  const { panel } = system
  const has = new Set(system.receivers.map((item) => item.model.id))
  return (panel?.receivers ?? [])
    .filter((id) => !has.has(id))
    .flatMap((id): Attempt[] => {
      const model = catalogue.get('receiver', id)
      if (!model) return []
      const record = {
        id: `receiver:${newId()}`,
        type: 'receiver',
        model: id,
        room: '',
        encryptedOnly: false,
        order: nextOrder(doc, 'receiver'),
      } as const
      return [
        {
          kind: 'receiver',
          title: `Add ${model.place === 'bridge' ? 'the bridge ' : ''}${model.name}`,
          ops: [...pinOps(doc, catalogue, [id]), { op: 'add', record }],
          again: 0,
        },
      ]
    })
}

function panels(doc: JobDocument, catalogue: Catalogue, system: System): Attempt[] {
  const { info } = system
  const enrolled = recordsOf(doc, 'device').filter((device) => isDeviceKnown(doc, device.id)).length
  const made = (panel: PanelModel): boolean => info.region === 'own' || panel.regions.includes(info.region)
  return catalogue
    .all('panel')
    .filter((panel) => panel.id !== info.panel && made(panel))
    .map((panel) => ({
      kind: 'panel',
      title: `Choose ${panel.name} instead`,
      ops: choosePanelOps(doc, catalogue, panel.id),
      again: enrolled,
    }))
}

function limitSwaps(remedies: readonly Remedy[]): Remedy[] {
  let swapsSeen = 0
  return remedies.filter((remedy) => remedy.kind !== 'swap' || (swapsSeen += 1) <= MOST_SWAPS)
}
