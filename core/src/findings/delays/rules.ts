import { isEntry } from '../../act/behaviour.ts'
import { setOp } from '../../job/edit.ts'
import { delayNeeds, entryWays, type EntryWay } from '../../premises/entry-ways.ts'
import {
  delayFieldOf,
  delayInArea,
  delayKeys,
  delaySets,
  encodeDelay,
  limitOf,
  type DelayKey,
  type DelaySet,
  type EncodedDelay,
} from '../../response/delays.ts'
import { entryPlusAbort, presets, type Limit } from '../../response/presets.ts'
import type { Context, ZoneView } from '../context.ts'
import { cutDelays, type CutDelay } from './cut.ts'
import { everybodyHasFob } from '../people.ts'
import type { Found, FoundFix, RulesOf } from '../finding.ts'

/** What the rules on delays find; all times in seconds, `area` null for the whole job. */
export interface DelayFacts {
  readonly 'delay-unstorable': {
    readonly area: string | null
    readonly delay: DelayKey
    readonly wanted: number
    readonly field: string
    /** What the panel does with it. */
    readonly encoded: EncodedDelay
  }
  readonly 'delay-over-limit': {
    readonly area: string | null
    readonly delay: DelayKey
    readonly wanted: number
    readonly bound: 'most' | 'least'
    readonly limit: number
    readonly preset: string
    readonly source: string
  }
  readonly 'entry-plus-abort': {
    readonly area: string | null
    readonly delay: DelayKey
    readonly entry: number
    readonly abort: number
    readonly most: number
  }
  readonly 'entry-too-short': ShortDelay
  readonly 'exit-too-short': ShortDelay
  /** A delay that zones start, or that leaving needs, and that the job leaves open. */
  readonly 'delay-cut': CutDelay
  readonly 'delay-unset': { readonly delay: DelayKey; readonly zones: readonly string[] }
  readonly 'siren-time': {
    readonly wanted: number
    /** The panel's field that cannot store it; null where the preset forbids it. */
    readonly field: string | null
    readonly preset: string
    readonly min: number | null
    readonly max: number | null
    readonly source: string
  }
  readonly swinger: { readonly alarms: number; readonly from: number; readonly to: number }
}

/** A delay shorter than the slowest way of its doors. */
interface ShortDelay {
  readonly area: string | null
  readonly delay: DelayKey
  readonly now: number
  readonly way: string
  readonly room: string
  readonly needed: number
  readonly walk: number
  readonly code: number
  readonly margin: number
  /** Whether a legal delay is long enough. */
  readonly legal: boolean
  /** The longest legal one where none is; null for no limit. */
  readonly most: number | null
}

