import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { request as plainRequest } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Writable } from 'node:stream'
import { pino } from 'pino'
import { afterAll, describe, expect, it } from 'vitest'
import { AppError } from '../errors/app-error.ts'
import { createApp, type AppOptions } from './app.ts'
import type { Services } from './routes.ts'

/* The application by itself, over services of the test's own: what every answer bears, whoever asks for whatever. */

const folder = mkdtempSync(join(tmpdir(), 'kapelle-app-'))
mkdirSync(join(folder, 'assets'))
writeFileSync(join(folder, 'index.html'), '<title>the client</title>')
writeFileSync(join(folder, 'assets', 'a-1.js'), 'export {}')
writeFileSync(join(folder, 'icon.svg'), '<svg/>')
afterAll(() => rmSync(folder, { recursive: true, force: true }))

const ann = { id: 'p1', name: 'Ann', login: 'ann', role: 'installer', rights: [], firm: 'Firm', firmId: 'f1' }
interface Stub {
  full: boolean
  signIn: () => Promise<unknown>
}

/** Runs with an application of its own, listening on loopback; gives its address and what it logged. */
async function served(
  over: Partial<AppOptions>,
  run: (url: string, log: () => Record<string, unknown>[], stub: Stub) => Promise<void>,
): Promise<void> {
  let lines = ''
  const stub: Stub = { full: false, signIn: () => Promise.reject(new AppError('SIGN_IN_NEEDED', 'No.')) }
  const services = {
    store: {},
    accounts: {
      bySession: (token: string) => Promise.resolve(token === 'good' ? ann : null),
      signIn: () => stub.signIn(),
      isEmpty: () => Promise.resolve(false),
      signOut: () => Promise.resolve(),
      linkOf: () => stub.signIn(),
    },
    jobs: { revision: () => Promise.resolve(7) },
    room: { isFull: () => Promise.resolve(stub.full) },
    service: { build: 'b1', since: new Date() },
  } as unknown as Services
  const sink = new Writable({
    write(chunk: Buffer, _encoding, done) {
      lines += chunk.toString()
      done()
    },
  })
  const made = createApp({ services, logger: pino(sink), webRoot: folder, build: 'b1', ...over })
  const server = made.app.listen(0, '127.0.0.1')
  await new Promise((done) => server.once('listening', done))
  const { port } = server.address() as AddressInfo
  try {
    await run(
      `http://127.0.0.1:${port}`,
      () =>
        lines
          .trim()
          .split('\n')
          .filter(Boolean)
          .map((line) => JSON.parse(line) as Record<string, unknown>),
      stub,
    )
  } finally {
    made.streams.close()
    server.closeAllConnections()
    await new Promise((done) => server.close(done))
  }
}
const headers = async (url: string, path: string, init: RequestInit = {}) => {
  const answer = await fetch(url + path, init)
  await answer.text()
  return answer.headers
}

describe('what every answer bears', () => {
  it('a policy that lets in nothing from elsewhere, on pages and answers alike', () =>
    served({}, async (url) => {
      for (const path of ['/', '/api/setup', '/api/nothing', '/assets/a-1.js']) {
        const all = await headers(url, path)
        expect(all.get('content-security-policy')?.split(';').sort()).toEqual([
          "base-uri 'none'",
          "connect-src 'self'",
          "default-src 'self'",
          "font-src 'self'",
          "form-action 'self'",
          "frame-ancestors 'none'",
          "img-src 'self' data:",
          "object-src 'none'",
          "script-src 'self'",
          "style-src 'self' 'unsafe-inline'",
          "worker-src 'self'",
        ])
        expect([all.get('x-powered-by'), all.get('strict-transport-security')]).toEqual([null, null])
      }
    }))

  it('over TLS the word to come by TLS for half a year, for this host alone', () =>
    served({ tls: true }, async (url) => {
      expect((await headers(url, '/')).get('strict-transport-security')).toBe('max-age=15552000')
    }))

  it('the build, and that nothing of the interface is kept', () =>
    served({ build: 'b77' }, async (url) => {
      const api = await headers(url, '/api/setup')
      expect([api.get('x-kapelle-build'), api.get('cache-control')]).toEqual(['b77', 'no-store'])
      const page = await headers(url, '/jobs')
      expect([page.get('x-kapelle-build'), page.get('cache-control')]).toEqual([null, 'no-cache'])
      expect((await headers(url, '/assets/a-1.js')).get('cache-control')).toBe(
        'public, max-age=31536000, immutable',
      )
    }))
})

