import { setOp, type Context, type Found, type Rule, type ZoneView } from './context.ts'
import { upper } from './words.ts'

/** Rules on how a fire zone decides: plain, delayed, or two detectors that must agree. */
export const fireRules: readonly Rule[] = [
  {
    id: 'fire-departure',
    severity: 'stops',
    waive: 'owner',
    title: 'delayed or verified fire without a written reason',
    source: 'Fire is plain by default; a departure needs its reason in writing, and the fire code’s leave',
    stage: 'zones',
    find: (c) =>
      c.zones.flatMap((view) => {
        const fire = view.type?.fire ?? 'plain'
        if (fire === 'plain' || view.zone.reason.trim() !== '') return []
        const plain = c.panel?.responseTypes.find(
          (type) => type.kind === 'fire' && (type.fire ?? 'plain') === 'plain',
        )
        return [
          {
            ...at(
              view,
              'reason',
              `${view.name} is a ${fire} fire zone (“${view.type?.name ?? ''}”) and no reason is written.`,
            ),
            fix: plain
              ? { title: `Use “${plain.name}”`, ops: [setOp(view.zone, 'response', plain.key)] }
              : null,
          },
        ]
      }),
  },
  {
    id: 'fire-school',
    severity: 'advice',
    title: 'plain fire where the firm’s school is another',
    source: 'House rule; plain is the safer, so no plan is made otherwise by itself, and the fire code rules',
    stage: 'zones',
    find: (c) => {
      const school = c.rules.schools.fire
      const type = c.panel?.responseTypes.find((item) => item.kind === 'fire' && item.fire === school)
      if (school === 'plain' || !type) return []
      return c.zones.flatMap((view) => {
        const smoke = view.loop?.event === 'smoke' || view.loop?.event === 'heat'
        if (!smoke || view.type?.kind !== 'fire' || (view.type.fire ?? 'plain') !== 'plain') return []
        return [
          at(
            view,
            'response',
            `${view.name} is plain fire; the house rule is ${school === 'delayed' ? 'a time to acknowledge' : 'two detectors'}: “${type.name}” gives it, with the reason in writing.`,
          ),
        ]
      })
    },
  },
  {
    id: 'verified-alone',
    severity: 'stops',
    waive: 'owner',
    title: 'verified fire with fewer than two detectors',
    source: 'Verified fire needs two detectors in one group and one fire compartment',
    stage: 'zones',
    find: (c) => {
      const verified = verifiedZones(c)
      return verified.flatMap((view) => {
        const group = view.zone.fireGroup
        const most = c.panel?.couplings?.fireGroups ?? 0
        const mates = verified.filter(
          (other) => other.device !== view.device && group !== null && other.zone.fireGroup === group,
        )
        const here = compartmentOf(view)
        const near = mates.filter((other) => here === null || compartmentOf(other) === here)
        if (group !== null && group <= most && near.length > 0) return []
        const why =
          group === null
            ? 'is in no group'
            : group > most
              ? `is in group ${group}, and ${c.panel?.name ?? 'the panel'} has ${most}`
              : mates.length > 0
                ? `is the only one of group ${group} in the fire compartment ${view.place?.room?.compartment.trim() ?? ''}`
                : `is alone in group ${group}`
        return [
          at(
            view,
            'fireGroup',
            `${view.name} needs a second detector to agree but ${why}: ${mates.length > 0 ? 'a fire there alarms only once it has spread' : 'it would never alarm'}.`,
          ),
        ]
      })
    },
  },
  {
    id: 'compartment-unknown',
    severity: 'advice',
    title: 'verified fire whose fire compartment was not said',
    source: 'Verified fire needs two detectors in one group and one fire compartment',
    stage: 'survey',
    find: (c) =>
      verifiedZones(c).flatMap((view) => {
        const { room } = view.place ?? {}
        if (!room || compartmentOf(view) !== null) return []
        return [
          {
            subject: room.id,
            field: 'compartment',
            text: upper(
              `whether ${view.name} and its second detector are in one fire compartment cannot be told; needed: the compartment of ${room.name}.`,
            ),
            fix: null,
          },
        ]
      }),
  },
]

function verifiedZones(c: Context): readonly ZoneView[] {
  return c.zones.filter((view) => view.type?.fire === 'verified')
}

function at(view: ZoneView, field: string, text: string): Found {
  return { subject: view.zone.id, field, text: upper(text), fix: null }
}

/** Fire compartment of the room a device is in; null where that was not said. */
function compartmentOf(view: ZoneView): string | null {
  const name = view.place?.room?.compartment.trim().toLowerCase() ?? ''
  return name === '' ? null : name
}
