import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { monitorEventLoopDelay } from 'node:perf_hooks'
import { pino } from 'pino'
import { quantile } from 'simple-statistics'
import type { Op } from '#core'
import { startMariaDb } from '../server/src/db/mariadb.ts'
import { startServer } from '../server/src/server.ts'
import { benchEdit, smallJob } from './edits.ts'
import { madeJob } from './made-job.ts'

const DEVICES = 2000
const ROUNDS = 40
/** What nobody may have to wait for another's large job, ms. */
const MOST_MS = 100

/** Who waits while a job of two thousand devices is opened, changed, summed up and printed. */
export interface BigJob {
  /** Slowest answer of the job list, ms. */
  readonly slowestList: number
  readonly medianList: number
  /** Longest time that the server's event loop was held, ms. */
  readonly longestHold: number
  readonly within: boolean
}

export async function bigJobBench(): Promise<BigJob> {
  const folder = mkdtempSync(join(tmpdir(), 'kapelle-bench-'))
  const db = await startMariaDb(folder)
  const server = await startServer({
    address: db,
    port: 0,
    host: '127.0.0.1',
    logger: pino({ level: 'silent' }),
  })
  try {
    const { accounts, store, summaries } = server.services
    const firmId = await accounts.addFirm('Bench Alarms')
    const person = { name: 'Ann', login: 'ann', role: 'owner', password: 'bench-password-1' } as const
    await accounts.addPerson(firmId, person)
    const { doc, entries } = madeJob(DEVICES, false)
    await store.catalogueOf(firmId).add([...entries], null)
    const jobs = store.jobsOf(firmId)
    const begin = (id: string, ops: readonly Op[]) =>
      jobs.take(id, { edit: benchEdit(ops), now: new Date(), create: true })
    const big = randomUUID()
    await begin(
      big,
      Object.values(doc.records).map((record): Op => ({ op: 'add', record })),
    )
    for (let n = 0; n < 60; n++) await begin(randomUUID(), [{ op: 'add', record: smallJob(n) }])
    await summaries.settled()
    const signed = await fetch(`${server.url}/api/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ login: 'ann', password: person.password }),
    })
    const cookie = (signed.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
    const get = async (path: string): Promise<number> => {
      const start = performance.now()
      await (await fetch(server.url + path, { headers: { Cookie: cookie } })).arrayBuffer()
      return performance.now() - start
    }
    await get('/api/jobs')
    const held = monitorEventLoopDelay({ resolution: 5 })
    held.enable()
    const lists: number[] = []
    for (let round = 0; round < ROUNDS; round++) {
      const from = round === 0 ? '' : `wish ${round - 1}`
      const ops: Op[] = [{ op: 'set', id: 'job:main', field: 'wishes', from, to: `wish ${round}` }]
      const busy = [
        jobs.take(big, { edit: benchEdit(ops), now: new Date(), create: false }),
        get(`/api/jobs/${big}`),
        ...(round % 20 === 5 ? [get(`/api/jobs/${big}/schedule.pdf`)] : []),
      ]
      summaries.nudge()
      lists.push(await get('/api/jobs'))
      await Promise.all(busy)
    }
    held.disable()
    const slowestList = Math.max(...lists)
    const longestHold = held.max / 1e6
    return {
      slowestList,
      medianList: quantile(lists, 0.5),
      longestHold,
      within: slowestList <= MOST_MS && longestHold <= MOST_MS,
    }
  } finally {
    await server.stop()
    await db.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
