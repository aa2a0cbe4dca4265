import { fork, type ChildProcess } from 'node:child_process'
import { randomBytes, randomUUID } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { join } from 'node:path'
import { createAccounts, type Accounts } from '../auth/accounts.ts'
import { shippedAt } from '../db/catalogue.ts'
import { endProcess, freePort, startMariaDb, writeWhole, type DbAddress } from '../db/mariadb.ts'
import { openSource } from '../db/source.ts'
import { createStore, type Store } from '../db/store.ts'
import { jobInfo, readJournalFile, type JournalFileResult, type Right } from '#core'
import { createJobs, type Jobs } from '../jobs/jobs.ts'
import { JudgingPool } from '../workers/pool.ts'
import { REFERENCE } from '../../../demo/draft.ts'
import { programFile, root } from '../program.mjs'
import { buildName, shippedEntries } from '../server.ts'
import { beforeName, makeBackup } from '../service/backups.ts'
import { Keeper, type Part } from './keep.ts'
import { holdFolder, orphanOf } from './lock.ts'

/** The sign-in of one demo person; made at random once and kept beside the data. */
export interface DemoSignIn {
  readonly login: string
  readonly name: string
  readonly role: 'owner' | 'installer'
  readonly password: string
}

/** A running product. */
export interface Product {
  readonly url: string
  /** Path of the link that sets up the first firm; null when there is one. */
  readonly setUp: string | null
  readonly signIns: readonly DemoSignIn[]
  /** Processes of the parts as they run now. */
  readonly pids: () => { readonly server: number; readonly database: number }
  /** Fulfilled with why, when a part ended too often and all was ended. */
  readonly gaveUp: Promise<string>
  /** Ends the server, then the database. */
  stop(): Promise<void>
}

/** How to start it. */
export interface ProductOptions {
  readonly data: string
  /** 0 for any free port. */
  readonly port: number
  /** Whether to make the demo firm where there is none. */
  readonly demo: boolean
  /** Settings of the server process, by the names of its environment. */
  readonly env?: Readonly<Record<string, string>>
  /** Hears what the keeping of the parts does, one sentence each. */
  readonly tell?: (what: string) => void
}

const demoJobs = join(root, 'demo/jobs')

/** Folder of the database below the data folder. */
export function databaseFolder(data: string): string {
  return join(data, 'db')
}

/** Folder of the backups below the data folder. */
export function backupFolder(data: string): string {
  return join(data, 'backups')
}

/** File of the server's log below the data folder. */
export function logFile(data: string): string {
  return join(data, 'server.log')
}

/**
 * Starts database and server on one data folder and keeps them running. Every step is done once or repeated, so that a start
 * broken off anywhere is completed by the next.
 */
export async function startProduct(options: ProductOptions): Promise<Product> {
  const { data, demo, tell = () => undefined } = options
  // A server whose launcher was killed ends by itself; one that hangs is ended once the folder is held.
  const orphan = orphanOf(data)
  const held = await holdFolder(data)
  const undo: (() => Promise<void> | void)[] = [() => held.release()]
  const unwind = async (): Promise<void> => {
    for (let step = undo.pop(); step; step = undo.pop()) await step()
  }
  try {
    const host = options.env?.KAPELLE_HOST ?? '127.0.0.1'
    const port = options.port === 0 ? await freePort() : options.port
    if (orphan !== null) await endProcess(orphan)
    await portIsFree(port, host)
    tell('starting the database')
    let why = (_reason: string): void => undefined
    const gaveUp = new Promise<string>((done) => (why = done))
    const giveUp = (reason: string): void => {
      void unwind().then(() => why(reason))
    }
    const database = new Keeper(await startMariaDb(databaseFolder(data)), {
      name: 'the database',
      again: () => startMariaDb(databaseFolder(data), true),
      tell,
      giveUp,
    })
    undo.push(() => database.stop())
    const { signIns, setUp } = await prepare(database.part, data, demo)
    const start = async (): Promise<ServerPart> => {
      const part = await startProcess({
        ...options.env,
        KAPELLE_CONNECTION: join(databaseFolder(data), 'connection.json'),
        KAPELLE_PORT: String(port),
        KAPELLE_LOG: logFile(data),
        KAPELLE_DATA: data,
      })
      held.says(part.url, part.pid)
      return part
    }
    const server = new Keeper(await start(), { name: 'the server', again: start, tell, giveUp })
    undo.push(() => server.stop())
    return {
      url: server.part.url,
      setUp,
      signIns,
      pids: () => ({ server: server.part.pid, database: database.part.pid }),
      gaveUp,
      stop: unwind,
    }
  } catch (error) {
    await unwind()
    throw error
  }
}

