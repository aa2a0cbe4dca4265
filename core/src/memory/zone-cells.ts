import type { PanelModel, ResponseType, ZoneField } from '../catalogue/schema.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { enrolmentOf } from '../job/enrolment.ts'
import type { Zone } from '../job/records.ts'
import type { System } from '../system/system.ts'
import { labelTrouble, libraryEntries } from '../zones/labels.ts'
import { bit, cellOf, isOn, type Cell, type Memory } from './memory.ts'

/* What a panel stores of a zone, field by field, and the way back into the plan. */

/** A zone with what its fields are stored by. */
interface ZoneAt {
  readonly doc: JobDocument
  readonly panel: PanelModel
  readonly zone: Zone
  readonly item: System['devices'][number] | undefined
  readonly type: ResponseType | undefined
}

/** What a memory says of a field of a zone: fields of the record, or why the plan has no word for it. */
type ZoneRead = { readonly fields: Partial<Zone> } | { readonly why: string }

interface ZoneCells {
  /** What the sheet calls it. */
  readonly words: string
  /** Addresses of the field begin so; {n}: the zone's number. Null for what is no address of its own. */
  readonly address: string | null
  readonly cells: (at: ZoneAt, address: string) => readonly Cell[]
  /** The inverse: null for what a memory cannot tell the plan, such as an ID, which is evidence and never copied into it. */
  readonly read: ((at: Omit<ZoneAt, 'type' | 'item'>, found: Found) => ZoneRead) | null
}

/** What a memory has at the addresses of one field: its own value, and those of its members. */
interface Found {
  readonly value: string | undefined
  readonly members: ReadonlyMap<string, string>
}

const nothing = (): readonly Cell[] => []
const hides = ({ type }: ZoneAt, field: ResponseType['hides'][number]): boolean =>
  type?.hides.includes(field) === true

/** A flag that a response type may hide. */
function flag(field: 'report' | 'supervise' | 'transmissionDelay', words: string = field): ZoneCells {
  return {
    words,
    address: `zone.{n}.${field}`,
    cells: (at, address) => [
      hides(at, field) ? { address, state: 'hidden' } : { address, value: bit(at.zone[field]) },
    ],
    read: (_, found) => flagRead(found, (on) => ({ [field]: on })),
  }
}

/** A flag of panels that have it; the plan's own word is always on or off. */
function option(field: 'doubleKnock' | 'dayZone', words: string): ZoneCells {
  return {
    words,
    address: `zone.{n}.${field}`,
    cells: ({ zone }, address) => [{ address, value: bit(zone[field]) }],
    read: (_, found) => flagRead(found, (on) => ({ [field]: on })),
  }
}

function flagRead({ value }: Found, fields: (on: boolean) => Partial<Zone>): ZoneRead {
  const on = isOn(value)
  return on === null ? { why: `“${value}” is neither on nor off` } : { fields: fields(on) }
}

const inputFields = { reed: 'reedOn', terminals: 'terminalsOn', 'end-of-line': 'endOfLineOn' } as const

