import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { SCHEMA } from '../job/records.ts'
import { recordsOf } from '../job/document.ts'
import { applyOps } from '../job/edit.ts'
import { enrolmentOf, isEnrolled } from '../job/enrolment.ts'
import { runs } from '../testing/runs.ts'
import { catalogue, cleanMorrow, cleanTarn } from '../testing/small-job.ts'
import { readJobFile, writeJobFile } from './job-file.ts'

type Loose = {
  kapelleJob: number
  schema: number
  records: Record<string, unknown>[]
  entries: { id: string }[]
}

const write = (job = cleanTarn()): string => writeJobFile('job-1', job.doc, catalogue.kept)
const parsed = (): Loose => JSON.parse(write()) as Loose
const problemsOf = (file: unknown): string[] => {
  const read = readJobFile(file)
  return read.ok ? [] : read.problems.map((problem) => `${problem.path}: ${problem.message}`)
}

describe('a job file', () => {
  it('reads back to the same document and writes the same bytes', () => {
    for (const job of [cleanTarn(), cleanMorrow()]) {
      const text = write(job)
      const read = readJobFile(JSON.parse(text))
      if (!read.ok) throw new Error(JSON.stringify(read.problems))
      expect(read.document.records).toEqual(job.doc.records)
      expect(writeJobFile('job-1', read.document, read.entries)).toBe(text)
    }
  })

  it('tells its evidence, which counts for nothing until it is repeated', () => {
    const job = cleanTarn()
    const zone = job.zone('porch').id
    job.learn(zone, '20417733')
    const read = readJobFile(JSON.parse(write(job)))
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    expect(read.told.map((op) => op.op === 'add' && op.record.type)).toEqual(['heard'])
    expect(read.plan.length + read.told.length).toBe(Object.keys(job.doc.records).length)
    expect(enrolmentOf(read.document, zone)).toMatchObject({ serial: '20417733', told: 'file' })
    expect(isEnrolled(read.document, zone)).toBe(false)
    // Learning it here counts, whatever the file says of a later time.
    const here = applyOps(read.document, [
      { op: 'add', record: job.heard(zone, '20417733', { id: 'heard:here', at: '2026-05-01T00:00:00Z' }) },
    ])
    expect(here.ok && isEnrolled(here.doc, zone)).toBe(true)
  })

  it('carries just the entries it pins', () => {
    const pins = recordsOf(cleanTarn().doc, 'pin').map((pin) => pin.entry)
    expect(
      parsed()
        .entries.map((entry) => entry.id)
        .sort(),
    ).toEqual([...pins].sort())
    expect(write()).not.toContain('morrow')
  })

  it('is the same whatever order its records were made in', () => {
    const { doc } = cleanTarn()
    const turned = { schema: doc.schema, records: Object.fromEntries(Object.entries(doc.records).reverse()) }
    expect(writeJobFile('job-1', turned, [...catalogue.kept].reverse())).toBe(write())
  })
})

describe('files that are refused whole', () => {
  it.each<[string, (file: Loose) => unknown, string]>([
    [
      'a newer form',
      (file) => ({ ...file, kapelleJob: 9 }),
      'kapelleJob: is 9: this file was written by a newer version of Kapelle; this one reads form 2',
    ],
    [
      'newer shapes',
      (file) => ({ ...file, schema: 99 }),
      `schema: is 99: this file was written by a newer version of Kapelle, update this one first; it reads up to ${SCHEMA}`,
    ],
    [
      'no job file at all',
      () => ({ hello: 1 }),
      'kapelleJob: must be the form number of a Kapelle job file, such as 2',
    ],
    [
      'a record twice',
      (file) => ({ ...file, records: [...file.records, file.records[0]] }),
      'area:1: stands twice in this file',
    ],
    ['an unknown field', (file) => ({ ...file, code: '1234' }), 'code: is not a known field here'],
    [
      'a link into nothing',
      (file) => ({ ...file, records: file.records.filter((record) => record.id !== 'user:Nell') }),
      'device:fob: user points at something that is not in this file',
    ],
    [
      'no job record',
      (file) => ({ ...file, records: file.records.filter((record) => record.type === 'area') }),
      'records: must contain the record job:main',
    ],
  ])('%s', (_name, spoil, said) => {
    const problems = problemsOf(spoil(parsed()))
    expect(problems.join('\n')).toContain(said.split(':')[0])
    expect(problems).toContain(said)
  })

  it('an entry that was changed under its hash', () => {
    const file = parsed()
    const panel = file.entries.find((entry) => entry.id === 'panel/tarn-40') as unknown as {
      numberDigits: number
    }
    panel.numberDigits = 3
    expect(problemsOf(file)).toEqual([
      'pin:panel/tarn-40: pins panel/tarn-40 under a hash that no entry of this file has',
    ])
  })

  it('a wrong value, named with its record and field', () => {
    const file = parsed()
    const zone = file.records.find((record) => record.type === 'zone') as Record<string, unknown>
    zone.number = 0
    expect(problemsOf(file)).toEqual([`${String(zone.id)}.number: must be a whole number from 1 to 999`])
  })

  it('never throws on a mutated file', () => {
    fc.assert(
      fc.property(fc.nat(400), fc.anything(), (at, value) => {
        const file = parsed()
        const records = file.records
        const record = records[at % records.length] as Record<string, unknown>
        const keys = Object.keys(record)
        record[keys[at % keys.length] ?? 'id'] = value
        const read = readJobFile(file)
        expect(typeof read.ok).toBe('boolean')
      }),
      { seed: 4, numRuns: runs(1000) },
    )
    for (const value of [null, 1, 'text', [], [1], { kapelleJob: 1 }])
      expect(readJobFile(value).ok).toBe(false)
  })
})
