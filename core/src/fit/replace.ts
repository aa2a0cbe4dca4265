import type { DeviceModel } from '../catalogue/schema.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps, setOp, type Op } from '../job/edit.ts'
import type { Device } from '../job/records.ts'
import { pinOps } from '../job/start.ts'
import { systemOf, type JobAndCatalogue, type System } from '../system/system.ts'
import { fitAll, type Fit } from './fit.ts'
import { nearestFirst, neededEvents, stands, swapOps, type Swap } from './remedies.ts'

/* A device that failed or was lost gives way to another: its place, numbers, labels and types stay. */

/** A model that can follow a device in its place, with how it would fit there. */
export interface Successor {
  readonly model: DeviceModel
  readonly fit: Fit
  /** Loops of the events that are used, where the panel learns by loop: what each was, and what it becomes. */
  readonly loops: readonly {
    readonly event: string
    readonly was: number | null
    readonly is: number | null
  }[]
}

/** What is replaced: a device as it stands in the system. */
type Item = System['devices'][number]

/** Models that can follow a device in its place: the same again first, then what stands there and is still made, the nearest first. */
export function successorsOf(job: JobAndCatalogue, { device, model }: Item): Successor[] {
  const { doc, catalogue } = job
  const system = systemOf(doc, catalogue)
  const needed = neededEvents({ doc, system }, device, model)
  const others = catalogue
    .all('device')
    .filter((other) => other.id !== model.id && stands(system, { model, other }, needed))
    .sort(nearestFirst(model))
  return [model, ...others].flatMap((other): Successor[] => {
    const fit = fitOf(job, device, other)
    if (!fit || fit.verdict === 'no') return []
    return [{ model: other, fit, loops: loopsOf(doc, device, { model, other }) }]
  })
}

/** How another model would fit in a device's place; null where it could not even stand there. */
function fitOf({ doc, catalogue }: JobAndCatalogue, device: Device, other: DeviceModel): Fit | null {
  const applied = applyOps(doc, swapOps({ doc, catalogue }, device, other))
  return applied.ok ? (fitAll(systemOf(applied.doc, catalogue)).get(device.id) ?? null) : null
}

function loopsOf(doc: JobDocument, device: Device, { model, other }: Swap): Successor['loops'] {
  const loop = (of: DeviceModel, event: string): number | null =>
    of.loops.find((item) => item.event === event)?.loop ?? null
  return recordsOf(doc, 'zone').flatMap(({ device: owner, event }) =>
    owner !== device.id || event === null ? [] : [{ event, was: loop(model, event), is: loop(other, event) }],
  )
}

/** Who follows, under which id. */
export interface Following {
  readonly model: DeviceModel
  /** Id of the new device's record, without its type. */
  readonly id: string
}

/**
 * The ops that let another device follow in the place of one: a record of its own, so that what was learned and proved stays with
 * the one of before. Room, position, use, slot, user, zones with number, label, type and area are carried over, as is what hangs
 * on it; ID, age and measures of the thing itself are not.
 */
export function replaceOps(
  { doc, catalogue }: JobAndCatalogue,
  device: Device,
  { model, id }: Following,
): Op[] {
  const fresh: Device = {
    ...device,
    id: `device:${id}`,
    ...{ model: model.id, sticker: null, stickerUnsure: false, deferred: null },
    ...{ existing: false, plan: null, madeYear: null, batteryAt: null, gapMm: null },
    setting: model.id === device.model ? device.setting : null,
  }
  // Loops and equipment codes follow the model, as at any swap.
  const follows = swapOps({ doc, catalogue }, { ...device, model: '' }, model).filter(
    (op) => op.op === 'set' && op.id !== device.id,
  )
  return [
    ...pinOps(doc, catalogue, [model.id]),
    { op: 'add', record: fresh },
    ...recordsOf(doc, 'zone').flatMap((zone) =>
      zone.device !== device.id
        ? []
        : [
            setOp(zone, 'device', fresh.id),
            ...(zone.existing ? [setOp(zone, 'existing', false)] : []),
            ...(zone.asProgrammed ? [setOp(zone, 'asProgrammed', false)] : []),
          ],
    ),
    ...follows,
    ...recordsOf(doc, 'sight').flatMap((sight) =>
      sight.device === device.id ? [setOp(sight, 'device', fresh.id)] : [],
    ),
    ...recordsOf(doc, 'serves').flatMap((serves) =>
      serves.device === device.id ? [setOp(serves, 'device', fresh.id)] : [],
    ),
    ...recordsOf(doc, 'device').flatMap((other) =>
      other.via === device.id ? [setOp(other, 'via', fresh.id)] : [],
    ),
    { op: 'remove', record: device },
  ]
}
