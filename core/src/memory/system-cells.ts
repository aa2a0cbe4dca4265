import type { DelayField, PanelModel } from '../catalogue/schema.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import { learnedSerial } from '../job/enrolment.ts'
import type { JobInfo } from '../job/records.ts'
import { servedAreas } from '../premises/served-areas.ts'
import { encodedWords } from '../response/delay-words.ts'
import {
  decodeDelay,
  delayFieldOf,
  delayNames,
  delaySets,
  encodeDelay,
  limitOf,
  type DelayKey,
  type DelaySet,
} from '../response/delays.ts'
import { panelSettings, type PanelSetting } from '../response/panel-settings.ts'
import type { System } from '../system/system.ts'
import { bit, cellOf, isOn, slug, type Cell } from './memory.ts'

/* What a panel stores of the whole system, of its areas, and of fobs, keypads and sirens that have slots. */

/** Delays in the order of the form. */
const delayKeys = ['entry1', 'entry2', 'exit', 'exitStay', 'abort'] as const
/** Fields of the job that hold them. */
const delayFields = {
  ...{ entry1: 'entry1', entry2: 'entry2', exit: 'exit', exitStay: 'exitStay' },
  abort: 'abortWindow',
} as const

/** The delays of the job, and those of areas that a panel keeps apart. */
export function delayCells(doc: JobDocument, panel: PanelModel): readonly Cell[] {
  const areas = panel.couplings?.delaysPerArea ? recordsOf(doc, 'area') : []
  const [whole, ...own] = delaySets(doc, panel)
  const sets = new Map(own.map((set) => [set.id, set]))
  return [
    ...(whole ? setCells(doc, panel, { set: whole, at: 'system' }) : []),
    ...areas.flatMap(({ id, number }) => {
      const none = { entry1: null, entry2: null, exit: null, exitStay: null, abort: null }
      const set = sets.get(id) ?? { id, area: '', number, values: none }
      return setCells(doc, panel, { set, at: `area.${number}` })
    }),
  ]
}

function setCells(doc: JobDocument, panel: PanelModel, { set, at }: { set: DelaySet; at: string }): Cell[] {
  return delayKeys.flatMap((key): Cell[] => {
    const field = delayFieldOf(panel, jobInfo(doc), key)
    if (!field || (set.number !== null && key === 'abort')) return []
    const address = `${at}.${key}`
    const wanted = set.values[key]
    if (wanted === null) return [{ address, state: 'open' }]
    const encoded = encodeDelay(field, wanted, { limit: limitOf(doc, key) })
    return [
      encoded.ok
        ? { address, value: String(encoded.keyed) }
        : { address, refused: encodedWords(delayNames[key], encoded) },
    ]
  })
}

/** Settings of the whole panel. */
export function settingCells(doc: JobDocument, panel: PanelModel): readonly Cell[] {
  const info = jobInfo(doc)
  const asked = new Set((panel.programming.settings ?? []).map(({ setting }) => setting))
  return panelSettings
    .filter((setting) => asked.has(setting.key) && setting.applies(panel))
    .flatMap((setting) => settingCell(setting, panel, info))
}

function settingCell(setting: PanelSetting, panel: PanelModel, info: JobInfo): readonly Cell[] {
  const { address } = setting
  switch (setting.form) {
    case 'keys':
      return (panel.couplings?.functionKeys ?? []).map((key) => ({
        address: `${address}.${slug(key)}`,
        value: bit(info.keysOff.includes(key)),
      }))
    case 'flag':
      return [{ address, value: bit(info[setting.field] === true) }]
    case 'choice':
    case 'number': {
      const keyed = setting.keyed(panel, info)
      if (keyed) return [{ address, value: keyed.value }]
      const planned = info[setting.field]
      // No key switch is a setting like any other; a number that is planned and not keyed cannot be stored.
      if (planned === 'none') return [{ address, value: 'none' }]
      return planned === null
        ? [{ address, state: 'open' }]
        : [{ address, refused: `${setting.label}: ${setting.hint(panel, info)}.` }]
    }
  }
}

