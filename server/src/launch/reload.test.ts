import { createConnection } from 'mysql2/promise'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { isEnrolled, jobInfo, recordsOf } from '#core'
import { builds } from '../../../core/src/testing/builds.ts'
import { openSource } from '../db/source.ts'
import { createStore, type Store } from '../db/store.ts'
import { freshDatabase } from '../testing/database.ts'
import { reloadEarlier } from './product.ts'

/* The demo of a landed build, opened by this one: its jobs learned from invented air, and are loaded anew as practice. */

let store: Store
let end: () => Promise<void>
const newest = builds.find((build) => build.schema === 5)
beforeAll(async () => {
  const address = await freshDatabase()
  const connection = await createConnection({ ...address, multipleStatements: true, charset: 'utf8mb4' })
  await connection.query(newest?.sql() ?? '')
  // A job that somebody began beside the demo's.
  await connection.query(
    "INSERT INTO job SELECT firm_id, '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a0ff', revision, 'My own', '', summary, 0, created_at, changed_at, 0, '', NULL, NULL FROM job WHERE id = '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a002'",
  )
  await connection.query(
    "INSERT INTO job_edit (firm_id, job_id, revision, edit_id, kind, made_by, taken_at, body) SELECT firm_id, '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a0ff', revision, CONCAT('x', SUBSTRING(edit_id, 2)), kind, made_by, taken_at, body FROM job_edit WHERE job_id = '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a002'",
  )
  await connection.end()
  const source = await openSource(address, 4)
  store = createStore(source)
  end = () => source.destroy()
})
afterAll(() => end())

it('becomes practice, learned as practice, and leaves alone what is nobody’s demo; once', async () => {
  const person = await store.people.byLogin('morwen')
  if (!person) throw new Error('no morwen')
  const jobs = store.jobsOf(person.account.firmId)
  const people = (newest?.people ?? []).map(({ login }) => ({ login }))
  const fennel = '0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a002'
  const enrolled = async (id: string): Promise<number> => {
    const document = (await jobs.head(id))?.document
    return document ? recordsOf(document, 'zone').filter((zone) => isEnrolled(document, zone.id)).length : -1
  }
  expect([await enrolled(fennel), await enrolled(`${fennel.slice(0, -2)}ff`)]).toEqual([0, 0])
  await reloadEarlier(store, people)
  const practice = async (id: string): Promise<boolean> => {
    const document = (await jobs.head(id))?.document
    return document !== undefined && jobInfo(document).practice
  }
  for (const end of ['01', '02', '03']) expect(await practice(`${fennel.slice(0, -2)}${end}`)).toBe(true)
  expect(await enrolled(fennel)).toBe(20)
  expect(await practice(`${fennel.slice(0, -2)}ff`)).toBe(false)
  const before = await jobs.revision(fennel)
  await reloadEarlier(store, people)
  expect(await jobs.revision(fennel)).toBe(before)
})
