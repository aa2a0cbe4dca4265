import type { AlarmKind, DeviceEvent, Trip } from '../../catalogue/schema.ts'
import type { Context } from '../context.ts'
import type { Found } from '../finding.ts'
import { useAdvisedType } from './use-type.ts'

/** An event on a type that is another’s, or that does not alarm in every mode. */
export interface WrongKind {
  readonly zone: string
  readonly event: string
  readonly type: string
  /** The kind of that type. */
  readonly kind: AlarmKind
  /** Where the kind is right: the modes in which it does not alarm at once, and what it does in the first; else null. */
  readonly weak: { readonly modes: readonly string[]; readonly does: Trip } | null
}

/** Zones of some events that are not typed as their kind, instant in every mode. */
export function wrongKind(c: Context, events: readonly DeviceEvent[], kind: AlarmKind): Found<WrongKind>[] {
  return c.zones.flatMap((view) => {
    const { type, trips, loop } = view
    if (!type || !trips || !loop || !events.includes(loop.event)) return []
    const modes = (['away', 'stay', 'unset'] as const).filter((mode) => trips[mode] !== 'instant')
    const [first] = modes
    if (type.kind === kind && first === undefined) return []
    const weak = type.kind === kind && first !== undefined ? { modes, does: trips[first] } : null
    return [
      {
        subject: view.zone.id,
        field: 'response',
        facts: { zone: view.number, event: loop.name, type: type.name, kind: type.kind, weak },
        fix: useAdvisedType(c, view),
      },
    ]
  })
}
