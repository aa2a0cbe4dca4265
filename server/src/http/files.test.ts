import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  evidenceOf,
  isEnrolled,
  madeBy,
  recordsOf,
  type Departure,
  type JobDocument,
  type Person,
} from '#core'
import { builds } from '../../../core/src/testing/builds.ts'
import type { RunningServer } from '../server.ts'
import { anEdit, aSignoff, startTestServer, TestClient, type Answer } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let eve: TestClient
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  eve = await new TestClient(server.url).signIn('eve')
})
afterAll(() => server.stop())

interface JobFile {
  schema: number
  id: string
  kapelleJob: number
  entries: { id: string; name: string }[]
  records: Record<string, unknown>[]
}

/** The newest frozen build's Fennel Bank, as a job file: enrolled, proved and signed. */
const demo = (): JobFile => structuredClone(builds.at(-1)?.jobs['fennel-bank']) as JobFile

const bring = (who: TestClient, job: string, file: unknown, edit: string = randomUUID()) =>
  who.call('PUT', `/api/jobs/${job}/file?edit=${edit}`, file)

describe('a job file', () => {
  it('goes out of one firm and into another with the same bytes but for the id', async () => {
    const first = randomUUID()
    expect((await bring(ann, first, demo())).status).toBe(200)
    const out = await ann.raw(`/api/jobs/${first}/file`)
    expect((JSON.parse(out.text) as JobFile).records.length).toBe(demo().records.length)
    const second = randomUUID()
    expect((await bring(eve, second, JSON.parse(out.text))).status).toBe(200)
    const again = await eve.raw(`/api/jobs/${second}/file`)
    expect(again.text).toBe(out.text.replace(first, second))
    expect(out.headers.get('content-disposition')).toBe('attachment; filename=fennel-bank-practice.json')
  })

  it('is taken once however often it is sent', async () => {
    const job = randomUUID()
    const edit = randomUUID()
    await bring(ann, job, demo(), edit)
    await bring(ann, job, demo(), edit)
    // The plan and what the file tells, each an edit of its own.
    expect((await ann.call('GET', `/api/jobs/${job}`)).body.revision).toBe(2)
  })

  it('holds no secret and no sign-in', async () => {
    const job = randomUUID()
    await bring(ann, job, demo())
    const { text } = await ann.raw(`/api/jobs/${job}/file`)
    expect(text).not.toMatch(/password|session|token|firmId/i)
  })

  it.each<[string, (file: JobFile) => unknown, string]>([
    ['a newer form', (file) => ({ ...file, kapelleJob: 7 }), 'kapelleJob'],
    [
      'an entry that differs from its hash',
      (file) => ({ ...file, entries: file.entries.map((entry) => ({ ...entry, name: `${entry.name}!` })) }),
      'pin:',
    ],
    [
      'a zone number 0',
      (file) => ({
        ...file,
        records: file.records.map((record) => (record.type === 'zone' ? { ...record, number: 0 } : record)),
      }),
      'number',
    ],
    [
      'a broken record',
      (file) => ({ ...file, records: [...file.records, { id: 'zone:x', type: 'zone' }] }),
      'zone:x',
    ],
    ['no file', () => null, 'file'],
  ])('with %s is refused whole', async (_what, spoil, names) => {
    const job = randomUUID()
    const answer = await bring(ann, job, spoil(demo()))
    expect(answer.status).toBe(422)
    expect(JSON.stringify(answer.body)).toContain(names)
    expect((await ann.call('GET', `/api/jobs/${job}`)).status).toBe(404)
  })
})

describe('the zone schedule', () => {
  it('comes as CSV and as PDF with its fonts inside', async () => {
    const job = randomUUID()
    await bring(ann, job, demo())
    const csv = await ann.raw(`/api/jobs/${job}/schedule.csv`)
    expect(csv.text.startsWith('\uFEFFZone,Label')).toBe(true)
    expect(csv.headers.get('content-type')).toBe('text/csv; charset=utf-8')
    const pdf = await ann.raw(`/api/jobs/${job}/schedule.pdf`)
    expect(pdf.text.startsWith('%PDF-')).toBe(true)
    expect(pdf.text.includes('/FontFile2')).toBe(true)
    expect(/\/BaseFont \/[A-Z]+\+Roboto/.test(pdf.text)).toBe(true)
  })

  it.each([
    // ISO 216 A4 and ANSI letter, across, in points of 1/72 inch.
    ['europe', '841.89 595.28'],
    ['north-america', '792 612'],
    ['own', '841.89 595.28'],
  ])('is for the paper of the region: %s', async (region, paper) => {
    const job = randomUUID()
    const written = JSON.stringify(demo()).replace(/"region":"[a-z-]+"/, `"region":"${region}"`)
    expect((await bring(ann, job, JSON.parse(written) as ReturnType<typeof demo>)).status).toBe(200)
    const pdf = await ann.raw(`/api/jobs/${job}/schedule.pdf`)
    expect(/\/MediaBox \[0 0 ([\d. ]+)\]/.exec(pdf.text)?.[1]).toBe(paper)
  })
})

