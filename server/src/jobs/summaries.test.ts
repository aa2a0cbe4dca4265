import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { blankState, defaultHouseRules, freshEvidence, type JobList, type TemporaryState } from '#core'
import { SummaryRows } from '../db/summaries.ts'
import type { RunningServer } from '../server.ts'
import { anEdit, startTestServer, TestClient } from '../testing/client.ts'

let clock = new Date('2026-05-04T09:00:00.000Z')
let server: RunningServer
let ann: TestClient
beforeAll(async () => {
  server = await startTestServer(undefined, () => clock)
  ann = await new TestClient(server.url).signIn('ann')
})
afterAll(() => server.stop())

const list = async (): Promise<JobList> => (await ann.call('GET', '/api/jobs')).body as unknown as JobList
const listed = async (job: string) => (await list()).jobs.find((one) => one.id === job)
const settled = (): Promise<void> => server.services.summaries.settled()

describe('summaries', () => {
  it('are made behind the answers, and the list tells which are old', async () => {
    const job = await ann.beginJob()
    await settled()
    expect(await listed(job)).toMatchObject({ fresh: true, summary: { stage: 'survey', stops: 1 } })
    const before = await listed(job)
    await server.services.store.people.source.query('UPDATE job SET claimed_until = ?', [
      new Date('2030-01-01'),
    ])
    await ann.send(job, anEdit([{ op: 'set', id: 'job:main', field: 'grade', from: 2, to: 1 }]))
    // Another process has it: until that is done the old summary is shown, and said to be old.
    expect(await list()).toMatchObject({ renewing: 1 })
    expect(await listed(job)).toMatchObject({ fresh: false, summary: before?.summary })
    await server.services.store.people.source.query('UPDATE job SET claimed_until = NULL')
    await settled()
    expect((await list()).renewing).toBe(0)
    expect((await listed(job))?.fresh).toBe(true)
  })

  it('are made anew after a change of the house rules, with how many are left', async () => {
    await ann.beginJob()
    await settled()
    await server.services.store.people.source.query('UPDATE job SET claimed_until = ?', [
      new Date('2030-01-01'),
    ])
    await ann.call('PUT', '/api/house-rules', { rules: defaultHouseRules, revision: 0 })
    const all = await list()
    expect(all.renewing).toBe(all.jobs.length)
    expect(all.jobs.every((job) => !job.fresh && job.summary !== null)).toBe(true)
    await server.services.store.people.source.query('UPDATE job SET claimed_until = NULL')
    await settled()
    expect((await list()).renewing).toBe(0)
  })

  it('are made anew when the clock says so', async () => {
    const job = await ann.beginJob()
    const state: TemporaryState = {
      ...freshEvidence(ann.me, clock.toISOString()),
      id: 'state:1',
      ...blankState,
      kind: 'sounder-off',
      who: 'Ann Reed',
      why: 'a baby sleeps',
      until: '2026-05-04T10:00:00.000Z',
    }
    await ann.send(job, anEdit([{ op: 'add', record: state }]))
    await settled()
    const due = async (): Promise<Date | null> =>
      (
        await server.services.store.people.source.query<{ due: Date }[]>(
          'SELECT summary_due AS due FROM job WHERE id = ?',
          [job],
        )
      )[0]?.due ?? null
    expect((await due())?.toISOString()).toBe('2026-05-04T10:00:00.000Z')
    clock = new Date('2026-05-04T10:00:01.000Z')
    expect((await listed(job))?.fresh).toBe(false)
    await settled()
    // Nothing ends before the day does.
    expect((await due())?.toISOString()).toBe('2026-05-05T00:00:00.000Z')
  })

  it('of one job are made by one process, and by another when the first is gone', async () => {
    const job = await ann.beginJob()
    await settled()
    const rows = new SummaryRows(server.services.store.people.source, 'another build')
    const other = new SummaryRows(server.services.store.people.source, 'another build')
    const [mine, theirs] = await Promise.all([rows.claim(50, clock), other.claim(50, clock)])
    expect(mine.concat(theirs).filter((one) => one.id === job)).toHaveLength(1)
    expect(await rows.claim(50, clock)).toEqual([])
    const later = new Date(clock.getTime() + 61_000)
    expect((await rows.claim(50, later)).some((one) => one.id === job)).toBe(true)
  })

  it('of a later revision are not overwritten by an earlier one', async () => {
    const job = await ann.beginJob()
    await settled()
    const { firmId } = (await server.services.store.people.byLogin('ann'))?.account ?? { firmId: '' }
    const rows = server.services.store.summaries
    const keep = (revision: number, owed: number) =>
      rows.keep(
        { firmId, id: job, rules: 1 },
        { revision, summary: { stage: 'kit', owed, stops: 0 }, due: null },
      )
    await keep(7, 70)
    await keep(6, 60)
    const [row] = await server.services.store.people.source.query<{ summary: string }[]>(
      'SELECT summary FROM job WHERE id = ?',
      [job],
    )
    expect(JSON.parse(row?.summary ?? '{}')).toMatchObject({ owed: 70 })
  })
})
