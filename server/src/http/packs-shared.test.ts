import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  signedText,
  type CatalogueEntry,
  type Signature,
  type VersionsAnswer,
  type WrittenEntry,
} from '#core'
import { newSigningKey, signatureState, signerOf } from '../auth/signing.ts'
import type { RunningServer } from '../server.ts'
import { startTestServer, TestClient, type Answer } from '../testing/client.ts'

interface Pack {
  kapellePack: number
  title: string
  entries: (CatalogueEntry & Record<string, unknown>)[]
  signature?: Signature
}

let server: RunningServer
let ann: TestClient
let bob: TestClient
let cyd: TestClient
let eve: TestClient
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  bob = await new TestClient(server.url).signIn('bob')
  cyd = await new TestClient(server.url).signIn('cyd')
  eve = await new TestClient(server.url).signIn('eve')
})
afterAll(() => server.stop())

const write = (who: TestClient, ids: readonly string[] | null, title = 'For Harl'): Promise<Answer> =>
  who.call('POST', '/api/catalogue/pack/write', { title, ids })
const packOf = async (who: TestClient, ids: readonly string[] | null): Promise<Pack> => {
  const { status, body } = await write(who, ids)
  expect(status).toBe(200)
  return body as unknown as Pack
}
const bring = (who: TestClient, pack: unknown, choices?: Record<string, string>): Promise<Answer> =>
  who.call('POST', '/api/catalogue/pack', { pack, ...(choices ? { choices } : {}) })
const look = async (who: TestClient, pack: unknown) =>
  (await who.call('POST', '/api/catalogue/pack/signature', { pack })).body
const offered = async (who: TestClient): Promise<Map<string, string>> => {
  const { entries } = (await who.call('GET', '/api/catalogue')).body as unknown as { entries: WrittenEntry[] }
  return new Map(entries.map(({ raw, hash }) => [(raw as CatalogueEntry).id, hash]))
}
const lines = ({ body }: Answer): string[] =>
  (body.problems ?? []).map(({ path, message }) => `${path} ${message}`)
/** How the versions of an entry came to be offered, the latest first. */
const told = async (who: TestClient, id: string): Promise<string[]> => {
  const { body } = await who.call('GET', `/api/catalogue/versions?id=${encodeURIComponent(id)}`)
  return (body as unknown as VersionsAnswer).versions.map(
    ({ how, by, why }) => `${how ?? 'unknown'} by ${by ?? 'nobody'}${why && `, ${why}`}`,
  )
}
/** The same entry as another firm has it. */
const other = (pack: Pack, id: string): CatalogueEntry =>
  ({ ...pack.entries.find((entry) => entry.id === id), note: 'as Eve has it' }) as unknown as CatalogueEntry

describe('a pack that is written', () => {
  it('has what its entries need, and nothing else', async () => {
    const pack = await packOf(ann, ['device/reedling-old', 'device/skitter'])
    expect(pack.entries.map(({ id }) => id)).toEqual([
      'device/reedling',
      'device/reedling-old',
      'device/skitter',
      'family/plover',
      'family/wren',
    ])
    expect([pack.title, pack.kapellePack]).toEqual(['For Harl', 8])
    expect((await packOf(ann, null)).entries.length).toBe((await offered(ann)).size)
  })

  it('leaves out what is retired or for practice, unless what is offered needs it', async () => {
    const say = (kind: string, entryId: string) =>
      ann.call('POST', '/api/catalogue/acts', { kind, entryId, why: 'for this test' })
    // A receiver without which its panels cannot be read, and two devices that nothing needs.
    for (const [kind, id] of [
      ['practice', 'device/skitter'],
      ['retire', 'device/puddle'],
      ['retire', 'family/wren'],
    ] as const)
      expect((await say(kind, id)).status).toBe(200)
    const ids = new Set((await packOf(ann, null)).entries.map(({ id }) => id))
    expect(['device/skitter', 'device/puddle', 'family/wren'].map((id) => ids.has(id))).toEqual([
      ...[false, false, true],
    ])
    const unsigned = JSON.parse((await cyd.raw('/api/catalogue/pack')).text) as Pack
    expect([unsigned.entries.length, unsigned.signature]).toEqual([ids.size, undefined])
    for (const id of ['device/skitter', 'device/puddle', 'family/wren']) await say('offer', id)
  })

  it('of nothing, of what is not there, without a title, or by one who may not, is refused with the reason', async () => {
    expect(lines(await write(ann, ['device/nobody', 'device/reedling']))).toEqual([
      'ids.0 is not in this catalogue: device/nobody',
    ])
    expect(lines(await write(ann, []))).toEqual(['ids must name at least 1 entry'])
    expect(lines(await write(ann, null, ' '))).toEqual([
      'title must say what the pack is, in 1 to 120 characters',
    ])
    expect([(await write(bob, null)).status, (await write(cyd, null)).status]).toEqual([403, 403])
    expect((await new TestClient(server.url).call('GET', '/api/catalogue/key')).status).toBe(401)
  })
})

