import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { asItIs, freshEvidence, recordOf, type Heard, type JobDocument, type Tried } from '#core'
import { blankDevice, type Op, type WrittenEntry } from '#core'
import type { RunningServer } from '../server.ts'
import { anEdit, startTestServer, TestClient } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let bob: TestClient
let eve: TestClient
let entries: { readonly id: string; readonly hash: string }[]
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  bob = await new TestClient(server.url).signIn('bob')
  eve = await new TestClient(server.url).signIn('eve')
  const offered = (await ann.call('GET', '/api/catalogue')).body.entries as WrittenEntry[]
  entries = offered.map(({ hash, raw }) => ({ hash, id: (raw as { id: string }).id }))
})
afterAll(() => server.stop())

const pin = (id: string): Op => ({
  op: 'add',
  record: {
    ...{ id: `pin:${id}`, type: 'pin', entry: id },
    hash: entries.find((entry) => entry.id === id)?.hash ?? '',
  },
})

/** A job whose one Reedling was heard after something was tried, practice or real. */
async function jobWhere(who: TestClient, rung: Tried['rung'], practice: boolean): Promise<string> {
  const job = await who.beginJob({ practice })
  const record = { ...blankDevice, id: 'device:one', model: 'device/reedling', order: 1, sticker: '20417733' }
  const sent = await who.send(
    job,
    anEdit([pin('device/reedling'), pin('family/wren'), { op: 'add', record }]),
  )
  expect(sent.status).toBe(200)
  const { document } = (await who.call('GET', `/api/jobs/${job}`)).body as unknown as {
    document: JobDocument
  }
  expect(recordOf(document, 'device', 'device:one')).not.toBeNull()
  const of = asItIs(document, 'device:one')
  const tried: Tried = {
    ...freshEvidence(who.me, '2026-05-04T10:00:00.000Z'),
    ...{ id: 'tried:1', type: 'tried', rung, way: '', subject: 'device:one', of },
  }
  const heard: Heard = {
    ...freshEvidence(who.me, '2026-05-04T10:01:00.000Z'),
    ...{
      id: 'heard:1',
      type: 'heard',
      serial: '20417733',
      family: 'family/wren',
      cause: 'event',
      loop: null,
    },
    ...{
      level: null,
      source: practice ? 'practice' : 'display',
      shown: null,
      times: 1,
      decision: 'accepted',
    },
    ...{ code: 'accept', reason: '', subject: 'device:one', of },
  }
  for (const one of [tried, heard]) {
    const answer = await who.send(job, anEdit([{ op: 'add', record: one }]))
    expect([answer.status, answer.body]).toMatchObject([200, { answers: [{ outcome: 'taken' }] }])
  }
  return job
}
const helped = async (who: TestClient, job: string): Promise<unknown> => {
  await server.services.summaries.settled()
  const answer = await who.call('GET', `/api/jobs/${job}/helped`)
  return answer.status === 200 ? answer.body.helped : answer.status
}

describe('what made devices heard', () => {
  it('is counted over the firm’s other jobs, practice apart from real, and never of another firm', async () => {
    const here = await ann.beginJob({ practice: false })
    expect(await helped(ann, here)).toEqual([])
    const other = await jobWhere(bob, 'battery', false)
    await jobWhere(ann, 'battery', false)
    await jobWhere(ann, 'nearer', true)
    await jobWhere(eve, 'other-way', false)
    expect(await helped(ann, here)).toEqual([{ model: 'device/reedling', rung: 'battery', times: 2 }])
    // A job's own is known from its document.
    expect(await helped(ann, other)).toEqual([{ model: 'device/reedling', rung: 'battery', times: 1 }])
    const practice = await ann.beginJob({ practice: true })
    expect(await helped(ann, practice)).toEqual([{ model: 'device/reedling', rung: 'nearer', times: 1 }])
    expect(await helped(eve, here)).toBe(404)
  })

  it('is no part of what the job list says', async () => {
    await server.services.summaries.settled()
    const { jobs } = (await ann.call('GET', '/api/jobs')).body as { jobs: { summary: object }[] }
    expect(jobs.length).toBeGreaterThan(2)
    for (const { summary } of jobs) expect(Object.keys(summary)).toEqual(['stage', 'owed', 'stops', 'clocks'])
  })
})
