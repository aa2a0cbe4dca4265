import { z } from 'zod'

/* What was used lately, kept on this device by firm: another firm's is never shown. */

const most = 12
const kept = z.array(
  z.object({ key: z.string(), title: z.string(), detail: z.string(), path: z.string().nullable() }),
)

/** Something that was used lately; `path` is where it lies where it can be shown without its job being open. */
export type Used = z.infer<typeof kept>[number]

const placeOf = (firm: string): string => `kapelle-lately-${firm}`

/** What was used lately in a firm, latest first. */
export function latelyOf(firm: string): readonly Used[] {
  try {
    return kept.parse(JSON.parse(localStorage.getItem(placeOf(firm)) ?? '[]'))
  } catch {
    return []
  }
}

/** Notes that something was used. */
export function noteUsed(firm: string, used: Used): void {
  const others = latelyOf(firm).filter((item) => item.key !== used.key)
  try {
    localStorage.setItem(placeOf(firm), JSON.stringify([used, ...others].slice(0, most)))
  } catch {
    // A device that keeps nothing searches all the same.
  }
}
