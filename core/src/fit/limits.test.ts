import { describe, expect, it } from 'vitest'
import { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, PanelModel } from '../catalogue/schema.ts'
import { keepEntry } from '../catalogue/written.ts'
import type { JobInfo } from '../job/records.ts'
import { systemOf } from '../system/system.ts'
import { catalogue, SmallJob } from '../testing/small-job.ts'
import { fitAll } from './fit.ts'
import type { FitCode } from './reasons.ts'
import { repeaterTrouble } from './repeaters.ts'

const model = (id: string): DeviceModel => catalogue.get('device', `device/${id}`) ?? expect.fail(id)
const panel = (id: string): PanelModel => catalogue.get('panel', `panel/${id}`) ?? expect.fail(id)

/** The reason of one check against a contact that sends so often, on a Tarn that waits so long. */
function reason(
  code: FitCode,
  every: number | null,
  over: Partial<JobInfo> = {},
  window: number | null = 300,
) {
  const { superviseMinutes: _its, ...rest } = panel('tarn-40')
  const changed = catalogue.with([
    keepEntry({ ...model('reedling'), checkInMinutes: every }),
    keepEntry(window === null ? rest : { ...rest, superviseMinutes: window }),
  ])
  const job = new SmallJob({ grade: 1, ...over }).add('a', 'reedling')
  return fitAll(systemOf(job.doc, changed))
    .get('device:a')
    ?.reasons.find((one) => one.code === code)
}

describe('a panel’s window holds three check-ins of a device', () => {
  it.each<[number | null, string | null]>([
    // Three of 100 minutes are just 300.
    [100, null],
    [101, 'loss'],
    // As rare as the window is long: it may just come in time. Rarer, and it counts as lost between two of its own messages.
    [300, 'loss'],
    [301, 'no'],
    [null, null],
  ])('of one that sends every %s min: %s', (every, verdict) => {
    expect(reason('window', every)?.verdict ?? null).toBe(verdict)
  })

  it('tells whether it is lost outright, with both figures', () => {
    const facts = { model: 'Reedling contact', panel: 'Tarn 40', most: 300 }
    expect(reason('window', 301)?.facts).toEqual({ ...facts, every: 301, lost: true })
    expect(reason('window', 300)?.facts).toEqual({ ...facts, every: 300, lost: false })
  })

  it('is no matter where the panel states none', () => {
    expect(reason('window', 900, {}, null)).toBeUndefined()
  })
})

describe('time between messages by grade (EN 50131-5-3)', () => {
  it.each<[number, JobInfo['grade'], string | null]>([
    [240, 1, null],
    [241, 1, '240 min'],
    [120, 2, null],
    [121, 2, '120 min'],
    [1, 3, null],
    [2, 3, '100 s'],
  ])('every %s min at grade %s', (every, grade, most) => {
    expect(reason('check-in', every, { grade })?.facts ?? null).toEqual(
      most === null ? null : { model: 'Reedling contact', every, grade, most, source: 'EN 50131-5-3' },
    )
  })

  it('is asked in Europe, of what tells when it sends', () => {
    expect(reason('check-in', 900, { region: 'north-america' })).toBeUndefined()
  })

  it('misses it of what never checks in, but not of what sends only when it is pressed', () => {
    expect(reason('check-in', null)?.facts).toMatchObject({ every: null, most: '240 min' })
    const fits = (id: string) => {
      const job = new SmallJob({ grade: 1 }).add('a', id)
      return fitAll(systemOf(job.doc, catalogue))
        .get('device:a')
        ?.reasons.map(({ code }) => code)
    }
    expect([model('quartet').checkInMinutes, model('beckon').checkInMinutes]).toEqual([null, null])
    expect(fits('quartet')).toEqual(['replay'])
    expect(fits('beckon')).toEqual([])
  })

  it('says nothing behind a bridge that passes no supervision on', () => {
    const bridged = (over: Partial<PanelModel>): readonly FitCode[] => {
      const changed = catalogue.with([
        keepEntry({ ...model('pebble'), checkInMinutes: 900 }),
        keepEntry({ ...panel('sallow-m'), ...over }),
      ])
      const job = new SmallJob({ panel: 'panel/sallow-m', radioFirmware: null, grade: 1 })
      job.receiver('sallow-bridge').add('a', 'pebble')
      return (
        fitAll(systemOf(job.doc, changed))
          .get('device:a')
          ?.reasons.map(({ code }) => code) ?? []
      )
    }
    expect(bridged({ superviseMinutes: 300 })).toContain('bridge')
    expect(bridged({ superviseMinutes: 300 })).not.toContain('window')
    expect(bridged({ superviseMinutes: 300 })).not.toContain('check-in')
  })
})

