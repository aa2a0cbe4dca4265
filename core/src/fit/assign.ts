/** A device that wants a place: the receivers that could hold it, the one that suits it best first. */
export interface Want {
  readonly key: string
  readonly options: readonly string[]
}

/**
 * Gives each device a receiver, in order, none beyond its capacity. A device whose receivers are all full makes those before
 * it move where they can, so that as many as possible are held (augmenting paths), and the last ones are left out. Null
 * means that no place could be made.
 */
export function assignPlaces(
  wants: readonly Want[],
  capacity: ReadonlyMap<string, number>,
): ReadonlyMap<string, string | null> {
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
