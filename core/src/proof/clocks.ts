import type { ProofStop } from './owed.ts'
import { proofRoute } from './owed.ts'
import { openStates, stateAbout, stateRules } from './states.ts'
import { recordOf } from '../job/document.ts'
import { evidenceOf } from '../job/evidence.ts'
import { listensFor, listensUntil } from '../job/told.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import { printNumber } from '../zones/numbers.ts'

/* What runs on a job's clocks: each follows from evidence, so that it counts on over a restart, offline, and for whoever looks. */

/**
 * `learn`: how long the panel listens for what it was told; `answer`: how long a device answers for its reading; `settled`: quiet of a mesh; `average`: a whole day; `battery`: its first day;
 * `state`: a temporary state.
 */
export const clockKinds = ['learn', 'answer', 'settled', 'average', 'battery', 'state'] as const

/** One running clock. */
export interface Clock {
  /** The same as long as it is the same clock, also when it starts anew. */
  readonly id: string
  readonly kind: (typeof clockKinds)[number]
  readonly words: string
  /** When it ends, ISO 8601. A temporary state that is past it stays until somebody ends it. */
  readonly ends: string
  /** What it means when it ends. */
  readonly then: string
}

/** What is left to a moment as it is written on a strip: `12:05`, `1 h 20 min`, `2 days`; empty once it has passed. */
export function leftWords(now: string, ends: string): string {
  const seconds = Math.ceil((Date.parse(ends) - Date.parse(now)) / 1000)
  if (seconds <= 0) return ''
  if (seconds < 3600) return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
  const minutes = Math.ceil(seconds / 60)
  if (minutes < 24 * 60)
    return minutes % 60 === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`
  const hours = Math.ceil(minutes / 60)
  const days = `${Math.floor(hours / 24)} ${hours < 48 ? 'day' : 'days'}`
  return hours % 24 === 0 ? days : `${days} ${hours % 24} h`
}

/**
 * The clocks that run at a time (`now`, ISO 8601), the one that ends first before the others. Total; the answer follows from the job and
 * the time alone.
 */
export function clocksOf({ doc, catalogue }: JobAndCatalogue, now: string): readonly Clock[] {
  const states = openStates(doc).map((state): Clock => {
    const about = stateAbout(doc, catalogue, state)
    const { name, costs } = stateRules[state.kind]
    return {
      ...{ id: state.id, kind: 'state', ends: state.until },
      words: about === '' ? name : `${name}: ${about}`,
      then: `Until it is ended ${costs}.`,
    }
  })
  const stops = proofRoute(doc, catalogue, now)
  const proofs = stops.flatMap((stop): Clock[] => [
    ...settling(stop),
    ...answering(stop, { doc, catalogue }, now),
  ])
  return [
    ...learning({ doc, catalogue }, now),
    ...states,
    ...proofs,
    ...averaging(stops),
    ...charging(stops, now),
  ].sort((a, b) => (a.ends < b.ends ? -1 : a.ends > b.ends ? 1 : 0))
}

/** What the panel listens for: another device that is sent meanwhile is taken for it. */
function learning({ doc, catalogue }: JobAndCatalogue, now: string): Clock[] {
  const told = listensFor(doc, now)
  if (!told) return []
  const { panel, byId } = systemOf(doc, catalogue)
  const zone = recordOf(doc, 'zone', told.subject)
  const item = byId.get(told.subject)
  const slot = item && item.device.slot !== null ? `${item.model.slot} ${item.device.slot}` : 'a device'
  return [
    {
      ...{ id: 'learn', kind: 'learn', ends: listensUntil(told) },
      words: `The panel listens for ${zone ? `zone ${printNumber(panel, zone.number)}` : slot}`,
      then: 'Then it learns nothing more: tell it again before the device is tripped.',
    },
  ]
}

/** The quiet of a mesh, while nothing else is waited for. */
function settling({ items }: ProofStop): Clock[] {
  return items.flatMap(({ kind, from, state }): Clock[] =>
    kind !== 'settled' || from === null || state !== 'waits'
      ? []
      : [
          {
            ...{ id: 'settled', kind, ends: from, words: 'The mesh settles' },
            then: 'Then see that every device is still heard.',
          },
        ],
  )
}

/** The averages of a whole day: one clock for all, until the last can be read. */
function averaging(stops: readonly ProofStop[]): Clock[] {
  const all = stops.flatMap((stop) =>
    stop.items.flatMap(({ kind, from, state }) =>
      kind === 'average' && from !== null && state === 'waits' ? [{ stop, from }] : [],
    ),
  )
  const ends = all.map(({ from }) => from).sort()
  const [last, [only]] = [ends.at(-1), all]
  if (last === undefined || !only) return []
  const of = all.length === 1 ? named(only.stop.title, only.stop.room) : `${all.length} devices`
  return [
    {
      ...{ id: 'average', kind: 'average', ends: last, words: `Average of a whole day: ${of}` },
      then: all.length === 1 ? 'Then read the average.' : 'Then the last of them can be read.',
    },
  ]
}

/** Batteries that were read in their first day: one clock for all, until the last can be read so that it counts. */
function charging(stops: readonly ProofStop[], now: string): Clock[] {
  const all = stops.flatMap((stop) =>
    stop.items.flatMap(({ again }) => (again !== null && again > now ? [{ stop, again }] : [])),
  )
  const [ends, [only]] = [
    all
      .map(({ again }) => again)
      .sort()
      .at(-1),
    all,
  ]
  if (ends === undefined || !only) return []
  const words =
    all.length === 1
      ? `Battery read too early: ${named(only.stop.title, only.stop.room)}`
      : `${all.length} batteries read too early`
  return [
    {
      ...{ id: 'battery', kind: 'battery', ends, words },
      then: 'Then read it once more: in its first day a battery reads well.',
    },
  ]
}

/** A device that answers only for a while after its cover was touched, as long as its reading is owed. */
function answering(stop: ProofStop, { doc, catalogue }: JobAndCatalogue, now: string): Clock[] {
  const family = stop.model && catalogue.get('family', stop.model.family)
  const reading = stop.items.find(({ kind }) => kind === 'placement')
  if (family?.answerMinutes === undefined || family.placement.readAt !== 'device') return []
  if (!reading || reading.state === 'pass') return []
  // Its cover was touched when that was noted as a proof, or when its tamper was heard at Enrol.
  const noted = stop.items.find(({ kind }) => kind === 'tamper')?.results.at(-1)?.at ?? ''
  const heard = evidenceOf(doc, 'heard').filter(
    ({ cause, of }) => cause === 'tamper' && of?.device === stop.id,
  )
  const touched = heard.reduce((last, { at }) => (at > last ? at : last), noted)
  if (touched === '') return []
  const ends = new Date(Date.parse(touched) + family.answerMinutes * 60_000).toISOString()
  if (ends <= now) return []
  return [
    {
      ...{ id: `answer ${stop.id}`, kind: 'answer', ends },
      words: `Answers for its reading: ${named(stop.title, stop.room)}`,
      then: 'Then its cover is opened and closed once more.',
    },
  ]
}

const named = (title: string, room: string): string => [title, room].filter(Boolean).join(', ')
