import { z } from 'zod'
import { base, entryId, events, firmware, grade, kinds, label, note, trips } from './entry-fields.ts'

/* What a pack says of a panel: its numbers, response types, delays, couplings and programming texts. */

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
  'sirens',
  'doubleKnock',
  'fireGroup',
  'wiring',
  'dayZone',
  'label',
] as const
/** A field of a zone as panels ask it. */
export type ZoneField = (typeof zoneFields)[number]

const sheetStep = z.strictObject({
  keys: z.string().min(1).max(80),
  shows: z.string().max(120),
  note: z.string().max(300),
})
/** Settings of the whole system that are keyed besides the delays. */
export const settingKeys = [
  'siren',
  'swinger',
  'supervise',
  'exitUnit',
  'exitBy',
  'openAtExit',
  'stayToEntry2',
  'entryBeeps',
  'exitBeeps',
  'outputs',
  'keySwitch',
  'keysOff',
] as const
/** The name of a setting in a panel’s programming texts. */
export type SettingKey = (typeof settingKeys)[number]

const settingStep = z.strictObject({
  setting: z.enum(settingKeys),
  ...sheetStep.shape,
  /** What is keyed for each choice; a number is keyed as it is. */
  values: z.record(z.string().min(1).max(40), z.string().min(1).max(16)).optional(),
})

const programming = z.strictObject({
  wayIn: z.array(sheetStep).min(1),
  wayOut: z.array(sheetStep).min(1),
  /** Panel fields before the zones: delay fields are named here by their key. */
  systemFields: z.array(z.enum(['entry1', 'entry2', 'exit', 'exitStay', 'abort'])),
  system: sheetStep,
  /** One step per setting that the plan changes from how the panel comes, in the panel's order. */
  settings: z.array(settingStep).max(settingKeys.length).optional(),
  /** How the areas of a keypad or fob are keyed: {name}, {number} and {value} are filled in. */
  keypadAreas: sheetStep.optional(),
  /** Moving a zone to another area is two acts: {number} is added to area {value}, then taken out of {value}. */
  areaMove: z.strictObject({ add: sheetStep, remove: sheetStep }).optional(),
  /** How a fob is stored in a keypad instead of the panel: {number} and {value} are filled in. */
  fobInKeypad: sheetStep.optional(),
  /** One step per zone field: {number}, {value} and {meaning} are filled in. */
  zoneStart: sheetStep,
  zone: z
    .array(
      z.strictObject({
        field: z.enum(zoneFields),
        ...sheetStep.shape,
        /** What is keyed for each choice of a field that is chosen from a few. */
        values: z.record(z.string().min(1).max(40), z.string().min(1).max(16)).optional(),
      }),
    )
    .min(3),
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

/** What a pack may say of a panel. */
export const panelSchema = z.strictObject({
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
  /** Whether two receivers of one radio hold their transmitters together; absent where the larger counts for both. */
  receiversAdd: z.boolean().optional(),
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
    /** Exit delay of stay, where it is a field of its own. */
    exitStay: delayField.optional(),
    abort: delayField.nullable(),
  }),
  label: labelRule,
  codes: z.array(z.strictObject({ key: z.string().regex(/^[a-z-]{1,30}$/), name: label })),
  secondDisarmClears: z.boolean(),
  programming,
  /** How it is keyed, for the machine that acts it out; absent where nobody has described it. */
  interface: entryId('interface').optional(),
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
      /** Day zones are those of a response type, or the user's own choice at the keypad among those offered. */
      dayZones: z.enum(['fixed', 'user']).optional(),
      /** Lists of which a zone stands in one only: entering one takes it out of the other. `dayZones` names no type: the zones offered as day zones are in it. */
      typeGroups: z
        .array(
          z.strictObject({
            name: label,
            types: z.array(z.string().min(1).max(40)).max(40),
            dayZones: z.boolean().optional(),
          }),
        )
        .max(12)
        .optional(),
      /** What the exit delay does in stay: the same as in away, a field of its own (`delays.exitStay`), or none at all. */
      exitInStay: z.enum(['same', 'own', 'none']).optional(),
      /** Whether a keypad or fob sets and unsets only the areas it is given. */
      keypadAreas: z.boolean().optional(),
      /** Ways a zone can chime, by key, each with what is keyed; absent where it is on or off. */
      chimeStyles: z
        .array(
          z.strictObject({ key: z.string().min(1).max(40), name: label, keyed: z.string().min(1).max(16) }),
        )
        .min(2)
        .max(12)
        .optional(),
      /** Whether the sound while entry or exit runs can be switched off. */
      beeps: z.boolean().optional(),
      /** Whether a fob can be stored in a keypad instead of the panel. */
      fobsInKeypad: z.boolean().optional(),
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
