import { z } from 'zod'
import { regions } from '../units/region.ts'

/*
 * What a catalogue pack may say. An entry is immutable and known by its id and the SHA-256 of its canonical JSON.
 * Everything that differs between makers stands here as data; the judges hold the rules.
 */

const label = z.string().min(1).max(80)
const note = z.string().min(1).max(400)
const entryId = (kind: string) =>
  z.string().regex(new RegExp(`^${kind}/[a-z0-9-]{1,60}$`), `must be an id such as ${kind}/…`)
const firmware = z.string().regex(/^\d{1,3}\.\d{1,3}$/, 'must be a version such as 1.20')
const region = z.enum(regions)
const base = {
  version: z.string().min(1).max(20),
  maker: label,
  name: label,
  regions: z.array(region).min(1),
}

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

const family = z.strictObject({
  kind: z.literal('family'),
  id: entryId('family'),
  ...base,
  bandMHz: z.strictObject({ from: z.number().min(1).max(6000), to: z.number().min(1).max(6000) }),
  way: z.enum(['one-way', 'two-way']),
  encryption: z.enum(['none', 'optional', 'always']),
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
    where: note,
  }),
  placement: z.strictObject({
    /** Reading that counts as the best band, and the least that still works, in the unit given. */
    unit: z.string().min(1).max(12),
    best: z.number(),
    least: z.number(),
    readAt: z.enum(['device', 'receiver']),
  }),
  /** Repeaters that one receiver of this family takes, and whether one may relay another; absent when there are none. */
  repeaters: z.strictObject({ most: z.number().int().min(1).max(64), chain: z.boolean() }).optional(),
  /** Minutes a mesh must be left quiet after the last device until its routes settle. */
  settleMinutes: z.number().int().min(1).max(600).optional(),
  /** Minutes a device answers a placement reading after its tamper closed. */
  answerMinutes: z.number().int().min(1).max(600).optional(),
})

const grade = z.union([z.literal(1), z.literal(2), z.literal(3)], 'must be grade 1, 2 or 3')

const receiver = z.strictObject({
  kind: z.literal('receiver'),
  id: entryId('receiver'),
  ...base,
  /** The families it hears, each with the radio firmware it needs. */
  hears: z.array(z.strictObject({ family: entryId('family'), fromFirmware: firmware.nullable() })).min(1),
  transmitters: z.number().int().min(1).max(2000),
  classes: z.array(z.enum(deviceClasses)).min(1),
  /** Whether a setting makes it refuse plain devices. */
  encryptedOnlySetting: z.boolean(),
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

const device = z.strictObject({
  kind: z.literal('device'),
  id: entryId('device'),
  ...base,
  class: z.enum(deviceClasses),
  /** Null for a wired device. */
  family: entryId('family').nullable(),
  encryption: z.enum(['none', 'optional', 'always']),
  way: z.enum(['one-way', 'two-way']).nullable(),
  /** Whether it needs an answer from the receiver to do its work. */
  needsTwoWay: z.boolean(),
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
      }),
    )
    .max(6),
  checkInMinutes: z.number().min(0.1).max(2880).nullable(),
  petKg: z.number().min(0).max(100).nullable(),
  carried: z.boolean(),
  disarms: z.boolean(),
  temperatureC: z.strictObject({ from: z.number(), to: z.number() }),
  magnetGapMm: z.number().min(1).max(100).nullable(),
  batteries: z
    .strictObject({
      count: z.number().int().min(0).max(12),
      type: label,
      /** Which way up they go in, as the device shows it. */
      wayUp: label.optional(),
      /** Whether the first insert already sends, and a listening panel learns it. */
      firstInsertLearns: z.boolean().optional(),
    })
    .nullable(),
  equipmentCodes: z
    .array(z.strictObject({ panel: entryId('panel'), code: z.string().min(1).max(12) }))
    .max(20),
  sticker: note,
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
  /** Stated life of a sensing element that wears out, years. */
  lifeYears: z.number().int().min(1).max(30).optional(),
  /** Whether learning asks for a second transmission. */
  confirm: z.boolean().optional(),
  /** Given when it is no longer made; the successor may use other loops. */
  discontinued: z.strictObject({ successor: entryId('device').nullable() }).optional(),
  price: z
    .strictObject({
      amount: z.number().min(0).max(100_000),
      currency: z.string().regex(/^[A-Z]{3}$/, 'must be a currency code such as EUR'),
      pack: z.number().int().min(1).max(100),
    })
    .optional(),
})

