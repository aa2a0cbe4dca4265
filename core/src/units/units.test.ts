import { expect, it } from 'vitest'
import { z } from 'zod'
import { canonicalJson, hashOf, sameJson } from './canonical.ts'
import { check, problemLine } from './problem.ts'
import { seededRandom } from './random.ts'
import { formatSeconds } from './seconds.ts'

/** What a value is told by a schema: `path: message` per problem. */
function told(schema: z.ZodType, value: unknown, root = ''): string[] {
  const read = check(schema, value, root)
  return read.ok ? [] : read.problems.map((problem) => problemLine([problem]))
}

it('says what is wrong at the field and what is allowed there, in plain words', () => {
  const cases: readonly [z.ZodType, unknown, string][] = [
    [z.object({ name: z.string() }), {}, 'name: is missing; a text is needed'],
    [z.object({ name: z.string() }), { name: 4 }, 'name: must be a text'],
    [z.string(), null, 'must be a text'],
    [z.number(), 'x', 'must be a number'],
    [z.int(), 1.5, 'must be a whole number'],
    [z.boolean(), 'x', 'must be yes or no (true or false)'],
    [z.array(z.string()), 'x', 'must be a list'],
    [z.object({}), 'x', 'must be an object'],
    [z.record(z.string(), z.string()), 'x', 'must be an object'],
    [z.null(), 'x', 'must be empty (null)'],
    [z.date(), 'x', 'must be a date'],
    [z.string().min(1), '', 'must not be empty'],
    [z.string().min(2), 'a', 'must have at least 2 characters'],
    [z.string().max(1), 'ab', 'must have at most 1 character'],
    [z.string().max(2), 'abc', 'must have at most 2 characters'],
    [z.array(z.string()).min(1), [], 'must have at least 1 entry'],
    [z.array(z.string()).min(2), ['a'], 'must have at least 2 entries'],
    [z.array(z.string()).max(1), ['a', 'b'], 'must have at most 1 entry'],
    [z.number().min(3), 2, 'must be at least 3'],
    [z.number().gt(3), 3, 'must be more than 3'],
    [z.number().max(3), 4, 'must be at most 3'],
    [z.number().lt(3), 3, 'must be less than 3'],
    [z.number().multipleOf(15), 20, 'must be a multiple of 15'],
    [z.enum(['away', 'stay']), 'x', 'must be one of: away, stay'],
    [z.email(), 'x', 'does not have the right form (email)'],
    [z.union([z.string(), z.number()]), true, 'is none of the allowed kinds'],
    [
      z.discriminatedUnion('kind', [z.object({ kind: z.literal('a') })]),
      { kind: 'b' },
      'kind: is none of the allowed kinds by its "kind"',
    ],
    [z.string().refine(() => false, 'is a neighbour’s'), 'x', 'is a neighbour’s'],
    [
      z.string().min(3, 'must be a name of three letters or more'),
      'x',
      'must be a name of three letters or more',
    ],
    [z.map(z.string(), z.number()), new Map([['a', 'x']]), 'a: must be a number'],
    [z.strictObject({}), { colour: 1 }, 'colour: is not a known field here'],
    [z.object({ at: z.strictObject({}) }), { at: { x: 1 } }, 'at.x: is not a known field here'],
    [z.record(z.enum(['a']), z.number()), { a: 1, b: 2 }, 'b: is not a known field here'],
    [z.record(z.string().regex(/^[a-z]$/), z.number()), { B: 2 }, 'B: is not allowed here'],
  ]
  for (const [schema, value, sentence] of cases) expect(told(schema, value)).toEqual([sentence])
  expect(told(z.object({ name: z.string() }), {}, 'edits.0')).toEqual([
    'edits.0.name: is missing; a text is needed',
  ])
  expect(check(z.string(), 'x')).toEqual({ ok: true, value: 'x' })
})

it('joins problems into one line', () => {
  expect(
    problemLine([
      { path: 'name', message: 'must not be empty' },
      { path: '', message: 'is not allowed here' },
    ]),
  ).toBe('name: must not be empty; is not allowed here')
})

it('words a duration in seconds up to two minutes, then in minutes', () => {
  expect([0, 45, 119, 120, 121, 150, 180].map(formatSeconds)).toEqual([
    '0 s',
    '45 s',
    '119 s',
    '2 min',
    '2 min 1 s',
    '2 min 30 s',
    '3 min',
  ])
})

it('writes a value in one way only, whatever the order of its keys and what it leaves out', () => {
  expect(canonicalJson({ b: [1, undefined, null], a: { d: undefined, c: 'x' }, B: true })).toBe(
    '{"B":true,"a":{"c":"x"},"b":[1,null,null]}',
  )
  expect(canonicalJson({ a: 1, c: 3, b: 2 })).toBe('{"a":1,"b":2,"c":3}')
  expect([canonicalJson(undefined), canonicalJson(null), canonicalJson('ä')]).toEqual(['null', 'null', '"ä"'])
  // The digest of the three bytes of `"a"`, by any other tool: printf '"a"' | sha256sum.
  expect(hashOf('a')).toBe('ac8d8342bbb2362d13f0a559a3621bb407011368895164b628a54f7fc33fc43c')
})

it('tells equal values from others', () => {
  const same: readonly [unknown, unknown][] = [
    [1, 1],
    [null, null],
    [
      { a: 1, b: [2] },
      { b: [2], a: 1 },
    ],
    [[], []],
  ]
  const other: readonly [unknown, unknown][] = [
    [1, 2],
    [1, '1'],
    [null, 'null'],
    ['null', null],
    [null, {}],
    [{}, null],
    [{}, '{}'],
    ['{}', {}],
    [undefined, null],
    [null, undefined],
    [{ a: 1 }, { a: 2 }],
    [
      [1, 2],
      [2, 1],
    ],
  ]
  for (const [a, b] of same) expect(sameJson(a, b)).toBe(true)
  for (const [a, b] of other) expect(sameJson(a, b)).toBe(false)
})

it('gives the numbers of mulberry32, which a stored seed must give for good', () => {
  const next = seededRandom(1)
  const integers = [next(), next(), next()].map((value) => value * 4294967296)
  expect(integers).toEqual([2693262067, 11749833, 2265367787])
  const [a, b] = [seededRandom(7), seededRandom(7)]
  expect(Array.from({ length: 20 }, a)).toEqual(Array.from({ length: 20 }, b))
})
