import type { SetMode } from '../../act/behaviour.ts'
import type { AlarmKind, Trip } from '../../catalogue/schema.ts'
import { consequence, isGrave, type Consequence, type Watch } from '../../response/compare.ts'
import { delayInArea } from '../../response/delays.ts'
import { setsOf } from '../../response/letters.ts'
import { tripsOf, type Trips } from '../../response/modes.ts'
import type { Context, ZoneView } from '../context.ts'
import { changeOps } from '../../job/edit.ts'
import type { Found, FoundFix, RulesOf } from '../finding.ts'
import { everybodyHasFob } from '../people.ts'
import { useAdvisedType } from '../response/use-type.ts'

/** What a zone does in one mode. */
export interface Cell {
  readonly mode: SetMode
  readonly does: Trip
}

/** What all findings of a type against its need tell; seconds where a delay is meant. */
interface Judged {
  readonly zone: string
  /** The modes in which it differs, and what the type does there. */
  readonly cells: readonly Cell[]
  /** The door that people come from; empty where the house tells none. */
  readonly door: string
  /** The panel, where the nearest type of it comes to the same; else null. */
  readonly lacks: string | null
}

/** What the rules on needs find. */
export interface NeedFacts {
  readonly 'alarms-on-owner': Judged & { readonly at: 'door' | 'way' }
  readonly 'leaf-follows': Judged & {
    /** Whether that it sees the leaf is taken from the room alone. */
    readonly assumed: boolean
  }
  readonly 'way-unwatched': Judged
  readonly 'delay-no-entry': {
    readonly zone: string
    readonly modes: readonly string[]
    /** What an intruder would have; null where no delay is set. */
    readonly seconds: number | null
    /** Whether people come in there in another mode. */
    readonly door: boolean
  }
  readonly 'shorter-delay': Judged & {
    /** What the delay that it starts gives, and what the way takes; null where either is not known. */
    readonly seconds: number | null
    readonly needed: number | null
    readonly keypad: string
  }
  readonly 'delay-gives-away': Judged & {
    readonly why: 'longer' | 'passed'
    readonly seconds: number | null
    readonly needed: number | null
  }
  readonly 'waits-for-delay': Judged
  readonly 'against-school': Judged & { readonly awayOnly: boolean }
  readonly 'nearest-type': Judged & { readonly type: string; readonly wanted: readonly Cell[] }
  readonly 'burglary-wrong-kind': {
    readonly zone: string
    readonly event: string
    readonly type: string
    readonly kind: AlarmKind
  }
  readonly 'sleeps-unset': {
    readonly zone: string
    readonly event: string
    readonly type: string
    /** The panel, where it has no burglary type that is always on; else null. */
    readonly lacks: string | null
  }
  readonly 'opened-quietly': { readonly zone: string; readonly place: string }
  readonly 'any-hour': { readonly zone: string; readonly event: string; readonly type: string }
}

