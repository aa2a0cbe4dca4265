import { expect } from 'vitest'
import type { Memory } from '../memory/memory.ts'
import type { TargetMemory } from '../memory/target.ts'
import type { Compiled } from '../panel/compiled.ts'
import { routeTo, type Route, type RouteOrder } from '../panel/route.ts'
import type { Input } from '../panel/state.ts'

/* Routes on panels of a few screens, each key counted by hand. Keys are written as they are pressed, a transmission as an asterisk. */

/** A target that wants this and leaves everything else. */
export const wanting = (wanted: Record<string, string>, over: Partial<TargetMemory> = {}): TargetMemory => ({
  wanted: new Map(Object.entries(wanted)),
  open: new Set(),
  left: new Set(),
  hidden: new Set(),
  refused: [],
  ...over,
})
/** Inputs as they are pressed. */
const signs = (inputs: readonly Input[]): string =>
  inputs.map((input) => (input.kind === 'press' ? input.key : input.kind === 'hear' ? '*' : '~')).join('')
/** A route that is there. */
export const found = (route: Route): Extract<Route, { ok: true }> =>
  route.ok ? route : expect.fail(JSON.stringify(route.reasons))
/** Why there is none, by address. */
export const why = (route: Route): string[] =>
  route.ok ? [] : route.reasons.map(({ address, reason }) => `${address}: ${reason}`)
/** Each step: the way, what answers, and what is set. */
export const steps = (route: Route): string[] =>
  found(route).steps.map(
    ({ way, answer, sets }) => `${signs(way)} ${signs(answer)} ${sets.map(({ address }) => address).join()}`,
  )
/** All keys in a row. */
export const keys = (route: Route): string =>
  found(route)
    .steps.map(({ way, answer }) => signs(way) + signs(answer))
    .join('')

interface Asked {
  readonly panel: Compiled
  readonly target: TargetMemory
  readonly has?: Record<string, string>
  readonly order?: RouteOrder
  readonly isHeard?: (address: string) => boolean
}
/** A route on a panel that comes as shipped, but for what it has. */
export const route = ({ panel, target, has = {}, order = 'shortest', isHeard }: Asked): Route => {
  const start: Memory = new Map([...panel.factory, ...Object.entries(has)])
  return routeTo({ panel, target, start, order, ...(isHeard ? { isHeard } : {}) })
}
