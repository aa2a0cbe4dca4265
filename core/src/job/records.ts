import { z } from 'zod'
import { regions } from '../units/region.ts'

/** Number of the record shapes in this file; see upgrades.ts for how older ones are read. */
export const SCHEMA = 2

const id = z.string().regex(/^[a-z-]+:[A-Za-z0-9._/-]{1,80}$/, 'must be a record id such as zone:…')
const entryId = z
  .string()
  .regex(/^(family|panel|receiver|device)\/[a-z0-9-]{1,60}$/, 'must be a catalogue entry id such as panel/…')
const order = z.number().min(-1e9).max(1e9)
const seconds = z.number().int().min(0).max(3600)
const time = z
  .string()
  .regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/, 'must be a UTC time such as 2026-05-04T09:30:00Z')
const text = (limit: number) =>
  z
    .string()
    .max(limit)
    .refine((value) => !hasControl(value), 'must not contain control characters')
/** A transmitter ID in stored form: the family's letters and digits, without spaces or hyphens. */
const serial = z
  .string()
  .regex(/^[0-9A-Z]{1,20}$/, 'must be a transmitter ID of 1 to 20 digits and capital letters, without spaces')
const name = (limit: number) => text(limit).refine((value) => value.trim() !== '', 'must not be empty')

/** How a device's place bears on the way in: it decides the response its zone needs (work.md section 4). */
export const uses = [
  'entry',
  'entry-far',
  'entry-not-in-stay',
  'opening',
  'inner-way',
  'sees-entry',
  'on-way',
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
  abortWindow: seconds.nullable(),
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
  level: z.number().min(-200).max(20).nullable(),
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

/** What was observed or vouched for: added, and corrected by a later record; never changed, removed or undone. */
export const evidenceTypes: ReadonlySet<string> = new Set(['heard', 'test', 'state', 'state-end', 'signoff'])

/** Fields that hold the id of another record; an entry id stands for the record that pins it. */
const references: Partial<Record<RecordType, readonly string[]>> = {
  job: ['panel'],
  receiver: ['model'],
  device: ['model', 'user'],
  zone: ['device', 'area'],
  'state-end': ['state'],
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

function hasControl(value: string): boolean {
  for (const char of value) {
    const code = char.codePointAt(0) ?? 0
    if ((code < 32 && code !== 10) || code === 127) return true
  }
  return false
}
