import type { Device } from '../job/records.ts'
import type { System } from '../system/system.ts'

/**
 * Why a device that is reached through a repeater is not covered, or null. Where the family's repeaters do not relay each
 * other, what is reached only through two in series is not heard at all (work.md section 1).
 */
// eslint-disable-next-line complexity -- one guard per fact, read from top to bottom
export function repeaterTrouble(system: System, device: Device): string | null {
  if (device.via === null) return null
  const mine = system.byId.get(device.id)
  const repeater = system.byId.get(device.via)
  if (!mine || !repeater) return 'The repeater it is reached through is not in the kit.'
  const name = placed(repeater)
  if (repeater.model.class !== 'repeater') return `${name} is no repeater: it relays nothing.`
  if (repeater.model.family !== mine.model.family)
    return `${name} relays ${repeater.family?.name ?? 'another family'} only, not ${mine.family?.name ?? 'a wired device'}.`
  const next = system.byId.get(repeater.device.via ?? '')
  if (next && !repeater.family?.repeaters?.chain)
    return `It is reached only through ${name} and, behind it, ${placed(next)}: ${repeater.family?.name ?? 'these'} repeaters do not relay each other.`
  return null
}

function placed({ model, device }: System['devices'][number]): string {
  return `${model.name}${device.room ? ` in ${device.room}` : ''}`
}
