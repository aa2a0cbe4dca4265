/** What goes without, why, and how many did so far. */
export function withoutWords(
  set: { readonly of: string; readonly reason: string; readonly count: number } | null,
): string {
  if (!set) return ''
  const so = set.count === 0 ? '' : `; ${set.count} so far`
  return `▲ Without a second transmission: ${set.reason} (every ${set.of} that is accepted now${so}). Each is a departure.`
}
