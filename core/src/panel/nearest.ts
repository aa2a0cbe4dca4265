import { distance } from 'fastest-levenshtein'

/** A display that what was read comes near to. */
export interface NearDisplay {
  /** Place in the list that was searched. */
  readonly index: number
  /** Signs read otherwise than they stand there. */
  readonly apart: number
}

/** Most displays that are offered. */
const OFFERED = 5

/**
 * The displays nearest to what somebody reads off a panel, misread signs allowed, nearest first; of equals the one nearest to where
 * one should be. Blanks and capitals do not count; nothing read finds nothing.
 */
export function nearestDisplays(
  displays: readonly (readonly string[])[],
  read: string,
  from: number,
): readonly NearDisplay[] {
  const text = plain(read)
  if (text === '') return []
  return displays
    .map((lines, index) => ({ index, apart: apartFrom(lines.map(plain), text) }))
    .filter(({ apart }) => apart <= Math.max(1, Math.floor(text.length / 3)))
    .sort((a, b) => a.apart - b.apart || Math.abs(a.index - from) - Math.abs(b.index - from))
    .slice(0, OFFERED)
}

/** Somebody may read one line or all of them, or a part of one. */
function apartFrom(lines: readonly string[], text: string): number {
  const all = lines.join('')
  const whole = all.includes(text) && all !== text ? 1 : distance(all, text)
  return Math.min(whole, ...lines.filter((line) => line.length > 1).map((line) => distance(line, text)))
}

function plain(text: string): string {
  return text.replace(/\s/g, '').toLowerCase()
}
