import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, PanelModel } from '../catalogue/schema.ts'
import { nextOrder, recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps, changeOps, type Op } from '../job/edit.ts'
import type { Device } from '../job/records.ts'
import { pinOps } from '../job/start.ts'
import { subsets, systemWithPanel } from './candidates.ts'
import { compareVersions, fitPair, roomOf, sharedRoom, zoneNumbers } from './fit.ts'
import { isOfLifeSafety } from '../response/advise.ts'
import { cheapestPlaces, type FlowItem } from './flow.ts'
import type { RemedyCosts } from '../house-rules/house-rules.ts'
import { nearestFirst, neededEvents, stands, swapOps } from './remedies.ts'
import type { LeftOut } from './reasons.ts'
import { repeaterTrouble } from './repeaters.ts'
import { firmwareWhenChosen } from '../response/choose-panel.ts'
import {
  systemOf,
  type PresentReceiver,
  type System,
  type JobAndCatalogue,
  type JobAndSystem,
} from '../system/system.ts'
import { eventsToZone } from '../catalogue/zone-loops.ts'
import { isDeviceKnown } from '../job/enrolment.ts'

/** A cheapest set of changes under which the kit fits, as far as it can. */
export interface KitSolution {
  /** What the changes cost together. */
  readonly cost: number
  /** No solution costs less than this; equal to `cost` once the search has ended. */
  readonly lowerBound: number
  /** The changes of panel, firmware, settings and receivers, in words. */
  readonly changes: readonly string[]
  readonly swaps: readonly { readonly device: string; readonly model: string }[]
  /** Devices that no set of changes lets fit together with the others, each with the first reason. */
  readonly leftOut: readonly { readonly device: string; readonly reason: LeftOut }[]
  /** How many of them are of life safety: as few as can be. */
  readonly lifeSafetyOut: number
  readonly ops: readonly Op[]
}

/** Where a search stands. */
export interface SolveProgress {
  readonly done: number
  readonly of: number
  readonly best: KitSolution | null
}

/** A choice for the whole kit: the panel with its firmware, which receivers are added, which settings are turned. */
interface Setting {
  readonly cost: number
  readonly changes: readonly string[]
  readonly system: System
  readonly ops: readonly Op[]
}

interface Choice {
  readonly model: DeviceModel
  readonly swap: boolean
}

/**
 * Searches the cheapest set of changes (settings, firmware, receivers, swaps, another panel) under which every device fits,
 * with as few left out as possible. Each step tries one setting of the whole kit, cheaper ones first, and places the devices
 * at least cost; it ends when no untried setting can be cheaper. Stopping it early keeps the best with its lower bound.
 */
export function* solveKit(
  doc: JobDocument,
  catalogue: Catalogue,
  opts: { readonly costs: RemedyCosts; readonly newId: () => string },
): Generator<SolveProgress, KitSolution | null> {
  const { costs } = opts
  const settings = allSettings({ doc, catalogue }, costs, opts.newId)
  let best: KitSolution | null = null
  for (const [index, setting] of settings.entries()) {
    if (best && best.leftOut.length === 0 && setting.cost >= best.cost) break
    const found: KitSolution = placeAll({ doc, catalogue }, setting, costs)
    if (better(found, best)) best = found
    const next: number = settings[index + 1]?.cost ?? best?.cost ?? 0
    if (best) best = { ...best, lowerBound: Math.min(best.cost, next) }
    yield { done: index + 1, of: settings.length, best }
  }
  return best && { ...best, lowerBound: best.cost }
}

/** Runs the search to its end. */
export function solveWhole(...input: Parameters<typeof solveKit>): KitSolution | null {
  const search = solveKit(...input)
  for (;;) {
    const step: IteratorResult<SolveProgress, KitSolution | null> = search.next()
    if (step.done) return step.value
  }
}

function better(found: KitSolution, best: KitSolution | null): boolean {
  if (!best) return true
  const by = [
    found.leftOut.length - best.leftOut.length,
    found.lifeSafetyOut - best.lifeSafetyOut,
    found.cost - best.cost,
  ]
  return (by.find((difference) => difference !== 0) ?? 0) < 0
}

function allSettings(
  { doc, catalogue }: JobAndCatalogue,
  costs: RemedyCosts,
  newId: () => string,
): Setting[] {
  const system = systemOf(doc, catalogue)
  const { info } = system
  const enrolled = recordsOf(doc, 'device').filter((device) => isDeviceKnown(doc, device.id)).length
  const panels = catalogue
    .all('panel')
    .filter(
      (panel) => panel.id === info.panel || info.region === 'own' || panel.regions.includes(info.region),
    )
  const list = panels.flatMap((panel) => {
    const changed = panel.id !== info.panel
    const base = changed && info.panel !== null ? costs.panel + costs.enrol * enrolled : 0
    return panelSettings({ doc, catalogue, system, panel, changed, base, costs, newId })
  })
  return list.sort((a, b) => a.cost - b.cost)
}

