import { isInService } from '../job/in-service.ts'
import type { Device } from '../job/records.ts'
import type { System } from '../system/system.ts'
import type { ChainFacts } from './reasons.ts'

/**
 * Why a device that is reached through a repeater is not covered, or null. Where the family's repeaters do not relay each
 * other, what is reached only through two in series is not heard at all.
 */
export function repeaterTrouble(system: System, device: Device): ChainFacts | null {
  if (device.via === null) return null
  const mine = system.byId.get(device.id)
  const through = system.byId.get(device.via)
  if (!mine || !through) return { is: 'gone' }
  return troubleWith(mine, through, system.byId.get(through.device.via ?? ''))
}

type Item = System['devices'][number]

/** What is wrong with the repeater that a device is reached through, and with the one behind that; null where all is right. */
function troubleWith(mine: Item, through: Item, next: Item | undefined): ChainFacts | null {
  const repeater = placed(through)
  const family = through.family?.name ?? null
  if (through.model.class !== 'repeater') return { is: 'no-repeater', repeater }
  if (through.model.family !== mine.model.family)
    return { is: 'other-family', repeater, relays: family, family: mine.family?.name ?? null }
  if (!isInService(through.device) && isInService(mine.device))
    return { is: 'absent', repeater, why: through.device.deferred === null ? 'replaced' : 'deferred' }
  if (!next || through.family?.repeaters?.chain) return null
  return { is: 'in-series', repeater, behind: placed(next), family }
}

function placed({ model, device }: Item): string {
  return `${model.name}${device.room ? ` in ${device.room}` : ''}`
}
