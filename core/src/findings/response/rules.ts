import type { AlarmKind, PanelModel } from '../../catalogue/schema.ts'
import { isEntry } from '../../act/behaviour.ts'
import { setOp } from '../../job/edit.ts'
import type { Zone } from '../../job/records.ts'
import { exitInStay } from '../../response/delays.ts'
import { tripsOf } from '../../response/modes.ts'
import type { Context, ZoneView } from '../context.ts'
import type { Found, RulesOf } from '../finding.ts'
import { absenceFor, devicesInService, isProtecting } from '../partners.ts'
import { useAdvisedType } from './use-type.ts'
import { wrongKind, type WrongKind } from './wrong-kind.ts'

/** What the rules on response types find; seconds where a delay is meant. */
export interface ResponseFacts {
  readonly 'response-missing': {
    readonly zone: string
    readonly panel: string
    /** The kind of alarm for which the panel has no type at all; null where it has one. */
    readonly lacks: string | null
  }
  readonly 'panic-wrong-kind': WrongKind
  readonly 'house-watch-wrong-kind': WrongKind
  readonly 'medical-wrong-kind': { readonly zone: string; readonly type: string; readonly kind: AlarmKind }
  readonly 'follow-alone': { readonly zone: string; readonly modes: readonly string[] }
  readonly 'double-knock': {
    readonly zone: string
    readonly why: 'panel' | 'radio' | 'once'
    readonly panel: string
    readonly event: string
  }
  readonly 'stay-option':
    | { readonly has: false; readonly panel: string; readonly zones: readonly string[] }
    | { readonly has: true; readonly option: string; readonly zones: readonly string[] }
  readonly 'day-zone': {
    readonly zone: string
    readonly why: 'no-choice' | 'any-hour' | 'list'
    readonly panel: string
    readonly type: string
    readonly list: string
    readonly day: string
  }
  readonly 'stay-motion': { readonly zone: string; readonly exit: boolean }
}

const modes = ['away', 'stay'] as const

