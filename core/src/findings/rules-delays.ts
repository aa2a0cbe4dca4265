import { delayNeeds, entryWays, type EntryWay } from '../premises/entry-ways.ts'
import {
  delayFieldOf,
  delayKeys,
  encodeDelay,
  limitOf,
  delaySets,
  type DelayKey,
  type DelaySet,
} from '../response/delays.ts'
import { presets, type Limit } from '../response/presets.ts'
import { formatSeconds } from '../units/seconds.ts'
import { setOp, type Context, type Found, type Fix, type Rule } from './context.ts'
import { upper } from './words.ts'

/** Rules on delays, siren time, swinger shutdown and the supervision window. */
export const delayRules: readonly Rule[] = [
  {
    id: 'delay-unstorable',
    severity: 'stops',
    waive: 'never',
    title: 'delay the panel cannot store',
    source: 'The panel’s own field',
    stage: 'zones',
    find: (c) =>
      eachDelay(c, (set, key, wanted): Found[] => {
        const field = delayFieldOf(c.panel, c.info, key)
        if (!field) return []
        const encoded = encodeDelay(field, wanted, limitOf(c.doc, key))
        if (encoded.ok && encoded.seconds === wanted) return []
        const to = encoded.ok ? encoded.seconds : nearestAllowed(encoded.nearest, limitOf(c.doc, key))
        const text = `${inArea(set)}${encoded.ok ? `${field.name}: ${encoded.note}.` : encoded.reason}`
        return [
          {
            subject: set.id,
            field: jobField(key),
            text,
            fix: to === null ? null : delayFix(c, set, key, to),
          },
        ]
      }),
  },
  {
    id: 'delay-over-limit',
    severity: 'stops',
    title: 'delay outside the region’s limit',
    source: 'The region’s preset',
    stage: 'zones',
    find: (c) =>
      eachDelay(c, (set, key, wanted): Found[] => {
        const limit = limitOf(c.doc, key)
        // None at all is a choice in stay, and the preset speaks of leaving the house.
        if (!limit || (key === 'exitStay' && wanted === 0)) return []
        const preset = presets[c.info.region]
        const over = limit.max !== null && wanted > limit.max
        const under = limit.min !== null && wanted < limit.min
        if (!over && !under) return []
        const bound = over
          ? `at most ${formatSeconds(limit.max ?? 0)}`
          : `at least ${formatSeconds(limit.min ?? 0)}`
        const to = over ? storableAtMost(c, key, limit.max ?? 0) : limit.min
        return [
          {
            subject: set.id,
            field: jobField(key),
            text: `${inArea(set)}${upper(delayNames[key])} is ${formatSeconds(wanted)}; ${preset.title} allows ${bound} (${preset.source}).`,
            fix: to === null ? null : delayFix(c, set, key, to),
          },
        ]
      }),
  },
  {
    id: 'entry-plus-abort',
    severity: 'stops',
    title: 'entry delay and abort window together too long',
    source: 'ANSI/SIA CP-01: entry delay and abort window together at most 60 s',
    stage: 'zones',
    find: (c) => {
      const most = presets[c.info.region].entryPlusAbort
      const abort = c.info.abortWindow
      if (most === null || abort === null) return []
      return eachDelay(c, (set, key, entry): Found[] => {
        if ((key !== 'entry1' && key !== 'entry2') || entry + abort <= most) return []
        const limit = limitOf(c.doc, key)
        const to = most - abort
        const fits = to >= (limit?.min ?? 0)
        return [
          {
            subject: set.id,
            field: jobField(key),
            text: `${inArea(set)}${upper(delayNames[key])} ${formatSeconds(entry)} and abort window ${formatSeconds(abort)} make ${formatSeconds(entry + abort)}; together at most ${formatSeconds(most)}.`,
            fix: fits ? delayFix(c, set, key, to) : null,
          },
        ]
      })
    },
  },
  {
    id: 'entry-too-short',
    severity: 'risks',
    title: 'entry delay shorter than the way to the keypad',
    source: 'Slowest way from door to keypad at walking pace, time to key a code, and a margin (house rules)',
    stage: 'zones',
    find: (c) => [...tooShort(c, 'entry1'), ...tooShort(c, 'entry2')],
  },
  {
    id: 'exit-too-short',
    severity: 'risks',
    title: 'exit delay shorter than the way out',
    source: 'Slowest way from keypad to door at walking pace, time to key a code, and a margin (house rules)',
    stage: 'zones',
    find: (c) => tooShort(c, 'exit'),
  },
  {
    id: 'siren-time',
    severity: 'risks',
    title: 'siren time outside the region’s limit or the panel’s field',
    source: 'The region’s preset; the local code rules',
    stage: 'zones',
    find: (c) => {
      const wanted = c.info.sirenSeconds
      if (wanted === null) return []
      const { siren, title } = presets[c.info.region]
      const { min, max } = siren
      const inside = Math.min(Math.max(wanted, min ?? wanted), max ?? wanted)
      const field = c.panel?.siren ?? null
      const encoded = field ? encodeDelay(field, inside, siren, 'down') : null
      const to = encoded?.ok ? encoded.seconds : inside
      if (to === wanted) return []
      const bounds = [
        ...(min === null ? [] : [`at least ${formatSeconds(min)}`]),
        ...(max === null ? [] : [`at most ${formatSeconds(max)}`]),
      ].join(' and ')
      const why =
        inside === wanted
          ? `${field?.name ?? 'the panel'} cannot store that`
          : `${title} asks for ${bounds} (${siren.source})`
      return [
        {
          subject: 'job:main',
          field: 'sirenSeconds',
          text: `The siren sounds ${formatSeconds(wanted)}; ${why}.`,
          fix: { title: `Let it sound ${formatSeconds(to)}`, ops: [setOp(c.info, 'sirenSeconds', to)] },
        },
      ]
    },
  },
  {
    id: 'swinger',
    severity: 'risks',
    title: 'swinger shutdown outside its limits',
    source: 'ANSI/SIA CP-01: 1–6 trips, 2 as shipped; and the panel’s own field',
    stage: 'zones',
    find: (c) => {
      const trips = c.info.swinger
      const limit = presets[c.info.region].swinger
      const field = c.panel?.swinger
      const from = Math.max(limit?.min ?? 0, field?.from ?? 0)
      const to = Math.min(limit?.max ?? 15, field?.to ?? 15)
      if (trips === null || (trips >= from && trips <= to)) return []
      const usual = Math.min(Math.max(limit?.usual ?? from, from), to)
      return [
        {
          subject: 'job:main',
          field: 'swinger',
          text: `Swinger shutdown after ${trips} trips; ${from} to ${to} are allowed here.`,
          fix: { title: `Shut out after ${usual}`, ops: [setOp(c.info, 'swinger', usual)] },
        },
      ]
    },
  },
  {
    id: 'supervision-window',
    severity: 'risks',
    title: 'supervision window too long or too short',
    source:
      'EN 50131-5-3 by grade (confirm against the edition in force), US household; at least three check-ins fit in it',
    stage: 'zones',
    find: (c) => {
      const window = c.info.superviseMinutes
      if (window === null) return []
      const most = longestSilence(c)
      if (window > most.minutes)
        return [
          {
            subject: 'job:main',
            field: 'superviseMinutes',
            text: `A device is called lost after ${window} min; ${most.why} asks for at most ${most.minutes} min.`,
            fix: {
              title: `Call it lost after ${most.minutes} min`,
              ops: [setOp(c.info, 'superviseMinutes', most.minutes)],
            },
          },
        ]
      const slow = c.system.devices.filter(
        ({ device, model }) =>
          model.checkInMinutes !== null && device.deferred === null && 3 * model.checkInMinutes > window,
      )
      const first = slow[0]
      if (!first) return []
      return [
        {
          subject: 'job:main',
          field: 'superviseMinutes',
          text: `A device is called lost after ${window} min, and ${first.model.name} checks in every ${first.model.checkInMinutes} min: three check-ins do not fit${slow.length > 1 ? `, nor of ${slow.length - 1} more` : ''}.`,
          fix: null,
        },
      ]
    },
  },
]

