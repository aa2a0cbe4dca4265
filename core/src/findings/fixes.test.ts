import fc from 'fast-check'
import { expect, it } from 'vitest'
import { applyOps, invertOps } from '../job/edit.ts'
import { carelessJobs } from '../testing/careless-jobs.ts'
import type { Finding } from './finding.ts'
import { runs } from '../testing/runs.ts'

const key = (finding: Finding): string => `${finding.rule} ${finding.subject} ${finding.text}`
const stopKey = (finding: Finding): string => `${finding.rule} ${finding.subject}`

const waysOut = (finding: Finding) =>
  [finding.fix, ...finding.others].flatMap((fix) => (fix ? [{ finding, fix }] : []))

it('every fix cures its finding and brings no new stop, on whatever job', () => {
  fc.assert(
    fc.property(carelessJobs, (job) => {
      const before = job.findings()
      const stopped = new Set(before.filter((item) => item.severity === 'stops').map(stopKey))
      const seen = job.doc
      for (const { finding, fix } of before.flatMap(waysOut)) {
        const result = applyOps(seen, fix.ops)
        expect(result.ok, `${key(finding)}: its fix applies`).toBe(true)
        if (!result.ok) continue
        const back = applyOps(result.doc, invertOps(result.took))
        expect(back.ok && back.doc, `${fix.title} is undone`).toEqual(seen)
        job.doc = result.doc
        const after = job.findings()
        job.doc = seen
        expect(after.map(key), `${fix.title} leaves`).not.toContain(key(finding))
        const fresh = after.filter((item) => item.severity === 'stops' && !stopped.has(stopKey(item)))
        expect(fresh.map(key), `${key(finding)} → ${fix.title} brings`).toEqual([])
      }
    }),
    { numRuns: runs(4000), seed: 20261126 },
  )
})
