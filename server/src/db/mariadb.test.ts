import { spawn } from 'node:child_process'
import { once } from 'node:events'
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createConnection } from 'mysql2/promise'
import { afterAll, describe, expect, it } from 'vitest'
import {
  daemonPid,
  endProcess,
  freePort,
  runningServer,
  startMariaDb,
  whyNot,
  writeWhole,
  type DbServer,
} from './mariadb.ts'

const dir = mkdtempSync(join(tmpdir(), 'kapelle-test-db-'))
const home = join(dir, 'db')
afterAll(() => rmSync(dir, { recursive: true, force: true }))

const mode = (file: string): string => (statSync(file).mode & 0o777).toString(8)

describe('a database of one’s own', () => {
  let server: DbServer | null = null
  afterAll(() => server?.stop(), 60_000)
  const log = join(home, 'mariadbd.log')
  const shared = join(dir, 'shared')
  const ofAnother = join(shared, '#sql-temptable-1-1-1.MAI')

  /** The server, started where no test before has: each test stands alone. */
  async function started(): Promise<DbServer> {
    if (server) return server
    if (existsSync(join(home, 'data', 'mysql'))) return (server = await startMariaDb(home))
    // What a killed start left half-made stands in nobody's way.
    mkdirSync(join(home, 'data.making-1'), { recursive: true })
    mkdirSync(join(home, 'data'), { recursive: true })
    writeFileSync(join(home, 'data', 'ibdata1'), 'half')
    writeFileSync(log, 'old words\n')
    truncateSync(log, 10_000_001)
    // What another database of this machine is working on, in the folder that all may use.
    mkdirSync(shared)
    writeFileSync(ofAnother, 'theirs')
    const before = process.env['TMPDIR']
    process.env['TMPDIR'] = shared
    try {
      return (server = await startMariaDb(home))
    } finally {
      if (before === undefined) delete process.env['TMPDIR']
      else process.env['TMPDIR'] = before
    }
  }

  const query = async (sql: string): Promise<Record<string, unknown>[]> => {
    const { host, port, user, password, database } = await started()
    const connection = await createConnection({ host, port, user, password, database })
    try {
      const [rows] = await connection.query(sql)
      return rows as Record<string, unknown>[]
    } finally {
      await connection.end()
    }
  }

  it('is made whole, on loopback, for its owner only', async () => {
    const { host, user, database, password, pid } = await started()
    expect([host, user, database]).toEqual(['127.0.0.1', 'kapelle', 'kapelle'])
    expect(readdirSync(home).filter((name) => name.includes('making') || name === 'init.sql')).toEqual([])
    expect(existsSync(join(home, 'data', 'mysql'))).toBe(true)
    expect(['connection.json', 'mariadbd.log'].map((name) => mode(join(home, name)))).toEqual(['600', '600'])
    expect(statSync(`${log}.1`).size).toBe(10_000_001)
    expect(readFileSync(log, 'utf8')).toContain('ready for connections')
    expect(password.length).toBeGreaterThan(30)
    // A group of its own: what ends the launcher at the keyboard leaves the database to be ended in order.
    expect(readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]?.split(' ')[2]).toBe(String(pid))
    const [row] = await query(
      'SELECT @@bind_address AS bind, @@tx_isolation AS isolation, @@time_zone AS zone, @@max_connections AS most, @@innodb_lock_wait_timeout AS waits, @@collation_server AS collation',
    )
    expect(row).toEqual({
      ...{ bind: '127.0.0.1', isolation: 'READ-COMMITTED', zone: '+00:00', most: 300, waits: 5 },
      collation: 'utf8mb4_unicode_ci',
    })
    // It may make its own databases, and none beside them.
    await query('CREATE DATABASE kapelle_more')
    await query('DROP DATABASE kapelle_more')
    await expect(query('CREATE DATABASE somebody')).rejects.toThrow()
  }, 60_000)

  it('leaves what another database of this machine is working on', async () => {
    await started()
    expect(readFileSync(ofAnother, 'utf8')).toBe('theirs')
  }, 60_000)

  it('is found by its process and taken over by a second start, which is told when it ends', async () => {
    const first = await started()
    expect(daemonPid(home)).toBe(first.pid)
    expect(runningServer(home)).toMatchObject({
      pid: first.pid,
      port: first.port,
      password: first.password,
    })
    const second = await startMariaDb(home)
    expect([second.pid, second.port]).toEqual([first.pid, first.port])
    const later = new Promise<string>((done) => setTimeout(() => done('still running'), 700))
    expect(await Promise.race([second.ended, later])).toBe('still running')
    server = null
    await first.stop()
    expect(await second.ended).toBe('ended')
    expect(await first.ended).toMatch(/^ended (with 0|by SIGTERM)$/)
    expect([daemonPid(home), runningServer(home), existsSync(join(home, 'db.pid'))]).toEqual([
      null,
      null,
      false,
    ])
  }, 60_000)

  it('has its port again where that is asked for, and its password always; its log goes on while it is small', async () => {
    const { port, password, ...before } = await started()
    await before.stop()
    writeFileSync(log, '')
    truncateSync(log, 10_000_000)
    server = await startMariaDb(home, true)
    expect({ port: server.port, password: server.password }).toEqual({ port, password })
    expect(statSync(log).size).toBeGreaterThan(10_000_000)
    await server.stop()
    rmSync(log)
    server = await startMariaDb(home)
    expect([server.port === port, server.password]).toEqual([false, password])
    expect(statSync(`${log}.1`).size).toBe(10_000_001)
    expect(await query('SELECT 1 AS one')).toEqual([{ one: 1 }])
  }, 60_000)

  it('is ended and started anew where it does not answer by what is kept of it', async () => {
    const first = await started()
    const file = join(home, 'connection.json')
    const kept = JSON.parse(readFileSync(file, 'utf8')) as Record<string, unknown>
    for (const damaged of [{ port: '3306' }, { password: 7 }, { port: null, password: null }]) {
      writeFileSync(file, JSON.stringify({ ...kept, ...damaged }))
      expect(runningServer(home)).toBeNull()
    }
    writeFileSync(file, JSON.stringify({ ...kept, password: 'another one' }))
    server = await startMariaDb(home)
    expect([server.pid === first.pid, server.password]).toEqual([false, 'another one'])
    expect(await first.ended).toMatch(/^ended /)
    expect(await query('SELECT 3 AS three')).toEqual([{ three: 3 }])
  }, 60_000)

  it('is not started where its port is taken: the reason stands, and nothing is left running', async () => {
    const first = await started()
    await first.stop()
    server = null
    // What an earlier start said of itself is not this one's reason.
    writeFileSync(log, 'No space left on device\n')
    const squatter = createServer().listen(first.port, '127.0.0.1')
    await once(squatter, 'listening')
    await expect(startMariaDb(home, true)).rejects.toThrow(
      'The database did not start; its last words are in',
    )
    expect(daemonPid(home)).toBeNull()
    squatter.close()
    await once(squatter, 'close')
    server = await startMariaDb(home)
    expect(await query('SELECT 2 AS two')).toEqual([{ two: 2 }])
  }, 60_000)
})