describe('what a repeater relays', () => {
  const trouble = (job: SmallJob, key: string, entries: Catalogue = catalogue) => {
    const system = systemOf(job.doc, entries)
    const { device } = system.byId.get(`device:${key}`) ?? expect.fail(key)
    return repeaterTrouble(system, device)
  }
  const job = (): SmallJob => new SmallJob({ panel: 'panel/ostler-s-8', radioFirmware: null })

  it('is no matter of what is heard without one, and of one of its own family', () => {
    const one = job().add('near', 'spanner-8').add('a', 'sill-8').add('b', 'sill-8', { via: 'device:near' })
    expect([trouble(one, 'a'), trouble(one, 'b')]).toEqual([null, null])
  })

  it('is nothing where it is gone, or where the catalogue lacks its model', () => {
    const one = job().add('near', 'spanner-8').add('b', 'sill-8', { via: 'device:near' })
    const without = (id: string): Catalogue =>
      new Catalogue(catalogue.kept.filter(({ entry }) => entry.id !== id))
    expect(trouble(one, 'b')).toBeNull()
    const system = systemOf(one.doc, without('device/spanner-8'))
    const { device } = system.byId.get('device:b') ?? expect.fail('b')
    expect(repeaterTrouble(system, device)).toEqual({ is: 'gone' })
    // Nor is anything said to be fine of a device whose own model nobody has.
    const lost = systemOf(one.doc, without('device/sill-8'))
    expect(repeaterTrouble(lost, device)).toEqual({ is: 'gone' })
  })

  it('is nothing of another family, nor through what is no repeater', () => {
    const one = job().add('near', 'spanner-8', { room: 'loft' }).add('odd', 'sill-8', { room: '' })
    one.add('a', 'reedling', { via: 'device:near' }).add('w', 'contact-w', { via: 'device:near' })
    one.add('b', 'sill-8', { via: 'device:odd' })
    const relays = { is: 'other-family', repeater: 'Spanner 8 repeater in loft', relays: 'Curlew 8' }
    expect(trouble(one, 'a')).toEqual({ ...relays, family: 'Wren' })
    // A wired device has no family to be relayed.
    expect(trouble(one, 'w')).toEqual({ ...relays, family: null })
    expect(trouble(one, 'b')).toEqual({ is: 'no-repeater', repeater: 'Sill 8 contact' })
  })

  it('is not relayed again, unless its family says so', () => {
    const one = job()
      .add('near', 'spanner-8', { room: 'hall' })
      .add('far', 'spanner-8', { room: 'barn', via: 'device:near' })
      .add('b', 'sill-8', { via: 'device:far' })
    const series = {
      is: 'in-series',
      repeater: 'Spanner 8 repeater in barn',
      behind: 'Spanner 8 repeater in hall',
      family: 'Curlew 8',
    }
    expect(trouble(one, 'b')).toEqual(series)
    const family = catalogue.get('family', 'family/curlew-8') ?? expect.fail('family')
    const { repeaters: _none, ...plain } = family
    expect(
      trouble(one, 'b', catalogue.with([keepEntry({ ...family, repeaters: { most: 6, chain: true } })])),
    ).toBeNull()
    // A family that says nothing of repeaters promises no chain.
    expect(trouble(one, 'b', catalogue.with([keepEntry(plain)]))).toEqual(series)
  })
})