/** Rules on delays, siren time and shutting out. */
export const delayRules: RulesOf<DelayFacts> = {
  'delay-unstorable': {
    severity: 'stops',
    waive: 'never',
    stage: 'zones',
    key: ['area', 'delay', 'wanted', 'field'],
    find: (c) =>
      eachDelay(c, (set, delay, wanted) => {
        const field = delayFieldOf(c.panel, c.info, delay)
        if (!field) return []
        const limit = limitOf(c.doc, delay)
        const encoded = encodeDelay(field, wanted, { limit })
        if (encoded.ok && encoded.seconds === wanted) return []
        const to = encoded.ok
          ? storableAtLeast(c, delay, Math.max(encoded.seconds, limit?.min ?? 0))
          : nearestAllowed(encoded.nearest, limit)
        const facts = { area: set.area, delay, wanted, field: field.name, encoded }
        const nearest = to === null ? null : delayFix(c, { set, delay }, to)
        return [{ ...at({ set, delay }, facts, nearest), others: otherUnit(c, delay, wanted) }]
      }),
  },
  'delay-over-limit': {
    severity: 'stops',
    stage: 'zones',
    key: ['area', 'delay', 'wanted', 'bound', 'limit'],
    find: (c) => eachDelay(c, (set, delay, wanted) => overLimit(c, { set, delay }, wanted)),
  },
  'entry-plus-abort': {
    severity: 'stops',
    stage: 'zones',
    key: ['area', 'delay', 'entry', 'abort', 'most'],
    find: (c) => {
      const most = entryPlusAbort(c.info)
      const abort = c.info.abortWindow
      if (most === null || abort === null) return []
      return eachDelay(c, (set, delay, entry) => {
        if ((delay !== 'entry1' && delay !== 'entry2') || entry + abort <= most) return []
        const to = most - abort
        const fits = to >= (limitOf(c.doc, delay)?.min ?? 0)
        const facts = { area: set.area, delay, entry, abort, most }
        const shorter = fits ? delayFix(c, { set, delay }, to) : null
        const hold = shorterHold(c, most - entry)
        return [{ ...at({ set, delay }, facts, shorter ?? hold), others: shorter && hold ? [hold] : [] }]
      })
    },
  },
  'entry-too-short': {
    severity: 'risks',
    stage: 'zones',
    key: ['area', 'delay', 'now', 'way', 'needed'],
    // Whoever carries a fob unsets at the door: then nobody walks to the keypad first.
    find: (c) => (everybodyHasFob(c) ? [] : [...tooShort(c, 'entry1'), ...tooShort(c, 'entry2')]),
  },
  'delay-unset': {
    severity: 'risks',
    stage: 'zones',
    key: ['delay', 'zones'],
    find: (c) =>
      (['entry1', 'entry2', 'exit'] as const).flatMap((delay) => {
        if (!delayFieldOf(c.panel, c.info, delay)) return []
        const zones = c.zones.filter((view) => starts(view, delay) && isOpen(c, view, delay))
        if (zones.length === 0) return []
        const numbers = zones.map(({ number }) => number)
        return [
          {
            subject: 'job:main',
            field: jobField(delay),
            facts: { delay, zones: numbers },
            fix: needed(c, delay),
          },
        ]
      }),
  },
  'delay-cut': {
    severity: 'risks',
    stage: 'zones',
    key: ['zone', 'way', 'from', 'to', 'needed', 'known'],
    find: cutDelays,
  },
  'exit-too-short': {
    severity: 'risks',
    stage: 'zones',
    key: ['area', 'delay', 'now', 'way', 'needed'],
    find: (c) => tooShort(c, 'exit'),
  },
  'siren-time': {
    severity: 'risks',
    stage: 'zones',
    key: ['wanted', 'field', 'min', 'max'],
    find: (c) => {
      const wanted = c.info.sirenSeconds
      if (wanted === null) return []
      const { siren, title: preset } = presets[c.info.region]
      const { min, max, source } = siren
      const inside = Math.min(Math.max(wanted, min ?? 0), max ?? Infinity)
      const field = c.panel?.siren ?? null
      // A siren is rather stopped sooner, but not before the least that is asked for.
      const ways = (['down', 'up'] as const).flatMap((direction) => {
        const encoded = field ? encodeDelay(field, inside, { limit: siren, direction }) : null
        return encoded?.ok && encoded.seconds >= (min ?? 0) ? [encoded.seconds] : []
      })
      const [to = inside] = ways
      if (to === wanted) return []
      const cannot = inside === wanted ? (field?.name ?? 'the panel') : null
      return [
        {
          subject: 'job:main',
          field: 'sirenSeconds',
          facts: { wanted, field: cannot, preset, min, max, source },
          fix: {
            does: 'siren-time',
            facts: { seconds: to },
            ops: [setOp(c.info, 'sirenSeconds', to)],
          },
        },
      ]
    },
  },
  swinger: {
    severity: 'risks',
    stage: 'zones',
    key: ['alarms', 'from', 'to'],
    find: (c) => {
      const alarms = c.info.swinger
      const limit = presets[c.info.region].swinger
      const field = c.panel?.swinger
      const from = Math.max(limit?.min ?? 0, field?.from ?? 0)
      const to = Math.min(limit?.max ?? 15, field?.to ?? 15)
      if (alarms === null || (alarms >= from && alarms <= to)) return []
      const usual = Math.min(Math.max(limit?.usual ?? from, from), to)
      return [
        {
          subject: 'job:main',
          field: 'swinger',
          facts: { alarms, from, to },
          fix: { does: 'shut-out', facts: { alarms: usual }, ops: [setOp(c.info, 'swinger', usual)] },
        },
      ]
    },
  },
}

