import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { JournalEntry, Op } from '#core'
import { madeJob } from '../../../bench/made-job.ts'
import { runs } from '../../../core/src/testing/runs.ts'
import type { RunningServer } from '../server.ts'
import { anEdit, startTestServer, TEST_PASSWORD, TestClient } from '../testing/client.ts'

const PEOPLE = 50
const JOBS = 4
/** How long it goes on: with every case a minute. */
const SECONDS = Math.max(6, runs(60) / 10)
const LONG = runs(60) === 60
const DEVICES = 2000

let server: RunningServer
let people: TestClient[]
let owner: TestClient
beforeAll(async () => {
  server = await startTestServer()
  const { accounts, store } = server.services
  const [brook] = await store.people.firms()
  const firm = brook?.id ?? ''
  owner = await new TestClient(server.url).signIn('ann')
  // One person with fifty devices: fifty passwords would take longer to reckon than the test itself.
  await accounts.addPerson(firm, { name: 'Crew', login: 'crew', role: 'installer', password: TEST_PASSWORD })
  people = await Promise.all(Array.from({ length: PEOPLE }, () => new TestClient(server.url)))
  const first = await new TestClient(server.url).signIn('crew')
  for (const person of people) person.as(first)
}, 240_000)
afterAll(() => server.stop())

it('fifty people edit four jobs while two of 2,000 devices are opened, exported and judged: no error, none lost', async () => {
  const { store, summaries } = server.services
  const { doc, entries } = madeJob(DEVICES, false)
  const [brook] = await store.people.firms()
  await store.catalogueOf(brook?.id ?? '').add([...entries], null)
  const big = await Promise.all(
    [1, 2].map(async () => {
      const id = randomUUID()
      const ops = Object.values(doc.records).map((record): Op => ({ op: 'add', record }))
      const edit = anEdit(ops, { by: { id: owner.me.id, name: owner.me.name } })
      expect((await owner.call('PUT', `/api/jobs/${id}`, { edit })).status).toBe(200)
      return id
    }),
  )
  const jobs = await Promise.all(Array.from({ length: JOBS }, () => owner.beginJob()))
  const sent: string[][] = jobs.map(() => [])
  const wrong: string[] = []
  const seconds = LONG ? 60 : SECONDS
  let running = true
  const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms))
  const editing = people.map(async (person, index) => {
    await pause((index * 1000) / PEOPLE)
    const which = index % JOBS
    for (let round = 0; round < seconds; round++) {
      const record = { ...room, id: `room:${randomUUID()}`, name: `${index} ${round}` } as never
      const edit = anEdit([{ op: 'add', record }])
      const began = performance.now()
      const answer = await person.send(jobs[which] ?? '', edit)
      if (answer.status === 200) sent[which]?.push(edit.id)
      else wrong.push(`edit: ${answer.status} ${answer.body.title}`)
      await pause(Math.max(0, 1000 - (performance.now() - began)))
    }
  })
  const looking = big.flatMap((job) =>
    ['', '/file', '/schedule.csv', '/schedule.pdf', '/elsewhere'].map(async (path) => {
      while (running) {
        const answer = await owner.raw(`/api/jobs/${job}${path}`)
        if (answer.status !== 200) wrong.push(`${path}: ${answer.status}`)
        await pause(500)
      }
    }),
  )
  await Promise.all(editing)
  running = false
  await Promise.all(looking)
  expect(wrong).toEqual([])
  for (const [which, job] of jobs.entries()) {
    const journal = (await owner.call('GET', `/api/jobs/${job}/edits?since=0`)).body.entries as JournalEntry[]
    const ids = journal.map((entry) => entry.edit.id)
    expect(new Set(ids).size).toBe(ids.length)
    expect([...(sent[which] ?? [])].sort()).toEqual(ids.slice(1).sort())
  }
  await summaries.settled()
  const list = (await owner.call('GET', '/api/jobs')).body.jobs as { id: string; fresh: boolean }[]
  for (const job of [...big, ...jobs]) expect(list.find((row) => row.id === job)?.fresh).toBe(true)
}, 600_000)

const room = {
  ...{ type: 'room', floor: '', kind: 'living', heated: true, sleeps: false, petKg: null, metal: false },
  hottestC: null,
  ...{ compartment: '', area: null, order: 1 },
}
