import { recordOf, type JobDocument } from '../job/document.ts'
import type { System } from '../system/system.ts'
import type { ProofKey, ProofKind } from './table.ts'

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
  { kind, subject, unsetAt = '' }: Pick<ProofKey, 'kind' | 'subject'> & Partial<Pick<ProofKey, 'unsetAt'>>,
): { readonly at: string; readonly words: string } | null {
  const device = byId.get(recordOf(doc, 'zone', subject)?.device ?? subject)?.device
  if (!device || anywhere.includes(kind)) return null
  const moved = (id: string | null, words: string) => ({
    at: byId.get(id ?? '')?.device.movedAt ?? '',
    words,
  })
  const [last] = [
    moved(device.id, 'it was moved since'),
    moved(ofLink.includes(kind) ? device.via : null, 'its repeater was moved since'),
    moved(unsetAt, 'its keypad was moved since'),
  ].toSorted((a, b) => b.at.localeCompare(a.at))
  return last && last.at !== '' ? last : null
}
