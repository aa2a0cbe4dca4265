import { z } from 'zod'
import { houseRulesSchema } from '../house-rules/house-rules.ts'
import { evidence, field, starts } from '../records/declare.ts'
import { id, name, text, time } from '../records/fields.ts'
import { entryId } from './fields.ts'

/*
 * What was observed or vouched for. It is added, and corrected by a later record; never changed, removed or undone. What it
 * points at is a name with a copy of what it named as it then was, never a reference: so evidence never conflicts.
 */

/** A zone as it was when it was learned or proved. */
const zoneAsItWas = z.strictObject({
  zone: id,
  number: z.number().int().min(1).max(999),
  event: text(40).nullable(),
  loop: z.number().int().min(1).max(16).nullable(),
  response: text(40).nullable(),
  area: id.nullable(),
  /** The ID that the panel knew it by; null where it was not learned, or is not part of what was seen. */
  serial: text(20).nullable(),
  /** The entry delay that its trip started, s; null where it started none, or it is not part of what was seen. */
  delay: z.number().int().min(0).max(3600).nullable(),
})

/** A device, its place, its panel and the zones concerned as they were; null where nothing was known of them. */
const asItWas = z.strictObject({
  panel: entryId.nullable(),
  device: id,
  model: entryId,
  room: text(60),
  position: text(80),
  slot: z.number().int().min(1).max(999).nullable(),
  /** The ID that the panel knew the device by in its slot; null as for a zone. */
  serial: text(20).nullable(),
  /** Who carried it; null for nobody. */
  user: id.nullable(),
  zones: z.array(zoneAsItWas).max(32),
})
/** A copy of what a piece of evidence named, as it then was. */
export type AsItWas = Readonly<z.infer<typeof asItWas>>

/** Kinds of proof, in the order in which they are made. */
export const proofKinds = [
  'mount',
  'placement',
  'average',
  'toggle',
  'walk',
  'tester',
  'agent',
  'setting',
  'button',
  'bound',
  'reach',
  'sets',
  'calls',
  'labels',
  'sounds',
  'cutoff',
  'mains',
  'downstream',
  'settled',
  'clock',
  'battery',
  'tamper',
  'armed',
  'clears',
  'home',
  'trip',
  'report',
  'path',
] as const

const any = { may: 'installer', idBy: null, times: [] } as const

/** A transmission heard, an ID read or typed, and what was decided. */
export const heard = evidence({
  ...any,
  type: 'heard',
  words: 'heard transmission',
  stage: 'enrol',
  fields: {
    serial: field('ID', text(20)),
    family: field('family', text(80)),
    cause: field('cause', text(40)),
    /** The loop that was heard; null where the transmission tells none, or nothing was heard. */
    loop: field('loop', z.number().int().min(1).max(16).nullable()),
    /** Level in the unit of its family: bars, steps, per cent or dB. */
    level: field('level', z.number().min(-200).max(1000).nullable()),
    /**
     * Where it comes from: the real panel's display, the sticker, a bridge, the test station; in a practice job everything is
     * practice.
     */
    source: field('source', z.enum(['display', 'sticker', 'bridge', 'station', 'practice'])),
    /** What the display showed, where that was less than the whole ID; null where it showed all. */
    shown: field('as displayed', text(20).nullable()),
    /** How often the same transmission was seen; null where nobody counted. */
    times: field('transmissions seen', z.number().int().min(1).max(99).nullable()),
    /** released: taken out of the panel again, which then knows it no more. */
    decision: field('decision', z.enum(['accepted', 'refused', 'released'])),
    code: field('code', text(40)),
    reason: field('reason', text(300)),
    /** Name of the zone, or of the device in its slot. */
    subject: field('what it was for', text(90)),
    of: field('as it then was', asItWas.nullable()),
  },
})

/** The panel was told to learn something: from then on it listens, for as long as it does. */
export const told = evidence({
  ...any,
  type: 'told',
  words: 'panel told to learn',
  stage: 'enrol',
  fields: {
    /** Name of the zone, or of the device in its slot. */
    subject: field('what it is to learn', text(90)),
    of: field('as it then was', asItWas.nullable()),
    seconds: field('how long it listens', z.number().int().min(5).max(600), 's'),
  },
})

/** What can be done about a device that is not heard, in the order in which it costs more. */
export const rungs = ['again', 'other-way', 'battery', 'variant', 'nearer', 'type'] as const

/** Something that was done because a device was not heard. */
export const tried = evidence({
  ...any,
  type: 'tried',
  words: 'try to be heard',
  stage: 'enrol',
  fields: {
    rung: field('what was tried', z.enum(rungs)),
    /** The way to transmit, as the catalogue calls it; empty where none belongs to it. */
    way: starts('', field('way to transmit', text(80))),
    /** Name of the zone, or of the device in its slot. */
    subject: field('what it was for', text(90)),
    of: field('as it then was', asItWas.nullable()),
  },
})

