import { expect, it } from 'vitest'
import { Keeper } from './keep.ts'

it('gives back what was made from the same things, and makes it anew otherwise', () => {
  const keeper = new Keeper<number>()
  let made = 0
  const make = () => (made += 1)
  const key = {}
  const [a, b] = [{}, {}]
  expect([keeper.get(key, [a, b], make), keeper.get(key, [a, b], make)]).toEqual([1, 1])
  expect(keeper.get(key, [b, a], make)).toBe(2)
  expect(keeper.get(key, [b], make)).toBe(3)
  expect(keeper.get(key, [b, a], make)).toBe(4)
  expect(keeper.get(key, [b, {}], make)).toBe(5)
  expect(keeper.get({}, [b], make)).toBe(6)
})
