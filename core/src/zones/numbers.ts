import type { PanelModel } from '../catalogue/schema.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { System } from '../fit/system.ts'

/** What a zone number is for on a panel, as this job stands. */
export type NumberUse = 'wireless' | 'wired' | 'fob' | 'keypad-panic' | 'none'

/** A number as the panel prints it, such as 07. */
export function printNumber(panel: PanelModel | null, number: number): string {
  return String(number).padStart(panel?.numberDigits ?? 1, '0')
}

/** The blocks that are really there: an optional one counts once a wired zone or a noted terminal lies in it. */
export function presentBlocks(doc: JobDocument, system: System): PanelModel['blocks'] {
  const { panel } = system
  if (!panel) return []
  const wired = recordsOf(doc, 'zone').filter(
    (zone) => zone.device !== null && system.byId.get(zone.device)?.family === null,
  )
  const used = new Set([
    ...wired.map((zone) => zone.number),
    ...recordsOf(doc, 'terminal').map((terminal) => terminal.number),
  ])
  return panel.blocks.filter(
    (block) => !block.optional || [...used].some((number) => number >= block.from && number <= block.to),
  )
}

/** Numbers whose wired terminal is there and live: a radio device on one would trip beside it. */
export function liveTerminals(doc: JobDocument, system: System): ReadonlySet<number> {
  const states = new Map(recordsOf(doc, 'terminal').map((terminal) => [terminal.number, terminal.state]))
  const live = new Set<number>()
  for (const block of presentBlocks(doc, system)) {
    if (block.use !== 'wired') continue
    for (let number = block.from; number <= block.to; number++)
      if ((states.get(number) ?? 'live') === 'live') live.add(number)
  }
  return live
}

/** Numbers a device may take, in ascending order. */
export function numbersFor(doc: JobDocument, system: System, use: Exclude<NumberUse, 'none'>): number[] {
  const live = use === 'wireless' ? liveTerminals(doc, system) : new Set<number>()
  const numbers = new Set<number>()
  for (const block of use === 'wired' ? (system.panel?.blocks ?? []) : presentBlocks(doc, system)) {
    if (block.use !== use) continue
    for (let number = block.from; number <= block.to; number++) if (!live.has(number)) numbers.add(number)
  }
  return [...numbers].sort((a, b) => a - b)
}

/** The ranges a device of this use may take, in words: `7–54`. */
export function rangeWords(panel: PanelModel, use: Exclude<NumberUse, 'none'>): string {
  const ranges = panel.blocks
    .filter((block) => block.use === use)
    .map((block) => `${printNumber(panel, block.from)}–${printNumber(panel, block.to)}`)
  return ranges.length > 0 ? ranges.join(' and ') : 'no numbers'
}
