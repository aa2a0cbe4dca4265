import { cleanHouse, cleanTarn, SmallJob } from '../../testing/small-job.ts'
import { describeBothWays } from '../testing/both-ways.ts'

/** One device in a room of its own. */
const one = (
  model: string,
  room: Record<string, unknown> = {},
  device: Record<string, unknown> = {},
): SmallJob =>
  new SmallJob().room('place', room).add('it', model, { room: 'place', use: 'opening', ...device })

describeBothWays('metal-building', [
  { what: 'a wired contact sends nothing', job: () => one('contact-w', { metal: true }), says: [] },
  { what: 'a building of brick', job: () => one('reedling'), says: [] },
])

describeBothWays('too-cold', [
  { what: 'a heated room', job: () => one('ember-one', { heated: true }), says: [] },
  { what: 'unheated, and it bears it', job: () => one('reedling', { heated: false }), says: [] },
  {
    what: 'outdoors a heater is of no use',
    job: () => one('ember-one', { heated: true, kind: 'outdoors' }),
    says: ['Place is unheated, -10 to 45 °C; Ember One smoke works from 0 to 45 °C.'],
  },
  {
    what: 'colder than most places',
    job: () => one('reedling', { heated: false }).set('job:main', { unheatedFrom: -11 }),
    says: ['Place is unheated, -11 to 45 °C; Reedling contact works from -10 to 50 °C.'],
  },
  {
    what: 'as hot as it bears',
    job: () => one('reedling', { heated: false }).set('job:main', { unheatedTo: 50 }),
    says: [],
  },
  {
    what: 'hotter than it bears',
    job: () => one('reedling', { heated: false }).set('job:main', { unheatedTo: 51 }),
    says: ['Place is unheated, -10 to 51 °C; Reedling contact works from -10 to 50 °C.'],
  },
  {
    what: 'milder than it bears',
    job: () => one('ember-one', { heated: false }).set('job:main', { unheatedFrom: 0, unheatedTo: 45 }),
    says: [],
  },
])

describeBothWays('not-for-outdoors', [
  { what: 'it is made for outdoors', job: () => one('reedling-yard', { kind: 'outdoors' }), says: [] },
  { what: 'a fob is carried', job: () => one('quartet-c', { kind: 'outdoors' }), says: [] },
  { what: 'a garage is indoors', job: () => one('reedling', { kind: 'garage', heated: false }), says: [] },
])

describeBothWays('motion-unheated', [
  ...['garage', 'store', 'workshop', 'outdoors'].map((kind) => ({
    what: `an unheated ${kind}`,
    job: () => one('stilt-hound', { kind, heated: false }),
    says: [
      'Stilt Hound motion watches place, which is unheated: draughts and quick warmth there can trip it.',
    ],
  })),
  { what: 'an unheated hall', job: () => one('stilt-hound', { kind: 'hall', heated: false }), says: [] },
  { what: 'a heated garage', job: () => one('stilt-hound', { kind: 'garage', heated: true }), says: [] },
  {
    what: 'a contact sees no warmth',
    job: () => one('reedling', { kind: 'garage', heated: false }),
    says: [],
  },
])

const high = (m: number, model = 'stilt-hound') => one(model, {}, { heightM: m })
describeBothWays('motion-height', [
  { what: 'the least', job: () => high(1.8), says: [] },
  { what: 'the most', job: () => high(2.1), says: [] },
  {
    what: 'below',
    job: () => high(1.7),
    says: ['Stilt Hound motion in place hangs at 1.7 m; 1.8 to 2.1 m is usual.'],
  },
  { what: 'a contact may hang anywhere', job: () => high(0.2, 'reedling'), says: [] },
  { what: 'nobody measured', job: () => one('stilt-hound'), says: [] },
])

const gap = (mm: number | null, onSteel: boolean, model = 'reedling') =>
  one(model, {}, { gapMm: mm, onSteel })
describeBothWays('gap-too-wide', [
  { what: 'as wide as is stated', job: () => gap(18, false), says: [] },
  {
    what: 'a millimetre more',
    job: () => gap(19, false),
    says: ['The magnet of Reedling contact in place is 19 mm away; 18 mm is stated.'],
  },
  { what: 'half of it on steel', job: () => gap(9, true), says: [] },
  {
    what: 'more than half on steel',
    job: () => gap(10, true),
    says: ['The magnet of Reedling contact in place is 10 mm away; 18 mm is stated, 9 mm on steel.'],
  },
  { what: 'nobody measured', job: () => gap(null, true), says: [] },
  { what: 'a motion has no magnet', job: () => gap(90, false, 'stilt-hound'), says: [] },
])

const set = (model: string, setting: string | null, panel = 'tarn-40') =>
  new SmallJob({ panel: `panel/${panel}` })
    .room('place')
    .add('it', model, { room: 'place', use: 'opening', setting })
describeBothWays('sensitivity-high', [
  { what: 'the lowest of three', job: () => set('tremor', 'low'), says: [] },
  { what: 'the middle of three', job: () => set('tremor', 'medium'), says: [] },
  {
    what: 'the highest of three',
    job: () => set('tremor', 'high'),
    says: ['Tremor shock in place is set to high; begin with medium and try it.'],
    ways: ['Set it to medium'],
  },
  {
    what: 'the lower of two',
    job: () => set('jolter', 'soft', 'pinfold-16'),
    says: [],
  },
  {
    what: 'the higher of two',
    job: () => set('jolter', 'firm', 'pinfold-16'),
    says: ['Jolter shock in place is set to firm; begin with soft and try it.'],
  },
  { what: 'nobody noted it', job: () => set('tremor', null), says: [] },
  { what: 'what has no steps', job: () => set('reedling', 'high'), says: [] },
])

