import { filled, screenOf, type Compiled } from './compiled.ts'
import { held, type PanelState } from './state.ts'
import { listOf, lit } from './widgets.ts'

/** Sign that stands for what only the panel knows, such as the time of day; it is never compared. */
const LIVE = '·'

/** What the display shows, line by line. Text wider than the display is cut where it ends. */
export function display(panel: Compiled, state: PanelState): readonly string[] {
  const { display: size } = panel.description
  const { lines } = screenOf(panel, state.screen)
  return Array.from({ length: size.lines }, (_, index) => {
    const text =
      state.says !== '' && index === size.messages - 1
        ? state.says
        : (lines[index] ?? '').replace(/\{([^{}]*(?:\{[^{}]*\}[^{}]*)*)\}/g, (_whole, token: string) =>
            tokenText(panel, state, token),
          )
    return text.slice(0, size.columns).trimEnd()
  })
}

function tokenText(panel: Compiled, state: PanelState, token: string): string {
  const { widget } = screenOf(panel, state.screen)
  if (token.startsWith('live:')) return LIVE.repeat(Number(token.slice(5)))
  if (token.startsWith('@')) return shownAt(panel, state, token.slice(1, -1))
  switch (token) {
    case 'typed':
      return typedText(panel, state)
    case 'buf':
      return state.typed === null && 'at' in widget
        ? shownAt(panel, state, widget.at)
        : typedText(panel, state)
    case 'raw':
      return state.typed === null && 'at' in widget
        ? held(state)(filled(widget.at, state.pointers))
        : typedText(panel, state)
    case 'value':
      return 'at' in widget ? shownAt(panel, state, widget.at) : ''
    case 'row':
      return widget.kind === 'choice' ? (listOf(panel, state, widget.at)[state.row]?.shows ?? '') : ''
    case 'lit':
      return widget.kind === 'options' ? (state.typed ?? lit(state, widget)) : ''
    default:
      return pointerText(panel, state, token)
  }
}

/** What is typed, with the sign of the cursor; a code shows as stars. */
function typedText({ description }: Compiled, { screen, typed }: PanelState): string {
  const widget = description.screens[screen]?.widget
  if (widget?.kind === 'code') return '*'.repeat(typed?.startsWith('code') ? 4 : (typed ?? '').length)
  return `${typed ?? ''}${description.display.cursor}`
}

function pointerText({ description }: Compiled, { pointers }: PanelState, name: string): string {
  const at = pointers[name]
  return at === undefined ? '' : String(at).padStart(description.pointers[name]?.digits ?? 1, '0')
}

function shownAt(panel: Compiled, state: PanelState, template: string): string {
  const value = held(state)(filled(template, state.pointers))
  return value === '' ? '' : (panel.values(template, held(state))?.shows(value) ?? value)
}
