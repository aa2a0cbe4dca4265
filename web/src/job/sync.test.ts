import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { SCHEMA, type Edit, type JournalEntry, type Problem, type Replica } from '#core'
import { smallDoc } from '../testing/small-doc.ts'
import { JobLine, type LineState } from './sync.ts'

/** A server in memory: takes edits in order, and can be unplugged or refuse. */
class FakeServer {
  readonly taken: Edit[] = []
  down = false
  refuse: ((edit: Edit) => 'conflict' | 'invalid' | null) | null = null
  posts = 0
  /** Takes edits, and for a while does not show them in its journal. */
  hides = false

  readonly fetch = async (path: string, init: RequestInit = {}): Promise<Response> => {
    if (this.down) throw new TypeError('no connection')
    if (init.method !== 'POST') {
      const since = Number(new URL(path, 'http://x').searchParams.get('since'))
      return reply(200, { entries: this.hides ? [] : this.#entries().slice(since) })
    }
    this.posts += 1
    const { edits } = JSON.parse(String(init.body)) as { edits: Edit[] }
    const answers: unknown[] = []
    for (const edit of edits) {
      const no = this.refuse?.(edit)
      if (no) {
        answers.push(
          no === 'invalid'
            ? { id: edit.id, outcome: 'invalid', problems: [{ path: 'label', message: 'must not be empty' }] }
            : {
                id: edit.id,
                outcome: 'conflict',
                conflict: {
                  code: 'changed',
                  id: 'zone:one',
                  field: 'label',
                  yours: 'mine',
                  theirs: 'theirs',
                },
              },
        )
        return reply(no === 'invalid' ? 422 : 409, { title: 'no', answers, revision: this.taken.length })
      }
      if (!this.taken.some((known) => known.id === edit.id)) this.taken.push(edit)
      answers.push({ id: edit.id, outcome: 'taken', revision: this.taken.length })
    }
    return reply(200, { answers, revision: this.taken.length })
  }

  #entries(): JournalEntry[] {
    return this.taken.map((edit, index) => ({ revision: index + 1, takenAt: edit.madeAt, edit }))
  }
}

const reply = (status: number, body: unknown): Response =>
  new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } })
const label = (id: string, from: string, to: string): Edit => ({
  id: `edit-${id}`,
  kind: 'zone.label',
  schema: SCHEMA,
  by: 'Nell',
  madeAt: '2026-05-04T09:30:00Z',
  ops: [{ op: 'set', id: 'zone:one', field: 'label', from, to }],
})

let server: FakeServer
let line: JobLine
let shown: Replica
let states: LineState[]
let invalid: Problem[]
const open = (): JobLine =>
  new JobLine('job-1', smallDoc(), 0, {
    changed: (replica) => (shown = replica),
    state: (state) => states.push(state),
    news: () => undefined,
    invalid: (_edit, problems) => (invalid = [...problems]),
  })
const labelNow = () => (shown.shown.records['zone:one'] as { label: string }).label

beforeEach(() => {
  vi.useFakeTimers()
  server = new FakeServer()
  states = []
  invalid = []
  localStorage.clear()
  vi.stubGlobal('fetch', server.fetch)
  vi.stubGlobal('__BUILD__', 'test')
  vi.stubGlobal(
    'EventSource',
    class {
      close(): void {
        // Nothing is open in a test.
      }
    },
  )
  line = open()
})
afterEach(() => {
  line.close()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('a job’s line to the server', () => {
  it('shows an edit at once and sends it', async () => {
    expect(line.make(label('0001', 'Porch Door', 'Front'))).toBeNull()
    expect([labelNow(), shown.pending.length]).toEqual(['Front', 1])
    await vi.runAllTimersAsync()
    expect([server.taken.length, shown.pending.length, labelNow()]).toEqual([1, 0, 'Front'])
  })

  it('keeps edits over a lost connection, in order, and sends each once', async () => {
    server.down = true
    line.make(label('0001', 'Porch Door', 'Front'))
    line.make(label('0002', 'Front', 'Front Porch'))
    await vi.advanceTimersByTimeAsync(100)
    expect(states.at(-1)).toBe('offline')
    server.down = false
    await vi.runAllTimersAsync()
    expect(server.taken.map((edit) => edit.id)).toEqual(['edit-0001', 'edit-0002'])
    expect([states.at(-1), shown.pending.length]).toEqual(['idle', 0])
  })

  it('asks again later, not in a circle, when the journal does not show what was taken', async () => {
    server.hides = true
    line.make(label('0001', 'Porch Door', 'Front'))
    await vi.advanceTimersByTimeAsync(100)
    expect([server.posts, states.at(-1), shown.pending.length]).toEqual([1, 'offline', 1])
    server.hides = false
    await vi.runAllTimersAsync()
    expect([server.taken.length, shown.pending.length, states.at(-1)]).toEqual([1, 0, 'idle'])
  })

  it('brings unsent edits back after the tab was closed', async () => {
    server.down = true
    line.make(label('0001', 'Porch Door', 'Front'))
    await vi.advanceTimersByTimeAsync(100)
    line.close()
    server.down = false
    line = open()
    await vi.runAllTimersAsync()
    expect(server.taken.map((edit) => edit.id)).toEqual(['edit-0001'])
    expect(localStorage.length).toBe(0)
  })

  it('puts what the server refuses into the tray, and keeps it', async () => {
    server.refuse = () => 'conflict'
    line.make(label('0001', 'Porch Door', 'Front'))
    await vi.runAllTimersAsync()
    expect(shown.tray.map((item) => [item.edit.id, item.conflict.theirs])).toEqual([['edit-0001', 'theirs']])
    expect(labelNow()).toBe('Porch Door')
    expect(localStorage.length).toBe(1)
    line.decide('edit-0001')
    expect([shown.tray.length, localStorage.length]).toEqual([0, 0])
  })

  it('says what is wrong with an edit that no server would take', async () => {
    server.refuse = () => 'invalid'
    line.make(label('0001', 'Porch Door', 'Front'))
    await vi.runAllTimersAsync()
    expect(invalid).toEqual([{ path: 'label', message: 'must not be empty' }])
    expect([shown.pending.length, shown.tray.length, labelNow()]).toEqual([0, 0, 'Porch Door'])
  })

  it('refuses at once what does not fit what is shown', () => {
    expect(line.make(label('0001', 'something else', 'Front'))?.code).toBe('changed')
    expect(server.posts).toBe(0)
  })
})
