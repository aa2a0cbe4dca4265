import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, LoopEvent, PanelModel } from '../catalogue/schema.ts'
import { zoneLoops } from '../catalogue/zone-loops.ts'
import { fitAll, type Fit } from '../fit/fit.ts'
import { systemOf, type System } from '../fit/system.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Op } from '../job/edit.ts'
import type { Device, Use, Zone } from '../job/records.ts'
import { advise, isWayIn, needOf } from '../response/advise.ts'
import { presets } from '../response/presets.ts'
import { eventWords, labelKey, makeLabel } from './labels.ts'
import { numbersFor } from './numbers.ts'

/** What a press of "number everything" decided. */
export interface NumberingPlan {
  readonly ops: readonly Op[]
  /** Devices that got no number, each with the reason. */
  readonly left: readonly { readonly device: string; readonly reason: string }[]
  readonly added: number
  readonly moved: number
}

interface Wanted {
  readonly device: Device
  readonly model: DeviceModel
  readonly loops: readonly LoopEvent[]
  readonly use: 'wireless' | 'wired' | 'fob'
}

/**
 * Numbers the whole job: a zone per device event with all its fields, and slots for fobs, keypads and sirens. Pinned and
 * enrolled numbers stay; devices of several events stay together where a run is free; reading order is entry doors,
 * openings, interior, life safety. `newId` gives ids for new zones. The result is one edit.
 */
export function numberAll(doc: JobDocument, catalogue: Catalogue, newId: () => string): NumberingPlan {
  const system = systemOf(doc, catalogue)
  const { panel } = system
  if (!panel)
    return {
      ops: [],
      left: [{ device: 'job:main', reason: 'Choose a panel first: it decides the numbers.' }],
      added: 0,
      moved: 0,
    }
  const zones = recordsOf(doc, 'zone')
  const zoneOf = new Map(zones.map((zone) => [`${zone.device} ${zone.event}`, zone]))
  const wanted = wantedZones(system)
  const places = placeAll(doc, system, panel, wanted, zones)
  const labels = new Set(
    zones.filter((zone) => zone.label !== '').map((zone) => labelKey(panel.label, zone.label)),
  )
  const ops: Op[] = []
  const counts = { added: 0, moved: 0 }
  for (const item of wanted)
    item.loops.forEach((loop, index) => {
      const zone = zoneOf.get(`${item.device.id} ${loop.event}`)
      const number = places.numbers.get(`${item.device.id} ${loop.event}`)
      if (number === undefined) return
      if (!zone) {
        const made = newZone({
          doc,
          system,
          panel,
          item,
          loop,
          number,
          id: newId(),
          labels,
          first: index === 0,
        })
        labels.add(labelKey(panel.label, made.label))
        ops.push({ op: 'add', record: made })
        counts.added += 1
      } else if (zone.number !== number) {
        ops.push({ op: 'set', id: zone.id, field: 'number', from: zone.number, to: number })
        counts.moved += 1
      }
    })
  ops.push(...slotOps(system, panel))
  return { ops, left: places.left, ...counts }
}

