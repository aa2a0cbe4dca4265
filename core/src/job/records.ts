import { z } from 'zod'
import { houseRulesSchema } from '../house-rules/house-rules.ts'
import { regions } from '../units/region.ts'
import { entryId, id, name, order, seconds, serial, text, time } from './fields.ts'
import { openingSchema, roomSchema, servesSchema, sightSchema, waySchema } from './premises-records.ts'

export * from './premises-records.ts'

/** Number of the record shapes in this file; see upgrades.ts for how older ones are read. */
export const SCHEMA = 3

/** How a device's place bears on the way in: it decides the response its zone needs (work.md section 4). */
export const uses = [
  'entry',
  'entry-far',
  'entry-not-in-stay',
  'opening',
  'inner-way',
  'sees-entry',
  'on-way',
  'on-way-night',
  'off-way',
  'none',
] as const
export type Use = (typeof uses)[number]

const job = z.strictObject({
  id: z.literal('job:main'),
  type: z.literal('job'),
  name: name(120),
  address: text(200),
  region: z.enum(regions),
  kind: z.enum(['new', 'takeover']),
  monitored: z.boolean(),
  grade: z.union([z.literal(1), z.literal(2), z.literal(3)], 'must be grade 1, 2 or 3'),
  slowest: z.enum(['ordinary', 'slow']),
  petKg: z.number().min(0).max(100).nullable(),
  wishes: text(2000),
  panel: entryId.nullable(),
  radioFirmware: z
    .string()
    .regex(/^\d{1,3}\.\d{1,3}$/, 'must be a version such as 1.20')
    .nullable(),
  entry1: seconds.nullable(),
  entry2: seconds.nullable(),
  exit: seconds.nullable(),
  /** Exit delay of stay, where the panel keeps one of its own. */
  exitStay: seconds.nullable(),
  abortWindow: seconds.nullable(),
  /** Whether the panel's option is on that switches the unit of the exit delay. */
  exitUnitSwitched: z.boolean(),
  /** Time the siren sounds, s; null where it is left as the panel comes. */
  sirenSeconds: seconds.nullable(),
  /** Alarms of one zone until it is shut out for the set period; null where left as it comes. */
  swinger: z.number().int().min(0).max(15).nullable(),
  /** Silence after which the panel calls a device lost, minutes; null where left as it comes. */
  superviseMinutes: z.number().int().min(0).max(10_000).nullable(),
  /** What ends the exit time; null where the panel knows one way only. */
  exitBy: z.enum(['timer', 'door', 'either']).nullable(),
  /** What becomes of a zone that is open when the exit time ends. */
  openAtExit: z.enum(['exclude', 'alarm']).nullable(),
  /** Whether the panel's option is on that turns all zones of stay into entry 2. */
  stayToEntry2: z.boolean(),
  /** A key switch that sets the system: none, momentary, or latching. */
  keySwitch: z.enum(['none', 'momentary', 'latching']),
  /** Whether keypads sound while entry and exit run; null where left as it comes. */
  entryBeeps: z.boolean().nullable(),
  exitBeeps: z.boolean().nullable(),
  /** Whether outputs give a pulse or stay on until a code is keyed; null where left as it comes. */
  outputs: z.enum(['momentary', 'latched']).nullable(),
  /** Keypad function keys that are switched off, by the panel's names. */
  keysOff: z.array(text(40)).max(8),
  /** Coldest and hottest of unheated rooms, °C; null for the usual −10 and 45. */
  unheatedFrom: z.number().min(-60).max(40).nullable(),
  unheatedTo: z.number().min(0).max(90).nullable(),
  airSeed: z.number().int().min(0).max(4294967295),
  airStartedAt: time.nullable(),
})

const pin = z.strictObject({
  id,
  type: z.literal('pin'),
  entry: entryId,
  hash: z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in 64 hexadecimal digits'),
})

const area = z.strictObject({
  id,
  type: z.literal('area'),
  number: z.number().int().min(1).max(64),
  name: name(60),
  /** Delays of its own, s, where the panel keeps them per area; null for those of the job. */
  entry1: seconds.nullable(),
  entry2: seconds.nullable(),
  exit: seconds.nullable(),
  exitStay: seconds.nullable(),
  order,
})

const receiver = z.strictObject({
  id,
  type: z.literal('receiver'),
  model: entryId,
  room: text(60),
  encryptedOnly: z.boolean(),
  order,
})

