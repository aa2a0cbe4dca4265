import type { PanelModel, ZoneField } from '../catalogue/schema.ts'
import type { System } from '../system/system.ts'
import { groupId } from '../identity/sticker.ts'
import { recordOf, type JobDocument } from '../job/document.ts'
import type { Zone } from '../job/records.ts'
import { libraryEntries } from '../zones/labels.ts'
import { printNumber } from '../zones/numbers.ts'
import { keypadPresses } from './presses.ts'
import { enrolmentOf } from '../job/enrolment.ts'

/** Who tells an ID that nobody here saw. */
const toldBy = {
  file: 'the file',
  build: 'an earlier build',
  owner: 'an owner for somebody who left',
} as const

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
  const keyed = panel.programming.zone.find((step) => step.field === field)?.values
  switch (field) {
    case 'number':
      return { value: printNumber(panel, zone.number), meaning: `zone ${printNumber(panel, zone.number)}` }
    case 'response':
      return type ? { value: type.code, meaning: type.name, note: listNote(panel, type.key) } : 'open'
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
      const known = enrolmentOf(doc, zone.id)
      const serial = known?.serial ?? item.device.sticker
      const from = !known
        ? 'from the sticker, not learned yet'
        : known.told === null
          ? 'learned'
          : `told by ${toldBy[known.told]}, not learned here`
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
    case 'chime':
      return type?.hides.includes(field) ? null : chimeValue(panel, zone, flag(zone.chime))
    case 'sirens': {
      const list = zone.sirens ?? []
      if (zone.sirens === null) return null
      return list.length === 0
        ? { value: panel.programming.no, meaning: 'none' }
        : { value: list.join(' '), meaning: `output ${list.join(', ')}` }
    }
    case 'doubleKnock':
    case 'dayZone':
      return zone[field] ? flag(true) : null
    case 'fireGroup':
      return type?.fire !== 'verified'
        ? null
        : zone.fireGroup === null
          ? 'open'
          : { value: String(zone.fireGroup), meaning: `group ${zone.fireGroup}` }
    case 'wiring': {
      if (item?.family !== null) return null
      if (zone.wiring === null) return 'open'
      const ohms = zone.resistorOhm === null ? '' : `, ${zone.resistorOhm} ohms`
      return { value: keyed?.[zone.wiring] ?? zone.wiring, meaning: `${wiringWords[zone.wiring]}${ohms}` }
    }
    case 'report':
    case 'supervise':
    case 'transmissionDelay':
      return type?.hides.includes(field) ? null : flag(zone[field])
    case 'label':
      return labelValue(panel, zone.label)
  }
}

const wiringWords = {
  closed: 'closed loop',
  open: 'open loop',
  'end-of-line': 'end-of-line resistor',
  double: 'double end-of-line',
} as const

/** Said where a response type stands in one of the lists that exclude each other. */
function listNote(panel: PanelModel, key: string): string {
  const list = panel.couplings?.typeGroups?.find((group) => group.types.includes(key))
  return list ? `Goes into the ${list.name}, and so out of any other list.` : ''
}

function chimeValue(
  panel: PanelModel,
  zone: Zone,
  plain: { readonly value: string; readonly meaning: string },
): { readonly value: string; readonly meaning: string } {
  const styles = panel.couplings?.chimeStyles
  const style = styles?.find((item) => item.key === zone.chimeStyle) ?? styles?.[0]
  return zone.chime && style ? { value: style.keyed, meaning: style.name } : plain
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
