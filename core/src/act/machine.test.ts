import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { runs } from '../testing/runs.ts'
import type { ActOptions, Behaviour } from './behaviour.ts'
import type { ActEvent } from './events.ts'
import { act, actAll } from './machine.ts'
import { atRest, isReady, type ActState } from './state.ts'
import { home, homeZones } from './testing/home.ts'
import { plainArea } from './testing/timeline.ts'

/* What holds for every panel and every series of events, whatever they are. */

const maybe = (values: readonly number[]) => fc.constantFrom(null, ...values)
const options: fc.Arbitrary<ActOptions> = fc.record({
  exitBy: fc.constantFrom('timer', 'door', 'either'),
  openAtExit: fc.constantFrom('exclude', 'alarm', null),
  exitRestarts: fc.constantFrom(true, false, null),
  staysIfNobodyLeft: fc.constantFrom(true, false, null),
  shorterEntryWins: fc.constantFrom(true, false, null),
  sirenSeconds: maybe([60, 180]),
  holdSeconds: maybe([0, 30]),
  swinger: maybe([0, 1, 3]),
  secondUnsetClears: fc.boolean(),
  knockSeconds: maybe([60]),
  verifiedBy: fc.constantFrom('again', 'group'),
  verifySeconds: maybe([60]),
  acknowledgeSeconds: maybe([30]),
  tamperUnset: fc.constantFrom('trouble', 'alarm', null),
  troublePrevents: fc.constantFrom(true, false, null),
  reports: fc.boolean(),
})
/** The house in one area or in two, its zones held, knocked, verified and grouped by chance. */
const behaviours: fc.Arbitrary<Behaviour> = fc
  .tuple(options, fc.boolean(), fc.array(fc.nat(99), { minLength: 60, maxLength: 60 }))
  .map(([chosen, two, dice]) => ({
    ...home(chosen),
    areas: two ? [plainArea, { ...plainArea, id: 'annexe' }] : [plainArea],
    zones: homeZones.map((zone, index) => ({
      ...zone,
      areas: two
        ? pick<readonly string[]>([['house'], ['annexe'], ['house', 'annexe']], dice[index])
        : ['house'],
      held: pick([true, false, false], dice[index + 7]),
      doubleKnock: zone.id === 'lounge' && pick([true, false], dice[index]),
      fire: zone.kind === 'fire' ? pick(['plain', 'delayed', 'verified'], dice[index + 3]) : 'plain',
      group: zone.kind === 'fire' ? pick([null, 1, 2], dice[index + 5]) : null,
    })),
  }))

/** One of several by a number drawn. */
function pick<const T>(values: readonly [T, ...T[]], drawn = 0): T {
  return values[drawn % values.length] ?? values[0]
}

const ids = homeZones.map(({ id }) => id)
const devices = [...new Set(homeZones.map(({ device }) => device))]
const someAreas = fc.constantFrom<readonly string[]>([], ['house'], ['annexe'])
const anyZone = fc.constantFrom(...ids)
const happenings = fc.oneof(
  fc.record({
    do: fc.constant('set' as const),
    mode: fc.constantFrom('away' as const, 'stay' as const, 'night' as const),
    areas: someAreas,
    part: fc.constant(null),
  }),
  fc.record({ do: fc.constant('unset' as const), areas: someAreas, duress: fc.boolean() }),
  fc.record({ do: fc.constant('trip' as const), zone: anyZone }),
  fc.record({ do: fc.constant('trip' as const), zone: anyZone }),
  fc.record({ do: fc.constant('close' as const), zone: anyZone }),
  fc.record({ do: fc.constant('leave-out' as const), zone: anyZone }),
  fc.record({ do: fc.constant('cover' as const), device: fc.constantFrom(...devices), open: fc.boolean() }),
  fc.record({ do: fc.constantFrom('lost' as const, 'back' as const), device: fc.constantFrom(...devices) }),
  fc.record({ do: fc.constant('battery' as const), device: fc.constantFrom(...devices), low: fc.boolean() }),
  fc.record({ do: fc.constant('jam' as const), on: fc.boolean() }),
  fc.record({ do: fc.constant('wait' as const) }),
)
const series: fc.Arbitrary<ActEvent[]> = fc
  .array(fc.tuple(fc.constantFrom(0, 1, 5, 20, 70, 200), happenings), { maxLength: 40 })
  .map((steps) => {
    let at = 0
    return steps.map(([wait, event]) => ({ ...event, at: (at += wait) }))
  })

const many = { numRuns: runs(2000) }

