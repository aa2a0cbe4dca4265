import type { FigureKey, SchoolKey } from './house-rules.ts'

/** One school of a question on which practitioners differ, with what speaks for it. */
interface SchoolChoice {
  readonly key: string
  readonly name: string
  readonly reason: string
}

/** A question on which practitioners differ. */
export interface School {
  readonly key: SchoolKey
  readonly question: string
  readonly choices: readonly SchoolChoice[]
}

/** The questions on which practitioners differ, in the order of the house-rules page; the first choice is the default. */
export const schools: readonly School[] = [
  school('seesLeaf', 'Motion that sees the leaf of an entry door', [
    [
      'delay',
      'that door’s delay',
      'It trips before the contact does: as follow it would alarm on its owner.',
    ],
    [
      'follow',
      'follow',
      'An intruder through a window is met at once; the contact must then always be first.',
    ],
  ]),
  school('offWay', 'Motion off every way to a keypad', [
    [
      'region',
      'as the region’s practice',
      'Instant in EN regions, where the entry route is a thing of its own; follow elsewhere.',
    ],
    ['instant', 'instant', 'Nobody who enters rightly comes there before the keypad.'],
    ['follow', 'follow', 'People stray on their way in; a false alarm brings the system into disrepute.'],
  ]),
  school('glass', 'Glass break', [
    [
      'by-room',
      'both modes, noisy rooms away only',
      'Pans, tools and compressors sound like glass in kitchens, utility rooms, garages and workshops.',
    ],
    ['both', 'both modes everywhere', 'A pane is broken at night as well.'],
    ['away-only', 'away only', 'No false alarm while people are at home.'],
  ]),
  school('fire', 'Fire alarms', [
    ['plain', 'plain', 'The first detector alarms at once.'],
    ['delayed', 'delayed', 'Gives time to acknowledge burnt toast; needs a written reason in the job.'],
    [
      'verified',
      'two detectors',
      'Two detectors of one group must agree; needs a written reason in the job.',
    ],
  ]),
  school('sisters', 'Zones of one device that are supervised', [
    ['every', 'every zone', 'Each zone then shows the device’s silence.'],
    ['one', 'one zone per device', 'One trouble instead of three; the fire or gas zone is the one.'],
  ]),
  school('holdBurglary', 'Transmission delay on burglary zones', [
    ['region', 'as the region’s preset', 'A window where the preset asks for one, none elsewhere.'],
    ['window', 'a window', 'A mistake at the door can be taken back before anyone is called.'],
    ['none', 'none', 'Nothing is held back. Fire, gas, panic and duress never are.'],
  ]),
  school('localReport', 'Report flag on a job without a station', [
    ['off', 'off', 'The plan says what is so: nobody receives it.'],
    ['on', 'on', 'A station can be added later without touching each zone.'],
  ]),
  school('identity', 'How an ID comes into the panel', [
    [
      'learn',
      'learned over the air',
      'Proves the device and the loop; only what cannot be tripped is typed.',
    ],
    ['type', 'typed from the sticker', 'Quicker on the bench; each loop must then be proved by hand.'],
  ]),
  school('confirm', 'Second transmission to confirm', [
    [
      'by-class',
      'contacts and motions, not fobs',
      'A stray contact is taken easily; a fob is held in the hand.',
    ],
    ['always', 'every device', 'The surest, and the slowest.'],
    ['never', 'none', 'The ID is compared with the sticker anyway.'],
  ]),
  school('reading', 'Placement reading that is accepted', [
    ['best', 'the best band', 'Weather, furniture and batteries take some of it away; less needs a reason.'],
    ['works', 'any that works', 'Where nothing better can be reached.'],
  ]),
  school('wiredBlock', 'Numbers of the wired block', [
    [
      'if-used',
      'kept whole once a terminal is used',
      'Wired zones can be added without moving a wireless one.',
    ],
    ['kept', 'always kept', 'Every job of the firm begins wireless at the same number.'],
    [
      'from-1',
      'free for wireless where a terminal is off',
      'An all-wireless job begins at the first number; each terminal used is switched off or sealed.',
    ],
  ]),
  school('fobStore', 'Where a fob is stored', [
    ['panel', 'in the panel', 'Survives a change of codes and of the keypad.'],
    ['keypad', 'in the keypad', 'Where the panel’s places run out.'],
  ]),
  school('smokeHeat', 'Smoke and heat of one detector', [
    ['apart', 'apart, a zone each', 'The station learns which of the two it was.'],
    ['joined', 'joined on one zone', 'Saves a number.'],
  ]),
  school('labelOrder', 'Order of a label', [
    ['place-thing', 'place, then thing', 'People look for the place first.'],
    ['thing-place', 'thing, then place', 'Lists sort by what it is.'],
  ]),
  school('placeOfWork', 'Where the panel is programmed', [
    [
      'bench',
      'on the bench before the visit',
      'Saves a ladder trip per device; motions wait until their place is known.',
    ],
    ['on-site', 'on site', 'Every device is learned where it stays.'],
  ]),
  school('sheetOrder', 'Order of the programming sheet', [
    ['shortest', 'fewest keys', 'Every key is a chance to slip; the panel is open for the shortest time.'],
    ['plan', 'as the plan reads, zone by zone', 'Easier to follow beside the list of zones.'],
  ]),
]

/** The figures of a firm with unit and source, in the order shown. */
export const figureWords: Readonly<
  Record<FigureKey, { readonly name: string; readonly unit: string; readonly source: string }>
> = {
  paceOrdinary: { name: 'Ordinary walking pace', unit: 'm/s', source: 'usual figure' },
  paceSlow: { name: 'Slow walking pace', unit: 'm/s', source: 'usual figure for a frail person' },
  stairs: { name: 'Part of the pace on stairs', unit: '×', source: 'usual figure: half' },
  keyIn: { name: 'Time to key a code', unit: 's', source: 'usual figure' },
  margin: { name: 'Margin', unit: 's', source: 'usual figure' },
  growth: { name: 'Numbers left free to grow', unit: 'zones', source: 'practice' },
  usualGapMm: {
    name: 'Magnet gap where the model states none',
    unit: 'mm',
    source: 'only a usual figure, about half on steel',
  },
}

/** What each kind of remedy counts, in the order shown. */
export const costWords = {
  setting: 'a setting of the panel or a receiver',
  firmware: 'newer radio firmware',
  swap: 'another model of device',
  receiver: 'one more receiver or bridge',
  panel: 'another panel',
  enrol: 'each device to be enrolled again',
} as const

/** A school's choice in words, such as `that door’s delay`. */
export function choiceWords(key: string, choice: string): string {
  return schools.find((item) => item.key === key)?.choices.find((item) => item.key === choice)?.name ?? choice
}

function school(
  key: SchoolKey,
  question: string,
  choices: readonly (readonly [string, string, string])[],
): School {
  return { key, question, choices: choices.map(([choice, name, reason]) => ({ key: choice, name, reason })) }
}