describe('a signature', () => {
  it('is the firm’s own, by a key that stays the same, and is good for any other firm', async () => {
    const [first, second] = await Promise.all([
      packOf(ann, ['device/reedling']),
      packOf(ann, ['family/wren']),
    ])
    expect(first.signature?.key).toBe(second.signature?.key)
    const { words } = (await cyd.call('GET', '/api/catalogue/key')).body
    expect(words).toMatch(/^([0-9a-f]{4} ){3}[0-9a-f]{4}$/)
    expect((await eve.call('GET', '/api/catalogue/key')).body.words).not.toBe(words)
    const by = first.signature?.by
    expect(await look(ann, first)).toEqual({ state: 'good', by, words, own: true })
    expect(await look(eve, first)).toEqual({ state: 'good', by, words, own: false })
    expect(await look(eve, { ...first, signature: undefined })).toEqual({
      ...{ state: 'none', by: null, words: null, own: false },
    })
    // Laid out otherwise it is the same pack.
    const turned = JSON.parse(JSON.stringify(first, Object.keys(flat(first)).sort().reverse())) as Pack
    expect((await look(eve, turned)).state).toBe('good')
  })

  it('that does not fit is told, and the pack refused whole', async () => {
    const pack = await packOf(ann, ['device/reedling'])
    const { signature } = pack
    if (!signature) return expect.fail('not signed')
    const forger = newSigningKey()
    const forged = signerOf(forger, signature.by)({ ...pack, title: 'else' })
    const before = await offered(eve)
    const [device, family] = pack.entries
    for (const spoilt of [
      { ...pack, title: 'For Harl, changed' },
      { ...pack, entries: [family] },
      { ...pack, entries: [{ ...device, needsTwoWay: true }, family] },
      { ...pack, entries: [family, device] },
      { ...pack, signature: { ...signature, by: 'Another firm' } },
      // Another's key behind the same signature, and another's signature behind the same key.
      { ...pack, signature: { ...signature, key: forger.public } },
      { ...pack, signature: { ...signature, value: forged.value } },
      { ...pack, signature: { ...signature, value: Buffer.alloc(64).toString('base64') } },
      { ...pack, signature: { ...signature, key: Buffer.alloc(32).toString('base64') } },
      { ...pack, signature: { by: signature.by } },
      { ...pack, signature: null },
    ]) {
      expect((await look(eve, spoilt)).state).toBe('broken')
      const answer = await bring(eve, spoilt)
      expect([answer.status, lines(answer)]).toEqual([
        422,
        [
          'signature does not fit what the pack holds: it was changed after it was signed, or another key signed it',
        ],
      ])
    }
    expect(await offered(eve)).toEqual(before)
    // Signed anew by the forger it fits: the words of the key are another's.
    const anew = { ...pack, signature: signerOf(forger, signature.by)({ ...pack, signature: undefined }) }
    const { words } = (await cyd.call('GET', '/api/catalogue/key')).body
    const seen = await look(eve, anew)
    expect([seen.state, seen.words === words]).toEqual(['good', false])
  })

  it('fits by every sign of what was signed', () => {
    const key = newSigningKey()
    const pack = { kapellePack: 8, title: 'x', entries: [{ id: 'a' }] }
    const signed = { ...pack, signature: signerOf(key, 'Harl')(pack) }
    expect(signatureState(signed)).toBe('good')
    expect(signedText(signed, 'Harl')).toBe(signedText(pack, 'Harl'))
    for (const none of [null, 'text', 7, [], pack]) expect(signatureState(none)).toBe('none')
  })
})

