import { jobRecords } from './records.ts'
import { typeOfId } from './edit.ts'

/** The stages of a job by key, in working order. */
export const stageKeys = ['survey', 'kit', 'zones', 'program', 'enrol', 'prove', 'handover'] as const
/** Key of a stage. */
export type Stage = (typeof stageKeys)[number]

/** The stage where a record or a field of it is worked on; null for what no stage shows. */
export function stageOf(recordId: string, field: string | null = null): Stage | null {
  const type = typeOfId(recordId)
  const declared = type ? jobRecords.types[type] : undefined
  const stage = (field === null ? undefined : declared?.fields[field]?.stage) ?? declared?.stage
  return stageKeys.find((key) => key === stage) ?? null
}
