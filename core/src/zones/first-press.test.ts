import fc from 'fast-check'
import { expect, it } from 'vitest'
import { recordsOf } from '../job/document.ts'
import { numberAll } from './number-all.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { runs } from '../testing/runs.ts'
import { fitAll } from '../fit/fit.ts'
import { systemOf } from '../system/system.ts'

/*
 * One press of Number everything is right at once, on every panel: whatever the kit mixes of cable and radio, no zone is on a live
 * terminal, out of its range or twice, and a second press finds nothing to do.
 */

const panels = catalogue.all('panel')
const wrong = new Set(['number-twice', 'number-range', 'live-terminal', 'mapped-terminal', 'slot-twice'])

/** Models of each panel that work with it by themselves, cable and radio apart. */
const fitting = panels.map((panel) => {
  const models = catalogue.all('device').filter((model) => {
    const job = start(panel.id).add('one', model.id.slice('device/'.length))
    return fitAll(systemOf(job.doc, catalogue)).get('device:one')?.verdict !== 'no'
  })
  return {
    panel,
    wired: models.filter((model) => model.family === null && model.slot === 'none'),
    radio: models.filter((model) => model.family !== null),
  }
})

function start(panelId: string): SmallJob {
  const panel = catalogue.get('panel', panelId)
  const job = new SmallJob({
    panel: panelId,
    region: panel?.regions[0] ?? 'europe',
    radioFirmware: panel?.radioFirmware.at(-1) ?? null,
    grade: 1,
  })
  return panelId === 'panel/morrow-60' ? job.receiver('morrow-radio-module') : job
}

const kit = fc.record({
  panel: fc.nat(panels.length - 1),
  wired: fc.array(fc.nat(99), { maxLength: 12 }),
  radio: fc.array(fc.nat(99), { maxLength: 10 }),
  wiredFirst: fc.boolean(),
})

it('one press numbers every kit right, and a second finds nothing to do', () => {
  const seen = new Set<string>()
  fc.assert(
    fc.property(kit, (one) => {
      const of = fitting[one.panel]
      if (!of) return
      const job = start(of.panel.id)
      const add = (models: typeof of.wired, picks: readonly number[], key: string) => {
        picks.forEach((pick, index) => {
          const model = models[pick % Math.max(models.length, 1)]
          if (model) job.add(`${key}${index}`, model.id.slice('device/'.length), { use: 'opening' })
        })
      }
      const both = [() => add(of.wired, one.wired, 'w'), () => add(of.radio, one.radio, 'r')]
      for (const adds of one.wiredFirst ? both : both.reverse()) adds()
      job.number()
      const found = job.findings().filter(({ rule }) => wrong.has(rule))
      expect(found.map(({ text }) => `${of.panel.name}: ${text}`)).toEqual([])
      const again = numberAll(job.doc, catalogue, { newId: () => 'zone:new', houseRules: job.houseRules })
      expect(again.ops).toEqual([])
      if (recordsOf(job.doc, 'zone').length <= 12) expect(again.proven).toBe(true)
      if (one.wired.length > 0 && one.radio.length > 0) seen.add(of.panel.id)
    }),
    // Not fewer, or a panel is left out.
    { seed: 20261127, numRuns: Math.max(140, runs(1400)) },
  )
  expect(seen.size).toBe(panels.length)
})
