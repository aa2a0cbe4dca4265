import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startServer, type RunningServer } from '../server.ts'
import { FULL_BYTES, LOW_BYTES, Room } from '../service/room.ts'
import { anEdit, TEST_PASSWORD, TestClient } from '../testing/client.ts'
import { freshDatabase } from '../testing/database.ts'
import { pino } from 'pino'

let server: RunningServer
let ann: TestClient
let free = 10 * LOW_BYTES
let clock = 0
const data = mkdtempSync(join(tmpdir(), 'kapelle-limits-'))
beforeAll(async () => {
  server = await startServer({
    address: await freshDatabase(),
    port: 0,
    host: '127.0.0.1',
    logger: pino({ level: 'silent' }),
    data,
    room: new Room(
      () => Promise.resolve(free),
      () => (clock += 10_000),
    ),
  })
  const firm = await server.services.accounts.addFirm('Brook Alarms')
  for (const [login, role] of [
    ['ann', 'owner'],
    ['bob', 'installer'],
  ] as const)
    await server.services.accounts.addPerson(firm, { name: login, login, role, password: TEST_PASSWORD })
  ann = await new TestClient(server.url).signIn('ann')
})
afterAll(async () => {
  await server.stop()
  rmSync(data, { recursive: true, force: true })
})

describe('a body', () => {
  const deep = (levels: number) =>
    `{"login":"ann","password":"x","x":${'['.repeat(levels)}${']'.repeat(levels)}}`

  it('has 64 kB before anybody signed in, and its route’s own limit after', async () => {
    const stranger = new TestClient(server.url)
    const large = { login: 'ann', password: 'x', more: 'x'.repeat(64 * 1024) }
    const answer = await stranger.call('POST', '/api/session', large)
    expect([answer.status, answer.body.title]).toEqual([
      413,
      'What was sent is larger than the 64 kB allowed here. Nothing was changed.',
    ])
    // A stranger's body to what needs a session is not even read.
    expect((await stranger.call('POST', '/api/catalogue/pack', large)).status).toBe(401)
    expect(
      (await ann.call('PUT', '/api/list-columns', { columns: {}, more: 'x'.repeat(100_000) })).status,
    ).toBe(200)
    const beyond = await ann.call('PUT', '/api/list-columns', { columns: {}, more: 'x'.repeat(262_144) })
    expect([beyond.status, beyond.body.title]).toEqual([
      413,
      'What was sent is larger than the 256 kB allowed here. Nothing was changed.',
    ])
    const job = await ann.beginJob()
    expect((await ann.send(job, anEdit([]), 'x'.repeat(3_000_000))).status).toBe(422)
    expect((await ann.send(job, 'x'.repeat(5_000_000))).status).toBe(413)
  })

  it('nested deeper than 64 levels is refused before it is parsed, brackets in texts not counted', async () => {
    const stranger = new TestClient(server.url)
    expect((await stranger.call('POST', '/api/session', deep(63))).status).toBe(401)
    const refused = await stranger.call('POST', '/api/session', deep(64))
    expect([refused.status, refused.body.title]).toEqual([
      400,
      'What was sent is nested deeper than 64 levels, so nothing of it was taken.',
    ])
    expect((await stranger.call('POST', '/api/session', '['.repeat(60_000))).status).toBe(400)
    const texts = { login: 'ann', password: `${'['.repeat(90)}"\\"${'{'.repeat(90)}` }
    expect((await stranger.call('POST', '/api/session', texts)).status).toBe(401)
    // Side by side is not deep, and a quote within a text does not end it.
    const flat = { login: 'ann', password: 'x', x: Array.from({ length: 100 }, () => [{}, [], { a: [] }]) }
    expect((await stranger.call('POST', '/api/session', flat)).status).toBe(401)
    const quoted = { login: 'ann', password: `"${'['.repeat(90)}` }
    expect((await stranger.call('POST', '/api/session', quoted)).status).toBe(401)
    const objects = `{"login":"ann","password":"x","x":${'{"a":'.repeat(64)}1${'}'.repeat(64)}}`
    expect((await stranger.call('POST', '/api/session', objects)).status).toBe(400)
    const job = crypto.randomUUID()
    for (const body of ['['.repeat(100), 'no json'])
      expect((await ann.call('PUT', `/api/jobs/${job}/file?edit=${crypto.randomUUID()}`, body)).status).toBe(
        400,
      )
  })
})

describe('an address', () => {
  it('of a file that is not there is 404, of a page is the client', async () => {
    for (const path of ['/assets/none.js', '/none.css', '/favicon-of-another.ico', '/jobs/x.map'])
      expect([path, (await ann.raw(path)).status]).toEqual([path, 404])
    expect((await ann.raw('/jobs/anything/survey')).status).toBe(200)
    expect((await ann.call('GET', '/api/nothing')).status).toBe(404)
  })
})

describe('the service', () => {
  it('says to anybody whether it runs and can work, and nothing else', async () => {
    const stranger = new TestClient(server.url)
    expect((await stranger.call('GET', '/api/health')).body).toEqual({ ok: true })
    expect((await stranger.call('GET', '/api/ready')).body).toEqual({ ready: true })
    expect((await stranger.call('GET', '/api/service')).status).toBe(401)
    const bob = await new TestClient(server.url).signIn('bob')
    expect((await bob.call('GET', '/api/service')).status).toBe(403)
    const { body } = await ann.call('GET', '/api/service')
    expect(body).toMatchObject({ room: 'enough', free, backups: { late: false } })
  })

  it('warns its owner of a disk that fills, and takes nothing more while it is full', async () => {
    const job = await ann.beginJob()
    const edit = anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }])
    free = LOW_BYTES - 1
    expect((await ann.call('GET', '/api/service')).body).toMatchObject({ room: 'low', free })
    free = FULL_BYTES - 1
    expect((await ann.call('GET', '/api/service')).body).toMatchObject({ room: 'full' })
    const refused = await ann.send(job, edit)
    expect([refused.status, refused.headers.get('retry-after'), refused.body.title]).toEqual([
      507,
      '15',
      'The disk of this Kapelle is full: nothing more is taken until there is room. What you did stays where it is and is sent then.',
    ])
    expect((await ann.call('GET', '/api/ready')).status).toBe(503)
    expect((await ann.call('GET', `/api/jobs/${job}`)).body.revision).toBe(1)
    // Coming in and going out, and reading, stay possible.
    const again = await new TestClient(server.url).signIn('ann')
    expect((await again.call('DELETE', '/api/session')).status).toBe(200)
    free = FULL_BYTES
    expect((await ann.send(job, edit)).status).toBe(200)
    free = 10 * LOW_BYTES
  })
})
