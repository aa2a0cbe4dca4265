import { describe, expect, it } from 'vitest'
import type { ActOptions, ActZone } from './behaviour.ts'
import type { ActEvent } from './events.ts'
import { act, actAll } from './machine.ts'
import { atRest, isReady, type ActState } from './state.ts'
import { always, panelOf, plainArea, trips, zone } from './testing/timeline.ts'

/* Two areas side by side: what happens in one leaves the other as it is. Written from the rules by hand. */

const both = ['house', 'annexe'] as const
const of = (area: string, id: string, differs: Partial<ActZone> = {}): ActZone =>
  zone(`${area}-${id}`, { areas: [area], trips: trips('instant instant instant ignore'), ...differs })
/** A window, a fire that is verified, one that is asked about, and a motion of two trips in each area; a wall common to both. */
const zones = [
  ...both.flatMap((area) => [
    of(area, 'window', { stands: true }),
    of(area, 'door', { trips: trips('entry-1 entry-1 entry-1 ignore'), stands: true }),
    of(area, 'knock', { doubleKnock: true }),
    { ...always(`${area}-smoke`, { kind: 'fire', sound: 'three-pulse', fire: 'verified' }), areas: [area] },
    { ...always(`${area}-slow`, { kind: 'fire', sound: 'three-pulse', fire: 'delayed' }), areas: [area] },
  ]),
  zone('wall', { areas: [...both], trips: trips('instant instant instant ignore') }),
]
const panel = (options: Partial<ActOptions> = {}) =>
  panelOf(zones, options, [
    plainArea,
    { ...plainArea, id: 'annexe', delays: { ...plainArea.delays, entry1: 20 } },
  ])
const set = { is: 'set', mode: 'away', part: null } as const
const ids = (id: string): string[] => both.map((area) => `${area}-${id}`)

/** Both areas set, and everything in them that a panel can have to remember. */
const busy: ActState = {
  ...atRest(panel(), 100),
  areas: { house: set, annexe: set },
  leftOut: ids('window'),
  alarms: ids('window').map((source) => ({ source, kind: 'burglary', sound: 'siren', until: null })),
  heard: 'siren',
  memory: ids('window').map((source) => ({ source, kind: 'burglary' })),
  held: ids('knock').map((source) => ({ source, kind: 'burglary', due: 130 })),
  sent: ids('window'),
  counts: { 'house-window': 1, 'annexe-window': 2 },
  knocks: { 'house-knock': 90, 'annexe-knock': 91 },
  seen: ids('smoke').map((one) => ({ zone: one, at: 95 })),
  asking: ids('slow').map((one) => ({ zone: one, until: 160 })),
}

describe('unsetting one area', () => {
  const unset = { at: 101, do: 'unset', areas: ['house'], duress: false } as const

  it('forgets what was held, sent, asked, left out, counted, knocked and seen there, and nothing of the other', () => {
    const { state, outputs } = act(panel(), busy, unset)
    expect(state).toEqual({
      ...busy,
      at: 101,
      areas: { house: { is: 'unset' }, annexe: set },
      leftOut: ['annexe-window'],
      alarms: [busy.alarms[1]],
      memory: [busy.memory[1]],
      held: [busy.held[1]],
      sent: ['annexe-window'],
      counts: { 'annexe-window': 2 },
      knocks: { 'annexe-knock': 91 },
      seen: [busy.seen[1]],
      asking: [busy.asking[1]],
    })
    expect(outputs).toEqual([
      { at: 101, does: 'unset', area: 'house' },
      { at: 101, does: 'abort', source: 'house-knock' },
      { at: 101, does: 'report', what: 'cancelled', source: 'house-window' },
      { at: 101, does: 'clear' },
    ])
  })

  it('first silences and only then clears, where the panel does so', () => {
    const twice = panel({ secondUnsetClears: true })
    const first = act(twice, busy, unset)
    expect([first.state.memory, first.state.seen]).toEqual([busy.memory, busy.seen])
    const second = act(twice, first.state, { ...unset, at: 102 })
    expect([second.state.memory, second.state.seen]).toEqual([[busy.memory[1]], [busy.seen[1]]])
    // What was neither set nor sounding but waited to be acknowledged was the first, too.
    const asked = {
      ...busy,
      areas: { house: { is: 'unset' } as const, annexe: set },
      alarms: [],
      heard: null,
    }
    expect(act(twice, asked, unset).state.memory).toEqual(busy.memory)
    expect(act(twice, { ...asked, asking: [busy.asking[1] ?? expect.fail()] }, unset).state.memory).toEqual([
      busy.memory[1],
    ])
  })
})