function panelSettings(o: {
  doc: JobDocument
  catalogue: Catalogue
  system: System
  panel: PanelModel
  changed: boolean
  base: number
  costs: RemedyCosts
  newId: () => string
}): Setting[] {
  const { doc, catalogue, panel, changed } = o
  const start = systemWithPanel(o.system, catalogue, panel)
  const has = new Set(start.receivers.map((item) => item.model.id))
  const open = panel.receivers
    .filter((id) => !has.has(id))
    .flatMap((id) => catalogue.get('receiver', id) ?? [])
  const locked = start.receivers.filter((item) => item.encryptedOnly)
  const firmwares = changed ? [firmwareWhenChosen(panel, o.system.info.kind)] : newerFirmware(start)
  const settings: Setting[] = []
  for (const firmware of firmwares)
    for (const add of subsets(open))
      for (const turn of subsets(locked)) {
        const updated = !changed && firmware !== start.info.radioFirmware
        const added = add.map((model): PresentReceiver => ({
          id: `receiver:${o.newId()}`,
          model,
          families: model.hears.flatMap((item) => catalogue.get('family', item.family) ?? []),
          encryptedOnly: false,
        }))
        const receivers = start.receivers.map((item) =>
          turn.includes(item) ? { ...item, encryptedOnly: false } : item,
        )
        settings.push({
          cost:
            o.base +
            o.costs.receiver * add.length +
            o.costs.setting * turn.length +
            (updated ? o.costs.firmware : 0),
          changes: [
            ...(changed ? [`choose ${panel.name}`] : []),
            ...(updated ? [`update the radio firmware to ${firmware}`] : []),
            ...add.map((model) => `add ${model.name}`),
            ...turn.map((item) => `let ${item.model.name} take plain devices too`),
          ],
          system: {
            ...start,
            info: { ...start.info, radioFirmware: firmware },
            receivers: [...receivers, ...added],
          },
          ops: settingOps(doc, catalogue, { panel, firmware, added, turn }),
        })
      }
  return settings
}

function settingOps(
  doc: JobDocument,
  catalogue: Catalogue,
  to: {
    panel: PanelModel
    firmware: string | null
    added: readonly PresentReceiver[]
    turn: readonly PresentReceiver[]
  },
): Op[] {
  const { info } = systemOf(doc, catalogue)
  const order = nextOrder(doc, 'receiver')
  return [
    ...pinOps(doc, catalogue, [to.panel.id, ...to.added.map((item) => item.model.id)]),
    ...changeOps(info, 'panel', to.panel.id),
    ...changeOps(info, 'radioFirmware', to.firmware),
    ...to.turn.map((item): Op => ({ op: 'set', id: item.id, field: 'encryptedOnly', from: true, to: false })),
    ...to.added.map((item, index): Op => ({
      op: 'add',
      record: {
        id: item.id,
        type: 'receiver',
        model: item.model.id,
        room: '',
        encryptedOnly: false,
        order: order + index,
      },
    })),
  ]
}

/** Places every device under one setting of the whole: kept or swapped, as many as possible, at least cost. */
function placeAll({ doc, catalogue }: JobAndCatalogue, setting: Setting, costs: RemedyCosts): KitSolution {
  const { system } = setting
  const room = new Map(system.receivers.map((item) => [item.id, roomOf(item.model)]))
  const { panel } = system
  if (panel) {
    room.set('fob', panel.slots.fobs.count)
    room.set('keypad', panel.slots.keypads.count)
    room.set('siren', panel.slots.sirens.count)
    room.set('repeater', panel.repeaters ?? 0)
  }
  const choices = new Map<string, Choice[]>()
  const items = system.devices.map(({ device, model }): FlowItem => {
    // No change of the whole brings a device within reach.
    const list = repeaterTrouble(system, device) ? [] : choicesOf({ doc, catalogue, system }, device, model)
    const places = list.flatMap((choice) =>
      placesOf(system, catalogue, choice).map((bin) => ({ bin, choice })),
    )
    choices.set(
      device.id,
      places.map((place) => place.choice),
    )
    const again = isDeviceKnown(doc, device.id) ? costs.enrol : 0
    return {
      key: device.id,
      first: isOfLifeSafety(model),
      group: model.class === 'repeater' ? 'repeater' : model.slot === 'none' ? null : model.slot,
      options: places.map((place) => ({ bin: place.bin, cost: place.choice.swap ? costs.swap + again : 0 })),
    }
  })
  const result = cheapestPlaces(items, room, sharedRoom(system))
  const swaps: { device: string; model: string }[] = []
  const leftOut: { device: string; reason: LeftOut }[] = []
  // Zone numbers are counted per event, behind the placing: the devices beyond them, in list order with life safety before the others, are left out.
  const numbers = new Map<string, number>()
  let cost = setting.cost
  for (const item of [...items].sort((a, b) => Number(b.first ?? false) - Number(a.first ?? false))) {
    const at = result.get(item.key) ?? null
    if (at === null) {
      leftOut.push({ device: item.key, reason: whyNot(system, item) })
      continue
    }
    const choice = choices.get(item.key)?.[at]
    const short = choice && zoneShort(system, { key: item.key, model: choice.model }, numbers)
    if (short) {
      leftOut.push({ device: item.key, reason: short })
      continue
    }
    cost += item.options[at]?.cost ?? 0
    if (choice?.swap) swaps.push({ device: item.key, model: choice.model.id })
  }
  return {
    cost,
    lowerBound: 0,
    changes: setting.changes,
    swaps,
    leftOut,
    lifeSafetyOut: items.filter(({ key, first }) => first && leftOut.some(({ device }) => device === key))
      .length,
    ops: allOps({ doc, catalogue }, setting, swaps),
  }
}

