import { recordsOf } from '../job/document.ts'
import { isInService } from '../job/in-service.ts'
import type { Context } from './context.ts'

/** Whether every user named carries a fob that unsets. */
export function everybodyHasFob(c: Context): boolean {
  const users = recordsOf(c.doc, 'user')
  const fobs = c.system.devices.filter(
    ({ device, model }) => model.slot === 'fob' && model.disarms && isInService(device),
  )
  return users.length > 0 && users.every((user) => fobs.some(({ device }) => device.user === user.id))
}
