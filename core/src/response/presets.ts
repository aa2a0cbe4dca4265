import type { JobInfo } from '../job/records.ts'
import type { Region } from '../units/region.ts'

/** Limits of one delay, in seconds; null where the preset sets none. */
export interface Limit {
  readonly min: number | null
  readonly max: number | null
  readonly usual: number
}

/** What a region's standard says of delays. The local code rules; figures are editable presets, shown with their source. */
export interface Preset {
  readonly title: string
  readonly source: string
  readonly entry: Limit
  readonly exit: Limit
  /** The abort window or transmission delay for burglary; null where the preset names none. */
  readonly abort: Limit | null
  /** Siren time, seconds. */
  readonly siren: {
    readonly min: number | null
    readonly max: number | null
    readonly usual: number
    readonly source: string
  }
  /** Alarms of one zone until it is shut out; null where the preset names none. */
  readonly swinger: { readonly min: number; readonly max: number; readonly usual: number } | null
  /** Most seconds of entry delay and abort window together in a listed installation; null where not limited. */
  readonly entryPlusAbort: number | null
}

const none: Limit = { min: null, max: null, usual: 30 }

/** The presets by region, each with its source. */
export const presets: Readonly<Record<Region, Preset>> = {
  europe: {
    title: 'EN 50131',
    source: 'EN 50131-1: entry at most 45 s (confirm against the edition in force)',
    entry: { min: null, max: 45, usual: 30 },
    exit: { min: null, max: null, usual: 60 },
    abort: null,
    siren: { min: 90, max: 900, usual: 180, source: 'EN 50131-1: 90 s to 15 min' },
    swinger: null,
    entryPlusAbort: null,
  },
  'north-america': {
    title: 'CP-01',
    source:
      'ANSI/SIA CP-01: entry 30–240 s, exit 45–255 s, abort window 15–45 s; entry + abort at most 60 s where a listing or certificate asks it (confirm)',
    entry: { min: 30, max: 240, usual: 30 },
    exit: { min: 45, max: 255, usual: 60 },
    abort: { min: 15, max: 45, usual: 30 },
    siren: { min: 240, max: null, usual: 240, source: 'US household: at least 4 min' },
    swinger: { min: 1, max: 6, usual: 2 },
    entryPlusAbort: 60,
  },
  own: {
    title: 'own figures',
    source: 'the firm’s own figures: none are set',
    entry: none,
    exit: { ...none, usual: 60 },
    abort: null,
    siren: { min: null, max: null, usual: 180, source: 'none set' },
    swinger: null,
    entryPlusAbort: null,
  },
}

/** Most seconds of entry delay and hold before sending together; null where no listing or certificate asks for it. */
export function entryPlusAbort({ region, listed }: Pick<JobInfo, 'region' | 'listed'>): number | null {
  return listed ? presets[region].entryPlusAbort : null
}