/** Throws one line that says what to do when a port is taken. */
async function portIsFree(port: number, host: string): Promise<void> {
  const probe = createServer()
  await new Promise<void>((done, fail) => {
    probe.once('error', (error: NodeJS.ErrnoException) =>
      fail(
        new Error(
          error.code === 'EACCES'
            ? `This user may not listen on port ${port}: choose one above 1023, as KAPELLE_PORT=4690.`
            : error.code === 'EADDRNOTAVAIL'
              ? `This machine has no address ${host}: name one of its own.`
              : `Port ${port} is taken by another program. Choose another: KAPELLE_PORT=4690 ./kapelle start`,
          { cause: error },
        ),
      ),
    )
    probe.listen(port, host, done)
  })
  await new Promise((done) => probe.close(done))
}

/** Brings the database up to date and, where nobody is yet, makes the demo or the link of the first set-up. */
async function prepare(
  database: DbAddress,
  data: string,
  demo: boolean,
): Promise<{ signIns: readonly DemoSignIn[]; setUp: string | null }> {
  const now = () => new Date()
  // What an update changes in the tables can be gone back from.
  const source = await openSource(database, undefined, async () => {
    await makeBackup({ address: database, build: buildName(), now }, backupFolder(data), beforeName(now()))
  })
  const store = createStore(source)
  try {
    const accounts = createAccounts(store, shippedEntries(), now)
    const signIns = demo ? await loadDemo(store, accounts, data) : []
    const token = await accounts.setUpLink()
    return { signIns, setUp: token && `/link#${token}` }
  } finally {
    await store.close()
  }
}

/** What is known of the demo beside its data: written before its first step, so that a start broken off goes on. */
interface DemoFile {
  readonly firm: string
  readonly people: readonly (DemoSignIn & { readonly rights: readonly Right[] })[]
  readonly done: boolean
}

/** Makes the demo firm with its people, catalogue and jobs, each step done or repeated; once done it changes nothing. */
async function loadDemo(store: Store, accounts: Accounts, data: string): Promise<readonly DemoSignIn[]> {
  const file = join(data, 'demo-sign-in.json')
  const known = readDemo(file)
  if (known && 'length' in known) {
    await reloadEarlier(store, known)
    return known
  }
  const firms = await store.people.firms()
  if (known?.done && firms.length > 0) {
    await reloadEarlier(store, known.people)
    return known.people
  }
  if (!known && firms.length > 0) return []
  const password = () => randomBytes(9).toString('base64url')
  const draft: DemoFile = known ?? {
    firm: randomUUID(),
    people: [
      { login: 'morwen', name: 'Morwen Tallis', role: 'owner', rights: [], password: password() },
      {
        login: 'idris',
        name: 'Idris Quayle',
        role: 'installer',
        rights: ['catalogue', 'columns'],
        password: password(),
      },
    ],
    done: false,
  }
  writeWhole(file, JSON.stringify(draft, null, 2))
  if (!firms.some((firm) => firm.id === draft.firm))
    await accounts.addFirm('Tallis & Quayle Alarms', draft.firm)
  else await store.catalogueOf(draft.firm).add(shippedEntries(), shippedAt(new Date()))
  for (const person of draft.people)
    if (!(await store.people.byLogin(person.login))) await accounts.addPerson(draft.firm, person)
  const pool = new JudgingPool()
  const jobs = createJobs({ store, pool, now: () => new Date(), summaries: null, build: 'demo' })
  await loadJobs(
    store,
    jobs,
    draft.people.map((person) => person.login),
  )
  writeWhole(file, JSON.stringify({ ...draft, done: true }, null, 2))
  return draft.people
}

