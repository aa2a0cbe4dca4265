import type { Catalogue } from './catalogue.ts'
import type { CatalogueEntry, DeviceModel, Family, PanelModel, ReceiverModel } from './schema.ts'

/** One fact of an entry in words. */
export interface EntryLine {
  readonly label: string
  readonly value: string
}

/** An entry's facts in words, in a fixed order per kind, so that entries of one kind compare line by line. */
export function describeEntry(entry: CatalogueEntry, catalogue: Catalogue): EntryLine[] {
  const lines = [
    line('Maker', entry.maker),
    line('Regions', entry.regions.join(', ')),
    ...ownLines(entry, catalogue),
    line('Version', entry.version),
  ]
  return lines.map((item) => ({ ...item, value: item.value === '' ? '–' : item.value }))
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
  }
}

function familyLines(entry: Family): EntryLine[] {
  const { from, to } = entry.bandMHz
  const { sticker, placement } = entry
  return [
    line('Band', from === to ? `${from} MHz` : `${from}–${to} MHz`),
    line('Way', entry.way),
    line('Encryption', entry.encryption),
    line('Topology', entry.topology),
    line(
      'Repeaters',
      entry.repeaters
        ? `up to ${entry.repeaters.most}, ${entry.repeaters.chain ? 'also behind another' : 'none behind another'}`
        : 'none',
    ),
    line(
      'Sticker',
      `${sticker.length} characters, ${sticker.alphabet}; ID ${sticker.idFrom}–${sticker.idTo}`,
    ),
    line('Check digit', sticker.check === 'none' ? 'none' : 'weights 3 and 1'),
    line('Sticker is', sticker.where),
    line(
      'Placement',
      `best from ${placement.best} ${placement.unit}, holds from ${placement.least}, read at the ${placement.readAt}`,
    ),
    line('Settles in', entry.settleMinutes ? `${entry.settleMinutes} min` : ''),
    line('Answers for', entry.answerMinutes ? `${entry.answerMinutes} min after tamper` : ''),
  ]
}

function receiverLines(entry: ReceiverModel, catalogue: Catalogue): EntryLine[] {
  const hears = entry.hears.map((item) => {
    const name = catalogue.get('family', item.family)?.name ?? item.family
    return item.fromFirmware ? `${name} from firmware ${item.fromFirmware}` : name
  })
  return [
    line('Hears', hears.join(', ')),
    line('Holds', `${entry.transmitters} transmitters`),
    line('Classes', entry.classes.join(', ')),
    line('Place', entry.place),
    line('Encrypted-only switch', yes(entry.encryptedOnlySetting)),
    line('Loses', entry.loses?.join(', ') ?? ''),
    line('Grade', String(entry.grade ?? '')),
  ]
}

function deviceLines(entry: DeviceModel, catalogue: Catalogue): EntryLine[] {
  const { batteries, temperatureC, discontinued, price } = entry
  return [
    line('Class', entry.class),
    line('Family', catalogue.get('family', entry.family)?.name ?? 'wired'),
    line('Encryption', entry.encryption),
    line('Loops', entry.loops.map((item) => `${item.loop} ${item.name}`).join(', ')),
    line(
      'Switches',
      entry.switches?.map((item) => `${item.switch} ${item.on ? 'on' : 'off'}`).join(', ') ?? '',
    ),
    line('Slot', entry.slot === 'none' ? '' : entry.slot),
    line('Ways to transmit', entry.ways.map((item) => item.way).join('; ')),
    line('Checks in every', entry.checkInMinutes === null ? '' : `${entry.checkInMinutes} min`),
    line('Pets', pets(entry)),
    line('Disarms', yes(entry.disarms)),
    line('Temperature', `${temperatureC.from} to ${temperatureC.to} °C${entry.outdoor ? ', outdoors' : ''}`),
    line('Magnet gap', entry.magnetGapMm === null ? '' : `${entry.magnetGapMm} mm`),
    line('Batteries', batteries ? `${batteries.count} × ${batteries.type}` : ''),
    line('Trips at', trips(entry)),
    line('Stated life', entry.lifeYears ? `${entry.lifeYears} years` : ''),
    line('Sensitivity', entry.sensitivity?.join(', ') ?? ''),
    line('Transmit level', entry.transmitDbm === undefined ? '' : `${entry.transmitDbm} dBm`),
    line('Grade', String(entry.grade ?? '')),
    line(
      'Equipment codes',
      entry.equipmentCodes
        .map((item) => `${catalogue.get('panel', item.panel)?.name ?? item.panel}: ${item.code}`)
        .join(', '),
    ),
    line('Variant', entry.variant ? `${entry.variant.of}, ${entry.variant.how}` : ''),
    line(
      'No longer made',
      discontinued ? `successor ${catalogue.get('device', discontinued.successor)?.name ?? 'none'}` : '',
    ),
    line(
      'Price',
      price ? `${price.amount} ${price.currency}${price.pack > 1 ? ` for ${price.pack}` : ''}` : '',
    ),
    line('Sticker is', entry.sticker),
    line('Note', entry.note ?? ''),
  ]
}

