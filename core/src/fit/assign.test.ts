import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { assignPlaces, type Want } from './assign.ts'
import { reasonWords } from '../findings/words/fit-reasons.ts'
import { fitAll } from './fit.ts'
import { systemOf } from '../system/system.ts'
import { runs } from '../testing/runs.ts'

/** Every way to hold them, the slow way: the most that can be held at all. */
function mostHeld(wants: readonly Want[], capacity: ReadonlyMap<string, number>): number {
  const [first, ...rest] = wants
  if (!first) return 0
  let best = mostHeld(rest, capacity)
  for (const option of first.options) {
    const left = capacity.get(option) ?? 0
    if (left > 0) best = Math.max(best, 1 + mostHeld(rest, new Map([...capacity, [option, left - 1]])))
  }
  return best
}

describe('giving places', () => {
  it('moves an earlier device where a later one has no other place', () => {
    const wants = [
      { key: 'either', options: ['a', 'b'] },
      { key: 'only-a', options: ['a'] },
    ]
    const places = assignPlaces(
      wants,
      new Map([
        ['a', 1],
        ['b', 1],
      ]),
    )
    expect([...places]).toEqual([
      ['either', 'b'],
      ['only-a', 'a'],
    ])
  })

  it('holds as many as can be held, none twice, none beyond capacity, the earlier ones first', () => {
    const receivers = ['a', 'b', 'c']
    const want = fc.uniqueArray(fc.constantFrom(...receivers), { maxLength: 3 })
    const room = fc.record({ a: fc.nat(2), b: fc.nat(2), c: fc.nat(2) })
    fc.assert(
      fc.property(fc.array(want, { maxLength: 7 }), room, (options, rooms) => {
        const wants = options.map((list, index) => ({ key: `d${index}`, options: list }))
        const capacity = new Map(Object.entries(rooms))
        const places = assignPlaces(wants, capacity)
        const held = [...places].filter(([, receiver]) => receiver !== null)
        expect(held.length).toBe(mostHeld(wants, capacity))
        for (const receiver of receivers)
          expect(held.filter(([, place]) => place === receiver).length).toBeLessThanOrEqual(
            capacity.get(receiver) ?? 0,
          )
        for (const [key, receiver] of held)
          expect(wants.find((item) => item.key === key)?.options).toContain(receiver)
        // Leaving a later device out never costs an earlier one its place.
        wants.forEach((_want, index) => {
          const before = assignPlaces(wants.slice(0, index), capacity)
          for (const [key, receiver] of before) if (receiver !== null) expect(places.get(key)).not.toBeNull()
        })
      }),
      { seed: 31, numRuns: runs(4000) },
    )
  })
})

it('counts zone numbers per event: the devices beyond them do not fit', () => {
  // A Pinfold 16 has sixteen wireless numbers: sixteen contacts fit, the seventeenth does not.
  const job = new SmallJob({ panel: 'panel/pinfold-16', grade: 1, radioFirmware: null })
  for (let n = 1; n <= 17; n++) job.add(`w${String(n).padStart(2, '0')}`, 'pebble')
  const fits = [...fitAll(systemOf(job.doc, catalogue)).values()]
  expect(fits.filter((fit) => fit.verdict === 'works')).toHaveLength(16)
  expect(fits.at(-1)?.reasons.map(reasonWords)).toEqual([
    'Pinfold 16 has 16 wireless zone numbers; Pebble contact needs 1 and 16 are taken by others.',
  ])
})

it('counts a device of three events three times', () => {
  // Forty numbers on a Tarn 40: thirteen detectors of three events take thirty-nine.
  const job = new SmallJob()
  for (let n = 1; n <= 14; n++) job.add(`s${String(n).padStart(2, '0')}`, 'ember-three')
  const fits = [...fitAll(systemOf(job.doc, catalogue)).values()]
  expect(fits.map((fit) => fit.verdict).filter((verdict) => verdict === 'works')).toHaveLength(13)
})