/** The device as it is, and every model that could stand in its place. */
function choicesOf({ doc, catalogue, system }: JobAndSystem, device: Device, model: DeviceModel): Choice[] {
  const needed = neededEvents({ doc, system }, device, model)
  const others = catalogue
    .all('device')
    .filter(
      (other) =>
        other.id !== model.id && other.class === model.class && stands(system, { model, other }, needed),
    )
    .sort(nearestFirst(model))
  return [{ model, swap: false }, ...others.map((other) => ({ model: other, swap: true }))]
}

/**
 * Receivers that take a model; a wired one needs none, where the panel takes it wired. What stays where it is may be what nobody
 * can tell yet: nothing is swapped for a firmware that nobody has read.
 */
function placesOf(system: System, catalogue: Catalogue, { model, swap }: Choice): string[] {
  const family = catalogue.get('family', model.family)
  if (!family) return model.family === null ? ['wired'] : []
  const { panel } = system
  const rule = { keypad: panel?.slots.keypads, siren: panel?.slots.sirens, fob: undefined, none: undefined }[
    model.slot
  ]
  if (rule && !rule.wireless) return []
  return system.receivers
    .filter((receiver) => {
      const { verdict } = fitPair({ model, family, receiver, system })
      return swap ? verdict === 'works' || verdict === 'loss' : verdict !== 'no'
    })
    .map((receiver) => receiver.id)
}

interface Chosen {
  /** Id of the device whose place it takes. */
  readonly key: string
  readonly model: DeviceModel
}

function zoneShort(system: System, { key, model }: Chosen, used: Map<string, number>): LeftOut | null {
  const { panel } = system
  const device = system.byId.get(key)?.device
  if (!panel || !device || model.slot !== 'none') return null
  const use = model.family === null ? 'wired' : 'wireless'
  const now = (used.get(use) ?? 0) + eventsToZone({ device, model }, panel).length
  const has = zoneNumbers(panel, use)
  if (now > has) return { code: 'numbers-taken', facts: { panel: panel.name, has, use } }
  used.set(use, now)
  return null
}

function whyNot(system: System, item: FlowItem): LeftOut {
  const entry = system.byId.get(item.key)
  const panel = system.panel?.name ?? null
  if (item.options.length > 0 && panel !== null)
    return item.group === null
      ? { code: 'receivers-full', facts: { panel } }
      : { code: 'no-place-left', facts: { panel, kind: item.group } }
  const reach = entry ? repeaterTrouble(system, entry.device) : null
  if (reach) return { code: 'chain', verdict: 'no', facts: reach }
  const first = system.receivers[0]
  const family = entry?.family
  const reason =
    entry && family && first
      ? fitPair({ model: entry.model, family, receiver: first, system }).reasons.find(
          (one) => one.verdict !== 'loss',
        )
      : undefined
  return reason ?? { code: 'nothing-in-class', facts: { panel } }
}

function allOps(
  { doc, catalogue }: JobAndCatalogue,
  setting: Setting,
  swaps: readonly { device: string; model: string }[],
): Op[] {
  const ops = [...setting.ops]
  let current = doc
  const first = applyOps(doc, ops)
  if (first.ok) current = first.doc
  for (const swap of swaps) {
    const device = recordsOf(current, 'device').find((item) => item.id === swap.device)
    const model = catalogue.get('device', swap.model)
    if (!device || !model) continue
    const more = swapOps({ doc: current, catalogue }, device, model)
    const next = applyOps(current, more)
    if (!next.ok) continue
    ops.push(...more)
    current = next.doc
  }
  return ops
}

function newerFirmware(system: System): (string | null)[] {
  const { panel, info } = system
  const has = info.radioFirmware
  if (!panel || has === null) return [has]
  return [has, ...panel.radioFirmware.filter((version) => compareVersions(version, has) > 0)]
}
