import { describe, expect, it } from 'vitest'
import { canonicalJson } from '../units/canonical.ts'
import { seededRandom, type Random } from '../units/random.ts'
import type { JobDocument } from './document.ts'
import { emptyDocument } from './document.ts'
import type { Conflict, Edit, Op } from './edit.ts'
import { applyOps } from './edit.ts'
import type { JournalEntry } from './journal.ts'
import { planUndo, replay, undoState } from './journal.ts'
import type { Replica } from './replica.ts'
import { makeEdit, openReplica, takeNews, takeRefusal } from './replica.ts'
import { aDevice, aJob } from './testing/records.ts'

/** A server in memory: the same taking, a journal, and answers kept by edit id. */
class SmallServer {
  doc: JobDocument = emptyDocument
  readonly journal: JournalEntry[] = []
  readonly answers = new Map<string, 'taken' | Conflict>()

  take(edit: Edit): 'taken' | Conflict {
    const known = this.answers.get(edit.id)
    if (known === 'taken') return known
    const result = applyOps(this.doc, edit.ops)
    if (!result.ok) return result.conflict
    this.doc = result.doc
    this.journal.push({
      revision: this.journal.length + 1,
      edit: { ...edit, ops: result.took },
      takenAt: edit.madeAt,
    })
    this.answers.set(edit.id, 'taken')
    return 'taken'
  }
}

/** A client that edits at once, sends in order, loses answers and sends again. */
class SmallClient {
  replica: Replica
  readonly acknowledged = new Set<string>()
  readonly made = new Set<string>()
  #count = 0

  constructor(
    readonly name: string,
    readonly server: SmallServer,
    readonly random: Random,
  ) {
    this.replica = openReplica(server.doc, server.journal.length)
  }

  act(): void {
    const edit = this.random() < 0.15 ? this.#undo() : this.#change()
    if (!edit) return
    const result = makeEdit(this.replica, edit)
    if (!result.ok) return
    this.replica = result.replica
    this.made.add(edit.id)
  }

  /** Sends the oldest edit; the request or its answer may be lost. */
  send(loss: number): void {
    const next = this.replica.pending[0]
    if (!next || this.random() < loss) return
    const answer = this.server.take(next.edit)
    if (this.random() < loss) return
    if (answer !== 'taken') {
      this.listen()
      this.replica = takeRefusal(this.replica, next.edit.id, answer)
      return
    }
    this.acknowledged.add(next.edit.id)
    this.listen()
  }

  listen(): void {
    this.replica = takeNews(this.replica, this.server.journal.slice(this.replica.revision))
  }

  #edit(kind: string, ops: readonly Op[], extra: Partial<Edit> = {}): Edit {
    this.#count += 1
    return {
      id: `${this.name}-edit-${this.#count}`,
      kind,
      schema: 1,
      by: this.name,
      madeAt: '2026-01-01T00:00:00Z',
      ops,
      ...extra,
    }
  }

  #change(): Edit | null {
    const devices = Object.values(this.replica.shown.records).filter((record) => record.type === 'device')
    const device = devices[Math.floor(this.random() * devices.length)]
    const dice = this.random()
    if (!device || dice < 0.2)
      return this.#edit('device.add', [{ op: 'add', record: aDevice(`${this.name}-${this.#count}`) }])
    if (dice < 0.3) return this.#edit('device.remove', [{ op: 'remove', record: device }])
    const room = `room ${Math.floor(this.random() * 4)}`
    const fields: Op[] = [{ op: 'set', id: device.id, field: 'room', from: device.room, to: room }]
    if (dice > 0.8)
      fields.push({
        op: 'set',
        id: device.id,
        field: 'order',
        from: device.order,
        to: Math.floor(this.random() * 9),
      })
    return this.#edit('device.set', fields)
  }

  #undo(): Edit | null {
    const next = undoState(this.server.journal.slice(0, this.replica.revision), this.name).undo
    if (!next || this.replica.pending.some((item) => item.edit.undoes === next.edit.id)) return null
    const plan = planUndo(this.replica.shown, next)
    return plan.ops.length === 0 ? null : this.#edit('undo', plan.ops, { undoes: next.edit.id })
  }
}

function runWorld(seed: number): { server: SmallServer; clients: SmallClient[] } {
  const random = seededRandom(seed)
  const server = new SmallServer()
  server.take({
    id: 'first-edit',
    kind: 'job.start',
    schema: 1,
    by: 'a',
    madeAt: '2026-01-01T00:00:00Z',
    ops: [{ op: 'add', record: aJob() }, ...aDevice.pins(), { op: 'add', record: aDevice('one') }],
  })
  const clients = ['a', 'b', 'c'].map((name) => new SmallClient(name, server, random))
  for (let step = 0; step < 120; step++) {
    const client = clients[Math.floor(random() * clients.length)] as SmallClient
    const dice = random()
    if (dice < 0.45) client.act()
    else if (dice < 0.85) client.send(0.3)
    else client.listen()
  }
  for (const client of clients) while (client.replica.pending.length > 0) client.send(0)
  for (const client of clients) client.listen()
  return { server, clients }
}

describe('three clients with lost answers', () => {
  const seeds = Array.from({ length: 300 }, (_, index) => index + 1)

  it('converge in 300 seeded worlds', () => {
    for (const seed of seeds) {
      const { server, clients } = runWorld(seed)
      const truth = canonicalJson(server.doc.records)
      for (const client of clients)
        expect(canonicalJson(client.replica.shown.records), `seed ${seed}`).toBe(truth)
      expect(canonicalJson(replay(server.journal).records), `seed ${seed}`).toBe(truth)
    }
  })

  it('keep every edit once: in the journal or in the tray', () => {
    let conflicts = 0
    for (const seed of seeds) {
      const { server, clients } = runWorld(seed)
      const journalled = server.journal.map((entry) => entry.edit.id)
      expect(new Set(journalled).size).toBe(journalled.length)
      for (const client of clients) {
        const tray = client.replica.tray.map((item) => item.edit.id)
        conflicts += tray.length
        for (const id of client.acknowledged) expect(journalled).toContain(id)
        for (const id of client.made)
          expect(Number(journalled.includes(id)) + Number(tray.includes(id)), `seed ${seed}, ${id}`).toBe(1)
      }
    }
    expect(conflicts).toBeGreaterThan(100)
  })
})
