import { describe, expect, it } from 'vitest'
import { targetsOf } from '../air/learn.ts'
import { owedList } from '../findings/handover.ts'
import { zoneSchedule } from '../formats/zone-schedule.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { programmingSheet } from '../programming/sheet.ts'
import { proofRoute } from '../proof/owed.ts'
import type { SmallJob } from '../testing/small-job.ts'
import { catalogue, cleanMorrow, cleanTarn } from '../testing/small-job.ts'

const now = '2026-05-04T09:30:00Z'
const left = (job: SmallJob, key: string): SmallJob =>
  job.set(`device:${key}`, { existing: true }).set(job.zone(key).id, { asProgrammed: true })
const sheet = (job: SmallJob) => programmingSheet(job.doc, catalogue, defaultHouseRules)

describe.each([
  ['Tarn 40', cleanTarn, 'study', '02'],
  ['Morrow 60', cleanMorrow, 'study', '08'],
] as const)('a zone of a %s that is left as programmed', (_panel, clean, key, printed) => {
  it('is keyed by nobody, and the sheet names it', () => {
    const job = clean()
    const before = sheet(job)
    const title = (zone: { readonly title: string }) => zone.title.startsWith(`Zone ${printed}`)
    expect(before?.sections.some(title)).toBe(true)
    const after = sheet(left(job, key))
    expect([after?.sections.some(title), after?.left]).toEqual([false, [printed]])
    expect(after?.sections.length).toBe((before?.sections.length ?? 0) - 1)
  })

  it('is not learned again and not owed, and its number does not move', () => {
    const job = clean()
    const id = job.zone(key).id
    const targets = targetsOf(job.doc, catalogue).map((target) => target.id)
    expect(targets).toContain(id)
    const enrol = () => owedList(job.input(now), []).find((item) => item.key === 'enrol')?.count
    const owed = enrol() ?? 0
    left(job, key)
    expect(targetsOf(job.doc, catalogue).map((target) => target.id)).toEqual(
      targets.filter((one) => one !== id),
    )
    expect(enrol()).toBe(owed - 1)
    const { number } = job.zone(key)
    // Fresh numbering would put what is added in order; what the panel has stays.
    job.add('aaa', job.device(key).model.slice('device/'.length), { use: 'entry', order: -1 }).number(true)
    expect(job.zone(key).number).toBe(number)
    expect(zoneSchedule(job.doc, catalogue).find((line) => line.number === printed)?.id).toBe(
      'left as programmed',
    )
  })

  it('is proved all the same, without being learned first', () => {
    const job = clean()
    const items = () =>
      proofRoute(job.doc, catalogue, now)
        .flatMap((stop) => stop.items)
        .filter((item) => item.subject === job.zone(key).id)
    expect(items().length).toBeGreaterThan(0)
    expect(items().every((item) => item.waits !== '')).toBe(true)
    left(job, key)
    expect(items().every((item) => item.waits === '' && item.state !== 'pass')).toBe(true)
  })
})
