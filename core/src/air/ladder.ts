import type { Catalogue } from '../catalogue/catalogue.ts'
import { wayWords } from '../catalogue/describe.ts'
import type { DeviceModel, Family } from '../catalogue/schema.ts'
import type { JobDocument } from '../job/document.ts'
import { knownBy } from '../job/enrolment.ts'
import { asItIs, evidenceOf, freshEvidence } from '../job/evidence.ts'
import { rungs, type Tried } from '../job/records.ts'
import type { Person } from '../records/fields.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import type { Target } from './learn.ts'

/** Something that can be done about a device that is not heard. */
export type Rung = (typeof rungs)[number]

/** How often a rung was what a model was heard after. */
export interface Helped {
  /** Catalogue id of the model. */
  readonly model: string
  readonly rung: Rung
  readonly times: number
}

const titles: Readonly<Record<Rung, string>> = {
  again: 'The same again',
  'other-way': 'Another way to make it send',
  battery: 'Battery out and in',
  variant: 'Is it the variant that the panel is told?',
  nearer: 'Nearer to the receiver',
  type: 'Type its ID, and prove it by a trip',
}
/** What was tried, as a list of edits names it. */
export const rungNames: Readonly<Record<Rung, string>> = {
  again: 'the same again',
  'other-way': 'another way to send',
  battery: 'battery out and in',
  variant: 'a look at the variant',
  nearer: 'nearer to the receiver',
  type: 'its ID to be typed',
}

/** A rung as it stands for one target. */
export interface LadderRung {
  readonly rung: Rung
  readonly title: string
  /** What to do, in the order in which it is done. */
  readonly how: readonly string[]
  /** The way to transmit that it takes next; empty where none belongs to it. */
  readonly way: string
  /** Seconds to wait before the device can be heard, counted from when it was begun; 0 for none. */
  readonly waitSeconds: number
  /** Times at which it was tried since the target was last heard or taken out. */
  readonly tried: readonly string[]
  /** How often it helped with this model, as far as is known. */
  readonly helped: number
  /** Whether everything that belongs to it was tried. */
  readonly spent: boolean
}

/** The ladder of one target: its rungs, and which comes next. */
export interface Ladder {
  readonly rungs: readonly LadderRung[]
  readonly next: Rung
}

/**
 * Seconds without a battery until what is stored in a device has run off. Kapelle's own figure: leaflets say from a few seconds
 * to a minute, and the catalogue does not state it.
 */
const BATTERY_OUT_SECONDS = 30
/** Tries of the first rung before the next is proposed: one transmission of a one-way device may well be lost. */
const TRIES_AGAIN = { 'one-way': 2, 'two-way': 1 } as const

/** What is known when a device is not heard: the job, the target, and what helped with its model before. */
export interface Unheard extends JobAndCatalogue {
  readonly target: Target
  readonly helped: readonly Helped[]
}

/**
 * What can be tried for a target that is not heard. The device's own first way comes first, since it costs nothing; then what helped
 * with its model before, most often first; then by cost; typing the ID comes last, for it proves nothing. Null for what has no radio.
 */
export function ladderOf({ doc, catalogue, target, helped }: Unheard): Ladder | null {
  const item = systemOf(doc, catalogue).byId.get(target.device.id)
  if (!item?.family) return null
  const { model, family } = item
  const tries = triesOf(doc, target.id)
  const timesHelped = (rung: Rung): number =>
    helped.reduce((sum, one) => sum + (one.model === model.id && one.rung === rung ? one.times : 0), 0)
  const known = { doc, catalogue, model, family, tries }
  const all = rungs.flatMap((rung): LadderRung[] => {
    const own = tries.filter((one) => one.rung === rung)
    const made = makers[rung](known)
    if (!made) return []
    return [{ ...made, rung, title: titles[rung], tried: own.map(({ at }) => at), helped: timesHelped(rung) }]
  })
  const middle = all.slice(1, -1).sort((a, b) => b.helped - a.helped)
  const ordered = [...all.slice(0, 1), ...middle, ...all.slice(-1)]
  return { rungs: ordered, next: ordered.find(({ spent }) => !spent)?.rung ?? 'type' }
}

interface Known extends JobAndCatalogue {
  readonly model: DeviceModel
  readonly family: Family
  readonly tries: readonly Tried[]
}
type Made = Omit<LadderRung, 'rung' | 'title' | 'tried' | 'helped'>

