import type { PanelModel, ResponseType, ZoneField } from '../catalogue/schema.ts'
import type { System } from '../system/system.ts'
import { groupId } from '../identity/sticker.ts'
import { recordOf, type JobDocument } from '../job/document.ts'
import type { Zone } from '../job/records.ts'
import { libraryEntries } from '../zones/labels.ts'
import { printNumber } from '../zones/numbers.ts'
import { idFrom } from '../memory/words.ts'
import { wiringWords } from '../memory/zone-cells.ts'
import { keypadPresses } from './presses.ts'
import { enrolmentOf } from '../job/enrolment.ts'

/** What is keyed for a field of a zone, and what it means. */
interface KeyedField {
  readonly value: string
  readonly meaning: string
  readonly note?: string
}

/** A zone with what its fields are keyed by. */
interface KeyedZone {
  readonly doc: JobDocument
  readonly panel: PanelModel
  readonly zone: Zone
  readonly item: System['devices'][number] | undefined
  readonly type: ResponseType | undefined
}

/** What is keyed for a field: `open` where the plan owes it, null where the panel does not ask this of the zone. */
type FieldKeyed = (at: KeyedZone) => KeyedField | 'open' | null

/** What is keyed for every field of a zone. */
export const fieldKeyed: Readonly<Record<ZoneField, FieldKeyed>> = {
  number: ({ panel, zone }) => {
    const value = printNumber(panel, zone.number)
    return { value, meaning: `zone ${value}` }
  },
  response: ({ panel, type }) =>
    type ? { value: type.code, meaning: type.name, note: listNote(panel, type.key) } : 'open',
  equipmentCode: ({ zone, item }) => {
    if (zone.equipmentCode !== null) return { value: zone.equipmentCode, meaning: item?.model.name ?? '' }
    return item?.family ? 'open' : null
  },
  equipmentKind: ({ panel, zone }) => {
    const kind = panel.equipment.kinds.find((entry) => entry.key === zone.equipmentKind)
    return kind ? { value: kind.keyed, meaning: kind.name } : 'open'
  },
  serial: serialValue,
  loop: ({ zone, item }) => {
    if (!item?.family || item.model.switches) return null
    if (zone.loop === null) return 'open'
    const loop = item.model.loops.find((entry) => entry.event === zone.event)
    return { value: String(zone.loop), meaning: loop?.name ?? '' }
  },
  inputs: inputsValue,
  area: ({ doc, zone }) => {
    const list = [zone.area, zone.area2].flatMap((id) => recordOf(doc, 'area', id) ?? [])
    if (list.length === 0) return 'open'
    return {
      value: list.map((area) => area.number).join(' '),
      meaning: list.map((area) => area.name).join(' and '),
    }
  },
  report: flagField('report'),
  chime: ({ panel, zone, type }) => (type?.hides.includes('chime') ? null : chimeValue(panel, zone)),
  supervise: flagField('supervise'),
  transmissionDelay: flagField('transmissionDelay'),
  sirens: ({ panel, zone }) => {
    if (zone.sirens === null) return null
    return zone.sirens.length === 0
      ? { value: panel.programming.no, meaning: 'none' }
      : { value: zone.sirens.join(' '), meaning: `output ${zone.sirens.join(', ')}` }
  },
  doubleKnock: ({ panel, zone }) => (zone.doubleKnock ? flag(panel, true) : null),
  fireGroup: ({ zone, type }) => {
    if (type?.fire !== 'verified') return null
    if (zone.fireGroup === null) return 'open'
    return { value: String(zone.fireGroup), meaning: `group ${zone.fireGroup}` }
  },
  wiring: ({ panel, zone, item }) => {
    if (item?.family !== null) return null
    if (zone.wiring === null) return 'open'
    const keyed = panel.programming.zone.find((step) => step.field === 'wiring')?.values
    const ohms = zone.resistorOhm === null ? '' : `, ${zone.resistorOhm} ohms`
    return { value: keyed?.[zone.wiring] ?? zone.wiring, meaning: `${wiringWords[zone.wiring]}${ohms}` }
  },
  dayZone: ({ panel, zone }) => (zone.dayZone ? flag(panel, true) : null),
  label: ({ panel, zone }) => labelValue(panel, zone.label),
}

/** A zone with its device and response type looked up, for asking what is keyed for each of its fields. */
export function keyedZone(doc: JobDocument, system: System, zone: Zone): KeyedZone | null {
  const { panel } = system
  if (!panel) return null
  const item = zone.device === null ? undefined : system.byId.get(zone.device)
  return { doc, panel, zone, item, type: panel.responseTypes.find((entry) => entry.key === zone.response) }
}

function flag(panel: PanelModel, on: boolean): KeyedField {
  return { value: on ? panel.programming.yes : panel.programming.no, meaning: on ? 'yes' : 'no' }
}

/** A flag that a response type may hide. */
function flagField(field: 'report' | 'supervise' | 'transmissionDelay'): FieldKeyed {
  return ({ panel, zone, type }) => (type?.hides.includes(field) ? null : flag(panel, zone[field]))
}

function serialValue({ doc, zone, item }: KeyedZone): KeyedField | 'open' | null {
  if (!item?.family) return null
  const known = enrolmentOf(doc, zone.id)
  const serial = known?.serial ?? item.device.sticker
  if (serial === null) return 'open'
  return { value: [...serial].join(' '), meaning: `${groupId(item.family, serial)}, ${idFrom(known)}` }
}

/** Only of contacts whose panel switches their inputs; what the model lacks is not asked. */
function inputsValue({ panel, zone, item }: KeyedZone): KeyedField | 'open' | null {
  if (!item?.model.switches) return null
  const inputs = [
    ['reed', zone.reedOn],
    ['terminals', zone.terminalsOn],
    ['end-of-line', zone.endOfLineOn],
  ] as const
  const mine = inputs.filter(([, on]) => on !== null)
  if (mine.length === 0) return 'open'
  return {
    value: mine.map(([, on]) => flag(panel, on === true).value).join(' '),
    meaning: mine.map(([name, on]) => `${name} ${on ? 'on' : 'off'}`).join(', '),
  }
}

/** Said where a response type stands in one of the lists that exclude each other. */
function listNote(panel: PanelModel, key: string): string {
  const list = panel.couplings?.typeGroups?.find((group) => group.types.includes(key))
  return list ? `Goes into the ${list.name}, and so out of any other list.` : ''
}

function chimeValue(panel: PanelModel, zone: Zone): KeyedField {
  const styles = panel.couplings?.chimeStyles
  const style = styles?.find((item) => item.key === zone.chimeStyle) ?? styles?.[0]
  return zone.chime && style ? { value: style.keyed, meaning: style.name } : flag(panel, zone.chime)
}

function labelValue(panel: PanelModel, label: string): KeyedField | 'open' {
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