describe('box labels and the zone card', () => {
  it('come as PDF on the paper that was asked for, their codes leading to where they were asked', async () => {
    const job = randomUUID()
    await bring(ann, job, demo())
    const pdf = await ann.raw(`/api/jobs/${job}/labels.pdf?paper=roll-62&from=1`)
    expect(pdf.headers.get('content-type')).toBe('application/pdf')
    expect(pdf.headers.get('content-disposition')).toContain('-labels.pdf')
    expect(/\/MediaBox \[0 0 ([\d. ]+)\]/.exec(pdf.text)?.[1]).toMatch(/^175\.7\d* 82\.2\d*$/)
    expect((await ann.raw(`/api/jobs/${job}/labels.pdf?paper=a4-24`)).text.startsWith('%PDF-')).toBe(true)
  })

  it.each([
    ['paper=a3', 'paper'],
    ['paper=a4-24&from=0', 'from'],
    ['paper=a4-24&from=31', 'from'],
    ['paper=a4-24&from=x', 'from'],
  ])('are refused with a word on what is wrong: %s', async (query, names) => {
    const job = randomUUID()
    await bring(ann, job, demo())
    const answer = await ann.call('GET', `/api/jobs/${job}/labels.pdf?${query}`)
    expect(answer.status).toBe(422)
    expect(JSON.stringify(answer.body)).toContain(names)
  })

  it('a card is refused where the panel shows labels itself', async () => {
    const job = randomUUID()
    await bring(ann, job, demo())
    const none = await ann.call('GET', `/api/jobs/${job}/zone-card.pdf`)
    expect(none.status).toBe(404)
    expect(JSON.stringify(none.body)).toContain('shows labels itself')
  })
})

describe('evidence of a file', () => {
  it('is told by the file and counts for nothing until it is repeated here', async () => {
    const job = randomUUID()
    await bring(ann, job, demo())
    const doc = (await ann.call('GET', `/api/jobs/${job}`)).body.document as JobDocument
    const named = Object.values(doc.records).filter((record) => 'made' in record)
    expect(named.length).toBeGreaterThan(50)
    expect(named.every((record) => 'made' in record && record.made.told === 'file')).toBe(true)
    expect(evidenceOf(doc, 'waiver')).toEqual([])
    expect(evidenceOf(doc, 'test')).toEqual([])
    expect(recordsOf(doc, 'zone').filter((zone) => isEnrolled(doc, zone.id))).toEqual([])
    const owner = recordsOf(doc, 'waiver')[0]
    expect(owner?.made).toMatchObject({ name: 'Morwen Tallis', told: 'file' })
  })
})