/** The zone a device event gets by default, every field filled from device, place, panel and region. */
export function newZone(opts: {
  doc: JobDocument
  system: System
  panel: PanelModel
  item: { readonly device: Device; readonly model: DeviceModel }
  loop: LoopEvent
  number: number
  id: string
  labels: ReadonlySet<string>
  first: boolean
}): Zone {
  const { doc, system, panel, item, loop } = opts
  const { device, model } = item
  const need = needOf(loop.event, device.use, device.room, system.info.region)
  const { type } = advise(panel, loop.event, need)
  const hides = new Set<string>(type?.hides ?? [])
  const life = need.kind === 'fire' || need.kind === 'gas'
  const opening = loop.event === 'open' || loop.event === 'terminals'
  return {
    id: opts.id,
    type: 'zone',
    number: opts.number,
    device: device.id,
    event: loop.event,
    // Where the panel tells inputs apart by switches, it asks for no loop.
    loop: model.family === null || model.switches ? null : loop.loop,
    response: type?.key ?? null,
    area: recordsOf(doc, 'area')[0]?.id ?? null,
    equipmentCode: panel.equipment.code
      ? (model.equipmentCodes.find((code) => code.panel === panel.id)?.code ?? null)
      : null,
    equipmentKind: panel.equipment.kinds.find((kind) => kind.events.includes(loop.event))?.key ?? null,
    existing: device.existing,
    chime: !hides.has('chime') && need.kind === 'burglary' && opening,
    report: !hides.has('report') && (system.info.monitored || life),
    supervise: !hides.has('supervise') && model.family !== null && !model.carried,
    transmissionDelay:
      need.kind === 'burglary' &&
      presets[system.info.region].abort !== null &&
      (type?.transmissionDelayAllowed ?? false),
    label: zoneLabel(panel, device, model, loop, opts.labels),
    pinned: false,
    serial: null,
    learnedBy: null,
  }
}

/** The events of a device that need a zone: wired terminals only where the reed is not there to be used. */
export function eventsToZone(model: DeviceModel, panel: PanelModel | null): readonly LoopEvent[] {
  if (model.slot !== 'none')
    return model.slot === 'fob' && panel?.slots.fobs.by === 'numbers' ? model.loops : []
  return zoneLoops(model)
}

/** A label for a device event, by place then thing. */
export function zoneLabel(
  panel: PanelModel,
  device: Device,
  model: DeviceModel,
  loop: LoopEvent,
  taken: ReadonlySet<string>,
): string {
  const opening = loop.event === 'open' && device.position !== ''
  const thing = opening
    ? device.position
    : model.slot === 'fob'
      ? `fob ${eventWords[loop.event]}`
      : eventWords[loop.event]
  const place =
    device.room !== '' ? device.room : model.carried ? (model.slot === 'fob' ? '' : 'pendant') : ''
  return place === '' && model.slot !== 'fob' ? '' : makeLabel(panel.label, place, thing, taken)
}

function wantedZones(system: System): Wanted[] {
  const { panel } = system
  const fits = fitAll(system)
  const list = system.devices
    .filter(({ device }) => device.deferred === null && takes(fits.get(device.id)))
    .map(({ device, model }): Wanted => {
      const use = model.slot === 'fob' ? 'fob' : model.family === null ? 'wired' : 'wireless'
      return { device, model, loops: eventsToZone(model, panel), use }
    })
    .filter((item) => item.loops.length > 0)
  return list.sort((a, b) => readingRank(a) - readingRank(b) || a.device.order - b.device.order)
}

/** What does not fit gets no number; what only finds no number is tried, and named where it is left out. */
function takes(fit: Fit | undefined): boolean {
  return fit?.verdict !== 'no' || fit.reasons.every((reason) => reason.code === 'zones')
}

/** Entry doors, then openings, then interior, then carried; life safety together behind them. */
function readingRank({ device, model }: Wanted): number {
  if (model.class === 'contact') return isEntryDoor(device.use) ? 0 : 1
  if (model.class === 'shock') return 1
  if (model.class === 'motion' || model.class === 'glass-break') return 2
  if (model.class === 'panic') return 4
  return model.class === 'fob' ? 5 : 3
}

function isEntryDoor(use: Use): boolean {
  return isWayIn(use) && use !== 'sees-entry'
}

