import type { PanelModel } from '../catalogue/schema.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import type { System, DocAndSystem } from '../system/system.ts'
import type { Schools } from '../house-rules/house-rules.ts'

/** What a zone number is for on a panel, as this job stands. */
export type NumberUse = 'wireless' | 'wired' | 'fob' | 'keypad-panic' | 'template' | 'none'

/** A number as the panel prints it, such as 07. */
export function printNumber(panel: PanelModel | null, number: number): string {
  return String(number).padStart(panel?.numberDigits ?? 1, '0')
}

/** The blocks that are really there: an optional one counts once a wired zone or a noted terminal lies in it. */
export function presentBlocks(doc: JobDocument, system: System): PanelModel['blocks'] {
  const { panel } = system
  if (!panel) return []
  const used = new Set([
    ...wiredNumbers(doc, system),
    ...recordsOf(doc, 'terminal').map((terminal) => terminal.number),
  ])
  return panel.blocks.filter(
    (block) => !block.optional || [...used].some((number) => number >= block.from && number <= block.to),
  )
}

/** Numbers whose wired terminal is there and live: a radio device on one would trip beside it. */
export function liveTerminals(doc: JobDocument, system: System): ReadonlySet<number> {
  const states = new Map(recordsOf(doc, 'terminal').map((terminal) => [terminal.number, terminal.state]))
  const mapped = mappedNumbers(system)
  const live = new Set<number>()
  for (const block of presentBlocks(doc, system)) {
    if (block.use !== 'wired') continue
    for (let number = block.from; number <= block.to; number++)
      // A panel terminal under a keypad's own terminal is dead.
      if ((states.get(number) ?? 'live') === 'live' && !mapped.has(number)) live.add(number)
  }
  return live
}

/** Panel numbers that a keypad's own terminal is mapped over, with the keypad's device id. */
export function mappedNumbers(system: System): ReadonlyMap<number, string> {
  const mapped = new Map<number, string>()
  for (const { device } of system.devices)
    if (device.mappedOver !== null) mapped.set(device.mappedOver, device.id)
  return mapped
}

/**
 * Numbers of wired groups that are kept for cables although their terminal is off: a started group stays whole, even when
 * half used (house rule).
 */
export function keptForWired(
  doc: JobDocument,
  system: System,
  school: Schools['wiredBlock'],
): ReadonlySet<number> {
  if (school === 'from-1') return none
  const wired = wiredNumbers(doc, system)
  const groups = presentBlocks(doc, system).flatMap((block) => (block.use === 'wired' ? groupsOf(block) : []))
  return new Set(
    groups.filter((group) => school === 'kept' || group.some((number) => wired.has(number))).flat(),
  )
}

/** A block's numbers in the groups that its board comes in; a board without groups is one. */
function groupsOf(block: PanelModel['blocks'][number]): number[][] {
  const size = block.group ?? block.to - block.from + 1
  const groups: number[][] = []
  for (let from = block.from; from <= block.to; from += size)
    groups.push(Array.from({ length: Math.min(size, block.to - from + 1) }, (_, index) => from + index))
  return groups
}

/** Numbers a device may take, in ascending order; with a school, those kept for cables are left out for radio. */
export function numbersFor(
  { doc, system }: DocAndSystem,
  use: Exclude<NumberUse, 'none'>,
  school: Schools['wiredBlock'] = 'from-1',
): number[] {
  const mapped = mappedNumbers(system)
  const live = use === 'wireless' ? liveTerminals(doc, system) : none
  const kept = use === 'wireless' ? keptForWired(doc, system, school) : none
  const spoken = numbersOf(presentBlocks(doc, system), 'template')
  const blocks = use === 'wired' ? (system.panel?.blocks ?? []) : presentBlocks(doc, system)
  return [...numbersOf(blocks, use)]
    .filter(
      (number) =>
        !live.has(number) &&
        !kept.has(number) &&
        !mapped.has(number) &&
        (use === 'template' || !spoken.has(number)),
    )
    .sort((a, b) => a - b)
}

/** The ranges a device of this use may take, in words: `7–54`. */
export function rangeWords(panel: PanelModel, use: Exclude<NumberUse, 'none'>): string {
  const ranges = panel.blocks
    .filter((block) => block.use === use)
    .map((block) => `${printNumber(panel, block.from)}–${printNumber(panel, block.to)}`)
  return ranges.length > 0 ? ranges.join(' and ') : 'no numbers'
}

const none: ReadonlySet<number> = new Set()

/** Every number of these blocks that is for one use. */
export function numbersOf(blocks: PanelModel['blocks'], use: NumberUse): ReadonlySet<number> {
  const numbers = new Set<number>()
  for (const block of blocks)
    if (block.use === use) for (let number = block.from; number <= block.to; number++) numbers.add(number)
  return numbers
}

function wiredNumbers(doc: JobDocument, system: System): ReadonlySet<number> {
  return new Set(
    recordsOf(doc, 'zone')
      .filter((zone) => zone.device !== null && system.byId.get(zone.device)?.family === null)
      .map((zone) => zone.number),
  )
}
