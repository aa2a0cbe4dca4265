/** A device's events that need numbers, as the planner sees them; the list is in reading order. */
export interface PlanItem {
  readonly key: string
  readonly use: 'wireless' | 'wired'
  /** The number that each event has now; null for none. */
  readonly now: readonly (number | null)[]
  /** Events whose number may not move: pinned by hand, or enrolled. */
  readonly fixed: readonly boolean[]
}

/** What is to be numbered, and what is taken. */
export interface PlanInput {
  readonly items: readonly PlanItem[]
  /** Numbers that each use may take, ascending; what other zones hold is not among them. */
  readonly allowed: Readonly<Record<PlanItem['use'], readonly number[]>>
  /** Numbers to leave free behind the last wireless zone. */
  readonly growth: number
}

/** What a plan costs, in order of weight; all are to be as small as can be. */
export interface PlanCost {
  /** Devices that got no number. */
  readonly left: number
  /** Zones whose number changes. */
  readonly moved: number
  /** Gaps between the numbers of one device. */
  readonly split: number
  /** Pairs of devices that stand against the reading order. */
  readonly disorder: number
  /** Numbers for growth that are lacking. */
  readonly room: number
}

/** Where everything goes, and what found no number. */
export interface NumberPlan {
  /** Numbers of each item's events; null for an item that got none. */
  readonly numbers: ReadonlyMap<string, readonly number[] | null>
  readonly cost: PlanCost
  /** True when no plan can be better; false when the search was cut short. */
  readonly proven: boolean
}

const parts = ['left', 'moved', 'split', 'disorder', 'room'] as const

/** Steps of the search before it is cut short and gives its best so far. */
const NODES = 4_000

/**
 * Numbers all items: hard constraints first (allowed numbers, each once, fixed ones kept), then the fewest moves, then
 * devices of several events together, then reading order, then room to grow. Branch and bound from a greedy start: exact
 * where the search ends, else its best with `proven` false.
 */
export function planNumbers(input: PlanInput, nodes = NODES): NumberPlan {
  const start = greedy(input)
  const search = new Search(input, start, nodes)
  search.run()
  return {
    numbers: new Map(input.items.map((item, index) => [item.key, search.best[index] ?? null])),
    cost: search.cost,
    proven: search.left >= 0,
  }
}

/** What these numbers cost; a list of numbers, or null, per item. */
export function planCost(input: PlanInput, chosen: readonly (readonly number[] | null)[]): PlanCost {
  const sum = { left: 0, moved: 0, split: 0, disorder: 0 }
  input.items.forEach((item, index) => {
    const numbers = chosen[index] ?? null
    sum.left += numbers === null ? 1 : 0
    sum.moved += numbers === null ? 0 : moves(item, numbers)
    sum.split += numbers === null ? 0 : gaps(numbers)
    for (let other = 0; other < index; other++)
      sum.disorder += against({ item: input.items[other], numbers: chosen[other] ?? null }, { item, numbers })
  })
  return { ...sum, room: lacking(input, chosen) }
}

/** Orders costs by weight: negative when `a` is better. */
export function compareCosts(a: PlanCost, b: PlanCost): number {
  for (const part of parts) if (a[part] !== b[part]) return a[part] - b[part]
  return 0
}

type Chosen = (readonly number[] | null)[]

class Search {
  best: Chosen
  cost: PlanCost
  left: number
  readonly #input: PlanInput
  /** Devices that every plan leaves out. */
  readonly #least: number
  /** Per item the events whose number stands whatever the search decides. */
  readonly #held: readonly (readonly boolean[])[]
  /** Items that are still to be decided, in reading order. */
  readonly #open: readonly number[]
  readonly #taken = new Set<number>()
  readonly #chosen: Chosen

