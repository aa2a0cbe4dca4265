import type { PanelModel } from '../catalogue/schema.ts'
import type { Answer } from './records.ts'
import { keyFrom } from './panel-cells.ts'

/* A panel from answers, and back: where an answer is written in another form than the entry. */

type Value = NonNullable<Answer['value']>
type Row = Record<string, unknown>
type Step = PanelModel['programming']['system']

/** What stands on the sheet where nobody says how a thing is keyed. */
const plain = (keys: string): Step => ({ keys, shows: '', note: '' })

/** What a panel is where it is not asked, or where there is none. */
export const panelBase = {
  builtIn: null,
  radioFirmware: [],
  codes: [],
  equipment: { kinds: [] },
  slots: { fobs: { group: 1 } },
  delays: { abort: null },
  programming: {
    system: plain('{address} = {value}'),
    zoneStart: plain('zone {number}'),
    zoneEnd: plain('zone {number} is complete'),
    slot: null,
  },
}

/** Says of an answer what a panel would hold. */
export const panelToEntry: Readonly<Record<string, (value: Value) => unknown>> = {
  numberDigits: Number,
  responseTypes: (value) => withKeys(value as Row[]).map(({ ...row }) => withoutNone(row)),
  'equipment.kinds': (value) => withKeys(value as Row[]).map((row) => ({ events: [], ...row })),
  codes: (value) => withKeys(value as Row[], true),
  'couplings.chimeStyles': (value) => withKeys(value as Row[]),
  'couplings.typeGroups': (value) => (value as Row[]).map((row) => ({ types: [], ...row })),
  'programming.wayIn': stepsOf,
  'programming.wayOut': stepsOf,
  'programming.system': stepOf,
  'programming.zoneStart': stepOf,
  'programming.zoneEnd': stepOf,
  'programming.keypadAreas': stepOf,
  'programming.fobInKeypad': stepOf,
  'programming.zone': fieldsOf,
  'programming.settings': fieldsOf,
  'programming.slot': (value) => {
    const { fob, keypad, siren, ...step } = value as Row
    return { ...stepOf(step), addresses: { fob, keypad, siren } }
  },
  'programming.areaMove': (value) => {
    const row = value as Row
    return {
      add: stepOf({ keys: row.addKeys, shows: row.addShows, note: row.addNote }),
      remove: stepOf({ keys: row.removeKeys, shows: row.removeShows, note: row.removeNote }),
    }
  },
}

/** What a panel says, as its questions answer it. */
export const panelFromEntry: Readonly<Record<string, (value: never) => Answer['value']>> = {
  numberDigits: String,
  'programming.slot': ({ addresses, ...step }: NonNullable<PanelModel['programming']['slot']>) => ({
    ...step,
    ...addresses,
  }),
  'programming.areaMove': ({ add, remove }: NonNullable<PanelModel['programming']['areaMove']>) => ({
    ...{ addKeys: add.keys, addShows: add.shows, addNote: add.note },
    ...{ removeKeys: remove.keys, removeShows: remove.shows, removeNote: remove.note },
  }),
}

function stepOf(value: unknown): Row {
  const { keys, shows, note } = value as Row
  return { keys, shows: shows ?? '', note: note ?? '' }
}

function stepsOf(value: Value): Row[] {
  return (value as Value[]).map(stepOf)
}

/** Of a field whose keys nobody says its value is all that is keyed. */
function fieldsOf(value: Value): Row[] {
  return (value as Row[]).map(({ keys, shows, note, ...row }) =>
    withoutNone({ ...row, ...stepOf({ keys: keys ?? '{value}', shows, note }) }),
  )
}

function withoutNone(row: Row): Row {
  return Object.fromEntries(Object.entries(row).filter(([, cell]) => cell !== null && !isEmpty(cell)))
}

function isEmpty(cell: unknown): boolean {
  return typeof cell === 'object' && cell !== null && !Array.isArray(cell) && Object.keys(cell).length === 0
}

/** Rows with a key each: the one that they had, else one from their name that is free. */
function withKeys(rows: readonly Row[], lettersOnly = false): Row[] {
  const taken = new Set(rows.flatMap(({ key }) => (typeof key === 'string' ? [key] : [])))
  return rows.map((row, index) => {
    if (typeof row.key === 'string') return row
    const plainKey = lettersOnly ? letters(String(row.name)) : keyFrom(String(row.name), index)
    let key = plainKey
    for (let count = 2; taken.has(key); count += 1)
      key = `${plainKey}-${lettersOnly ? 'x'.repeat(count - 1) : count}`
    taken.add(key)
    return { ...row, key }
  })
}

const MOST_LETTERS = 18

/** Keys of codes have no digits: who lists them must not take them for codes. */
function letters(name: string): string {
  const plainKey = keyFrom(name.replace(/\d/g, ' '), 0).slice(0, MOST_LETTERS).replace(/-+$/, '')
  return /\d/.test(plainKey) ? 'code' : plainKey
}
