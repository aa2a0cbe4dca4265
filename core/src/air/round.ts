import { roundOf } from '../premises/round.ts'
import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import type { Target } from './learn.ts'

/** How devices are gone through: room by room in the house, box by box on the bench, or by number. */
export type RoundBy = 'room' | 'box' | 'number'

/** Targets that are learned one after the other, under one heading. */
export interface RoundPart {
  /** The room or the model; empty where all are one list. */
  readonly name: string
  readonly targets: readonly Target[]
}

/** A device that is not learned now. */
export interface LeftOut {
  readonly id: string
  readonly name: string
  readonly why: string
}

const REPEATERS = 'Repeaters first'
const UNPLACED = 'Carried and unplaced'

/**
 * The order in which devices are learned. Repeaters come before all else, for what hangs on them is heard through them. In the
 * house it is the shortest round of its rooms; on the bench one kind after the other out of its box, motions last: whoever moves
 * about trips them, and they then sleep. Within a part the order of the targets stays.
 */
export function learningRound(
  { doc, catalogue }: JobAndCatalogue,
  targets: readonly Target[],
  by: RoundBy,
): RoundPart[] {
  if (by === 'number') return targets.length === 0 ? [] : [{ name: '', targets }]
  const system = systemOf(doc, catalogue)
  const modelOf = ({ device }: Target) => system.byId.get(device.id)?.model
  const rest = targets.filter((target) => modelOf(target)?.class !== 'repeater')
  const repeaters = targets.filter((target) => modelOf(target)?.class === 'repeater')
  const name = (target: Target): string =>
    by === 'room' ? target.device.room : (modelOf(target)?.name ?? '')
  const found = [...new Set(rest.map(name))]
  const isMotion = (part: string): boolean =>
    rest.some((target) => name(target) === part && modelOf(target)?.class === 'motion')
  const compare =
    by === 'room'
      ? // Numbers mostly follow the way through a house that nobody described.
        roundOf({ doc, system }, found, (a, b) => found.indexOf(a) - found.indexOf(b))
      : (a: string, b: string): number => Number(isMotion(a)) - Number(isMotion(b)) || (a < b ? -1 : 1)
  const parts = [...found].sort(compare).map((part) => ({
    name: part === '' ? UNPLACED : part,
    targets: rest.filter((target) => name(target) === part),
  }))
  return repeaters.length === 0 ? parts : [{ name: REPEATERS, targets: repeaters }, ...parts]
}

/** Radio devices that are not learned now, each with its reason: they come later. */
export function leftOutOf({ doc, catalogue }: JobAndCatalogue): LeftOut[] {
  return systemOf(doc, catalogue).devices.flatMap(({ device, model, family }) =>
    family && device.deferred !== null
      ? [
          {
            id: device.id,
            name: [model.name, device.room].filter(Boolean).join(', '),
            why: device.deferred,
          },
        ]
      : [],
  )
}
