import { execFile, spawn, type ChildProcess } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { daemonPid, freePort, runningServer, whyNot } from '../db/mariadb.ts'
import { programFile } from '../program.mjs'
import { anEdit, TestClient } from '../testing/client.ts'
import { folderTrouble, holderOf } from './lock.ts'
import { databaseFolder, logFile, startProduct, type Product } from './product.ts'

const launcher = programFile('launch')
let data: string
let running: Product[]
beforeEach(() => {
  data = mkdtempSync(join(tmpdir(), 'kapelle-product-'))
  running = []
})
afterEach(async () => {
  for (const product of running) await product.stop()
  rmSync(data, { recursive: true, force: true })
})

async function start(demo = false, told: string[] = []): Promise<Product> {
  const product = await startProduct({ data, port: 0, demo, tell: (what) => told.push(what) })
  running.push(product)
  return product
}

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))
const ready = async (url: string): Promise<boolean> =>
  (await fetch(`${url}/api/ready`).catch(() => null))?.status === 200
async function until(what: () => Promise<boolean> | boolean): Promise<void> {
  for (let turn = 0; turn < 600; turn++) {
    if (await what()) return
    await pause(100)
  }
  throw new Error('it never came to be')
}

async function firstFirm(product: Product): Promise<TestClient> {
  const client = new TestClient(product.url)
  const made = await client.call('POST', '/api/setup', {
    token: product.setUp?.split('#')[1],
    firm: 'Brook Alarms',
    name: 'Ann Reed',
    login: 'ann',
    password: 'correct-horse-9',
  })
  expect(made.status).toBe(200)
  client.me = { id: String(made.body.id), name: String(made.body.name) }
  return client
}

/** Runs a command of the launcher on this data. */
function command(...words: string[]): Promise<{ code: number; out: string; err: string }> {
  return new Promise((done) =>
    execFile(process.execPath, [launcher, ...words, '--data', data], (error, out, err) =>
      done({ code: typeof error?.code === 'number' ? error.code : 0, out, err }),
    ),
  )
}

