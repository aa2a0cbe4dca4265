import { spawn } from 'node:child_process'
import { existsSync, statSync } from 'node:fs'
import { readdir, rm } from 'node:fs/promises'
import { get as plainGet } from 'node:http'
import { get as tlsGet } from 'node:https'
import { userInfo } from 'node:os'
import { join, resolve } from 'node:path'
import { parseArgs } from 'node:util'
import { createAccounts } from '../auth/accounts.ts'
import { UnreadableBackup } from '../db/backup.ts'
import { daemonPid, endProcess, runningServer, startMariaDb, type DbAddress } from '../db/mariadb.ts'
import { proveAt, restoreInto } from '../db/restore.ts'
import { openSource } from '../db/source.ts'
import { createStore, type Store } from '../db/store.ts'
import { buildName } from '../server.ts'
import { backupsIn, dailyName, makeBackup } from '../service/backups.ts'
import { ownAuthority } from '../service/own-authority.ts'
import { runChecks } from './checks.ts'
import { FolderHeld, holderOf, holdFolder, orphanOf } from './lock.ts'
import { backupFolder, databaseFolder, logFile, startProduct } from './product.ts'
import { systemdUnit } from './unit.ts'

const options = {
  data: { type: 'string' },
  port: { type: 'string' },
  host: { type: 'string' },
  tls: { type: 'string', multiple: true },
  'behind-proxy': { type: 'string' },
  long: { type: 'boolean' },
} as const

/** A wish that cannot be understood: the answer is how to say it. */
class Misunderstood extends Error {}

const commands: Readonly<Record<string, (rest: readonly string[]) => Promise<void>>> = {
  demo: () => serve('demo'),
  start: () => serve('start'),
  dev: () => serve('dev'),
  test: async () => {
    process.exitCode = await runChecks(given.long === true)
  },
  stop,
  status,
  backup,
  restore,
  rebuild,
  firm,
  'owner-link': ownerLink,
  service: () => {
    console.log(systemdUnit({ folder: process.cwd(), user: userInfo().username, data, args: serviceArgs() }))
    return Promise.resolve()
  },
}

const { given, words } = readArguments()
const data = resolve(given.data ?? process.env.KAPELLE_DATA ?? '.data')
const port = Number(given.port ?? process.env.KAPELLE_PORT ?? '4680')
const [name = '', ...rest] = words

try {
  const command = commands[name]
  if (!command) throw new Misunderstood(`unknown command ${name}`)
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new Misunderstood('the port must be a whole number from 1 to 65535')
  await command(rest)
} catch (error) {
  console.error(`✗ ${error instanceof Error ? error.message : String(error)}`)
  process.exitCode = error instanceof FolderHeld ? 3 : error instanceof Misunderstood ? 2 : 1
}

function readArguments() {
  try {
    // A certificate comes with its key as the next word: --tls CERT KEY.
    const args = process.argv.slice(2)
    const at = args.indexOf('--tls')
    const [cert, key] = at < 0 ? [] : args.slice(at + 1)
    if (cert !== undefined && cert !== 'own' && key !== undefined && !key.startsWith('--'))
      args.splice(at + 2, 0, '--tls')
    const { values, positionals } = parseArgs({ args, options, allowPositionals: true })
    return { given: values, words: positionals }
  } catch (error) {
    console.error(`✗ ${error instanceof Error ? error.message : String(error)}`)
    process.exit(2)
  }
}

async function serve(how: 'demo' | 'start' | 'dev'): Promise<void> {
  // Before anything is made or renewed below it.
  const there = holderOf(data)
  if (there) throw new FolderHeld(data, there)
  const product = await startProduct({
    data,
    port,
    demo: how !== 'start',
    env: await serverSettings(),
    tell: (what) => console.log(`· ${new Date().toTimeString().slice(0, 8)} ${what}`),
  })
  const client =
    how === 'dev'
      ? spawn('npx', ['vite'], { stdio: 'inherit', env: { ...process.env, KAPELLE_API: product.url } })
      : null
  console.log(`\n  Kapelle is at ${product.url}\n`)
  for (const person of product.signIns)
    console.log(
      `  ${person.role.padEnd(9)}  sign-in name ${person.login.padEnd(8)}  password ${person.password}`,
    )
  if (how === 'demo' && product.signIns.length === 0)
    console.log('  This data has a firm of its own: no demo was loaded. Sign in as usual.')
  if (product.setUp)
    console.log(`  Nobody is here yet. Set up the first firm: ${product.url}${product.setUp}`)
  console.log('\n  Ctrl-C ends it.')
  let stopping = false
  const end = (): void => {
    if (stopping) return
    stopping = true
    console.log('\n· ending')
    client?.kill()
    void product.stop().then(() => process.exit(0))
  }
  process.on('SIGINT', end)
  process.on('SIGTERM', end)
  void product.gaveUp.then((why) => {
    client?.kill()
    console.error(
      `✗ Kapelle gave up: ${why}. See ${logFile(data)} and ${join(databaseFolder(data), 'mariadbd.log')}`,
    )
    process.exit(1)
  })
}

