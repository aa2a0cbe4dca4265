import type { PanelModel, SettingKey } from '../catalogue/schema.ts'
import { job } from '../job/declared-plan.ts'
import type { JobInfo } from '../job/records.ts'
import { upperFirst } from '../units/words.ts'
import { bothNumbers } from './delay-words.ts'
import { encodeDelay } from './delays.ts'
import { presets } from './presets.ts'
import { exitWords, keysSwitchedOff, openWords } from './setting-words.ts'

/* The settings of a whole panel, each said once: the form, the sheet and the panel's memory read them here. */

/** A choice of a setting: the value kept, and how it is shown. */
interface SettingChoice {
  readonly value: string | boolean | null
  readonly title: string
}

/** What is keyed for a setting, and what that means. */
interface KeyedSetting {
  /** A choice's name, which the panel's own texts turn into keys; a number as it is keyed. */
  readonly value: string
  readonly meaning: string
}

interface Setting {
  /** Its name in a panel's programming texts. */
  readonly key: SettingKey
  /** The job's field that holds it. */
  readonly field: keyof typeof job.fields
  /** Its address in a panel's memory, by meaning. */
  readonly address: string
  /** A number, one of a few, on or off, or keys of the keypads that have a form of their own. */
  readonly form: 'number' | 'choice' | 'flag' | 'keys'
  /** Whether this panel has it. */
  readonly applies: (panel: PanelModel) => boolean
  /** What can be chosen here, the present choice of another panel left out; empty where nothing is chosen. */
  readonly choices: (panel: PanelModel) => readonly SettingChoice[]
  /** What helps to choose, by panel, region and present value; empty for nothing. */
  readonly hint: (panel: PanelModel, info: JobInfo) => string
  /** What the plan sets; null where it leaves the setting as the panel comes. */
  readonly keyed: (panel: PanelModel, info: JobInfo) => KeyedSetting | null
}

/** One setting of the whole panel. */
export interface PanelSetting extends Setting {
  /** What the field is called, as its record declares it; on the sheet with a small letter. */
  readonly label: string
  /** Unit of its number as the job keeps it; empty for none. */
  readonly unit: string
}

const asItComes: SettingChoice = { value: null, title: 'as it comes' }
const nothing = (): string => ''
const none = (): readonly SettingChoice[] => []
const always = (): boolean => true

const siren: Setting = {
  ...{ key: 'siren', field: 'sirenSeconds', address: 'system.siren' },
  ...{ form: 'number', applies: always, choices: none },
  hint(panel, info) {
    const { siren: limit } = presets[info.region]
    if (!panel.siren) return 'not a field of this panel'
    if (info.sirenSeconds === null) return `as it comes; ${limit.source}`
    const encoded = encodeDelay(panel.siren, info.sirenSeconds, { limit, direction: 'down' })
    return `${encoded.ok ? 'keyed ' : ''}${bothNumbers(panel.siren, encoded)}`
  },
  keyed(panel, info) {
    if (info.sirenSeconds === null || !panel.siren) return null
    const encoded = encodeDelay(panel.siren, info.sirenSeconds, {
      limit: presets[info.region].siren,
      direction: 'down',
    })
    return encoded.ok ? { value: String(encoded.keyed), meaning: bothNumbers(panel.siren, encoded) } : null
  },
}

const swinger: Setting = {
  ...{ key: 'swinger', field: 'swinger', address: 'system.swinger' },
  ...{ form: 'number', applies: always, choices: none },
  hint(panel, info) {
    const limit = presets[info.region].swinger
    if (limit) return `CP-01: ${limit.min}–${limit.max}, ${limit.usual} as shipped`
    return panel.swinger
      ? `this panel: ${panel.swinger.from}–${panel.swinger.to}`
      : 'this panel states no range'
  },
  keyed: (_, { swinger: alarms }) => numbered(alarms, 'trips'),
}

const supervise: Setting = {
  ...{ key: 'supervise', field: 'superviseMinutes', address: 'system.supervise' },
  ...{ form: 'number', applies: always, choices: none },
  hint: ({ superviseMinutes }) =>
    `empty: as it comes, ${superviseMinutes ? `${superviseMinutes} min` : 'how long is not stated'}`,
  keyed: (_, { superviseMinutes }) => numbered(superviseMinutes, 'min'),
}

const exitBy: Setting = {
  ...{ key: 'exitBy', field: 'exitBy', address: 'system.exitBy' },
  ...{ form: 'choice', hint: nothing },
  applies: ({ couplings }) => couplings?.exitBy !== undefined,
  choices: ({ couplings }) => [
    asItComes,
    ...(couplings?.exitBy ?? []).map((value) => ({ title: exitWords[value], value })),
  ],
  keyed: (_, info) => (info.exitBy === null ? null : { value: info.exitBy, meaning: exitWords[info.exitBy] }),
}

