import { fork, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { canonicalJson, replay, seededRandom, type JobDocument, type JournalEntry, type Op } from '#core'
import { createAccounts } from '../auth/accounts.ts'
import { freePort, startMariaDb } from '../db/mariadb.ts'
import { openSource } from '../db/source.ts'
import { createStore } from '../db/store.ts'
import { programFile } from '../program.mjs'
import { shippedEntries } from '../server.ts'
import { runs } from '../../../core/src/testing/runs.ts'
import { anEdit, TEST_PASSWORD, TestClient } from '../testing/client.ts'

/** Thirty in the ordinary run, with every case two hundred: of the server, of its database, or of both at once. */
const KILLS = Math.max(30, runs(200))

const pause = (ms: number): Promise<void> => new Promise((next) => setTimeout(next, ms))

/** Starts the server process and waits until it listens. */
function start(connection: string, port: number): Promise<ChildProcess> {
  return new Promise((done, fail) => {
    const child = fork(programFile('server'), {
      env: { ...process.env, KAPELLE_CONNECTION: connection, KAPELLE_PORT: String(port) },
      stdio: ['ignore', 'ignore', 'pipe', 'ipc'],
    })
    let said = ''
    child.stderr?.on('data', (chunk: Buffer) => (said += chunk.toString()))
    child.once('message', () => done(child))
    child.once('exit', () => fail(new Error(`the server ended before it listened: ${said}`)))
  })
}

/** Sends one edit until it is answered, however often the server is away. */
async function sendUntilAnswered(client: TestClient, job: string, edit: unknown): Promise<void> {
  for (let attempt = 0; attempt < 2000; attempt++) {
    try {
      const answer = await client.send(job, edit)
      if (answer.status === 200) return
      if (answer.status < 500) throw new RangeError(JSON.stringify(answer.body))
    } catch (error) {
      if (error instanceof RangeError) throw error
    }
    await pause(20)
  }
  throw new RangeError('an edit was never answered')
}

it(`loses and doubles no acknowledged edit over ${KILLS} kills`, async () => {
  const folder = mkdtempSync(join(tmpdir(), 'kapelle-kill-'))
  let database = await startMariaDb(folder)
  const connection = join(folder, 'connection.json')
  const store = createStore(await openSource(database))
  const accounts = createAccounts(store, shippedEntries(), () => new Date())
  await accounts.addPerson(await accounts.addFirm('Brook Alarms'), {
    name: 'Ann Reed',
    login: 'ann',
    role: 'owner',
    password: TEST_PASSWORD,
  })
  await store.close()

  const port = await freePort()
  const random = seededRandom(20261124)
  let child = await start(connection, port)
  const client = await new TestClient(`http://127.0.0.1:${port}`).signIn('ann')
  const job = await client.beginJob()
  let running = true
  const acknowledged: string[][] = [[], [], []]
  const fields = ['wishes', 'address', 'name'] as const
  const starts = ['', '1 Weir Lane', 'Mill Cottage']
  const streams = fields.map(async (field, stream) => {
    let from = starts[stream] ?? ''
    for (let n = 0; running; n++) {
      const to = `${field} ${n}`
      const edit = anEdit([{ op: 'set', id: 'job:main', field, from, to } satisfies Op])
      await sendUntilAnswered(client, job, edit)
      acknowledged[stream]?.push(edit.id)
      from = to
    }
  })
  const failed = Promise.all(streams)
  for (let kill = 0; kill < KILLS; kill++) {
    // A slow machine gets its time: each life of the server answers every stream at least once before it is killed.
    const before = acknowledged.map((mine) => mine.length)
    while (acknowledged.some((mine, stream) => mine.length <= (before[stream] ?? 0)))
      await Promise.race([pause(5), failed])
    await pause(random() * 250)
    const which = kill % 3
    if (which !== 1) {
      const gone = new Promise((next) => child.once('exit', next))
      child.kill('SIGKILL')
      await gone
    }
    if (which !== 0) {
      process.kill(database.pid, 'SIGKILL')
      await database.ended
      // The server meets its database's absence for a moment before it comes back on the same port.
      await pause(random() * 100)
      database = await startMariaDb(folder, true)
    }
    if (which !== 1) child = await start(connection, port)
  }
  running = false
  await failed

  const opened = (await client.call('GET', `/api/jobs/${job}`)).body as unknown as {
    revision: number
    document: JobDocument
  }
  // An answer holds so many entries at most: the journal is read to its end.
  const entries: JournalEntry[] = []
  for (;;) {
    const since = entries.at(-1)?.revision ?? 0
    const page = (await client.call('GET', `/api/jobs/${job}/edits?since=${since}`)).body
    const more = page.entries as JournalEntry[]
    entries.push(...more)
    if (more.length === 0) break
  }
  const ids = entries.map((entry) => entry.edit.id)
  expect(entries.map((entry) => entry.revision)).toEqual(entries.map((_, index) => index + 1))
  expect(new Set(ids).size).toBe(ids.length)
  for (const mine of acknowledged) {
    expect(mine.length).toBeGreaterThanOrEqual(KILLS)
    const set = new Set(mine)
    expect(ids.filter((id) => set.has(id))).toEqual(mine)
  }
  expect(ids.length).toBe(1 + acknowledged.flat().length)
  expect(canonicalJson(replay(entries))).toBe(canonicalJson(opened.document))
  const ended = new Promise((next) => child.once('exit', next))
  child.kill('SIGTERM')
  await ended
  await database.stop()
  rmSync(folder, { recursive: true, force: true })
}, 1_800_000)
