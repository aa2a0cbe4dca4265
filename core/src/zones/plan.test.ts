import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../units/random.ts'
import { compareCosts, planCost, planNumbers, type PlanCost, type PlanInput, type PlanItem } from './plan.ts'
import { runs } from '../testing/runs.ts'

const one = (key: string, now: number | null = null, fixed = false): PlanItem => ({
  key,
  use: 'wireless',
  now: [now],
  fixed: [fixed],
})
const range = (from: number, to: number) => Array.from({ length: to - from + 1 }, (_, index) => from + index)
const plan = (items: readonly PlanItem[], wireless = range(1, 9), growth = 0) =>
  planNumbers({ items, allowed: { wireless, wired: [] }, growth })
const numbers = (items: readonly PlanItem[], wireless?: number[], growth?: number) =>
  [...plan(items, wireless, growth).numbers.values()].map((list) => list?.join(',') ?? 'none')

describe('planning numbers', () => {
  it('numbers fresh devices in reading order', () => {
    expect(numbers([one('a'), one('b'), one('c')])).toEqual(['1', '2', '3'])
  })

  it('keeps what has a number, though the order suffers', () => {
    const result = plan([one('a'), one('b', 1), one('c', 2)])
    expect([...result.numbers.values()].flat()).toEqual([3, 1, 2])
    expect(result.cost).toEqual({ left: 0, moved: 0, split: 0, disorder: 2, room: 0 })
  })

  it('moves one of two that share a number, and never a fixed one', () => {
    expect(numbers([one('a', 4), one('b', 4, true)])).toEqual(['1', '4'])
    expect(plan([one('a', 4), one('b', 4)]).cost.moved).toBe(1)
  })

  it('rather moves fewer zones than keeps a device together', () => {
    const smoke: PlanItem = { key: 's', use: 'wireless', now: [2, 3, 4], fixed: [false, false, false] }
    expect(numbers([one('door', 2, true), smoke])).toEqual(['2', '5,3,4'])
  })

  it('keeps the events of a new device together before it keeps the order', () => {
    const smoke: PlanItem = { key: 's', use: 'wireless', now: [null, null], fixed: [false, false] }
    expect(numbers([smoke, one('b', 2)], [1, 2, 3, 4])).toEqual(['3,4', '2'])
  })

  it('splits a device where no run is long enough, and leaves out what finds no number', () => {
    const smoke: PlanItem = { key: 's', use: 'wireless', now: [null, null], fixed: [false, false] }
    expect(plan([smoke, one('b', 2, true)], [1, 2, 3]).cost).toMatchObject({ left: 0, split: 1 })
    expect(plan([smoke, one('b', 2, true)], [1, 2]).cost.left).toBe(1)
  })

  it('counts the room to grow behind the last number', () => {
    expect(plan([one('a'), one('b')], range(1, 5), 4).cost.room).toBe(1)
  })

  it('lets a cable take its few numbers before the radio does', () => {
    const result = planNumbers({
      items: [one('radio'), { key: 'cable', use: 'wired', now: [null], fixed: [false] }],
      allowed: { wireless: [1, 2], wired: [1] },
      growth: 0,
    })
    expect([...result.numbers.values()].flat()).toEqual([2, 1])
  })

  it('agrees with brute force on 300 cases of up to 7 zones and 9 places', () => {
    const random = seededRandom(4)
    for (let round = 0; round < 300; round++) {
      const input = made(random)
      const result = planNumbers(input, Infinity)
      expect([round, compareCosts(result.cost, bruteForce(input))]).toEqual([round, 0])
      expect(result.proven).toBe(true)
      expect(planCost(input, [...result.numbers.values()])).toEqual(result.cost)
      expect(broken(input, result.numbers)).toEqual([])
    }
  }, 60_000)

  it('never breaks a hard constraint, however early it is cut short', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1e6 }), fc.integer({ min: 0, max: 50 }), (seed, nodes) => {
        const input = made(seededRandom(seed), 12, 16)
        const result = planNumbers(input, nodes)
        expect(broken(input, result.numbers)).toEqual([])
        expect(planCost(input, [...result.numbers.values()])).toEqual(result.cost)
      }),
      { seed: 9, numRuns: runs(2000) },
    )
  })
})

