import { fork, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { createAccounts } from '../auth/accounts.ts'
import { startMariaDb, type DbServer } from '../db/mariadb.ts'
import { openSource } from '../db/source.ts'
import { createStore, type Store } from '../db/store.ts'
import { readJournalFile } from '#core'
import { createJobs, type Jobs } from '../jobs/jobs.ts'
import { JudgingPool } from '../workers/pool.ts'
import { REFERENCE } from '../../../demo/draft.ts'
import { shippedEntries } from '../server.ts'
import { holdFolder } from './lock.ts'

/** The sign-in of one demo person; made at random once and kept beside the data. */
export interface DemoSignIn {
  readonly login: string
  readonly name: string
  readonly role: 'owner' | 'installer'
  readonly password: string
}

export interface Product {
  readonly url: string
  readonly setupToken: string | null
  /** Ends the server, then the database. */
  stop(): Promise<void>
}

const demoJobs = fileURLToPath(new URL('../../../demo/jobs', import.meta.url))
const main = fileURLToPath(new URL('../main.ts', import.meta.url))

/** Folder of the database below the data folder. */
export function databaseFolder(data: string): string {
  return join(data, 'db')
}

/** Starts database and server on one data folder. `demo` also makes the demo firm where there is none. */
export async function startProduct(
  data: string,
  port: number,
  demo: boolean,
): Promise<Product & { signIns: DemoSignIn[] }> {
  const release = await holdFolder(data)
  const database = await startMariaDb(databaseFolder(data)).catch((error: unknown) => {
    release()
    throw error
  })
  try {
    const signIns = demo ? await loadDemo(database, data) : []
    const connection = join(databaseFolder(data), 'connection.json')
    const { child, url, setup } = await startProcess(connection, port, join(data, 'server.log'))
    return {
      url,
      setupToken: setup,
      signIns,
      async stop() {
        await endChild(child)
        await database.stop()
        release()
      },
    }
  } catch (error) {
    await database.stop()
    release()
    throw error
  }
}

/** Makes the demo firm with its people, catalogue and jobs; a second time it changes nothing. */
async function loadDemo(database: DbServer, data: string): Promise<DemoSignIn[]> {
  const file = join(data, 'demo-sign-in.json')
  const source = await openSource(database)
  const store = createStore(source)
  try {
    if (existsSync(file)) return JSON.parse(readFileSync(file, 'utf8')) as DemoSignIn[]
    if ((await store.people.countFirms()) > 0) return []
    const now = () => new Date()
    const accounts = createAccounts(store, shippedEntries(), now)
    const password = () => randomBytes(9).toString('base64url')
    const people: DemoSignIn[] = [
      { login: 'morwen', name: 'Morwen Tallis', role: 'owner', password: password() },
      { login: 'idris', name: 'Idris Quayle', role: 'installer', password: password() },
    ]
    const firm = await accounts.addFirm('Tallis & Quayle Alarms')
    for (const person of people) await accounts.addPerson(firm, person)
    const pool = new JudgingPool()
    const jobs = createJobs({ store, pool, now, summaries: null, build: 'demo' })
    await loadJobs(
      store,
      jobs,
      people.map((person) => person.login),
    )
    writeFileSync(file, JSON.stringify(people, null, 2), { mode: 0o600 })
    return people
  } finally {
    await store.close()
  }
}

/** Takes the demo's journals in, their times shifted from the demo's reference moment to now. */
async function loadJobs(store: Store, jobs: Jobs, logins: readonly string[]): Promise<void> {
  const found = await Promise.all(logins.map((login) => store.people.byLogin(login)))
  const people = found.flatMap((person) => (person ? [person.account] : []))
  const shift = Math.floor((Date.now() - Date.parse(REFERENCE)) / 60_000) * 60_000
  for (const name of readdirSync(demoJobs).sort()) {
    const text = readFileSync(join(demoJobs, name), 'utf8')
    const shifted = text.replace(
      /"(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d)Z"/g,
      (_whole, time: string) => `"${new Date(Date.parse(`${time}Z`) + shift).toISOString()}"`,
    )
    const read = readJournalFile(JSON.parse(shifted))
    if (!read.ok) throw new Error(`The demo job ${name} is damaged: ${JSON.stringify(read.problems)}`)
    await jobs.loadJournal(people, read)
  }
}

function startProcess(
  connection: string,
  port: number,
  log: string,
): Promise<{ child: ChildProcess; url: string; setup: string | null }> {
  return new Promise((done, fail) => {
    const child = fork(main, {
      execArgv: ['--import', 'tsx'],
      env: { ...process.env, KAPELLE_CONNECTION: connection, KAPELLE_PORT: String(port), KAPELLE_LOG: log },
      stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
      // Its own group: Ctrl-C reaches the launcher only, which ends the server first and the database after it.
      detached: true,
    })
    let said = ''
    child.stderr?.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-2000)))
    child.once('message', (message) => {
      const { listening, setup } = message as { listening: string; setup: string | null }
      done({ child, url: listening, setup })
    })
    child.once('exit', () =>
      fail(
        new Error(
          said.includes('EADDRINUSE')
            ? `Port ${port} is taken. Choose another: KAPELLE_PORT=4690 ./kapelle demo`
            : `The server ended before it was ready: ${said}`,
        ),
      ),
    )
  })
}

async function endChild(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return
  const ended = new Promise((done) => child.once('exit', done))
  child.kill('SIGTERM')
  await ended
}
