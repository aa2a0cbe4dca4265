import type { DeviceModel } from '../../catalogue/schema.ts'
import { setOp } from '../../job/edit.ts'
import { isLifeSafety } from '../../response/advise.ts'
import type { Context, ZoneView } from '../context.ts'
import { absenceFor, isProtecting, type Absence } from '../partners.ts'
import type { FoundFix, RulesOf } from '../finding.ts'
import { wrongKind, type WrongKind } from '../response/wrong-kind.ts'

/** What the rules on fire and gas find. */
export interface LifeSafetyFacts {
  readonly 'fire-not-instant': WrongKind
  readonly 'gas-wrong-kind': WrongKind
  readonly 'life-unreported': LifeZone
  readonly 'life-unsupervised': LifeZone
  readonly 'fire-departure': {
    readonly zone: string
    readonly fire: 'delayed' | 'verified'
    readonly type: string
  }
  readonly 'fire-school': {
    readonly zone: string
    readonly school: 'delayed' | 'verified'
    readonly type: string
  }
  readonly 'verified-alone': {
    readonly zone: string
    readonly group: number | null
    readonly why: 'no-group' | 'beyond' | 'compartment' | 'alone' | 'absent'
    readonly panel: string
    readonly groups: number
    readonly compartment: string
    /** Whether another of its group stands elsewhere. */
    readonly mates: boolean
    /** Others of its group that it may not rely on, and why. */
    readonly absent: readonly { readonly zone: string; readonly why: Absence }[]
  }
  readonly 'compartment-unknown': { readonly zone: string; readonly room: string }
  readonly 'joined-events': { readonly model: string; readonly room: string }
}

interface LifeZone {
  readonly zone: string
  readonly kind: 'fire' | 'gas'
}

/** Rules on fire and gas: its own kind at any hour, reported, watched, and how a fire is decided. */
export const lifeSafetyRules: RulesOf<LifeSafetyFacts> = {
  'fire-not-instant': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'event', 'type', 'kind', 'weak'],
    find: (c) => wrongKind(c, ['smoke', 'heat'], 'fire'),
  },
  'gas-wrong-kind': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'event', 'type', 'kind', 'weak'],
    find: (c) => wrongKind(c, ['co'], 'gas'),
  },
  'life-unreported': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'kind'],
    find: (c) =>
      c.info.monitored
        ? lifeZones(c, (view) => !view.zone.report).map(([view, kind]) => ({
            subject: view.zone.id,
            field: 'report',
            facts: { zone: view.number, kind },
            fix: { does: 'report', facts: {}, ops: [setOp(view.zone, 'report', true)] },
          }))
        : [],
  },
  'life-unsupervised': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'kind'],
    find: (c) => {
      // One finding for a device, whichever of its zones are left: one of them supervised is enough.
      const seen = new Set<string>()
      return lifeZones(c, (view) => !isWatched(view) && !sisterWatched(c, view)).flatMap(([view, kind]) => {
        const device = view.zone.device ?? view.zone.id
        if (seen.has(device)) return []
        seen.add(device)
        const fix = { does: 'supervise' as const, facts: {}, ops: [setOp(view.zone, 'supervise', true)] }
        return [{ subject: view.zone.id, field: 'supervise', facts: { zone: view.number, kind }, fix }]
      })
    },
  },
  'fire-departure': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'fire', 'type'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const fire = view.type?.fire ?? 'plain'
        if (fire === 'plain' || view.zone.reason.trim() !== '') return []
        const facts = { zone: view.number, fire, type: view.type?.name ?? '' }
        return [{ subject: view.zone.id, field: 'reason', facts, fix: usePlainFire(c, view) }]
      }),
  },
  'fire-school': {
    severity: 'advice',
    stage: 'zones',
    key: ['zone', 'school', 'type'],
    find: (c) => {
      const { fire: school } = c.rules.schools
      const type = c.panel?.responseTypes.find((item) => item.kind === 'fire' && item.fire === school)
      if (school === 'plain' || !type) return []
      return c.zones.flatMap((view) => {
        const smoke = view.loop?.event === 'smoke' || view.loop?.event === 'heat'
        if (!smoke || view.type?.kind !== 'fire' || (view.type.fire ?? 'plain') !== 'plain') return []
        const facts = { zone: view.number, school, type: type.name }
        return [{ subject: view.zone.id, field: 'response', facts, fix: null }]
      })
    },
  },
  'verified-alone': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'group', 'why', 'compartment', 'groups', 'mates', 'absent'],
    find: (c) => {
      const groups = c.panel?.couplings?.fireGroups
      // Without groups the same detector must see smoke again: one is enough.
      if (groups === undefined) return []
      const verified = verifiedZones(c)
      return verified.flatMap((view) => {
        if (!isProtecting(c, view)) return []
        const group = view.zone.fireGroup
        const others = verified.filter(
          (other) => other.device !== view.device && group !== null && other.zone.fireGroup === group,
        )
        const absent = others.flatMap((other) => {
          const why = absenceFor(c, view, other)
          return why === null ? [] : [{ zone: other.number, why }]
        })
        const mates = others.filter((other) => absenceFor(c, view, other) === null)
        const here = compartmentOf(view)
        const near = mates.filter((other) => here === null || compartmentOf(other) === here)
        if (group !== null && group <= groups && near.length > 0) return []
        const facts = {
          ...{ zone: view.number, group, groups, mates: mates.length > 0, absent },
          why: whyAlone({ group, groups, mates: mates.length > 0, absent: absent.length > 0 }),
          panel: c.panel?.name ?? 'the panel',
          compartment: view.place?.room?.compartment.trim() ?? '',
        }
        return [
          {
            subject: view.zone.id,
            field: 'fireGroup',
            facts,
            fix: mates.length > 0 ? null : usePlainFire(c, view),
          },
        ]
      })
    },
  },
  'compartment-unknown': {
    severity: 'advice',
    stage: 'survey',
    key: ['zone', 'room'],
    find: (c) =>
      verifiedZones(c).flatMap((view) => {
        const { room } = view.place ?? {}
        if (!room || compartmentOf(view) !== null) return []
        const facts = { zone: view.number, room: room.name }
        return [{ subject: room.id, field: 'compartment', facts, fix: null }]
      }),
  },
  'joined-events': {
    severity: 'advice',
    stage: 'kit',
    key: ['model'],
    find: (c) =>
      c.rules.schools.smokeHeat === 'joined'
        ? []
        : c.system.devices.flatMap(({ device, model }) =>
            joins(model)
              ? [
                  {
                    ...{ subject: device.id, field: 'model', fix: null },
                    facts: { model: model.name, room: device.room },
                  },
                ]
              : [],
          ),
  },
}