const pet = (kg: number | null, model: string, { setting = null as string | null, panel = 'tarn-40' } = {}) =>
  new SmallJob({ petKg: kg, panel: `panel/${panel}` }).add('it', model, {
    room: 'den',
    use: 'off-way',
    setting,
  })
describeBothWays('pet-too-heavy', [
  { what: 'as heavy as it tolerates', job: () => pet(25, 'stilt-hound'), says: [] },
  {
    what: 'a kilogram more',
    job: () => pet(26, 'stilt-hound'),
    says: [
      'A pet of 26 kg lives here; Stilt Hound motion in den tolerates 25 kg. Keep the pet out of the room while set, or swap the motion.',
    ],
    ways: [],
  },
  { what: 'no pet', job: () => pet(null, 'stilt'), says: [] },
  { what: 'a pet of nothing', job: () => pet(0, 'stilt'), says: [] },
  {
    what: 'a motion that tolerates none',
    job: () => pet(1, 'stilt'),
    says: [
      'A pet of 1 kg lives here; Stilt motion in den has no pet immunity. Keep the pet out of the room while set, or swap the motion.',
    ],
    ways: [],
  },
  {
    what: 'the setting that is noted counts',
    job: () => pet(18, 'stilt-jumper', { setting: 'jumper off' }),
    says: [
      'A pet of 18 kg lives here; Stilt Jumper motion in den tolerates 0 kg at jumper off. Keep the pet out of the room while set, or swap the motion.',
    ],
    ways: ['Set it to jumper on'],
  },
  { what: 'set for it', job: () => pet(30, 'stilt-jumper', { setting: 'jumper on' }), says: [] },
  { what: 'a contact minds no pet', job: () => pet(40, 'reedling'), says: [] },
  {
    what: 'a described room that the pet does not come into',
    job: () => one('stilt', { petKg: null }, { use: 'off-way' }).set('job:main', { petKg: 40 }),
    says: [],
  },
  {
    what: 'a described room that it comes into',
    job: () => one('stilt', { petKg: 12 }, { use: 'off-way' }),
    says: [
      'A pet of 12 kg lives here; Stilt motion in place has no pet immunity. Keep the pet out of the room while set, or swap the motion.',
    ],
  },
])
describeBothWays('pet-setting', [
  { what: 'it is noted', job: () => pet(18, 'stilt-jumper', { setting: 'jumper on' }), says: [] },
  { what: 'no pet lives there', job: () => pet(0, 'stilt-jumper'), says: [] },
  { what: 'what has no settings', job: () => pet(18, 'stilt-hound'), says: [] },
  {
    what: 'the least that suffices is offered',
    job: () => pet(15, 'skitter-dog', { panel: 'pinfold-16' }),
    says: [
      'A pet of 15 kg lives here; how Skitter Dog motion in den is set is not noted. It has link A (15 kg), link B (25 kg).',
    ],
    ways: ['Set it to link A'],
  },
  {
    what: 'none suffices',
    job: () => pet(26, 'skitter-dog', { panel: 'pinfold-16' }),
    says: [
      'A pet of 26 kg lives here; how Skitter Dog motion in den is set is not noted. It has link A (15 kg), link B (25 kg).',
    ],
    ways: [],
  },
])

describeBothWays('use-unstated', [
  {
    what: 'a described house tells',
    job: () => new SmallJob().room('hall').add('it', 'reedling', { room: 'hall' }),
    says: [],
  },
  { what: 'all are said', job: () => cleanTarn(), says: [] },
  {
    what: 'it has no place yet',
    job: () => new SmallJob().add('it', 'reedling', { room: 'hall', deferred: 'later' }),
    says: [],
  },
  {
    what: 'smoke is nobody’s way in',
    job: () => new SmallJob().add('it', 'ember-one', { room: 'hall' }),
    says: [],
  },
])
describeBothWays('fact-missing', [
  { what: 'everything is told', job: () => cleanHouse(), says: [] },
  {
    what: 'nobody described the house',
    job: () => new SmallJob().add('it', 'reedling', { room: 'hall' }),
    says: [],
  },
])
describeBothWays('use-differs', [
  { what: 'what was said is what the rooms tell', job: () => cleanHouse(), says: [] },
  {
    what: 'a night passage is a wish',
    job: () => cleanHouse().set('device:hall', { use: 'on-way-night' }),
    says: [],
  },
  {
    what: 'a place that is never opened is said, not told',
    job: () => cleanHouse().set('device:kitchen', { use: 'always-on' }),
    says: [],
  },
  {
    what: 'a motion on the way said to be off it',
    job: () => cleanHouse().set('device:hall', { use: 'off-way' }),
    says: [
      'Stilt Hound motion in hall is said to be off every way to the keypad, but it sees the way from the front door to the keypad in the hall. That makes it on the way to the keypad.',
    ],
    ways: ['Note it as on the way to the keypad'],
  },
])