function placeAll(
  doc: JobDocument,
  system: System,
  panel: PanelModel,
  wanted: readonly Wanted[],
  zones: readonly Zone[],
) {
  const numbers = new Map<string, number>()
  const left: { device: string; reason: string }[] = []
  const ours = new Set(wanted.flatMap((item) => item.loops.map((loop) => `${item.device.id} ${loop.event}`)))
  const taken = new Set<number>()
  for (const zone of zones) {
    const key = `${zone.device} ${zone.event}`
    const fixed = zone.pinned || zone.serial !== null || !ours.has(key)
    if (fixed) taken.add(zone.number)
    if (fixed && ours.has(key)) numbers.set(key, zone.number)
  }
  const free = {
    wireless: numbersFor(doc, system, 'wireless'),
    wired: numbersFor(doc, system, 'wired'),
    fob: numbersFor(doc, system, 'fob'),
  }
  for (const item of wanted) {
    const open = item.loops.filter((loop) => !numbers.has(`${item.device.id} ${loop.event}`))
    if (open.length === 0) continue
    const available = free[item.use].filter((number) => !taken.has(number))
    const chosen =
      item.use === 'fob'
        ? fobGroup(panel, taken, open)
        : runOf(available, open.length, neighbour(numbers, item))
    if (!chosen) {
      left.push({
        device: item.device.id,
        reason: `No ${item.use} number is free for its ${open.length} ${open.length === 1 ? 'zone' : 'zones'}.`,
      })
      continue
    }
    open.forEach((loop, index) => {
      const number = chosen[index] as number
      numbers.set(`${item.device.id} ${loop.event}`, number)
      taken.add(number)
    })
  }
  return { numbers, left }
}

/** The first run of free numbers that is long enough, beside the device's other zones where it has some. */
function runOf(available: readonly number[], length: number, beside: number | null): number[] | null {
  let first: number[] | null = null
  for (let start = 0; start + length <= available.length; start++) {
    const from = available[start] as number
    // Ascending and distinct: a run is whole when its last number lies just length - 1 behind its first.
    if (available[start + length - 1] !== from + length - 1) continue
    const near = beside !== null && (from === beside + 1 || from + length === beside)
    if (near || beside === null) return available.slice(start, start + length)
    first ??= available.slice(start, start + length)
  }
  return first ?? (available.length >= length ? available.slice(0, length) : null)
}

function neighbour(numbers: ReadonlyMap<string, number>, item: Wanted): number | null {
  const own = item.loops.flatMap((loop) => numbers.get(`${item.device.id} ${loop.event}`) ?? [])
  return own.length > 0 ? Math.max(...own) : null
}

/** The highest free group of the fob range: groups are filled from the top down, one number per button. */
function fobGroup(
  panel: PanelModel,
  taken: ReadonlySet<number>,
  loops: readonly LoopEvent[],
): number[] | null {
  const { group } = panel.slots.fobs
  const block = panel.blocks.find((item) => item.use === 'fob')
  if (!block || loops.length > group) return null
  for (let base = block.to - group + 1; base >= block.from; base -= group) {
    const numbers = Array.from({ length: group }, (_, index) => base + index)
    if (numbers.every((number) => !taken.has(number))) return numbers
  }
  return null
}

/** Slots for fobs, keypads and sirens that have none yet: the lowest free of each class. */
function slotOps(system: System, panel: PanelModel): Op[] {
  const ops: Op[] = []
  const fits = fitAll(system)
  for (const kind of ['fob', 'keypad', 'siren'] as const) {
    if (kind === 'fob' && panel.slots.fobs.by === 'numbers') continue
    const count = { fob: panel.slots.fobs, keypad: panel.slots.keypads, siren: panel.slots.sirens }[kind]
      .count
    const mine = system.devices.filter(
      ({ model, device }) =>
        model.slot === kind && device.deferred === null && fits.get(device.id)?.verdict !== 'no',
    )
    const taken = new Set(mine.map(({ device }) => device.slot))
    for (const { device } of mine) {
      if (device.slot !== null) continue
      const slot = Array.from({ length: count }, (_, index) => index + 1).find((number) => !taken.has(number))
      if (slot === undefined) continue
      taken.add(slot)
      ops.push({ op: 'set', id: device.id, field: 'slot', from: null, to: slot })
    }
  }
  return ops
}
