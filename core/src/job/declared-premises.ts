import { z } from 'zod'
import { field, plan, reference } from '../records/declare.ts'
import { id, name, order, text } from '../records/fields.ts'

/* The premises in words: rooms, ways between them, openings, what motions see, and which areas a keypad sets. */

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
/** What a room is. */
export type RoomKind = (typeof roomKinds)[number]

const any = { may: 'installer', removable: true, idBy: null } as const

/** The premises in words: rooms are known to devices by their name. */
export const room = plan({
  ...any,
  type: 'room',
  words: 'room',
  stage: 'survey',
  fields: {
    name: field('name', name(60)),
    floor: field('floor', text(40)),
    kind: field('kind of room', z.enum(roomKinds)),
    heated: field('heated', z.boolean()),
    sleeps: field('slept in', z.boolean()),
    /** Weight of the heaviest pet that roams here while set; null for none. */
    petKg: field(
      'heaviest pet',
      z.number('must be a weight from 0 to 100 kg').min(0).max(100).nullable(),
      'kg',
    ),
    /** How hot it gets, of a sauna, a boiler room, a loft under the roof; null for no hotter than any room. */
    hottestC: field(
      'hottest',
      z.number('must be a temperature from 20 to 120 °C').min(20).max(120).nullable(),
      '°C',
    ),
    /** Inside a metal building: radio is refused there. */
    metal: field('inside a metal building', z.boolean()),
    /** Fire compartment it is part of, by any name; empty where it was not said. */
    compartment: field('fire compartment', text(40)),
    area: reference('area', id.nullable()),
    order: field('place in the list', order),
  },
})

/** A walk between two neighbouring rooms, middle to middle. */
export const way = plan({
  ...any,
  type: 'way',
  words: 'way',
  stage: 'survey',
  fields: {
    from: reference('one end', id),
    to: reference('other end', id),
    metres: field('length', z.number('must be a length from 0.5 to 500 m').min(0.5).max(500), 'm'),
    stairs: field('stairs', z.boolean()),
    order: field('place in the list', order),
  },
})

/** How often people come in by an opening. */
export const openingUses = ['everyday', 'occasional', 'never'] as const
/** How an opening is used. */
export type OpeningUse = (typeof openingUses)[number]

/** A door or window of a room. */
export const opening = plan({
  ...any,
  type: 'opening',
  words: 'opening',
  stage: 'survey',
  fields: {
    name: field('name', name(60)),
    room: reference('room', id),
    /** The room behind an inner door; null for one that leads outside. */
    to: reference('room behind it', id.nullable()),
    use: field('use', z.enum(openingUses)),
    /** Whether someone still comes in by it while the house is in stay. */
    inStay: field('used in stay', z.boolean()),
    order: field('place in the list', order),
  },
})

/** What a motion sees besides its own room: the leaf of an opening, or another room. */
export const sight = plan({
  ...any,
  type: 'sight',
  words: 'thing that a motion sees',
  stage: 'kit',
  fields: {
    device: reference('motion', id),
    opening: reference('opening', id.nullable()),
    room: reference('room', id.nullable()),
  },
})

/** A keypad or fob sets and unsets this area. One that has no such record serves every area. */
export const serves = plan({
  ...any,
  type: 'serves',
  words: 'area of a keypad',
  stage: 'zones',
  fields: { device: reference('keypad or fob', id), area: reference('area', id) },
})
