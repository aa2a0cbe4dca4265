import { describe, expect, it } from 'vitest'
import type { HouseRules } from '../house-rules/house-rules.ts'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { recordsOf } from '../job/document.ts'
import type { JobInfo } from '../job/records.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { takeZoneOps } from './new-zone.ts'

const schools = (over: Partial<HouseRules['schools']>): HouseRules => ({
  ...defaultHouseRules,
  schools: { ...defaultHouseRules.schools, ...over },
})

/** The clean job on the Tarn 40 with what `model` is, in the den, taking over the zone of another device. */
function takenOver(from: string, model: string, event: string, rules = defaultHouseRules): SmallJob {
  const job = cleanTarn().add('den', model, { use: 'opening', position: 'window' })
  return take(job, job.zone(from).id, event, rules)
}

function take(job: SmallJob, zone: string, event: string, rules = defaultHouseRules): SmallJob {
  const system = systemOf(job.doc, catalogue)
  const item = system.devices.find(({ device }) => device.id === 'device:den')
  const loop = item?.model.loops.find((one) => one.event === event)
  const open = recordsOf(job.doc, 'zone').find(({ id }) => id === zone)
  const { panel } = system
  if (!item || !loop || !open || !panel) throw new Error('nothing to take over')
  return job.apply(takeZoneOps(open, { doc: job.doc, system, panel, rules, item, loop, first: true }))
}

describe('a zone that another device takes over', () => {
  it('keeps number, label, area and what was said of its type, where the kind is the same', () => {
    const before = cleanTarn()
    before.set(before.zone('study').id, { response: 'instant-away', chime: false, report: false })
    const study = before.zone('study')
    const job = before.add('den', 'reedling', { use: 'opening', position: 'window' })
    take(job, study.id, 'open')
    expect(job.zone('den')).toMatchObject({
      ...{ id: study.id, number: study.number, label: study.label, area: study.area },
      // Reedling’s reed is loop 3 of its leaflet’s map.
      ...{ device: 'device:den', event: 'open', loop: 3 },
      ...{ response: 'instant-away', chime: false, report: false },
    })
  })

  it('gets the type that the device needs, where its kind is another', () => {
    const job = takenOver('kitchen', 'reedling', 'open')
    // A gas alarm gave way to a window: it is no gas zone any more, and chimes as an opening does.
    expect(job.zone('den')).toMatchObject({
      response: 'instant',
      chime: true,
      number: 8,
      label: 'Kitchen Gas',
    })
    const life = takenOver('study', 'wick', 'co')
    expect(life.zone('den')).toMatchObject({ response: 'gas', chime: false, supervise: true, number: 2 })
  })

  it('gets the type that the device needs, where it had none', () => {
    const job = cleanTarn()
    const { id } = job.zone('study')
    job.set(id, { response: null, chime: false }).add('den', 'reedling', { use: 'opening' })
    expect(take(job, id, 'open').zone('den')).toMatchObject({ response: 'instant', chime: true })
  })

  it('is labelled and put into an area only where it was in none and said nothing', () => {
    const job = cleanTarn()
    const { id } = job.zone('study')
    job.set(id, { label: '', area: null }).add('den', 'reedling', { room: 'gallery', position: 'window' })
    // A label made for it, of the room and the opening.
    expect(take(job, id, 'open').zone('den')).toMatchObject({ label: 'Gallery Window', area: 'area:1' })
  })
})

/** What a new zone of a device says by these rules. */
function made(
  model: string,
  event: string,
  { info = {}, rules = defaultHouseRules }: { info?: Partial<JobInfo>; rules?: HouseRules } = {},
) {
  const job = info.panel === 'panel/morrow-60' ? SmallJob.morrow(info) : new SmallJob(info)
  job.houseRules = rules
  return job.add('den', model, { use: 'opening', position: 'window' }).number().zone('den', event)
}

describe('what a new zone is given', () => {
  it('reports where the job is monitored, or where the firm has it on all the same', () => {
    const local = { monitored: false }
    expect(made('reedling', 'open').report).toBe(true)
    expect(made('reedling', 'open', { info: local }).report).toBe(false)
    expect(made('reedling', 'open', { info: local, rules: schools({ localReport: 'on' }) }).report).toBe(true)
  })

  it('chimes as an opening of burglary does, and as nothing else', () => {
    expect(made('reedling', 'open').chime).toBe(true)
    expect(made('stilt', 'motion').chime).toBe(false)
    expect(made('ember-three', 'freeze').chime).toBe(false)
    // Terminals are an opening, too.
    const job = new SmallJob().add('den', 'reedling', { use: 'opening', inputs: 'both' }).number()
    expect(job.zone('den', 'terminals').chime).toBe(true)
  })

  it('is supervised in every zone, or in one of each device: the fire zone where there is one, else the first', () => {
    const one = schools({ sisters: 'one' })
    const of = (model: string, ...events: string[]) =>
      [defaultHouseRules, one].map((rules) => events.map((event) => made(model, event, { rules }).supervise))
    expect(of('ember-three', 'smoke', 'heat', 'freeze')).toEqual([
      [true, true, true],
      [true, false, false],
    ])
    const both = new SmallJob()
    both.houseRules = one
    both.add('den', 'reedling', { use: 'opening', inputs: 'both' }).number()
    expect(['open', 'terminals'].map((event) => both.zone('den', event).supervise)).toEqual([true, false])
    // What is carried leaves the house, and a cable is watched by its resistor.
    expect([made('beckon', 'panic').supervise, made('contact-w', 'open').supervise]).toEqual([false, false])
  })

  it('is held before sending as region and firm have it: burglary alone, where the panel can', () => {
    const morrow = { panel: 'panel/morrow-60' }
    const held = (model: string, event: string, over: Parameters<typeof made>[2]) =>
      made(model, event, over).transmissionDelay
    // North America names an abort window, Europe none.
    expect(held('latchet', 'open', { info: morrow })).toBe(true)
    expect(held('reedling', 'open', {})).toBe(false)
    const window = schools({ holdBurglary: 'window' })
    expect(held('reedling', 'open', { rules: window })).toBe(true)
    expect(held('latchet', 'open', { info: morrow, rules: schools({ holdBurglary: 'none' }) })).toBe(false)
    // Never fire, and nothing on a panel that has no such time.
    expect(held('ember-three', 'smoke', { rules: window })).toBe(false)
    expect(held('pebble-two', 'open', { info: { panel: 'panel/pinfold-16', grade: 1 }, rules: window })).toBe(
      false,
    )
  })
})
