import { describe, expect, it } from 'vitest'
import type { PanelModel } from '../catalogue/schema.ts'
import { fitAll } from '../fit/fit.ts'
import { systemOf } from '../system/system.ts'
import { recordProblems } from '../job/edit.ts'
import type { Heard } from '../job/records.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { seededRandom } from '../units/random.ts'
import { inventId, transmissions, type Transmission } from './air.ts'
import { judgeHeard } from './judge.ts'
import { heardRecord, targetsOf } from './learn.ts'

const panels = catalogue.all('panel')

/** Jobs with one contact of each family that the panel, with every receiver it may have, hears. */
function jobsOn(panel: PanelModel): { readonly family: string; readonly job: SmallJob }[] {
  return catalogue.all('family').flatMap(({ id: family }) => {
    for (const model of catalogue
      .all('device')
      .filter((item) => item.family === family && item.slot === 'none')) {
      const job = new SmallJob({
        panel: panel.id,
        region: panel.regions[0] ?? 'europe',
        radioFirmware: '9.99',
        practice: true,
      })
      for (const receiver of panel.receivers)
        if (!systemOf(job.doc, catalogue).receivers.some((item) => item.model.id === receiver))
          job.receiver(receiver.replace('receiver/', ''))
      job.add('one', model.id.replace('device/', ''))
      if (fitAll(systemOf(job.doc, catalogue)).get('device:one')?.verdict === 'no') continue
      job.number()
      if (targetsOf(job.doc, catalogue).some((target) => target.loop?.bench)) return [{ family, job }]
    }
    return []
  })
}

describe.each(panels.map((panel) => [panel.name, panel] as const))('%s', (_name, panel) => {
  const cases = jobsOn(panel)

  it('hears at least one family', () => expect(cases.length).toBeGreaterThan(0))

  it.each(cases)('learns a device of $family and refuses a neighbour’s', ({ family, job }) => {
    const model = catalogue.get('family', family)
    if (!model) throw new Error(family)
    const sticker = inventId(model, seededRandom(3))
    job.set('device:one', { sticker })
    const air = transmissions({ doc: job.doc, catalogue }, 0, 600_000)
    const target = targetsOf(job.doc, catalogue).find((item) => item.loop?.bench)
    if (!target) throw new Error('nothing to learn')
    const record = (heard: Transmission): Heard =>
      heardRecord(job.doc, {
        id: `heard:${heard.id}`,
        target,
        facts: { ...heard, source: 'practice' },
        decision: 'accepted',
        code: 'accept',
        reason: '',
        who: { id: 'idris', name: 'Idris' },
        at: '2026-05-04T09:30:00Z',
      })
    const own = air.find((item) => item.serial === sticker && item.loop === target.loop?.loop)
    if (!own) throw new Error(`the air never brought ${sticker}`)
    // Levels are of the family's own scale: a device at hand in its best band, a stranger's below what holds.
    expect(own.level).toBe(model.placement.best)
    expect(record(own).level).toBe(model.placement.best)
    expect(judgeHeard({ doc: job.doc, catalogue, target, elsewhere: [] }, own).kind).toBe('accept')
    expect(recordProblems(record(own))).toEqual([])
    job.apply([{ op: 'add', record: record(own) }])
    expect(targetsOf(job.doc, catalogue).find((item) => item.id === target.id)?.done).toBe(true)

    const stranger = air.find((item) => item.serial !== sticker)
    if (!stranger) throw new Error('no neighbour was heard')
    const theirs = catalogue.get('family', stranger.family)?.placement.least ?? 0
    expect(stranger.level).toBe(Math.max(1, theirs - 1))
    expect(judgeHeard({ doc: job.doc, catalogue, target, elsewhere: [] }, stranger).kind).toBe('refuse')
    expect(recordProblems(record(stranger))).toEqual([])
  })
})

it('covers every panel and every family of the catalogue', () => {
  const seen = new Set(panels.flatMap((panel) => jobsOn(panel).map((item) => item.family)))
  expect(panels).toHaveLength(7)
  expect([...seen].sort()).toEqual(
    catalogue
      .all('family')
      .map((family) => family.id)
      .sort(),
  )
})
