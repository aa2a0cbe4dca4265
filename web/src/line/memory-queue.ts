import { groupLeft, type Owner, type QueueRow, type QueueStore } from './queue.ts'

type Row = QueueRow & { readonly of: string; readonly owner: Owner }

/** A queue that lasts as long as the page: for tests, and for browsers that keep nothing. */
export function memoryQueue(): QueueStore {
  let rows: Row[] = []
  let next = 1
  const listeners = new Set<() => void>()
  const key = (owner: Owner): string => `${owner.firm}|${owner.person}|${owner.job}`
  const told = (): void => listeners.forEach((changed) => changed())
  return {
    rows: (owner) => Promise.resolve(rows.filter((row) => row.of === key(owner))),
    add(owner, edit, reason = null) {
      const of = key(owner)
      if (!rows.some((row) => row.of === of && row.edit.id === edit.id))
        rows = [...rows, { of, owner, sequence: next++, edit, reason }]
      told()
      return Promise.resolve()
    },
    refuse(owner, editId, reason) {
      const of = key(owner)
      rows = rows.map((row) => (row.of === of && row.edit.id === editId ? { ...row, reason } : row))
      told()
      return Promise.resolve()
    },
    remove(owner, editId) {
      const of = key(owner)
      rows = rows.filter((row) => row.of !== of || row.edit.id !== editId)
      told()
      return Promise.resolve()
    },
    left: (firm, people) =>
      Promise.resolve(
        groupLeft(
          rows
            .filter((row) => row.owner.firm === firm && people.includes(row.owner.person))
            .map(({ owner, edit }) => ({ person: owner.person, job: owner.job, edit })),
        ),
      ),
    listen(changed) {
      listeners.add(changed)
      return () => listeners.delete(changed)
    },
  }
}
