import { distance } from 'fastest-levenshtein'
import type { Schools } from '../house-rules/house-rules.ts'
import type { DeviceEvent, LabelRule } from '../catalogue/schema.ts'

/** The thing word of an event, the second half of a label. */
export const eventWords: Readonly<Record<DeviceEvent, string>> = {
  open: 'contact',
  terminals: 'wired',
  motion: 'motion',
  glass: 'glass',
  shock: 'shock',
  smoke: 'smoke',
  heat: 'heat',
  freeze: 'frost',
  co: 'gas',
  flood: 'water',
  panic: 'panic',
  'panic-silent': 'panic',
  medical: 'call',
  'arm-away': 'away',
  'arm-stay': 'stay',
  disarm: 'unset',
  output: 'output',
}

const counts = ['', 'one', 'two', 'three', 'four', 'five', 'six']
const short: Readonly<Record<string, string>> = {
  window: 'WIN',
  door: 'DOOR',
  doors: 'DRS',
  bedroom: 'BED',
  bathroom: 'BATH',
  kitchen: 'KIT',
  conservatory: 'CONSERV',
  workshop: 'WKSHOP',
  utility: 'UTIL',
  garage: 'GAR',
  motion: 'MOTN',
  contact: 'CONT',
  left: 'L',
  right: 'R',
  front: 'FRT',
}

/** Words of place and thing, and which of them the firm puts first. */
export interface LabelWords {
  readonly place: string
  readonly thing: string
  readonly order?: Schools['labelOrder']
}

/** A label of place and thing in the firm's order and the panel's form; `taken` are the labels it must differ from. */
export function makeLabel(
  rule: LabelRule,
  { place, thing, order = 'place-thing' }: LabelWords,
  taken: ReadonlySet<string>,
): string {
  const where = wordsOf(place)
  const what = wordsOf(thing).filter((word) => !where.includes(word))
  const words = order === 'place-thing' ? [...where, ...what] : [...what, ...where]
  for (let count = 0; count < 40; count++) {
    const mark = count === 0 ? [] : [counts[count + 1] ?? String(count + 1)]
    const label =
      rule.style === 'library'
        ? libraryLabel(rule, words, mark)
        : textLabel(rule, words, count === 0 ? '' : ` ${count + 1}`)
    if (label !== '' && !taken.has(labelKey(rule, label))) return label
    if (label === '') return ''
  }
  return ''
}

/** The form in which the panel would keep it: labels that are alike here are alike on the display. */
export function labelKey(rule: LabelRule | null, label: string): string {
  const plain = label.trim().replace(/\s+/g, ' ').toUpperCase()
  return rule?.style === 'text' ? plain.slice(0, rule.length).trim() : plain
}

/** The library entries of a label: each with its number, or null for a word the panel does not have. */
export function libraryEntries(
  rule: Extract<LabelRule, { style: 'library' }>,
  label: string,
): { text: string; number: string | null }[] {
  const words = wordsOf(label)
  const entries: { text: string; number: string | null }[] = []
  for (let at = 0; at < words.length;) {
    const pair = find(rule, words.slice(at, at + 2).join(' '))
    if (pair && at + 1 < words.length) {
      entries.push(pair)
      at += 2
      continue
    }
    const word = words[at] ?? ''
    entries.push(find(rule, word) ?? { text: word, number: null })
    at += 1
  }
  return entries
}

/** The library's words nearest to one that it lacks, nearest first: fewest letters changed, at most a third of them. */
export function nearestWords(
  rule: Extract<LabelRule, { style: 'library' }>,
  word: string,
  most = 3,
): readonly { readonly text: string; readonly number: string }[] {
  const wanted = word.toLowerCase()
  return rule.words
    .map((entry) => ({ entry, far: apart(wanted, entry.text.toLowerCase()) }))
    .filter(({ entry, far }) => far <= Math.max(wanted.length, entry.text.length) / 3)
    .sort((a, b) => a.far - b.far || (a.entry.text < b.entry.text ? -1 : 1))
    .slice(0, most)
    .map(({ entry }) => entry)
}