const trip = z.enum(trips)
const responseType = z.strictObject({
  key: z.string().regex(/^[a-z0-9-]{1,40}$/),
  /** What is keyed for it, or the row of a list that is chosen. */
  code: z.string().min(1).max(16),
  name: label,
  kind: z.enum(kinds),
  away: trip,
  stay: trip,
  disarmed: trip,
  /** Only on panels with a night mode. */
  night: trip.optional(),
  /** What a trip does while the exit delay runs, in away and in stay. */
  whileExit: z.strictObject({ away: z.enum(['live', 'ignored']), stay: z.enum(['live', 'ignored']) }),
  sound: z.enum(['siren', 'three-pulse', 'four-pulse', 'tone', 'silent', 'none']),
  transmissionDelayAllowed: z.boolean(),
  /** Of a fire type: how it decides; absent for plain. */
  fire: z.enum(['plain', 'delayed', 'verified']).optional(),
  /** Zone fields that the panel does not ask for this type. */
  hides: z.array(z.enum(['chime', 'report', 'supervise', 'transmissionDelay'])).max(4),
})

const delayField = z.strictObject({
  /** The panel's own name of the field. */
  name: label,
  /** Seconds that one keyed unit stands for. */
  secondsPerUnit: z.number().int().min(1).max(60),
  /** Keyed units. */
  min: z.number().int().min(0).max(9999),
  max: z.number().int().min(0).max(9999),
  step: z.number().int().min(1).max(60),
  /** Keyed values with a meaning of their own, never reached by rounding. */
  reserved: z.array(z.strictObject({ value: z.number().int(), meaning: label })).max(4),
  address: z.string().min(1).max(24),
  /** Given where an option elsewhere switches its unit: the option's name, and the field as it then is. */
  switched: z
    .strictObject({
      option: label,
      secondsPerUnit: z.number().int().min(1).max(60),
      min: z.number().int().min(0).max(9999),
      max: z.number().int().min(0).max(9999),
      step: z.number().int().min(1).max(60),
    })
    .optional(),
  /** How a keyed value is written: as a number, or as minutes and seconds such as 1:30. */
  form: z.enum(['number', 'minutes-seconds']).optional(),
})

const numberBlock = z.strictObject({
  use: z.enum(['wired', 'wireless', 'fob', 'keypad-panic', 'template']),
  from: z.number().int().min(1).max(999),
  to: z.number().int().min(1).max(999),
  /** Present only when this module is fitted. */
  optional: z.boolean(),
  /** The board comes in groups of so many; a started group is kept whole. */
  group: z.number().int().min(1).max(64).optional(),
})

const labelRule = z.discriminatedUnion('style', [
  z.strictObject({
    style: z.literal('library'),
    entries: z.number().int().min(1).max(8),
    words: z
      .array(z.strictObject({ number: z.string().min(1).max(5), text: z.string().min(1).max(24) }))
      .min(1),
  }),
  z.strictObject({
    style: z.literal('text'),
    length: z.number().int().min(4).max(60),
    capitals: z.boolean(),
    characters: z.string().min(10).max(120),
    /** How many lines the length is shown on; absent for one. */
    lines: z.number().int().min(1).max(4).optional(),
    /** Given where the panel shows no label: what carries it instead. */
    insteadOn: label.optional(),
  }),
])

/** Zone fields in a panel's own programming order. */
export const zoneFields = [
  'number',
  'response',
  'equipmentCode',
  'equipmentKind',
  'serial',
  'loop',
  'inputs',
  'area',
  'report',
  'chime',
  'supervise',
  'transmissionDelay',
  'label',
] as const
export type ZoneField = (typeof zoneFields)[number]

const sheetStep = z.strictObject({
  keys: z.string().min(1).max(80),
  shows: z.string().max(120),
  note: z.string().max(300),
})
const programming = z.strictObject({
  wayIn: z.array(sheetStep).min(1),
  wayOut: z.array(sheetStep).min(1),
  /** Panel fields before the zones: delay fields are named here by their key. */
  systemFields: z.array(z.enum(['entry1', 'entry2', 'exit', 'abort'])),
  system: sheetStep,
  /** One step per zone field: {number}, {value} and {meaning} are filled in. */
  zoneStart: sheetStep,
  zone: z.array(z.strictObject({ field: z.enum(zoneFields), ...sheetStep.shape })).min(3),
  zoneEnd: sheetStep,
  /** One step per fob, keypad or siren slot; null when the panel has none to key. */
  slot: z
    .strictObject({
      ...sheetStep.shape,
      addresses: z.strictObject({
        fob: z.string().min(1).max(12),
        keypad: z.string().min(1).max(12),
        siren: z.string().min(1).max(12),
      }),
    })
    .nullable(),
  yes: z.string().min(1).max(12),
  no: z.string().min(1).max(12),
})

