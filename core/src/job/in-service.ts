import type { Device } from './records.ts'

/**
 * Whether a device counts as protecting in a plan: it has its place, and it is not to be taken away. A deferred device is not there
 * yet, and one that is to be replaced is not there for long: no other device may rely on either.
 */
export function isInService(device: Device): boolean {
  return device.deferred === null && device.plan !== 'replace'
}