interface Group {
  readonly group: number | null
  readonly groups: number
  readonly mates: boolean
  readonly absent: boolean
}

function whyAlone({ group, groups, mates, absent }: Group): LifeSafetyFacts['verified-alone']['why'] {
  if (group === null) return 'no-group'
  if (group > groups) return 'beyond'
  if (mates) return 'compartment'
  return absent ? 'absent' : 'alone'
}

/** Zones of fire or gas of which something holds, with their kind. */
function lifeZones(c: Context, is: (view: ZoneView) => boolean): [ZoneView, 'fire' | 'gas'][] {
  return c.zones.flatMap((view): [ZoneView, 'fire' | 'gas'][] => {
    const kind = view.advice?.need.kind
    return (kind === 'fire' || kind === 'gas') && is(view) ? [[view, kind]] : []
  })
}

/** Whether another zone of its device is supervised: any, or where one per device is the house rule, a fire or gas zone. */
function sisterWatched(c: Context, view: ZoneView): boolean {
  const sisters = (c.zonesOf.get(view.zone.device ?? '') ?? []).filter(
    (item) => item !== view && isWatched(item),
  )
  return c.rules.schools.sisters === 'every'
    ? sisters.length > 0
    : sisters.some((item) => isLifeSafety(item.advice?.need.kind ?? 'burglary'))
}

/** A type that hides the question supervises by itself. */
function isWatched({ zone, type }: ZoneView): boolean {
  return zone.supervise || type?.hides.includes('supervise') === true
}

function usePlainFire(c: Context, view: ZoneView): FoundFix | null {
  const plain = c.panel?.responseTypes.find(
    (type) => type.kind === 'fire' && (type.fire ?? 'plain') === 'plain',
  )
  if (!plain) return null
  return { does: 'use-type', facts: { type: plain.name }, ops: [setOp(view.zone, 'response', plain.key)] }
}

function verifiedZones(c: Context): readonly ZoneView[] {
  return c.zones.filter((view) => view.type?.fire === 'verified')
}

/** Fire compartment of the room a device is in; null where that was not said. */
function compartmentOf(view: ZoneView): string | null {
  const name = view.place?.room?.compartment.trim().toLowerCase() ?? ''
  return name === '' ? null : name
}

/** Whether a model tells smoke and heat by one loop. */
function joins(model: DeviceModel): boolean {
  // Where its family has no model with them apart, there is nothing to choose.
  if (model.joined) return model.joined.apart !== null
  return model.loops.some((loop) => loop.event === 'smoke' && /heat/i.test(loop.name))
}
