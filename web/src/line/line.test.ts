import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { freshEvidence, SCHEMA, type Edit, type EditsAnswer, type JournalEntry, type Replica } from '#core'
import { ApiError } from './api.ts'
import { learned, smallDoc } from '../testing/small-doc.ts'
import { JobLine, type LineState } from './line.ts'
import { memoryQueue } from './memory-queue.ts'
import type { QueueStore } from './queue.ts'
import type { Transport } from './transport.ts'

type Answer = EditsAnswer['answers'][number]

/** A server in memory: takes edits in order, and can be unplugged or refuse. */
class FakeServer implements Transport {
  readonly taken: Edit[] = []
  down = false
  refuse: ((edit: Edit) => 'conflict' | 'invalid' | 'held' | number | null) | null = null
  sends = 0
  /** Takes edits, and for a while does not show them in its journal. */
  hides = false
  readonly listeners = new Set<(revision: number) => void>()

  send(_job: string, edits: readonly Edit[]): Promise<EditsAnswer> {
    if (this.down) return Promise.reject(new ApiError(0, 'no connection'))
    this.sends += 1
    const answers: Answer[] = []
    for (const edit of edits) {
      const no = this.refuse?.(edit)
      if (typeof no === 'number') return Promise.reject(new ApiError(no, 'refused'))
      if (no) {
        answers.push(this.#no(edit, no))
        break
      }
      const known = this.taken.findIndex((item) => item.id === edit.id)
      const revision = known >= 0 ? known + 1 : this.taken.push(edit)
      answers.push({ id: edit.id, outcome: 'taken', revision })
    }
    return Promise.resolve({ answers, revision: this.taken.length })
  }

  since(_job: string, revision: number): Promise<readonly JournalEntry[]> {
    if (this.down) return Promise.reject(new ApiError(0, 'no connection'))
    return Promise.resolve(this.hides ? [] : this.journal().slice(revision))
  }

  listen(_job: string, told: (revision: number) => void): () => void {
    this.listeners.add(told)
    return () => this.listeners.delete(told)
  }

  journal(): JournalEntry[] {
    return this.taken.map((edit, index) => ({ revision: index + 1, takenAt: edit.madeAt, edit }))
  }

  #no(edit: Edit, no: 'conflict' | 'invalid' | 'held'): Answer {
    if (no === 'held') return { id: edit.id, outcome: 'held', schema: SCHEMA + 1 }
    if (no === 'invalid')
      return { id: edit.id, outcome: 'invalid', problems: [{ path: 'label', message: 'must not be empty' }] }
    const conflict = {
      code: 'changed',
      id: 'zone:one',
      field: 'label',
      yours: 'mine',
      theirs: 'theirs',
      who: 'Rhys',
      when: null,
    } as const
    return { id: edit.id, outcome: 'conflict', conflict }
  }
}

/** Turns between tabs: the first keeps it until it lets go. */
function turns() {
  const waiting: (() => void)[] = []
  let held = false
  const next = (): void => {
    const got = waiting.shift()
    held = got !== undefined
    got?.()
  }
  return (_name: string, got: () => void): (() => void) => {
    waiting.push(got)
    if (!held) next()
    let mine = true
    return () => {
      const index = waiting.indexOf(got)
      if (index >= 0) waiting.splice(index, 1)
      else if (mine) next()
      mine = false
    }
  }
}

const owner = { firm: 'f1', person: 'nell', job: 'job-1' }
const by = { id: 'nell', name: 'Nell' }
const label = (id: string, from: string, to: string): Edit => ({
  id: `edit-${id}`,
  kind: 'zone.label',
  schema: SCHEMA,
  by,
  madeAt: '2026-05-04T09:30:00Z',
  ops: [{ op: 'set', id: 'zone:one', field: 'label', from, to }],
})

let server: FakeServer
let queue: QueueStore
let hold: ReturnType<typeof turns>
let line: JobLine
let states: LineState[]
const lines: JobLine[] = []

async function open(into: { shown?: Replica } = {}, revision = 0, head = smallDoc()): Promise<JobLine> {
  const opened = await JobLine.open({
    owner,
    head,
    revision,
    queue,
    transport: server,
    hold,
    events: {
      changed: (replica) => (into.shown = replica),
      state: (state) => states.push(state),
      news: () => undefined,
      keeps: () => undefined,
    },
  })
  lines.push(opened)
  return opened
}
const labelNow = (of = line): string => (of.replica.shown.records['zone:one'] as { label: string }).label
const kept = async (): Promise<string[]> => (await queue.rows(owner)).map((row) => row.edit.id)
const settle = (): Promise<unknown> => vi.runAllTimersAsync()

beforeEach(async () => {
  vi.useFakeTimers()
  server = new FakeServer()
  queue = memoryQueue()
  hold = turns()
  states = []
  line = await open()
})
afterEach(() => {
  for (const one of lines.splice(0)) one.close()
  vi.useRealTimers()
})

