import { randomUUID } from 'node:crypto'
import { blankJob, SCHEMA, type Edit, type Op } from '#core'

/** An edit as a page sends it, by nobody in particular. */
export function benchEdit(ops: readonly Op[], kind = 'bench.edit'): Edit {
  return {
    id: randomUUID(),
    kind,
    schema: SCHEMA,
    by: { id: null, name: 'Ann' },
    madeAt: new Date().toISOString(),
    ops,
  }
}

/** The first record of a job that holds next to nothing. */
export function smallJob(n: number) {
  return {
    ...blankJob,
    id: 'job:main',
    name: `Small ${n}`,
    region: 'europe',
    kind: 'new',
    monitored: true,
    grade: 2,
    airSeed: n,
  } as const
}
