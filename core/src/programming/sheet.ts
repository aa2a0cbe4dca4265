import type { Catalogue } from '../catalogue/catalogue.ts'
import type { PanelModel, ZoneField } from '../catalogue/schema.ts'
import { systemOf, type System } from '../fit/system.ts'
import { jobInfo, recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import type { Zone } from '../job/records.ts'
import {
  bothNumbers,
  delayFieldOf,
  encodeDelay,
  limitOf,
  delaySets,
  type DelayKey,
} from '../response/delays.ts'
import { groupId } from '../identity/sticker.ts'
import { libraryEntries } from '../zones/labels.ts'
import { printNumber } from '../zones/numbers.ts'
import { keypadPresses } from './presses.ts'

/** One step of a sheet: what is keyed, what the display should then show, and what it means. */
export interface SheetStep {
  readonly keys: string
  readonly shows: string
  /** The field in plain words. */
  readonly field: string
  /** The value in plain words, with both numbers where the panel stores units. */
  readonly meaning: string
  readonly note: string
  /** True where the plan has nothing to key yet: it is owed. */
  readonly open: boolean
}

export interface SheetSection {
  readonly title: string
  readonly steps: readonly SheetStep[]
}

/** The programming sheet of a job for its panel's own style. */
export interface Sheet {
  readonly panel: string
  readonly style: string
  readonly sections: readonly SheetSection[]
  /** How many values are still open. */
  readonly open: number
}

const fieldNames: Readonly<Record<ZoneField, string>> = {
  number: 'number',
  response: 'response type',
  equipmentCode: 'equipment code',
  equipmentKind: 'equipment kind',
  serial: 'transmitter ID',
  loop: 'loop',
  inputs: 'contact inputs',
  area: 'area',
  report: 'report',
  chime: 'chime',
  supervise: 'supervise',
  transmissionDelay: 'hold before sending',
  label: 'label',
}
const delayNames: Readonly<Record<DelayKey, string>> = {
  entry1: 'entry delay 1',
  entry2: 'entry delay 2',
  exit: 'exit delay',
  abort: 'hold before sending',
}

/** Makes the sheet: way in, system fields, zones in number order, slots, way out and save. Null without a panel. */
export function programmingSheet(doc: JobDocument, catalogue: Catalogue): Sheet | null {
  const system = systemOf(doc, catalogue)
  const { panel } = system
  if (!panel) return null
  const text = panel.programming
  const plain = (steps: PanelModel['programming']['wayIn']) =>
    steps.map((step) => makeStep({ step, fill: {}, field: '', meaning: '' }))
  const zones = recordsOf(doc, 'zone').map((zone) => zoneSection(doc, system, panel, zone))
  const slots = slotSection(system, panel)
  const sections = [
    { title: 'Way in', steps: plain(text.wayIn) },
    { title: 'Whole system', steps: systemSteps(doc, panel) },
    ...zones,
    ...(slots.steps.length > 0 ? [slots] : []),
    { title: 'Way out and save', steps: plain(text.wayOut) },
  ]
  const open = sections.reduce((sum, section) => sum + section.steps.filter((step) => step.open).length, 0)
  return { panel: panel.name, style: panel.style, sections, open }
}

/** What is keyed for one zone field and what it means; null where the panel does not ask this of the zone. */
export function fieldValue(
  doc: JobDocument,
  system: System,
  panel: PanelModel,
  zone: Zone,
  field: ZoneField,
): { readonly value: string; readonly meaning: string; readonly note?: string } | 'open' | null {
  const item = zone.device === null ? undefined : system.byId.get(zone.device)
  const type = panel.responseTypes.find((entry) => entry.key === zone.response)
  const flag = (on: boolean) => ({
    value: on ? panel.programming.yes : panel.programming.no,
    meaning: on ? 'yes' : 'no',
  })
  switch (field) {
    case 'number':
      return { value: printNumber(panel, zone.number), meaning: `zone ${zone.number}` }
    case 'response':
      return type ? { value: type.code, meaning: type.name } : 'open'
    case 'equipmentCode':
      return zone.equipmentCode === null
        ? item?.family
          ? 'open'
          : null
        : { value: zone.equipmentCode, meaning: item?.model.name ?? '' }
    case 'equipmentKind': {
      const kind = panel.equipment.kinds.find((entry) => entry.key === zone.equipmentKind)
      return kind ? { value: kind.keyed, meaning: kind.name } : 'open'
    }
    case 'serial': {
      if (!item?.family) return null
      const serial = zone.serial ?? item.device.sticker
      const from = zone.serial === null && serial !== null ? 'from the sticker, not learned yet' : 'learned'
      return serial === null
        ? 'open'
        : { value: [...serial].join(' '), meaning: `${groupId(item.family, serial)}, ${from}` }
    }
    case 'loop':
      if (!item?.family || item.model.switches) return null
      return zone.loop === null
        ? 'open'
        : {
            value: String(zone.loop),
            meaning: item.model.loops.find((entry) => entry.event === zone.event)?.name ?? '',
          }
    case 'inputs': {
      // Only contacts whose panel switches their inputs; what the model lacks is not asked.
      const inputs = [
        ['reed', zone.reedOn],
        ['terminals', zone.terminalsOn],
        ['end-of-line', zone.endOfLineOn],
      ] as const
      const mine = inputs.filter(([, on]) => on !== null)
      if (!item?.model.switches) return null
      return mine.length === 0
        ? 'open'
        : {
            value: mine.map(([, on]) => flag(on === true).value).join(' '),
            meaning: mine.map(([name, on]) => `${name} ${on ? 'on' : 'off'}`).join(', '),
          }
    }
    case 'area': {
      const list = [zone.area, zone.area2].flatMap((id) => recordOf(doc, 'area', id) ?? [])
      return list.length > 0
        ? {
            value: list.map((area) => area.number).join(' '),
            meaning: list.map((area) => area.name).join(' and '),
          }
        : 'open'
    }
    case 'report':
    case 'chime':
    case 'supervise':
    case 'transmissionDelay':
      return type?.hides.includes(field) ? null : flag(zone[field])
    case 'label':
      return labelValue(panel, zone.label)
  }
}

function labelValue(
  panel: PanelModel,
  label: string,
): { value: string; meaning: string; note?: string } | 'open' {
  if (label.trim() === '') return 'open'
  if (panel.label.style === 'text') {
    const text = panel.label.capitals ? label.toUpperCase() : label
    return { value: keypadPresses(text), meaning: text }
  }
  const entries = libraryEntries(panel.label, label)
  if (entries.some((entry) => entry.number === null)) return 'open'
  return {
    value: entries.map((entry) => entry.number).join(' _ '),
    meaning: entries.map((entry) => entry.text).join(' '),
  }
}

/** The panel's delays, and behind them those that an area has of its own. */
function systemSteps(doc: JobDocument, panel: PanelModel): SheetStep[] {
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
      const encoded = encodeDelay(field, wanted, limitOf(doc, key))
      const value: Readonly<Record<string, string>> = encoded.ok ? { value: String(encoded.keyed) } : {}
      const meaning = encoded.ok
        ? `${bothNumbers(field, encoded)}${encoded.note ? ` (${encoded.note})` : ''}`
        : encoded.reason
      return [makeStep({ step, fill: { ...fill, ...value }, field: name, meaning, open: !encoded.ok })]
    }),
  )
}

