import type { PanelModel } from '../catalogue/schema.ts'
import type { System } from '../system/system.ts'
import { groupId } from '../identity/sticker.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { servedAreas } from '../premises/served-areas.ts'
import { bothNumbers, encodedWords } from '../response/delay-words.ts'
import { delayFieldOf, delayNames, delaySets, encodeDelay, limitOf } from '../response/delays.ts'
import { settingOf } from '../response/panel-settings.ts'
import { storedInKeypad } from '../response/setting-words.ts'
import { lowerFirst } from '../units/words.ts'
import { makeStep, type SheetSection, type SheetStep } from './step.ts'
import { learnedSerial } from '../job/enrolment.ts'

/** The panel's delays, and behind them those that an area has of its own. */
export function systemSteps(doc: JobDocument, panel: PanelModel): SheetStep[] {
  return delaySets(doc, panel).flatMap((set) =>
    panel.programming.systemFields.flatMap((key): SheetStep[] => {
      const field = delayFieldOf(panel, jobInfo(doc), key)
      const wanted = set.values[key]
      const name = set.area === null ? delayNames[key] : `${delayNames[key]} of ${set.area}`
      // What the job leaves open is owed; what an area leaves open it takes from the job.
      if (!field || (wanted === null && (key === 'abort' || set.area !== null))) return []
      const address = set.number === null ? field.address : `${field.address}, part ${set.number}`
      const fill = { address, name: field.name }
      const step = panel.programming.system
      if (wanted === null)
        return [makeStep({ step, fill, field: name, meaning: 'not set in the plan', open: true })]
      const encoded = encodeDelay(field, wanted, { limit: limitOf(doc, key) })
      const value: Readonly<Record<string, string>> = encoded.ok ? { value: String(encoded.keyed) } : {}
      const words = encodedWords(field.name, encoded)
      const meaning = encoded.ok
        ? `${bothNumbers(field, encoded)}${words === '' ? '' : ` (${words})`}`
        : words
      return [makeStep({ step, fill: { ...fill, ...value }, field: name, meaning, open: !encoded.ok })]
    }),
  )
}

/** The settings that the plan changes from how the panel comes, as the panel asks for them. */
export function settingSteps(doc: JobDocument, panel: PanelModel): SheetStep[] {
  const info = jobInfo(doc)
  return (panel.programming.settings ?? []).flatMap((step): SheetStep[] => {
    const setting = settingOf(step.setting)
    const set = setting.keyed(panel, info)
    if (set === null) return []
    const keyed = step.values?.[set.value] ?? set.value
    const fill = { value: keyed, meaning: set.meaning }
    return [makeStep({ step, fill, field: lowerFirst(setting.label), meaning: set.meaning })]
  })
}

/** A job and the panel that is programmed. */
export interface Programmed {
  readonly doc: JobDocument
  readonly panel: PanelModel
}

/** Fobs, keypads and sirens that have slots, with what is keyed for each. */
export function slotSection({ doc, panel }: Programmed, system: System, rules: HouseRules): SheetSection {
  const step = panel.programming.slot
  const steps = step
    ? system.devices.flatMap(({ device, model, family }): SheetStep[] => {
        if (model.slot === 'none' || !family || device.slot === null) return []
        const serial = learnedSerial(doc, device.id) ?? device.sticker
        const inKeypad = model.slot === 'fob' && storedInKeypad(panel, device, rules)
        const own = inKeypad ? (panel.programming.fobInKeypad ?? step) : step
        const fill = {
          address: step.addresses[model.slot],
          number: String(device.slot),
          name: model.slot,
          ...(serial === null ? {} : { value: [...serial].join(' ') }),
        }
        const meaning =
          serial === null ? 'still open in the plan' : `${model.name}, ${groupId(family, serial)}`
        return [
          makeStep({
            step: own,
            fill,
            field: `${model.slot} ${device.slot}`,
            meaning,
            open: serial === null,
          }),
        ]
      })
    : []
  return { title: 'Fobs, keypads and sirens', steps }
}

/** Which areas each keypad and fob sets and unsets, where the panel keeps that per keypad. */
export function servedSection(doc: JobDocument, system: System, panel: PanelModel): SheetSection[] {
  const step = panel.programming.keypadAreas
  if (!step || recordsOf(doc, 'area').length < 2) return []
  let wired = 0
  const steps = system.devices.flatMap(({ device, model, family }): SheetStep[] => {
    // A fob with zone numbers has its areas keyed with its zones.
    if (model.class !== 'keypad' && (model.slot !== 'fob' || panel.slots.fobs.by === 'numbers')) return []
    // A wired keypad has no slot in the plan; they count on along the cable.
    const number = device.slot ?? (family ? null : (wired += 1))
    const served = servedAreas(doc, panel, device)
    const areas = recordsOf(doc, 'area').filter((area) => served === null || served.has(area.id))
    const name = `${model.class === 'keypad' ? 'keypad' : 'fob'} ${number ?? '?'}`
    const fill = {
      name: model.class === 'keypad' ? 'keypad' : 'fob',
      ...(number === null ? {} : { number: String(number) }),
      value: areas.map((area) => area.number).join(' '),
    }
    const meaning = `${model.name}${device.room ? ` in ${device.room}` : ''}: ${areas.map((area) => area.name).join(' and ')}`
    return [makeStep({ step, fill, field: `areas of ${name}`, meaning, open: number === null })]
  })
  return steps.length > 0 ? [{ title: 'Areas of keypads and fobs', steps }] : []
}
