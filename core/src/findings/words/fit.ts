import type { WordsOf } from '../finding.ts'
import type { FitFacts } from '../fit/rules.ts'
import { lackWords, reasonWords } from './fit-reasons.ts'
import { regionNames } from '../../units/region.ts'
import { here, plural } from './plural.ts'

/** How the rules on fit read. */
export const fitWords: WordsOf<FitFacts> = {
  'no-fit': {
    title: 'device does not fit',
    source: 'Band, protocol, encryption, firmware, class and region of receiver and device',
    says: ({ model, room, reasons }) =>
      `${model}${here(room)} does not work: ${reasons.map(reasonWords).join(' ')}`,
  },
  'receiver-full': {
    title: 'more transmitters than the receiver holds',
    source: 'Capacity of the receiver',
    says: ({ model, room, receivers, beyond, together }) =>
      `No room for ${model}${here(room)}: ${receivers.map(({ name, holds, has }) => (holds === null ? `${name} has ${has}, and how many it holds is not stated` : `${name} holds ${holds} and has ${has}`)).join(', ')}${together === null ? '' : `, together no more than ${together}`}; ${beyond} too many.`,
  },
  'fit-loss': {
    title: 'works with a loss',
    source: 'A plain one-way command can be recorded and sent again',
    says: ({ reasons, variant }) =>
      [
        ...reasons.map(reasonWords),
        ...(variant === null ? [] : [`${variant} encrypts, and would cure that.`]),
      ].join(' '),
  },
  'grade-low': {
    title: 'part below the grade of the system',
    source:
      'EN 50131-1: the lowest component decides the grade of a system (confirm against the edition in force)',
    says: ({ parts, wanted }) => {
      const names = parts.map(({ part, has, devices }) =>
        has === null ? `${part}${ofSo(devices)}` : `${part}${ofSo(devices)} is grade ${has}`,
      )
      return parts[0]?.has === null
        ? `${names.join(', ')} ${plural(parts.length, 'states', 'state')} no grade: whether the system is grade ${wanted} cannot be told.`
        : `${names.join(', ')}: with ${plural(parts.length, 'it', 'them')} the system is no longer grade ${wanted}.`
    },
  },
  'check-in-rare': {
    title: 'checks in too rarely for the grade',
    source: 'EN 50131-5-3: longest time between messages by grade (confirm against the edition in force)',
    says: ({ models, grade, most, source }) =>
      `${models.map(({ model, every, devices }) => `${model}${ofSo(devices)} ${every === null ? 'never checks in' : `checks in every ${every} min`}`).join(', ')}; grade ${grade} wants a message at least every ${most} (${source}).`,
  },
  'fit-unknown': {
    title: 'cannot tell whether it fits',
    source: 'A fact is missing',
    says: ({ reasons }) => reasons.map(reasonWords).join(' '),
  },
  'fit-unstated': {
    title: 'fit hangs on what nobody states',
    source:
      'What an entry leaves open is never taken for the better case: look it up, then correct the entry',
    says: ({ parts }) =>
      `Not stated of ${parts.map(({ part, lacks, devices }) => `${part}${ofSo(devices)}: ${lackWords(lacks)}`).join('; of ')}.`,
  },
  'life-over': {
    title: 'sensing element past its stated life',
    source: 'Smoke and CO elements wear out; the stated life counts from the year of make',
    says: ({ model, room, made, years, until }) =>
      `${model}${here(room)} was made in ${made} to last ${years} years, until ${until}: replace it.`,
  },
  'not-approved': {
    title: 'panel or receiver that is not made for the region',
    source: 'What sends and is wired to the mains is approved by region',
    says: ({ what, name, region, made }) =>
      `The ${what} ${name} is made for ${made.map((one) => regionNames[one]).join(' and ')}, not for ${regionNames[region]}.`,
  },
  discontinued: {
    title: 'new device of a model no longer made',
    source: 'A successor may use other loops: plan it now rather than at the first fault',
    says: ({ model, successor }) =>
      `${model} is no longer made${successor === null ? '' : `; ${successor} follows it`}.`,
  },
  assumed: {
    title: 'equipment described by an assumption',
    source: 'What nobody read or saw may be otherwise: see it, then correct the entry in the catalogue',
    says: ({ entry, asked }) =>
      `Of ${entry} nobody read ${asked.map((one) => `“${one}”`).join(', ')}: ${asked.length === 1 ? 'it was' : 'they were'} assumed.`,
  },
}

/** How many devices it is, where it is more than one. */
function ofSo(devices: number): string {
  return devices === 1 ? '' : ` (${devices} devices)`
}
