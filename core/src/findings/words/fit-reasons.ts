import type { FitCode, Lack, LeftOut, ReasonFacts } from '../../fit/reasons.ts'
import { regionNames } from '../../units/region.ts'

const lossNames: Readonly<Record<string, string>> = { battery: 'battery reports' }

/** What each check says, one sentence with the figures used. */
const words: { readonly [K in FitCode]: (facts: ReasonFacts[K]) => string } = {
  'no-panel': ({ lacksFamily }) =>
    lacksFamily === null
      ? 'Cannot tell: no panel is chosen yet: choose one in the survey.'
      : `Cannot tell: the catalogue lacks its radio family ${lacksFamily}.`,
  'no-receiver': ({ family, band }) =>
    `No receiver is on the job that hears ${family} (${band}). Add one in the kit.`,
  band: ({ family, band, receiver, listens }) =>
    `${family} sends on ${band}; ${receiver} listens on ${listens.join(' and ')}.`,
  protocol: ({ receiver, family }) => `${receiver} hears the same band but not the ${family} protocol.`,
  firmware: ({ family, need, has }) =>
    has === null
      ? `${family} needs radio firmware ${need} or newer; that of this panel is not read yet: note it in the survey.`
      : `${family} needs radio firmware ${need} or newer; this panel has ${has}.`,
  encryption: ({ model, receiver }) =>
    `${model} sends plain and ${receiver} is set to encrypted devices only.`,
  'encryption-optional': ({ model, receiver }) =>
    `${model} can encrypt, but falls back to plain with ${receiver}.`,
  class: ({ receiver, deviceClass }) => `${receiver} does not take a ${deviceClass}.`,
  kind: ({ panel, kind, event, model }) =>
    `${panel} has no ${kind} type: it cannot take the ${event} of ${model}.`,
  'one-way': ({ model, receiver, family }) =>
    `${model} needs an answer, and ${receiver} only listens to ${family}.`,
  region: ({ what, band, region }) =>
    band === null
      ? `${what} is not approved for ${regionNames[region]}.`
      : `${what} on ${band} is not a legal band in ${regionNames[region]}.`,
  code: ({ panel, model }) =>
    `${panel} must be told the equipment code of a device, and the catalogue has none for ${model}.`,
  window: ({ model, every, panel, most, lost }) =>
    lost
      ? `${model} checks in every ${every} min and ${panel} counts it as lost after ${most} min.`
      : `${model} checks in every ${every} min; three of them do not fit in the ${most} min after which ${panel} counts it as lost.`,
  bridge: ({ receiver, lost, model }) =>
    `${receiver} passes no ${lost.map((item) => lossNames[item] ?? item).join(', no ')} of ${model} on.`,
  grade: ({ part, has, wanted }) =>
    has === null
      ? `${part} states no grade: whether the system is grade ${wanted} with it cannot be told.`
      : `${part} is grade ${has}: with it the system is no longer grade ${wanted}.`,
  'check-in': ({ model, every, grade, most, source }) =>
    `${model} ${every === null ? 'never checks in' : `checks in every ${every} min`}; grade ${grade} wants a message at least every ${most} (${source}).`,
  replay: ({ model }) =>
    `${model} disarms over a plain one-way link: its command can be recorded and sent again.`,
  unstated: ({ of }) =>
    `Not stated of ${of.map(({ part, lacks }) => `${part}: ${lackWords(lacks)}`).join('; of ')}.`,
  chain: (facts) => {
    if (facts.is === 'gone') return 'The repeater it is reached through is not in the kit.'
    if (facts.is === 'no-repeater') return `${facts.repeater} is no repeater: it relays nothing.`
    if (facts.is === 'absent')
      return `${facts.repeater} ${facts.why === 'deferred' ? 'has no place yet' : 'is to be replaced'}: nothing is reached through it.`
    if (facts.is === 'other-family')
      return `${facts.repeater} relays ${facts.relays ?? 'another family'} only, not ${facts.family ?? 'a wired device'}.`
    return `It is reached only through ${facts.repeater} and, behind it, ${facts.behind}: ${facts.family ?? 'these'} repeaters do not relay each other.`
  },
  repeaters: placeShort,
  slots: placeShort,
  zones: ({ panel, has, use, model, needs, taken }) =>
    `${panel} has ${has} ${use} zone numbers; ${model} needs ${needs} and ${taken} are taken by others.`,
  capacity: ({ receiver, holds, together }) =>
    together
      ? `${receiver} hold ${holds} transmitters together, not each its own number, and all are taken by others.`
      : `${receiver} holds ${holds} transmitters and all are taken by others.`,
}

const lacking: Readonly<Record<Lack, string>> = {
  encryption: 'whether it encrypts',
  answers: 'whether it needs an answer',
  disarms: 'whether it disarms',
  'check-in': 'how often it checks in',
  classes: 'which classes of device it takes',
  transmitters: 'how many transmitters it holds',
  'encrypted-only': 'whether it can be set to encrypted devices only',
}

/** What is not stated of an entry, in a sentence that goes on. */
export function lackWords(lacks: readonly Lack[]): string {
  const words = lacks.map((lack) => lacking[lack])
  return [words.slice(0, -1).join(', '), ...words.slice(-1)].filter(Boolean).join(' and ')
}

function placeShort({ panel, has, kind }: ReasonFacts['slots']): string {
  if (has === null) return `${panel} takes wired ${kind}s only.`
  if (has === 0) return `${panel} takes no ${kind}s.`
  if (has === 1) return `${panel} holds 1 ${kind}, and another has its place.`
  return `${panel} holds ${has} ${kind}s and all are taken by others.`
}

/** Why a device does not fit, fits with a loss or is left out: one sentence with the figures used. */
export function reasonWords(reason: LeftOut): string {
  if (reason.code === 'receivers-full')
    return `The receivers of ${reason.facts.panel} are full with the others.`
  if (reason.code === 'no-place-left')
    return `${reason.facts.panel} has no ${reason.facts.kind} place left beside the others.`
  if (reason.code === 'numbers-taken')
    return `${reason.facts.panel} has ${reason.facts.has} ${reason.facts.use} zone numbers and the others take them.`
  if (reason.code === 'nothing-in-class')
    return `Nothing in the catalogue of its class fits ${reason.facts.panel ?? 'the panel'} in its place.`
  // The table's row and the facts bear the same code, which the compiler cannot follow through a lookup.
  return (words[reason.code] as (facts: typeof reason.facts) => string)(reason.facts)
}