function panelLines(entry: PanelModel, catalogue: Catalogue): EntryLine[] {
  const delay = (key: 'entry1' | 'entry2' | 'exit' | 'exitStay' | 'abort'): string => {
    const field = entry.delays[key]
    if (!field) return 'none'
    const range = (item: { secondsPerUnit: number; min: number; max: number; step: number }): string => {
      const unit = item.secondsPerUnit
      return `${item.min * unit}–${item.max * unit} s by ${item.step * unit} s`
    }
    const { switched } = field
    return switched ? `${range(field)}, or ${range(switched)} with ${switched.option}` : range(field)
  }
  const { label } = entry
  return [
    line('Style', entry.style),
    line(
      'Variant',
      entry.variant ? `${entry.variant.of}, ${entry.variant.how} (${entry.variant.readAt})` : '',
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
    line('Response types', entry.responseTypes.map((type) => `${type.code} ${type.name}`).join(', ')),
    line('Entry delay 1', delay('entry1')),
    line('Entry delay 2', delay('entry2')),
    line('Exit delay', delay('exit')),
    line('Exit delay in stay', exitOfStay(entry, delay('exitStay'))),
    line('Hold before sending', delay('abort')),
    ...couplingLines(entry),
    line(
      'Labels',
      label.style === 'library'
        ? `${label.words.length} words, ${label.entries} a label`
        : `${label.length} characters${label.insteadOn ? ` on ${label.insteadOn}` : ''}`,
    ),
    line('Counts as lost after', entry.superviseMinutes ? `${entry.superviseMinutes} min` : ''),
    line('Repeaters', String(entry.repeaters ?? 0)),
    line('Grade', String(entry.grade ?? '')),
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
      return ''
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
    line('Zone in two areas', c.twoAreas ? areasWords[c.twoAreas] : ''),
    line('Keypads', c.keypadAreas ? 'set and unset their own areas only' : ''),
    line('Lists that exclude each other', c.typeGroups?.map((group) => group.name).join(', ') ?? ''),
    line('Day zones', c.dayZones === 'user' ? 'the user’s choice' : c.dayZones ? 'by response type' : ''),
    line('Chimes', c.chimeStyles?.map((style) => style.name).join(', ') ?? ''),
    line('Exit ends', c.exitBy?.join(', ') ?? ''),
    line('Open at the end of exit', c.openAtExit?.join(' or ') ?? ''),
    line('Stay zones to entry 2', c.stayToEntry2 ?? ''),
    line('Siren outputs per zone', String(c.sirenOutputs ?? '')),
    line('Double knock', yes(c.doubleKnock === true)),
    line('Groups of verified fire', String(c.fireGroups ?? '')),
    line('Keypad keys', c.functionKeys?.join(', ') ?? ''),
    line('Outputs', c.outputs?.join(' or ') ?? ''),
    line('Fobs in keypads', yes(c.fobsInKeypad === true)),
    line('Latching key switch', c.latchingKeySwitch ? 'disables all other setting' : ''),
    line('End-of-line resistor', c.endOfLineOhm ? `${c.endOfLineOhm} ohms` : ''),
  ]
}

function pets(entry: DeviceModel): string {
  if (entry.petSettings) return entry.petSettings.map((item) => `${item.setting}: ${item.kg} kg`).join(', ')
  return entry.petKg === null ? '' : `up to ${entry.petKg} kg`
}

function trips(entry: DeviceModel): string {
  return Object.entries(entry.tripsAtC ?? {})
    .map(([event, value]) => `${event} ${value} °C`)
    .join(', ')
}

function line(label: string, value: string): EntryLine {
  return { label, value }
}

function yes(on: boolean): string {
  return on ? 'yes' : 'no'
}
