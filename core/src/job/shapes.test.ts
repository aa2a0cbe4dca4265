import { expect, it } from 'vitest'
import { z } from 'zod'
import { hashOf } from '../units/canonical.ts'
import { jobRecords, SCHEMA } from './records.ts'
import { shapeHash, shapes } from './shapes.ts'
import { upgrades } from './upgrades.ts'

const shapeOf = (type: string): string => {
  const schema = jobRecords.schemas[type]
  if (!schema) throw new Error(type)
  return hashOf(z.toJSONSchema(schema)).slice(0, 16)
}

it('no record type changes without a new number', () => {
  const now = Object.fromEntries(Object.keys(jobRecords.types).map((type) => [type, shapeOf(type)]))
  const told = Object.fromEntries(Object.keys(jobRecords.types).map((type) => [type, shapeHash(type)]))
  expect(told).toEqual(now)
})

it('the numbers follow each other, and each has its step', () => {
  expect(shapes.map((shape) => shape.schema)).toEqual(Array.from({ length: SCHEMA }, (_, index) => index + 1))
  expect(upgrades.map((step) => step.to)).toEqual(shapes.slice(1).map((shape) => shape.schema))
})

it('a shape is told apart by its fields, their limits and their forms', () => {
  const hash = (shape: z.ZodType): string => hashOf(z.toJSONSchema(shape))
  const base = z.strictObject({ a: z.number().min(1).max(9) })
  expect(
    new Set([
      hash(base),
      hash(z.strictObject({ a: z.number().min(1).max(8) })),
      hash(z.strictObject({ a: z.number().min(1).max(9), b: z.string() })),
      hash(z.strictObject({ a: z.number().min(1).max(9).nullable() })),
      hash(z.strictObject({ a: z.string().regex(/^x$/) })),
    ]).size,
  ).toBe(5)
})
