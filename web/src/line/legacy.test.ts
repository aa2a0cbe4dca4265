import { expect, it } from 'vitest'
import { builds } from '../../../core/src/testing/builds.ts'
import { adoptLegacy } from './legacy.ts'
import { memoryQueue } from './memory-queue.ts'

/** The last build that kept unsent work in this place: later ones keep it in the queue. */
const last = builds.filter((build) => build.schema === 3).at(-1)
const [job, kept] = Object.entries(last?.unsent ?? {})[0] ?? ['', []]
const owner = { firm: 'f1', person: 'idris', job: job.replace('kapelle.unsent.', '') }

it('takes over what a page of an earlier build left, in its maker’s name only', async () => {
  localStorage.clear()
  const others = [{ ...(kept[0] as object), id: 'edit-of-morwen', by: 'Morwen Tallis' }]
  localStorage.setItem(job, JSON.stringify([...kept, ...others]))
  const queue = memoryQueue()
  await adoptLegacy(localStorage, queue, { ...owner, name: 'Idris Quayle' })
  const rows = await queue.rows(owner)
  expect(rows.map((row) => row.edit.id)).toEqual(kept.map((edit) => (edit as { id: string }).id))
  expect(rows.every((row) => row.edit.by.name === 'Idris Quayle')).toBe(true)
  expect(JSON.parse(localStorage.getItem(job) ?? '[]')).toEqual(others)
  // Whoever it is of finds it later.
  await adoptLegacy(localStorage, queue, { ...owner, person: 'morwen', name: 'Morwen Tallis' })
  expect((await queue.rows({ ...owner, person: 'morwen' })).map((row) => row.edit.id)).toEqual([
    'edit-of-morwen',
  ])
  expect(localStorage.getItem(job)).toBeNull()
})

it('leaves what it cannot read', async () => {
  const queue = memoryQueue()
  for (const text of ['half a', '{}', 'null', '[1, null, {"by": "Idris Quayle"}]']) {
    localStorage.setItem(job, text)
    await adoptLegacy(localStorage, queue, { ...owner, name: 'Idris Quayle' })
  }
  expect(await queue.rows(owner)).toEqual([])
})
