import type { PanelModel } from '../catalogue/schema.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import type { Device, JobInfo } from '../job/records.ts'

/** What ends the exit time, within a sentence. */
export const exitWords = {
  timer: 'when the time is over',
  door: 'when the last door closes',
  either: 'when the time is over or the last door closes, whichever is first',
} as const

/** What becomes of a zone that is open when the exit time ends. */
export const openWords = { exclude: 'is left out', alarm: 'alarms' } as const

/** Whether a fob goes into a keypad: as stated on it, else by the school in force, where the panel can. */
export function storedInKeypad(panel: PanelModel, device: Device, rules: HouseRules): boolean {
  return panel.couplings?.fobsInKeypad === true && (device.storedIn ?? rules.schools.fobStore) === 'keypad'
}

/** Function keys that are switched off; those of a panel that was chosen before are not there. */
export function keysSwitchedOff(panel: PanelModel | null, info: Pick<JobInfo, 'keysOff'>): readonly string[] {
  return info.keysOff.filter((key) => panel?.couplings?.functionKeys?.includes(key))
}
