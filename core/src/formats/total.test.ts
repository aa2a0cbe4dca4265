import fc from 'fast-check'
import { expect, it } from 'vitest'
import { customerNotes } from '../findings/customer-notes.ts'
import { departureLines } from '../findings/departures.ts'
import { owedList } from '../findings/handover.ts'
import { fitAll } from '../fit/fit.ts'
import { systemOf } from '../system/system.ts'
import { recordsOf, type JobDocument } from '../job/document.ts'
import { applyOps } from '../job/edit.ts'
import { readHouse, writeHouse } from '../premises/house-words.ts'
import { programmingSheet } from '../programming/sheet.ts'
import { proofRoute } from '../proof/owed.ts'
import { carelessJobs } from '../testing/careless-jobs.ts'
import { catalogue, type SmallJob } from '../testing/small-job.ts'
import { eventsToZone } from '../catalogue/zone-loops.ts'
import { numberAll } from '../zones/number-all.ts'
import { readJobFile, writeJobFile } from './job-file.ts'
import { zoneScheduleCsv } from './zone-schedule.ts'
import { holdsNumber } from '../job/enrolment.ts'
import { runs } from '../testing/runs.ts'

let count = 0
const each = (check: (job: SmallJob) => void): void =>
  fc.assert(fc.property(carelessJobs, check), { numRuns: runs(1500), seed: 20261127 })
const numbersOf = (doc: JobDocument) =>
  new Map(recordsOf(doc, 'zone').map((zone) => [zone.id, zone.number] as const))

it('everything made of a job is made of a careless one too', () => {
  each((job) => {
    const findings = job.findings()
    const sheet = programmingSheet(job.doc, catalogue, job.houseRules)
    expect(
      sheet?.sections
        .flatMap((section) => section.steps)
        .some((step) => /undefined|NaN|\{\w+\}/.test(step.keys + step.shows + step.meaning)),
    ).toBe(false)
    for (const line of customerNotes(job.doc, catalogue, job.houseRules))
      expect(line).not.toMatch(/undefined|null|NaN/)
    for (const finding of findings) expect(finding.text).not.toMatch(/undefined|null|NaN|\[object/)
    for (const owed of owedList(job.input(), findings)) expect(owed.text).not.toMatch(/undefined|null|NaN/)
    expect(departureLines(job.doc, findings, null).every((line) => line.what !== '')).toBe(true)
    expect(zoneScheduleCsv(job.doc, catalogue).split('\n').length).toBeGreaterThan(
      recordsOf(job.doc, 'zone').length,
    )
    proofRoute(job.doc, catalogue, '2026-05-04T12:00:00Z')
  })
})

/** The text of a file as it is written again once its evidence is told by it. */
const toldText = (text: string): string => text.replaceAll('"told": null', '"told": "file"')

it('a careless job is written to a file and read back to the same bytes, its evidence told', () => {
  each((job) => {
    const text = writeJobFile('0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a009', job.doc, catalogue.kept)
    const read = readJobFile(JSON.parse(text))
    if (!read.ok) throw new Error(JSON.stringify(read.problems))
    const made = applyOps({ schema: job.doc.schema, records: {} }, [...read.plan, ...read.told])
    if (!made.ok) throw new Error(made.conflict.code)
    expect(writeJobFile('0b1e6f3a-1c7d-4e55-9a3f-5d2a7c10a009', made.doc, catalogue.kept)).toBe(
      toldText(text),
    )
  })
})

it('its house reads back from words to no change', () => {
  each((job) => {
    expect(readHouse(writeHouse(job.doc), job.doc, () => 'new').ops).toEqual([])
  })
})

it('numbering it leaves what is pinned or enrolled, and is done once', () => {
  each((job) => {
    const zones = recordsOf(job.doc, 'zone')
    const before = numbersOf(job.doc)
    const plan = numberAll(job.doc, catalogue, {
      newId: () => `zone:new${(count += 1)}`,
      houseRules: job.houseRules,
    })
    const result = applyOps(job.doc, plan.ops)
    if (!result.ok) throw new Error(result.conflict.code)
    const after = numbersOf(result.doc)
    for (const zone of zones)
      if (zone.pinned || holdsNumber(job.doc, zone)) expect(after.get(zone.id)).toBe(before.get(zone.id))
    const again = numberAll(result.doc, catalogue, { newId: () => 'zone:again', houseRules: job.houseRules })
    expect(again.ops).toEqual([])
    // Whoever fits and has a place has a zone per event, or is named with the reason.
    const left = new Map(plan.left.map((item) => [item.device, item.reason]))
    for (const reason of left.values()) expect(reason).not.toBe('')
    const system = systemOf(result.doc, catalogue)
    const fits = fitAll(system)
    const zoned = new Set(recordsOf(result.doc, 'zone').map((zone) => `${zone.device} ${zone.event}`))
    const missing = system.devices.flatMap(({ device, model }) =>
      device.deferred !== null || fits.get(device.id)?.verdict !== 'works' || left.has(device.id)
        ? []
        : eventsToZone({ device, model }, system.panel).filter(
            (loop) => !zoned.has(`${device.id} ${loop.event}`),
          ),
    )
    expect(missing).toEqual([])
  })
})
