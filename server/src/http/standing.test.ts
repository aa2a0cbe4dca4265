import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { blankDevice, type CatalogueAct, type Op } from '#core'
import type { RunningServer } from '../server.ts'
import { anEdit, startTestServer, TestClient } from '../testing/client.ts'

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

interface Known {
  readonly entries: readonly { readonly hash: string; readonly raw: { readonly id: string } }[]
  readonly acts: readonly CatalogueAct[]
}
const catalogue = async (who = ann) => (await who.call('GET', '/api/catalogue')).body as unknown as Known
const say = (who: TestClient, body: unknown) => who.call('POST', '/api/catalogue/acts', body)
const recalls = async (who = cyd) =>
  (
    (await who.call('GET', '/api/catalogue/recalls')).body as unknown as {
      held: {
        recall: string
        name: string
        devices: { device: string; answer: string; serial: string | null }[]
      }[]
    }
  ).held

describe('how the entries of a firm stand', () => {
  it('is said by whoever may, kept with who and when, and seen by all of the firm and nobody else', async () => {
    const retire = { kind: 'retire', entryId: 'device/reedling', why: 'the maker stopped it' }
    expect((await say(bob, retire)).status).toBe(403)
    expect((await say(cyd, retire)).status).toBe(403)
    expect((await say(ann, retire)).status).toBe(200)
    const { acts, entries } = await catalogue(cyd)
    expect(acts).toMatchObject([{ ...retire, by: 'Ann Reed' }])
    // Retired it is still read: jobs that have it go on.
    expect(entries.some(({ raw }) => raw.id === 'device/reedling')).toBe(true)
    expect((await catalogue(eve)).acts).toEqual([])
    expect((await say(ann, { ...retire, kind: 'offer', why: 'there is stock' })).status).toBe(200)
    expect((await catalogue()).acts.map(({ kind }) => kind)).toEqual(['retire', 'offer'])
  })

  it.each<[string, unknown, number]>([
    ['an entry that is not there', { kind: 'retire', entryId: 'device/nobody', why: 'x' }, 404],
    ['no reason', { kind: 'retire', entryId: 'device/reedling', why: '' }, 422],
    ['something else than an act', { kind: 'burn', entryId: 'device/reedling', why: 'x' }, 422],
    [
      'a recall of nothing',
      { kind: 'recall', entryId: 'device/reedling', why: 'x', serials: null, years: null },
      422,
    ],
    [
      'the end of a recall that is not',
      { kind: 'end-recall', entryId: 'device/reedling', why: 'x', recall: 'r' },
      409,
    ],
  ])('is refused with %s', async (_what, body, status) => {
    expect((await say(ann, body)).status).toBe(status)
  })
})

describe('whether the catalogue moved', () => {
  const state = async (who = cyd): Promise<string> =>
    String((await who.call('GET', '/api/catalogue/state')).body.state)

  it('is told by a text that changes with whatever anybody of the firm does to it, and with nothing else', async () => {
    let before = await state()
    const moved = async (what: () => Promise<unknown>): Promise<void> => {
      await what()
      const now = await state()
      expect(now).not.toBe(before)
      before = now
      // The catalogue itself says the same, and so does asking again.
      expect((await ann.call('GET', '/api/catalogue')).body.state).toBe(now)
      expect(await state(ann)).toBe(now)
    }
    await moved(() => say(ann, { kind: 'retire', entryId: 'device/wick', why: 'x' }))
    await moved(() => say(ann, { kind: 'offer', entryId: 'device/wick', why: 'x' }))
    const { entries } = await catalogue()
    const wick = entries.find(({ raw }) => raw.id === 'device/wick')
    const price = (amount: number) =>
      ann.call('POST', '/api/catalogue/prices', {
        prices: [{ id: 'device/wick', hash: wick?.hash, price: { amount, currency: 'EUR', pack: 1 } }],
      })
    await moved(() => price(3))
    let leaflet = ''
    await moved(async () => {
      const { body } = await ann.call(
        'POST',
        '/api/catalogue/leaflets?about=device/wick&name=a.pdf',
        Buffer.from('%PDF-1.7'),
        { 'Content-Type': 'application/pdf' },
      )
      leaflet = (body.leaflet as { id: string }).id
    })
    await moved(() => ann.call('DELETE', `/api/catalogue/leaflets/${leaflet}`))
    await eve.call('POST', '/api/catalogue/acts', { kind: 'retire', entryId: 'device/wick', why: 'x' })
    await ann.beginJob()
    expect((await price(5)).status).toBe(409)
    expect(await state()).toBe(before)
  })
})

