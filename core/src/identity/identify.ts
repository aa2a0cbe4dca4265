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
  /** Models of the family, those whose name or class the text mentions first. */
  readonly models: readonly DeviceModel[]
}

/** A family that it cannot be, with the first thing that speaks against it. */
export interface NotIdentified {
  readonly family: Family
  readonly reason: string
}

/** Most characters of a sticker that are looked at. */
export const STICKER_LIMIT = 200

/**
 * What a sticker on the wall could be: every family whose rule it follows, likeliest first, by check digit, length,
 * alphabet and grouping; words on it that name a model count too. Ties stay ties: nothing is guessed.
 */
export function identify(
  catalogue: Catalogue,
  text: string,
): { readonly could: readonly Identified[]; readonly not: readonly NotIdentified[] } {
  const input = text.slice(0, STICKER_LIMIT)
  const words = wordsOf(input)
  const could: Identified[] = []
  const not: NotIdentified[] = []
  const codes = codesIn(input)
  for (const family of catalogue.all('family')) {
    const readings = codes.flatMap((code) => readingOf(family, code))
    const best = readings.sort((a, b) => b.score - a.score)[0]
    const models = catalogue.all('device').filter((model) => model.family === family.id)
    if (!best) {
      const first = codes[0]
      const why = first ? readSticker(family, first) : null
      not.push({ family, reason: why && !why.ok ? why.reason : 'There is no ID in it.' })
      continue
    }
    const named = models.filter((model) => words.some((word) => mentions(model, word)))
    could.push({
      family,
      serial: best.serial,
      score: best.score + (named.length > 0 ? 4 : 0),
      reasons: [
        ...(named.length > 0
          ? [`the words on it name ${named.map((model) => model.name).join(' or ')}`]
          : []),
        ...best.reasons,
      ],
      models: [...named, ...models.filter((model) => !named.includes(model))],
    })
  }
  return { could: could.sort((a, b) => b.score - a.score || (a.family.name < b.family.name ? -1 : 1)), not }
}

/** The pieces of a text that could be an ID: all of it, and the span that holds every group with a digit. */
function codesIn(text: string): string[] {
  const parts = text.split(/[\s,;:/|]+/).filter((part) => part !== '')
  const code = (from: number, to: number): string[] => {
    const run = parts.slice(Math.max(from, 0), to)
    return run.length > 0 && run.every((part) => /^[0-9A-Za-z-]+$/.test(part)) ? [run.join(' ')] : []
  }
  const first = parts.findIndex((part) => /\d/.test(part))
  const last = parts.findLastIndex((part) => /\d/.test(part)) + 1
  // A group of an ID may happen to have letters only: the neighbours on either side are tried too.
  const spans = first < 0 ? [] : [code(first, last), code(first - 1, last), code(first, last + 1)]
  return [...new Set([code(0, parts.length), ...spans].flat())]
}

function readingOf(family: Family, code: string): { serial: string; score: number; reasons: string[] }[] {
  const read = readSticker(family, code)
  if (!read.ok) return []
  const rule = family.sticker
  const plain = code.replace(/[\s-]/g, '')
  const reasons: string[] = []
  let score = 1
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
    .filter((word) => word.length >= 4)
}

function mentions(model: DeviceModel, word: string): boolean {
  return model.name
    .toLowerCase()
    .split(/[^a-z]+/)
    .includes(word)
}
