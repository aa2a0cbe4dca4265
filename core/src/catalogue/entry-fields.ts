import { z } from 'zod'
import { regions } from '../units/region.ts'

/* Building blocks of catalogue entries, and the names of events, classes and alarms they use. */

export const label = z.string().min(1).max(80)
export const note = z.string().min(1).max(400)
export const entryId = (kind: string) =>
  z.string().regex(new RegExp(`^${kind}/[a-z0-9-]{1,60}$`), `must be an id such as ${kind}/…`)
export const firmware = z.string().regex(/^\d{1,3}\.\d{1,3}$/, 'must be a version such as 1.20')
const region = z.enum(regions)
export const base = {
  version: z.string().min(1).max(20),
  maker: label,
  name: label,
  regions: z.array(region).min(1),
}

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
export type DeviceEvent = (typeof events)[number]

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
export type DeviceClass = (typeof deviceClasses)[number]

export const kinds = ['burglary', 'fire', 'gas', 'panic', 'medical', 'auxiliary', 'command'] as const
export type AlarmKind = (typeof kinds)[number]

export const trips = ['ignore', 'instant', 'entry-1', 'entry-2', 'follow', 'alert', 'command'] as const
/** What a trip does in one arming mode (work.md section 4). */
export type Trip = (typeof trips)[number]
