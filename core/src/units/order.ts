/*
 * The order in which stops are visited: a path from where one is, through all of them, to where one wants to end. Costs differ by
 * direction. Exact up to a dozen stops; above, the best of several beginnings, mended by moving runs of stops.
 */

/** What an order is sought for. */
export interface Visits {
  readonly count: number
  /** Cost from the beginning to a stop. */
  readonly first: (stop: number) => number
  /** Cost from where a stop leaves to another. */
  readonly between: (from: number, to: number) => number
  /** Cost from where a stop leaves to the end. */
  readonly last: (stop: number) => number
  /** Pairs of which the first is visited before the second. */
  readonly before: readonly (readonly [number, number])[]
}

/** Most stops for which every order is weighed. */
const EXACT_STOPS = 12
/** Longest run of stops that is moved as one. */
const LONGEST_RUN = 16
/** What a pair in the wrong order costs: more than any way. */
const WRONG = 1e12

/** What stands for no way: more than any way, and a number that what is saved can be reckoned with. */
const NO_WAY = 1e7

/** The stops in the order of least cost; where no way leads through all of them, with as few leaps as can be. */
export function shortestOrder(visits: Visits): readonly number[] {
  const { count, first, between, last, before } = visits
  if (count === 0) return []
  const finite: Visits = {
    ...{ count, before },
    first: (stop) => Math.min(first(stop), NO_WAY),
    between: (from, to) => Math.min(between(from, to), NO_WAY),
    last: (stop) => Math.min(last(stop), NO_WAY),
  }
  return count <= EXACT_STOPS ? exactOrder(finite) : mendedOrder(finite)
}

/** What an order costs; Infinity where there is no way. */
export function orderCost(visits: Visits, order: readonly number[]): number {
  let cost = 0
  order.forEach((stop, index) => {
    const from = order[index - 1]
    cost += from === undefined ? visits.first(stop) : visits.between(from, stop)
  })
  const end = order.at(-1)
  return cost + (end === undefined ? 0 : visits.last(end)) + WRONG * wrongPairs(visits, order)
}

function wrongPairs({ before }: Pick<Visits, 'before'>, order: readonly number[]): number {
  if (before.length === 0) return 0
  const at = new Map(order.map((stop, index) => [stop, index]))
  return before.filter(([a, b]) => (at.get(a) ?? 0) > (at.get(b) ?? 0)).length
}

/** Dynamic programming over sets of stops (Held and Karp). */
function exactOrder(visits: Visits): readonly number[] {
  const { count } = visits
  const needs = Array.from({ length: count }, () => 0)
  for (const [a, b] of visits.before) needs[b] = (needs[b] ?? 0) | (1 << a)
  const table: Table = {
    cost: new Float64Array((1 << count) * count).fill(Infinity),
    came: new Int8Array((1 << count) * count).fill(-1),
  }
  for (let stop = 0; stop < count; stop++)
    if (needs[stop] === 0) table.cost[(1 << stop) * count + stop] = visits.first(stop)
  for (let set = 1; set < 1 << count; set++)
    for (let end = 0; end < count; end++) extend(visits, table, { set, end, needs })
  return readBack(visits, table)
}

/** Least cost of having visited a set of stops and standing at one of them, and the stop before it. */
interface Table {
  readonly cost: Float64Array
  readonly came: Int8Array
}

function extend(
  { count, between }: Visits,
  { cost, came }: Table,
  { set, end, needs }: { readonly set: number; readonly end: number; readonly needs: readonly number[] },
): void {
  const so = cost[set * count + end] ?? Infinity
  if (so === Infinity) return
  for (let next = 0; next < count; next++) {
    if ((set & (1 << next)) !== 0 || ((needs[next] ?? 0) & ~set) !== 0) continue
    const at = (set | (1 << next)) * count + next
    const total = so + between(end, next)
    if (total >= (cost[at] ?? Infinity)) continue
    cost[at] = total
    came[at] = end
  }
}

function readBack({ count, last }: Visits, { cost, came }: Table): readonly number[] {
  const whole = (1 << count) - 1
  const all = Array.from({ length: count }, (_, index) => index)
  const total = (stop: number): number => (cost[whole * count + stop] ?? Infinity) + last(stop)
  const order: number[] = []
  let at = all.reduce((best, stop) => (total(stop) < total(best) ? stop : best), 0)
  for (let set = whole; at >= 0 && set > 0;) {
    order.unshift(at)
    const from = came[set * count + at] ?? -1
    set &= ~(1 << at)
    at = from
  }
  return order.length === count ? order : all
}

function mendedOrder(visits: Visits): readonly number[] {
  const all = Array.from({ length: visits.count }, (_, index) => index)
  const begins = all.toSorted((a, b) => visits.first(a) - visits.first(b)).slice(0, 3)
  const links = linksOf(visits)
  const tries = [...begins.map((begin) => nearest(links, begin)), cheapestInsertion(links), all]
  let best: readonly number[] = all
  let least = Infinity
  const attempt = (order: readonly number[]): void => {
    const better = mended(links, order)
    const cost = orderCost(visits, better)
    if (cost >= least) return
    least = cost
    best = better
  }
  for (const order of tries) attempt(order)
  // What no single move betters may be bettered by two: it is shaken where a mending costs little.
  const shakes = Math.min(MOST_SHAKES, Math.floor(SHAKING / visits.count ** 2))
  for (let shake = 1; shake <= shakes; shake++) attempt(shaken(best, shake))
  return best
}

