import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, Family, PanelModel, ReceiverModel } from '../catalogue/schema.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import type { Device, JobInfo, Receiver } from '../job/records.ts'

/** A receiver that is there: a record of the job, or the panel's built-in one. */
export interface PresentReceiver {
  /** Record id, or `built-in`. */
  readonly id: string
  readonly model: ReceiverModel
  /** The families it hears, as far as the catalogue has them. */
  readonly families: readonly Family[]
  readonly encryptedOnly: boolean
}

/** A job's document and the catalogue that it is read with. */
export interface JobAndCatalogue {
  readonly doc: JobDocument
  readonly catalogue: Catalogue
}

/** The same, with its hardware looked up. */
export interface JobAndSystem extends JobAndCatalogue {
  readonly system: System
}

/** A job's document and its hardware looked up. */
export interface DocAndSystem {
  readonly doc: JobDocument
  readonly system: System
}

/** A device with what its entry says; a wired one has no family. */
export interface SystemDevice {
  readonly device: Device
  readonly model: DeviceModel
  readonly family: Family | null
}

/** The hardware of a job with its catalogue entries looked up. */
export interface System {
  readonly info: JobInfo
  readonly panel: PanelModel | null
  readonly receivers: readonly PresentReceiver[]
  readonly devices: readonly SystemDevice[]
  /** The same by device id, for look-up. */
  readonly byId: ReadonlyMap<string, SystemDevice>
}

const kept = new WeakMap<JobDocument, { catalogue: Catalogue; system: System }>()

/** Looks the job's hardware up; the same document and catalogue give the same answer object. */
export function systemOf(doc: JobDocument, catalogue: Catalogue): System {
  const known = kept.get(doc)
  if (known?.catalogue === catalogue) return known.system
  const info = jobInfo(doc)
  const panel = catalogue.get('panel', info.panel)
  const devices = recordsOf(doc, 'device').flatMap((device) => {
    const model = catalogue.get('device', device.model)
    return model ? [{ device, model, family: catalogue.get('family', model.family) }] : []
  })
  const byId = new Map(devices.map((item) => [item.device.id, item]))
  const system = { info, panel, receivers: receiversOf(doc, catalogue, panel), devices, byId }
  kept.set(doc, { catalogue, system })
  return system
}

function receiversOf(doc: JobDocument, catalogue: Catalogue, panel: PanelModel | null): PresentReceiver[] {
  const builtIn = panel ? catalogue.get('receiver', panel.builtIn) : null
  const families = (model: ReceiverModel) =>
    model.hears.flatMap((item) => catalogue.get('family', item.family) ?? [])
  const present: PresentReceiver[] = []
  if (builtIn)
    present.push({ id: 'built-in', model: builtIn, families: families(builtIn), encryptedOnly: false })
  for (const record of recordsOf(doc, 'receiver')) {
    const model = catalogue.get('receiver', record.model)
    if (model && takes(panel, record))
      present.push({ id: record.id, model, families: families(model), encryptedOnly: record.encryptedOnly })
  }
  return present
}

/** A receiver of another panel in the list hears nothing for this one. */
function takes(panel: PanelModel | null, record: Receiver): boolean {
  return !panel || panel.receivers.includes(record.model)
}
