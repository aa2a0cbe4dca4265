import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  answerOps,
  beginDraft,
  Catalogue,
  draftKernel,
  DRAFT_SCHEMA,
  readKept,
  type Answer,
  type DraftJournalEntry,
  type DraftOp,
  type VersionsAnswer,
  type WrittenEntry,
} from '#core'
import world from '../../../demo/packs/world.json' with { type: 'json' }
import type { RunningServer } from '../server.ts'
import { startTestServer, TestClient } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let bob: TestClient
let cyd: TestClient
let eve: TestClient
let catalogue: Catalogue
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  bob = await new TestClient(server.url).signIn('bob')
  cyd = await new TestClient(server.url).signIn('cyd')
  eve = await new TestClient(server.url).signIn('eve')
  await ann.call('POST', '/api/catalogue/pack', { pack: world })
  await ann.call('PUT', `/api/people/${bob.me.id}`, { role: 'installer', rights: ['catalogue'] })
  catalogue = await offered()
})
afterAll(() => server.stop())

const offered = async (who = ann): Promise<Catalogue> =>
  new Catalogue(
    ((await who.call('GET', '/api/catalogue')).body as unknown as { entries: WrittenEntry[] }).entries.map(
      readKept,
    ),
  )

const family: Readonly<Record<string, Answer['value']>> = {
  ...{ maker: 'Penbrook', regions: ['europe'], 'bandMHz.from': 868.9, way: 'one-way', encryption: 'none' },
  topology: 'star',
  sticker: { length: 8, alphabet: 'digits', idFrom: 1, idTo: 8, groups: [4, 4], check: 'none' },
  'sticker.where': 'eight digits',
  ...{ 'placement.unit': 'bars', 'placement.best': 4, 'placement.least': 2, 'placement.readAt': 'receiver' },
}
const edit = (who: TestClient, ops: readonly DraftOp[]) => ({
  ...{ id: randomUUID(), kind: 'draft.answer', schema: DRAFT_SCHEMA, by: who.me, ops },
  madeAt: new Date().toISOString(),
})
const path = (draft: string, rest = ''): string => `/api/catalogue/drafts/${draft}${rest}`

/** A person at a draft: what they hold of it is what they last loaded. */
class AtDraft {
  doc = draftKernel.empty
  revision = 0
  constructor(
    readonly who: TestClient,
    readonly id: string,
  ) {}

  async load(): Promise<this> {
    const { body } = await this.who.call('GET', path(this.id))
    const { entries } = body as unknown as { entries: DraftJournalEntry[] }
    this.doc = draftKernel.replay(entries)
    this.revision = entries.at(-1)?.revision ?? 0
    return this
  }

  async answer(question: string, value: Answer['value'] | undefined): Promise<number> {
    const answer = await this.who.call('POST', path(this.id, '/edits'), {
      edit: edit(this.who, answerOps(this.doc, question, value)),
    })
    return answer.status
  }

  async publish(why = '') {
    return this.who.call('POST', path(this.id, '/published'), { revision: this.revision, why })
  }
}

async function begun(
  who: TestClient,
  ops: readonly DraftOp[] = beginDraft('family', { like: null, corrects: false }, catalogue),
): Promise<AtDraft> {
  const id = randomUUID()
  const answer = await who.call('PUT', path(id), { edit: edit(who, ops) })
  expect([answer.status, answer.body.title]).toEqual([200, undefined])
  return new AtDraft(who, id).load()
}

async function whole(who: TestClient, name: string): Promise<AtDraft> {
  const at = await begun(who)
  for (const [question, value] of Object.entries({ ...family, name })) {
    expect(await at.answer(question, value)).toBe(200)
    await at.load()
  }
  return at
}

const listed = async (
  who: TestClient,
): Promise<
  { id: string; name: string; state: string; why: string; changedBy: string; entryId: string | null }[]
> => (await who.call('GET', '/api/catalogue/drafts')).body.drafts as never

const versions = async (who: TestClient, id: string): Promise<VersionsAnswer> =>
  (await who.call('GET', `/api/catalogue/versions?id=${encodeURIComponent(id)}`)).body as never