/** The demo file; earlier builds wrote the people alone, once all was done. */
function readDemo(file: string): DemoFile | readonly DemoSignIn[] | null {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as DemoFile | DemoSignIn[]
  } catch {
    return null
  }
}

/**
 * Demo jobs of an earlier build are no practice jobs, and their learning from invented air counts for nothing: they are loaded
 * anew. What somebody tried in them is in the backup that was made before the tables changed.
 */
export async function reloadEarlier(
  store: Store,
  people: readonly Pick<DemoSignIn, 'login'>[],
): Promise<void> {
  const [first] = people
  const person = first ? await store.people.byLogin(first.login) : null
  if (!person) return
  const rows = store.jobsOf(person.account.firmId)
  let earlier = 0
  for (const { id } of demoJournals()) {
    const head = await rows.head(id)
    if (!head || jobInfo(head.document).practice) continue
    await rows.drop(id)
    earlier += 1
  }
  if (earlier === 0) return
  const pool = new JudgingPool()
  const jobs = createJobs({ store, pool, now: () => new Date(), summaries: null, build: 'demo' })
  await store.catalogueOf(person.account.firmId).add(shippedEntries(), shippedAt(new Date()))
  await loadJobs(
    store,
    jobs,
    people.map(({ login }) => login),
  )
  await pool.close()
}

/** The demo's journals, their times shifted from the demo's reference moment to now. */
function demoJournals(): readonly Extract<JournalFileResult, { ok: true }>[] {
  const shift = Math.floor((Date.now() - Date.parse(REFERENCE)) / 60_000) * 60_000
  return readdirSync(demoJobs)
    .sort()
    .map((name) => {
      const text = readFileSync(join(demoJobs, name), 'utf8')
      const shifted = text.replace(
        /"(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d)Z"/g,
        (_whole, time: string) => `"${new Date(Date.parse(`${time}Z`) + shift).toISOString()}"`,
      )
      const read = readJournalFile(JSON.parse(shifted))
      if (!read.ok) throw new Error(`The demo job ${name} is damaged: ${JSON.stringify(read.problems)}`)
      return read
    })
}

/** Takes the demo's journals in; one that is there already stays as it is. */
async function loadJobs(store: Store, jobs: Jobs, logins: readonly string[]): Promise<void> {
  const found = await Promise.all(logins.map((login) => store.people.byLogin(login)))
  const people = found.flatMap((person) => (person ? [person.account] : []))
  for (const journal of demoJournals()) await jobs.loadJournal(people, journal)
}

interface ServerPart extends Part {
  readonly url: string
}

/** How long a server has to end by itself, milliseconds. */
const END_MS = 15_000

function startProcess(env: Readonly<Record<string, string>>): Promise<ServerPart> {
  return new Promise((done, fail) => {
    const child = fork(programFile('server'), {
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'pipe', 'ipc'],
      // Its own group: Ctrl-C reaches the launcher only, which ends the server first and the database after it.
      detached: true,
    })
    let said = ''
    child.stderr?.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-2000)))
    const ended = new Promise<string>((end) =>
      child.once('exit', (code, signal) => {
        const last = /^\w*Error: .*$/m.exec(said)?.[0] ?? said.trim().split('\n').at(-1) ?? ''
        end(`${signal ? `was ended by ${signal}` : `ended with ${code}`}${last ? ` (${last})` : ''}`)
      }),
    )
    child.once('message', (message) => {
      const { listening } = message as { listening: string }
      done({ pid: child.pid ?? 0, url: listening, ended, stop: () => endChild(child) })
    })
    void ended.then((how) => fail(new Error(`The server ${how} before it was ready.`)))
  })
}

async function endChild(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return
  const ended = new Promise((done) => child.once('exit', done))
  child.kill('SIGTERM')
  const late = setTimeout(() => child.kill('SIGKILL'), END_MS)
  await ended
  clearTimeout(late)
}
