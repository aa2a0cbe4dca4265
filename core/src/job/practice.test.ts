import { describe, expect, it } from 'vitest'
import type { SmallJob } from '../testing/small-job.ts'
import { catalogue, cleanTarn } from '../testing/small-job.ts'
import { emptyDocument, jobInfo, recordsOf } from './document.ts'
import { applyOps, fieldProblems, readEdit, type Op } from './edit.ts'
import { enrolmentOf } from './enrolment.ts'
import { copyName, newAirSeed, planCopyOps, sourceProblems } from './practice.ts'
import { SCHEMA } from './records.ts'
import { serialsOf } from './serials.ts'
import { evidenceBy } from './testing/records.ts'

const practice = (): SmallJob => cleanTarn().set('job:main', { practice: true })

describe('practice', () => {
  it('is said when a job is made and never set', () => {
    expect(fieldProblems({ type: 'job', field: 'practice' }, true)).toEqual([
      { path: 'practice', message: 'is said when the job is made, and is never changed' },
    ])
    expect(fieldProblems({ type: 'job', field: 'exercise' }, 'surprises')).toEqual([])
    const edit = {
      ...{ id: 'edit-0001', kind: 'job.set', schema: SCHEMA, by: { id: 'ann', name: 'Ann' } },
      madeAt: '2026-05-04T09:00:00Z',
      ops: [{ op: 'set', id: 'job:main', field: 'practice', from: false, to: true }],
    }
    expect(readEdit(edit, null).ok).toBe(false)
  })

  it.each([
    ['practice', true, 0],
    ['practice', false, 1],
    ['display', true, 1],
    ['display', false, 0],
    ['sticker', true, 1],
    ['bridge', true, 1],
    ['station', false, 0],
  ] as const)('a heard transmission of %s in a job that is practice: %s', (source, isPractice, problems) => {
    const job = isPractice ? practice() : cleanTarn()
    const record = job.heard(job.zone('porch').id, '20417733', { source })
    const found = sourceProblems(job.doc, { ops: [{ op: 'add', record }] })
    expect(found).toHaveLength(problems)
    if (problems > 0) expect(found[0]?.path).toBe('ops.0.record.source')
    // What a file tells counts for nothing, and is taken as it was told.
    const told = { ...record, ...evidenceBy('Ann', record.at, { told: 'file' }) }
    expect(sourceProblems(job.doc, { ops: [{ op: 'add', record: told }] })).toEqual([])
  })

  it('is judged by the job that the same edit begins', () => {
    const job = practice()
    const record = job.heard(job.zone('porch').id, '20417733', { source: 'practice' })
    const begin: Op = { op: 'add', record: jobInfo(job.doc) }
    expect(sourceProblems(emptyDocument, { ops: [begin, { op: 'add', record }] })).toEqual([])
    expect(sourceProblems(emptyDocument, { ops: [{ op: 'add', record }] })).toHaveLength(1)
  })

  it('counts in a practice job, and for nothing in a real one', () => {
    for (const [job, source, counts] of [
      [practice(), 'practice', true],
      [cleanTarn(), 'practice', false],
      [practice(), 'display', false],
      [cleanTarn(), 'display', true],
    ] as const) {
      const zone = job.zone('porch').id
      job.learn(zone, '20417733', { source })
      expect(enrolmentOf(job.doc, zone) !== null).toBe(counts)
    }
  })

  it('has no IDs that other jobs could meet', () => {
    const noted = (job: SmallJob) => [...serialsOf(job.set('device:porch', { sticker: '20417733' }).doc)]
    expect(noted(cleanTarn())).toEqual(['20417733'])
    expect(noted(practice())).toEqual([])
  })
})

describe('the plan of a job begins another', () => {
  const full = (): SmallJob => {
    const job = practice().set('device:porch', { sticker: '20417733', stickerUnsure: true })
    job.set('job:main', { airStartedAt: '2026-05-04T09:00:00Z' })
    return job.learn(job.zone('porch').id, '20417733', { source: 'practice' })
  }

  it('with everything planned, and no evidence, ID, sticker or listening', () => {
    const job = full()
    const made = applyOps(emptyDocument, planCopyOps(job.doc, { name: 'Real', practice: false, airSeed: 9 }))
    if (!made.ok) throw new Error(JSON.stringify(made.conflict))
    expect(jobInfo(made.doc)).toEqual({
      ...jobInfo(job.doc),
      ...{ name: 'Real', practice: false, airSeed: 9, airStartedAt: null },
    })
    for (const type of ['zone', 'area', 'user', 'pin', 'room'] as const)
      expect(recordsOf(made.doc, type)).toEqual(recordsOf(job.doc, type))
    expect(recordsOf(made.doc, 'device').map((device) => device.model)).toEqual(
      recordsOf(job.doc, 'device').map((device) => device.model),
    )
    expect(recordsOf(made.doc, 'device').every((one) => one.sticker === null && !one.stickerUnsure)).toBe(
      true,
    )
    expect(recordsOf(made.doc, 'heard')).toEqual([])
    expect([...serialsOf(made.doc)]).toEqual([])
  })

  it('without departures, which bear a name and are decided anew', () => {
    const job = full()
    const departure = {
      id: 'departure:confirm',
      type: 'departure',
      ...{ rule: 'confirm', choice: 'never', reason: 'x' },
      made: evidenceBy('Ann').made,
      at: '2026-05-04T09:00:00Z',
    } as const
    job.apply([{ op: 'add', record: departure }])
    const ops = planCopyOps(job.doc, { name: 'Real', practice: false, airSeed: 9 })
    expect(ops.some((op) => op.op === 'add' && op.record.type === 'departure')).toBe(false)
  })

  it('under a name that says what it is, within what a name holds', () => {
    expect(copyName('Mill Cottage', true)).toBe('Mill Cottage (practice)')
    expect(copyName('Mill Cottage (practice)', false)).toBe('Mill Cottage')
    expect(copyName('Mill Cottage (practice)', true)).toBe('Mill Cottage (practice)')
    expect(copyName('x'.repeat(120), true)).toHaveLength(120)
  })

  it('with an air of its own', () => {
    expect(newAirSeed(1)).not.toBe(newAirSeed(2))
    for (const from of [0, 1, Date.now()])
      expect(fieldProblems({ type: 'job', field: 'airSeed' }, newAirSeed(from))).toEqual([])
  })
})

it('the catalogue has what the copy pins', () => {
  const job = practice()
  expect(recordsOf(job.doc, 'pin').every((pin) => catalogue.hash(pin.entry) === pin.hash)).toBe(true)
})
