import { DataSource } from 'typeorm'
import { entities } from './entities.ts'
import type { DbAddress } from './mariadb.ts'
import { FirstTables1764000000000 } from './migrations/0001-first-tables.ts'

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
    migrations: [FirstTables1764000000000],
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
  await source.runMigrations({ transaction: 'each' })
  return source
}
