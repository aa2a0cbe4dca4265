import { describe, expect, it } from 'vitest'
import { completeHouseRules, defaultHouseRules, houseRulesSchema, isChoice } from './house-rules.ts'
import { choiceWords, costWords, figureWords, schools } from './schools.ts'

/* The questions of work.md on which practitioners differ, with the safer answer first. */
const asked: Readonly<Record<string, readonly string[]>> = {
  seesLeaf: ['delay', 'follow'],
  offWay: ['region', 'instant', 'follow'],
  glass: ['by-room', 'both', 'away-only'],
  fire: ['plain', 'delayed', 'verified'],
  sisters: ['every', 'one'],
  holdBurglary: ['region', 'window', 'none'],
  localReport: ['off', 'on'],
  identity: ['learn', 'type'],
  confirm: ['by-class', 'always', 'never'],
  reading: ['best', 'works'],
  wiredBlock: ['if-used', 'kept', 'from-1'],
  fobStore: ['panel', 'keypad'],
  smokeHeat: ['apart', 'joined'],
  labelOrder: ['place-thing', 'thing-place'],
  placeOfWork: ['bench', 'on-site'],
  sheetOrder: ['shortest', 'plan'],
}

describe('schools', () => {
  it('are asked each once, with every choice said and given a reason', () => {
    expect(
      Object.fromEntries(schools.map(({ key, choices }) => [key, choices.map((one) => one.key)])),
    ).toEqual(asked)
    expect(schools).toHaveLength(16)
    for (const { question, choices } of schools)
      for (const { name, reason } of choices) {
        expect([question, name, reason].every((text) => text.length > 1)).toBe(true)
        expect(choices.filter((one) => one.name === name)).toHaveLength(1)
      }
  })

  it.each(Object.entries(asked))(
    '%s begins with the safer choice, and takes no other word',
    (key, choices) => {
      expect(defaultHouseRules.schools[key as keyof typeof defaultHouseRules.schools]).toBe(choices[0])
      for (const choice of choices) expect([choice, isChoice(key, choice)]).toEqual([choice, true])
      expect(isChoice(key, 'odd')).toBe(false)
      expect(isChoice(key, '')).toBe(false)
    },
  )

  it('are no word that an object has by itself', () => {
    expect([isChoice('toString', 'delay'), isChoice('odd', 'delay')]).toEqual([false, false])
  })

  it('are said in words, an unknown one as it is', () => {
    expect(choiceWords('seesLeaf', 'follow')).toBe('follow')
    expect(choiceWords('glass', 'both')).toBe('both modes everywhere')
    // The same word is another choice elsewhere.
    expect(choiceWords('offWay', 'region')).toBe('as the region’s practice')
    expect(choiceWords('holdBurglary', 'region')).toBe('as the region’s preset')
    expect(choiceWords('glass', 'odd')).toBe('odd')
    expect(choiceWords('odd', 'both')).toBe('both')
  })
})

/** Least and most of each figure: paces in m/s, times in s, a gap in mm. */
const figures: Readonly<Record<string, readonly [number, number]>> = {
  paceOrdinary: [0.2, 3],
  paceSlow: [0.1, 3],
  stairs: [0.1, 1],
  keyIn: [0, 60],
  margin: [0, 60],
  growth: [0, 100],
  usualGapMm: [1, 100],
}

describe('figures', () => {
  const takes = (key: string, value: unknown) =>
    houseRulesSchema.safeParse({
      ...defaultHouseRules,
      figures: { ...defaultHouseRules.figures, [key]: value },
    }).success

  it.each(Object.entries(figures))('%s is taken from its least to its most', (key, [least, most]) => {
    expect([least, most].map((value) => takes(key, value))).toEqual([true, true])
    expect([least - 0.01, most + 0.01, Number.NaN, '5', null].map((value) => takes(key, value))).toEqual(
      Array.from({ length: 5 }, () => false),
    )
    expect(figureWords[key as keyof typeof figureWords].name.length).toBeGreaterThan(3)
  })

  it('that count are whole', () => {
    expect([takes('growth', 2.5), takes('margin', 2.5)]).toEqual([false, true])
  })

  it('say what is allowed', () => {
    const said = (value: unknown) =>
      houseRulesSchema
        .safeParse({
          ...defaultHouseRules,
          figures: { ...defaultHouseRules.figures, keyIn: value },
        })
        .error?.issues.map(({ message }) => message)
    expect([said(-1), said(61), said('x')]).toEqual([
      ['must be at least 0'],
      ['must be at most 60'],
      ['must be a number from 0 to 60'],
    ])
  })

  it('are each said with a unit or what they count, and so is each cost', () => {
    expect(Object.keys(figureWords).sort()).toEqual(Object.keys(figures).sort())
    expect(Object.keys(costWords).sort()).toEqual(Object.keys(defaultHouseRules.costs).sort())
  })
})

describe('house rules as they were stored', () => {
  it('are completed from the defaults, field by field', () => {
    expect(completeHouseRules({})).toEqual(defaultHouseRules)
    const own = { schools: { glass: 'both' }, figures: { margin: 9 }, costs: { swap: 7 } }
    expect(completeHouseRules(own)).toEqual({
      schools: { ...defaultHouseRules.schools, glass: 'both' },
      figures: { ...defaultHouseRules.figures, margin: 9 },
      costs: { ...defaultHouseRules.costs, swap: 7 },
    })
  })

  it.each([null, undefined, 'text', 4, [], { schools: null, figures: 'x', costs: 3 }])(
    '%j are the defaults',
    (stored) => {
      expect(completeHouseRules(stored)).toEqual(defaultHouseRules)
    },
  )

  it('keep nothing that is not known any longer or never was allowed', () => {
    const own = {
      schools: { glass: 'loud', odd: 'x' },
      figures: { margin: 900 },
      costs: { swap: -1 },
      more: 1,
    }
    expect(completeHouseRules(own)).toEqual(defaultHouseRules)
  })

  it.each(Object.keys(defaultHouseRules.costs))('the cost of %s is from 0 to 1000', (key) => {
    const takes = (value: number) =>
      houseRulesSchema.safeParse({
        ...defaultHouseRules,
        costs: { ...defaultHouseRules.costs, [key]: value },
      }).success
    expect([-1, 0, 1000, 1001].map(takes)).toEqual([false, true, true, false])
  })
})
