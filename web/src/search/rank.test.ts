import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { rank, type Findable } from './rank.ts'

const item = (title: string, detail = '', also = ''): Findable => ({ key: title, title, detail, also })
const house = [
  item('Zone 07 Studio Window', 'Reedling Slim contact · 3170 0518', '7 31700518'),
  item('Zone 12 Long room Motion', 'Stilt motion · 4405 1213', '12 44051213'),
  item('Reedling Slim contact, Studio, window', 'Wren · 3170 0518', '31700518'),
  item('Zones', 'stage'),
  item('Entry delay 1', 'of the job'),
  item('Exit delay', 'of the job'),
  item('Café Hörsel', 'Hauptstraße 3'),
]
const found = (typed: string, lately: readonly string[] = []) =>
  rank(house, typed, lately).map(({ title }) => title)

describe('what is found for what is typed', () => {
  it('matches every word, wherever it stands, those at the front of the title first', () => {
    expect(found('zone')).toEqual(['Zone 07 Studio Window', 'Zone 12 Long room Motion', 'Zones'])
    expect(found('delay')).toEqual(['Entry delay 1', 'Exit delay'])
    expect(found('studio')).toEqual(['Zone 07 Studio Window', 'Reedling Slim contact, Studio, window'])
    expect(found('studio reed')).toEqual(['Reedling Slim contact, Studio, window', 'Zone 07 Studio Window'])
    expect(found('studio kiln')).toEqual([])
  })

  it('finds an ID with and without its groups, and part of it', () => {
    for (const typed of ['3170 0518', '31700518', '3170-0518', '317005'])
      expect(found(typed)).toEqual(['Zone 07 Studio Window', 'Reedling Slim contact, Studio, window'])
    expect(found('0518 44')).toEqual([])
  })

  it('finds a number as it is said', () => {
    expect(found('zone 7')).toEqual(['Zone 07 Studio Window'])
    expect(found('07')).toEqual(['Zone 07 Studio Window'])
  })

  it('heeds neither capitals nor accents', () => {
    expect(found('CAFE hor')).toEqual(['Café Hörsel'])
    expect(found('hauptstrasse')).toEqual([])
    expect(found('hauptstraße')).toEqual(['Café Hörsel'])
  })

  it('puts what was used lately before its equals, and first where nothing is typed', () => {
    expect(found('delay', ['Exit delay'])).toEqual(['Exit delay', 'Entry delay 1'])
    expect(found('', ['Zones', 'Exit delay']).slice(0, 3)).toEqual([
      'Zones',
      'Exit delay',
      'Zone 07 Studio Window',
    ])
    // It does not put a worse match before a better one.
    expect(found('studio', ['Reedling Slim contact, Studio, window'])[0]).toBe(
      'Reedling Slim contact, Studio, window',
    )
    expect(found('zone 1', ['Zones', 'Zone 07 Studio Window'])[0]).toBe('Zone 12 Long room Motion')
  })

  it('finds each thing by the whole of its title, and nothing twice', () => {
    fc.assert(
      fc.property(fc.constantFrom(...house), fc.subarray(house.map(({ key }) => key)), (one, lately) => {
        const hits = rank(house, one.title, lately)
        expect(hits).toContain(one)
        expect(new Set(hits).size).toBe(hits.length)
      }),
    )
  })
})
