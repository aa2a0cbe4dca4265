import { delayNames, type DelayKey } from '../../response/delays.ts'
import { inputNames, useNames } from '../../response/use-names.ts'
import type { Inputs, Use } from '../../job/records.ts'
import { formatSeconds } from '../../units/seconds.ts'
import { counted, here, plural } from './plural.ts'

/** What each fix needs to be named. */
export interface FixFacts {
  /** Printed numbers: the one given, and those whose terminals are switched off with it. */
  readonly 'give-number': { readonly number: string; readonly terminals: readonly number[] }
  readonly 'terminal-off': { readonly terminal: number }
  readonly 'set-setting': { readonly setting: string }
  readonly 'leave-slot': Nothing
  readonly 'give-slot': { readonly slot: number }
  readonly swap: { readonly model: string }
  readonly unmap: { readonly keypad: string }
  readonly 'key-it': Nothing
  readonly 'exit-unit': { readonly seconds: number }
  readonly 'add-zones': { readonly events: readonly string[] }
  readonly 'add-buttons': { readonly buttons: number }
  readonly 'no-way-in': Nothing
  readonly 'change-use': { readonly use: Use }
  readonly 'use-type': { readonly type: string }
  /** An equipment code or kind as keyed. */
  readonly 'use-equipment': { readonly value: string }
  /** Null for as the model comes. */
  readonly 'plan-inputs': { readonly inputs: Inputs | null }
  readonly 'listen-to': { readonly inputs: Inputs }
  readonly 'use-input': { readonly input: string }
  readonly 'leave-part-set': Readonly<Record<never, never>>
  readonly 'join-set': { readonly set: string }
  readonly 'take-zone': { readonly model: string; readonly room: string }
  readonly 'remove-zone': Readonly<Record<never, never>>
  readonly 'use-loop': { readonly loop: number }
  readonly 'send-at-once': Nothing
  readonly report: Nothing
  readonly 'report-like-others': { readonly on: boolean }
  readonly supervise: Nothing
  readonly 'no-supervision': Nothing
  readonly 'input-on': { readonly input: 'reed' | 'terminals' }
  readonly 'end-of-line-off': Nothing
  readonly 'no-sirens': Nothing
  readonly 'all-sirens': Nothing
  readonly 'chime-off': Nothing
  readonly 'one-area': Nothing
  readonly 'let-serve': { readonly model: string; readonly room: string }
  readonly 'area-keyed': Nothing
  readonly 'first-trip': Nothing
  readonly 'option-off': Nothing
  readonly 'key-on': { readonly key: string }
  readonly 'momentary-key': Nothing
  readonly beeps: Nothing
  readonly 'pulse-outputs': Nothing
  readonly 'no-day-zone': Nothing
  readonly 'store-in-panel': Nothing
  readonly 'first-chime': Nothing
  readonly 'alarm-at-exit': Nothing
  readonly 'note-resistor': { readonly ohm: number }
  readonly 'set-delay': { readonly delay: DelayKey; readonly area: string | null; readonly seconds: number }
  readonly 'siren-time': { readonly seconds: number }
  readonly 'shut-out': { readonly alarms: number }
  readonly 'lost-after': { readonly minutes: number }
  readonly 'call-it': { readonly label: string }
  readonly 'use-label': { readonly label: string }
}

type Nothing = Readonly<Record<never, never>>

/** What a fix does, as its button says it. */
export const fixWords: { readonly [K in keyof FixFacts]: (facts: FixFacts[K]) => string } = {
  'give-number': ({ number, terminals }) =>
    `Give it ${number}, the next free number${terminals.length > 0 ? `, with the terminals of ${terminals.join(', ')} switched off` : ''}`,
  'terminal-off': ({ terminal }) => `Switch wired terminal ${terminal} off`,
  'set-setting': ({ setting }) => `Set it to ${setting}`,
  'leave-slot': () => 'Take it out of the slot; number again to find a free one',
  'give-slot': ({ slot }) => `Give it slot ${slot}, the next free one`,
  swap: ({ model }) => `Plan its successor ${model}`,
  'key-it': () => 'Key it and learn it like the others',
  unmap: ({ keypad }) => `Do not map the terminal of ${keypad} over it`,
  'exit-unit': ({ seconds }) =>
    `Count the exit delay in the other unit, which stores ${formatSeconds(seconds)}`,
  'add-zones': ({ events }) =>
    `Add ${plural(events.length, 'the zone', `${events.length} zones`)}: ${events.join(', ')}`,
  'add-buttons': ({ buttons }) =>
    buttons === 1 ? 'Add its button zone' : `Add its ${counted(buttons, 'button zone')}`,
  'no-way-in': () => 'Nobody comes in by it',
  'change-use': ({ use }) => `Note it as ${useNames[use]}`,
  'use-type': ({ type }) => `Use “${type}”`,
  'use-equipment': ({ value }) => `Use ${value}`,
  'plan-inputs': ({ inputs }) =>
    inputs === null ? 'Plan it as it comes' : `Plan ${inputNames[inputs]}, as its zones have it`,
  'listen-to': ({ inputs }) => `Have its zones listen to ${inputNames[inputs]}`,
  'use-input': ({ input }) => `Plan the ${input} for this zone`,
  'leave-part-set': () => 'Take it out of the part set',
  'join-set': ({ set }) => `Put them into ${set}`,
  'take-zone': ({ model, room }) => `Give it to ${model}${here(room)}`,
  'remove-zone': () => 'Remove the zone',
  'use-loop': ({ loop }) => `Use loop ${loop}`,
  'send-at-once': () => 'Send it at once',
  report: () => 'Report it',
  'report-like-others': ({ on }) => `Turn it ${on ? 'on' : 'off'}`,
  supervise: () => 'Supervise it',
  'no-supervision': () => 'Do not supervise it',
  'input-on': ({ input }) => `Switch the ${input} on`,
  'end-of-line-off': () => 'Switch end-of-line off',
  'no-sirens': () => 'Take it off every siren output',
  'all-sirens': () => 'Let it drive all of them',
  'chime-off': () => 'Turn its chime off',
  'one-area': () => 'Leave it in the first',
  'let-serve': ({ model, room }) => `Let ${model}${here(room)} set it too`,
  'area-keyed': () => 'Both are keyed',
  'first-trip': () => 'Alarm at the first trip',
  'option-off': () => 'Turn the option off',
  'key-on': ({ key }) => `Leave the ${key} on`,
  'momentary-key': () => 'Take a momentary one',
  beeps: () => 'Let them sound',
  'pulse-outputs': () => 'Let them give a pulse',
  'no-day-zone': () => 'Do not offer it',
  'store-in-panel': () => 'Store it in the panel',
  'first-chime': () => 'Take the first one',
  'alarm-at-exit': () => 'Let it alarm instead',
  'note-resistor': ({ ohm }) => `Note ${ohm} ohms, once it is fitted`,
  'set-delay': ({ delay, area, seconds }) =>
    `Set the ${delayNames[delay]} ${area === null ? '' : `of ${area} `}to ${formatSeconds(seconds)}`,
  'siren-time': ({ seconds }) => `Let it sound ${formatSeconds(seconds)}`,
  'shut-out': ({ alarms }) => `Shut out after ${alarms}`,
  'lost-after': ({ minutes }) => `Call it lost after ${minutes} min`,
  'call-it': ({ label }) => `Call it “${label}”`,
  'use-label': ({ label }) => `Use “${label}”`,
}
