import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { runs } from '../testing/runs.ts'
import { orderCost, shortestOrder, type Visits } from './order.ts'

/** Places with one-way streets between them, every way the shortest there is. */
function town(count: number, seed: number): Visits {
  let state = seed
  const random = (most: number): number => {
    state = (Math.imul(state, 1_103_515_245) + 12_345) >>> 0
    return (state >>> 8) % most
  }
  const size = count + 1
  const cost = Array.from({ length: size }, () => Array.from({ length: size }, () => 1 + random(30)))
  for (let over = 0; over < size; over++)
    for (const row of cost)
      for (let to = 0; to < size; to++)
        row[to] = Math.min(row[to] ?? 0, (row[over] ?? 0) + (cost[over]?.[to] ?? 0))
  const between = (from: number, to: number): number => cost[from]?.[to] ?? 0
  return {
    count,
    between,
    first: (stop) => between(count, stop),
    last: (stop) => between(stop, count),
    before: [],
  }
}

function* permutations(stops: readonly number[]): Generator<readonly number[]> {
  if (stops.length === 0) yield []
  for (const stop of stops)
    for (const rest of permutations(stops.filter((other) => other !== stop))) yield [stop, ...rest]
}

const shuffled = (count: number, seed: number): number[] =>
  Array.from({ length: count }, (_, index) => index).toSorted(
    (a, b) => (((a + 1) * 7919 * (seed + 3)) % 10_007) - (((b + 1) * 7919 * (seed + 3)) % 10_007),
  )

describe('the order of stops', () => {
  it('of none and of one is what it must be', () => {
    expect(shortestOrder(town(0, 1))).toEqual([])
    expect(shortestOrder(town(1, 1))).toEqual([0])
  })

  it('is the best of all where all can be weighed, and keeps what comes before what', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 6 }), fc.nat(), fc.boolean(), (count, seed, paired) => {
        const visits = { ...town(count, seed), before: paired ? [[count - 1, 0] as const] : [] }
        const order = shortestOrder(visits)
        const all = [...permutations(Array.from({ length: count }, (_, index) => index))]
        expect([...order].sort()).toEqual(Array.from({ length: count }, (_, index) => index))
        expect(orderCost(visits, order)).toBe(Math.min(...all.map((one) => orderCost(visits, one))))
        if (paired) expect(order.indexOf(count - 1)).toBeLessThan(order.indexOf(0))
      }),
      { numRuns: runs(400) },
    )
  })

  it('of many is at most 1.05 of the best of 200 other beginnings', () => {
    for (let seed = 1; seed <= runs(40) / 4; seed++) {
      const visits = town(18 + (seed % 12), seed)
      const cost = orderCost(visits, shortestOrder(visits))
      let best = cost
      for (let again = 0; again < runs(200); again++) {
        const names = shuffled(visits.count, again)
        const name = (stop: number): number => names[stop] ?? 0
        const other: Visits = {
          ...visits,
          between: (from, to) => visits.between(name(from), name(to)),
          first: (stop) => visits.first(name(stop)),
          last: (stop) => visits.last(name(stop)),
        }
        best = Math.min(best, orderCost(visits, shortestOrder(other).map(name)))
      }
      expect(cost / best).toBeLessThanOrEqual(1.05)
    }
  })

  it('of many keeps what comes before what', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const before = [
        [17, 0],
        [16, 1],
        [9, 8],
      ] as const
      const order = shortestOrder({ ...town(18, seed), before })
      expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: 18 }, (_, index) => index))
      for (const [a, b] of before) expect(order.indexOf(a)).toBeLessThan(order.indexOf(b))
    }
  })
})
