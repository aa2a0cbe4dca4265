import type { Catalogue } from '../catalogue/catalogue.ts'
import type { Family, PanelModel } from '../catalogue/schema.ts'
import { jobInfo, recordsOf, type JobDocument } from '../job/document.ts'
import { evidenceOf, freshEvidence } from '../job/evidence.ts'
import type { Spot } from '../job/records.ts'
import { roomKey, type House } from '../premises/house.ts'
import type { System } from '../system/system.ts'
import type { Person } from '../records/fields.ts'

/*
 * The walk before there is a kit: links tried at spots of the house, by where the powered receiver stood. What a spot needs
 * follows from its own readings, and from the own link of the repeater that was tried for it.
 */

/** How a link is: in the best band of its family, one that holds, none to build on, or not to be told by what the family states. */
export type LinkBand = 'best' | 'holds' | 'fails' | 'unjudged'

/** What a spot needs; `at` is where a repeater was tried. */
export type SpotNeed =
  | { readonly need: 'nothing' }
  /** It holds: a quarter wave aside may make it better, or a repeater. */
  | { readonly need: 'better'; readonly cm: number }
  | {
      readonly need: 'repeater' | 'repeater-link' | 'repeater-nearer' | 'repeater-short'
      readonly at: string
    }
  | { readonly need: 'repeater-untried' }
  /** Devices between may carry it on: it is tried again once they hang. */
  | { readonly need: 'mesh' }
  | { readonly need: 'no-repeater' }
  | { readonly need: 'no-radio' }
  /** Its family does not state from which level on a link is good or holds. */
  | { readonly need: 'unjudged' }

/** One spot, for one place of the receiver and one family. */
interface SpotView {
  readonly place: string
  /** The last reading without a repeater; null where none was made. */
  readonly direct: Spot | null
  readonly band: LinkBand | null
  /** The last reading through each repeater that was tried. */
  readonly through: readonly { readonly spot: Spot; readonly band: LinkBand }[]
  readonly need: SpotNeed
  /** Readings of devices that came to hang in the room of that name since, newest first. */
  readonly later: readonly { readonly reading: number; readonly band: LinkBand; readonly at: string }[]
}

/** What was found with the receiver at one place. */
export interface ReceiverPlace {
  readonly receiver: string
  readonly family: Family
  readonly spots: readonly SpotView[]
  /** How many spots are in the best band, and how many just hold, without a repeater. */
  readonly best: number
  readonly hold: number
}

/** A quarter of the wave length in the middle of a family's band, cm (c / 4f). */
export function quarterWaveCm({ bandMHz }: Pick<Family, 'bandMHz'>): number {
  return Math.round(7500 / ((bandMHz.from + bandMHz.to) / 2))
}

/** A reading in the unit of its family, as far as that is stated. */
export function levelWords({ placement }: Pick<Family, 'placement'>, reading: number): string {
  return [reading, placement.unit].filter((part) => part !== undefined).join(' ')
}

/** The band of a link, by level or, where none could be read, by word. */
function linkBand(
  { placement }: Pick<Family, 'placement'>,
  { reading, link }: Pick<Spot, 'reading' | 'link'>,
): LinkBand {
  if (reading !== null) {
    const { best, least } = placement
    if (best !== undefined && reading >= best) return 'best'
    return least === undefined ? 'unjudged' : reading >= least ? 'holds' : 'fails'
  }
  return link === 'strong' ? 'best' : link === 'middling' ? 'holds' : 'fails'
}

/** Everything that was tried, by place of the receiver and family, where most spots are heard first; the last reading of a spot counts. */
export function walkOf(doc: JobDocument, catalogue: Catalogue): readonly ReceiverPlace[] {
  const panel = catalogue.get('panel', jobInfo(doc).panel)
  const groups = new Map<string, Spot[]>()
  for (const spot of evidenceOf(doc, 'spot')) {
    const key = `${roomKey(spot.receiver)} ${spot.family}`
    groups.set(key, [...(groups.get(key) ?? []), spot])
  }
  const places = [...groups.values()].flatMap((spots): ReceiverPlace[] => {
    const family = catalogue.get('family', spots[0]?.family ?? null)
    if (!family) return []
    const views = viewsOf(doc, catalogue, { panel, family, spots })
    const count = (band: LinkBand): number => views.filter((view) => view.band === band).length
    return [
      { receiver: spots[0]?.receiver ?? '', family, spots: views, best: count('best'), hold: count('holds') },
    ]
  })
  return places.sort((a, b) => b.best + b.hold - (a.best + a.hold) || b.best - a.best)
}

interface Tried {
  readonly panel: PanelModel | null
  readonly family: Family
  readonly spots: readonly Spot[]
}

function viewsOf(doc: JobDocument, catalogue: Catalogue, tried: Tried): SpotView[] {
  const places = new Map(tried.spots.map((spot) => [roomKey(spot.place), spot.place]))
  const metal = new Set(
    recordsOf(doc, 'room')
      .filter((room) => room.metal)
      .map(({ name }) => roomKey(name)),
  )
  return [...places].map(([key, place]) => {
    const mine = tried.spots.filter((spot) => roomKey(spot.place) === key)
    const direct = lastOf(mine.filter(({ repeater }) => repeater === ''))
    const byRepeater = new Map(
      mine.filter(({ repeater }) => repeater !== '').map((spot) => [roomKey(spot.repeater), spot]),
    )
    const band = direct && linkBand(tried.family, direct)
    const through = [...byRepeater.values()].map((spot) => ({ spot, band: linkBand(tried.family, spot) }))
    const need: SpotNeed = metal.has(key) ? { need: 'no-radio' } : needOf(tried, band, through)
    return {
      place,
      direct,
      band,
      through,
      need,
      later: laterOf(doc, catalogue, { key, family: tried.family }),
    }
  })
}

