import { z } from 'zod'
import { regions } from '../units/region.ts'

/* Building blocks of catalogue entries, and the names of events, classes and alarms they use. */

export const label = z.string().min(1).max(80)
/** A sentence or two. */
export const note = z.string().min(1).max(400)
/** The id of an entry of one kind, such as `panel/tarn-40`. */
export const entryId = (kind: string) =>
  z.string().regex(new RegExp(`^${kind}/[a-z0-9-]{1,60}$`), `must be an id such as ${kind}/…`)
/** A firmware version of two numbers. */
export const firmware = z.string().regex(/^\d{1,3}\.\d{1,3}$/, 'must be a version such as 1.20')
const region = z.enum(regions)
/** Where an answer is said to come from when nobody read it. */
export const ASSUMED = 'assumed'

/** What every entry begins with: version, maker, name, regions; and where its answers were read, as far as somebody said. */
export const base = {
  /** By question: its field, how it was asked, and where the answer stands, such as `leaflet p. 4`, `seen on the panel` or `assumed`. */
  sources: z
    .array(
      z.strictObject({
        path: z.string().min(1).max(60),
        asked: z.string().min(1).max(160),
        from: z.string().min(1).max(80),
      }),
    )
    .max(120)
    .optional(),
  version: z.string().min(1).max(20),
  maker: label,
  name: label,
  regions: z.array(region).min(1),
}

/** Classes that send only when they are pressed: nobody expects them to check in. */
export const pressedClasses: ReadonlySet<unknown> = new Set(['fob', 'panic'])

/** Where a sticker can be. */
export const stickerPlaces = ['outside', 'inside', 'under-batteries'] as const

/** A grade of EN 50131. */
export const grade = z.union([z.literal(1), z.literal(2), z.literal(3)], 'must be grade 1, 2 or 3')

/** Events a loop can report; the adviser and the proof steps know them by these names. */
export const events = [
  'open',
  'terminals',
  'motion',
  'glass',
  'shock',
  'smoke',
  'heat',
  'freeze',
  'co',
  'flood',
  'panic',
  'panic-silent',
  'medical',
  'arm-away',
  'arm-stay',
  'disarm',
  'output',
] as const
/** An event that a loop can report. */
export type DeviceEvent = (typeof events)[number]

/** What kinds of device there are. */
export const deviceClasses = [
  'contact',
  'motion',
  'glass-break',
  'shock',
  'smoke',
  'heat',
  'gas',
  'flood',
  'temperature',
  'panic',
  'fob',
  'keypad',
  'siren',
  'repeater',
] as const
/** The kind of a device. */
export type DeviceClass = (typeof deviceClasses)[number]

/** What an alarm can be about. */
export const kinds = ['burglary', 'fire', 'gas', 'panic', 'medical', 'auxiliary', 'command'] as const
/** What an alarm is about: it decides its sound and who is sent. */
export type AlarmKind = (typeof kinds)[number]

/** What a trip can do in one arming mode. */
export const trips = ['ignore', 'instant', 'entry-1', 'entry-2', 'follow', 'alert', 'command'] as const
/** What a trip does in one arming mode. */
export type Trip = (typeof trips)[number]

/** What a pack can hold. */
export const entryKinds = ['family', 'receiver', 'device', 'panel', 'interface'] as const
/** The kind of an entry. */
export type EntryKind = (typeof entryKinds)[number]
