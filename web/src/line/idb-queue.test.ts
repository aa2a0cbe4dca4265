import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it } from 'vitest'
import { SCHEMA, type Edit, type TrayReason } from '#core'
import { idbQueue } from './idb-queue.ts'
import { memoryQueue } from './memory-queue.ts'
import type { Owner, QueueStore } from './queue.ts'

const nell: Owner = { firm: 'f1', person: 'nell', job: 'job-1' }
const edit = (id: string): Edit => ({
  id,
  kind: 'zone.label',
  schema: SCHEMA,
  by: { id: 'nell', name: 'Nell' },
  madeAt: '2026-05-04T09:30:00Z',
  ops: [{ op: 'set', id: 'zone:one', field: 'label', from: '', to: id }],
})
const reason: TrayReason = { kind: 'invalid', problems: [{ path: 'label', message: 'must not be empty' }] }
let count = 0

describe.each([
  ['in the browser’s database', () => idbQueue(`test-${(count += 1)}`)],
  ['in memory', memoryQueue],
])('a queue %s', (_where, make: () => QueueStore) => {
  let queue: QueueStore
  beforeEach(() => (queue = make()))
  const ids = async (owner = nell): Promise<string[]> => (await queue.rows(owner)).map((row) => row.edit.id)

  it('keeps edits in the order they were made, each once', async () => {
    for (const id of ['c', 'a', 'b', 'a']) await queue.add(nell, edit(id))
    expect(await ids()).toEqual(['c', 'a', 'b'])
    const sequences = (await queue.rows(nell)).map((row) => row.sequence)
    expect([...sequences].sort((a, b) => a - b)).toEqual(sequences)
  })

  it('tells an owner what people who left had not sent, by person and job, in order', async () => {
    const rhys = { ...nell, person: 'rhys' }
    await queue.add(rhys, edit('r2'))
    await queue.add({ ...rhys, job: 'job-2' }, edit('r3'))
    await queue.add(rhys, edit('r1'))
    await queue.refuse(rhys, 'r1', reason)
    await queue.add(nell, edit('mine'))
    await queue.add({ ...rhys, firm: 'f2' }, edit('other firm'))
    const left = async (...people: string[]) =>
      (await queue.left('f1', people)).map(({ person, job, edits }) => [
        person,
        job,
        edits.map((one) => one.id),
      ])
    expect(await left('rhys')).toEqual([
      ['rhys', 'job-1', ['r2', 'r1']],
      ['rhys', 'job-2', ['r3']],
    ])
    expect(await left()).toEqual([])
    expect(await left('gone')).toEqual([])
  })

  it('shows nobody another person’s edits, nor another job’s or firm’s', async () => {
    await queue.add(nell, edit('mine'))
    for (const other of [{ person: 'rhys' }, { job: 'job-2' }, { firm: 'f2' }]) {
      expect(await ids({ ...nell, ...other })).toEqual([])
      await queue.remove({ ...nell, ...other }, 'mine')
      await queue.refuse({ ...nell, ...other }, 'mine', reason)
    }
    expect(await queue.rows(nell)).toMatchObject([{ edit: { id: 'mine' }, reason: null }])
  })

  it('keeps why one was not taken until its maker decides', async () => {
    await queue.add(nell, edit('a'))
    await queue.add(nell, edit('b'), reason)
    await queue.refuse(nell, 'a', reason)
    expect((await queue.rows(nell)).map((row) => row.reason)).toEqual([reason, reason])
    await queue.remove(nell, 'a')
    expect(await ids()).toEqual(['b'])
    await queue.remove(nell, 'never there')
    expect(await ids()).toEqual(['b'])
  })
})

it('lasts over a reload, and tells the other tabs', async () => {
  const first = idbQueue('reload')
  const second = idbQueue('reload')
  let told = 0
  const end = second.listen(() => (told += 1))
  await first.add(nell, edit('a'), reason)
  expect(await second.rows(nell)).toMatchObject([{ edit: { id: 'a' }, reason }])
  await expect.poll(() => told).toBeGreaterThan(0)
  end()
})