function lastOf(spots: readonly Spot[]): Spot | null {
  return spots.at(-1) ?? null
}

function needOf(tried: Tried, band: LinkBand | null, through: SpotView['through']): SpotNeed {
  if (band === 'best') return { need: 'nothing' }
  if (band === 'unjudged') return { need: 'unjudged' }
  const [best] = through
    .map((one) => byRepeater(tried, one))
    .sort((a, b) => wayOut.indexOf(a.need) - wayOut.indexOf(b.need))
  if (band === 'holds')
    return best?.need === 'repeater' ? best : { need: 'better', cm: quarterWaveCm(tried.family) }
  return best ?? { need: elseOf(tried) }
}

/** What is left where no repeater was tried: whether the family has any, and whether the panel takes them. */
function elseOf({ family, panel }: Tried): 'repeater-untried' | 'mesh' | 'no-repeater' {
  if (family.topology === 'mesh') return 'mesh'
  return family.repeaters && (panel === null || (panel.repeaters ?? 0) > 0)
    ? 'repeater-untried'
    : 'no-repeater'
}

/** Ways out by repeater, the best first. */
const wayOut: readonly string[] = ['repeater', 'repeater-link', 'repeater-nearer', 'repeater-short']

/** What comes of a repeater that was tried for a spot: its own link comes first. */
function byRepeater(
  { family, spots }: Tried,
  { spot, band }: SpotView['through'][number],
): Extract<SpotNeed, { at: string }> {
  const at = spot.repeater
  if (band === 'fails') return { need: 'repeater-short', at }
  const own = lastOf(spots.filter((one) => one.repeater === '' && roomKey(one.place) === roomKey(at)))
  if (!own) return { need: 'repeater-link', at }
  return { need: linkBand(family, own) === 'fails' ? 'repeater-nearer' : 'repeater', at }
}

interface RoomOfFamily {
  readonly key: string
  readonly family: Family
}

/** Placement readings of devices of the family in the room of that name. */
function laterOf(doc: JobDocument, catalogue: Catalogue, { key, family }: RoomOfFamily): SpotView['later'] {
  const isHere = (id: string | undefined, room: string | undefined): boolean =>
    roomKey(room ?? '') === key && catalogue.get('device', id ?? null)?.family === family.id
  return evidenceOf(doc, 'test')
    .filter(
      ({ kind, reading, of }) => kind === 'placement' && reading !== null && isHere(of?.model, of?.room),
    )
    .map(({ reading, at }) => ({
      reading: reading ?? 0,
      band: linkBand(family, { reading, link: null }),
      at,
    }))
    .reverse()
}

/** What is said of a link that was tried. */
export type SpotFacts = Pick<
  Spot,
  'place' | 'family' | 'used' | 'receiver' | 'repeater' | 'reading' | 'link' | 'note'
>

/** Who notes a link that was tried, and when. */
export interface SpotMade {
  readonly id: string
  readonly who: Person
  readonly at: string
  /** Id of the reading that it is noted in place of, which then counts no more; null for none. */
  readonly corrects: string | null
}

/** The record of a link that was tried. */
export function spotRecord(facts: SpotFacts, { id, who, at, corrects }: SpotMade): Spot {
  return { ...freshEvidence(who, at), type: 'spot', id, ...facts, corrects }
}

/** Why the receiver is better in the middle, or may stay where the panel hangs. */
export interface ReceiverAdvice {
  readonly place: 'middle' | 'panel'
  readonly floors: number
  /** Longest walk between two rooms, m; null where no ways are described. */
  readonly longest: number | null
  readonly metal: readonly string[]
  /** Receivers of the panel that hang apart from it, by name. */
  readonly apart: readonly string[]
}

/** From where on a house counts as large for one receiver at its door, m of walk (house judgement). */
const LARGE_M = 15

/** Where the receiver does best by what is described; null for a house that nobody described. */
export function receiverAdvice(house: House, system: System, catalogue: Catalogue): ReceiverAdvice | null {
  if (house.rooms.length === 0) return null
  const floors = new Set(house.rooms.map(({ floor }) => roomKey(floor))).size
  const walks = house.rooms.flatMap((from) =>
    house.rooms.flatMap((to) => {
      const walk = from.id < to.id ? house.walk(from.id, to.id) : null
      return walk ? [walk.metres + walk.stairMetres] : []
    }),
  )
  const longest = walks.length === 0 ? null : Math.max(...walks)
  const metal = house.rooms.filter((room) => room.metal).map(({ name }) => name)
  const apart = (system.panel?.receivers ?? [])
    .flatMap((id) => catalogue.get('receiver', id) ?? [])
    .filter(({ place }) => place !== 'built-in')
    .map(({ name }) => name)
  const large = floors > 1 || (longest ?? 0) >= LARGE_M
  return { place: large ? 'middle' : 'panel', floors, longest, metal, apart }
}
