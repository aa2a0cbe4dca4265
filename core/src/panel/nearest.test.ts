import { expect, it } from 'vitest'
import { nearestDisplays } from './nearest.ts'

const displays = [
  ['14 first way in, s', '30'],
  ['16 leaving, s', '60'],
  ['01 send?', 'yes'],
  ['02 send?', 'yes'],
  ['03 send?', 'yes'],
]
const found = (read: string, from = 0): number[] =>
  nearestDisplays(displays, read, from).map(({ index }) => index)

it('finds what was read, one line or all of them, whatever blanks and capitals', () => {
  expect(found('16 leaving, s')).toEqual([1])
  expect(found('16 LEAVING , S 60')).toEqual([1])
  expect(found('14 first way in, s')[0]).toBe(0)
})

it('allows signs that were misread, and offers nothing that is far off', () => {
  expect(nearestDisplays(displays, 'l6 leaving, 5', 0)).toEqual([{ index: 1, apart: 2 }])
  expect(found('keep all answers?')).toEqual([])
  expect(found('  ')).toEqual([])
})

it('puts the exact one first, then those nearest to where one should be', () => {
  expect(found('03 send?', 0)[0]).toBe(4)
  expect(found('send?', 3)).toEqual([3, 2, 4])
  expect(found('send?', 4)[0]).toBe(4)
})
