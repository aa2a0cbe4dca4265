import { DataSource } from 'typeorm'
import { entities } from './entities.ts'
import type { DbAddress } from './mariadb.ts'
import { FirstTables1764000000000 } from './migrations/0001-first-tables.ts'
import { MakersAndSummaries1764200000000 } from './migrations/0002-makers-and-summaries.ts'

/** Opens the database and brings its tables up to date. */
export async function openSource(address: DbAddress, poolSize = 10): Promise<DataSource> {
  const source = new DataSource({
    type: 'mariadb',
    host: address.host,
    port: address.port,
    username: address.user,
    password: address.password,
    database: address.database,
    charset: 'utf8mb4_unicode_ci',
    timezone: 'Z',
    entities,
    migrations: [FirstTables1764000000000, MakersAndSummaries1764200000000],
    synchronize: false,
    extra: { connectionLimit: poolSize },
  })
  await source.initialize()
  // Every transaction relies on it; the server is started with it as its default, which saves saying it each time.
  const [row] = await source.query<{ level: string }[]>('SELECT @@tx_isolation AS level')
  if (row?.level !== 'READ-COMMITTED') {
    await source.destroy()
    throw new Error(
      `The database isolates transactions as ${row?.level}; Kapelle needs READ-COMMITTED as its default (transaction-isolation).`,
    )
  }
  const newer = await newerMigrations(source)
  if (newer.length > 0) {
    await source.destroy()
    throw new Error(
      `This database was used by a newer version of Kapelle (${newer.join(', ')}): update this one first. Nothing was changed.`,
    )
  }
  await source.runMigrations({ transaction: 'each' })
  return source
}

/** Migrations that the database has had and this build does not know. */
async function newerMigrations(source: DataSource): Promise<string[]> {
  const [table] = await source.query<unknown[]>("SHOW TABLES LIKE 'migrations'")
  if (!table) return []
  const rows = await source.query<{ name: string }[]>('SELECT name FROM migrations')
  const known = new Set(source.migrations.map((migration) => migration.name))
  return rows.map((row) => row.name).filter((name) => !known.has(name))
}
