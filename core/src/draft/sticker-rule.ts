import type { Family } from '../catalogue/schema.ts'
import { weightsHold } from '../identity/sticker.ts'

/*
 * The rule of a family's stickers, found from a few of them. What the stickers leave open is asked, never guessed: a rule that is
 * too narrow refuses good devices, one that is too wide lets a typing error through.
 */

/** How an ID stands on a sticker, without where that is. */
export type StickerRule = Omit<Family['sticker'], 'where'>

/** A sticker as it was typed or scanned, and what the panel showed of the device once it was learned; empty where nobody looked. */
export interface SeenSticker {
  readonly sticker: string
  readonly shown: string
}

/** Something that these stickers do not tell, with what would. */
interface OpenPoint {
  readonly about: 'alphabet' | 'position' | 'check'
  readonly ask: string
  /** What would tell it. */
  readonly tell: string
  readonly choices: readonly { readonly title: string; readonly change: Partial<StickerRule> }[]
}

/** The rule that fits all of them, and what is still open; no rule where they contradict each other. */
export interface FoundRule {
  readonly rule: StickerRule | null
  readonly open: readonly OpenPoint[]
  readonly problems: readonly string[]
}

/** How likely chance may have made it look so, before it is asked (house judgement). */
const BY_CHANCE = 0.01

type Alphabet = StickerRule['alphabet']

/** Alphabets, the narrowest first: how many signs each allows at a place of a sticker. */
const alphabets: readonly {
  readonly is: Alphabet
  readonly title: string
  readonly fits: RegExp
  readonly signs: (at: number) => number
}[] = [
  { is: 'digits', title: 'digits only', fits: /^\d+$/, signs: () => 10 },
  {
    ...{ is: 'letter-then-digits', title: 'a letter, then digits', fits: /^[A-Z]\d+$/ },
    signs: (at) => (at === 0 ? 26 : 10),
  },
  { is: 'hexadecimal', title: '0–9 and A–F', fits: /^[0-9A-F]+$/, signs: () => 16 },
  { is: 'letters-and-digits', title: 'all letters and digits', fits: /^[0-9A-Z]+$/, signs: () => 36 },
]

/** Finds the rule of these stickers, of one family and of different devices. */
export function findStickerRule(seen: readonly SeenSticker[]): FoundRule {
  const list = seen
    .map(({ sticker, shown }) => ({
      raw: sticker.trim(),
      plain: plain(sticker),
      shown: plain(shown),
      shownRaw: shown.trim(),
    }))
    .filter((one) => one.plain !== '')
  const problems = contradictions(list)
  const [first] = list
  if (!first || problems.length > 0) return { rule: null, open: [], problems }
  const texts = list.map((one) => one.plain)
  const place = placeOf(list)
  if (place.problem !== '') return { rule: null, open: [], problems: [place.problem] }
  const alphabet = alphabetOf(texts)
  const [{ from, to } = { from: 1, to: first.plain.length }] = place.places
  const ids = texts.map((text) => text.slice(from - 1, to))
  const checked = checkOf(ids)
  return {
    rule: {
      ...{ length: first.plain.length, alphabet: alphabet.is, idFrom: from, idTo: to },
      ...{ groups: groupsOf(first, { from, to }), check: checked.check },
    },
    open: [...alphabet.open, ...place.open, ...checked.open],
    problems: [],
  }
}

interface Read {
  /** As it was typed, with its gaps. */
  readonly raw: string
  readonly plain: string
  readonly shown: string
  readonly shownRaw: string
}

function plain(text: string): string {
  return text.replace(/[\s\-–·.]/g, '').toUpperCase()
}

function contradictions(list: readonly Read[]): string[] {
  const problems: string[] = []
  const [first] = list
  list.forEach((one, index) => {
    const odd = /[^0-9A-Z]/.exec(one.plain)
    const name = `Sticker ${index + 1}`
    if (odd)
      problems.push(
        `${name}: “${odd[0]}” is no letter or digit. Type only the ID, without the code’s own signs.`,
      )
    else if (one.plain.length < 4 || one.plain.length > 20)
      problems.push(`${name} has ${one.plain.length} characters: 4 to 20 are possible.`)
    else if (first && one.plain.length !== first.plain.length)
      problems.push(
        `${name} has ${one.plain.length} characters and sticker 1 has ${first.plain.length}: one is mistyped, or they are of two families.`,
      )
    const twin = list.findIndex((other) => other.plain === one.plain)
    if (twin < index)
      problems.push(`${name} is the same as sticker ${twin + 1}: each must be of another device.`)
  })
  return problems
}