describe('what is left in a folder', () => {
  const folder = (name: string, files: Readonly<Record<string, string>>): string => {
    const made = join(dir, name)
    mkdirSync(made)
    for (const [file, text] of Object.entries(files)) writeFileSync(join(made, file), text)
    return made
  }

  it('is no database where the process is another program, gone, or nothing at all', async () => {
    const other = spawn('sleep', ['30'])
    const of = (pid: string) => daemonPid(folder(`pid-${pid.trim() || 'none'}`, { 'db.pid': pid }))
    expect([of(`${other.pid}\n`), of('0'), of(''), of('-1'), of('999999999')]).toEqual([
      null,
      null,
      null,
      null,
      null,
    ])
    const damaged = folder('damaged', {
      'connection.json': '{"port":"x","password":1}',
      'db.pid': String(other.pid),
    })
    expect([runningServer(damaged), daemonPid(join(dir, 'nowhere'))]).toEqual([null, null])
    const gone = once(other, 'exit')
    await endProcess(other.pid ?? 0)
    await gone
    await endProcess(other.pid ?? 0)
    expect(other.signalCode).toBe('SIGTERM')
  })

  it('is waited for until its process has ended', async () => {
    const slow = spawn('sh', ['-c', 'trap "sleep 0.5; exit 3" TERM; echo up; while :; do sleep 0.05; done'])
    await once(slow.stdout, 'data')
    const gone = once(slow, 'exit')
    await endProcess(slow.pid ?? 0)
    expect(await Promise.race([gone, new Promise((done) => setTimeout(() => done('late'), 200))])).toEqual([
      3,
      null,
    ])
  })

  it('is written whole, for its owner only, and its draft goes', () => {
    const made = folder('whole', { 'a.json': 'before' })
    writeWhole(join(made, 'a.json'), 'after')
    expect([
      readFileSync(join(made, 'a.json'), 'utf8'),
      mode(join(made, 'a.json')),
      readdirSync(made),
    ]).toEqual([...['after', '600', ['a.json']]])
  })

  it('gives a port that is free', async () => {
    const port = await freePort()
    const probe = createServer().listen(port, '127.0.0.1')
    await once(probe, 'listening')
    probe.close()
    expect(port).toBeGreaterThan(1023)
  })
})

it.each([
  ['[ERROR] InnoDB: No space left on device', 'The disk is full'],
  ['errno: 28', 'The disk is full'],
  ['OS errno: 13 - Permission denied', 'give this user the right to /data/db'],
  ["Can't lock aria control file", 'Another database uses the same data'],
  ['InnoDB: Unable to lock ./ibdata1 error: 11', 'Another database uses the same data'],
  ['[ERROR] Aborting', 'its last words are in /data/db/mariadbd.log'],
])('“%s” is told as “%s”', (log, said) => {
  expect(whyNot(log, '/data/db/mariadbd.log')).toContain(said)
})
