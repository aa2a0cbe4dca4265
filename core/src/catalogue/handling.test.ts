import { describe, expect, it } from 'vitest'
import { catalogue } from '../testing/small-job.ts'
import { handlingLines, wayWords } from './describe.ts'
import type { DeviceModel } from './schema.ts'

const model = (id: string): DeviceModel => {
  const found = catalogue.get('device', `device/${id}`)
  if (!found) throw new Error(id)
  return found
}
const said = (entry: DeviceModel): Record<string, string> =>
  Object.fromEntries(handlingLines(entry).map(({ label, value }) => [label, value]))
const devices = catalogue.entries.filter((entry) => entry.kind === 'device')
const radio = devices.filter((entry) => entry.family !== null)

describe('how a device is handled', () => {
  it('is told of a two-way smoke detector with two cells', () => {
    expect(said(model('brander-8'))).toEqual({
      'Sticker is': 'inside, with the cover off: under the battery door, on the left',
      Batteries: '2 × CR123A',
      'Batteries go in': 'plus up',
      'Order of batteries': 'from the marked end, all within 20 s, else take all out for a minute',
      'First insert already sends': 'yes',
      'Ways to transmit':
        'hold the test button, 3 s (white while it asks, then green: the panel answered; amber: nobody did); lift it off its base (white for 1 s); insert the battery, 4 s (white until the panel answers, then green)',
      'Ready after power-up': '20 s',
      'Sleeps after a trip': '',
    })
  })

  it('is told of a one-way motion, which sleeps, and of a wired contact, which has neither battery nor sleep', () => {
    expect(said(model('skitter'))).toMatchObject({
      'Sticker is': 'inside, with the batteries out: under the battery nearest the wall',
      'First insert already sends': 'no',
      'Ready after power-up': '90 s',
      'Sleeps after a trip': '120 s',
    })
    expect(said(model('contact-w'))).toEqual({
      'Sticker is': 'outside: on the sleeve of its cable',
      Batteries: '',
      'Batteries go in': '',
      'Order of batteries': '',
      'First insert already sends': '',
      'Ways to transmit': 'open the contact',
      'Ready after power-up': '',
      'Sleeps after a trip': '',
    })
  })

  it('is said to be not stated where the maker leaves it out', () => {
    const { stickerPlace, readyAfterSeconds, sleepsSeconds, ...bare } = model('skitter')
    expect([stickerPlace, readyAfterSeconds, sleepsSeconds]).toEqual(['under-batteries', 90, 120])
    expect(
      said({ ...bare, ways: [{ way: 'walk', sends: 'event' }], batteries: { count: 2, type: 'AA' } }),
    ).toEqual({
      'Sticker is': 'under the battery nearest the wall',
      Batteries: '2 × AA',
      'Batteries go in': 'not stated',
      'Order of batteries': 'not stated',
      'First insert already sends': 'not stated',
      'Ways to transmit': 'walk',
      'Ready after power-up': 'not stated',
      'Sleeps after a trip': 'not stated',
    })
  })

  it('asks for no order of a single cell', () => {
    expect(said({ ...model('stilt'), batteries: { count: 1, type: 'CR123A' } })['Order of batteries']).toBe(
      '',
    )
  })

  it('gives a way with and without seconds and lamp', () => {
    expect(wayWords({ way: 'press it', sends: 'button' })).toBe('press it')
    expect(wayWords({ way: 'press it', sends: 'button', seconds: 2.5 })).toBe('press it, 2.5 s')
    expect(wayWords({ way: 'press it', sends: 'button', indicator: 'a wink' })).toBe('press it (a wink)')
  })
})

describe('the invented makers', () => {
  it.each(radio.map((entry) => [entry.name, entry] as const))('state it for %s', (_name, entry) => {
    expect(entry.stickerPlace).toBeDefined()
    expect(entry.batteries).not.toBeNull()
    expect(entry.batteries?.wayUp).toBeDefined()
    expect(entry.batteries?.order !== undefined).toBe((entry.batteries?.count ?? 0) > 1)
    // A device whose first insert already sends can be made to send by it.
    expect(entry.ways.some((way) => way.sends === 'power-up')).toBe(
      entry.batteries?.firstInsertLearns === true || entry.class === 'repeater',
    )
    for (const way of entry.ways) {
      expect(way.indicator, way.way).toBeDefined()
      if (way.way.startsWith('hold')) expect(way.seconds, way.way).toBeGreaterThan(0)
    }
    if (entry.class === 'motion') expect(entry.sleepsSeconds).toBeGreaterThan(0)
  })

  it('do not say the same of all: no sticker text serves a quarter of the models', () => {
    const counts = new Map<string, number>()
    for (const { sticker = '' } of devices) counts.set(sticker, (counts.get(sticker) ?? 0) + 1)
    expect(Math.max(...counts.values())).toBeLessThan(devices.length / 4)
    expect(new Set(devices.map((entry) => entry.stickerPlace)).size).toBe(3)
  })
})
