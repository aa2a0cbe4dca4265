import { stageKeys, type Stage } from '#core'

const names: Readonly<Record<Stage, string>> = {
  survey: 'Survey',
  kit: 'Kit',
  zones: 'Zones',
  program: 'Program',
  enrol: 'Enrol',
  prove: 'Prove',
  handover: 'Hand over',
}

/** The stages in working order; each is one folder under stages/. */
export const stages = stageKeys.map((key) => ({ key, name: names[key] }))

/** Name of a stage by its key. */
export function stageName(key: string): string {
  return stages.find((stage) => stage.key === key)?.name ?? key
}
