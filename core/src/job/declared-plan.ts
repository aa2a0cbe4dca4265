import { z } from 'zod'
import { atStage, field, fixed, namedPlan, plan, reference, starts } from '../records/declare.ts'
import { id, name, order, text, time } from '../records/fields.ts'
import { regions } from '../units/region.ts'
import { entryId, pinId, pinned, pinnedEntryId, seconds, serial } from './fields.ts'

/* What a job plans: its facts, pins, areas, receivers, devices, zones, wired terminals, users, departures. */

/** How a device's place bears on the way in: it decides the response its zone needs. */
const uses = [
  'entry',
  'entry-far',
  'entry-not-in-stay',
  'opening',
  'inner-way',
  'sees-entry',
  'on-way',
  'on-way-night',
  'off-way',
  'always-on',
  'none',
] as const
/** Inputs of a contact that has a reed and terminals for a wired one. */
const inputs = ['reed', 'terminals', 'both'] as const
/** Which of its inputs a contact uses. */
export type Inputs = (typeof inputs)[number]
/** How a place bears on the way in. */
export type Use = (typeof uses)[number]

const any = { may: 'installer', removable: true, idBy: null } as const
const number999 = z.number('must be a whole number from 1 to 999').int().min(1).max(999)

/** The facts of the job and the settings of its panel. */
export const job = plan({
  type: 'job',
  words: 'job',
  stage: 'survey',
  may: 'installer',
  removable: false,
  idBy: () => 'job:main',
  fields: {
    name: field('name', name(120)),
    address: starts('', field('address', text(200))),
    region: field('region', z.enum(regions)),
    kind: field('kind of job', z.enum(['new', 'takeover'])),
    monitored: field('monitored', z.boolean()),
    grade: field('grade', z.union([z.literal(1), z.literal(2), z.literal(3)], 'must be grade 1, 2 or 3')),
    slowest: starts('ordinary', field('slowest person', z.enum(['ordinary', 'slow']))),
    /** Pace of the slowest person as it was timed at the house, m/s; null while only the figure of the house rules is known. */
    pace: field(
      'pace as timed',
      z.number('must be a pace from 0.1 to 3 m/s').min(0.1).max(3).nullable(),
      'm/s',
    ),
    petKg: field('heaviest pet', z.number().min(0).max(100).nullable(), 'kg'),
    wishes: starts('', field('wishes', text(2000))),
    panel: reference('panel', entryId.nullable(), pinned),
    /** Whether the panel came new, was used elsewhere before, or hung there already and stays; null until somebody says. */
    panelCame: field('how the panel came', z.enum(['new', 'used', 'there']).nullable()),
    radioFirmware: field(
      'radio firmware',
      z
        .string()
        .regex(/^\d{1,3}\.\d{1,3}$/, 'must be a version such as 1.20')
        .nullable(),
    ),
    entry1: atStage('zones', field('entry delay 1', seconds.nullable(), 's')),
    entry2: atStage('zones', field('entry delay 2', seconds.nullable(), 's')),
    exit: atStage('zones', field('exit delay', seconds.nullable(), 's')),
    /** Exit delay of stay, where the panel keeps one of its own. */
    exitStay: atStage('zones', field('exit delay of stay', seconds.nullable(), 's')),
    /** Whether a listing or certificate holds the entry delay and the hold before sending to a sum. */
    listed: starts(false, field('listing or certificate', z.boolean())),
    abortWindow: atStage('zones', field('hold before sending', seconds.nullable(), 's')),
    /** Whether the panel's option is on that switches the unit of the exit delay. */
    exitUnitSwitched: atStage('zones', starts(false, field('exit delay in the other unit', z.boolean()))),
    /** Time the siren sounds; null where it is left as the panel comes. */
    sirenSeconds: atStage('zones', field('siren time', seconds.nullable(), 's')),
    /** Alarms of one zone until it is shut out for the set period; null where left as it comes. */
    swinger: atStage('zones', field('swinger shutdown', z.number().int().min(0).max(15).nullable(), 'trips')),
    /** Silence after which the panel calls a device lost; null where left as it comes. */
    superviseMinutes: atStage(
      'zones',
      field('supervision window', z.number().int().min(0).max(10_000).nullable(), 'min'),
    ),
    /** What ends the exit time; null where the panel knows one way only. */
    exitBy: atStage('zones', field('end of exit', z.enum(['timer', 'door', 'either']).nullable())),
    /** What becomes of a zone that is open when the exit time ends. */
    openAtExit: atStage(
      'zones',
      field('zone open at the end of exit', z.enum(['exclude', 'alarm']).nullable()),
    ),
    /** Whether the panel's option is on that turns all zones of stay into entry 2. */
    stayToEntry2: atStage('zones', starts(false, field('stay zones to entry 2', z.boolean()))),
    /** A key switch that sets the system: none, momentary, or latching. */
    keySwitch: atStage(
      'zones',
      starts('none', field('key switch', z.enum(['none', 'momentary', 'latching']))),
    ),
    /** Whether keypads sound while entry and exit run; null where left as it comes. */
    entryBeeps: atStage('zones', field('sound while entry runs', z.boolean().nullable())),
    exitBeeps: atStage('zones', field('sound while exit runs', z.boolean().nullable())),
    /** Whether outputs give a pulse or stay on until a code is keyed; null where left as it comes. */
    outputs: atStage('zones', field('outputs', z.enum(['momentary', 'latched']).nullable())),
    /** Keypad function keys that are switched off, by the panel's names. */
    keysOff: atStage('zones', starts([], field('keypad keys switched off', z.array(text(40)).max(8)))),
    /** Coldest and hottest of unheated rooms; null for the usual −10 and 45. */
    unheatedFrom: atStage(
      'zones',
      field('coldest of unheated rooms', z.number().min(-60).max(40).nullable(), '°C'),
    ),
    unheatedTo: atStage(
      'zones',
      field('hottest of unheated rooms', z.number().min(0).max(90).nullable(), '°C'),
    ),
    /** A practice job hears simulated air only, and nothing of it counts as real; a real one never hears it. */
    practice: starts(false, fixed('practice job', z.boolean())),
    /** How a practice job's air behaves: as planned, or with the surprises of a real house. */
    exercise: starts('plain', field('exercise', z.enum(['plain', 'surprises']))),
    airSeed: atStage('enrol', field('seed of the simulated air', z.number().int().min(0).max(4294967295))),
    airStartedAt: atStage('enrol', field('listening since', time.nullable())),
  },
})

