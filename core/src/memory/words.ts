import type { Catalogue } from '../catalogue/catalogue.ts'
import { zoneFields, type Family, type PanelModel } from '../catalogue/schema.ts'
import { groupId, readSticker } from '../identity/sticker.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import { enrolmentOf, type Enrolment } from '../job/enrolment.ts'
import type { Device, Zone } from '../job/records.ts'
import { decodeDelay, delayFieldOf, delayNames, type DelayKey } from '../response/delays.ts'
import { panelSettings } from '../response/panel-settings.ts'
import { formatSeconds } from '../units/seconds.ts'
import { lowerFirst, upperFirst } from '../units/words.ts'
import { printNumber } from '../zones/numbers.ts'
import { isOn } from './memory.ts'
import { wiringAt, wiringWords, zoneCells } from './zone-cells.ts'

/* An address and its value in plain words. */

/** Whose addresses are put into words. */
export interface MemoryWords {
  readonly doc: JobDocument
  readonly panel: PanelModel
  readonly catalogue: Catalogue
}

/** What an address belongs to, as a heading: `Whole system`, `Zone 07 — Front door`, `Fob 2`. */
export function partOf({ doc, panel }: MemoryWords, address: string): string {
  const [group = '', number = ''] = address.split('.')
  if (group === 'system') return 'Whole system'
  if (group === 'area') {
    const name = recordsOf(doc, 'area').find((area) => area.number === Number(number))?.name
    return `Area ${number}${name ? ` — ${name}` : ''}`
  }
  if (group !== 'zone' && group !== 'wired') return upperFirst(`${group} ${number}`)
  const label = recordsOf(doc, 'zone').find((zone) => zone.number === Number(number))?.label
  return `Zone ${printNumber(panel, Number(number))}${label ? ` — ${label}` : ''}`
}

/** The field of an address: `response type`, `exit delay`, `in Annexe`. */
export function fieldOf({ doc, panel }: MemoryWords, address: string): string {
  const [group = '', ...rest] = address.split('.')
  const [field = '', member = ''] = group === 'system' ? rest : rest.slice(1)
  if (field === 'areas') return `in ${areaName(doc, member)}`
  if (field in delayNames) return delayNames[field as DelayKey]
  const setting = panelSettings.find(
    (one) => address === one.address || address.startsWith(`${one.address}.`),
  )
  if (setting) {
    const key = panel.couplings?.functionKeys?.find((name) => address.endsWith(`.${name.replace(/ /g, '-')}`))
    return key === undefined ? lowerFirst(setting.label) : `${key} off`
  }
  const known = zoneFields.find((name) => zoneCells[name].address?.endsWith(`.${field}`))
  const words = known ? zoneCells[known].words : field
  return member === '' ? words : `${words}, ${member}`
}

/** A stored value in plain words, with both numbers where the panel keeps units; `shown` is how its display names it. */
export function valueOf(
  words: MemoryWords,
  address: string,
  stored: { value: string; shown: string },
): string {
  const { value, shown } = stored
  if (value === '') return 'nothing'
  const field = address.split('.').at(-1) ?? ''
  if (field === 'serial') return [grouped(words, value), ...sourceOf(words, address, value)].join(', ')
  if (field === 'equipmentCode') return `${value}, ${modelOf(words, value)}`
  if (field === 'response') return value === shown ? value : `${value}, ${shown}`
  const on = isOn(value)
  if (on !== null) return on ? 'yes' : 'no'
  if (field === 'wiring') return wiringText(words.panel, value)
  if (field === 'supervise' && address.startsWith('system')) return `${value} min`
  return delayWords(words, field, value) ?? (/^\d+$/.test(shown) ? value : shown)
}

/** A stored wiring: the code of the panel, and what it is. */
function wiringText(panel: PanelModel, value: string): string {
  const way = wiringAt(panel, value)
  return way === null ? value : `${value}, ${wiringWords[way]}`
}

function delayWords({ doc, panel }: MemoryWords, field: string, value: string): string | null {
  const stated = field === 'siren' ? panel.siren : undefined
  const delay = stated ?? (field in delayNames ? delayFieldOf(panel, jobInfo(doc), field as DelayKey) : null)
  if (!delay) return null
  const seconds = formatSeconds(decodeDelay(delay, Number(value)))
  return delay.secondsPerUnit === 1 ? seconds : `${value} → ${seconds}`
}

/** Who tells an ID that nobody here saw. */
const toldBy = {
  file: 'the file',
  build: 'an earlier build',
  owner: 'an owner for somebody who left',
} as const

/** Where an ID comes from: never more than is known. */
export function idFrom(known: Enrolment | null): string {
  if (!known) return 'from the sticker, not learned yet'
  if (known.told !== null) return `told by ${toldBy[known.told]}, not learned here`
  return known.how === 'typed' ? 'typed from the sticker, not heard yet' : 'learned'
}

/** Where an ID comes from that the plan has there; of another nothing is known. */
function sourceOf(words: MemoryWords, address: string, id: string): readonly string[] {
  const known = enrolmentAt(words, address)
  const planned = known?.serial ?? deviceAt(words, address)?.sticker
  return id === planned ? [idFrom(known)] : []
}

/** How the panel knows the device of a zone or a slot. */
export function enrolmentAt(words: MemoryWords, address: string): Enrolment | null {
  const { doc } = words
  const subject = address.startsWith('zone.') ? zoneAt(doc, address) : deviceAt(words, address)
  return subject ? enrolmentOf(doc, subject.id) : null
}

function zoneAt(doc: JobDocument, address: string): Zone | undefined {
  const [, number = ''] = address.split('.')
  return recordsOf(doc, 'zone').find((one) => one.number === Number(number))
}

/** The device of a zone or a slot; undefined for none. */
export function deviceAt({ doc, catalogue }: MemoryWords, address: string): Device | undefined {
  const [group = '', number = ''] = address.split('.')
  const zone = group === 'zone' ? zoneAt(doc, address) : undefined
  return recordsOf(doc, 'device').find(({ id, slot, model }) =>
    group === 'zone'
      ? id === zone?.device
      : slot === Number(number) && catalogue.get('device', model)?.slot === group,
  )
}

function areaName(doc: JobDocument, number: string): string {
  return recordsOf(doc, 'area').find((area) => String(area.number) === number)?.name ?? `area ${number}`
}

/** An ID in the groups of its family's sticker. */
function grouped({ panel, catalogue }: MemoryWords, serial: string): string {
  const heard = panel.receivers.flatMap((id) => catalogue.get('receiver', id)?.hears ?? [])
  const fits = (family: Family | null): family is Family => {
    const read = family && readSticker(family, serial)
    return read?.ok === true && read.serial === serial
  }
  const family = heard.map((one) => catalogue.get('family', one.family)).find(fits)
  return family ? groupId(family, serial) : serial
}

function modelOf({ panel, catalogue }: MemoryWords, code: string): string {
  const models = catalogue
    .all('device')
    .filter((model) => model.equipmentCodes.some((one) => one.panel === panel.id && one.code === code))
  return models.map((model) => model.name).join(' or ') || 'no model of the catalogue'
}
