import type { Fit } from '../fit/fit.ts'

/**
 * Whether a button is left without a zone on purpose. Left unprogrammed, a plain disarm button is cured: nobody can send again what
 * the panel does not obey. A fob of which no button is programmed yet is just not numbered.
 *
 * @param has the events of the device that have a zone
 */
export function isLeftUnprogrammed(
  event: string,
  has: ReadonlySet<string | null>,
  fit: Fit | undefined,
): boolean {
  if (event !== 'disarm' || has.size === 0 || has.has(event)) return false
  return fit?.reasons.some(({ code }) => code === 'replay') ?? false
}
