import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, Family } from '../catalogue/schema.ts'
import { readSticker } from './sticker.ts'

/** A family that a sticker could be of, and why. */
export interface Identified {
  readonly family: Family
  /** The ID it would be, in stored form. */
  readonly serial: string
  /** Higher is likelier; only comparable within one answer. */
  readonly score: number
  /** What speaks for it, plainest first. */
  readonly reasons: readonly string[]
  /** The sign that was taken for another to read it so; null where it is as typed. */
  readonly instead: Instead | null
  /** Models of the family, those whose name or class the text mentions first. */
  readonly models: readonly DeviceModel[]
}

/** One sign read as another that looks like it, at its place in what was typed without gaps, 1-based. */
interface Instead {
  readonly typed: string
  readonly read: string
  readonly at: number
}

/** A family that it cannot be, with the first thing that speaks against it. */
export interface NotIdentified {
  readonly family: Family
  readonly reason: string
}

/** Most characters of a sticker that are looked at. */
export const STICKER_LIMIT = 200

/** Letters that are taken for digits when a sticker is read (site practice), and digits for each other. */
const CONFUSED: readonly (readonly [typed: string, read: string])[] = [
  ['O', '0'],
  ['I', '1'],
  ['S', '5'],
  ['Z', '2'],
  ['B', '8'],
]
/** The other way round, and digits for digits: tried where nothing fits as it is typed. */
const SELDOM: typeof CONFUSED = [
  ...CONFUSED.map(([typed, read]) => [read, typed] as const),
  ['6', '8'],
  ['8', '6'],
]

/**
 * What a sticker could be, as typed and by every reading that one confusion of signs explains. Where a sign is in doubt the plain
 * families come first: a plain device that is taken for an encrypted one is never heard, or trusted too far.
 */
export function identify(
  catalogue: Catalogue,
  text: string,
): { readonly could: readonly Identified[]; readonly not: readonly NotIdentified[] } {
  const asTyped = identifyTyped(catalogue, text)
  const found = new Set(asTyped.could.map(({ family }) => family.id))
  const pairs = asTyped.could.length === 0 ? [...CONFUSED, ...SELDOM] : CONFUSED
  const input = text.slice(0, STICKER_LIMIT)
  const others = new Map(
    pairs
      .flatMap(([typed, read]) =>
        variantsOf(input, typed, read).flatMap(([variant, at]) =>
          identifyTyped(catalogue, variant).could.map((one): Identified => ({
            ...one,
            instead: { typed, read, at },
            reasons: [`if the ${typed} is ${signWords(read)}`, ...one.reasons],
          })),
        ),
      )
      .filter(({ family }) => !found.has(family.id))
      .map((one) => [`${one.family.id} ${one.serial}`, one] as const),
  )
  if (others.size === 0) return asTyped
  const signs = [...new Set([...others.values()].flatMap(({ instead }) => instead?.typed ?? []))]
  const typed = asTyped.could.map((one) => ({
    ...one,
    reasons: [`as typed, with ${signs.map(signWords).join(' and ')}`, ...one.reasons],
  }))
  const could = [...others.values(), ...typed].sort(
    (a, b) => plainFirst(a.family) - plainFirst(b.family) || b.score - a.score,
  )
  const doubted = new Set(could.map(({ family }) => family.id))
  return { could, not: asTyped.not.filter(({ family }) => !doubted.has(family.id)) }
}

/** The text with each of these signs by itself, and all of them, read as another; and where the first of them stands. */
function variantsOf(text: string, typed: string, read: string): readonly (readonly [string, number])[] {
  // A letter within a word, and a number by itself, are what they are: only signs of a group that could be of an ID are in doubt.
  const mixed = /\d/.test(typed) && !/\d/.test(read)
  const isOfId = (part: string): boolean => /\d/.test(part) && (!mixed || /[A-Za-z]/.test(part))
  const groups = [...text.matchAll(/\S+/g)].filter(([part]) => isOfId(part))
  const places = groups.flatMap(({ 0: part, index }) =>
    [...part].flatMap((sign, offset) => (sign.toUpperCase() === typed ? [index + offset] : [])),
  )
  const at = (index: number): number => text.slice(0, index + 1).replace(/[\s-]/g, '').length
  const put = (some: readonly number[]): string =>
    [...text].map((sign, index) => (some.includes(index) ? read : sign)).join('')
  const sets = [...(places.length > 1 ? [places] : []), ...places.slice(0, 8).map((place) => [place])]
  return sets.map((some) => [put(some), at(some[0] ?? 0)])
}

function plainFirst({ encryption }: Family): number {
  return encryption === 'none' ? 0 : encryption === 'always' ? 2 : 1
}

function signWords(sign: string): string {
  const digits = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine']
  const name = digits[Number(sign)]
  return name === undefined ? `the letter ${sign}` : `a ${name} (${sign})`
}

/**
 * What a sticker on the wall could be: every family whose rule it follows, likeliest first, by check digit, length,
 * alphabet and grouping; words on it that name a model count too. Ties stay ties: nothing is guessed.
 */