describe('the client’s own pages', () => {
  it('are the client, but for files that are not there and for other acts', () =>
    served({}, async (url) => {
      const get = async (path: string, init: RequestInit = {}) => {
        const answer = await fetch(url + path, init)
        return [answer.status, (await answer.text()).slice(0, 18)]
      }
      expect(await get('/jobs/1/zones')).toEqual([200, '<title>the client<'])
      expect(await get('/jobs/v1.2/zones')).toEqual([200, '<title>the client<'])
      expect(await get('/icon.svg')).toEqual([200, '<svg/>'])
      expect((await get('/nothing.js'))[0]).toBe(404)
      expect((await get('/assets/gone-2.js'))[0]).toBe(404)
      expect((await get('/jobs', { method: 'POST' }))[0]).toBe(404)
    }))

  it('are not there where nothing is built', async () => {
    for (const webRoot of [null, join(folder, 'nowhere')])
      await served({ webRoot }, async (url) => {
        expect((await fetch(`${url}/jobs`)).status).toBe(404)
        expect((await fetch(`${url}/api/setup`)).status).toBe(200)
      })
  })
})

describe('the log', () => {
  it('says each call of the interface by method, path and answer, each with a number of its own; pages are not in it', () =>
    served({}, async (url, log) => {
      await fetch(`${url}/jobs`)
      await fetch(`${url}/api/setup?find=Nell`)
      await fetch(`${url}/api/setup`)
      const said = log().map(({ req, res }) => [req, res])
      expect(said).toEqual([
        [{ id: expect.any(String) as string, method: 'GET', path: '/api/setup' }, { statusCode: 200 }],
        [{ id: expect.any(String) as string, method: 'GET', path: '/api/setup' }, { statusCode: 200 }],
      ])
      expect(new Set(log().map(({ req }) => (req as { id: string }).id)).size).toBe(2)
    }))

  it('says of a fault its sort, its code and where it was, and nothing of what it was about', () =>
    served({}, async (url, log, stub) => {
      const fault = async (thrown: unknown) => {
        stub.signIn = () => Promise.reject(thrown as Error)
        const body = JSON.stringify({ login: 'ann', password: 'secret-words' })
        const answer = await fetch(`${url}/api/session`, {
          ...{ method: 'POST', body, headers: { 'content-type': 'application/json' } },
        })
        expect(answer.status).toBe(500)
        return (log().find(({ fault: said }) => said !== undefined)?.fault ?? {}) as Record<string, string>
      }
      const withCode = Object.assign(new Error("Duplicate entry 'Nell' for key"), { code: 'ER_DUP_ENTRY' })
      const said = await fault(withCode)
      expect(said).toMatchObject({ type: 'Error', message: 'ER_DUP_ENTRY', code: 'ER_DUP_ENTRY' })
      expect(said.stack?.split('\n').every((line) => /^\s+at /.test(line))).toBe(true)
      expect(said.stack).toContain('app.test.ts')
      expect(JSON.stringify(log())).not.toMatch(/Nell|secret-words/)
    }))

  it('says a plain fault by its own message', () =>
    served({}, async (url, log, stub) => {
      stub.signIn = () => Promise.reject(new TypeError('x is not a function'))
      const body = JSON.stringify({ login: 'ann', password: 'secret-words' })
      await fetch(`${url}/api/session`, {
        ...{ method: 'POST', body, headers: { 'content-type': 'application/json' } },
      })
      const err = log().find((line) => line.fault !== undefined)?.fault as Record<string, string> | undefined
      expect(err).toMatchObject({ type: 'TypeError', message: 'x is not a function' })
      expect(err?.code).toBeUndefined()
    }))
})