const delayNames: Readonly<Record<DelayKey, string>> = {
  entry1: 'entry delay 1',
  entry2: 'entry delay 2',
  exit: 'exit delay',
  exitStay: 'exit delay of stay',
  abort: 'abort window',
}

/** Longest silence before a device counts as lost: by grade in Europe, by the gravest kind of device in a US household. */
function longestSilence(c: Context): { readonly minutes: number; readonly why: string } {
  if (c.info.region === 'europe') {
    const { grade } = c.info
    return { minutes: { 1: 60, 2: 20, 3: 1 }[grade], why: `EN 50131-5-3 grade ${grade}, to prevent arming,` }
  }
  const fire = c.zones.some((view) => view.advice?.need.kind === 'fire')
  return fire
    ? { minutes: 240, why: 'a household fire zone' }
    : { minutes: 1440, why: 'a household burglary system' }
}

/** Every delay that is set: of the job, and of the areas that have their own. */
function eachDelay(
  c: Context,
  find: (set: DelaySet, key: DelayKey, wanted: number) => readonly Found[],
): Found[] {
  return delaySets(c.doc, c.panel).flatMap((set) =>
    delayKeys.flatMap((key) => {
      const wanted = set.values[key]
      // One of stay, left from a panel that was chosen before, is not there to be judged.
      const absent = key === 'exitStay' && !delayFieldOf(c.panel, c.info, key)
      return wanted === null || absent ? [] : find(set, key, wanted)
    }),
  )
}

