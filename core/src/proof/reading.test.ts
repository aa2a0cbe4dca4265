import { describe, expect, it } from 'vitest'
import type { Family } from '../catalogue/schema.ts'
import { catalogue, cleanTarn } from '../testing/small-job.ts'
import { hints } from './advice.ts'
import { resultProblem } from './reading.ts'
import { itemOf, learned } from './testing/proved-jobs.ts'

describe('a reading', () => {
  it.each<[string, number | null, string, string | null]>([
    // Wren reads in bars: best from 4, least 2.
    ['no reading', null, '', 'Reading: state it in bars.'],
    [
      'too weak',
      1,
      'wall',
      'Reading: 1 bars does not hold, at least 2 bars is needed. Record it as failed and move the device.',
    ],
    [
      'middling',
      3,
      ' ',
      'Reading: 3 bars is below the best band (4 bars). Improve it, or note why it stays.',
    ],
    ['middling with a reason', 2, 'stone wall, no other spot', null],
    ['best', 4, '', null],
  ])('passes when it holds: %s', (_name, reading, note, problem) => {
    const family = catalogue.get('family', 'family/wren')
    for (const kind of ['placement', 'average'] as const) {
      expect(resultProblem({ kind, family }, { outcome: 'pass', reading, note })).toBe(problem)
      expect(resultProblem({ kind, family }, { outcome: 'fail', reading, note })).toBeNull()
    }
    expect(resultProblem({ kind: 'walk', family }, { outcome: 'pass', reading, note })).toBeNull()
  })
})

describe('a reading of a family that does not state its bands', () => {
  const family = (placement: Partial<Family['placement']>): Family => ({
    ...(catalogue.get('family', 'family/wren') ?? expect.fail()),
    placement: { unit: 'bars', readAt: 'receiver', ...placement },
  })
  const problem = (
    of: Family,
    reading: number | null,
    note: string,
    school?: Parameters<typeof resultProblem>[2],
  ) => resultProblem({ kind: 'placement', family: of }, { outcome: 'pass', reading, note }, school)
  const open = (reading: number, what: string): string =>
    `Reading: ${reading} bars cannot be judged, since Wren does not state from where on a link ${what}. Note how you judged it.`

  it('asks how it was judged where neither is stated', () => {
    expect(problem(family({}), 5, '')).toBe(open(5, 'holds'))
    expect(problem(family({}), 5, '', 'works')).toBe(open(5, 'holds'))
    expect(problem(family({}), 5, 'three of five bars on its display')).toBeNull()
  })

  it('judges by what is stated', () => {
    expect(problem(family({ best: 4 }), 4, '')).toBeNull()
    expect(problem(family({ best: 4 }), 3, '')).toContain('is below the best band (4 bars)')
    expect(problem(family({ best: 4 }), 3, '', 'works')).toBe(open(3, 'holds'))
    expect(problem(family({ least: 2 }), 1, 'wall')).toContain('does not hold, at least 2 bars')
    expect(problem(family({ least: 2 }), 3, '')).toBe(open(3, 'is good'))
    expect(problem(family({ least: 2 }), 3, '', 'works')).toBeNull()
  })

  it('is a number where no unit is stated', () => {
    const { unit: _unit, ...placement } = family({ least: 2 }).placement
    const bare = { ...family({}), placement }
    expect(problem(bare, null, '')).toBe('Reading: state it.')
    expect(problem(bare, 1, '')).toContain('Reading: 1 does not hold, at least 2 is needed.')
  })

  it('tells what is aimed at, as far as it is stated', () => {
    const item = itemOf(learned(cleanTarn(), 'hall'), 'hall', 'placement')
    const told = (of: Family): string => hints(item, null, of)[0] ?? ''
    const aside = 'Moving it a quarter wave (17 cm) often helps.'
    expect(told(family({ best: 4, least: 2 }))).toBe(
      `Read it at the receiver. Aim for 4 bars or more; below 2 bars it does not hold. ${aside}`,
    )
    expect(told(family({ best: 4 }))).toBe(
      `Read it at the receiver. Aim for 4 bars or more; below which it no longer holds is not stated. ${aside}`,
    )
    expect(told(family({ least: 2 }))).toBe(
      `Read it at the receiver. Below 2 bars it does not hold; from where on it is good is not stated. ${aside}`,
    )
    expect(told({ ...family({}), placement: {} })).toBe(
      `It is not stated from which reading on a link of Wren holds: note how you judged it. ${aside}`,
    )
  })
})
