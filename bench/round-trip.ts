import { mkdtempSync, rmSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import express from 'express'
import { createPool } from 'mysql2/promise'
import { pino } from 'pino'
import { quantile } from 'simple-statistics'
import { recordsOf, type Op, type Zone } from '#core'
import { startMariaDb, type DbAddress } from '../server/src/db/mariadb.ts'
import { startServer } from '../server/src/server.ts'
import { benchEdit } from './edits.ts'
import { madeJob } from './made-job.ts'
import type { Measured } from './measure.ts'

const PEOPLE = 50
const SECONDS = 12

/** p95 of an edit's way through HTTP and MariaDB, 50 people with one edit a second each, against a bare Express and insert. */
export async function roundTripBench(): Promise<Measured> {
  const folder = mkdtempSync(join(tmpdir(), 'kapelle-bench-'))
  const db = await startMariaDb(folder)
  try {
    const baselineMs = await bare(db)
    const ms = await product(db)
    return {
      name: `edit round trip, 64 zones, ${PEOPLE} people, p95`,
      ms,
      baselineMs,
      baseline: 'bare Express and insert, paced alike',
      budget: 'at most 2.5 times',
      within: ms <= 2.5 * baselineMs,
    }
  } finally {
    await db.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Each of the people sends one request a second, spread evenly; gives the p95 of the answers' times. */
async function paced(send: (person: number, round: number) => Promise<void>): Promise<number> {
  const times: number[] = []
  const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))
  await Promise.all(
    Array.from({ length: PEOPLE }, async (_, person) => {
      await pause((person * 1000) / PEOPLE)
      for (let round = 0; round < SECONDS; round++) {
        const start = performance.now()
        await send(person, round)
        const took = performance.now() - start
        if (round >= 2) times.push(took)
        await pause(Math.max(0, 1000 - took))
      }
    }),
  )
  return quantile(times, 0.95)
}

async function bare(db: DbAddress): Promise<number> {
  const { host, port, user, password, database } = db
  const pool = createPool({ host, port, user, password, database, connectionLimit: 10 })
  await pool.query('CREATE TABLE bare (id CHAR(36) PRIMARY KEY, body TEXT NOT NULL) ENGINE=InnoDB')
  const app = express()
  app.use(express.json())
  app.post('/', async (req, res) => {
    await pool.query('INSERT INTO bare VALUES (?, ?)', [randomUUID(), JSON.stringify(req.body)])
    res.json({ ok: true })
  })
  const server: Server = createServer(app)
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`
  const p95 = await paced(async (person, round) => {
    const body = JSON.stringify({ edits: [{ id: randomUUID(), label: `PLACE ${person} ${round}` }] })
    await (await fetch(url, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body })).json()
  })
  server.closeAllConnections()
  await new Promise((done) => server.close(done))
  await pool.end()
  return p95
}

async function product(db: DbAddress): Promise<number> {
  const server = await startServer({
    address: db,
    port: 0,
    host: '127.0.0.1',
    logger: pino({ level: 'silent' }),
  })
  const { accounts, store } = server.services
  const firm = await accounts.addFirm('Bench Alarms')
  for (let person = 0; person < PEOPLE; person++)
    await accounts.addPerson(firm, {
      name: `Person ${person}`,
      login: `person-${person}`,
      role: person === 0 ? 'owner' : 'installer',
      password: 'bench-password-1',
    })
  const { doc, entries } = madeJob(64, true)
  await store.catalogueOf(firm).add([...entries], null)
  const cookies: string[] = []
  for (let person = 0; person < PEOPLE; person++) cookies.push(await signIn(server.url, `person-${person}`))
  const job = randomUUID()
  const first = cookies[0] ?? ''
  const begun = await call(server.url, 'PUT', `/api/jobs/${job}`, first, {
    edit: benchEdit(
      Object.values(doc.records)
        .sort(inOrder)
        .map((record): Op => ({ op: 'add', record })),
    ),
  })
  if (begun.status !== 200) throw new Error(await begun.text())
  const zones = recordsOf(doc, 'zone')
  const labels = new Map(zones.map((zone) => [zone.id, zone.label]))
  const p95 = await paced(async (person, round) => {
    const zone = zones[person % zones.length] as Zone
    const to = `PLACE ${person} ${round}`
    const op: Op = { op: 'set', id: zone.id, field: 'label', from: labels.get(zone.id), to }
    const answer = await call(server.url, 'POST', `/api/jobs/${job}/edits`, cookies[person] ?? '', {
      edits: [benchEdit([op], 'zone.label')],
    })
    if (answer.status !== 200) throw new Error(await answer.text())
    await answer.json()
    labels.set(zone.id, to)
  })
  await server.stop()
  return p95
}

function inOrder(a: { type: string }, b: { type: string }): number {
  const rank = (type: string): number =>
    ['pin', 'job', 'area', 'receiver', 'user', 'device', 'zone'].indexOf(type)
  return rank(a.type) - rank(b.type)
}

function call(url: string, method: string, path: string, cookie: string, body: object): Promise<Response> {
  return fetch(url + path, {
    method,
    headers: { 'Content-Type': 'application/json', Cookie: cookie },
    body: JSON.stringify(body),
  })
}

async function signIn(url: string, login: string): Promise<string> {
  const answer = await call(url, 'POST', '/api/session', '', { login, password: 'bench-password-1' })
  if (answer.status !== 200) throw new Error(await answer.text())
  return answer.headers.get('set-cookie')?.split(';')[0] ?? ''
}