/** Checks the hard constraints with none of the planner's code. */
function broken(input: PlanInput, plan: ReadonlyMap<string, readonly number[] | null>): string[] {
  const faults: string[] = []
  const seen = new Map<number, string>()
  for (const item of input.items) {
    const list = plan.get(item.key)
    if (!list) {
      if (item.fixed.some(Boolean)) faults.push(`${item.key} is fixed and was left out`)
      continue
    }
    if (list.length !== item.now.length) faults.push(`${item.key} has ${list.length} numbers`)
    list.forEach((number, index) => {
      if (item.fixed[index] && number !== item.now[index]) faults.push(`${item.key} moved though fixed`)
      if (!item.fixed[index] && !input.allowed[item.use].includes(number))
        faults.push(`${item.key} is on ${number}, which is not allowed`)
      if (seen.has(number)) faults.push(`${number} is given to ${seen.get(number)} and ${item.key}`)
      seen.set(number, item.key)
    })
  }
  return faults
}

/** A random case: devices of one to three events, some numbered, some fixed, on places with holes. */
function made(random: () => number, zones = 7, places = 9): PlanInput {
  const pool = range(1, places).filter(() => random() < 0.85)
  const wired = pool.filter(() => random() < 0.4)
  const wireless = pool.filter(() => random() < 0.85)
  const fixedTaken = new Set<number>()
  const items: PlanItem[] = []
  let count = 0
  while (count < 2 + random() * (zones - 2)) {
    const events = Math.min(zones - count, random() < 0.6 ? 1 : random() < 0.6 ? 2 : 3)
    const use = random() < 0.25 ? 'wired' : 'wireless'
    const now = Array.from({ length: events }, () =>
      random() < 0.55 ? 1 + Math.floor(random() * places) : null,
    )
    const whole = random() < 0.2 && now.every((number) => number !== null && !fixedTaken.has(number))
    const distinct = new Set(now).size === now.length
    const fixed = now.map((number) => {
      if (!whole || !distinct || number === null) return false
      fixedTaken.add(number)
      return true
    })
    items.push({ key: `d${items.length}`, use, now, fixed })
    count += events
  }
  return { items, allowed: { wired, wireless }, growth: Math.floor(random() * 3) }
}

/** The least cost over every assignment there is. */
function bruteForce(input: PlanInput): PlanCost {
  let best = null as PlanCost | null
  const chosen: (readonly number[] | null)[] = []
  const taken = new Set(input.items.flatMap((item) => item.now.filter((_now, index) => item.fixed[index])))
  const tuples = (item: PlanItem, index = 0, list: number[] = []): number[][] => {
    if (index === item.now.length) return [list]
    if (item.fixed[index]) return tuples(item, index + 1, [...list, item.now[index] as number])
    return input.allowed[item.use]
      .filter((number) => !taken.has(number) && !list.includes(number))
      .flatMap((number) => tuples(item, index + 1, [...list, number]))
  }
  const go = (at: number): void => {
    // Left out weighs most: once more are left out than in the best, nothing below can win.
    if (best && chosen.slice(0, at).filter((list) => list === null).length > best.left) return
    const item = input.items[at]
    if (!item) {
      const cost = planCost(input, chosen)
      if (!best || compareCosts(cost, best) < 0) best = cost
      return
    }
    for (const list of tuples(item)) {
      const own = list.filter((_number, index) => !item.fixed[index])
      own.forEach((number) => taken.add(number))
      chosen[at] = list
      go(at + 1)
      own.forEach((number) => taken.delete(number))
    }
    chosen[at] = null
    if (!item.fixed.some(Boolean)) go(at + 1)
  }
  go(0)
  if (!best) throw new Error('no assignment at all')
  return best
}