const makers: Readonly<Record<Rung, (known: Known) => Made | null>> = {
  again({ model, family, tries }) {
    const [first] = model.ways
    const power = first?.sends === 'power-up'
    const own = tries.filter(({ rung }) => rung === 'again').length
    const sleeps = model.sleepsSeconds ?? 0
    return {
      how: [
        ...(power ? takenOut(model) : []),
        ...(sleeps > 0
          ? [`Leave it alone for ${sleeps} s first: it sleeps after a trip and sends nothing meanwhile.`]
          : []),
        first ? `${capital(wayWords(first))}.` : 'Make it send as its own sheet says.',
        ...(family.way === 'one-way' ? ['It gets no answer, so not every try is heard.'] : []),
      ],
      way: first?.way ?? '',
      waitSeconds: power ? BATTERY_OUT_SECONDS : sleeps,
      spent: own >= TRIES_AGAIN[family.way],
    }
  },
  'other-way'({ model, tries }) {
    const ways = otherWays(model)
    const done = new Set(tries.filter(({ rung }) => rung === 'other-way').map(({ way }) => way))
    const next = ways.find(({ way }) => !done.has(way)) ?? ways[0]
    if (!next) return null
    const first = model.ways[0]
    const less =
      next.sends === 'tamper' && first?.sends !== 'tamper'
        ? ['If that is heard, the panel knows the device but not its event: the loop is asked for.']
        : []
    return {
      how: [`${capital(wayWords(next))}.`, ...less],
      way: next.way,
      waitSeconds: 0,
      spent: ways.every(({ way }) => done.has(way)),
    }
  },
  battery({ model, tries }) {
    const out = takenOut(model)
    // Where power is its first way, that is the first rung.
    if (out.length === 0 || model.ways[0]?.sends === 'power-up') return null
    const power = model.ways.find(({ sends }) => sends === 'power-up')
    const ready = model.readyAfterSeconds ?? 0
    const first = model.ways[0]
    return {
      how: [
        ...out,
        power
          ? `${capital(wayWords(power))}: that alone already sends.`
          : 'Put it in again, the right way round.',
        ...(ready > 0 ? [`Wait ${ready} s: until then it does not answer to what it watches.`] : []),
        ...(first ? [`Then ${first.way}.`] : []),
      ],
      way: power?.way ?? '',
      waitSeconds: BATTERY_OUT_SECONDS + ready,
      spent: tries.some(({ rung }) => rung === 'battery'),
    }
  },
  variant({ doc, catalogue, model, tries }) {
    const { panel } = systemOf(doc, catalogue)
    const code = model.equipmentCodes.find((one) => one.panel === panel?.id)?.code
    const alike = mistakable(catalogue, model)
    if (code === undefined && alike.length === 0) return null
    const named = (one: DeviceModel): string =>
      `${one.name} (${catalogue.get('family', one.family)?.name ?? 'wired'}${one.encryption === 'always' ? ', encrypted' : ''})`
    return {
      how: [
        `The plan has ${named(model)} here: read the model on its label.`,
        ...(code === undefined
          ? []
          : [`${panel?.name ?? 'The panel'} is told equipment code ${code} for it.`]),
        ...(alike.length === 0 ? [] : [`Easily taken for it: ${alike.map(named).join(', ')}.`]),
      ],
      way: '',
      waitSeconds: 0,
      spent: tries.some(({ rung }) => rung === 'variant'),
    }
  },
  nearer({ family, model, tries }) {
    const relayed = family.repeaters !== undefined || family.topology === 'mesh'
    return {
      how: [
        `Take it within sight of the receiver${relayed ? ' or of a repeater that is learned already' : ''}, a metre or more away, and make it send there.`,
        ...(model.class === 'repeater'
          ? ['A repeater that is learned there goes to its place afterwards.']
          : []),
        'Heard there only, its place is the fault: read its level there before it is fixed.',
      ],
      way: model.ways[0]?.way ?? '',
      waitSeconds: 0,
      spent: tries.some(({ rung }) => rung === 'nearer'),
    }
  },
  type: ({ tries }) => ({
    how: [
      'Type or scan its sticker and accept it as typed. It was not heard: a trip at its place must prove it.',
    ],
    way: '',
    waitSeconds: 0,
    spent: tries.some(({ rung }) => rung === 'type'),
  }),
}

