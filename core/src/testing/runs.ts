/**
 * How many cases a property or a seeded world tries: all of them with `./kapelle test --long`, else a tenth, at least 20,
 * the same seeds first. Where every mutant runs them again, 20 must do.
 */
export function runs(long: number): number {
  if (process.env.KAPELLE_LONG === '1') return long
  const share = process.env.KAPELLE_FEW === '1' ? 0 : Math.round(long / 10)
  return Math.min(long, Math.max(20, share))
}