describe('a draft of a catalogue entry', () => {
  it('is described, listed, published whole and then offered, with who and why', async () => {
    const at = await whole(bob, 'Teasel')
    expect((await listed(cyd)).find(({ id }) => id === at.id)).toMatchObject({
      name: 'Teasel',
      state: 'open',
      changedBy: bob.me.name,
    })
    const published = await at.publish('from its leaflet')
    expect([published.status, published.body]).toEqual([
      200,
      { entryId: 'family/teasel', hash: expect.stringMatching(/^[0-9a-f]{64}$/) as unknown, version: '1' },
    ])
    expect((await offered()).get('family', 'family/teasel')).toMatchObject({
      maker: 'Penbrook',
      sticker: { length: 8 },
    })
    expect((await listed(cyd)).find(({ id }) => id === at.id)).toMatchObject({
      ...{ state: 'published', why: 'from its leaflet', changedBy: bob.me.name, entryId: 'family/teasel' },
    })
    // Of another firm's entries nothing is told.
    expect((await versions(eve, 'family/teasel')).versions).toEqual([])
    const told = await versions(cyd, 'family/teasel')
    expect(told.versions).toMatchObject([
      { hash: published.body.hash, how: 'published', by: bob.me.name, why: 'from its leaflet' },
    ])
    expect([told.current, told.entries.map(({ hash }) => hash)]).toEqual([
      ...[published.body.hash, [published.body.hash]],
    ])
    // Published once: neither again nor changed.
    expect((await at.publish()).status).toBe(409)
    expect(await at.answer('name', 'Other')).toBe(409)
  })

  it('is not published while something is missing or wrong, and nothing of it is offered', async () => {
    const at = await whole(bob, 'Half said')
    await at.answer('topology', undefined)
    await at.load()
    const before = (await offered()).entries.length
    const refused = await at.publish()
    expect([refused.status, refused.body.problems]).toEqual([
      422,
      [{ path: 'topology', message: 'is not answered yet' }],
    ])
    await at.answer('topology', 'star')
    await at.answer('placement.unit', 'a unit too long')
    await at.load()
    expect((await at.publish()).body.problems).toEqual([
      { path: 'placement.unit', message: 'must be 1 to 12 characters' },
    ])
    expect((await offered()).entries.length).toBe(before)
    expect((await listed(bob)).find(({ id }) => id === at.id)?.state).toBe('open')
  })

  it('is not published as somebody else left it in the meantime', async () => {
    const at = await whole(bob, 'Moved on')
    const other = await new AtDraft(ann, at.id).load()
    expect(await other.answer('placement.best', 5)).toBe(200)
    const refused = await at.publish()
    expect([refused.status, refused.body.title]).toEqual([
      409,
      expect.stringContaining('Somebody changed this draft') as unknown,
    ])
    expect((await (await at.load()).publish()).status).toBe(200)
    expect((await offered()).get('family', 'family/moved-on')?.placement.best).toBe(5)
  })

  it('takes two people’s answers to different questions, and says whose came first to the same one', async () => {
    const mine = await begun(bob)
    const theirs = await new AtDraft(ann, mine.id).load()
    expect(await mine.answer('maker', 'Penbrook')).toBe(200)
    expect(await theirs.answer('name', 'Teasel two')).toBe(200)
    expect(await theirs.answer('maker', 'Penbrooke')).toBe(409)
    expect((await mine.load()).doc.records).toMatchObject({
      'answer:maker': { value: 'Penbrook' },
      'answer:name': { value: 'Teasel two' },
    })
  })

  it('takes the same edit once, however often it is sent', async () => {
    const at = await begun(bob)
    const one = edit(bob, answerOps(at.doc, 'maker', 'Penbrook'))
    const answers = await Promise.all(
      [1, 2, 3].map(() => bob.call('POST', path(at.id, '/edits'), { edit: one })),
    )
    expect(answers.map(({ status, body }) => [status, body.revision])).toEqual([
      [200, 2],
      [200, 2],
      [200, 2],
    ])
    const id = randomUUID()
    const first = edit(bob, beginDraft('device', { like: null, corrects: false }, catalogue))
    const twice = await Promise.all([1, 2].map(() => bob.call('PUT', path(id), { edit: first })))
    expect(twice.map(({ status, body }) => [status, body.revision])).toEqual([
      [200, 1],
      [200, 1],
    ])
  })

  it('of two corrections of one entry the second is told that the first was there', async () => {
    const like = (await offered()).get('family', 'family/plover')
    const ops = beginDraft('family', { like, corrects: true }, await offered())
    const [one, two] = [await begun(bob, ops), await begun(ann, ops)]
    await one.answer('placement.best', 4)
    await two.answer('placement.least', 2)
    expect((await (await one.load()).publish('read at a panel')).body).toMatchObject({
      entryId: 'family/plover',
      version: '2',
    })
    const late = await (await two.load()).publish()
    expect([late.status, late.body.problems?.[0]?.message]).toEqual([
      422,
      expect.stringContaining('corrected by somebody else meanwhile') as unknown,
    ])
    expect((await offered()).get('family', 'family/plover')?.placement).toMatchObject({ best: 4, least: 1 })
  })

  it('of many corrections that are published at the same moment one is taken', async () => {
    const now = await offered()
    const ops = beginDraft('family', { like: now.get('family', 'family/dunlin'), corrects: true }, now)
    const drafts: AtDraft[] = []
    for (let index = 0; index < 14; index += 1) drafts.push(await begun(index % 2 ? bob : ann, ops))
    const statuses = (await Promise.all(drafts.map((at) => at.publish()))).map(({ status }) => status)
    // More than there are connections: each does all its work on one.
    expect(statuses.toSorted()).toEqual([200, ...Array.from({ length: 13 }, () => 422)])
  })

  it('of many of one name, published at the same moment, each gets an id of its own', async () => {
    const drafts: AtDraft[] = []
    for (let index = 0; index < 3; index += 1) drafts.push(await whole(bob, 'Same name'))
    const published = await Promise.all(drafts.map((at) => at.publish()))
    expect(published.map(({ body }) => body.entryId).toSorted()).toEqual([
      ...['family/same-name', 'family/same-name-2', 'family/same-name-3'],
    ])
  })

  it('is begun by whoever installs, published by whom the owner lets, looked at by everybody of the firm and nobody else', async () => {
    const at = await whole(bob, 'Rights')
    expect(
      (await ann.call('PUT', `/api/people/${bob.me.id}`, { role: 'installer', rights: [] })).status,
    ).toBe(200)
    expect((await at.publish()).status).toBe(403)
    expect(await at.answer('maker', 'Penbrook & Co')).toBe(200)
    expect(
      (await ann.call('PUT', `/api/people/${bob.me.id}`, { role: 'installer', rights: ['catalogue'] }))
        .status,
    ).toBe(200)
    expect((await new AtDraft(cyd, at.id).load()).revision).toBeGreaterThan(0)
    expect(await new AtDraft(cyd, at.id).answer('maker', 'x')).toBe(403)
    for (const [method, rest, body] of [
      ['GET', '', undefined],
      ['POST', '/edits', { edit: edit(eve, answerOps(at.doc, 'maker', 'x')) }],
      ['POST', '/published', { revision: 1 }],
      ['DELETE', '', undefined],
    ] as const)
      expect([method, (await eve.call(method, path(at.id, rest), body)).status]).toEqual([method, 404])
    expect((await listed(eve)).length).toBe(0)
  })

  it('is put aside for good', async () => {
    const at = await begun(bob)
    expect((await bob.call('DELETE', path(at.id))).status).toBe(200)
    expect((await listed(bob)).some(({ id }) => id === at.id)).toBe(false)
    expect(await at.answer('maker', 'x')).toBe(409)
    expect((await bob.call('DELETE', path(at.id))).status).toBe(404)
  })

  it.each<[string, unknown, number, string]>([
    ['no edit', 'x', 422, ''],
    ['newer shapes', 'newer', 409, ''],
    ['a record of a job', { op: 'add', record: { id: 'room:1', type: 'room' } }, 422, 'has type "room"'],
    [
      'the wrong id',
      { op: 'add', record: { id: 'answer:a', type: 'answer', path: 'b', value: 1, source: '' } },
      422,
      'fit its record',
    ],
    [
      'what it began like',
      { op: 'set', id: 'draft:main', field: 'corrects', from: null, to: 'device/x' },
      422,
      'corrects',
    ],
  ])('refuses %s', async (_name, op, status, says) => {
    const at = await begun(bob)
    const newer = { ...edit(bob, answerOps(at.doc, 'maker', 'x')), schema: DRAFT_SCHEMA + 1 }
    const sent =
      op === 'newer'
        ? newer
        : typeof op === 'object' && op !== null && 'op' in op
          ? edit(bob, [op as DraftOp])
          : op
    const answer = await bob.call('POST', path(at.id, '/edits'), { edit: sent })
    expect(answer.status).toBe(status)
    expect(JSON.stringify(answer.body)).toContain(says.replaceAll('"', '\\"'))
  })

  it('must begin with what it is of', async () => {
    const answer = await bob.call('PUT', path(randomUUID()), {
      edit: edit(bob, answerOps(draftKernel.empty, 'maker', 'x')),
    })
    expect([answer.status, JSON.stringify(answer.body.problems)]).toEqual([
      422,
      expect.stringContaining('must add draft:main') as unknown,
    ])
    expect(
      (
        await bob.call('POST', path(randomUUID(), '/edits'), {
          edit: edit(bob, answerOps(draftKernel.empty, 'maker', 'x')),
        })
      ).status,
    ).toBe(404)
  })
})
