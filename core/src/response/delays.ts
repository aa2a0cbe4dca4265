import type { DelayField, PanelModel } from '../catalogue/schema.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import type { JobInfo } from '../job/records.ts'
import { presets, type Limit } from './presets.ts'

/** The delays a panel stores. */
export const delayKeys = ['entry1', 'entry2', 'exit', 'exitStay', 'abort'] as const
/** The name of a delay. */
export type DelayKey = (typeof delayKeys)[number]

/** What each delay is called, within a sentence. */
export const delayNames: Readonly<Record<DelayKey, string>> = {
  entry1: 'entry delay 1',
  entry2: 'entry delay 2',
  exit: 'exit delay',
  exitStay: 'exit delay of stay',
  abort: 'hold before sending',
}

/** A wanted delay as a panel can store it, or what keeps it from doing so; all in seconds but what is keyed. */
export type EncodedDelay = StoredDelay | RefusedDelay

/** A delay that the panel stores. */
interface StoredDelay {
  readonly ok: true
  /** What is keyed. */
  readonly keyed: number
  /** What it means, in seconds. */
  readonly seconds: number
  readonly wanted: number
  /** Why it is not just what was wanted: a value with a meaning of its own, the least that is stored, the next step. Else null. */
  readonly differs:
    | { readonly by: 'reserved'; readonly meaning: string }
    | { readonly by: 'least' }
    | { readonly by: 'step'; readonly direction: 'up' | 'down' }
    | null
}

/** A delay that the panel cannot store: what its field holds, and what the region allows at most (null for no limit). */
interface RefusedDelay {
  readonly ok: false
  readonly wanted: number
  readonly least: number
  readonly most: number
  readonly step: number
  readonly limit: number | null
  readonly nearest: readonly number[]
}

/** Seconds that a keyed value stands for. */
export function decodeDelay(field: DelayField, keyed: number): number {
  return keyed * field.secondsPerUnit
}

/** What may not be passed, and to which side a value between two steps goes. */
export interface Encoding {
  readonly limit?: Limit | null
  readonly direction?: 'up' | 'down'
}

/**
 * Puts wanted seconds into a panel's field. What is not representable goes up to the next step (`down` for siren times)
 * if that lies within field and limit; below the minimum it is raised and said; beyond, the nearest two are named.
 * Reserved values are taken only when wanted exactly, never by rounding.
 */
export function encodeDelay(
  field: DelayField,
  wanted: number,
  { limit = null, direction = 'up' }: Encoding = {},
): EncodedDelay {
  const values = keyedValues(field)
  const exact = wanted / field.secondsPerUnit
  const reserved = field.reserved.find((item) => item.value === exact)
  if (reserved) {
    const differs = { by: 'reserved', meaning: reserved.meaning } as const
    return { ok: true, keyed: reserved.value, seconds: wanted, wanted, differs }
  }
  const plain = values.filter((value) => !field.reserved.some((item) => item.value === value))
  if (plain.includes(exact)) return { ok: true, keyed: exact, seconds: wanted, wanted, differs: null }
  const above = plain.find((value) => value > exact)
  const below = plain.findLast((value) => value < exact)
  const rounded = direction === 'up' ? above : below
  const seconds = rounded === undefined ? null : decodeDelay(field, rounded)
  if (rounded === undefined || seconds === null || seconds > (limit?.max ?? Infinity))
    return refused(field, wanted, { limit, near: [below, above] })
  const differs = below === undefined ? ({ by: 'least' } as const) : ({ by: 'step', direction } as const)
  return { ok: true, keyed: rounded, seconds, wanted, differs }
}

/** The delay that the job wants for a panel field, in seconds; null when the job leaves it open. */
export function wantedDelay(doc: JobDocument, key: DelayKey): number | null {
  return jobDelays(doc).values[key]
}

/** The delays of the whole job or of one area that has its own. */
export interface DelaySet {
  /** Record that holds them. */
  readonly id: string
  /** Name of the area; null for the job. */
  readonly area: string | null
  readonly number: number | null
  /** Seconds; null where the job leaves it open, or the area goes by the job. */
  readonly values: Readonly<Record<DelayKey, number | null>>
}

/** The job's delays, and behind them those of each area that differ, where the panel keeps them per area. */
export function delaySets(doc: JobDocument, panel: PanelModel | null): DelaySet[] {
  const areas = panel?.couplings?.delaysPerArea ? recordsOf(doc, 'area') : []
  return [
    jobDelays(doc),
    ...areas.flatMap((area): DelaySet[] => {
      const { entry1, entry2, exit, exitStay } = area
      if ([entry1, entry2, exit, exitStay].every((value) => value === null)) return []
      const values = { entry1, entry2, exit, exitStay, abort: null }
      return [{ id: area.id, area: area.name, number: area.number, values }]
    }),
  ]
}

function jobDelays(doc: JobDocument): DelaySet {
  const { id, entry1, entry2, exit, exitStay, abortWindow } = jobInfo(doc)
  return { id, area: null, number: null, values: { entry1, entry2, exit, exitStay, abort: abortWindow } }
}

/** The region's limit for a delay, or null. */
export function limitOf(doc: JobDocument, key: DelayKey): Limit | null {
  const preset = presets[jobInfo(doc).region]
  const { entry, exit, abort } = preset
  return { entry1: entry, entry2: entry, exit, exitStay: exit, abort }[key]
}

interface InArea {
  /** Area's record id; null for a zone of none. */
  readonly area: string | null
  readonly key: DelayKey
}

/** Seconds of a delay in an area: its own where it has one, else the job's; null where neither is set. */
export function delayInArea(
  doc: JobDocument,
  panel: PanelModel | null,
  { area, key }: InArea,
): number | null {
  const own = delaySets(doc, panel).find((set) => set.id === area)
  return own?.values[key] ?? wantedDelay(doc, key)
}

/** What the exit delay of an area does in stay: seconds of its own or those of away; null where it is not said, 0 where there is none. */
export function exitInStay(doc: JobDocument, panel: PanelModel | null, area: string | null): number | null {
  const kind = panel?.couplings?.exitInStay
  if (kind === 'none') return 0
  if (kind === undefined) return null
  return delayInArea(doc, panel, { area, key: kind === 'own' ? 'exitStay' : 'exit' })
}

/** The panel's field for a delay as it is in this job, its unit switched where the option is on; null when it has none. */
export function delayFieldOf(panel: PanelModel | null, info: JobInfo, key: DelayKey): DelayField | null {
  const field = panel?.delays[key] ?? null
  if (!field?.switched || key !== 'exit' || !info.exitUnitSwitched) return field
  const { secondsPerUnit, min, max, step } = field.switched
  return { ...field, secondsPerUnit, min, max, step }
}

function keyedValues(field: DelayField): number[] {
  const first = Math.ceil(field.min / field.step) * field.step
  const values: number[] = []
  for (let value = first; value <= field.max; value += field.step) values.push(value)
  return values
}

interface Near {
  readonly limit: Limit | null
  /** Keyed values on either side, where there are any. */
  readonly near: readonly (number | undefined)[]
}

function refused(field: DelayField, wanted: number, { limit, near }: Near): RefusedDelay {
  const nearest = near.filter((value) => value !== undefined).map((value) => decodeDelay(field, value))
  return {
    ...{ ok: false, wanted, least: decodeDelay(field, field.min), most: decodeDelay(field, field.max) },
    ...{ step: field.step * field.secondsPerUnit, limit: limit?.max ?? null, nearest },
  }
}