/** Fobs, keypads and sirens in their slots, with the areas each serves where the panel keeps that per device. */
export function slotCells(doc: JobDocument, system: System): readonly Cell[] {
  const { panel } = system
  if (!panel) return []
  const areas = recordsOf(doc, 'area')
  return system.devices.flatMap(({ device, model, family }): Cell[] => {
    if (model.slot === 'none' || device.slot === null) return []
    const at = `${model.slot}.${device.slot}`
    const most = panel.slots[`${model.slot}s`].count
    if (device.slot > most)
      return [
        { address: at, refused: `${panel.name} has ${most} ${model.slot} ${most === 1 ? 'slot' : 'slots'}.` },
      ]
    const served = servedAreas(doc, panel, device)
    return [
      ...(family && panel.programming.slot
        ? [cellOf(`${at}.serial`, learnedSerial(doc, device.id) ?? device.sticker)]
        : []),
      ...(panel.programming.keypadAreas && areas.length > 1 && model.slot !== 'siren'
        ? areas.map((area) => ({
            address: `${at}.areas.${area.number}`,
            value: bit(served === null || served.has(area.id)),
          }))
        : []),
    ]
  })
}

/** What a stored delay means to the plan. */
export type DelayRead =
  { readonly field: (typeof delayFields)[DelayKey]; readonly seconds: number } | { readonly why: string }

/** A stored delay in seconds, or why it is no value of its field; null for a name that is no delay of the panel. The job tells the unit. */
export function readDelay(
  panel: PanelModel,
  info: JobInfo,
  { key, value }: { readonly key: string; readonly value: string },
): DelayRead | null {
  const known = delayKeys.find((one) => one === key)
  const field = known && delayFieldOf(panel, info, known)
  if (!known || !field) return null
  const seconds = secondsOf(field, value)
  return seconds === null
    ? { why: `“${value}” is no value of ${field.name}` }
    : { field: delayFields[known], seconds }
}

/** Seconds of a keyed value, null where the field has none such: one between two steps does not come back as itself. */
function secondsOf(field: DelayField, value: string): number | null {
  if (!/^\d{1,5}$/.test(value)) return null
  const seconds = decodeDelay(field, Number(value))
  const again = encodeDelay(field, seconds)
  return again.ok && again.keyed === Number(value) ? seconds : null
}

/** What stored settings mean to the plan: fields of the job, or why not; null for an address that is no setting of the panel. */
export function readSetting(
  panel: PanelModel,
  { address, value }: { readonly address: string; readonly value: string },
  keysOff: readonly string[],
): { readonly fields: Partial<JobInfo> } | { readonly why: string } | null {
  const setting = panelSettings.find(
    (one) => one.applies(panel) && (address === one.address || address.startsWith(`${one.address}.`)),
  )
  if (!setting) return null
  if (setting.form === 'keys') {
    const key = panel.couplings?.functionKeys?.find((one) => address === `${setting.address}.${slug(one)}`)
    const off = isOn(value)
    if (key === undefined || off === null) return { why: `“${value}” is neither on nor off` }
    const others = keysOff.filter((one) => one !== key)
    return { fields: { keysOff: off ? [...others, key] : others } }
  }
  const planned = plannedBy(setting, panel, value)
  return planned === null
    ? { why: `“${value}” is no value of ${setting.label.toLowerCase()}` }
    : { fields: { [setting.field]: planned } }
}

/** What the job plans where a panel holds this value of a setting; null for a value that it has not. */
function plannedBy(
  setting: PanelSetting,
  panel: PanelModel,
  value: string,
): string | number | boolean | null {
  if (setting.form === 'flag') return isOn(value)
  if (setting.form === 'choice') {
    const choice = setting.choices(panel).find((one) => typeof one.value === 'string' && one.value === value)
    if (choice) return choice.value
    return setting.choices(panel).some((one) => typeof one.value === 'boolean') ? isOn(value) : null
  }
  if (setting.key === 'siren') return panel.siren ? secondsOf(panel.siren, value) : null
  return /^\d{1,5}$/.test(value) ? Number(value) : null
}
