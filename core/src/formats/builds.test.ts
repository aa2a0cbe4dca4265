import { describe, expect, it } from 'vitest'
import { Catalogue } from '../catalogue/catalogue.ts'
import { readPack, writePack } from '../catalogue/pack.ts'
import { judge } from '../findings/judge.ts'
import { owedList } from '../findings/handover.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { jobInfo, recordsOf } from '../job/document.ts'
import { applyOps, readEdit } from '../job/edit.ts'
import { enrolmentOf, enrolments, isEnrolled } from '../job/enrolment.ts'
import { evidenceOf } from '../job/evidence.ts'
import { builds } from '../testing/builds.ts'
import { readJobFile, writeJobFile } from './job-file.ts'
import { zoneScheduleCsv } from './zone-schedule.ts'

const read = (file: unknown) => {
  const result = readJobFile(file)
  if (!result.ok) throw new Error(JSON.stringify(result.problems.slice(0, 5)))
  return result
}

it('keeps what eighteen builds left behind', () => {
  expect(builds.map((build) => [build.schema, Object.keys(build.jobs).length])).toEqual([
    [1, 2],
    [2, 3],
    [3, 3],
    [3, 3],
    [3, 3],
    [4, 3],
    [5, 3],
    [6, 3],
    [7, 3],
    [8, 3],
    [9, 3],
    [10, 3],
    [11, 3],
    [12, 3],
    [13, 3],
    [14, 3],
    [15, 3],
    [16, 3],
  ])
})

describe.each(builds.map((build) => [`${build.commit}, shape ${build.schema}`, build] as const))(
  'build %s',
  (_name, build) => {
    it.each(Object.keys(build.jobs))('opens, judges and exports the job file %s', (name) => {
      const { document, entries } = read(build.jobs[name])
      const catalogue = new Catalogue(entries)
      const input = {
        doc: document,
        catalogue,
        now: '2026-11-26T12:00:00Z',
        elsewhere: null,
        houseRules: defaultHouseRules,
      }
      expect(owedList(input, judge(input)).length).toBeGreaterThan(0)
      expect(zoneScheduleCsv(document, catalogue).split('\n').length).toBeGreaterThan(
        recordsOf(document, 'zone').length,
      )
      const again = read(JSON.parse(writeJobFile('x', document, entries)))
      expect(again.document).toEqual(document)
      expect(again.entries.map((item) => item.hash).sort()).toEqual(entries.map((item) => item.hash).sort())
    })

    it.each(Object.keys(build.jobs))('counts nothing of %s that a file tells', (name) => {
      const { document, plan, told } = read(build.jobs[name])
      expect(told.length).toBeGreaterThan(3)
      expect(plan.every((op) => op.op === 'add' && !('corrects' in op.record))).toBe(true)
      for (const type of ['heard', 'test', 'state', 'signoff', 'waiver'] as const)
        expect(evidenceOf(document, type)).toEqual([])
      for (const zone of recordsOf(document, 'zone')) expect(isEnrolled(document, zone.id)).toBe(false)
      // What was learned there is still known, as told.
      expect([...enrolments(document).values()].every((item) => item.told !== null)).toBe(true)
      // From shape 6 on a job says itself whether it is practice.
      if (build.schema >= 6) {
        const file = build.jobs[name] as { records: { type: string; practice?: boolean }[] }
        const said = file.records.find((record) => record.type === 'job')?.practice
        expect(jobInfo(document).practice).toBe(said)
        return
      }
      // What came from simulated air is not even told: those jobs are real now, and no real panel heard it.
      expect([...enrolments(document).values()].every((item) => item.how === 'typed')).toBe(true)
      const typed = recordsOf(document, 'heard').filter(
        (item) => item.source === 'sticker' && item.decision === 'accepted',
      )
      expect(enrolments(document).size > 0).toBe(typed.length > 0)
      expect(jobInfo(document).practice).toBe(false)
    })

    it('keeps a typed ID that nothing heard vouches for as told, and none of simulated air', () => {
      const raw = Object.values(build.jobs) as {
        records: { id: string; type: string; serial?: string | null; learnedBy?: string | null }[]
      }[]
      for (const file of raw) {
        const { document } = read(file)
        for (const record of file.records)
          if (record.type === 'zone' && record.serial)
            expect(enrolmentOf(document, record.id)?.serial, record.id).toBe(
              record.learnedBy === 'typed' || record.learnedBy === 'scanned' ? record.serial : undefined,
            )
      }
    })

    it('takes a sticker that an accepted typed ID equals for unconfirmed, and no other', () => {
      let unsure = 0
      for (const file of Object.values(build.jobs)) {
        const { document } = read(file)
        const typed = (device: string, sticker: string | null) =>
          recordsOf(document, 'heard').some(
            (item) =>
              item.decision === 'accepted' &&
              item.source === 'sticker' &&
              item.cause !== 'told' &&
              item.serial === sticker &&
              item.of?.device === device,
          )
        for (const device of recordsOf(document, 'device')) {
          const scanned = recordsOf(document, 'heard').some(
            (item) => item.of?.device === device.id && item.cause === 'scanned',
          )
          if (device.stickerUnsure) unsure += 1
          if (device.stickerUnsure) expect(typed(device.id, device.sticker), device.id).toBe(true)
          else if (!scanned && device.sticker === null) expect(device.stickerUnsure).toBe(false)
        }
      }
      // From shape 6 on nothing takes a typed ID for a sticker.
      expect(unsure > 0).toBe(build.schema < 6)
    })

    it('reads its pack, and gives it back with the same hashes', () => {
      const pack = readPack(build.pack)
      if (!pack.ok) throw new Error(JSON.stringify(pack.problems.slice(0, 3)))
      const again = readPack(JSON.parse(writePack('again', pack.entries)))
      if (!again.ok) throw new Error(JSON.stringify(again.problems.slice(0, 3)))
      const hashes = (entries: typeof pack.entries) => entries.map((item) => [item.hash, item.form])
      expect(hashes(again.entries)).toEqual(
        hashes([...pack.entries].sort((a, b) => (a.entry.id < b.entry.id ? -1 : 1))),
      )
    })

    it.each(Object.keys(build.unsent))('takes what was left unsent under %s', (key) => {
      const id = key.replace('kapelle.unsent.', '')
      const file = Object.values(build.jobs).find((job) => (job as { id: string }).id === id)
      let doc = read(file).document
      let learned = 0
      for (const input of build.unsent[key] ?? []) {
        const edit = readEdit(input, doc)
        if (!edit.ok) throw new Error(JSON.stringify(edit))
        for (const one of edit.edits) {
          const result = applyOps(doc, one.ops)
          if (!result.ok) throw new Error(JSON.stringify(result.conflict))
          doc = result.doc
          // Before shape 4 a maker was a name alone.
          expect([one.by.name, one.by.id === null]).toEqual(['Idris Quayle', build.schema < 4])
          learned += one.ops.filter((op) => op.op === 'add' && op.record.type === 'heard').length
        }
      }
      const [heard] = evidenceOf(doc, 'heard')
      expect(evidenceOf(doc, 'heard')).toHaveLength(learned)
      // It came from simulated air: it is kept, and counts for nothing in what is now a real job.
      const counts = build.schema >= 6 && jobInfo(doc).practice
      if (heard) expect([heard.source, isEnrolled(doc, heard.subject)]).toEqual(['practice', counts])
      const zones = recordsOf(doc, 'zone')
      expect(zones.some((zone) => zone.label === 'Kept From Before')).toBe(zones.length > 0)
    })
  },
)
