import type { Target } from '../../catalogue/schema.ts'
import { isBeep, takenKeys, toldScreen, type Sketch, type Told } from './sketch.ts'

/* Keys that act alike on all displays that do not say otherwise. */

/** A key that does the same on several displays, and nothing says that it does so everywhere. */
export interface Alike {
  readonly key: string
  readonly target: Target
  readonly screens: readonly string[]
}

/** Of the displays on which a key was tried at least this part must say the same. */
const LEAST_PART = 0.5
/** On how many displays a key must do the same before it is asked whether it does so everywhere. */
const ALIKE_FROM = 3

/** Keys that could act alike on all displays that do not say otherwise. */
export function alikeKeys(sketch: Sketch): readonly Alike[] {
  const seen = new Map<string, { key: string; target: Target; screens: string[] }>()
  for (const [screen, { keys }] of Object.entries(sketch.screens))
    for (const [key, target] of Object.entries(keys)) {
      if (isBeep(target) || Object.hasOwn(sketch.common, key)) continue
      const same = `${key} ${JSON.stringify(target)}`
      const there = seen.get(same)
      if (there) there.screens.push(screen)
      else seen.set(same, { key, target, screens: [screen] })
    }
  const most = [...seen.values()].toSorted((a, b) => b.screens.length - a.screens.length)
  const tried = triedOn(sketch)
  return most.filter(
    ({ key, screens }, index) =>
      screens.length >= ALIKE_FROM &&
      most.findIndex((one) => one.key === key) === index &&
      screens.length >= LEAST_PART * tried(key),
  )
}

/** On how many displays a key is free: what is asked there does not take it. */
function triedOn(sketch: Sketch): (key: string) => number {
  const all = Object.values(sketch.screens).map(({ widget, keys }) => ({
    keys,
    taken: new Set(takenKeys(sketch, { widget })),
  }))
  return (key) => all.filter(({ keys, taken }) => !taken.has(key) && !isBeep(keys[key])).length
}

/** A key acts alike on all displays: those that said the same say it no more, nor those of which somebody says so. */
export function toldAlike(
  sketch: Sketch,
  { key, target }: Pick<Alike, 'key' | 'target'>,
  also: readonly string[] = [],
): readonly Told[] {
  const same = JSON.stringify(target)
  return [
    [`common.${key}`, target as Told[1]],
    ...Object.entries(sketch.screens).flatMap(([name, screen]): Told[] => {
      const { [key]: was, ...others } = screen.keys
      return was !== undefined && (JSON.stringify(was) === same || also.includes(name))
        ? [toldScreen(name, { ...screen, keys: others })]
        : []
    }),
  ]
}
