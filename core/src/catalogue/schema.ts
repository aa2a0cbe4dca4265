import { z } from 'zod'
import {
  base,
  deviceClasses,
  entryId,
  events,
  firmware,
  grade,
  label,
  note,
  stickerPlaces,
} from './entry-fields.ts'
import { interfaceSchema } from './interface-schema.ts'
import { panelSchema } from './panel-schema.ts'

export * from './entry-fields.ts'
export {
  hideableFields,
  type Form,
  type Guard,
  type Move,
  type Screen,
  type Target,
  type Widget,
} from './interface-schema.ts'
export { settingKeys, zoneFields, type SettingKey, type ZoneField } from './panel-schema.ts'

/*
 * What a catalogue pack may say. An entry is immutable and known by its id and the SHA-256 of its canonical JSON.
 * Everything that differs between makers stands here as data; the judges hold the rules.
 */

const encryption = z.enum(['none', 'optional', 'always'])

const family = z.strictObject({
  kind: z.literal('family'),
  id: entryId('family'),
  ...base,
  bandMHz: z.strictObject({ from: z.number().min(1).max(6000), to: z.number().min(1).max(6000) }),
  way: z.enum(['one-way', 'two-way']),
  /** Absent where it is not stated: then each device says it, or nobody can tell. */
  encryption: encryption.optional(),
  topology: z.enum(['star', 'mesh']),
  sticker: z.strictObject({
    /** Characters on the sticker, without spaces and hyphens. */
    length: z.number().int().min(4).max(20),
    alphabet: z.enum(['digits', 'hexadecimal', 'letters-and-digits', 'letter-then-digits']),
    /** The ID within them, 1-based, both ends counted. */
    idFrom: z.number().int().min(1).max(20),
    idTo: z.number().int().min(1).max(20),
    /** How the ID is grouped when shown. */
    groups: z.array(z.number().int().min(1).max(20)).min(1),
    /** `weights-3-1`: the digits weighted 3 and 1 in turn sum to a multiple of 10. */
    check: z.enum(['none', 'weights-3-1']),
    where: note.optional(),
  }),
  /** What is not stated of a reading is absent: it is noted, and judged as far as the rest goes. */
  placement: z.strictObject({
    unit: z.string().min(1).max(12).optional(),
    /** Reading that counts as the best band, and the least that still works, in the unit given. */
    best: z.number().optional(),
    least: z.number().optional(),
    readAt: z.enum(['device', 'receiver']).optional(),
    /** Hours after a reading from which the average of the time between counts; absent where the family keeps none. */
    averageHours: z.number().int().min(1).max(168).optional(),
  }),
  /** Repeaters that one receiver of this family takes, and whether one may relay another; absent when there are none. */
  repeaters: z.strictObject({ most: z.number().int().min(1).max(64), chain: z.boolean() }).optional(),
  /** Minutes a mesh must be left quiet after the last device until its routes settle. */
  settleMinutes: z.number().int().min(1).max(600).optional(),
  /** Minutes a device answers a placement reading after its tamper closed. */
  answerMinutes: z.number().int().min(1).max(600).optional(),
})

const receiver = z.strictObject({
  kind: z.literal('receiver'),
  id: entryId('receiver'),
  ...base,
  /** The families it hears, each with the radio firmware it needs. */
  hears: z.array(z.strictObject({ family: entryId('family'), fromFirmware: firmware.nullable() })).min(1),
  /** How many it holds; absent where that is not stated. */
  transmitters: z.number().int().min(1).max(2000).optional(),
  /** What it takes; absent where that is not stated. */
  classes: z.array(z.enum(deviceClasses)).min(1).optional(),
  /** Whether a setting makes it refuse plain devices; absent where that is not stated. */
  encryptedOnlySetting: z.boolean().optional(),
  place: z.enum(['built-in', 'keypad', 'module', 'bridge']),
  /** The highest grade (EN 50131) it is stated for. */
  grade: grade.optional(),
  /** What a device loses through it: a bridge that translates a family may pass neither supervision nor batteries on. */
  loses: z
    .array(z.enum(['supervision', 'encryption', 'battery']))
    .max(3)
    .optional(),
})

const loop = z.strictObject({
  loop: z.number().int().min(1).max(16),
  event: z.enum(events),
  name: label,
  /** Whether it can be tripped on the bench; if not, it is typed from the sister zone's serial. */
  bench: z.boolean(),
})

/** What a device costs. */
export const price = z.strictObject({
  amount: z.number().min(0).max(100_000),
  currency: z.string().regex(/^[A-Z]{3}$/, 'must be a currency code such as EUR'),
  /** For how many pieces. */
  pack: z.number().int().min(1).max(100),
})
/** What a device costs. */
export type Price = Readonly<z.infer<typeof price>>