describe('evidence', () => {
  it('is added in one’s own name only', async () => {
    const job = await ann.beginJob()
    const bob = { id: 'someone', name: 'Bob Marsh' }
    const forged = await ann.send(job, anEdit([{ op: 'add', record: aSignoff('1', 'read-back', bob) }]))
    expect(forged.body.problems).toEqual([
      {
        path: 'ops.0.record.made',
        message: "must be Ann Reed: nobody adds a sign-off in another's name",
      },
    ])
    const own = await ann.send(job, anEdit([{ op: 'add', record: aSignoff('1', 'read-back', ann.me) }]))
    expect(own.status).toBe(200)
    const doc = (await ann.call('GET', `/api/jobs/${job}`)).body.document as JobDocument
    expect(evidenceOf(doc, 'signoff')[0]?.made).toMatchObject({ ...ann.me, role: 'owner', told: null })
  })

  it('never says itself that it was told, nor in which role it was made', async () => {
    const job = await ann.beginJob()
    const record = aSignoff('1', 'read-back', ann.me)
    const told = { ...record, made: { ...record.made, told: 'file' as const } }
    expect((await ann.send(job, anEdit([{ op: 'add', record: told }]))).status).toBe(422)
    const bob = await new TestClient(server.url).signIn('bob')
    const mine = aSignoff('2', 'read-back', bob.me)
    const boast = { ...mine, made: { ...mine.made, role: 'owner' as const, takenAt: '2020-01-01T00:00:00Z' } }
    expect((await bob.send(job, anEdit([{ op: 'add', record: boast }]))).status).toBe(200)
    const doc = (await ann.call('GET', `/api/jobs/${job}`)).body.document as JobDocument
    expect(evidenceOf(doc, 'signoff')[0]?.made.role).toBe('installer')
    expect(evidenceOf(doc, 'signoff')[0]?.made.takenAt).not.toBe('2020-01-01T00:00:00Z')
  })

  const departure = (who: Person): Departure => ({
    id: 'departure:1',
    type: 'departure',
    rule: 'glass',
    choice: 'both',
    reason: 'quiet kitchen',
    made: madeBy(who),
    at: '2026-05-04T09:30:00Z',
  })

  it('of a departure is not added in another’s name', async () => {
    const job = await ann.beginJob()
    const forged = await ann.send(
      job,
      anEdit([{ op: 'add', record: departure({ id: 'x', name: 'Bob Marsh' }) }]),
    )
    expect(forged.body.problems?.[0]?.message).toBe(
      "must be Ann Reed: nobody adds a departure from a house rule in another's name",
    )
    expect((await ann.send(job, anEdit([{ op: 'add', record: departure(ann.me) }]))).status).toBe(200)
  })

  it('may be put back by whoever took it out, as it was, and nothing else', async () => {
    const job = await ann.beginJob()
    await ann.send(job, anEdit([{ op: 'add', record: departure(ann.me) }]))
    const bob = await new TestClient(server.url).signIn('bob')
    const doc = (await ann.call('GET', `/api/jobs/${job}`)).body.document as JobDocument
    const record = doc.records['departure:1'] as Departure
    const removal = anEdit([{ op: 'remove', record }])
    expect((await bob.send(job, removal)).status).toBe(200)
    const back = (over: Partial<Departure>): Promise<Answer> =>
      bob.send(
        job,
        anEdit([{ op: 'add', record: { ...record, ...over } }], { kind: 'undo', undoes: removal.id }),
      )
    expect((await back({ reason: 'noisy kitchen' })).status).toBe(422)
    expect((await back({})).status).toBe(200)
    const after = (await ann.call('GET', `/api/jobs/${job}`)).body.document as JobDocument
    expect(after.records['departure:1']).toEqual(record)
  })

  it('is never changed or removed, and never beside a change of the plan', async () => {
    const job = await ann.beginJob()
    const record = aSignoff('1', 'read-back', ann.me)
    await ann.send(job, anEdit([{ op: 'add', record }]))
    const changed = await ann.send(
      job,
      anEdit([{ op: 'set', id: 'signoff:1', field: 'note', from: '', to: 'x' }]),
    )
    const removed = await ann.send(job, anEdit([{ op: 'remove', record }]))
    const mixed = await ann.send(
      job,
      anEdit([
        { op: 'add', record: aSignoff('2', 'read-back', ann.me) },
        { op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 },
      ]),
    )
    expect([changed.status, removed.status, mixed.status]).toEqual([422, 422, 422])
    expect(changed.body.problems?.[0]?.message).toContain('is evidence')
    expect(mixed.body.problems?.[0]?.message).toContain('evidence is an edit of its own')
  })

  it('bears times put right by the device’s clock, and says where that was too far off', async () => {
    const job = await ann.beginJob()
    const hour = 3_600_000
    const from = (offset: number): string => new Date(Date.now() + offset).toISOString()
    const send = (key: string, at: string, sentAt: string): Promise<Answer> =>
      ann.call('POST', `/api/jobs/${job}/edits`, {
        edits: [anEdit([{ op: 'add', record: aSignoff(key, key, ann.me, at) }])],
        sentAt,
      })
    await send('slow', from(-3 * hour), from(-2 * hour))
    await send('right', from(-hour), from(0))
    await send('old', from(-40 * 24 * hour), from(0))
    const doc = (await ann.call('GET', `/api/jobs/${job}`)).body.document as JobDocument
    const signed = new Map(recordsOf(doc, 'signoff').map((record) => [record.what, record]))
    const hoursAgo = (what: string): number =>
      Math.round((Date.now() - Date.parse(signed.get(what)?.at ?? '')) / hour)
    expect([hoursAgo('slow'), hoursAgo('right'), hoursAgo('old')]).toEqual([1, 1, 960])
    expect(['slow', 'right', 'old'].map((what) => signed.get(what)?.made.clockDoubtful)).toEqual([
      false,
      false,
      true,
    ])
    // The doubtful one is ordered by when it was taken: last.
    expect(recordsOf(doc, 'signoff').at(-1)?.what).toBe('old')
  })
})
