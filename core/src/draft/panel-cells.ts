import type { Cell } from './form.ts'

/** A cell that is typed. */
export function textCell(key: string, title: string, most: number): Cell {
  return { key, title, form: { is: 'text', most } }
}

/** A cell that may stay empty. */
export function maybe(cell: Cell): Cell {
  return { ...cell, optional: true }
}

/** A step of the sheet: what is keyed, what the display should then show, and what to mind. */
export const stepCells: readonly Cell[] = [
  textCell('keys', 'What is keyed', 80),
  maybe(textCell('shows', 'What it then shows', 120)),
  maybe(textCell('note', 'What to mind', 300)),
]

/** The key that a row without one gets: from its name. */
export function keyFrom(name: string, index: number): string {
  const plain = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 36)
  return plain === '' ? `row-${index + 1}` : plain
}