describe('entries that are there with other content', () => {
  it('come by choice: theirs, mine, or both under two ids', async () => {
    const pack = await packOf(ann, ['device/reedling', 'device/wick', 'device/stilt'])
    const before = await offered(eve)
    const brought = {
      ...{
        kapellePack: 8,
        title: 'From Ann',
        entries: ['device/reedling', 'device/wick', 'device/stilt'].map((id) => other(pack, id)),
      },
    }
    const answer = await bring(eve, brought, {
      ...{ 'device/reedling': 'theirs', 'device/wick': 'mine', 'device/stilt': 'both' },
    })
    expect(answer.body).toEqual({
      ...{ new: 1, changed: 1, same: 0, kept: 1 },
      renamed: [{ from: 'device/stilt', to: 'device/stilt-2' }],
    })
    const after = await offered(eve)
    expect(after.get('device/reedling')).not.toBe(before.get('device/reedling'))
    expect(after.get('device/wick')).toBe(before.get('device/wick'))
    expect(after.get('device/stilt')).toBe(before.get('device/stilt'))
    expect([after.size - before.size, after.has('device/stilt-2')]).toEqual([1, true])
    const unsigned = `pack by ${eve.me.name}, nobody signed the pack`
    expect(await told(eve, 'device/reedling')).toEqual([unsigned, 'shipped by Kapelle'])
    expect(await told(eve, 'device/wick')).toEqual(['shipped by Kapelle'])
    expect(await told(eve, 'device/stilt-2')).toEqual([unsigned])
  })

  it('of which nobody said what is to be done refuse the pack, and nothing is half taken', async () => {
    const pack = await packOf(ann, ['device/puddle', 'device/glow'])
    const before = await offered(eve)
    const brought = {
      kapellePack: 8,
      title: 'x',
      entries: ['device/puddle', 'device/glow'].map((id) => other(pack, id)),
    }
    const answer = await bring(eve, brought, { 'device/puddle': 'theirs' })
    expect([answer.status, lines(answer)]).toEqual([
      409,
      ['device/glow is there with other content: theirs, mine or both must be chosen'],
    ])
    expect((await bring(eve, brought, { 'device/puddle': 'ours' })).status).toBe(422)
    expect(await offered(eve)).toEqual(before)
  })

  it('taken in by two at once stand whole, one behind the other', async () => {
    const pack = await packOf(ann, ['device/glow'])
    const both = ['one', 'two'].map((note) => ({
      ...{
        kapellePack: 8,
        title: note,
        entries: [{ ...pack.entries.find(({ id }) => id === 'device/glow'), note }],
      },
    }))
    const answers = await Promise.all(both.map((each) => bring(eve, each, { 'device/glow': 'both' })))
    expect(answers.map(({ status }) => status)).toEqual([200, 200])
    const now = await offered(eve)
    expect([now.has('device/glow-2'), now.has('device/glow-3')]).toEqual([true, true])
  })
})

describe('prices', () => {
  const say = (who: TestClient, prices: unknown) => who.call('POST', '/api/catalogue/prices', { prices })
  const euro = (amount: number) => ({ amount, currency: 'EUR', pack: 1 })

  it('make the next version of each device, whatever else it says', async () => {
    const before = await offered(ann)
    const hash = (id: string) => before.get(id)
    const answer = await say(ann, [
      { id: 'device/rime', hash: hash('device/rime'), price: euro(12.34) },
      { id: 'device/tremor', hash: hash('device/tremor'), price: null },
    ])
    expect(answer.body).toEqual({ changed: 2 })
    const { entries } = (await ann.call('GET', '/api/catalogue')).body as unknown as {
      entries: WrittenEntry[]
    }
    const raw = (id: string) =>
      entries.map((entry) => entry.raw as Record<string, unknown>).find((entry) => entry['id'] === id)
    expect([raw('device/rime')?.['price'], raw('device/rime')?.['version']]).toEqual([euro(12.34), '2'])
    expect([raw('device/tremor')?.['price'], raw('device/tremor')?.['version']]).toEqual([undefined, '2'])
    // The former one is kept for the jobs that pin it; another firm's is as it was.
    const kept = await ann.call('GET', `/api/catalogue/entries?hashes=${hash('device/rime') ?? ''}`)
    expect((kept.body as { entries?: unknown[] }).entries).toHaveLength(1)
    expect((await offered(eve)).get('device/rime')).toBe(hash('device/rime'))
    expect(await told(ann, 'device/rime')).toEqual(['prices by Ann Reed', 'shipped by Kapelle'])
    expect(await told(eve, 'device/rime')).toEqual(['shipped by Kapelle'])
  })

  it('of an entry that was changed meanwhile, of none, twice of one, or out of range are refused, all of them', async () => {
    const before = await offered(ann)
    const at = (id: string, price: unknown = euro(1)) => ({ id, hash: before.get(id), price })
    const stale = await say(ann, [at('device/glow'), { ...at('device/attend'), hash: 'a'.repeat(64) }])
    expect([stale.status, lines(stale)]).toEqual([
      409,
      ['prices.1.hash was changed since it was looked at: device/attend'],
    ])
    const gone = await say(ann, [{ id: 'device/nobody', hash: 'a'.repeat(64), price: null }])
    expect([gone.status, lines(gone)]).toEqual([
      409,
      ['prices.0.hash was changed since it was looked at: device/nobody'],
    ])
    expect(lines(await say(ann, [at('device/glow'), at('device/glow')]))).toEqual([
      'prices.1.id stands twice: device/glow',
    ])
    const odd = await say(ann, [at('device/glow', { amount: -1, currency: 'euro', pack: 0 })])
    expect([odd.status, lines(odd)[1]]).toEqual([
      422,
      'prices.0.price.currency must be a currency code such as EUR',
    ])
    expect(lines(await say(ann, []))).toEqual(['prices must have at least 1 price'])
    expect((await say(bob, [at('device/glow')])).status).toBe(403)
    expect(await offered(ann)).toEqual(before)
  })

  it('said twice at once are taken once', async () => {
    const hash = (await offered(ann)).get('device/safekey')
    const answers = await Promise.all(
      [5, 6].map((amount) => say(ann, [{ id: 'device/safekey', hash, price: euro(amount) }])),
    )
    expect(answers.map(({ status }) => status).toSorted()).toEqual([200, 409])
  })
})