/** Settings of the server process from the options; says what to do about those that cannot be. */
async function serverSettings(): Promise<Record<string, string>> {
  const settings: Record<string, string> = {}
  if (given.host !== undefined) settings.KAPELLE_HOST = given.host
  if (given['behind-proxy'] !== undefined) settings.KAPELLE_PROXY = given['behind-proxy']
  const [cert, key] = given.tls ?? []
  if (cert === 'own') {
    const own = await ownAuthority(join(data, 'tls'), given.host ?? '127.0.0.1')
    for (const line of own.steps) console.log(`  ${line}`)
    Object.assign(settings, { KAPELLE_TLS_CERT: own.cert, KAPELLE_TLS_KEY: own.key })
  } else if (cert !== undefined) {
    if (key === undefined)
      throw new Misunderstood('--tls takes a certificate and its key (PEM), or the word own')
    for (const file of [cert, key]) if (!existsSync(file)) throw new Misunderstood(`there is no file ${file}`)
    Object.assign(settings, { KAPELLE_TLS_CERT: resolve(cert), KAPELLE_TLS_KEY: resolve(key) })
  }
  return settings
}

function serviceArgs(): string[] {
  return process.argv.slice(3)
}

async function stop(): Promise<void> {
  const holder = holderOf(data)
  if (holder) {
    await endProcess(holder.pid)
    console.log('· Kapelle has ended')
  }
  // Whatever outlived its launcher goes, too: the server first.
  const server = orphanOf(data)
  if (server !== null) {
    await endProcess(server)
    console.log('· a server that was left behind has ended')
  }
  const database = daemonPid(databaseFolder(data))
  if (database !== null) {
    await endProcess(database)
    console.log('· a database that was left behind has ended')
  }
  if (!holder && server === null && database === null) console.log('· nothing is running')
}

async function status(): Promise<void> {
  const holder = holderOf(data)
  const address = runningServer(databaseFolder(data))
  const wrong: string[] = []
  console.log(`· data: ${data}${existsSync(data) ? `, ${inMB(await sizeOf(data))}` : ', nothing there yet'}`)
  console.log(
    holder
      ? `· Kapelle: process ${holder.pid} since ${holder.since}${holder.url ? `, at ${holder.url}` : ', starting'}`
      : '· Kapelle: not running',
  )
  if (holder?.url && !(await isReady(holder.url))) wrong.push('the server does not say that it is ready')
  console.log(
    address ? `· database: process ${address.pid}, port ${address.port}` : '· database: not running',
  )
  if (holder && !address) wrong.push('the database is not there; it is started again, or see its log')
  if (!holder && (address || orphanOf(data) !== null))
    wrong.push('parts were left behind: ./kapelle stop ends them')
  const [last] = await backupsIn(backupFolder(data))
  console.log(
    last ? `· last backup: ${last.name}, ${last.madeAt}, ${inMB(last.bytes)}` : '· last backup: none yet',
  )
  if (last && Date.now() - Date.parse(last.madeAt) > 3 * 86_400_000)
    wrong.push('the last backup is more than three days old')
  for (const what of wrong) console.log(`✗ ${what}`)
  if (wrong.length === 0) console.log('· nothing is wrong')
  process.exitCode = wrong.length > 0 ? 1 : 0
}

/** Whether the server says that it can work; whose certificate it has is not asked here. */
function isReady(url: string): Promise<boolean> {
  return new Promise((done) => {
    const ask = url.startsWith('https:') ? tlsGet : plainGet
    const call = ask(`${url}/api/ready`, { rejectUnauthorized: false, timeout: 5_000 }, (answer) => {
      answer.resume()
      done(answer.statusCode === 200)
    })
    call.on('error', () => done(false))
    call.on('timeout', () => call.destroy())
  })
}

async function backup([file]: readonly string[]): Promise<void> {
  await withDatabase(async (address) => {
    const now = new Date()
    const basis = { address, build: buildName(), now: () => now }
    const target = resolve(file ?? join(data, 'backups', dailyName(now)))
    if (existsSync(target)) throw new Misunderstood(`${target} is there already: name another file`)
    const made = await makeBackup(basis, join(target, '..'), target.slice(join(target, '..').length + 1))
    console.log(`· ${made}, ${inMB(statSync(made).size)}`)
    console.log('· No key is in it: keep the files of tls/ and any certificate apart from it.')
  })
}