const device = z.strictObject({
  id,
  type: z.literal('device'),
  model: entryId,
  room: text(60),
  position: text(80),
  deferred: name(200).nullable(),
  use: z.enum(uses),
  existing: z.boolean(),
  /** Of a device that was there before: what becomes of it; null until decided. */
  plan: z.enum(['keep', 'replace']).nullable(),
  /** The year it was made, as its sticker says; null where unknown. */
  madeYear: z.number('must be a year from 1980 to 2100').int().min(1980).max(2100).nullable(),
  /** The day its batteries were last changed, as 2026-03-31; null where unknown. */
  batteryAt: z
    .string()
    .regex(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, 'must be a day such as 2026-03-31')
    .nullable(),
  sticker: serial.nullable(),
  serial: serial.nullable(),
  slot: z.number().int().min(1).max(999).nullable(),
  user: id.nullable(),
  /** The opening it guards; null where it guards none, or it was not said. */
  opening: id.nullable(),
  /** The repeater through which alone it is reached; null when the receiver hears it. */
  via: id.nullable(),
  /** Panel number that a keypad's own terminal is mapped over; null for none. */
  mappedOver: z.number('must be a whole number from 1 to 999').int().min(1).max(999).nullable(),
  /** Height of the sensor over the floor, m. */
  heightM: z.number('must be a height from 0 to 10 m').min(0).max(10).nullable(),
  /** Measured gap of contact and magnet, mm. */
  gapMm: z.number('must be a gap from 0 to 200 mm').min(0).max(200).nullable(),
  /** Whether it sits on steel. */
  onSteel: z.boolean(),
  /** Where a fob is stored; null for the school in force. */
  storedIn: z.enum(['panel', 'keypad']).nullable(),
  /** Chosen pet setting or sensitivity of the model, by its name. */
  setting: text(40).nullable(),
  order,
})

const zone = z.strictObject({
  id,
  type: z.literal('zone'),
  number: z.number('must be a whole number from 1 to 999').int().min(1).max(999),
  device: id.nullable(),
  event: text(40).nullable(),
  loop: z.number().int().min(1).max(16).nullable(),
  response: text(40).nullable(),
  area: id.nullable(),
  equipmentCode: text(12).nullable(),
  equipmentKind: text(40).nullable(),
  existing: z.boolean(),
  chime: z.boolean(),
  report: z.boolean(),
  supervise: z.boolean(),
  transmissionDelay: z.boolean(),
  label: text(60),
  pinned: z.boolean(),
  /** A second area of a zone that is common to both; null for none. */
  area2: id.nullable(),
  /** The area that the panel still has it in, until the move is keyed: added there, removed here; null when settled. */
  leaves: id.nullable(),
  /** How it chimes, where the panel has several ways; null for the first. */
  chimeStyle: text(40).nullable(),
  /** Offered to the user as a day zone, where the panel leaves the choice to them. */
  dayZone: z.boolean(),
  /** Inputs of a contact whose panel switches them on and off instead of telling loops apart; null elsewhere. */
  reedOn: z.boolean().nullable(),
  terminalsOn: z.boolean().nullable(),
  endOfLineOn: z.boolean().nullable(),
  /** Siren outputs that it drives, where the panel asks; null for all. */
  sirens: z.array(z.number().int().min(1).max(8)).max(8).nullable(),
  doubleKnock: z.boolean(),
  /** Group of detectors that must agree, for verified fire. */
  fireGroup: z.number('must be a group from 1 to 16').int().min(1).max(16).nullable(),
  /** Written reason for what departs from the rule, such as a delayed fire alarm. */
  reason: text(300),
  /** How a wired zone is wired, and its end-of-line resistor in ohms. */
  wiring: z.enum(['closed', 'open', 'end-of-line', 'double']).nullable(),
  resistorOhm: z.number('must be from 1 to 100000 ohms').min(1).max(100_000).nullable(),
  serial: serial.nullable(),
  learnedBy: z.enum(['air', 'typed', 'sister']).nullable(),
})

const terminal = z.strictObject({
  id,
  type: z.literal('terminal'),
  number: z.number().int().min(1).max(999),
  state: z.enum(['live', 'off', 'sealed']),
})

const user = z.strictObject({ id, type: z.literal('user'), name: name(60), order })

const heard = z.strictObject({
  id,
  type: z.literal('heard'),
  at: time,
  by: name(80),
  serial: text(20),
  family: text(80),
  cause: text(40),
  /** Level in the unit of its family: bars, steps, per cent or dB. */
  level: z.number().min(-200).max(1000).nullable(),
  source: z.enum(['air', 'typed', 'scanned', 'sister']),
  decision: z.enum(['accepted', 'refused']),
  code: text(40),
  reason: text(300),
  subject: text(90),
})

const test = z.strictObject({
  id,
  type: z.literal('test'),
  at: time,
  by: name(80),
  subject: text(90),
  kind: z.enum(['placement', 'walk', 'armed', 'report']),
  outcome: z.enum(['pass', 'fail', 'inconclusive']),
  reading: z.number().min(-200).max(1000).nullable(),
  note: text(500),
})

const state = z.strictObject({
  id,
  type: z.literal('state'),
  kind: z.enum([
    'station-on-test',
    'chime-demo',
    'sounder-off',
    'siren-unplugged',
    'tamper-linked',
    'zone-not-used',
  ]),
  who: name(80),
  why: name(300),
  since: time,
  until: time,
})

const stateEnd = z.strictObject({ id, type: z.literal('state-end'), state: id, by: name(80), at: time })

