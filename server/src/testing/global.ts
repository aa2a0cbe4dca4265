import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { TestProject } from 'vitest/node'
import { startMariaDb, type DbAddress } from '../db/mariadb.ts'

declare module 'vitest' {
  interface ProvidedContext {
    db: DbAddress
  }
}

/** One throw-away MariaDB for a whole test run; each test file makes databases of its own in it. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const dir = mkdtempSync(join(tmpdir(), 'kapelle-test-'))
  const server = await startMariaDb(dir)
  const { host, port, user, password, database } = server
  project.provide('db', { host, port, user, password, database })
  return async () => {
    await server.stop()
    rmSync(dir, { recursive: true, force: true })
  }
}
