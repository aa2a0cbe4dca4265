import { regionNames } from '../units/region.ts'
import { sameJson } from '../units/canonical.ts'
import type { Catalogue } from './catalogue.ts'
import { ASSUMED } from './entry-fields.ts'
import type {
  CatalogueEntry,
  DeviceModel,
  Family,
  PanelInterface,
  PanelModel,
  ReceiverModel,
} from './schema.ts'

/** One fact of an entry in words. */
export interface EntryLine {
  readonly label: string
  readonly value: string
}

/** What the maker does not say: never read as none, and never as all is well. */
const notStated = 'not stated'
/** What the entry would name if there were any: it names none, which is no promise that there are none. */
const noneStated = 'none stated'

/**
 * An entry's facts in words, in a fixed order per kind, so that entries of one kind compare line by line. `–` stands for what
 * does not apply, as the entry itself says; what it leaves out is said to be left out.
 */
export function describeEntry(entry: CatalogueEntry, catalogue: Catalogue): EntryLine[] {
  const lines = [
    line('Maker', entry.maker),
    line('Regions', entry.regions.map((region) => regionNames[region]).join(', ')),
    ...ownLines(entry, catalogue),
    line('Version', entry.version),
    line('Where it was read', sourcesOf(entry)),
  ]
  return lines.map((item) => ({ ...item, value: item.value === '' ? '–' : item.value }))
}

/** A fact in which two entries differ: as the one has it and the other. */
export interface FactChange {
  readonly label: string
  /** Null, as `now`, where no line tells of it: then the label is the field as a pack names it. */
  readonly was: string | null
  readonly now: string | null
}

/**
 * Facts in which two entries of one kind differ; where they differ in what no line tells of, the fields as a pack names them. Where
 * an answer was read is no difference.
 */
export function factChanges(from: CatalogueEntry, to: CatalogueEntry, catalogue: Catalogue): FactChange[] {
  const other = describeEntry(to, catalogue)
  const facts: FactChange[] = [
    ...(from.name === to.name ? [] : [{ label: 'Name', was: from.name, now: to.name }]),
    ...describeEntry(from, catalogue).flatMap(({ label, value }, index) => {
      const now = other[index]?.value ?? '–'
      return label !== 'Where it was read' && now !== value ? [{ label, was: value, now }] : []
    }),
  ]
  if (facts.some(({ label }) => label !== 'Version')) return facts
  const one: Readonly<Record<string, unknown>> = { ...from }
  const two: Readonly<Record<string, unknown>> = { ...to }
  const fields = [...new Set([...Object.keys(one), ...Object.keys(two)])].filter(
    (field) => !['sources', 'version'].includes(field) && !sameJson(one[field], two[field]),
  )
  return [...facts, ...fields.map((label) => ({ label, was: null, now: null }))]
}

/** Facts in which two entries of one kind differ, by their labels. */
export function differingFacts(a: CatalogueEntry, b: CatalogueEntry, catalogue: Catalogue): string[] {
  return factChanges(a, b, catalogue).map(({ label }) => label)
}

/** Where answers were read, those that were assumed first. */
function sourcesOf({ sources = [] }: CatalogueEntry): string {
  const by = new Map<string, string[]>()
  for (const { asked, from } of sources) by.set(from, [...(by.get(from) ?? []), asked])
  return [...by]
    .toSorted(([a], [b]) => Number(b === ASSUMED) - Number(a === ASSUMED))
    .map(([from, asked]) => `${from}: ${asked.join(' ')}`)
    .join('; ')
}

function ownLines(entry: CatalogueEntry, catalogue: Catalogue): EntryLine[] {
  switch (entry.kind) {
    case 'family':
      return familyLines(entry)
    case 'receiver':
      return receiverLines(entry, catalogue)
    case 'device':
      return deviceLines(entry, catalogue)
    case 'panel':
      return panelLines(entry, catalogue)
    case 'interface':
      return interfaceLines(entry)
  }
}

function interfaceLines({ display, keys, screens, keeping }: PanelInterface): EntryLine[] {
  const kept = { 'at-once': 'each as it is sent', 'by-zone': 'zone by zone', session: 'all at the end' }
  return [
    line('Display', `${display.lines} ${display.lines === 1 ? 'line' : 'lines'} of ${display.columns} signs`),
    line('Keys', keys.flat().join(', ')),
    line('Screens', String(Object.keys(screens).length)),
    line('Answers are kept', kept[keeping]),
  ]
}

