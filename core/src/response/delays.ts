import type { DelayField, PanelModel } from '../catalogue/schema.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import type { JobInfo } from '../job/records.ts'
import { formatSeconds } from '../units/seconds.ts'
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

/** A wanted delay as a panel can store it, or why it cannot. */
export type EncodedDelay =
  | {
      readonly ok: true
      /** What is keyed. */
      readonly keyed: number
      /** What it means, in seconds. */
      readonly seconds: number
      /** Said when it is not just what was wanted; else null. */
      readonly note: string | null
    }
  | { readonly ok: false; readonly reason: string; readonly nearest: readonly number[] }

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
  if (reserved) return { ok: true, keyed: reserved.value, seconds: wanted, note: reserved.meaning }
  const plain = values.filter((value) => !field.reserved.some((item) => item.value === value))
  if (plain.includes(exact)) return { ok: true, keyed: exact, seconds: wanted, note: null }
  const above = plain.find((value) => value > exact)
  const below = plain.findLast((value) => value < exact)
  const rounded = direction === 'up' ? above : below
  const nearest = [below, above]
    .filter((value) => value !== undefined)
    .map((value) => decodeDelay(field, value))
  const seconds = rounded === undefined ? null : decodeDelay(field, rounded)
  if (rounded === undefined || seconds === null || seconds > (limit?.max ?? Infinity))
    return { ok: false, reason: cannot(field, { wanted, nearest }, limit), nearest }
  const raised = below === undefined
  const note = raised
    ? `raised to ${formatSeconds(seconds)}, the least this field stores`
    : `${formatSeconds(wanted)} goes ${direction} to ${formatSeconds(seconds)}, the next step`
  return { ok: true, keyed: rounded, seconds, note }
}

/** Both numbers as the interface shows them: `6 → 90 s`, or only seconds where they are keyed as they are. */
export function bothNumbers(field: DelayField, encoded: EncodedDelay): string {
  if (!encoded.ok) return 'cannot be stored'
  return `${encoded.keyed} → ${formatSeconds(encoded.seconds)}`
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

interface Wanted {
  readonly wanted: number
  readonly nearest: readonly number[]
}

function cannot(field: DelayField, { wanted, nearest }: Wanted, limit: Limit | null): string {
  const least = formatSeconds(decodeDelay(field, field.min))
  const most = formatSeconds(decodeDelay(field, field.max))
  const step = field.step * field.secondsPerUnit
  const beyond = limit?.max ? `, and the region allows at most ${formatSeconds(limit.max)}` : ''
  return `${field.name} stores ${least} to ${most} in steps of ${step} s${beyond}: ${formatSeconds(wanted)} cannot be kept. Nearest: ${nearest.map(formatSeconds).join(' and ')}.`
}
