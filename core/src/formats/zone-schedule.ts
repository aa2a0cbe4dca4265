import type { Catalogue } from '../catalogue/catalogue.ts'
import type { Family, PanelModel } from '../catalogue/schema.ts'
import { device, zone } from '../job/declared-plan.ts'
import type { Zone } from '../job/records.ts'
import { upperFirst } from '../units/words.ts'
import { systemOf } from '../system/system.ts'
import { groupId } from '../identity/sticker.ts'
import { jobInfo, recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import { proofRoute, settledSubjects } from '../proof/owed.ts'
import { writeSheet } from './sheet-file.ts'
import { printNumber } from '../zones/numbers.ts'
import { enrolmentOf, NO_STICKER } from '../job/enrolment.ts'

/** One line of the zone schedule, every value in words. */
export interface ScheduleLine {
  readonly number: string
  readonly label: string
  readonly room: string
  readonly device: string
  readonly event: string
  readonly id: string
  readonly loop: string
  readonly response: string
  readonly area: string
  readonly report: string
  readonly supervised: string
  readonly proof: string
}

/** A column that shows one field is headed as the field is called; the others join several. */
const titles: Readonly<Record<keyof ScheduleLine, string>> = {
  number: 'Zone',
  label: headed(zone.fields.label),
  room: headed(device.fields.room),
  device: 'Device',
  event: headed(zone.fields.event),
  id: 'ID',
  loop: headed(zone.fields.loop),
  response: headed(zone.fields.response),
  area: headed(zone.fields.area),
  report: headed(zone.fields.report),
  supervised: headed(zone.fields.supervise),
  proof: 'Proof',
}

function headed({ words }: { readonly words: string }): string {
  return upperFirst(words)
}

/** Column titles in order. */
export const scheduleColumns = Object.entries(titles) as [keyof ScheduleLine, string][]

/** The zones of a job as the customer and the next installer read them. */
export function zoneSchedule(doc: JobDocument, catalogue: Catalogue): ScheduleLine[] {
  const system = systemOf(doc, catalogue)
  // Each zone by its own proofs: one pass never vouches for another event of the same device.
  const open = new Map<string, number>()
  const route = proofRoute(doc, catalogue, null)
  const settled = settledSubjects(route)
  for (const { items } of route)
    for (const { subject, state } of items)
      open.set(subject, (open.get(subject) ?? 0) + (state === 'pass' ? 0 : 1))
  return recordsOf(doc, 'zone').map((zone) => {
    const item = zone.device === null ? undefined : system.byId.get(zone.device)
    const loop = item?.model.loops.find((entry) => entry.event === zone.event)
    return {
      number: printNumber(system.panel, zone.number),
      label: zone.label,
      room: item ? [item.device.room, item.device.position].filter(Boolean).join(', ') : '',
      device: item?.model.name ?? '',
      event: loop?.name ?? zone.event ?? '',
      id: idWords(doc, { zone, family: item?.family ?? null }, settled),
      loop: zone.loop === null ? '' : String(zone.loop),
      response: responseWords(system.panel, zone),
      area: recordOf(doc, 'area', zone.area)?.name ?? '',
      report: yesNo(zone.report),
      supervised: yesNo(zone.supervise),
      proof: proofWords(open, zone),
    }
  })
}

/** What its device owes as a whole, its reading and its cover, is owed by each zone of it. */
function proofWords(open: ReadonlyMap<string, number>, zone: Zone): string {
  const own = open.get(zone.id)
  if (own === undefined) return ''
  const owed = own + (open.get(zone.device ?? '') ?? 0)
  return owed === 0 ? 'passed' : `${owed} owed`
}

function yesNo(on: boolean): string {
  return on ? 'yes' : 'no'
}

function responseWords(panel: PanelModel | null, zone: Zone): string {
  return panel?.responseTypes.find((type) => type.key === zone.response)?.name ?? 'owed'
}

const unheard = { typed: ', typed, not heard', sister: ', as its sister zone, not heard' }

interface Row {
  readonly zone: Zone
  readonly family: Family | null
}

/** The ID of a zone, and how it is known: what only a file or an earlier build tells is still owed. */
function idWords(doc: JobDocument, { zone, family }: Row, settled: ReadonlySet<string>): string {
  const known = enrolmentOf(doc, zone.id)
  if (!known) return zone.asProgrammed ? 'left as programmed' : family ? 'owed' : 'wired'
  const alone = known.evidence.code === NO_STICKER && !settled.has(zone.id) ? ', no sticker compared' : ''
  const how = known.told !== null ? ', told, owed' : { heard: alone, ...unheard }[known.how]
  return `${groupId(family, known.serial)}${how}`
}

/** The schedule as CSV (UTF-8 with byte order mark, comma); cells that a spreadsheet would calculate are neutralised. */
export function zoneScheduleCsv(doc: JobDocument, catalogue: Catalogue): string {
  const lines = zoneSchedule(doc, catalogue)
  // A table has no place but its columns to say that nothing in it is real.
  const practice = jobInfo(doc).practice ? ['practice'] : []
  const fields = [...scheduleColumns.map(([, title]) => title), ...practice.map(() => 'Job')]
  const data = lines.map((line) => [...scheduleColumns.map(([key]) => line[key]), ...practice])
  return writeSheet(fields, data)
}
