import { levelWords, quarterWaveCm } from '../fit/spots.ts'
import type { Figures } from '../house-rules/house-rules.ts'
import { recordOf, recordsOf, type JobDocument } from '../job/document.ts'
import type { Room } from '../job/records.ts'
import { roomKey } from '../premises/house.ts'
import { systemOf, type JobAndCatalogue, type SystemDevice } from '../system/system.ts'
import type { Region } from '../units/region.ts'
import type { ProofStop } from './owed.ts'

/*
 * How a device is mounted. What the house, the model or its reading makes doubtful is asked, one by one; the rest is shown and
 * vouched for together. The maker's manual and local codes come before anything said here.
 */

/** One thing to see to at a device's place. */
export interface MountPoint {
  /** Unlike others of its device. */
  readonly key: string
  /** What is so where it is mounted right. */
  readonly words: string
  /** Why it is asked by itself; empty where it is only shown. */
  readonly doubt: string
}

/** How long adhesive is pressed, s: a usual figure, the maker's rules. */
export const PRESS_SECONDS = 30
/** Height of a motion over the floor, m (usual practice; the maker's manual rules). */
export const MOTION_HEIGHT = { from: 1.8, to: 2.1 } as const
/** What steel leaves of a magnet's gap, a usual figure. */
export const ON_STEEL = 0.5
/** The part of a gap from which on it is measured again at the place. */
const NEAR = 0.75

interface At extends SystemDevice {
  readonly doc: JobDocument
  readonly figures: Figures
  /** The described room that it is in; null where none is. */
  readonly room: Room | null
}

/** What is seen to at the place of a device, or of the panel, the doubtful first. */
export function mountPoints(
  { doc, catalogue }: JobAndCatalogue,
  stop: Pick<ProofStop, 'id' | 'items'>,
  figures: Figures,
): readonly MountPoint[] {
  const { info, byId } = systemOf(doc, catalogue)
  const found = byId.get(stop.id)
  if (!found) return supply(info.region)
  const room = recordsOf(doc, 'room').find((one) => roomKey(one.name) === roomKey(found.device.room)) ?? null
  const at: At = { ...found, doc, figures, room }
  const points = [...ofClass(at), ...weakReading(at, stop), ...outside(at)]
  return [...points.filter(({ doubt }) => doubt !== ''), ...points.filter(({ doubt }) => doubt === '')]
}

/** What is on record once it was looked at: what was asked is told with its answer; null while one of them has none. */
export function mountNote(
  points: readonly MountPoint[],
  so: ReadonlySet<string>,
  not: string,
): string | null {
  if (not !== '') return `Not as shown: ${not}`.slice(0, 500)
  const asked = points.filter(({ doubt }) => doubt !== '')
  if (asked.some(({ key }) => !so.has(key))) return null
  return asked.length === 0
    ? ''
    : `Asked and seen: ${asked.map(({ words }) => words).join(' ')}`.slice(0, 500)
}

function ofClass(at: At): MountPoint[] {
  switch (at.model.class) {
    case 'contact':
      return contact(at)
    case 'motion':
      return motion(at)
    case 'glass-break':
      return [
        plain('view', 'It faces the glass within the range that its maker states, nothing hung between.'),
        noise(at),
      ]
    case 'shock':
      return [
        plain('frame', 'It sits on the frame or close by it, not on the pane, tight against what it guards.'),
      ]
    case 'smoke':
    case 'heat':
    case 'gas':
      return [
        plain('code', 'It hangs where the fire code and its maker say: this is a check, not a design.'),
        steam(at),
      ]
    case 'flood':
      return [
        plain('lowest', 'Its probes touch the lowest point of the floor, where water would come first.'),
      ]
    case 'temperature':
      return [plain('air', 'It hangs where the air is as cold as what it guards, not over a heater.')]
    case 'keypad':
      return [plain('reach', 'It is reached on the way in, at hand height, and not seen through a window.')]
    case 'siren':
      return [plain('wall', 'It is screwed to a firm wall out of reach, its cover contact held by the wall.')]
    case 'repeater':
      return [
        asked(
          'supply',
          'Its supply is not switched: no light switch or timer turns it off.',
          'A switched supply is found out at night.',
        ),
      ]
    case 'panic':
    case 'fob':
      return [plain('fixed', 'It is fixed where a hand finds it without looking.')]
  }
}

function contact({ model, device, figures }: At): MountPoint[] {
  const usable = (model.magnetGapMm ?? figures.usualGapMm) * (device.onSteel ? ON_STEEL : 1)
  const why = gapDoubt(model.magnetGapMm, device, usable)
  return [
    {
      key: 'gap',
      words: `Shut, magnet and sensor are at most ${round(usable)} mm apart, the marked sides together.`,
      doubt: why,
    },
    plain(
      'frame',
      'The sensor is on the frame, the magnet on the leaf, near the top of a door; either may turn by 90°.',
    ),
    plain('free', 'The leaf is free: it touches neither, open, shut or slammed.'),
    plain(
      'dry',
      `The surface was clean and dry, the adhesive pressed ${PRESS_SECONDS} s; in wood, two screws.`,
    ),
  ]
}

