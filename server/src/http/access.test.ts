import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { beginDraft, Catalogue, DRAFT_SCHEMA } from '#core'
import type { RunningServer } from '../server.ts'
import { anEdit, startJob, startTestServer, TestClient } from '../testing/client.ts'

let server: RunningServer
let ann: TestClient
let bob: TestClient
let eve: TestClient
let invitation: string
let leaflet: string
const draft = crypto.randomUUID()
beforeAll(async () => {
  server = await startTestServer()
  ann = await new TestClient(server.url).signIn('ann')
  bob = await new TestClient(server.url).signIn('bob')
  eve = await new TestClient(server.url).signIn('eve')
  await ann.call('POST', '/api/invitations', { name: 'Dai', role: 'installer' })
  const ops = beginDraft('family', { like: null, corrects: false }, new Catalogue([]))
  const edit = { ...anEdit([]), kind: 'draft.begin', schema: DRAFT_SCHEMA, ops }
  expect((await ann.call('PUT', `/api/catalogue/drafts/${draft}`, { edit })).status).toBe(200)
  const file = await ann.call(
    'POST',
    '/api/catalogue/leaflets?about=device/reedling&name=a.pdf',
    Buffer.from('%PDF-1.7'),
    { 'Content-Type': 'application/pdf' },
  )
  leaflet = (file.body.leaflet as { id: string }).id
  const people = (await ann.call('GET', '/api/people')).body as { invitations?: { id: string }[] }
  invitation = people.invitations?.[0]?.id ?? ''
})
afterAll(() => server.stop())

/** Routes that are about the caller alone. */
const ownAlone = ['/api/password', '/api/sessions', '/api/sessions/:session']

/** A route's path with its names filled in: those of the first firm. */
function filled(path: string, job: string): string {
  const asked = path.endsWith('/around') ? `${path}?serial=20417733` : path
  return asked
    .replace(':job', job)
    .replace(':person', ann.me.id ?? '')
    .replace(':invitation', invitation)
    .replace(':session', 'a'.repeat(24))
    .replace(':draft', draft)
    .replace(':leaflet', leaflet)
}

