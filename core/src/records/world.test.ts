import { describe, expect, it } from 'vitest'
import { runs } from '../testing/runs.ts'
import { canonicalJson } from '../units/canonical.ts'
import { seededRandom, type Random } from '../units/random.ts'
import type { Person } from './fields.ts'
import type { JournalEntry } from './journal.ts'
import type { Conflict, Doc } from './ops.ts'
import { openReplica, type Replica } from './replica.ts'
import {
  aBook,
  aLoan,
  anEdit,
  kernel,
  type LibraryEdit,
  type LibraryOp,
  type LibraryRecord,
} from './testing/shelf.ts'

const { applyOps, makeEdit, planUndo, replay, takeNews, takeRefusal, undoStacks } = kernel

/** A server in memory: the same taking, a journal, and answers kept by edit id. */
class SmallServer {
  doc: Doc<LibraryRecord> = kernel.empty
  readonly journal: JournalEntry<LibraryRecord>[] = []
  readonly answers = new Map<string, 'taken' | Conflict>()

  take(edit: LibraryEdit): 'taken' | Conflict {
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
  replica: Replica<LibraryRecord>
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
      this.replica = takeRefusal(this.replica, next.edit.id, { kind: 'conflict', conflict: answer })
      return
    }
    this.acknowledged.add(next.edit.id)
    this.listen()
  }

  listen(): void {
    this.replica = takeNews(this.replica, this.server.journal.slice(this.replica.revision))
  }

  get me(): Person {
    return { id: this.name, name: this.name }
  }

  #edit(kind: string, ops: readonly LibraryOp[], extra: Partial<LibraryEdit> = {}): LibraryEdit {
    this.#count += 1
    return anEdit(ops, { id: `${this.name}-edit-${this.#count}`, kind, by: this.me, ...extra })
  }

  #change(): LibraryEdit | null {
    const books = Object.values(this.replica.shown.records).flatMap((record) =>
      record.type === 'book' ? [record] : [],
    )
    const book = books[Math.floor(this.random() * books.length)]
    const dice = this.random()
    const key = `${this.name}-${this.#count}`
    if (dice < 0.1) return this.#edit('loan.add', [{ op: 'add', record: aLoan(key, this.me) }])
    if (!book || dice < 0.25) return this.#edit('book.add', [{ op: 'add', record: aBook(key) }])
    if (dice < 0.35) return this.#edit('book.remove', [{ op: 'remove', record: book }])
    const title = `title ${Math.floor(this.random() * 4)}`
    const fields: LibraryOp[] = [{ op: 'set', id: book.id, field: 'title', from: book.title, to: title }]
    if (dice > 0.8)
      fields.push({
        op: 'set',
        id: book.id,
        field: 'order',
        from: book.order,
        to: Math.floor(this.random() * 9),
      })
    return this.#edit('book.set', fields)
  }

  #undo(): LibraryEdit | null {
    const next = undoStacks(this.server.journal.slice(0, this.replica.revision), this.me).undo.at(-1)
    if (!next || this.replica.pending.some((item) => item.edit.undoes === next.edit.id)) return null
    const plan = planUndo(this.replica.shown, next)
    return plan.ops.length === 0 ? null : this.#edit('undo', plan.ops, { undoes: next.edit.id })
  }
}

function runWorld(seed: number): { server: SmallServer; clients: SmallClient[] } {
  const random = seededRandom(seed)
  const server = new SmallServer()
  server.take(anEdit([{ op: 'add', record: aBook('one') }], { id: 'first-edit', by: { id: 'a', name: 'a' } }))
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
  const seeds = Array.from({ length: runs(2000) }, (_, index) => index + 1)

  it('converge in every seeded world', () => {
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
    expect(conflicts).toBeGreaterThan(seeds.length / 3)
  })

  it('never lose evidence to a conflict', () => {
    let loans = 0
    for (const seed of seeds) {
      const { server, clients } = runWorld(seed)
      for (const client of clients)
        for (const item of client.replica.tray)
          expect(kernel.isEvidenceEdit(item.edit), `seed ${seed}`).toBe(false)
      loans += Object.values(server.doc.records).filter((record) => record.type === 'loan').length
    }
    expect(loans).toBeGreaterThan(seeds.length)
  })
})
