import type { Sketch, SketchWalk, Told } from './sketch.ts'

/* Rows of questions, put in order by which was seen to come after which. */

/** The row of questions that a display stands in. */
export function rowOf(sketch: Sketch, screen: string): readonly [name: string, walk: SketchWalk] | null {
  return Object.entries(sketch.walks).find(([, walk]) => walk.screens.includes(screen)) ?? null
}

/** A row of questions that could not be made, with the reason. */
export interface NoRow {
  readonly problem: string
}

/** Says that one question comes behind another in a row: a new row, a longer one, or two that are one. */
export function rowed(sketch: Sketch, first: string, second: string): readonly Told[] | NoRow {
  const one = rowOf(sketch, first)
  const two = rowOf(sketch, second)
  const [name, walk] = one ?? two ?? [first, noWalk]
  const [joined, other] = one && two && one[0] !== two[0] ? two : ['', noWalk]
  const all = [...new Set([...walk.screens, ...other.screens, first, second])]
  const seen = [...walk.seen, ...other.seen]
  const isKnown = seen.some(([a, b]) => a === first && b === second)
  const pairs: SketchWalk['seen'] = isKnown ? seen : [...seen, [first, second]]
  const screens = inOrder(all, pairs)
  if (!screens) return { problem: 'was seen to come before it: a row goes one way' }
  const ends = { after: other.after ?? walk.after, before: walk.before ?? other.before }
  return [
    ...(joined === '' ? [] : [[`walks.${joined}`, undefined] as const]),
    [`walks.${name}`, { screens, seen: pairs, ...ends } as unknown as Told[1]],
  ]
}

const noWalk: SketchWalk = { screens: [], seen: [], after: null, before: null }

/** Takes a display away: out of its row, too; what led there is open again. */
export function takenAway(sketch: Sketch, screen: string): readonly Told[] {
  const row = rowOf(sketch, screen)
  const path: Told = [`screens.${screen}`, undefined]
  if (!row) return [path]
  const [name, walk] = row
  const screens = walk.screens.filter((one) => one !== screen)
  if (screens.length < 2) return [path, [`walks.${name}`, undefined]]
  // What came before it came before what came behind it.
  const before = walk.seen.filter(([, second]) => second === screen).map(([first]) => first)
  const behind = walk.seen.filter(([first]) => first === screen).map(([, second]) => second)
  const over = before.flatMap((first) => behind.map((second) => [first, second] as const))
  const seen = [...walk.seen.filter((pair) => !pair.includes(screen)), ...over]
  return [path, [`walks.${name}`, { ...walk, screens, seen } as unknown as Told[1]]]
}

/** All in an order in which each comes behind those that it was seen behind; where that leaves a choice, as they stood. Null where they go round. */
function inOrder(all: readonly string[], pairs: SketchWalk['seen']): readonly string[] | null {
  const order: string[] = []
  const left = new Set(all)
  while (left.size > 0) {
    const free = [...left].filter((name) => !pairs.some(([a, b]) => b === name && left.has(a)))
    // What was last seen right behind the last one comes next.
    const behind = pairs.findLast(([a, b]) => a === order.at(-1) && free.includes(b))
    const next = behind?.[1] ?? free[0]
    if (next === undefined) return null
    order.push(next)
    left.delete(next)
  }
  return order
}
