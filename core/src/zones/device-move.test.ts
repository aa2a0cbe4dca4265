import { describe, expect, it } from 'vitest'
import { recordOf, recordsOf } from '../job/document.ts'
import { applyOps, invertOps } from '../job/edit.ts'
import { enrolmentOf } from '../job/enrolment.ts'
import type { Device } from '../job/records.ts'
import { offerDevices } from '../fit/offers.ts'
import { systemOf } from '../system/system.ts'
import { jobOnEach } from '../testing/panels.ts'
import { catalogue, cleanHouse, cleanTarn, SmallJob } from '../testing/small-job.ts'
import { moveDeviceOps, movedLabels, type NewPlace } from './device-move.ts'

const at = '2026-05-05T09:00:00.000Z'
const nowhere: NewPlace = { room: '', position: '', use: 'none', opening: null, via: null }
const deviceOf = (job: SmallJob, key: string): Device =>
  recordOf(job.doc, 'device', `device:${key}`) as Device
const opsFor = (job: SmallJob, key: string, over: Partial<NewPlace>) => {
  const of = { doc: job.doc, catalogue }
  const device = deviceOf(job, key)
  const [place, rules] = [{ ...nowhere, ...over }, job.houseRules]
  const labels = movedLabels(of, device, { place, rules })
  return moveDeviceOps(of, device, { place, labels, rules, at })
}
const move = (job: SmallJob, key: string, over: Partial<NewPlace>): SmallJob =>
  job.apply(opsFor(job, key, over))
const zonesOf = (job: SmallJob, key: string) =>
  recordsOf(job.doc, 'zone').filter(({ device }) => device === `device:${key}`)

describe('a device that is moved', () => {
  it('is called by its new place, and keeps number, ID, type and loop', () => {
    const job = cleanTarn()
    const [zone] = zonesOf(job, 'lounge')
    job.learn(zone?.id ?? '', '20417733')
    move(job, 'lounge', { room: 'Dining room', use: 'off-way' })
    expect(deviceOf(job, 'lounge')).toMatchObject({ room: 'Dining room', use: 'off-way', movedAt: at })
    const [moved] = zonesOf(job, 'lounge')
    expect(moved).toEqual({ ...zone, label: 'Dining Glass' })
    expect(enrolmentOf(job.doc, zone?.id ?? '')?.serial).toBe('20417733')
  })

  it('keeps nothing that was said or measured of the old place', () => {
    const job = cleanHouse()
    const motion = systemOf(job.doc, catalogue).devices.find(({ model }) => model.class === 'motion')
    const key = motion?.device.id.replace('device:', '') ?? ''
    job.set(`device:${key}`, { heightM: 2.2, gapMm: 4, onSteel: true, deferred: 'no wall yet' })
    job.sees(key, { room: key })
    expect(recordsOf(job.doc, 'sight').some(({ device }) => device === `device:${key}`)).toBe(true)
    move(job, key, { room: 'attic' })
    expect(deviceOf(job, key)).toMatchObject({ heightM: null, gapMm: null, onSteel: false, deferred: null })
    expect(recordsOf(job.doc, 'sight').filter(({ device }) => device === `device:${key}`)).toEqual([])
  })

  it('has a label unlike the others of its new room, and its own where nothing better can be said', () => {
    const job = SmallJob.morrow()
      .add('one', 'latchet', { room: 'porch', position: 'door', use: 'entry' })
      .add('two', 'latchet', { room: 'study', position: 'door', use: 'opening' })
      .number()
    move(job, 'two', { room: 'porch', position: 'door' })
    expect(zonesOf(job, 'one').map(({ label }) => label)).toEqual(['PORCH DOOR'])
    expect(zonesOf(job, 'two').map(({ label }) => label)).toEqual(['PORCH DOOR 2'])
    move(job, 'two', { room: '' })
    expect(zonesOf(job, 'two').map(({ label }) => label)).toEqual(['PORCH DOOR 2'])
  })

  it('goes to the area of its new room: added there, taken out here where the panel has it already', () => {
    const job = new SmallJob({ panel: 'panel/ostler-s-8' })
      .area(2, 'Office')
      .room('hall', { area: 'area:1' })
      .room('desk', { area: 'area:2' })
      .add('hall', 'sill-8', { position: 'door', use: 'entry' })
      .number()
    const [zone] = zonesOf(job, 'hall')
    expect(zone).toMatchObject({ area: 'area:1', leaves: null })
    move(job, 'hall', { room: 'desk', position: 'window' })
    expect(zonesOf(job, 'hall')).toMatchObject([{ area: 'area:2', leaves: null }])
    move(job, 'hall', { room: 'hall', position: 'door' })
    job.learn(zone?.id ?? '', 'K204177')
    move(job, 'hall', { room: 'desk', position: 'window' })
    expect(zonesOf(job, 'hall')).toMatchObject([{ area: 'area:2', leaves: 'area:1' }])
    // A room of no area leaves it where it is.
    job.room('loft')
    move(job, 'hall', { room: 'loft' })
    expect(zonesOf(job, 'hall')).toMatchObject([{ area: 'area:2' }])
  })
})

/** Every model that this panel hears with all its receivers, each in a room of its own. */
function everyModelOn(panel: string): SmallJob {
  const entry = catalogue.get('panel', panel)
  const job = new SmallJob({ panel, region: entry?.regions[0] ?? 'europe', radioFirmware: null })
  for (const id of entry?.receivers ?? [])
    if (id !== entry?.builtIn) job.receiver(id.replace('receiver/', ''))
  const offers = offerDevices(systemOf(job.doc, catalogue), catalogue)
  for (const { model, fit } of offers) {
    const key = model.id.replace('device/', '')
    if (fit.verdict !== 'no' && !model.carried) job.add(key, key, { room: `${key.replace(/\d/g, '')} room` })
  }
  return job.number()
}

describe.each(jobOnEach.map(([panel]) => panel))('on %s', (panel) => {
  it('every model that hangs is moved with its numbers, and undone whole', () => {
    const job = everyModelOn(`panel/${panel}`)
    const { devices } = systemOf(job.doc, catalogue)
    expect(devices.length).toBeGreaterThan(6)
    for (const { device, model } of devices) {
      const key = device.id.replace('device:', '')
      const before = recordsOf(job.doc, 'zone')
      const ops = opsFor(job, key, { room: 'cellar' })
      const moved = applyOps(job.doc, ops)
      if (!moved.ok) expect.fail(JSON.stringify(moved.conflict))
      for (const zone of before) {
        const now = recordOf(moved.doc, 'zone', zone.id)
        if (zone.device !== device.id) expect(now).toEqual(zone)
        else expect(now).toEqual({ ...zone, label: now?.label })
        if (zone.device !== device.id) continue
        // Cellar stands in no word list: a basement is the same.
        expect(now?.label.toLowerCase(), model.name).toMatch(/cellar|basement/)
        expect(before.filter(({ label }) => label === now?.label)).toEqual([])
      }
      const back = applyOps(moved.doc, invertOps(ops))
      expect(back).toMatchObject({ ok: true, doc: { records: job.doc.records } })
    }
  })
})
