import { recordsOf, type JobDocument } from '../job/document.ts'
import type { Catalogue } from '../catalogue/catalogue.ts'
import { systemOf, type System } from '../system/system.ts'
import { numbersOf, presentBlocks } from '../zones/numbers.ts'
import type { Cell, Memory } from './memory.ts'
import { delayCells, settingCells, slotCells } from './system-cells.ts'
import { cellsOfZone } from './zone-cells.ts'

/** An address that the panel cannot hold as it is planned, and why. */
interface Refusal {
  readonly address: string
  readonly reason: string
}

/** What the plan wants a panel's memory to be: every address is wanted, open or hidden. */
export interface TargetMemory {
  /** What is keyed. */
  readonly wanted: Memory
  /** What the plan leaves: it stays as the panel has it. */
  readonly open: ReadonlySet<string>
  /** What is open because its zone is left as programmed: neither keyed nor learned. */
  readonly left: ReadonlySet<string>
  /** What the panel does not ask for the type of its zone: neither keyed nor compared. */
  readonly hidden: ReadonlySet<string>
  /** Why the plan cannot be keyed as it is, by address; with one there is no sheet. */
  readonly refused: readonly Refusal[]
}

/** What a plan wants of its panel; null without a panel. Total and deterministic. */
export function targetMemory(doc: JobDocument, catalogue: Catalogue): TargetMemory | null {
  const system = systemOf(doc, catalogue)
  const { panel } = system
  if (!panel) return null
  const cells = [
    ...delayCells(doc, panel),
    ...settingCells(doc, panel),
    ...zoneCellsOf(doc, system),
    ...slotCells(doc, system),
  ]
  const wanted = new Map<string, string>()
  const open = new Set<string>()
  const hidden = new Set<string>()
  const left = new Set<string>()
  const refused: Refusal[] = []
  for (const cell of cells) {
    if ('refused' in cell) refused.push({ address: cell.address, reason: cell.refused })
    else if ('state' in cell) {
      ;(cell.state === 'hidden' ? hidden : open).add(cell.address)
      if (cell.state === 'left') left.add(cell.address)
    } else {
      const there = wanted.get(cell.address)
      if (there !== undefined && there !== cell.value)
        refused.push({ address: cell.address, reason: `The plan wants ${there} and ${cell.value} there.` })
      wanted.set(cell.address, cell.value)
    }
  }
  for (const { address } of refused) wanted.delete(address)
  for (const address of wanted.keys()) open.delete(address)
  return { wanted, open, left, hidden, refused }
}

function zoneCellsOf(doc: JobDocument, system: System): Cell[] {
  const { panel } = system
  const blocks = presentBlocks(doc, system)
  const numbers = new Set(blocks.flatMap((block) => [...numbersOf(blocks, block.use)]))
  const seen = new Set<number>()
  return recordsOf(doc, 'zone').flatMap((zone): Cell[] => {
    const address = `zone.${zone.number}`
    if (!numbers.has(zone.number))
      return [{ address, refused: `${panel?.name} has no number ${zone.number}.` }]
    if (seen.has(zone.number)) return [{ address, refused: `Number ${zone.number} is given twice.` }]
    seen.add(zone.number)
    const cells = cellsOfZone({ doc, system, zone })
    // What is left as programmed stays whatever the panel has there.
    return zone.asProgrammed ? cells.map(({ address: at }) => ({ address: at, state: 'left' })) : [...cells]
  })
}

/** An address at which a memory is not as wanted; `is` is null where nothing is known of it. */
export interface MemoryDifference {
  readonly address: string
  readonly wanted: string
  readonly is: string | null
}

/** Where a memory differs from what the plan wants, in the order of the plan: wanted addresses alone are compared. */
export function differences(target: TargetMemory, memory: Memory): readonly MemoryDifference[] {
  return [...target.wanted].flatMap(([address, wanted]) => {
    const is = memory.get(address) ?? null
    return is === wanted ? [] : [{ address, wanted, is }]
  })
}

/** A memory after everything wanted was keyed into it: the rest stays as it was. */
export function keyedInto(target: TargetMemory, memory: Memory): Memory {
  return new Map([...memory, ...target.wanted])
}