function familyLines(entry: Family): EntryLine[] {
  const { from, to } = entry.bandMHz
  const { sticker, placement } = entry
  return [
    line('Band', from === to ? `${from} MHz` : `${from}–${to} MHz`),
    line('Way', entry.way),
    line('Encryption', stated(entry.encryption, String)),
    line('Topology', entry.topology),
    line(
      'Repeaters',
      entry.repeaters
        ? `up to ${entry.repeaters.most}, ${entry.repeaters.chain ? 'also behind another' : 'none behind another'}`
        : noneStated,
    ),
    line(
      'Sticker',
      `${sticker.length} characters, ${sticker.alphabet}; ID ${sticker.idFrom}–${sticker.idTo}`,
    ),
    line('Check digit', sticker.check === 'none' ? 'none' : 'weights 3 and 1'),
    line('Sticker is', stated(sticker.where, String)),
    line(
      'Placement',
      [
        `best from ${open(placement.best)}`,
        `holds from ${open(placement.least)}`,
        `in ${open(placement.unit)}`,
        `read at ${stated(placement.readAt, (at) => `the ${at}`)}`,
      ].join(', '),
    ),
    line(
      'Average kept',
      stated(placement.averageHours, (hours) => `over ${hours} h`),
    ),
    line(
      'Settles in',
      stated(entry.settleMinutes, (minutes) => `${minutes} min`),
    ),
    line(
      'Answers for',
      stated(entry.answerMinutes, (minutes) => `${minutes} min after tamper`),
    ),
  ]
}

function receiverLines(entry: ReceiverModel, catalogue: Catalogue): EntryLine[] {
  const hears = entry.hears.map((item) => {
    const name = catalogue.get('family', item.family)?.name ?? item.family
    return item.fromFirmware ? `${name} from firmware ${item.fromFirmware}` : name
  })
  return [
    line('Hears', hears.join(', ')),
    line(
      'Holds',
      stated(entry.transmitters, (count) => `${count} transmitters`),
    ),
    line(
      'Classes',
      stated(entry.classes, (classes) => classes.join(', ')),
    ),
    line('Place', entry.place),
    line('Encrypted-only switch', stated(entry.encryptedOnlySetting, yes)),
    line('Loses', some(entry.loses)),
    line('Grade', stated(entry.grade, String)),
  ]
}

function deviceLines(entry: DeviceModel, catalogue: Catalogue): EntryLine[] {
  const { temperatureC, discontinued, price } = entry
  return [
    line('Class', entry.class),
    line('Family', catalogue.get('family', entry.family)?.name ?? 'wired'),
    line('Encryption', stated(entry.encryption, String)),
    line('Way', entry.way ?? ''),
    line('Needs a receiver that answers', stated(entry.needsTwoWay, yes)),
    line('Carried by a person', yes(entry.carried)),
    line('Loops', entry.loops.map((item) => `${item.loop} ${item.name}`).join(', ')),
    line('Switches', some(entry.switches?.map((item) => `${item.switch} ${item.on ? 'on' : 'off'}`))),
    line('Slot', entry.slot === 'none' ? '' : entry.slot),
    line(
      'Checks in every',
      entry.family === null
        ? ''
        : stated(entry.checkInMinutes, (minutes) => (minutes === null ? 'never' : `${minutes} min`)),
    ),
    line('Pets', pets(entry)),
    line('Disarms', stated(entry.disarms, yes)),
    line('Temperature', `${open(temperatureC.from)} to ${open(temperatureC.to)} °C`),
    line('Outdoors', stated(entry.outdoor, yes)),
    line('Magnet gap', entry.magnetGapMm === null ? '' : `${entry.magnetGapMm} mm`),
    ...handlingLines(entry),
    line('Trips at', trips(entry)),
    line(
      'Smoke and heat as one event',
      stated(entry.joined, ({ apart }) =>
        apart === null
          ? 'yes; its family has no model with them apart'
          : `yes; apart in ${catalogue.get('device', apart)?.name ?? apart}`,
      ),
    ),
    line(
      'Stated life',
      stated(entry.lifeYears, (years) => `${years} years`),
    ),
    line('Sensitivity', some(entry.sensitivity)),
    line(
      'Transmit level',
      stated(entry.transmitDbm, (level) => `${level} dBm`),
    ),
    line(
      'Second transmission',
      stated(entry.confirm, (asked) => (asked ? 'asked for' : 'not asked for')),
    ),
    line('Grade', stated(entry.grade, String)),
    line(
      'Equipment codes',
      entry.equipmentCodes
        .map((item) => `${catalogue.get('panel', item.panel)?.name ?? item.panel}: ${item.code}`)
        .join(', '),
    ),
    line(
      'Variant',
      stated(entry.variant, (item) => `${item.of}, ${item.how}`),
    ),
    line(
      'No longer made',
      stated(discontinued, (item) => `successor ${catalogue.get('device', item.successor)?.name ?? 'none'}`),
    ),
    line(
      'Price',
      stated(price, (item) => `${item.amount} ${item.currency}${item.pack > 1 ? ` for ${item.pack}` : ''}`),
    ),
    line('Note', entry.note ?? ''),
  ]
}

