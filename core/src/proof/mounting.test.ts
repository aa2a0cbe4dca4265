import { describe, expect, it } from 'vitest'
import { defaultHouseRules } from '../house-rules/house-rules.ts'
import { catalogue, cleanHouse, SmallJob } from '../testing/small-job.ts'
import { PANEL } from './copy.ts'
import { mountNote, mountPoints } from './mounting.ts'
import { itemOf, itemsOf, learned, noon, record, stopOf, tarn } from './testing/proved-jobs.ts'

const { figures } = defaultHouseRules
const points = (job: SmallJob, key: string) =>
  mountPoints({ doc: job.doc, catalogue }, stopOf(job, key === PANEL ? key : `device:${key}`), figures)
const asked = (job: SmallJob, key: string): string[] =>
  points(job, key)
    .filter(({ doubt }) => doubt !== '')
    .map((point) => point.key)

/** One device in a described room. */
const inRoom = (model: string, room: Parameters<SmallJob['room']>[1], over = {}): SmallJob =>
  new SmallJob().room('den', room).add('den', model, over).number()

describe('what is asked at a place', () => {
  // By hand: only what house, model or reading makes doubtful.
  it.each<[string, SmallJob, string[]]>([
    ['a contact with a stated gap', inRoom('reedling', {}), []],
    // 18 mm by its maker: 13.5 mm is three quarters of it.
    ['a gap measured near its end', inRoom('reedling', {}, { gapMm: 13.5 }), ['gap']],
    ['a gap well within', inRoom('reedling', {}, { gapMm: 13.4 }), []],
    ['a contact on steel', inRoom('reedling', {}, { onSteel: true }), ['gap']],
    ['a motion in a living room', inRoom('stilt-hound', { kind: 'living' }), []],
    ['a motion in a kitchen', inRoom('stilt-hound', { kind: 'kitchen' }), ['heat']],
    ['a motion hung too high', inRoom('stilt-hound', {}, { heightM: 2.2 }), ['height']],
    ['a motion at the upper end', inRoom('stilt-hound', {}, { heightM: 2.1 }), []],
    ['a motion without pet setting where a pet roams', inRoom('stilt', { petKg: 8 }), ['pets']],
    ['a motion that bears the pet', inRoom('stilt-hound', { petKg: 8 }), []],
    ['a smoke in a bathroom', inRoom('ember-three', { kind: 'bathroom' }), ['steam']],
    ['a smoke on the landing', inRoom('ember-three', { kind: 'hall' }), []],
    ['a heat detector in a kitchen', inRoom('glow', { kind: 'kitchen' }), []],
    ['glass break in a workshop', inRoom('pane-ear', { kind: 'workshop' }), ['noise']],
    ['a contact outdoors', inRoom('reedling-yard', { kind: 'outdoors' }), ['weather']],
  ])('%s', (_name, job, keys) => {
    expect(asked(job, 'den')).toEqual(keys)
  })

  it('a motion that sees the leaf of an outer door is asked for glass, one of an inner door is not', () => {
    const job = cleanHouse().sees('hall', { opening: 'front door' })
    const found = points(job, 'hall').find(({ key }) => key === 'glass')
    expect(found?.doubt).toBe('It sees front door.')
    const inner = cleanHouse().opening('inner door', 'hall', { to: 'room:kitchen' })
    expect(asked(inner.sees('hall', { opening: 'inner door' }), 'hall')).toEqual([])
  })

  it('a middling reading asks for what weakens the link, and the best band does not', () => {
    const job = tarn()
    expect(asked(job, 'porch')).toEqual([])
    record(job, itemOf(job, 'porch', 'placement'), { reading: 3, at: noon })
    expect(points(job, 'porch')[0]).toMatchObject({
      key: 'link',
      doubt: 'It was read at 3 bars; 4 is its best band.',
    })
    record(job, itemOf(job, 'porch', 'placement'), { reading: 4, at: '2026-05-04T12:10:00Z' })
    expect(asked(job, 'porch')).toEqual([])
  })

  it('the supply of the panel is asked by region, and no region gets the other’s', () => {
    const of = (region: 'europe' | 'north-america' | 'own') =>
      asked(tarn().set('job:main', { region }), PANEL)
    expect(of('europe')).toEqual(['switched', 'circuit', 'residual'])
    expect(of('own')).toEqual(['switched', 'circuit', 'residual'])
    expect(of('north-america')).toEqual(['switched', 'reset', 'plug'])
  })

  it('every class of device that hangs somewhere has something to see to', () => {
    const models = catalogue.all('device').filter(({ carried }) => !carried)
    expect(new Set(models.map((model) => model.class)).size).toBe(13)
    for (const model of models) {
      const job = new SmallJob({ panel: 'panel/quillet-32' }).add('den', model.id.slice('device/'.length))
      expect(points(job, 'den').length, model.id).toBeGreaterThan(0)
      expect(itemsOf(job, 'den').map(({ kind }) => kind)).toContain('mount')
    }
  })

  it('nothing that is carried is mounted', () => {
    expect(itemsOf(tarn(), 'fob').map(({ kind }) => kind)).not.toContain('mount')
    expect(itemsOf(tarn(), 'bedroom').map(({ kind }) => kind)).not.toContain('mount')
  })
})

describe('what goes on record', () => {
  const two = points(inRoom('reedling', {}, { onSteel: true, gapMm: 8 }), 'den')

  it('waits for an answer to everything that is asked, and says what was asked', () => {
    expect(mountNote(two, new Set(), '')).toBeNull()
    expect(mountNote(two, new Set(['free', 'dry', 'frame']), '')).toBeNull()
    expect(mountNote(two, new Set(['gap']), '')).toBe(
      'Asked and seen: Shut, magnet and sensor are at most 9 mm apart, the marked sides together.',
    )
  })

  it('says nothing that nobody was asked, and tells an exception in its own words', () => {
    expect(mountNote(points(inRoom('reedling', {}), 'den'), new Set(), '')).toBe('')
    expect(mountNote(two, new Set(), 'magnet on the wrong side')).toBe(
      'Not as shown: magnet on the wrong side',
    )
  })
})

it('is owed again when the place changes, not when the device is learned', () => {
  const job = new SmallJob().add('porch', 'reedling', { use: 'entry' }).number()
  record(job, itemOf(job, 'porch', 'mount'))
  learned(job, 'porch')
  expect(itemOf(job, 'porch', 'mount').state).toBe('pass')
  job.set('device:porch', { position: 'back door' })
  expect(itemOf(job, 'porch', 'mount')).toMatchObject({ state: 'stale' })
})
