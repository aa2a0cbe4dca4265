import { randomBytes, randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  answerOps,
  beginDraft,
  Catalogue,
  draftKernel,
  DRAFT_SCHEMA,
  LEAFLET_LIMIT,
  MOST_LEAFLETS,
  readKept,
  type CatalogueAnswer,
  type DraftJournalEntry,
  type DraftOp,
  type LeafletWire,
} from '#core'
import type { RunningServer } from '../server.ts'
import { startTestServer, TestClient } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let bob: TestClient
let cyd: TestClient
let eve: TestClient
beforeAll(async () => {
  server = await startTestServer()
  ;[ann, bob, cyd, eve] = (await Promise.all(
    ['ann', 'bob', 'cyd', 'eve'].map((login) => new TestClient(server.url).signIn(login)),
  )) as [TestClient, TestClient, TestClient, TestClient]
})
afterAll(() => server.stop())

const begun = Buffer.from('%PDF-1.7\n')
const pdf = (bytes: number): Buffer => Buffer.concat([begun, randomBytes(bytes - begun.length)])
const send = (who: TestClient, about: string, file: Buffer, name = 'Burrow leaflet.pdf') =>
  who.call(
    'POST',
    `/api/catalogue/leaflets?about=${encodeURIComponent(about)}&name=${encodeURIComponent(name)}`,
    file,
    { 'Content-Type': 'application/octet-stream' },
  )
const sent = async (...args: Parameters<typeof send>): Promise<LeafletWire> => {
  const { status, body } = await send(...args)
  expect(status).toBe(200)
  return body.leaflet as unknown as LeafletWire
}
const catalogue = async (who: TestClient): Promise<CatalogueAnswer> =>
  (await who.call('GET', '/api/catalogue')).body as never
const about = async (who: TestClient, id: string): Promise<string[]> =>
  (await catalogue(who)).leaflets.filter((one) => one.about === id).map(({ name }) => name)
const at = (id: string): string => `/api/catalogue/leaflets/${id}`

describe('a leaflet', () => {
  it.each([
    ['a PDF of one part', 'application/pdf', pdf(20)],
    // Parts have 384 KiB: one byte less, as many, one more, and the most that there may be.
    ['a PDF that just fills a part', 'application/pdf', pdf(384 * 1024)],
    ['a PDF one byte beyond', 'application/pdf', pdf(384 * 1024 + 1)],
    ['the largest', 'application/pdf', pdf(LEAFLET_LIMIT)],
    ['a photo', 'image/jpeg', Buffer.concat([Buffer.from([0xff, 0xd8, 0xff]), randomBytes(5000)])],
  ])('comes back as it was sent, by its content: %s', async (_what, type, file) => {
    const leaflet = await sent(bob, 'device/reedling', file)
    expect(leaflet).toMatchObject({
      ...{ about: 'device/reedling', name: 'Burrow leaflet.pdf', type, bytes: file.length, by: bob.me.name },
    })
    const back = await cyd.bytes(at(leaflet.id))
    expect([back.status, back.content.equals(file)]).toEqual([200, true])
    const header = (name: string) => back.headers.get(name)
    expect(header('content-type')).toBe(type)
    // Whatever it holds, a browser runs none of it.
    expect(header('content-security-policy')).toBe("default-src 'none'; sandbox")
    expect(header('x-content-type-options')).toBe('nosniff')
    expect(header('content-disposition')).toContain('attachment')
    expect((await eve.bytes(at(leaflet.id))).status).toBe(404)
    expect((await ann.call('DELETE', at(leaflet.id))).status).toBe(200)
    expect((await ann.bytes(at(leaflet.id))).status).toBe(404)
  })

  it.each<[string, string, Buffer, string, number, string]>([
    ['nothing', 'device/wick', Buffer.alloc(0), 'a.pdf', 422, 'file is empty'],
    [
      'a page with another name',
      'device/wick',
      Buffer.from('<!doctype html><script>alert(1)</script>'),
      'a.pdf',
      422,
      'file is neither a PDF nor a photo (JPEG, PNG or WebP)',
    ],
    ['one byte too many', 'device/wick', pdf(LEAFLET_LIMIT + 1), 'a.pdf', 413, ''],
    ['what no entry has', 'device/nobody', pdf(20), 'a.pdf', 404, ''],
    ['a draft that is not', `draft/${randomUUID()}`, pdf(20), 'a.pdf', 404, ''],
    [
      'an id that is none',
      '../wick',
      pdf(20),
      'a.pdf',
      422,
      'about must be the id of an entry, or draft/ and that of a draft',
    ],
    [
      'no name',
      'device/wick',
      pdf(20),
      ' ',
      422,
      'name must be the name of the file, in 1 to 120 characters',
    ],
    ['a name of two lines', 'device/wick', pdf(20), 'a\r\nb.pdf', 422, 'name must be one line of plain text'],
  ])('is refused, and nothing kept: %s', async (_what, id, file, name, status, problem) => {
    const answer = await send(ann, id, file, name)
    expect(answer.status).toBe(status)
    expect((answer.body.problems ?? []).map(({ path, message }) => `${path} ${message}`)).toEqual(
      problem === '' ? [] : [problem],
    )
    expect(await about(ann, id)).toEqual([])
  })

  it('is there once however often it comes, also at the same moment, and of each entry for itself', async () => {
    const file = pdf(50_000)
    const all = await Promise.all(Array.from({ length: 6 }, () => sent(ann, 'device/stilt', file)))
    expect(new Set(all.map(({ id }) => id)).size).toBe(1)
    await sent(ann, 'device/puddle', file)
    expect([await about(ann, 'device/stilt'), await about(ann, 'device/puddle')]).toEqual([
      ['Burrow leaflet.pdf'],
      ['Burrow leaflet.pdf'],
    ])
    expect(await about(eve, 'device/stilt')).toEqual([])
  })

  it(`is refused beyond ${MOST_LEAFLETS} of one entry, also when they come at once`, async () => {
    const many = await Promise.all(
      Array.from({ length: MOST_LEAFLETS + 3 }, () => send(ann, 'device/glow', pdf(100))),
    )
    expect(many.filter(({ status }) => status === 200)).toHaveLength(MOST_LEAFLETS)
    expect(many.filter(({ status }) => status === 409)).toHaveLength(3)
    expect(await about(ann, 'device/glow')).toHaveLength(MOST_LEAFLETS)
  })

  it('of an entry is brought by who installs and taken away by whom the owner lets, and by nobody else', async () => {
    expect((await send(cyd, 'device/rime', pdf(20))).status).toBe(403)
    const { id } = await sent(bob, 'device/rime', pdf(20))
    for (const who of [cyd, bob]) expect((await who.call('DELETE', at(id))).status).toBe(403)
    expect((await eve.call('DELETE', at(id))).status).toBe(404)
    expect((await new TestClient(server.url).call('DELETE', at(id))).status).toBe(401)
    expect(await about(bob, 'device/rime')).toHaveLength(1)
    expect((await ann.call('DELETE', at(id))).status).toBe(200)
    expect((await ann.call('DELETE', at(id))).status).toBe(404)
  })
})

