/**
 * Keeps what was last made for an object, as long as everything it was made from is the same: lists are looked up anew with
 * every edit of a document, though their records mostly stay the same objects.
 */
export class Keeper<T> {
  readonly #kept = new WeakMap<object, { readonly from: readonly unknown[]; readonly value: T }>()

  /** The value kept for `key` if it was made from just these things, else a new one. */
  get(key: object, from: readonly unknown[], make: () => T): T {
    const known = this.#kept.get(key)
    if (known && known.from.length === from.length && known.from.every((item, index) => item === from[index]))
      return known.value
    const value = make()
    this.#kept.set(key, { from, value })
    return value
  }
}