/**
 * How a device is handled before it is learned, in the maker's words: sticker, batteries, ways to make it send, times; seconds.
 * What the maker leaves out is said to be left out. `–` does not occur: what does not apply is empty.
 */
export function handlingLines(model: DeviceModel): EntryLine[] {
  const { batteries, family, stickerPlace } = model
  const several = batteries !== null && batteries.count > 1
  const wake = model.ways.map(wayWords)
  return [
    line(
      'Sticker is',
      [stickerPlace && placeWords[stickerPlace], model.sticker].filter(Boolean).join(': ') || notStated,
    ),
    line('Batteries', batteries ? `${batteries.count} × ${batteries.type ?? `type ${notStated}`}` : ''),
    line('Batteries go in', batteries ? stated(batteries.wayUp, String) : ''),
    line('Order of batteries', several ? stated(batteries.order, String) : ''),
    line('First insert already sends', batteries ? stated(batteries.firstInsertLearns, yes) : ''),
    line('Ways to transmit', wake.join('; ')),
    line('Ready after power-up', family ? stated(model.readyAfterSeconds, (seconds) => `${seconds} s`) : ''),
    line(
      'Sleeps after a trip',
      family && model.class === 'motion' ? stated(model.sleepsSeconds, (seconds) => `${seconds} s`) : '',
    ),
  ]
}

const placeWords = {
  outside: 'outside',
  inside: 'inside, with the cover off',
  'under-batteries': 'inside, with the batteries out',
} as const

/** A way to make a device send, with how long and what its light does: `hold the button, 5 s (its lamp glows)`. */
export function wayWords({ way, seconds, indicator }: DeviceModel['ways'][number]): string {
  const long = seconds === undefined ? way : `${way}, ${seconds} s`
  return indicator === undefined ? long : `${long} (${indicator})`
}

/** A range of a time in seconds. */
function inSeconds({
  secondsPerUnit: unit,
  ...item
}: Readonly<Record<'secondsPerUnit' | 'min' | 'max' | 'step', number>>): string {
  return `${item.min * unit}–${item.max * unit} s by ${item.step * unit} s`
}

/** How many steps a plain sheet of a panel has. */
function sheetOf({ programming }: PanelModel): string {
  const { wayIn, zone, wayOut } = programming
  return `${wayIn.length} steps in, ${zone.length} for a zone, ${wayOut.length} out`
}

function panelLines(entry: PanelModel, catalogue: Catalogue): EntryLine[] {
  const delay = (key: 'entry1' | 'entry2' | 'exit' | 'exitStay' | 'abort'): string => {
    const field = entry.delays[key]
    if (!field) return 'none'
    const { switched } = field
    return switched
      ? `${inSeconds(field)}, or ${inSeconds(switched)} with ${switched.option}`
      : inSeconds(field)
  }
  const { label } = entry
  return [
    line('Style', entry.style),
    line(
      'Variant',
      stated(entry.variant, (item) => `${item.of}, ${item.how} (${item.readAt})`),
    ),
    line(
      'Numbers',
      entry.blocks
        .map((block) => `${block.use} ${block.from}–${block.to}${block.optional ? ' (optional)' : ''}`)
        .join(', '),
    ),
    line(
      'Fobs, keypads, sirens',
      `${entry.slots.fobs.count}, ${entry.slots.keypads.count}, ${entry.slots.sirens.count}`,
    ),
    line('Receivers', entry.receivers.map((id) => catalogue.get('receiver', id)?.name ?? id).join(', ')),
    line('Built in', catalogue.get('receiver', entry.builtIn)?.name ?? ''),
    line('Radio firmware', entry.radioFirmware.join(', ')),
    line('Areas', `${entry.areas.count}. ${entry.areas.meaning}`),
    line('Digits of a number', String(entry.numberDigits)),
    line('Kinds of equipment', entry.equipment.kinds.map(({ keyed, name }) => `${keyed} ${name}`).join(', ')),
    line('Response types', entry.responseTypes.map((type) => `${type.code} ${type.name}`).join(', ')),
    line('Entry delay 1', delay('entry1')),
    line('Entry delay 2', delay('entry2')),
    line('Exit delay', delay('exit')),
    line('Exit delay in stay', exitOfStay(entry, delay('exitStay'))),
    line('Hold before sending', delay('abort')),
    line('Siren sounds for', stated(entry.siren, inSeconds)),
    line(
      'Trips counted until it is left out',
      stated(entry.swinger, ({ from, to }) => `${from} to ${to}`),
    ),
    line('Second disarming clears', yes(entry.secondDisarmClears)),
    line('Codes', entry.codes.map(({ name }) => name).join(', ')),
    ...couplingLines(entry),
    line('Sheet', sheetOf(entry)),
    line('How it is keyed', catalogue.get('interface', entry.interface ?? null)?.name ?? ''),
    line(
      'Labels',
      label.style === 'library'
        ? `${label.words.length} words, ${label.entries} a label`
        : `${label.length} characters${label.insteadOn ? ` on ${label.insteadOn}` : ''}`,
    ),
    line(
      'Counts as lost after',
      stated(entry.superviseMinutes, (minutes) => `${minutes} min`),
    ),
    line(
      'Several receivers',
      stated(entry.receiversAdd, (add) =>
        add ? 'hold their transmitters together' : 'hold no more than the largest',
      ),
    ),
    line('Repeaters', entry.repeaters === undefined ? noneStated : `${entry.repeaters}`),
    line('Grade', stated(entry.grade, String)),
  ]
}

