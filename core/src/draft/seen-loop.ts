import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceEvent, DeviceModel } from '../catalogue/schema.ts'
import type { Answer, DraftOp } from './records.ts'
import { correctionBy } from './seen-figure.ts'

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
  const value = (was: Answer['value'] | undefined): Answer['value'] =>
    (Array.isArray(was) ? was : []).map((row) =>
      typeof row === 'object' && row !== null && !Array.isArray(row) && row.event === event
        ? { ...row, loop }
        : row,
    )
  return correctionBy(model, { path: 'loops', value, source }, catalogue)
}
