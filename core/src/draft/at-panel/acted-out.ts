import type { Family, PanelInterface, PanelModel, Screen, Target } from '../../catalogue/schema.ts'
import { compiled, movesOf, screenOf, type Compiled } from '../../panel/compiled.ts'
import { display } from '../../panel/display.ts'
import { act } from '../../panel/machine.ts'
import { blankState, type Input, type PanelState } from '../../panel/state.ts'
import { opened, typedOn } from '../../panel/widgets.ts'
import { pointersOver, type Sketch, type SketchScreen, type SketchWidget } from './sketch.ts'

/*
 * A sketch in step with the panel that it describes: the same key is pressed on both. Where it was told what the key does, it says
 * what the panel must now show; where nobody has said, it says which place of the description is open.
 */

/** The display of a sketch that stands for one nobody has told. */
const OPEN = 'not-told'

/**
 * A place of a description that leads somewhere: `screens.x` with `then`, `to 14`, `key tick` or `hold tick`; `walks.x` with
 * `after` or `before`; `idle`.
 */
export interface Slot {
  readonly path: string
  readonly part: string
}

/** A sketch and its panel, ready to be acted out. */
export interface ActedOut {
  readonly sketch: Sketch
  readonly panel: Compiled
}

/** Makes a sketch ready to be acted out on a panel: what leads nowhere yet leads to a display that stands for all untold ones. */
export function actedOut(sketch: Sketch, panel: PanelModel, families: readonly Family[]): ActedOut {
  const known = (target: Target | null, slot: Slot): Target => {
    const moves = target === null ? [] : movesOf(target)
    const told =
      moves.length > 0 &&
      moves.every(({ go }) => go === undefined || along(go) || Object.hasOwn(sketch.screens, go))
    return told && target !== null ? target : { go: OPEN, say: `${slot.path} ${slot.part}` }
  }
  const screens = Object.entries(sketch.screens).map(([name, screen]) => [
    name,
    screenActedOut(sketch, screen, (target, part) => known(target, { path: `screens.${name}`, part })),
  ])
  const walks = Object.entries(sketch.walks).map(([name, walk]) => [
    name,
    {
      screens: walk.screens.filter((screen) => Object.hasOwn(sketch.screens, screen)),
      after: known(walk.after, { path: `walks.${name}`, part: 'after' }),
      before: known(walk.before, { path: `walks.${name}`, part: 'before' }),
    },
  ])
  const { letters, unique, idle } = sketch
  const description: PanelInterface = {
    ...{ kind: 'interface', id: 'interface/sketch', version: '1', maker: '', name: '', regions: [] },
    ...{ display: sketch.display, keys: sketch.keys.map((row) => [...row]) },
    ...{ pointers: { ...sketch.pointers }, fields: { ...sketch.fields }, common: { ...sketch.common } },
    ...{ walks: Object.fromEntries(walks), keeping: sketch.keeping, start: sketch.start },
    screens: {
      ...Object.fromEntries(screens),
      [OPEN]: { alone: true, carry: Object.keys(sketch.pointers), lines: [''], widget: { kind: 'menu' } },
    },
    ...(letters ? { letters } : {}),
    ...(unique ? { unique } : {}),
    ...(idle ? { idle: { seconds: idle.seconds, to: known(idle.to, { path: 'idle', part: 'to' }) } } : {}),
  }
  return { sketch, panel: compiled(description, panel, families) }
}

const along = (go: string): boolean => go === '>' || go === '<' || go === '.'

function screenActedOut(
  sketch: Sketch,
  screen: SketchScreen,
  known: (target: Target | null, part: string) => Target,
): Screen {
  const over = pointersOver(sketch, screen)
  return {
    lines: [...screen.lines],
    ...(screen.alone ? { alone: true as const } : {}),
    ...(over.length > 0 ? { over: [...over] } : {}),
    ...(screen.skip.length > 0 ? { skip: [...screen.skip] } : {}),
    widget: widgetActedOut(screen.widget, known),
    keys: Object.fromEntries(
      Object.entries(screen.keys).map(([key, target]) => [key, known(target, `key ${key}`)]),
    ),
    holds: Object.fromEntries(
      Object.entries(screen.holds).map(([key, { seconds, to }]) => [
        key,
        { seconds, to: known(to, `hold ${key}`) },
      ]),
    ),
  }
}

