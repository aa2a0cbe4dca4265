import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { RunningServer } from '../server.ts'
import { anEdit, startTestServer, TestClient } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let bob: TestClient
let eve: TestClient
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  bob = await new TestClient(server.url).signIn('bob')
  eve = await new TestClient(server.url).signIn('eve')
})
afterAll(() => server.stop())

describe('the table of routes', () => {
  it("shows a second firm nothing of the first firm's job", async () => {
    const job = await ann.beginJob({ name: 'Secret Hollow' })
    const edit = anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }])
    const bodies: Record<string, unknown> = { '/api/jobs/:job/edits': { edits: [edit] } }
    let walked = 0
    for (const route of server.routes) {
      if (!route.params) continue
      if (route.method === 'put') continue
      const answer = await eve.call(
        route.method.toUpperCase(),
        route.path.replace(':job', job),
        route.method === 'get' ? undefined : (bodies[route.path] ?? {}),
      )
      expect([route.path, answer.status]).toEqual([route.path, 404])
      walked += 1
    }
    expect(walked).toBeGreaterThanOrEqual(4)
    expect((await eve.call('GET', `/api/jobs/${job}/events`)).status).toBe(404)
    expect(JSON.stringify((await eve.call('GET', '/api/jobs?find=Secret')).body)).not.toContain('Secret')
    const own = await eve.call('PUT', `/api/jobs/${job}`, {
      edit: anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }]),
    })
    expect(own.status).toBe(422)
    expect((await ann.call('GET', `/api/jobs/${job}`)).body.revision).toBe(1)
  })

  it('asks everyone without a session to sign in', async () => {
    const nobody = new TestClient(server.url)
    for (const route of server.routes) {
      if (route.role === 'public') continue
      const answer = await nobody.call(
        route.method.toUpperCase(),
        route.path.replace(':job', crypto.randomUUID()),
        route.method === 'get' ? undefined : {},
      )
      expect([route.path, answer.status]).toEqual([route.path, 401])
    }
  })

  it('keeps people to the owner', async () => {
    expect((await bob.call('GET', '/api/people')).status).toBe(403)
    const people = (await ann.call('GET', '/api/people')).body.people as { name: string }[]
    expect(people.map((person) => person.name)).toEqual(['Ann Reed', 'Bob Marsh'])
    const taken = await ann.call('POST', '/api/people', {
      name: 'New',
      login: 'eve',
      role: 'installer',
      password: 'long enough 1',
    })
    expect(taken.body.problems).toEqual([
      { path: 'login', message: 'this sign-in name or this name is taken; choose another' },
    ])
    const short = await ann.call('POST', '/api/people', {
      name: 'New',
      login: 'new',
      role: 'installer',
      password: 'short',
    })
    expect(short.body.problems).toEqual([{ path: 'password', message: 'must have at least 10 characters' }])
  })

  it('stands in the OpenAPI document', async () => {
    const document = (await ann.call('GET', '/api/openapi.json')).body as { paths: Record<string, object> }
    for (const route of server.routes)
      expect(document.paths[route.path.replace(/:([a-z]+)/g, '{$1}')]).toHaveProperty(route.method)
  })
})

describe('sessions', () => {
  it('refuses a wrong password and an unknown name alike', async () => {
    const visitor = new TestClient(server.url)
    const wrong = await visitor.call('POST', '/api/session', { login: 'ann', password: 'wrong-password' })
    const unknown = await visitor.call('POST', '/api/session', {
      login: 'nobody',
      password: 'wrong-password',
    })
    expect([wrong.status, wrong.body.title]).toEqual([unknown.status, unknown.body.title])
  })

  it('refuses writes from another site', async () => {
    const answer = await ann.call('POST', '/api/people', {}, { Origin: 'http://elsewhere.example' })
    expect(answer.status).toBe(403)
  })

  it('ends at sign-out', async () => {
    const visitor = await new TestClient(server.url).signIn('bob')
    await visitor.call('DELETE', '/api/session')
    expect((await visitor.call('GET', '/api/session')).status).toBe(401)
  })

  it('holds back after ten failed tries', async () => {
    const visitor = new TestClient(server.url)
    const tries = []
    for (let n = 0; n < 11; n++)
      tries.push((await visitor.call('POST', '/api/session', { login: 'x', password: '' })).status)
    expect(tries.at(-1)).toBe(429)
  })
})
