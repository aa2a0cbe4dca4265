import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PeopleStore } from '../db/people.ts'
import type { RunningServer } from '../server.ts'
import { startTestServer, TEST_PASSWORD, TestClient } from '../testing/client.ts'

let server: RunningServer
let clock = new Date('2026-05-04T09:00:00.000Z')
beforeAll(async () => {
  server = await startTestServer(undefined, () => clock)
})
afterAll(() => server.stop())

const ask = (method: string, path: string, headers: Record<string, string> = {}): Promise<Response> =>
  fetch(server.url + path, {
    method,
    headers: { 'Content-Type': 'application/json', ...headers },
    ...(method === 'GET' ? {} : { body: JSON.stringify({ login: 'ann', password: TEST_PASSWORD }) }),
  })

describe('the session cookie', () => {
  it('is for this site’s requests alone, out of reach of scripts', async () => {
    const cookie = (await ask('POST', '/api/session')).headers.get('set-cookie') ?? ''
    expect(cookie).toMatch(/^kapelle-session=[A-Za-z0-9_-]{43};/)
    for (const flag of ['HttpOnly', 'SameSite=Strict', 'Path=/']) expect(cookie).toContain(flag)
    expect(cookie).toContain('Expires=Mon, 18 May 2026 09:00:00 GMT')
    const ended = (await ask('DELETE', '/api/session', { Cookie: cookie })).headers.get('set-cookie') ?? ''
    expect(ended).toMatch(/^kapelle-session=;.*Max-Age=0/)
  })

  it('is no use without the session, nor is a made-up one', async () => {
    for (const token of ['', 'x'.repeat(43)])
      expect((await ask('GET', '/api/session', { Cookie: `kapelle-session=${token}` })).status).toBe(401)
  })
})

describe('a session', () => {
  it('ends after 14 days, in the database and in what a process remembers', async () => {
    const ann = await new TestClient(server.url).signIn('ann')
    const begun = clock
    clock = new Date(begun.getTime() + 14 * 86_400_000 - 1_000)
    expect((await ann.call('GET', '/api/session')).status).toBe(200)
    // A moment later: the process still remembers it, and must not let it pass.
    clock = new Date(begun.getTime() + 14 * 86_400_000 + 1_000)
    expect((await ann.call('GET', '/api/session')).status).toBe(401)
    const { source } = server.services.store.people
    const token = 'a-token-of-a-session'
    const { account } = (await server.services.store.people.byLogin('ann')) ?? { account: null }
    const people = new PeopleStore(source)
    await people.openSession(token, account?.id ?? '', 'test', {
      now: begun,
      expiresAt: new Date(begun.getTime() + 1_000),
    })
    const anew = new PeopleStore(source)
    expect((await anew.bySession(token, begun))?.login).toBe('ann')
    expect(await new PeopleStore(source).bySession(token, new Date(begun.getTime() + 1_000))).toBeNull()
    clock = new Date('2026-05-04T09:00:00.000Z')
  })

  it('that is over is swept out by the next sign-in', async () => {
    const { source } = server.services.store.people
    await source.query("UPDATE session SET expires_at = '2020-01-01'")
    await new TestClient(server.url).signIn('bob')
    const [row] = await source.query<{ count: string }[]>('SELECT COUNT(*) AS count FROM session')
    expect(Number(row?.count)).toBe(1)
  })

  it('is kept by the hash of its token, so that a copy of the database signs nobody in', async () => {
    const cookie = (await ask('POST', '/api/session')).headers.get('set-cookie') ?? ''
    const token = /kapelle-session=([^;]+)/.exec(cookie)?.[1] ?? ''
    const { source } = server.services.store.people
    const rows = await source.query<{ token_hash: string }[]>('SELECT token_hash FROM session')
    expect(rows.every((row) => row.token_hash !== token && /^[0-9a-f]{64}$/.test(row.token_hash))).toBe(true)
  })

  it('of every device ends when the password is changed', async () => {
    const bob = await new TestClient(server.url).signIn('bob')
    const found = await server.services.store.people.byLogin('bob')
    await server.services.store.people.setPassword(found?.account.id ?? '', found?.password ?? '')
    expect((await bob.call('GET', '/api/session')).status).toBe(401)
  })
})

describe('requests from elsewhere', () => {
  it.each([
    ['another origin', { Origin: 'http://elsewhere.example' }, 403],
    ['an origin that is none', { Origin: 'null' }, 403],
    ['a page of another site', { 'Sec-Fetch-Site': 'cross-site' }, 403],
    ['our own page', { 'Sec-Fetch-Site': 'same-origin' }, 200],
    ['no browser', {}, 200],
  ] as const)('a write from %s', async (_words, headers, status) => {
    expect((await ask('POST', '/api/session', headers)).status).toBe(status)
  })

  it('may read what anybody may read', async () => {
    expect((await ask('GET', '/api/setup', { 'Sec-Fetch-Site': 'cross-site' })).status).toBe(200)
  })

  it('get pages that load nothing from elsewhere', async () => {
    const policy = (await ask('GET', '/api/setup')).headers.get('content-security-policy') ?? ''
    expect(policy).toContain("default-src 'self'")
    expect(policy).toContain("script-src 'self'")
    expect(policy).toContain("frame-ancestors 'none'")
    expect(policy).not.toMatch(/https?:|\*/)
  })
})
