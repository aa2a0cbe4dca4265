import type { Family } from '../catalogue/schema.ts'

/** How one ID looks like another, and where. */
export interface LookAlike {
  /** A sign taken for another, one sign off, or two neighbours swapped. */
  readonly kind: 'confusable' | 'character' | 'swapped'
  /** Place of the first difference, 1-based, in the ID. */
  readonly at: number
  readonly here: string
  readonly there: string
}

/** Signs that are taken for each other when a sticker is read (site practice); each counts both ways. */
const CONFUSABLE = ['0O', '1I', '68', '5S', '2Z', '8B']

/**
 * How `id` looks like `other`, both valid IDs of one family in stored form: one character off, two neighbours swapped, or any
 * number of signs taken for each other; null when they are the same or plainly different.
 */
export function lookAlike(id: string, other: string): LookAlike | null {
  if (id.length !== other.length) return null
  const places = [...id].flatMap((char, index) => (char === other[index] ? [] : [index]))
  const [first, second] = places
  if (first === undefined) return null
  const found = (kind: LookAlike['kind'], length = 1): LookAlike => ({
    kind,
    at: first + 1,
    here: id.slice(first, first + length),
    there: other.slice(first, first + length),
  })
  if (places.every((index) => confusable(id[index] ?? '', other[index] ?? ''))) return found('confusable')
  if (second === undefined) return found('character')
  const swapped =
    places.length === 2 && second === first + 1 && id[first] === other[second] && id[second] === other[first]
  return swapped ? found('swapped', 2) : null
}

/** The difference in words: `character 7 is 6 here and 8 on the sticker`. */
export function lookAlikeWords({ kind, at, here, there }: LookAlike, where: string): string {
  return kind === 'swapped'
    ? `characters ${at} and ${at + 1} are swapped, ${here} here and ${there} ${where}`
    : `character ${at} is ${here} here and ${there} ${where}`
}

function confusable(a: string, b: string): boolean {
  return CONFUSABLE.some((pair) => pair === a + b || pair === b + a)
}

/** A collection of IDs, each with where it stands, in which those that may be mistaken for one are found without trying all. */
export class LookAlikes {
  readonly #byShape = new Map<string, { readonly id: string; readonly where: string }[]>()
  readonly #byId = new Map<string, { readonly id: string; readonly where: string }>()

  add(id: string, where: string): void {
    const entry = { id, where }
    const shape = shapeOf(id)
    this.#byShape.set(shape, [...(this.#byShape.get(shape) ?? []), entry])
    this.#byId.set(id, entry)
  }

  /**
   * Those that differ in signs taken for each other, or by two neighbours swapped. One sign off is no doubt among many:
   * devices of one carton are numbered one after the other.
   */
  near(id: string): { readonly where: string; readonly alike: LookAlike }[] {
    const swapped = Array.from({ length: Math.max(0, id.length - 1) }, (_, at) =>
      this.#byId.get(id.slice(0, at) + id.charAt(at + 1) + id.charAt(at) + id.slice(at + 2)),
    )
    const entries = new Set([
      ...(this.#byShape.get(shapeOf(id)) ?? []),
      ...swapped.flatMap((one) => one ?? []),
    ])
    return [...entries].flatMap((entry) => {
      const alike = lookAlike(id, entry.id)
      return alike ? [{ where: entry.where, alike }] : []
    })
  }
}

/** The ID with one sign for all that are taken for each other. */
function shapeOf(id: string): string {
  return [...id].map((sign) => ({ O: '0', I: '1', '6': '8', S: '5', Z: '2', B: '8' })[sign] ?? sign).join('')
}

/** The sign of a family's alphabet that a wrong one may have been taken for; null when there is none. */
export function meantFor(family: Family, wrong: string, at: number): string | null {
  const signs = CONFUSABLE.filter((pair) => pair.includes(wrong)).flatMap((pair) => [...pair])
  return signs.find((sign) => belongs(family.sticker.alphabet, sign, at)) ?? null
}

const DIGITS = '0123456789'
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'

/** Whether one sign may stand at a place of an ID, 0-based. */
export function belongs(alphabet: Family['sticker']['alphabet'], sign: string, at: number): boolean {
  switch (alphabet) {
    case 'digits':
      return DIGITS.includes(sign)
    case 'hexadecimal':
      return `${DIGITS}ABCDEF`.includes(sign)
    case 'letters-and-digits':
      return `${DIGITS}${LETTERS}`.includes(sign)
    case 'letter-then-digits':
      return (at === 0 ? LETTERS : DIGITS).includes(sign)
  }
}
