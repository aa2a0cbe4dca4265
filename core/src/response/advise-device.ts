import type { DeviceEvent, PanelModel } from '../catalogue/schema.ts'
import type { Schools } from '../house-rules/house-rules.ts'
import type { Device } from '../job/records.ts'
import type { DevicePlace } from '../premises/places.ts'
import type { Region } from '../units/region.ts'
import { advise, needOf, type Advice } from './advise.ts'

/** A device's event where it stands; the schools are those in force for the job. */
interface Stands {
  readonly panel: PanelModel
  readonly device: Device
  readonly event: DeviceEvent
  /** Undefined or null for what the house does not know: the use is then as stated on the device. */
  readonly place: DevicePlace | null | undefined
  readonly region: Region
  readonly schools: Schools
}

/** The panel's type for an event of a device of a job: everybody who advises one asks here, so that all are told the same. */
export function adviseDevice({ panel, device, event, place, region, schools }: Stands): Advice {
  const need = needOf(event, {
    use: place?.use ?? device.use,
    noisy: place?.noisy ?? false,
    sleeps: place?.room?.sleeps ?? false,
    delay: place?.way?.delay ?? null,
    region,
    schools,
  })
  return advise(panel, event, need)
}
