/** One possible place of an item: a bin it could go into, and what that costs. */
interface FlowOption {
  readonly bin: string
  readonly cost: number
}

/** Something to be placed, with where it may go. */
export interface FlowItem {
  readonly key: string
  /** A further limit that it counts against, such as a class of slots; null for none. */
  readonly group: string | null
  /** Whether it is left out only when all that is not of this kind is. */
  readonly first?: boolean
  readonly options: readonly FlowOption[]
}

/** Bins that take at most so many together. */
interface Shared {
  readonly ids: readonly string[]
  readonly most: number
}

/** More than all costs of a kit together. */
const FIRST = 1_000_000

/** Where each item goes: an index into its options, or null for left out. */
export type FlowResult = ReadonlyMap<string, number | null>

interface Edge {
  readonly to: number
  readonly cost: number
  room: number
  readonly back: number
}

/**
 * Puts items into bins of limited room: as many as possible, and of those ways the cheapest (minimum-cost maximum flow by
 * successive shortest paths; Bellman-Ford, as residual edges have negative costs). A bin or group without a limit in `room`
 * takes any number. Of those, what comes first is placed before all else.
 */
export function cheapestPlaces(
  items: readonly FlowItem[],
  room: ReadonlyMap<string, number>,
  shared: readonly Shared[] = [],
): FlowResult {
  const network = new Network()
  const source = network.node('source')
  const sink = network.node('sink')
  for (const item of items) {
    const from = item.group === null ? source : network.node(`group ${item.group}`)
    if (item.group !== null) network.once(source, from, room.get(item.group) ?? Infinity)
    network.edge(from, network.node(`item ${item.key}`), { room: 1, cost: item.first ? -FIRST : 0 })
    item.options.forEach((option) => {
      const bin = network.node(`bin ${option.bin}`)
      const group = shared.findIndex(({ ids }) => ids.includes(option.bin))
      const to = group < 0 ? sink : network.node(`together ${group}`)
      if (to !== sink) network.once(to, sink, shared[group]?.most ?? Infinity)
      network.once(bin, to, room.get(option.bin) ?? Infinity)
      network.edge(network.node(`item ${item.key}`), bin, { room: 1, cost: option.cost })
    })
  }
  while (network.push(source, sink));
  return new Map(items.map((item) => [item.key, network.chosen(`item ${item.key}`, item.options.length)]))
}

interface Carries {
  readonly room: number
  readonly cost: number
}

class Network {
  readonly #ids = new Map<string, number>()
  readonly #edges: Edge[][] = []
  readonly #made = new Set<string>()

  node(name: string): number {
    const known = this.#ids.get(name)
    if (known !== undefined) return known
    this.#ids.set(name, this.#edges.length)
    this.#edges.push([])
    return this.#edges.length - 1
  }

  edge(from: number, to: number, { room, cost }: Carries): void {
    const forward = this.#edges[from] as Edge[]
    const backward = this.#edges[to] as Edge[]
    forward.push({ to, cost, room, back: backward.length })
    backward.push({ to: from, cost: -cost, room: 0, back: forward.length - 1 })
  }

  once(from: number, to: number, room: number): void {
    const key = `${from} ${to}`
    if (this.#made.has(key)) return
    this.#made.add(key)
    this.edge(from, to, { room, cost: 0 })
  }

  /** Sends one unit along the cheapest way that has room; false when there is none. */
  push(source: number, sink: number): boolean {
    const cost = new Array<number>(this.#edges.length).fill(Infinity)
    const came: ({ from: number; edge: Edge } | null)[] = new Array<null>(this.#edges.length).fill(null)
    cost[source] = 0
    const queue = [source]
    for (let at = queue.shift(); at !== undefined; at = queue.shift())
      for (const edge of this.#edges[at] ?? []) {
        const next = (cost[at] ?? Infinity) + edge.cost
        if (edge.room <= 0 || next >= (cost[edge.to] ?? Infinity)) continue
        cost[edge.to] = next
        came[edge.to] = { from: at, edge }
        if (!queue.includes(edge.to)) queue.push(edge.to)
      }
    if (cost[sink] === Infinity) return false
    for (let step = came[sink]; step; step = came[step.from]) {
      step.edge.room -= 1
      const back = this.#edges[step.edge.to]?.[step.edge.back]
      if (back) back.room += 1
    }
    return true
  }

  /** Which of an item's option edges carries its unit. Its first edge leads back to where it came from. */
  chosen(item: string, options: number): number | null {
    const edges = this.#edges[this.#ids.get(item) ?? -1] ?? []
    for (let index = 0; index < options; index++) if (edges[index + 1]?.room === 0) return index
    return null
  }
}