describe('the table of routes', () => {
  it("shows a second firm nothing of the first firm's job", async () => {
    const job = await ann.beginJob({ name: 'Secret Hollow' })
    const edit = anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }])
    const bodies: Record<string, unknown> = {
      '/api/jobs/:job/edits': { edits: [edit] },
      '/api/jobs/:job/handed-in': { edits: [edit], person: ann.me.id },
      '/api/catalogue/drafts/:draft/published': { revision: 1 },
      '/api/catalogue/drafts/:draft/edits': { edit },
    }
    let walked = 0
    for (const route of server.routes) {
      if (!route.params) continue
      // Beginning a job under an id that another firm has makes one of one's own: below.
      if (route.method === 'put') continue
      // One's own sessions are looked for among one's own alone: ending another's ends nothing (below).
      if (route.path === '/api/sessions/:session') continue
      const answer = await eve.call(
        route.method.toUpperCase(),
        filled(route.path, job),
        route.method === 'get' ? undefined : (bodies[route.path] ?? {}),
      )
      expect([route.path, answer.status]).toEqual([route.path, 404])
      walked += 1
    }
    expect(walked).toBeGreaterThanOrEqual(4)
    const moved = await eve.call('PUT', `/api/people/${ann.me.id}`, { role: 'viewer', rights: [] })
    expect(moved.status).toBe(404)
    expect((await ann.call('GET', '/api/people')).status).toBe(200)
    expect((await eve.call('GET', `/api/jobs/${job}/events`)).status).toBe(404)
    expect(JSON.stringify((await eve.call('GET', '/api/jobs?find=Secret')).body)).not.toContain('Secret')
    const own = await eve.call('PUT', `/api/jobs/${job}`, {
      edit: anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }]),
    })
    expect(own.status).toBe(422)
    // Two firms may have a job of the same id and never see each other's.
    const begun = await eve.call('PUT', `/api/jobs/${job}`, {
      edit: anEdit([{ op: 'add', record: startJob({ name: 'Eve’s own' }) }]),
    })
    expect(begun.status).toBe(200)
    const file = JSON.parse((await eve.raw(`/api/jobs/${job}/file`)).text) as unknown
    expect(JSON.stringify(file)).not.toContain('Secret')
    const other = crypto.randomUUID()
    expect((await eve.call('PUT', `/api/jobs/${other}/file?edit=${crypto.randomUUID()}`, file)).status).toBe(
      200,
    )
    expect((await ann.call('GET', `/api/jobs/${other}`)).status).toBe(404)
    const mine = (await ann.call('GET', `/api/jobs/${job}`)).body
    expect([mine.revision, JSON.stringify(mine.document).includes('Secret Hollow')]).toEqual([1, true])
  })

  it('asks everyone without a session to sign in', async () => {
    const nobody = new TestClient(server.url)
    for (const route of server.routes) {
      if (route.role === 'public') continue
      const answer = await nobody.call(
        route.method.toUpperCase(),
        filled(route.path, crypto.randomUUID()),
        route.method === 'get' ? undefined : {},
      )
      expect([route.path, answer.status]).toEqual([route.path, 401])
    }
  })

  it('keeps people to the owner', async () => {
    expect((await bob.call('GET', '/api/people')).status).toBe(403)
    const people = (await ann.call('GET', '/api/people')).body.people as { name: string }[]
    expect(people.map((person) => person.name)).toEqual(['Ann Reed', 'Bob Marsh', 'Cyd Holm'])
  })

  it('lets a viewer read and export, and change nothing', async () => {
    const cyd = await new TestClient(server.url).signIn('cyd')
    const job = await ann.beginJob()
    const edit = anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }])
    for (const route of server.routes.filter((one) => one.role !== 'public')) {
      const body = route.method === 'get' ? undefined : { edits: [edit], edit, pack: {}, columns: {} }
      // A viewer's own password and sessions are a viewer's own.
      if (ownAlone.includes(route.path)) continue
      const answer = await cyd.call(route.method.toUpperCase(), filled(route.path, job), body)
      const may = route.role === 'viewer'
      expect([route.method, route.path, answer.status === 403]).toEqual([route.method, route.path, !may])
      if (may) expect(route.method).toBe('get')
    }
    expect((await ann.call('GET', `/api/jobs/${job}`)).body.revision).toBe(1)
    expect((await cyd.call('POST', `/api/jobs/${job}/edits`, { edits: [edit] })).body.title).toBe(
      'You look on here: only an installer or an owner of the firm may change something.',
    )
  })

  it('stands in the OpenAPI document, every answer described', async () => {
    interface Described {
      parameters: { name: string; in: string; required: boolean; schema: object }[]
      requestBody?: { content: Record<string, { schema: { type?: string } }> }
      responses: { 200: { content?: Record<string, { schema?: object }> } }
    }
    const document = (await ann.call('GET', '/api/openapi.json')).body as {
      paths: Record<string, Record<string, Described>>
    }
    for (const route of server.routes) {
      const described = document.paths[route.path.replace(/:([a-z]+)/g, '{$1}')]?.[route.method]
      const content = described?.responses[200].content ?? {}
      const [schema] = Object.values(content).map((one) => one.schema ?? {})
      expect([route.path, Object.keys(schema ?? {}).length > 0]).toEqual([route.path, true])
      expect(route.answer !== null || route.file !== null, route.path).toBe(true)
      const inPath = described?.parameters.filter((one) => one.in === 'path' && one.required)
      expect(inPath?.map((one) => `:${one.name}`)).toEqual(route.path.match(/:[a-z]+/g) ?? [])
      expect(described?.requestBody !== undefined, route.path).toBe(route.body !== null)
    }
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
    const answer = await ann.call('POST', '/api/invitations', {}, { Origin: 'http://elsewhere.example' })
    expect(answer.status).toBe(403)
  })

  it('ends at sign-out', async () => {
    const visitor = await new TestClient(server.url).signIn('bob')
    await visitor.call('DELETE', '/api/session')
    expect((await visitor.call('GET', '/api/session')).status).toBe(401)
  })
})