/** What the exit delay does in stay; `own` is the range of a field of its own. */
function exitOfStay(entry: PanelModel, own: string): string {
  switch (entry.couplings?.exitInStay) {
    case 'same':
      return 'as in away'
    case 'own':
      return own
    case 'none':
      return 'none'
    case undefined:
      return notStated
  }
}

const areasWords = {
  common: 'a zone in two is common: armed only when both are',
  'full-and-part': 'a full and a part set',
  forbidden: 'one area per zone',
} as const

/** How a panel's settings bear on each other. */
function couplingLines(entry: PanelModel): EntryLine[] {
  const c = entry.couplings ?? {}
  return [
    line(
      'Zone in two areas',
      stated(c.twoAreas, (rule) => areasWords[rule]),
    ),
    line(
      'Keypads',
      stated(c.keypadAreas, (own) =>
        own ? 'set and unset their own areas only' : 'set and unset every area',
      ),
    ),
    line('Lists that exclude each other', some(c.typeGroups?.map((group) => group.name))),
    line(
      'Day zones',
      stated(c.dayZones, (by) => (by === 'user' ? 'the user’s choice' : 'by response type')),
    ),
    line('Chimes', some(c.chimeStyles?.map((style) => style.name))),
    line(
      'End of exit',
      stated(c.exitBy, (ways) => ways.join(', ')),
    ),
    line(
      'Open at the end of exit',
      stated(c.openAtExit, (ways) => ways.join(' or ')),
    ),
    line('Stay zones to entry 2', c.stayToEntry2 ?? noneStated),
    line('Siren outputs per zone', stated(c.sirenOutputs, String)),
    line('Double knock', stated(c.doubleKnock, yes)),
    line('Groups of verified fire', stated(c.fireGroups, String)),
    line('Keypad keys', some(c.functionKeys)),
    line('Outputs', c.outputs?.join(' or ') ?? noneStated),
    line('Fobs in keypads', stated(c.fobsInKeypad, yes)),
    line(
      'Latching key switch',
      stated(c.latchingKeySwitch, (all) => (all ? 'disables all other setting' : 'leaves other ways to set')),
    ),
    line(
      'End-of-line resistor',
      stated(c.endOfLineOhm, (ohms) => `${ohms} ohms`),
    ),
  ]
}

function pets(entry: DeviceModel): string {
  if (entry.petSettings) return entry.petSettings.map((item) => `${item.setting}: ${item.kg} kg`).join(', ')
  return entry.petKg === null ? '' : `up to ${entry.petKg} kg`
}

function trips(entry: DeviceModel): string {
  const limits = Object.entries(entry.tripsAtC ?? {}).map(([event, value]) => `${event} ${value} °C`)
  const bound = entry.loops.some((item) => item.event === 'heat' || item.event === 'freeze')
  return bound ? some(limits) : ''
}

/** A fact in words, or that it is left out. */
function stated<T>(value: T | undefined, words: (value: T) => string): string {
  return value === undefined ? notStated : words(value)
}

/** A figure amid others, or that it is left out. */
function open(value: number | string | undefined): string {
  return stated(value, String)
}

/** A list in words; one that is left out or empty names none. */
function some(items: readonly string[] | undefined): string {
  return items && items.length > 0 ? items.join(', ') : noneStated
}

function line(label: string, value: string): EntryLine {
  return { label, value }
}

function yes(on: boolean): string {
  return on ? 'yes' : 'no'
}
