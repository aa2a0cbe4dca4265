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

const allOf = (count: number): number[] => Array.from({ length: count }, (_, index) => index)

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
        const all = [...permutations(allOf(count))]
        expect([...order].sort()).toEqual(allOf(count))
        expect(orderCost(visits, order)).toBe(Math.min(...all.map((one) => orderCost(visits, one))))
        if (paired) expect(order.indexOf(count - 1)).toBeLessThan(order.indexOf(0))
      }),
      { numRuns: runs(400) },
    )
  })

  it.each(Array.from({ length: runs(40) / 4 }, (_, index) => index + 1))(
    'of many is at most 1.05 of the best of 200 other beginnings, town %s',
    (seed) => {
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
    },
  )

  // Where stops lie on a line the best way runs along it; which one is called by which number is as good as chance.
  it.each([13, 14, 17, 24])('of %s along a line is the line', (count) => {
    const at = shuffled(count, count)
    const place = (stop: number): number => at[stop] ?? 0
    const line: Visits = {
      count,
      between: (from, to) => Math.abs(place(from) - place(to)),
      first: (stop) => 1 + place(stop),
      last: (stop) => count - place(stop),
      before: [],
    }
    const order = shortestOrder(line)
    expect(order.map(place)).toEqual(allOf(count))
    expect(orderCost(line, order)).toBe(count + 1)
  })

  // A stop beside another costs nothing more: with twins a town of twelve, of which the best is known, is one of many stops.
  it.each([1, 2, 3, 4, 5, 6, 7, 8])('of many with twins costs what it costs without, town %s', (seed) => {
    const known = town(11, seed)
    const best = orderCost(known, shortestOrder(known))
    const own = (stop: number): number => stop % 11
    const twins: Visits = {
      count: 11 + 4,
      between: (from, to) => (own(from) === own(to) ? 0 : known.between(own(from), own(to))),
      first: (stop) => known.first(own(stop)),
      last: (stop) => known.last(own(stop)),
      before: [],
    }
    expect(orderCost(twins, shortestOrder(twins))).toBe(best)
  })

  it('costs its ways, and more than any of them for a pair in the wrong order', () => {
    const visits: Visits = {
      ...{ count: 3, first: (stop) => 10 + stop, last: (stop) => 100 + stop },
      between: (from, to) => 1000 * from + to,
      before: [
        [2, 0],
        [1, 0],
      ],
    }
    expect(orderCost({ ...visits, before: [] }, [])).toBe(0)
    expect(orderCost(visits, [2, 1, 0])).toBe(12 + 2001 + 1000 + 100)
    expect(orderCost(visits, [1, 0, 2])).toBe(11 + 1000 + 2 + 102 + 1e12)
    expect(orderCost(visits, [0, 2, 1])).toBe(10 + 2 + 2001 + 101 + 2e12)
  })

  // Two parts of a town without a way between them: one leap, and no more.
  it.each([6, 12, 13, 15, 20])('of %s stops that no way leads through leaps as seldom as can be', (count) => {
    const known = town(count, count)
    const parted: Visits = {
      ...known,
      between: (from, to) => (from % 2 === to % 2 ? known.between(from, to) : Infinity),
    }
    const order = shortestOrder(parted)
    expect([...order].sort((one, other) => one - other)).toEqual(allOf(count))
    const leaps = order.filter((stop, index) => index > 0 && stop % 2 !== (order[index - 1] ?? 0) % 2)
    expect(leaps).toHaveLength(1)
    expect(orderCost(parted, order)).toBe(Infinity)
    const nowhere: Visits = { ...known, between: () => Infinity }
    expect([...shortestOrder(nowhere)].sort((one, other) => one - other)).toEqual(allOf(count))
  })

  it('of many keeps what comes before what', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const before = [
        [17, 0],
        [16, 1],
        [9, 8],
      ] as const
      const order = shortestOrder({ ...town(18, seed), before })
      expect([...order].sort((a, b) => a - b)).toEqual(allOf(18))
      for (const [a, b] of before) expect(order.indexOf(a)).toBeLessThan(order.indexOf(b))
    }
  })
})
