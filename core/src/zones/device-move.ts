import type { HouseRules } from '../house-rules/house-rules.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { changeOps, type Op } from '../job/edit.ts'
import type { Device, Use, Zone } from '../job/records.ts'
import { houseOf } from '../premises/house.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import { moveToAreaOps } from './area-move.ts'
import { labelKey } from './labels.ts'
import { zoneLabel } from './new-zone.ts'

/* A device hangs at another place: its number, ID and loops stay, and what was said, measured and proved of the old place does not. */

/** Where a device hangs from now on. */
export interface NewPlace {
  readonly room: string
  readonly position: string
  readonly use: Use
  /** The opening it guards there; null for none, or not said. */
  readonly opening: string | null
  /** The repeater through which alone it is reached there; null for none. */
  readonly via: string | null
}

/** A zone of a moved device, with the label that says the new place. */
export interface MovedLabel {
  readonly zone: Zone
  /** As it was where nothing better can be said: then somebody chooses one. */
  readonly label: string
}

/** Labels of its zones that say the new place, each unlike all others of the job. */
export function movedLabels(
  { doc, catalogue }: JobAndCatalogue,
  device: Device,
  { place, rules }: { readonly place: NewPlace; readonly rules: HouseRules },
): readonly MovedLabel[] {
  const { panel, byId } = systemOf(doc, catalogue)
  const model = byId.get(device.id)?.model
  const mine = zonesOf(doc, device)
  const others = recordsOf(doc, 'zone').filter((zone) => !mine.includes(zone))
  const taken = new Set(others.map(({ label }) => labelKey(panel?.label ?? null, label)))
  return mine.map((zone): MovedLabel => {
    const loop = model?.loops.find(({ event }) => event === zone.event)
    const there = { ...device, room: place.room, position: place.position }
    const made =
      panel && model && loop
        ? zoneLabel({ panel, device: there, model, loop }, taken, rules.schools.labelOrder)
        : ''
    const label = made === '' ? zone.label : made
    taken.add(labelKey(panel?.label ?? null, label))
    return { zone, label }
  })
}

/** What a move is made of besides the place. */
export interface MoveOf {
  readonly place: NewPlace
  readonly labels: readonly MovedLabel[]
  readonly rules: HouseRules
  /** When it was moved, ISO 8601. */
  readonly at: string
}

/**
 * The ops that hang a device elsewhere: number, ID, loop, type and slot stay; height, gap and what it sees were of the old place
 * and are dropped; its zones go to the area of the new room, and are called as `labels` say. What was proved before is owed anew.
 */
export function moveDeviceOps(
  { doc, catalogue }: JobAndCatalogue,
  device: Device,
  { place, labels, rules, at }: MoveOf,
): Op[] {
  const area = houseOf(doc, systemOf(doc, catalogue), rules.figures).room(place.room)?.area ?? null
  const fresh: Device = {
    ...{ ...device, ...place, movedAt: at },
    ...{ heightM: null, gapMm: null, onSteel: false, deferred: null },
  }
  const fields = Object.keys(fresh) as (keyof Device)[]
  return [
    ...fields.flatMap((field) =>
      field === 'id' || field === 'type' ? [] : changeOps(device, field, fresh[field]),
    ),
    ...recordsOf(doc, 'sight').flatMap((record): Op[] =>
      record.device === device.id ? [{ op: 'remove', record }] : [],
    ),
    ...zonesOf(doc, device).flatMap((zone) => (area === null ? [] : moveToAreaOps(doc, zone, area))),
    ...labels.flatMap(({ zone, label }) => changeOps(zone, 'label', label)),
  ]
}

function zonesOf(doc: JobDocument, device: Device): readonly Zone[] {
  return recordsOf(doc, 'zone').filter((zone) => zone.device === device.id)
}
