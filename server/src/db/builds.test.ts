import { randomUUID } from 'node:crypto'
import { createConnection } from 'mysql2/promise'
import { pino } from 'pino'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  canonicalJson,
  recordsOf,
  replay,
  SCHEMA,
  upgraded,
  type JobDocument,
  type JournalEntry,
  type OpenedJob,
  type UndoAnswer,
} from '#core'
import { builds } from '../../../core/src/testing/builds.ts'
import { hashPassword } from '../auth/password.ts'
import { startServer, type RunningServer } from '../server.ts'
import { anEdit, TEST_PASSWORD, TestClient } from '../testing/client.ts'
import { freshDatabase } from '../testing/database.ts'
import { openSource } from './source.ts'

/** A fresh database with the dump of a build in it, whose people sign in with the test password. */
async function restored(sql: string) {
  const address = await freshDatabase()
  const connection = await createConnection({ ...address, multipleStatements: true, charset: 'utf8mb4' })
  await connection.query(sql)
  await connection.query('UPDATE person SET password = ?', [await hashPassword(TEST_PASSWORD)])
  const [entries] = await connection.query(
    'SELECT job_id, revision, body FROM job_edit ORDER BY job_id, revision',
  )
  await connection.end()
  return { address, entries: entries as { job_id: string; revision: number; body: string }[] }
}

describe.each(builds.map((build) => [`${build.commit}, shape ${build.schema}`, build] as const))(
  'the database of build %s',
  (_name, build) => {
    let server: RunningServer
    let idris: TestClient
    let before: { job_id: string; revision: number; body: string }[]
    beforeAll(async () => {
      const { address, entries } = await restored(build.sql())
      before = entries
      server = await startServer({ address, port: 0, host: '127.0.0.1', logger: pino({ level: 'silent' }) })
      idris = await new TestClient(server.url).signIn('idris')
    })
    afterAll(() => server.stop())

    const jobIds = (): string[] => [...new Set(before.map((row) => row.job_id))]
    const open = async (job: string): Promise<OpenedJob> =>
      (await idris.call('GET', `/api/jobs/${job}`)).body as unknown as OpenedJob
    const journal = async (job: string): Promise<JournalEntry[]> =>
      (await idris.call('GET', `/api/jobs/${job}/edits?since=0`)).body.entries as JournalEntry[]

    it('opens, sums up and exports every job, and writes nothing for that', async () => {
      await server.services.summaries.settled()
      const { jobs } = (await idris.call('GET', '/api/jobs')).body as {
        jobs: { summary: unknown; fresh: boolean }[]
      }
      expect(jobs.length).toBe(jobIds().length)
      expect(jobs.every((job) => job.fresh && job.summary !== null)).toBe(true)
      for (const job of jobIds()) {
        const opened = await open(job)
        expect(opened.document.schema).toBe(SCHEMA)
        expect(opened.entries.length).toBe(recordsOf(opened.document, 'pin').length)
        for (const file of ['file', 'schedule.csv', 'schedule.pdf'])
          expect((await idris.raw(`/api/jobs/${job}/${file}`)).status).toBe(200)
        expect((await journal(job)).length).toBe(before.filter((row) => row.job_id === job).length)
      }
    })

    it('is upgraded once, by ordinary ops behind what was there', async () => {
      for (const job of jobIds()) {
        const shown = await open(job)
        const info = shown.document.records['job:main'] as { wishes: string }
        const set = (from: string, to: string) =>
          anEdit([{ op: 'set', id: 'job:main', field: 'wishes', from, to }])
        const sent = await Promise.all([
          idris.send(job, set(info.wishes, 'a')),
          idris.send(job, set('a', 'b')),
        ])
        expect(sent.some((answer) => answer.status === 200)).toBe(true)
        const entries = await journal(job)
        const upgrades = entries.filter((entry) => entry.edit.kind === 'upgrade')
        expect(upgrades.map((entry) => [entry.revision, entry.edit.schema])).toEqual([
          [shown.revision + 1, SCHEMA],
        ])
        // What was journalled before stands as it was written.
        const { source } = server.services.store.people
        const rows = await source.query<{ revision: number; body: string }[]>(
          'SELECT revision, body FROM job_edit WHERE job_id = ? AND revision <= ? ORDER BY revision',
          [job, shown.revision],
        )
        expect(rows.map((row) => row.body)).toEqual(
          before.filter((row) => row.job_id === job).map((row) => row.body),
        )
        const now = await open(job)
        expect(canonicalJson(upgraded(replay(entries)).records)).toBe(canonicalJson(now.document.records))
        const snapshots = await source.query<{ revision: number; document: string }[]>(
          'SELECT revision, document FROM job_snapshot WHERE job_id = ? AND revision = ?',
          [job, shown.revision + 1],
        )
        expect((JSON.parse(snapshots[0]?.document ?? '{}') as JobDocument).schema).toBe(SCHEMA)
        // Undo stops there.
        const steps = (await idris.call('GET', `/api/jobs/${job}/undo`)).body as unknown as UndoAnswer
        expect(steps.undo.every((entry) => entry.revision > shown.revision + 1)).toBe(true)
      }
    })

    it('takes what a page of that build had left unsent, each once', async () => {
      for (const [key, edits] of Object.entries(build.unsent)) {
        const job = key.replace('kapelle.unsent.', '')
        const first = await idris.send(job, ...edits)
        expect(first.body.problems ?? []).toEqual([])
        expect((first.body.answers as { outcome: string }[]).map((answer) => answer.outcome)).toEqual(
          edits.map(() => 'taken'),
        )
        const { revision } = await open(job)
        const again = await idris.send(job, ...edits)
        expect(again.body.answers).toEqual(first.body.answers)
        expect((await open(job)).revision).toBe(revision)
      }
    })
  },
)

