/*
 * A panel's word library, read from a list that was pasted or imported: `012 KITCHEN`, `KITCHEN,012`, or several pairs in a line as
 * a manual prints them. A number that cannot be told from a word is asked, never guessed.
 */

/** A word of a library, by the number that is keyed for it. */
interface LibraryWord {
  readonly number: string
  readonly text: string
}

/** What was read of a list. */
export interface WordList {
  readonly words: readonly LibraryWord[]
  /** By line, from 1. */
  readonly problems: readonly { readonly line: number; readonly message: string }[]
  /** Numbers between the least and the greatest that no word has: a line that was lost in copying, or a number without a word. */
  readonly gaps: readonly string[]
}

const MOST_LETTERS = 24
/** Gaps that are named; more of them are a list of another kind. */
const MOST_GAPS = 50

interface Line {
  readonly line: number
  readonly tokens: readonly string[]
}

/** Reads a list of words with their numbers, in one order throughout: numbers first or numbers last. */
export function readWordList(text: string): WordList {
  const lines = text
    .split(/\r?\n/)
    .map((one, index): Line => ({
      line: index + 1,
      tokens: one
        .split(/[\s,;=|"]+/)
        .filter(Boolean)
        .map(plainToken),
    }))
    .filter(({ tokens }) => tokens.length > 0)
  const width = widthOf(lines)
  const isNumber = (token: string): boolean =>
    /^\d{1,5}$/.test(token) && (width === null || token.length === width)
  const first = lines.filter(({ tokens }) => isNumber(tokens[0] ?? '')).length
  const last = lines.filter(({ tokens }) => isNumber(tokens.at(-1) ?? '')).length
  const before = first >= last
  const words: LibraryWord[] = []
  const problems: { line: number; message: string }[] = []
  const known = new Map<string, string>()
  for (const { line, tokens } of lines) {
    const pairs = pairsOf(tokens, { isNumber, before, many: width !== null })
    if (typeof pairs === 'string') problems.push({ line, message: pairs })
    for (const word of typeof pairs === 'string' ? [] : pairs) {
      const other = known.get(word.number)
      const message = wordProblem(word, other)
      if (message !== '') problems.push({ line, message })
      else if (other === undefined) words.push(word)
      known.set(word.number, other ?? word.text)
    }
  }
  return { words, problems, gaps: gapsOf(words) }
}

function wordProblem({ number, text }: LibraryWord, other: string | undefined): string {
  if (text.length > MOST_LETTERS) return `“${text}” is longer than ${MOST_LETTERS} letters`
  return other === undefined || other === text ? '' : `${number} stands for ${other} and for ${text}`
}

/** `012.` and `012)` are numbers of a list. */
function plainToken(token: string): string {
  return token.replace(/^(\d{1,5})[.):–-]$/, '$1')
}

/** How many digits the numbers have, where all that stand alone in their line have as many; null where they differ. */
function widthOf(lines: readonly Line[]): number | null {
  const alone = lines.flatMap(({ tokens }) => {
    const digits = tokens.filter((token) => /^\d{1,5}$/.test(token))
    return digits.length === 1 ? digits : []
  })
  const widths = new Set(alone.map((token) => token.length))
  // Printed in columns, no line has one number alone: then the widest count, where most have it.
  const [width = 0] = widths
  // One digit each is no width: the tenth word has two.
  if (widths.size > 0) return widths.size === 1 && width > 1 ? width : null
  const all = lines.flatMap(({ tokens }) => tokens.filter((token) => /^\d{1,5}$/.test(token)))
  const widest = Math.max(0, ...all.map((token) => token.length))
  return widest > 1 ? widest : null
}

function pairsOf(
  tokens: readonly string[],
  how: { readonly isNumber: (token: string) => boolean; readonly before: boolean; readonly many: boolean },
): readonly LibraryWord[] | string {
  const order = how.before ? tokens : tokens.toReversed()
  const numbers = order.filter(how.isNumber)
  if (numbers.length === 0) return 'has no number'
  if (!how.isNumber(order[0] ?? ''))
    return `its number must stand ${how.before ? 'first' : 'last'}, as in the other lines`
  if (numbers.length > 1 && !how.many)
    return 'which of its numbers belongs to the word cannot be told: give the word a line of its own'
  const pairs: { number: string; text: string[] }[] = []
  for (const token of order)
    if (how.isNumber(token)) pairs.push({ number: token, text: [] })
    else pairs.at(-1)?.text.push(token)
  const bare = pairs.find(({ text }) => text.length === 0)
  if (bare) return `${bare.number} has no word`
  const read = pairs.map(({ number, text }) => ({
    number,
    text: (how.before ? text : text.toReversed()).join(' '),
  }))
  return how.before ? read : read.toReversed()
}

function gapsOf(words: readonly LibraryWord[]): string[] {
  const numbers = new Set(words.map(({ number }) => Number(number)))
  const width = Math.max(0, ...words.map(({ number }) => number.length))
  const padded = words.some(({ number }) => number.length > 1 && number.startsWith('0')) ? width : 0
  const gaps: string[] = []
  for (let at = Math.min(...numbers) + 1; at < Math.max(...numbers) && gaps.length < MOST_GAPS; at += 1)
    if (!numbers.has(at)) gaps.push(String(at).padStart(padded, '0'))
  return gaps
}

/** Says of an answer that it is no list of words; empty where it is one. */
export function wordsProblem(value: unknown): string {
  return Array.isArray(value) && value.length > 0 ? '' : 'must be a list of at least one word with its number'
}