/** Rules on a chosen type against the need of its place, both ways: too little and too much. */
export const needRules: RulesOf<NeedFacts> = {
  'alarms-on-owner': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'cells'],
    find: (c) =>
      differing(c, ['owner', 'night'], (differs) => [
        { ...judged(differs), at: differs.watch.of === 'entry door' ? ('door' as const) : ('way' as const) },
      ]),
  },
  'leaf-follows': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'cells'],
    find: (c) =>
      differing(c, ['may'], (differs) => [
        { ...judged(differs), assumed: (differs.view.place?.missing.length ?? 0) > 0 },
      ]),
  },
  'way-unwatched': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'cells'],
    find: (c) => differing(c, ['unwatched'], (differs) => [judged(differs)]),
  },
  'delay-no-entry': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'modes', 'seconds'],
    find: (c) =>
      differing(c, ['no-entry'], (differs) => [
        {
          zone: differs.view.number,
          modes: differs.cells.map(({ mode }) => mode),
          seconds: started(c, differs),
          door: differs.watch.of === 'entry door',
        },
      ]),
  },
  'shorter-delay': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'cells', 'seconds', 'needed'],
    find: (c) => {
      // Whoever carries a fob unsets at the door: then the way to the keypad is nobody's measure.
      if (everybodyHasFob(c)) return []
      return differing(c, ['less'], (differs) => {
        // That the shorter delay would win over a farther door's is told as that.
        if (differs.view.place?.why?.is === 'leaf-passed') return []
        const way = differs.view.place?.way ?? null
        const seconds = started(c, differs)
        // The shorter of the two may be long enough all the same.
        if (way !== null && seconds !== null && seconds >= way.seconds) return []
        const keypad = way?.walk.rooms.at(-1)?.name ?? ''
        return [{ ...judged(differs), seconds, needed: way?.seconds ?? null, keypad }]
      })
    },
  },
  'delay-gives-away': {
    severity: 'advice',
    stage: 'zones',
    key: ['zone', 'cells', 'seconds', 'needed'],
    find: (c) =>
      differing<NeedFacts['delay-gives-away']>(c, ['more', 'given'], (differs) => {
        const seconds = started(c, differs)
        if (differs.watch.of === 'way') return [{ ...judged(differs), why: 'passed', seconds, needed: null }]
        // Enough is what the shorter delay gives, if that is as long as the way; two that are alike give nothing away.
        const shorter = delayOf(c, differs.view, 'entry1')
        const way = differs.view.place?.way?.seconds ?? shorter
        const needed = way === null ? null : Math.max(way, shorter ?? 0)
        if (seconds === null || needed === null || seconds <= needed) return []
        return [{ ...judged(differs), why: 'longer', seconds, needed }]
      }),
  },
  'waits-for-delay': {
    severity: 'advice',
    stage: 'zones',
    key: ['zone', 'cells'],
    find: (c) => differing(c, ['waits'], (differs) => [judged(differs)]),
  },
  'against-school': {
    severity: 'advice',
    stage: 'zones',
    key: ['zone', 'cells', 'awayOnly'],
    find: (c) =>
      differing(c, ['school'], (differs) => [
        { ...judged(differs), awayOnly: differs.watch.of === 'glass' && differs.watch.awayOnly },
      ]),
  },
  'nearest-type': {
    severity: 'advice',
    stage: 'zones',
    key: ['zone', 'type', 'cells'],
    find: (c) =>
      comparisons(c).flatMap(({ view, watch, others }) => {
        const { advice, type } = view
        const mild = others.filter(({ comes }) => !isGrave(comes))
        if (!advice || !type || advice.type?.key !== type.key || mild.length === 0) return []
        const cells = mild.map(({ mode, does }) => ({ mode, does }))
        const wanted = mild.map(({ mode }) => ({ mode, does: advice.need[mode] }))
        const facts = {
          ...judged({ view, watch, cells, lacks: c.panel?.name ?? null }),
          type: type.name,
          wanted,
        }
        return [{ subject: view.zone.id, field: 'response', facts, fix: null }]
      }),
  },
  'burglary-wrong-kind': {
    severity: 'stops',
    waive: 'owner',
    stage: 'zones',
    key: ['zone', 'event', 'type', 'kind'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { type, loop, zone, number } = view
        if (!type || !loop || view.advice?.need.kind !== 'burglary' || type.kind === 'burglary') return []
        const facts = { zone: number, event: loop.name, type: type.name, kind: type.kind }
        return [{ subject: zone.id, field: 'response', facts, fix: useAdvisedType(c, view) }]
      }),
  },
  'any-hour': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'event', 'type'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { type, loop, trips, zone, number } = view
        if (type?.kind !== 'burglary' || !loop || trips?.unset !== 'instant') return []
        if (view.advice?.need.kind !== 'burglary' || view.advice.need.anyHour) return []
        const facts = { zone: number, event: loop.name, type: type.name }
        return [{ subject: zone.id, field: 'response', facts, fix: useAdvisedType(c, view) }]
      }),
  },
  'sleeps-unset': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'event', 'type'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { type, loop, trips, zone, number } = view
        if (type?.kind !== 'burglary' || !loop || !anyHour(view) || trips?.unset === 'instant') return []
        const fix = useAdvisedType(c, view)
        const lacks = fix === null ? (c.panel?.name ?? null) : null
        const facts = { zone: number, event: loop.name, type: type.name, lacks }
        return [{ subject: zone.id, field: 'response', facts, fix }]
      }),
  },
  'opened-quietly': {
    severity: 'advice',
    stage: 'zones',
    key: ['zone'],
    find: (c) =>
      c.zones.flatMap((view) => {
        const { zone, number, device } = view
        if (!anyHour(view) || view.trips?.unset !== 'instant' || zone.reason !== '') return []
        const place = device?.position || device?.room || ''
        return [{ subject: zone.id, field: 'reason', facts: { zone: number, place }, fix: null }]
      }),
  },
}

/** Whether its place is never opened: a burglary device that is to alarm at any hour. */
function anyHour({ advice }: ZoneView): boolean {
  return advice?.need.kind === 'burglary' && advice.need.anyHour
}