/** Most times that an order is shaken, and how often one of a single stop would be by what mending then costs. */
const MOST_SHAKES = 60
const SHAKING = 60_000

/** An order with its two middle parts changed about, cut at places that the number of the shake alone decides. */
function shaken(order: readonly number[], shake: number): readonly number[] {
  // Multiples of the golden ratio fall evenly over the order, and never on the same places twice.
  const place = (step: number): number =>
    1 + Math.floor(((shake * step * 0.618_034) % 1) * (order.length - 1))
  const [a = 0, b = 0, c = 0] = [place(1), place(7), place(19)].sort((one, other) => one - other)
  return [...order.slice(0, a), ...order.slice(b, c), ...order.slice(a, b), ...order.slice(c)]
}

function nearest(links: Links, begin: number): readonly number[] {
  const left = new Set(Array.from({ length: links.count }, (_, index) => index))
  const order: number[] = []
  const needs: number[][] = Array.from({ length: links.count }, () => [])
  for (const [first, then] of links.before) needs[then]?.push(first)
  for (let at: number | null = begin; at !== null;) {
    const here: number = at
    order.push(here)
    left.delete(here)
    at = null
    let least = Infinity
    for (const next of left) {
      if (needs[next]?.some((first) => left.has(first))) continue
      const cost = linked(links, here, next)
      if (at !== null && cost >= least) continue
      least = cost
      at = next
    }
    if (at === null && left.size > 0) at = left.values().next().value ?? null
  }
  return order
}

function cheapestInsertion(links: Links): readonly number[] {
  const order: number[] = []
  for (let stop = 0; stop < links.count; stop++) {
    let place = 0
    let least = Infinity
    for (let at = 0; at <= order.length; at++) {
      const cost =
        linked(links, order[at - 1], stop) +
        linked(links, stop, order[at]) -
        linked(links, order[at - 1], order[at])
      if (cost < least) {
        least = cost
        place = at
      }
    }
    order.splice(place, 0, stop)
  }
  return order
}

/** Costs of all links in one table, for each is asked for again and again: the last row leads from the beginning, the last column to the end. */
interface Links {
  readonly count: number
  readonly cost: Float64Array
  readonly before: Visits['before']
}

function linksOf({ count, first, between, last, before }: Visits): Links {
  const cost = new Float64Array((count + 1) * (count + 1))
  for (let from = 0; from < count; from++) {
    for (let to = 0; to < count; to++) cost[from * (count + 1) + to] = between(from, to)
    cost[from * (count + 1) + count] = last(from)
  }
  for (let to = 0; to < count; to++) cost[count * (count + 1) + to] = first(to)
  return { count, cost, before }
}

/** Cost of one link; the beginning and the end stand for a stop that is not there. */
function linked({ count, cost }: Links, from = count, to = count): number {
  return cost[from * (count + 1) + to] ?? Infinity
}

/** Moves runs of stops to where they cost less, until none does. */
function mended(links: Links, given: readonly number[]): readonly number[] {
  let order = given
  for (let better = onceMended(links, order); better !== order; better = onceMended(links, order))
    order = better
  return order
}

/** The order after every run was tried once; the same one where none could be moved. */
function onceMended(links: Links, given: readonly number[]): readonly number[] {
  let order = given
  for (const run of runsOf(given.length)) {
    const to = betterPlace(links, order, run)
    if (to === null) continue
    const next = movedRun(order, run, to)
    if (wrongPairs(links, next) <= wrongPairs(links, order)) order = next
  }
  return order
}

function runsOf(count: number): readonly Run[] {
  const longest = Math.min(LONGEST_RUN, count - 1)
  return Array.from({ length: longest }, (_, index) => index + 1).flatMap((length) =>
    Array.from({ length: count - length + 1 }, (_, from) => ({ from, length })),
  )
}

interface Run {
  readonly from: number
  readonly length: number
}

function movedRun(order: readonly number[], { from, length }: Run, to: number): number[] {
  const run = order.slice(from, from + length)
  const rest = [...order.slice(0, from), ...order.slice(from + length)]
  return [...rest.slice(0, to), ...run, ...rest.slice(to)]
}

/** The place among the rest at which a run costs least, where that is less than now. */
function betterPlace(links: Links, order: readonly number[], { from, length }: Run): number | null {
  const head = order[from]
  const tail = order[from + length - 1]
  if (head === undefined || tail === undefined) return null
  const left = order[from - 1]
  const right = order[from + length]
  const saved = linked(links, left, head) + linked(links, tail, right) - linked(links, left, right)
  // Nothing is saved by moving what costs nothing where it is.
  if (saved <= 0) return null
  let place: number | null = null
  let least = saved - 1e-6
  for (let to = 0; to <= order.length - length; to++) {
    if (to === from) continue
    const before = to <= from ? order[to - 1] : order[to + length - 1]
    const after = to < from ? order[to] : order[to + length]
    const cost = linked(links, before, head) + linked(links, tail, after) - linked(links, before, after)
    if (cost >= least) continue
    least = cost
    place = to
  }
  return place
}