describe('a leaflet of a draft', () => {
  const path = (draft: string, rest = ''): string => `/api/catalogue/drafts/${draft}${rest}`
  const edit = (ops: readonly DraftOp[]) => ({
    ...{ id: randomUUID(), kind: 'draft.answer', schema: DRAFT_SCHEMA, by: ann.me, ops },
    madeAt: new Date().toISOString(),
  })
  const docOf = async (draft: string) => {
    const { entries } = (await ann.call('GET', path(draft))).body as unknown as {
      entries: DraftJournalEntry[]
    }
    return { doc: draftKernel.replay(entries), revision: entries.at(-1)?.revision ?? 0 }
  }
  /** A draft that corrects the Tremor shock sensor. */
  async function correction(): Promise<string> {
    const known = new Catalogue((await catalogue(ann)).entries.map(readKept))
    const like = known.get('device', 'device/tremor')
    const id = randomUUID()
    const ops = beginDraft('device', { like, corrects: true }, known)
    expect((await ann.call('PUT', path(id), { edit: edit(ops) })).status).toBe(200)
    return id
  }

  it('goes over to the entry that comes of it, and is not there twice', async () => {
    const id = await correction()
    const [both, own] = [pdf(400), pdf(500)]
    await sent(ann, 'device/tremor', both, 'of the entry.pdf')
    await sent(bob, `draft/${id}`, both, 'the same.pdf')
    await sent(bob, `draft/${id}`, own, 'of the draft.pdf')
    expect(await about(ann, `draft/${id}`)).toEqual(['the same.pdf', 'of the draft.pdf'])
    const { doc } = await docOf(id)
    const answer = await ann.call('POST', path(id, '/edits'), {
      edit: edit(answerOps(doc, 'name', 'Tremor shock, new')),
    })
    expect(answer.status).toBe(200)
    const { revision } = await docOf(id)
    const published = await ann.call('POST', path(id, '/published'), { revision, why: 'its leaflet' })
    expect([published.status, published.body.problems]).toEqual([200, undefined])
    expect(await about(ann, 'device/tremor')).toEqual(['of the entry.pdf', 'of the draft.pdf'])
    expect(await about(ann, `draft/${id}`)).toEqual([])
    // What was published takes none any more: the entry does.
    expect((await send(ann, `draft/${id}`, pdf(20))).status).toBe(404)
  })

  it('is taken away by whoever describes, and with the draft when that is put aside', async () => {
    const id = await correction()
    const first = await sent(bob, `draft/${id}`, pdf(20))
    expect((await bob.call('DELETE', at(first.id))).status).toBe(200)
    const second = await sent(bob, `draft/${id}`, pdf(20))
    expect((await eve.call('DELETE', path(id))).status).toBe(404)
    expect((await ann.bytes(at(second.id))).status).toBe(200)
    expect((await ann.call('DELETE', path(id))).status).toBe(200)
    expect((await ann.bytes(at(second.id))).status).toBe(404)
  })
})
