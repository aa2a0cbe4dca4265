import { systemOf, type JobAndCatalogue } from '../system/system.ts'
import { readingsOf } from './readings.ts'

/**
 * What the panel holds at an address that the plan leaves as it is: as it was last read or kept, else as it is shipped; null where
 * neither is known.
 */
export function heldValue({ doc, catalogue }: JobAndCatalogue, address: string): string | null {
  const { panel } = systemOf(doc, catalogue)
  if (!panel) return null
  const read = readingsOf(doc, panel.id).saved.get(address)
  if (read) return read.value
  return catalogue.get('interface', panel.interface ?? null)?.fields[address]?.factory ?? null
}