const signoff = z.strictObject({
  id,
  type: z.literal('signoff'),
  what: text(60),
  by: name(80),
  at: time,
  note: text(500),
})

/** The job goes by another school than its firm, and why. */
const departure = z.strictObject({
  id,
  type: z.literal('departure'),
  rule: text(40),
  choice: text(40),
  reason: name(500),
  by: name(80),
  at: time,
})

/** The house rules as they were at hand-over: what the firm decides later leaves this job as it is. */
const fixedRules = z.strictObject({
  id: z.literal('fixed-rules:main'),
  type: z.literal('fixed-rules'),
  by: name(80),
  at: time,
  rules: houseRulesSchema,
})

/** Somebody takes a finding upon themselves. It holds for the finding as it then read. */
const waiver = z.strictObject({
  id,
  type: z.literal('waiver'),
  rule: text(60),
  subject: text(90),
  text: text(1000),
  reason: name(500),
  by: name(80),
  at: time,
})
const waiverEnd = z.strictObject({
  id,
  type: z.literal('waiver-end'),
  waiver: id,
  by: name(80),
  at: time,
})

/** The schema of every kind of record, by its type. */
export const recordSchemas = {
  job,
  pin,
  area,
  receiver,
  device,
  zone,
  terminal,
  user,
  heard,
  test,
  state,
  'state-end': stateEnd,
  signoff,
  room: roomSchema,
  way: waySchema,
  opening: openingSchema,
  sight: sightSchema,
  serves: servesSchema,
  departure,
  'fixed-rules': fixedRules,
  waiver,
  'waiver-end': waiverEnd,
} as const

export type RecordType = keyof typeof recordSchemas
export type JobInfo = Readonly<z.infer<typeof job>>
export type Pin = Readonly<z.infer<typeof pin>>
export type Area = Readonly<z.infer<typeof area>>
export type Receiver = Readonly<z.infer<typeof receiver>>
export type Device = Readonly<z.infer<typeof device>>
export type Zone = Readonly<z.infer<typeof zone>>
export type Terminal = Readonly<z.infer<typeof terminal>>
export type SystemUser = Readonly<z.infer<typeof user>>
export type Heard = Readonly<z.infer<typeof heard>>
export type TestResult = Readonly<z.infer<typeof test>>
export type TemporaryState = Readonly<z.infer<typeof state>>
export type StateEnd = Readonly<z.infer<typeof stateEnd>>
export type Signoff = Readonly<z.infer<typeof signoff>>
export type Room = Readonly<z.infer<typeof roomSchema>>
export type Way = Readonly<z.infer<typeof waySchema>>
export type Opening = Readonly<z.infer<typeof openingSchema>>
export type Sight = Readonly<z.infer<typeof sightSchema>>
export type Serves = Readonly<z.infer<typeof servesSchema>>
export type Departure = Readonly<z.infer<typeof departure>>
export type FixedRules = Readonly<z.infer<typeof fixedRules>>
export type Waiver = Readonly<z.infer<typeof waiver>>
export type WaiverEnd = Readonly<z.infer<typeof waiverEnd>>
export type JobRecord =
  | JobInfo
  | Pin
  | Area
  | Receiver
  | Device
  | Zone
  | Terminal
  | SystemUser
  | Heard
  | TestResult
  | TemporaryState
  | StateEnd
  | Signoff
  | Room
  | Way
  | Opening
  | Sight
  | Serves
  | Departure
  | FixedRules
  | Waiver
  | WaiverEnd

/** What was observed or vouched for: added, and corrected by a later record; never changed, removed or undone. */
export const evidenceTypes: ReadonlySet<string> = new Set([
  'heard',
  'test',
  'state',
  'state-end',
  'signoff',
  'waiver',
  'waiver-end',
])

/** Fields that hold the id of another record; an entry id stands for the record that pins it. */
const references: Partial<Record<RecordType, readonly string[]>> = {
  job: ['panel'],
  receiver: ['model'],
  device: ['model', 'user', 'opening', 'via'],
  zone: ['device', 'area', 'area2', 'leaves'],
  serves: ['device', 'area'],
  'state-end': ['state'],
  room: ['area'],
  way: ['from', 'to'],
  opening: ['room', 'to'],
  sight: ['device', 'opening', 'room'],
  'waiver-end': ['waiver'],
}

/** Names of the fields of a record type that point at another record. */
export function referenceFields(type: RecordType): readonly string[] {
  return references[type] ?? []
}

/** The record id that a reference field's value stands for, or null for an empty reference. */
export function referencedId(value: unknown): string | null {
  if (typeof value !== 'string') return null
  return value.includes('/') && !value.includes(':') ? pinId(value) : value
}

/** Id of the record that pins a catalogue entry. */
export function pinId(entry: string): string {
  return `pin:${entry}`
}

/** The type named by a record id, or null when the id names no known type. */
export function typeOfId(recordId: string): RecordType | null {
  const type = recordId.slice(0, recordId.indexOf(':'))
  return Object.hasOwn(recordSchemas, type) ? (type as RecordType) : null
}