function inArea(set: DelaySet): string {
  return set.area === null ? '' : `${set.area}: `
}

/** Delays shorter than the slowest way of their doors: an area with a delay of its own answers for its doors, the job for the rest. */
function tooShort(c: Context, key: 'entry1' | 'entry2' | 'exit'): Found[] {
  const sets = delaySets(c.doc, c.panel)
  const ways = entryWays(c.house, c.system, c.rules.figures)
  const own = new Set(
    sets.filter((set) => set.area !== null && set.values[key] !== null).map((set) => set.id),
  )
  return sets.flatMap((set) => {
    const mine = ways.filter((way) => {
      const area = c.house.areaOf(way.door.room)
      return set.area === null ? area === null || !own.has(area) : own.has(set.id) && area === set.id
    })
    return tooShortIn(c, set, key, delayNeeds(mine)[key])
  })
}

/** One delay shorter than its slowest way, with the next legal one as a fix, or what to do where none is long enough. */
function tooShortIn(
  c: Context,
  set: DelaySet,
  key: 'entry1' | 'entry2' | 'exit',
  way: EntryWay | null,
): Found[] {
  const now = set.values[key]
  if (!way || now === null || now >= way.seconds) return []
  const field = delayFieldOf(c.panel, c.info, key)
  const limit = limitOf(c.doc, key)
  const sum = presets[c.info.region].entryPlusAbort
  const room = key === 'exit' || sum === null || c.info.abortWindow === null ? null : sum - c.info.abortWindow
  const most = Math.min(limit?.max ?? Infinity, room ?? Infinity)
  const encoded = field ? encodeDelay(field, way.seconds, limit) : null
  const to = encoded === null ? way.seconds : encoded.ok ? encoded.seconds : null
  const legal = to !== null && to <= most
  const parts = `walk ${formatSeconds(Math.ceil(way.walk.seconds))}, code ${way.keyIn} s, margin ${way.margin} s`
  const end = legal
    ? ''
    : ` No legal delay is long enough${most === Infinity ? '' : ` (at most ${formatSeconds(most)})`}: move the keypad, give a fob, or use another door.`
  return [
    {
      subject: set.id,
      field: jobField(key),
      text: `${inArea(set)}${upper(delayNames[key])} is ${formatSeconds(now)}; ${way.name} to the keypad in ${way.walk.rooms.at(-1)?.name ?? ''} takes ${formatSeconds(way.seconds)} (${parts}).${end}`,
      fix: legal ? delayFix(c, set, key, to) : null,
    },
  ]
}

function delayFix(c: Context, set: DelaySet, key: DelayKey, seconds: number): Fix | null {
  const record = c.doc.records[set.id]
  if (!record) return null
  return {
    title: `Set the ${delayNames[key]} ${set.area === null ? '' : `of ${set.area} `}to ${formatSeconds(seconds)}`,
    ops: [setOp(record, jobField(key), seconds)],
  }
}

/** The longest the panel can store without going over a limit. */
function storableAtMost(c: Context, key: DelayKey, most: number): number | null {
  const field = delayFieldOf(c.panel, c.info, key)
  if (!field) return most
  const encoded = encodeDelay(field, most, null, 'down')
  return encoded.ok ? encoded.seconds : null
}

/** The longer of the nearest storable delays that the region allows; null where it allows neither. */
function nearestAllowed(nearest: readonly number[], limit: Limit | null): number | null {
  const inside = (seconds: number): boolean =>
    seconds >= (limit?.min ?? 0) && seconds <= (limit?.max ?? Infinity)
  return nearest.findLast(inside) ?? null
}

function jobField(key: DelayKey): string {
  return key === 'abort' ? 'abortWindow' : key
}