interface DelayAt<K extends DelayKey = DelayKey> {
  readonly set: DelaySet
  readonly delay: K
}

function overLimit(
  c: Context,
  { set, delay }: DelayAt,
  wanted: number,
): Found<DelayFacts['delay-over-limit']>[] {
  const limits = limitOf(c.doc, delay)
  // None at all is a choice in stay, and the preset speaks of leaving the house.
  if (!limits || (delay === 'exitStay' && wanted === 0)) return []
  const { max, min } = limits
  const over = max !== null && wanted > max
  const limit = over ? max : min
  if (limit === null || (!over && wanted >= limit)) return []
  const to = over ? storableAtMost(c, delay, limit) : storableAtLeast(c, delay, limit)
  const { title: preset, source } = presets[c.info.region]
  const facts = {
    ...{ area: set.area, delay, wanted, limit, preset, source },
    bound: over ? ('most' as const) : ('least' as const),
  }
  return [at({ set, delay }, facts, to === null ? null : delayFix(c, { set, delay }, to))]
}

/** Every delay that is set: of the job, and of the areas that have their own. */
function eachDelay<F>(
  c: Context,
  find: (set: DelaySet, delay: DelayKey, wanted: number) => readonly Found<F>[],
): Found<F>[] {
  return delaySets(c.doc, c.panel).flatMap((set) =>
    delayKeys.flatMap((delay) => {
      const wanted = set.values[delay]
      // One of stay, left from a panel that was chosen before, is not there to be judged.
      const absent = delay === 'exitStay' && !delayFieldOf(c.panel, c.info, delay)
      return wanted === null || absent ? [] : find(set, delay, wanted)
    }),
  )
}

type Leaving = 'entry1' | 'entry2' | 'exit'

/** Whether a zone starts the delay; people leave by every zone that starts one. */
function starts({ trips }: ZoneView, delay: Leaving): boolean {
  const modes = trips ? [trips.away, trips.stay, trips.night] : []
  return modes.some((trip) =>
    delay === 'exit' ? isEntry(trip) : trip === (delay === 'entry1' ? 'entry-1' : 'entry-2'),
  )
}

function isOpen(c: Context, { zone }: ZoneView, delay: Leaving): boolean {
  return delayInArea(c.doc, c.panel, { area: zone.area, key: delay }) === null
}

/** The next legal step that is long enough for the slowest way; the usual time where the house tells none. */
function needed(c: Context, delay: Leaving): FoundFix | null {
  const set = delaySets(c.doc, c.panel).find((one) => one.area === null)
  const field = delayFieldOf(c.panel, c.info, delay)
  const limit = limitOf(c.doc, delay)
  const way = delayNeeds(entryWays(c.house, c.system, c.rules.figures))[delay]
  const usual = limit?.usual ?? 30
  const encoded = field ? encodeDelay(field, Math.max(way?.seconds ?? 0, usual), { limit }) : null
  return set && encoded?.ok ? delayFix(c, { set, delay }, encoded.seconds) : null
}

/** Delays shorter than the slowest way of their doors: an area with a delay of its own answers for its doors, the job for the rest. */
function tooShort(c: Context, delay: Leaving): Found<ShortDelay>[] {
  const sets = delaySets(c.doc, c.panel)
  const ways = entryWays(c.house, c.system, c.rules.figures)
  const own = new Set(
    sets.filter((set) => set.area !== null && set.values[delay] !== null).map((set) => set.id),
  )
  return sets.flatMap((set) => {
    const mine = ways.filter((way) => {
      const area = c.house.areaOf(way.door.room)
      return set.area === null ? area === null || !own.has(area) : own.has(set.id) && area === set.id
    })
    return tooShortIn(c, { set, delay }, delayNeeds(mine)[delay])
  })
}