describe('devices of a list', () => {
  const say = (who: TestClient, devices: unknown, list = 'spring.csv') =>
    who.call('POST', '/api/catalogue/devices', { list, devices })
  const rawOf = async (who: TestClient, id: string): Promise<Record<string, unknown>> => {
    const { entries } = (await who.call('GET', '/api/catalogue')).body as unknown as {
      entries: WrittenEntry[]
    }
    const raw = entries.map((entry) => entry.raw as Record<string, unknown>).find((entry) => entry.id === id)
    if (!raw) throw new Error(id)
    return raw
  }
  const anew = async (id: string, over: Record<string, unknown> = {}) => ({
    hash: null,
    entry: { ...(await rawOf(ann, 'device/rime')), id, name: id, version: '1', ...over },
  })

  it('are published together: new ones, and next versions of what is as it was looked at', async () => {
    const before = await offered(ann)
    const entry = { ...(await rawOf(ann, 'device/rime')), note: 'from a list', version: '9' }
    const answer = await say(ann, [{ hash: before.get('device/rime'), entry }, await anew('device/rime-two')])
    expect([answer.status, answer.body]).toEqual([200, { new: 1, changed: 1 }])
    expect((await rawOf(cyd, 'device/rime')).note).toBe('from a list')
    expect((await told(ann, 'device/rime'))[0]).toBe('list by Ann Reed, spring.csv')
    expect(await told(ann, 'device/rime-two')).toEqual(['list by Ann Reed, spring.csv'])
    expect((await offered(eve)).has('device/rime-two')).toBe(false)
  })

  it('are refused whole: changed meanwhile, there already, no device, wrong, or by one who may not', async () => {
    const before = await offered(ann)
    const good = await anew('device/rime-three')
    const refused = async (...devices: unknown[]) => {
      const answer = await say(ann, [good, ...devices])
      return [answer.status, lines(answer)[0]]
    }
    const stale = { hash: 'a'.repeat(64), entry: await rawOf(ann, 'device/glow') }
    expect(await refused(stale)).toEqual([
      409,
      'devices.1.hash was changed since it was looked at: device/glow',
    ])
    expect(await refused(await anew('device/glow'))).toEqual([
      ...[409, 'devices.1.hash was changed since it was looked at: device/glow'],
    ])
    // What no list has: an entry of another kind.
    const family = { hash: before.get('family/wren'), entry: await rawOf(ann, 'family/wren') }
    expect(await refused(family)).toEqual([409, 'devices.1.entry must be a device: family/wren'])
    expect((await refused(await anew('device/odd', { family: 'family/nobody' })))[0]).toBe(422)
    expect((await refused(await anew('device/odd', { loops: 'many' })))[0]).toBe(422)
    expect((await refused(good))[0]).toBe(422)
    expect(await refused({ hash: null, entry: null })).toEqual([422, expect.any(String) as unknown])
    expect((await say(ann, [])).status).toBe(422)
    expect((await say(ann, [good], ' ')).status).toBe(422)
    expect([(await say(bob, [good])).status, (await say(cyd, [good])).status]).toEqual([403, 403])
    expect(await offered(ann)).toEqual(before)
  })

  it('of one name, sent at once by two, are taken once', async () => {
    const device = await anew('device/rime-four')
    const answers = await Promise.all([1, 2].map(() => say(ann, [device])))
    expect(answers.map(({ status }) => status).toSorted()).toEqual([200, 409])
  })
})

/** All keys at any depth, as JSON.stringify takes them. */
function flat(value: unknown): Record<string, true> {
  if (Array.isArray(value)) return Object.assign({}, ...value.map(flat)) as Record<string, true>
  if (typeof value !== 'object' || value === null) return {}
  return Object.entries(value).reduce<Record<string, true>>(
    (all, [key, item]) => ({ ...all, ...flat(item), [key]: true }),
    {},
  )
}