/** Every field of a zone that panels store, said once. */
export const zoneCells: Readonly<Record<ZoneField, ZoneCells>> = {
  number: { words: 'number', address: null, cells: nothing, read: null },
  response: {
    words: 'response type',
    address: 'zone.{n}.response',
    cells: ({ panel, zone, type }, address) =>
      zone.response !== null && !type
        ? [{ address, refused: `${panel.name} has no type “${zone.response}”.` }]
        : [cellOf(address, type?.code ?? null)],
    read: ({ panel }, { value }) => {
      const types = panel.responseTypes.filter((entry) => entry.code === value)
      const [type] = types
      if (!type) return { why: `no response type has the code ${value}` }
      return types.length === 1
        ? { fields: { response: type.key } }
        : { why: `${types.length} response types have the code ${value}` }
    },
  },
  equipmentCode: {
    words: 'equipment code',
    address: 'zone.{n}.equipmentCode',
    cells: ({ zone, item }, address) => (item && !item.family ? [] : [cellOf(address, zone.equipmentCode)]),
    read: (_, { value }) => ({ fields: { equipmentCode: value ?? null } }),
  },
  equipmentKind: {
    words: 'equipment kind',
    address: 'zone.{n}.equipmentKind',
    cells: ({ panel, zone }, address) => {
      const kind = panel.equipment.kinds.find((entry) => entry.key === zone.equipmentKind)
      if (zone.equipmentKind !== null && !kind)
        return [{ address, refused: `${panel.name} has no kind of equipment “${zone.equipmentKind}”.` }]
      return [cellOf(address, kind?.keyed ?? null)]
    },
    read: ({ panel }, { value }) => {
      const kind = panel.equipment.kinds.find((entry) => entry.keyed === value)
      return kind
        ? { fields: { equipmentKind: kind.key } }
        : { why: `no kind of equipment is keyed ${value}` }
    },
  },
  serial: {
    words: 'transmitter ID',
    address: 'zone.{n}.serial',
    cells: ({ doc, zone, item }, address) =>
      item && !item.family
        ? []
        : [cellOf(address, enrolmentOf(doc, zone.id)?.serial ?? item?.device.sticker ?? null)],
    read: null,
  },
  loop: {
    words: 'loop',
    address: 'zone.{n}.loop',
    cells: ({ zone, item }, address) => {
      if (item && (!item.family || item.model.switches)) return []
      return [cellOf(address, zone.loop === null ? null : String(zone.loop))]
    },
    read: (_, { value }) => {
      const loop = Number(value)
      return Number.isInteger(loop) && loop >= 1 && loop <= 16
        ? { fields: { loop } }
        : { why: `“${value}” is no loop from 1 to 16` }
    },
  },
  inputs: {
    words: 'contact inputs',
    address: 'zone.{n}.inputs',
    cells: ({ zone, item }, address) =>
      (item?.model.switches ?? []).map(({ switch: name }) => {
        const on = zone[inputFields[name]]
        return cellOf(`${address}.${name}`, on === null ? null : bit(on))
      }),
    read: (_, { members }) => {
      const fields: {
        -readonly [key in (typeof inputFields)['reed' | 'terminals' | 'end-of-line']]?: boolean
      } = {}
      for (const [name, value] of members) {
        const on = isOn(value)
        if (on === null || !(name in inputFields)) return { why: `input ${name} is ${value}` }
        fields[inputFields[name as 'reed']] = on
      }
      return { fields }
    },
  },
  area: {
    words: 'area',
    address: 'zone.{n}.areas',
    cells: ({ doc, panel, zone }, address) => {
      const mine = new Set([zone.area, zone.area2])
      const set = zone.area !== null || zone.area2 !== null
      const oneOnly = (panel.couplings?.twoAreas ?? 'forbidden') === 'forbidden'
      return recordsOf(doc, 'area').map((area): Cell => {
        const at = `${address}.${area.number}`
        if (area.number > panel.areas.count)
          return { address: at, refused: `${panel.name} has ${panel.areas.count} areas.` }
        if (oneOnly && area.id === zone.area2 && area.id !== zone.area)
          return { address: at, refused: `${panel.name} keeps a zone in one area only.` }
        return cellOf(at, set ? bit(mine.has(area.id)) : null)
      })
    },
    read: ({ doc }, { members }) => {
      const on = [...members].filter(([, value]) => isOn(value) === true).map(([number]) => Number(number))
      const areas = on
        .sort((a, b) => a - b)
        .map((number) => recordsOf(doc, 'area').find((area) => area.number === number)?.id ?? null)
      if (areas.includes(null)) return { why: 'it is in an area that the plan does not have' }
      if (areas.length > 2) return { why: `it is in ${areas.length} areas` }
      return { fields: { area: areas[0] ?? null, area2: areas[1] ?? null } }
    },
  },
  report: flag('report'),
  chime: {
    words: 'chime',
    address: 'zone.{n}.chime',
    cells: (at, address) => {
      if (hides(at, 'chime')) return [{ address, state: 'hidden' }]
      const styles = at.panel.couplings?.chimeStyles
      const style = styles?.find((item) => item.key === at.zone.chimeStyle) ?? styles?.[0]
      return [{ address, value: at.zone.chime && style ? style.key : bit(at.zone.chime) }]
    },
    read: ({ panel }, found) => {
      const style = panel.couplings?.chimeStyles?.find((item) => item.key === found.value)
      if (style) return { fields: { chime: true, chimeStyle: style.key } }
      return flagRead(found, (chime) => ({ chime }))
    },
  },
  supervise: flag('supervise'),
  transmissionDelay: flag('transmissionDelay', 'hold before sending'),
  sirens: {
    words: 'siren outputs',
    address: 'zone.{n}.sirens',
    cells: ({ panel, zone: { sirens } }, address) =>
      Array.from({ length: panel.couplings?.sirenOutputs ?? 0 }, (_, index) =>
        cellOf(`${address}.${index + 1}`, sirens === null ? null : bit(sirens.includes(index + 1))),
      ),
    read: (_, { members }) => ({
      fields: {
        sirens: [...members]
          .filter(([, value]) => isOn(value) === true)
          .map(([number]) => Number(number))
          .sort((a, b) => a - b),
      },
    }),
  },
  doubleKnock: option('doubleKnock', 'double knock'),
  fireGroup: {
    words: 'fire group',
    address: 'zone.{n}.fireGroup',
    cells: ({ panel, zone, type }, address) => {
      if (type?.fire !== 'verified') return [{ address, state: 'hidden' }]
      const most = panel.couplings?.fireGroups ?? 0
      if (zone.fireGroup !== null && zone.fireGroup > most)
        return [{ address, refused: `${panel.name} has ${most} groups of verified fire.` }]
      return [cellOf(address, zone.fireGroup === null ? null : String(zone.fireGroup))]
    },
    read: (_, { value }) =>
      /^[1-9]\d?$/.test(value ?? '')
        ? { fields: { fireGroup: Number(value) } }
        : { why: `“${value}” is no fire group` },
  },
  wiring: {
    words: 'wiring',
    address: 'wired.{n}.wiring',
    cells: ({ panel, zone, item }, address) => {
      if (item?.family !== null) return []
      if (zone.wiring === null) return [{ address, state: 'open' }]
      return [{ address, value: wiringOf(panel)?.[zone.wiring] ?? zone.wiring }]
    },
    read: ({ panel }, { value }) => {
      const wiring = value === undefined ? null : wiringAt(panel, value)
      return wiring ? { fields: { wiring } } : { why: `no wiring is keyed ${value}` }
    },
  },
  dayZone: option('dayZone', 'day zone of the user’s choice'),
  label: {
    words: 'label',
    address: 'zone.{n}.label',
    cells: ({ panel: { label: rule }, zone: { label } }, address) => {
      if (label.trim() === '') return [{ address, state: 'open' }]
      const trouble = labelTrouble(rule, label)
      if (trouble !== null) return [{ address, refused: trouble }]
      if (rule.style === 'text') return [{ address, value: rule.capitals ? label.toUpperCase() : label }]
      return [
        {
          address,
          value: libraryEntries(rule, label)
            .map((entry) => entry.number)
            .join(' '),
        },
      ]
    },
    read: ({ panel: { label: rule } }, { value }) => {
      if (value === undefined) return { why: 'it has no label' }
      if (rule.style === 'text') return { fields: { label: value } }
      const words = value.split(' ').map((number) => rule.words.find((word) => word.number === number)?.text)
      const missing = words.indexOf(undefined)
      if (missing >= 0) return { why: `no word has the number ${value.split(' ')[missing]}` }
      return { fields: { label: words.join(' ') } }
    },
  },
}