describe('a job’s line to the server', () => {
  it('shows an edit at once, keeps it, sends it and forgets it', async () => {
    server.down = true
    expect(line.make(label('0001', 'Porch Door', 'Front'))).toBeNull()
    expect([labelNow(), line.replica.pending.length]).toEqual(['Front', 1])
    await vi.advanceTimersByTimeAsync(10)
    expect(await kept()).toEqual(['edit-0001'])
    server.down = false
    await settle()
    expect([server.taken.length, line.replica.pending.length, labelNow()]).toEqual([1, 0, 'Front'])
    expect(await kept()).toEqual([])
  })

  it('keeps edits over a lost connection, in order, and sends each once', async () => {
    server.down = true
    line.make(label('0001', 'Porch Door', 'Front'))
    line.make(label('0002', 'Front', 'Front Porch'))
    await vi.advanceTimersByTimeAsync(100)
    expect(states.at(-1)).toBe('offline')
    server.down = false
    await settle()
    expect(server.taken.map((edit) => edit.id)).toEqual(['edit-0001', 'edit-0002'])
    expect([states.at(-1), line.replica.pending.length]).toEqual(['idle', 0])
  })

  it('asks again later, not in a circle, when the journal does not show what was taken', async () => {
    server.hides = true
    line.make(label('0001', 'Porch Door', 'Front'))
    await vi.advanceTimersByTimeAsync(100)
    expect([server.sends, states.at(-1), line.replica.pending.length]).toEqual([1, 'offline', 1])
    server.hides = false
    await settle()
    expect([server.taken.length, line.replica.pending.length, states.at(-1)]).toEqual([1, 0, 'idle'])
  })

  it('brings unsent edits back after the tab was closed', async () => {
    server.down = true
    line.make(label('0001', 'Porch Door', 'Front'))
    await vi.advanceTimersByTimeAsync(100)
    line.close()
    server.down = false
    line = await open()
    expect(labelNow()).toBe('Front')
    await settle()
    expect([server.taken.map((edit) => edit.id), await kept()]).toEqual([['edit-0001'], []])
  })

  it('forgets one that the server had before the answer was lost and the page closed', async () => {
    const edit = label('0001', 'Porch Door', 'Front')
    await queue.add(owner, edit)
    server.taken.push(edit)
    line.close()
    line = await open({}, 1, smallDoc())
    await settle()
    expect([line.replica.pending.length, line.replica.tray.length, await kept()]).toEqual([0, 0, []])
  })

  it('keeps what the server refuses in the tray, over a reload too, until its maker decides', async () => {
    server.refuse = () => 'conflict'
    line.make(label('0001', 'Porch Door', 'Front'))
    await settle()
    expect(labelNow()).toBe('Porch Door')
    line.close()
    server.refuse = null
    line = await open()
    await settle()
    expect(line.replica.tray).toMatchObject([
      { edit: { id: 'edit-0001' }, reason: { kind: 'conflict', conflict: { theirs: 'theirs' } } },
    ])
    expect(server.taken).toEqual([])
    line.decide('edit-0001')
    await settle()
    expect([line.replica.tray.length, await kept()]).toEqual([0, []])
  })

  it('takes one found invalid out of what is shown, with what builds on it, and loses neither', async () => {
    server.refuse = (edit) => (edit.id === 'edit-0001' ? 'invalid' : null)
    line.make(label('0001', 'Porch Door', 'Front'))
    line.make(label('0002', 'Front', 'Front Porch'))
    await settle()
    expect(labelNow()).toBe('Porch Door')
    expect(line.replica.tray.map((item) => [item.edit.id, item.reason.kind])).toEqual([
      ['edit-0001', 'invalid'],
      ['edit-0002', 'conflict'],
    ])
    expect((await queue.rows(owner)).map((row) => row.reason?.kind)).toEqual(['invalid', 'conflict'])
    expect(server.taken).toEqual([])
  })

  it('never shows what its shape does not allow', async () => {
    const wrong = {
      ...label('0001', 'Porch Door', ''),
      ops: [{ op: 'set', id: 'zone:one', field: 'number', from: 7, to: 0 }],
    } as Edit
    expect(line.make(wrong)).toMatchObject({ kind: 'invalid', problems: [{ path: 'number' }] })
    await settle()
    expect([server.sends, line.replica.tray.length, await kept()]).toEqual([0, 1, ['edit-0001']])
  })

  it('refuses at once what does not fit what is shown', () => {
    expect(line.make(label('0001', 'something else', 'Front'))).toMatchObject({
      kind: 'conflict',
      conflict: { code: 'changed' },
    })
    expect(server.sends).toBe(0)
  })

  it.each([
    [401, 'signed-out'],
    [403, 'refused'],
    [404, 'refused'],
  ] as const)('keeps everything when the server answers %s', async (status, state) => {
    server.refuse = () => status
    line.make(label('0001', 'Porch Door', 'Front'))
    await settle()
    expect([states.at(-1), line.replica.pending.length, server.sends]).toEqual([state, 1, 1])
    expect(await kept()).toEqual(['edit-0001'])
  })

  it('holds what a server of an older build does not know yet', async () => {
    server.refuse = () => 'held'
    line.make(label('0001', 'Porch Door', 'Front'))
    await settle()
    expect([states.at(-1), line.replica.pending.length, line.replica.tray.length]).toEqual(['newer', 1, 0])
    expect(await kept()).toEqual(['edit-0001'])
  })

  it('leaves what a newer build queued to that build', async () => {
    line.close()
    await queue.add(owner, { ...label('0001', 'Porch Door', 'Front'), schema: SCHEMA + 1 })
    line = await open()
    await settle()
    expect([states.includes('newer'), line.replica.pending.length, server.sends]).toEqual([true, 0, 0])
    expect(await kept()).toEqual(['edit-0001'])
  })

  it('brings what waited over an update to the shapes of this build, evidence first', async () => {
    line.close()
    const heard = {
      id: 'heard:h',
      type: 'heard',
      at: '2026-05-04T09:30:00Z',
      by: 'Nell',
      serial: '20417733',
      family: 'family/wren',
      cause: 'event',
      level: 4,
      source: 'air',
      decision: 'accepted',
      code: 'accept',
      reason: '',
      subject: 'zone:one',
    }
    const old = {
      ...label('0001', '', ''),
      schema: 3,
      ops: [
        { op: 'set', id: 'zone:one', field: 'serial', from: null, to: '20417733' },
        { op: 'set', id: 'device:porch', field: 'sticker', from: null, to: '20417733' },
        { op: 'add', record: heard },
      ],
    } as unknown as Edit
    const lost = {
      ...label('0002', '', ''),
      schema: 3,
      ops: [{ op: 'set', id: 'zone:one', field: 'serial', from: '20417733', to: null }],
    } as unknown as Edit
    await queue.add(owner, old)
    await queue.add(owner, lost)
    line = await open()
    await settle()
    expect(server.taken.map((edit) => [edit.id, edit.schema, edit.ops.length])).toEqual([
      ['edit-0001', SCHEMA, 1],
      ['edit-0001-p', SCHEMA, 1],
    ])
    expect(line.replica.tray).toMatchObject([
      { edit: { id: 'edit-0002' }, reason: { kind: 'invalid', problems: [{ path: 'serial' }] } },
    ])
  })

  it('knows evidence again that the server has stamped', async () => {
    line.close()
    const doc = learned(smallDoc(), 'zone:one', '20417733')
    const record = Object.values(doc.records).find((item) => item.type === 'heard')
    if (!record) throw new Error('nothing learned')
    const sent: Edit = {
      ...label('0001', '', ''),
      ops: [{ op: 'add', record: { ...record, ...freshEvidence(by, '2026-05-04T08:00:00.000Z') } }],
    }
    await queue.add(owner, sent)
    server.taken.push(sent)
    line = await open({}, 1, doc)
    await settle()
    expect([line.replica.tray.length, line.replica.pending.length, await kept()]).toEqual([0, 0, []])
  })
})