function zoneSection(doc: JobDocument, system: System, panel: PanelModel, zone: Zone): SheetSection {
  const number = printNumber(panel, zone.number)
  const text = panel.programming
  const steps = text.zone.flatMap((step): SheetStep[] => {
    const result = fieldValue(doc, system, panel, zone, step.field)
    if (result === null) return []
    const field = fieldNames[step.field]
    if (result === 'open')
      return [makeStep({ step, fill: { number }, field, meaning: 'still open in the plan', open: true })]
    return [
      makeStep({
        step,
        fill: { number, value: result.value, meaning: result.meaning },
        field,
        meaning: result.meaning,
      }),
    ]
  })
  return {
    title: `Zone ${number}${zone.label ? ` — ${zone.label}` : ''}`,
    steps: [
      makeStep({ step: text.zoneStart, fill: { number }, field: 'zone', meaning: number }),
      ...steps,
      makeStep({ step: text.zoneEnd, fill: { number }, field: '', meaning: '' }),
    ],
  }
}

function slotSection(system: System, panel: PanelModel): SheetSection {
  const step = panel.programming.slot
  const steps = step
    ? system.devices.flatMap(({ device, model, family }): SheetStep[] => {
        if (model.slot === 'none' || !family || device.slot === null) return []
        const serial = device.serial ?? device.sticker
        const fill = {
          address: step.addresses[model.slot],
          number: String(device.slot),
          name: model.slot,
          ...(serial === null ? {} : { value: [...serial].join(' ') }),
        }
        const meaning =
          serial === null ? 'still open in the plan' : `${model.name}, ${groupId(family, serial)}`
        return [
          makeStep({ step, fill, field: `${model.slot} ${device.slot}`, meaning, open: serial === null }),
        ]
      })
    : []
  return { title: 'Fobs, keypads and sirens', steps }
}

function makeStep(opts: {
  step: { readonly keys: string; readonly shows: string; readonly note: string }
  fill: Readonly<Record<string, string>>
  field: string
  meaning: string
  open?: boolean
}): SheetStep {
  const put = (text: string): string =>
    text.replace(/\{([a-z]+)\}/g, (_whole, key: string) => opts.fill[key] ?? '______')
  return {
    keys: put(opts.step.keys),
    shows: put(opts.step.shows),
    field: opts.field,
    meaning: opts.meaning,
    note: opts.step.note,
    open: opts.open ?? false,
  }
}
