import { recordsOf } from '../../job/document.ts'
import type { TestResult } from '../../job/records.ts'
import { evidenceBy } from '../../job/testing/records.ts'
import { catalogue, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { PANEL } from '../copy.ts'
import { proofRoute, type ProofItem } from '../owed.ts'
import { proofRecord } from '../records.ts'
import type { ProofKind } from '../table.ts'

/* Jobs whose devices are learned, and results recorded on them. */

export const noon = '2026-05-04T12:00:00Z'
export const one = '2026-05-04T13:00:00Z'
export const two = '2026-05-04T14:00:00Z'

/** Learns every zone of these devices, each device by one ID; so that they may be proved. */
export function learned(job: SmallJob, ...keys: string[]): SmallJob {
  for (const [index, key] of keys.entries()) {
    const zones = recordsOf(job.doc, 'zone').filter((zone) => zone.device === `device:${key}`)
    const subjects = zones.length > 0 ? zones.map((zone) => zone.id) : [`device:${key}`]
    for (const subject of subjects) job.learn(subject, String(10_000_000 + index))
  }
  return job
}

export const tarn = (): SmallJob =>
  learned(cleanTarn(), 'porch', 'study', 'hall', 'lounge', 'landing', 'kitchen', 'bedroom', 'fob')

export const stopOf = (job: SmallJob, id: string, now: string | null = null) => {
  const found = proofRoute(job.doc, catalogue, now).find((stop) => stop.id === id)
  if (!found) throw new Error(`no ${id} on the route`)
  return found
}
export const itemsOf = (job: SmallJob, key: string, now: string | null = null) =>
  stopOf(job, key === PANEL ? key : `device:${key}`, now).items
export const itemOf = (
  job: SmallJob,
  key: string,
  kind: ProofKind,
  label = '',
  now: string | null = null,
) => {
  const found = itemsOf(job, key, now).find((item) => item.kind === kind && item.label.startsWith(label))
  if (!found) throw new Error(`${key} owes no ${kind} ${label}`)
  return found
}
let count = 0
export function record(
  job: SmallJob,
  item: ProofItem,
  over: Partial<Pick<TestResult, 'outcome' | 'reading' | 'method'>> & { at?: string } = {},
): SmallJob {
  count += 1
  const { at = noon, outcome = 'pass', ...rest } = over
  const made = { id: `test:${String(count).padStart(4, '0')}`, who: { id: 'idris', name: 'Idris' }, at }
  const result = proofRecord({ doc: job.doc, catalogue }, item, { made, result: { outcome, ...rest } })
  return job.apply([{ op: 'add', record: { ...result, ...evidenceBy('Idris', at) } }])
}
export const pass = (job: SmallJob, key: string, kind: ProofKind, label = '', at = noon): SmallJob =>
  record(job, itemOf(job, key, kind, label), { at })

/** A Curlew house on the Ostler S: a repeater, a contact behind it, and one that the receiver hears. */
export function behindRepeater(): SmallJob {
  const job = new SmallJob({ panel: 'panel/ostler-s-8' })
    .add('relay', 'spanner-8')
    .add('shed', 'sill-8', { use: 'opening', via: 'device:relay' })
    .add('hall', 'sill-8', { use: 'entry' })
    .number()
  return learned(job, 'relay', 'shed', 'hall')
}