function identifyTyped(
  catalogue: Catalogue,
  text: string,
): { readonly could: readonly Identified[]; readonly not: readonly NotIdentified[] } {
  const input = text.slice(0, STICKER_LIMIT)
  const words = wordsOf(input)
  const could: Identified[] = []
  const not: NotIdentified[] = []
  const pieces = piecesIn(input)
  for (const family of catalogue.all('family')) {
    const readings = pieces.flatMap((piece) => readingOf(family, piece))
    const best = readings.sort((a, b) => b.score - a.score)[0]
    const models = catalogue.all('device').filter((model) => model.family === family.id)
    if (!best) {
      const first = pieces[0]
      const why = first ? readSticker(family, first.code) : null
      not.push({ family, reason: why && !why.ok ? why.reason : 'There is no ID in it.' })
      continue
    }
    const named = models
      .map((model) => ({ model, match: matchOf(model, words) }))
      .filter((item) => item.match > 0)
      .sort((a, b) => b.match - a.match)
      .map((item) => item.model)
    could.push({
      family,
      serial: best.serial,
      instead: null,
      score: best.score + (named.length > 0 ? 4 : 0),
      reasons: [
        ...(named.length > 0
          ? [
              `the words on it name ${named[0]?.name}${named.length > 1 ? ` before ${named.length - 1} like it` : ''}`,
            ]
          : []),
        ...best.reasons,
      ],
      models: [...named, ...models.filter((model) => !named.includes(model))],
    })
  }
  return { could: could.sort((a, b) => b.score - a.score || (a.family.name < b.family.name ? -1 : 1)), not }
}

/** A piece of a text that could be an ID, and how many digits of the text it leaves out. */
interface Piece {
  readonly code: string
  readonly leaves: number
}

/** Digits that a piece may leave out: those of a model's name, such as the 8 of a Sill 8. */
const MOST_LEFT_OUT = 2

/** Every run of groups that could be the ID, leaving out no more digits than a model's name has; whole ones first. */
function piecesIn(text: string): Piece[] {
  const parts = text
    .split(/[\s,;:/|]+/)
    .filter((part) => /^[0-9A-Za-z-]+$/.test(part))
    .slice(0, 24)
  const digits = (run: readonly string[]): number => run.join('').replace(/[^0-9]/g, '').length
  const all = digits(parts)
  const pieces: Piece[] = []
  for (let from = 0; from < parts.length; from++)
    for (let to = from + 1; to <= Math.min(parts.length, from + 6); to++) {
      const run = parts.slice(from, to)
      const leaves = all - digits(run)
      if (leaves <= MOST_LEFT_OUT && (all > 0 || run.length === parts.length))
        pieces.push({ code: run.join(' '), leaves })
    }
  return pieces.sort((a, b) => a.leaves - b.leaves || b.code.length - a.code.length)
}

function readingOf(
  family: Family,
  { code, leaves }: Piece,
): { serial: string; score: number; reasons: string[] }[] {
  const read = readSticker(family, code)
  if (!read.ok) return []
  const rule = family.sticker
  const plain = code.replace(/[\s-]/g, '')
  const reasons: string[] = []
  let score = 1 - 1.5 * leaves
  if (rule.check === 'weights-3-1') {
    score += 5
    reasons.push('its check digit fits, which one in ten IDs would by chance')
  }
  if (plain.length === rule.length) {
    score += 2
    reasons.push(
      rule.length === read.serial.length
        ? `it has the ${rule.length} characters of a ${family.name} sticker`
        : `it has the ${rule.length} characters of a ${family.name} sticker; the ID is characters ${rule.idFrom} to ${rule.idTo}`,
    )
  } else
    reasons.push(
      `it has the ${read.serial.length} characters of a ${family.name} ID, without the rest of the sticker`,
    )
  const alphabet = alphabetScore(rule.alphabet, plain.toUpperCase())
  score += alphabet.score
  if (alphabet.reason) reasons.push(alphabet.reason)
  const groups = code.split(/[\s-]+/).map((part) => part.length)
  if (groups.length > 1 && groups.join() === rule.groups.join()) {
    score += 2
    reasons.push(`it is grouped ${rule.groups.join('-')} as on a ${family.name} sticker`)
  }
  return [{ serial: read.serial, score, reasons }]
}

/** How much the signs themselves say: digits alone follow many rules, a letter in front only one. */
function alphabetScore(
  alphabet: Family['sticker']['alphabet'],
  plain: string,
): { score: number; reason: string | null } {
  const hasLetters = /[A-Z]/.test(plain)
  switch (alphabet) {
    case 'letter-then-digits':
      return { score: 4, reason: 'one letter, then digits' }
    case 'hexadecimal':
      return hasLetters
        ? { score: 2, reason: 'only digits and the letters A to F' }
        : { score: -1, reason: 'digits only, which is rare where letters may stand' }
    case 'digits':
      return { score: 1, reason: 'digits only' }
    case 'letters-and-digits':
      return hasLetters
        ? { score: 1, reason: 'letters and digits' }
        : { score: -2, reason: 'digits only, which is rare there' }
  }
}

function wordsOf(text: string): string[] {
  return text
    .toLowerCase()
    .split(/[^a-z]+/)
    .filter((word) => word.length >= 3)
}

/** How well words name a model: each word of its name counts, each that is missing counts a little against it. */
function matchOf(model: DeviceModel, words: readonly string[]): number {
  // The last word of a name says only what kind of thing it is.
  const own = wordsOf(model.name).slice(0, -1)
  const said = own.filter((word) => words.includes(word)).length
  return said === 0 ? 0 : said - (own.length - said) * 0.1
}
