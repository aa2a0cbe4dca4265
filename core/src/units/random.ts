/** A source of numbers in [0, 1), each call giving the next. */
export type Random = () => number

/**
 * A small seeded generator (mulberry32): the same seed gives the same numbers everywhere.
 * It serves simulation and tests, never secrets.
 */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = state
    mixed = Math.imul(mixed ^ (mixed >>> 15), mixed | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296
  }
}