describe('what a newer version wrote', () => {
  it('of a database is left alone', async () => {
    const address = await freshDatabase()
    const source = await openSource(address)
    await source.query(
      "INSERT INTO migrations (timestamp, name) VALUES (9999999999999, 'Later9999999999999')",
    )
    await source.destroy()
    await expect(openSource(address)).rejects.toThrow(
      'used by a newer version of Kapelle (Later9999999999999)',
    )
  })

  it('of a job or of a firm’s settings says so and is not touched', async () => {
    const { address } = await restored(builds.at(-1)?.sql() ?? '')
    const server = await startServer({
      address,
      port: 0,
      host: '127.0.0.1',
      logger: pino({ level: 'silent' }),
    })
    try {
      const { source } = server.services.store.people
      const idris = await new TestClient(server.url).signIn('idris')
      const job = randomUUID()
      await source.query(
        "INSERT INTO job SELECT firm_id, ?, 1, 'Later', '', '{}', 0, created_at, changed_at, 0, '', NULL, NULL, 0 FROM job LIMIT 1",
        [job],
      )
      const body = {
        ...anEdit([]),
        schema: SCHEMA + 1,
        ops: [{ op: 'add', record: { id: 'new:1', type: 'new' } }],
      }
      await source.query(
        "INSERT INTO job_edit (firm_id, job_id, revision, edit_id, kind, made_by, taken_at, body) SELECT firm_id, ?, 1, 'edit-of-later', 'x', 'y', created_at, ? FROM job WHERE id = ?",
        [job, JSON.stringify(body), job],
      )
      const opened = await idris.call('GET', `/api/jobs/${job}`)
      expect([opened.status, opened.body.title]).toEqual([
        426,
        `This job was written by a newer version of Kapelle (shape ${SCHEMA + 1}; this one reads up to ${SCHEMA}): update this one first. Nothing was changed.`,
      ])
      const sent = await idris.send(
        job,
        anEdit([{ op: 'set', id: 'job:main', field: 'wishes', from: '', to: 'x' }]),
      )
      expect(sent.status).toBe(426)
      await source.query(`UPDATE firm SET settings = '{"schema": ${SCHEMA + 1}}'`)
      expect((await idris.call('GET', '/api/house-rules')).status).toBe(426)
      const [row] = await source.query<{ count: string }[]>(
        'SELECT COUNT(*) AS count FROM job_edit WHERE job_id = ?',
        [job],
      )
      expect(Number(row?.count)).toBe(1)
    } finally {
      await server.stop()
    }
  })
})
