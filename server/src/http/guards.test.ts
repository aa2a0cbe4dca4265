import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  blankDevice,
  freshEvidence,
  rules,
  type JobDocument,
  type Op,
  type Waiver,
  type WrittenEntry,
} from '#core'
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

const hashOf = (id: string): string => entries.find((entry) => entry.id === id)?.hash ?? ''
const pin = (id: string, hash = hashOf(id)): Op => ({
  op: 'add',
  record: { id: `pin:${id}`, type: 'pin', entry: id, hash },
})

/** A job with one Reedling whose sticker has this ID. */
async function jobWith(who: TestClient, sticker: string): Promise<string> {
  const job = await who.beginJob({ name: `Of ${who.me.name}` })
  const record = { ...blankDevice, id: 'device:one', model: 'device/reedling', order: 1, sticker }
  const answer = await who.send(
    job,
    anEdit([pin('device/reedling'), pin('family/wren'), { op: 'add', record }]),
  )
  expect(answer.status).toBe(200)
  return job
}

describe('the look-up of transmitters', () => {
  it('names other jobs of the firm that use an ID, and never another firm’s', async () => {
    const mine = await jobWith(ann, '20417733')
    const uses = async (): Promise<unknown> =>
      (await ann.call('GET', `/api/jobs/${mine}/elsewhere`)).body.uses
    await jobWith(eve, '20417733')
    expect(await uses()).toEqual([])
    await jobWith(bob, '20417733')
    await jobWith(bob, '20417734')
    expect(await uses()).toEqual([{ serial: '20417733', job: 'Of Bob Marsh' }])
    const found = async (who: TestClient, text: string): Promise<number> =>
      ((await who.call('GET', `/api/jobs?find=${text}`)).body.jobs as unknown[]).length
    expect([await found(ann, '2041 7733'), await found(eve, '2041-7733'), await found(eve, '99')]).toEqual([
      2, 1, 0,
    ])
    expect(await found(ann, '%25')).toBe(0)
  })

  it('names IDs of the firm’s other jobs that are nearly one, the very one first, and never another firm’s', async () => {
    const here = await ann.beginJob()
    const [same, swapped, off, far] = ['20417799', '20417979', '20417709', '20417119']
    for (const sticker of [off, far, swapped, same]) await jobWith(bob, sticker ?? '')
    await jobWith(eve, '20417798')
    const around = async (who: TestClient, serial: string) => {
      const answer = await who.call('GET', `/api/jobs/${here}/around?serial=${serial}`)
      return answer.status === 200
        ? (answer.body.uses as { serial: string }[]).map((use) => use.serial)
        : answer.status
    }
    expect(await around(ann, '20417799')).toEqual([same, off, swapped])
    expect(await around(eve, '20417799')).toBe(404)
    for (const wrong of ['', '2', '2041_799', '2041%', 'abc12345', '9'.repeat(21)])
      expect([wrong, await around(ann, wrong)]).toEqual([wrong, 422])
  })

  it('made anew is the same as kept', async () => {
    const rows = (): Promise<unknown> =>
      server.services.store.people.source.query('SELECT * FROM transmitter ORDER BY firm_id, serial, job_id')
    const before = await rows()
    for (const firm of await server.services.store.people.firmIds())
      await server.services.store.jobsOf(firm).rebuildTransmitters()
    expect(await rows()).toEqual(before)
  })
})

describe('pins', () => {
  it('are of an entry under its own hash, when added and when moved', async () => {
    const job = await ann.beginJob()
    const wrong = await ann.send(job, anEdit([pin('device/reedling', hashOf('device/stilt'))]))
    expect(wrong.body.problems?.[0]).toMatchObject({ path: 'ops.0.record.hash' })
    expect((await ann.send(job, anEdit([pin('device/reedling')]))).status).toBe(200)
    const move = (to: string): Op => ({
      op: 'set',
      id: 'pin:device/reedling',
      field: 'hash',
      from: hashOf('device/reedling'),
      to,
    })
    for (const hash of [hashOf('device/stilt'), '0'.repeat(64)])
      expect((await ann.send(job, anEdit([move(hash)]))).body.problems?.[0]).toMatchObject({
        path: 'ops.0.to',
      })
    const doc = (await ann.call('GET', `/api/jobs/${job}`)).body.document as JobDocument
    expect(doc.records['pin:device/reedling']).toMatchObject({ hash: hashOf('device/reedling') })
  })
})

describe('waivers', () => {
  const waiver = (who: TestClient, rule: string): Waiver => ({
    ...freshEvidence(who.me, '2026-05-04T09:30:00.000Z'),
    id: `waiver:${randomUUID()}`,
    type: 'waiver',
    rule,
    subject: 'zone:x',
    text: 'as it reads',
    key: null,
    reason: 'agreed',
  })
  const may = async (who: TestClient, rule: string): Promise<boolean> => {
    const job = await who.beginJob()
    return (await who.send(job, anEdit([{ op: 'add', record: waiver(who, rule) }]))).status === 200
  }

  it('of life safety are an owner’s, of what the panel forbids nobody’s, of the rest anybody’s', async () => {
    const one = (waive: 'never' | 'owner' | undefined): string =>
      rules.find((rule) => rule.waive === waive)?.id ?? ''
    const table = await Promise.all(
      (['never', 'owner', undefined] as const).map(async (waive) => [
        waive ?? 'anybody',
        await may(bob, one(waive)),
        await may(ann, one(waive)),
      ]),
    )
    expect(table).toEqual([
      ['never', false, false],
      ['owner', false, true],
      ['anybody', true, true],
    ])
    expect(await may(ann, 'no such rule')).toBe(false)
  })
})