  constructor(input: PlanInput, start: Chosen, nodes: number) {
    this.#input = input
    this.#least = lowest(input).left
    this.best = start
    this.cost = planCost(input, start)
    this.left = nodes
    this.#held = heldEvents(input, this.cost)
    this.#chosen = input.items.map((item, index) =>
      this.#held[index]?.every(Boolean) ? (item.now as number[]) : null,
    )
    this.#open = [...input.items.keys()].filter((index) => this.#chosen[index] === null)
    input.items.forEach((item, at) =>
      item.now.forEach((number, index) => {
        if (number !== null && this.#held[at]?.[index]) this.#taken.add(number)
      }),
    )
  }

  run(): void {
    if (compareCosts(this.cost, lowest(this.#input)) <= 0) return
    const settled = planCost(this.#input, this.#chosen)
    this.#step(0, { ...settled, left: 0, room: 0 })
  }

  /** Decides item after item; what is decided can only cost more later, so a dearer start is left at once. */
  #step(depth: number, cost: PlanCost): void {
    // Each look counts, also the one that leaves at once: a device of several events has thousands of places.
    this.left -= 1
    const least = cost.left < this.#least ? { ...cost, left: this.#least } : cost
    if (this.left < 0 || compareCosts(least, this.cost) >= 0) return
    const at = this.#open[depth]
    if (at === undefined) {
      const whole = { ...cost, room: lacking(this.#input, this.#chosen) }
      if (compareCosts(whole, this.cost) >= 0) return
      this.cost = whole
      this.best = [...this.#chosen]
      return
    }
    const item = this.#input.items[at] as PlanItem
    const held = this.#held[at] ?? []
    for (const numbers of choices(item, { held, allowed: this.#input.allowed[item.use] }, this.#taken)) {
      const free = numbers.filter((_number, index) => !held[index])
      this.#chosen[at] = numbers
      for (const number of free) this.#taken.add(number)
      this.#step(depth + 1, this.#after(cost, at, numbers))
      for (const number of free) this.#taken.delete(number)
      this.#chosen[at] = null
      if (this.left < 0) return
    }
    if (!item.fixed.some(Boolean)) this.#step(depth + 1, { ...cost, left: cost.left + 1 })
  }

  #after(cost: PlanCost, at: number, numbers: readonly number[]): PlanCost {
    const { items } = this.#input
    const item = items[at] as PlanItem
    let disorder = cost.disorder
    this.#chosen.forEach((other, index) => {
      if (index < at) disorder += against({ item: items[index], numbers: other }, { item, numbers })
      else if (index > at) disorder += against({ item, numbers }, { item: items[index], numbers: other })
    })
    return {
      ...cost,
      moved: cost.moved + moves(item, numbers),
      split: cost.split + gaps(numbers),
      disorder,
    }
  }
}

/**
 * Events whose number cannot change in any plan worth having: fixed ones; and, when the first plan places everything with
 * as few moves as there must be, each zone that alone claims an allowed number, for moving it would be one move more.
 */
function heldEvents(input: PlanInput, start: PlanCost): readonly (readonly boolean[])[] {
  if (start.left > 0 || start.moved > lowest(input).moved) return input.items.map((item) => item.fixed)
  const claims = new Map<number, number>()
  const may = { wired: new Set(input.allowed.wired), wireless: new Set(input.allowed.wireless) }
  const claimed = (item: PlanItem, index: number): number | null => {
    const now = item.now[index] ?? null
    return now !== null && (item.fixed[index] || may[item.use].has(now)) ? now : null
  }
  for (const item of input.items)
    item.now.forEach((_now, index) => {
      const number = claimed(item, index)
      if (number !== null) claims.set(number, (claims.get(number) ?? 0) + 1)
    })
  return input.items.map((item) =>
    item.now.map((_now, index) => {
      const number = claimed(item, index)
      return item.fixed[index] || (number !== null && claims.get(number) === 1)
    }),
  )
}

interface May {
  readonly held: readonly boolean[]
  readonly allowed: readonly number[]
}

/** Every way to number one item, cheapest first: its own numbers, then runs, then whatever is free. */
function* choices(
  item: PlanItem,
  { held, allowed }: May,
  taken: ReadonlySet<number>,
): Generator<readonly number[]> {
  const free = allowed.filter((number) => !taken.has(number))
  const options = item.now.map((now, index) => {
    if (held[index]) return now === null ? [] : [now]
    const own = now !== null && free.includes(now) ? [now] : []
    return [...own, ...free.filter((number) => number !== now)]
  })
  yield* pick(options, [], new Set())
}

function* pick(
  options: readonly (readonly number[])[],
  chosen: readonly number[],
  used: ReadonlySet<number>,
): Generator<readonly number[]> {
  const next = options[chosen.length]
  if (!next) {
    yield chosen
    return
  }
  // Beside the number before it first: most devices end up in one run.
  const before = chosen.at(-1)
  const sorted =
    before === undefined ? next : [...next].sort((a, b) => Math.abs(a - before) - Math.abs(b - before))
  const own = next[0]
  const list = own === undefined || sorted[0] === own ? sorted : [own, ...sorted.filter((n) => n !== own)]
  for (const number of list)
    if (!used.has(number)) yield* pick(options, [...chosen, number], new Set([...used, number]))
}

/** A first plan: everything stays that can; the others take, in reading order, the run that disturbs the order least. */
function greedy(input: PlanInput): Chosen {
  const { items, allowed } = input
  const chosen: (number | null)[][] = items.map((item) => item.now.map(() => null))
  const taken = new Set<number>()
  items.forEach((item, at) =>
    item.now.forEach((now, index) => {
      if (now === null || !item.fixed[index]) return
      taken.add(now)
      ;(chosen[at] as (number | null)[])[index] = now
    }),
  )
  const may = { wired: new Set(allowed.wired), wireless: new Set(allowed.wireless) }
  items.forEach((item, at) =>
    item.now.forEach((now, index) => {
      if (now === null || item.fixed[index] || taken.has(now) || !may[item.use].has(now)) return
      taken.add(now)
      ;(chosen[at] as (number | null)[])[index] = now
    }),
  )
  // Cables have fewer places to go: they choose before the radio does.
  const order = [...items.keys()].sort(
    (a, b) => Number(items[a]?.use === 'wireless') - Number(items[b]?.use === 'wireless') || a - b,
  )
  for (const at of order) settle(input, { chosen, at }, taken)
  return chosen.map((numbers) => (numbers.every((number) => number !== null) ? numbers : null))
}

interface Partly {
  readonly chosen: (number | null)[][]
  readonly at: number
}

function settle(input: PlanInput, { chosen, at }: Partly, taken: Set<number>): void {
  const item = input.items[at] as PlanItem
  const mine = chosen[at] as (number | null)[]
  const open = mine.flatMap((number, index) => (number === null ? [index] : []))
  if (open.length === 0) return
  const free = input.allowed[item.use].filter((number) => !taken.has(number))
  const kept = mine.filter((number) => number !== null)
  const run = bestRun({ input, chosen, at }, { free, length: open.length }, kept)
  if (!run) {
    // What cannot be numbered whole gives back what it held, unless that is fixed.
    mine.forEach((number, index) => {
      if (number !== null && !item.fixed[index]) taken.delete(number)
    })
    return
  }
  open.forEach((index, place) => {
    mine[index] = run[place] as number
    taken.add(run[place] as number)
  })
}

interface Begun {
  readonly input: PlanInput
  readonly chosen: readonly (readonly (number | null)[])[]
  readonly at: number
}

interface Run {
  readonly free: readonly number[]
  readonly length: number
}

/** The free numbers, in one run where there is one, that cost least: gaps first, then the reading order. */
function bestRun(
  { input, chosen, at }: Begun,
  { free, length }: Run,
  kept: readonly number[],
): readonly number[] | null {
  if (free.length < length) return null
  const item = input.items[at] as PlanItem
  const firsts = chosen.map((numbers) => firstOf(numbers))
  let best: { run: readonly number[]; gaps: number; disorder: number } | null = null
  for (let start = 0; start + length <= free.length; start++) {
    const run = free.slice(start, start + length)
    const cut = gaps([...kept, ...run])
    const first = Math.min(...kept, ...run)
    let disorder = 0
    firsts.forEach((other, index) => {
      if (index === at || other === null || input.items[index]?.use !== item.use) return
      if (index < at ? other > first : other < first) disorder += 1
    })
    if (!best || cut < best.gaps || (cut === best.gaps && disorder < best.disorder))
      best = { run, gaps: cut, disorder }
    if (best.gaps === 0 && best.disorder === 0) break
  }
  return best?.run ?? null
}

/**
 * What no plan can go below: zones whose number is not allowed, or claimed twice, must move; what there are no numbers for is left,
 * as few devices as can be; and what is used up is not there to grow.
 */
function lowest(input: PlanInput): PlanCost {
  const claims = new Map<number, number>()
  let moved = 0
  for (const item of input.items) {
    const may = new Set(input.allowed[item.use])
    item.now.forEach((now, index) => {
      if (now === null) return
      if (!item.fixed[index] && !may.has(now)) moved += 1
      else claims.set(now, (claims.get(now) ?? 0) + 1)
    })
  }
  for (const count of claims.values()) moved += count - 1
  const uses = ['wired', 'wireless'] as const
  const left = uses.reduce((sum, use) => sum + leastLeft(input, use), 0)
  // Whoever is left out need not move.
  return { left, moved: left > 0 ? 0 : moved, split: 0, disorder: 0, room: left > 0 ? 0 : leastRoom(input) }
}

/** Devices of one use for which there are not numbers enough, the largest of them left out. */
function leastLeft({ items, allowed }: PlanInput, use: PlanItem['use']): number {
  const may = new Set(allowed[use])
  const mine = items.filter((item) => item.use === use)
  // A fixed number that is not to be had otherwise takes none of those that are.
  const needs = mine.map(
    ({ now, fixed }) =>
      now.filter((number, index) => !(fixed[index] && number !== null && !may.has(number))).length,
  )
  let room = may.size
  const placed = needs.sort((a, b) => a - b).filter((need) => (room -= need) >= 0)
  return mine.length - placed.length
}

/** Numbers for growth that are lacking once everything has its number. */
function leastRoom({ items, allowed, growth }: PlanInput): number {
  const may = new Set(allowed.wireless)
  const used = items
    .filter(({ use }) => use === 'wireless')
    .reduce(
      (sum, { now, fixed }) =>
        sum + now.filter((number, at) => !(fixed[at] && number !== null && !may.has(number))).length,
      0,
    )
  return Math.max(0, growth - (may.size - used))
}

function moves(item: PlanItem, numbers: readonly number[]): number {
  return item.now.filter((now, index) => now !== null && now !== numbers[index]).length
}

function gaps(numbers: readonly number[]): number {
  if (numbers.length < 2) return 0
  const sorted = [...numbers].sort((a, b) => a - b)
  return sorted.filter((number, index) => index > 0 && number !== (sorted[index - 1] as number) + 1).length
}

interface Numbered {
  readonly item: PlanItem | undefined
  readonly numbers: readonly number[] | null
}

/** 1 when two items of one use stand against the reading order, `a` being the earlier one. */
function against(a: Numbered, b: Numbered): number {
  if (!a.numbers || !b.numbers || a.item === undefined || a.item.use !== b.item?.use) return 0
  return Math.min(...a.numbers) > Math.min(...b.numbers) ? 1 : 0
}

function lacking(input: PlanInput, chosen: readonly (readonly number[] | null)[]): number {
  let last = 0
  input.items.forEach((item, index) => {
    if (item.use === 'wireless') last = Math.max(last, ...(chosen[index] ?? []))
  })
  const behind = input.allowed.wireless.filter((number) => number > last).length
  return Math.max(0, input.growth - behind)
}

function firstOf(numbers: readonly (number | null)[]): number | null {
  const known = numbers.filter((number) => number !== null)
  return known.length === 0 ? null : Math.min(...known)
}
