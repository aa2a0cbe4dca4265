import { randomUUID } from 'node:crypto'
import { pino, type Logger } from 'pino'
import {
  blankSignoff,
  blankJob,
  freshEvidence,
  SCHEMA,
  type Edit,
  type JobInfo,
  type KeptEntry,
  type Op,
  type Person,
  type Signoff,
} from '#core'
import { shippedEntries, startServer, type RunningServer } from '../server.ts'
import type { DbAddress } from '../db/mariadb.ts'
import { freshDatabase } from './database.ts'

export interface Answer {
  readonly status: number
  readonly body: Record<string, unknown> & { title?: string; problems?: { path: string; message: string }[] }
  readonly headers: Headers
}

/** A signed-in caller of the HTTP interface. */
export class TestClient {
  #cookie = ''
  /** Who signed in; nobody before. */
  me: Person = { id: null, name: 'me' }

  constructor(readonly url: string) {}

  async call(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer> {
    const response = await fetch(this.url + path, {
      method,
      headers: { 'Content-Type': 'application/json', Cookie: this.#cookie, ...headers },
      ...(body === undefined ? {} : { body: asSent(body) }),
    })
    const cookie = response.headers.get('set-cookie')
    if (cookie) this.#cookie = cookie.split(';')[0] ?? ''
    const text = await response.text()
    return { status: response.status, body: parse(text), headers: response.headers }
  }

  /** What is at an address, byte by byte. */
  async bytes(path: string): Promise<{ status: number; content: Buffer; headers: Headers }> {
    const response = await fetch(this.url + path, { headers: { Cookie: this.#cookie } })
    const content = Buffer.from(await response.arrayBuffer())
    return { status: response.status, content, headers: response.headers }
  }

  /** A file as it is sent: its bytes as Latin-1 for a PDF, as UTF-8 for text. */
  async raw(path: string): Promise<{ status: number; text: string; headers: Headers }> {
    const response = await fetch(this.url + path, { headers: { Cookie: this.#cookie } })
    const bytes = Buffer.from(await response.arrayBuffer())
    const pdf = response.headers.get('content-type')?.startsWith('application/pdf')
    return {
      status: response.status,
      text: bytes.toString(pdf ? 'latin1' : 'utf8'),
      headers: response.headers,
    }
  }

  async signIn(login: string, password = TEST_PASSWORD): Promise<this> {
    const answer = await this.call('POST', '/api/session', { login, password })
    if (answer.status !== 200) throw new Error(`sign-in failed: ${answer.body.title}`)
    this.me = { id: String(answer.body.id), name: String(answer.body.name) }
    return this
  }

  /** Takes over another client's session, as a browser that talks to another process does. */
  as(other: TestClient): this {
    this.#cookie = other.#cookie
    this.me = other.me
    return this
  }

  /** Opens an event stream; what came so far, whether the server ended it, and what ends it here. */
  async stream(path: string): Promise<{ text: () => string; ended: () => boolean; close: () => void }> {
    const end = new AbortController()
    const response = await fetch(this.url + path, { headers: { Cookie: this.#cookie }, signal: end.signal })
    if (!response.body) throw new Error(`no stream: ${response.status}`)
    let [text, ended] = ['', false]
    void (async () => {
      for await (const chunk of response.body as unknown as AsyncIterable<Uint8Array>)
        text += Buffer.from(chunk).toString()
    })()
      .catch(() => undefined)
      .finally(() => (ended = true))
    return { text: () => text, ended: () => ended, close: () => end.abort() }
  }

  async beginJob(over: Partial<JobInfo> = {}): Promise<string> {
    const id = randomUUID()
    const answer = await this.call('PUT', `/api/jobs/${id}`, {
      edit: anEdit([{ op: 'add', record: startJob(over) }]),
    })
    if (answer.status !== 200) throw new Error(`job not begun: ${JSON.stringify(answer.body)}`)
    return id
  }

  send(job: string, ...edits: unknown[]): Promise<Answer> {
    return this.call('POST', `/api/jobs/${job}/edits`, { edits })
  }
}

/** Text and bytes go as they are, all else as JSON. */
function asSent(body: unknown): string | Uint8Array<ArrayBuffer> {
  if (typeof body === 'string') return body
  return body instanceof Uint8Array ? new Uint8Array(body) : JSON.stringify(body)
}

export const TEST_PASSWORD = 'correct-horse-9'

/** A server on a fresh database with two firms: Brook Alarms (ann owner, bob installer, cyd viewer) and Far Away (eve owner). */
export async function startTestServer(
  logger: Logger = pino({ level: 'silent' }),
  now?: () => Date,
  address?: DbAddress,
  entries: readonly KeptEntry[] = shippedEntries(),
): Promise<RunningServer> {
  const server = await startServer({
    address: address ?? (await freshDatabase()),
    port: 0,
    host: '127.0.0.1',
    logger,
    entries,
    ...(now ? { now } : {}),
  })
  const { accounts } = server.services
  const brook = await accounts.addFirm('Brook Alarms')
  const far = await accounts.addFirm('Far Away')
  await Promise.all([
    accounts.addPerson(brook, { name: 'Ann Reed', login: 'ann', role: 'owner', password: TEST_PASSWORD }),
    accounts.addPerson(brook, {
      name: 'Bob Marsh',
      login: 'bob',
      role: 'installer',
      password: TEST_PASSWORD,
    }),
    accounts.addPerson(brook, { name: 'Cyd Holm', login: 'cyd', role: 'viewer', password: TEST_PASSWORD }),
    accounts.addPerson(far, { name: 'Eve Fell', login: 'eve', role: 'owner', password: TEST_PASSWORD }),
  ])
  return server
}

export function anEdit(ops: readonly Op[], extra: Partial<Edit> = {}): Edit {
  return {
    id: randomUUID(),
    kind: 'test.edit',
    schema: SCHEMA,
    by: { id: null, name: 'me' },
    madeAt: '2026-05-04T09:30:00Z',
    ops,
    ...extra,
  }
}

/** A sign-off as its maker's page sends it. */
export function aSignoff(id: string, what: string, who: Person, at = '2026-05-04T09:30:00.000Z'): Signoff {
  return { ...freshEvidence(who, at), id: `signoff:${id}`, ...blankSignoff, what, note: '' }
}

export function startJob(over: Partial<JobInfo> = {}): JobInfo {
  return {
    ...blankJob,
    id: 'job:main',
    name: 'Mill Cottage',
    address: '1 Weir Lane',
    region: 'europe',
    kind: 'new',
    monitored: true,
    grade: 2,
    entry1: 30,
    entry2: 60,
    exit: 60,
    airSeed: 1,
    ...over,
  }
}

function parse(text: string): Answer['body'] {
  try {
    return JSON.parse(text) as Answer['body']
  } catch {
    return { text }
  }
}
