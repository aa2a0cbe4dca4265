import type { PanelModel } from '../catalogue/schema.ts'
import type { JobInfo } from '../job/records.ts'
import type { Region } from '../units/region.ts'
import { encodeDelay } from './delays.ts'
import { presets, type Limit } from './presets.ts'

/** What is usual for a far door where the region allows it, seconds. */
const FAR = 60

/** The delays that a job begins with, in seconds; null where the panel has no such field, or the preset no figure. */
export type FirstDelays = Pick<JobInfo, 'entry1' | 'entry2' | 'exit' | 'abortWindow'>

/**
 * The usual delays of a region as the panel can keep them: the next step within the region's limit, else the step before.
 * Without a panel they are the preset's own.
 */
export function firstDelays(panel: PanelModel | null, region: Region): FirstDelays {
  const { entry, exit, abort } = presets[region]
  const far = Math.min(entry.max ?? FAR, FAR)
  const kept = (
    key: keyof PanelModel['delays'],
    wanted: number | null,
    limit: Limit | null,
  ): number | null => {
    if (panel === null || wanted === null) return wanted
    const field = panel.delays[key]
    if (!field) return null
    const up = encodeDelay(field, wanted, { limit })
    const encoded = up.ok ? up : encodeDelay(field, wanted, { limit, direction: 'down' })
    return encoded.ok ? encoded.seconds : null
  }
  return {
    entry1: kept('entry1', entry.usual, entry),
    entry2: kept('entry2', far, entry),
    exit: kept('exit', exit.usual, exit),
    abortWindow: kept('abort', abort?.usual ?? null, abort),
  }
}