/** The catalogue entry that a job is judged by. */
export const pin = plan({
  type: 'pin',
  words: 'pinned catalogue entry',
  stage: 'kit',
  may: 'installer',
  removable: true,
  idBy: (record) => pinId(String(record.entry)),
  fields: {
    entry: field('entry', pinnedEntryId),
    hash: field('hash', z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in 64 hexadecimal digits')),
  },
})

/** An area of the panel. */
export const area = plan({
  ...any,
  type: 'area',
  words: 'area',
  stage: 'zones',
  fields: {
    number: field('number', z.number().int().min(1).max(64)),
    name: field('name', name(60)),
    /** Delays of its own, where the panel keeps them per area; null for those of the job. */
    entry1: field('entry delay 1', seconds.nullable(), 's'),
    entry2: field('entry delay 2', seconds.nullable(), 's'),
    exit: field('exit delay', seconds.nullable(), 's'),
    exitStay: field('exit delay of stay', seconds.nullable(), 's'),
    order: field('place in the list', order),
  },
})

/** A receiver besides the built-in one. */
export const receiver = plan({
  ...any,
  type: 'receiver',
  words: 'receiver',
  stage: 'kit',
  fields: {
    model: reference('model', entryId, pinned),
    room: field('room', text(60)),
    encryptedOnly: field('encrypted only', z.boolean()),
    order: field('place in the list', order),
  },
})

/** A device of the kit in its place. */
export const device = plan({
  ...any,
  type: 'device',
  words: 'device',
  stage: 'kit',
  fields: {
    model: reference('model', entryId, pinned),
    room: starts('', field('room', text(60))),
    position: starts('', field('position', text(80))),
    deferred: field('why it is deferred', name(200).nullable()),
    use: starts('none', field('use of its place', z.enum(uses))),
    /** Which inputs of a contact are used; null for as it comes: its reed, or its switches as shipped. */
    inputs: field('inputs used', z.enum(inputs).nullable()),
    existing: starts(false, field('there before', z.boolean())),
    /** Of a device that was there before: what becomes of it; null until decided. */
    plan: field('what becomes of it', z.enum(['keep', 'replace']).nullable()),
    /** The year it was made, as its sticker says; null where unknown. */
    madeYear: field(
      'year it was made',
      z.number('must be a year from 1980 to 2100').int().min(1980).max(2100).nullable(),
    ),
    /** The day its batteries were last changed, as 2026-03-31; null where unknown. */
    batteryAt: field(
      'day of its batteries',
      z
        .string()
        .regex(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, 'must be a day such as 2026-03-31')
        .nullable(),
    ),
    sticker: field('ID on the sticker', serial.nullable()),
    /** The noted sticker was written in from a typed ID by an earlier build: nobody read it off the device. */
    stickerUnsure: starts(false, field('sticker unconfirmed', z.boolean())),
    slot: field('slot', z.number().int().min(1).max(999).nullable()),
    user: reference('user', id.nullable()),
    /** The opening it guards; null where it guards none, or it was not said. */
    opening: reference('opening it guards', id.nullable()),
    /** The repeater through which alone it is reached; null when the receiver hears it. */
    via: reference('repeater', id.nullable()),
    /** Panel number that a keypad's own terminal is mapped over; null for none. */
    mappedOver: field('number its terminal is mapped over', number999.nullable()),
    /** When it was last hung at another place, ISO 8601: what was proved before is owed anew; null for never. */
    movedAt: field('moved at', time.nullable()),
    /** Height of the sensor over the floor. */
    heightM: field('height', z.number('must be a height from 0 to 10 m').min(0).max(10).nullable(), 'm'),
    /** Measured gap of contact and magnet. */
    gapMm: field('gap', z.number('must be a gap from 0 to 200 mm').min(0).max(200).nullable(), 'mm'),
    /** Whether it sits on steel. */
    onSteel: starts(false, field('on steel', z.boolean())),
    /** Where a fob is stored; null for the school in force. */
    storedIn: field('where it is stored', z.enum(['panel', 'keypad']).nullable()),
    /** Chosen pet setting or sensitivity of the model, by its name. */
    setting: field('setting', text(40).nullable()),
    order: field('place in the list', order),
  },
})

/** A zone of the panel. */
export const zone = plan({
  ...any,
  type: 'zone',
  words: 'zone',
  stage: 'zones',
  fields: {
    number: field('number', number999),
    device: reference('device', id.nullable()),
    event: field('event', text(40).nullable()),
    loop: field('loop', z.number().int().min(1).max(16).nullable()),
    response: field('response', text(40).nullable()),
    area: reference('area', id.nullable()),
    equipmentCode: field('equipment code', text(12).nullable()),
    equipmentKind: field('equipment kind', text(40).nullable()),
    existing: starts(false, field('existing device', z.boolean())),
    /** The panel keeps it as it is: it is not keyed and not learned again, and proved all the same. */
    asProgrammed: starts(false, field('left as programmed', z.boolean())),
    chime: starts(false, field('chime', z.boolean())),
    report: starts(false, field('report', z.boolean())),
    supervise: starts(false, field('supervision', z.boolean())),
    transmissionDelay: starts(false, field('hold before sending', z.boolean())),
    label: starts('', field('label', text(60))),
    pinned: starts(false, field('keeps its number', z.boolean())),
    /** A second area of a zone that is common to both; null for none. */
    area2: reference('second area', id.nullable()),
    /** The area that the panel still has it in, until the move is keyed: added there, removed here; null when settled. */
    leaves: reference('area it leaves', id.nullable()),
    /** How it chimes, where the panel has several ways; null for the first. */
    chimeStyle: field('way of chiming', text(40).nullable()),
    /** Offered to the user as a day zone, where the panel leaves the choice to them. */
    dayZone: starts(false, field('day zone', z.boolean())),
    /** Inputs of a contact whose panel switches them on and off instead of telling loops apart; null elsewhere. */
    reedOn: field('reed on', z.boolean().nullable()),
    terminalsOn: field('terminals on', z.boolean().nullable()),
    endOfLineOn: field('end-of-line on', z.boolean().nullable()),
    /** Siren outputs that it drives, where the panel asks; null for all. */
    sirens: field('siren outputs', z.array(z.number().int().min(1).max(8)).max(8).nullable()),
    doubleKnock: starts(false, field('double knock', z.boolean())),
    /** Group of detectors that must agree, for verified fire. */
    fireGroup: field('fire group', z.number('must be a group from 1 to 16').int().min(1).max(16).nullable()),
    /** Written reason for what departs from the rule, such as a delayed fire alarm. */
    reason: starts('', field('reason', text(300))),
    /** How a wired zone is wired, and its end-of-line resistor. */
    wiring: field('wiring', z.enum(['closed', 'open', 'end-of-line', 'double']).nullable()),
    resistorOhm: field(
      'resistor',
      z.number('must be from 1 to 100000 ohms').min(1).max(100_000).nullable(),
      'Ω',
    ),
  },
})

/** A wired terminal of the panel. */
export const terminal = plan({
  ...any,
  type: 'terminal',
  words: 'wired terminal',
  stage: 'zones',
  fields: {
    number: field('number', z.number().int().min(1).max(999)),
    state: field('state', z.enum(['live', 'off', 'sealed'])),
  },
})

/** A user of the system. */
export const user = plan({
  ...any,
  type: 'user',
  words: 'user',
  stage: 'zones',
  fields: { name: field('name', name(60)), order: field('place in the list', order) },
})

/** The job goes by another school than its firm, and why. */
export const departure = namedPlan({
  ...any,
  type: 'departure',
  words: 'departure from a house rule',
  stage: 'survey',
  fields: {
    rule: field('rule', text(40)),
    choice: field('choice', text(40)),
    reason: field('reason', name(500)),
  },
})
