import { expect, it } from 'vitest'
import type { LeftOut } from '../../fit/reasons.ts'
import { reasonWords } from '../words/fit-reasons.ts'

/* What is said of each reason, with its figures; what is left open is never said to be something. */

const panel = 'Thatch 24'
const model = 'Dell'
const receiver = 'Dell radio'
const family = 'Dell 8'
const band = '868.3 MHz'

type Facts<C extends LeftOut['code']> = Extract<LeftOut, { code: C }>['facts']
const say = <C extends LeftOut['code']>(code: C, facts: Facts<C>): readonly [string, string] => [
  `${code} ${JSON.stringify(facts)}`,
  reasonWords({ code, verdict: 'no', facts } as unknown as LeftOut),
]
const rarely = { model, grade: 2, most: '120 min', source: 'EN 50131-5-3' }
const checks = { model, panel, most: 240 }

const rows: readonly (readonly [readonly [string, string], string])[] = [
  [say('no-panel', { lacksFamily: null }), 'Cannot tell: no panel is chosen yet: choose one in the survey.'],
  [say('no-panel', { lacksFamily: family }), 'Cannot tell: the catalogue lacks its radio family Dell 8.'],
  [
    say('no-receiver', { family, band }),
    'No receiver is on the job that hears Dell 8 (868.3 MHz). Add one in the kit.',
  ],
  [
    say('band', { family, band, receiver, listens: ['433.92 MHz', '915 MHz'] }),
    'Dell 8 sends on 868.3 MHz; Dell radio listens on 433.92 MHz and 915 MHz.',
  ],
  [say('protocol', { receiver, family }), 'Dell radio hears the same band but not the Dell 8 protocol.'],
  [
    say('firmware', { family, need: '2.10', has: '2.9' }),
    'Dell 8 needs radio firmware 2.10 or newer; this panel has 2.9.',
  ],
  [
    say('firmware', { family, need: '2.10', has: null }),
    'Dell 8 needs radio firmware 2.10 or newer; that of this panel is not read yet: note it in the survey.',
  ],
  [
    say('encryption', { model, receiver }),
    'Dell sends plain and Dell radio is set to encrypted devices only.',
  ],
  [
    say('encryption-optional', { model, receiver }),
    'Dell can encrypt, but falls back to plain with Dell radio.',
  ],
  [say('class', { receiver, deviceClass: 'siren' }), 'Dell radio does not take a siren.'],
  [
    say('kind', { panel, kind: 'gas', event: 'CO', model }),
    'Thatch 24 has no gas type: it cannot take the CO of Dell.',
  ],
  [
    say('one-way', { model, receiver, family }),
    'Dell needs an answer, and Dell radio only listens to Dell 8.',
  ],
  [say('region', { what: model, band: null, region: 'europe' }), 'Dell is not approved for Europe.'],
  [
    say('region', { what: family, band: '345 MHz', region: 'europe' }),
    'Dell 8 on 345 MHz is not a legal band in Europe.',
  ],
  [
    say('code', { panel, model }),
    'Thatch 24 must be told the equipment code of a device, and the catalogue has none for Dell.',
  ],
  [
    say('window', { ...checks, every: 300, lost: true }),
    'Dell checks in every 300 min and Thatch 24 counts it as lost after 240 min.',
  ],
  [
    say('window', { ...checks, every: 100, lost: false }),
    'Dell checks in every 100 min; three of them do not fit in the 240 min after which Thatch 24 counts it as lost.',
  ],
  [say('bridge', { receiver, lost: ['battery'], model }), 'Dell radio passes no battery reports of Dell on.'],
  [
    say('bridge', { receiver, lost: ['battery', 'tamper'], model }),
    'Dell radio passes no battery reports, no tamper of Dell on.',
  ],
  [
    say('grade', { part: model, has: 1, wanted: 2 }),
    'Dell is grade 1: with it the system is no longer grade 2.',
  ],
  [
    say('grade', { part: model, has: null, wanted: 2 }),
    'Dell states no grade: whether the system is grade 2 with it cannot be told.',
  ],
  [
    say('check-in', { ...rarely, every: 130 }),
    'Dell checks in every 130 min; grade 2 wants a message at least every 120 min (EN 50131-5-3).',
  ],
  [
    say('check-in', { ...rarely, every: null }),
    'Dell never checks in; grade 2 wants a message at least every 120 min (EN 50131-5-3).',
  ],
  [
    say('replay', { model }),
    'Dell disarms over a plain one-way link: its command can be recorded and sent again.',
  ],
  [
    say('unstated', { of: [{ part: model, lacks: ['encryption', 'answers', 'disarms'] }] }),
    'Not stated of Dell: whether it encrypts, whether it needs an answer and whether it disarms.',
  ],
  [
    say('unstated', {
      of: [
        { part: model, lacks: ['check-in'] },
        { part: receiver, lacks: ['classes', 'encrypted-only'] },
      ],
    }),
    'Not stated of Dell: how often it checks in; of Dell radio: which classes of device it takes and whether it can be set to encrypted devices only.',
  ],
  [say('chain', { is: 'gone' }), 'The repeater it is reached through is not in the kit.'],
  [say('chain', { is: 'no-repeater', repeater: model }), 'Dell is no repeater: it relays nothing.'],
  [
    say('chain', { is: 'other-family', repeater: 'Loft', relays: 'Fen 4', family }),
    'Loft relays Fen 4 only, not Dell 8.',
  ],
  [
    say('chain', { is: 'other-family', repeater: 'Loft', relays: null, family: null }),
    'Loft relays another family only, not a wired device.',
  ],
  [
    say('chain', { is: 'in-series', repeater: 'Loft', behind: 'Barn', family }),
    'It is reached only through Loft and, behind it, Barn: Dell 8 repeaters do not relay each other.',
  ],
  [
    say('chain', { is: 'in-series', repeater: 'Loft', behind: 'Barn', family: null }),
    'It is reached only through Loft and, behind it, Barn: these repeaters do not relay each other.',
  ],
  [say('slots', { panel, has: null, kind: 'keypad' }), 'Thatch 24 takes wired keypads only.'],
  [say('slots', { panel, has: 0, kind: 'fob' }), 'Thatch 24 takes no fobs.'],
  [say('slots', { panel, has: 1, kind: 'siren' }), 'Thatch 24 holds 1 siren, and another has its place.'],
  [say('slots', { panel, has: 4, kind: 'fob' }), 'Thatch 24 holds 4 fobs and all are taken by others.'],
  [
    say('repeaters', { panel, has: 2, kind: 'repeater' }),
    'Thatch 24 holds 2 repeaters and all are taken by others.',
  ],
  [
    say('zones', { panel, has: 20, use: 'wireless', model, needs: 3, taken: 18 }),
    'Thatch 24 has 20 wireless zone numbers; Dell needs 3 and 18 are taken by others.',
  ],
  [
    say('capacity', { receiver, holds: 40, together: false }),
    'Dell radio holds 40 transmitters and all are taken by others.',
  ],
  [
    say('capacity', { receiver: 'Dell radio and Fen radio', holds: 60, together: true }),
    'Dell radio and Fen radio hold 60 transmitters together, not each its own number, and all are taken by others.',
  ],
  [say('receivers-full', { panel }), 'The receivers of Thatch 24 are full with the others.'],
  [say('no-place-left', { panel, kind: 'keypad' }), 'Thatch 24 has no keypad place left beside the others.'],
  [
    say('numbers-taken', { panel, has: 20, use: 'wireless' }),
    'Thatch 24 has 20 wireless zone numbers and the others take them.',
  ],
  [say('nothing-in-class', { panel }), 'Nothing in the catalogue of its class fits Thatch 24 in its place.'],
  [
    say('nothing-in-class', { panel: null }),
    'Nothing in the catalogue of its class fits the panel in its place.',
  ],
]

it.each(rows)('%s', ([, said], wanted) => expect(said).toBe(wanted))