const openAtExit: Setting = {
  ...{ key: 'openAtExit', field: 'openAtExit', address: 'system.openAtExit' },
  ...{ form: 'choice', hint: nothing },
  applies: ({ couplings }) => couplings?.openAtExit !== undefined,
  choices: ({ couplings }) => [
    asItComes,
    ...(couplings?.openAtExit ?? []).map((value) => ({
      title: value === 'exclude' ? `${openWords.exclude}: unprotected` : openWords[value],
      value,
    })),
  ],
  keyed: (_, info) =>
    info.openAtExit === null ? null : { value: info.openAtExit, meaning: openWords[info.openAtExit] },
}

const outputWords = { momentary: 'give a pulse', latched: 'stay on until a code is keyed' } as const
const outputs: Setting = {
  ...{ key: 'outputs', field: 'outputs', address: 'system.outputs' },
  ...{ form: 'choice', hint: nothing },
  applies: ({ couplings }) => (couplings?.outputs ?? []).length > 1,
  choices: ({ couplings }) => [
    asItComes,
    ...(couplings?.outputs ?? []).map((value) => ({ title: outputWords[value], value })),
  ],
  keyed: (_, info) =>
    info.outputs === null ? null : { value: info.outputs, meaning: outputWords[info.outputs] },
}

const beeps = (key: 'entryBeeps' | 'exitBeeps'): Setting => ({
  ...{ key, field: key, address: `system.${key}`, form: 'choice', hint: nothing },
  applies: ({ couplings }) => couplings?.beeps === true,
  choices: () => [asItComes, { title: 'keypads sound', value: true }, { title: 'silent', value: false }],
  keyed: (_, info) =>
    info[key] === null
      ? null
      : { value: info[key] ? 'on' : 'off', meaning: info[key] ? 'keypads sound' : 'keypads make no sound' },
})

const keySwitch: Setting = {
  ...{ key: 'keySwitch', field: 'keySwitch', address: 'system.keySwitch' },
  ...{ form: 'choice', hint: nothing },
  applies: ({ couplings }) => couplings?.latchingKeySwitch === true,
  choices: () => [
    { title: 'none', value: 'none' },
    { title: 'springs back', value: 'momentary' },
    { title: 'latches: nothing else sets then', value: 'latching' },
  ],
  keyed: (_, info) => (info.keySwitch === 'none' ? null : { value: info.keySwitch, meaning: info.keySwitch }),
}

const exitUnit: Setting = {
  ...{ key: 'exitUnit', field: 'exitUnitSwitched', address: 'system.exitUnit' },
  ...{ form: 'flag', choices: none },
  applies: ({ delays }) => delays.exit.switched !== undefined,
  hint: ({ delays }) =>
    `exit in steps of ${delays.exit.switched?.secondsPerUnit ?? 1} s (${delays.exit.switched?.option ?? ''})`,
  keyed: ({ delays }, info) =>
    info.exitUnitSwitched
      ? { value: 'on', meaning: `steps of ${delays.exit.switched?.secondsPerUnit ?? 1} s` }
      : null,
}

const stayToEntry2: Setting = {
  ...{ key: 'stayToEntry2', field: 'stayToEntry2', address: 'system.stayToEntry2' },
  ...{ form: 'flag', choices: none },
  applies: ({ couplings }) => couplings?.stayToEntry2 !== undefined,
  hint: ({ couplings }) => `every zone of stay starts entry 2 (${couplings?.stayToEntry2 ?? ''})`,
  keyed: (_, info) =>
    info.stayToEntry2 ? { value: 'on', meaning: 'every zone of stay starts entry 2' } : null,
}

const keysOff: Setting = {
  ...{ key: 'keysOff', field: 'keysOff', address: 'system.keysOff' },
  ...{ form: 'keys', hint: nothing, choices: none },
  applies: ({ couplings }) => couplings?.functionKeys !== undefined,
  keyed(panel, info) {
    const off = keysSwitchedOff(panel, info).join(', ')
    return off === '' ? null : { value: off, meaning: `${off} off` }
  },
}

const settings: readonly Setting[] = [
  ...[siren, swinger, supervise, exitBy, openAtExit, outputs],
  ...[beeps('entryBeeps'), beeps('exitBeeps')],
  ...[keySwitch, exitUnit, stayToEntry2, keysOff],
]

/** Every setting of the whole panel, in the order of the form. */
export const panelSettings: readonly PanelSetting[] = settings.map((setting) => {
  const { words, unit } = job.fields[setting.field]
  return { ...setting, label: upperFirst(words), unit }
})

const byKey = new Map(panelSettings.map((setting) => [setting.key, setting]))

/** The setting of a name in a panel's texts; RangeError for one that is not declared here. */
export function settingOf(key: SettingKey): PanelSetting {
  const setting = byKey.get(key)
  if (!setting) throw new RangeError(`settingOf: no setting ${key}`)
  return setting
}

function numbered(value: number | null, unit: string): KeyedSetting | null {
  return value === null ? null : { value: String(value), meaning: `${value} ${unit}` }
}
