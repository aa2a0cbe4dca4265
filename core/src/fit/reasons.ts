import type { Region } from '../units/region.ts'

/** A band as it is printed, such as `345 MHz` or `912–918 MHz`. */
type Band = string

/** What each check found, by the check's name: figures and names as printed, no sentence. */
export interface ReasonFacts {
  /** Nothing to hear it with: the panel or its radio family is not known. */
  readonly 'no-panel': { readonly lacksFamily: string | null }
  readonly 'no-receiver': { readonly family: string; readonly band: Band }
  readonly band: {
    readonly family: string
    readonly band: Band
    readonly receiver: string
    readonly listens: readonly Band[]
  }
  readonly protocol: { readonly receiver: string; readonly family: string }
  /** `has` is null where nobody read it yet. */
  readonly firmware: { readonly family: string; readonly need: string; readonly has: string | null }
  readonly encryption: { readonly model: string; readonly receiver: string }
  readonly 'encryption-optional': { readonly model: string; readonly receiver: string }
  readonly class: { readonly receiver: string; readonly deviceClass: string }
  /** An event for which the panel has no type. */
  readonly kind: {
    readonly panel: string
    readonly kind: string
    readonly event: string
    readonly model: string
  }
  readonly 'one-way': { readonly model: string; readonly receiver: string; readonly family: string }
  /** `band` is null where the device is not approved, else what its family sends on is not legal there. */
  readonly region: { readonly what: string; readonly band: Band | null; readonly region: Region }
  readonly code: { readonly panel: string; readonly model: string }
  /** Minutes; `lost`: the panel counts it as lost between two check-ins. */
  readonly window: {
    readonly model: string
    readonly every: number
    readonly panel: string
    readonly most: number
    readonly lost: boolean
  }
  readonly bridge: { readonly receiver: string; readonly lost: readonly string[]; readonly model: string }
  /** The part that decides; `has` is null where it states none. */
  readonly grade: { readonly part: string; readonly has: number | null; readonly wanted: number }
  /** Minutes; `most` as printed, with its unit. */
  /** `every` is null for what never checks in. */
  readonly 'check-in': {
    readonly model: string
    readonly every: number | null
    readonly grade: number
    readonly most: string
    readonly source: string
  }
  readonly replay: { readonly model: string }
  /** What the entries do not state and the answer hangs on, by entry. */
  readonly unstated: { readonly of: readonly { readonly part: string; readonly lacks: readonly Lack[] }[] }
  readonly chain: ChainFacts
  readonly repeaters: PlaceFacts
  readonly slots: PlaceFacts
  readonly zones: {
    readonly panel: string
    readonly has: number
    readonly use: 'wired' | 'wireless'
    readonly model: string
    readonly needs: number
    readonly taken: number
  }
  /** `together`: several receivers, whose room is not added up. */
  readonly capacity: { readonly receiver: string; readonly holds: number; readonly together: boolean }
}

/** A fact on which the answer hangs and that an entry may leave open. */
export type Lack =
  'encryption' | 'answers' | 'disarms' | 'check-in' | 'classes' | 'transmitters' | 'encrypted-only'

/** Why what is reached through a repeater is not covered. */
export type ChainFacts =
  | { readonly is: 'gone' }
  | { readonly is: 'no-repeater'; readonly repeater: string }
  | { readonly is: 'absent'; readonly repeater: string; readonly why: 'deferred' | 'replaced' }
  | {
      readonly is: 'other-family'
      readonly repeater: string
      readonly relays: string | null
      readonly family: string | null
    }
  | {
      readonly is: 'in-series'
      readonly repeater: string
      readonly behind: string
      readonly family: string | null
    }

/** A place of its class that the panel lacks; `has` is null where it takes wired ones only. */
interface PlaceFacts {
  readonly panel: string
  readonly has: number | null
  readonly kind: string
}

/** The name of a check. */
export type FitCode = keyof ReasonFacts

/** What one check has against a device: its name, how grave it is, and what it found. */
export type FitReason = {
  [K in FitCode]: {
    readonly code: K
    readonly verdict: 'loss' | 'no' | 'unknown'
    readonly facts: ReasonFacts[K]
  }
}[FitCode]

/** Why the solver leaves a device out: a check's reason, or that the others take what there is. */
export type LeftOut =
  | FitReason
  | { readonly code: 'receivers-full'; readonly facts: { readonly panel: string } }
  | { readonly code: 'no-place-left'; readonly facts: { readonly panel: string; readonly kind: string } }
  | {
      readonly code: 'numbers-taken'
      readonly facts: { readonly panel: string; readonly has: number; readonly use: 'wired' | 'wireless' }
    }
  | { readonly code: 'nothing-in-class'; readonly facts: { readonly panel: string | null } }
