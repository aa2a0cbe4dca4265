import { expect, it } from 'vitest'
import { fixWords, type FixFacts } from './words/fixes.ts'
import { counted, here, plural } from './words/plural.ts'

/* What each way out is called on its button: what is done, with the figures, and in which number. */

const say = <K extends keyof FixFacts>(does: K, facts: FixFacts[K]): readonly [K, string] => [
  does,
  fixWords[does](facts),
]

const rows = [
  [say('give-number', { number: '07', terminals: [] }), 'Give it 07, the next free number'],
  [
    say('give-number', { number: '07', terminals: [3, 4] }),
    'Give it 07, the next free number, with the terminals of 3, 4 switched off',
  ],
  [say('terminal-off', { terminal: 3 }), 'Switch wired terminal 3 off'],
  [say('set-setting', { setting: 'both doors' }), 'Set it to both doors'],
  [say('leave-slot', {}), 'Take it out of the slot; number again to find a free one'],
  [say('give-slot', { slot: 4 }), 'Give it slot 4, the next free one'],
  [say('swap', { model: 'Dell' }), 'Plan its successor Dell'],
  [say('key-it', {}), 'Key it and learn it like the others'],
  [say('unmap', { keypad: 'Dell' }), 'Do not map the terminal of Dell over it'],
  [say('exit-unit', { seconds: 105 }), 'Count the exit delay in the other unit, which stores 105 s'],
  [say('add-zones', { events: ['heat'] }), 'Add the zone: heat'],
  [say('add-zones', { events: ['heat', 'frost'] }), 'Add 2 zones: heat, frost'],
  [say('add-buttons', { buttons: 1 }), 'Add its button zone'],
  [say('add-buttons', { buttons: 4 }), 'Add its 4 button zones'],
  [say('no-way-in', {}), 'Nobody comes in by it'],
  [say('change-use', { use: 'entry' }), 'Note it as an everyday door'],
  [say('use-type', { type: 'Fire' }), 'Use “Fire”'],
  [say('use-equipment', { value: '318' }), 'Use 318'],
  [say('plan-inputs', { inputs: null }), 'Plan it as it comes'],
  [say('plan-inputs', { inputs: 'reed' }), 'Plan its reed, as its zones have it'],
  [say('listen-to', { inputs: 'both' }), 'Have its zones listen to its reed and its terminals'],
  [say('use-input', { input: 'reed' }), 'Plan the reed for this zone'],
  [say('leave-part-set', {}), 'Take it out of the part set'],
  [say('join-set', { set: 'Night' }), 'Put them into Night'],
  [say('take-zone', { model: 'Dell', room: 'hall' }), 'Give it to Dell in hall'],
  [say('take-zone', { model: 'Dell', room: '' }), 'Give it to Dell'],
  [say('remove-zone', {}), 'Remove the zone'],
  [say('use-loop', { loop: 3 }), 'Use loop 3'],
  [say('send-at-once', {}), 'Send it at once'],
  [say('report', {}), 'Report it'],
  [say('report-like-others', { on: true }), 'Turn it on'],
  [say('report-like-others', { on: false }), 'Turn it off'],
  [say('supervise', {}), 'Supervise it'],
  [say('no-supervision', {}), 'Do not supervise it'],
  [say('input-on', { input: 'reed' }), 'Switch the reed on'],
  [say('end-of-line-off', {}), 'Switch end-of-line off'],
  [say('no-sirens', {}), 'Take it off every siren output'],
  [say('all-sirens', {}), 'Let it drive all of them'],
  [say('chime-off', {}), 'Turn its chime off'],
  [say('one-area', {}), 'Leave it in the first'],
  [say('let-serve', { model: 'Dell', room: 'hall' }), 'Let Dell in hall set it too'],
  [say('area-keyed', {}), 'Both are keyed'],
  [say('first-trip', {}), 'Alarm at the first trip'],
  [say('option-off', {}), 'Turn the option off'],
  [say('key-on', { key: 'fire key' }), 'Leave the fire key on'],
  [say('momentary-key', {}), 'Take a momentary one'],
  [say('beeps', {}), 'Let them sound'],
  [say('pulse-outputs', {}), 'Let them give a pulse'],
  [say('no-day-zone', {}), 'Do not offer it'],
  [say('store-in-panel', {}), 'Store it in the panel'],
  [say('first-chime', {}), 'Take the first one'],
  [say('alarm-at-exit', {}), 'Let it alarm instead'],
  [say('note-resistor', { ohm: 3300 }), 'Note 3300 ohms, once it is fitted'],
  [say('set-delay', { delay: 'entry1', area: null, seconds: 45 }), 'Set the entry delay 1 to 45 s'],
  [
    say('set-delay', { delay: 'exit', area: 'Annexe', seconds: 120 }),
    'Set the exit delay of Annexe to 2 min',
  ],
  [say('siren-time', { seconds: 240 }), 'Let it sound 4 min'],
  [say('shut-out', { alarms: 2 }), 'Shut out after 2'],
  [say('lost-after', { minutes: 240 }), 'Call it lost after 240 min'],
  [say('call-it', { label: 'Hall Motion' }), 'Call it “Hall Motion”'],
  [say('use-label', { label: 'HALL MOTION' }), 'Use “HALL MOTION”'],
] as const

it.each(rows)('%s', ([, said], wanted) => expect(said).toBe(wanted))

it('every way out is held', () => {
  expect(new Set(rows.map(([[does]]) => does))).toEqual(new Set(Object.keys(fixWords)))
})

it('words go with their number, and a place is said where there is one', () => {
  expect([plural(1, 'it', 'them'), plural(2, 'it', 'them'), plural(0, 'it', 'them')]).toEqual([
    'it',
    'them',
    'them',
  ])
  expect([counted(1, 'zone'), counted(2, 'zone'), counted(0, 'zone')]).toEqual([
    '1 zone',
    '2 zones',
    '0 zones',
  ])
  expect([here('hall'), here('')]).toEqual([' in hall', ''])
})
