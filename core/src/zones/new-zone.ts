import { zoneLoops } from '../catalogue/zone-loops.ts'
import type { AlarmKind, DeviceModel, LoopEvent, PanelModel, ResponseType } from '../catalogue/schema.ts'
import type { System } from '../system/system.ts'
import type { HouseRules, Schools } from '../house-rules/house-rules.ts'
import { blankZone } from '../job/blank.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { changeOps, type Op } from '../job/edit.ts'
import type { Device, Zone } from '../job/records.ts'
import { placesOf, type DevicePlace } from '../premises/places.ts'
import { isLifeSafety, kindOf, type Advice } from '../response/advise.ts'
import { adviseDevice } from '../response/advise-device.ts'
import { presets } from '../response/presets.ts'
import { switchesFor } from './inputs.ts'
import { eventWords, makeLabel } from './labels.ts'

/** What a new zone is made from. */
interface NewZone {
  readonly doc: JobDocument
  readonly system: System
  readonly panel: PanelModel
  readonly rules: HouseRules
  readonly item: { readonly device: Device; readonly model: DeviceModel }
  readonly loop: LoopEvent
  readonly number: number
  readonly id: string
  readonly labels: ReadonlySet<string>
  readonly first: boolean
}

/** The zone a device event gets by default, every field filled from device, place, panel and region. */
export function newZone(opts: NewZone): Zone {
  const { doc, panel, rules, item, loop } = opts
  const { device, model } = item
  const place = placesOf(doc, opts.system, rules).get(device.id)
  const { type, need } = advisedFor(opts, place)
  return {
    ...blankZone,
    id: opts.id,
    number: opts.number,
    device: device.id,
    event: loop.event,
    // Where the panel tells inputs apart by switches, it asks for no loop.
    loop: model.family === null || model.switches ? null : loop.loop,
    ...switchesFor(device.inputs, model),
    response: type?.key ?? null,
    area: place?.room?.area ?? recordsOf(doc, 'area')[0]?.id ?? null,
    ...equipmentOf(panel, model, loop),
    existing: device.existing,
    ...flagsOf(opts, type, need.kind),
    label: zoneLabel({ panel, device, model, loop }, opts.labels, rules.schools.labelOrder),
  }
}

function advisedFor({ system, panel, rules, item, loop }: NewZone, place: DevicePlace | undefined): Advice {
  const { region } = system.info
  return adviseDevice({
    ...{ panel, place, region, device: item.device, event: loop.event, schools: rules.schools },
  })
}

function equipmentOf(
  panel: PanelModel,
  model: DeviceModel,
  loop: LoopEvent,
): Pick<Zone, 'equipmentCode' | 'equipmentKind'> {
  const code = model.equipmentCodes.find((item) => item.panel === panel.id)?.code ?? null
  const kind = panel.equipment.kinds.find((item) => item.events.includes(loop.event))?.key ?? null
  return { equipmentCode: panel.equipment.code ? code : null, equipmentKind: kind }
}

/** Chime, report, supervision and holding, as far as the panel asks for them of this type. */
function flagsOf(
  { system, panel, rules, item, loop, first }: NewZone,
  type: ResponseType | null,
  kind: AlarmKind,
): Pick<Zone, 'chime' | 'report' | 'supervise' | 'transmissionDelay'> {
  const hides = new Set<string>(type?.hides ?? [])
  const opening = loop.event === 'open' || loop.event === 'terminals'
  return {
    chime: !hides.has('chime') && kind === 'burglary' && opening,
    report: !hides.has('report') && (system.info.monitored || rules.schools.localReport === 'on'),
    supervise: !hides.has('supervise') && supervises({ ...item, loop }, first, rules),
    transmissionDelay: holds(kind, type, { panel, system, rules }),
  }
}

interface DeviceLoop {
  readonly device: Device
  readonly model: DeviceModel
  readonly loop: LoopEvent
}

/** Every zone, or one per device: then its fire or gas zone, else its first. Carried transmitters leave the house. */
function supervises({ device, model, loop }: DeviceLoop, first: boolean, rules: HouseRules): boolean {
  if (model.family === null || model.carried) return false
  if (rules.schools.sisters === 'every') return true
  const life = zoneLoops({ device, model }).find((item) => isLifeSafety(kindOf(item.event)))
  return life ? loop.event === life.event : first
}

interface Setting {
  readonly panel: PanelModel
  readonly system: System
  readonly rules: HouseRules
}

function holds(kind: AlarmKind, type: ResponseType | null, { panel, system, rules }: Setting): boolean {
  const { holdBurglary } = rules.schools
  const wanted =
    holdBurglary === 'window' || (holdBurglary === 'region' && presets[system.info.region].abort !== null)
  return (
    wanted && kind === 'burglary' && panel.delays.abort !== null && (type?.transmissionDelayAllowed ?? false)
  )
}

/** A device’s loop, as a panel labels it. */
export interface Labelled {
  readonly panel: PanelModel
  readonly device: Device
  readonly model: DeviceModel
  readonly loop: LoopEvent
}

/** A label for a device event, by place then thing. */
export function zoneLabel(
  { panel, device, model, loop }: Labelled,
  taken: ReadonlySet<string>,
  order: Schools['labelOrder'] = 'place-thing',
): string {
  const opening = (loop.event === 'open' || loop.event === 'terminals') && device.position !== ''
  // What hangs on the terminals beside a reed in use is told from it; alone it is the opening itself.
  const beside = loop.event === 'terminals' && device.inputs === 'both' ? ` ${eventWords.terminals}` : ''
  const thing = opening
    ? `${device.position}${beside}`
    : model.slot === 'fob'
      ? `fob ${eventWords[loop.event]}`
      : eventWords[loop.event]
  const place =
    device.room !== '' ? device.room : model.carried ? (model.slot === 'fob' ? '' : 'pendant') : ''
  return place === '' && model.slot !== 'fob' ? '' : makeLabel(panel.label, { place, thing, order }, taken)
}

/**
 * An open zone taken over by another device: number, label and areas stay, and so does its type with what was said of it, where
 * it is of the kind that the device needs; everything else becomes this device’s own.
 */
export function takeZoneOps(zone: Zone, opts: Omit<NewZone, 'number' | 'id' | 'labels'>): Op[] {
  const none: ReadonlySet<string> = new Set()
  const made = newZone({ ...opts, number: zone.number, id: zone.id, labels: none })
  const kind = (key: string | null) => opts.panel.responseTypes.find((type) => type.key === key)?.kind
  const keeps = kind(zone.response) !== undefined && kind(zone.response) === kind(made.response)
  const mine = [
    'device',
    'event',
    'loop',
    'equipmentCode',
    'equipmentKind',
    'existing',
    'asProgrammed',
  ] as const
  const inputs = ['reedOn', 'terminalsOn', 'endOfLineOn', 'fireGroup', 'doubleKnock', 'wiring'] as const
  const typed = [
    'response',
    'chime',
    'report',
    'supervise',
    'transmissionDelay',
    'sirens',
    'dayZone',
  ] as const
  return [
    ...[...mine, ...inputs, ...(keeps ? [] : typed)].flatMap((field) => changeOps(zone, field, made[field])),
    ...(zone.label === '' ? changeOps(zone, 'label', made.label) : []),
    ...(zone.area === null ? changeOps(zone, 'area', made.area) : []),
  ]
}
