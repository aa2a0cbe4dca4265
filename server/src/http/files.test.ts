import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { defaultHouseRules, type JobRecord, type Op } from '#core'
import type { RunningServer } from '../server.ts'
import { anEdit, startTestServer, TestClient, type Answer } from '../testing/client.ts'

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
  id: string
  kapelleJob: number
  entries: { id: string; name: string }[]
  records: Record<string, unknown>[]
}

const demo = (): JobFile =>
  JSON.parse(readFileSync(new URL('../../../demo/jobs/fennel-bank.json', import.meta.url), 'utf8')) as JobFile

const bring = (who: TestClient, job: string, file: unknown, edit: string = randomUUID()) =>
  who.call('PUT', `/api/jobs/${job}/file`, { edit, file })

describe('a job file', () => {
  it('goes out of one firm and into another with the same bytes but for the id', async () => {
    const first = randomUUID()
    expect((await bring(ann, first, demo())).status).toBe(200)
    const out = await ann.raw(`/api/jobs/${first}/file`)
    const second = randomUUID()
    expect((await bring(eve, second, JSON.parse(out.text))).status).toBe(200)
    const again = await eve.raw(`/api/jobs/${second}/file`)
    expect(again.text).toBe(out.text.replace(first, second))
    expect(out.headers.get('content-disposition')).toBe('attachment; filename=fennel-bank.json')
  })

  it('is taken once however often it is sent', async () => {
    const job = randomUUID()
    const edit = randomUUID()
    await bring(ann, job, demo(), edit)
    await bring(ann, job, demo(), edit)
    expect((await ann.call('GET', `/api/jobs/${job}`)).body.revision).toBe(1)
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
})

describe('evidence', () => {
  it('is added in one’s own name only', async () => {
    const job = await ann.beginJob()
    const signoff = (by: string): Op => ({
      op: 'add',
      record: {
        id: 'signoff:1',
        type: 'signoff',
        what: 'read-back',
        by,
        at: '2026-05-04T09:30:00Z',
        note: '',
      },
    })
    const forged = await ann.send(job, anEdit([signoff('Bob Marsh')]))
    expect(forged.body.problems).toEqual([
      {
        path: 'ops.0.record.by',
        message: "must be Ann Reed: nobody adds a signoff record in another's name",
      },
    ])
    expect((await ann.send(job, anEdit([signoff('Ann Reed')]))).status).toBe(200)
  })

  it.each([
    {
      id: 'departure:1',
      type: 'departure',
      rule: 'glass',
      choice: 'both',
      reason: 'quiet kitchen',
      at: '2026-05-04T09:30:00Z',
    },
    { id: 'fixed-rules:main', type: 'fixed-rules', at: '2026-05-04T09:30:00Z', rules: defaultHouseRules },
  ] as const)('of a $type is not added in another’s name', async (record) => {
    const job = await ann.beginJob()
    const add = (by: string): Op => ({ op: 'add', record: { ...record, by } as JobRecord })
    expect((await ann.send(job, anEdit([add('Bob Marsh')]))).body.problems).toEqual([
      {
        path: 'ops.0.record.by',
        message: `must be Ann Reed: nobody adds a ${record.type} record in another's name`,
      },
    ])
    expect((await ann.send(job, anEdit([add('Ann Reed')]))).status).toBe(200)
  })

  it('may put back what its maker took out, as it was, and nothing else', async () => {
    const job = await ann.beginJob()
    const record = {
      id: 'departure:1',
      type: 'departure',
      rule: 'glass',
      choice: 'both',
      reason: 'quiet kitchen',
      by: 'Ann Reed',
      at: '2026-05-04T09:30:00Z',
    } as const
    await ann.send(job, anEdit([{ op: 'add', record }]))
    const bob = await new TestClient(server.url).signIn('bob')
    const removal = anEdit([{ op: 'remove', record }])
    await bob.send(job, removal)
    const back = (put: typeof record | { reason: string }): Promise<Answer> =>
      bob.send(
        job,
        anEdit([{ op: 'add', record: { ...record, ...put } }], { kind: 'undo', undoes: removal.id }),
      )
    expect((await back({ reason: 'noisy kitchen' })).status).toBe(422)
    expect((await back(record)).status).toBe(200)
  })

  it('is never changed or removed', async () => {
    const job = await ann.beginJob()
    const record = {
      id: 'signoff:1',
      type: 'signoff',
      what: 'read-back',
      by: 'Ann Reed',
      at: '2026-05-04T09:30:00Z',
      note: '',
    } as const
    await ann.send(job, anEdit([{ op: 'add', record }]))
    const changed = await ann.send(
      job,
      anEdit([{ op: 'set', id: 'signoff:1', field: 'note', from: '', to: 'x' }]),
    )
    const removed = await ann.send(job, anEdit([{ op: 'remove', record }]))
    expect([changed.status, removed.status]).toEqual([422, 422])
    expect(changed.body.problems?.[0]?.message).toContain('is evidence')
  })
})
