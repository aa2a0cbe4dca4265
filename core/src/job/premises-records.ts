import { z } from 'zod'
import { id, name, order, text } from './fields.ts'

/* The premises in words: rooms, ways between them, openings and what motions see. */

/** What a room is for, as far as judging needs it. */
export const roomKinds = [
  'living',
  'hall',
  'kitchen',
  'utility',
  'bathroom',
  'bedroom',
  'workshop',
  'garage',
  'store',
  'outdoors',
  'other',
] as const
export type RoomKind = (typeof roomKinds)[number]

/** The premises in words: rooms are known to devices by their name. */
export const roomSchema = z.strictObject({
  id,
  type: z.literal('room'),
  name: name(60),
  floor: text(40),
  kind: z.enum(roomKinds),
  heated: z.boolean(),
  sleeps: z.boolean(),
  /** Weight of the heaviest pet that roams here while set, kg; null for none. */
  petKg: z.number('must be a weight from 0 to 100 kg').min(0).max(100).nullable(),
  /** Inside a metal building: radio is refused there. */
  metal: z.boolean(),
  /** Fire compartment it is part of, by any name; empty where it was not said. */
  compartment: text(40),
  area: id.nullable(),
  order,
})

/** A walk between two neighbouring rooms, middle to middle. */
export const waySchema = z.strictObject({
  id,
  type: z.literal('way'),
  from: id,
  to: id,
  metres: z.number('must be a length from 0.5 to 500 m').min(0.5).max(500),
  stairs: z.boolean(),
  order,
})

/** How often people come in by an opening. */
export const openingUses = ['everyday', 'occasional', 'never'] as const
export type OpeningUse = (typeof openingUses)[number]

export const openingSchema = z.strictObject({
  id,
  type: z.literal('opening'),
  name: name(60),
  room: id,
  /** The room behind an inner door; null for one that leads outside. */
  to: id.nullable(),
  use: z.enum(openingUses),
  /** Whether someone still comes in by it while the house is in stay. */
  inStay: z.boolean(),
  order,
})

/** What a motion sees besides its own room: the leaf of an opening, or another room. */
export const sightSchema = z.strictObject({
  id,
  type: z.literal('sight'),
  device: id,
  opening: id.nullable(),
  room: id.nullable(),
})

/** A keypad or fob sets and unsets this area. One that has no such record serves every area. */
export const servesSchema = z.strictObject({
  id,
  type: z.literal('serves'),
  device: id,
  area: id,
})