describe('the machine', () => {
  it('never loses a trip that is always on', () => {
    fc.assert(
      fc.property(
        behaviours,
        series,
        fc.constantFrom('smoke', 'co', 'flood', 'panic', 'hold-up', 'pendant'),
        (behaviour, events, id) => {
          const { state } = actAll(behaviour, events)
          const told = act(behaviour, state, { at: state.at + 1, do: 'trip', zone: id })
          const zone = behaviour.zones.find((one) => one.id === id)
          const answers = told.outputs.some(
            (one) =>
              (one.does === 'alarm' && one.source === id) ||
              ((one.does === 'verify' || one.does === 'ask') && one.zone === id),
          )
          const already =
            state.alarms.some((one) => one.source === id) || state.asking.some((one) => one.zone === id)
          expect(answers || already).toBe(true)
          if (zone?.fire === 'plain') expect(told.state.memory.some((one) => one.source === id)).toBe(true)
        },
      ),
      many,
    )
  })

  it('has a way to ready from every state', () => {
    fc.assert(
      fc.property(behaviours, series, (behaviour, events) => {
        const { state } = actAll(behaviour, events)
        expect(isReady(actAll(behaviour, wayToReady(state), state).state)).toBe(true)
      }),
      many,
    )
  })

  it('does the same at any hour', () => {
    fc.assert(
      fc.property(behaviours, series, fc.nat(100_000), (behaviour, events, shift) => {
        const first = actAll(behaviour, [{ at: 0, do: 'wait' }, ...events])
        const later = actAll(
          behaviour,
          [{ at: 0, do: 'wait' as const }, ...events].map((event) => ({ ...event, at: event.at + shift })),
        )
        expect(later.outputs).toEqual(first.outputs.map((output) => shifted(output, shift)))
      }),
      many,
    )
  })

  it('lets what it does not know change nothing', () => {
    fc.assert(
      fc.property(behaviours, series, (behaviour, events) => {
        const { state } = actAll(behaviour, events)
        const at = state.at
        const strangers: ActEvent[] = [
          { at, do: 'trip', zone: 'nobody' },
          { at, do: 'close', zone: 'nobody' },
          { at, do: 'leave-out', zone: 'nobody' },
          { at, do: 'cover', device: 'nobody', open: true },
          { at, do: 'lost', device: 'nobody' },
          { at, do: 'back', device: 'nobody' },
          { at, do: 'battery', device: 'nobody', low: true },
        ]
        for (const stranger of strangers) {
          const acted = act(behaviour, state, stranger)
          expect(acted.state).toBe(state)
          expect(acted.outputs).toEqual([])
        }
      }),
      many,
    )
  })

  it('tells in the order of time, and never before what was', () => {
    fc.assert(
      fc.property(behaviours, series, (behaviour, events) => {
        const { outputs } = actAll(behaviour, events)
        const times = outputs.map(({ at }) => at)
        expect(times).toEqual([...times].sort((a, b) => a - b))
      }),
      many,
    )
  })

  it('leaves the state that it was given as it was', () => {
    fc.assert(
      fc.property(behaviours, series, (behaviour, events) => {
        const start = actAll(behaviour, events.slice(0, 10)).state
        const before = structuredClone(start)
        actAll(behaviour, events.slice(10), start)
        expect(start).toEqual(before)
      }),
      many,
    )
  })

  it('takes an event of before as one of now', () => {
    const behaviour = home()
    const rest = atRest(behaviour, 100)
    expect(act(behaviour, rest, { at: 5, do: 'trip', zone: 'panic' }).outputs[0]).toEqual({
      at: 100,
      does: 'alarm',
      source: 'panic',
      kind: 'panic',
    })
  })
})

/** What a person does to have the panel ready: close all, mend all, unset and clear. */
function wayToReady(state: ActState): ActEvent[] {
  const at = state.at + 1
  return [
    ...state.open.map((zone) => ({ at, do: 'close' as const, zone })),
    ...state.troubles.map(({ device, what }): ActEvent => {
      switch (what) {
        case 'cover':
          return { at, do: 'cover', device, open: false }
        case 'lost':
          return { at, do: 'back', device }
        case 'battery':
          return { at, do: 'battery', device, low: false }
        case 'jammed':
          return { at, do: 'jam', on: false }
      }
    }),
    { at, do: 'unset', areas: [], duress: false },
    { at: at + 1, do: 'unset', areas: [], duress: false },
  ]
}

/** An output with all its times moved. */
function shifted<T extends { readonly at: number }>(output: T, by: number): T {
  const until = 'until' in output && typeof output.until === 'number' ? { until: output.until + by } : {}
  return { ...output, at: output.at + by, ...until }
}
