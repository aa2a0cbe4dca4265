import type { ActKind, SetMode, Sound } from './behaviour.ts'
import type { Trouble } from './state.ts'

/** What happens to a panel; areas empty means all of them. */
export type ActEvent = {
  /** Seconds on the caller's clock; one before the last is taken as the last. */
  readonly at: number
} & (
  | {
      readonly do: 'set'
      readonly mode: SetMode
      readonly areas: readonly string[]
      readonly part: string | null
    }
  | { readonly do: 'unset'; readonly areas: readonly string[]; readonly duress: boolean }
  /** A zone opens, or trips. */
  | { readonly do: 'trip'; readonly zone: string }
  | { readonly do: 'close'; readonly zone: string }
  | { readonly do: 'leave-out'; readonly zone: string }
  | { readonly do: 'cover'; readonly device: string; readonly open: boolean }
  | { readonly do: 'lost'; readonly device: string }
  | { readonly do: 'back'; readonly device: string }
  | { readonly do: 'battery'; readonly device: string; readonly low: boolean }
  | { readonly do: 'jam'; readonly on: boolean }
  | { readonly do: 'wait' }
)

/** Why setting or leaving out was refused. */
type Refusal = 'would alarm at once' | 'trouble' | 'entry runs' | 'always on'

/** What a report to the station says. */
export type ReportOf = ActKind | 'cancelled' | 'trouble' | 'trouble over'

/** What a panel does, with the second at which it does it. */
export type ActOutput = { readonly at: number } & (
  | { readonly does: 'leave'; readonly area: string; readonly mode: SetMode; readonly until: number | null }
  | { readonly does: 'leave again'; readonly area: string; readonly until: number | null }
  | { readonly does: 'set'; readonly area: string; readonly mode: SetMode }
  | { readonly does: 'unset'; readonly area: string }
  | {
      readonly does: 'enter'
      readonly area: string
      readonly zone: string
      readonly delay: 'entry-1' | 'entry-2'
      readonly until: number
    }
  | { readonly does: 'enter sooner'; readonly area: string; readonly zone: string; readonly until: number }
  /** A trip that waits for the entry delay of another. */
  | { readonly does: 'wait'; readonly zone: string }
  | { readonly does: 'chime'; readonly zone: string }
  | { readonly does: 'notice'; readonly zone: string }
  | { readonly does: 'alarm'; readonly source: string; readonly kind: ActKind }
  | { readonly does: 'sound'; readonly sound: Sound }
  | { readonly does: 'quiet' }
  | { readonly does: 'report'; readonly what: ReportOf; readonly source: string }
  /** A held alarm was unset before it was sent. */
  | { readonly does: 'abort'; readonly source: string }
  | { readonly does: 'leave out'; readonly zone: string; readonly why: 'open' | 'user' | 'too often' }
  | { readonly does: 'first knock'; readonly zone: string }
  | { readonly does: 'verify'; readonly zone: string }
  | { readonly does: 'ask'; readonly zone: string; readonly until: number }
  | { readonly does: 'trouble'; readonly device: string; readonly what: Trouble }
  | { readonly does: 'trouble over'; readonly device: string; readonly what: Trouble }
  | { readonly does: 'clear' }
  | { readonly does: 'switch'; readonly zone: string }
  | { readonly does: 'refuse'; readonly why: Refusal; readonly of: readonly string[] }
)