/** A mode in which a type comes to something else than its place needs. */
interface Other extends Cell {
  readonly comes: Consequence
}

/** A burglary zone that differs from its need in some mode. */
interface Comparison {
  readonly view: ZoneView
  readonly watch: Watch
  readonly others: readonly Other[]
}

/** A zone whose type differs from its need in some way: where, and whether the nearest type comes to the same. */
interface Differs {
  readonly view: ZoneView
  readonly watch: Watch
  readonly cells: readonly Cell[]
  readonly lacks: string | null
}

/** By view: it is another one whenever place, type or house rules are. */
const compared = new WeakMap<ZoneView, Comparison | null>()

/** Zones of burglary devices on burglary types that differ from their need; one that is always on is judged as that. */
function comparisons(c: Context): Comparison[] {
  return c.zones.flatMap((view) => {
    let known = compared.get(view)
    if (known === undefined) {
      known = compare(c, view)
      compared.set(view, known)
    }
    return known ?? []
  })
}

function compare(c: Context, view: ZoneView): Comparison | null {
  const { type, trips } = view
  if (!trips || type?.kind !== 'burglary' || trips.unset === 'instant') return null
  const watch = view.advice?.need.watch ?? null
  const others = watch ? othersOf({ c, watch, view }, trips) : []
  return watch && others.length > 0 ? { view, watch, others } : null
}

interface Compared {
  readonly c: Context
  readonly watch: Watch
  readonly view: ZoneView
}

/** Modes in whose set it is not are told of the set, not of its type. */
function othersOf({ c, watch, view }: Compared, trips: Trips): readonly Other[] {
  const sets = setsOf(view.zone, c.fullSet)
  return modesOf(view).flatMap((mode) => {
    if (!(mode === 'away' ? sets.full : sets.part)) return []
    const comes = consequence(watch, mode, trips[mode])
    return comes === null ? [] : [{ mode, does: trips[mode], comes }]
  })
}

/** The modes that its panel tells apart. */
function modesOf({ type }: ZoneView): readonly SetMode[] {
  return type?.night === undefined ? ['away', 'stay'] : ['away', 'stay', 'night']
}

/** Every zone whose type comes to one of these consequences; cured by the advised type where that does not. */
function differing<F extends object>(
  c: Context,
  wanted: readonly Consequence[],
  tell: (differs: Differs) => readonly F[],
): Found<F>[] {
  return comparisons(c).flatMap(({ view, watch, others }) => {
    const mine = others.filter(({ comes }) => wanted.includes(comes))
    if (mine.length === 0) return []
    const cells = mine.map(({ mode, does }) => ({ mode, does }))
    const advised = view.advice?.type ?? null
    // The mild differences of the nearest type that the panel has are told as that.
    if (advised?.key === view.type?.key && !wanted.some(isGrave)) return []
    const then = c.panel && advised ? othersOf({ c, watch, view }, tripsOf(c.panel, advised)) : mine
    const cures = !then.some(({ comes }) => wanted.includes(comes))
    const differs = { view, watch, cells, lacks: cures ? null : (c.panel?.name ?? null) }
    return tell(differs).map((facts) => ({
      subject: view.zone.id,
      field: 'response',
      facts,
      fix: cures ? useAdvisedType(c, view) : null,
      others: mine.every(({ mode }) => mode !== 'away') ? leavePartSet(c, view) : [],
    }))
  })
}

/** Out of the part set, where areas are letters: what alarms there on whoever walks about is not watched then. */
function leavePartSet(c: Context, { zone, advice }: ZoneView): FoundFix[] {
  const sets = setsOf(zone, c.fullSet)
  if (c.fullSet === null || !sets.full || !sets.part || advice?.need.stay !== 'ignore') return []
  const ops = [...changeOps(zone, 'area', c.fullSet), ...changeOps(zone, 'area2', null)]
  return ops.length === 0 ? [] : [{ does: 'leave-part-set', facts: {}, ops }]
}

function judged({ view, cells, lacks }: Differs): Judged {
  return { zone: view.number, cells, door: view.place?.way?.name ?? '', lacks }
}

/** Seconds of the delay that it starts there, by its area; null where nobody has set it. */
function started(c: Context, { view, cells }: Differs): number | null {
  return delayOf(c, view, cells[0]?.does === 'entry-2' ? 'entry2' : 'entry1')
}

function delayOf(c: Context, { zone }: ZoneView, key: 'entry1' | 'entry2'): number | null {
  return delayInArea(c.doc, c.panel, { area: zone.area, key })
}
