import { afterAll, beforeAll, expect, it } from 'vitest'
import {
  asItIs,
  enrolmentOf,
  evidenceOf,
  freshEvidence,
  isEnrolled,
  type Heard,
  type JobDocument,
  type JournalEntry,
} from '#core'
import { builds } from '../../../core/src/testing/builds.ts'
import type { RunningServer } from '../server.ts'
import { anEdit, aSignoff, startTestServer, TestClient } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let bob: TestClient
let job: string
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  bob = await new TestClient(server.url).signIn('bob')
  job = crypto.randomUUID()
  // Of a build before practice jobs: it reads as a real one, in which a panel's display counts.
  const file = builds.find(({ schema }) => schema === 5)?.jobs['the-old-ropewalk']
  expect((await ann.call('PUT', `/api/jobs/${job}/file?edit=${crypto.randomUUID()}`, file)).status).toBe(200)
})
afterAll(() => server.stop())

const open = async (): Promise<JobDocument> =>
  (await ann.call('GET', `/api/jobs/${job}`)).body.document as unknown as JobDocument
const handIn = (who: TestClient, edits: unknown[], person = bob.me.id) =>
  who.call('POST', `/api/jobs/${job}/handed-in`, { person, edits })

it('an owner hands in what somebody who left had made: journalled as the owner’s, made by them, evidence told', async () => {
  const doc = await open()
  const zone = Object.values(doc.records).find((record) => record.type === 'zone' && record.device !== null)
  if (zone?.type !== 'zone') throw new Error('no zone')
  const by = { by: bob.me }
  const plan = anEdit(
    [
      {
        op: 'set',
        id: 'job:main',
        field: 'wishes',
        from: doc.records['job:main']?.['wishes' as never],
        to: 'left',
      },
    ],
    by,
  )
  const heard: Heard = {
    ...freshEvidence(bob.me, '2026-05-04T09:30:00.000Z'),
    id: 'heard:left',
    type: 'heard',
    serial: '20554499',
    family: 'family/wren',
    cause: 'event',
    loop: null,
    level: 6,
    source: 'display',
    shown: null,
    times: null,
    decision: 'accepted',
    code: 'accept',
    reason: '',
    subject: zone.id,
    of: asItIs(doc, zone.id),
  }
  const evidence = anEdit([{ op: 'add', record: heard }], by)
  const signed = anEdit([{ op: 'add', record: aSignoff('left', 'codes-changed', bob.me) }], by)
  // While he is there nobody hands anything in for him, and only an owner ever does.
  expect((await handIn(ann, [plan])).status).toBe(404)
  expect((await handIn(bob, [plan])).status).toBe(403)
  expect((await ann.call('DELETE', `/api/people/${bob.me.id}`)).status).toBe(200)
  expect((await handIn(ann, [plan], ann.me.id)).status).toBe(404)
  const foreign = await handIn(ann, [anEdit(plan.ops, { by: ann.me })])
  expect([foreign.status, foreign.body.problems?.[0]?.message]).toEqual([
    422,
    'must be Bob Marsh: only their own changes are handed in',
  ])

  expect((await handIn(ann, [plan, evidence, signed])).status).toBe(200)
  // Sent again after a lost answer it is taken once.
  expect((await handIn(ann, [plan, evidence, signed])).status).toBe(200)
  const journal = (await ann.call('GET', `/api/jobs/${job}/journal`)).body.entries as JournalEntry[]
  expect(journal.slice(0, 3).map(({ edit }) => [edit.id, edit.by, edit.madeFor])).toEqual(
    [signed, evidence, plan].map((edit) => [
      edit.id,
      { id: ann.me.id, name: 'Ann Reed' },
      { id: bob.me.id, name: 'Bob Marsh' },
    ]),
  )
  const after = await open()
  expect((after.records['job:main'] as { wishes: string }).wishes).toBe('left')
  expect(after.records['heard:left']).toMatchObject({
    made: { id: bob.me.id, name: 'Bob Marsh', role: null, told: 'owner' },
  })
  expect([isEnrolled(after, zone.id), enrolmentOf(after, zone.id)?.told]).toEqual([false, 'owner'])
  expect(evidenceOf(after, 'signoff').some((one) => one.id === 'signoff:left')).toBe(false)
})

it('nobody says by themselves that an edit was another’s', async () => {
  const edit = {
    ...anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }]),
    madeFor: { id: 'x', name: 'Bob Marsh' },
  }
  expect((await ann.send(job, edit)).status).toBe(200)
  const [entry] = (await ann.call('GET', `/api/jobs/${job}/journal`)).body.entries as JournalEntry[]
  expect([entry?.edit.id, entry?.edit.madeFor]).toEqual([edit.id, undefined])
})
