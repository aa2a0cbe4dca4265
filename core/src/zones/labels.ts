import { distance } from 'fastest-levenshtein'
import type { Schools } from '../house-rules/house-rules.ts'
import type { DeviceEvent, LabelRule } from '../catalogue/schema.ts'
import { isFiller, isSide, shortForms, spellOut, standsFor } from './label-words.ts'

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
/** Words of place and thing, and which of them the firm puts first. */
export interface LabelWords {
  readonly place: string
  readonly thing: string
  readonly order?: Schools['labelOrder']
}

/**
 * A label of place and thing in the firm's order and the panel's form; `taken` are the labels it must differ from. Empty where
 * the panel cannot say the place: a label without its place sends somebody astray.
 */
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
        ? libraryLabel(rule, { words, places: where.length, order }, mark)
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

/** A label shortened or chosen so that the panel can show it; empty where it would lose a word that it said. */
export function fitLabel(rule: LabelRule, label: string, taken: ReadonlySet<string>): string {
  const words = wordsOf(label)
  const wording = { words, places: words.length, order: 'place-thing' } as const
  if (rule.style === 'library' && sayAll(rule, wording).lost.length > 0) return ''
  return makeLabel(rule, { place: label, thing: '' }, taken)
}

/** Words that say what, how many or which, and never where. */
const bare: ReadonlySet<string> = new Set([
  ...Object.values(eventWords).filter((word) => !['wired', 'away', 'unset', 'output', 'call'].includes(word)),
  ...[
    'window',
    'door',
    'doors',
    'sensor',
    'detector',
    'device',
    'magnet',
    'reed',
    'alarm',
    'pir',
    'test',
    'new',
    'zone',
    'line',
  ],
  ...['one', 'two', 'three', 'four', 'five', 'six', 'no', 'number'],
])

/** Whether a label says a thing or a number and no place: `Motion`, `sensor 3`, `test`. */
export function isBareLabel(label: string): boolean {
  const words = wordsOf(label)
  return words.length > 0 && words.every((word) => bare.has(word) || /^\d+$/.test(word))
}

/** Whether a label is one a panel comes with, such as “zone 12” or nothing at all. */
export function isDefaultLabel(label: string): boolean {
  return label.trim() === '' || /^(zone|line|z|input|new zone)\s*\d*$/i.test(label.trim())
}

interface Wording {
  readonly words: readonly string[]
  /** How many of the words say the place. */
  readonly places: number
  readonly order: Schools['labelOrder']
}

/** A list entry that a label may be made of, and what is lost without it. */
interface Said {
  readonly texts: readonly string[]
  readonly place: boolean
  readonly side: boolean
}

type Library = Extract<LabelRule, { style: 'library' }>

/** What the list has for the words, and the words that it cannot say at all. */
function sayAll(
  rule: Library,
  { words, places, order }: Wording,
): { said: readonly Said[]; lost: readonly string[] } {
  const isPlace = (at: number): boolean =>
    order === 'place-thing' ? at < places : at >= words.length - places
  const said: Said[] = []
  const lost: string[] = []
  for (let at = 0; at < words.length;) {
    const word = words[at] ?? ''
    const { texts, took } = sayNext(rule, words.slice(at, at + 3))
    if (texts.length > 0) said.push({ texts, place: isPlace(at), side: isSide(word) })
    else if (!isFiller(word)) lost.push(word)
    at += took
  }
  return { said, lost }
}

/** The entries that say place, side and thing; a place that the list has no word for makes no label. */
function libraryLabel(rule: Library, wording: Wording, mark: readonly string[]): string {
  const kept = withinRoom(sayAll(rule, wording).said, rule.entries - mark.length)
  if (wording.places > 0 && !kept.some((one) => one.place)) return ''
  return [...kept.flatMap((one) => one.texts), ...mark.map(capital)].join(' ')
}

