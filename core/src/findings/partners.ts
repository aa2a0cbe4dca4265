import { isInPanel } from '../job/enrolment.ts'
import { isInService } from '../job/in-service.ts'
import type { Context, ZoneView } from './context.ts'

/** Why a zone does not protect, so that nothing else may rely on it. */
export type Absence = 'removed' | 'deferred' | 'replaced' | 'not-used' | 'not-learned'

/** Why a zone protects nothing by the plan as it is; null where it does. */
function absenceOf(c: Context, { zone, device }: ZoneView): Exclude<Absence, 'not-learned'> | null {
  if (device === null) return 'removed'
  if (device.deferred !== null) return 'deferred'
  if (!isInService(device)) return 'replaced'
  return c.openStates.some(({ kind, about }) => kind === 'zone-not-used' && about === zone.id)
    ? 'not-used'
    : null
}

/** Whether a zone protects by the plan as it is: its device is there and stays, and nobody has set it to not used. */
export function isProtecting(c: Context, view: ZoneView): boolean {
  return absenceOf(c, view) === null
}

/**
 * Why one zone may not rely on another; null where it may. As long as nothing is enrolled the plan counts; once the panel knows the
 * one, the other must be known to it as well.
 */
export function absenceFor(c: Context, view: ZoneView, partner: ZoneView): Absence | null {
  const absence = absenceOf(c, partner)
  if (absence !== null) return absence
  return isKnown(c, view) && !isKnown(c, partner) ? 'not-learned' : null
}

/** What a wired zone is learned by is its wire. */
function isKnown(c: Context, { zone, family }: ZoneView): boolean {
  return family === null || isInPanel(c.doc, zone.id)
}

/** Devices of the kit that are there and stay. */
export function devicesInService(c: Context): Context['system']['devices'] {
  return c.system.devices.filter(({ device }) => isInService(device))
}
