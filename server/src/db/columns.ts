import type { EntitySchemaColumnOptions } from 'typeorm'

/** A column of signs of ASCII alone, compared sign by sign. */
export const ascii = (
  length: number,
  extra: Partial<EntitySchemaColumnOptions> = {},
): EntitySchemaColumnOptions => ({
  type: 'varchar',
  length,
  charset: 'ascii',
  collation: 'ascii_bin',
  ...extra,
})
/** A column of words of any writing. */
export const words = (length: number): EntitySchemaColumnOptions => ({ type: 'varchar', length })
/** A column of a moment, to the millisecond. */
export const time = (name: string): EntitySchemaColumnOptions => ({ type: 'datetime', precision: 3, name })
