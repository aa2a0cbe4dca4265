import { z } from 'zod'
import { base, entryId } from './entry-fields.ts'

/* What a pack says of a panel's installer interface: displays, keys, menus, questions. One machine acts it out. */

const name = z.string().regex(/^[a-zA-Z0-9-]{1,24}$/, 'must be a name of letters, digits and hyphens')
const key = z.string().min(1).max(12)
const message = z.string().min(1).max(40)
/** An address of the panel's memory; pointers stand in braces, such as `zone.{zone}.chime`. */
const address = z
  .string()
  .regex(/^[a-zA-Z0-9.{}-]{3,60}$/, 'must be an address such as system.exit or zone.{zone}.chime')
const numbers = z.tuple([z.number().int().min(0).max(999), z.number().int().min(0).max(999)])

/** Fields that a panel does not ask of some response types. */
export const hideableFields = ['chime', 'report', 'supervise', 'transmissionDelay', 'fireGroup'] as const

/** All that it says must hold. */
const guard = z.strictObject({
  /** A pointer is at its first or last number, at one, or from one to another. */
  pointer: z
    .record(name, z.union([z.enum(['first', 'last']), z.number().int().min(0).max(999), numbers]))
    .optional(),
  /** What an address holds; nothing is written as the empty text. */
  at: address.optional(),
  in: z.array(z.string().max(40)).max(60).optional(),
  not: z.array(z.string().max(40)).max(60).optional(),
  /** The response type of the zone pointed at hides this field. */
  hides: z.enum(hideableFields).optional(),
  /** Whether nothing is typed. */
  empty: z.boolean().optional(),
})

const move = z.strictObject({
  when: guard.optional(),
  /** A pointer goes up, down, or to a number. */
  point: z.record(name, z.union([z.literal('+'), z.literal('-'), z.number().int()])).optional(),
  /** Values are put at addresses; the empty text empties one. */
  put: z.record(address, z.string().max(40)).optional(),
  /** `factory` brings back all that was shipped; `clear` drops what is typed, `back` its last sign. */
  do: z
    .array(z.enum(['keep', 'drop', 'clear', 'back', 'listen', 'beep', 'factory']))
    .min(1)
    .max(4)
    .optional(),
  say: message.optional(),
  /** A screen; `>` and `<` for the next and the previous of the walk, `.` for this one opened again. */
  go: z.string().min(1).max(24).optional(),
})
/** Where a key leads: a screen, a move, or the first of several moves whose guard holds. */
const target = z.union([z.string().min(1).max(24), move, z.array(move).min(1).max(12)])

const send = key
const widget = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('menu') }),
  z.strictObject({ kind: z.literal('summary') }),
  /** Typed digits lead to a screen: patterns such as `14`, `{zone}` or `1{zone}`; without `send` once they are all there. */
  z.strictObject({
    kind: z.literal('jump'),
    digits: z.number().int().min(1).max(6),
    send: send.optional(),
    to: z.record(z.string().regex(/^[0-9a-zA-Z{}]{1,24}$/), target),
    none: message,
  }),
  /** Typed digits are the value, or stand for it; without `send` once the most are there. */
  z.strictObject({
    kind: z.literal('number'),
    at: address,
    digits: z.tuple([z.number().int().min(1).max(8), z.number().int().min(1).max(8)]),
    opens: z.enum(['value', 'empty']),
    send: send.optional(),
    then: target,
    bad: message,
    /** A key that empties the value while nothing is typed. */
    empties: key.optional(),
    /** Said where the value belongs to another number already. */
    taken: message.optional(),
  }),
  z.strictObject({ kind: z.literal('yesno'), at: address, yes: key, no: key, then: target }),
  /** A list of values, one on the display at a time. */
  z.strictObject({
    kind: z.literal('choice'),
    at: address,
    opens: z.enum(['first', 'value']),
    take: key,
    next: key,
    previous: key.optional(),
    end: z.enum(['wrap', 'stop']),
    then: target,
  }),
  /** Keys that each turn one value on and off; without `send` each is stored at once. */
  z.strictObject({
    kind: z.literal('options'),
    /** What each key turns: an address that is on or off, or one with other words for lit and out. */
    bits: z.record(
      key,
      z.union([
        address,
        z.strictObject({ at: address, on: z.string().min(1).max(40), off: z.string().min(1).max(40) }),
      ]),
    ),
    /** One of them is on at a time: turning one on turns the others off. */
    one: z.literal(true).optional(),
    send: send.optional(),
    then: target,
  }),
  z.strictObject({
    kind: z.literal('text'),
    at: address,
    length: z.number().int().min(1).max(40),
    opens: z.enum(['value', 'empty']),
    send,
    then: target,
    bad: message,
  }),
  z.strictObject({
    kind: z.literal('words'),
    at: address,
    most: z.number().int().min(1).max(8),
    gap: key,
    send,
    then: target,
    bad: message,
  }),
  /** An ID: typed, or heard in the window that `listen` opens. What is heard brings its loop with it. */
  z.strictObject({
    kind: z.literal('serial'),
    at: address,
    loopAt: address.optional(),
    send,
    /** Seconds that it listens. */
    window: z.number().int().min(5).max(600),
    /** How often the same device must be heard. */
    needs: z.number().int().min(1).max(3),
    then: target,
    bad: message,
    empties: key.optional(),
    taken: message.optional(),
  }),
  z.strictObject({
    kind: z.literal('code'),
    /** Whose code, one of the panel's. */
    who: z.string().regex(/^[a-z-]{1,30}$/),
    send,
    then: target,
    wrong: message,
  }),
  /** It works for a while and takes no key. */
  z.strictObject({ kind: z.literal('busy'), seconds: z.number().int().min(1).max(3600), then: target }),
])