describe('a recall', () => {
  it('names the jobs and devices that it is about, and those of which it cannot be told, until it is ended', async () => {
    const job = await ann.beginJob({ name: 'Weir House' })
    const practice = await ann.beginJob({ name: 'Practice', practice: true })
    const { entries } = await catalogue()
    const hashOf = (id: string) => entries.find(({ raw }) => raw.id === id)?.hash ?? ''
    const ops = ['device/reedling', 'device/stilt', 'family/wren'].map((entry): Op => ({
      op: 'add',
      record: { id: `pin:${entry}`, type: 'pin', entry, hash: hashOf(entry) },
    }))
    const device = (id: string, model: string, sticker: string | null, madeYear: number | null): Op => ({
      op: 'add',
      record: { ...blankDevice, id: `device:${id}`, model, room: 'Hall', sticker, madeYear, order: 1 },
    })
    const devices = [
      device('first', 'device/reedling', '20410001', null),
      device('last', 'device/reedling', '20419999', 2020),
      device('behind', 'device/reedling', '20420000', null),
      device('unread', 'device/reedling', null, null),
      device('other', 'device/stilt', '20410002', null),
    ]
    for (const at of [job, practice])
      expect((await ann.send(at, anEdit([...ops, ...devices]))).status).toBe(200)
    expect(await recalls()).toEqual([])
    const body = {
      ...{ kind: 'recall', entryId: 'device/reedling', why: 'the reed sticks', years: null },
      serials: { from: '2041 0000', to: '2041 9999' },
    }
    const act = (await say(ann, body)).body.act as CatalogueAct
    const held = await recalls()
    expect(held.map(({ name }) => name)).toEqual(['Weir House'])
    expect(held[0]?.devices.map((one) => [one.device, one.answer]).toSorted()).toEqual([
      ['device:first', 'yes'],
      ['device:last', 'yes'],
      ['device:unread', 'unknown'],
    ])
    expect(await recalls(eve)).toEqual([])
    const end = { kind: 'end-recall', entryId: 'device/reedling', why: 'all changed', recall: act.id }
    expect((await say(ann, end)).status).toBe(200)
    expect(await recalls()).toEqual([])
    expect((await say(ann, end)).status).toBe(409)
  })
})

describe('a firm that begins', () => {
  it('has an empty catalogue, may take the invented world in for practice, and what is its own stays', async () => {
    const other = await startTestServer(undefined, undefined, undefined, [])
    const own = await new TestClient(other.url).signIn('ann')
    expect(await catalogue(own)).toMatchObject({ entries: [], acts: [] })
    const far = await new TestClient(other.url).signIn('eve')
    const family = {
      ...{ kind: 'family', id: 'family/wren', version: '7', maker: 'Penbrook', name: 'Own Wren' },
      ...{ regions: ['europe'], bandMHz: { from: 868.9, to: 868.9 }, way: 'one-way', encryption: 'none' },
      topology: 'star',
      sticker: {
        length: 8,
        alphabet: 'digits',
        idFrom: 1,
        idTo: 8,
        groups: [4, 4],
        check: 'none',
        where: 'eight digits',
      },
      placement: { unit: 'bars', best: 4, least: 2, readAt: 'receiver' },
    }
    const pack = { kapellePack: 6, title: 'own', entries: [family] }
    expect((await own.call('POST', '/api/catalogue/pack', { pack })).status).toBe(200)
    const bobThere = await new TestClient(other.url).signIn('bob')
    expect((await bobThere.call('POST', '/api/catalogue/world', {})).status).toBe(403)
    const first = await own.call('POST', '/api/catalogue/world', {})
    const { entries, acts } = await catalogue(own)
    expect([first.body.added, acts.length, entries.length]).toEqual([
      acts.length,
      acts.length,
      acts.length + 1,
    ])
    expect(acts.every(({ kind }) => kind === 'practice')).toBe(true)
    expect(acts.some(({ entryId }) => entryId === 'family/wren')).toBe(false)
    expect(entries.find(({ raw }) => raw.id === 'family/wren')?.raw).toMatchObject({ name: 'Own Wren' })
    // Once more it changes nothing; another firm has nothing of it.
    expect((await own.call('POST', '/api/catalogue/world', {})).body.added).toBe(0)
    expect(await catalogue(far)).toMatchObject({ entries: [], acts: [] })
    await other.stop()
  })
})
