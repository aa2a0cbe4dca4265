/** A device that wants a place: the receivers that could hold it, the one that suits it best first. */
export interface Want {
  readonly key: string
  readonly options: readonly string[]
}

/** Receivers that hold at most so many together. */
export interface Together {
  readonly ids: readonly string[]
  readonly most: number
}

/**
 * Gives each device a receiver, in order, none beyond its capacity. A device whose receivers are all full makes those before
 * it move where they can, so that as many as possible are held (augmenting paths), and the last ones are left out. Null
 * means that no place could be made. What several hold together is one place at first, and shared out among them afterwards.
 */
export function assignPlaces(
  wants: readonly Want[],
  capacity: ReadonlyMap<string, number>,
  together: readonly Together[] = [],
): ReadonlyMap<string, string | null> {
  if (together.length === 0) return places(wants, capacity)
  const groupOf = new Map(together.flatMap((group) => group.ids.map((id) => [id, group] as const)))
  const whole = places(
    wants.map(({ key, options }) => ({
      key,
      options: [...new Set(options.map((id) => groupOf.get(id)?.ids[0] ?? id))],
    })),
    new Map([...capacity].map(([id, room]) => [id, groupOf.get(id)?.most ?? room])),
  )
  const result = new Map(whole)
  for (const { ids } of together) {
    const mine = wants.filter(({ key }) => whole.get(key) === ids[0])
    const shared = places(
      mine.map(({ key, options }) => ({ key, options: options.filter((id) => ids.includes(id)) })),
      capacity,
    )
    for (const [key, id] of shared) result.set(key, id)
  }
  return result
}

function places(wants: readonly Want[], capacity: ReadonlyMap<string, number>): Map<string, string | null> {
  const held = new Map<string, Set<string>>([...capacity.keys()].map((receiver) => [receiver, new Set()]))
  const place = new Map<string, string | null>()
  const optionsOf = new Map(wants.map((want) => [want.key, want.options]))

  function take(key: string, receiver: string): void {
    const before = place.get(key)
    if (before) held.get(before)?.delete(key)
    held.get(receiver)?.add(key)
    place.set(key, receiver)
  }

  function makePlace(key: string, tried: Set<string>): boolean {
    const options = (optionsOf.get(key) ?? []).filter((receiver) => !tried.has(receiver))
    const free = options.find((receiver) => (held.get(receiver)?.size ?? 0) < (capacity.get(receiver) ?? 0))
    if (free !== undefined) {
      take(key, free)
      return true
    }
    for (const receiver of options) {
      tried.add(receiver)
      for (const other of [...(held.get(receiver) ?? [])])
        if (makePlace(other, tried)) {
          take(key, receiver)
          return true
        }
    }
    return false
  }

  for (const want of wants) if (!makePlace(want.key, new Set())) place.set(want.key, null)
  return place
}