/** Taking the power from a device, in words; none where it has no battery of its own. */
function takenOut({ batteries, class: kind, ways }: DeviceModel): string[] {
  if (!batteries || batteries.count === 0) return []
  const supply = ways.some(({ way }) => way.includes('supply'))
  const loud = kind === 'siren' ? ['It may sound when power comes on: ears protected, nobody beside it.'] : []
  return [
    ...loud,
    `${supply ? 'Unplug its supply and take' : 'Take'} ${batteries.count > 1 ? `all ${batteries.count} batteries` : 'the battery'} out for ${BATTERY_OUT_SECONDS} s, or as long as its own sheet says.`,
  ]
}

/** Ways besides the first that do not begin with the battery. */
function otherWays({ ways }: DeviceModel): DeviceModel['ways'] {
  return ways.slice(1).filter(({ sends }) => sends !== 'power-up')
}

/** Models that may lie in the box instead: what this is a variant of, its other variants, and variants of this. */
function mistakable(catalogue: Catalogue, model: DeviceModel): DeviceModel[] {
  const bases = new Set([model, ...catalogue.all('device')].flatMap(({ variant }) => variant?.of ?? []))
  const own = [...bases].find((base) => model.variant?.of === base || isCalled(model, base))
  if (own === undefined) return []
  return catalogue
    .all('device')
    .filter(
      (one) =>
        one.id !== model.id &&
        one.class === model.class &&
        one.slot === model.slot &&
        (one.variant?.of === own || isCalled(one, own)),
    )
}

/** Whether a name is the base's own, perhaps with the kind of thing in small letters behind it; a name of its own is not. */
function isCalled({ name }: DeviceModel, base: string): boolean {
  return name === base || (name.startsWith(`${base} `) && /^[a-z -]+$/.test(name.slice(base.length + 1)))
}

function capital(words: string): string {
  return words.charAt(0).toUpperCase() + words.slice(1)
}

/** What was tried for a target since it was last accepted or taken out, in the order of its time. */
function triesOf(doc: JobDocument, subject: string): readonly Tried[] {
  const decided = evidenceOf(doc, 'heard').filter(
    (one) => one.subject === subject && one.decision !== 'refused',
  )
  const last =
    decided
      .map(({ at }) => at)
      .sort()
      .at(-1) ?? ''
  return byTime(evidenceOf(doc, 'tried').filter((one) => one.subject === subject && one.at > last))
}

/** The record of something tried for a target. */
export function triedRecord(
  doc: JobDocument,
  opts: {
    readonly id: string
    readonly target: Target
    readonly rung: Pick<LadderRung, 'rung' | 'way'>
    readonly who: Person
    readonly at: string
  },
): Tried {
  const { id, target, rung, who, at } = opts
  return {
    ...freshEvidence(who, at),
    ...{ id, type: 'tried', rung: rung.rung, way: rung.way },
    ...{ subject: target.id, of: asItIs(doc, target.id) },
  }
}

/**
 * What helped in this job: of each target that was heard after something was tried for it, the last that was tried before, by its model
 * as it then was. What was typed was not heard, so that nothing helped.
 */
export function helpedIn(doc: JobDocument): Helped[] {
  const tries = evidenceOf(doc, 'tried')
  const counts = new Map<string, Helped>()
  for (const subject of new Set(tries.map((one) => one.subject))) {
    const own = tries.filter((one) => one.subject === subject)
    const heard = byTime(
      evidenceOf(doc, 'heard').filter((one) => one.subject === subject && one.decision !== 'refused'),
    )
    let since = ''
    for (const one of heard) {
      const last = byTime(own.filter(({ at }) => at > since && at <= one.at)).at(-1)
      since = one.at
      if (!last || last.of?.model !== one.of?.model || one.decision !== 'accepted') continue
      const model = last.of?.model
      if (model === undefined || knownBy(one) !== 'heard') continue
      const key = `${model} ${last.rung}`
      const before = counts.get(key)?.times ?? 0
      counts.set(key, { model, rung: last.rung, times: before + 1 })
    }
  }
  return [...counts.values()].sort((a, b) => (a.model + a.rung < b.model + b.rung ? -1 : 1))
}

function byTime<T extends { readonly at: string }>(list: readonly T[]): T[] {
  return [...list].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
}
