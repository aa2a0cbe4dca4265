import type { Compiled } from './compiled.ts'
import { display } from './display.ts'
import { act, acted } from './machine.ts'
import type { RouteStep } from './route.ts'
import { held, type Input, type PanelState } from './state.ts'
import { press } from './typist.ts'

/*
 * One wrong key: left out, pressed twice, or the one beside it. Codes are left out. A slip shows where the display is not as the
 * sheet says, before the last key of an answer or after it.
 */

/** Addresses that one wrong key in a step would leave otherwise without the display showing it, each once. */
export function slipsOf(panel: Compiled, step: RouteStep): readonly string[] {
  const inputs = [...step.way, ...step.answer]
  const typed = step.answer.length > 1 ? inputs.length - 1 : inputs.length
  const expected: Shown = {
    typed: shown(panel, acted(panel, step.from, inputs.slice(0, typed))),
    after: shown(panel, step.after),
  }
  const wrong = new Set<string>()
  inputs.forEach((input, at) => {
    if (input.kind !== 'press') return
    for (const instead of slipped(panel, input)) {
      const slip = [...inputs.slice(0, at), ...instead, ...inputs.slice(at + 1)]
      for (const address of unseen(panel, step, { slip, expected, last: at === inputs.length - 1 }))
        wrong.add(address)
    }
  })
  return [...wrong]
}

/** What is pressed instead of a key: nothing, it twice, or a neighbour. */
export function slipped(
  panel: Compiled,
  { key }: Extract<Input, { kind: 'press' }>,
): readonly (readonly Input[])[] {
  return [[], [press(key), press(key)], ...neighbours(panel, key).map((other) => [press(other)])]
}

/** Keys beside, above and below a key. */
export function neighbours({ description }: Compiled, key: string): readonly string[] {
  const rows = description.keys
  const row = rows.findIndex((keys) => keys.includes(key))
  const column = rows[row]?.indexOf(key) ?? -1
  const beside = [
    rows[row]?.[column - 1],
    rows[row]?.[column + 1],
    rows[row - 1]?.[column],
    rows[row + 1]?.[column],
  ]
  return beside.filter((other) => other !== undefined)
}

interface Shown {
  readonly typed: string
  readonly after: string
}

function unseen(
  panel: Compiled,
  { from, after }: RouteStep,
  {
    slip,
    expected,
    last,
  }: { readonly slip: readonly Input[]; readonly expected: Shown; readonly last: boolean },
): readonly string[] {
  const end = slip.at(-1)
  const before = acted(panel, from, slip.slice(0, -1))
  const state = end ? act(panel, before, end) : before
  if (shown(panel, state) !== expected.after) return []
  // A slip of the last key itself comes after what was typed was looked at.
  if (!last && expected.typed !== expected.after && shown(panel, before) !== expected.typed) return []
  const was = held(after)
  const is = held(state)
  const addresses = new Set([
    ...state.kept.keys(),
    ...state.draft.keys(),
    ...after.kept.keys(),
    ...after.draft.keys(),
  ])
  return [...addresses].filter((address) => was(address) !== is(address))
}

function shown(panel: Compiled, state: PanelState): string {
  return display(panel, state).join('\n')
}
