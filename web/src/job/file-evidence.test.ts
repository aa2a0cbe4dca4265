import { afterEach, expect, it } from 'vitest'
import { heardRecord, proofRecord, proofRoute, targetsOf, type JobDocument, type JobRecord } from '#core'
import { openJob, type JobPage } from '../testing/job-page.ts'
import { catalogue, smallDoc } from '../testing/small-doc.ts'
import FileEvidence from './FileEvidence.vue'

let page: JobPage
afterEach(() => page.close())
const text = (): string => page.host.textContent?.replace(/\s+/g, ' ').trim() ?? ''
const who = { id: 'p1', name: 'Ilse' }

/** The same job with a piece of evidence, told by a file or made here. */
function withRecord(doc: JobDocument, record: JobRecord, told: 'file' | null): JobDocument {
  const made = 'made' in record ? { made: { ...record.made, told } } : {}
  return { ...doc, records: { ...doc.records, [record.id]: { ...record, ...made } as JobRecord } }
}

function enrolled(doc: JobDocument): JobRecord {
  const [target] = targetsOf(doc, catalogue)
  if (!target) throw new Error('nothing to enrol')
  const facts = { serial: '20417733', family: 'family/wren', cause: 'event', loop: null, level: 4 } as const
  return heardRecord(doc, {
    ...{ id: 'heard:1', target, decision: 'accepted', code: 'accept', reason: '', who },
    ...{ facts: { ...facts, source: 'display', shown: null, times: null }, at: '2026-05-04T10:00:00Z' },
  })
}

it('is none where no file brought anything, and where all was seen here', async () => {
  page = await openJob(smallDoc())
  await page.show(FileEvidence)
  expect(text()).toBe('')
  page.close()
  page = await openJob(withRecord(smallDoc(), enrolled(smallDoc()), null))
  await page.show(FileEvidence)
  expect(text()).toBe('')
})

it('says what the file brought, that it does not count, and each piece with its maker', async () => {
  const doc = withRecord(smallDoc(), enrolled(smallDoc()), 'file')
  const [stop] = proofRoute(doc, catalogue, null)
  const item = stop?.items.find(({ kind }) => kind === 'mount')
  if (!item) throw new Error('nothing to prove')
  const made = { id: 'test:1', who, at: '2026-05-04T11:00:00Z' }
  const result = proofRecord({ doc, catalogue }, item, { made, result: { outcome: 'pass' } })
  page = await openJob(withRecord(doc, result, 'file'))
  await page.show(FileEvidence)
  expect(text()).toContain(
    'The job file brought 1 enrolment, 1 proof. They were made elsewhere, so none of them counts here',
  )
  expect(text()).toMatch(/enrolled as 20417733, Ilse, /)
  expect(text()).toMatch(/Mounting passed, Ilse, /)
})
