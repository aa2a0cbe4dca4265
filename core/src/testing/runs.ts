/**
 * How many cases a property or a seeded world tries: all of them with `./kapelle test --long`, else a tenth, at least 20,
 * the same seeds first.
 */
export function runs(long: number): number {
  return process.env.KAPELLE_LONG === '1' ? long : Math.min(long, Math.max(20, Math.round(long / 10)))
}
