import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, PanelModel } from '../catalogue/schema.ts'
import { blankDevice } from '../job/blank.ts'
import type { System } from '../system/system.ts'
import { systemWithPanel } from './candidates.ts'
import { fitAll, type Fit, type Verdict } from './fit.ts'

/** A device model as it would be in this job, one more of it. */
export interface DeviceOffer {
  readonly model: DeviceModel
  readonly fit: Fit
  /** Whether it is made for the region of the job; with figures of one's own everything is. */
  readonly here: boolean
}

/** A panel with what it would make of the kit as it comes. */
export interface PanelOffer {
  readonly panel: PanelModel
  readonly counts: Readonly<Record<Verdict, number>>
  readonly here: boolean
}

/** A kit of more devices is not judged anew for each model: whether there is room left is told in its row. */
const ROOM_UP_TO = 200

/** Every model with its fit before it is chosen, in the order of the catalogue. */
export function offerDevices(system: System, catalogue: Catalogue): DeviceOffer[] {
  const there = system.devices.length > ROOM_UP_TO ? [] : system.devices
  return catalogue.all('device').flatMap((model) => {
    const device = { ...blankDevice, id: 'device:offered', model: model.id, order: Number.MAX_SAFE_INTEGER }
    const item = { device, model, family: catalogue.get('family', model.family) }
    const fit = fitAll({ ...system, devices: [...there, item] }).get(device.id)
    return fit ? [{ model, fit, here: isHere(model.regions, system) }] : []
  })
}

/** Every panel with the verdicts of the kit on it, in the order of the catalogue. */
export function offerPanels(system: System, catalogue: Catalogue): PanelOffer[] {
  return catalogue.all('panel').map((panel) => {
    const counts = { works: 0, loss: 0, no: 0, unknown: 0 }
    for (const { verdict } of fitAll(systemWithPanel(system, catalogue, panel)).values()) counts[verdict] += 1
    return { panel, counts, here: isHere(panel.regions, system) }
  })
}

function isHere(regions: readonly string[], { info }: System): boolean {
  return info.region === 'own' || regions.includes(info.region)
}