/** The narrowest alphabet that has them all, and the wider ones that chance may have hidden. */
function alphabetOf(texts: readonly string[]): {
  readonly is: Alphabet
  readonly open: readonly OpenPoint[]
} {
  const fitting = alphabets.filter(({ fits }) => texts.every((text) => fits.test(text)))
  const [narrow, ...wider] = fitting
  if (!narrow) return { is: 'letters-and-digits', open: [] }
  const hidden = wider.filter((wide) => chance(texts, narrow, wide) > BY_CHANCE)
  if (hidden.length === 0) return { is: narrow.is, open: [] }
  const choices = [narrow, ...hidden].map(({ is, title }) => ({ title, change: { alphabet: is } }))
  return {
    is: narrow.is,
    open: [
      {
        about: 'alphabet',
        ask: 'Which signs can stand on it?',
        tell: 'Another sticker or two tell it, or the leaflet.',
        choices,
      },
    ],
  }
}

/** How likely stickers of the wider alphabet would look like ones of the narrower by chance. */
function chance(
  texts: readonly string[],
  narrow: (typeof alphabets)[number],
  wide: (typeof alphabets)[number],
): number {
  return texts.reduce(
    (all, text) =>
      [...text].reduce(
        (one, _, at) => (one * Math.min(narrow.signs(at), wide.signs(at))) / wide.signs(at),
        all,
      ),
    1,
  )
}

interface Place {
  readonly from: number
  readonly to: number
}

/** Where the ID stands, by what the panel showed. */
function placeOf(list: readonly Read[]): {
  readonly places: readonly Place[]
  readonly open: readonly OpenPoint[]
  readonly problem: string
} {
  const shown = list.filter((one) => one.shown !== '')
  const whole = { from: 1, to: list[0]?.plain.length ?? 0 }
  if (shown.length === 0)
    return {
      ...{ places: [whole], problem: '' },
      open: [
        {
          ...{ about: 'position', ask: 'Which part of it is the ID?' },
          tell: 'Learn one of them and type beside its sticker what the panel then shows.',
          choices: [{ title: 'all of it', change: { idFrom: whole.from, idTo: whole.to } }],
        },
      ],
    }
  const missing = shown.find((one) => !one.plain.includes(one.shown))
  if (missing)
    return {
      places: [],
      open: [],
      problem: `The panel showed ${missing.shown}, which does not stand on the sticker ${missing.raw}: one of the two is mistyped, or it learned another device.`,
    }
  const places = shown
    .map(placesIn)
    .reduce((all, these) =>
      all.filter((one) => these.some((other) => other.from === one.from && other.to === one.to)),
    )
  if (places.length === 0)
    return {
      places: [],
      open: [],
      problem:
        'What the panel showed stands at different places of the stickers: type all that it shows, of each.',
    }
  return {
    ...{ places, problem: '' },
    open:
      places.length === 1
        ? []
        : [
            {
              ...{ about: 'position', ask: 'It stands there more than once. Which part is the ID?' },
              tell: 'Another device tells it.',
              choices: places.map(({ from, to }) => ({
                title: `characters ${from} to ${to}`,
                change: { idFrom: from, idTo: to },
              })),
            },
          ],
  }
}

function placesIn({ plain: text, shown }: Read): Place[] {
  const places: Place[] = []
  for (let at = text.indexOf(shown); at >= 0; at = text.indexOf(shown, at + 1))
    places.push({ from: at + 1, to: at + shown.length })
  return places
}

/** Whether their last digit is a check digit. One ID in ten fits by chance. */
function checkOf(ids: readonly string[]): {
  readonly check: StickerRule['check']
  readonly open: readonly OpenPoint[]
} {
  const holds = ids.every((id) => /^\d+$/.test(id) && weightsHold(id))
  if (!holds) return { check: 'none', open: [] }
  if (0.1 ** ids.length <= BY_CHANCE + 1e-12) return { check: 'weights-3-1', open: [] }
  const choices = [
    { title: 'no', change: { check: 'none' as const } },
    {
      title: 'yes: its digits weighted 3 and 1 in turn come to a multiple of 10',
      change: { check: 'weights-3-1' as const },
    },
  ]
  return {
    check: 'none',
    open: [
      {
        about: 'check',
        ask: 'Is the last digit a check digit?',
        tell: 'One sticker in ten looks so by chance: a second one tells it.',
        choices,
      },
    ],
  }
}

/** Groups as they are printed, or as the panel shows them; else of about four. */
function groupsOf({ raw, plain: text, shown, shownRaw }: Read, { from, to }: Place): number[] {
  const size = to - from + 1
  const printed = from === 1 && to === text.length ? gaps(raw) : shown === '' ? [] : gaps(shownRaw)
  if (printed.length > 1) return printed
  const parts = Math.ceil(size / 4)
  return Array.from(
    { length: parts },
    (_, index) => Math.floor(((index + 1) * size) / parts) - Math.floor((index * size) / parts),
  )
}

function gaps(raw: string): number[] {
  return raw
    .split(/[\s\-–·.]+/)
    .filter(Boolean)
    .map((part) => part.length)
}