describe('an entry delay', () => {
  it('runs out in the area in which it was started, and stays in the other', () => {
    const begun = actAll(panel(), [
      { at: 0, do: 'set', mode: 'away', areas: [], part: null },
      { at: 100, do: 'trip', zone: 'house-door' },
      { at: 105, do: 'trip', zone: 'annexe-door' },
    ])
    expect(begun.state.areas).toMatchObject({
      house: { is: 'entering', until: 130, by: 'house-door' },
      annexe: { is: 'entering', until: 125, by: 'annexe-door' },
    })
    const { state, outputs } = act(panel(), begun.state, { at: 126, do: 'wait' })
    expect(state.areas).toMatchObject({ house: { is: 'entering', until: 130 }, annexe: set })
    expect(outputs.filter(({ does }) => does === 'alarm')).toEqual([
      { at: 125, does: 'alarm', source: 'annexe-door', kind: 'burglary' },
    ])
    expect(state.at).toBe(126)
  })
})

describe('a zone common to two areas', () => {
  const at = (areas: ActState['areas']) => {
    const { outputs } = act(panel(), { ...atRest(panel()), areas }, { at: 5, do: 'trip', zone: 'wall' })
    return outputs.map(({ does }) => does)
  }
  it.each<[string, ActState['areas'], string[]]>([
    ['both set', { house: set, annexe: set }, ['alarm', 'sound', 'report']],
    ['one of them', { house: set, annexe: { is: 'unset' } }, []],
    ['neither', { house: { is: 'unset' }, annexe: { is: 'unset' } }, []],
    // Being left in one of them it is left.
    [
      'one being left',
      {
        house: set,
        annexe: { is: 'leaving', mode: 'away', part: null, until: 60, left: false, restarted: false },
      },
      [],
    ],
    [
      'one being entered',
      { house: set, annexe: { is: 'entering', mode: 'away', part: null, until: 60, by: 'annexe-door' } },
      ['alarm', 'sound', 'report'],
    ],
  ])('%s', (_what, areas, does) => {
    expect(at(areas)).toEqual(does)
  })
})

describe('a zone of a part', () => {
  const parts = panelOf([of('house', 'up', { parts: ['b'] }), of('house', 'all')])
  it.each([
    ['up', 'a', false],
    ['up', 'b', true],
    ['up', null, true],
    ['all', 'a', true],
  ])('%s while part %s is set alarms: %s', (id, part, alarms) => {
    const state = { ...atRest(parts), areas: { house: { ...set, part } } }
    const { outputs } = act(parts, state, { at: 1, do: 'trip', zone: `house-${id}` })
    expect(outputs.some(({ does }) => does === 'alarm')).toBe(alarms)
  })
})

describe('troubles', () => {
  const told = (events: readonly ActEvent[]) =>
    actAll(panel({ reports: false }), events).outputs.map((output) =>
      'device' in output
        ? `${output.does} ${output.device} ${'what' in output ? output.what : ''}`
        : output.does,
    )
  it('begin once, by device and by what it is, and end alone', () => {
    expect(
      told([
        { at: 0, do: 'lost', device: 'house-door' },
        { at: 1, do: 'lost', device: 'house-door' },
        { at: 2, do: 'battery', device: 'house-door', low: true },
        { at: 3, do: 'lost', device: 'annexe-door' },
        { at: 4, do: 'back', device: 'house-door' },
        { at: 5, do: 'back', device: 'house-door' },
        { at: 6, do: 'battery', device: 'house-door', low: false },
      ]),
    ).toEqual([
      'trouble house-door lost',
      'trouble house-door battery',
      'trouble annexe-door lost',
      'trouble over house-door lost',
      'trouble over house-door battery',
    ])
  })
})

