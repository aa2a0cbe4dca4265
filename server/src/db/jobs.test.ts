import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { DataSource } from 'typeorm'
import {
  blankDevice,
  Catalogue,
  emptyDocument,
  SCHEMA,
  startOps,
  type Edit,
  type JobInfo,
  type Op,
} from '#core'
import { startJob } from '../testing/client.ts'
import { freshSource } from '../testing/database.ts'
import { Firm, JobEdit } from './entities.ts'
import type { JobStore } from './jobs.ts'
import { createStore, type Store } from './store.ts'

let source: DataSource
let store: Store
beforeAll(async () => {
  source = await freshSource()
  store = createStore(source)
})
afterAll(() => store.close())

async function aFirm(): Promise<string> {
  const id = randomUUID()
  await source.getRepository(Firm).insert({ id, name: id, settings: '{}', createdAt: new Date() })
  return id
}

const at = '2026-05-04T09:00:00.000Z'
const edit = (ops: readonly Op[], over: Partial<Edit> = {}): Edit => ({
  ...{ id: randomUUID(), kind: 'test.edit', schema: SCHEMA, madeAt: at, by: { id: 'ann', name: 'Ann' }, ops },
  ...over,
})
const pin: Op = {
  op: 'add',
  record: { id: 'pin:device/reedling', type: 'pin', entry: 'device/reedling', hash: '0'.repeat(64) },
}
const device = (key: string, sticker: string): Op => ({
  op: 'add',
  record: { ...blankDevice, id: `device:${key}`, model: 'device/reedling', order: 1, sticker },
})

const begin = (over: Partial<JobInfo>): Edit =>
  edit(startOps(emptyDocument, new Catalogue([]), startJob(over)))

/** A job of a firm with a device of this sticker. */
async function aJob(jobs: JobStore, name: string, sticker: string): Promise<string> {
  const id = randomUUID()
  const begun = await jobs.take(id, { edit: begin({ name }), now: new Date(at), create: true })
  expect(begun.outcome).toBe('taken')
  const taken = await jobs.take(id, {
    edit: edit([pin, device('a', sticker)]),
    now: new Date(at),
    create: false,
  })
  expect(taken.outcome).toBe('taken')
  return id
}

