import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { hashOf, type CatalogueEntry, type WrittenEntry } from '#core'
import type { RunningServer } from '../server.ts'
import { startTestServer, TestClient } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let eve: TestClient
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  eve = await new TestClient(server.url).signIn('eve')
})
afterAll(() => server.stop())

interface Pack {
  kapellePack: number
  title: string
  entries: (CatalogueEntry & Record<string, unknown>)[]
}

const exported = async (who: TestClient): Promise<Pack> =>
  JSON.parse((await who.raw('/api/catalogue/pack')).text) as Pack
const offered = async (who: TestClient): Promise<string[]> =>
  ((await who.call('GET', '/api/catalogue')).body.entries as WrittenEntry[]).map((item) => item.hash).sort()
const bring = (who: TestClient, pack: unknown) => who.call('POST', '/api/catalogue/pack', { pack })

describe('catalogue packs', () => {
  it('go out and in to the same hashes', async () => {
    const before = await offered(ann)
    const answer = await bring(ann, await exported(ann))
    expect(answer.body).toEqual({ new: 0, changed: 0, same: before.length, kept: 0, renamed: [] })
    expect(await offered(ann)).toEqual(before)
  })

  it('change one firm’s entry and leave another firm’s of the same id alone', async () => {
    const before = await offered(eve)
    const pack = await exported(ann)
    const stilt = pack.entries.find((entry) => entry.id === 'device/stilt')
    const answer = await bring(ann, { ...pack, entries: [{ ...stilt, note: 'Ann’s own note' }] })
    expect(answer.body).toEqual({ new: 0, changed: 1, same: 0, kept: 0, renamed: [] })
    const now = (await exported(ann)).entries.find((entry) => entry.id === 'device/stilt')
    expect(now?.note).toBe('Ann’s own note')
    expect(await offered(eve)).toEqual(before)
  })

  it.each<[string, (pack: Pack) => unknown, string]>([
    [
      'a newer form',
      (pack) => ({ ...pack, kapellePack: 9 }),
      'kapellePack: is 9; this Kapelle reads up to 8',
    ],
    [
      'one bad entry among good ones',
      (pack) => ({ ...pack, entries: [...pack.entries, { id: 'device/odd', kind: 'device' }] }),
      'device/odd.version: is missing; a text is needed',
    ],
    ['no pack', () => 'hello', 'pack: '],
  ])('with %s are refused whole', async (_what, spoil, said) => {
    const before = await offered(ann)
    const answer = await bring(ann, spoil(await exported(ann)))
    expect(answer.status).toBe(422)
    const lines = (answer.body.problems ?? []).map((problem) => `${problem.path}: ${problem.message}`)
    if (said !== 'pack: ') expect(lines).toContain(said)
    expect(await offered(ann)).toEqual(before)
  })

  it('leave the former entry to be found by its hash, by this firm only', async () => {
    const pack = await exported(ann)
    const former = pack.entries.find((entry) => entry.id === 'device/wick') as CatalogueEntry
    await bring(ann, { ...pack, entries: [{ ...former, note: 'a later note' }] })
    const ask = async (who: TestClient, hash: string) =>
      ((await who.call('GET', `/api/catalogue/entries?hashes=${hash}`)).body.entries as WrittenEntry[]).map(
        (item) => item.hash,
      )
    expect(await ask(ann, hashOf(former))).toEqual([hashOf(former)])
    const own = hashOf({ ...former, note: 'a later note' } as CatalogueEntry)
    expect([await ask(ann, own), await ask(eve, own)]).toEqual([[own], []])
    expect((await ann.call('GET', '/api/catalogue/entries?hashes=none')).status).toBe(422)
  })

  it('beyond 5 MB are refused with the limit', async () => {
    const answer = await bring(ann, { kapellePack: 1, title: 'x'.repeat(5_100_000), entries: [] })
    expect([answer.status, answer.body.title]).toEqual([
      413,
      'A catalogue pack may have at most 5 MB. Split it; nothing was changed.',
    ])
  })

  it('have a JSON Schema that anyone may read', async () => {
    const schema = (await new TestClient(server.url).call('GET', '/api/catalogue/schema.json')).body
    expect(schema).toMatchObject({ type: 'object', required: ['kapellePack', 'title', 'entries'] })
  })
})