/** The result of one proof. */
export const test = evidence({
  ...any,
  type: 'test',
  words: 'result',
  stage: 'prove',
  fields: {
    /** Name of the zone, the device or the panel. */
    subject: field('what was tried', text(90)),
    of: field('as it then was', asItWas.nullable()),
    kind: field('kind of proof', z.enum(proofKinds)),
    /** The button that was pressed, by its loop; null for what has none. */
    loop: field('button', z.number().int().min(1).max(16).nullable()),
    /** How it was done, where there is more than one way: with the test button, or supervised only. */
    method: starts('', field('method', text(80))),
    outcome: field('outcome', z.enum(['pass', 'fail', 'inconclusive'])),
    reading: field('reading', z.number().min(-200).max(1000).nullable()),
    /** Where somebody who came home unset: a keypad's name, `fob` or `panel`; empty for every other proof. */
    unsetAt: starts('', field('unset at', text(90))),
    note: starts('', field('note', text(500))),
  },
})

/** How a link was, where no level could be read. */
export const linkWords = ['strong', 'middling', 'weak', 'none'] as const

/** A link tried at a spot of the house, mostly before there is a kit. */
export const spot = evidence({
  ...any,
  type: 'spot',
  words: 'reading at a spot',
  stage: 'survey',
  fields: {
    /** Room or free words. */
    place: field('spot', name(80)),
    /** The family that was tried. */
    family: field('family', entryId),
    /** What was used to try it, in free words; empty where it was not said. */
    used: starts('', field('tried with', text(80))),
    /** Where the powered receiver stood. */
    receiver: field('where the receiver stood', name(80)),
    /** Where a repeater was tried; empty for none. */
    repeater: starts('', field('repeater tried at', text(80))),
    /** Level in the unit of the family, its least to its best known; null where none could be read. */
    reading: field('reading', z.number().min(-200).max(1000).nullable()),
    /** How it was, where no level could be read; null beside a level. */
    link: field('link', z.enum(linkWords).nullable()),
    note: starts('', field('note', text(300))),
  },
})

const stateKind = z.enum([
  'station-on-test',
  'chime-demo',
  'sounder-off',
  'siren-unplugged',
  'tamper-linked',
  'zone-not-used',
  'hardware-watch-off',
  'low-battery',
  'mains-off',
])

/** What the panel holds at some addresses, as somebody keyed it or read it off the display. */
export const held = evidence({
  ...any,
  type: 'held',
  words: 'reading of the panel',
  stage: 'program',
  fields: {
    panel: field('panel', entryId),
    /**
     * keyed: nobody has read it back; seen: the display showed it as expected; typed: written down as it stood there, then compared.
     * Without values: what was not saved was dropped, or the panel was brought back to how it came.
     */
    how: field('how it is known', z.enum(['keyed', 'seen', 'typed', 'dropped', 'wiped'])),
    /** Whether it was read after the panel had saved and started again. */
    saved: field('after saving', z.boolean()),
    /** Name of the section of the sheet that it belongs to. */
    section: field('section', text(90)),
    /** Values by address, as the panel stores them; the empty text where nothing is held. */
    values: field('values', z.array(z.strictObject({ address: text(60), value: text(60) })).max(400)),
  },
})

/** A temporary state, since `at`; `who` does it and may be a colleague of who writes it down. */
export const state = evidence({
  ...any,
  type: 'state',
  words: 'temporary state',
  stage: 'prove',
  times: ['until'],
  fields: {
    kind: field('kind of state', stateKind),
    /** Name of the zone or device that it is about; null for the station or the whole system. */
    about: field('what it is about', text(90).nullable()),
    who: field('who', name(80)),
    why: field('why', name(300)),
    until: field('until', time),
  },
})

/** The end of a temporary state. */
export const stateEnd = evidence({
  ...any,
  type: 'state-end',
  words: 'end of a temporary state',
  stage: 'prove',
  fields: {
    /** Name of the state. */
    state: field('state', id),
    kind: field('kind of state', stateKind),
  },
})

/** Something that a person vouches for. */
export const signoff = evidence({
  ...any,
  type: 'signoff',
  words: 'sign-off',
  stage: 'handover',
  fields: {
    what: field('what', text(60)),
    note: starts('', field('note', text(500))),
    /** Name of the temporary state whose task it says is done; null for other sign-offs. */
    about: field('what it is about', text(90).nullable()),
    /** What the plan keyed then, step by step with a digest of each; null where it vouches for no keying. */
    keyed: field(
      'what was keyed',
      z
        .array(z.strictObject({ step: text(90), digest: text(16) }))
        .max(1000)
        .nullable(),
    ),
  },
})

/** The house rules as they were at hand-over: what the firm decides later leaves this job as it is. */
export const fixedRules = evidence({
  ...any,
  type: 'fixed-rules',
  words: 'set of house rules as of hand-over',
  stage: 'handover',
  fields: { rules: field('rules', houseRulesSchema) },
})

/** Somebody takes a finding upon themselves. It holds for the finding as it then read. */
export const waiver = evidence({
  ...any,
  type: 'waiver',
  words: 'waiver',
  stage: 'handover',
  fields: {
    rule: field('rule', text(60)),
    subject: field('what it is about', text(90)),
    text: field('finding', text(1000)),
    /** The facts it is bound to, as the rule prints them; null for one of before, bound to its sentence. */
    key: field('facts it is bound to', text(1000).nullable()),
    reason: field('reason', name(500)),
  },
})

/** A waiver taken back. */
export const waiverEnd = evidence({
  ...any,
  type: 'waiver-end',
  words: 'end of a waiver',
  stage: 'handover',
  fields: {
    /** Name of the waiver. */
    waiver: field('waiver', id),
    rule: field('rule', text(60)),
    subject: field('what it is about', text(90)),
  },
})
