import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceEvent, DeviceModel } from '../catalogue/schema.ts'
import { beginDraft } from './entry.ts'
import { answerOps, answerTo, draftKernel, sourceOps, type DraftOp } from './records.ts'

/* What a job taught of a device goes back to its entry: as a draft of its correction, which somebody reads before it counts. */

/** The loop that a panel showed when an event was tripped. */
export interface SeenLoop {
  readonly event: DeviceEvent
  readonly loop: number
  /** Where it was seen, as the answer's source: `seen on the panel, The Old Ropewalk`. */
  readonly source: string
}

/** A new draft that corrects an entry by the loop that was seen; what else it says stays. */
export function correctionBySeenLoop(
  model: DeviceModel,
  { event, loop, source }: SeenLoop,
  catalogue: Catalogue,
): readonly DraftOp[] {
  const first = beginDraft('device', { like: model, corrects: true }, catalogue)
  const begun = draftKernel.applyOps(draftKernel.empty, first)
  if (!begun.ok) throw new RangeError('correctionBySeenLoop: a correction begins')
  const was = answerTo(begun.doc, 'loops')?.value
  const loops = (Array.isArray(was) ? was : []).map((row) =>
    typeof row === 'object' && row !== null && !Array.isArray(row) && row.event === event
      ? { ...row, loop }
      : row,
  )
  const second = answerOps(begun.doc, 'loops', loops)
  const answered = draftKernel.applyOps(begun.doc, second)
  if (!answered.ok) throw new RangeError('correctionBySeenLoop: an answer is given once')
  return [...first, ...second, ...sourceOps(answered.doc, 'loops', source.slice(0, 80))]
}