const device = z.strictObject({
  kind: z.literal('device'),
  id: entryId('device'),
  ...base,
  class: z.enum(deviceClasses),
  /** Null for a wired device. */
  family: entryId('family').nullable(),
  /** Absent where it is not stated. */
  encryption: encryption.optional(),
  way: z.enum(['one-way', 'two-way']).nullable(),
  /** Whether it needs an answer from the receiver to do its work; absent where that is not stated. */
  needsTwoWay: z.boolean().optional(),
  loops: z.array(loop).max(8),
  /** Where it is kept on the panel when it has no zone of its own. */
  slot: z.enum(['none', 'fob', 'keypad', 'siren']),
  /** Ways to make it transmit when learning; `sends` is what the panel then hears. */
  ways: z
    .array(
      z.strictObject({
        way: label,
        sends: z.enum(['event', 'tamper', 'power-up', 'button']),
        /** What the device's own light then does. */
        indicator: label.optional(),
        /** How long it is held or goes on until the device sends, s. */
        seconds: z.number().min(0.1).max(600).optional(),
      }),
    )
    .max(6),
  /** Null for what never does; absent where it is not stated. */
  checkInMinutes: z.number().min(0.1).max(2880).nullable().optional(),
  petKg: z.number().min(0).max(100).nullable(),
  carried: z.boolean(),
  /** Absent where it is not stated. */
  disarms: z.boolean().optional(),
  /** An end that is not stated is absent. */
  temperatureC: z.strictObject({ from: z.number().optional(), to: z.number().optional() }),
  magnetGapMm: z.number().min(1).max(100).nullable(),
  batteries: z
    .strictObject({
      count: z.number().int().min(0).max(12),
      /** Absent where it is not stated. */
      type: label.optional(),
      /** Which way up they go in, as the device shows it. */
      wayUp: label.optional(),
      /** Which of several goes in first, and how fast the others follow. */
      order: label.optional(),
      /** Whether the first insert already sends, and a listening panel learns it. */
      firstInsertLearns: z.boolean().optional(),
    })
    .nullable(),
  equipmentCodes: z
    .array(z.strictObject({ panel: entryId('panel'), code: z.string().min(1).max(12) }))
    .max(20),
  sticker: note.optional(),
  /** Where one has to be to read the sticker: what is inside is read before the cover closes. */
  stickerPlace: z.enum(stickerPlaces).optional(),
  /** Seconds after power-up in which it does not yet answer to what it watches. */
  readyAfterSeconds: z.number().int().min(1).max(3600).optional(),
  /** Seconds after a trip in which it does not send again. */
  sleepsSeconds: z.number().int().min(1).max(3600).optional(),
  note: note.nullable(),
  /** The model that this is a variant of, and what makes it one. */
  variant: z.strictObject({ of: label, how: label }).optional(),
  /** Inputs that the panel switches on or off instead of telling them apart by loop; `on` as shipped. */
  switches: z
    .array(z.strictObject({ switch: z.enum(['reed', 'terminals', 'end-of-line']), on: z.boolean() }))
    .max(3)
    .optional(),
  /** Jumper or menu positions with the heaviest pet each tolerates, kg; `petKg` is the most of them. */
  petSettings: z
    .array(z.strictObject({ setting: label, kg: z.number().min(0).max(100) }))
    .max(4)
    .optional(),
  sensitivity: z.array(label).max(6).optional(),
  outdoor: z.boolean().optional(),
  grade: grade.optional(),
  /** Radiated power, dBm. */
  transmitDbm: z.number().min(-40).max(30).optional(),
  /** °C at which it trips, by event. */
  tripsAtC: z.strictObject({ heat: z.number().optional(), freeze: z.number().optional() }).optional(),
  /**
   * Given where smoke and heat come as one event; `apart` is the model of its family that has them on loops of their own, null
   * where none is made.
   */
  joined: z.strictObject({ apart: entryId('device').nullable() }).optional(),
  /** Stated life of a sensing element that wears out, years. */
  lifeYears: z.number().int().min(1).max(30).optional(),
  /** Whether learning asks for a second transmission. */
  confirm: z.boolean().optional(),
  /** Given when it is no longer made; the successor may use other loops. */
  discontinued: z.strictObject({ successor: entryId('device').nullable() }).optional(),
  price: price.optional(),
})

/** What a pack may hold, by kind of entry. */
export const entrySchema = z.discriminatedUnion('kind', [
  family,
  receiver,
  panelSchema,
  device,
  interfaceSchema,
])

/** A radio family: band, direction, encryption, IDs, check-in. */
export type Family = Readonly<z.infer<typeof family>>
/** A receiver as its maker states it. */
export type ReceiverModel = Readonly<z.infer<typeof receiver>>
/** A device as its maker states it. */
export type DeviceModel = Readonly<z.infer<typeof device>>
/** A panel as its maker states it. */
export type PanelModel = Readonly<z.infer<typeof panelSchema>>
/** How a panel is keyed: its displays, keys and questions, as data. */
export type PanelInterface = Readonly<z.infer<typeof interfaceSchema>>
/** Any entry of a pack. */
export type CatalogueEntry = Family | ReceiverModel | DeviceModel | PanelModel | PanelInterface
/** What a panel does when a zone trips, by mode. */
export type ResponseType = PanelModel['responseTypes'][number]
/** A panel’s field for a time: unit, range, step, reserved values. */
export type DelayField = PanelModel['delays']['entry1']
/** One input or event of a device, with its loop. */
export type LoopEvent = DeviceModel['loops'][number]
/** What labels a panel takes. */
export type LabelRule = PanelModel['label']