/** How a zone is wired, as the form and the sheet name it. */
export const wiringWords = {
  closed: 'closed loop',
  open: 'open loop',
  'end-of-line': 'end-of-line resistor',
  double: 'double end-of-line',
} as const

const wirings = ['closed', 'open', 'end-of-line', 'double'] as const

function wiringOf(panel: PanelModel): Readonly<Record<string, string>> | undefined {
  return panel.programming.zone.find((step) => step.field === 'wiring')?.values
}

/** How a zone is wired where a panel stores this; null for what none of its ways is stored as. */
export function wiringAt(panel: PanelModel, value: string): (typeof wirings)[number] | null {
  const keyed = wiringOf(panel)
  return wirings.find((way) => (keyed?.[way] ?? way) === value) ?? null
}

/** The fields of a zone that a panel asks, in its own order. */
export function fieldsAsked(panel: PanelModel): readonly ZoneField[] {
  return [...new Set(panel.programming.zone.map((step) => step.field))]
}

/** What the plan puts into a panel's memory for one zone. */
export function cellsOfZone({
  doc,
  system,
  zone,
}: {
  doc: JobDocument
  system: System
  zone: Zone
}): readonly Cell[] {
  const { panel } = system
  if (!panel) return []
  const item = zone.device === null ? undefined : system.byId.get(zone.device)
  const type = panel.responseTypes.find((entry) => entry.key === zone.response)
  return fieldsAsked(panel).flatMap((field) => {
    const { address, cells } = zoneCells[field]
    return address === null ? [] : cells({ doc, panel, zone, item, type }, addressAt(address, zone.number))
  })
}

/** The address of a template at a number. */
export function addressAt(template: string, number: number): string {
  return template.replace('{n}', String(number))
}

/** What a memory holds at an address and, for a list, at its members. */
export function foundAt(memory: Memory, address: string): Found | null {
  const value = memory.get(address)
  const members = new Map<string, string>()
  for (const [at, held] of memory)
    if (at.startsWith(`${address}.`)) members.set(at.slice(address.length + 1), held)
  return value === undefined && members.size === 0 ? null : { value, members }
}