describe('who may call', () => {
  it('only pages of our own write', () =>
    served({}, async (url) => {
      const post = async (more: Record<string, string>, method = 'DELETE') =>
        (await fetch(`${url}/api/session`, { method, headers: more })).status
      expect(await post({})).toBe(200)
      expect(await post({ origin: url })).toBe(200)
      expect(await post({ origin: 'https://elsewhere.example' })).toBe(403)
      expect(await post({ origin: 'null' })).toBe(403)
      expect(await post({ 'sec-fetch-site': 'same-origin' })).toBe(200)
      expect(
        (await fetch(`${url}/api/setup`, { headers: { origin: 'https://elsewhere.example' } })).status,
      ).toBe(200)
    }))

  it('nobody without a session, and a session ends its cookie as it was set', async () => {
    await served({}, async (url) => {
      const me = (cookie: string) => fetch(`${url}/api/session`, { headers: { cookie } })
      expect((await me('')).status).toBe(401)
      expect((await me('kapelle-session=bad')).status).toBe(401)
      expect((await me('kapelle-session=good')).status).toBe(200)
      const out = await headers(url, '/api/session', { method: 'DELETE' })
      expect(out.get('set-cookie')).toBe('kapelle-session=; Max-Age=0; Path=/; HttpOnly; SameSite=Strict')
    })
    await served({ tls: true }, async (url) => {
      const out = await headers(url, '/api/session', { method: 'DELETE' })
      expect(out.get('set-cookie')).toContain('; Secure')
    })
  })

  it('on a full disk what writes waits, and what reads or only comes and goes does not', () =>
    served({}, async (url, _log, stub) => {
      stub.full = true
      const cookie = 'kapelle-session=good'
      const write = await fetch(`${url}/api/jobs/0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001/edits`, {
        ...{ method: 'POST', body: '{}', headers: { cookie, 'content-type': 'application/json' } },
      })
      expect([write.status, write.headers.get('retry-after')]).toEqual([507, '15'])
      expect((await fetch(`${url}/api/session`, { headers: { cookie } })).status).toBe(200)
      expect((await fetch(`${url}/api/session`, { method: 'DELETE', headers: { cookie } })).status).toBe(200)
    }))

  it('events are for whoever has a session', () =>
    served({}, async (url) => {
      const path = `${url}/api/jobs/0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a001/events`
      expect((await fetch(path)).status).toBe(401)
      const stream = await fetch(path, {
        headers: { cookie: 'kapelle-session=good', 'accept-encoding': 'gzip' },
      })
      // Events come as they happen: they are not pressed together.
      expect([
        stream.status,
        stream.headers.get('content-type'),
        stream.headers.get('content-encoding'),
      ]).toEqual([200, 'text/event-stream; charset=utf-8', null])
      await stream.body?.cancel()
    }))
})

describe('whoever tries too often', () => {
  /** Asks through a proxy that says who calls. */
  const asks = (url: string, address: string): Promise<number> =>
    new Promise((done, fail) => {
      const call = plainRequest(
        `${url}/api/link`,
        { method: 'POST', headers: { 'content-type': 'application/json', 'x-forwarded-for': address } },
        (answer) => {
          answer.resume()
          answer.on('end', () => done(answer.statusCode ?? 0))
        },
      )
      call.on('error', fail)
      call.end('{"token":"x"}')
    })
  const tries = async (url: string, address: string, count: number): Promise<number[]> => {
    const all: number[] = []
    for (let index = 0; index < count; index++) all.push(await asks(url, address))
    return all
  }

  it('is held back by its address alone: the next one is not', () =>
    served({ proxy: '127.0.0.1' }, async (url) => {
      const first = await tries(url, '203.0.113.7', 21)
      expect(first.slice(0, 20).every((status) => status !== 429)).toBe(true)
      expect(first[20]).toBe(429)
      expect(await asks(url, '203.0.113.8')).not.toBe(429)
      // Of one household by IPv6 all addresses are one.
      await tries(url, '2001:db8:1:2::1', 20)
      expect(await asks(url, '2001:db8:1:2:9::5')).toBe(429)
      expect(await asks(url, '2001:db8:1:3::1')).not.toBe(429)
    }))

  it('is nobody where all come by one address that tells nobody apart', () =>
    served({}, async (url) => {
      expect(await tries(url, '203.0.113.7', 23)).not.toContain(429)
    }))

  it('is not whoever succeeds', () =>
    served({ proxy: '127.0.0.1' }, async (url, _log, stub) => {
      stub.signIn = () =>
        Promise.resolve({ kind: 'invite', name: '', login: '', firm: 'Firm', expiresAt: new Date() })
      const all = await tries(url, '203.0.113.7', 23)
      expect(all).not.toContain(429)
    }))
})
