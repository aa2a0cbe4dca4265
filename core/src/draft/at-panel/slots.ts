import type { Target } from '../../catalogue/schema.ts'
import type { Slot } from './acted-out.ts'
import { toldScreen, type Sketch, type SketchScreen, type Told } from './sketch.ts'

/* The places of a sketch that lead somewhere: what stands there, and how it is told. */

/** A slot taken apart: the group of its path with the name, and what of it leads on. */
function taken({ path, part }: Slot) {
  const [group = '', ...names] = path.split('.')
  const [kind = '', ...rest] = part.split(' ')
  return { group, name: names.join('.'), kind, of: rest.join(' ') }
}

/** What a slot says now; null where nobody has said. */
export function targetAt(sketch: Sketch, slot: Slot): Target | null {
  const { group, name, kind, of } = taken(slot)
  if (group === 'idle') return sketch.idle?.to ?? null
  if (group === 'walks') return sketch.walks[name]?.[kind as 'after' | 'before'] ?? null
  const screen = sketch.screens[name]
  if (!screen) return null
  if (kind === 'key') return screen.keys[of] ?? sketch.common[of] ?? null
  return kind === 'hold' ? (screen.holds[of]?.to ?? null) : answerLeads(screen, of)
}

function answerLeads({ widget }: SketchScreen, pattern: string): Target | null {
  if (widget?.kind === 'jump') return widget.to[pattern] ?? null
  return widget && 'then' in widget ? widget.then : null
}

/** Seconds for which a key is taken to be held where nobody has said. */
const USUAL_HOLD = 3

/** Says where a slot leads; null takes it back. */
export function toldSlot(sketch: Sketch, slot: Slot, target: Target | null): readonly Told[] {
  const { group, name, kind, of } = taken(slot)
  if (group === 'idle') return [['idle.to', target as Told[1]]]
  if (group === 'walks') {
    const walk = sketch.walks[name]
    return walk ? [[slot.path, { ...walk, [kind]: target } as unknown as Told[1]]] : []
  }
  const screen = sketch.screens[name]
  if (!screen) return []
  if (kind === 'key') {
    const { [of]: _was, ...others } = screen.keys
    return [toldScreen(name, { ...screen, keys: target === null ? others : { ...others, [of]: target } })]
  }
  if (kind === 'hold') {
    const seconds = screen.holds[of]?.seconds ?? USUAL_HOLD
    return [toldScreen(name, { ...screen, holds: { ...screen.holds, [of]: { seconds, to: target } } })]
  }
  const { widget } = screen
  if (widget?.kind === 'jump')
    return [toldScreen(name, { ...screen, widget: { ...widget, to: { ...widget.to, [of]: target } } })]
  return widget && 'then' in widget
    ? [toldScreen(name, { ...screen, widget: { ...widget, then: target } as typeof widget })]
    : []
}