describe('the jobs of a firm', () => {
  it('are found by a part of the name as it is typed, and by the beginning of an ID however it is written', async () => {
    const jobs = store.jobsOf(await aFirm())
    const [half, lane] = [
      await aJob(jobs, '50% Mill', 'AB120001'),
      await aJob(jobs, '50 Mill_Lane', 'CD340002'),
    ]
    const found = async (text: string): Promise<string[]> =>
      (await jobs.list(text, 10, { rules: 0, build: 'dev', now: new Date() })).map(({ id }) => id).sort()
    expect(await found('')).toEqual([half, lane].sort())
    expect(await found('50%')).toEqual([half])
    expect(await found('l_L')).toEqual([lane])
    expect(await found('ab 12-00')).toEqual([half])
    expect(await found('120001')).toEqual([])
    expect(await found('%')).toEqual([half])
  })

  it('say who changed each of them last', async () => {
    const firm = await aFirm()
    const jobs = store.jobsOf(firm)
    const [mill, weir] = [await aJob(jobs, 'Mill', 'AB120007'), await aJob(jobs, 'Weir', 'AB120008')]
    const rename = edit([{ op: 'set', id: 'device:a', field: 'room', from: '', to: 'hall' }], {
      by: { id: 'eve', name: 'Eve' },
    })
    await jobs.take(weir, { edit: rename, now: new Date(at), create: false })
    const last = async (of: JobStore) =>
      (await of.list('', 10, { rules: 0, build: 'dev', now: new Date() })).map(({ id, changedBy }) => [
        id,
        changedBy,
      ])
    expect((await last(jobs)).sort()).toEqual(
      [
        [mill, 'Ann'],
        [weir, 'Eve'],
      ].sort(),
    )
    expect(await last(store.jobsOf(await aFirm()))).toEqual([])
  })

  it('are called practice in a file’s name where they are', async () => {
    const jobs = store.jobsOf(await aFirm())
    const id = randomUUID()
    await jobs.take(id, { edit: begin({ name: 'Mill', practice: true }), now: new Date(at), create: true })
    expect(await jobs.titleOf(id)).toBe('Mill practice')
    expect(await jobs.titleOf(await aJob(jobs, 'Lane', 'AB120003'))).toBe('Lane')
    expect([await jobs.titleOf(randomUUID()), await jobs.editOf(id, randomUUID())]).toEqual([null, null])
  })

  it('have their IDs looked up anew from what they say', async () => {
    const firm = await aFirm()
    const jobs = store.jobsOf(firm)
    const ids = [await aJob(jobs, 'One', 'AB120004'), await aJob(jobs, 'Two', 'AB120005')].sort()
    await source.query('DELETE FROM transmitter WHERE firm_id = ?', [firm])
    expect(await jobs.rebuildTransmitters()).toBe(2)
    const serials = await Promise.all(ids.map((id) => jobs.transmitters.of(id)))
    expect(serials.flat().sort()).toEqual(['AB120004', 'AB120005'])
    expect(await jobs.ids()).toEqual(ids)
    expect((await store.people.firmIds()).includes(firm)).toBe(true)
  })

  it('are taken out with all that is theirs, and no other’s', async () => {
    const firm = await aFirm()
    const jobs = store.jobsOf(firm)
    const [gone, stays] = [await aJob(jobs, 'Gone', 'AB120006'), await aJob(jobs, 'Stays', 'AB120007')]
    await jobs.drop(gone)
    expect([await jobs.ids(), await jobs.head(gone)]).toEqual([[stays], null])
    for (const table of ['transmitter', 'job_edit', 'job_snapshot']) {
      const rows = await source.query<{ job_id: string }[]>(`SELECT job_id FROM ${table} WHERE firm_id = ?`, [
        firm,
      ])
      expect(rows.every(({ job_id }) => job_id === stays)).toBe(true)
    }
    expect(Object.keys((await jobs.head(stays))?.document.records ?? {})).toContain('device:a')
  })

  it('are proved against their journal: a snapshot far on, a gap, and one that cannot be read', async () => {
    const firm = await aFirm()
    const jobs = store.jobsOf(firm)
    const id = await aJob(jobs, 'Proved', 'AB120008')
    // Twenty edits make a snapshot.
    for (let n = 0; n < 25; n++)
      await jobs.take(id, {
        edit: edit([
          { op: 'set', id: 'device:a', field: 'room', from: n === 0 ? '' : `r${n - 1}`, to: `r${n}` },
        ]),
        now: new Date(at),
        create: false,
      })
    const good = await jobs.prove(id)
    expect([good.failed, good.revision, good.serials]).toEqual([null, 27, ['AB120008']])
    expect(good.kept.records['device:a']).toMatchObject({ room: 'r24' })
    expect(good.replayed.records).toEqual(good.kept.records)
    await source.getRepository(JobEdit).delete({ firmId: firm, jobId: id, revision: 5 })
    expect((await jobs.prove(id)).failed).toBe('its journal has a gap')
    await source.getRepository(JobEdit).delete({ firmId: firm, jobId: id, revision: 27 })
    expect((await jobs.prove(id)).failed).toBe('its journal has a gap')
  })
})

describe('an edit', () => {
  it('that is known already gets its first answer again, also when it comes to another state', async () => {
    const jobs = store.jobsOf(await aFirm())
    const id = await aJob(jobs, 'Again', 'AB120009')
    const once = edit([{ op: 'set', id: 'device:a', field: 'room', from: '', to: 'hall' }])
    const first = await jobs.take(id, { edit: once, now: new Date(at), create: false })
    await jobs.take(id, {
      edit: edit([{ op: 'set', id: 'device:a', field: 'room', from: 'hall', to: 'attic' }]),
      now: new Date(at),
      create: false,
    })
    expect(await jobs.take(id, { edit: once, now: new Date(at), create: false })).toEqual(first)
  })

  it('that meets a colleague’s is told who touched that last', async () => {
    const jobs = store.jobsOf(await aFirm())
    const id = await aJob(jobs, 'Met', 'AB120010')
    await jobs.take(id, {
      edit: edit([{ op: 'set', id: 'device:a', field: 'room', from: '', to: 'hall' }], {
        by: { id: 'eve', name: 'Eve' },
      }),
      now: new Date(at),
      create: false,
    })
    const met = await jobs.take(id, {
      edit: edit([{ op: 'set', id: 'device:a', field: 'room', from: '', to: 'attic' }]),
      now: new Date(at),
      create: false,
    })
    expect(met).toMatchObject({ outcome: 'conflict', conflict: { who: 'Eve', when: at } })
    const gone = await jobs.take(id, {
      edit: edit([{ op: 'set', id: 'device:none', field: 'room', from: '', to: 'attic' }]),
      now: new Date(at),
      create: false,
    })
    expect(gone).toMatchObject({ outcome: 'conflict', conflict: { who: null, when: null } })
  })
})
