/*
 * npm run bench:find [JOBS]: how long 20,000 jobs take to be searched by name, address and serial, over HTTP as the page asks, against
 * the database's own query of the same rows in the same run.
 */
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { randomUUID } from 'node:crypto'
import { pino } from 'pino'
import { quantile } from 'simple-statistics'
import { seededRandom } from '#core'
import { startMariaDb } from '../server/src/db/mariadb.ts'
import { startServer } from '../server/src/server.ts'
import { benchEdit, smallJob } from './edits.ts'

const JOBS = Number(process.argv[2] ?? 20_000)
const TRANSMITTERS = 22
const ROUNDS = 40
/** What finding may take, ms, on two cores. */
const MOST_MS = 100
const PASSWORD = 'bench-password-1'

const streets = ['Mill', 'Quarry', 'Heron', 'Fell', 'Orchard', 'Chapel', 'Weir', 'Larch', 'Tallow', 'Sedge']
const kinds = ['Lane', 'Row', 'Bank', 'Court', 'Rise']
const people = [
  'Aldous',
  'Brack',
  'Cowley',
  'Dunmore',
  'Ebbs',
  'Farrow',
  'Garrick',
  'Hollin',
  'Imrie',
  'Jessop',
]

const folder = mkdtempSync(join(tmpdir(), 'kapelle-find-'))
const db = await startMariaDb(folder)
const server = await startServer({
  address: db,
  port: 0,
  host: '127.0.0.1',
  logger: pino({ level: 'silent' }),
})
let within = true
try {
  const { accounts, store, summaries } = server.services
  const firm = await accounts.addFirm('Bench Alarms')
  await accounts.addPerson(firm, { name: 'Ann', login: 'ann', role: 'owner', password: PASSWORD })
  const first = randomUUID()
  const ops = [{ op: 'add', record: smallJob(0) } as const]
  await store.jobsOf(firm).take(first, { edit: benchEdit(ops), now: new Date(), create: true })
  await summaries.settled()
  const { source } = store.jobsOf(firm)
  // The others are copies of one that the product made, each with a name, an address and IDs of its own.
  const random = seededRandom(17)
  const of = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)] as T
  const digits = (count: number): string =>
    Array.from({ length: count }, () => Math.floor(random() * 10)).join('')
  let sought = ''
  for (let at = 0; at < JOBS; at += 500) {
    const made = Array.from({ length: Math.min(500, JOBS - at) }, () => ({
      id: randomUUID(),
      name: `${of(people)} ${digits(3)}`,
      address: `${of(streets)} ${of(kinds)} ${digits(2)}`,
      serials: Array.from({ length: TRANSMITTERS }, () => digits(8)),
    }))
    sought = made[0]?.serials[0] ?? sought
    await source.query(
      `INSERT INTO job (firm_id, id, revision, name, address, practice, summary, summary_revision, summary_rules,
         summary_build, summary_due, claimed_until, created_at, changed_at)
       SELECT firm_id, made.id, revision, made.name, made.address, practice, summary, summary_revision, summary_rules,
         summary_build, NULL, NULL, created_at, changed_at - INTERVAL made.ago MINUTE
       FROM job JOIN JSON_TABLE(?, '$[*]' COLUMNS (id VARCHAR(36) PATH '$.id', name VARCHAR(200) PATH '$.name',
         address VARCHAR(400) PATH '$.address', ago INT PATH '$.ago')) AS made WHERE firm_id = ? AND job.id = ?`,
      [
        JSON.stringify(made.map(({ id, name, address }, ago) => ({ id, name, address, ago: at + ago }))),
        firm,
        first,
      ],
    )
    await source.query(
      `INSERT INTO job_edit (firm_id, job_id, revision, edit_id, kind, made_by, made_by_id, taken_at, body)
       SELECT firm_id, made.id, revision, UUID(), kind, made_by, made_by_id, taken_at, body
       FROM job_edit JOIN JSON_TABLE(?, '$[*]' COLUMNS (id VARCHAR(36) PATH '$')) AS made
       WHERE firm_id = ? AND job_id = ?`,
      [JSON.stringify(made.map(({ id }) => id)), firm, first],
    )
    const rows = made.flatMap(({ id, serials }) => serials.map((serial) => [firm, serial, id]))
    await source.query(`INSERT IGNORE INTO transmitter (firm_id, serial, job_id) VALUES ?`, [rows])
  }
  const signed = await fetch(`${server.url}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ login: 'ann', password: PASSWORD }),
  })
  const cookie = signed.headers.get('set-cookie')?.split(';')[0] ?? ''
  const searches = {
    'a customer': 'Farrow 1',
    'a street': 'Heron Row',
    'a whole serial': sought,
    'how a serial begins': sought.slice(0, 4),
    'what no job has': 'zzzz',
    'nothing: the latest': '',
  }
  for (const [name, text] of Object.entries(searches)) {
    const like = `%${text}%`
    const own = await each(async () => {
      await source.query(
        `SELECT * FROM job WHERE firm_id = ? AND (name LIKE ? OR address LIKE ?) ORDER BY changed_at DESC LIMIT 200`,
        [firm, like, like],
      )
      await source.query(`SELECT job_id FROM transmitter WHERE firm_id = ? AND serial LIKE ?`, [
        firm,
        text === '' ? '-' : `${text}%`,
      ])
    })
    let found = 0
    const page = await each(async () => {
      const answer = await fetch(`${server.url}/api/jobs?find=${encodeURIComponent(text)}`, {
        headers: { Cookie: cookie },
      })
      const { jobs } = (await answer.json()) as { jobs: unknown[] }
      found = jobs.length
    })
    const good = page <= MOST_MS
    if (!good) within = false
    console.log(
      `${good ? '✓' : '✗'} ${name} among ${JOBS} jobs: ${found} shown, ${page.toFixed(1)} ms at the median = ${(page / own).toFixed(2)} × the database’s own query (${own.toFixed(1)} ms); budget ${MOST_MS} ms`,
    )
  }
} finally {
  await server.stop()
  await db.stop()
  rmSync(folder, { recursive: true, force: true })
}
process.exitCode = within ? 0 : 1

async function each(run: () => Promise<void>): Promise<number> {
  const times: number[] = []
  for (let round = 0; round < ROUNDS; round++) {
    const began = performance.now()
    await run()
    times.push(performance.now() - began)
  }
  return quantile(times.slice(4), 0.5)
}