function widgetActedOut(
  widget: SketchWidget | null,
  known: (target: Target | null, part: string) => Target,
): Screen['widget'] {
  if (!widget) return { kind: 'menu' }
  if (widget.kind === 'jump')
    return {
      ...widget,
      to: Object.fromEntries(
        Object.entries(widget.to).map(([pattern, target]) => [pattern, known(target, `to ${pattern}`)]),
      ),
    }
  return ('then' in widget ? { ...widget, then: known(widget.then, 'then') } : widget) as Screen['widget']
}

/** What a sketch says of one input. */
export interface TriedKey {
  /** Whether nobody has said what that does. */
  readonly isOpen: boolean
  /** What the panel must now show; null where nobody has said. */
  readonly shows: readonly string[] | null
  readonly state: PanelState
  /** The place of the description that led there, or that is open; null where none does: the question itself took it. */
  readonly slot: Slot | null
}

/** Does the same to a sketch as to its panel. */
export function tried({ sketch, panel }: ActedOut, state: PanelState, input: Input): TriedKey {
  const slot = slotUsed({ sketch, panel }, state, input)
  const next = act(panel, state, input)
  if (next.screen !== OPEN) {
    const isOpen = slot !== null && isUntold(sketch, state.screen, slot)
    return {
      ...{ isOpen, state: isOpen ? state : next, slot },
      // Made when it is looked at.
      get shows() {
        return isOpen ? null : display(panel, next)
      },
    }
  }
  const [path = '', ...part] = next.says.split(' ')
  return {
    ...{ isOpen: true, shows: null },
    state: { ...next, screen: state.screen, typed: state.typed, says: '' },
    slot: { path, part: part.join(' ') },
  }
}

/** Whether a key was never tried on a display, and no key of its name acts alike everywhere. */
function isUntold(sketch: Sketch, screen: string, { part }: Slot): boolean {
  const [kind = '', key = ''] = part.split(' ')
  const told = sketch.screens[screen]
  if (kind === 'key')
    return told?.keys[key] === undefined && (told?.alone ?? sketch.common[key]) === undefined
  return kind === 'hold' && told?.holds[key] === undefined
}

function slotUsed({ sketch, panel }: ActedOut, state: PanelState, input: Input): Slot | null {
  const path = `screens.${state.screen}`
  if (input.kind === 'wait') {
    const { widget } = screenOf(panel, state.screen)
    if (widget.kind === 'busy')
      return state.waited + input.seconds >= widget.seconds ? { path, part: 'then' } : null
    const { idle } = panel.description
    return idle && state.waited + input.seconds >= idle.seconds ? { path: 'idle', part: 'to' } : null
  }
  if (input.kind === 'hear') return { path, part: 'then' }
  if (input.kind === 'code') return null
  if (input.kind === 'hold') {
    const hold = sketch.screens[state.screen]?.holds[input.key]
    if (!hold || input.seconds >= hold.seconds) return { path, part: `hold ${input.key}` }
  }
  return pressed({ sketch, panel }, state, input.key)
}

function pressed({ panel }: ActedOut, state: PanelState, key: string): Slot | null {
  const path = `screens.${state.screen}`
  const { widget } = screenOf(panel, state.screen)
  if (widget.kind === 'busy') return null
  const typed = typedOn(
    panel,
    { ...state, says: '', beeped: false, waited: 0, listening: 0 },
    { widget, key },
  )
  if (!typed) return { path, part: `key ${key}` }
  if (!typed.then) return null
  if (widget.kind !== 'jump') return typed.then === '.' ? null : { path, part: 'then' }
  const pattern = Object.entries(widget.to).find(([, target]) => target === typed.then)?.[0]
  return pattern === undefined ? null : { path, part: `to ${pattern}` }
}

/** A state in which what was told since then is held as it is shipped. */
export function withShipped({ panel }: ActedOut, { panel: before }: ActedOut, state: PanelState): PanelState {
  const more = [...panel.factory].filter(([address]) => !before.addresses.has(address))
  return more.length === 0 ? state : { ...state, kept: new Map([...more, ...state.kept]) }
}

/** A sketch at a display that the panel shows. */
export function standing(
  { panel }: ActedOut,
  before: PanelState | null,
  { screen, pointers, says = '' }: Pick<PanelState, 'screen' | 'pointers'> & { readonly says?: string },
): PanelState {
  const from = before ?? blankState(panel.factory)
  return { ...opened(panel, { ...from, screen, pointers, beeped: false }), says }
}
