import { recordOf, type JobDocument } from '../job/document.ts'
import type { System } from '../system/system.ts'
import type { ProofKind } from './table.ts'

/**
 * What stands wherever a device hangs: who carries it, what was read back of the panel, its battery, its buttons, and that a report
 * of its zone arrives.
 */
const anywhere: readonly ProofKind[] = ['bound', 'cutoff', 'labels', 'battery', 'button', 'report']
/** Readings of a link: they go by its repeater, too. */
const ofLink: readonly ProofKind[] = ['placement', 'average']

/** From when a proof no longer stands, since its device or the repeater that reaches it was moved; null for never. */
export function movedSince(
  { doc, system: { byId } }: { readonly doc: JobDocument; readonly system: System },
  { kind, subject }: { readonly kind: ProofKind; readonly subject: string },
): { readonly at: string; readonly words: string } | null {
  const device = byId.get(recordOf(doc, 'zone', subject)?.device ?? subject)?.device
  if (!device || anywhere.includes(kind)) return null
  const own = device.movedAt
  const via = ofLink.includes(kind) ? (byId.get(device.via ?? '')?.device.movedAt ?? null) : null
  if (via !== null && via > (own ?? '')) return { at: via, words: 'its repeater was moved since' }
  return own === null ? null : { at: own, words: 'it was moved since' }
}
