/* How places, sides and things are said otherwise: by another word that a panel may have, and by readable short forms. */

/** Words and phrases that stand for each other on a label, the nearest first. */
const alike: readonly (readonly string[])[] = [
  ['living room', 'lounge', 'sitting room', 'family room', 'front room', 'parlour'],
  ['master bedroom', 'main bedroom', 'parents bedroom'],
  ['guest room', 'guest bedroom', 'spare room', 'spare bedroom', 'guest'],
  ['bathroom', 'bath', 'shower room', 'shower', 'ensuite', 'en suite', 'washroom'],
  ['toilet', 'wc', 'cloakroom', 'lavatory'],
  ['cellar', 'basement'],
  ['attic', 'loft', 'roof space'],
  ['hall', 'hallway', 'entrance hall', 'entrance', 'lobby', 'foyer'],
  ['passage', 'corridor', 'passageway'],
  ['utility', 'utility room', 'laundry', 'laundry room', 'scullery'],
  ['office', 'study', 'home office', 'workroom'],
  ['shed', 'garden shed', 'outhouse'],
  ['garage', 'carport'],
  ['conservatory', 'sun room', 'sunroom', 'winter garden'],
  ['store', 'store room', 'storeroom', 'storage', 'box room', 'closet', 'cupboard'],
  ['stairs', 'stair', 'staircase', 'stairway'],
  ['porch', 'vestibule'],
  ['nursery', 'childrens room', 'kids room', 'playroom'],
  ['dining', 'dining room'],
  ['pantry', 'larder'],
  ['annexe', 'annex', 'extension'],
  ['patio door', 'terrace door', 'balcony door', 'garden door', 'french doors'],
  ['roof light', 'skylight', 'roof window'],
  ['back', 'rear'],
  ['upper', 'upstairs', 'top'],
  ['lower', 'downstairs'],
  ['middle', 'centre', 'center'],
  ...['one', 'two', 'three', 'four', 'five', 'six'].map((word, index) => [word, String(index + 1)]),
]

const others = new Map<string, readonly string[]>()
for (const group of alike)
  for (const word of group)
    others.set(word, [...(others.get(word) ?? []), ...group.filter((one) => one !== word)])

/** What stands for a word or phrase, the nearest first; empty where nothing does. */
export function standsFor(phrase: string): readonly string[] {
  return others.get(phrase) ?? []
}

/** Readable short forms, the longest first. */
const short: Readonly<Record<string, readonly string[]>> = {
  annexe: ['ANNX'],
  attic: ['ATT'],
  back: ['BK'],
  basement: ['BASEMT', 'BSMT'],
  bath: ['BTH'],
  bathroom: ['BATHRM', 'BATH'],
  bedroom: ['BEDRM', 'BED'],
  boiler: ['BOIL'],
  ceiling: ['CEIL'],
  conservatory: ['CONSERV', 'CONS'],
  contact: ['CONT', 'CT'],
  corridor: ['CORR'],
  dining: ['DIN'],
  door: ['DR'],
  doors: ['DRS'],
  downstairs: ['DOWNST', 'DOWN'],
  east: ['E'],
  entrance: ['ENTR'],
  family: ['FAM'],
  first: ['1ST'],
  floor: ['FL'],
  french: ['FR'],
  front: ['FRT', 'FR'],
  garage: ['GAR'],
  garden: ['GDN'],
  glass: ['GLS'],
  ground: ['GRND', 'GR'],
  guest: ['GST'],
  hallway: ['HALL'],
  house: ['HSE'],
  inner: ['INN'],
  kitchen: ['KITCH', 'KIT'],
  landing: ['LNDG', 'LDG'],
  laundry: ['LNDRY', 'LAUN'],
  left: ['LFT', 'L'],
  living: ['LIV'],
  lounge: ['LNGE'],
  lower: ['LOWR', 'LWR'],
  main: ['MN'],
  master: ['MSTR'],
  middle: ['MID'],
  motion: ['MOTN', 'MOT'],
  north: ['N'],
  nursery: ['NURS'],
  office: ['OFF'],
  outer: ['OUT'],
  passage: ['PASS'],
  patio: ['PAT'],
  pendant: ['PEND'],
  rear: ['RR'],
  right: ['RGT', 'R'],
  room: ['RM'],
  shower: ['SHWR'],
  sitting: ['SITT'],
  smoke: ['SMK'],
  south: ['S'],
  staircase: ['STAIR'],
  stairs: ['STRS'],
  storage: ['STOR'],
  study: ['STDY'],
  terrace: ['TERR'],
  toilet: ['WC'],
  upper: ['UPR', 'UP'],
  upstairs: ['UPST', 'UP'],
  utility: ['UTIL', 'UT'],
  water: ['WTR'],
  west: ['W'],
  window: ['WINDW', 'WIN'],
  wired: ['WIRD'],
  workshop: ['WKSHOP', 'WKSH'],
}

/** Readable short forms of a word, the longest first; empty where none is known. */
export function shortForms(word: string): readonly string[] {
  return short[word.toLowerCase()] ?? []
}

/** Words that a label says nothing less without. */
const fillers: ReadonlySet<string> = new Set(['room', 'the', 'of', 'and', 'in', 'at', 'by', 'to', 'a'])

/** Whether a label says no less without the word. */
export function isFiller(word: string): boolean {
  return fillers.has(word.toLowerCase())
}

/** Words that tell one of several alike apart: never left out for brevity. */
const sides: ReadonlySet<string> = new Set([
  ...[
    'left',
    'right',
    'front',
    'back',
    'rear',
    'side',
    'middle',
    'corner',
    'upper',
    'lower',
    'upstairs',
    'downstairs',
  ],
  ...['north', 'south', 'east', 'west', 'one', 'two', 'three', 'four', 'five', 'six', 'main', 'guest'],
])

/** Whether a word tells one of several alike apart. */
export function isSide(word: string): boolean {
  return sides.has(word.toLowerCase()) || /^\d+$/.test(word)
}

/** Letters that few panels have, as they are spelled out. */
const spelled: Readonly<Record<string, string>> = {
  ä: 'ae',
  ö: 'oe',
  ü: 'ue',
  ß: 'ss',
  æ: 'ae',
  ø: 'oe',
  å: 'aa',
  œ: 'oe',
  þ: 'th',
  ð: 'd',
  ł: 'l',
}

/** A word with the letters that a panel lacks spelled out, or without their marks; what is left over goes. */
export function spellOut(word: string, has: (letter: string) => boolean): string {
  return [...word]
    .map((letter) => {
      if (has(letter)) return letter
      const low = letter.toLowerCase()
      const written = spelled[low] ?? low.normalize('NFD').replace(/\p{M}/gu, '')
      const cased = letter === low ? written : written.toUpperCase()
      return [...cased].filter(has).join('')
    })
    .join('')
}
