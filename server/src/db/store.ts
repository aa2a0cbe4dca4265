import type { DataSource } from 'typeorm'
import { AttemptStore } from './attempts.ts'
import { Batches } from './batches.ts'
import { DocumentCache } from './cache.ts'
import { DraftStore } from './drafts.ts'
import { CatalogueStore } from './catalogue.ts'
import { Job } from './entities.ts'
import { KeyStore } from './keys.ts'
import { LeafletStore } from './leaflets.ts'
import { JobStore, type Take, type Taken } from './jobs.ts'
import { Later } from './later.ts'
import { LinkStore } from './links.ts'
import { PeopleStore } from './people.ts'
import { SettingsStore } from './settings.ts'
import { SummaryRows } from './summaries.ts'

/** Everything kept in the database. What belongs to a firm is reached only through that firm's own store. */
export interface Store {
  readonly people: PeopleStore
  readonly links: LinkStore
  readonly attempts: AttemptStore
  jobsOf(firmId: string): JobStore
  catalogueOf(firmId: string): CatalogueStore
  draftsOf(firmId: string): DraftStore
  leafletsOf(firmId: string): LeafletStore
  settingsOf(firmId: string): SettingsStore
  keysOf(firmId: string): KeyStore
  readonly summaries: SummaryRows
  /** Revisions now of these jobs, by `firm|job`; a job that is gone is missing. */
  revisions(keys: readonly { firmId: string; jobId: string }[]): Promise<Map<string, number>>
  /** Whether the database answers, in the tables of this build. */
  answers(): Promise<boolean>
  /** Does work while no other process on this database does the like by the same name; gives null where one does. */
  alone<T>(name: string, work: () => Promise<T>): Promise<T | null>
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
    links: new LinkStore(source),
    attempts: new AttemptStore(source),
    jobsOf: (firmId) => new JobStore(source, firmId, cache, takes, later),
    catalogueOf: (firmId) => new CatalogueStore(source, firmId),
    draftsOf: (firmId) => new DraftStore(source, firmId),
    leafletsOf: (firmId) => new LeafletStore(source, firmId),
    settingsOf: (firmId) => new SettingsStore(source, firmId),
    keysOf: (firmId) => new KeyStore(source, firmId),
    summaries: new SummaryRows(source, build),
    async revisions(keys) {
      if (keys.length === 0) return new Map()
      const rows = await source.getRepository(Job).find({
        where: keys.map((key) => ({ firmId: key.firmId, id: key.jobId })),
        select: { firmId: true, id: true, revision: true },
      })
      return new Map(rows.map((row) => [`${row.firmId}|${row.id}`, row.revision]))
    },
    async answers() {
      const [row] = await source.query<{ name: string }[]>(
        'SELECT name FROM migrations ORDER BY id DESC LIMIT 1',
      )
      return row?.name === source.migrations.at(-1)?.name
    },
    async alone(name, work) {
      const runner = source.createQueryRunner()
      try {
        const [row] = (await runner.query('SELECT GET_LOCK(CONCAT(DATABASE(), ?), 0) AS got', [
          `.${name}`,
        ])) as { got: number | string | null }[]
        if (Number(row?.got) !== 1) return null
        try {
          return await work()
        } finally {
          await runner.query('SELECT RELEASE_LOCK(CONCAT(DATABASE(), ?))', [`.${name}`])
        }
      } finally {
        await runner.release()
      }
    },
    async close() {
      await later.settled()
      await source.destroy()
    },
  }
}
