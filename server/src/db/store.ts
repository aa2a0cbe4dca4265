import type { DataSource } from 'typeorm'
import { Batches } from './batches.ts'
import { DocumentCache } from './cache.ts'
import { CatalogueStore } from './catalogue.ts'
import { Job } from './entities.ts'
import { JobStore, type Take, type Taken } from './jobs.ts'
import { Later } from './later.ts'
import { PeopleStore } from './people.ts'
import { SettingsStore } from './settings.ts'
import { SummaryRows } from './summaries.ts'

/** Everything kept in the database. What belongs to a firm is reached only through that firm's own store. */
export interface Store {
  readonly people: PeopleStore
  jobsOf(firmId: string): JobStore
  catalogueOf(firmId: string): CatalogueStore
  settingsOf(firmId: string): SettingsStore
  readonly summaries: SummaryRows
  /** Revisions now of these jobs, by `firm|job`; a job that is gone is missing. */
  revisions(keys: readonly { firmId: string; jobId: string }[]): Promise<Map<string, number>>
  close(): Promise<void>
}

/** Opens the stores over an open database; `tell` hears of what failed though nobody waited for it. */
export function createStore(
  source: DataSource,
  tell: (error: unknown) => void = () => undefined,
  build = 'dev',
): Store {
  const cache = new DocumentCache()
  const takes = new Batches<Take, Taken>()
  const later = new Later(tell)
  return {
    people: new PeopleStore(source),
    jobsOf: (firmId) => new JobStore(source, firmId, cache, takes, later),
    catalogueOf: (firmId) => new CatalogueStore(source, firmId),
    settingsOf: (firmId) => new SettingsStore(source, firmId),
    summaries: new SummaryRows(source, build),
    async revisions(keys) {
      if (keys.length === 0) return new Map()
      const rows = await source.getRepository(Job).find({
        where: keys.map((key) => ({ firmId: key.firmId, id: key.jobId })),
        select: { firmId: true, id: true, revision: true },
      })
      return new Map(rows.map((row) => [`${row.firmId}|${row.id}`, row.revision]))
    },
    async close() {
      await later.settled()
      await source.destroy()
    },
  }
}