const screen = z.strictObject({
  /** Pointers that it depends on; all others are forgotten when it opens. */
  over: z.array(name).max(3).optional(),
  /** Pointers that it keeps without depending on them. */
  carry: z.array(name).max(3).optional(),
  /** Each line with what is filled in: `{zone}`, `{typed}`, `{buf}`, `{raw}`, `{value}`, `{row}`, `{lit}`, `{@address@}`, `{live:5}`. */
  lines: z.array(z.string().max(80)).min(1).max(4),
  /** It is passed over in the direction of travel while one of these holds. */
  skip: z.array(guard).min(1).max(4).optional(),
  widget,
  /** What to mind here, said once on a sheet. */
  note: z.string().min(1).max(240).optional(),
  /** Keys that act alike everywhere do not act here. */
  alone: z.literal(true).optional(),
  keys: z.record(key, target).optional(),
  holds: z.record(key, z.strictObject({ seconds: z.number().min(0.5).max(30), to: target })).optional(),
})

const form = z.discriminatedUnion('kind', [
  /** A delay, the siren time or the swinger count as the panel's entry states it. */
  z.strictObject({
    kind: z.literal('stated'),
    of: z.enum(['entry1', 'entry2', 'exit', 'exitStay', 'abort', 'siren', 'swinger']),
  }),
  z.strictObject({
    kind: z.literal('number'),
    from: z.number().int().min(0),
    to: z.number().int().max(99_999),
  }),
  /** The response types, equipment kinds or ways to chime of the panel's entry. */
  z.strictObject({ kind: z.literal('of-entry'), list: z.enum(['responseTypes', 'kinds', 'chimeStyles']) }),
  z.strictObject({
    kind: z.literal('list'),
    values: z
      .array(
        z.strictObject({
          value: z.string().min(1).max(40),
          keyed: z.string().min(1).max(12),
          shows: message,
        }),
      )
      .min(2)
      .max(60),
  }),
  z.strictObject({ kind: z.literal('bit'), on: message, off: message }),
  /** Digits as they are typed. */
  z.strictObject({ kind: z.literal('digits') }),
  /** An ID of a family that the panel hears. */
  z.strictObject({ kind: z.literal('serial') }),
  /** A label by the panel's own rule. */
  z.strictObject({ kind: z.literal('label') }),
])

/** What a pack may say of an installer interface. */
export const interfaceSchema = z.strictObject({
  kind: z.literal('interface'),
  id: entryId('interface'),
  ...base,
  display: z.strictObject({
    lines: z.number().int().min(1).max(4),
    columns: z.number().int().min(4).max(40),
    /** Every sign that it can show besides the space. */
    alphabet: z.string().min(10).max(200),
    /** Stands behind what is typed and not sent yet. */
    cursor: z.string().length(1),
    /** The line on which a message covers what stands there, 1-based. */
    messages: z.number().int().min(1).max(4),
  }),
  /** Its keys as they lie, row by row. */
  keys: z.array(z.array(key).min(1).max(8)).min(1).max(8),
  /** How letters are typed: signs of each key in the order of presses. */
  letters: z
    .strictObject({
      keys: z.record(key, z.string().min(1).max(24)),
      /** Ends a letter, so that the same key can begin the next. */
      step: key.optional(),
      /** Seconds after which a letter ends by itself. */
      pause: z.number().min(0.5).max(10).optional(),
      /** In an ID: turns the keys from digits to letters and back. */
      shift: key.optional(),
    })
    .optional(),
  pointers: z.record(
    name,
    z.strictObject({
      from: z.number().int().min(0).max(999),
      to: z.number().int().min(0).max(999),
      /** How many digits it is printed and typed with; absent for as many as it has. */
      digits: z.number().int().min(1).max(3).optional(),
      /** What one step beyond its last number does. */
      ends: z.enum(['wrap', 'stop']),
    }),
  ),
  /** What it holds, by address: the form of its values, and how they come. */
  fields: z.record(address, z.strictObject({ form, factory: z.string().max(40).optional() })),
  /** Addresses that together must differ from those of every other number, once all are there. */
  unique: z.array(z.array(address).min(1).max(3)).max(4).optional(),
  /** Screens in the order of their questions, and where both ends lead. */
  walks: z.record(
    name,
    z.strictObject({ screens: z.array(name).min(2).max(60), after: target, before: target }),
  ),
  screens: z.record(name, screen),
  /** Keys that act alike on all screens that do not have them. */
  common: z.record(key, target),
  /** Whether an answer is kept as it is sent, or all of them when a move says so. */
  keeping: z.enum(['at-once', 'by-zone', 'session']),
  /** Seconds without a key after which it leaves by itself. */
  idle: z.strictObject({ seconds: z.number().int().min(10).max(3600), to: target }).optional(),
  start: name,
})

/** Where a key leads, as a description writes it. */
export type Target = z.infer<typeof target>
/** One way that a target can go. */
export type Move = z.infer<typeof move>
/** When a move or a skip holds. */
export type Guard = z.infer<typeof guard>
/** One display with what its keys do. */
export type Screen = z.infer<typeof screen>
/** What is asked on a screen. */
export type Widget = z.infer<typeof widget>
/** What values an address takes. */
export type Form = z.infer<typeof form>
