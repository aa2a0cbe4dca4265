import { describe, expect, it } from 'vitest'
import type { DeviceEvent } from '../catalogue/schema.ts'
import { aDevice } from '../job/testing/records.ts'
import type { Use } from '../job/records.ts'
import type { DevicePlace } from '../premises/places.ts'
import { rulesInForce } from '../job/rules-in-force.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { placesOf } from '../premises/places.ts'
import { systemOf } from '../system/system.ts'
import { adviseDevice } from './advise-device.ts'

const ostler = catalogue.get('panel', 'panel/ostler-s-8')
if (!ostler) throw new Error('the demo pack lacks a panel')

const base = new SmallJob()
const { schools } = rulesInForce(base.doc, base.houseRules)
const advised = (event: DeviceEvent, use: Use, place?: DevicePlace | null) =>
  adviseDevice({
    ...{ panel: ostler, device: { ...aDevice('one'), use }, event, place, region: 'europe', schools },
  })

describe('a device whose house nobody described', () => {
  it.each([undefined, null])('goes by the use stated on it: %s', (place) => {
    expect(advised('open', 'entry', place).need).toMatchObject({ away: 'entry-1', stay: 'entry-1' })
    expect(advised('glass', 'opening', place).need).toMatchObject({ stay: 'instant' })
    expect(advised('motion', 'off-way', place).need).toMatchObject({
      stay: 'ignore',
      watch: { sleeps: false },
    })
  })
})

describe('a device in a described house', () => {
  const job = new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: '2.11', entry2: 45 })
    .room('Hall')
    .room('Kitchen', { kind: 'kitchen' })
    .room('Bedroom', { kind: 'bedroom', sleeps: true })
    .way('Kitchen', 'Hall', 4)
    .opening('Back door', 'Kitchen')
    .add('pad', 'scriber-8', { room: 'Hall' })
    .add('glass', 'crackle-8', { room: 'Kitchen', use: 'opening' })
    .add('motion', 'watcher-8', { room: 'Bedroom', use: 'off-way' })
    .add('door', 'sill-8', { room: 'Kitchen', position: 'Back door', use: 'none' })
  const places = placesOf(job.doc, systemOf(job.doc, catalogue), rulesInForce(job.doc, job.houseRules))
  const placed = (key: string) => places.get(`device:${key}`)

  it('is in a room that is noisy, or slept in', () => {
    expect(placed('glass')?.noisy).toBe(true)
    expect(advised('glass', 'opening', placed('glass')).need).toMatchObject({
      away: 'instant',
      stay: 'ignore',
    })
    expect(advised('motion', 'off-way', placed('motion')).need.watch).toMatchObject({ sleeps: true })
  })

  it('goes by the house, not by what was once stated on it', () => {
    const place = placed('door')
    expect(place?.use).toBe('entry')
    const { need } = advised('open', 'opening', place)
    expect([need.away, need.stay]).toEqual(['entry-1', 'entry-1'])
    // The walk from it starts the first delay: that is what a type is held against.
    expect(need.watch).toMatchObject({ delay: place?.way?.delay })
    expect(place?.way?.delay).toBe(1)
  })
})
