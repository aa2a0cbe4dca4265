import { eventsToZone } from '../catalogue/zone-loops.ts'
import { recordsOf } from '../job/document.ts'
import { isDeviceInPanel, isInPanel } from '../job/enrolment.ts'
import { evidenceOf } from '../job/evidence.ts'
import { systemOf, type JobAndCatalogue, type System } from '../system/system.ts'
import { openProofs, proofRoute } from './owed.ts'

/* Work on a system that was handed over: what was added, moved or replaced since, and what each still needs. */

/** A device that is not as it was handed over. */
export interface Unfinished {
  readonly id: string
  /** Model and room. */
  readonly name: string
  /** What is to be done with it next. */
  readonly step: 'number' | 'learn' | 'prove'
  /** How many proofs it owes. */
  readonly open: number
}

/**
 * Devices of a system that was handed over which owe something now, in the order of the kit; null for one that never was. Deferred
 * devices are not there yet. `now`, ISO 8601: what only waits for its time is not in it.
 */
export function unfinishedSince(job: JobAndCatalogue, now: string): readonly Unfinished[] | null {
  const { doc, catalogue } = job
  if (!evidenceOf(doc, 'signoff').some(({ what }) => what === 'handed-over')) return null
  const system = systemOf(doc, catalogue)
  const stops = new Map(proofRoute(doc, catalogue, now).map((stop) => [stop.id, stop]))
  return system.devices.flatMap((item): Unfinished[] => {
    const { device, model } = item
    const stop = stops.get(device.id)
    if (!stop) return []
    const later = stop.items.filter(({ from, state }) => from !== null && state === 'waits').length
    const open = openProofs([stop]) - later
    const step = isNumbered(job, item) ? (isLearned(job, item) ? 'prove' : 'learn') : 'number'
    const name = [model.name, device.room].filter(Boolean).join(' in ')
    return step === 'prove' && open === 0 ? [] : [{ id: device.id, name, step, open }]
  })
}

type Item = System['devices'][number]

/** Whether it has the numbers that it needs: zones for its events, or its slot. */
function isNumbered({ doc, catalogue }: JobAndCatalogue, { device, model }: Item): boolean {
  const { panel } = systemOf(doc, catalogue)
  const events = eventsToZone({ device, model }, panel)
  if (events.length > 0) return recordsOf(doc, 'zone').some((zone) => zone.device === device.id)
  return model.slot === 'none' || device.slot !== null
}

/** Whether the panel knows all of it. */
function isLearned({ doc }: JobAndCatalogue, { device, family }: Item): boolean {
  if (!family) return true
  const zones = recordsOf(doc, 'zone').filter((zone) => zone.device === device.id)
  return zones.length > 0 ? zones.every(({ id }) => isInPanel(doc, id)) : isDeviceInPanel(doc, device.id)
}
