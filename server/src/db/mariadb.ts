import { execFileSync, spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import {
  closeSync,
  existsSync,
  fchmodSync,
  fstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { userInfo } from 'node:os'
import { basename, dirname, join, resolve } from 'node:path'
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
  /** Fulfilled with how it ended, once it has. */
  readonly ended: Promise<string>
  /** Ends the server and waits until it has written everything. */
  stop(): Promise<void>
}

/** How often a server that is no child of this process is looked after, milliseconds. */
const WATCH_MS = 300

/**
 * Starts MariaDB on loopback with its data below `dir`, made on first use. One left running there by a killed launcher
 * is found by its pid file and taken over. Its password is made once; its port is a free one, or with `again` the one it had,
 * so that those who use it find it again. Throws an Error with what to do when the server cannot start.
 */
export async function startMariaDb(dir: string, again = false): Promise<DbServer> {
  const home = resolve(dir)
  mkdirSync(home, { recursive: true, mode: 0o700 })
  const running = runningServer(home)
  if (running && (await answers(running))) return served(running, home, null)
  if (running) await endProcess(running.pid)
  const data = join(home, 'data')
  const me = userInfo().username
  const scratch = join(home, 'tmp')
  mkdirSync(scratch, { recursive: true, mode: 0o700 })
  install(data, me, scratch)
  const before = connectionOf(home)
  const address: DbAddress = {
    host: '127.0.0.1',
    port: again && before ? before.port : await freePort(),
    user: 'kapelle',
    password: before?.password ?? randomBytes(24).toString('base64url'),
    database: 'kapelle',
  }
  const init = join(home, 'init.sql')
  writeWhole(init, initSql(address))
  writeWhole(join(home, 'connection.json'), JSON.stringify(address))
  const logFile = join(home, 'mariadbd.log')
  if (existsSync(logFile) && statSync(logFile).size > LOG_MOST) renameSync(logFile, `${logFile}.1`)
  const log = openSync(logFile, 'a', 0o600)
  fchmodSync(log, 0o600)
  const from = fstatSync(log).size
  const child = spawn(findDaemon(), daemonOptions(home, address.port, init, me), {
    stdio: ['ignore', log, log],
    detached: true,
  })
  closeSync(log)
  let failure: Error | null = null
  child.on('error', (error) => (failure = error))
  const ended = new Promise<string>((done) =>
    child.once('exit', (code, signal) => done(signal ? `ended by ${signal}` : `ended with ${code}`)),
  )
  child.unref()
  for (let attempt = 0; attempt < 1200; attempt++) {
    if (failure || child.exitCode !== null || child.signalCode !== null) break
    if (await answers(address)) {
      rmSync(init, { force: true })
      return served({ ...address, pid: child.pid ?? 0 }, home, ended)
    }
    await new Promise((done) => setTimeout(done, 100))
  }
  if (child.pid !== undefined && child.exitCode === null && child.signalCode === null)
    await endProcess(child.pid)
  throw new Error(whyNot(readFileSync(logFile, 'utf8').slice(from), logFile))
}

/** Size from which the database's own log is begun anew, bytes; the one before is kept. */
const LOG_MOST = 10_000_000

/** What a database that did not start says of itself, as one line that tells what to do. */
export function whyNot(log: string, file: string): string {
  if (/No space left|disk full|errno: 28|error 28/i.test(log))
    return 'The disk is full: the database cannot start. Make room, then start again; nothing was changed.'
  if (/Permission denied|errno: 13|error 13/i.test(log))
    return `The database may not write where its data is: give this user the right to ${dirname(file)}, then start again.`
  if (/Can't lock aria control file|Unable to lock .*ibdata1/i.test(log))
    return 'Another database uses the same data. End it first (./kapelle stop), then start again.'
  return `The database did not start; its last words are in ${file}`
}

/** Writes a small file whole or not at all, for its owner only. */
export function writeWhole(file: string, text: string): void {
  const draft = `${file}.${process.pid}`
  writeFileSync(draft, text, { mode: 0o600 })
  renameSync(draft, file)
}

/** Where the database below `dir` is reached, or was last; null when none ever was or the file is damaged. */
function connectionOf(home: string): DbAddress | null {
  try {
    const address = JSON.parse(readFileSync(join(home, 'connection.json'), 'utf8')) as DbAddress
    return typeof address.port === 'number' && typeof address.password === 'string' ? address : null
  } catch {
    return null
  }
}

/** Address and process of the server below `dir`, or null when none is running there. */
export function runningServer(dir: string): (DbAddress & { pid: number }) | null {
  const address = connectionOf(resolve(dir))
  const pid = daemonPid(dir)
  return address && pid !== null ? { ...address, pid } : null
}

/** Process of the database server below `dir`, whatever else of the folder is left; null when none runs there. */
export function daemonPid(dir: string): number | null {
  try {
    const pid = Number(readFileSync(join(resolve(dir), 'db.pid'), 'utf8').trim())
    return isAlive(pid) && isDaemon(pid, resolve(dir)) ? pid : null
  } catch {
    return null
  }
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

function served(address: DbAddress & { pid: number }, home: string, own: Promise<string> | null): DbServer {
  let stopped = false
  const watched = async (): Promise<string> => {
    while (!stopped && isAlive(address.pid)) await new Promise((done) => setTimeout(done, WATCH_MS).unref())
    return 'ended'
  }
  return {
    ...address,
    ended: own ?? watched(),
    async stop() {
      stopped = true
      await endProcess(address.pid)
      rmSync(join(home, 'db.pid'), { force: true })
    },
  }
}

/** Room that a new database needs, bytes: its own tables and logs take half of it at once. */
const ROOM_FOR_NEW = 250_000_000

/** Makes the database's own tables beside their place and moves them there whole: a half-made folder is made again. */
function install(data: string, user: string, scratch: string): void {
  // A start that was killed may have left its making of the tables running: each has a draft of its own.
  for (const name of readdirSync(dirname(data)))
    if (name.startsWith(`${basename(data)}.making`)) removeIfStill(join(dirname(data), name))
  if (existsSync(join(data, 'mysql'))) return
  // Left half-made by an earlier build: there is nothing of anybody's in it.
  if (existsSync(data) && !existsSync(join(data, 'kapelle'))) rmSync(data, { recursive: true, force: true })
  const { bavail, bsize } = statfsSync(dirname(data))
  if (bavail * bsize < ROOM_FOR_NEW)
    throw new Error(
      `The disk has only ${Math.floor((bavail * bsize) / 1e6)} MB of room, and a new database needs ${ROOM_FOR_NEW / 1e6} MB: make room, then start again.`,
    )
  const draft = `${data}.making-${process.pid}`
  mkdirSync(draft, { recursive: true, mode: 0o700 })
  try {
    execFileSync(
      'mariadb-install-db',
      [
        '--no-defaults',
        '--auth-root-authentication-method=socket',
        `--auth-root-socket-user=${user}`,
        '--skip-test-db',
        `--datadir=${draft}`,
        `--user=${user}`,
      ],
      { stdio: 'pipe', env: { ...process.env, TMPDIR: scratch } },
    )
  } catch (error) {
    const said = error instanceof Error && 'stderr' in error ? String(error.stderr) : String(error)
    throw new Error(
      /No space left|errno: 28/i.test(said)
        ? 'The disk is full: the database could not be made. Make room, then start again.'
        : `The database could not be made: ${said.trim().split('\n').at(-1)}`,
      { cause: error },
    )
  }
  renameSync(draft, data)
}

/** Removes a half-made draft; one that is still written to goes at the next start of a new folder. */
function removeIfStill(draft: string): void {
  try {
    rmSync(draft, { recursive: true, force: true, maxRetries: 5, retryDelay: 100 })
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOTEMPTY') throw error
  }
}

function daemonOptions(home: string, port: number, init: string, user: string): string[] {
  return [
    '--no-defaults',
    `--datadir=${join(home, 'data')}`,
    // A database that starts clears its scratch folder of what it takes for its own: in one that is shared, those of others.
    `--tmpdir=${join(home, 'tmp')}`,
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
    const { host, port, user, password, database } = address
    const connection = await createConnection({ host, port, user, password, database, connectTimeout: 2000 })
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

/** Guards against a pid file whose number another program has been given since, another database among them. */
function isDaemon(pid: number, home: string): boolean {
  try {
    const words = readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0')
    return words[0]?.includes('mariadbd') === true && words.includes(`--datadir=${join(home, 'data')}`)
  } catch {
    return false
  }
}
