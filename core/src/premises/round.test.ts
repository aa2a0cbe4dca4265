import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { systemOf } from '../system/system.ts'
import { runs } from '../testing/runs.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { houseOf } from './house.ts'
import { roundOf } from './round.ts'

const roundIn = (job: SmallJob, names: readonly string[]): string[] =>
  [...names].sort(roundOf({ doc: job.doc, system: systemOf(job.doc, catalogue) }, names))

/** Seconds of a walk through rooms in this order, from the room of the door. */
function seconds(job: SmallJob, order: readonly string[]): number {
  const house = houseOf(job.doc, systemOf(job.doc, catalogue), defaultHouseRules.figures)
  return order.reduce(
    (sum, name, index) =>
      sum + (house.walk(`room:${order[index - 1] ?? 'r0'}`, `room:${name}`)?.seconds ?? Infinity),
    0,
  )
}

/** A house of rooms r0, r1 …, each joined to one before it, and some more ways. */
const houses = fc
  .array(fc.record({ to: fc.nat(99), metres: fc.integer({ min: 1, max: 9 }), stairs: fc.boolean() }), {
    minLength: 3,
    maxLength: 6,
  })
  .map((links) => {
    const job = new SmallJob().room('r0')
    links.forEach(({ to, metres, stairs }, index) =>
      job.room(`r${index + 1}`).way(`r${to % (index + 1)}`, `r${index + 1}`, metres, stairs),
    )
    return { job: job.opening('Front door', 'r0'), names: links.map((_, index) => `r${index + 1}`) }
  })

function* orders(names: readonly string[]): Generator<string[]> {
  if (names.length === 0) yield []
  for (const first of names)
    for (const rest of orders(names.filter((name) => name !== first))) yield [first, ...rest]
}

describe('a round', () => {
  it('is as short as any order of its rooms, and passes none by', () => {
    fc.assert(
      fc.property(houses, ({ job, names }) => {
        const round = roundIn(job, names)
        const least = Math.min(...[...orders(names)].map((order) => seconds(job, order)))
        expect(seconds(job, round)).toBeCloseTo(least, 6)
        const house = houseOf(job.doc, systemOf(job.doc, catalogue), defaultHouseRules.figures)
        round.forEach((name, index) => {
          const walk = house.walk(`room:${round[index - 1] ?? 'r0'}`, `room:${name}`)
          const later = new Set(round.slice(index + 1))
          expect(walk?.rooms.filter((room) => later.has(room.name))).toEqual([])
        })
      }),
      { numRuns: runs(400), seed: 20_261_128 },
    )
  })

  it('has what no way leads to behind the rest, and where nobody lives goes by name', () => {
    const job = new SmallJob().room('Hall').room('Barn').room('Den').way('Hall', 'Den', 4)
    job.opening('Front door', 'Hall')
    expect(roundIn(job, ['Barn', 'Den', 'Hall', 'Yard', '', 'Loft'])).toEqual([
      ...['Hall', 'Den', 'Barn'],
      ...['Loft', 'Yard', ''],
    ])
    expect(roundIn(new SmallJob(), ['b', '', 'a'])).toEqual(['a', 'b', ''])
  })

  it('begins at the door of every day, else at any that is used, else in the first room', () => {
    /** Rooms on a line, 4 m apart: where it begins tells its order. */
    const line = () => new SmallJob().room('a').room('b').room('c').way('a', 'b', 4).way('b', 'c', 4)
    const names = ['a', 'b', 'c']
    expect(roundIn(line(), names)).toEqual(['a', 'b', 'c'])
    expect(roundIn(line().opening('Back', 'c', { use: 'occasional' }), names)).toEqual(['c', 'b', 'a'])
    const two = line().opening('Front', 'a', { use: 'occasional' }).opening('Back', 'c')
    expect(roundIn(two, names)).toEqual(['c', 'b', 'a'])
    expect(roundIn(line().opening('Never', 'c', { use: 'never' }), names)).toEqual(['a', 'b', 'c'])
  })

  it('compares a room with itself as the same, and each set of rooms by a round of its own', () => {
    const job = new SmallJob().room('a').room('b').room('c').way('a', 'b', 1).way('b', 'c', 1)
    const asked = { doc: job.doc, system: systemOf(job.doc, catalogue) }
    const all = roundOf(asked, ['c', 'b', 'A'])
    expect([all('a', 'A'), all('x', 'x'), all('', ''), all('a', 'c') < 0, all('c', 'b') > 0]).toEqual([
      ...[0, 0, 0, true, true],
    ])
    // A round that c has no part in tells nothing of c but that it comes behind.
    const few = roundOf(asked, ['a', 'b'])
    expect([few('c', 'b') > 0, few('', 'c') > 0, few('c', '') < 0, few('y', 'x') > 0]).toEqual([
      ...[true, true, true, true],
    ])
  })

  it('is made anew when the house is another', () => {
    const job = new SmallJob().room('a').room('b').room('c').way('a', 'b', 2).way('a', 'c', 5)
    job.opening('Door', 'a')
    expect(roundIn(job, ['b', 'c'])).toEqual(['b', 'c'])
    job.set('way:a-b', { metres: 30 })
    expect(roundIn(job, ['b', 'c'])).toEqual(['c', 'b'])
  })
})
