import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { asItIs, freshEvidence, recordsOf, type Heard, type JobDocument, type JobList, type Op } from '#core'
import type { RunningServer } from '../server.ts'
import { anEdit, startTestServer, TestClient } from '../testing/client.ts'

/* Practice and real jobs: what each may hold, by the server, whatever a page thought. */

let server: RunningServer
let ann: TestClient
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
})
afterAll(() => server.stop())

const heard = (source: Heard['source'], serial = '20417733', subject = 'device:x'): Op => ({
  op: 'add',
  record: {
    ...freshEvidence(ann.me, new Date().toISOString()),
    ...{
      id: `heard:${randomUUID()}`,
      type: 'heard',
      serial,
      family: 'family/wren',
      cause: 'event',
      loop: null,
    },
    ...{
      level: null,
      source,
      shown: null,
      times: 1,
      decision: 'refused',
      code: 'x',
      reason: '',
      subject,
      of: null,
    },
  },
})
const job = async (id: string): Promise<JobDocument> =>
  (await ann.call('GET', `/api/jobs/${id}`)).body.document as JobDocument

it.each([
  [true, 'practice', 200],
  [true, 'display', 422],
  [true, 'sticker', 422],
  [false, 'practice', 422],
  [false, 'display', 200],
  [false, 'sticker', 200],
  [false, 'bridge', 200],
  [false, 'station', 200],
] as const)(
  'in a job that is practice: %s, what came by %s is answered %s',
  async (practice, source, status) => {
    const id = await ann.beginJob({ practice })
    const answer = await ann.send(id, anEdit([heard(source)]))
    expect(answer.status).toBe(status)
    if (status === 422) expect(answer.body.problems?.[0]?.path).toBe('ops.0.record.source')
    expect(recordsOf(await job(id), 'heard')).toHaveLength(status === 200 ? 1 : 0)
  },
)

it('a job never becomes practice, nor real', async () => {
  for (const practice of [true, false]) {
    const id = await ann.beginJob({ practice })
    const answer = await ann.send(
      id,
      anEdit([{ op: 'set', id: 'job:main', field: 'practice', from: practice, to: !practice }]),
    )
    expect(answer.status).toBe(422)
    expect(answer.body.problems?.[0]?.message).toContain('is said when the job is made')
    expect((await job(id)).records['job:main']).toMatchObject({ practice })
  }
})

it('what a page of before took from the air of a job that is real now is kept, and enrols nothing', async () => {
  const id = await ann.beginJob()
  const doc = await job(id)
  const {
    source: _source,
    shown: _shown,
    times: _times,
    ...older
  } = (heard('practice') as { record: Heard }).record
  const edit = { ...anEdit([]), schema: 5, ops: [{ op: 'add', record: { ...older, source: 'air' } }] }
  expect((await ann.send(id, edit)).status).toBe(200)
  expect(recordsOf(await job(id), 'heard').map((record) => record.source)).toEqual(['practice'])
  expect(asItIs(doc, 'device:x')).toBeNull()
})

it('the list marks practice, and a practice job’s IDs are nobody’s', async () => {
  const [real, practice] = [
    await ann.beginJob({ name: 'Real one' }),
    await ann.beginJob({ name: 'Tried', practice: true }),
  ]
  const { jobs } = (await ann.call('GET', '/api/jobs')).body as unknown as JobList
  const marks = new Map(jobs.map((row) => [row.id, row.practice]))
  expect([marks.get(real), marks.get(practice)]).toEqual([false, true])
  const { transmitters } = server.services.store.jobsOf(
    (await server.services.store.people.byLogin('ann'))?.account.firmId ?? '',
  )
  expect(await transmitters.of(practice)).toEqual([])
})
