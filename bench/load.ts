/*
 * npm run bench:load [MINUTES]: fifty people with one edit a second on four jobs while two of 2,000 devices are opened, exported
 * and judged, for ten minutes. The server runs in a process of its own, so that its event loop is measured alone.
 */
import { fork } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { monitorEventLoopDelay } from 'node:perf_hooks'
import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { quantile } from 'simple-statistics'
import type { Op, Room } from '#core'
import { startMariaDb } from '../server/src/db/mariadb.ts'
import { startServer } from '../server/src/server.ts'
import { benchEdit, smallJob } from './edits.ts'
import { madeJob } from './made-job.ts'

const PEOPLE = 50
const JOBS = 4
const DEVICES = 2000
const PASSWORD = 'bench-password-1'
/** Longest that anything may hold the server's event loop, ms; p99 of an edit at most so many times the median. */
const MOST_HELD_MS = 100
const MOST_P99 = 10

if (process.env.KAPELLE_BENCH_FOLDER) await serve(process.env.KAPELLE_BENCH_FOLDER)
else await measure(Number(process.argv[2] ?? 10))

/** The server's process: says where it listens, and at the end how long its event loop was held at most. */
async function serve(folder: string): Promise<void> {
  const db = await startMariaDb(folder)
  const server = await startServer({
    address: db,
    port: 0,
    host: '127.0.0.1',
    logger: pino({ level: 'silent' }),
  })
  const { accounts, store, summaries } = server.services
  const firm = await accounts.addFirm('Bench Alarms')
  await accounts.addPerson(firm, { name: 'Ann', login: 'ann', role: 'owner', password: PASSWORD })
  const { doc, entries } = madeJob(DEVICES, false)
  await store.catalogueOf(firm).add([...entries], null)
  const begin = async (records: readonly unknown[]): Promise<string> => {
    const id = randomUUID()
    const ops = records.map((record) => ({ op: 'add', record }) as Op)
    await store.jobsOf(firm).take(id, { edit: benchEdit(ops), now: new Date(), create: true })
    return id
  }
  const big = [await begin(Object.values(doc.records)), await begin(Object.values(doc.records))]
  const jobs: string[] = []
  for (let n = 0; n < JOBS; n++) jobs.push(await begin([smallJob(n)]))
  await summaries.settled()
  const held = monitorEventLoopDelay({ resolution: 5 })
  process.on('message', (word) => {
    if (word === 'begin') held.enable()
    else {
      held.disable()
      const answer = { held: held.max / 1e6, heldP99: held.percentile(99) / 1e6 }
      void server
        .stop()
        .then(() => db.stop())
        .then(() => process.send?.(answer, () => process.exit(0)))
    }
  })
  process.send?.({ url: server.url, big, jobs })
}

async function measure(minutes: number): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'kapelle-load-'))
  const child = fork(fileURLToPath(import.meta.url), {
    execArgv: ['--import', 'tsx'],
    env: { ...process.env, KAPELLE_BENCH_FOLDER: folder },
  })
  const heard = <T>(): Promise<T> =>
    new Promise((done) => child.once('message', (message) => done(message as T)))
  const { url, big, jobs } = await heard<{ url: string; big: string[]; jobs: string[] }>()
  const signed = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ login: 'ann', password: PASSWORD }),
  })
  const cookie = signed.headers.get('set-cookie')?.split(';')[0] ?? ''
  const headers = { 'Content-Type': 'application/json', Cookie: cookie }
  const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))
  const until = performance.now() + minutes * 60_000
  const times: number[] = []
  let wrong = 0
  child.send('begin')
  const people = Array.from({ length: PEOPLE }, async (_, person) => {
    await pause((person * 1000) / PEOPLE)
    const record = smallRoom(person)
    await send(jobs[person % JOBS] ?? '', [{ op: 'add', record }])
    let from = ''
    for (let round = 0; performance.now() < until; round++) {
      const to = `floor ${round}`
      const began = performance.now()
      await send(jobs[person % JOBS] ?? '', [{ op: 'set', id: record.id, field: 'floor', from, to }])
      const took = performance.now() - began
      if (round > 2) times.push(took)
      from = to
      await pause(Math.max(0, 1000 - took))
    }
  })
  const readers = big.flatMap((job) =>
    ['', '/file', '/schedule.csv', '/schedule.pdf'].map(async (path, index) => {
      await pause(index * 700)
      while (performance.now() < until) {
        const answer = await fetch(`${url}/api/jobs/${job}${path}`, { headers })
        if (!answer.ok) wrong += 1
        await answer.arrayBuffer()
        await pause(3000)
      }
    }),
  )
  async function send(job: string, ops: readonly Op[]): Promise<void> {
    const answer = await fetch(`${url}/api/jobs/${job}/edits`, {
      method: 'POST',
      headers,
      body: JSON.stringify({ edits: [benchEdit(ops)] }),
    })
    if (!answer.ok) wrong += 1
    await answer.arrayBuffer()
  }
  await Promise.all([...people, ...readers])
  child.send('end')
  const { held, heldP99 } = await heard<{ held: number; heldP99: number }>()
  rmSync(folder, { recursive: true, force: true })
  const [median, p99] = [quantile(times, 0.5), quantile(times, 0.99)]
  const within = wrong === 0 && held <= MOST_HELD_MS && p99 <= MOST_P99 * median
  console.log(
    `${within ? '✓' : '✗'} ${minutes} min of ${PEOPLE} people beside two jobs of ${DEVICES} devices: ${times.length} edits, ${wrong} errors; median ${median.toFixed(1)} ms, p99 ${p99.toFixed(1)} ms = ${(p99 / median).toFixed(1)} × (budget ${MOST_P99} ×); event loop held at most ${held.toFixed(0)} ms, p99 ${heldP99.toFixed(0)} ms (budget ${MOST_HELD_MS} ms)`,
  )
  process.exitCode = within ? 0 : 1
}

function smallRoom(n: number): Room {
  return {
    ...{
      id: `room:${randomUUID()}`,
      type: 'room',
      name: `Room ${n}`,
      floor: '',
      kind: 'living',
      heated: true,
    },
    ...{ sleeps: false, petKg: null, hottestC: null, metal: false, compartment: '', area: null, order: n },
  } as Room
}