describe('a panel at rest', () => {
  const rest = atRest(panel())
  it('could be set anew, and with anything left to do could not', () => {
    expect(isReady(rest)).toBe(true)
    for (const left of [
      { areas: { house: set, annexe: { is: 'unset' } } },
      { open: ['wall'] },
      { leftOut: ['wall'] },
      { alarms: busy.alarms },
      { memory: busy.memory },
      { held: busy.held },
      { seen: busy.seen },
      { asking: busy.asking },
      { troubles: [{ device: 'wall', what: 'lost' }] },
    ] as Partial<ActState>[])
      expect([left, isReady({ ...rest, ...left })]).toEqual([left, false])
  })
})

describe('a fire that is verified', () => {
  const two = (group: number | null, options: Partial<ActOptions> = {}) =>
    panelOf(
      ['one', 'two', 'far'].map((id) =>
        always(id, { kind: 'fire', sound: 'three-pulse', fire: 'verified', group: id === 'far' ? 9 : group }),
      ),
      { verifiedBy: 'group', verifySeconds: 60, ...options },
    )
  const alarmsOf = (behaviour: ReturnType<typeof two>, trips: readonly (readonly [number, string])[]) =>
    actAll(
      behaviour,
      trips.map(([at, id]) => ({ at, do: 'trip', zone: id }) as const),
    ).outputs.flatMap((output) => (output.does === 'alarm' ? [`${output.at} ${output.source}`] : []))
  it.each<[string, number | null, (readonly [number, string])[], string[]]>([
    [
      'by another of its group',
      1,
      [
        [0, 'one'],
        [10, 'two'],
      ],
      ['10 two'],
    ],
    [
      'at the last second',
      1,
      [
        [0, 'one'],
        [60, 'two'],
      ],
      ['60 two'],
    ],
    [
      'not later',
      1,
      [
        [0, 'one'],
        [61, 'two'],
      ],
      [],
    ],
    [
      'not by itself',
      1,
      [
        [0, 'one'],
        [10, 'one'],
      ],
      [],
    ],
    [
      'not by one of another group',
      1,
      [
        [0, 'far'],
        [10, 'one'],
      ],
      [],
    ],
    [
      'itself seen again begins its time anew',
      1,
      [
        [0, 'one'],
        [50, 'one'],
        [100, 'two'],
      ],
      ['100 two'],
    ],
    [
      'without a group by itself',
      null,
      [
        [0, 'one'],
        [10, 'one'],
      ],
      ['10 one'],
    ],
    [
      'without a group not by another',
      null,
      [
        [0, 'one'],
        [10, 'two'],
      ],
      [],
    ],
  ])('%s', (_what, group, tripped, alarms) => {
    expect(alarmsOf(two(group), tripped)).toEqual(alarms)
  })
})

describe('a shorter entry delay', () => {
  const doors = panelOf(
    [
      of('house', 'long', { trips: trips('entry-2 entry-2 entry-2 ignore') }),
      of('house', 'short', { trips: trips('entry-1 entry-1 entry-1 ignore') }),
    ],
    { shorterEntryWins: true },
  )
  const begun = { ...atRest(doors), areas: { house: set } }
  it.each([
    // 90 s from 0 and 30 s from 10: the second ends sooner. From 60 it ends at the same second, and from 70 later.
    [10, 40],
    [60, 90],
    [70, 90],
  ])('tripped at %s s lets it end at %s s', (second, until) => {
    const { state } = actAll(
      doors,
      [
        { at: 0, do: 'trip', zone: 'house-long' },
        { at: second, do: 'trip', zone: 'house-short' },
      ],
      begun,
    )
    expect(state.areas['house']).toMatchObject({ is: 'entering', until })
  })
})
