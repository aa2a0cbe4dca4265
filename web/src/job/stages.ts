/** The stages in working order; each is one folder under stages/. */
export const stages = [
  { key: 'survey', name: 'Survey' },
  { key: 'kit', name: 'Kit' },
  { key: 'zones', name: 'Zones' },
  { key: 'program', name: 'Program' },
  { key: 'enrol', name: 'Enrol' },
  { key: 'prove', name: 'Prove' },
  { key: 'handover', name: 'Hand over' },
] as const

/** Name of a stage by its key. */
export function stageName(key: string): string {
  return stages.find((stage) => stage.key === key)?.name ?? key
}
