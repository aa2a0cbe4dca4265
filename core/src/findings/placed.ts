import { recordsOf } from '../job/document.ts'
import type { Placed } from '../premises/passing.ts'
import type { Context, ZoneView } from './context.ts'

/** A zone’s device in its place, for asking what people trip on their way; null for a zone without a device. */
export function placedOf(c: Context, { device, model, place, loop }: ZoneView): Placed | null {
  if (!device || !model) return null
  // Of a device with several events only that which opens or moves is tripped by walking.
  if (loop && !['open', 'terminals', 'motion'].includes(loop.event)) return null
  const sights = recordsOf(c.doc, 'sight').filter((sight) => sight.device === device.id)
  return { device, model, opening: place?.opening ?? null, sights }
}
