import type { DelayField } from '../catalogue/schema.ts'
import { formatSeconds } from '../units/seconds.ts'
import type { EncodedDelay } from './delays.ts'

/** Both numbers as the interface shows them: `6 → 90 s`, or only seconds where they are keyed as they are. */
export function bothNumbers(field: DelayField, encoded: EncodedDelay): string {
  if (!encoded.ok) return 'cannot be stored'
  return `${encoded.keyed} → ${formatSeconds(encoded.seconds)}`
}

/** Why a stored delay is not what was wanted, or what keeps the panel from storing it; empty where it is just that. */
export function encodedWords(name: string, encoded: EncodedDelay): string {
  const wanted = formatSeconds(encoded.wanted)
  if (encoded.ok) {
    const { differs, seconds } = encoded
    if (differs === null) return ''
    if (differs.by === 'reserved') return differs.meaning
    if (differs.by === 'least') return `raised to ${formatSeconds(seconds)}, the least this field stores`
    return `${wanted} goes ${differs.direction} to ${formatSeconds(seconds)}, the next step`
  }
  const { least, most, step, limit, nearest } = encoded
  const beyond = limit === null ? '' : `, and the region allows at most ${formatSeconds(limit)}`
  return `${name} stores ${formatSeconds(least)} to ${formatSeconds(most)} in steps of ${step} s${beyond}: ${wanted} cannot be kept. Nearest: ${nearest.map(formatSeconds).join(' and ')}.`
}
