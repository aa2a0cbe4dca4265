import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Edit, TrayReason } from '#core'
import { groupLeft, type Owner, type QueueStore } from './queue.ts'

interface StoredRow {
  sequence?: number
  readonly firm: string
  readonly person: string
  readonly job: string
  readonly editId: string
  /** Number of the record shapes that the edit is written in. */
  readonly schema: number
  readonly edit: Edit
  readonly reason: TrayReason | null
}

interface Shape extends DBSchema {
  edits: {
    key: number
    value: StoredRow
    indexes: { owner: [string, string, string]; edit: [string, string, string, string] }
  }
}

const CHANNEL = 'kapelle.queue'

/** The queue in the browser's own database, shared by all tabs of this address; a channel tells them of changes. */
export function idbQueue(name = 'kapelle'): QueueStore {
  let database: Promise<IDBPDatabase<Shape>> | null = null
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(CHANNEL)
  const open = (): Promise<IDBPDatabase<Shape>> =>
    (database ??= openDB<Shape>(name, 1, {
      upgrade(db) {
        const edits = db.createObjectStore('edits', { keyPath: 'sequence', autoIncrement: true })
        edits.createIndex('owner', ['firm', 'person', 'job'])
        edits.createIndex('edit', ['firm', 'person', 'job', 'editId'], { unique: true })
      },
    }))
  const told = (): void => channel?.postMessage('changed')
  const key = (owner: Owner): [string, string, string] => [owner.firm, owner.person, owner.job]

  return {
    async rows(owner) {
      const rows = await (await open()).getAllFromIndex('edits', 'owner', key(owner))
      return rows
        .map((row) => ({ sequence: row.sequence ?? 0, edit: row.edit, reason: row.reason }))
        .sort((a, b) => a.sequence - b.sequence)
    },
    async add(owner, edit, reason = null) {
      const { firm, person, job } = owner
      const transaction = (await open()).transaction('edits', 'readwrite')
      const there = await transaction.store.index('edit').getKey([...key(owner), edit.id])
      if (there === undefined)
        await transaction.store.add({ firm, person, job, editId: edit.id, schema: edit.schema, edit, reason })
      await transaction.done
      told()
    },
    async refuse(owner, editId, reason) {
      const transaction = (await open()).transaction('edits', 'readwrite')
      const row = await transaction.store.index('edit').get([...key(owner), editId])
      if (row) await transaction.store.put({ ...row, reason })
      await transaction.done
      told()
    },
    async remove(owner, editId) {
      const transaction = (await open()).transaction('edits', 'readwrite')
      const sequence = await transaction.store.index('edit').getKey([...key(owner), editId])
      if (sequence !== undefined) await transaction.store.delete(sequence)
      await transaction.done
      told()
    },
    async left(firm, people) {
      const rows = (await (await open()).getAll('edits')).filter(
        (row) => row.firm === firm && people.includes(row.person),
      )
      rows.sort((a, b) => (a.sequence ?? 0) - (b.sequence ?? 0))
      return groupLeft(rows)
    },
    listen(changed) {
      channel?.addEventListener('message', changed)
      return () => channel?.removeEventListener('message', changed)
    },
  }
}