function gapDoubt(
  stated: number | null,
  { gapMm, onSteel }: Pick<At['device'], 'gapMm' | 'onSteel'>,
  usable: number,
): string {
  if (onSteel) return 'It sits on steel, which leaves about half of the gap.'
  if (gapMm !== null && gapMm >= NEAR * usable) return `The survey measured ${round(gapMm)} mm.`
  return stated === null ? 'Its maker states no gap: the figure is only a usual one.' : ''
}

function motion({ doc, device, model, room }: At): MountPoint[] {
  const { from, to } = MOTION_HEIGHT
  const m = device.heightM
  const high = m !== null && (m < from || m > to)
  const openings = recordsOf(doc, 'sight').filter((one) => one.device === device.id && one.opening !== null)
  const outer = openings
    .flatMap((one) => recordOf(doc, 'opening', one.opening) ?? [])
    .filter((one) => one.to === null)
  const warm = room !== null && ['kitchen', 'utility', 'workshop'].includes(room.kind)
  return [
    {
      key: 'height',
      words: `It hangs ${from} to ${to} m over the floor, the right way up.`,
      doubt: high ? `The survey says ${m} m.` : '',
    },
    plain('across', 'It is in a corner and looks across the path that somebody takes, not along it.'),
    {
      key: 'glass',
      words: 'It looks at no window, glass door or mirror.',
      doubt: outer.length > 0 ? `It sees ${outer.map(({ name }) => name.toLowerCase()).join(', ')}.` : '',
    },
    {
      key: 'heat',
      words: 'No heater, stove or air outlet is in its view.',
      doubt: warm ? `A ${room.kind} has sources of heat.` : '',
    },
    ...(model.petKg === null && !model.petSettings?.length ? pets(room) : []),
  ]
}

function pets(room: Room | null): MountPoint[] {
  if (room?.petKg == null) return []
  return [
    asked('pets', 'No pet roams here while it is set.', `A pet of ${room.petKg} kg does, by the survey.`),
  ]
}

function noise({ room }: At): MountPoint {
  const loud = room !== null && ['kitchen', 'workshop', 'utility'].includes(room.kind)
  return {
    key: 'noise',
    words: 'Nothing near it rings, hisses or clatters every day.',
    doubt: loud ? `A ${room.kind} is loud.` : '',
  }
}

function steam({ room, model }: At): MountPoint {
  const damp = room !== null && ['kitchen', 'bathroom', 'utility', 'garage'].includes(room.kind)
  return {
    key: 'steam',
    words: 'Steam, cooking and exhaust do not reach it in daily use.',
    doubt: damp && model.class !== 'heat' ? `It is in a ${room.kind}.` : '',
  }
}

/** What a reading that does not hold well asks of the place. */
function weakReading({ family }: At, { items }: Pick<ProofStop, 'items'>): MountPoint[] {
  const last = items.find(({ kind }) => kind === 'placement')?.results.at(-1)
  const best = family?.placement.best
  if (!family || best === undefined || !last || last.reading === null || last.reading >= best) return []
  return [
    asked(
      'link',
      `No metal, mirror, aquarium or thick masonry is in its way; a quarter wave aside (${quarterWaveCm(family)} cm) is no better.`,
      `It was read at ${levelWords(family, last.reading)}; ${best} is its best band.`,
    ),
  ]
}

function outside({ room, model }: At): MountPoint[] {
  if (room?.kind !== 'outdoors' || model.carried) return []
  return [asked('weather', 'Its case is closed on its seal, and water runs off it.', 'It is outdoors.')]
}

/** The supply of the panel, by what the region's wiring practice asks; local codes decide. */
function supply(region: Region): MountPoint[] {
  const why = 'The wiring is not known from the plan.'
  const local: MountPoint[] =
    region === 'north-america'
      ? [
          asked('reset', 'Its outlet has no reset button of its own that would leave it without mains.', why),
          asked('plug', 'The plug of its supply is screwed down as the electrical code asks.', why),
        ]
      : [
          asked(
            'circuit',
            'It has a fused connection or a circuit of its own, as the wiring rules ask.',
            why,
          ),
          asked('residual', 'No residual-current protection was taken away or bridged for it.', why),
        ]
  return [
    asked('switched', 'Its supply is not switched.', why),
    ...local,
    plain(
      'place',
      'It hangs indoors, out of sight from outside, where its receiver is not shut in by metal.',
    ),
  ]
}

function plain(key: string, words: string): MountPoint {
  return { key, words, doubt: '' }
}

function asked(key: string, words: string, doubt: string): MountPoint {
  return { key, words, doubt }
}

function round(mm: number): number {
  return Math.round(mm * 10) / 10
}
