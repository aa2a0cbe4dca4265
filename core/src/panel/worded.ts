import { valueOf, type MemoryWords } from '../memory/words.ts'
import type { Compiled } from './compiled.ts'

/** A stored value in plain words, with the name that the panel's display has for it. */
export function wordsAt(
  panel: Compiled,
  words: MemoryWords,
  { address, value }: { readonly address: string; readonly value: string },
): string {
  const field = panel.addresses.get(address)
  const values = field && panel.values(field.template, () => '')
  return valueOf(words, address, { value, shown: values?.shows(value) ?? value })
}
