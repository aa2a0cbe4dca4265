import { DataSource, type MigrationInterface } from 'typeorm'
import { entities } from './entities.ts'
import type { DbAddress } from './mariadb.ts'
import { FirstTables1764000000000 } from './migrations/0001-first-tables.ts'
import { MakersAndSummaries1764200000000 } from './migrations/0002-makers-and-summaries.ts'
import { PeopleAndLinks1764300000000 } from './migrations/0003-people-and-links.ts'
import { PracticeJobs1764400000000 } from './migrations/0004-practice-jobs.ts'
import { Drafts1764500000000 } from './migrations/0005-drafts.ts'
import { CatalogueActs1764600000000 } from './migrations/0006-catalogue-acts.ts'
import { SigningKeys1764700000000 } from './migrations/0007-signing-keys.ts'
import { CatalogueVersions1764800000000 } from './migrations/0008-catalogue-versions.ts'
import { Leaflets1764900000000 } from './migrations/0009-leaflets.ts'

/** The migrations in their order; a number is never given twice. */
export const migrations = [
  FirstTables1764000000000,
  MakersAndSummaries1764200000000,
  PeopleAndLinks1764300000000,
  PracticeJobs1764400000000,
  Drafts1764500000000,
  CatalogueActs1764600000000,
  SigningKeys1764700000000,
  CatalogueVersions1764800000000,
  Leaflets1764900000000,
] as const

/** The database as it is, not yet opened. */
export function rawSource(
  address: DbAddress,
  poolSize: number,
  known: readonly (new () => MigrationInterface)[],
): DataSource {
  return new DataSource({
    type: 'mariadb',
    host: address.host,
    port: address.port,
    username: address.user,
    password: address.password,
    database: address.database,
    charset: 'utf8mb4_unicode_ci',
    timezone: 'Z',
    entities,
    migrations: [...known],
    synchronize: false,
    extra: { connectionLimit: poolSize },
  })
}

/**
 * Opens the database and brings its tables up to date; `before` is told the migrations that will run, where it holds anything
 * already.
 */
export async function openSource(
  address: DbAddress,
  poolSize = 10,
  before: (names: readonly string[]) => Promise<void> = () => Promise.resolve(),
): Promise<DataSource> {
  const source = rawSource(address, poolSize, migrations)
  await source.initialize()
  // Every transaction relies on it; the server is started with it as its default, which saves saying it each time.
  const [row] = await source.query<{ level: string }[]>('SELECT @@tx_isolation AS level')
  if (row?.level !== 'READ-COMMITTED') {
    await source.destroy()
    throw new Error(
      `The database isolates transactions as ${row?.level}; Kapelle needs READ-COMMITTED as its default (transaction-isolation).`,
    )
  }
  const had = await migrationsHad(source)
  const known = source.migrations.map((migration) => migration.name)
  const newer = had.filter((name) => !known.includes(name))
  if (newer.length > 0) {
    await source.destroy()
    throw new Error(
      `This database was used by a newer version of Kapelle (${newer.join(', ')}): update this one first. Nothing was changed.`,
    )
  }
  const due = known.filter((name): name is string => name !== undefined && !had.includes(name))
  try {
    if (had.length > 0 && due.length > 0) await before(due)
    await source.runMigrations({ transaction: 'each' })
  } catch (error) {
    await source.destroy()
    throw error
  }
  return source
}

/** Migrations that the database has had. */
async function migrationsHad(source: DataSource): Promise<string[]> {
  const [table] = await source.query<unknown[]>("SHOW TABLES LIKE 'migrations'")
  if (!table) return []
  return (await source.query<{ name: string }[]>('SELECT name FROM migrations')).map((row) => row.name)
}