describe('two tabs of one person', () => {
  it('send in turn, each showing what the other made, and nothing twice', async () => {
    const second = await open()
    server.down = true
    line.make(label('0001', 'Porch Door', 'Front'))
    await vi.advanceTimersByTimeAsync(10)
    expect(labelNow(second)).toBe('Front')
    second.make(label('0002', 'Front', 'Front Porch'))
    await vi.advanceTimersByTimeAsync(10)
    expect(labelNow()).toBe('Front Porch')
    server.down = false
    await settle()
    expect(server.taken.map((edit) => edit.id)).toEqual(['edit-0001', 'edit-0002'])
    for (const told of server.listeners) told(2)
    await settle()
    expect([line.replica.pending.length, second.replica.pending.length]).toEqual([0, 0])
    expect([labelNow(), labelNow(second), await kept()]).toEqual(['Front Porch', 'Front Porch', []])
  })

  it('hand the turn over when the first is closed', async () => {
    const second = await open()
    server.down = true
    line.make(label('0001', 'Porch Door', 'Front'))
    await vi.advanceTimersByTimeAsync(10)
    line.close()
    server.down = false
    await settle()
    expect(server.taken.map((edit) => edit.id)).toEqual(['edit-0001'])
    expect(second.replica.pending).toEqual([])
  })

  it('share the tray: what one decides is gone in the other', async () => {
    const second = await open()
    server.refuse = () => 'conflict'
    second.make(label('0001', 'Porch Door', 'Front'))
    await settle()
    expect([line.replica.tray.length, second.replica.tray.length]).toEqual([1, 1])
    expect([labelNow(), labelNow(second)]).toEqual(['Porch Door', 'Porch Door'])
    line.decide('edit-0001')
    await settle()
    expect([line.replica.tray.length, second.replica.tray.length]).toEqual([0, 0])
  })
})
