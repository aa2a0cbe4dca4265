/** Something that the search can find. */
export interface Findable {
  /** Tells it from everything else of the firm: what was used lately is remembered by it. */
  readonly key: string
  readonly title: string
  /** What stands beside it, found as well. */
  readonly detail: string
  /** Further words that it is found by, such as an ID without its groups. */
  readonly also: string
}

/**
 * What matches every typed word, best first: words at the beginning of the title, then at the beginning of any word, then
 * anywhere; what was used lately goes before its equals. Nothing typed gives what was used lately, then the rest as it comes.
 */
export function rank<F extends Findable>(all: readonly F[], typed: string, lately: readonly string[]): F[] {
  const words = plain(typed).split(' ').filter(Boolean)
  const age = (item: F): number => {
    const at = lately.indexOf(item.key)
    return at === -1 ? lately.length : at
  }
  return all
    .flatMap((item, order) => {
      const cost = costOf(item, words, plain(typed).replaceAll(' ', ''))
      return cost === null ? [] : [{ item, cost, age: age(item), order }]
    })
    .sort((a, b) => a.cost - b.cost || a.age - b.age || a.order - b.order)
    .map(({ item }) => item)
}

/** How far from the front its words are found, 0 best; null where one is not found. IDs are found with or without their groups. */
function costOf(item: Findable, words: readonly string[], joined: string): number | null {
  const title = plain(item.title)
  const all = `${title} ${plain(item.detail)} ${plain(item.also)}`
  let cost = 0
  for (const word of words) {
    const at = title.startsWith(word)
      ? 0
      : ` ${title}`.includes(` ${word}`)
        ? 1
        : ` ${all}`.includes(` ${word}`)
          ? 2
          : all.includes(word)
            ? 3
            : null
    if (at === null) return joined.length > 2 && all.replaceAll(' ', '').includes(joined) ? 2 : null
    cost += at
  }
  return cost
}

/** Small letters without accents; whatever is no letter or digit parts words. */
function plain(text: string): string {
  return text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}
