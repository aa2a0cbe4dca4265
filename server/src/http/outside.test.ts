import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs'
import { request } from 'node:https'
import { hostname, tmpdir } from 'node:os'
import { join } from 'node:path'
import { pino } from 'pino'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { DbAddress } from '../db/mariadb.ts'
import { startServer, type RunningServer } from '../server.ts'
import { ownAuthority } from '../service/own-authority.ts'
import { startTestServer, TEST_PASSWORD, TestClient } from '../testing/client.ts'
import { freshDatabase } from '../testing/database.ts'

let address: DbAddress
let folder: string
let plain: RunningServer
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'kapelle-tls-'))
  address = await freshDatabase()
  plain = await startTestServer(undefined, undefined, address)
})
afterAll(async () => {
  await plain.stop()
  rmSync(folder, { recursive: true, force: true })
})

const basis = () => ({ address, port: 0, host: '127.0.0.1', logger: pino({ level: 'silent' }) })
const signIn = { login: 'ann', password: TEST_PASSWORD }

/** Asks over TLS as a device does that trusts one authority. */
function ask(url: string, ca: string, method: string, path: string, body?: object) {
  return new Promise<{ status: number; cookie: string; hsts: string; authorized: boolean }>((done, fail) => {
    const call = request(
      url + path,
      { method, ca, headers: { 'Content-Type': 'application/json' } },
      (response) => {
        const { socket } = response
        const authorized = 'authorized' in socket && socket.authorized === true
        response.resume()
        response.on('end', () =>
          done({
            status: response.statusCode ?? 0,
            cookie: response.headers['set-cookie']?.join() ?? '',
            hsts: response.headers['strict-transport-security'] ?? '',
            authorized,
          }),
        )
      },
    )
    call.on('error', fail)
    call.end(body ? JSON.stringify(body) : undefined)
  })
}

describe('an authority of one’s own', () => {
  it('signs a certificate that devices accept once they trust it, and no others do', async () => {
    const own = await ownAuthority(join(folder, 'tls'), '127.0.0.1')
    const server = await startServer({
      ...basis(),
      tls: { cert: readFileSync(own.cert, 'utf8'), key: readFileSync(own.key, 'utf8') },
    })
    const ca = readFileSync(join(folder, 'tls', 'authority.crt'), 'utf8')
    const answer = await ask(server.url, ca, 'POST', '/api/session', signIn)
    expect(server.url).toMatch(/^https:/)
    expect(answer).toMatchObject({ status: 200, authorized: true })
    expect(answer.cookie).toContain('Secure')
    expect(answer.hsts).toContain('max-age=')
    const other = await ownAuthority(join(folder, 'other'), '127.0.0.1')
    const foreign = readFileSync(join(folder, 'other', 'authority.crt'), 'utf8')
    await expect(ask(server.url, foreign, 'GET', '/api/health')).rejects.toThrow()
    expect(other.steps[1]).not.toBe(own.steps[1])
    await server.stop()
    for (const name of ['authority.key', 'server.key'])
      expect([name, statSync(join(folder, 'tls', name)).mode & 0o777]).toEqual([name, 0o600])
  })

  it('is made once; its certificate is renewed a month before it ends or when a name is missing', async () => {
    const dir = join(folder, 'renewed')
    const text = (file: string): string => readFileSync(file, 'utf8')
    const day = 86_400_000
    const start = new Date('2026-05-04T09:00:00Z')
    const first = await ownAuthority(dir, '0.0.0.0', start)
    const [cert, authority] = [text(first.cert), text(join(dir, 'authority.crt'))]
    await ownAuthority(dir, '0.0.0.0', new Date(start.getTime() + 359 * day))
    expect(text(first.cert)).toBe(cert)
    await ownAuthority(dir, '0.0.0.0', new Date(start.getTime() + 361 * day))
    const renewed = text(first.cert)
    expect(renewed).not.toBe(cert)
    await ownAuthority(dir, 'kapelle.example', new Date(start.getTime() + 362 * day))
    expect(text(first.cert)).not.toBe(renewed)
    expect(text(join(dir, 'authority.crt'))).toBe(authority)
    expect(first.steps.join(' ')).toContain(join(dir, 'authority.key'))
    expect(hostname()).not.toBe('')
  })
})

describe('an address that others reach', () => {
  it('is served over TLS alone, with or without a proxy', async () => {
    for (const over of [{}, { proxy: '192.0.2.7' }])
      await expect(startServer({ ...basis(), host: '0.0.0.0', ...over })).rejects.toThrow('only over TLS')
  })
})

describe('what a proxy says', () => {
  const said = {
    'X-Forwarded-For': '198.51.100.4',
    'X-Forwarded-Proto': 'https',
    'X-Forwarded-Host': 'office.example',
  }
  const wrong = (url: string, headers: Record<string, string>) =>
    new TestClient(url).call(
      'POST',
      '/api/session',
      { ...signIn, login: 'bob', password: 'wrong one 12' },
      headers,
    )

  it('means nothing without the option: neither Secure nor another’s address', async () => {
    const answer = await new TestClient(plain.url).call('POST', '/api/session', signIn, said)
    expect([answer.status, answer.headers.get('set-cookie')?.includes('Secure')]).toEqual([200, false])
    expect(answer.headers.get('strict-transport-security')).toBeNull()
    // A made-up address does not make a sixth free try.
    for (let n = 0; n < 5; n++)
      expect((await wrong(plain.url, { ...said, 'X-Forwarded-For': `198.51.100.${n}` })).status).toBe(401)
    expect((await wrong(plain.url, said)).status).toBe(429)
    // Nor is a page of the host that it names one of ours.
    const origin = await new TestClient(plain.url).call('POST', '/api/session', signIn, {
      ...said,
      Origin: 'https://office.example',
    })
    expect(origin.status).toBe(403)
  })

  it('is believed of the one that was named: people behind it are told apart, cookies are Secure', async () => {
    // The first wait is a second: on a busy machine it would be over before the next attempt.
    const moment = new Date()
    const still = (): Date => moment
    const server = await startServer({ ...basis(), now: still, proxy: '127.0.0.1' })
    const behind = (address: string) => ({ ...said, 'X-Forwarded-For': address })
    for (let n = 0; n < 5; n++) expect((await wrong(server.url, behind('198.51.100.4'))).status).toBe(401)
    expect((await wrong(server.url, behind('198.51.100.4'))).status).toBe(429)
    expect((await wrong(server.url, behind('198.51.100.5'))).status).toBe(401)
    // What the caller itself put before the proxy's word is not believed.
    expect((await wrong(server.url, behind('203.0.113.9, 198.51.100.4'))).status).toBe(429)
    const answer = await new TestClient(server.url).call('POST', '/api/session', signIn, {
      ...said,
      Origin: 'https://office.example',
    })
    expect([answer.status, answer.headers.get('set-cookie')?.includes('Secure')]).toEqual([200, true])
    await server.stop()
    const other = await startServer({ ...basis(), now: still, proxy: '192.0.2.7' })
    // Named, but not the one that calls: made-up addresses make no free tries.
    const tries: number[] = []
    for (let n = 0; n < 7; n++) tries.push((await wrong(other.url, behind(`198.51.100.1${n}`))).status)
    expect(tries).toContain(429)
    await other.stop()
  })
})