/** Letters put in, left out or changed (Levenshtein); one word that begins the other counts as near. */
function apart(a: string, b: string): number {
  const begins = a.length >= 3 && b.length >= 3 && (a.startsWith(b) || b.startsWith(a))
  return begins ? 1 : distance(a, b)
}

/** What is wrong with a label on this panel, with the figures; null when it is right. */
export function labelTrouble(rule: LabelRule, label: string): string | null {
  if (rule.style === 'library') {
    const entries = libraryEntries(rule, label)
    const unknown = entries.filter((entry) => entry.number === null).map((entry) => `“${entry.text}”`)
    const missing = [...new Set(unknown)]
    if (missing.length > 0) {
      const near = entries
        .filter((entry) => entry.number === null)
        .flatMap((entry) => nearestWords(rule, entry.text, 2).map((word) => `“${word.text}”`))
      const hint = near.length > 0 ? `; nearest: ${[...new Set(near)].join(', ')}` : ''
      return `${missing.join(', ')} ${missing.length === 1 ? 'is' : 'are'} not in the panel's word list${hint}`
    }
    return entries.length > rule.entries
      ? `it takes ${entries.length} list entries and the panel shows ${rule.entries}`
      : null
  }
  const text = rule.capitals ? label.toUpperCase() : label
  if (text.length > rule.length) return `it has ${text.length} characters and the panel shows ${rule.length}`
  const odd = [...text].find((char) => !rule.characters.includes(char))
  return odd ? `the panel cannot show “${odd}”` : null
}

/** A label cut or chosen so that the panel can show it. */
export function fitLabel(rule: LabelRule, label: string, taken: ReadonlySet<string>): string {
  return makeLabel(rule, { place: label, thing: '' }, taken)
}

/** Whether a label is one a panel comes with, such as “zone 12” or nothing at all. */
export function isDefaultLabel(label: string): boolean {
  return label.trim() === '' || /^(zone|line|z|input|new zone)\s*\d*$/i.test(label.trim())
}

function libraryLabel(
  rule: Extract<LabelRule, { style: 'library' }>,
  words: readonly string[],
  mark: readonly string[],
): string {
  const known = libraryEntries(rule, words.join(' ')).filter((entry) => entry.number !== null)
  const room = rule.entries - mark.length
  // The last word says what it is; when there are too many, the middle ones go first.
  const kept = known.length <= room ? known : [...known.slice(0, room - 1), ...known.slice(-1)]
  return [...kept.map((entry) => entry.text), ...mark.map(capital)].join(' ')
}

function textLabel(
  rule: Extract<LabelRule, { style: 'text' }>,
  words: readonly string[],
  mark: string,
): string {
  const clean = words
    .map((word) => [...word.toUpperCase()].filter((char) => rule.characters.includes(char)).join(''))
    .filter(Boolean)
  const room = rule.length - mark.length
  const cased = (parts: readonly string[]): string =>
    rule.capitals ? parts.join(' ') : capital(parts.join(' ').toLowerCase())
  const tries = [
    clean,
    clean.map(shorten),
    ...[4, 3, 2].map((size) => clean.map((word) => word.slice(0, size))),
  ]
  const fitting = tries.find((parts) => parts.join(' ').length <= room) ?? [clean.join('').slice(0, room)]
  return cased(fitting) + mark
}

function shorten(word: string): string {
  return short[word.toLowerCase()] ?? word
}

function find(
  rule: Extract<LabelRule, { style: 'library' }>,
  text: string,
): { text: string; number: string } | null {
  return rule.words.find((word) => word.text.toLowerCase() === text.toLowerCase()) ?? null
}

function wordsOf(text: string): string[] {
  return text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
