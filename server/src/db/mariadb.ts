import { execFileSync, spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, openSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { userInfo } from 'node:os'
import { join, resolve } from 'node:path'
import { createConnection } from 'mysql2/promise'

/** How to reach a running database server. */
export interface DbAddress {
  readonly host: string
  readonly port: number
  readonly user: string
  readonly password: string
  readonly database: string
}

/** A database server that this process started or took over. */
export interface DbServer extends DbAddress {
  readonly pid: number
  /** Ends the server and waits until it has written everything. */
  stop(): Promise<void>
}

/**
 * Starts MariaDB on loopback with its data below `dir`, made on first use. One left running there by a killed launcher
 * is found by its pid file and taken over. Throws an Error with what to do when the server cannot start.
 */
export async function startMariaDb(dir: string): Promise<DbServer> {
  const home = resolve(dir)
  mkdirSync(home, { recursive: true, mode: 0o700 })
  const running = runningServer(home)
  if (running && (await answers(running))) return withStop(running, home)
  if (running) await endProcess(running.pid)
  const data = join(home, 'data')
  const me = userInfo().username
  if (!existsSync(join(data, 'mysql'))) install(data, me)
  const address: DbAddress = {
    host: '127.0.0.1',
    port: await freePort(),
    user: 'kapelle',
    password: randomBytes(24).toString('base64url'),
    database: 'kapelle',
  }
  const init = join(home, 'init.sql')
  writeFileSync(init, initSql(address), { mode: 0o600 })
  const log = openSync(join(home, 'mariadbd.log'), 'a', 0o600)
  const child = spawn(findDaemon(), daemonOptions(home, address.port, init, me), {
    stdio: ['ignore', log, log],
    detached: true,
  })
  let failure: Error | null = null
  child.on('error', (error) => (failure = error))
  child.unref()
  writeFileSync(join(home, 'connection.json'), JSON.stringify(address), { mode: 0o600 })
  for (let attempt = 0; attempt < 300; attempt++) {
    if (failure || child.exitCode !== null) break
    if (await answers(address)) {
      rmSync(init, { force: true })
      return withStop({ ...address, pid: child.pid ?? 0 }, home)
    }
    await new Promise((done) => setTimeout(done, 100))
  }
  throw new Error(`MariaDB did not start; its last words are in ${join(home, 'mariadbd.log')}`)
}

/** Address and process of the server below `dir`, or null when none is running there. */
export function runningServer(dir: string): (DbAddress & { pid: number }) | null {
  const pidFile = join(resolve(dir), 'db.pid')
  const connection = join(resolve(dir), 'connection.json')
  if (!existsSync(pidFile) || !existsSync(connection)) return null
  const pid = Number(readFileSync(pidFile, 'utf8').trim())
  if (!isAlive(pid) || !isDaemon(pid)) return null
  return { ...(JSON.parse(readFileSync(connection, 'utf8')) as DbAddress), pid }
}

/** Asks a process to end and waits up to 30 seconds for it. */
export async function endProcess(pid: number): Promise<void> {
  if (!isAlive(pid)) return
  process.kill(pid, 'SIGTERM')
  for (let attempt = 0; attempt < 300 && isAlive(pid); attempt++)
    await new Promise((done) => setTimeout(done, 100))
}

/** A port of this machine that is free now. */
export function freePort(): Promise<number> {
  return new Promise((done, fail) => {
    const probe = createServer()
    probe.on('error', fail)
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address()
      probe.close(() =>
        typeof address === 'object' && address ? done(address.port) : fail(new Error('no free port')),
      )
    })
  })
}

function withStop(address: DbAddress & { pid: number }, home: string): DbServer {
  return {
    ...address,
    async stop() {
      await endProcess(address.pid)
      rmSync(join(home, 'connection.json'), { force: true })
    },
  }
}

function install(data: string, user: string): void {
  mkdirSync(data, { recursive: true, mode: 0o700 })
  execFileSync(
    'mariadb-install-db',
    [
      '--no-defaults',
      '--auth-root-authentication-method=socket',
      `--auth-root-socket-user=${user}`,
      '--skip-test-db',
      `--datadir=${data}`,
      `--user=${user}`,
    ],
    { stdio: 'pipe' },
  )
}

function daemonOptions(home: string, port: number, init: string, user: string): string[] {
  return [
    '--no-defaults',
    `--datadir=${join(home, 'data')}`,
    '--bind-address=127.0.0.1',
    `--port=${port}`,
    `--socket=${join(home, 'db.sock')}`,
    `--pid-file=${join(home, 'db.pid')}`,
    `--init-file=${init}`,
    '--skip-name-resolve',
    '--character-set-server=utf8mb4',
    '--collation-server=utf8mb4_unicode_ci',
    '--transaction-isolation=READ-COMMITTED',
    '--default-time-zone=+00:00',
    '--innodb-lock-wait-timeout=5',
    '--max-connections=300',
    `--user=${user}`,
  ]
}

function initSql(address: DbAddress): string {
  const account = `'${address.user}'@'127.0.0.1'`
  return [
    `CREATE DATABASE IF NOT EXISTS ${address.database} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;`,
    `CREATE USER IF NOT EXISTS ${account} IDENTIFIED BY '${address.password}';`,
    `ALTER USER ${account} IDENTIFIED BY '${address.password}';`,
    `GRANT ALL PRIVILEGES ON \`${address.database}%\`.* TO ${account};`,
    '',
  ].join('\n')
}

function findDaemon(): string {
  return (
    ['/usr/sbin/mariadbd', '/usr/bin/mariadbd', '/usr/local/sbin/mariadbd'].find(existsSync) ?? 'mariadbd'
  )
}

async function answers(address: DbAddress): Promise<boolean> {
  try {
    const connection = await createConnection({ ...address, connectTimeout: 2000 })
    await connection.end()
    return true
  } catch {
    return false
  }
}

function isAlive(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return pid > 0
  } catch {
    return false
  }
}

/** Guards against a pid file whose number another program has been given since. */
function isDaemon(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/comm`, 'utf8').startsWith('mariadbd')
  } catch {
    return false
  }
}
