import type { Catalogue } from '../catalogue/catalogue.ts'
import type { PanelModel, ZoneField } from '../catalogue/schema.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import type { Op } from '../job/edit.ts'
import type { Area, JobInfo, JobRecord, Zone } from '../job/records.ts'
import { systemOf } from '../system/system.ts'
import type { Memory } from './memory.ts'
import { readDelay, readSetting } from './system-cells.ts'
import { addressAt, fieldsAsked, foundAt, zoneCells } from './zone-cells.ts'

/** An address that the plan does not follow, and why. */
interface Unread {
  readonly address: string
  readonly value: string
  readonly why: string
}

/** What a memory says to a plan. */
export interface PlanRead {
  /** Edits after which the plan wants what the memory holds; none where it already does. */
  readonly ops: readonly Op[]
  /** What the plan has no word for, or must not take: IDs are evidence, of a device and not of a plan. */
  readonly rest: readonly Unread[]
}

/**
 * The plan that a memory stands for: the way back of `targetMemory`. Only records that the plan has are changed; what the memory
 * holds of others is told. Without a panel nothing can be read.
 */
export function planFromMemory(doc: JobDocument, catalogue: Catalogue, memory: Memory): PlanRead {
  const { panel } = systemOf(doc, catalogue)
  if (!panel)
    return {
      ops: [],
      rest: [...memory].map(([address, value]) => ({ address, value, why: 'no panel is chosen' })),
    }
  const taken = new Set<string>()
  const reading: Reading = { doc, panel, memory, taken, rest: [] }
  const settings = settingFields(reading)
  const ops = [...systemOps(reading, settings), ...areaOps(reading, settings), ...zoneOps(reading)]
  const rest = [...memory].flatMap(([address, value]): Unread[] =>
    taken.has(address) ? [] : [{ address, value, why: untold(address) }],
  )
  return { ops, rest: [...reading.rest, ...rest] }
}

interface Reading {
  readonly doc: JobDocument
  readonly panel: PanelModel
  readonly memory: Memory
  /** Addresses that were read, or told why not. */
  readonly taken: Set<string>
  readonly rest: Unread[]
}

function untold(address: string): string {
  if (address.endsWith('.serial'))
    return 'an ID is evidence: it is read off the device or heard, never taken from a memory'
  if (/^(zone|wired)\./.test(address))
    return 'the plan has no such zone, or the panel does not ask this of it'
  return 'the plan has no word for it'
}

/** The job as it would be planned by the settings that the memory holds: one of them tells the unit of a delay. */
function settingFields({ doc, panel, memory, taken, rest }: Reading): Partial<JobInfo> {
  const info = jobInfo(doc)
  let fields: Partial<JobInfo> = {}
  for (const [address, value] of memory) {
    const read = readSetting(panel, { address, value }, fields.keysOff ?? info.keysOff)
    if (!read) continue
    taken.add(address)
    if ('why' in read) rest.push({ address, value, why: read.why })
    else fields = { ...fields, ...read.fields }
  }
  return fields
}

function systemOps(reading: Reading, settings: Partial<JobInfo>): Op[] {
  const { doc, panel, memory, taken, rest } = reading
  const info = { ...jobInfo(doc), ...settings }
  const delays: Partial<JobInfo>[] = []
  for (const [address, value] of memory) {
    const [group, key = ''] = address.split('.')
    const read = group === 'system' ? readDelay(panel, info, { key, value }) : null
    if (!read) continue
    taken.add(address)
    if ('why' in read) rest.push({ address, value, why: read.why })
    else delays.push({ [read.field]: read.seconds })
  }
  return sets(jobInfo(doc), Object.assign({}, settings, ...delays) as Partial<JobInfo>)
}

function areaOps({ doc, panel, memory, taken, rest }: Reading, settings: Partial<JobInfo>): Op[] {
  if (!panel.couplings?.delaysPerArea) return []
  return recordsOf(doc, 'area').flatMap((area) => {
    let fields: Partial<Area> = {}
    for (const key of ['entry1', 'entry2', 'exit', 'exitStay'] as const) {
      const address = `area.${area.number}.${key}`
      const value = memory.get(address)
      const read =
        value === undefined ? null : readDelay(panel, { ...jobInfo(doc), ...settings }, { key, value })
      if (value === undefined || !read) continue
      taken.add(address)
      if ('why' in read) rest.push({ address, value, why: read.why })
      else fields = { ...fields, [key]: read.seconds }
    }
    return sets(area, fields)
  })
}

function zoneOps(reading: Reading): Op[] {
  return recordsOf(reading.doc, 'zone').flatMap((zone) => {
    if (zone.asProgrammed) return []
    const fields = fieldsAsked(reading.panel).map((field) => readField(reading, zone, field))
    return sets(zone, Object.assign({}, ...fields) as Partial<Zone>)
  })
}

function readField(
  { doc, panel, memory, taken, rest }: Reading,
  zone: Zone,
  field: ZoneField,
): Partial<Zone> {
  const { address: template, read } = zoneCells[field]
  if (template === null || !read) return {}
  const address = addressAt(template, zone.number)
  const found = foundAt(memory, address)
  if (!found) return {}
  const held = [...memory].filter(([at]) => at === address || at.startsWith(`${address}.`))
  for (const [at] of held) taken.add(at)
  const said = read({ doc, panel, zone }, found)
  if ('fields' in said) return said.fields
  for (const [at, value] of held) rest.push({ address: at, value, why: said.why })
  return {}
}

/** One op per field that is to be otherwise. */
function sets<T extends JobRecord>(record: T, fields: Partial<T>): Op[] {
  return Object.entries(fields).flatMap(([field, to]): Op[] => {
    const from = record[field as keyof T]
    return JSON.stringify(from) === JSON.stringify(to) ? [] : [{ op: 'set', id: record.id, field, from, to }]
  })
}