/** One delay shorter than its slowest way, with the next legal one as a fix, or what to do where none is long enough. */
function tooShortIn(c: Context, { set, delay }: DelayAt<Leaving>, way: EntryWay | null): Found<ShortDelay>[] {
  const now = set.values[delay]
  if (!way || now === null || now >= way.seconds) return []
  const field = delayFieldOf(c.panel, c.info, delay)
  const limit = limitOf(c.doc, delay)
  const most = mostFor(c, delay, limit)
  const encoded = field ? encodeDelay(field, way.seconds, { limit }) : null
  const to = encoded === null ? way.seconds : encoded.ok ? encoded.seconds : null
  const legal = to !== null && to <= (most ?? Infinity)
  const facts = {
    ...{ area: set.area, delay, now, way: way.name, room: way.walk.rooms.at(-1)?.name ?? '' },
    ...{ needed: way.seconds, walk: Math.ceil(way.walk.seconds), code: way.keyIn, margin: way.margin },
    ...{ legal, most },
  }
  return [at({ set, delay }, facts, legal ? delayFix(c, { set, delay }, to) : null)]
}

/** The longest legal delay: the region's, and what an abort window leaves of a sum; null for no limit. */
function mostFor(c: Context, delay: Leaving, limit: Limit | null): number | null {
  const sum = entryPlusAbort(c.info)
  const abort = c.info.abortWindow
  const room = delay === 'exit' || sum === null || abort === null ? Infinity : sum - abort
  const most = Math.min(limit?.max ?? Infinity, room)
  return most === Infinity ? null : most
}

function at<F>({ set, delay }: DelayAt, facts: F, fix: FoundFix | null): Found<F> {
  return { subject: set.id, field: jobField(delay), facts, fix }
}

/** A hold before sending of at most so many seconds, where panel and region allow one. */
function shorterHold(c: Context, most: number): FoundFix | null {
  const to = most < (limitOf(c.doc, 'abort')?.min ?? 0) ? null : storableAtMost(c, 'abort', most)
  const [job] = delaySets(c.doc, c.panel)
  return to === null || !job ? null : delayFix(c, { set: job, delay: 'abort' }, to)
}

/** The option that switches the unit of the exit delay, where the panel has it and then stores just what is wanted. */
function otherUnit(c: Context, delay: DelayKey, wanted: number): FoundFix[] {
  if (delay !== 'exit' || !c.panel?.delays.exit.switched) return []
  const ops = [setOp(c.info, 'exitUnitSwitched', !c.info.exitUnitSwitched)]
  const field = delayFieldOf(c.panel, { ...c.info, exitUnitSwitched: !c.info.exitUnitSwitched }, delay)
  const encoded = field ? encodeDelay(field, wanted, { limit: limitOf(c.doc, delay) }) : null
  return encoded?.ok && encoded.seconds === wanted
    ? [{ does: 'exit-unit', facts: { seconds: wanted }, ops }]
    : []
}

function delayFix(c: Context, { set, delay }: DelayAt, seconds: number): FoundFix | null {
  const record = c.doc.records[set.id]
  if (!record) return null
  return {
    does: 'set-delay',
    facts: { delay, area: set.area, seconds },
    ops: [setOp(record, jobField(delay), seconds)],
  }
}

/** The longest the panel can store without going over a limit. */
function storableAtMost(c: Context, delay: DelayKey, most: number): number | null {
  const field = delayFieldOf(c.panel, c.info, delay)
  if (!field) return most
  const encoded = encodeDelay(field, most, { limit: null, direction: 'down' })
  return encoded.ok ? encoded.seconds : null
}

/** The shortest that the panel can store and that is not below a limit, nor beyond what the region allows. */
function storableAtLeast(c: Context, delay: DelayKey, least: number): number | null {
  const field = delayFieldOf(c.panel, c.info, delay)
  if (!field) return least
  const encoded = encodeDelay(field, least, { limit: limitOf(c.doc, delay) })
  return encoded.ok ? encoded.seconds : null
}

/** The longer of the nearest storable delays that the region allows; null where it allows neither. */
function nearestAllowed(nearest: readonly number[], limit: Limit | null): number | null {
  const inside = (seconds: number): boolean =>
    seconds >= (limit?.min ?? 0) && seconds <= (limit?.max ?? Infinity)
  return nearest.findLast(inside) ?? null
}

function jobField(delay: DelayKey): string {
  return delay === 'abort' ? 'abortWindow' : delay
}
