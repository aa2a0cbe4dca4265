import { jobInfo } from '../job/document.ts'
import type { TestResult } from '../job/records.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import { formatSeconds } from '../units/seconds.ts'
import type { ProofItem, ProofStop } from './owed.ts'
import { openState } from './states.ts'

/*
 * The walk test of a whole house: every sensor is tripped once on one round, and the panel tells which it heard. It shows that trips
 * arrive, no more; what was not heard says why before it counts as failed.
 */

/** One trip of the round. */
export interface WalkTrip {
  readonly stop: ProofStop
  readonly item: ProofItem
  /** How long its motion sleeps after a trip that nobody woke it from, s, 0 where nobody stated it; null for what never sleeps. */
  readonly sleeps: number | null
}

/** Why a trip was not heard, as far as somebody can tell. */
export type NotHeardWhy = 'asleep' | 'shut-out' | 'sounder' | 'awake'

/** The walk test as it stands. */
export interface WalkRun {
  /** What is tripped, in the order of the round; what passed already is not in it. */
  readonly trips: readonly WalkTrip[]
  /** What cannot be tripped yet, with its reason. */
  readonly left: readonly { readonly stop: ProofStop; readonly item: ProofItem; readonly why: string }[]
  /** After how many trips the panel shuts a zone out until it is unset; null where it does not, or nobody has said. */
  readonly shutsOutAfter: number | null
  /** Why no trip would tell anything now; empty where each would. */
  readonly blocked: string
}

/** The walk test of a route: what opens and closes, and what sees people move. Total; follows from the job alone. */
export function walkRun({ doc, catalogue }: JobAndCatalogue, route: readonly ProofStop[]): WalkRun {
  const { byId } = systemOf(doc, catalogue)
  const owed = route.flatMap((stop) =>
    stop.items
      .filter(({ kind, state }) => (kind === 'walk' || kind === 'toggle') && state !== 'pass')
      .map((item) => ({ stop, item })),
  )
  const { swinger } = jobInfo(doc)
  return {
    trips: owed
      .filter(({ item }) => item.waits === '')
      .map(({ stop, item }) => {
        const device = byId.get(stop.id)
        const dozes = device?.model.class === 'motion' && device.family?.way === 'one-way'
        return { stop, item, sleeps: dozes ? (device.model.sleepsSeconds ?? 0) : null }
      }),
    left: owed.filter(({ item }) => item.waits !== '').map((one) => ({ ...one, why: one.item.waits })),
    shutsOutAfter: swinger === null || swinger === 0 ? null : swinger,
    blocked: openState(doc, 'sounder-off')
      ? 'A keypad sounder is noted as off: the walk would tell nothing. Switch it on and end that state first.'
      : '',
  }
}

/** Why a trip may not have been heard, what is most likely first; that it was awake and missed comes last. */
export function whyNotHeard(run: WalkRun, { sleeps }: WalkTrip): readonly NotHeardWhy[] {
  return [
    ...(sleeps === null ? [] : (['asleep'] as const)),
    ...(run.shutsOutAfter === null ? [] : (['shut-out'] as const)),
    'sounder',
    'awake',
  ]
}

/** What a trip that was not heard comes to: only one that was awake, let in and listened for has failed. */
export function notHeard(
  run: WalkRun,
  { sleeps, item }: WalkTrip,
  why: NotHeardWhy,
): { readonly outcome: TestResult['outcome']; readonly note: string } {
  switch (why) {
    case 'asleep':
      return {
        outcome: 'inconclusive',
        note: `Not heard: it may have slept. Leave its room alone for ${sleeps ? formatSeconds(sleeps) : 'its sleep time'} and walk it again.`,
      }
    case 'shut-out':
      return {
        outcome: 'inconclusive',
        note: `Not heard: the panel shuts a zone out after ${run.shutsOutAfter === 1 ? '1 trip' : `${run.shutsOutAfter ?? 'some'} trips`}. Unset it, then trip it again.`,
      }
    case 'sounder':
      return {
        outcome: 'inconclusive',
        note: 'Not heard: the sounder was off, or nobody was near the keypad. Switch it on and trip it again.',
      }
    case 'awake':
      return {
        outcome: 'fail',
        note:
          item.kind === 'toggle'
            ? 'Opened and closed, and the panel did not tell both on this zone.'
            : 'Walked while it was awake, and the panel did not hear it.',
      }
  }
}