async function restore([file]: readonly string[]): Promise<void> {
  if (!file) throw new Misunderstood('name the backup: ./kapelle restore FILE')
  if (!existsSync(file)) throw new Misunderstood(`there is no file ${file}`)
  const held = await holdFolder(data)
  const home = databaseFolder(data)
  try {
    if (existsSync(join(home, 'data')))
      throw new Error(
        `${data} holds data already, and a restore overwrites nothing: name an empty folder with --data, or move that one away.`,
      )
    console.log('· reading the backup')
    const database = await startMariaDb(home)
    let whole = false
    try {
      const { head, counts } = await restoreInto(database, file)
      console.log(`· made ${head.madeAt} by build ${head.build}: ${countsInWords(counts)}`)
      const proof = await proveAt(database)
      for (const problem of proof.problems) console.log(`✗ ${problem}`)
      if (proof.problems.length > 0)
        throw new Error('The backup is whole, and what it holds does not agree: see above.')
      console.log(
        `· proved: journals replay to their documents and look-up rows agree (${counted(proof.jobs, 'job', 'jobs')}, ${counted(proof.edits, 'edit', 'edits')})`,
      )
      whole = true
    } catch (error) {
      throw error instanceof UnreadableBackup ? new Error(`${error.message} Nothing was restored.`) : error
    } finally {
      await database.stop()
      if (!whole) await rm(home, { recursive: true, force: true })
    }
    console.log('· restored. Everybody signs in anew: ./kapelle start')
  } finally {
    held.release()
  }
}

function countsInWords(counts: Readonly<Record<string, number>>): string {
  const words: readonly (readonly [string, string, string])[] = [
    ['firm', 'firm', 'firms'],
    ['person', 'person', 'people'],
    ['job', 'job', 'jobs'],
    ['job_edit', 'edit', 'edits'],
    ['catalogue_entry', 'catalogue entry', 'catalogue entries'],
  ]
  return words.map(([table, one, many]) => counted(counts[table] ?? 0, one, many)).join(', ')
}

function counted(count: number, one: string, many: string): string {
  return `${count} ${count === 1 ? one : many}`
}

async function rebuild(): Promise<void> {
  await withStore(async (store) => {
    for (const firmId of await store.people.firmIds()) {
      const jobs = await store.jobsOf(firmId).rebuildTransmitters()
      console.log(`· look-ups of ${jobs} jobs made anew`)
    }
  })
}

async function firm([verb, ...words]: readonly string[]): Promise<void> {
  const firmName = words.join(' ').trim()
  if (verb !== 'add' || firmName === '' || firmName.length > 120)
    throw new Misunderstood('name the firm in up to 120 characters: ./kapelle firm add "Brook Alarms"')
  await withStore(async (store) => {
    const accounts = createAccounts(store, [], () => new Date())
    const id = await accounts.addFirm(firmName)
    const token = await accounts.invite(id, 'owner', '')
    console.log(
      `· ${firmName} is there. Its owner comes in within three days, once, by: ${reached()}/link#${token}`,
    )
  })
}

async function ownerLink([...words]: readonly string[]): Promise<void> {
  const wanted = words.join(' ').trim()
  await withStore(async (store) => {
    const firms = await store.people.firms()
    const chosen = firms.filter((one) => wanted === '' || one.name === wanted || one.id === wanted)
    const [only] = chosen
    if (!only)
      throw new Misunderstood(firms.length === 0 ? 'nobody is here yet' : `there is no firm ${wanted}`)
    if (chosen.length > 1)
      throw new Misunderstood(`name the firm, one of: ${firms.map((one) => one.name).join(', ')}`)
    const accounts = createAccounts(store, [], () => new Date())
    const owner = await store.people.firstOwner(only.id)
    const token = owner
      ? await accounts.passwordLink(only.id, owner.id)
      : await accounts.invite(only.id, 'owner', '')
    console.log(
      owner
        ? `· ${owner.name} (${owner.login}) chooses a new password within a day, once, by: ${reached()}/link#${token}`
        : `· ${only.name} has no owner: one comes in within three days, once, by: ${reached()}/link#${token}`,
    )
  })
}

function reached(): string {
  return holderOf(data)?.url ?? `http://127.0.0.1:${port}`
}

/** Does work on the database: the running one, or one that is started for it under the folder's lock. */
async function withDatabase(work: (address: DbAddress) => Promise<void>): Promise<void> {
  const running = holderOf(data) ? runningServer(databaseFolder(data)) : null
  if (running) return work(running)
  if (!existsSync(join(databaseFolder(data), 'data'))) throw new Misunderstood(`${data} holds nothing yet`)
  const held = await holdFolder(data)
  try {
    const database = await startMariaDb(databaseFolder(data))
    try {
      await work(database)
    } finally {
      await database.stop()
    }
  } finally {
    held.release()
  }
}

async function withStore(work: (store: Store) => Promise<void>): Promise<void> {
  await withDatabase(async (address) => {
    const store = createStore(await openSource(address, 2))
    try {
      await work(store)
    } finally {
      await store.close()
    }
  })
}

async function sizeOf(folder: string): Promise<number> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true }).catch(() => [])
  return entries
    .filter((entry) => entry.isFile())
    .reduce((sum, entry) => {
      const file = join(entry.parentPath, entry.name)
      return sum + (existsSync(file) ? statSync(file).size : 0)
    }, 0)
}

function inMB(bytes: number): string {
  return bytes < 1_000_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`
}
