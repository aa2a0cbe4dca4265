import type { kinds, trips } from '../catalogue/entry-fields.ts'
import { type Trip } from '../catalogue/entry-fields.ts'
import type { ResponseType } from '../catalogue/schema.ts'
import { choices } from './question.ts'
import type { Answer } from './records.ts'

/*
 * The types of a panel’s zones as behaviour: what a trip does in each mode. Which of them a panel has, by which name and number, is
 * read; what a usual one does is offered, and what panels differ in is asked.
 */

/** A type as it is being described: what nobody stated yet is left open. */
export type TypeRow = {
  readonly [Key in keyof Omit<ResponseType, 'whileExit'>]?: ResponseType[Key] | null
} & { readonly whileExit?: { readonly [Mode in 'away' | 'stay']?: 'live' | 'ignored' | null } }

/** What a trip can do, as it is asked. */
export const tripChoices = choices({
  ignore: 'nothing',
  instant: 'alarm at once',
  'entry-1': 'starts entry delay 1',
  'entry-2': 'starts entry delay 2',
  follow: 'waits while an entry delay runs, else alarm at once',
  alert: 'a sound only, no alarm',
  command: 'a command: sets, unsets, switches',
} satisfies Record<(typeof trips)[number], string>)

/** What an alarm can be about, as it is asked. */
export const kindChoices = choices({
  burglary: 'burglary',
  fire: 'fire',
  gas: 'gas (CO)',
  panic: 'panic',
  medical: 'medical',
  auxiliary: 'frost, water, other watch',
  command: 'a command',
} satisfies Record<(typeof kinds)[number], string>)

/** How it sounds, as it is asked. */
export const soundChoices = choices({
  siren: 'steady siren',
  'three-pulse': 'three pulses (ISO 8201)',
  'four-pulse': 'four pulses',
  tone: 'a tone of its own',
  silent: 'silent',
  none: 'nothing sounds',
} satisfies Record<ResponseType['sound'], string>)

/** What is sounded while leaving, as it is asked. */
export const leavingChoices = choices({ ignored: 'nothing yet', live: 'alarm at once' })

/** How a fire type decides, as it is asked. */
export const fireChoices = choices({
  plain: 'at once',
  delayed: 'after a time to acknowledge it',
  verified: 'when a second detection agrees',
})

/** Fields of a zone that a panel may leave out for a type. */
export const hideChoices = choices({
  chime: 'chime',
  report: 'report',
  supervise: 'supervision',
  transmissionDelay: 'hold before sending',
})

const inMode = (away: Trip, stay: Trip, disarmed: Trip = 'ignore'): TypeRow => ({
  ...{ kind: 'burglary', away, stay, disarmed, sound: 'siren', transmissionDelayAllowed: true, hides: [] },
  // What is instant in a mode is live or not while leaving: the panel decides.
  whileExit: { away: leaving(away), stay: leaving(stay) },
})
const leaving = (trip: Trip): 'ignored' | null => (trip === 'instant' ? null : 'ignored')
const always = (kind: ResponseType['kind'], sound: ResponseType['sound'] | null): TypeRow => ({
  ...{ kind, away: 'instant', stay: 'instant', disarmed: 'instant', sound, hides: [] },
  ...{ transmissionDelayAllowed: false, whileExit: { away: 'live', stay: 'live' } },
})
const command: TypeRow = {
  ...{ kind: 'command', away: 'command', stay: 'command', disarmed: 'command', sound: 'none' },
  ...{ transmissionDelayAllowed: false, whileExit: { away: 'live', stay: 'live' } },
  hides: ['chime', 'report', 'supervise', 'transmissionDelay'],
}

/** A type that many panels have: what it is for, and what a trip then does. */
export interface UsualType {
  readonly title: string
  readonly row: TypeRow
}

/** Types that many panels have. What panels differ in is left open. */
export const usualTypes: readonly UsualType[] = [
  { title: 'Entry door', row: inMode('entry-1', 'entry-1') },
  { title: 'Entry door, second delay', row: inMode('entry-2', 'entry-2') },
  { title: 'Entry door, at once in stay', row: inMode('entry-1', 'instant') },
  { title: 'Window or outer door', row: inMode('instant', 'instant') },
  { title: 'On the way in', row: inMode('follow', 'ignore') },
  { title: 'On the way in, first delay', row: inMode('entry-1', 'ignore') },
  { title: 'On the way in, second delay', row: inMode('entry-2', 'ignore') },
  { title: 'On the way down at night', row: inMode('follow', 'entry-1') },
  { title: 'Inside, away only', row: inMode('instant', 'ignore') },
  { title: 'Day watch', row: inMode('instant', 'instant', 'alert') },
  {
    title: 'Never opened',
    row: { ...always('burglary', 'siren'), transmissionDelayAllowed: true },
  },
  { title: 'Fire', row: always('fire', null) },
  { title: 'Fire, time to acknowledge', row: { ...always('fire', null), fire: 'delayed' } },
  { title: 'Fire, a second detection', row: { ...always('fire', null), fire: 'verified' } },
  { title: 'Gas (CO)', row: always('gas', null) },
  { title: 'Frost and water', row: always('auxiliary', 'tone') },
  { title: 'Panic, heard', row: always('panic', 'siren') },
  { title: 'Panic, silent', row: always('panic', 'silent') },
  { title: 'Medical', row: always('medical', 'tone') },
  { title: 'Button: set away', row: command },
  { title: 'Button: set stay', row: command },
  { title: 'Button: unset', row: command },
  { title: 'Button: an output', row: command },
]

const LEAST = 3

/** What is missing or wrong of the types, by the first type that lacks something; empty where nothing does. */
export function typesProblem(value: NonNullable<Answer['value']>): string {
  if (!Array.isArray(value)) return `must be at least ${LEAST} types`
  const codes = new Map<string, string>()
  for (const [index, one] of value.entries()) {
    const row = (one ?? {}) as TypeRow
    const name = row.name?.trim() ? row.name : `type ${index + 1}`
    const open = openOf(row)
    if (open.length > 0) return `${name} lacks ${open.join(', ')}`
    const other = codes.get(row.code ?? '')
    if (other !== undefined) return `${other} and ${name} are both keyed ${row.code}`
    codes.set(row.code ?? '', name)
  }
  return value.length < LEAST ? `must be at least ${LEAST} types` : ''
}

/** What a type does not say yet, in the words of its questions. */
export function openOf(row: TypeRow): string[] {
  return [
    row.name?.trim() ? '' : 'its name',
    row.code?.trim() ? '' : 'what is keyed for it',
    row.kind ? '' : 'what it is about',
    row.away ? '' : 'what a trip does in away',
    row.stay ? '' : 'what a trip does in stay',
    row.disarmed ? '' : 'what a trip does while unset',
    row.whileExit?.away && row.whileExit.stay ? '' : 'what a trip does while leaving',
    row.sound ? '' : 'how it sounds',
    typeof row.transmissionDelayAllowed === 'boolean' ? '' : 'whether it may be held before sending',
  ].filter((words) => words !== '')
}
