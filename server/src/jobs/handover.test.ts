import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, expect, it } from 'vitest'
import {
  Catalogue,
  defaultHouseRules,
  freshEvidence,
  proofRecord,
  proofRoute,
  readJournalFile,
  type FixedRules,
  type JobDocument,
  type Op,
} from '#core'
import type { RunningServer } from '../server.ts'
import { anEdit, aSignoff, startTestServer, TestClient, type Answer } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
const finished = new URL('../../../demo/jobs/fennel-bank.json', import.meta.url)
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
})
afterAll(() => server.stop())

/** The demo's finished bungalow, in the names of this firm's people. */
async function finishedJob(): Promise<string> {
  const read = readJournalFile(JSON.parse(readFileSync(finished, 'utf8')))
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  const found = await server.services.store.people.byLogin('ann')
  if (!found) throw new Error('no ann')
  const id = randomUUID()
  await server.services.jobs.loadJournal([found.account], { ...read, id })
  // The day of its 24-hour readings is long over here: they are read now.
  const catalogue = new Catalogue(read.entries)
  const results = proofRoute(read.document, catalogue, now())
    .flatMap((stop) => stop.items)
    .filter((item) => item.kind === 'average')
    .map((item): Op => ({
      op: 'add',
      record: proofRecord({ doc: read.document, catalogue }, item, {
        made: { id: `test:${randomUUID()}`, who: ann.me, at: now() },
        result: { outcome: 'pass', reading: 7 },
      }),
    }))
  expect((await ann.send(id, anEdit(results))).status).toBe(200)
  return id
}
const now = (): string => new Date().toISOString()
const sign = (job: string): Promise<Answer> =>
  ann.send(job, anEdit([{ op: 'add', record: aSignoff(randomUUID(), 'handed-over', ann.me, now()) }]))
const fixRules = (job: string): Promise<Answer> => {
  const record: FixedRules = {
    ...freshEvidence(ann.me, now()),
    id: `fixed-rules:${randomUUID()}`,
    type: 'fixed-rules',
    rules: defaultHouseRules,
  }
  return ann.send(job, anEdit([{ op: 'add', record }]))
}

it('is taken of a job that owes nothing', async () => {
  const job = await finishedJob()
  expect((await sign(job)).status).toBe(200)
  expect((await fixRules(job)).status).toBe(200)
})

it('is refused by the server, whatever the page thought, with what is owed', async () => {
  const job = await finishedJob()
  const doc = (await ann.call('GET', `/api/jobs/${job}`)).body.document as JobDocument
  const fob = Object.values(doc.records).find((record) => record.type === 'device' && record.user !== null)
  if (fob?.type !== 'device') throw new Error('no fob')
  // A colleague unbinds a fob while the page still shows that nothing is owed.
  await ann.send(job, anEdit([{ op: 'set', id: fob.id, field: 'user', from: fob.user, to: null }]))
  for (const answer of [await sign(job), await fixRules(job)]) {
    expect(answer.status).toBe(422)
    expect(answer.body.problems?.map((problem) => problem.message)).toContain(
      'It is not ready to hand over: 1 fob is bound to no user.',
    )
  }
  const after = (await ann.call('GET', `/api/jobs/${job}`)).body.document as JobDocument
  expect(Object.values(after.records).some((record) => record.type === 'fixed-rules')).toBe(false)
})

it('of an empty job names what it lacks', async () => {
  const job = await ann.beginJob()
  const answer = await sign(job)
  expect(answer.body.problems?.map((problem) => problem.message)).toEqual(
    expect.arrayContaining([
      'It is not ready to hand over: No panel is chosen.',
      'It is not ready to hand over: The kit is empty.',
    ]),
  )
})
