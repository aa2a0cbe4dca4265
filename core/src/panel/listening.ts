import type { Catalogue } from '../catalogue/catalogue.ts'
import type { Move, PanelInterface, PanelModel, Screen, Target } from '../catalogue/schema.ts'

/** How a panel is told to learn something, by its description. */
export interface Listening {
  /** How long it listens, s. */
  readonly seconds: number
  /** How often the same device must be heard meanwhile. */
  readonly needs: number
  /** The key that makes it listen, as it is printed. */
  readonly key: string
  /** What the display shows first where the key is pressed: `Z07 ID`. */
  readonly shows: string
}

/** What is learned: a zone or the device in a slot, by its number. */
export interface LearnPlace {
  readonly group: 'zone' | 'fob' | 'keypad' | 'siren'
  readonly number: number
}

/** How the panel is told to learn at a place; null where nobody has described it, or it learns nothing there. */
export function listeningFor(
  catalogue: Catalogue,
  panel: PanelModel | null,
  { group, number }: LearnPlace,
): Listening | null {
  const description = catalogue.get('interface', panel?.interface ?? null)
  for (const screen of Object.values(description?.screens ?? {})) {
    const { widget } = screen
    const key = widget.kind === 'serial' && widget.at.startsWith(`${group}.`) ? listenKey(screen) : null
    if (!description || widget.kind !== 'serial' || key === null) continue
    const { window: seconds, needs } = widget
    return { seconds, needs, key, shows: firstLine(description, screen, { group, number }) }
  }
  return null
}

function listenKey({ keys }: Screen): string | null {
  return Object.entries(keys ?? {}).find(([, target]) => movesOf(target).some(listens))?.[0] ?? null
}

function movesOf(target: Target): readonly Move[] {
  if (typeof target === 'string') return []
  return Array.isArray(target) ? target : [target as Move]
}

function listens(move: Move): boolean {
  return move.do?.includes('listen') ?? false
}

/** The first line that says something, its number printed and what is typed left out. */
function firstLine({ pointers }: PanelInterface, { lines }: Screen, { group, number }: LearnPlace): string {
  const digits = pointers[group]?.digits ?? 1
  const said = lines.map((line) =>
    line
      .replaceAll(`{${group}}`, String(number).padStart(digits, '0'))
      .replace(/\{[^}]*\}/g, '')
      .trim(),
  )
  return said.find((line) => line !== '') ?? ''
}
