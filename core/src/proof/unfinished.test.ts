import { describe, expect, it } from 'vitest'
import { offerDevices } from '../fit/offers.ts'
import { blankSignoff } from '../job/blank.ts'
import { recordOf, recordsOf } from '../job/document.ts'
import { evidenceBy } from '../job/testing/records.ts'
import { systemOf } from '../system/system.ts'
import { jobOnEach } from '../testing/panels.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { numberAll } from '../zones/number-all.ts'
import { itemsOf, learned, noon, record, tarn, two } from './testing/proved-jobs.ts'
import { unfinishedSince } from './unfinished.ts'

const now = '2026-05-08T12:00:00Z'
const since = (job: SmallJob) =>
  unfinishedSince({ doc: job.doc, catalogue }, now)?.map(({ id, step }) => [
    id.replace('device:', ''),
    step,
  ]) ?? null
function handOver(job: SmallJob): SmallJob {
  const made = { ...blankSignoff, ...evidenceBy('Idris', two), id: 'signoff:done', keyed: null }
  return job.apply([{ op: 'add', record: { ...made, what: 'handed-over' } }])
}
/** Passes all that a device owes, its waiting proofs once what they wait for is there. */
function prove(job: SmallJob, key: string, at = noon): SmallJob {
  for (let round = 0; round < 4; round++)
    for (const item of itemsOf(job, key, now))
      if (item.state !== 'pass' && item.waits === '') record(job, item, { at, reading: 4 })
  return job
}

describe('a system that was handed over', () => {
  it('is none before it was', () => {
    expect(since(tarn())).toBeNull()
  })

  it('names what was added, by what is to be done with it next, until nothing is', () => {
    const job = tarn()
    for (const { device } of systemOf(job.doc, catalogue).devices)
      prove(job, device.id.replace('device:', ''))
    handOver(job)
    const before = since(job)
    // The keypad of a Tarn is learned in its slot, which nobody did here; all else is done.
    expect(before?.filter(([key]) => key !== 'keypad')).toEqual([])
    job.add('shed', 'reedling', { use: 'opening', position: 'door' })
    const shed = (): string | undefined => since(job)?.find(([key]) => key === 'shed')?.[1]
    expect(shed()).toBe('number')
    job.number()
    expect(shed()).toBe('learn')
    learned(job, 'shed')
    expect(shed()).toBe('prove')
    prove(job, 'shed', now)
    expect(shed()).toBeUndefined()
    // One that hangs elsewhere owes again; a deferred one is not there yet.
    job.set('device:shed', { movedAt: '2026-05-08T12:30:00Z' })
    expect(shed()).toBe('prove')
    job.set('device:shed', { deferred: 'no wall yet' })
    expect(shed()).toBeUndefined()
  })
})

describe.each(jobOnEach.map(([panel]) => panel))('added to a finished system on %s', (id) => {
  it('a device of every model that fits leaves every number, label, type and ID of before as it was', () => {
    const panel = catalogue.get('panel', `panel/${id}`)
    const make = (): SmallJob => {
      const job = new SmallJob({
        panel: `panel/${id}`,
        region: panel?.regions[0] ?? 'europe',
        radioFirmware: null,
      })
      for (const receiver of panel?.receivers ?? [])
        if (receiver !== panel?.builtIn) job.receiver(receiver.replace('receiver/', ''))
      return job
    }
    const models = offerDevices(systemOf(make().doc, catalogue), catalogue).filter(
      ({ fit }) => fit.verdict !== 'no',
    )
    expect(models.length).toBeGreaterThan(6)
    const job = make()
    const [first, second] = models.filter(({ model }) => model.slot === 'none')
    for (const [key, offer] of [
      ['one', first],
      ['two', second],
    ] as const)
      if (offer) job.add(key, offer.model.id.replace('device/', ''), { room: `room ${key}` })
    handOver(learned(job.number(), 'one', 'two'))
    const finished = job.doc
    const zones = recordsOf(finished, 'zone')
    expect(zones.length).toBeGreaterThan(1)
    for (const { model } of models) {
      job.doc = finished
      job.add('late', model.id.replace('device/', ''), { room: 'cellar' })
      let count = 0
      const newId = (): string => `zone:late-${(count += 1)}`
      job.apply(numberAll(job.doc, catalogue, { newId, houseRules: job.houseRules, fresh: false }).ops)
      for (const zone of zones) expect(recordOf(job.doc, 'zone', zone.id), model.name).toEqual(zone)
      const numbers = recordsOf(job.doc, 'zone').map(({ number }) => number)
      expect(new Set(numbers).size).toBe(numbers.length)
      const late = unfinishedSince({ doc: job.doc, catalogue }, now)?.find((one) => one.id === 'device:late')
      // What is wired is known to the panel by its terminal: it is proved at once.
      expect([model.name, late?.step]).toEqual([model.name, model.family === null ? 'prove' : 'learn'])
    }
  })
})