const panel = z.strictObject({
  kind: z.literal('panel'),
  id: entryId('panel'),
  ...base,
  style: z.enum([
    'question walk',
    'address and value',
    'section menu',
    'location and option',
    'yes/no menu',
    'touch list',
  ]),
  /** How many digits a zone number is printed with. */
  numberDigits: z.number().int().min(1).max(3),
  blocks: z.array(numberBlock).min(1),
  slots: z.strictObject({
    /** `numbers`: fobs take groups of zone numbers, one per button, from the top of the fob block. */
    fobs: z.strictObject({
      by: z.enum(['slots', 'numbers']),
      count: z.number().int().min(0),
      group: z.number().int().min(1),
    }),
    keypads: z.strictObject({ count: z.number().int().min(0), wireless: z.boolean() }),
    sirens: z.strictObject({ count: z.number().int().min(0), wireless: z.boolean() }),
  }),
  areas: z.strictObject({ count: z.number().int().min(1).max(64), meaning: note }),
  /** Receivers it can have; the built-in one, if any, is always there. */
  receivers: z.array(entryId('receiver')).min(1),
  builtIn: entryId('receiver').nullable(),
  radioFirmware: z.array(firmware).max(12),
  responseTypes: z.array(responseType).min(3),
  equipment: z.strictObject({
    code: z.boolean(),
    kinds: z.array(
      z.strictObject({
        key: z.string().min(1).max(40),
        name: label,
        keyed: z.string().min(1).max(16),
        events: z.array(z.enum(events)),
      }),
    ),
  }),
  delays: z.strictObject({
    entry1: delayField,
    entry2: delayField,
    exit: delayField,
    abort: delayField.nullable(),
  }),
  label: labelRule,
  codes: z.array(z.strictObject({ key: z.string().regex(/^[a-z-]{1,30}$/), name: label })),
  secondDisarmClears: z.boolean(),
  programming,
  /** Given where one panel comes in several variants (size, firmware, country), with where it is read. */
  variant: z.strictObject({ of: label, how: label, readAt: note }).optional(),
  grade: grade.optional(),
  /** How its settings bear on each other; what is absent the panel does not have. */
  couplings: z
    .strictObject({
      /** What a zone in two areas is: common (armed only when all are), or one letter for the full and one for a part set. */
      twoAreas: z.enum(['common', 'full-and-part', 'forbidden']).optional(),
      /** Whether entry and exit delays are kept per area. */
      delaysPerArea: z.boolean().optional(),
      /** Name of the option that turns all zones of stay into entry 2. */
      stayToEntry2: label.optional(),
      exitBy: z
        .array(z.enum(['timer', 'door', 'either']))
        .min(1)
        .max(3)
        .optional(),
      openAtExit: z
        .array(z.enum(['exclude', 'alarm']))
        .min(1)
        .max(2)
        .optional(),
      /** Siren outputs that a zone can drive, where the panel asks per zone. */
      sirenOutputs: z.number().int().min(1).max(8).optional(),
      doubleKnock: z.boolean().optional(),
      /** Groups of detectors for verified fire. */
      fireGroups: z.number().int().min(1).max(16).optional(),
      dayZones: z.enum(['fixed', 'user']).optional(),
      /** A latching key switch disables all other ways to arm. */
      latchingKeySwitch: z.boolean().optional(),
      /** Outputs of the panel: momentary, or held until a code is keyed. */
      outputs: z
        .array(z.enum(['momentary', 'latched']))
        .min(1)
        .max(2)
        .optional(),
      /** Keypad keys with a function of their own. */
      functionKeys: z.array(label).max(8).optional(),
      /** Whether a second entry zone with a shorter delay shortens one that runs; none ever lengthens it. */
      shorterEntryWins: z.boolean().optional(),
      /** End-of-line resistor of wired zones, ohms. */
      endOfLineOhm: z.number().int().min(1).max(100_000).optional(),
    })
    .optional(),
  /** Time the siren sounds and alarms until a zone is shut out, where they are fields of the panel. */
  siren: delayField.optional(),
  swinger: z.strictObject({ from: z.number().int(), to: z.number().int() }).optional(),
  /** Minutes of silence after which a device counts as lost. */
  superviseMinutes: z.number().min(1).max(10_000).optional(),
  /** Repeaters it takes; absent for none. */
  repeaters: z.number().int().min(0).max(64).optional(),
})

export const entrySchema = z.discriminatedUnion('kind', [family, receiver, panel, device])

export type Family = Readonly<z.infer<typeof family>>
export type ReceiverModel = Readonly<z.infer<typeof receiver>>
export type DeviceModel = Readonly<z.infer<typeof device>>
export type PanelModel = Readonly<z.infer<typeof panel>>
export type CatalogueEntry = Family | ReceiverModel | DeviceModel | PanelModel
export type ResponseType = PanelModel['responseTypes'][number]
export type DelayField = PanelModel['delays']['entry1']
export type LoopEvent = DeviceModel['loops'][number]
export type LabelRule = PanelModel['label']
export type EntryKind = CatalogueEntry['kind']
