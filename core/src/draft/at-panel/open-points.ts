import type { Target } from '../../catalogue/schema.ts'
import { movesOf } from '../../panel/compiled.ts'
import type { Slot } from './acted-out.ts'
import { leavesRow, takenKeys, type Sketch } from './sketch.ts'

/* What nobody has said yet of an interface, and the map of its displays. */

/** Something that is open: at which display, which place, in words. */
export interface OpenPoint {
  readonly screen: string
  /** Null for what is asked there, which is no way that leads on. */
  readonly slot: Slot | null
  readonly words: string
}

/** What an entry cannot be without, in the order of its displays. */
export function openPoints(sketch: Sketch): readonly OpenPoint[] {
  const nowhere = (target: Target | null): boolean => leadsNowhere(sketch, target)
  const screens = Object.entries(sketch.screens).flatMap(([screen, { widget, holds, keys }]): OpenPoint[] => {
    const path = `screens.${screen}`
    const leads = (part: string, words: string): OpenPoint => ({ screen, slot: { path, part }, words })
    if (!widget) return [{ screen, slot: null, words: 'what is asked there' }]
    const patterns =
      widget.kind === 'jump'
        ? Object.entries(widget.to).flatMap(([pattern, target]) =>
            nowhere(target) ? [leads(`to ${pattern}`, `where ${pattern} leads`)] : [],
          )
        : []
    const held = Object.entries(holds).flatMap(([key, { to }]) =>
      nowhere(to) ? [leads(`hold ${key}`, `where [${key}] held leads`)] : [],
    )
    const answer =
      'then' in widget && nowhere(widget.then)
        ? [leads('then', widget.kind === 'busy' ? 'what follows' : 'where an answer leads')]
        : []
    const pressed = Object.entries(keys).flatMap(([key, target]) =>
      nowhere(target) ? [leads(`key ${key}`, `where [${key}] leads`)] : [],
    )
    return [...answer, ...patterns, ...pressed, ...held]
  })
  const walks = Object.entries(sketch.walks).flatMap(
    ([name, { screens: row, after, before }]): OpenPoint[] => {
      const path = `walks.${name}`
      const [first = '', last = ''] = [row[0], row.at(-1)]
      return [
        ...((after === null ? leavesRow(sketch, row, '>') : nowhere(after))
          ? [{ screen: last, slot: { path, part: 'after' }, words: 'what follows the last of its row' }]
          : []),
        ...((before === null ? leavesRow(sketch, row, '<') : nowhere(before))
          ? [
              {
                screen: first,
                slot: { path, part: 'before' },
                words: 'what comes before the first of its row',
              },
            ]
          : []),
      ]
    },
  )
  const idle =
    sketch.idle && nowhere(sketch.idle.to)
      ? [{ screen: sketch.start, slot: { path: 'idle', part: 'to' }, words: 'where it goes by itself' }]
      : []
  return [...screens, ...walks, ...idle]
}

/** Whether nobody has said where it leads, or the display that it led to was taken away. */
function leadsNowhere({ screens }: Sketch, target: Target | null): boolean {
  if (target === null) return true
  return movesOf(target).some(
    ({ go }) => go !== undefined && !['>', '<', '.'].includes(go) && !Object.hasOwn(screens, go),
  )
}

/** Keys of a display that nobody has tried there: they count as doing nothing. */
export function untriedKeys(sketch: Sketch, screen: string): readonly string[] {
  const told = sketch.screens[screen]
  if (!told || told.alone || told.widget?.kind === 'busy') return []
  const known = new Set([
    ...Object.keys(told.keys),
    ...Object.keys(sketch.common),
    ...takenKeys(sketch, told),
  ])
  return sketch.keys.flat().filter((key) => !known.has(key))
}

/** The map of the displays: which leads to which, and by what. */
export interface ScreenMap {
  readonly screens: readonly {
    readonly name: string
    readonly lines: readonly string[]
    readonly open: number
    readonly untried: number
  }[]
  readonly ways: readonly { readonly from: string; readonly to: string; readonly by: readonly string[] }[]
}

/** Draws up the map; keys that act alike everywhere are left out: they would lead from everywhere. */
export function screenMap(sketch: Sketch): ScreenMap {
  const open = openPoints(sketch)
  const ways = new Map<string, { from: string; to: string; by: string[] }>()
  const way = (from: string, target: Target | null, by: string): void => {
    for (const { go } of target === null ? [] : movesOf(target))
      for (const to of landingsOf(sketch, from, go)) {
        const there = ways.get(`${from} ${to}`)
        if (!there) ways.set(`${from} ${to}`, { from, to, by: [by] })
        else if (!there.by.includes(by)) there.by.push(by)
      }
  }
  for (const [name, { widget, keys, holds }] of Object.entries(sketch.screens)) {
    for (const [key, target] of Object.entries(keys)) way(name, target, `[${key}]`)
    for (const [key, { to }] of Object.entries(holds)) way(name, to, `[${key}] held`)
    if (widget?.kind === 'jump')
      for (const [pattern, target] of Object.entries(widget.to)) way(name, target, pattern)
    else if (widget && 'then' in widget)
      way(name, widget.then, widget.kind === 'busy' ? 'by itself' : 'answer')
  }
  for (const { screens, after, before } of Object.values(sketch.walks)) {
    way(screens.at(-1) ?? '', after, 'on')
    way(screens[0] ?? '', before, 'back')
  }
  return {
    screens: Object.entries(sketch.screens).map(([name, { lines }]) => ({
      name,
      lines,
      open: open.filter(({ screen }) => screen === name).length,
      untried: untriedKeys(sketch, name).length,
    })),
    ways: [...ways.values()],
  }
}

/** Displays that a way leads to: along a row its neighbour. */
function landingsOf(sketch: Sketch, from: string, go: string | undefined): readonly string[] {
  if (go === undefined || go === '.') return []
  if (go !== '>' && go !== '<') return Object.hasOwn(sketch.screens, go) && go !== from ? [go] : []
  const row = Object.values(sketch.walks).find(({ screens }) => screens.includes(from))?.screens ?? []
  const next = row[row.indexOf(from) + (go === '>' ? 1 : -1)]
  return next === undefined ? [] : [next]
}
