import { readFileSync } from 'node:fs'
import {
  blankDevice,
  blankJob,
  defaultHouseRules,
  applyOps,
  Catalogue,
  emptyDocument,
  keepEntry,
  numberAll,
  pinOps,
  readHouse,
  readPack,
  startOps,
  type Device,
  type JobDocument,
  type KeptEntry,
  type Op,
  type PanelModel,
  type ReceiverModel,
} from '#core'

/** A job on a generated panel: large enough for `zones` zones, which the invented panels are not. */
export interface MadeJob {
  readonly doc: JobDocument
  readonly catalogue: Catalogue
  readonly entries: readonly KeptEntry[]
}

/** Models by turns; each has one zone, but for the smoke detector, which has three. */
const models = [
  'latchet',
  'latchet-thin',
  'prowl',
  'shardling',
  'latchet',
  'latchet-thin',
  'prowl-pet',
  'callbell',
]

/** The catalogue of the demo. */
export function shippedCatalogue(): Catalogue {
  const read = readPack(
    JSON.parse(readFileSync(new URL('../demo/packs/world.json', import.meta.url), 'utf8')),
  )
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return new Catalogue(read.entries)
}

/** Makes a job with this many one-zone devices on a panel generated from the Morrow 60; `numbered` gives them their zones,
 * `strangerEvery` puts a device of another family in so many. */
export function madeJob(devices: number, numbered: boolean, strangerEvery = 0): MadeJob {
  const shipped = shippedCatalogue()
  const morrow = shipped.get('panel', 'panel/morrow-60') as PanelModel
  const module = shipped.get('receiver', 'receiver/morrow-radio-module') as ReceiverModel
  const receiver: ReceiverModel = { ...module, id: 'receiver/made', name: 'Made receiver', transmitters: 900 }
  const panel: PanelModel = {
    ...morrow,
    id: 'panel/made',
    name: `Made ${devices}`,
    numberDigits: 3,
    blocks: [{ use: 'wireless', from: 1, to: 900, optional: false }],
    receivers: [receiver.id],
    builtIn: receiver.id,
  }
  const catalogue = shipped.with([keepEntry(receiver), keepEntry(panel)])
  let doc = take(
    emptyDocument,
    startOps(emptyDocument, catalogue, {
      ...blankJob,
      id: 'job:main',
      name: 'Made job',
      region: 'north-america',
      kind: 'new',
      monitored: true,
      grade: 1,
      panel: panel.id,
      entry1: 30,
      entry2: 30,
      exit: 60,
      abortWindow: 30,
      airSeed: 1,
    }),
  )
  const records = Array.from({ length: devices }, (_, index) =>
    device(index, strangerEvery > 0 && index % strangerEvery === strangerEvery - 1),
  )
  const pins = pinOps(doc, catalogue, [...new Set(records.map((record) => record.model))])
  doc = take(doc, [...pins, ...records.map((record): Op => ({ op: 'add', record }))])
  doc = take(doc, [
    ...pinOps(doc, catalogue, ['device/keyplate-w']),
    {
      op: 'add',
      record: {
        ...blankDevice,
        id: 'device:keypad',
        model: 'device/keyplate-w',
        room: 'Room 2',
        order: devices + 1,
      },
    },
  ])
  doc = take(doc, house(doc, Math.ceil(devices / 4)))
  let count = 0
  if (numbered)
    doc = take(
      doc,
      numberAll(doc, catalogue, {
        newId: () => `zone:z${(count += 1)}`,
        houseRules: defaultHouseRules,
      }).ops,
    )
  return { doc, catalogue, entries: [keepEntry(receiver), keepEntry(panel)] }
}

/** A house of so many rooms in a row, with a door at each end. */
function house(doc: JobDocument, rooms: number): readonly Op[] {
  const names = Array.from({ length: rooms }, (_, index) => `Room ${index + 1}`)
  const text = [
    ...names.map((name) => `${name}:`),
    ...names.slice(1).map((name, index) => `${names[index]} - ${name} 4${index % 8 === 7 ? ' stairs' : ''}`),
    'Front door in Room 1: every day',
    `Back door in Room ${rooms}: every day`,
  ].join('\n')
  let count = 0
  return readHouse(text, doc, () => `h${(count += 1)}`).ops
}

function device(index: number, stranger: boolean): Device {
  const model = stranger ? 'pebble' : (models[index % models.length] ?? 'latchet')
  return {
    ...blankDevice,
    id: `device:d${index}`,
    model: `device/${model}`,
    room: `Room ${Math.floor(index / 4) + 1}`,
    position: model.startsWith('latchet') ? `window ${index}` : '',
    use: index === 0 ? 'entry' : model.startsWith('prowl') ? 'on-way' : 'opening',
    sticker: String(10_000_000 + index),
    order: index + 1,
  }
}

export function take(doc: JobDocument, ops: readonly Op[]): JobDocument {
  const result = applyOps(doc, ops)
  if (!result.ok) throw new Error(JSON.stringify(result.conflict))
  return result.doc
}
