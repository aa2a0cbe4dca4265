import { randomBytes } from 'node:crypto'
import { createConnection } from 'mysql2/promise'
import type { DataSource } from 'typeorm'
import { inject } from 'vitest'
import type { DbAddress } from '../db/mariadb.ts'
import { openSource } from '../db/source.ts'

/** An address of a fresh, empty database on the run's MariaDB. */
export async function freshDatabase(): Promise<DbAddress> {
  const server = inject('db')
  const database = `kapelle_${randomBytes(6).toString('hex')}`
  const connection = await createConnection(server)
  await connection.query(`CREATE DATABASE ${database} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`)
  await connection.end()
  return { ...server, database }
}

/** A fresh database, opened and migrated. */
export async function freshSource(): Promise<DataSource> {
  return openSource(await freshDatabase())
}