/** Rules on response types: what a trip does, against what its event needs. */
export const responseRules: RulesOf<ResponseFacts> = {
  'response-missing': {
    severity: 'stops',
    stage: 'zones',
    key: ['zone', 'panel', 'lacks'],
    find: (c) =>
      c.zones.flatMap((view) => {
        if (!c.panel || view.type || !view.advice) return []
        const lacks = view.advice.type === null ? view.advice.need.kind : null
        return [
          {
            subject: view.zone.id,
            field: 'response',
            facts: { zone: view.number, panel: c.panel.name, lacks },
            fix: useAdvisedType(c, view),
          },
        ]
      }),
  },
  'panic-wrong-kind': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'event', 'type', 'kind', 'weak'],
    find: (c) => wrongKind(c, ['panic', 'panic-silent'], 'panic'),
  },
  'house-watch-wrong-kind': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'event', 'type', 'kind', 'weak'],
    find: (c) => wrongKind(c, ['freeze', 'flood'], 'auxiliary'),
  },
  'medical-wrong-kind': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'type'],
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.loop?.event !== 'medical' || !view.type || view.type.kind === 'medical') return []
        const type = view.advice?.type
        return [
          {
            subject: view.zone.id,
            field: 'response',
            facts: { zone: view.number, type: view.type.name, kind: view.type.kind },
            fix: type
              ? {
                  does: 'use-type' as const,
                  facts: { type: type.name },
                  ops: [setOp(view.zone, 'response', type.key)],
                }
              : null,
          },
        ]
      }),
  },
  'follow-alone': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'modes'],
    find: (c) => {
      const doors = c.zones.filter(({ trips }) => modes.some((mode) => trips && isEntry(trips[mode])))
      return c.zones.flatMap((view) => {
        const { trips, zone, number } = view
        if (!isProtecting(c, view)) return []
        const alone = modes.filter(
          (mode) =>
            trips?.[mode] === 'follow' &&
            !doors.some(
              (door) =>
                isOfOneArea(door.zone, zone) &&
                isEntry(door.trips?.[mode] ?? 'ignore') &&
                absenceFor(c, view, door) === null,
            ),
        )
        if (alone.length === 0) return []
        return [{ subject: zone.id, field: 'response', facts: { zone: number, modes: alone }, fix: null }]
      })
    },
  },
  'double-knock': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'why'],
    find: (c) =>
      c.zones.flatMap((view) => {
        if (!view.zone.doubleKnock) return []
        const has = c.panel?.couplings?.doubleKnock === true
        if (view.family === null && view.loop?.event === 'motion' && has) return []
        return [
          {
            subject: view.zone.id,
            field: 'doubleKnock',
            facts: {
              zone: view.number,
              why: !has ? ('panel' as const) : view.family ? ('radio' as const) : ('once' as const),
              panel: c.panel?.name ?? 'The panel',
              event: view.loop?.name ?? 'device',
            },
            fix: {
              does: 'first-trip' as const,
              facts: {},
              ops: [setOp(view.zone, 'doubleKnock', false)],
            },
          },
        ]
      }),
  },
  'stay-option': {
    severity: 'risks',
    stage: 'zones',
    key: ['has', 'zones'],
    find: (c) => {
      const option = c.panel?.couplings?.stayToEntry2
      if (!c.info.stayToEntry2) return []
      const hit = c.zones.filter((view) => isDelayedByOption(c, view)).map(({ number }) => number)
      if (option !== undefined && hit.length === 0) return []
      return [
        {
          subject: 'job:main',
          field: 'stayToEntry2',
          facts:
            option === undefined
              ? { has: false, panel: c.panel?.name ?? 'The panel', zones: hit }
              : { has: true, option, zones: hit },
          fix: { does: 'option-off', facts: {}, ops: [setOp(c.info, 'stayToEntry2', false)] },
        },
      ]
    },
  },
  'day-zone': {
    severity: 'stops',
    stage: 'zones',
    key: ['zone', 'why', 'type', 'list'],
    find: (c) => c.zones.flatMap((view) => noDayZone(c, view)),
  },
  'stay-motion': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'exit'],
    find: (c) =>
      c.zones.flatMap((view) => {
        if (view.loop?.event !== 'motion' || !view.trips || view.trips.stay === 'ignore') return []
        const fob = devicesInService(c).some(({ model }) => model.slot === 'fob' && model.disarms)
        const floor = view.place?.room?.floor
        const elsewhere = c.house.keypads.some(({ room }) => floor !== undefined && room.floor !== floor)
        const exit = exitInStay(c.doc, c.panel, view.zone.area)
        if (fob || elsewhere || (exit ?? 0) > 0) return []
        const facts = { zone: view.number, exit: exit !== 0 }
        return [{ subject: view.zone.id, field: 'response', facts, fix: null }]
      }),
  },
}

/** Whether the panel's option makes a zone that alarms at once in stay start entry 2 there. */
function isDelayedByOption({ panel }: Context, { type, trips }: ZoneView): boolean {
  if (!panel || !type || trips?.stay !== 'instant') return false
  return tripsOf(panel, type, { stayToEntry2: true, dayZone: false }).stay === 'entry-2'
}

function noDayZone({ panel }: Context, view: ZoneView): Found<ResponseFacts['day-zone']>[] {
  if (!view.zone.dayZone || !panel) return []
  const groups = panel.couplings?.typeGroups ?? []
  const list = groups.find((group) => group.types.includes(view.zone.response ?? ''))?.name ?? ''
  const day = groups.find((group) => group.dayZones)?.name ?? ''
  const why = whyNoDayZone(panel, view, list !== '' && day !== '')
  if (why === null) return []
  return [
    {
      subject: view.zone.id,
      field: 'dayZone',
      facts: { zone: view.number, why, panel: panel.name, type: view.type?.name ?? '', list, day },
      fix: { does: 'no-day-zone', facts: {}, ops: [setOp(view.zone, 'dayZone', false)] },
    },
  ]
}

function whyNoDayZone(
  panel: PanelModel,
  { type }: ZoneView,
  listed: boolean,
): ResponseFacts['day-zone']['why'] | null {
  if (panel.couplings?.dayZones !== 'user') return 'no-choice'
  if (type !== null && type.kind !== 'burglary') return 'any-hour'
  return listed ? 'list' : null
}

/** Whether two zones share an area; a common zone belongs to both its areas. */
function isOfOneArea(a: Zone, b: Zone): boolean {
  const of = ({ area, area2 }: Zone) => (area2 === null ? [area] : [area, area2])
  return of(a).some((area) => of(b).includes(area))
}