/** The longest phrase that the list has: as it is, by another word that stands for it, else what is to be left out. */
function sayNext(rule: Library, next: readonly string[]): { texts: readonly string[]; took: number } {
  const phrases = [3, 2].filter((size) => size <= next.length).map((size) => next.slice(0, size))
  for (const phrase of phrases) {
    const entry = find(rule, phrase.join(' '))
    if (entry) return { texts: [entry.text], took: phrase.length }
  }
  for (const phrase of phrases) {
    if (phrase.every((word) => find(rule, word))) break
    const texts = instead(rule, phrase.join(' '))
    if (texts) return { texts, took: phrase.length }
  }
  const [word = ''] = next
  const entry = find(rule, word)
  if (entry) return { texts: [entry.text], took: 1 }
  return { texts: isFiller(word) ? [] : (instead(rule, word) ?? []), took: 1 }
}

/** The nearest that the list has for a word or phrase that it lacks; null where it has none. */
function instead(rule: Library, phrase: string): readonly string[] | null {
  for (const other of standsFor(phrase)) {
    const whole = find(rule, other)
    if (whole) return [whole.text]
    const parts = other.split(' ').map((word) => find(rule, word)?.text)
    if (parts.every((text) => text !== undefined)) return parts
  }
  return null
}

/** What fits: first go further words, then sides of the place, then of the thing; the first place and the thing stay. */
function withinRoom(said: readonly Said[], room: number): readonly Said[] {
  const kept = [...said]
  const first = said.find((one) => one.place && !one.side)
  const thing = said.findLast((one) => !one.place && !one.side) ?? said.at(-1)
  const size = (): number => kept.reduce((sum, { texts }) => sum + texts.length, 0)
  while (size() > room) {
    const free = kept.filter((one) => one !== first && one !== thing)
    const gone = free.findLast((one) => !one.side) ?? free.findLast((one) => one.place) ?? free.at(-1)
    if (!gone) break
    kept.splice(kept.indexOf(gone), 1)
  }
  return kept
}

/** What a form of a word costs in readability, and how many letters it takes. */
interface Form {
  readonly text: string
  readonly cost: number
}

/** The words as readable as the room allows: whole, in short forms, without fillers; cut only where nothing readable fits. */
function textLabel(
  rule: Extract<LabelRule, { style: 'text' }>,
  words: readonly string[],
  mark: string,
): string {
  const has = (letter: string): boolean => rule.characters.includes(letter)
  const clean = words.map((word) => spellOut(word.toUpperCase(), has)).filter(Boolean)
  const room = rule.length - mark.length
  const fitting = mostReadable(clean.map(formsOf), room) ?? clean.join('').slice(0, room)
  return (rule.capitals ? fitting : capital(fitting.toLowerCase())) + mark
}

/** Short forms cost a little, fillers left out a little more; letters cut off cost more than any readable form. */
function formsOf(word: string): readonly Form[] {
  const readable = shortForms(word).map((text, index) => ({ text, cost: 2 + index }))
  const cut = [5, 4, 3, 2].flatMap((size, index) =>
    word.length > size && !/^\d+$/.test(word) ? [{ text: word.slice(0, size), cost: 40 + 10 * index }] : [],
  )
  return [{ text: word, cost: 0 }, ...readable, ...(isFiller(word) ? [{ text: '', cost: 3 }] : []), ...cut]
}

/** The cheapest choice of one form per word that fits; of two alike the longer. Null where none fits. */
function mostReadable(words: readonly (readonly Form[])[], room: number): string | null {
  let lines: readonly Form[] = [{ text: '', cost: 0 }]
  for (const forms of words) {
    const longer = lines.flatMap((line) =>
      forms.map((form) => ({
        text: [line.text, form.text].filter(Boolean).join(' '),
        cost: line.cost + form.cost,
      })),
    )
    lines = cheapestByLength(longer.filter(({ text }) => text.length <= room))
  }
  const best = [...lines].sort((a, b) => a.cost - b.cost || b.text.length - a.text.length)[0]
  return best?.text ?? null
}

function cheapestByLength(lines: readonly Form[]): readonly Form[] {
  const best = new Map<number, Form>()
  for (const line of lines) {
    const known = best.get(line.text.length)
    if (!known || line.cost < known.cost) best.set(line.text.length, line)
  }
  return [...best.values()]
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
    .replace(/[’']/g, '')
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}