describe('what runs', () => {
  it('comes back on the same addresses when database or server are killed, and nothing answered is lost', async () => {
    const told: string[] = []
    const product = await start(false, told)
    const ann = await firstFirm(product)
    const job = await ann.beginJob()
    const [before, address] = [product.pids(), runningServer(databaseFolder(data))]
    process.kill(before.database, 'SIGKILL')
    // Meanwhile the answer is 503 and when to come again, never 500.
    const seen = new Set<number>()
    let retry: string | null = null
    await until(async () => {
      const answer = await ann.call('GET', `/api/jobs/${job}/edits?since=0`)
      seen.add(answer.status)
      if (answer.status === 503) retry = answer.headers.get('retry-after')
      return seen.has(503) && answer.status === 200
    })
    expect([...seen].sort()).toEqual([200, 503])
    expect(retry).toBe('2')
    const again = runningServer(databaseFolder(data))
    expect([again?.port, again?.password]).toEqual([address?.port, address?.password])
    expect(again?.pid).not.toBe(before.database)
    process.kill(product.pids().server, 'SIGKILL')
    await until(async () => product.pids().server !== before.server && (await ready(product.url)))
    const edit = anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }])
    expect((await ann.send(job, edit)).status).toBe(200)
    expect((await ann.call('GET', `/api/jobs/${job}`)).body.revision).toBe(2)
    // A server may be killed before it is said that the database runs: who is kept says so for itself.
    await until(() => told.filter((line) => line.endsWith('runs again')).length === 2)
    const said = (part: string) => told.filter((line) => line.startsWith(part))
    expect(said('the database')).toEqual([
      'the database ended by SIGKILL: it is started again',
      'the database runs again',
    ])
    expect(said('the server')).toEqual([
      'the server was ended by SIGKILL: it is started again',
      'the server runs again',
    ])
    expect(holderOf(data)?.server?.pid).toBe(product.pids().server)
    // What only its owner may read.
    for (const file of [
      join(databaseFolder(data), 'connection.json'),
      join(databaseFolder(data), 'mariadbd.log'),
      logFile(data),
    ])
      expect([file, statSync(file).mode & 0o777]).toEqual([file, 0o600])
  })

  it('is told by status, and ended by stop, whatever half of it is gone', async () => {
    expect((await command('status')).out).toContain('Kapelle: not running')
    expect((await command('stop')).out).toContain('nothing is running')
    const port = await freePort()
    const child = spawn(process.execPath, [launcher, 'start', '--data', data, '--port', String(port)], {
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    const url = `http://127.0.0.1:${port}`
    await until(() => ready(url))
    await until(() => holderOf(data)?.url !== undefined)
    const fine = await command('status')
    expect([fine.code, fine.out]).toEqual([0, expect.stringContaining(`at ${url}`)])
    expect(fine.out).toContain('nothing is wrong')
    // A second start says who has it and where, whatever its port, and touches nothing.
    const second = await command('start', '--port', String(await freePort()))
    expect([second.code, second.err]).toEqual([
      3,
      expect.stringMatching(new RegExp(`in use by process ${child.pid} since .*, at ${url}`)),
    ])
    expect(await ready(url)).toBe(true)
    // The launcher is killed: its server ends by itself, its database is found and ended.
    const { server } = holderOf(data) ?? {}
    const dead = new Promise((done) => child.once('exit', done))
    child.kill('SIGKILL')
    await dead
    const half = await command('status')
    expect([half.code, half.out]).toEqual([1, expect.stringContaining('parts were left behind')])
    expect((await command('stop')).out).toContain('a database that was left behind has ended')
    expect(daemonPid(databaseFolder(data))).toBeNull()
    await until(() => !existsSync(`/proc/${server?.pid}`) || isZombie(server?.pid ?? 0))
    expect((await command('stop')).out).toContain('nothing is running')
  })

  it('is found again after its launcher was killed, with its data', async () => {
    const port = await freePort()
    const child = spawn(process.execPath, [launcher, 'demo', '--data', data, '--port', String(port)], {
      stdio: ['ignore', 'ignore', 'inherit'],
    })
    await until(() => ready(`http://127.0.0.1:${port}`))
    const dead = new Promise((done) => child.once('exit', done))
    child.kill('SIGKILL')
    await dead
    const product = await start(true)
    expect(product.signIns).toHaveLength(2)
    const client = new TestClient(product.url)
    const [owner] = product.signIns
    await client.signIn(owner?.login ?? '', owner?.password)
    expect(((await client.call('GET', '/api/jobs')).body.jobs as unknown[]).length).toBe(3)
  })

  it('refuses a port that is taken, before it starts anything', async () => {
    const other = createServer()
    await new Promise<void>((done) => other.listen(0, '127.0.0.1', done))
    const { port } = other.address() as { port: number }
    await expect(startProduct({ data, port, demo: false })).rejects.toThrow(
      `Port ${port} is taken by another program.`,
    )
    expect(existsSync(databaseFolder(data))).toBe(false)
    await new Promise((done) => other.close(done))
    // Nothing is held either: the next start has it.
    await start()
  })

  it('gives up on a server that cannot start, and says why', async () => {
    const product = await start()
    writeFileSync(join(databaseFolder(data), 'connection.json'), '{"half')
    process.kill(product.pids().server, 'SIGKILL')
    expect(await product.gaveUp).toMatch(
      /^the server ended 5 times within two minutes, the last time: could not start: .*SyntaxError/,
    )
    expect([holderOf(data), daemonPid(databaseFolder(data))]).toEqual([null, null])
  })
})

describe('a first start', () => {
  it('that was broken off anywhere is completed by the next', async () => {
    // A database half-made by an earlier build, and one half-made by this one.
    mkdirSync(join(databaseFolder(data), 'data'), { recursive: true })
    writeFileSync(join(databaseFolder(data), 'data', 'ibdata1'), '')
    mkdirSync(join(databaseFolder(data), 'data.making'), { recursive: true })
    const port = await freePort()
    const args = [launcher, 'demo', '--data', data, '--port', String(port)]
    for (const after of [150, 700, 1600, 2400, 3200, 4000, 5000]) {
      const child: ChildProcess = spawn(process.execPath, args, { stdio: 'ignore' })
      const ended = new Promise((next) => child.once('exit', next))
      await pause(after)
      child.kill('SIGKILL')
      await ended
      const database = daemonPid(databaseFolder(data))
      // Every other time the database dies, too.
      if (database !== null && after % 2 === 0) process.kill(database, 'SIGKILL')
    }
    const product = await start(true)
    const [owner, installer] = product.signIns
    for (const person of [owner, installer]) {
      const client = await new TestClient(product.url).signIn(person?.login ?? '', person?.password)
      const { jobs } = (await client.call('GET', '/api/jobs')).body as { jobs?: unknown[] }
      expect(jobs?.length).toBe(3)
    }
    expect(product.setUp).toBeNull()
    expect((await (await fetch(`${product.url}/api/setup`)).json()) as unknown).toEqual({ needed: false })
  })

  it('prints a set-up link until somebody used it, each start a new one, the old ones dead', async () => {
    const first = await start()
    const old = first.setUp?.split('#')[1]
    await first.stop()
    const second = await start()
    const look = (token: unknown) => new TestClient(second.url).call('POST', '/api/link', { token })
    expect((await look(old)).status).toBe(404)
    expect((await look(second.setUp?.split('#')[1])).body.kind).toBe('set-up')
    // A server that is started again meanwhile leaves the printed link alone.
    const { server } = second.pids()
    process.kill(server, 'SIGKILL')
    await until(async () => second.pids().server !== server && (await ready(second.url)))
    await firstFirm(second)
    await second.stop()
    expect((await start()).setUp).toBeNull()
  })

  it('of two at once lets one have it', async () => {
    // In one process both are the same holder: two processes must try.
    const tries = await Promise.all(
      [await freePort(), await freePort()].map(async (port) => {
        const child = spawn(process.execPath, [launcher, 'start', '--data', data, '--port', String(port)], {
          stdio: 'ignore',
        })
        const ended = new Promise<string>((done) => child.once('exit', (code) => done(`exit ${code}`)))
        const up = until(() => ready(`http://127.0.0.1:${port}`)).then(() => 'up')
        const how = await Promise.race([ended, up])
        up.catch(() => undefined)
        return { how, end: async () => (child.kill('SIGTERM'), await ended) }
      }),
    )
    expect(tries.map((one) => one.how).sort()).toEqual(['exit 3', 'up'])
    for (const one of tries) await one.end()
  })
})

it('a folder or a database that cannot be used is named in one line with what to do', () => {
  expect(folderTrouble('/x', 'EACCES')).toContain('give the right to it')
  expect(folderTrouble('/x', 'ENOSPC')).toContain('make room')
  expect(folderTrouble('/x', 'ENOTDIR')).toContain('name a folder')
  expect(folderTrouble('/x', 'EIO')).toContain('cannot be used (EIO)')
  expect(whyNot('InnoDB: Error number 28 means No space left on device', '/x/db.log')).toContain(
    'disk is full',
  )
  expect(whyNot('[ERROR] Permission denied', '/x/db.log')).toContain('/x')
  expect(whyNot("mariadbd: Can't lock aria control file", '/x/db.log')).toContain('Another database')
  expect(whyNot('something else', '/x/db.log')).toContain('/x/db.log')
})

/** A process that ended and whose parent has not asked yet. */
function isZombie(pid: number): boolean {
  try {
    return /^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'))
  } catch {
    return true
  }
}
